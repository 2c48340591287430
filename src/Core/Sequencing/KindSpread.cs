using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Core.Sequencing;

/// <summary>How kinds are laid over planters.</summary>
public enum SpreadScheme
{
    /// <summary>One kind to each planter.</summary>
    OneEach,

    /// <summary>One early, one mid and one late kind to each planter.</summary>
    OneOfEachThird,
}

/// <summary>Bulbs of one kind to be laid over planters.</summary>
/// <param name="Plant">The bulb.</param>
/// <param name="Count">How many there are.</param>
public sealed record KindAtHand(Plant Plant, int Count);

/// <summary>What a planter would take of a kind.</summary>
/// <param name="Plant">The kind.</param>
/// <param name="Third">When it flowers.</param>
/// <param name="Least">Fewest that make a show.</param>
/// <param name="Most">Most that still leave gaps.</param>
public sealed record SpreadRoom(Plant Plant, SpringThird Third, int Least, int Most);

/// <summary>Kinds of bulbs to be laid over many planters, without mixing what should not be mixed.</summary>
/// <param name="Planters">Planters in the order in which people walk by.</param>
/// <param name="Kinds">Kinds with their counts.</param>
/// <param name="Scheme">The scheme.</param>
/// <param name="Install">Planting day.</param>
/// <param name="Lift">The day they come out.</param>
/// <param name="NeighboursDiffer">True when planters side by side must not carry the same kind.</param>
public sealed record SpreadQuestion(
    IReadOnlyList<Planter> Planters,
    IReadOnlyList<KindAtHand> Kinds,
    SpreadScheme Scheme,
    LocalDate Install,
    LocalDate Lift,
    bool NeighboursDiffer
)
{
    /// <summary>Every fault of the question.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        if (Planters.Count == 0)
            faults.Add("planters", "choose at least one");
        if (Kinds.Count == 0)
            faults.Add("kinds", "choose at least one");
        if (Lift <= Install)
            faults.Add("lift", $"must be after the planting day {Install.ToString("d MMM uuuu", null)}");
        for (int i = 0; i < Kinds.Count; i++)
        {
            if (Kinds[i].Count is < 1 or > DisplayItem.MostCount)
                faults.Add($"kinds[{i}].count", $"must be from 1 to 10,000 (it is {Kinds[i].Count})");
            if (!SpringCalendar.IsSpringBulb(Kinds[i].Plant))
                faults.Add($"kinds[{i}]", $"{Kinds[i].Plant.CommonName} is no hardy spring bulb");
        }
        if (NeighboursDiffer && Kinds.Count == 1 && Planters.Count > 1)
            faults.Add(
                "neighboursDiffer",
                "conflicts with a single kind: planters side by side could not differ. Choose a second kind, or let neighbours be alike"
            );
        return faults.Faults;
    }

    /// <summary>What each planter would take of each kind; kinds that do not flower or fit there are left out.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="kernel">The season's kernel of the plan year that holds their spring.</param>
    /// <param name="done">Told the count of planters measured.</param>
    /// <param name="cancel">Stops the work.</param>
    public IReadOnlyList<IReadOnlyList<SpreadRoom>> Rooms(
        Plan plan,
        SeasonKernel kernel,
        IProgress<int>? done = null,
        CancellationToken cancel = default
    )
    {
        var calendar = new SpringCalendar(plan, kernel);
        var rooms = new List<IReadOnlyList<SpreadRoom>>();
        foreach (Planter planter in Planters)
        {
            cancel.ThrowIfCancellationRequested();
            rooms.Add([.. Kinds.Select(k => Room(plan, calendar, planter, k.Plant)).OfType<SpreadRoom>()]);
            done?.Report(rooms.Count);
        }
        return rooms;
    }

    private SpreadRoom? Room(Plan plan, SpringCalendar calendar, Planter planter, Plant plant)
    {
        if (planter.Exposure < plant.LightLow || planter.Survey.RestsFrom(plant, Install))
            return null;
        var display = new Display("asked", planter.Id, DisplayLayer.Bulbs, Install, Lift, [new DisplayItem(plant.Id, 1)]);
        BulbStack alone = BulbStack.LayOut(planter, plan.Site, [new PlannedBulb(plant, 1, null)]);
        if (
            alone.Problems.Count > 0
            || calendar.ThirdOf(plant) is not { } third
            || calendar.Odds(planter, display, plant).Max() < ColourOdds.InColour
        )
            return null;
        int most = (int)
            Math.Floor(alone.Layers[0].Fits * (planter.Form.IsBed && Scheme == SpreadScheme.OneOfEachThird ? 1.0 / 3 : StackCandidate.LeavesGaps));
        int least = Math.Max(BulbCluster.Least(planter, plant.Bulb!), StackCandidate.Shows(plan.Site, planter, plant));
        return most < 1 ? null : new SpreadRoom(plant, third, Math.Min(least, most), most);
    }
}

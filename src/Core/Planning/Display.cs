using System.Text.Json.Serialization;
using NodaTime;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Planning;

/// <summary>The layer of a planter that a display fills; two displays cannot fill one layer at once.</summary>
public enum DisplayLayer
{
    /// <summary>What stands for years: a tree, shrubs, perennials.</summary>
    Standing,

    /// <summary>What changes with the seasons.</summary>
    Seasonal,

    /// <summary>Bulbs at their depths.</summary>
    Bulbs,
}

/// <summary>What becomes of plants when their display comes out.</summary>
public enum PlantFate
{
    /// <summary>Composted.</summary>
    Compost,

    /// <summary>Stays in the planter with the next display.</summary>
    Stays,

    /// <summary>Potted up or heeled in, to be used again.</summary>
    Keep,

    /// <summary>Lifted, dried and stored.</summary>
    Store,

    /// <summary>Moved into a bed for good.</summary>
    ToBed,

    /// <summary>Composted once its seed is taken.</summary>
    SeedSaved,
}

/// <summary>Plants of one kind in a display.</summary>
/// <param name="PlantId">The plant.</param>
/// <param name="Count">How many, 1 to 10,000.</param>
/// <param name="DepthCm">For bulbs, depth of the base below the finished surface; null by rule.</param>
public sealed record DisplayItem(string PlantId, int Count, double? DepthCm = null)
{
    /// <summary>Most of one kind in one planter.</summary>
    public const int MostCount = 10_000;

    /// <summary>Most bulbs in one clump.</summary>
    public const int MostInClump = 50;

    /// <summary>For bulbs, how many go into one clump; null to spread them evenly.</summary>
    public int? Clump { get; init; }

    /// <summary>Where each plant stands, cm from the planter's middle, as laid out by a person; null to have it laid out.</summary>
    public IReadOnlyList<PlanePoint>? Places { get; init; }

    /// <summary>
    /// The day on which these go in, where it is not the display's own: earlier for what has stayed on from the display before,
    /// later for what is plugged in while it stands. Null for what goes in with the display.
    /// </summary>
    public LocalDate? Since { get; init; }

    /// <summary>True for bulbs forced in nursery pots and plugged in about to flower: they have had their cold.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool Forced { get; init; }

    /// <summary>What becomes of them when the display comes out; null when nobody has said.</summary>
    public PlantFate? Fate { get; init; }

    /// <summary>The form in which they are bought, by its name; null for the usual one. See <see cref="GoodsForm"/>.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Form { get; init; }
}

/// <summary>What a planner wants of two bulbs' flowers.</summary>
public enum PairWish
{
    /// <summary>To be seen together.</summary>
    Together,

    /// <summary>One after the other.</summary>
    Follow,
}

/// <summary>Two bulbs of a stack whose flowers a planner pairs.</summary>
/// <param name="FirstPlantId">The one, the earlier when they follow.</param>
/// <param name="SecondPlantId">The other.</param>
/// <param name="Wish">What is wanted.</param>
public sealed record BloomPair(string FirstPlantId, string SecondPlantId, PairWish Wish);

/// <summary>The plants that stand in one layer of a planter from an install date to a lift date.</summary>
/// <param name="Id">Short name.</param>
/// <param name="PlanterId">The planter.</param>
/// <param name="Layer">The layer it fills.</param>
/// <param name="Install">The day it goes in.</param>
/// <param name="Lift">The day it comes out; the next may go in on the same day.</param>
/// <param name="Items">Its plants, at least one kind.</param>
public sealed record Display(string Id, string PlanterId, DisplayLayer Layer, LocalDate Install, LocalDate Lift, IReadOnlyList<DisplayItem> Items)
    : ISubject
{
    string ISubject.Name => Id;

    /// <summary>Bulbs whose flowers are meant to meet or to follow; empty for none.</summary>
    public IReadOnlyList<BloomPair> Pairs { get; init; } = [];

    /// <summary>Cuts planned while it stands; empty for none.</summary>
    public IReadOnlyList<CutBack> Cuts { get; init; } = [];

    /// <summary>Longest a display may stand, years.</summary>
    public const int LongestYears = 60;

    /// <summary>True for what stands for as long as it lives: nobody has said when it comes out.</summary>
    [JsonIgnore]
    public bool IsOpenEnded => Lift == OpenEnd(Install);

    /// <summary>The lift day of what stands for as long as it lives.</summary>
    public static LocalDate OpenEnd(LocalDate install) => install.PlusYears(LongestYears);

    /// <summary>True where a plant can belong to a layer: bulbs and tubers to the bulb layer, and what goes out in leaf to the others.</summary>
    public static bool CanHold(DisplayLayer layer, Plant plant) => layer == DisplayLayer.Bulbs ? plant.Bulb is not null : plant.GoesOutInLeaf;

    /// <summary>True when it stands on a day.</summary>
    public bool StandsOn(LocalDate day) => Install <= day && day < Lift;

    /// <summary>Every fault of the display on its own.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        if (!Ids.IsValid(Id))
            faults.Add("id", Ids.Rule);
        if (!faults.Day("install", Install))
            return faults.Faults;
        if (Lift <= Install)
            faults.Add("lift", $"must be after the install day {Install.ToString("d MMM uuuu", null)}");
        else if (Lift > Install.PlusYears(LongestYears))
            faults.Add("lift", $"must be within {LongestYears} years of the install day");
        if (Items.Count == 0)
            faults.Add("items", "must hold at least one plant");
        for (int i = 0; i < Items.Count; i++)
        {
            if (Items[i].Count is < 1 or > DisplayItem.MostCount)
                faults.Add($"items[{i}].count", $"must be from 1 to 10,000 (it is {Items[i].Count})");
            if (Items[i].DepthCm is { } depth)
                faults.Range($"items[{i}].depthCm", depth, 1, 150, "cm");
            if (Items[i].Clump is < 2 or > DisplayItem.MostInClump)
                faults.Add($"items[{i}].clump", $"must be from 2 to {DisplayItem.MostInClump}, or left out");
            if (
                Items[i].Places is { } places
                && (places.Count != Items[i].Count || places.Any(p => !(Math.Abs(p.XCm) <= 100_000 && Math.Abs(p.YCm) <= 100_000)))
            )
                faults.Add($"items[{i}].places", "must give one place for each plant, in cm from the planter's middle");
            if (string.IsNullOrEmpty(Items[i].PlantId))
                faults.Add($"items[{i}].plantId", "must name a plant");
        }
        for (int i = 0; i < Pairs.Count; i++)
        {
            if (
                Pairs[i].FirstPlantId == Pairs[i].SecondPlantId
                || Items.All(x => x.PlantId != Pairs[i].FirstPlantId)
                || Items.All(x => x.PlantId != Pairs[i].SecondPlantId)
            )
                faults.Add($"pairs[{i}]", "must name two different bulbs of this display");
        }
        for (int i = 0; i < Items.Count; i++)
        {
            if (Items[i].Since is { } since && (since >= Lift || since < Install.PlusYears(-LongestYears)))
                faults.Add(
                    $"items[{i}].since",
                    $"must be before the lift day {Lift.ToString("d MMM uuuu", null)}, and at most {LongestYears} years before the install day"
                );
        }
        for (int i = 0; i < Cuts.Count; i++)
        {
            faults.AddAll($"cuts[{i}]", Cuts[i].Faults());
            if (Items.All(x => x.PlantId != Cuts[i].PlantId))
                faults.Add($"cuts[{i}].plantId", "must name a plant of this display");
            if (Cuts[i].Day <= Install || Cuts[i].Day >= Lift)
                faults.Add(
                    $"cuts[{i}].day",
                    $"must lie between {Install.ToString("d MMM uuuu", null)} and {Lift.ToString("d MMM uuuu", null)}, while the display stands"
                );
        }
        // One kind may stand twice when some of it went in on another day, or was bought in another form.
        foreach (
            string twice in Items
                .GroupBy(i => (i.PlantId, i.Since, i.Form))
                .Where(g => g.Count() > 1 && Layer != DisplayLayer.Bulbs)
                .Select(g => g.Key.PlantId)
                .Distinct(StringComparer.Ordinal)
        )
            faults.Add("items", $"holds {twice} twice; give it once with the sum");
        return faults.Faults;
    }
}

/// <summary>A named changeover: every display that goes in or comes out within its days belongs to it.</summary>
/// <param name="Id">Short name.</param>
/// <param name="Name">Name for people.</param>
/// <param name="FirstDay">First day of work.</param>
/// <param name="LastDay">Last day of work, included.</param>
public sealed record Turn(string Id, string Name, LocalDate FirstDay, LocalDate LastDay)
{
    /// <summary>The day by which what goes in should be full; null for none.</summary>
    public LocalDate? FullBy { get; init; }

    /// <summary>The first day on which what goes in can be delivered; null when nobody has said.</summary>
    public LocalDate? Delivery { get; init; }

    /// <summary>People at work on it; null for the usual crew.</summary>
    public int? People { get; init; }

    /// <summary>True when a day is one of the turn's.</summary>
    public bool Holds(LocalDate day) => FirstDay <= day && day <= LastDay;

    /// <summary>Every fault of the turn.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        if (!Ids.IsValid(Id))
            faults.Add("id", Ids.Rule);
        faults.Text("name", Name, 60);
        faults.Days("firstDay", FirstDay, "lastDay", LastDay);
        if (!faults.IsEmpty)
            return faults.Faults;
        if (FullBy is { } full && (full < FirstDay || full > FirstDay.PlusYears(1)))
            faults.Add("fullBy", "must be within a year after the first day");
        if (Delivery is { } delivery && (delivery < FirstDay.PlusYears(-1) || delivery > LastDay.PlusDays(60)))
            faults.Add("delivery", "must be at most a year before the first day and 60 days after the last");
        if (People is { } people)
            faults.Range("people", people, 1, 200, "people");
        return faults.Faults;
    }
}

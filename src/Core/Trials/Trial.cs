using NodaTime;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Review;

namespace UnrulyMeadow.Core.Trials;

/// <summary>What is tried in one planter.</summary>
/// <param name="PlanterId">The planter.</param>
/// <param name="PlantId">The kind.</param>
public sealed record TrialPlanting(string PlanterId, string PlantId);

/// <summary>Where a trial compares: pots and ground of each area by themselves, since what stands alike is compared.</summary>
/// <param name="AreaId">The area.</param>
/// <param name="InGround">True for beds, false for containers.</param>
public readonly record struct TrialPlace(string AreaId, bool InGround)
{
    /// <summary>The place of a planter.</summary>
    public static TrialPlace Of(Planter planter) => new(planter.AreaId, planter.Form.IsBed);

    /// <summary>Its id as a block.</summary>
    public string BlockId => $"{AreaId}/{(InGround ? "ground" : "pots")}";
}

/// <summary>A trial of kinds over planters, one kind in each, judged by what review walks find.</summary>
/// <param name="Id">Its own id.</param>
/// <param name="Name">What it is called.</param>
/// <param name="First">From when reviews count.</param>
/// <param name="Last">Until when.</param>
/// <param name="Plantings">What is tried where.</param>
public sealed record Trial(Guid Id, string Name, LocalDate First, LocalDate Last, IReadOnlyList<TrialPlanting> Plantings)
{
    /// <summary>The longest name.</summary>
    public const int LongestName = 80;

    // What lasts is watched for some years, not for ever.
    private const int MostYears = 5;

    /// <summary>Most planters in one trial.</summary>
    public const int MostPlanters = 1000;

    /// <summary>Lays a trial out.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="name">What it is called.</param>
    /// <param name="first">From when reviews count.</param>
    /// <param name="last">Until when.</param>
    /// <param name="plantIds">The kinds.</param>
    /// <param name="planterIds">The planters.</param>
    /// <param name="seed">Where chance begins.</param>
    /// <exception cref="InvalidInputException">A planter by itself, too few of anything, or what cannot be compared.</exception>
    public static Trial LayOut(
        Plan plan,
        string name,
        LocalDate first,
        LocalDate last,
        IReadOnlyList<string> plantIds,
        IReadOnlyList<string> planterIds,
        int seed
    )
    {
        var faults = new FaultList();
        faults.Phrase("name", name, LongestName);
        if (faults.Day("first", first) && (last <= first || last > first.PlusYears(MostYears)))
            faults.Add("last", $"must be after the first day, and within {MostYears} years of it");
        if (planterIds.Count > MostPlanters)
            faults.Add("planters", $"must be at most {MostPlanters} (there are {planterIds.Count})");
        List<Planter> planters = [.. planterIds.Distinct(StringComparer.Ordinal).Select(plan.FindPlanter).OfType<Planter>()];
        List<IGrouping<TrialPlace, Planter>> blocks = [.. planters.GroupBy(TrialPlace.Of)];
        foreach (Planter alone in blocks.Where(b => !b.Skip(1).Any()).Select(b => b.First()))
        {
            faults.Add(
                "planters",
                $"{alone.Name} is the only {(alone.Form.IsBed ? "bed" : "container")} of {plan.AreaOf(alone).Name}: by itself it is compared with nothing"
            );
        }
        faults.ThrowIfAny();
        ILookup<string, Planter> of = planters.ToLookup(p => TrialPlace.Of(p).BlockId, StringComparer.Ordinal);
        return new Trial(
            Guid.CreateVersion7(),
            name.Trim(),
            first,
            last,
            [
                .. TrialLayout
                    .Of(plantIds, [.. blocks.Select(b => new TrialBlock(b.Key.BlockId, b.Count()))], seed)
                    .Select(p => new TrialPlanting(of[p.BlockId].ElementAt(p.Place - 1).Id, p.KindId)),
            ]
        );
    }

    /// <summary>Scores of its plantings: the middle of what reviews rated the planter while the trial ran. What nobody looked at has none.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="log">The log of that time.</param>
    public IReadOnlyList<(TrialPlanting Planting, TrialScore Score)> Scores(Plan plan, IEnumerable<Observation> log)
    {
        ILookup<string, int> ratings = log.Where(o => o.Counts && o.Review is not null && o.Day >= First && o.Day <= Last)
            .ToLookup(o => o.PlanterId, o => o.Review!.Rating, StringComparer.Ordinal);
        return
        [
            .. Plantings
                .Where(p => ratings.Contains(p.PlanterId) && plan.FindPlanter(p.PlanterId) is not null)
                .Select(p => (p, new TrialScore(p.PlantId, TrialPlace.Of(plan.FindPlanter(p.PlanterId)!).BlockId, ratings[p.PlanterId].Average()))),
        ];
    }

    /// <summary>What its scores say; null where they are too few to say anything, or cannot be compared.</summary>
    /// <param name="scores">Scores, of all places or of some.</param>
    public static TrialResult? Judge(IEnumerable<TrialScore> scores)
    {
        List<TrialScore> all = [.. scores];
        return
            all.Select(s => s.KindId).Distinct(StringComparer.Ordinal).Skip(1).Any()
            && TrialLayout.IsConnected(all.Select(s => (s.KindId, s.BlockId)))
            ? TrialResult.Of(all)
            : null;
    }
}

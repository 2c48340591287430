using NodaTime;
using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Ahead;

/// <summary>What becomes of tulips over the years ahead.</summary>
public enum TulipCycle
{
    /// <summary>As each planter's house rule says.</summary>
    ByHouseRule,

    /// <summary>Lifted after every bloom and bought anew.</summary>
    LiftEachYear,

    /// <summary>Left until less than half of their first show is to be expected, then replaced.</summary>
    LeaveAndReplace,
}

/// <summary>How far to look ahead, and how.</summary>
/// <param name="Start">First day of the plan year that is repeated, the first of a month.</param>
/// <param name="Years">Plan years, that one included, 2 to 10.</param>
/// <param name="Tulips">What becomes of tulips, and of other bulbs that dwindle.</param>
public sealed record AheadQuestion(LocalDate Start, int Years, TulipCycle Tulips = TulipCycle.ByHouseRule)
{
    /// <summary>Most years.</summary>
    public const int MostYears = 10;

    /// <summary>Every fault of the question.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        if (Start.Day != 1)
            faults.Add("start", "must be the first of a month");
        faults.Range("years", Years, 2, MostYears, "years");
        return faults.Faults;
    }
}

/// <summary>What falls due in a planter in one of the years ahead.</summary>
public enum DueKind
{
    /// <summary>Bulbs that have dwindled are replaced.</summary>
    ReplaceBulbs,

    /// <summary>What stands for years covers the planter: no more bedding goes between.</summary>
    NoMoreBedding,

    /// <summary>Woody plants have stood so long in their container that roots and medium want a look.</summary>
    LongInContainer,

    /// <summary>What stands for years comes out, and nothing follows it.</summary>
    StandingComesOut,
}

/// <summary>Something that falls due.</summary>
/// <param name="Kind">What.</param>
/// <param name="PlanterId">Where.</param>
/// <param name="Day">When.</param>
/// <param name="Says">With the figures, by its kind.</param>
public sealed record DueAhead(DueKind Kind, string PlanterId, LocalDate Day, Fact Says);

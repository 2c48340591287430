using System.Collections.Immutable;

namespace UnrulyMeadow.Core.Planning;

/// <summary>Kinds of work whose minutes are counted apart.</summary>
public enum WorkKind
{
    /// <summary>Bulbs set by hand planter into medium, each.</summary>
    SetBulbs,

    /// <summary>Bulbs set by hand planter into the ground of a bed, each.</summary>
    SetBulbsInBed,

    /// <summary>Bulbs set into holes of a powered auger, each; two people at once.</summary>
    SetBulbsByAuger,

    /// <summary>Plants set from packs and small pots, each.</summary>
    SetPacks,

    /// <summary>Plants set from plugs, each.</summary>
    SetPlugs,

    /// <summary>Plants set from pots of about 20 cm and more, each.</summary>
    SetPots,

    /// <summary>Plants taken out, each.</summary>
    TakeOut,

    /// <summary>Plants lifted and set back, each.</summary>
    SetBack,

    /// <summary>Medium taken out and renewed, a litre.</summary>
    RenewMedium,

    /// <summary>Watering in from a tank on wheels, a litre.</summary>
    WaterIn,
}

/// <summary>Minutes that crews here took for a kind of work, beside what was reckoned with.</summary>
/// <param name="Kind">The kind of work.</param>
/// <param name="Times">Pieces of work that were timed.</param>
/// <param name="MeanRatio">Mean of minutes taken by minutes of common practice; 1 where they were as expected.</param>
public sealed record TimesTaken(WorkKind Kind, int Times, double MeanRatio);

/// <summary>Minutes of one person for one piece of a kind of work.</summary>
/// <param name="Kind">The kind of work.</param>
/// <param name="Usual">Minutes by common practice.</param>
/// <param name="Minutes">Minutes as they are reckoned with here.</param>
/// <param name="Spread">How far off that may be: its standard deviation.</param>
/// <param name="Times">Pieces of work of the crew's own that it rests on; 0 for common practice alone.</param>
public sealed record WorkRate(WorkKind Kind, double Usual, double Minutes, double Spread, int Times)
{
    /// <summary>People who must do it together.</summary>
    public int People => Kind == WorkKind.SetBulbsByAuger ? 2 : 1;
}

/// <summary>
/// Minutes by kind of work: those of common practice, drawn to the crew's own as they come in. Both are taken as normally distributed, so
/// that the mean of the two, each weighed by one over its variance, is the best guess (the normal–normal update: A. Gelman and others,
/// Bayesian Data Analysis, 3rd ed., section 2.5).
/// </summary>
public sealed class LabourTable
{
    // How far crews differ from common practice, and one day from another with the same crew, as shares of the minutes (common practice).
    private const double CrewSpread = 0.3;
    private const double DaySpread = 0.5;

    private readonly ImmutableDictionary<WorkKind, WorkRate> _rates;

    private LabourTable(IEnumerable<TimesTaken> own)
    {
        Dictionary<WorkKind, TimesTaken> taken = own.ToDictionary(t => t.Kind);
        _rates = Enum.GetValues<WorkKind>().ToImmutableDictionary(k => k, k => RateOf(k, taken.GetValueOrDefault(k)));
    }

    /// <summary>Common practice alone.</summary>
    public static LabourTable Usual { get; } = new([]);

    /// <summary>Every kind of work with its minutes.</summary>
    public IReadOnlyList<WorkRate> Rates => [.. _rates.Values.OrderBy(r => r.Kind)];

    /// <summary>The rate of a kind of work.</summary>
    public WorkRate this[WorkKind kind] => _rates[kind];

    /// <summary>The table as a crew's own times teach it.</summary>
    /// <param name="own">Their times; at most one of a kind.</param>
    public static LabourTable Of(IReadOnlyCollection<TimesTaken> own) => own.Count == 0 ? Usual : new LabourTable(own);

    // Minutes of one person who knows the work, ways not among them (common practice throughout): bulbs by hand planter 20–25 an hour, in
    // the ground of a bed half as many; an auger sets 250 in two half-days of two people; bedding from packs 40–60 an hour, from
    // plugs 80–100, pots of 20 cm 15–20; the top of a 60 cm pot 15–20 min; a bowser gives 10 L a minute.
    private static double UsualMinutes(WorkKind kind) =>
        kind switch
        {
            WorkKind.SetBulbs => 60.0 / 22,
            WorkKind.SetBulbsInBed => 60.0 / 11,
            WorkKind.SetBulbsByAuger => 2 * 2 * 4 * 60.0 / 250,
            WorkKind.SetPacks => 60.0 / 50,
            WorkKind.SetPlugs => 60.0 / 90,
            WorkKind.SetPots => 60.0 / 17,
            WorkKind.TakeOut => 60.0 / 100,
            WorkKind.SetBack => 60.0 / 40,
            WorkKind.RenewMedium => 0.35,
            _ => 0.1,
        };

    private static WorkRate RateOf(WorkKind kind, TimesTaken? own)
    {
        double usual = UsualMinutes(kind);
        Belief ratio = new Belief(1, CrewSpread).After(own?.Times ?? 0, own?.MeanRatio ?? 1, DaySpread);
        return new WorkRate(kind, usual, usual * ratio.Mean, usual * ratio.Spread, own?.Times ?? 0);
    }
}

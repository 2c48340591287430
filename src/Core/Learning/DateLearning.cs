using NodaTime;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Review;

namespace UnrulyMeadow.Core.Learning;

/// <summary>A first colour as it was seen, beside what was expected of that year.</summary>
/// <param name="Seen">The entry of the log.</param>
/// <param name="Expected">The day on which it was expected: in that year's weather where it is known, else in the middle year.</param>
/// <param name="Spread">Standard deviation of expected days about the one named, days; 0 where that year's weather is known.</param>
public sealed record SeenDate(Observation Seen, LocalDate Expected, double Spread)
{
    /// <summary>Days later than expected; less than 0 for earlier.</summary>
    public int DaysLate => Period.DaysBetween(Expected, Seen.Day);
}

/// <summary>Why an entry of the log teaches nothing.</summary>
public enum NotLearnt
{
    /// <summary>None of it stood there then.</summary>
    NotThere,

    /// <summary>It was seen before it was planted.</summary>
    BeforePlanting,

    /// <summary>Nothing is expected to flower there in most years.</summary>
    NothingExpected,

    /// <summary>It is too far from anything that could be expected: another kind, or a slip of the pen.</summary>
    TooFarOff,

    /// <summary>It shows as soon as it is planted: the crew sets its date.</summary>
    ByPlanting,

    /// <summary>It shows in more than one way, and the log does not say which was seen.</summary>
    WhichColour,

    /// <summary>An earlier day of the same year is in the log: the first counts.</summary>
    SecondInYear,

    /// <summary>Nobody said when its colour began.</summary>
    NoBeginning,

    /// <summary>It was to be lifted before its show would end, so nobody can say how long it would have lasted.</summary>
    CutShort,

    /// <summary>Several kinds share the surface: which of them is fuller is not known.</summary>
    ManyKinds,

    /// <summary>Plants were lost there.</summary>
    PlantsLost,
}

/// <summary>What first colours seen at a site teach of one kind: how much later than reckoned it opens here.</summary>
/// <param name="Plant">The kind.</param>
/// <param name="Seen">What was seen, by day.</param>
/// <param name="Years">Mean days late of each year, by year: plants of one spring are late together, so a year counts once.</param>
/// <param name="Prior">Days late as believed before anything was seen.</param>
/// <param name="Posterior">Days late as believed now.</param>
public sealed record DateLearning(
    Plant Plant,
    IReadOnlyList<SeenDate> Seen,
    IReadOnlyList<(int Year, double DaysLate)> Years,
    Belief Prior,
    Belief Posterior
)
{
    /// <summary>
    /// Standard deviation of what is seen in a year about what is true of a place, days (common practice: two people see first colour three days apart).
    /// </summary>
    public const double YearSpread = 3;

    /// <summary>Farther off than this is no date of the same kind, days.</summary>
    public const int FarthestDays = 45;

    /// <summary>
    /// How far off a kind's figures may be at a site, days: bulbs and what opens by heat 3, what lasts 4, bedding 2 (common practice: how far
    /// handbooks differ).
    /// </summary>
    public static double PriorSpread(Plant plant) =>
        plant.LifeForm switch
        {
            LifeForm.Bulb => 3,
            LifeForm.TenderAnnual or LifeForm.CoolSeasonAnnual or LifeForm.CutStems => 2,
            _ => 4,
        };

    /// <summary>Draws what was seen of a kind together.</summary>
    /// <param name="plant">The kind.</param>
    /// <param name="seen">First colours of it, those left that teach nothing.</param>
    public static DateLearning Of(Plant plant, IEnumerable<SeenDate> seen)
    {
        List<SeenDate> all = [.. seen.OrderBy(s => s.Seen.Day)];
        List<(int Year, double DaysLate, double Spread)> years =
        [
            .. all.GroupBy(s => s.Expected.Year)
                .Select(g => (g.Key, g.Average(s => s.DaysLate), Math.Sqrt((YearSpread * YearSpread) + g.Average(s => s.Spread * s.Spread))))
                .OrderBy(y => y.Key),
        ];
        var prior = new Belief(0, PriorSpread(plant));
        Belief now = prior;
        foreach ((_, double late, double spread) in years)
            now = now.After(1, late, spread);
        return new DateLearning(plant, all, [.. years.Select(y => (y.Year, y.DaysLate))], prior, now);
    }

    /// <summary>The arithmetic behind it.</summary>
    public Working Explain() =>
        new(
            WorkingKind.DatesLearnt,
            Quantity.Days(Posterior.Mean, 1),
            [new WorkingInput(InputName.YearsSeen, Years.Count)],
            Steps(Years, Prior, Posterior)
        )
        {
            Parts = [("plant", Plant)],
        };

    /// <summary>Days late of each year, and what is believed before and after.</summary>
    internal static IReadOnlyList<Fact> Steps(IEnumerable<(int Year, double DaysLate)> years, Belief prior, Belief posterior) =>
        [
            .. years.Select(y => new Fact(
                WorkingPhrase.DatesLearntYear,
                ("year", y.Year.ToString(System.Globalization.CultureInfo.InvariantCulture)),
                ("days", Quantity.Days(y.DaysLate, 1))
            )),
            new Fact(
                WorkingPhrase.DatesLearntStep,
                ("prior", Quantity.Days(prior.Spread, 1)),
                ("mean", Quantity.Days(posterior.Mean, 1)),
                ("spread", Quantity.Days(posterior.Spread, 1))
            ),
        ];
}

using System.Collections;
using NodaTime;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Closing;

/// <summary>Plants taken from a lot.</summary>
/// <param name="LotId">The lot.</param>
/// <param name="Count">How many.</param>
public sealed record StockUse(string LotId, int Count);

/// <summary>One change to one planter that would put colour into a bare spell.</summary>
/// <param name="Id">Its own short name within one answer.</param>
/// <param name="Planter">The planter.</param>
/// <param name="Kind">The way.</param>
/// <param name="Does">What to do, of a <see cref="GapAction"/>.</param>
/// <param name="Replaces">Displays that it changes, by id; empty when it only adds.</param>
/// <param name="Displays">Displays as they would be, and new ones.</param>
/// <param name="Before">The planter's year without it.</param>
/// <param name="After">The planter's year with it alone.</param>
public sealed record GapMove(
    string Id,
    Planter Planter,
    GapMoveKind Kind,
    Fact Does,
    IReadOnlyList<string> Replaces,
    IReadOnlyList<Display> Displays,
    PlanterSeason Before,
    PlanterSeason After
)
{
    /// <summary>The plant that is bought or taken from stock; null when nothing is planted.</summary>
    public Plant? Plant { get; init; }

    /// <summary>How many of it.</summary>
    public int Count { get; init; }

    /// <summary>Of them from stock.</summary>
    public IReadOnlyList<StockUse> FromStock { get; init; } = [];

    /// <summary>What the rest costs, spares included, guide prices.</summary>
    public decimal Cost { get; init; }

    /// <summary>True when something must be bought.</summary>
    public bool Buys => Plant is not null && FromStock.Sum(s => s.Count) < Count;

    /// <summary>Days that come into colour in most years.</summary>
    public BitArray Gains { get; } = Days(Before, After, gains: true);

    /// <summary>Days that go out of colour in most years.</summary>
    public BitArray Losses { get; } = Days(Before, After, gains: false);

    /// <summary>How many days it gains in most years, those that it loses taken off.</summary>
    public int DaysGained => Count1(Gains) - Count1(Losses);

    /// <summary>Expected days of colour gained, by the odds.</summary>
    public double ExpectedDays => After.ShareInColour.Zip(Before.ShareInColour).Sum(p => (double)p.First - p.Second);

    /// <summary>The bare spell that it gains most in.</summary>
    public BareSpell? Spell => Before.BareSpells.MaxBy(s => Enumerable.Range(Before.IndexOf(s.FirstDay), s.Days).Count(d => Gains[d]));

    /// <summary>True when it and another cannot both be done: both change one display, or fill one layer at once.</summary>
    public bool Conflicts(GapMove other) =>
        Planter.Id == other.Planter.Id
        && (
            Replaces.Intersect(other.Replaces, StringComparer.Ordinal).Any()
            || Displays.Any(a => other.Displays.Any(b => a.Id == b.Id || (a.Layer == b.Layer && a.Install < b.Lift && b.Install < a.Lift)))
        );

    /// <summary>The arithmetic behind it.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.DaysOfColourGained,
            DaysGained,
            [
                new WorkingInput(
                    InputName.BareBefore,
                    new Fact(
                        WorkingPhrase.ListedBySemicolons,
                        (
                            "items",
                            Before
                                .BareSpells.Select(s =>
                                    (object?)
                                        new Fact(
                                            WorkingPhrase.DaysOfColourGainedBareBeforeEachYears,
                                            ("firstDay", s.FirstDay),
                                            ("lastDay", s.LastDay),
                                            ("yearsBare", s.YearsBare),
                                            ("years", s.Years)
                                        )
                                )
                                .ToList()
                        )
                    )
                ),
                new WorkingInput(
                    InputName.BareWithItAlone,
                    After.BareSpells.Count == 0
                        ? (object?)WorkingPhrase.NeverForWeek
                        : new Fact(
                            WorkingPhrase.ListedBySemicolons,
                            (
                                "items",
                                After
                                    .BareSpells.Select(s =>
                                        (object?)
                                            new Fact(
                                                WorkingPhrase.DaysOfColourGainedBareBeforeEachYears,
                                                ("firstDay", s.FirstDay),
                                                ("lastDay", s.LastDay),
                                                ("yearsBare", s.YearsBare),
                                                ("years", s.Years)
                                            )
                                    )
                                    .ToList()
                            )
                        )
                ),
                new WorkingInput(
                    InputName.Cost,
                    Plant is null
                        ? (object?)WorkingPhrase.NothingBought
                        : new Fact(
                            WorkingPhrase.DaysOfColourGainedCostHand,
                            ("count", Count),
                            ("plant", Plant),
                            ("fromStock", FromStock.Sum(s => s.Count)),
                            ("cost", Quantity.Money(Cost))
                        )
                ),
                new WorkingInput(
                    InputName.ExpectedDaysOfColour,
                    new Fact(
                        WorkingPhrase.BeforeAfter,
                        ("shareInColour", Quantity.Number(Before.ShareInColour.Sum())),
                        ("shareInColour2", Quantity.Number(After.ShareInColour.Sum()))
                    )
                ),
            ],
            [.. (Plant?.Windows ?? []).Select(w => new Fact(WorkingPhrase.DaysOfColourGainedStep, ("part", w.Part), ("describe", w.Rule.Describe())))]
        )
        {
            Parts = [("planned", (object?)Plant?.Source ?? WorkingPhrase.AsPlanned)],
        };

    private static BitArray Days(PlanterSeason before, PlanterSeason after, bool gains)
    {
        var days = new BitArray(before.Days);
        for (int d = 0; d < days.Length; d++)
        {
            bool was = before.ShareInColour[d] >= ColourOdds.InColour;
            bool becomes = after.ShareInColour[d] >= ColourOdds.InColour;
            days[d] = gains ? !was && becomes : was && !becomes;
        }
        return days;
    }

    private static int Count1(BitArray days)
    {
        int count = 0;
        foreach (bool day in days)
            count += day ? 1 : 0;
        return count;
    }
}

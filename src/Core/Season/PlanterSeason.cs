using NodaTime;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Season;

/// <summary>A planter's plan year over all weather years: what shows on each day, with odds, and where it is bare.</summary>
public sealed class PlanterSeason
{
    /// <summary>Plain green leaf of any kind counts at most this much (common practice).</summary>
    public const double MostGreen = 0.10;

    /// <summary>Weight of plain green leaf (common practice).</summary>
    public const double GreenWeight = 0.25;

    internal PlanterSeason(Planter planter, LocalDate start, int days, double coverThreshold)
    {
        Planter = planter;
        Start = start;
        CoverThreshold = coverThreshold;
        ShareInColour = new float[days];
        Cover10 = new float[days];
        Cover50 = new float[days];
        Cover90 = new float[days];
        Green = new float[days];
    }

    private PlanterSeason(PlanterSeason of, Planter planter)
    {
        Planter = planter;
        Start = of.Start;
        CoverThreshold = of.CoverThreshold;
        ShareInColour = of.ShareInColour;
        Cover10 = of.Cover10;
        Cover50 = of.Cover50;
        Cover90 = of.Cover90;
        Green = of.Green;
        DeciduousLeaf = of.DeciduousLeaf;
        Years = of.Years;
        Bands = of.Bands;
        BareSpells = of.BareSpells;
    }

    /// <summary>The planter.</summary>
    public Planter Planter { get; }

    /// <summary>First day of the plan year.</summary>
    public LocalDate Start { get; }

    /// <summary>Days in the plan year.</summary>
    public int Days => ShareInColour.Length;

    /// <summary>Weather years behind the odds.</summary>
    public int Years { get; private set; }

    /// <summary>Share of years in colour, by day.</summary>
    public float[] ShareInColour { get; }

    /// <summary>Weighted cover by day that 9 of 10 years exceed.</summary>
    public float[] Cover10 { get; }

    /// <summary>Median weighted cover by day.</summary>
    public float[] Cover50 { get; }

    /// <summary>Weighted cover by day that 1 of 10 years exceeds.</summary>
    public float[] Cover90 { get; }

    /// <summary>Mean cover of plain green leaf by day, before weighting.</summary>
    public float[] Green { get; }

    /// <summary>Share of years in which deciduous plants are in leaf, by day.</summary>
    public float[] DeciduousLeaf { get; internal init; } = [];

    /// <summary>What shows, in order of planting.</summary>
    public IReadOnlyList<ColourBand> Bands { get; private set; } = [];

    /// <summary>Bare spells in order.</summary>
    public IReadOnlyList<BareSpell> BareSpells { get; private set; } = [];

    /// <summary>About how many bytes it takes.</summary>
    internal long Bytes => (5L + Bands.Count) * ((Days * sizeof(float)) + 100);

    /// <summary>Days on which at least half the years show colour.</summary>
    public int DaysInColour => ShareInColour.Count(s => s >= ColourOdds.InColour);

    /// <summary>Days between two days of the plan year, both counted, on which at least half the years show colour.</summary>
    public int DaysInColourBetween(LocalDate first, LocalDate last)
    {
        int count = 0;
        for (int d = Math.Max(0, IndexOf(first)); d <= Math.Min(Days - 1, IndexOf(last)); d++)
            count += ShareInColour[d] >= ColourOdds.InColour ? 1 : 0;
        return count;
    }

    /// <summary>The threshold of weighted cover that counts as in colour.</summary>
    public double CoverThreshold { get; }

    /// <summary>The index of a day; may lie outside the year.</summary>
    public int IndexOf(LocalDate day) => Period.DaysBetween(Start, day);

    /// <summary>The arithmetic behind one bare spell.</summary>
    public Working Explain(BareSpell spell)
    {
        int from = IndexOf(spell.FirstDay);
        float best = Cover50[from..(from + spell.Days)].Max();
        return new Working(
            WorkingKind.BareSpell,
            new Fact(WorkingPhrase.DaysBareInYears, ("days", spell.Days), ("yearsBare", spell.YearsBare), ("years", spell.Years)),
            [
                new WorkingInput(
                    InputName.Days,
                    new Fact(WorkingPhrase.YearsLeftOutRecord, ("firstDay", spell.FirstDay), ("lastDay", spell.LastDay))
                ),
                new WorkingInput(InputName.Threshold, new Fact(WorkingPhrase.WhatSeenWeighted, ("coverThreshold", Quantity.Share(CoverThreshold)))),
                new WorkingInput(InputName.BestMedianCoverInsideIt, Quantity.Share(best)),
                new WorkingInput(InputName.BestCoverOneYearInTen, Quantity.Share(Cover90[from..(from + spell.Days)].Max())),
            ]
        )
        {
            Parts = [("planter", Planter)],
        };
    }

    /// <summary>A planter's year of which nothing is known, for want of weather.</summary>
    public static PlanterSeason Unknown(Plan plan, Planter planter, LocalDate start) =>
        new(planter, start, Period.DaysBetween(start, start.PlusMonths(12)), plan.Site.CoverThreshold);

    /// <summary>The same year of the same planter after a change that its colours do not rest on.</summary>
    internal PlanterSeason For(Planter planter) => new(this, planter);

    /// <summary>The arithmetic behind a day's figure and the count of days in colour.</summary>
    public Working Explain()
    {
        int worst = BareSpells.Count == 0 ? 0 : BareSpells.Max(b => b.Days);
        return new Working(
            WorkingKind.PlanterDaysInColour,
            new Fact(WorkingPhrase.PlanterDaysInColourValue, ("daysInColour", DaysInColour), ("days", Days)),
            [
                new WorkingInput(InputName.Surface, Quantity.SquareMetres(Planter.Form.SurfaceCm2 / 10_000, 2)),
                new WorkingInput(InputName.WeatherYears, Years),
                new WorkingInput(InputName.Threshold, new Fact(WorkingPhrase.WhatSeen, ("coverThreshold", Quantity.Share(CoverThreshold)))),
                new WorkingInput(InputName.Weights, WorkingPhrase.FlowerColouredLeafStemBerryGreen),
                new WorkingInput(
                    InputName.Seen,
                    new Fact(
                        WorkingPhrase.FromEyesFlowersOnStemsCount,
                        ("container", Quantity.Metres((Planter.Form.IsBed ? ViewedShare.BedCm : ViewedShare.ContainerCm) / 100, 1)),
                        ("eye", Quantity.Metres(ViewedShare.EyeCm / 100, 2)),
                        ("planter", Quantity.Number(ViewedShare.OnStems(Planter, 45), 2)),
                        ("planter2", Quantity.Number(ViewedShare.OnStems(Planter, 10), 2))
                    )
                ),
            ],
            [
                .. Bands
                    .Where(b => b.Peak > 0.005)
                    .Select(b => new Fact(
                        WorkingPhrase.UpWhatSeen,
                        ("plant", b.Plant),
                        ("part", b.Window.Part),
                        ("peak", Quantity.Share(b.Peak)),
                        ("describe", b.Window.Rule.Describe())
                    )),
                BareSpells.Count == 0
                    ? (object?)WorkingPhrase.NoBareSpell
                    : new Fact(WorkingPhrase.BareSpellsLongestDays, ("bareSpells", BareSpells.Count), ("worst", worst)),
            ]
        )
        {
            Parts = [("planter", Planter)],
        };
    }

    /// <summary>Takes the cover of every weather year and counts the odds; the rows are sorted in place.</summary>
    internal void Take(IReadOnlyList<ColourBand> bands, Span<float> byYear, int years, int stride)
    {
        Bands = bands;
        Years = years;
        float threshold = (float)CoverThreshold;
        for (int y = 0; y < years; y++)
        {
            ReadOnlySpan<float> row = byYear.Slice(y * stride, Days);
            for (int d = 0; d < row.Length; d++)
                ShareInColour[d] += row[d] >= threshold ? 1 : 0;
        }
        for (int d = 0; d < Days; d++)
            ShareInColour[d] /= years;
        var spells = new List<BareSpell>();
        for (int d = 0; d < Days; )
        {
            int end = d;
            while (end < Days && ShareInColour[end] < ColourOdds.InColour)
                end++;
            if (end - d >= BareSpell.ShortestDays)
            {
                int bare = 0;
                for (int y = 0; y < years; y++)
                    bare += LongestBelow(byYear.Slice(y * stride, Days), d, end, threshold) >= BareSpell.ShortestDays ? 1 : 0;
                spells.Add(new BareSpell(Start.PlusDays(d), Start.PlusDays(end - 1), bare, years));
            }
            d = Math.Max(end, d + 1);
        }
        BareSpells = spells;
        DayMath.SortOverYears(byYear, years, stride);
        DayMath.Rank(byYear, years, stride, 0.1, Cover10);
        DayMath.Rank(byYear, years, stride, 0.5, Cover50);
        DayMath.Rank(byYear, years, stride, 0.9, Cover90);
    }

    private static int LongestBelow(ReadOnlySpan<float> cover, int from, int to, float threshold)
    {
        int longest = 0;
        int run = 0;
        for (int d = from; d < to; d++)
        {
            run = cover[d] < threshold ? run + 1 : 0;
            longest = Math.Max(longest, run);
        }
        return longest;
    }
}

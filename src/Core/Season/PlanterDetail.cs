using NodaTime;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Season;

/// <summary>Cover of one colour by day: what 9 of 10 years exceed, the middle year, and what 1 of 10 exceeds.</summary>
/// <param name="Colour">As #rrggbb.</param>
/// <param name="Cover10">Share of what is seen of the planter that 9 of 10 years exceed.</param>
/// <param name="Cover50">The median.</param>
/// <param name="Cover90">What 1 of 10 years exceeds.</param>
public sealed record ColourCover(string Colour, float[] Cover10, float[] Cover50, float[] Cover90);

/// <summary>When one plant of a display shows, with its spread over the weather years, and what it loses.</summary>
/// <param name="DisplayId">The display.</param>
/// <param name="Plant">The plant.</param>
/// <param name="Count">How many stand there.</param>
/// <param name="Start">First day of the plan year.</param>
/// <param name="Years">What each weather year makes of it.</param>
public sealed record PlantOutlook(string DisplayId, Plant Plant, int Count, LocalDate Start, IReadOnlyList<PlantYear> Years)
{
    /// <summary>
    /// First colour at a share of the ranks, 0.1 for an early and 0.9 for a late year; null when fewer than half the years show any.
    /// </summary>
    public LocalDate? First(double rank) => AtRank(y => y.First, rank);

    /// <summary>The day of most colour, likewise.</summary>
    public LocalDate? Peak(double rank) => AtRank(y => y.Peak, rank);

    /// <summary>Last colour, likewise.</summary>
    public LocalDate? Last(double rank) => AtRank(y => y.Last, rank);

    /// <summary>Years in which it shows at all.</summary>
    public int YearsShown => Years.Count(y => y.First >= 0);

    /// <summary>Years in which the weather takes something from it.</summary>
    /// <param name="kind">What it loses.</param>
    public int YearsLost(LossKind kind) => Years.Count(y => y.Loss == kind);

    /// <summary>Middle of the days in a year on which heat holds it back.</summary>
    public int StalledDays => Years.Count == 0 ? 0 : Years.Select(y => y.DaysStalled).Order().ElementAt(Years.Count / 2);

    /// <summary>The arithmetic behind the dates.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.PlantDaysOfColour,
            First(0.5) is { } first
                ? (object?)new Fact(WorkingPhrase.LeavesDieDownValue, ("first", first), ("last", Last(0.5)!.Value))
                : WorkingPhrase.NoneInMostYears,
            [
                new WorkingInput(
                    InputName.EarlyYearMiddleLateYearFirstColour,
                    new Fact(
                        WorkingPhrase.PlantDaysOfColourEarlyYearMiddleLateYear,
                        ("first", Text(First(0.1))),
                        ("first2", Text(First(0.5))),
                        ("first3", Text(First(0.9)))
                    )
                ),
                new WorkingInput(
                    InputName.LastColour,
                    new Fact(
                        WorkingPhrase.PlantDaysOfColourLastColour,
                        ("last", Text(Last(0.1))),
                        ("last2", Text(Last(0.5))),
                        ("last3", Text(Last(0.9)))
                    )
                ),
                new WorkingInput(
                    InputName.YearsThatShowIt,
                    new Fact(WorkingPhrase.PlantDaysOfColourYearsThatShow, ("yearsShown", YearsShown), ("years", Years.Count))
                ),
                new WorkingInput(
                    InputName.SpoiledByFrostRootsLostTopsSpoiledForATime,
                    new Fact(
                        WorkingPhrase.PlantDaysOfColourSpoiledFrostRootsLostTopsYears,
                        ("frost", YearsLost(LossKind.Frost)),
                        ("roots", YearsLost(LossKind.Roots)),
                        ("tops", YearsLost(LossKind.Tops))
                    )
                ),
            ],
            [.. Plant.Windows.Select(w => new Fact(WorkingPhrase.DaysOfColourGainedStep, ("part", w.Part), ("describe", w.Rule.Describe())))]
        )
        {
            Parts = [("plant", Plant), ("source", Plant.Source)],
        };

    private LocalDate? AtRank(Func<PlantYear, int> day, double rank)
    {
        int[] shown = [.. Years.Select(day).Where(d => d >= 0).Order()];
        return shown.Length * 2 < Years.Count || shown.Length == 0 ? null : Start.PlusDays(shown[(int)Math.Round(rank * (shown.Length - 1))]);
    }

    private static string Text(LocalDate? day) => day?.ToString("d MMM", null) ?? "none";
}

/// <summary>A planter's year in detail.</summary>
public sealed class PlanterDetail
{
    internal PlanterDetail(PlanterSeason season, IReadOnlyList<(PlantedItem Item, PlantYears Years)> items, CoverYears scratch, float[][] leaf)
    {
        Season = season;
        Plants = [.. items.Select(i => new PlantOutlook(i.Item.Display.Id, i.Item.Plant, i.Item.Count, season.Start, i.Years.Years))];
        Colours = ByColour(season, items, scratch, leaf);
    }

    /// <summary>The year.</summary>
    public PlanterSeason Season { get; }

    /// <summary>Each plant of each display.</summary>
    public IReadOnlyList<PlantOutlook> Plants { get; }

    /// <summary>Cover by colour, that which shows most first; a window's share is counted under its leading colour.</summary>
    public IReadOnlyList<ColourCover> Colours { get; }

    private static List<ColourCover> ByColour(
        PlanterSeason season,
        IReadOnlyList<(PlantedItem Item, PlantYears Years)> items,
        CoverYears scratch,
        float[][] leaf
    )
    {
        if (leaf.Length == 0)
            return [];
        string[] owners = [.. items.SelectMany(i => i.Years.Plant.Windows.Select(w => w.Colours[0]))];
        string[] colours = [.. owners.Distinct(StringComparer.Ordinal)];
        int row = DayMath.RowOfYear;
        float[][] byYear = [.. colours.Select(_ => new float[leaf.Length * row])];
        var covers = new float[owners.Length * row];
        var weighted = new float[row];
        for (int y = 0; y < leaf.Length; y++)
        {
            Array.Clear(covers);
            scratch.Year(season.Planter.Form.SurfaceCm2, items, y, leaf[y], weighted, covers);
            for (int b = 0; b < owners.Length; b++)
            {
                Span<float> sum = byYear[Array.IndexOf(colours, owners[b])].AsSpan(y * row, row);
                for (int d = 0; d < season.Days; d++)
                    sum[d] += covers[(b * row) + d];
            }
        }
        var result = new List<ColourCover>();
        for (int c = 0; c < colours.Length; c++)
        {
            var cover = new ColourCover(colours[c], new float[season.Days], new float[season.Days], new float[season.Days]);
            DayMath.SortOverYears(byYear[c], leaf.Length, row);
            DayMath.Rank(byYear[c], leaf.Length, row, 0.1, cover.Cover10);
            DayMath.Rank(byYear[c], leaf.Length, row, 0.5, cover.Cover50);
            DayMath.Rank(byYear[c], leaf.Length, row, 0.9, cover.Cover90);
            if (cover.Cover90.Max() > 0.001f)
                result.Add(cover);
        }
        return [.. result.OrderByDescending(c => c.Cover50.Sum())];
    }
}

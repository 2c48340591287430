using CsCheck;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Tests.Season;

/// <summary>The year's computation: the same by any way, and only what changed is done again.</summary>
public sealed class SeasonKernelTests
{
    private static readonly LocalDate Start = new(2026, 9, 1);

    // Twelve winters, each a degree colder than the one before, with summers alike.
    private static readonly WeatherRecord Colder = A.Record(2001, 13, d =>
    {
        (double min, double max) = A.Mild(d);
        return d.Month is 1 or 2 or 12 ? (min - (d.Year - 2001), max) : (min, max);
    });

    [Fact, Published("D. E. Knuth, The Art of Computer Programming 3, Algorithm 5.2.2M: sorts every input")]
    public void Every_day_is_sorted_over_the_years_as_a_plain_sort_would() =>
        Gen.Select(Gen.Int[1, 60], Gen.Int[0, 100_000])
            .Sample(
                (years, seed) =>
                {
                    var random = new Random(seed);
                    int stride = DayMath.Lanes * 2;
                    float[] rows = [.. Enumerable.Range(0, years * stride).Select(_ => random.NextSingle())];
                    float[] plain = [.. rows];
                    DayMath.SortOverYears(rows, years, stride);
                    for (int d = 0; d < stride; d++)
                    {
                        float[] day = [.. Enumerable.Range(0, years).Select(y => plain[(y * stride) + d]).Order()];
                        Assert.Equal(day, Enumerable.Range(0, years).Select(y => rows[(y * stride) + d]));
                    }
                },
                iter: 200
            );

    [Fact]
    public void Rows_of_days_at_once_give_what_one_day_after_the_other_gives()
    {
        Plan plan = A.Plan(
            [
                A.Shipped("viola-purple"),
                A.Shipped("tulip-mid-red"),
                A.Shipped("dogwood-red"),
                A.Shipped("petunia-magenta"),
                A.Shipped("crocus-early-violet"),
            ],
            A.Show("winter", A.Day(2026, 10, 1), A.Day(2027, 5, 20), DisplayLayer.Seasonal, new DisplayItem("viola-purple", 14)),
            A.Show("summer", A.Day(2027, 5, 20), A.Day(2027, 10, 1), DisplayLayer.Seasonal, new DisplayItem("petunia-magenta", 9)),
            A.Show(
                "bulbs",
                A.Day(2026, 10, 20),
                A.Day(2027, 5, 20),
                DisplayLayer.Bulbs,
                new DisplayItem("tulip-mid-red", 11),
                new DisplayItem("crocus-early-violet", 30)
            ),
            A.Show("stems", A.Day(2024, 4, 1), A.Day(2030, 4, 1), DisplayLayer.Standing, new DisplayItem("dogwood-red", 1))
        );
        var kernel = new SeasonKernel(Colder, Start);
        PlanterSeason season = kernel.Of(plan, plan.Planters[0]);
        double surface = plan.Planters[0].Form.SurfaceCm2;
        IReadOnlyList<PlantedItem> items = PlantedItem.Of(plan, plan.Planters[0], Start, Start.PlusMonths(12));
        for (int d = 0; d < season.Days; d += 3)
        {
            double[] byYear = [.. Enumerable.Range(0, kernel.Seasons.Count).Select(y => OneDay(kernel, items, surface, y, d)).Order()];
            // A year that lies on the threshold to five digits may be counted on either side of it.
            double onTheLine = byYear.Count(c => Math.Abs(c - 0.15) < 1e-5) / (double)byYear.Length;
            Assert.Equal(byYear.Count(c => c >= 0.15) / (double)byYear.Length, season.ShareInColour[d], onTheLine + 1e-6);
            Assert.Equal(Quantile(byYear, 0.1), season.Cover10[d], 1e-4);
            Assert.Equal(Quantile(byYear, 0.5), season.Cover50[d], 1e-4);
            Assert.Equal(Quantile(byYear, 0.9), season.Cover90[d], 1e-4);
        }
    }

    [Fact]
    public void The_same_plan_and_weather_give_the_same_year_to_the_last_bit()
    {
        Plan plan = Many(40);
        SiteYear one = new SeasonKernel(Colder, Start).Of(plan);
        SiteYear other = new SeasonKernel(Colder, Start).Of(plan);
        Assert.Equal(one.Planters.SelectMany(p => p.Cover50), other.Planters.SelectMany(p => p.Cover50));
    }

    [Fact]
    public void Planters_of_a_large_site_show_what_each_would_show_alone()
    {
        Plan plan = Many(90);
        // Some stand alike, others each from a day of its own.
        Display[] moved = [.. plan.Displays.Select((d, i) => i % 3 == 0 ? d : d with { Install = d.Install.PlusDays(i % 40) })];
        plan = plan.Changed([.. plan.Displays.Select(d => d.Id)], moved);
        var alone = new SeasonKernel(Colder, Start);
        foreach (PlanterSeason season in new SeasonKernel(Colder, Start).Of(plan).Planters)
        {
            Assert.Equal(alone.Of(plan, season.Planter).Cover50, season.Cover50);
            Assert.Equal(alone.Of(plan, season.Planter).ShareInColour, season.ShareInColour);
        }
    }

    [Fact]
    public void An_edit_computes_one_planter_anew_and_leaves_the_others_as_they_were()
    {
        Plan plan = Many(12);
        var kernel = new SeasonKernel(Colder, Start);
        SiteYear before = kernel.Of(plan);
        Display changed = plan.Displays[3] with { Items = [new DisplayItem("annual", 2)] };
        SiteYear after = kernel.Of(plan.Changed([changed.Id], [changed]));
        Assert.Equal(11, before.Planters.Zip(after.Planters).Count(p => ReferenceEquals(p.First, p.Second)));
        Assert.NotEqual(before.Planters[3].Cover50[100], after.Planters[3].Cover50[100]);
    }

    [Fact]
    public void A_planters_new_name_or_frost_pocket_is_seen_at_once()
    {
        Plan plan = Many(2);
        var kernel = new SeasonKernel(Colder, Start);
        kernel.Of(plan);
        Plan renamed = new(
            plan.Site,
            plan.Areas,
            [plan.Planters[0] with { Name = "gate pot" }, plan.Planters[1] with { Survey = new PlanterSurvey { FrostPocketC = 4 } }],
            plan.Palette,
            plan.Displays,
            []
        );
        SiteYear after = kernel.Of(renamed);
        Assert.Equal("gate pot", after.Planters[0].Planter.Name);
        Assert.True(after.Planters[1].ShareInColour.Sum() < after.Planters[0].ShareInColour.Sum());
    }

    [Fact]
    public void One_weather_year_alone_is_that_year_among_all()
    {
        Plan plan = Many(1);
        var kernel = new SeasonKernel(Colder, Start);
        int[] dark = [.. kernel.WeatherYears.Select(y => kernel.Of(plan, plan.Planters[0], y).ShareInColour.Count(s => s < 0.5f))];
        Assert.True(dark[^1] > dark[0]);
        float[] all = kernel.Of(plan, plan.Planters[0]).ShareInColour;
        Assert.Equal(kernel.WeatherYears.Average(y => kernel.Of(plan, plan.Planters[0], y).ShareInColour[200]), all[200], 1e-5);
    }

    [Fact]
    public void Work_that_is_called_off_stops()
    {
        using var off = new CancellationTokenSource();
        off.Cancel();
        Assert.Throws<OperationCanceledException>(() => new SeasonKernel(Colder, Start).Of(Many(3), cancel: off.Token));
    }

    [Fact]
    public void A_display_that_goes_in_on_29_February_stands_from_that_day_in_every_weather_year()
    {
        Plan plan = A.Plan(
            [A.Annual(rule: new AllYear())],
            A.Show("leap", A.Day(2028, 2, 29), A.Day(2028, 6, 1), DisplayLayer.Seasonal, new DisplayItem("annual", 9))
        );
        PlanterSeason season = SiteYear.From(plan, A.Record(2001, 13, A.Mild), A.Day(2027, 9, 1)).Planters[0];
        int day = season.IndexOf(A.Day(2028, 2, 29));
        Assert.Equal((0f, 1f), (season.ShareInColour[day - 1], season.ShareInColour[day]));
        Assert.Equal(366, season.Days);
    }

    [Fact]
    public void In_the_south_spring_bulbs_flower_in_September_of_a_year_that_begins_in_March()
    {
        WeatherRecord south = A.Record(2001, 8, d => A.Mild(d.PlusMonths(6)), latitude: -42);
        Plan plan = A.Plan([A.Tulip()], A.Show("bulbs", A.Day(2026, 4, 20), A.Day(2026, 12, 1), DisplayLayer.Bulbs, new DisplayItem("tulip", 15)));
        PlanterSeason season = SiteYear.From(plan, south, A.Day(2026, 3, 1)).Planters[0];
        int best = Array.IndexOf(season.Cover50, season.Cover50.Max());
        Assert.InRange(A.Day(2026, 3, 1).PlusDays(best), A.Day(2026, 9, 20), A.Day(2026, 11, 20));
    }

    [Fact]
    public void In_detail_colours_are_ranked_and_every_plant_has_its_dates_and_losses()
    {
        Plan plan = Many(1);
        PlanterDetail detail = new SeasonKernel(Colder, Start).Detail(plan, plan.Planters[0]);
        ColourCover colour = Assert.Single(detail.Colours);
        for (int d = 0; d < detail.Season.Days; d++)
            Assert.True(colour.Cover10[d] <= colour.Cover50[d] && colour.Cover50[d] <= colour.Cover90[d]);
        PlantOutlook plant = Assert.Single(detail.Plants);
        Assert.True(plant.First(0.5) <= plant.Peak(0.5) && plant.Peak(0.5) <= plant.Last(0.5));
        Assert.True(plant.Last(0.1) < plant.Last(0.9));
        Assert.InRange(plant.YearsLost(LossKind.Frost), 2, 10);
    }

    private static Plan Many(int count) =>
        A.Plan(
            [.. Enumerable.Range(0, count).Select(i => A.Pot(id: $"pot-{i}"))],
            [A.Annual(topDamageC: -9)],
            [
                .. Enumerable
                    .Range(0, count)
                    .Select(i => new Display(
                        $"show-{i}",
                        $"pot-{i}",
                        DisplayLayer.Seasonal,
                        Start.PlusDays(i % 7),
                        Start.PlusMonths(12),
                        [new DisplayItem("annual", 8 + (i % 3))]
                    )),
            ]
        );

    // The cover of one day of one year, from the meaning of its parts alone.
    // Between neighbours in proportion (definition 7 of Hyndman and Fan).
    private static double Quantile(double[] sorted, double share)
    {
        double at = share * (sorted.Length - 1);
        int below = Math.Min((int)at, sorted.Length - 2);
        return sorted[below] + ((sorted[below + 1] - sorted[below]) * (at - below));
    }

    private static double OneDay(SeasonKernel kernel, IReadOnlyList<PlantedItem> items, double surface, int year, int day)
    {
        var parts = items
            .Select(i => (Item: i, Years: kernel.Follow(i.Plant, i.Standing)))
            .Where(p => day >= p.Years.From && day < p.Years.From + p.Years.Length)
            .Select(p => (p.Item, p.Years, Canopy: Math.Min(1, p.Years.AreaCm2(year)[day - p.Years.From] * p.Item.Count * p.Item.Seen / surface)))
            .ToList();
        double bulbs = Math.Max(1, parts.Where(p => p.Item.IsAbove).Sum(p => p.Canopy));
        double bedding = Math.Max(1, parts.Where(p => !p.Item.IsAbove).Sum(p => p.Canopy));
        double above = Math.Min(
            1,
            parts
                .Where(p => p.Item.IsAbove)
                .Sum(p => p.Item.Plant.Windows.Select((w, k) => p.Canopy / bulbs * w.Share * p.Years.Share(k, year)[day - p.Years.From]).Sum())
        );
        double colour = 0;
        double green = 0;
        foreach (var (item, years, canopy) in parts)
        {
            double here = item.IsAbove ? canopy / bulbs : canopy / bedding * (1 - above);
            bool leaf =
                item.Plant.Green == GreenLeaf.Evergreen
                || (
                    item.Plant.Green == GreenLeaf.InSeason
                    && (item.Plant.DiesWithFrost || kernel.Seasons[year].UsualLeaf[kernel.Seasons[year].Run.IndexOf(Start) + day])
                );
            green += leaf && !item.IsAbove ? here : 0;
            for (int w = 0; w < item.Plant.Windows.Count; w++)
            {
                double cover = here * item.Plant.Windows[w].Share * years.Share(w, year)[day - years.From];
                colour += cover * item.Plant.Windows[w].Weight;
                green -= item.IsAbove ? 0 : cover;
            }
        }
        return colour + Math.Min(0.10, 0.25 * Math.Max(0, green));
    }
}

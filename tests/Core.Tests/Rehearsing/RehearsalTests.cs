using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rehearsing;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Tests.Rehearsing;

/// <summary>What may go wrong, tried beforehand.</summary>
public sealed class RehearsalTests
{
    private static readonly LocalDate Start = new(2026, 9, 1);
    private static readonly LocalDate Today = new(2026, 9, 5);

    // 2006's winter is the hardest, 2008's spring the latest.
    private static readonly WeatherRecord Weather = A.Record(2001, 11, d =>
    {
        (double min, double max) = A.Mild(d);
        if (d.Month is 1 && d.Year == 2007)
            return (min - 12, max - 6);
        return d.Month is 3 or 4 && d.Year == 2009 ? (min - 4, max - 4) : (min, max);
    });

    private static readonly Turn Spring = new("spring", "Spring turn", A.Day(2027, 5, 10), A.Day(2027, 5, 14));

    private static readonly Plan Plan = A.Plan(
        [A.Pot()],
        [A.Annual("viola", -9), A.Annual("lobelia", -0.5, new FromInstall(3, null, 25)), A.Tulip()],
        [
            A.Show("winter", Start, Spring.FirstDay.PlusDays(2), DisplayLayer.Seasonal, new DisplayItem("viola", 8)),
            A.Show("summer", Spring.FirstDay.PlusDays(2), A.Day(2027, 9, 1), DisplayLayer.Seasonal, new DisplayItem("lobelia", 8)),
        ],
        [Spring]
    );

    private static readonly SeasonKernel Kernel = new(Weather, Start);

    [Fact]
    public void The_hardest_winter_takes_what_a_cover_would_have_saved()
    {
        RehearsalResult result = Of(RehearsalKind.HardestWinter);
        Assert.Equal(RehearsalPhrase.InTheTypicalYear, result.Beside.Kind);
        Assert.Equal("2006–07", result.Says["year"]);
        RehearsalLoss loss = Assert.Single(result.Losses, l => l.Plant.Id == "viola");
        Assert.Equal((LossKind.Frost, 8), (loss.Kind, loss.Count));
        Assert.True(result.DaysLost > 60);
        Assert.Contains(result.Reserve, r => r.Plant.Id == "viola" && r.Count == 8);
        Assert.Equal(9m, loss.Cost);
    }

    [Fact, FromMemory]
    public void A_cover_keeps_tops_three_degrees_warmer_and_so_saves_what_was_lost_by_less()
    {
        Plan less = A.Plan(Plan.Planters, [A.Annual("viola", -14), Plan.Plant("lobelia")], Plan.Displays, [Spring]);
        RehearsalResult result = new Rehearsal(less, Kernel, Weather, Today).Of(RehearsalKind.HardestWinter);
        Assert.Contains(result.Losses, l => l.Plant.Id == "viola");
        Assert.Contains(result.SavedByCover, l => l.Plant.Id == "viola");
        Assert.True(result.Covered > 60);
    }

    [Fact]
    public void The_latest_spring_is_the_one_with_the_least_heat() => Assert.Equal("2008–09", Of(RehearsalKind.LateSpring).Says["year"]);

    [Fact, CommonPractice]
    public void A_fortnight_of_heat_stalls_cool_season_plants()
    {
        RehearsalResult result = Of(RehearsalKind.Heatwave);
        Assert.InRange(result.DaysLost, 7, 25);
        Assert.Empty(result.Losses);
    }

    [Fact, CommonPractice]
    public void A_fortnight_of_heat_cooks_roots_in_a_small_dark_metal_pot_and_scorches_shade_plants_in_the_sun()
    {
        Planter dark = A.Pot(26, 20, 24, "dark") with { Wall = WallMaterial.Metal, WallColour = "#1c1c1c" };
        Planter pale = A.Pot(90, 80, 80, "pale") with { Wall = WallMaterial.Timber, WallColour = "#e8e2d4" };
        Plant hosta = A.Annual("hosta") with { LightLow = Exposure.Shade, LightHigh = Exposure.PartSun };
        Display In(string planter, string plant) =>
            new($"{planter}-summer", planter, DisplayLayer.Seasonal, A.Day(2027, 5, 15), A.Day(2027, 9, 30), [new DisplayItem(plant, 3)]);
        Plan plan = A.Plan([dark, pale, A.Bed()], [A.Annual("zinnia"), hosta], [In("dark", "zinnia"), In("pale", "zinnia"), In("bed", "hosta")]);
        RehearsalResult result = new Rehearsal(plan, Kernel, Weather, Today).Of(RehearsalKind.Heatwave);
        HeatStress worst = result.Heat[0];
        Assert.Equal("dark", worst.Planter.Id);
        Assert.True(worst.RootDays >= HeatStress.HarmfulDays && worst.HottestRootC > GroundRemark.RootHeatC);
        Assert.Equal("zinnia", Assert.Single(worst.Scorched).Id);
        Assert.DoesNotContain(result.Heat, h => h.Planter.Id == "pale" && h.Scorched.Count > 0);
        Assert.Equal("hosta", Assert.Single(Assert.Single(result.Heat, h => h.Planter.Id == "bed").Scorched).Id);
        Assert.Empty(Of(RehearsalKind.LateSpring).Heat);
    }

    [Fact]
    public void The_ground_is_heated_with_the_air_and_only_in_the_spell()
    {
        LocalDate first = A.Day(2027, 7, 10);
        WeatherRecord hot = Weather.WithHeat(first, 14, 22, 35);
        float[] before = GroundClimate.Of(Weather).Of(ThermalClass.Pot(40, 36, WallMaterial.Terracotta)).RootMax;
        float[] after = GroundClimate.Of(hot).Of(ThermalClass.Pot(40, 36, WallMaterial.Terracotta)).RootMax;
        int spell = hot.IndexOf(A.Day(2005, 7, 20));
        Assert.True(after[spell] > before[spell] + 4);
        Assert.Equal(before[spell - 60], after[spell - 60], 0.05);
        Assert.Equal(Weather.MaxC[spell - 60], hot.MaxC[spell - 60]);
    }

    [Fact]
    public void Late_stock_leaves_the_old_display_standing_and_nothing_before_today_moves()
    {
        RehearsalResult late = Of(RehearsalKind.StockLate);
        int day = late.Under.Planters[0].IndexOf(A.Day(2027, 5, 20));
        Assert.Contains(late.Under.Planters[0].Bands, b => b.Plant.Id == "viola" && b.MeanCover[day] > 0);
        Assert.Contains(late.Planned.Planters[0].Bands, b => b.Plant.Id == "viola" && b.MeanCover[day] == 0);
        Assert.Equal(0, new Rehearsal(Plan, Kernel, Weather, A.Day(2027, 6, 1)).Of(RehearsalKind.StockLate).DaysLost);
    }

    [Fact]
    public void Half_the_crew_needs_twice_the_days_of_a_turn()
    {
        RehearsalResult half = Of(RehearsalKind.HalfCrew);
        PlanterSeason under = half.Under.Planters[0];
        Assert.Equal(0, under.Bands.Single(b => b.Plant.Id == "lobelia").MeanCover[..under.IndexOf(A.Day(2027, 5, 14))].Max());
        Assert.True(half.Planned.Planters[0].Bands.Single(b => b.Plant.Id == "viola").MeanCover[under.IndexOf(A.Day(2027, 5, 13))] == 0);
        Assert.True(under.Bands.Single(b => b.Plant.Id == "viola").MeanCover[under.IndexOf(A.Day(2027, 5, 13))] > 0);
    }

    [Fact]
    public void Without_weather_a_rehearsal_is_refused_with_what_to_do()
    {
        var none = Assert.Throws<InvalidInputException>(() =>
            new Rehearsal(Plan, new SeasonKernel(null, Start), Weather, Today).Of(RehearsalKind.LateSpring)
        );
        Assert.Contains("bring in a station's record", none.Message, StringComparison.Ordinal);
    }

    private static RehearsalResult Of(RehearsalKind kind) => new Rehearsal(Plan, Kernel, Weather, Today).Of(kind);

    [Fact]
    public void A_rehearsal_tells_its_steps_and_stops_when_it_is_called_off()
    {
        var steps = new List<int>();
        new Rehearsal(Plan, Kernel, Weather, Today, new RecordedProgress(steps)).Of(RehearsalKind.StockLate);
        Assert.Equal([1, 2, 3], steps);
        using var off = new CancellationTokenSource();
        off.Cancel();
        Assert.ThrowsAny<OperationCanceledException>(() =>
            new Rehearsal(Plan, Kernel, Weather, Today, cancel: off.Token).Of(RehearsalKind.HardestWinter)
        );
    }

    private sealed class RecordedProgress(List<int> steps) : IProgress<int>
    {
        public void Report(int value) => steps.Add(value);
    }
}

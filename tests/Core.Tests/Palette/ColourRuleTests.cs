using NodaTime;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Tests.Palette;

public sealed class ColourRuleTests
{
    private static readonly LocalDate Start = new(2026, 9, 1);

    [Fact]
    public void An_annual_bought_in_bud_opens_after_its_bud_days_and_stays_until_it_is_lifted()
    {
        double[] share = Shares(new FromInstall(5), A.Mild, A.Day(2027, 5, 20), A.Day(2027, 7, 1));
        Assert.Equal(0, At(share, A.Day(2027, 5, 24)));
        Assert.True(At(share, A.Day(2027, 5, 25)) > 0);
        Assert.Equal(1, At(share, A.Day(2027, 6, 20)));
        Assert.Equal(0, At(share, A.Day(2027, 7, 1)));
    }

    [Fact]
    public void A_killing_frost_ends_an_annual_for_good()
    {
        double[] share = Shares(
            new FromInstall(0),
            d => d == new LocalDate(d.Year, 5, 30) ? (-2, 8) : (8, 20),
            A.Day(2027, 5, 1),
            A.Day(2027, 8, 1),
            topDamage: -1.5
        );
        Assert.Equal(1, At(share, A.Day(2027, 5, 29)));
        Assert.Equal(0, At(share, A.Day(2027, 5, 30)));
        Assert.Equal(0, At(share, A.Day(2027, 7, 1)));
    }

    [Fact]
    public void A_frost_pocket_kills_where_the_station_would_not()
    {
        (double, double) Weather(LocalDate d) => d == new LocalDate(d.Year, 5, 30) ? (0.5, 8) : (8, 20);
        Assert.Equal(1, At(Shares(new FromInstall(0), Weather, A.Day(2027, 5, 1), A.Day(2027, 8, 1), topDamage: 0), A.Day(2027, 6, 2)));
        Assert.Equal(0, At(Shares(new FromInstall(0), Weather, A.Day(2027, 5, 1), A.Day(2027, 8, 1), topDamage: 0, pocket: 1), A.Day(2027, 6, 2)));
    }

    [Fact, CommonPractice]
    public void A_cool_season_annual_stalls_in_heat_and_comes_back_when_it_cools()
    {
        (double, double) Weather(LocalDate d) => d.Month == 7 ? (22, 34) : (10, 20);
        double[] share = Shares(new FromInstall(0, HeatCeilingC: 23), Weather, A.Day(2027, 5, 1), A.Day(2027, 8, 31));
        Assert.Equal(1, At(share, A.Day(2027, 6, 30)));
        Assert.Equal(0, At(share, A.Day(2027, 7, 25)));
        Assert.Equal(1, At(share, A.Day(2027, 8, 25)));
    }

    [Fact, CommonPractice]
    public void A_fall_chrysanthemum_holds_four_to_six_weeks()
    {
        double[] share = Shares(new FromInstall(6, 40), A.Mild, A.Day(2026, 9, 10), A.Day(2026, 12, 31));
        int days = share.Count(s => s > 0.5);
        Assert.InRange(days, 28, 42);
    }

    [Fact]
    public void Perennials_open_on_their_heat_sum_and_pass_after_their_show()
    {
        double[] share = Shares(new AirHeat(5, 400, 30), A.Mild, A.Day(2020, 1, 1), A.Day(2030, 1, 1), LifeForm.Perennial);
        int first = Array.FindIndex(share, 365, s => s >= 0.5);
        int over = Array.FindIndex(share, first, s => s < 0.5);
        Assert.Equal(30, over - first, 1.0);
        Assert.InRange(A.Day(2025, 9, 1).PlusDays(first), A.Day(2027, 4, 1), A.Day(2027, 6, 15));
    }

    [Fact, CommonPractice]
    public void Red_stems_show_after_leaf_drop_and_until_leaf_out()
    {
        double[] share = Shares(new BareStem(5, 170, 12), A.Mild, A.Day(2020, 1, 1), A.Day(2030, 1, 1), LifeForm.Shrub);
        Assert.Equal(0, At(share, A.Day(2026, 9, 20)));
        Assert.Equal(1, At(share, A.Day(2027, 1, 15)));
        Assert.Equal(0, At(share, A.Day(2027, 6, 1)));
    }

    [Fact]
    public void Leaf_colour_of_fall_is_only_the_last_days_before_the_drop()
    {
        double[] all = Shares(new InLeaf(5, 170, 12), A.Mild, A.Day(2020, 1, 1), A.Day(2030, 1, 1), LifeForm.Shrub);
        double[] last = Shares(new InLeaf(5, 170, 12, 14), A.Mild, A.Day(2020, 1, 1), A.Day(2030, 1, 1), LifeForm.Shrub);
        Assert.Equal(14, last.Skip(365).Take(365).Count(s => s > 0));
        Assert.All(Enumerable.Range(0, last.Length).Where(i => last[i] > 0), i => Assert.Equal(1, all[i]));
    }

    [Fact, CommonPractice]
    public void Ornamental_cabbage_colours_up_as_nights_cool()
    {
        double[] share = Shares(new CoolNights(10, 14), A.Mild, A.Day(2026, 9, 1), A.Day(2027, 3, 1));
        Assert.True(At(share, A.Day(2026, 9, 15)) < At(share, A.Day(2026, 11, 15)));
        Assert.Equal(1, At(share, A.Day(2026, 12, 1)));
    }

    [Fact]
    public void Width_grows_from_what_was_bought_towards_what_it_becomes()
    {
        Plant petunia = A.Annual() with { SpreadAtPurchaseCm = 14, MatureSpreadCm = 40, GrowthPerDegreeDay = 0.008 };
        Assert.Equal(14, petunia.SpreadCm(0), 1e-9);
        Assert.InRange(petunia.SpreadCm(300) / 14, 2, 3);
        Assert.Equal(40, petunia.SpreadCm(2000), 0.01);
    }

    [Fact, CommonPractice]
    public void A_fall_chrysanthemum_stays_the_size_it_was_bought() =>
        Assert.Equal(38, (A.Annual() with { SpreadAtPurchaseCm = 38, MatureSpreadCm = 38 }).SpreadCm(900));

    [Fact]
    public void A_plant_with_impossible_figures_names_every_fault()
    {
        Plant plant = A.Tulip() with
        {
            Id = "Not an id",
            HeightCm = -1,
            Packs = [],
            Bulb = new BulbFigures(5, 4, 2, 12, 3),
            Windows = [new ColourWindow(ColourPart.Flower, ["red"], 2, A.MidTulip with { ShowDays = 0 })],
        };
        string[] fields = [.. plant.Faults().Select(f => f.Field)];
        Assert.Equal(
            [
                "id",
                "heightCm",
                "bulb.spacingCm",
                "bulb.coldWeeksHigh",
                "packs",
                "windows[0].share",
                "windows[0].colours[0]",
                "windows[0].rule.showDays",
            ],
            fields
        );
    }

    private static double At(double[] share, LocalDate day) => share[Period.DaysBetween(Start.PlusMonths(-12), day)];

    private static double[] Shares(
        ColourRule rule,
        Func<LocalDate, (double, double)> weather,
        LocalDate install,
        LocalDate lift,
        LifeForm form = LifeForm.CoolSeasonAnnual,
        double topDamage = -20,
        double pocket = 0
    )
    {
        WeatherRun run = WeatherRun.For(A.Record(2001, 3, weather), Start)[^1];
        var season = new GrowingSeason(run, false);
        var share = new double[season.Length];
        rule.WriteShares(
            share,
            new Growing(season, A.Annual() with { LifeForm = form, TopDamageC = topDamage }, install, lift, Core.Ground.BulbPlace.UsualBed, pocket)
        );
        return share;
    }
}

using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Tests.Season;

public sealed class PlanterSeasonTests
{
    private static readonly LocalDate Start = new(2026, 9, 1);
    private static readonly WeatherRecord Mild = A.Record(2001, 11, A.Mild);

    [Fact]
    public void An_empty_planter_is_bare_all_year_in_every_year()
    {
        PlanterSeason season = Season(Mild, [A.Annual()]);
        BareSpell spell = Assert.Single(season.BareSpells);
        Assert.Equal((365, 10, 10), (spell.Days, spell.InTen, spell.YearsBare));
        Assert.Equal(0, season.DaysInColour);
    }

    [Fact]
    public void A_full_planter_is_in_colour_on_every_day_it_stands()
    {
        PlanterSeason season = Season(Mild, [A.Annual()], Show("one", Start, Start.PlusMonths(12), 8));
        Assert.Empty(season.BareSpells);
        Assert.InRange(season.DaysInColour, 362, 365);
    }

    [Fact]
    public void A_gap_of_six_days_is_no_bare_spell_and_one_of_seven_is()
    {
        PlanterSeason Gap(int days) =>
            Season(
                Mild,
                [A.Annual(rule: new AllYear())],
                Show("one", Start, A.Day(2027, 3, 1), 8),
                Show("two", A.Day(2027, 3, 1).PlusDays(days), Start.PlusMonths(12), 8)
            );
        Assert.Empty(Gap(6).BareSpells);
        BareSpell spell = Assert.Single(Gap(7).BareSpells);
        Assert.Equal((A.Day(2027, 3, 1), 7), (spell.FirstDay, spell.Days));
    }

    [Fact]
    public void Odds_of_a_bare_spell_count_the_years_whose_frost_killed_the_display()
    {
        // Six of ten winters reach −8 °C on 10 January; the plant stands −5 °C.
        WeatherRecord record = A.Record(2001, 11, d => d is { Month: 1, Day: 10 } && d.Year is >= 2003 and <= 2008 ? (-8, 0) : (2, 9));
        PlanterSeason season = Season(record, [A.Annual(topDamageC: -5)], Show("one", Start, Start.PlusMonths(12), 8));
        BareSpell spell = Assert.Single(season.BareSpells);
        Assert.Equal(A.Day(2027, 1, 10), spell.FirstDay);
        Assert.Equal((6, 10), (spell.YearsBare, spell.Years));
        Assert.Equal(0.4f, season.ShareInColour[season.IndexOf(A.Day(2027, 2, 1))], 0.001f);
    }

    [Fact]
    public void A_killing_frost_in_fewer_than_half_the_years_is_a_risk_but_no_bare_spell()
    {
        WeatherRecord record = A.Record(2001, 11, d => d is { Month: 1, Day: 10 } && d.Year is >= 2003 and <= 2006 ? (-8, 0) : (2, 9));
        PlanterSeason season = Season(record, [A.Annual(topDamageC: -5)], Show("one", Start, Start.PlusMonths(12), 8));
        Assert.Empty(season.BareSpells);
        Assert.Equal(0.6f, season.ShareInColour[season.IndexOf(A.Day(2027, 2, 1))], 0.001f);
        Assert.True(season.Cover10[200] < season.Cover90[200]);
    }

    [Fact, CommonPractice]
    public void Plain_green_leaf_alone_never_hides_bareness()
    {
        Plant box = A.Annual("box", -30) with { LifeForm = LifeForm.Shrub, Green = GreenLeaf.Evergreen, Windows = [] };
        PlanterSeason season = Season(Mild, [box], A.Show("one", Start, Start.PlusMonths(12), DisplayLayer.Standing, new DisplayItem("box", 60)));
        Assert.Equal(365, Assert.Single(season.BareSpells).Days);
        Assert.Equal(PlanterSeason.MostGreen, season.Cover50.Max(), 1e-6);
    }

    [Fact, CommonPractice]
    public void Coloured_leaf_counts_six_tenths_of_a_flower()
    {
        Plant leaf = A.Annual("leaf") with { Windows = [new ColourWindow(ColourPart.Leaf, ["#6f2f44"], 1, new AllYear())] };
        Plant flower = A.Annual("flower") with { Windows = [new ColourWindow(ColourPart.Flower, ["#6f2f44"], 1, new AllYear())] };
        double Cover(Plant p) => Season(Mild, [p], Show("one", Start, Start.PlusMonths(12), 2, p.Id)).Cover50[100];
        Assert.Equal(0.6, Cover(leaf) / Cover(flower), 1e-4);
    }

    [Fact]
    public void A_display_covers_the_share_of_the_surface_that_its_plants_spread_over()
    {
        Plant plant = A.Annual(rule: new AllYear());
        PlanterSeason season = Season(Mild, [plant], Show("one", Start, Start.PlusMonths(12), 3));
        double expected = 3 * Math.PI * 100 / A.Pot().Form.SurfaceCm2 * 0.6;
        Assert.Equal(expected, season.Bands[0].MeanCover[10], 1e-4);
    }

    [Fact]
    public void Cover_of_everything_together_never_exceeds_the_surface() =>
        Assert.All(
            Season(
                Mild,
                [A.Annual("a", rule: new AllYear()), A.Annual("b", rule: new AllYear())],
                A.Show("one", Start, Start.PlusMonths(12), DisplayLayer.Seasonal, new DisplayItem("a", 200), new DisplayItem("b", 200))
            ).Cover90,
            c => Assert.InRange(c, 0, 1)
        );

    [Fact]
    public void Bulbs_show_above_bedding_in_spring()
    {
        PlanterSeason season = Season(
            Mild,
            [A.Annual(), A.Tulip()],
            Show("one", Start, A.Day(2027, 6, 1), 8),
            A.Show("two", A.Day(2026, 10, 15), A.Day(2027, 6, 1), DisplayLayer.Bulbs, new DisplayItem("tulip", 11))
        );
        ColourBand tulip = season.Bands.Single(b => b.Plant.Id == "tulip");
        int best = Array.IndexOf(tulip.MeanCover, tulip.Peak);
        Assert.InRange(Start.PlusDays(best), A.Day(2027, 3, 20), A.Day(2027, 5, 25));
        Assert.Equal(11 * Math.PI * 49 / A.Pot().Form.SurfaceCm2 * 0.6 * ViewedShare.OnStems(A.Pot(), A.Tulip().HeightCm), tulip.Peak, 0.012);
    }

    [Fact]
    public void A_sites_sentence_counts_the_bare_and_names_the_worst()
    {
        Plan plan = A.Plan([A.Pot(), A.Pot(id: "second")], [A.Annual()], [Show("one", Start, A.Day(2027, 4, 1), 8)]);
        SiteYear year = SiteYear.From(plan, Mild, Start);
        Core.Facts.Fact says = year.Sentence();
        Assert.Equal((YearPhrase.SomeBare, 2, 2), (says.Kind, says["bare"], says["planters"]));
        Assert.Equal("second", Assert.IsType<Core.Planters.Planter>(says["worst"]).Id);
        Assert.Equal((Start, A.Day(2027, 8, 31)), (says["from"], says["to"]));
        Assert.Equal(YearPhrase.NoWeather, SiteYear.From(plan, null, Start).Sentence().Kind);
        Assert.Equal(YearPhrase.NoPlanters, SiteYear.From(A.Plan([], [], []), Mild, Start).Sentence().Kind);
    }

    [Fact]
    public void One_past_year_can_be_laid_over_the_plan_and_an_unknown_one_is_refused()
    {
        Plan plan = A.Plan([A.Annual()], Show("one", Start, A.Day(2027, 4, 1), 8));
        Assert.Equal([2004], SiteYear.From(plan, Mild, Start, 2004).WeatherYears);
        Assert.Throws<InvalidInputException>(() => SiteYear.From(plan, Mild, Start, 1950));
        Assert.Throws<InvalidInputException>(() => SiteYear.From(plan, Mild, Start.PlusDays(3)));
    }

    [Fact]
    public void In_the_south_a_year_reads_from_March()
    {
        Assert.Equal(A.Day(2026, 3, 1), SiteYear.UsualStart(A.Day(2026, 11, 23), southern: true));
        Assert.Equal(A.Day(2026, 9, 1), SiteYear.UsualStart(A.Day(2027, 8, 31), southern: false));
    }

    private static Display Show(string id, LocalDate install, LocalDate lift, int count, string plant = "annual") =>
        A.Show(id, install, lift, DisplayLayer.Seasonal, new DisplayItem(plant, count));

    [Fact]
    public void A_retired_planter_has_no_year_and_is_never_called_bare()
    {
        Plan plan = A.Plan([A.Pot(), A.Pot(id: "old") with { IsRetired = true }], [A.Annual()], []);
        SiteYear year = SiteYear.From(plan, A.Record(2001, 3, A.Mild), Start);
        Assert.Equal("pot", Assert.Single(year.Planters).Planter.Id);
    }

    private static PlanterSeason Season(WeatherRecord record, IReadOnlyList<Plant> palette, params Display[] displays) =>
        SiteYear.From(A.Plan(palette, displays), record, Start).Planters[0];
}

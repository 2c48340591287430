using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Core.Tests.Season;

public sealed class StackBloomTests
{
    private static readonly LocalDate Planted = new(2026, 10, 20);

    [Fact, FromMemory]
    public void In_a_bed_hyacinths_finish_about_as_mid_season_tulips_open()
    {
        Plant hyacinth = A.Bulb("hyacinth", new BulbForcing(1, 10, 10, 202.3, 16), 5.5, 5);
        StackBloom bloom = Bloom(A.Bed(), A.Record("New York"), hyacinth, A.Tulip());
        HandOver over = Assert.Single(bloom.HandOvers);
        Assert.Equal(("hyacinth", "tulip"), (over.From.Plant.Id, over.To.Plant.Id));
        Assert.InRange(over.OverlapDays, -10, 14);
    }

    [Fact]
    public void In_a_sunny_pot_tulips_come_before_those_in_a_bed()
    {
        WeatherRecord record = A.Record("New York");
        Assert.True(Bloom(record, A.Tulip()).Forecasts[0].Half < Bloom(A.Bed(), record, A.Tulip()).Forecasts[0].Half);
    }

    [Fact]
    public void Crocus_before_late_tulips_alone_leaves_a_broken_hand_over()
    {
        Plant crocus = A.Bulb("crocus", new BulbForcing(1, 10, 10, 37.6, 18), 2.4, 2);
        HandOver over = Assert.Single(Bloom(A.Record(2001, 6, A.Mild), crocus, A.Tulip("late", new BulbForcing(7, 10, 10, 158.2, 16))).HandOvers);
        Assert.True(over.IsBroken);
        Assert.Equal(1, over.ShareBroken);
        Assert.True(over.OverlapDays < -10);
    }

    [Fact]
    public void First_colour_comes_before_half_open_and_the_last_goes_after_the_show()
    {
        BloomForecast f = Bloom(A.Record(2001, 6, A.Mild), A.Tulip()).Forecasts[0];
        Assert.Equal(4, Period.DaysBetween(f.First!.Value, f.Half!.Value), 1.0);
        Assert.Equal(15 + 4, Period.DaysBetween(f.Half.Value, f.Over!.Value), 1.0);
    }

    [Fact]
    public void Where_winter_never_comes_tulips_do_not_flower_and_all_years_are_short_of_cold()
    {
        BloomForecast f = Bloom(A.Record(2001, 5, _ => (16, 26)), A.Tulip()).Forecasts[0];
        Assert.Null(f.First);
        Assert.Equal(1, f.ShareShortOfCold);
        Assert.Equal(Core.Facts.WorkingPhrase.DoesNotFlower, f.Explain(Core.Ground.BulbPlace.UsualBed).Value);
    }

    [Fact]
    public void A_bulb_year_turns_on_the_first_of_August_and_in_the_south_of_February()
    {
        Assert.Equal(A.Day(2026, 8, 1), StackBloom.BulbYearStart(A.Day(2027, 2, 8), false));
        Assert.Equal(A.Day(2027, 2, 1), StackBloom.BulbYearStart(A.Day(2027, 4, 8), true));
    }

    private static StackBloom Bloom(WeatherRecord record, params Plant[] bulbs) => Bloom(A.Pot(), record, bulbs);

    private static StackBloom Bloom(Core.Planters.Planter planter, WeatherRecord record, params Plant[] bulbs) =>
        StackBloom.From(BulbStack.LayOut(planter, Site.Default, [.. bulbs.Select(b => new PlannedBulb(b, 5, null))]), record, Planted);
}

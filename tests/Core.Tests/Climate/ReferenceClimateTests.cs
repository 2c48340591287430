using NodaTime;
using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Core.Tests.Climate;

/// <summary>Climates that ship: sound, and in the hardiness zones that their places are in; and moved to what a planner knows.</summary>
public sealed class ReferenceClimateTests
{
    [Fact]
    public void There_are_forty_and_more_and_each_makes_sense_where_it_lies()
    {
        Assert.True(ReferenceClimate.All.Count >= 40);
        Assert.All(ReferenceClimate.All, c => Assert.Empty(c.Normals.FaultsAsTyped(c.Station)));
        Assert.Equal(ReferenceClimate.All.Count, ReferenceClimate.All.Select(c => c.Name).Distinct().Count());
    }

    // Zones of the USDA map of 2023 and, for Winnipeg and Toronto, of Canada's, from memory (FromMemory); half a zone either way.
    [Theory]
    [InlineData("New York", "7b")]
    [InlineData("Minneapolis", "5a")]
    [InlineData("Chicago", "6a")]
    [InlineData("Denver", "6a")]
    [InlineData("Seattle", "9a")]
    [InlineData("Boston", "7a")]
    [InlineData("Atlanta", "8a")]
    [InlineData("St. Louis", "6b")]
    [InlineData("Winnipeg", "3b")]
    public void Years_generated_from_one_lie_in_the_zone_of_its_place(string name, string zone)
    {
        ReferenceClimate climate = ReferenceClimate.Find(name)!;
        string found = HardinessZone.From(WeatherGenerator.Generate(climate.Normals.At(climate.Station), 1, 2000, 31)).Name;
        static int Half(string z) => (2 * int.Parse(z[..^1])) + (z[^1] == 'b' ? 1 : 0);
        Assert.InRange(Half(found), Half(zone) - 2, Half(zone) + 2);
    }

    [Theory]
    [InlineData("New York", 5, 10, 9, 30)]
    [InlineData("Berlin", 4, 20, 10, 25)]
    [InlineData("Seattle", 4, 15, 10, 20)]
    [InlineData("Melbourne", 10, 5, 5, 10)]
    public void What_is_known_of_frost_is_within_a_week_what_the_years_then_say(string name, int lastMonth, int lastDay, int firstMonth, int firstDay)
    {
        LocalDate last = new(2001, lastMonth, lastDay);
        LocalDate first = new(2001, firstMonth, firstDay);
        ReferenceClimate climate = ReferenceClimate.Find(name)!.With(new KnownClimate(last, first, null, null));
        WeatherRecord record = WeatherGenerator.Generate(climate.Normals.At(climate.Station), 1, 2000, 31);
        Near(last, FrostOdds.From(record, FrostEnd.LastSpring, 0).DateAt(FrostOdds.UsualRisk).Date!.Value);
        Near(first, FrostOdds.From(record, FrostEnd.FirstFall, 0).DateAt(FrostOdds.UsualRisk).Date!.Value);
        Assert.Empty(climate.Normals.Faults());

        static void Near(LocalDate wanted, LocalDate found) => Assert.InRange(found.DayOfYear, wanted.DayOfYear - 8, wanted.DayOfYear + 8);
    }

    [Fact]
    public void The_coldest_low_and_the_hottest_high_become_what_is_known_and_what_cannot_be_is_said()
    {
        ReferenceClimate berlin = ReferenceClimate.Find("Berlin")!;
        ReferenceClimate moved = berlin.With(new KnownClimate(null, null, -5, 22));
        Assert.Equal(-5, moved.Normals.MeanMinC.Min(), 0.8);
        Assert.Equal(22, moved.Normals.MeanMaxC.Max(), 0.8);
        Assert.Throws<InvalidInputException>(() => berlin.With(new KnownClimate(null, null, -40, null)));
        Assert.Throws<InvalidInputException>(() =>
            ReferenceClimate.Find("Miami")!.With(new KnownClimate(new LocalDate(2001, 7, 1), null, null, null))
        );
    }
}

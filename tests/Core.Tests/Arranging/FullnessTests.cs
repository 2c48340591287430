using UnrulyMeadow.Core.Arranging;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Tests.Arranging;

public sealed class FullnessTests
{
    private static readonly Plant Petunia = A.Annual("petunia", 0) with { SpreadAtPurchaseCm = 12, MatureSpreadCm = 40, GrowthPerDegreeDay = 0.006 };

    [Fact]
    public void The_count_found_reaches_the_cover_and_one_plant_in_ten_fewer_does_not()
    {
        var question = new FullnessQuestion(A.Pot(), [(Petunia, 1)]);
        FullnessAnswer answer = question.For(0.9, [24]);
        Assert.True(answer.CoverOnDay >= 0.9);
        Assert.Equal(answer.CoverOnDay, question.Cover(answer.Total, [24]));
        Assert.True(question.Cover((int)(answer.Total * 0.85), [24]) < 0.9);
    }

    [Fact]
    public void Wider_plants_fill_with_fewer_and_a_later_install_wants_more()
    {
        var question = new FullnessQuestion(A.Pot(), [(Petunia, 1)]);
        Assert.True(question.For(0.9, [30]).Total < question.For(0.9, [24]).Total);
        Assert.True(question.For(0.9, [24]).Total < question.For(0.9, [20]).Total);
    }

    [Fact]
    public void A_mix_keeps_its_proportions()
    {
        FullnessAnswer answer = new FullnessQuestion(A.Bed(), [(Petunia, 2), (A.Annual("other"), 1)]).For(0.8, [25, 20]);
        Assert.InRange((double)answer.Counts[0] / answer.Counts[1], 1.9, 2.1);
    }

    [Fact]
    public void What_cannot_be_reached_with_plants_of_that_size_is_said_with_the_best_cover()
    {
        FullnessAnswer answer = new FullnessQuestion(A.Pot(), [(Petunia with { SpreadAtPurchaseCm = 12 }, 1)]).For(1, [6]);
        Assert.Equal(0, answer.Total);
        Assert.InRange(answer.CoverOnDay, 0.1, 0.6);
    }

    [Fact]
    [CommonPractice]
    public void Summer_bedding_doubles_or_triples_its_width_in_a_month_of_warmth()
    {
        // Two to three times in a month of means near 22 °C (base 10): 360 °C·d, as the palette's bedding is given.
        Assert.InRange(Petunia.SpreadCm(360) / Petunia.SpreadCm(0), 1.9, 3.1);
    }

    [Fact]
    public void Packed_from_day_one_wants_more_plants_than_filling_by_a_date_and_room_to_grow_fewer()
    {
        var question = new FullnessQuestion(A.Pot(), [(Petunia, 1)]);
        int packed = question.By(DensitySchool.PackedFromDayOne, 0.9, [28]).Total;
        int byDate = question.By(DensitySchool.ByDate, 0.9, [28]).Total;
        int room = question.By(DensitySchool.RoomToGrow, 0.9, [28]).Total;
        Assert.True(room < byDate && byDate < packed, $"{room} {byDate} {packed}");
        Assert.True(room * Math.PI / 4 * 40 * 40 <= A.Pot().Form.SurfaceCm2);
    }

    [Fact]
    [CommonPractice]
    public void Fall_displays_that_do_not_grow_are_planted_at_their_final_density()
    {
        Plant mum = A.Annual("mum") with { SpreadAtPurchaseCm = 38, MatureSpreadCm = 38 };
        var question = new FullnessQuestion(A.Bed(), [(mum, 1)]);
        FullnessAnswer answer = question.For(0.9, [mum.SpreadCm(600)]);
        Assert.Equal(answer.Total, question.Packed(0.9).Total);
        Assert.Equal(answer.CoverAtInstall, answer.CoverOnDay);
    }

    [Theory]
    [InlineData(0)]
    [InlineData(1.2)]
    [InlineData(double.NaN)]
    public void A_cover_that_is_none_is_refused(double target) =>
        Assert.Equal(
            "target",
            Assert.Single(Assert.Throws<InvalidInputException>(() => new FullnessQuestion(A.Pot(), [(Petunia, 1)]).For(target, [20])).Faults).Field
        );

    [Fact]
    public void No_plants_and_ten_thousand_shares_too_many_are_refused()
    {
        Assert.Throws<InvalidInputException>(() => new FullnessQuestion(A.Pot(), []));
        Assert.Throws<InvalidInputException>(() => new FullnessQuestion(A.Pot(), [(Petunia, 0)]));
        Assert.Throws<InvalidInputException>(() => new FullnessQuestion(A.Pot(), [(Petunia, 10_001)]));
    }

    [Fact]
    public void Totals_are_dealt_out_by_largest_remainders() => Assert.Equal([4, 2, 1], FullnessQuestion.InProportion([5, 3, 1], 7));

    [Fact]
    public void Width_by_day_is_the_median_of_the_years_and_nothing_before_planting_or_after_a_killing_frost()
    {
        WeatherRecord record = A.Record("New York");
        var flowering = new SiteFlowering(record, A.Day(2026, 9, 1));
        float[] wide = flowering.Spread(Petunia, A.Day(2027, 5, 15), A.Day(2028, 1, 1));
        int May(int day) => NodaTime.Period.DaysBetween(A.Day(2026, 9, 1), A.Day(2027, 5, day));
        Assert.Equal(0, wide[May(14)]);
        Assert.InRange(wide[May(15)], 12, 13);
        Assert.True(wide[May(15) + 60] > 30);
        float[] late = flowering.Spread(Petunia, A.Day(2026, 9, 10), A.Day(2027, 6, 1));
        Assert.True(late[30] > 0);
        Assert.Equal(0, late[120]);
    }
}

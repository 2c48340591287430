using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Core.Tests.Planning;

public sealed class PlanTests
{
    private static readonly DisplayItem[] Six = [new("annual", 6)];

    [Fact]
    public void Two_displays_cannot_fill_one_layer_of_a_planter_at_once()
    {
        var e = Assert.Throws<InvalidInputException>(() =>
            A.Plan([A.Annual()], Show("one", A.Day(2026, 5, 1), A.Day(2026, 9, 1)), Show("two", A.Day(2026, 8, 31), A.Day(2026, 12, 1)))
        );
        Assert.Equal("displays[1].install", Assert.Single(e.Faults).Field);
        Assert.Contains("before \"one\" comes out", e.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void The_next_display_may_go_in_on_the_day_the_last_comes_out() =>
        Assert.Equal(
            2,
            A.Plan([A.Annual()], Show("one", A.Day(2026, 5, 1), A.Day(2026, 9, 1)), Show("two", A.Day(2026, 9, 1), A.Day(2026, 12, 1))).Displays.Count
        );

    [Fact]
    public void Different_layers_of_a_planter_may_stand_together() =>
        Assert.Equal(
            2,
            A.Plan(
                [A.Annual(), A.Tulip()],
                Show("one", A.Day(2026, 9, 1), A.Day(2027, 5, 1)),
                A.Show("two", A.Day(2026, 10, 1), A.Day(2027, 6, 1), DisplayLayer.Bulbs, new DisplayItem("tulip", 7))
            ).Displays.Count
        );

    [Fact]
    public void A_lift_before_its_install_is_refused() =>
        Assert.Contains(Show("one", A.Day(2026, 9, 1), A.Day(2026, 8, 1)).Faults(), f =>
            f.Field == "lift" && f.Message.Contains("after the install day", StringComparison.Ordinal)
        );

    [Fact]
    public void A_missing_plant_a_twice_used_id_and_a_missing_area_are_all_named_at_once()
    {
        var e = Assert.Throws<InvalidInputException>(() =>
            A.Plan(
                [A.Pot(), A.Pot() with { AreaId = "nowhere" }],
                [A.Annual()],
                [A.Show("one", A.Day(2026, 5, 1), A.Day(2026, 9, 1), DisplayLayer.Seasonal, new DisplayItem("ghost", 3))]
            )
        );
        Assert.Equal(
            ["displays[0].items[0].plantId", "planters[1].areaId", "planters[1].id", "planters[1].name"],
            e.Faults.Select(f => f.Field).Order(StringComparer.Ordinal)
        );
    }

    [Fact]
    public void Hardy_bulbs_stand_only_in_the_bulb_layer_and_nothing_without_a_bulb_does()
    {
        Assert.Throws<InvalidInputException>(() =>
            A.Plan([A.Tulip()], A.Show("one", A.Day(2026, 9, 1), A.Day(2027, 5, 1), DisplayLayer.Seasonal, new DisplayItem("tulip", 7)))
        );
        Assert.Throws<InvalidInputException>(() =>
            A.Plan([A.Annual()], A.Show("one", A.Day(2026, 9, 1), A.Day(2027, 5, 1), DisplayLayer.Bulbs, new DisplayItem("annual", 7)))
        );
    }

    [Theory]
    [InlineData(0)]
    [InlineData(-3)]
    [InlineData(10_001)]
    public void A_count_must_be_from_one_to_ten_thousand(int count) =>
        Assert.Contains(A.Show("one", A.Day(2026, 5, 1), A.Day(2026, 9, 1), DisplayLayer.Seasonal, new DisplayItem("annual", count)).Faults(), f =>
            f.Field == "items[0].count"
        );

    [Fact]
    public void An_id_made_from_a_name_keeps_letters_and_drops_accents_and_what_is_no_letter()
    {
        Assert.Equal("cafe-pot-no-7", Ids.From("Café pot, no. 7!", _ => false));
        Assert.Equal("pot-3", Ids.From("Pot", id => id is "pot" or "pot-2"));
        Assert.Equal("planter", Ids.From("植木鉢", _ => false));
        Assert.True(Ids.IsValid(Ids.From(new string('x', 300), _ => false)));
    }

    private static Display Show(string id, NodaTime.LocalDate install, NodaTime.LocalDate lift) =>
        A.Show(id, install, lift, DisplayLayer.Seasonal, Six);
}

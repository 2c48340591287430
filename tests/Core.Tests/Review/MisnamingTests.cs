using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Core.Tests.Review;

/// <summary>Plants that were sold under a wrong name.</summary>
public sealed class MisnamingTests
{
    private static readonly Plant[] Kinds = [A.Tulip("sold-as"), A.Tulip("really", height: 4), A.Annual("pansy")];

    private static Plan Planted() =>
        new(
            Site.Default,
            [A.Plan([], []).Areas[0]],
            [A.UsedPot(), A.UsedPot("second"), A.UsedPot("third")],
            Kinds,
            [Bulbs("a", "pot", 10), Bulbs("b", "second", 12), Bulbs("c", "third", 300)],
            [],
            lots: [new Lot("kept", "sold-as", 5, LotState.Stored, "shed", A.Day(2026, 6, 1), LotCondition.Good, "pot")]
        );

    [Fact]
    public void What_was_planted_from_one_delivery_follows_and_what_came_with_another_does_not()
    {
        Plan plan = Planted();
        var (before, after, _, lots) = new Misnaming("pot", "sold-as", "really", A.Day(2027, 4, 20), true).In(plan);
        Assert.Equal(["a", "b"], before.Select(d => d.Id));
        Assert.All(after, d => Assert.Equal("really", d.Items.Single().PlantId));
        Assert.Equal("really", Assert.Single(lots).PlantId);
        Assert.Single(new Misnaming("pot", "sold-as", "really", A.Day(2027, 4, 20), false).In(plan).Before);
    }

    [Fact]
    public void Bulbs_stay_as_deep_as_they_were_planted()
    {
        Plan plan = Planted();
        double planted = BulbStack.Depths(plan.Planters[0], plan.Site, plan.BulbsOf(plan.Displays[0])).Single().DepthCm;
        Display after = new Misnaming("pot", "sold-as", "really", A.Day(2027, 4, 20), false).In(plan).After.Single();
        Assert.Equal(planted, after.Items.Single().DepthCm);
        Assert.Equal(plan.Displays[0].Items.Single().Count, after.Items.Single().Count);
    }

    [Fact]
    public void What_does_not_stand_there_or_cannot_is_refused_by_field()
    {
        Plan plan = Planted();
        Assert.Equal("plantId", Refused(new Misnaming("pot", "pansy", "really", A.Day(2027, 4, 20), false)));
        Assert.Equal("really", Refused(new Misnaming("pot", "sold-as", "pansy", A.Day(2027, 4, 20), false)));
        Assert.Equal("really", Refused(new Misnaming("pot", "sold-as", "sold-as", A.Day(2027, 4, 20), false)));

        string Refused(Misnaming act) => Assert.Throws<InvalidInputException>(() => act.In(plan)).Faults.Single().Field;
    }

    private static Display Bulbs(string id, string planter, int daysLater) =>
        A.Show(id, A.Day(2026, 10, 1).PlusDays(daysLater), A.Day(2028, 6, 10), DisplayLayer.Bulbs, new DisplayItem("sold-as", 9)) with
        {
            PlanterId = planter,
        };
}

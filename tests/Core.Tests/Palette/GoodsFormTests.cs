using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Work;

namespace UnrulyMeadow.Core.Tests.Palette;

/// <summary>The forms in which plants are bought.</summary>
public sealed class GoodsFormTests
{
    private static readonly Plant Petunia = A.Shipped("petunia-magenta");

    [Fact, CommonPractice]
    public void Bedding_is_bought_in_packs_unless_somebody_says_that_plugs_are_grown_on()
    {
        Assert.Equal(["packs", "10 cm pot", "plugs"], GoodsForm.Of(Petunia).Select(f => f.Name));
        Assert.Equal("packs", GoodsForm.Usual(Petunia).Name);
        Assert.Equal("10 cm pot", GoodsForm.Usual(Petunia, inColour: true).Name);
        Assert.InRange(GoodsForm.Find(Petunia, "plugs")!.GrowOnWeeks, 4, 7);
        Assert.Equal(0, GoodsForm.Usual(Petunia).GrowOnWeeks);
    }

    [Fact]
    public void Every_pack_of_every_kind_belongs_to_one_form_and_no_two_forms_of_a_kind_share_a_name() => Assert.All(A.Palette, p =>
        {
            IReadOnlyList<GoodsForm> forms = GoodsForm.Of(p);
            Assert.Equal(
                p.Packs.OrderBy(k => k.Form, StringComparer.Ordinal),
                forms.SelectMany(f => f.Packs).OrderBy(k => k.Form, StringComparer.Ordinal)
            );
            Assert.Equal(forms.Count, forms.Select(f => f.Name).Distinct(StringComparer.Ordinal).Count());
            Assert.All(forms, f => Assert.Same(GoodsForm.AsBought(p, f), GoodsForm.AsBought(p, f)));
        });

    [Fact]
    public void What_is_ordered_for_bedding_in_bud_is_never_plugs()
    {
        var turn = new Turn("summer", "Summer", A.Day(2027, 5, 17), A.Day(2027, 5, 28));
        Plan plan = Summer(72, null, turn);
        OrderLine line = Assert.Single(TurnOrder.For(plan, turn).Lines);
        Assert.Equal("packs", line.Form.Name);
        Assert.DoesNotContain(line.Purchase.Packs, p => p.Pack.Form.Contains("plug", StringComparison.Ordinal));
        OrderLine plugs = Assert.Single(TurnOrder.For(Summer(72, "plugs", turn), turn).Lines);
        Assert.All(plugs.Purchase.Packs, p => Assert.Contains("plug", p.Pack.Form, StringComparison.Ordinal));
        Assert.True(plugs.Purchase.Bought >= 72);
    }

    [Fact]
    public void A_kind_in_two_forms_makes_two_lines_and_stock_is_taken_once()
    {
        var turn = new Turn("summer", "Summer", A.Day(2027, 5, 17), A.Day(2027, 5, 28));
        Plan one = A.Plan(
            [A.UsedPot(), A.UsedPot("second")],
            [Petunia],
            [Show("a", "pot", "packs", 10), Show("b", "second", "10 cm pot", 10)],
            [turn]
        );
        var plan = new Plan(
            one.Site,
            one.Areas,
            one.Planters,
            one.Palette,
            one.Displays,
            one.Turns,
            lots: [new Lot("lot", Petunia.Id, 6, LotState.Waiting, "yard", A.Day(2027, 5, 1), LotCondition.Good)]
        );
        IReadOnlyList<OrderLine> lines = TurnOrder.For(plan, turn).Lines;
        Assert.Equal(["10 cm pot", "packs"], lines.Select(l => l.Form.Name));
        Assert.Equal(6, lines.Sum(l => l.FromStock));
        Assert.All(lines, l => Assert.True(l.FromStock + l.Purchase.Bought >= l.Planned));

        static Display Show(string id, string planter, string form, int count) =>
            A.Show(id, A.Day(2027, 5, 18), A.Day(2027, 9, 20), DisplayLayer.Seasonal, new DisplayItem(Petunia.Id, count) { Form = form }) with
            {
                PlanterId = planter,
            };
    }

    [Fact, CommonPractice]
    public void A_larger_pot_covers_more_on_the_day_it_is_planted()
    {
        double Wide(string form) =>
            Summer(7, form, null) is var plan
                ? PlantedItem.Of(plan, plan.Planters[0], A.Day(2026, 9, 1), A.Day(2027, 9, 1)).Single().Plant.SpreadAtPurchaseCm
                : 0;
        Assert.True(Wide("plugs") < Wide("packs"));
        Assert.True(Wide("packs") < Wide("10 cm pot"));
    }

    private static Plan Summer(int count, string? form, Turn? turn) =>
        A.Plan(
            [A.UsedPot()],
            [Petunia],
            [A.Show("summer", A.Day(2027, 5, 18), A.Day(2027, 9, 20), DisplayLayer.Seasonal, new DisplayItem(Petunia.Id, count) { Form = form })],
            turn is null ? [] : [turn]
        );
}

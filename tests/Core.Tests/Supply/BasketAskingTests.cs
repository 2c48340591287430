using NodaTime;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Core.Work;
using UnrulyMeadow.Exchange.PlanFiles;

namespace UnrulyMeadow.Core.Tests.Supply;

/// <summary>The question of a basket out of the demo's summer turn, and the orders made of its answer.</summary>
public sealed class BasketAskingTests
{
    private static readonly LocalDate Today = new(2027, 4, 5);
    private static readonly Supplier Grower = new("grower", "Grower");
    private static readonly Plan Demo = Read();
    private static readonly Turn Summer = Demo.Turns.First(t => t.Id == "summer-2027");
    private static readonly IReadOnlyList<SupplyNeed> Needs = SupplyNeed.Of(TurnOrder.For(Demo, Summer, Today), [], Demo.Lots);
    private static readonly SupplyNeed Petunia = Needs.First(n => n.Line.Plant.Id == "petunia-magenta");

    // Sold at the guide's prices, and as plugs; three weeks from the order to the delivery.
    private static List<Offer> Offers(string kind) =>
        [
            .. Demo.Plant(kind)
                .Packs.Select(p => new Offer(Grower.Id, kind, p.Form, p.Size, [new PriceStep(1, Math.Round(p.Price, 2))]) { LeadDays = 21 }),
        ];

    private static BasketQuestion Ask(bool plugs = false, (string?, string?)? choice = null, LocalDate? today = null) =>
        BasketAsking.Of(Needs, [Grower], Offers(Petunia.Line.Plant.Id), k => k == Petunia.Line.Plant.Id ? choice : null, plugs, null, today ?? Today);

    [Fact]
    public void Guide_prices_stand_in_where_nobody_offers_and_nothing_is_ordered_by_them()
    {
        BasketQuestion question = Ask();
        Assert.Equal(Needs.Count(n => n.Open > 0), question.Needs.Count);
        Assert.All(question.Needs, n =>
            Assert.All(question.OffersFor(n), o => Assert.Equal(n.PlantId == Petunia.Line.Plant.Id ? Grower.Id : BasketAsking.Guide.Id, o.SupplierId))
        );
        var basket = new Basket(
            question,
            [
                .. question.Needs.Select(n =>
                {
                    Offer offer = question.OffersFor(n)[0];
                    return new BasketLine(n, offer, (n.Count + offer.PackSize - 1) / offer.PackSize);
                }),
            ],
            []
        );
        PurchaseOrder order = Assert.Single(BasketAsking.Drafts(basket, k => Demo.Plant(k).CommonName, (_, _) => "Pet. mag.", Summer.Id));
        OrderedLine line = Assert.Single(order.Lines);
        Assert.Equal(("petunia-magenta", "Pet. mag.", Summer.Id), (line.PlantId, line.TheirName, line.TurnId));
        Assert.True(line.Plants >= line.Wanted && line.Wanted == Petunia.Open);
    }

    [Fact]
    public void A_form_that_the_plan_does_not_want_serves_only_where_it_may()
    {
        BasketNeed plain = Ask().Needs.First(n => n.PlantId == "petunia-magenta");
        Assert.DoesNotContain(Ask().OffersFor(plain), o => o.GrowOnWeeks > 0 || o.Form == "10 cm pot");
        // Plugs have to come five weeks before: in April it is too late for them.
        Assert.DoesNotContain(Ask(plugs: true).OffersFor(Ask(plugs: true).Needs.First(n => n.PlantId == "petunia-magenta")), o => o.GrowOnWeeks > 0);
        BasketQuestion early = Ask(plugs: true, today: Today.PlusWeeks(-8));
        Assert.Contains(early.OffersFor(early.Needs.First(n => n.PlantId == "petunia-magenta")), o => o.GrowOnWeeks > 0);
    }

    [Fact]
    public void What_the_planner_chose_is_taken_alone_even_where_it_comes_late_and_what_that_costs_is_said()
    {
        BasketQuestion chosen = Ask(choice: (Grower.Id, "10 cm pot"), today: Petunia.By.PlusDays(-10));
        BasketNeed need = chosen.Needs.First(n => n.PlantId == "petunia-magenta");
        Assert.Equal("10 cm pot", Assert.Single(chosen.OffersFor(need)).Form);
        IReadOnlyList<BasketAlternative> all = BasketAlternative.Of(need, chosen);
        Assert.Equal(Offers("petunia-magenta").Count, all.Count);
        Assert.Equal(11, all.First(a => a.Offer.Form == "10 cm pot").DaysLate);
        BasketAlternative plugs = all.First(a => a.Offer.GrowOnWeeks > 0);
        Assert.Equal(11 + 35, plugs.DaysLate);
        Assert.True(plugs.CareMinutes > 0 && all.Where(a => a.Offer.GrowOnWeeks == 0).All(a => a.CareMinutes == 0));
    }

    private static Plan Read()
    {
        using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "data", "kittiwake-quay.plan.json"));
        return PlanFile.Read(file);
    }
}

using NodaTime;
using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Supply;

/// <summary>Makes the question of a basket out of what a turn still has to get.</summary>
public static class BasketAsking
{
    /// <summary>As whom guide prices of the palette stand in a basket where nobody offers a kind.</summary>
    public static Supplier Guide { get; } = new("guide-price", "guide price");

    /// <summary>The question.</summary>
    /// <param name="needs">What is to be got, by kind and form; what is on order already is left out.</param>
    /// <param name="suppliers">Suppliers.</param>
    /// <param name="offers">Their offers of these kinds.</param>
    /// <param name="chosen">What the planner has decided of a kind: a supplier, a form, both or neither.</param>
    /// <param name="plugs">True where plugs that are grown on here will do in the place of finished plants.</param>
    /// <param name="mostPlugs">Plugs that there is room for; null for any number.</param>
    /// <param name="today">The day of the order.</param>
    public static BasketQuestion Of(
        IReadOnlyList<SupplyNeed> needs,
        IReadOnlyList<Supplier> suppliers,
        IReadOnlyList<Offer> offers,
        Func<string, (string? SupplierId, string? Form)?> chosen,
        bool plugs,
        int? mostPlugs,
        LocalDate today
    )
    {
        offers = [.. offers.Select(o => suppliers.FirstOrDefault(s => s.Id == o.SupplierId) is { } by ? o.OnTermsOf(by) : o)];
        ILookup<string, Offer> byKind = offers.ToLookup(o => o.PlantId, StringComparer.Ordinal);
        var asked = new List<BasketNeed>();
        var guide = new List<Offer>();
        foreach (SupplyNeed need in needs.Where(n => n.Open > 0))
        {
            Plant plant = need.Line.Plant;
            List<Offer> here = [.. byKind[plant.Id]];
            if (here.Count == 0)
            {
                here = [.. plant.Packs.Select(p => new Offer(Guide.Id, plant.Id, p.Form, p.Size, [new PriceStep(1, Math.Round(p.Price, 2))]))];
                guide.AddRange(here.Where(o => !guide.Contains(o)));
            }
            GoodsSort wanted = need.Line.Form.Sort;
            bool Does(Offer offer) =>
                GoodsForm.SortOf(plant, offer.Form, offer.PackSize) is var sort
                && (sort == wanted || (plugs && sort == GoodsSort.Plugs && wanted is GoodsSort.Packs or GoodsSort.Pot));
            (string? supplier, string? form) = chosen(plant.Id) ?? (null, null);
            List<string> forms = form is null ? [.. here.Where(Does).Select(o => o.Form).Distinct(StringComparer.Ordinal)] : [form];
            // Where nobody offers the form that is planned, none will do, and the planner is told.
            asked.Add(
                new BasketNeed(plant.Id, need.Open, need.By) { Forms = forms.Count == 0 ? [need.Line.Form.Name] : forms, OnlySupplierId = supplier }
            );
        }
        return new BasketQuestion(asked, guide.Count == 0 ? suppliers : [.. suppliers, Guide], [.. offers, .. guide], today)
        {
            MostGrownOn = mostPlugs,
        };
    }

    /// <summary>Orders, one for each supplier, that buy a basket; guide prices are nobody's and are left out.</summary>
    /// <param name="basket">The basket.</param>
    /// <param name="nameOf">What a kind is called.</param>
    /// <param name="theirName">What a supplier calls a kind; null where nobody knows.</param>
    /// <param name="turnId">The turn that it is for.</param>
    public static IReadOnlyList<PurchaseOrder> Drafts(
        Basket basket,
        Func<string, string> nameOf,
        Func<string, string, string?> theirName,
        string? turnId
    ) =>
        [
            .. basket
                .Lines.Where(l => l.Offer.SupplierId != Guide.Id)
                .GroupBy(l => l.Offer.SupplierId, StringComparer.Ordinal)
                .Select(g => new PurchaseOrder(
                    Guid.CreateVersion7(),
                    basket.Question.Suppliers.First(s => s.Id == g.Key),
                    [
                        .. g.OrderBy(l => l.Offer.DeliveredBy(l.Need.By))
                            .ThenBy(l => nameOf(l.Need.PlantId), StringComparer.Ordinal)
                            .Select(
                                (l, i) =>
                                    new OrderedLine(
                                        i + 1,
                                        l.Need.PlantId,
                                        nameOf(l.Need.PlantId),
                                        l.Offer.Form,
                                        l.Offer.PackSize,
                                        l.Packs,
                                        Math.Round(l.Price / l.Packs, 2),
                                        l.Offer.DeliveredBy(l.Need.By),
                                        turnId
                                    )
                                    {
                                        Wanted = Math.Min(l.Plants, l.Need.Count),
                                        TheirName = theirName(g.Key, l.Need.PlantId),
                                    }
                            ),
                    ]
                )),
        ];
}

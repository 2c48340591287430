using NodaTime;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Work;

namespace UnrulyMeadow.Core.Supply;

/// <summary>Goods of a turn that are ordered alike, and the last day to do so.</summary>
/// <param name="Turn">The turn.</param>
/// <param name="Sort">The sort of goods.</param>
/// <param name="IsWood">True for trees and shrubs, which are ordered earlier than other pots.</param>
/// <param name="Lines">What is bought of them.</param>
/// <param name="By">The day on which they are wanted here: that of the delivery; what is grown on first comes so much earlier.</param>
/// <param name="LastOrderDay">The last day to order them, by the usual lead times.</param>
public sealed record OrderDeadline(Turn Turn, GoodsSort Sort, bool IsWood, IReadOnlyList<OrderLine> Lines, LocalDate By, LocalDate LastOrderDay)
{
    // Weeks from an order to its goods (common practice; an offer's own lead time goes before): plugs are grown to order, bulbs are ordered at the
    // start of the summer before, finished bedding a few weeks ahead, wood before the nursery has lifted it.
    private const int PlugWeeks = 16;
    private const int BulbWeeks = 16;
    private const int FinishedWeeks = 3;
    private const int WoodWeeks = 8;
    private const int StemWeeks = 2;

    /// <summary>Plants and bulbs bought.</summary>
    public int Bought => Lines.Sum(l => l.Purchase.Bought);

    /// <summary>Their guide price.</summary>
    public decimal Cost => Lines.Sum(l => l.Purchase.Cost);

    /// <summary>The same of what is neither on its way nor in a draft; null where nothing is left to order.</summary>
    /// <param name="needs">What the turn still has to get.</param>
    public OrderDeadline? Without(IReadOnlyList<SupplyNeed> needs)
    {
        List<OrderLine> left =
        [
            .. Lines.Where(l => !needs.Any(n => n.Line.Plant.Id == l.Plant.Id && n.Line.Form.Name == l.Form.Name && n.Open == 0)),
        ];
        return left.Count == 0 ? null : this with { Lines = left };
    }

    /// <summary>True when the last day to order is over.</summary>
    public bool IsLate(LocalDate today) => today > LastOrderDay;

    /// <summary>The arithmetic behind the day.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.OrderDeadline,
            LastOrderDay,
            [new WorkingInput(InputName.Lines, Lines.Count)],
            [new Fact(WorkingPhrase.OrderDeadlineStep, ("by", By), ("weeks", Quantity.Weeks(LeadWeeks(Sort, IsWood))), ("last", LastOrderDay))]
        )
        {
            Parts = [("turn", Turn.Name)],
        };

    /// <summary>The deadlines of some turns' orders, the earliest first.</summary>
    public static IReadOnlyList<OrderDeadline> Of(IEnumerable<TurnOrder> orders) =>
        [
            .. orders
                .SelectMany(o =>
                    o.Lines.Where(l => l.Purchase.Bought > 0)
                        .GroupBy(l => (l.Form.Sort, IsWood: l.Plant.LifeForm is LifeForm.Shrub or LifeForm.Tree))
                        .Select(g =>
                        {
                            LocalDate here = o.Turn.Delivery ?? o.Turn.FirstDay;
                            LocalDate by = g.Max(l => l.Form.GrowOnWeeks) is > 0 and var weeks ? o.Turn.FirstDay.PlusWeeks(-weeks) : here;
                            return new OrderDeadline(
                                o.Turn,
                                g.Key.Sort,
                                g.Key.IsWood,
                                [.. g],
                                by,
                                by.PlusWeeks(-LeadWeeks(g.Key.Sort, g.Key.IsWood))
                            );
                        })
                )
                .OrderBy(d => d.LastOrderDay)
                .ThenBy(d => d.Sort),
        ];

    private static int LeadWeeks(GoodsSort sort, bool isWood) =>
        sort switch
        {
            GoodsSort.Plugs => PlugWeeks,
            GoodsSort.Bulbs => BulbWeeks,
            GoodsSort.Stems => StemWeeks,
            _ => isWood ? WoodWeeks : FinishedWeeks,
        };
}

using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Supply;

/// <summary>Orders, what is waited for, and credits that are open.</summary>
[Needs(SiteRole.Guest)]
public sealed class OrdersModel(PageFrame frame, SupplyDesk desk) : PageModel
{
    public SiteNow Now { get; private set; } = null!;

    public SupplyNow Supply { get; private set; } = null!;

    public LongList<OrderAccount> Orders { get; private set; } = null!;

    /// <summary>Plants that the plan no longer wants, by the order that they are in.</summary>
    public IReadOnlyDictionary<Guid, int> Fewer { get; private set; } = new Dictionary<Guid, int>();

    public async Task OnGetAsync()
    {
        Now = await frame.Now();
        Supply = await desk.Supply();
        Orders = LongList.Of(
            Request.Query,
            "orders",
            [.. Supply.Accounts.OrderBy(a => a.Order.Stage != OrderState.Draft).ThenBy(a => !a.Order.IsOpen)],
            a => $"{Called(a.Order)} {a.Order.Supplier.Name} {Words.Of(a.State)}",
            "open ones first",
            [
                new("sent", "the last sent first", all => all.OrderByDescending(a => a.Order.SentOn)),
                new("wanted", "the first wanted first", all => all.OrderBy(a => Wanted(a.Order))),
                new("supplier", "by supplier", all => all.OrderBy(a => a.Order.Supplier.Name, StringComparer.OrdinalIgnoreCase)),
                new("bill", "the largest bill first", all => all.OrderByDescending(a => a.Order.Bill.Total)),
                new("come", "most to come first", all => all.OrderByDescending(a => a.Lines.Sum(l => l.Outstanding))),
            ]
        );
        var fewer = new Dictionary<Guid, int>();
        foreach (OrderAccount account in Orders.Shown)
            fewer[account.Order.Id] = (await desk.Differences(account)).Sum(d => d.Fewer);
        Fewer = fewer;
    }

    /// <summary>What an order is called.</summary>
    public static string Called(PurchaseOrder order) => order.Number is { } number ? $"Order {number}" : "Draft";

    /// <summary>The day for which an order is promised, or else wanted; today where it has no line yet.</summary>
    public LocalDate Wanted(PurchaseOrder order) => order.PromisedFor ?? (order.Lines.Count == 0 ? frame.Today : order.Lines.Min(l => l.By));
}

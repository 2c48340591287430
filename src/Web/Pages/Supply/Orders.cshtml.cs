using Microsoft.AspNetCore.Mvc.RazorPages;
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
    [Microsoft.AspNetCore.Mvc.BindProperty(SupportsGet = true, Name = "part")]
    public string? PartText { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public SupplyNow Supply { get; private set; } = null!;

    public ListPage Part { get; private set; } = null!;

    public IReadOnlyList<OrderAccount> Orders { get; private set; } = [];

    /// <summary>Plants that the plan no longer wants, by the order that they are in.</summary>
    public IReadOnlyDictionary<Guid, int> Fewer { get; private set; } = new Dictionary<Guid, int>();

    public async Task OnGetAsync()
    {
        Now = await frame.Now();
        Supply = await desk.Supply();
        Part = ListPage.Of(Supply.Accounts.Count, PartText);
        Orders = [.. Part.Take(Supply.Accounts.OrderBy(a => a.Order.Stage != OrderState.Draft).ThenBy(a => !a.Order.IsOpen))];
        var fewer = new Dictionary<Guid, int>();
        foreach (OrderAccount account in Orders)
            fewer[account.Order.Id] = (await desk.Differences(account)).Sum(d => d.Fewer);
        Fewer = fewer;
    }
}

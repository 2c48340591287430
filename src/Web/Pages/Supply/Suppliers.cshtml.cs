using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Supply;

/// <summary>Who sells to the site, on what terms.</summary>
[Needs(SiteRole.Guest)]
public sealed class SuppliersModel(PageFrame frame, SupplyDesk desk) : PageModel
{
    [BindProperty]
    public string? Name { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public SupplyNow Supply { get; private set; } = null!;

    public async Task<IActionResult> OnGetAsync()
    {
        await Load();
        return Page();
    }

    /// <summary>Adds a supplier by name; terms and prices follow on their own page.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAsync() =>
        await frame.Saving(
            this,
            f => f == "name" ? "Name" : null,
            async () =>
            {
                await Load();
                var supplier = new Supplier(
                    Ids.From(string.IsNullOrWhiteSpace(Name) ? "supplier" : Name, x => x == BasketAsking.Guide.Id || Supply.Supplier(x) is not null),
                    Name?.Trim() ?? string.Empty
                );
                if (Supply.Suppliers.Any(s => string.Equals(s.It.Name, supplier.Name, StringComparison.OrdinalIgnoreCase)))
                    throw new InvalidInputException("name", "is a supplier's already");
                await desk.Store.Save(supplier, null);
                TempData["Said"] = $"{supplier.Name}: added. Their terms and prices are still missing.";
                return Redirect($"/supply/suppliers/{supplier.Id}");
            },
            Load
        );

    private async Task Load()
    {
        Now = await frame.Now();
        Supply = await desk.Supply();
    }
}

using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Exchange.Supply;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Jobs;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Supply;

/// <summary>What to buy where: the cheapest basket for a turn, decided line by line, and the orders made of it.</summary>
[Needs(SiteRole.Guest)]
public sealed class BasketModel(PageFrame frame, SupplyDesk desk, JobDesk jobs) : PageModel
{
    [BindProperty(SupportsGet = true, Name = "turn")]
    public string? TurnId { get; set; }

    /// <summary>True where plugs that are grown on here will do.</summary>
    [BindProperty(SupportsGet = true)]
    public bool Plugs { get; set; }

    [BindProperty(SupportsGet = true, Name = "job")]
    public Guid? JobId { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public SupplyNow Supply { get; private set; } = null!;

    public IReadOnlyList<Turn> Turns { get; private set; } = [];

    public Turn? Turn { get; private set; }

    public IReadOnlyList<SupplyNeed> Needs { get; private set; } = [];

    public BasketQuestion? Question { get; private set; }

    public Job? Job { get; private set; }

    public BasketResult? Result { get; private set; }

    public Basket? Basket { get; private set; }

    public bool IsOfNow { get; private set; } = true;

    public string Here => $"/supply/basket?turn={Uri.EscapeDataString(Turn?.Id ?? string.Empty)}{(Plugs ? "&plugs=true" : null)}";

    /// <summary>What was decided of a kind.</summary>
    public SupplyChoice? ChoiceOf(string plantId) => Supply.Choices.GetValueOrDefault(Turn?.Id ?? string.Empty)?.GetValueOrDefault(plantId);

    /// <summary>What a supplier is called.</summary>
    public string SupplierName(string id) => id == BasketAsking.Guide.Id ? BasketAsking.Guide.Name : Supply.Supplier(id)?.It.Name ?? id;

    public async Task<IActionResult> OnGetAsync()
    {
        if (!await Load())
            return NotFound();
        if (Turn is null)
            return Page();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                BasketAsk ask = await Ask();
                (Job, Result, IsOfNow) = await jobs.Look<BasketAsk, BasketResult>(JobKinds.Basket, ask, Now, JobId);
                Basket = Result?.Over(Question!);
                return Page();
            }
        );
    }

    /// <summary>Has the cheapest basket looked for.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAskAsync()
    {
        if (!await Load() || Turn is null)
            return NotFound();
        return await frame.Saving(this, _ => null, AskAnew);
    }

    /// <summary>Keeps what was decided of a kind, and has the rest looked for around it.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostChooseAsync(string? plant, string? choice)
    {
        if (!await Load() || Turn is null || Now.Plan.FindPlant(plant ?? string.Empty) is not { } kind)
            return NotFound();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                // A choice is a supplier and a form, with a bar between; empty for the cheapest.
                string[] parts = (choice ?? string.Empty).Split('|', 2);
                await desk.Store.Choose(
                    Turn.Id,
                    kind.Id,
                    parts.Length == 2 ? new SupplyChoice(parts[0].Length == 0 ? null : parts[0], parts[1]) : new SupplyChoice(null, null)
                );
                return await AskAnew();
            }
        );
    }

    /// <summary>Makes orders of the basket, one for each supplier; nothing is sent yet.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostDraftAsync()
    {
        if (!await Load() || Turn is null)
            return NotFound();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                BasketAsk ask = await Ask();
                (Job, Result, IsOfNow) = await jobs.Look<BasketAsk, BasketResult>(JobKinds.Basket, ask, Now, JobId);
                Basket = Result?.Over(Question!);
                if (Basket is null || !IsOfNow || Job is not { IsOver: true })
                    throw new InvalidInputException(
                        string.Empty,
                        "The plan, prices or orders have changed since this was worked out: find the cheapest again"
                    );
                // As each supplier's own list names the kinds.
                var theirs = new Dictionary<string, Dictionary<string, string>>(StringComparer.Ordinal);
                foreach (string supplier in Basket.Lines.Select(l => l.Offer.SupplierId).Distinct(StringComparer.Ordinal))
                {
                    IReadOnlyDictionary<string, string>? names = (await desk.Store.Columns<PriceListColumns>(supplier))?.Names;
                    theirs[supplier] = (names ?? new Dictionary<string, string>())
                        .GroupBy(n => n.Value, StringComparer.Ordinal)
                        .ToDictionary(g => g.Key, g => g.First().Key, StringComparer.Ordinal);
                }
                IReadOnlyList<PurchaseOrder> orders = BasketAsking.Drafts(
                    Basket,
                    k => Now.Plan.Plant(k).CommonName,
                    (supplier, kind) => theirs[supplier].GetValueOrDefault(kind),
                    Turn.Id
                );
                if (orders.Count == 0)
                    throw new InvalidInputException(string.Empty, "Nobody offers any of it: bring in a price list first");
                await desk.Store.Draft(orders, ask.State);
                TempData["Said"] = $"{Words.Count(orders.Count, "order", "orders")} drafted. Nothing is sent yet.";
                return Redirect("/supply/orders");
            }
        );
    }

    private async Task<IActionResult> AskAnew()
    {
        Supply = await desk.Supply();
        Job asked = await jobs.Ask(JobKinds.Basket, await Ask(), Now, PageFrame.Asker(HttpContext));
        return Redirect($"{Here}&job={asked.Id}");
    }

    private async Task<BasketAsk> Ask()
    {
        string state = await desk.Store.Mark();
        Needs = await desk.Needs(Turn!);
        var ask = new BasketAsk(Turn!.Id, frame.Today, Plugs, state, BasketAsk.MarkOf(Needs));
        Question = await BasketAsk.Question(Needs, desk.Store, Supply, ask);
        return ask;
    }

    private async Task<bool> Load()
    {
        Now = await frame.Now();
        Supply = await desk.Supply();
        Turns = await desk.TurnsToCome();
        Turn = string.IsNullOrEmpty(TurnId) ? (Turns.Count > 0 ? Turns[0] : null) : Now.Plan.Turns.FirstOrDefault(t => t.Id == TurnId);
        return Turn is not null || string.IsNullOrEmpty(TurnId);
    }
}

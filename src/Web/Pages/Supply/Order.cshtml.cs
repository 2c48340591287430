using System.Globalization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Exchange.Supply;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Supply;

/// <summary>One order: sent, followed, paid, its credits settled; as a page for the supplier, and as a file.</summary>
[Needs(SiteRole.Guest)]
public sealed class OrderModel(PageFrame frame, SupplyDesk desk) : PageModel
{
    [FromRoute(Name = "id")]
    public Guid Id { get; set; }

    /// <summary>The version at which it was read.</summary>
    [BindProperty]
    public long Version { get; set; }

    [BindProperty]
    public string? Promised { get; set; }

    [BindProperty]
    public string? Paid { get; set; }

    [BindProperty]
    public string? PaidOn { get; set; }

    [BindProperty]
    public string? Note { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public SupplyNow Supply { get; private set; } = null!;

    public OrderAccount Account { get; private set; } = null!;

    public PurchaseOrder Order => Account.Order;

    public IReadOnlyList<Kept<CreditClaim>> Claims { get; private set; } = [];

    public IReadOnlyList<KeptReceipt> Receipts { get; private set; } = [];

    public IReadOnlyDictionary<Guid, IReadOnlyList<Guid>> Photographs { get; private set; } = new Dictionary<Guid, IReadOnlyList<Guid>>();

    /// <summary>Lines of which the plan wants fewer than when they were ordered, and by how many.</summary>
    public IReadOnlyList<(OrderedLine Line, int Fewer)> Differences { get; private set; } = [];

    /// <summary>What will go wrong with it in the holding area, if it comes when it is promised or wanted.</summary>
    public IReadOnlyList<HoldingRemark> Waiting { get; private set; } = [];

    /// <summary>What is called what: "Order 7", or "Draft for…".</summary>
    public string Name => Order.Number is { } number ? $"Order {number}" : $"Draft for {Order.Supplier.Name}";

    // An address holds so much; of thousands of planters the first are shown, and the page takes more of them in.
    private const int LongestList = 4000;

    private static IEnumerable<string> AsFitAnAddress(IEnumerable<string> ids)
    {
        int length = 0;
        return ids.TakeWhile(id => (length += id.Length + 1) <= LongestList);
    }

    /// <summary>Where to see what another kind does in the displays that were to have the one ordered.</summary>
    public string InDisplays(OrderedLine line, string kind, Turn turn) =>
        $"{frame.Base}/year/act"
        + QueryString.Create(
            new Dictionary<string, string?>(StringComparer.Ordinal)
            {
                ["kind"] = nameof(Core.Acts.ActKind.ReplaceKind),
                ["day"] = Words.Iso(turn.FirstDay),
                ["oldPlant"] = line.PlantId,
                ["newPlant"] = kind,
                ["planterList"] = string.Join(',', AsFitAnAddress(DisplaysOf(line, turn).Select(d => d.PlanterId).Distinct(StringComparer.Ordinal))),
            }
        );

    /// <summary>Where to see what fits in the place of a kind that was refused, ranked by its fit; null where no display wants it.</summary>
    public string? InItsPlace(OrderedLine line) =>
        Now.Plan.Turns.FirstOrDefault(t => t.Id == line.TurnId) is { } turn && DisplaysOf(line, turn).FirstOrDefault() is { } display
            ? $"{frame.Base}/palette?planter={display.PlanterId}&from={Words.Iso(display.Install)}&to={Words.Iso(display.Lift)}"
            : null;

    private IEnumerable<Display> DisplaysOf(OrderedLine line, Turn turn) =>
        Now.Plan.Displays.Where(d => turn.Holds(d.Install) && d.Items.Any(i => i.PlantId == line.PlantId));

    public async Task<IActionResult> OnGetAsync() => await Load() ? Page() : NotFound();

    /// <summary>The order as a workbook, in the supplier's own packs and words.</summary>
    public async Task<IActionResult> OnGetXlsxAsync() =>
        await Load()
            ? File(
                OrderSheet.Workbook(Order),
                "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
                $"order-{Order.Number?.ToString(CultureInfo.InvariantCulture) ?? "draft"}.xlsx"
            )
            : NotFound();

    /// <summary>The order as CSV.</summary>
    public async Task<IActionResult> OnGetCsvAsync() =>
        await Load()
            ? File(OrderSheet.Csv(Order), "text/csv; charset=utf-8", $"order-{Order.Number?.ToString(CultureInfo.InvariantCulture) ?? "draft"}.csv")
            : NotFound();

    /// <summary>A photograph of a delivery.</summary>
    public async Task<IActionResult> OnGetPhotoAsync(Guid photo, bool small) =>
        await desk.Store.Photograph(photo, small) is { } jpeg ? File(jpeg, "image/jpeg") : NotFound();

    /// <summary>Takes the order a step on: sends, confirms, cancels or closes it.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostStepAsync(string? to)
    {
        if (!await Load())
            return NotFound();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                if (!Enum.TryParse(to, out OrderState state) || !Enum.IsDefined(state))
                    throw new InvalidInputException(string.Empty, "choose what is to become of it");
                PurchaseOrder after = await desk.Store.Advance(Id, Version, state, frame.Today);
                TempData["Said"] = state switch
                {
                    OrderState.Sent =>
                        $"Order {after.Number} counts as sent. It keeps its lines and prices from now on; print it or save it for {after.Supplier.Name}.",
                    OrderState.Closed => $"Order {after.Number} is closed: what has not come is waited for no longer and can be ordered again.",
                    _ => $"{Name}: {Words.Of(state)}.",
                };
                return Redirect($"/supply/orders/{Id}");
            },
            Reload
        );
    }

    /// <summary>Drops a draft.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostDropAsync()
    {
        if (!await Load())
            return NotFound();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                await desk.Store.DropDraft(Id, Version);
                TempData["Said"] = "Draft dropped.";
                return Redirect("/supply/orders");
            },
            Reload
        );
    }

    /// <summary>Changes how many packs of a draft's line are ordered; none takes the line out.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostLinesAsync(string[] packs)
    {
        if (!await Load())
            return NotFound();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                if (Order.Stage != OrderState.Draft)
                    throw new InvalidInputException(string.Empty, $"{Name} was sent and keeps its lines");
                var lines = new List<OrderedLine>();
                foreach ((OrderedLine line, string? typed) in Order.Lines.Zip(packs))
                {
                    if (!int.TryParse(typed, NumberStyles.None, CultureInfo.InvariantCulture, out int count))
                        throw new InvalidInputException(string.Empty, $"{line.Name}: packs must be a whole number; 0 takes the line out");
                    if (count > 0)
                        lines.Add(line with { Number = lines.Count + 1, Packs = count, Wanted = Math.Min(line.Wanted, count * line.PackSize) });
                }
                PurchaseOrder changed = Order with { Lines = lines };
                if (changed.Lines.SelectMany(l => l.Faults()).ToList() is { Count: > 0 } faults)
                    throw new InvalidInputException(faults);
                if (lines.Count == 0)
                    throw new InvalidInputException(string.Empty, "an order needs at least one line; drop the draft instead");
                await desk.Store.Change(changed, Version);
                TempData["Said"] = $"{Name}: saved.";
                return Redirect($"/supply/orders/{Id}");
            },
            Reload
        );
    }

    /// <summary>Writes down what was promised and paid, and a note.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAsync()
    {
        if (!await Load())
            return NotFound();
        return await frame.Saving(
            this,
            f => f.Length == 0 ? null : $"{char.ToUpperInvariant(f[0])}{f[1..]}",
            async () =>
            {
                var faults = new FaultList();
                LocalDate? Day(string? text, string field)
                {
                    if (string.IsNullOrWhiteSpace(text))
                        return null;
                    LocalDate? day = Words.ReadDay(text);
                    if (day is null)
                        faults.Add(field, "must be a date");
                    else
                        faults.Day(field, day.Value);
                    return day;
                }
                decimal? paid = null;
                if (!string.IsNullOrWhiteSpace(Paid) && (paid = TypedNumber.Money(Paid)) is null)
                    faults.Add("paid", "is no amount of money; write 250 or 99.50");
                faults.Note("note", Note, 500);
                PurchaseOrder changed = Order with
                {
                    PromisedFor = Day(Promised, "promised"),
                    Paid = paid,
                    PaidOn = Day(PaidOn, "paidOn") ?? (paid is null ? null : frame.Today),
                    Note = Note?.Trim() ?? string.Empty,
                };
                faults.ThrowIfAny();
                await desk.Store.Change(changed, Version);
                TempData["Said"] = $"{Name}: saved.";
                return Redirect($"/supply/orders/{Id}");
            }
        );
    }

    /// <summary>Claims a credit for plants that turned out wrong after they were taken.</summary>
    [Needs(SiteRole.Lead)]
    public async Task<IActionResult> OnPostClaimAsync(string? line, string? plants, string? reason)
    {
        if (!await Load())
            return NotFound();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                if (
                    !int.TryParse(line, NumberStyles.None, CultureInfo.InvariantCulture, out int number)
                    || !int.TryParse(plants, NumberStyles.None, CultureInfo.InvariantCulture, out int count)
                    || !Enum.TryParse(reason, out RefusalReason why)
                    || !Enum.IsDefined(why)
                )
                    throw new InvalidInputException(string.Empty, "Choose a line, say how many plants, and why");
                await desk.Store.Claim(Id, number, count, why, frame.Today);
                TempData["Said"] = "Credit claimed.";
                return Redirect($"/supply/orders/{Id}");
            },
            Reload
        );
    }

    /// <summary>Settles a credit.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostSettleAsync(Guid claim, long claimVersion, string? settled)
    {
        if (!await Load())
            return NotFound();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                decimal sum = TypedNumber.Money(settled)
                    ?? throw new InvalidInputException(string.Empty, "Say how much was credited; 0 where it was turned down");
                await desk.Store.Settle(claim, claimVersion, sum, frame.Today);
                TempData["Said"] = sum == 0 ? "Turned down." : "Settled.";
                return Redirect($"/supply/orders/{Id}");
            },
            Reload
        );
    }

    private async Task Reload()
    {
        frame.Forget();
        desk.Forget();
        await Load();
    }

    private async Task<bool> Load()
    {
        Now = await frame.Now();
        Supply = await desk.Supply();
        if (Supply.Account(Id) is not { } account)
            return false;
        Account = account;
        if (Request.Method == "GET")
            Version = Supply.VersionOf(Id);
        Promised ??= Order.PromisedFor is { } promised ? Words.Iso(promised) : null;
        Paid ??= Order.Paid?.ToString("0.00", CultureInfo.InvariantCulture);
        PaidOn ??= Order.PaidOn is { } on ? Words.Iso(on) : null;
        Note ??= Order.Note;
        Claims = [.. Supply.Claims.Where(c => c.It.OrderId == Id)];
        Receipts = [.. Supply.Receipts.Where(r => r.It.OrderId == Id)];
        var photographs = new Dictionary<Guid, IReadOnlyList<Guid>>();
        foreach (KeptReceipt receipt in Receipts)
            photographs[receipt.It.Id] = await desk.Store.Photographs(receipt.It.Id);
        Photographs = photographs;
        if (Order.IsOpen)
        {
            Waiting =
            [
                .. (await desk.Holding(frame.Today.PlusWeeks(HoldingModel.Weeks))).Remarks.Where(r =>
                    r.Goods.IsToCome && r.Goods.Source == SupplyDesk.SourceOf(Order)
                ),
            ];
            Differences = await desk.Differences(account);
        }
        return true;
    }
}

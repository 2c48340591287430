using System.Globalization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Exchange.Sheets;
using UnrulyMeadow.Exchange.Supply;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Supply;

/// <summary>A supplier: terms, offers, and their price list brought in.</summary>
[Needs(SiteRole.Guest)]
public sealed class SupplierModel(PageFrame frame, SupplyDesk desk, LookFirst looks) : PageModel
{
    private const string DraftKind = "prices";

    /// <summary>Names that can be matched by hand on one page.</summary>
    public const int MostUnknown = 20;

    [FromRoute(Name = "id")]
    public string Id { get; set; } = string.Empty;

    [BindProperty]
    public SupplierInput Input { get; set; } = new();

    /// <summary>Rows as pasted.</summary>
    [BindProperty]
    public string? Rows { get; set; }

    /// <summary>A file with rows.</summary>
    [BindProperty]
    public IFormFile? Upload { get; set; }

    /// <summary>The list that was looked at; null before.</summary>
    [BindProperty(SupportsGet = true, Name = "draft")]
    public Guid? Draft { get; set; }

    private string Here => $"/supply/suppliers/{Id}";

    public SiteNow Now { get; private set; } = null!;

    public Kept<Supplier> Kept { get; private set; } = null!;

    public LongList<Offer> Offers { get; private set; } = null!;

    /// <summary>Headings of the list that is looked at.</summary>
    public IReadOnlyList<string> Headings { get; private set; } = [];

    public PriceListColumns? Columns { get; private set; }

    public PriceListReading? Reading { get; private set; }

    public int OpenOrders { get; private set; }

    public async Task<IActionResult> OnGetAsync()
    {
        if (!await Load())
            return NotFound();
        Input = SupplierInput.From(Kept.It, Kept.Version);
        if (Draft is not { } id)
            return Page();
        return await looks.Show(this, DraftKind, id, Here, (_, content) => Look(content));
    }

    /// <summary>Saves the terms.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAsync()
    {
        if (!await Load())
            return NotFound();
        return await frame.Saving(
            this,
            f => f.Length == 0 ? null : $"Input.{char.ToUpperInvariant(f[0])}{f[1..]}",
            async () =>
            {
                await desk.Store.Save(Input.Read(Id), Input.Version);
                TempData["Said"] = $"{Input.Name}: saved.";
                return Redirect(Here);
            }
        );
    }

    /// <summary>Removes the supplier.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostRemoveAsync()
    {
        if (!await Load())
            return NotFound();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                await desk.Store.RemoveSupplier(Id, Input.Version);
                TempData["Said"] = $"{Kept.It.Name}: removed, with their offers. Orders that were sent stay as they are.";
                return Redirect("/supply/suppliers");
            },
            () =>
            {
                Input = SupplierInput.From(Kept.It, Kept.Version);
                return Task.CompletedTask;
            }
        );
    }

    /// <summary>Looks at a price list.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostListAsync()
    {
        if (!await Load())
            return NotFound();
        Input = SupplierInput.From(Kept.It, Kept.Version);
        return await looks.Keep(this, DraftKind, Here, Rows ?? string.Empty, Upload, content =>
            PriceList.HeadingsOf(Read(content)) is null
                ? throw new InvalidInputException("rows", "there is no row of headings: put one above the prices, such as plant, form, size, price")
                : Task.CompletedTask
        );
    }

    /// <summary>Says which heading means what, and what names mean; it is remembered for this supplier's next list.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostColumnsAsync(
        Guid id,
        string? kind,
        string? form,
        string? size,
        string? price,
        string? lead,
        string? until,
        string? months,
        string? contract,
        string[] names,
        string[] plants
    )
    {
        if (!await Load())
            return NotFound();
        return await looks.With(this, DraftKind, id, Here, async (_, content) =>
        {
            Draft = id;
            IReadOnlyList<TypedRow> rows = Read(content);
            PriceListColumns before = await Remembered(rows);
            var known = new Dictionary<string, string>(before.Names, StringComparer.OrdinalIgnoreCase);
            for (int i = 0; i < Math.Min(names.Length, plants.Length); i++)
            {
                if (Now.Plan.FindPlant(plants[i] ?? string.Empty) is { } plant && names[i] is { Length: > 0 and <= 200 } name)
                    known[name] = plant.Id;
            }
            List<PriceHeading> prices =
                before.Prices is [var first, ..] && first.Heading == price ? [.. before.Prices]
                : string.IsNullOrEmpty(price) ? []
                : [new PriceHeading(1, price)];
            await desk.Store.SaveColumns(
                Id,
                new PriceListColumns(kind ?? string.Empty, form ?? string.Empty, size ?? string.Empty, prices)
                {
                    LeadDays = lead ?? string.Empty,
                    OrderUntil = until ?? string.Empty,
                    Months = months ?? string.Empty,
                    Contract = contract ?? string.Empty,
                    Names = known,
                }
            );
            return Redirect($"/supply/suppliers/{Id}?draft={id}");
        });
    }

    /// <summary>Takes the offers that were looked at, in the place of those before.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostTakeAsync(Guid id)
    {
        if (!await Load())
            return NotFound();
        return await looks.Take(this, DraftKind, id, Here, async (_, content) =>
        {
            Draft = id;
            await Look(content);
            if (Reading!.Faults.Count > 0)
                throw new InvalidInputException(Reading.Faults);
            if (Reading.Offers.Count == 0)
                throw new InvalidInputException("rows", "it offers nothing of your palette: match its names with your kinds first");
            await desk.Store.SaveColumns(Id, Columns!);
            await desk.Store.ReplaceOffers(Id, Reading.Offers);
            TempData["Said"] = $"{Kept.It.Name}: {Words.Count(Reading.Offers.Count, "offer", "offers")} taken.";
            return Here;
        });
    }

    private static IReadOnlyList<TypedRow> Read(byte[] content)
    {
        using var stream = new MemoryStream(content);
        return TypedTable.Read(stream);
    }

    // What was chosen before, as far as the list still has these headings; otherwise what its headings let guess.
    private async Task<PriceListColumns> Remembered(IReadOnlyList<TypedRow> rows)
    {
        Headings = [.. PriceList.HeadingsOf(rows)!.Cells.Where(c => c.Length > 0).Distinct(StringComparer.Ordinal)];
        PriceListColumns? kept = await desk.Store.Columns<PriceListColumns>(Id);
        PriceListColumns guess = PriceList.Guess(Headings);
        if (kept is null)
            return guess;
        IEnumerable<string> used =
        [
            kept.Kind,
            kept.Form,
            kept.Size,
            kept.LeadDays,
            kept.OrderUntil,
            kept.Months,
            kept.Contract,
            .. kept.Prices.Select(p => p.Heading),
        ];
        return used.All(h => h.Length == 0 || Headings.Contains(h, StringComparer.Ordinal)) ? kept : guess with { Names = kept.Names };
    }

    private async Task Look(byte[] content)
    {
        IReadOnlyList<TypedRow> rows = Read(content);
        Columns = await Remembered(rows);
        PriceListColumns columns = Columns;
        // Headings that say nothing are chosen by hand first.
        if (columns.Kind.Length == 0 || columns.Prices.Count == 0)
        {
            Reading = new PriceListReading([], [], [new Fault(string.Empty, "Choose at least which heading names the kind, and which the price")]);
            return;
        }
        Reading = await looks.Read(() => PriceList.Read(rows, columns, Id, Now.Plan.Palette));
    }

    private async Task<bool> Load()
    {
        Now = await frame.Now();
        SupplyNow supply = await desk.Supply();
        if (supply.Supplier(Id) is not { } kept)
            return false;
        Kept = kept;
        OpenOrders = supply.Accounts.Count(a => a.Order.Supplier.Id == Id && a.Order.IsOpen);
        IReadOnlyList<Offer> offers = await desk.Store.Offers(supplierId: Id);
        string Kind(Offer offer) => Now.Plan.FindPlant(offer.PlantId)?.CommonName ?? offer.PlantId;
        Offers = LongList.Of(
            Request.Query,
            "offers",
            offers,
            o => $"{Kind(o)} {o.Form}",
            "as in their list",
            [
                new("kind", "by plant", all => all.OrderBy(Kind, StringComparer.OrdinalIgnoreCase)),
                new("form", "by form", all =>
                    all.OrderBy(o => o.Form, StringComparer.OrdinalIgnoreCase).ThenBy(Kind, StringComparer.OrdinalIgnoreCase)
                ),
                new("piece", "the cheapest piece first", all => all.OrderBy(o => o.Steps[0].Price / o.PackSize)),
                new("days", "the quickest first", all => all.OrderBy(o => o.LeadDays)),
            ]
        );
        return true;
    }
}

/// <summary>A supplier's terms as typed.</summary>
public sealed class SupplierInput
{
    public string? Name { get; set; }

    public string? LeastGoods { get; set; }

    public string? DeliveryCharge { get; set; }

    public string? FreeDeliveryFrom { get; set; }

    public string? PaymentDays { get; set; }

    public string? LeadDays { get; set; }

    /// <summary>Months in which they deliver, as "3, 4, 9".</summary>
    public string? Months { get; set; }

    public string? OffEvery { get; set; }

    public string? OffEach { get; set; }

    public string? OffMost { get; set; }

    /// <summary>Shares taken off, as "from 500: 5 %, from 1000: 8 %".</summary>
    public string? Shares { get; set; }

    public string? Note { get; set; }

    public long Version { get; set; }

    /// <summary>Terms as a form shows them.</summary>
    public static SupplierInput From(Supplier s, long version)
    {
        OffForEvery? off = s.Discounts.OfType<OffForEvery>().FirstOrDefault();
        return new()
        {
            Name = s.Name,
            LeastGoods = Money(s.LeastGoods),
            DeliveryCharge = Money(s.DeliveryCharge),
            FreeDeliveryFrom = s.FreeDeliveryFrom is { } from ? Money(from) : null,
            PaymentDays = $"{s.PaymentDays}",
            LeadDays = s.LeadDays > 0 ? $"{s.LeadDays}" : null,
            Months = string.Join(", ", s.Months),
            OffEvery = off is null ? null : Money(off.Every),
            OffEach = off is null ? null : Money(off.Each),
            OffMost = off is null ? null : Money(off.Most),
            Shares = string.Join(
                "; ",
                s.Discounts.OfType<ShareFrom>().Select(d => FormattableString.Invariant($"from {d.From:0.##}: {d.Share * 100:0.##} %"))
            ),
            Note = s.Note,
            Version = version,
        };
    }

    /// <summary>The terms as typed.</summary>
    /// <exception cref="InvalidInputException">Something cannot be read.</exception>
    public Supplier Read(string id)
    {
        var faults = new FaultList();
        decimal Sum(string? text, string field)
        {
            if (string.IsNullOrWhiteSpace(text))
                return 0;
            if (TypedNumber.Money(text) is { } sum)
                return sum;
            faults.Add(field, "is no amount of money; write 250 or 99.50");
            return 0;
        }
        var discounts = new List<Discount>();
        if (!string.IsNullOrWhiteSpace(OffEvery) || !string.IsNullOrWhiteSpace(OffEach))
            discounts.Add(new OffForEvery(Sum(OffEvery, "offEvery"), Sum(OffEach, "offEach"), Sum(OffMost, "offMost")));
        foreach (string tier in (Shares ?? string.Empty).Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            string[] parts = tier.Replace("from", string.Empty, StringComparison.OrdinalIgnoreCase).Split(':', StringSplitOptions.TrimEntries);
            decimal? from = parts.Length == 2 ? TypedNumber.Money(parts[0]) : null;
            bool good = decimal.TryParse(
                parts.Length == 2 ? parts[1].TrimEnd('%', ' ') : string.Empty,
                NumberStyles.AllowDecimalPoint,
                CultureInfo.InvariantCulture,
                out decimal share
            );
            if (from is { } sum && good)
                discounts.Add(new ShareFrom(sum, share / 100));
            else
                faults.Add("shares", $"\"{PlainText.Cut(tier, 30)}\" is not understood; write from 500: 5 %");
        }
        int days = 30;
        if (!string.IsNullOrWhiteSpace(PaymentDays) && !int.TryParse(PaymentDays, NumberStyles.None, CultureInfo.InvariantCulture, out days))
            faults.Add("paymentDays", "must be a whole number of days");
        int lead = 0;
        if (!string.IsNullOrWhiteSpace(LeadDays) && !int.TryParse(LeadDays, NumberStyles.None, CultureInfo.InvariantCulture, out lead))
            faults.Add("leadDays", "must be a whole number of days");
        var months = new List<int>();
        foreach (
            string typed in (Months ?? string.Empty).Split([',', ';', ' '], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
        )
        {
            if (int.TryParse(typed, NumberStyles.None, CultureInfo.InvariantCulture, out int month))
                months.Add(month);
            else
                faults.Add("months", "must be numbers of months, such as 3, 4, 9; empty for all year");
        }
        var supplier = new Supplier(id, Name?.Trim() ?? string.Empty)
        {
            LeastGoods = Sum(LeastGoods, "leastGoods"),
            DeliveryCharge = Sum(DeliveryCharge, "deliveryCharge"),
            FreeDeliveryFrom = string.IsNullOrWhiteSpace(FreeDeliveryFrom) ? null : Sum(FreeDeliveryFrom, "freeDeliveryFrom"),
            PaymentDays = days,
            LeadDays = lead,
            Months = [.. months.Distinct().Order()],
            Discounts = discounts,
            Note = Note?.Trim() ?? string.Empty,
        };
        foreach (Fault fault in supplier.Faults())
        {
            // A discount's fault stands beside the field that it was typed in.
            string field = fault.Field.StartsWith("discounts[", StringComparison.Ordinal)
                ? fault.Field[(fault.Field.IndexOf('.', StringComparison.Ordinal) + 1)..] switch
                {
                    "every" => "offEvery",
                    "each" => "offEach",
                    "most" => "offMost",
                    _ => "shares",
                }
                : fault.Field;
            faults.AddAll(string.Empty, [fault with { Field = field }]);
        }
        faults.ThrowIfAny();
        return supplier;
    }

    private static string Money(decimal sum) => sum.ToString("0.##", CultureInfo.InvariantCulture);
}

using System.Globalization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Supply;

/// <summary>A delivery, inspected line by line on a phone beside the lorry.</summary>
[Needs(SiteRole.Crew)]
public sealed class ReceiveModel(PageFrame frame, SupplyDesk desk, Visitor visitor, HeavyWork heavy) : PageModel
{
    private const int MostPhotographs = 6;

    [FromRoute(Name = "id")]
    public Guid Id { get; set; }

    /// <summary>The delivery's identity, given when the page is opened: sent twice, it is written down once.</summary>
    [BindProperty]
    public Guid ReceiptId { get; set; }

    [BindProperty]
    public List<ReceivedInput> Lines { get; set; } = [];

    [BindProperty]
    public string? Day { get; set; }

    [BindProperty]
    public string? Place { get; set; }

    [BindProperty]
    public bool InQuarantine { get; set; }

    [BindProperty]
    public bool TakesMore { get; set; }

    [BindProperty]
    public List<IFormFile> Photographs { get; set; } = [];

    public SiteNow Now { get; private set; } = null!;

    public SupplyNow Supply { get; private set; } = null!;

    public OrderAccount Account { get; private set; } = null!;

    /// <summary>Lines of which something is still to come, or was sent with this form.</summary>
    public IReadOnlyList<LineAccount> Waited => [.. Account.Lines.Where(l => l.Outstanding > 0 || Lines.Exists(t => t.Line == l.Line.Number))];

    public async Task<IActionResult> OnGetAsync()
    {
        if (!await Load())
            return NotFound();
        ReceiptId = Guid.CreateVersion7();
        Day = Words.Iso(frame.Today);
        Place = Supply.Places.Count > 0 ? Supply.Places[0].It.Name : null;
        Lines = [.. Account.Lines.Where(l => l.Outstanding > 0).Select(l => new ReceivedInput { Line = l.Line.Number })];
        return Page();
    }

    [Needs(SiteRole.Crew)]
    public async Task<IActionResult> OnPostAsync()
    {
        if (!await Load())
            return NotFound();
        return await frame.Saving(
            this,
            Field,
            async () =>
            {
                Receipt receipt = Read();
                var pictures = new List<(Guid, byte[], byte[])>();
                foreach (IFormFile file in Photographs.Where(f => f.Length > 0))
                {
                    if (pictures.Count == MostPhotographs)
                        throw new InvalidInputException("photographs", $"at most {MostPhotographs} at once");
                    if (file.Length > Photograph.MostBytes)
                        throw new InvalidInputException("photographs", $"one is over {Photograph.MostBytes / 1048576} MB; send a smaller size");
                    Photograph read = await Photograph.Of(file, heavy);
                    pictures.Add((Guid.CreateVersion7(), read.Jpeg, read.Thumb));
                }
                bool isNew = await desk.Store.Receive(receipt, pictures, visitor.Person?.Id, visitor.Person?.Name ?? string.Empty);
                TempData["Said"] = isNew
                    ? $"{receipt.Lines.Sum(l => l.Accepted)} plants taken into the stock{(receipt.Lines.Sum(l => l.Refused) is > 0 and var refused ? $", {refused} refused" : null)}."
                    : "This delivery was written down already.";
                return Redirect($"/supply/orders/{Id}");
            },
            async () =>
            {
                frame.Forget();
                desk.Forget();
                await Load();
            }
        );
    }

    /// <summary>What a good one of a kind looks like when it comes, in words.</summary>
    public string GoodOne(OrderedLine line)
    {
        FactWriter crew = frame.Crew;
        if (Now.Plan.FindPlant(line.PlantId) is not { } plant)
            return string.Empty;
        Quantity width = Quantity.Cm(plant.SpreadAtPurchaseCm);
        return GoodsForm.SortOf(plant, line.Form, line.PackSize) switch
        {
            GoodsSort.Bulbs => crew.Crew("GoodBulbs"),
            GoodsSort.Stems => crew.Crew("GoodStems"),
            _ when plant.LifeForm is LifeForm.Shrub or LifeForm.Tree => crew.Crew("GoodWood", ("width", width)),
            _ => crew.Crew("GoodPacks", ("width", width)),
        };
    }

    private static string? Field(string fault) =>
        fault switch
        {
            "day" => "Day",
            "place" => "Place",
            "photographs" or "photo" => "Photographs",
            _ when fault.StartsWith("lines[", StringComparison.Ordinal) && fault.Contains('.', StringComparison.Ordinal) =>
                $"Lines[{fault[6..fault.IndexOf(']', StringComparison.Ordinal)]}].{char.ToUpperInvariant(fault[fault.IndexOf('.', StringComparison.Ordinal) + 1])}{fault[(fault.IndexOf('.', StringComparison.Ordinal) + 2)..]}",
            _ => null,
        };

    private Receipt Read()
    {
        var faults = new FaultList();
        int Whole(string? text, string field, int otherwise)
        {
            if (string.IsNullOrWhiteSpace(text))
                return otherwise;
            if (int.TryParse(text.Trim(), NumberStyles.None, CultureInfo.InvariantCulture, out int number))
                return number;
            faults.Add(field, "must be a whole number");
            return otherwise;
        }
        var lines = new List<ReceivedLine>();
        for (int i = 0; i < Lines.Count; i++)
        {
            ReceivedInput typed = Lines[i];
            int arrived = Whole(typed.Arrived, $"lines[{i}].arrived", 0);
            // What is not said otherwise was good.
            int accepted = Whole(typed.Accepted, $"lines[{i}].accepted", arrived);
            lines.Add(
                new ReceivedLine(
                    typed.Line,
                    arrived,
                    accepted,
                    accepted < arrived && Enum.TryParse(typed.Reason, out RefusalReason reason) && Enum.IsDefined(reason) ? reason : null
                )
                {
                    CameAs = string.IsNullOrEmpty(typed.CameAs) ? null : typed.CameAs,
                    Note = typed.Note?.Trim() ?? string.Empty,
                }
            );
        }
        if (Words.ReadDay(Day) is not { } day)
        {
            faults.Add("day", "must be a date");
            day = frame.Today;
        }
        var receipt = new Receipt(ReceiptId == Guid.Empty ? Guid.CreateVersion7() : ReceiptId, Id, day, Place?.Trim() ?? string.Empty, lines)
        {
            // What is put into quarantine is in quarantine, said or not.
            InQuarantine = InQuarantine || Supply.Places.Any(p => p.It.Kind == HoldingKind.Quarantine && p.It.Name == Place),
            TakesMore = TakesMore,
        };
        faults.ThrowIfAny();
        return receipt;
    }

    private async Task<bool> Load()
    {
        Now = await frame.Now();
        Supply = await desk.Supply();
        if (Supply.Account(Id) is not { } account)
            return false;
        Account = account;
        return true;
    }
}

/// <summary>What came for a line, as typed.</summary>
public sealed class ReceivedInput
{
    public int Line { get; set; }

    public string? Arrived { get; set; }

    public string? Accepted { get; set; }

    public string? Reason { get; set; }

    public string? CameAs { get; set; }

    public string? Note { get; set; }
}

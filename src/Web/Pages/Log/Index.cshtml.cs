using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Exchange.Sheets;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Log;

/// <summary>Says what happened, in two taps; made for a phone.</summary>
[Needs(SiteRole.Guest)]
public sealed class IndexModel(
    PageFrame frame,
    LogStore log,
    ChangeStore changes,
    PhotoStore photos,
    HeavyWork heavy,
    Visitor visitor,
    SupplyDesk supply
) : PageModel
{
    [BindProperty(SupportsGet = true, Name = "planter")]
    public string? PlanterId { get; set; }

    [BindProperty]
    public string? EntryId { get; set; }

    [BindProperty]
    public string? PlantId { get; set; }

    [BindProperty(SupportsGet = true, Name = "Day")]
    public string? Day { get; set; }

    [BindProperty]
    public string? Kind { get; set; }

    /// <summary>How many died, were eaten, stolen or broken, as typed.</summary>
    [BindProperty]
    public string? Count { get; set; }

    /// <summary>The entry that is corrected.</summary>
    [BindProperty(SupportsGet = true, Name = "corrects")]
    public Guid? Corrects { get; set; }

    [BindProperty]
    public string? Note { get; set; }

    /// <summary>What a plant really is that was sold under another name.</summary>
    [BindProperty]
    public string? Really { get; set; }

    /// <summary>True when all that came with the same delivery is meant.</summary>
    [BindProperty]
    public bool WholeDelivery { get; set; }

    /// <summary>A photograph of what was seen; may be left out.</summary>
    [BindProperty]
    public IFormFile? Picture { get; set; }

    [BindProperty]
    public IFormFile? Upload { get; set; }

    /// <summary>True for who may write.</summary>
    public bool MayLog => visitor.Role >= SiteRole.Crew;

    public Guid? Reader => visitor.Person?.Id;

    public SiteNow Now { get; private set; } = null!;

    public IReadOnlyList<Observation> Latest { get; private set; } = [];

    /// <summary>The entry that is corrected; null where none is.</summary>
    public Observation? Corrected { get; private set; }

    /// <summary>What can be chosen: an entry is only taken back where one is corrected.</summary>
    public IEnumerable<ObservationKind> Kinds =>
        Corrected?.Kind == ObservationKind.Reviewed
            // A look is told anew on the walk; here it can only be taken back.
            ? [ObservationKind.Withdrawn]
            : Enum.GetValues<ObservationKind>()
                .Where(k => k != ObservationKind.Reviewed && (k != ObservationKind.Withdrawn || Corrected is not null));

    /// <summary>Plants that stood in the chosen planter on the chosen day, or all of the palette when none is chosen.</summary>
    public IReadOnlyList<Plant> Standing { get; private set; } = [];

    public async Task OnGetAsync()
    {
        await Fresh();
    }

    [Needs(SiteRole.Crew)]
    public async Task<IActionResult> OnPostAsync()
    {
        Now = await frame.Now();
        return await frame.Saving(
            this,
            Field,
            async () =>
            {
                var faults = new FaultList();
                if (Kind == nameof(ObservationKind.Reviewed))
                    faults.Add("kind", "is told on the review walk");
                if (Words.ReadDay(Day) is not { } day)
                {
                    faults.Add("day", "must be a date");
                    day = frame.Today;
                }
                if (!Enum.TryParse(Kind, out ObservationKind kind) || !Enum.IsDefined(kind))
                    faults.Add("kind", "choose what you saw");
                int? count = null;
                if (!string.IsNullOrWhiteSpace(Count))
                {
                    if (int.TryParse(Count, System.Globalization.CultureInfo.InvariantCulture, out int typed))
                        count = typed;
                    else
                        faults.Add("count", "must be a whole number");
                }
                Guid id = Guid.TryParse(EntryId, out Guid given) ? given : Guid.NewGuid();
                var seen = new Observation(
                    id,
                    PlanterId ?? string.Empty,
                    string.IsNullOrEmpty(PlantId) ? null : PlantId,
                    day,
                    kind,
                    Note?.Trim() ?? string.Empty,
                    visitor.Person!.Name
                )
                {
                    Count = count,
                    Corrects = Corrects,
                };
                if (Corrects is { } first && await log.Find(first) is not { IsCorrected: false })
                    faults.Add("corrects", "is corrected already, or is not in this log: look again");
                faults.AddAll(string.Empty, seen.Faults(frame.Today));
                if (faults.IsEmpty && Now.Plan.FindPlanter(seen.PlanterId) is null)
                    faults.Add("planterId", $"there is no planter \"{seen.PlanterId}\"");
                if (faults.IsEmpty && seen.PlantId is { } plant && Now.Plan.FindPlant(plant) is null)
                    faults.Add("plantId", $"there is no plant \"{plant}\" in the palette");
                faults.ThrowIfAny();
                // A picture that cannot be read refuses the entry before anything follows from it.
                Photograph? picture = Picture is { Length: > 0 } ? await Photograph.Of(Picture, heavy) : null;
                string followed = string.Empty;
                // A form that is sent twice renames once.
                if (kind == ObservationKind.Misnamed && !await log.Has(id))
                {
                    // What is planned follows first: when that is refused, nothing is logged either.
                    var (before, after, lotsBefore, lotsAfter) = new Misnaming(
                        seen.PlanterId,
                        seen.PlantId!,
                        Really ?? string.Empty,
                        day,
                        WholeDelivery
                    ).In(Now.Plan);
                    string name = Now.Plan.Plant(Really!).CommonName;
                    await changes.Make(
                        PlanChange.Of(before, after) with
                        {
                            LotsBefore = lotsBefore,
                            LotsAfter = lotsAfter,
                        },
                        $"{Now.Plan.Plant(seen.PlantId!).CommonName} is {name}"
                    );
                    int planters = after.Select(d => d.PlanterId).Distinct(StringComparer.Ordinal).Count();
                    seen = seen with { Note = $"It is {name}{(seen.Note.Length > 0 ? ". " + seen.Note : string.Empty)}" };
                    followed = " " + frame.Crew.Crew("Renamed", ("plant", name), ("count", planters));
                    int Named(IEnumerable<Display> displays) =>
                        displays.SelectMany(d => d.Items).Where(i => i.PlantId == seen.PlantId).Sum(i => i.Count);
                    if (await supply.ClaimMisnamed(seen.PlantId!, Named(before) - Named(after), WholeDelivery) is { } order)
                        followed += " " + frame.Crew.Crew("CreditClaimed", ("supplier", order.Supplier.Name), ("number", $"{order.Number}"));
                }
                if (picture is not null)
                    await photos.Add(picture.At(seen), picture.Jpeg, picture.Thumb);
                await log.Record([seen], visitor.Person!.Id);
                TempData["Said"] =
                    frame.Crew.Crew("Logged", ("planter", Now.Plan.FindPlanter(seen.PlanterId)), ("what", kind), ("day", day)) + followed;
                return Redirect($"/log?planter={Uri.EscapeDataString(seen.PlanterId)}");
            },
            Load
        );
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostBringAsync()
    {
        Now = await frame.Now();
        return await frame.Saving(
            this,
            f => f == "file" ? "Upload" : null,
            async () =>
            {
                if (Upload is null)
                    throw new InvalidInputException("file", "choose a file first");
                (int added, int strange) = await heavy.Do(async () =>
                {
                    await using Stream stream = Upload.OpenReadStream();
                    IReadOnlyList<Observation> seen = await Task.Run(() => CsvSheets.ReadLog(stream, frame.Today));
                    return (
                        await log.Record(seen),
                        seen.Count(o => Now.Plan.FindPlanter(o.PlanterId) is null || (o.PlantId is { } p && Now.Plan.FindPlant(p) is null))
                    );
                });
                TempData["Said"] =
                    $"{added} observations brought in."
                    + (
                        strange > 0
                            ? $" {strange} name a planter or plant that the plan does not hold; they are kept, as the log outlives both."
                            : string.Empty
                    );
                return Redirect("/log");
            },
            Fresh
        );
    }

    /// <summary>What stood in a planter on a day, for the form's choice.</summary>
    public async Task<IActionResult> OnGetStandingAsync()
    {
        await Load();
        return new JsonResult(Standing.Select(p => new StandingPlant(p.Id, p.CommonName)));
    }

    /// <summary>The whole log, written as it is read.</summary>
    public async Task<IActionResult> OnGetCsvAsync()
    {
        Response.ContentType = "text/csv; charset=utf-8";
        Response.Headers.ContentDisposition = "attachment; filename=log.csv";
        Response.Headers.CacheControl = "no-store";
        await foreach (byte[] piece in CsvSheets.Log(log.All()))
            await Response.Body.WriteAsync(piece, HttpContext.RequestAborted);
        return new EmptyResult();
    }

    private static string? Field(string fault) =>
        fault switch
        {
            "planterId" => "planter",
            "plantId" => "PlantId",
            "day" => "Day",
            "note" => "Note",
            "count" => "Count",
            "really" => "Really",
            "photo" => "Picture",
            _ => null,
        };

    private async Task Fresh()
    {
        await Load();
        if (Corrected is { } entry)
            (PlanterId, PlantId, Day, Kind, Note, Count) = (
                entry.PlanterId,
                entry.PlantId,
                Words.Iso(entry.Day),
                entry.Kind.ToString(),
                entry.Note,
                entry.Count is { } count ? $"{count}" : null
            );
        else
            Day = Words.Iso(Words.ReadDay(Day) is { } day && day <= frame.Today ? day : frame.Today);
        EntryId = Guid.NewGuid().ToString();
        await Load();
    }

    private async Task Load()
    {
        Now = await frame.Now();
        Corrected = Corrects is { } id ? await log.Find(id) : null;
        LocalDate on = Words.ReadDay(Day) ?? frame.Today;
        Latest = await log.Latest(Now.Plan.FindPlanter(PlanterId ?? string.Empty) is null ? null : PlanterId, 30);
        Standing = Now.Plan.FindPlanter(PlanterId ?? string.Empty) is { } planter
            ?
            [
                .. Now
                    .Plan.DisplaysOf(planter.Id)
                    .Where(d => d.StandsOn(on))
                    .SelectMany(d => d.Items)
                    .Select(i => Now.Plan.Plant(i.PlantId))
                    .DistinctBy(p => p.Id),
            ]
            : [.. Now.Plan.Palette.OrderBy(p => p.CommonName)];
    }

    private sealed record StandingPlant(string Id, string Name);
}

using System.Globalization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Core.Work;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;
using UnrulyMeadow.Web.Sites;

namespace UnrulyMeadow.Web.Pages.Stock;

/// <summary>"What do we have?": plants at hand as lots, and what stands where since when.</summary>
[Needs(SiteRole.Guest)]
public sealed class IndexModel(PageFrame frame, LotStore lots, SupplyDesk desk, Visitor visitor, SiteRegistry sites, CurrentSite site) : PageModel
{
    [BindProperty(SupportsGet = true, Name = "lot")]
    public string? LotId { get; set; }

    [BindProperty]
    public LotInput Input { get; set; } = new();

    public SiteNow Now { get; private set; } = null!;

    public IReadOnlyList<Lot> Lots { get; private set; } = [];

    /// <summary>Where plants at hand came from and went to, by kind.</summary>
    public IReadOnlyList<StockAccount> Accounts { get; private set; } = [];

    /// <summary>What still stands in a planter, is kept when it comes out, and is meant for another planting.</summary>
    [BindProperty(SupportsGet = true, Name = "tocome")]
    public string? ToComeText { get; set; }

    /// <summary>The part shown of what will come to hand.</summary>
    public ListPage ToComePart { get; private set; } = null!;

    public IReadOnlyList<StockReservation> ToCome { get; private set; } = [];

    /// <summary>What of each lot the plan takes, by the lot's id.</summary>
    public ILookup<string, StockReservation> Reserved { get; private set; } =
        Enumerable.Empty<StockReservation>().ToLookup(r => r.Lot.Id, StringComparer.Ordinal);

    /// <summary>Where a lot's plants are to go, in a few words; empty where nothing takes them.</summary>
    public string KeptFor(Lot lot) =>
        string.Join(
            "; ",
            Reserved[lot.Id].Take(3).Select(r => $"{r.Count} for {Now.Plan.FindPlanter(r.PlanterId)!.Name}, {Words.Short(r.Day)} {r.Day.Year}")
        ) + (Reserved[lot.Id].Skip(3).Sum(r => r.Count) is > 0 and var more ? $"; {more} for others" : string.Empty);

    /// <summary>Plants that stand for years, with their planter and the day they went in, oldest first.</summary>
    /// <summary>What stands for years.</summary>
    public LongList<StandingPlant> Standing { get; private set; } = null!;

    /// <summary>Today.</summary>
    public LocalDate View => frame.Today;

    public bool IsNew => string.IsNullOrEmpty(LotId);

    public async Task<IActionResult> OnGetAsync()
    {
        await Load();
        if (IsNew)
            return Page();
        if (Now.Plan.Lots.FirstOrDefault(l => l.Id == LotId) is not { } lot)
            return NotFound();
        Input = LotInput.From(lot, Now.Versions.Lot(lot.Id));
        return Page();
    }

    [Needs(SiteRole.Lead)]
    public async Task<IActionResult> OnPostAsync() =>
        await frame.Saving(
            this,
            f => f.Length == 0 ? null : $"Input.{char.ToUpperInvariant(f[0])}{f[1..]}",
            async () =>
            {
                Now = await frame.Now();
                Lot lot = Input.Read(LotId, Now.Plan);
                await lots.Save(lot, IsNew ? null : Input.Version);
                TempData["Said"] = $"{lot.Count} {Now.Plan.Plant(lot.PlantId).CommonName}, {Words.Of(lot.State)}: saved.";
                return Redirect("/stock");
            },
            Load,
            Compare
        );

    [Needs(SiteRole.Lead)]
    public async Task<IActionResult> OnPostRemoveAsync() =>
        await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                await lots.Remove(LotId ?? string.Empty, Input.Version);
                TempData["Said"] = "Lot removed.";
                return Redirect("/stock");
            },
            Load,
            Compare
        );

    /// <summary>Takes plants out of a lot: planted, lost or composted.</summary>
    [Needs(SiteRole.Crew)]
    public async Task<IActionResult> OnPostOutAsync(string? count, string? why) =>
        await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                Now = await frame.Now();
                Lot lot = Now.Plan.Lots.FirstOrDefault(l => l.Id == LotId) ?? throw new LostUpdateException("This lot", isGone: true);
                if (!int.TryParse(count, NumberStyles.None, CultureInfo.InvariantCulture, out int taken))
                    throw new InvalidInputException(string.Empty, "Say how many, as a whole number");
                if (!Enum.TryParse(why, out MovementKind kind) || kind is not (MovementKind.Planted or MovementKind.Lost or MovementKind.Composted))
                    throw new InvalidInputException(string.Empty, "Say what became of them");
                await desk.Store.TakeOut(lot.Id, Input.Version, taken, kind, frame.Today);
                TempData["Said"] = $"{taken} {Now.Plan.Plant(lot.PlantId).CommonName}: {Words.Of(kind)}.";
                return Redirect("/stock");
            },
            LoadLot,
            Newer
        );

    /// <summary>How many go to another site, as typed.</summary>
    [BindProperty]
    public string? Moved { get; set; }

    /// <summary>The site that they go to, as chosen.</summary>
    [BindProperty]
    public string? To { get; set; }

    /// <summary>Other sites where whoever asks keeps the stock too.</summary>
    public IReadOnlyList<Membership> OtherSites =>
        visitor.May(SiteRole.Lead) ? [.. visitor.Memberships.Where(m => m.SiteId != site.Memory.Database.Site && m.Role >= SiteRole.Lead)] : [];

    /// <summary>Moves plants of a lot to another site.</summary>
    [Needs(SiteRole.Lead)]
    public async Task<IActionResult> OnPostMoveAsync() =>
        await frame.Saving(
            this,
            f => f == "count" ? nameof(Moved) : nameof(To),
            async () =>
            {
                Now = await frame.Now();
                Lot lot = Now.Plan.Lots.FirstOrDefault(l => l.Id == LotId) ?? throw new LostUpdateException("This lot", isGone: true);
                if (!int.TryParse(Moved, NumberStyles.None, CultureInfo.InvariantCulture, out int moved))
                    throw new InvalidInputException("count", "must be a whole number");
                if (OtherSites.FirstOrDefault(m => $"{m.SiteId}" == To) is not { } other)
                    throw new InvalidInputException("site", "choose one of your sites");
                await lots.Move(lot.Id, Input.Version, moved, sites.Of(other.SiteId).Plans, frame.Today);
                TempData["Said"] = $"{moved} {Now.Plan.Plant(lot.PlantId).CommonName}: moved to {other.SiteName}.";
                return Redirect("/stock");
            },
            LoadLot,
            Newer
        );

    private IReadOnlyList<FormDifference> Compare(SiteNow now)
    {
        if (now.Plan.Lots.FirstOrDefault(l => l.Id == LotId) is not { } lot)
            return [];
        LotInput theirs = LotInput.From(lot, now.Versions.Lot(lot.Id));
        Input.Version = theirs.Version;
        return FormDifference.Between(Input, theirs);
    }

    // Only a count is typed, which is no part of the lot: there is nothing to compare.
    private IReadOnlyList<FormDifference> Newer(SiteNow now)
    {
        Input.Version = now.Plan.Lots.Any(l => l.Id == LotId) ? now.Versions.Lot(LotId!) : Input.Version;
        return [];
    }

    // These forms carry a part of the lot; the form of the whole shows the rest as it stands.
    private async Task LoadLot()
    {
        await Load();
        if (Now.Plan.Lots.FirstOrDefault(l => l.Id == LotId) is { } lot)
            Input = LotInput.From(lot, Input.Version);
    }

    private async Task Load()
    {
        Now = await frame.Now();
        LocalDate today = frame.Today;
        Reserved = await desk.Reserved();
        Accounts = await desk.Store.Account();
        List<StockReservation> toCome = [.. Reserved.SelectMany(r => r).Where(r => r.IsToCome).OrderBy(r => r.Day)];
        ToComePart = ListPage.Of(toCome.Count, ToComeText, name: "tocome");
        ToCome = [.. ToComePart.Take(toCome)];
        Lots = [.. Now.Plan.Lots.OrderBy(l => l.State).ThenBy(l => l.Since)];
        List<StandingPlant> standing =
        [
            .. Now
                .Plan.Displays.Where(d => d.StandsOn(today))
                .SelectMany(d => d.Items.Select(i => new StandingPlant(d.PlanterId, Now.Plan.Plant(i.PlantId), i.Count, d.Install)))
                .Where(s => s.Plant.IsLasting || s.Plant.ReturnByYear.Count > 0)
                .OrderBy(s => s.Since)
                .ThenBy(s => s.PlanterId, StringComparer.Ordinal),
        ];
        string Place(StandingPlant s) => Now.Plan.FindPlanter(s.PlanterId)!.Name;
        Standing = LongList.Of(
            Request.Query,
            "standing",
            standing,
            s => $"{Place(s)} {s.Plant.CommonName}",
            "longest first",
            [
                new("planter", "by planter", all => all.OrderBy(Place, StringComparer.OrdinalIgnoreCase)),
                new("plant", "by plant", all => all.OrderBy(s => s.Plant.CommonName, StringComparer.OrdinalIgnoreCase)),
                new("count", "most first", all => all.OrderByDescending(s => s.Count)),
                new("young", "the last planted first", all => all.OrderByDescending(s => s.Since)),
            ],
            prefix: "standing-"
        );
    }
}

/// <summary>Plants that stand for years.</summary>
/// <param name="PlanterId">Where.</param>
/// <param name="Plant">Their kind.</param>
/// <param name="Count">How many.</param>
/// <param name="Since">The day on which they were planted.</param>
public sealed record StandingPlant(string PlanterId, Plant Plant, int Count, LocalDate Since);

/// <summary>A lot as typed.</summary>
public sealed class LotInput
{
    public string? PlantId { get; set; }

    public string? Count { get; set; }

    public string? State { get; set; } = nameof(LotState.Waiting);

    public string? Place { get; set; }

    public string? Since { get; set; }

    public string? Condition { get; set; } = nameof(LotCondition.Good);

    public string? FromPlanterId { get; set; }

    public string? Note { get; set; }

    public long Version { get; set; }

    /// <summary>A lot as a form shows it.</summary>
    public static LotInput From(Lot lot, long version) =>
        new()
        {
            PlantId = lot.PlantId,
            Count = $"{lot.Count}",
            State = lot.State.ToString(),
            Place = lot.Place,
            Since = Words.Iso(lot.Since),
            Condition = lot.Condition.ToString(),
            FromPlanterId = lot.FromPlanterId,
            Note = lot.Note,
            Version = version,
        };

    /// <summary>The lot as typed.</summary>
    /// <exception cref="InvalidInputException">Something cannot be read.</exception>
    public Lot Read(string? id, Plan plan)
    {
        var faults = new FaultList();
        Plant? plant = plan.FindPlant(PlantId ?? string.Empty);
        if (plant is null)
            faults.Add("plantId", "choose a plant");
        if (!int.TryParse(Count, NumberStyles.AllowLeadingWhite | NumberStyles.AllowTrailingWhite, CultureInfo.InvariantCulture, out int count))
            faults.Add("count", "must be a whole number");
        if (Words.ReadDay(Since) is not { } since)
        {
            faults.Add("since", "must be a date");
            since = new LocalDate(2000, 1, 1);
        }
        var lot = new Lot(
            string.IsNullOrEmpty(id) ? Ids.From($"{PlantId}-{since.ToString("uuuu-MM", null)}", x => plan.Lots.Any(l => l.Id == x)) : id,
            PlantId ?? string.Empty,
            count,
            Enum.TryParse(State, out LotState state) && Enum.IsDefined(state) ? state : LotState.Waiting,
            Place?.Trim() ?? string.Empty,
            since,
            Enum.TryParse(Condition, out LotCondition condition) && Enum.IsDefined(condition) ? condition : LotCondition.Good,
            string.IsNullOrEmpty(FromPlanterId) ? null : FromPlanterId,
            Note?.Trim() ?? string.Empty
        );
        faults.AddAll(string.Empty, lot.Faults());
        faults.ThrowIfAny();
        return lot;
    }
}

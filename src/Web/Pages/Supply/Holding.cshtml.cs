using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Supply;

/// <summary>The holding area: what waits where, what it needs today, and what will go wrong in the weeks to come.</summary>
[Needs(SiteRole.Guest)]
public sealed class HoldingModel(PageFrame frame, SupplyDesk desk, LotStore lots) : PageModel
{
    /// <summary>Weeks looked ahead.</summary>
    public const int Weeks = 12;

    [BindProperty(SupportsGet = true, Name = "day")]
    public string? DayText { get; set; }

    [BindProperty]
    public string? Name { get; set; }

    [BindProperty]
    public string? Kind { get; set; } = nameof(HoldingKind.Bench);

    [BindProperty]
    public string? Room { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public SupplyNow Supply { get; private set; } = null!;

    public HoldingPlan Plan { get; private set; } = null!;

    /// <summary>The day whose tasks are shown.</summary>
    public LocalDate Day { get; private set; }

    public UnitsText Units => frame.Units;

    public async Task<IActionResult> OnGetAsync()
    {
        await Load();
        return Page();
    }

    /// <summary>Adds a place.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAsync() =>
        await frame.Saving(
            this,
            f =>
                f switch
                {
                    "name" => "Name",
                    "roomM2" => "Room",
                    _ => null,
                },
            async () =>
            {
                await Load();
                double? room = frame.Units.ReadArea(Room);
                if (room is null)
                    throw new InvalidInputException("roomM2", "must be a number");
                var place = new HoldingPlace(
                    Ids.From(Name ?? "place", x => Supply.Places.Any(p => p.It.Id == x)),
                    Name?.Trim() ?? string.Empty,
                    Enum.TryParse(Kind, out HoldingKind kind) && Enum.IsDefined(kind) ? kind : HoldingKind.Bench,
                    room.Value
                );
                if (Supply.Places.Any(p => string.Equals(p.It.Name, place.Name, StringComparison.OrdinalIgnoreCase)))
                    throw new InvalidInputException("name", "is a place's already");
                await desk.Store.Save(place, null);
                TempData["Said"] = $"{place.Name}: added.";
                return Redirect("/supply/holding");
            },
            Load
        );

    /// <summary>Removes a place.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostRemoveAsync(string? place, long version) =>
        await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                await desk.Store.RemovePlace(place ?? string.Empty, version);
                TempData["Said"] = "Place removed; lots keep its name.";
                return Redirect("/supply/holding");
            },
            Load
        );

    /// <summary>Puts a lot somewhere else, or lets it out of quarantine.</summary>
    [Needs(SiteRole.Crew)]
    public async Task<IActionResult> OnPostMoveAsync(string? lot, long version, string? to) =>
        await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                await Load();
                Lot moved = Now.Plan.Lots.FirstOrDefault(l => l.Id == lot) ?? throw new LostUpdateException("This lot", isGone: true);
                HoldingPlace place = Supply.Places.FirstOrDefault(p => p.It.Id == to)?.It
                    ?? throw new InvalidInputException(string.Empty, "Choose a place of the holding area");
                LotState state =
                    place.Kind == HoldingKind.Quarantine ? LotState.Quarantine
                    : moved.State == LotState.Quarantine ? LotState.Waiting
                    : moved.State;
                await lots.Save(moved with { Place = place.Name, State = state }, version);
                TempData["Said"] = $"{moved.Count} {Now.Plan.Plant(moved.PlantId).CommonName}: now {place.Name}.";
                return Redirect("/supply/holding");
            },
            Load
        );

    private async Task Load()
    {
        Now = await frame.Now();
        Supply = await desk.Supply();
        LocalDate last = frame.Today.PlusWeeks(Weeks);
        Plan = await desk.Holding(last);
        Day = Words.ReadDay(DayText) is { } day && day >= frame.Today && day <= last ? day : frame.Today;
    }
}

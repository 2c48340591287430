using System.Text.Json;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Stacks;
using UnrulyMeadow.Core.Work;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Drawing;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.DaySheet;

/// <summary>One crew's work for one day, in a turn or not, for the phone and on one printed page.</summary>
[Needs(SiteRole.Guest)]
public sealed class IndexModel(PageFrame frame, ChangeStore changes) : PageModel
{
    [BindProperty(SupportsGet = true, Name = "turn")]
    public string? TurnId { get; set; }

    [BindProperty(SupportsGet = true, Name = "date")]
    public string? DateText { get; set; }

    /// <summary>The mark of the sheet that was open when its form was sent.</summary>
    [BindProperty]
    public string? Mark { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public Turn? Turn { get; private set; }

    public IReadOnlyList<LocalDate> Days { get; private set; } = [];

    public Core.Work.DaySheet? Sheet { get; private set; }

    public async Task<IActionResult> OnGetAsync()
    {
        Now = await frame.Now();
        LocalDate? asked = Words.ReadDay(DateText);
        Turn = asked is { } date
            ? Now.Plan.Turns.FirstOrDefault(t => t.Holds(date) && t.Id == TurnId) ?? Now.Plan.Turns.FirstOrDefault(t => t.Holds(date))
            : Supply.IndexModel.Choose(Now.Plan, TurnId, frame.Today);
        if (TurnId is { Length: > 0 } && Now.Plan.Turns.All(t => t.Id != TurnId))
            return NotFound();
        LocalDate today = frame.Today;
        Days = Turn is { } turn
            ? await frame.Soon(frame.State.Derived(Now, ("days of turn", turn), n => Core.Work.DaySheet.DaysOf(n.Plan, turn)))
            : [];
        if (asked is null && Days.Count == 0)
            return Page();
        LocalDate day = asked ?? (Days.Contains(today) ? today : Days.FirstOrDefault(d => d > today, Days[0]));
        Sheet = await frame.Soon(frame.State.Derived(Now, ("day sheet", day, today), n => Core.Work.DaySheet.For(n.Plan, day, today)));
        return Page();
    }

    /// <summary>What each planter of the day is asked now, so that an open sheet learns of a change.</summary>
    public async Task<IActionResult> OnGetMarksAsync()
    {
        IActionResult page = await OnGetAsync();
        return page is not PageResult
            ? page
            : new JsonResult(
                (Sheet?.Planters ?? []).ToDictionary(p => p.Planter.Id, p => new { name = p.Planter.Name, mark = p.Mark }, StringComparer.Ordinal),
                new JsonSerializerOptions()
            );
    }

    /// <summary>What of the sheet is kept and not in the stock yet; nothing before its day.</summary>
    public IReadOnlyList<Lot> Kept =>
        Sheet is null || Sheet.Day > frame.Today ? [] : [.. Sheet.Planters.SelectMany(p => KeptPlants.Missing(p.Change, Now.Plan.Lots))];

    /// <summary>Takes what is kept into the stock.</summary>
    [Needs(SiteRole.Crew)]
    public async Task<IActionResult> OnPostKeptAsync()
    {
        IActionResult page = await OnGetAsync();
        if (Sheet is not { } sheet)
            return page;
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                IReadOnlyList<Lot> kept = Kept;
                if (kept.Count == 0)
                    throw new InvalidInputException(string.Empty, "All that is kept from this day is in the stock already.");
                if (Mark != sheet.Mark)
                    throw new InvalidInputException(
                        string.Empty,
                        "The plan of this day has changed since you opened its sheet. Below is what it asks now: look at what is kept, then take it."
                    );
                string what = $"{kept.Sum(l => l.Count)} plants kept on {Words.DayYear(sheet.Day)} taken into the stock";
                await changes.Make(PlanChange.Of([], []) with { LotsAfter = kept }, what);
                TempData["Said"] = $"{what}.";
                return Redirect("/stock");
            }
        );
    }

    /// <summary>How a kind is set, in the crew's words: depth, clumps and room between.</summary>
    public static string Laid(SheetPlanter at, ChangeoverItem item, FactWriter crew)
    {
        GoodsForm form = GoodsForm.Of(item.Plant)[0];
        if (item.DepthCm is not { } depth)
            return form.Sort is GoodsSort.Packs or GoodsSort.Plugs or GoodsSort.Pot ? crew.Crew("InForm", ("form", form.Name)) : string.Empty;
        (string, object?) lies = ("depth", Quantity.Depth(depth));
        (string, object?) apart = ("apart", at.Planter.Form.IsBed ? Quantity.Depth(item.Plant.Bulb!.SpacingCm) : null);
        if (item.Item.Clump is not { } clump || clump >= item.Count)
            return crew.Crew("LaidAt", lies, apart);
        int clumps = (int)Math.Ceiling((double)item.Count / clump);
        return crew.Crew(
            "LaidInClumps",
            lies,
            apart,
            ("clumps", clumps),
            ("clump", clump),
            ("between", Quantity.Depth(BulbCluster.BetweenClumpsCm(at.Planter, clumps)))
        );
    }
}

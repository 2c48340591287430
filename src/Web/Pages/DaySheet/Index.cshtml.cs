using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core.Planting;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.DaySheet;

/// <summary>One crew's work for one day of a turn, for the phone and on one printed page.</summary>
public sealed class IndexModel(PageFrame frame) : PageModel
{
    [BindProperty(SupportsGet = true, Name = "turn")]
    public string? TurnId { get; set; }

    [BindProperty(SupportsGet = true, Name = "date")]
    public string? DateText { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public Turn? Turn { get; private set; }

    public IReadOnlyList<LocalDate> Days { get; private set; } = [];

    public Core.Work.DaySheet? Sheet { get; private set; }

    public async Task<IActionResult> OnGetAsync()
    {
        Now = await frame.Now();
        Turn = Supply.IndexModel.Choose(Now.Plan, TurnId, frame.Today);
        if (TurnId is { Length: > 0 } && Turn?.Id != TurnId)
            return NotFound();
        if (Turn is null)
            return Page();
        Days = Core.Work.DaySheet.DaysOf(Now.Plan, Turn);
        if (Days.Count == 0)
            return Page();
        LocalDate day = Words.ReadDay(DateText) is { } asked && Days.Contains(asked) ? asked
            : Days.Contains(frame.Today) ? frame.Today
            : Days.FirstOrDefault(d => d > frame.Today, Days[0]);
        Sheet = Core.Work.DaySheet.For(Now.Plan, Turn, day);
        return Page();
    }
}

using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Stacks;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Drawing;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Stack;

/// <summary>Builds a bulb stack in a planter's cut-away: depths, counts that fit, medium, flowering and hand-over.</summary>
[Needs(SiteRole.Guest)]
public sealed class IndexModel(PageFrame frame, DisplayStore displays, ChangeStore changes) : PageModel
{
    [FromRoute]
    public string Id { get; set; } = string.Empty;

    [BindProperty(SupportsGet = true, Name = "day")]
    public string? DayText { get; set; }

    [BindProperty(SupportsGet = true, Name = "display")]
    public string? DisplayId { get; set; }

    /// <summary>Bulbs proposed elsewhere, as "plant:count,…", to be looked over before they are saved.</summary>
    [BindProperty(SupportsGet = true, Name = "items")]
    public string? Proposed { get; set; }

    /// <summary>The day on which what is proposed would be planted.</summary>
    [BindProperty(SupportsGet = true, Name = "planted")]
    public string? PlantedText { get; set; }

    [BindProperty]
    public DisplayInput Input { get; set; } = new();

    public SiteNow Now { get; private set; } = null!;

    public Planter Planter { get; private set; } = null!;

    public LocalDate Day { get; private set; }

    public YearScale Scale { get; private set; } = null!;

    public BulbStack? Stack { get; private set; }

    public StackBloom? Bloom { get; private set; }

    /// <summary>The planter's year with the stack as typed; null without weather.</summary>
    public PlanterSeason? Season { get; private set; }

    public IReadOnlyList<Remark> Remarks { get; private set; } = [];

    /// <summary>First colour of the first of its bulbs, in the middle year.</summary>
    public LocalDate? First => Bloom?.Forecasts.Min(f => f.First);

    /// <summary>Last colour of the last of them, in the middle year.</summary>
    public LocalDate? Last => Bloom?.Forecasts.Max(f => f.Over);

    /// <summary>How the planter's colour holds while its bulbs flower, as its own page has it.</summary>
    public string ColourSaid
    {
        get
        {
            if (Season is null || First is not { } first || Last is not { } last)
                return string.Empty;
            // A week of it at least: what is bare before the first flower and after the last is no gap of the stack.
            List<BareSpell> bare = [.. Season.BareSpells.Where(s => s.FirstDay.PlusDays(6) <= last && s.LastDay >= first.PlusDays(6))];
            string days =
                $"the planter is in colour on {Season.DaysInColourBetween(first, last)} of those {Period.DaysBetween(first, last) + 1} days";
            return bare.Count == 0 ? $"{days}." : $"{days}. {string.Join("; ", bare.Select(Words.Bare))}.";
        }
    }

    public CutAway Drawing { get; private set; } = null!;

    /// <summary>What the last change of the stack did, where it can be taken back.</summary>
    public string? CanUndo { get; private set; }

    /// <summary>The stack as a display, as typed.</summary>
    public Display Typed { get; private set; } = null!;

    public LocalDate Today => frame.Today;

    public UnitsText Units => frame.Units;

    public async Task<IActionResult> OnGetAsync()
    {
        if (!await Find())
            return NotFound();
        Display? display = Chosen();
        if (display is not null)
        {
            Input = DisplayInput.From(display, Now.Versions.Display(display.Id), Units);
        }
        else
        {
            LocalDate planting = Words.ReadDay(PlantedText)
                ?? PlantingTime.BulbsIn(frame.Today, frame.Today, Now.Plan.Site.RulesFor(Planter), Now.IsSouthern);
            Input = new DisplayInput
            {
                Install = Words.Iso(planting),
                Lift = Words.Iso(StackBloom.BulbYearStart(planting, Now.IsSouthern).PlusMonths(10).PlusDays(14)),
                Lines = [new DisplayLine()],
            };
        }
        if (!string.IsNullOrEmpty(Proposed))
        {
            Input.Lines =
            [
                .. Proposed
                    .Split(',')
                    .Select(x => x.Split(':'))
                    .Where(x => x.Length == 2 && Now.Plan.FindPlant(x[0])?.Bulb is not null)
                    .Select(x => new DisplayLine { PlantId = x[0], Count = x[1] }),
            ];
            Input.Pairs = [];
        }
        await Draw();
        return Page();
    }

    /// <summary>Makes a remedy's change in the form; it is saved when the planner saves.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostMendAsync(string? mend)
    {
        if (!await Find())
            return NotFound();
        ModelState.Clear();
        DayText = Input.Day;
        await Draw();
        if (RemarksView.Find(Remarks, mend) is not { } found)
        {
            ModelState.AddModelError(string.Empty, "That remark is there no more. Look again.");
            return Page();
        }
        Input.Take(found.Remedy.After, Units);
        await Draw();
        TempData["Said"] = $"Changed below, not saved yet: {frame.Facts.Say(found.Remedy)}.";
        return Page();
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostUndoAsync()
    {
        if (!await Find())
            return NotFound();
        return await frame.Saving(
            this,
            DisplayInput.Field,
            async () =>
            {
                await changes.UndoLastOf(Input.DisplayId ?? string.Empty);
                TempData["Said"] = "Taken back.";
                return Redirect($"/stack/{Id}?display={Input.DisplayId}");
            },
            Draw
        );
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostPreviewAsync()
    {
        if (!await Find())
            return NotFound();
        ModelState.Clear();
        DayText = Input.Day;
        await Draw();
        return Page();
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAsync()
    {
        if (!await Find())
            return NotFound();
        DayText = Input.Day;
        return await frame.Saving(
            this,
            DisplayInput.Field,
            async () =>
            {
                Display display = Input.Read(Now.Plan, Id, DisplayLayer.Bulbs, Units);
                await displays.Save(display, Input.Version, $"{Planter.Name}: stack {(Input.Version is null ? "planted" : "changed")}");
                frame.Forget();
                TempData["Said"] = "The stack is saved.";
                return Redirect($"/stack/{Id}?display={display.Id}" + (Words.ReadDay(DayText) is { } d ? $"&day={Words.Iso(d)}" : string.Empty));
            },
            Draw,
            now =>
            {
                (Now, Planter) = (now, now.Plan.FindPlanter(Planter.Id) ?? Planter);
                return Input.Compare(now, Input.DisplayId, Units);
            }
        );
    }

    private Display? Chosen()
    {
        List<Display> stacks = [.. Now.Plan.DisplaysOf(Id).Where(d => d.Layer == DisplayLayer.Bulbs)];
        if (DisplayId == "new")
            return null;
        return stacks.Find(d => d.Id == DisplayId) ?? stacks.Find(d => d.Lift > frame.Today) ?? stacks.LastOrDefault();
    }

    private async Task<bool> Find()
    {
        Now = await frame.Now();
        if (Now.Plan.FindPlanter(Id) is not { } planter)
            return false;
        Planter = planter;
        return true;
    }

    private async Task Draw()
    {
        LocalDate install = Words.ReadDay(Input.Install) ?? frame.Today;
        IReadOnlyList<DisplayItem> items = [.. Input.Readable(Now.Plan, Units).Where(i => Now.Plan.Plant(i.PlantId).Bulb is not null)];
        LocalDate lift = Words.ReadDay(Input.Lift) is { } end && end > install ? end : install.PlusMonths(8);
        Typed = new Display(Input.DisplayId is { Length: > 0 } known ? known : "preview", Id, DisplayLayer.Bulbs, install, lift, items)
        {
            Pairs = Input.ReadPairs(items),
        };
        CanUndo = Input.DisplayId is { Length: > 0 } saved ? (await changes.LastOf([saved])).GetValueOrDefault(saved)?.What : null;
        Display display = Typed;
        Stack = items.Count == 0 ? null : BulbStack.Of(Now.Plan, Planter, display);
        Bloom = Stack is null ? null : await frame.Soon(frame.State.Bloom(Stack, install));
        // Without a day in the address the drawing stands where most is in flower: the middle layer's full flower.
        Day = Words.ReadDay(DayText)
            ?? Bloom
                ?.Forecasts.Where(f => f.Half is not null)
                .OrderBy(f => f.Half)
                .Select(f => f.Half!.Value.PlusDays(6))
                .Skip((Bloom.Forecasts.Count - 1) / 2)
                .FirstOrDefault(frame.Today)
            ?? frame.Today;
        Scale = YearScale.Across(SiteYear.UsualStart(Day, Now.IsSouthern));
        Remarks = Stack is null ? [] : (await frame.State.Checks()).For(display);
        SeasonKernel kernel = await frame.Soon(frame.State.Kernel(Scale.Start));
        PlanterSeason season =
            kernel.Seasons.Count == 0
                ? PlanterSeason.Unknown(Now.Plan, Planter, Scale.Start)
                : kernel.Try(
                    Now.Plan,
                    Planter,
                    [.. Now.Plan.DisplaysOf(Id).Where(d => d.Id != display.Id), .. items.Count == 0 ? [] : new[] { display }]
                );
        Season = kernel.Seasons.Count == 0 ? null : season;
        Drawing = new CutAway(Planter, Stack, Bloom, StandingPlant.On(Now.Plan, Planter, season, Day), Day, Units);
        Input.Day = Words.Iso(Day);
        if (Input.Lines.Count == 0)
            Input.Lines.Add(new DisplayLine());
    }
}

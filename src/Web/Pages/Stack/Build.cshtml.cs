using System.Globalization;
using System.Text.Json;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Closing;
using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Jobs;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Stack;

/// <summary>"Build me a stack": three proposals for the months, colours and budget wanted, each laid out and checked.</summary>
[Needs(SiteRole.Planner)]
public sealed class BuildModel(PageFrame frame, JobDesk desk) : PageModel
{
    [FromRoute]
    public string Id { get; set; } = string.Empty;

    /// <summary>The work that was asked for; null before.</summary>
    [BindProperty(SupportsGet = true, Name = "job")]
    public Guid? JobId { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? From { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? To { get; set; }

    [BindProperty(SupportsGet = true, Name = "colours[]")]
    public List<string> Colours { get; set; } = [];

    [BindProperty(SupportsGet = true)]
    public string? Budget { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? Kinds { get; set; }

    [BindProperty(SupportsGet = true)]
    public bool OnlyStock { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public Planter Planter { get; private set; } = null!;

    /// <summary>What was wished; null before it was asked.</summary>
    public StackWish? Wish { get; private set; }

    public Job? Job { get; private set; }

    public StackResult? Found { get; private set; }

    public UnitsText Units => frame.Units;

    /// <summary>Colours to choose from, by name and value.</summary>
    public static IReadOnlyList<(string Name, string Value)> Choices { get; } =
    [
        ("white", "#f7f5ef"),
        ("yellow", "#f2c62e"),
        ("orange", "#ea8a2a"),
        ("pink", "#e393ad"),
        ("red", "#c22c3c"),
        ("violet", "#7d55b5"),
        ("blue", "#4a63c0"),
        ("dark", "#4a1d38"),
    ];

    public async Task<IActionResult> OnGetAsync()
    {
        if (!await Find())
            return NotFound();
        if (await desk.Find(JobKinds.Stack, JobId) is not { } job)
            return Page();
        Wish = JsonSerializer.Deserialize<StackAsk>(job.Question, JobJson.Options)!.Wish;
        (From, To, Kinds, OnlyStock) = (
            Words.Iso(Wish.First),
            Words.Iso(Wish.Last),
            Wish.MostKinds.ToString(CultureInfo.InvariantCulture),
            Wish.OnlyStock
        );
        (Colours, Budget) = ([.. Wish.Colours], Wish.Budget?.ToString(CultureInfo.InvariantCulture));
        (Job, Found) = (job, desk.Result<StackResult>(job));
        return Page();
    }

    /// <summary>Has three stacks solved.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAskAsync()
    {
        if (!await Find())
            return NotFound();
        return await frame.Saving(
            this,
            f =>
                f switch
                {
                    "first" => "From",
                    "last" => "To",
                    "budget" => "Budget",
                    "mostKinds" => "Kinds",
                    _ => null,
                },
            async () =>
            {
                if (Now.Record is null)
                    throw new InvalidInputException(
                        string.Empty,
                        "The site has no weather yet, so that nobody knows when a bulb shows: bring in a station's record first."
                    );
                Job asked = await desk.Ask(
                    JobKinds.Stack,
                    new StackAsk(Id, Read(), frame.Today.PlusDays(GapQuestion.UsualLeadDays)),
                    Now,
                    PageFrame.Asker(HttpContext)
                );
                return Redirect($"/stack/{Id}/build?job={asked.Id}");
            }
        );
    }

    private async Task<bool> Find()
    {
        Now = await frame.Now();
        if (Now.Plan.FindPlanter(Id) is not { } planter)
            return false;
        Planter = planter;
        LocalDate fall = StackBloom.BulbYearStart(frame.Today, Now.IsSouthern);
        LocalDate spring = fall.PlusMonths(6);
        From ??= Words.Iso(spring.PlusDays(14));
        To ??= Words.Iso(spring.PlusMonths(4).PlusDays(-1));
        Kinds ??= "5";
        return true;
    }

    /// <summary>The day on which what is proposed would be planted.</summary>
    private LocalDate PlantedOn =>
        PlantingTime.BulbsIn(Wish!.First, frame.Today.PlusDays(GapQuestion.UsualLeadDays), Now.Plan.Site.RulesFor(Planter), Now.IsSouthern);

    /// <summary>Where a proposal is opened in the stack's own page, to be looked over and saved.</summary>
    public string Open(ProposedStack stack) =>
        $"/stack/{Id}?display=new&planted={Words.Iso(PlantedOn)}&items={string.Join(',', stack.Bulbs.Select(k => $"{k.PlantId}:{k.Count}"))}";

    private StackWish Read()
    {
        var faults = new FaultList();
        LocalDate first = Words.ReadDay(From) ?? default;
        LocalDate last = Words.ReadDay(To) ?? default;
        if (Words.ReadDay(From) is null)
            faults.Add("first", "must be a date");
        if (Words.ReadDay(To) is null)
            faults.Add("last", "must be a date");
        decimal? budget = null;
        if (!string.IsNullOrWhiteSpace(Budget))
        {
            budget = TypedNumber.Money(Budget);
            if (budget is null)
                faults.Add("budget", $"\"{Budget}\" is no amount of money; write 250 or 99.50, or leave it empty for no limit");
        }
        if (!int.TryParse(Kinds, NumberStyles.Integer, CultureInfo.InvariantCulture, out int kinds))
            faults.Add("mostKinds", "must be from 1 to 8");
        faults.ThrowIfAny();
        var wish = new StackWish(first, last, [.. Colours.Where(c => Srgb.IsColour(c))], budget, kinds, OnlyStock);
        if (wish.Faults() is { Count: > 0 } wrong)
            throw new InvalidInputException(wrong);
        return wish;
    }
}

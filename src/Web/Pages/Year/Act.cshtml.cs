using System.Globalization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Acts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Jobs;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Year;

/// <summary>Acts on many planters at once: they are chosen, the act is worked out and shown, and what is accepted is one change.</summary>
[Needs(SiteRole.Planner)]
public sealed class ActModel(PageFrame frame, JobDesk desk, ChangeStore changes) : PageModel
{
    /// <summary>Planters shown one by one; of thousands nobody reads each.</summary>
    public const int MostShown = 200;

    [BindProperty(SupportsGet = true, Name = "day")]
    public string? DayText { get; set; }

    /// <summary>The work that was asked for; null before.</summary>
    [BindProperty(SupportsGet = true, Name = "job")]
    public Guid? JobId { get; set; }

    [BindProperty(SupportsGet = true, Name = "planters[]")]
    public List<string> PlanterIds { get; set; } = [];

    /// <summary>The same in one field, parted by blanks.</summary>
    [BindProperty(SupportsGet = true, Name = "planterList")]
    public string? PlanterList { get; set; }

    /// <summary>Areas all of whose planters are chosen.</summary>
    [BindProperty(SupportsGet = true, Name = "areas[]")]
    public List<string> AreaIds { get; set; } = [];

    [BindProperty(SupportsGet = true, Name = "kind")]
    public string? KindText { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? Recipe { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? Display { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? Source { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? Turn { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? OldPlant { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? NewPlant { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? Days { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? Install { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? Lift { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? Layer { get; set; }

    /// <summary>True to do it also to the planters that the page does not show one by one.</summary>
    [BindProperty(Name = "others")]
    public bool Others { get; set; }

    /// <summary>Kinds that stay on in what a recipe is planted over.</summary>
    [BindProperty(SupportsGet = true, Name = "stays[]")]
    public List<string> Stays { get; set; } = [];

    public SiteNow Now { get; private set; } = null!;

    public YearView View { get; private set; } = null!;

    public ActKind Kind { get; private set; }

    public PlanterChoice Planters { get; private set; } = null!;

    /// <summary>The planters chosen, in the order of the plan.</summary>
    public IReadOnlyList<Planter> Chosen => Planters.Chosen;

    public Job? Job { get; private set; }

    public ActResult? Found { get; private set; }

    /// <summary>True when the result was worked out of the plan as it is.</summary>
    public bool IsOfNow { get; private set; } = true;

    /// <summary>Kinds that go in during the plan year in the planters chosen, or in all while none is.</summary>
    public IReadOnlyList<Plant> Kinds =>
        [
            .. (Chosen.Count > 0 ? Chosen : Now.Plan.Planters)
                .SelectMany(p => Now.Plan.DisplaysOf(p.Id))
                .Where(d => d.Lift > View.Start && d.Install < View.Start.PlusYears(1))
                .SelectMany(d => d.Items.Select(i => i.PlantId))
                .Distinct(StringComparer.Ordinal)
                .Select(Now.Plan.Plant)
                .OrderBy(p => p.CommonName, StringComparer.Ordinal),
        ];

    /// <summary>The turn that was chosen.</summary>
    public Turn? Turning => Now.Plan.Turns.FirstOrDefault(t => t.Id == Turn);

    /// <summary>Kinds that stand in the seasonal layer when a recipe would go in, and could stay on.</summary>
    public IReadOnlyList<Plant> Standing =>
        (Turning?.FirstDay ?? Words.ReadDay(Install)) is not { } day
            ? []
            :
            [
                .. (Chosen.Count > 0 ? Chosen : Now.Plan.Planters)
                    .SelectMany(p => Now.Plan.DisplaysOf(p.Id))
                    .Where(d => d.Layer == DisplayLayer.Seasonal && d.Install < day && d.Lift >= day)
                    .SelectMany(d => d.Items.Select(i => i.PlantId))
                    .Distinct(StringComparer.Ordinal)
                    .Select(Now.Plan.Plant)
                    .OrderBy(p => p.CommonName, StringComparer.Ordinal),
            ];

    /// <summary>The sentence that heads the page.</summary>
    public string Sentence
    {
        get
        {
            string planters = Chosen.Count == 1 ? Chosen[0].Name : $"{Chosen.Count} planters";
            if (Found is null)
                return Chosen.Count == 0 ? "Which planters?" : $"What is to be done with {planters}?";
            int changing = Found.Planters.Count(p => p.Changes);
            int days = Found.Planters.Sum(p => p.DaysAfter - p.DaysBefore);
            return changing == 0
                ? $"Nothing would change in {planters}"
                : $"{changing} of {Words.Count(Found.Planters.Count, "planter", "planters")} would change, {Words.Signed(days)} planter-days of colour";
        }
    }

    public async Task<IActionResult> OnGetAsync()
    {
        await Load();
        return Page();
    }

    /// <summary>Takes the planters that were ticked to an address of their own, unless they are too many for one.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostChooseAsync()
    {
        await Load();
        string? address = Planters.Address(
            "/year/act",
            new("day", Words.Iso(View.Day)),
            new("kind", KindText),
            new("display", Display),
            new("source", Source),
            new("turn", Turn)
        );
        ModelState.Clear();
        return address is null ? Page() : Redirect(address);
    }

    /// <summary>Has it worked out.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAskAsync()
    {
        await Load();
        return await frame.Saving(this, Field, async () =>
        {
            Job asked = await desk.Ask(JobKinds.Act, Read(), Now, PageFrame.Asker(HttpContext));
            return Redirect($"/year/act?day={Words.Iso(View.Day)}&job={asked.Id}#found");
        });
    }

    /// <summary>Does it to the planters that were left ticked.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAcceptAsync()
    {
        await Load();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                (Job, ActResult result) = await desk.Proposed<ActResult>(JobKinds.Act, JobId);
                Found = result;
                IEnumerable<string> others = Others ? InOrder(result).Skip(MostShown).Select(p => p.PlanterId) : [];
                PlanChange change = result.Change([.. Ticked.Of(PlanterIds, PlanterList), .. others]);
                int count = change
                    .After.Concat(change.Added)
                    .Concat(change.Removed)
                    .Select(d => d.PlanterId)
                    .Distinct(StringComparer.Ordinal)
                    .Count();
                if (count == 0)
                    throw new InvalidInputException(
                        string.Empty,
                        "Leave at least one planter ticked, or leave the page: nothing is done until you accept it"
                    );
                string what = $"{Words.Of(Kind)}, {Words.Count(count, "planter", "planters")}";
                await changes.Make(change, what);
                TempData["Said"] = $"Done: {what}. It can be taken back as one.";
                return Redirect($"/year?day={Words.Iso(View.Day)}");
            }
        );
    }

    /// <summary>What becomes of the planters: first those of which something grave is to be said, then those that change.</summary>
    public static IEnumerable<ActOnPlanter> InOrder(ActResult result) =>
        result.Planters.OrderByDescending(p => p.Loses).ThenByDescending(p => p.Changes);

    /// <summary>A display's plants in a few words.</summary>
    public string Plants(Display display) =>
        string.Join(", ", display.Items.Select(i => $"{i.Count} {Now.Plan.FindPlant(i.PlantId)?.CommonName ?? i.PlantId}"));

    private async Task Load()
    {
        Now = await frame.Now();
        View = YearView.From(DayText, Now, frame.Today);
        if (JobId is { } id && await desk.Find(JobKinds.Act, id) is { } job)
        {
            (Job, Found) = (job, desk.Result<ActResult>(job));
            ActQuestion asked = JobDesk.Question<ActQuestion>(job);
            IsOfNow = desk.IsOfNow(job, asked, Now);
            if (HttpMethods.IsGet(Request.Method))
                Fill(asked);
        }
        Kind = Enum.TryParse(KindText, out ActKind kind) && Enum.IsDefined(kind) ? kind : ActKind.SameAsLastYear;
        Planters = PlanterChoice.Of(Now.Plan, PlanterIds, PlanterList, AreaIds);
        if (Turning is { } turn && Kind == ActKind.PlantRecipe)
            Lift ??= Words.Iso(
                Now.Plan.Turns.Where(t => t.FirstDay > turn.LastDay).Select(t => t.FirstDay).DefaultIfEmpty(turn.FirstDay.PlusMonths(4)).Min()
            );
    }

    // The form as it was sent.
    private void Fill(ActQuestion asked)
    {
        string? Iso(LocalDate? day) => day is { } d ? Words.Iso(d) : null;
        (KindText, PlanterIds, DayText) = ($"{asked.Kind}", [.. asked.PlanterIds], DayText ?? Words.Iso(asked.Start));
        (Recipe, Display, Source, Turn) = (asked.RecipeId, asked.DisplayId, asked.SourceId, asked.TurnId);
        (OldPlant, NewPlant, Layer) = (asked.OldPlantId, asked.NewPlantId, asked.Layer?.ToString());
        (Install, Lift, Stays) = (Iso(asked.Install), Iso(asked.Lift), [.. asked.Stays]);
        Days = asked.Days == 0 ? null : asked.Days.ToString(CultureInfo.InvariantCulture);
    }

    private ActQuestion Read()
    {
        var faults = new FaultList();
        LocalDate? Day(string? text, string field)
        {
            if (Kind != ActKind.PlantRecipe || string.IsNullOrWhiteSpace(text))
                return null;
            if (Words.ReadDay(text) is { } day)
                return day;
            faults.Add(field, "must be a date");
            return null;
        }
        int days = 0;
        if (Kind == ActKind.MoveByDays && !int.TryParse(Days, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out days))
            faults.Add("days", "must be a whole number: 7 for a week later, -7 for a week earlier");
        LocalDate? install = Day(Install, "install");
        LocalDate? lift = Day(Lift, "lift");
        faults.ThrowIfAny();
        var question = new ActQuestion(Kind, [.. Chosen.Select(p => p.Id)], View.Start, frame.Today > View.Start ? frame.Today : View.Start)
        {
            RecipeId = Kind == ActKind.PlantRecipe ? Recipe : null,
            DisplayId = Kind == ActKind.CopyDisplay ? Display : null,
            SourceId = Kind == ActKind.CopyYear ? Source : null,
            TurnId = Kind is ActKind.MoveToTurn or ActKind.PlantRecipe && !string.IsNullOrEmpty(Turn) ? Turn : null,
            Stays = Kind == ActKind.PlantRecipe ? Stays : [],
            OldPlantId = Kind == ActKind.ReplaceKind ? OldPlant : null,
            NewPlantId = Kind == ActKind.ReplaceKind ? NewPlant : null,
            Days = days,
            Install = install,
            Lift = lift,
            Layer = Enum.TryParse(Layer, out DisplayLayer layer) && Enum.IsDefined(layer) ? layer : null,
        };
        faults.AddAll(string.Empty, question.Faults(Now.Plan));
        faults.ThrowIfAny();
        return question;
    }

    private static string? Field(string fault) =>
        fault switch
        {
            "recipe" => "Recipe",
            "display" => "Display",
            "source" => "Source",
            "turn" => "Turn",
            "oldPlant" => "OldPlant",
            "newPlant" => "NewPlant",
            "days" => "Days",
            "install" => "Install",
            "lift" => "Lift",
            _ => null,
        };
}

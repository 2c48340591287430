using System.Globalization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Proposing;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Work;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Drawing;
using UnrulyMeadow.Web.Jobs;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Year;

/// <summary>Whole years proposed for some planters, looked at piece by piece, changed, and taken as one change.</summary>
[Needs(SiteRole.Planner)]
public sealed class ProposeModel(PageFrame frame, JobDesk desk, SupplyDesk supply, ChangeStore changes) : PageModel
{
    /// <summary>Planters shown one by one.</summary>
    public const int MostShown = 60;

    [BindProperty(SupportsGet = true, Name = "day")]
    public string? DayText { get; set; }

    /// <summary>The work that was asked for; null before.</summary>
    [BindProperty(SupportsGet = true, Name = "job")]
    public Guid? JobId { get; set; }

    /// <summary>The year that is looked at.</summary>
    [BindProperty(SupportsGet = true, Name = "year")]
    public string? CharacterText { get; set; }

    [BindProperty(SupportsGet = true, Name = "planters[]")]
    public List<string> PlanterIds { get; set; } = [];

    /// <summary>The same in one field, parted by blanks.</summary>
    [BindProperty(SupportsGet = true, Name = "planterList")]
    public string? PlanterList { get; set; }

    /// <summary>Areas all of whose planters are chosen.</summary>
    [BindProperty(SupportsGet = true, Name = "areas[]")]
    public List<string> AreaIds { get; set; } = [];

    [BindProperty]
    public string? Turns { get; set; }

    [BindProperty]
    public string? Budget { get; set; }

    [BindProperty]
    public string? Bare { get; set; }

    /// <summary>Colours wanted, as words.</summary>
    [BindProperty(Name = "colours[]")]
    public List<string> Colours { get; set; } = [];

    /// <summary>True to keep to the institution's colours.</summary>
    [BindProperty]
    public bool Institution { get; set; }

    /// <summary>True to let what is planned and has not gone in make way.</summary>
    [BindProperty]
    public bool Replace { get; set; }

    [BindProperty(Name = "favourites[]")]
    public List<string> Favourites { get; set; } = [];

    [BindProperty(Name = "never[]")]
    public List<string> Never { get; set; } = [];

    /// <summary>What was settled, each as planters, parted by blanks, and piece, parted from them by a bar.</summary>
    [BindProperty(Name = "locks[]")]
    public List<string> Locks { get; set; } = [];

    /// <summary>True to take also the planters that the page does not show one by one.</summary>
    [BindProperty(Name = "others")]
    public bool Others { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public YearView View { get; private set; } = null!;

    public YearScale Scale { get; private set; } = null!;

    public PlanterChoice Planters { get; private set; } = null!;

    public Job? Job { get; private set; }

    public YearProposalResult? Found { get; private set; }

    /// <summary>The year that is looked at; null before there is one.</summary>
    public ProposedYearResult? Shown { get; private set; }

    /// <summary>Plants of the year that is looked at that stand in stock, and what they would cost to buy.</summary>
    public (int Plants, decimal Worth) AtHand { get; private set; }

    /// <summary>True when it was asked of the plan and weather as they are.</summary>
    public bool IsOfNow { get; private set; } = true;

    public IReadOnlyList<string> InstitutionColours => Now.Plan.Site.Rules.InstitutionColours;

    /// <summary>The sentence that heads the page.</summary>
    public string Sentence =>
        Found is { Years.Count: > 0 } found
            ? found.Years.Count == 1
                ? $"One year for {Words.Count(Asked, "planter", "planters")}: nothing else is better at anything"
                : $"{found.Years.Count} proposals for the year of {Words.Count(Asked, "planter", "planters")}"
            : Planters.Chosen.Count == 0
                ? "For which planters shall a year be proposed?"
                : $"A year for {(Planters.Chosen.Count == 1 ? Planters.Chosen[0].Name : $"{Planters.Chosen.Count} planters")}";

    private int Asked => Shown?.Units.Sum(u => u.PlanterIds.Count) ?? 0;

    /// <summary>Kinds that can be named.</summary>
    public IReadOnlyList<(string, string)> Kinds =>
        [.. Now.Plan.Palette.Where(p => !p.IsRetired).OrderBy(p => p.CommonName, StringComparer.Ordinal).Select(p => (p.Id, p.CommonName))];

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
        string? address = Planters.Address("/year/propose", KeyValuePair.Create("day", (string?)Words.Iso(View.Day)));
        ModelState.Clear();
        return address is null ? Page() : Redirect(address);
    }

    /// <summary>Has years proposed.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAskAsync()
    {
        await Load();
        return await frame.Saving(this, Field, async () => await AskFor(Read()));
    }

    /// <summary>Has them proposed anew with what was settled.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAgainAsync()
    {
        await Load();
        return await frame.Saving(this, Field, async () =>
        {
            (Job job, YearProposalResult result) = await desk.Proposed<YearProposalResult>(JobKinds.Propose, JobId);
            Show(result);
            YearWish wish = JobDesk.Question<YearWish>(job);
            return await AskFor(wish with { Locks = [.. ReadLocks()] });
        });
    }

    /// <summary>Plants the year that is looked at in the planters that were left ticked.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAcceptAsync()
    {
        await Load();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                (Job job, YearProposalResult result) = await desk.Proposed<YearProposalResult>(JobKinds.Propose, JobId);
                Show(result);
                if (JobDesk.Question<YearWish>(job).Locks.Count != ReadLocks().Count() || ReadLocks().Any(l => !Holds(l)))
                    throw new InvalidInputException(
                        string.Empty,
                        "Something was settled that this year does not hold yet: propose again with it first"
                    );
                IEnumerable<string> others = Others && Shown is not null ? Shown.Units.Skip(MostShown).SelectMany(u => u.PlanterIds) : [];
                PlanChange change = result.Change(Shown!.Character, [.. Ticked.Of(PlanterIds, PlanterList), .. others], Now.Plan);
                int count = change.Added.Select(d => d.PlanterId).Distinct(StringComparer.Ordinal).Count();
                if (count == 0)
                    throw new InvalidInputException(
                        string.Empty,
                        "Leave at least one planter ticked, or leave the page: nothing is done until you accept it"
                    );
                string what = $"A year proposed, {Words.Of(Shown.Character)}: {Words.Count(count, "planter", "planters")}";
                await changes.Make(change, what);
                TempData["Said"] =
                    $"Planned: {Words.Count(change.Added.Count, "display", "displays")} in {Words.Count(count, "planter", "planters")}. It can be taken back as one.";
                return Redirect($"/year?day={Words.Iso(View.Day)}");
            }
        );
    }

    /// <summary>The first planter's ribbon with what is proposed, the plan as it is outlined over it.</summary>
    public async Task<YearRow?> RowOf(ProposedPlanters unit)
    {
        if (Now.Plan.FindPlanter(unit.PlanterIds[0]) is not { } planter)
            return null;
        SeasonKernel kernel = await frame.State.Kernel(View.Start);
        var removed = Found!.Removed.Select(d => d.Id).ToHashSet(StringComparer.Ordinal);
        Display[] displays =
        [
            .. Now.Plan.DisplaysOf(planter.Id).Where(d => !removed.Contains(d.Id)),
            .. unit
                .Pieces.SelectMany(p => p.Displays)
                .Where(d => d.PlanterId == planter.Id && Now.Plan.DisplaysOf(planter.Id).All(o => o.Id != d.Id)),
        ];
        if (displays.Any(d => d.Items.Any(i => Now.Plan.FindPlant(i.PlantId) is null)))
            return null;
        return new YearRow(kernel.Try(Now.Plan, planter, displays), kernel.Of(Now.Plan, planter), Scale, [], displays, frame.Units);
    }

    /// <summary>A display's plants in a few words.</summary>
    public string Plants(Display display) =>
        string.Join(", ", display.Items.Select(i => $"{i.Count} {Now.Plan.FindPlant(i.PlantId)?.CommonName ?? i.PlantId}"));

    /// <summary>How near a year comes to what no choice among the pieces found can beat.</summary>
    public string Bound(ProposedYearResult year)
    {
        string money = Now.Plan.Site.Money;
        string among = $"no choice among the {Found!.Considered:#,0} pieces found that leaves as few bare spells";
        return year.Character switch
        {
            YearCharacter.Richest =>
                $"{Words.Count((int)year.Reached, "planter-day", "planter-days")} of colour gained; {among} brings more than {year.Bound:#,0}",
            YearCharacter.Cheapest => $"{among} costs less than {money}{year.Bound:#,0}",
            _ => $"{among} takes less than {Words.Hours(year.Bound / 60)}",
        };
    }

    /// <summary>True where a lock holds a piece of the year that is looked at.</summary>
    public bool Holds(PieceLock settled) =>
        Shown?.Units.Any(u => u.PlanterIds.Contains(settled.PlanterId, StringComparer.Ordinal) && u.Pieces.Any(p => p.Id == settled.PieceId)) == true;

    /// <summary>True where a planter's piece was settled.</summary>
    public bool IsSettled(string planterId, string pieceId) => Locks.Contains($"{planterId}|{pieceId}", StringComparer.Ordinal);

    /// <summary>What is proposed, units that are given the same shown as one.</summary>
    public IEnumerable<IReadOnlyList<ProposedPlanters>> Alike(ProposedYearResult year) =>
        year
            .Units.Take(MostShown)
            .GroupBy(u =>
                u.Pieces.Count == 0
                    ? u.PlanterIds[0]
                    : $"{u.PlanterIds.Count} {u.DaysBefore} {u.DaysAfter} "
                        + string.Join(
                            '\n',
                            u.Pieces.Select(p => $"{p.Id} {IsSettled(u.PlanterIds[0], p.Id)} {string.Join(';', p.Displays.Select(Plants))}")
                        )
            )
            .Select(g => (IReadOnlyList<ProposedPlanters>)[.. g]);

    private async Task<IActionResult> AskFor(YearWish wish)
    {
        Job asked = await desk.Ask(JobKinds.Propose, wish, Now, PageFrame.Asker(HttpContext));
        string year = Shown is { } shown ? $"&year={shown.Character}" : string.Empty;
        return Redirect($"/year/propose?day={Words.Iso(View.Day)}&job={asked.Id}{year}#found");
    }

    private async Task Load()
    {
        Now = await frame.Now();
        if (JobId is { } id && await desk.Find(JobKinds.Propose, id) is { } job)
        {
            Job = job;
            YearWish asked = JobDesk.Question<YearWish>(job);
            IsOfNow = desk.IsOfNow(job, asked, Now);
            if (HttpMethods.IsGet(Request.Method))
                Fill(asked);
            if (desk.Result<YearProposalResult>(job) is { } result)
                Show(result);
            if (Found is { } found && Shown is { } shown && Now.Plan.Lots.Count > 0)
                AtHand = await OfStock(found, shown);
        }
        View = YearView.From(DayText, Now, frame.Today);
        Scale = YearScale.Of(View.Start);
        Planters = PlanterChoice.Of(Now.Plan, PlanterIds, PlanterList, AreaIds);
    }

    // Of what stands in stock and nothing else takes.
    private async Task<(int, decimal)> OfStock(YearProposalResult found, ProposedYearResult year) =>
        StockReservation.AtHand(
            Now.Plan,
            (await supply.Reserved()).SelectMany(r => r),
            found.Removed.Select(d => d.Id).ToHashSet(StringComparer.Ordinal),
            year.Units.SelectMany(u => u.Pieces).SelectMany(p => p.Displays)
        );

    private void Show(YearProposalResult result)
    {
        Found = result;
        Shown = result.Years.FirstOrDefault(y => $"{y.Character}" == CharacterText) ?? (result.Years.Count > 0 ? result.Years[0] : null);
    }

    // The form as it was sent.
    private void Fill(YearWish asked)
    {
        DayText ??= Words.Iso(asked.Start);
        PlanterIds = [.. asked.PlanterIds];
        Turns = asked.Turns.ToString(CultureInfo.InvariantCulture);
        Budget = asked.Budget?.ToString("0.##", CultureInfo.InvariantCulture);
        Bare = asked.LongestBareDays.ToString(CultureInfo.InvariantCulture);
        Institution = InstitutionColours.Count > 0 && InstitutionColours.All(asked.Colours.Contains);
        Colours = [.. Enum.GetValues<ColourWord>().Where(w => asked.Colours.Contains(ColourWords.ShadesOf(w)[0])).Select(w => $"{w}")];
        (Favourites, Never, Replace) = ([.. asked.Favourites], [.. asked.Never], !asked.KeepsPlanned);
        Locks = [.. asked.Locks.Select(l => $"{l.PlanterId}|{l.PieceId}")];
    }

    private IEnumerable<PieceLock> ReadLocks() =>
        Locks
            .Where(l => !string.IsNullOrEmpty(l))
            .Select(l => l.Split('|', 2))
            .Where(l => l.Length == 2)
            .SelectMany(l => l[0].Split(' ').Select(planter => new PieceLock(planter, l[1])))
            .Distinct();

    private YearWish Read()
    {
        var faults = new FaultList();
        decimal? budget = null;
        if (!string.IsNullOrWhiteSpace(Budget))
        {
            budget = TypedNumber.Money(Budget);
            if (budget is null)
                faults.Add("budget", $"\"{Budget}\" is no amount of money; write 250 or 99.50, or leave it empty for no limit");
        }
        int Whole(string? text, int usual, string field)
        {
            if (string.IsNullOrWhiteSpace(text))
                return usual;
            if (!int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out int number))
                faults.Add(field, "must be a whole number");
            return number;
        }
        var wish = new YearWish(View.Start, frame.Today > View.Start ? frame.Today : View.Start, [.. Planters.Chosen.Select(p => p.Id)]);
        wish = wish with
        {
            Turns = Whole(Turns, wish.Turns, "turns"),
            LongestBareDays = Whole(Bare, wish.LongestBareDays, "longestBareDays"),
            Budget = budget,
            KeepsPlanned = !Replace,
            Colours =
            [
                .. Institution ? InstitutionColours : [],
                .. Colours
                    .Where(c => Enum.TryParse(c, out ColourWord word) && Enum.IsDefined(word))
                    .SelectMany(c => ColourWords.ShadesOf(Enum.Parse<ColourWord>(c))),
            ],
            Favourites = [.. Favourites.Where(f => !string.IsNullOrEmpty(f))],
            Never = [.. Never.Where(f => !string.IsNullOrEmpty(f))],
        };
        faults.ThrowIfAny();
        faults.AddAll(string.Empty, wish.Faults(Now.Plan));
        faults.ThrowIfAny();
        return wish;
    }

    private static string? Field(string fault) =>
        fault switch
        {
            "budget" => "Budget",
            "turns" => "Turns",
            "longestBareDays" => "Bare",
            _ => null,
        };
}

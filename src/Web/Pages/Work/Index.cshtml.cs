using System.Globalization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Work;

/// <summary>A day's work: given to people, and what came back of it.</summary>
[Needs(SiteRole.Guest)]
public sealed class IndexModel(PageFrame frame, CrewDesk desk, SupplyDesk supply, ChangeStore changes, Visitor visitor) : PageModel
{
    // What is on order for the day's turn and has not come, by kind.
    private ILookup<string, (int Count, string Order, LocalDate? Promised)> _toCome = Array
        .Empty<(string, (int, string, LocalDate?))>()
        .ToLookup(x => x.Item1, x => x.Item2);

    [BindProperty(SupportsGet = true, Name = "day")]
    public string? DayText { get; set; }

    [BindProperty(SupportsGet = true, Name = "area")]
    public string? AreaId { get; set; }

    /// <summary>Tasks that are ticked, by their ids: those nobody has yet.</summary>
    [BindProperty(Name = "tasks[]")]
    public List<string> Tasks { get; set; } = [];

    /// <summary>Tasks that are ticked of those given, each with the version at which it was read: "id|version".</summary>
    [BindProperty(Name = "given[]")]
    public List<string> Given { get; set; } = [];

    /// <summary>People who are ticked.</summary>
    [BindProperty(Name = "to[]")]
    public List<Guid> To { get; set; } = [];

    [BindProperty]
    public string? On { get; set; }

    [BindProperty]
    public string? Kind { get; set; }

    [BindProperty]
    public string? Planter { get; set; }

    [BindProperty]
    public string? Minutes { get; set; }

    [BindProperty]
    public string? Note { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public LocalDate Day { get; private set; }

    public IReadOnlyList<SiteMember> Members { get; private set; } = [];

    /// <summary>All that stands for the day.</summary>
    public IReadOnlyList<DayTask> All { get; private set; } = [];

    /// <summary>What somebody has to look at.</summary>
    public IReadOnlyList<DayTask> ToSee => [.. All.Where(t => t.IsToSee)];

    /// <summary>What was given for the day, or is still open from before.</summary>
    public IReadOnlyList<DayTask> InHand => [.. All.Where(t => t.Kept is not null && (t.Kept.Given.Day == Day || t.Item.IsOpen))];

    /// <summary>What nobody has yet, in the area that is looked at.</summary>
    public LongList<DayTask> Open { get; private set; } = null!;

    public LabourTable Labour => Now.Plan.Records.Labour;

    /// <summary>True for those who give work; others see it.</summary>
    public bool MayGive => visitor.May(SiteRole.Lead);

    public string Here => $"/work?day={Words.Iso(Day)}";

    /// <summary>What a person is called.</summary>
    public string NameOf(Guid person) => Members.FirstOrDefault(m => m.Id == person)?.Name ?? "somebody who left";

    /// <summary>Minutes of people that all that was given for the day takes.</summary>
    public int MinutesInHand => InHand.Where(t => t.Item.IsOpen).Sum(t => t.Task.MinutesBy(Labour));

    /// <summary>Plants that a task sets out and that have not come yet, in words; null where all are here.</summary>
    public string? Awaits(CrewTask task)
    {
        List<string> said =
        [
            .. task
                .Lines.Where(l => l.Kind == LineKind.In && l.PlantId is not null)
                .DistinctBy(l => l.PlantId)
                .SelectMany(l => _toCome[l.PlantId!].Select(o => (l.Name, Of: o)))
                .Select(x =>
                    $"{x.Of.Count} {x.Name} ({x.Of.Order}{(x.Of.Promised is { } day ? $", promised for {Words.Short(day)}" : string.Empty)})"
                ),
        ];
        return said.Count == 0 ? null : $"to come: {string.Join("; ", said)}";
    }

    /// <summary>What a task is, in a few words: what comes out, what goes in.</summary>
    public string What(CrewTask task)
    {
        IEnumerable<string> said = new[] { LineKind.Out, LineKind.In }
            .Select(k => (Kind: k, Lines: task.Lines.Where(l => l.Kind == k).ToList()))
            .Where(g => g.Lines.Count > 0)
            .Select(g => $"{g.Lines.Sum(l => l.Count)} {(g.Kind == LineKind.Out ? "out" : "in")}");
        double litres = task.Lines.Where(l => l.Kind == LineKind.Medium).Sum(l => l.Litres ?? 0);
        string rest = task.Kind == TaskKind.Changeover ? string.Empty : frame.Facts.Say(task.Kind);
        return string.Join(
            ", ",
            said.Prepend(rest)
                .Append(litres > 0 ? $"{frame.Units.Volume(litres)} of medium" : string.Empty)
                .Append(task.Note)
                .Where(t => t.Length > 0)
        );
    }

    public async Task OnGetAsync() => await Load();

    /// <summary>Gives what is ticked to those who are ticked.</summary>
    [Needs(SiteRole.Lead)]
    public Task<IActionResult> OnPostGiveAsync() =>
        Act(async () =>
        {
            List<DayTask> chosen = [.. All.Where(t => t.Kept is null && Tasks.Contains(t.Task.Id, StringComparer.Ordinal))];
            List<KeptTask> again = Chosen();
            if (chosen.Count + again.Count == 0)
                throw new InvalidInputException(string.Empty, "Tick what is to be given");
            if (To.Count == 0)
                throw new InvalidInputException(string.Empty, "Tick to whom");
            LocalDate on = ReadOn(Day);
            if (chosen.Count > 0)
                await desk.Store.Give([.. chosen.Select(t => t.Task)], on, To, visitor.Person?.Id);
            if (again.Count > 0)
                await desk.Store.Move(Versions(again), on, To);
            return $"{Words.Count(chosen.Count + again.Count, "task", "tasks")} given to {string.Join(" and ", To.Select(NameOf))} for {Words.Day(on)}.";
        });

    /// <summary>Moves what is ticked of the given work to another day.</summary>
    [Needs(SiteRole.Lead)]
    public Task<IActionResult> OnPostMoveAsync() =>
        Act(async () =>
        {
            List<KeptTask> chosen = Chosen();
            if (chosen.Count == 0)
                throw new InvalidInputException(string.Empty, "Tick what is to be moved");
            LocalDate on = ReadOn(Day.PlusDays(1));
            await desk.Store.Move(Versions(chosen), on, To.Count == 0 ? null : To);
            return $"{Words.Count(chosen.Count, "task", "tasks")} moved to {Words.Day(on)}.";
        });

    /// <summary>A rain day: all that is open goes to the next day.</summary>
    [Needs(SiteRole.Lead)]
    public Task<IActionResult> OnPostRainAsync() =>
        Act(async () =>
        {
            List<KeptTask> open = [.. InHand.Where(t => t.Item.IsOpen).Select(t => t.Kept!)];
            if (open.Count == 0)
                throw new InvalidInputException(string.Empty, "Nothing is open on this day");
            LocalDate on = ReadOn(Day.PlusDays(1));
            await desk.Store.Move(Versions(open), on, null);
            return $"All that was open, {Words.Count(open.Count, "task", "tasks")}, moved to {Words.Day(on)}.";
        });

    /// <summary>Takes what is ticked of the given work back.</summary>
    [Needs(SiteRole.Lead)]
    public Task<IActionResult> OnPostWithdrawAsync() =>
        Act(async () =>
        {
            List<KeptTask> chosen = Chosen();
            if (chosen.Count == 0)
                throw new InvalidInputException(string.Empty, "Tick what is to be taken back");
            await desk.Store.Withdraw(Versions(chosen));
            return $"{Words.Count(chosen.Count, "task", "tasks")} taken back.";
        });

    /// <summary>Has a task ask what the plan wants now, or takes it back where the plan wants it no more.</summary>
    [Needs(SiteRole.Lead)]
    public Task<IActionResult> OnPostAcceptAsync() =>
        Act(async () =>
        {
            foreach (KeptTask kept in Chosen())
            {
                if (CrewDesk.Now(Now.Plan, kept.Given.Asked) is { } now)
                    await desk.Store.Accept(kept.Given, kept.Version, now);
                else
                    await desk.Store.Withdraw([(kept.Given.Id, kept.Version)]);
            }
            return "The sheets ask what the plan wants now.";
        });

    /// <summary>What was done otherwise stays so.</summary>
    [Needs(SiteRole.Lead)]
    public Task<IActionResult> OnPostSettleAsync() =>
        Act(async () =>
        {
            foreach (KeptTask kept in Chosen())
                await desk.Store.Settle(kept.Given.Id);
            return "It stays as it was done.";
        });

    /// <summary>What fell short is wanted after all: the plan takes the whole count again, and the rest becomes a task.</summary>
    [Needs(SiteRole.Planner)]
    public Task<IActionResult> OnPostRestAsync() =>
        Act(async () =>
        {
            int rest = 0;
            foreach (KeptTask kept in Chosen())
            {
                (IReadOnlyList<Display> before, IReadOnlyList<Display> after, int plants) = PlantedWork.Rest(Now.Plan, kept.Account);
                if (plants > 0)
                    await changes.Make(PlanChange.Of(before, after), $"{kept.Given.Asked.Place}: {plants} more wanted after all");
                await desk.Store.Settle(kept.Given.Id);
                rest += plants;
                frame.Forget();
                Now = await frame.Now();
            }
            if (rest == 0)
                throw new InvalidInputException(string.Empty, "The displays that these plants belong to are gone: plan them anew");
            return $"{Words.Count(rest, "plant is", "plants are")} wanted again: order them if need be, and give the task when they are here.";
        });

    /// <summary>Writes other work down, and gives it to those who are ticked.</summary>
    [Needs(SiteRole.Lead)]
    public Task<IActionResult> OnPostWriteAsync() =>
        Act(async () =>
        {
            Planter? at = Now.Plan.FindPlanter(Planter);
            if (at is null && !string.IsNullOrEmpty(Planter))
                throw new InvalidInputException("planter", "is not in the plan any more");
            if (!Enum.TryParse(Kind, out TaskKind kind) || !Enum.IsDefined(kind) || kind is TaskKind.Changeover or TaskKind.Receive)
                throw new InvalidInputException("kind", "choose what kind of work it is");
            int? minutes = null;
            if (!string.IsNullOrWhiteSpace(Minutes))
                minutes = int.TryParse(Minutes.Trim(), NumberStyles.None, CultureInfo.InvariantCulture, out int typed)
                    ? typed
                    : throw new InvalidInputException("minutes", "must be a whole number");
            LocalDate on = ReadOn(Day);
            var task = new CrewTask($"hand:{Guid.CreateVersion7()}", kind, new TaskWindow(on, on, on), [], [new TaskLine(1, LineKind.Whole, 1)])
            {
                PlanterId = at?.Id,
                AreaId = at?.AreaId,
                Place = at?.Name ?? string.Empty,
                Note = Note?.Trim() ?? string.Empty,
                GivenMinutes = minutes ?? 0,
            };
            await desk.Store.Give([task], on, To, visitor.Person?.Id);
            return To.Count == 0 ? "Written down; nobody has it yet." : $"Given to {string.Join(" and ", To.Select(NameOf))}.";
        });

    private static IReadOnlyList<(Guid, long)> Versions(IEnumerable<KeptTask> tasks) => [.. tasks.Select(t => (t.Given.Id, t.Version))];

    // As they were read when the page was made: what was changed since is refused when it is written.
    private List<KeptTask> Chosen()
    {
        Dictionary<Guid, long> read = [];
        foreach (string ticked in Given)
        {
            string[] parts = ticked.Split('|');
            if (parts.Length == 2 && Guid.TryParse(parts[0], out Guid id) && long.TryParse(parts[1], CultureInfo.InvariantCulture, out long version))
                read[id] = version;
        }
        // What stands on another day by now was moved by somebody.
        if (read.Keys.Except(All.Select(t => t.Kept).OfType<KeptTask>().Select(k => k.Given.Id)).Any())
            throw new LostUpdateException(read.Count == 1 ? "This task" : "One of these tasks");
        return
        [
            .. All.Select(t => t.Kept).OfType<KeptTask>().Where(k => read.ContainsKey(k.Given.Id)).Select(k => k with { Version = read[k.Given.Id] }),
        ];
    }

    private LocalDate ReadOn(LocalDate otherwise) =>
        string.IsNullOrWhiteSpace(On) ? otherwise : Words.ReadDay(On) ?? throw new InvalidInputException("on", "must be a date");

    private async Task<IActionResult> Act(Func<Task<string>> act)
    {
        await Load();
        return await frame.Saving(
            this,
            f =>
                f switch
                {
                    "on" => "On",
                    "kind" => "Kind",
                    "planter" => "Planter",
                    "minutes" => "Minutes",
                    "note" => "Note",
                    _ => null,
                },
            async () =>
            {
                TempData["Said"] = await act();
                return Redirect(Here);
            },
            Load
        );
    }

    private async Task Load()
    {
        Now = await frame.Now();
        Day = Words.ReadDay(DayText) ?? frame.Today;
        Members = await desk.Members();
        All = await desk.Of(Day);
        Open = LongList.Of(
            Request.Query,
            "work",
            [
                .. All.Where(t => t.Kept is null && (string.IsNullOrEmpty(AreaId) || t.Task.AreaId == AreaId))
                    .OrderBy(t => t.Task.Window.Best > Day)
                    .ThenBy(t => t.Task.Window.Best),
            ],
            t => $"{t.Task.Place} {frame.Facts.Say(t.Task.Kind)} {What(t.Task)}",
            "as it comes due",
            [
                new("place", "by place", all => all.OrderBy(t => t.Task.Place, StringComparer.OrdinalIgnoreCase)),
                new("kind", "by kind of work", all => all.OrderBy(t => t.Task.Kind)),
                new("last", "the first that must be done", all => all.OrderBy(t => t.Task.Window.NotAfter)),
                new("work", "most work first", all => all.OrderByDescending(t => t.Task.MinutesBy(Labour))),
            ]
        );
        if (Now.Plan.Turns.FirstOrDefault(t => t.Holds(Day)) is { } turn)
            _toCome = (await supply.Supply())
                .Accounts.Where(a => a.Order.IsOpen)
                .SelectMany(a =>
                    a.Lines.Where(l => l.Outstanding > 0 && l.Line.TurnId == turn.Id)
                        .Select(l => (l.Line.PlantId, (l.Outstanding, SupplyDesk.SourceOf(a.Order), a.Order.PromisedFor)))
                )
                .ToLookup(x => x.PlantId, x => x.Item2);
    }
}

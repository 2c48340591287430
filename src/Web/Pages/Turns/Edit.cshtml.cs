using System.Globalization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.Turning;
using UnrulyMeadow.Core.Work;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Drawing;
using UnrulyMeadow.Web.Jobs;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Turns;

/// <summary>"What changes, when, and is it time?": a turn's days, what it changes, and the window in which it may fall.</summary>
[Needs(SiteRole.Guest)]
public sealed class EditModel(PageFrame frame, DisplayStore displays, ChangeStore changes, JobDesk desk) : PageModel
{
    [FromRoute]
    public string Id { get; set; } = string.Empty;

    [BindProperty]
    public string? Name { get; set; }

    [BindProperty]
    public string? FirstDay { get; set; }

    [BindProperty]
    public string? LastDay { get; set; }

    [BindProperty]
    public string? FullBy { get; set; }

    [BindProperty]
    public string? Delivery { get; set; }

    [BindProperty]
    public string? People { get; set; }

    [BindProperty]
    public long? Version { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public Turn? Turn { get; private set; }

    public IReadOnlyList<TurnChange> Changes { get; private set; } = [];

    /// <summary>The work that was asked for; null to look for it by its question.</summary>
    [BindProperty(SupportsGet = true, Name = "job")]
    public Guid? JobId { get; set; }

    /// <summary>True when the result shown was computed of the plan and weather as they are.</summary>
    public bool IsOfNow { get; private set; } = true;

    public Job? Job { get; private set; }

    public TurnResult? Window { get; private set; }

    public bool IsNew => Id == "new";

    /// <summary>True when the turn is over: its days are moved no more.</summary>
    public bool IsPast => Turn is { } turn && turn.LastDay < frame.Today;

    public TurnSchool School => Now.Plan.Site.Rules.Turn;

    public async Task<IActionResult> OnGetAsync()
    {
        Now = await frame.Now();
        if (IsNew)
            return Page();
        if (Now.Plan.Turns.FirstOrDefault(t => t.Id == Id) is not { } turn)
            return NotFound();
        (Name, FirstDay, LastDay) = (turn.Name, Words.Iso(turn.FirstDay), Words.Iso(turn.LastDay));
        FullBy = turn.FullBy is { } full ? Words.Iso(full) : null;
        Delivery = turn.Delivery is { } delivery ? Words.Iso(delivery) : null;
        People = turn.People?.ToString(CultureInfo.InvariantCulture);
        Version = Now.Versions.Turn(Id);
        await Weigh(turn);
        return Page();
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAsync()
    {
        Now = await frame.Now();
        return await frame.Saving(
            this,
            Field,
            async () =>
            {
                Turn turn = Read();
                await displays.SaveTurn(turn, IsNew ? null : Version ?? 0);
                TempData["Said"] = $"{turn.Name} saved.";
                return Redirect(IsNew ? $"/turns/{turn.Id}" : "/turns");
            },
            Load,
            Compare
        );
    }

    /// <summary>Has the days weighed on which the turn may begin.</summary>
    [Needs(SiteRole.Crew)]
    public async Task<IActionResult> OnPostAskAsync()
    {
        Now = await frame.Now();
        if (Now.Plan.Turns.FirstOrDefault(t => t.Id == Id) is not { } turn)
            return NotFound();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                Job asked = await desk.Ask(JobKinds.TurnWindow, new TurnAsk(turn.Id), Now, PageFrame.Asker(HttpContext));
                return Redirect($"/turns/{turn.Id}?job={asked.Id}");
            },
            Load
        );
    }

    /// <summary>Moves the turn, and every display that goes in or comes out with it, by whole days.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostMoveAsync(string? to, long? version)
    {
        Now = await frame.Now();
        if (Now.Plan.Turns.FirstOrDefault(t => t.Id == Id) is not { } turn)
            return NotFound();
        Turn = turn;
        return await frame.Saving(
            this,
            Field,
            async () =>
            {
                if (Words.ReadDay(to) is not { } day)
                    throw new InvalidInputException("firstDay", "must be a date");
                if (IsPast)
                    throw new InvalidInputException(string.Empty, $"{turn.Name} is past; its days are a record");
                // The button was drawn for the turn as it stood then.
                if (version is { } read && read != Now.Versions.Turn(Id))
                    throw new LostUpdateException($"The turn {turn.Name}");
                int by = Period.DaysBetween(turn.FirstDay, day);
                List<Display> before = [.. TurnChange.Of(Now.Plan, turn).SelectMany(c => c.Out.Concat(c.In)).DistinctBy(d => d.Id)];
                // What stayed on since a display of this turn moves with it.
                before =
                [
                    .. before
                        .Concat(
                            before.SelectMany(d => Now.Plan.DisplaysOf(d.PlanterId)).Where(d => d.Items.Any(i => i.Since is { } s && turn.Holds(s)))
                        )
                        .DistinctBy(d => d.Id),
                ];
                List<Display> after = [.. before.Select(d => TurnChange.Moved(turn, d, by))];
                Turn moved = turn with { FirstDay = turn.FirstDay.PlusDays(by), LastDay = turn.LastDay.PlusDays(by) };
                await changes.Make(
                    PlanChange.Of(before, after) with
                    {
                        TurnsBefore = [turn],
                        TurnsAfter = [moved],
                    },
                    $"{turn.Name} moved to {Words.DayYear(day)}"
                );
                TempData["Said"] = $"{turn.Name} now begins on {Words.DayYear(day)}; {before.Count} displays moved with it.";
                return Redirect($"/turns/{turn.Id}");
            },
            Load
        );
    }

    /// <summary>Says for one kind what becomes of it in every planter of the turn.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostFateAsync(string? plant, string? fate)
    {
        Now = await frame.Now();
        if (Now.Plan.Turns.FirstOrDefault(t => t.Id == Id) is not { } turn)
            return NotFound();
        return await frame.Saving(
            this,
            Field,
            async () =>
            {
                PlantFate? chosen = Enum.TryParse(fate, out PlantFate f) && Enum.IsDefined(f) ? f : null;
                List<Display> before = [.. TurnChange.Of(Now.Plan, turn).SelectMany(c => c.Out).Where(d => d.Items.Any(i => i.PlantId == plant))];
                List<Display> after =
                [
                    .. before.Select(d => d with { Items = [.. d.Items.Select(i => i.PlantId == plant ? i with { Fate = chosen } : i)] }),
                ];
                // What stays stands in the next display, what does not goes in anew there.
                foreach (Display ends in after.ToList())
                {
                    foreach (Display next in Now.Plan.DisplaysOf(ends.PlanterId).Where(d => d.Layer == ends.Layer && d.Install == ends.Lift))
                    {
                        int at = before.FindIndex(d => d.Id == next.Id);
                        Display carried = TurnChange.WithStays(ends, at < 0 ? next : after[at]);
                        if (at >= 0)
                            after[at] = carried;
                        else if (!carried.Items.SequenceEqual(next.Items))
                            (before, after) = ([.. before, next], [.. after, carried]);
                    }
                }
                int planters = after.Select(d => d.PlanterId).Distinct(StringComparer.Ordinal).Count();
                string name = Now.Plan.FindPlant(plant ?? string.Empty)?.CommonName ?? "These plants";
                await changes.Make(PlanChange.Of(before, after), $"{name}: {(chosen is { } c ? Words.Of(c) : "not said")} after {turn.Name}");
                TempData["Said"] =
                    $"{name}: {(chosen is { } said ? Words.Of(said) : "not said")}, in {planters} {(planters == 1 ? "planter" : "planters")}.";
                return Redirect($"/turns/{turn.Id}");
            },
            Load
        );
    }

    /// <summary>Minutes that the whole turn takes one person.</summary>
    public int Minutes => Changes.Sum(c => c.Changeovers.Sum(x => Core.Work.Labour.MinutesOf(x, Now.Plan.Records.Labour)));

    /// <summary>What comes out, by kind: how many, and what becomes of them.</summary>
    public IEnumerable<(Plant Plant, int Count, PlantFate? Fate, int Planters)> ComesOut() =>
        Changes
            .SelectMany(c => c.Out.SelectMany(d => d.Items.Select(i => (c.Planter, Item: i))))
            .GroupBy(x => x.Item.PlantId, StringComparer.Ordinal)
            .Select(g =>
                (
                    Now.Plan.Plant(g.Key),
                    g.Sum(x => x.Item.Count),
                    g.Select(x => x.Item.Fate).Distinct().Count() == 1 ? g.First().Item.Fate : null,
                    g.Select(x => x.Planter.Id).Distinct().Count()
                )
            )
            .OrderByDescending(x => x.Item2);

    /// <summary>Kinds with their counts, most first.</summary>
    public static string Kinds(IEnumerable<ChangeoverItem> items) =>
        string.Join(
            ", ",
            items
                .GroupBy(x => x.Plant)
                .Select(g => (g.Key.CommonName, Count: g.Sum(x => x.Count)))
                .OrderByDescending(x => x.Count)
                .Select(x => $"{x.Count} {x.CommonName}")
        );

    /// <summary>True while nobody has had the days of a turn weighed that could be.</summary>
    public bool CanAsk => !IsNew && Changes.Count > 0 && Now.Record is not null;

    private IReadOnlyList<FormDifference> Compare(SiteNow now)
    {
        Now = now;
        if (now.Plan.Turns.FirstOrDefault(t => t.Id == Id) is not { } theirs)
            return [];
        Version = now.Versions.Turn(Id);
        return FormDifference.Between(
            new
            {
                Name,
                FirstDay,
                LastDay,
                FullBy,
                Delivery,
                People,
            },
            new
            {
                theirs.Name,
                FirstDay = Words.Iso(theirs.FirstDay),
                LastDay = Words.Iso(theirs.LastDay),
                FullBy = theirs.FullBy is { } f ? Words.Iso(f) : null,
                Delivery = theirs.Delivery is { } d ? Words.Iso(d) : null,
                People = theirs.People?.ToString(CultureInfo.InvariantCulture),
            }
        );
    }

    private static string? Field(string fault) =>
        fault switch
        {
            "name" => "Name",
            "firstDay" => "FirstDay",
            "lastDay" => "LastDay",
            "fullBy" => "FullBy",
            "delivery" => "Delivery",
            "people" => "People",
            _ => null,
        };

    private async Task Load()
    {
        if (Now.Plan.Turns.FirstOrDefault(t => t.Id == Id) is { } turn)
            await Weigh(turn);
    }

    private async Task Weigh(Turn turn)
    {
        Turn = turn;
        Changes = TurnChange.Of(Now.Plan, turn);
        if (Changes.Count == 0 || Now.Record is null)
            return;
        (Job, Window, IsOfNow) = await desk.Look<TurnAsk, TurnResult>(JobKinds.TurnWindow, new TurnAsk(turn.Id), Now, JobId);
    }

    private Turn Read()
    {
        var faults = new FaultList();
        LocalDate Day(string? text, string field, LocalDate instead)
        {
            if (Words.ReadDay(text) is { } day)
                return day;
            faults.Add(field, "must be a date");
            return instead;
        }
        LocalDate first = Day(FirstDay, "firstDay", frame.Today);
        LocalDate last = Day(LastDay, "lastDay", first);
        LocalDate? full = string.IsNullOrWhiteSpace(FullBy) ? null : Day(FullBy, "fullBy", first);
        LocalDate? delivery = string.IsNullOrWhiteSpace(Delivery) ? null : Day(Delivery, "delivery", first);
        int? people = null;
        if (!string.IsNullOrWhiteSpace(People))
        {
            if (int.TryParse(People, NumberStyles.None, CultureInfo.InvariantCulture, out int count))
                people = count;
            else
                faults.Add("people", "must be a whole number, or empty for the usual crew");
        }
        string name = (Name ?? string.Empty).Trim();
        string id = IsNew ? Ids.From($"{name} {first.Year}", x => x == "new" || Now.Plan.Turns.Any(t => t.Id == x)) : Id;
        var turn = new Turn(id, name, first, last)
        {
            FullBy = full,
            Delivery = delivery,
            People = people,
        };
        faults.AddAll(string.Empty, turn.Faults());
        faults.ThrowIfAny();
        return turn;
    }
}

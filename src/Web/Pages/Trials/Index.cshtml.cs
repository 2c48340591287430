using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Trials;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Jobs;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Trials;

/// <summary>Trials of kinds: those that there are, and a new one.</summary>
[Needs(SiteRole.Guest)]
public sealed class IndexModel(PageFrame frame, TrialStore trials, LogStore log, Visitor visitor) : PageModel
{
    // Weeks that a season's trial runs, unless said otherwise.
    private const int UsualDays = 150;

    [BindProperty]
    public string? Name { get; set; }

    /// <summary>Kinds by name, one a line.</summary>
    [BindProperty]
    public string? Kinds { get; set; }

    /// <summary>Planters by name, one a line.</summary>
    [BindProperty]
    public string? Planters { get; set; }

    /// <summary>Ids of planters parted by blanks, as chosen on the rules.</summary>
    [BindProperty(SupportsGet = true)]
    public string? PlanterList { get; set; }

    [BindProperty]
    public string? First { get; set; }

    [BindProperty]
    public string? Last { get; set; }

    public SiteNow Now { get; private set; } = null!;

    /// <summary>All trials with what they say so far.</summary>
    public IReadOnlyList<(Trial Trial, int Scored, TrialResult? Result)> All { get; private set; } = [];

    public bool MayPlan => visitor.Role >= SiteRole.Planner;

    public async Task OnGetAsync()
    {
        await Load();
        Planters = string.Join(
            '\n',
            (PlanterList ?? string.Empty)
                .Split(' ', StringSplitOptions.RemoveEmptyEntries)
                .Select(Now.Plan.FindPlanter)
                .OfType<Core.Planters.Planter>()
                .Select(p => p.Name)
        );
        First = Words.Iso(frame.Today);
        Last = Words.Iso(frame.Today.PlusDays(UsualDays));
    }

    /// <summary>Lays a trial out and keeps it.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostLayAsync()
    {
        await Load();
        return await frame.Saving(
            this,
            f =>
                f.Split('[', '.')[0] switch
                {
                    "name" => nameof(Name),
                    "kinds" => nameof(Kinds),
                    "planters" or "blocks" => nameof(Planters),
                    "first" => nameof(First),
                    "last" => nameof(Last),
                    _ => null,
                },
            async () =>
            {
                var faults = new FaultList();
                LocalDate? first = Words.ReadDay(First);
                LocalDate? last = Words.ReadDay(Last);
                if (first is null)
                    faults.Add("first", "must be a date");
                if (last is null)
                    faults.Add("last", "must be a date");
                IReadOnlyList<string> kinds = Named(
                    faults,
                    "kinds",
                    Kinds,
                    Now.Plan.Palette.Where(p => !p.IsRetired).Select(p => (p.Id, p.CommonName))
                );
                IReadOnlyList<string> planters = Named(
                    faults,
                    "planters",
                    Planters,
                    Now.Plan.Planters.Where(p => !p.IsRetired).Select(p => (p.Id, p.Name))
                );
                faults.ThrowIfAny();
                var trial = Trial.LayOut(Now.Plan, Name ?? string.Empty, first!.Value, last!.Value, kinds, planters, Random.Shared.Next());
                await trials.Add(trial);
                return Redirect($"/trials/{trial.Id}");
            }
        );
    }

    // Things that are named one a line; each line that names none, or more than one, is a fault.
    private static List<string> Named(FaultList faults, string field, string? typed, IEnumerable<(string Id, string Name)> there)
    {
        ILookup<string, string> byName = there.ToLookup(t => t.Name.Trim(), t => t.Id, StringComparer.OrdinalIgnoreCase);
        var found = new List<string>();
        int number = 0;
        foreach (string line in (typed ?? string.Empty).Split('\n').Select(l => l.Trim()))
        {
            number++;
            if (line.Length == 0)
                continue;
            List<string> named = [.. byName[line].Take(2)];
            if (named.Count == 1)
            {
                found.Add(named[0]);
                continue;
            }
            var search = new WordSearch(line);
            string? near = byName.Select(n => n.Key).FirstOrDefault(n => search.Match(n) is not null);
            faults.Add(
                field,
                named.Count > 1 ? $"line {number}: more than one is called so"
                    : near is null ? $"line {number}: nothing is called so"
                    : $"line {number}: nothing is called so; there is {near}"
            );
        }
        return found;
    }

    private async Task Load()
    {
        Now = await frame.Now();
        IReadOnlyList<Trial> kept = await trials.All();
        LocalDate today = frame.Today;
        All =
            kept.Count == 0
                ? []
                : await frame.Soon(frame.State.Derived(Now, ("trials", await log.Mark(), today, string.Join(' ', kept.Select(t => t.Id))), n =>
                    {
                        IReadOnlyList<Core.Review.Observation> seen = ReckoningThreads.Read(() => log.Between(kept.Min(t => t.First), today));
                        return kept.Select(t => (Trial: t, Scores: t.Scores(n.Plan, seen)))
                            .Select(t => (t.Trial, t.Scores.Count, Trial.Judge(t.Scores.Select(s => s.Score))))
                            .ToList();
                    }));
    }
}

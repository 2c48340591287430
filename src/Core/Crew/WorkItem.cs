using NodaTime;

namespace UnrulyMeadow.Core.Crew;

/// <summary>A task of a day: as the plan wants it, or as it was given.</summary>
/// <param name="Task">What is asked.</param>
/// <param name="Account">How far it is; null where nobody was given it yet.</param>
/// <param name="Difference">What the plan wants otherwise than was given; null where nothing differs.</param>
public sealed record WorkItem(CrewTask Task, TaskAccount? Account, TaskDifference? Difference)
{
    /// <summary>What the plan wants in the place of what was given; null where it wants what was given, or nothing.</summary>
    public CrewTask? Wanted { get; init; }

    /// <summary>The day for which it stands: for which it was given, or which is best for it.</summary>
    public LocalDate Day => Account?.Given.Day ?? Task.Window.Best;

    /// <summary>True while somebody has it, or nobody.</summary>
    public bool IsOpen => Account is null || Account.Given.Stage == GivenStage.Given;

    /// <summary>
    /// Lays what was given over what follows from the plan: a task is there once, whoever works it out; what was done or is in hand is not
    /// asked anew.
    /// </summary>
    /// <param name="wanted">Tasks that follow from the plan and from orders.</param>
    /// <param name="accounts">Tasks that were given, with what was told of them.</param>
    public static IReadOnlyList<WorkItem> Of(IReadOnlyList<CrewTask> wanted, IReadOnlyList<TaskAccount> accounts)
    {
        Dictionary<string, CrewTask> byId = wanted.DistinctBy(t => t.Id).ToDictionary(t => t.Id, StringComparer.Ordinal);
        List<TaskAccount> standing = [.. accounts.Where(a => a.Given.Stage != GivenStage.Withdrawn)];
        HashSet<string> open = [.. standing.Where(a => a.Given.Stage == GivenStage.Given).Select(a => a.Given.Asked.Id)];
        // Care that was told of is not asked again under the same name; what it left comes with the next day or week.
        open.UnionWith(standing.Where(a => a.Given.Asked.Lines.Any(l => l.Care is not null)).Select(a => a.Given.Asked.Id));
        // Where nothing goes in, no planting tells that it is done.
        HashSet<(string?, LocalDate)> cleared =
        [
            .. standing
                .Where(a => a.Given.Stage == GivenStage.Done && a.Given.Asked.Kind == TaskKind.Changeover)
                .SelectMany(a => new[] { a.Given.Asked.Window.Best, a.Day ?? a.Given.Day }.Select(d => (a.Given.Asked.PlanterId, d))),
        ];
        return
        [
            .. standing.Select(a =>
            {
                CrewTask? now = byId.GetValueOrDefault(a.Given.Asked.Id);
                bool follows = a.Given.Stage == GivenStage.Given && a.Given.Asked.Kind == TaskKind.Changeover;
                TaskDifference? differs = follows ? a.Given.Difference(now) : null;
                return new WorkItem(a.Given.Asked, a, differs) { Wanted = differs is null ? null : now };
            }),
            .. byId
                .Values.Where(t => !open.Contains(t.Id))
                .Where(t => t.Lines.Any(l => l.Kind == LineKind.In) || !cleared.Contains((t.PlanterId, t.Window.Best)))
                .Select(t => new WorkItem(t, null, null)),
        ];
    }
}

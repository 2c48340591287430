using NodaTime;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Core.Crew;

/// <summary>A task that was given, as it stands in a file.</summary>
/// <param name="It">The task; to whom it was given is left out, for people belong to their installation.</param>
/// <param name="IsSettled">True once a planner has said that what was done otherwise stays so.</param>
/// <param name="Refused">Why the plan could not follow; null where it could.</param>
public sealed record FiledTask(GivenTask It, bool IsSettled, string? Refused = null);

/// <summary>What went in with a task.</summary>
/// <param name="GivenId">The task.</param>
/// <param name="It">What went in.</param>
public sealed record FiledPlanting(Guid GivenId, Planting It);

/// <summary>Minutes that a kind of work took with a task.</summary>
/// <param name="GivenId">The task.</param>
/// <param name="Kind">The kind of work.</param>
/// <param name="Ratio">Minutes taken by minutes of common practice.</param>
public sealed record FiledTime(Guid GivenId, WorkKind Kind, double Ratio);

/// <summary>All work of a site that was given and told, but photographs, as it stands in a file.</summary>
/// <param name="Given">Tasks that were given.</param>
/// <param name="Entries">What was told of them.</param>
/// <param name="Plantings">What went in.</param>
/// <param name="Times">What it took.</param>
/// <param name="Roster">Who and what there is to do the work with; null where nobody has said.</param>
public sealed record CrewDocument(
    IReadOnlyList<FiledTask> Given,
    IReadOnlyList<KeptEntry> Entries,
    IReadOnlyList<FiledPlanting> Plantings,
    IReadOnlyList<FiledTime> Times,
    FiledRoster? Roster = null
)
{
    /// <summary>Every fault of it.</summary>
    public FaultList Faults()
    {
        var faults = new FaultList();
        if (Roster is not null)
            faults.AddAll("roster", Roster.Faults());
        HashSet<Guid> known = [.. Given.Select(g => g.It.Id)];
        for (int i = 0; i < Given.Count; i++)
        {
            faults.AddAll($"given[{i}]", Given[i].It.Asked.Faults());
            faults.Text($"given[{i}].asked.id", Given[i].It.Asked.Id, 200);
            if (Given[i].It.Asked.Lines.Count == 0)
                faults.Add($"given[{i}].asked.lines", "must not be empty");
        }
        for (int i = 0; i < Plantings.Count; i++)
            faults.Range($"plantings[{i}].count", Plantings[i].It.Count, -DisplayItem.MostCount * 4, DisplayItem.MostCount * 4, "plants");
        for (int i = 0; i < Times.Count; i++)
            faults.Range($"times[{i}].ratio", Times[i].Ratio, 0.001, 1000, string.Empty);
        Named("entries", Entries.Select(e => e.It.GivenId));
        Named("plantings", Plantings.Select(p => p.GivenId));
        Named("times", Times.Select(t => t.GivenId));
        return faults;

        void Named(string list, IEnumerable<Guid> names)
        {
            int i = 0;
            foreach (Guid name in names)
            {
                if (!known.Contains(name))
                    faults.Add($"{list}[{i}].givenId", "is no task of this file");
                i++;
            }
        }
    }
}

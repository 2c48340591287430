using NodaTime;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Core.Crew;

/// <summary>Why fewer went in than were asked.</summary>
public enum ShortReason
{
    /// <summary>There were not so many.</summary>
    Missing,

    /// <summary>The rest were too poor to plant.</summary>
    Poor,

    /// <summary>There was no room for more; the rest is left over.</summary>
    NoRoom,

    /// <summary>Another reason, as the note says.</summary>
    Other,
}

/// <summary>Why a task was not done.</summary>
public enum NotDoneReason
{
    /// <summary>Rain, or ground too wet.</summary>
    Rain,

    /// <summary>The ground was frozen.</summary>
    Frozen,

    /// <summary>There was no time.</summary>
    NoTime,

    /// <summary>Plants or material were not there.</summary>
    NoGoods,

    /// <summary>Nobody could get there.</summary>
    NoAccess,

    /// <summary>What stands is too good to go.</summary>
    TooGood,

    /// <summary>Another reason, as the note says.</summary>
    Other,
}

/// <summary>What somebody says of one line: how it stands now, not what was added.</summary>
/// <param name="Line">The line's number on the sheet that was looked at.</param>
/// <param name="Done">Plants done in all; of what is not counted, 1 for done.</param>
/// <param name="Short">Why no more will be done of it; null where all is done, or more follows.</param>
/// <param name="CameAs">The kind that went in instead; null for the one asked.</param>
public sealed record EntryLine(int Line, int Done, ShortReason? Short = null, string? CameAs = null);

/// <summary>
/// What somebody has told of a task: a record. Made on a phone, perhaps long before it is sent; sent twice it counts once.
/// </summary>
/// <param name="Id">Its identity, made where it was written: of one person, later ones are greater.</param>
/// <param name="GivenId">The task, as it was given.</param>
/// <param name="Day">The day on which it was done.</param>
/// <param name="Mark">The mark of the sheet that was looked at.</param>
/// <param name="Lines">How its lines stand; those that nothing is said of stand as before.</param>
public sealed record TaskEntry(Guid Id, Guid GivenId, LocalDate Day, string Mark, IReadOnlyList<EntryLine> Lines)
{
    /// <summary>Most minutes of one entry.</summary>
    public const int MostMinutes = 1440;

    /// <summary>Why the task is not done today; null where it is done, or goes on.</summary>
    public NotDoneReason? NotDone { get; init; }

    /// <summary>Minutes of people that it took until now; null where nobody has said.</summary>
    public int? Minutes { get; init; }

    /// <summary>Anything else.</summary>
    public string Note { get; init; } = string.Empty;

    /// <summary>Why it cannot be kept; null where it can.</summary>
    /// <param name="given">The task that it is about.</param>
    /// <param name="plan">The plan, whose palette names the kinds.</param>
    public TaskRefusal? Refusal(GivenTask given, Plan plan)
    {
        if (Faulty(f => f.Day("day", Day)))
            return TaskRefusal.NoSuchDay;
        if (Faulty(f => f.Note("note", Note, CrewTask.LongestNote)))
            return TaskRefusal.Note;
        if (Minutes is < 0 or > MostMinutes)
            return TaskRefusal.Minutes;
        if (given.SheetOf(Mark) is not { } sheet)
            return TaskRefusal.OtherSheet;
        foreach (EntryLine line in Lines)
        {
            if (sheet.Lines.FirstOrDefault(l => l.Number == line.Line) is not { } of)
                return TaskRefusal.NotOnSheet;
            if (line.Done < 0 || line.Done > Math.Max(of.Count * 4, 20))
                return TaskRefusal.NotThatMany;
            if (line.CameAs is { } kind && plan.FindPlant(kind) is null)
                return TaskRefusal.UnknownKind;
        }
        return null;

        static bool Faulty(Action<FaultList> check)
        {
            var faults = new FaultList();
            check(faults);
            return !faults.IsEmpty;
        }
    }
}

/// <summary>An entry as it is kept.</summary>
/// <param name="It">The entry.</param>
/// <param name="By">What the person was called.</param>
/// <param name="RecordedAt">When it arrived.</param>
/// <param name="PersonId">The person; null where nobody knows.</param>
public sealed record KeptEntry(TaskEntry It, string By, Instant RecordedAt, Guid? PersonId = null);

/// <summary>How far a commitment to a task is.</summary>
public enum GivenStage
{
    /// <summary>Given, and not done yet.</summary>
    Given,

    /// <summary>Done.</summary>
    Done,

    /// <summary>Taken back.</summary>
    Withdrawn,
}

/// <summary>A task that was given to somebody for a day: a commitment. What it asks stays as it was given, until somebody accepts a change.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="Asked">What is asked.</param>
/// <param name="Day">For which day.</param>
/// <param name="To">To whom.</param>
/// <param name="Stage">How far it is.</param>
public sealed record GivenTask(Guid Id, CrewTask Asked, LocalDate Day, IReadOnlyList<Guid> To, GivenStage Stage = GivenStage.Given)
{
    /// <summary>Its place among the stops of the day.</summary>
    public int Place { get; init; }

    /// <summary>What it asked before changes were accepted: a phone without signal may still show one of these.</summary>
    public IReadOnlyList<CrewTask> Earlier { get; init; } = [];

    /// <summary>The sheet of a mark; null where it never asked that.</summary>
    public CrewTask? SheetOf(string mark) => Asked.Mark == mark ? Asked : Earlier.LastOrDefault(e => e.Mark == mark);

    /// <summary>The same task, asking what the plan wants now.</summary>
    public GivenTask Asking(CrewTask now) => this with { Asked = now, Earlier = [.. Earlier, Asked] };

    /// <summary>What the plan wants otherwise than was given; null where nothing differs.</summary>
    /// <param name="now">What the plan wants; null where it wants the task no more.</param>
    public TaskDifference? Difference(CrewTask? now) => now?.Mark == Asked.Mark ? null : TaskDifference.Between(Asked, now);
}

/// <summary>What the plan wants otherwise than a task that was given.</summary>
/// <param name="IsGone">True where the plan wants none of it any more.</param>
/// <param name="Lines">Lines with the count that was given and the count that is wanted; 0 for none.</param>
public sealed record TaskDifference(bool IsGone, IReadOnlyList<(TaskLine Line, int Given, int Wanted)> Lines)
{
    /// <summary>Compares two sheets line by line.</summary>
    public static TaskDifference Between(CrewTask given, CrewTask? now)
    {
        var wanted = (now?.Lines ?? []).ToLookup(l => l.Key);
        var had = given.Lines.ToLookup(l => l.Key);
        return new TaskDifference(
            now is null,
            [
                .. had.Select(g => (Line: g.First(), Given: g.Sum(l => l.Count), Wanted: wanted[g.Key].Sum(l => l.Count)))
                    .Concat(wanted.Where(g => !had.Contains(g.Key)).Select(g => (Line: g.First(), Given: 0, Wanted: g.Sum(l => l.Count))))
                    .Where(d => d.Given != d.Wanted),
            ]
        );
    }
}

using NodaTime;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Core.Crew;

/// <summary>How far a task is, by what was told of it.</summary>
public enum TaskState
{
    /// <summary>Nothing was told yet.</summary>
    Given,

    /// <summary>Some of it is done.</summary>
    InPart,

    /// <summary>All of it is done, or is as done as it will be.</summary>
    Done,

    /// <summary>It was left, with a reason.</summary>
    NotDone,

    /// <summary>It was taken back.</summary>
    Withdrawn,
}

/// <summary>How one line stands.</summary>
/// <param name="Line">The line.</param>
/// <param name="Done">Plants done; of what is not counted, 1 for done.</param>
/// <param name="Short">Why no more will be done; null where all is done, or more follows.</param>
/// <param name="CameAs">The kind that went in instead; null for the one asked.</param>
/// <param name="By">Who told of it.</param>
/// <param name="Disagrees">True where two people tell of it differently.</param>
public sealed record LineState(TaskLine Line, int Done, ShortReason? Short, string? CameAs, IReadOnlyList<string> By, bool Disagrees)
{
    /// <summary>True when nothing more will be done of it.</summary>
    public bool IsSettled => Done >= Line.Count || Short is not null;

    /// <summary>Plants asked and not done.</summary>
    public int Missing => Math.Max(0, Line.Count - Done);
}

/// <summary>
/// What was told of a task, taken together. Of one person the last word holds; of several the one who has done most, and that they
/// disagree is said: two phones that tick the same line count its plants once.
/// </summary>
/// <param name="Given">The task.</param>
/// <param name="Lines">Its lines.</param>
/// <param name="Entries">All that was told, in order.</param>
public sealed record TaskAccount(GivenTask Given, IReadOnlyList<LineState> Lines, IReadOnlyList<KeptEntry> Entries)
{
    /// <summary>How far it is.</summary>
    public TaskState State =>
        Given.Stage == GivenStage.Withdrawn ? TaskState.Withdrawn
        : Given.Stage == GivenStage.Done || Lines.All(l => l.IsSettled) ? TaskState.Done
        : NotDone is not null ? TaskState.NotDone
        : Lines.Any(l => l.Done > 0) ? TaskState.InPart
        : TaskState.Given;

    /// <summary>Why it was left, by who told last; null where it goes on.</summary>
    public NotDoneReason? NotDone => Entries.Count == 0 ? null : Entries[^1].It.NotDone;

    /// <summary>The day on which the last of it was done, or told where nothing was; null where nothing is told.</summary>
    public LocalDate? Day =>
        Entries.Where(e => e.It.Lines.Any(l => l.Done > 0)).Select(e => (LocalDate?)e.It.Day).Max()
        ?? (Entries.Count == 0 ? null : Entries[^1].It.Day);

    /// <summary>Minutes of people: each one's last word, added up; null where nobody has said.</summary>
    public int? Minutes
    {
        get
        {
            List<int> each = [.. ByPerson(Entries).Select(p => p.LastOrDefault(e => e.It.Minutes is not null)?.It.Minutes).OfType<int>()];
            return each.Count == 0 ? null : each.Sum();
        }
    }

    /// <summary>True when another account of the same task tells the same of every line and of the day.</summary>
    public bool SaysTheSameAs(TaskAccount other) =>
        Day == other.Day && Lines.Select(l => (l.Done, l.Short, l.CameAs)).SequenceEqual(other.Lines.Select(l => (l.Done, l.Short, l.CameAs)));

    /// <summary>Takes together what was told.</summary>
    /// <param name="given">The task.</param>
    /// <param name="entries">Entries of any tasks, in any order.</param>
    public static TaskAccount Of(GivenTask given, IEnumerable<KeptEntry> entries)
    {
        List<KeptEntry> own = [.. entries.Where(e => e.It.GivenId == given.Id).DistinctBy(e => e.It.Id).OrderBy(e => e.It.Id)];
        List<List<KeptEntry>> people = ByPerson(own);
        // Lines are known by what they are about: an entry may be of an earlier sheet, whose lines had other numbers.
        return new TaskAccount(given, [.. given.Asked.Lines.Select(l => StateOf(l, people))], own);

        LineState StateOf(TaskLine line, List<List<KeptEntry>> said)
        {
            var words = new List<(string By, EntryLine Word)>();
            foreach (List<KeptEntry> person in said)
            {
                EntryLine? last = null;
                foreach (KeptEntry entry in person)
                {
                    CrewTask sheet = given.SheetOf(entry.It.Mark) ?? given.Asked;
                    bool isOneOfSeveral = sheet.Lines.Count(l => l.Key == line.Key) > 1;
                    foreach (EntryLine word in entry.It.Lines)
                    {
                        TaskLine? of = sheet.Lines.FirstOrDefault(l => l.Number == word.Line);
                        if (of is not null && (isOneOfSeveral && ReferenceEquals(sheet, given.Asked) ? of.Number == line.Number : of.Key == line.Key))
                            last = word;
                    }
                }
                if (last is not null)
                    words.Add((person[^1].By, last));
            }
            if (words.Count == 0)
                return new LineState(line, 0, null, null, [], Disagrees: false);
            EntryLine most = words.MaxBy(w => w.Word.Done).Word;
            return new LineState(
                line,
                most.Done,
                most.Done >= line.Count
                    ? null
                    : words.Where(w => w.Word.Done == most.Done).Select(w => w.Word.Short).FirstOrDefault(s => s is not null),
                most.CameAs,
                [.. words.Select(w => w.By).Distinct(StringComparer.Ordinal)],
                words.Exists(w => w.Word.Done != most.Done || w.Word.CameAs != most.CameAs)
            );
        }
    }

    private static List<List<KeptEntry>> ByPerson(IEnumerable<KeptEntry> entries) =>
        [.. entries.GroupBy(e => (e.PersonId, e.By)).Select(g => g.ToList())];
}

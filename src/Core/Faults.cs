using NodaTime;

namespace UnrulyMeadow.Core;

/// <summary>One thing wrong with an input: where it stands, and what is allowed there.</summary>
/// <param name="Field">The field's path as the giver of the input knows it, e.g. <c>planter.depthCm</c>.</param>
/// <param name="Message">A sentence that says what is wrong and how to mend it.</param>
public sealed record Fault(string Field, string Message)
{
    /// <summary>The fault on one line: field, colon, message.</summary>
    public override string ToString() => Field.Length == 0 ? Message : $"{Field}: {Message}";
}

/// <summary>Thrown when an input breaks a rule; carries every fault found, not only the first.</summary>
public sealed class InvalidInputException : Exception
{
    /// <summary>Wraps the faults found.</summary>
    /// <param name="faults">At least one fault.</param>
    public InvalidInputException(IReadOnlyList<Fault> faults)
        : base(string.Join("; ", faults.Take(10)) + (faults.Count > 10 ? $"; and {faults.Count - 10} more" : string.Empty)) => Faults = faults;

    /// <summary>Wraps a single fault.</summary>
    public InvalidInputException(string field, string message)
        : this([new Fault(field, message)]) { }

    /// <summary>Every fault found, in the order of the fields.</summary>
    public IReadOnlyList<Fault> Faults { get; }
}

/// <summary>Gathers faults so that a form or a file is told of all of them at once; beyond the first hundred they are only counted.</summary>
/// <param name="most">Most faults kept in words.</param>
public sealed class FaultList(int most = FaultList.MostNamed)
{
    /// <summary>Faults named unless more are asked for.</summary>
    public const int MostNamed = 100;

    private readonly List<Fault> _faults = [];

    /// <summary>The faults so far, those that are named.</summary>
    public IReadOnlyList<Fault> Faults => _faults;

    /// <summary>All faults, those that are only counted among them.</summary>
    public int Count { get; private set; }

    /// <summary>True while nothing is wrong.</summary>
    public bool IsEmpty => Count == 0;

    /// <summary>True when no further fault would be named; a reader of a long file may stop.</summary>
    public bool IsFull => _faults.Count >= most;

    /// <summary>Notes one fault.</summary>
    public void Add(string field, string message)
    {
        Count++;
        if (!IsFull)
            _faults.Add(new Fault(field, message));
    }

    /// <summary>Notes faults found deeper down, with the path that leads to them; an empty path leaves them as they are.</summary>
    public void AddAll(string prefix, IEnumerable<Fault> faults)
    {
        foreach (Fault f in faults)
        {
            if (IsFull)
                Count++;
            else
                Add(
                    prefix.Length == 0 ? f.Field
                        : f.Field.Length == 0 ? prefix
                        : $"{prefix}.{f.Field}",
                    f.Message
                );
        }
    }

    /// <summary>Notes a fault unless <paramref name="value"/> is a finite number from <paramref name="low"/> to <paramref name="high"/>.</summary>
    public void Range(string field, double value, double low, double high, string unit)
    {
        if (!(value >= low && value <= high))
            Add(field, $"must be from {low:0.##} to {high:0.##} {unit}".TrimEnd() + $" (it is {value:0.##})");
    }

    /// <summary>Notes a fault unless a day lies from 1950 to 2150.</summary>
    /// <returns>True when it does, so that days may be counted from it.</returns>
    public bool Day(string field, LocalDate day)
    {
        bool good = day.Year is >= 1950 and <= 2150;
        if (!good)
            Add(field, "must be a date from 1950 to 2150");
        return good;
    }

    /// <summary>Notes faults of a span of days: a first day from 1950 to 2150, and a last one not before it and at most 60 days after.</summary>
    public void Days(string firstField, LocalDate first, string lastField, LocalDate last)
    {
        if (!Day(firstField, first))
            return;
        if (last < first)
            Add(lastField, "must not be before the first day");
        else if (last > first.PlusDays(60))
            Add(lastField, "must be within 60 days of the first day");
    }

    /// <summary>Notes a fault unless <paramref name="text"/> is one line of one to <paramref name="longest"/> characters.</summary>
    public void Text(string field, string? text, int longest)
    {
        if (string.IsNullOrWhiteSpace(text))
            Add(field, "must not be empty");
        else
            Phrase(field, text, longest);
    }

    /// <summary>Notes a fault unless <paramref name="text"/> is one line of at most <paramref name="longest"/> characters; it may be empty.</summary>
    public void Phrase(string field, string? text, int longest) => Rule(field, text, longest, lines: false);

    /// <summary>Notes a fault unless <paramref name="text"/> has at most <paramref name="longest"/> characters; it may be empty and of several lines.</summary>
    public void Note(string field, string? text, int longest) => Rule(field, text, longest, lines: true);

    /// <summary>Throws <see cref="InvalidInputException"/> when anything is wrong.</summary>
    public void ThrowIfAny()
    {
        if (IsEmpty)
            return;
        int unnamed = Count - _faults.Count;
        throw new InvalidInputException(
            unnamed == 0 ? [.. _faults] : [.. _faults, new Fault(string.Empty, $"{unnamed:#,0} more faults are not named; mend these first")]
        );
    }

    private void Rule(string field, string? text, int longest, bool lines)
    {
        if (text is null)
            Add(field, "must not be missing");
        else if (PlainText.Fault(text, longest, lines) is { } fault)
            Add(field, fault);
    }
}

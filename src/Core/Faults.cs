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
        : base(string.Join("; ", faults)) => Faults = faults;

    /// <summary>Wraps a single fault.</summary>
    public InvalidInputException(string field, string message)
        : this([new Fault(field, message)])
    {
    }

    /// <summary>Every fault found, in the order of the fields.</summary>
    public IReadOnlyList<Fault> Faults { get; }
}

/// <summary>Gathers faults so that a form or a file is told of all of them at once.</summary>
public sealed class FaultList
{
    private readonly List<Fault> _faults = [];

    /// <summary>The faults so far.</summary>
    public IReadOnlyList<Fault> Faults => _faults;

    /// <summary>True while nothing is wrong.</summary>
    public bool IsEmpty => _faults.Count == 0;

    /// <summary>Notes one fault.</summary>
    public void Add(string field, string message) => _faults.Add(new Fault(field, message));

    /// <summary>Notes faults found deeper down, with the path that leads to them; an empty path leaves them as they are.</summary>
    public void AddAll(string prefix, IEnumerable<Fault> faults) =>
        _faults.AddRange(faults.Select(f => new Fault(
            prefix.Length == 0 ? f.Field : f.Field.Length == 0 ? prefix : $"{prefix}.{f.Field}",
            f.Message)));

    /// <summary>Notes a fault unless <paramref name="value"/> is a finite number from <paramref name="low"/> to <paramref name="high"/>.</summary>
    public void Range(string field, double value, double low, double high, string unit)
    {
        if (!(value >= low && value <= high))
            Add(field, $"must be from {low:0.##} to {high:0.##} {unit}".TrimEnd() + $" (it is {value:0.##})");
    }

    /// <summary>Notes faults of a span of days: a first day from 1950 to 2150, and a last one not before it and at most 60 days after.</summary>
    public void Days(string firstField, LocalDate first, string lastField, LocalDate last)
    {
        if (first.Year is < 1950 or > 2150)
            Add(firstField, "must be a date from 1950 to 2150");
        if (last < first)
            Add(lastField, "must not be before the first day");
        else if (last > first.PlusDays(60))
            Add(lastField, "must be within 60 days of the first day");
    }

    /// <summary>Notes a fault unless <paramref name="text"/> has from one to <paramref name="longest"/> characters and no control characters.</summary>
    public void Text(string field, string? text, int longest)
    {
        if (string.IsNullOrWhiteSpace(text))
            Add(field, "must not be empty");
        else if (text.Length > longest)
            Add(field, $"must be at most {longest} characters (it has {text.Length})");
        else if (text.Any(c => char.IsControl(c) && c is not '\n' and not '\r' and not '\t'))
            Add(field, "must not hold control characters");
    }

    /// <summary>Throws <see cref="InvalidInputException"/> when anything is wrong.</summary>
    public void ThrowIfAny()
    {
        if (!IsEmpty)
            throw new InvalidInputException([.. _faults]);
    }
}

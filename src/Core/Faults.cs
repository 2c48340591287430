using System.Text.RegularExpressions;
using NodaTime;

namespace UnrulyMeadow.Core;

/// <summary>One thing wrong with an input: where it stands, and what is allowed there.</summary>
/// <param name="Field">The field's path as the giver of the input knows it, e.g. <c>planter.depthCm</c>.</param>
/// <param name="Template">
/// A sentence that says what is wrong and how to mend it. A figure with a unit stands in braces, <c>{12 cm}</c>, so that it can be told in the
/// reader's units.
/// </param>
public sealed partial record Fault(string Field, string Template)
{
    /// <summary>The sentence with its figures in metric units.</summary>
    public string Message => Figure().Replace(Template, "${figure}");

    /// <summary>The fault on one line: field, colon, message.</summary>
    public override string ToString() => Field.Length == 0 ? Message : $"{Field}: {Message}";

    [GeneratedRegex(@"\{(?<figure>[−-]?[\d.]+ [^{}\d ]+)\}", RegexOptions.CultureInvariant | RegexOptions.ExplicitCapture, 1000)]
    private static partial Regex Figure();
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

    // Units that readers may have otherwise.
    private static readonly string[] Units = ["cm", "mm", "m²", "m", "L", "kg/m²", "kg", "°C·d", "°C", "K"];

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
                    f.Template
                );
        }
    }

    /// <summary>Notes a fault unless <paramref name="value"/> is a finite number from <paramref name="low"/> to <paramref name="high"/>.</summary>
    /// <param name="field">The field.</param>
    /// <param name="value">Its value.</param>
    /// <param name="low">The least that is allowed.</param>
    /// <param name="high">The most.</param>
    /// <param name="unit">The unit of all three, and what it is counted in, e.g. "cm" or "cm a year"; empty for none.</param>
    public void Range(string field, double value, double low, double high, string unit)
    {
        if (value >= low && value <= high)
            return;
        string? known = Units.FirstOrDefault(u => unit == u || (unit.StartsWith(u, StringComparison.Ordinal) && unit[u.Length] is ' ' or ','));
        string Figure(double v) => known is null ? $"{v:0.##}" : $"{{{v:0.##} {known}}}".Replace('-', '−');
        string after = known is null && unit.Length > 0 ? $" {unit}" : unit[(known?.Length ?? 0)..];
        string given = double.IsFinite(value) ? $"it is {Figure(value)}" : "it must be a number";
        Add(field, $"must be from {Figure(low)} to {Figure(high)}{after} ({given})");
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

    /// <summary>
    /// Notes a fault unless <paramref name="text"/> has at most <paramref name="longest"/> characters; it may be empty and of several lines.
    /// </summary>
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

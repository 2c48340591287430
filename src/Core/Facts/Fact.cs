using System.Collections;
using System.Globalization;

namespace UnrulyMeadow.Core.Facts;

/// <summary>Something with a name of its own that a fact can speak of: a plant, a planter.</summary>
public interface ISubject
{
    /// <summary>Its short name, unique among its like.</summary>
    string Id { get; }

    /// <summary>Its name for people.</summary>
    string Name { get; }
}

/// <summary>A colour to be named to people, #rrggbb.</summary>
/// <param name="Hex">The colour.</param>
public readonly record struct ColourCode(string Hex);

/// <summary>
/// One thing that is so: of what kind it is, and the things and figures it speaks of, each under its name. It holds no words; the Wording
/// project gives it them, in the reader's units and language.
/// </summary>
/// <remarks>
/// A part's value is an <see cref="ISubject"/>, a <see cref="Quantity"/>, a count, a NodaTime LocalDate, a <see cref="ColourCode"/>, a member
/// of an enumeration, text that people typed, a truth, another fact, a list of these, or null for nothing to say.
/// </remarks>
public sealed class Fact : IEquatable<Fact>
{
    private string? _content;

    /// <summary>A fact of a kind with its parts.</summary>
    /// <param name="kind">A member of one of Core's closed sets of kinds.</param>
    /// <param name="parts">What it speaks of.</param>
    public Fact(Enum kind, params ReadOnlySpan<(string Name, object? Value)> parts)
    {
        Kind = kind;
        Parts = parts.ToArray();
    }

    /// <summary>Of what kind it is.</summary>
    public Enum Kind { get; }

    /// <summary>The things and figures that it speaks of.</summary>
    public IReadOnlyList<(string Name, object? Value)> Parts { get; }

    /// <summary>What it speaks of, by name; null when there is no such part.</summary>
    public object? this[string name] => Parts.FirstOrDefault(p => p.Name == name).Value;

    /// <summary>Kind and subjects: two facts with the same key say the same of the same things, perhaps with other figures.</summary>
    public string Key => string.Join(':', Parts.Select(p => p.Value).OfType<ISubject>().Select(s => s.Id).Prepend(Kind.ToString()));

    /// <summary>All that it says, figures too, in a form that is the same in every language: what is equal in it says the same.</summary>
    public string Content => _content ??= $"{Kind.GetType().Name}.{Kind}({string.Join(", ", Parts.Select(p => $"{p.Name}: {Plain(p.Value)}"))})";

    /// <inheritdoc />
    public bool Equals(Fact? other) => other is not null && Content == other.Content;

    /// <inheritdoc />
    public override bool Equals(object? obj) => Equals(obj as Fact);

    /// <inheritdoc />
    public override int GetHashCode() => Content.GetHashCode(StringComparison.Ordinal);

    /// <summary>Its content, for those who look at the program.</summary>
    public override string ToString() => Content;

    private static string Plain(object? value) =>
        value switch
        {
            null => "nothing",
            string text => text,
            ISubject subject => subject.Id,
            IEnumerable several => $"[{string.Join(", ", several.Cast<object?>().Select(Plain))}]",
            IFormattable figure => figure.ToString(null, CultureInfo.InvariantCulture),
            _ => value.ToString()!,
        };
}

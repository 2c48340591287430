using System.Collections.Concurrent;
using System.Globalization;
using System.Resources;

namespace UnrulyMeadow.Wording;

/// <summary>The sentences as they are written: one resource file for each set of kinds, and one for words used everywhere.</summary>
public static class Texts
{
    private static readonly ConcurrentDictionary<string, ResourceManager> Sets = new(StringComparer.Ordinal);

    /// <summary>The files, each with the name of the enumeration whose kinds it words, and "Words".</summary>
    public static IReadOnlyList<string> Names { get; } =
    [.. typeof(Texts).Assembly.GetManifestResourceNames().Select(n => n.Split('.')[^2]).Order(StringComparer.Ordinal)];

    /// <summary>Files that belong to no set of kinds: words of values used everywhere, and what stands on the crew's pages.</summary>
    public static IReadOnlyList<string> OfPages { get; } = ["Crew", "Words"];

    /// <summary>Files whose every text a crew member sees, and that every language must hold whole.</summary>
    public static IReadOnlyList<string> OfTheCrew { get; } = ["CautionKind", "Crew", "StepKind"];

    /// <summary>Languages beside English, by their two letters.</summary>
    public static IReadOnlyList<string> Languages { get; } = ["es"];

    /// <summary>A text in a language, in English where the language lacks it; null where nobody has written it.</summary>
    /// <param name="set">The file.</param>
    /// <param name="key">Its key.</param>
    /// <param name="language">The language.</param>
    public static string? Find(string set, string key, CultureInfo language) =>
        Names.Contains(set, StringComparer.Ordinal) ? Of(set).GetString(key, language) : null;

    /// <summary>All texts of a file as written in one language, without those it lacks.</summary>
    /// <param name="set">The file.</param>
    /// <param name="language">The language.</param>
    public static IReadOnlyDictionary<string, string> All(string set, CultureInfo language) =>
        Of(set).GetResourceSet(language, createIfNotExists: true, tryParents: false) is { } found
            ? found.Cast<System.Collections.DictionaryEntry>().ToDictionary(e => (string)e.Key, e => (string)e.Value!, StringComparer.Ordinal)
            : new Dictionary<string, string>(StringComparer.Ordinal);

    // What nobody has worded is marked, so that a walk over the pages finds it; a page does not fail for it.
    internal static string Unknown(string name) => $"⟨{name}⟩";

    private static ResourceManager Of(string set) =>
        Sets.GetOrAdd(set, s => new ResourceManager($"{typeof(Texts).Namespace}.{s}", typeof(Texts).Assembly));
}

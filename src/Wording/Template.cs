using System.Text.RegularExpressions;

namespace UnrulyMeadow.Wording;

/// <summary>
/// How a sentence is written among the resources. <c>{name}</c> stands for a part of the fact. <c>{count:# day|# days}</c> chooses between one
/// and many, <c>{day:d MMM}</c> gives a form, <c>{flag:yes|no}</c> chooses by a truth. A clause in square brackets is said only when every
/// part in it has something to say: <c>[, with {masonry} from the masonry]</c>; a truth says nothing itself and only decides:
/// <c>[{isBed}in a bed][{!isBed}in a pot]</c>.
/// </summary>
public static partial class Template
{
    /// <summary>Fills a template.</summary>
    /// <param name="template">The template.</param>
    /// <param name="part">Gives a part's value by its name.</param>
    /// <param name="words">Gives a value in words, by what the template asks of it.</param>
    public static string Fill(string template, Func<string, object?> part, Func<object?, string, string> words)
    {
        string whole = Clause().Replace(template, c => Holes().Matches(c.Value).All(h => Says(h, part)) ? c.Groups["text"].Value : string.Empty);
        return Holes().Replace(whole, h => h.Groups["not"].Success ? string.Empty : words(part(h.Groups["name"].Value), h.Groups["format"].Value));
    }

    /// <summary>Names of the parts that a template speaks of.</summary>
    public static IReadOnlyList<string> Names(string template) =>
        [.. Holes().Matches(template).Select(h => h.Groups["name"].Value).Distinct(StringComparer.Ordinal)];

    private static bool Says(Match hole, Func<string, object?> part)
    {
        bool says = part(hole.Groups["name"].Value) switch
        {
            null => false,
            bool truth => truth,
            string text => text.Length > 0,
            System.Collections.ICollection several => several.Count > 0,
            _ => true,
        };
        return says != hole.Groups["not"].Success;
    }

    [GeneratedRegex(@"\[(?<text>[^\[\]]*)\]", RegexOptions.CultureInvariant | RegexOptions.ExplicitCapture, 1000)]
    private static partial Regex Clause();

    [GeneratedRegex(@"\{(?<not>!)?(?<name>\w+)(:(?<format>[^{}]*))?\}", RegexOptions.CultureInvariant | RegexOptions.ExplicitCapture, 1000)]
    private static partial Regex Holes();
}

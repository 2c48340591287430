using System.Text.RegularExpressions;

namespace UnrulyMeadow.Core.Palette;

/// <summary>A piece of a botanical name.</summary>
/// <param name="Text">The words.</param>
/// <param name="IsItalic">True for genus, species and what else is set in italics.</param>
public sealed record NamePart(string Text, bool IsItalic);

/// <summary>
/// Botanical names in the form of the codes of nomenclature: genus with a capital and species in lower case, both
/// italic; ×, subsp., var. and f. upright; group, division or form upright after a comma. Names in quotation marks, which
/// are those of cultivars, are refused: the palette keeps to species, groups and colours.
/// </summary>
public static partial class BotanicalName
{
    /// <summary>The rule in words.</summary>
    public const string Rule = (
        "must be a genus with a capital, then × and species in lower case, then after a comma a group, division "
        + "or form, e.g. \"Tulipa, Triumph group\" or \"Viola × wittrockiana\"; no cultivar in quotation marks"
    );

    /// <summary>True for a name of that form.</summary>
    public static bool IsWellFormed(string name) => Form().IsMatch(name);

    /// <summary>The genus.</summary>
    public static string Genus(string name) => name.Split(' ', ',')[0];

    /// <summary>The name in its pieces, for setting in type.</summary>
    public static IReadOnlyList<NamePart> Parts(string name)
    {
        int comma = name.IndexOf(',', StringComparison.Ordinal);
        string scientific = comma < 0 ? name : name[..comma];
        var parts = new List<NamePart>();
        foreach (string word in scientific.Split(' ', StringSplitOptions.RemoveEmptyEntries))
        {
            bool italic = word is not ("×" or "subsp." or "var." or "f.");
            if (parts.Count > 0 && parts[^1].IsItalic == italic)
                parts[^1] = parts[^1] with { Text = $"{parts[^1].Text} {word}" };
            else
                parts.Add(new NamePart(word, italic));
        }
        if (comma >= 0)
            parts.Add(new NamePart(name[comma..], false));
        return parts;
    }

    [GeneratedRegex(
        @"^(× )?\p{Lu}[\p{Ll}-]+( (× )?\p{Ll}[\p{Ll}-]+)?( (subsp\.|var\.|f\.) \p{Ll}[\p{Ll}-]+)?(, [\p{L}\p{N}][^'""‘’“”„]*)?$",
        RegexOptions.CultureInvariant | RegexOptions.ExplicitCapture,
        200
    )]
    private static partial Regex Form();
}

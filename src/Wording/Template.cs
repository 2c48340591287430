using System.Globalization;
using System.Text.RegularExpressions;
using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Wording;

/// <summary>
/// How a sentence is written among the resources. <c>{name}</c> stands for a part of the fact. <c>{count:# day|# days}</c> chooses between one
/// and many, <c>{day:d MMM}</c> gives a form, <c>{flag:yes|no}</c> chooses by a truth. A clause in square brackets is said only when every
/// part in it has something to say: <c>[, with {masonry} from the masonry]</c>; a truth says nothing itself and only decides:
/// <c>[{isBed}in a bed][{!isBed}in a pot]</c>. A figure that belongs to the rule itself is written with its unit in braces, <c>{15 °C}</c>, K for a
/// difference of temperatures, and is said in the reader's units.
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
        whole = Figures(whole, words);
        return Holes().Replace(whole, h => h.Groups["not"].Success ? string.Empty : words(part(h.Groups["name"].Value), h.Groups["format"].Value));
    }

    /// <summary>Says the figures in a sentence that has no other parts.</summary>
    public static string Figures(string sentence, Func<object?, string, string> words) =>
        Figure().Replace(sentence, f => words(Literal(f), string.Empty));

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

    // More than two decimals are there to come out round in the other unit.
    private static Quantity Literal(Match figure)
    {
        string number = figure.Groups["number"].Value;
        double value = double.Parse(number.Replace('−', '-'), CultureInfo.InvariantCulture);
        if (figure.Groups["unit"].Value == "g")
            return new Quantity(value / 1000, Dimension.SmallMass);
        Dimension dimension = figure.Groups["unit"].Value switch
        {
            "cm" => Dimension.Length,
            "m" => Dimension.Distance,
            "L" => Dimension.Volume,
            "kg" => Dimension.Mass,
            "kg/m²" => Dimension.Load,
            "°C·d" => Dimension.HeatSum,
            "m²" => Dimension.Area,
            "mm" => Dimension.Rain,
            "K" => Dimension.TemperatureDifference,
            _ => Dimension.Temperature,
        };
        int decimals = number.Contains('.', StringComparison.Ordinal) ? number.Length - 1 - number.IndexOf('.', StringComparison.Ordinal) : 0;
        return new Quantity(value, dimension, decimals > 2 ? 1 : decimals);
    }

    [GeneratedRegex(
        @"\{(?<number>[−-]?\d+(\.\d+)?) (?<unit>°C·d|°C|K|cm|mm|m²|m|L|kg/m²|kg|g)\}",
        RegexOptions.CultureInvariant | RegexOptions.ExplicitCapture,
        1000
    )]
    private static partial Regex Figure();

    [GeneratedRegex(@"\[(?<text>[^\[\]]*)\]", RegexOptions.CultureInvariant | RegexOptions.ExplicitCapture, 1000)]
    private static partial Regex Clause();

    [GeneratedRegex(@"\{(?<not>!)?(?<name>\w+)(:(?<format>[^{}]*))?\}", RegexOptions.CultureInvariant | RegexOptions.ExplicitCapture, 1000)]
    private static partial Regex Holes();
}

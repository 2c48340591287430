using System.Globalization;
using System.Text.RegularExpressions;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Exchange.Sheets;

/// <summary>
/// Reads planters as people name them, "12 round pots of 50 cm, 3 troughs 120 x 40 x 45 cm in part sun at the gate", into rows of a table of
/// planters. A depth that is not said is taken as such planters commonly have it (common practice).
/// </summary>
public static partial class PlanterPhrases
{
    private const int MostOfAKind = 500;
    private const string UsualArea = "Grounds";

    private static readonly string[] Numbers =
    [
        "no",
        "one",
        "two",
        "three",
        "four",
        "five",
        "six",
        "seven",
        "eight",
        "nine",
        "ten",
        "eleven",
        "twelve",
    ];

    // Nouns with the shape, the name given, and the depth as a share of the shorter side, up to so many cm.
    private static readonly Dictionary<string, (PlanterShape Shape, string Name, double DepthShare, double MostCm)> Nouns = new(
        StringComparer.OrdinalIgnoreCase
    )
    {
        ["pot"] = (PlanterShape.Round, "Pot", 0.9, 60),
        ["planter"] = (PlanterShape.Round, "Planter", 0.9, 60),
        ["container"] = (PlanterShape.Round, "Container", 0.9, 60),
        ["urn"] = (PlanterShape.Round, "Urn", 0.8, 60),
        ["tub"] = (PlanterShape.Round, "Tub", 0.8, 60),
        ["trough"] = (PlanterShape.Trough, "Trough", 1, 45),
        ["box"] = (PlanterShape.Trough, "Box", 1, 45),
        ["basket"] = (PlanterShape.Basket, "Basket", 0.55, 40),
        ["bowl"] = (PlanterShape.Bowl, "Bowl", 0.4, 40),
        ["barrel"] = (PlanterShape.HalfBarrel, "Barrel", 0.65, 60),
        ["bed"] = (PlanterShape.RectangularBed, "Bed", 1, 35),
        ["border"] = (PlanterShape.RectangularBed, "Border", 1, 35),
    };

    private static readonly Dictionary<string, string> Lights = new(StringComparer.OrdinalIgnoreCase)
    {
        ["full sun"] = "full sun",
        ["part sun"] = "part sun",
        ["part shade"] = "part sun",
        ["half shade"] = "part sun",
        ["full shade"] = "shade",
        ["sun"] = "full sun",
        ["shade"] = "shade",
    };

    private static readonly HashSet<string> Fillers = new(
        [
            "of",
            "with",
            "and",
            "the",
            "a",
            "an",
            "each",
            "about",
            "in",
            "hanging",
            "half",
            "window",
            "long",
            "wide",
            "across",
            "big",
            "large",
            "small",
        ],
        StringComparer.OrdinalIgnoreCase
    );

    /// <summary>Reads phrases, parted by lines, semicolons, or commas before a number; lengths without a unit are in the site's.</summary>
    /// <param name="text">What was typed.</param>
    /// <param name="plan">The plan, whose names are not given again.</param>
    /// <exception cref="InvalidInputException">A phrase cannot be read; it is quoted, and what is amiss said.</exception>
    public static IReadOnlyList<TypedRow> Rows(string text, Plan plan)
    {
        if (PlainText.Fault(text, 5000, lines: true) is { } fault)
            throw new InvalidInputException("phrases", fault);
        List<TypedRow> rows = [new(1, ["name", "area", "shape", "length cm", "width cm", "depth cm", "light"])];
        var faults = new FaultList();
        HashSet<string> names = new(plan.Planters.Select(p => p.Name), StringComparer.OrdinalIgnoreCase);
        double unit = plan.Site.Units == SiteUnits.UsCustomary ? PlanterSheet.CmPerInch : 1;
        foreach (string phrase in Parting().Split(text).Select(p => p.Trim(' ', ',', '.')).Where(p => p.Length > 0))
        {
            void Fault(string message) => faults.Add("phrases", $"“{PlainText.Cut(phrase, 60)}”: {message}");
            Phrase? read = Read(phrase, unit, plan.Areas.Count == 1 ? plan.Areas[0].Name : UsualArea, Fault);
            for (int i = 0, n = 1; read is not null && i < read.Many; i++)
            {
                while (!names.Add($"{read.Name} {n}"))
                    n++;
                rows.Add(
                    new TypedRow(
                        rows.Count + 1,
                        [$"{read.Name} {n}", read.Area, read.Shape, Cm(read.LengthCm), Cm(read.WidthCm), Cm(read.DepthCm), read.Light]
                    )
                );
            }
            if (rows.Count > TypedTable.MostRows)
                throw new InvalidInputException("phrases", $"names more than {TypedTable.MostRows:#,0} planters; bring them in by parts");
        }
        if (rows.Count == 1 && faults.IsEmpty)
            faults.Add("phrases", "name at least one planter, as “12 round pots of 50 cm”");
        faults.ThrowIfAny();
        return rows;
    }

    private static string Cm(double cm) => cm.ToString("0.##", CultureInfo.InvariantCulture);

    private sealed record Phrase(int Many, string Name, string Area, string Shape, double LengthCm, double WidthCm, double DepthCm, string Light);

    private static Phrase? Read(string phrase, double siteUnit, string usualArea, Action<string> fault)
    {
        string rest = phrase;
        string Take(Regex pattern, string group)
        {
            Match match = pattern.Match(rest);
            rest = match.Success ? rest.Remove(match.Index, match.Length).Insert(match.Index, " ") : rest;
            return match.Groups[group].Value.Trim();
        }
        string counted = Take(Many(), "many");
        string area = Take(Area(), "area");
        string light = Take(Light(), "light");
        Match deep = Deep().Match(rest);
        rest = deep.Success ? rest.Remove(deep.Index, deep.Length).Insert(deep.Index, " ") : rest;
        Match sides = Sides().Match(rest);
        if (!sides.Success)
        {
            fault("no size is said; write “50 cm” for round ones, “120 x 40 x 45 cm” for others");
            return null;
        }
        rest = rest.Remove(sides.Index, sides.Length).Insert(sides.Index, " ");
        List<string> words = [.. rest.Split([' ', ',', '(', ')'], StringSplitOptions.RemoveEmptyEntries)];
        int many = counted.Length == 0 ? 1 : Count(counted);
        if (many is < 1 or > MostOfAKind)
        {
            fault($"so many as {many} of a kind cannot be taken; write from 1 to {MostOfAKind}");
            return null;
        }
        string? noun = words.Select(Singular).LastOrDefault(Nouns.ContainsKey);
        if (noun is null)
        {
            fault($"no kind of planter is named; known are {string.Join(", ", Nouns.Keys)}");
            return null;
        }
        (PlanterShape shape, string name, double share, double most) = Nouns[noun];
        words.RemoveAll(w => Singular(w).Equals(noun, StringComparison.OrdinalIgnoreCase) || Fillers.Contains(w));
        bool isBed = shape == PlanterShape.RectangularBed;
        foreach (string word in words.ToList())
        {
            PlanterShape? said = word.ToLowerInvariant() switch
            {
                "round" => isBed ? PlanterShape.OvalBed
                : shape == PlanterShape.Trough ? PlanterShape.Round
                : shape,
                "oval" => isBed ? PlanterShape.OvalBed : PlanterShape.Oval,
                "square" or "rectangular" => isBed ? PlanterShape.RectangularBed : PlanterShape.Trough,
                _ => null,
            };
            if (said is not { } known)
                continue;
            shape = known;
            words.Remove(word);
        }
        if (words.Count > 0)
        {
            fault($"“{words[0]}” is not understood here");
            return null;
        }
        double[] measures = [.. sides.Groups["number"].Captures.Select(c => double.Parse(c.Value.Replace(',', '.'), CultureInfo.InvariantCulture))];
        // "120 x 40 cm": the last unit said holds for those before it.
        double unit = UnitCm(sides.Groups["unit"].Captures.LastOrDefault(c => c.Value.Length > 0)?.Value, siteUnit);
        double[] cm = [.. measures.Select(m => m * unit)];
        bool isRound = shape is PlanterShape.Round or PlanterShape.Basket or PlanterShape.Bowl or PlanterShape.HalfBarrel;
        double length = cm[0];
        double width = isRound || cm.Length == 1 ? length : cm[1];
        if (!isRound && cm.Length == 1 && !IsSquare().IsMatch(phrase))
        {
            fault("its width is not said; write length by width, “120 x 40 cm”");
            return null;
        }
        double depth =
            deep.Success
                ? double.Parse(deep.Groups["deep"].Value.Replace(',', '.'), CultureInfo.InvariantCulture)
                    * UnitCm(deep.Groups["deepUnit"].Value, unit)
            : isRound && cm.Length > 1 ? cm[1]
            : cm.Length > 2 ? cm[2]
            : Math.Round(Math.Min(most, share * Math.Min(length, width)));
        return new Phrase(
            many,
            name,
            area.Length > 0 ? char.ToUpperInvariant(area[0]) + area[1..] : usualArea,
            Shape(shape),
            length,
            width,
            depth,
            light.Length > 0 ? Lights[Blanks().Replace(light.Replace('-', ' '), " ")] : string.Empty
        );
    }

    private static string Shape(PlanterShape shape) =>
        shape switch
        {
            PlanterShape.RectangularBed => "rectangular bed",
            PlanterShape.OvalBed => "oval bed",
            PlanterShape.HalfBarrel => "half barrel",
            _ => shape.ToString().ToLowerInvariant(),
        };

    private static int Count(string word) =>
        int.TryParse(word, NumberStyles.None, CultureInfo.InvariantCulture, out int count)
            ? count
            : Math.Max(1, Array.FindIndex(Numbers, n => n.Equals(word, StringComparison.OrdinalIgnoreCase)));

    private static string Singular(string word) =>
        word.EndsWith("xes", StringComparison.OrdinalIgnoreCase) ? word[..^2]
        : word.EndsWith('s') ? word[..^1]
        : word;

    private static double UnitCm(string? unit, double usual) => unit is { Length: > 0 } && PlanterSheet.UnitCm(unit) is { } cm ? cm : usual;

    [GeneratedRegex(
        @"[\r\n;]+|,(?=\s*(?:\d+\s+(?!(?:mm|cm|m|in|inch|inches|ft|feet|foot)\b)[a-z]|(?:an?|one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve)\s))|\band\b(?=\s+(?:\d+\s+(?!(?:mm|cm|m|in|inch|inches|ft|feet|foot)\b)[a-z]|(?:an?|one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve)\s))",
        RegexOptions.IgnoreCase,
        1000
    )]
    private static partial Regex Parting();

    [GeneratedRegex(@"\b(?:at|by|near|along)\s+(?:the\s+)?(?<area>\p{L}[\p{L}\p{N}' -]*)(?=$|,)", RegexOptions.IgnoreCase, 1000)]
    private static partial Regex Area();

    [GeneratedRegex(
        @"\b(?:in\s+)?(?:the\s+)?(?<light>full[\s-]+sun|full[\s-]+shade|part[\s-]+sun|part[\s-]+shade|half[\s-]+shade|sun|shade)\b",
        RegexOptions.IgnoreCase,
        1000
    )]
    private static partial Regex Light();

    [GeneratedRegex(
        """(?<deep>\d{1,5}(?:[.,]\d{1,3})?)\s*(?<deepUnit>mm|cm|m|in|inch|inches|ft|feet|foot|"|”|″|'|’|′)?\s*(?:deep|high|tall)\b""",
        RegexOptions.IgnoreCase,
        1000
    )]
    private static partial Regex Deep();

    [GeneratedRegex(
        """(?<number>\d{1,5}(?:[.,]\d{1,3})?)\s*(?<unit>mm|cm|m|inches|inch|in|feet|foot|ft|"|”|″|'|’|′)?(?!\p{L})(?:\s*(?:x|×|by|\*)\s*(?<number>\d{1,5}(?:[.,]\d{1,3})?)\s*(?<unit>mm|cm|m|inches|inch|in|feet|foot|ft|"|”|″|'|’|′)?(?!\p{L})){0,2}""",
        RegexOptions.IgnoreCase,
        1000
    )]
    private static partial Regex Sides();

    // A count, not the first figure of a size.
    [GeneratedRegex(
        """^(?<many>\d{1,6}|an?|one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve)\b(?!\s*(?:[.,]\d|mm\b|cm\b|m\b|in(?:ch|ches)?\b|ft\b|feet\b|foot\b|"|”|″|'|’|′|x\b|×|by\b|\*))""",
        RegexOptions.IgnoreCase,
        1000
    )]
    private static partial Regex Many();

    [GeneratedRegex(@"\bsquare\b", RegexOptions.IgnoreCase, 1000)]
    private static partial Regex IsSquare();

    [GeneratedRegex(@"\s+", RegexOptions.None, 1000)]
    private static partial Regex Blanks();
}

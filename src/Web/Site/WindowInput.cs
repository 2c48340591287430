using System.Globalization;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Exchange.Palette;

namespace UnrulyMeadow.Web.Site;

/// <summary>A colour window as a form holds it: what shows, its colours, and the rule by which it comes and goes with that rule's figures.</summary>
public sealed class WindowInput
{
    /// <summary>Colours that one window can be given in the form.</summary>
    public const int MostColours = 3;

    private const double FahrenheitDegrees = 1.8;

    /// <summary>"flower", "leaf", "stem" or "berry"; empty for a window that is not wanted.</summary>
    public string? Part { get; set; }

    /// <summary>Its colours, #rrggbb, the strongest first; empty ones count for nothing.</summary>
    public string?[] Colours { get; set; } = new string?[MostColours];

    /// <summary>Which of the colours are meant.</summary>
    public bool[] Has { get; set; } = new bool[MostColours];

    /// <summary>Percent of the plant's spread.</summary>
    public string? Share { get; set; }

    public string? Rule { get; set; }

    /// <summary>Figures of the rules, each as "rule.figure", in the site's units; those of rules that are not chosen count for nothing.</summary>
    public Dictionary<string, string?> Figures { get; set; } = [];

    /// <summary>Uncertainty of the rule's date, days.</summary>
    public string? Spread { get; set; }

    /// <summary>True where it is not wanted.</summary>
    public bool IsEmpty => string.IsNullOrEmpty(Part);

    /// <summary>The form of a window.</summary>
    public static WindowInput From(ColourWindow window, UnitsText units)
    {
        string[] words = ShowNotation.Write([window]).Split(' ');
        Dictionary<string, string> keys = words
            .Where(w => w.Contains('=', StringComparison.Ordinal))
            .Select(w => w.Split('=', 2))
            .ToDictionary(w => w[0], w => w[1], StringComparer.Ordinal);
        RuleForm form = RuleForm.All.First(r => r.Rule == keys["rule"]);
        var input = new WindowInput
        {
            Part = words[0],
            Share = (window.Share * 100).ToString("0.##", CultureInfo.InvariantCulture),
            Rule = form.Rule,
            Spread = keys["spread"],
        };
        for (int i = 0; i < Math.Min(MostColours, window.Colours.Count); i++)
            (input.Colours[i], input.Has[i]) = (window.Colours[i], true);
        foreach (RuleFigure figure in form.Figures.Where(f => keys.ContainsKey(f.Key)))
            input.Figures[Key(form, figure)] = Shown(figure, double.Parse(keys[figure.Key], CultureInfo.InvariantCulture), units);
        return input;
    }

    /// <summary>The name of a rule's figure in <see cref="Figures"/>.</summary>
    public static string Key(RuleForm rule, RuleFigure figure) => $"{rule.Rule}.{figure.Key}";

    /// <summary>Figures that every rule begins with: those of the first window that goes by it, or its own.</summary>
    /// <param name="windows">Windows of plants, the most alike first.</param>
    /// <param name="units">Units shown in.</param>
    public static IReadOnlyDictionary<string, string?> Usual(IEnumerable<ColourWindow> windows, UnitsText units)
    {
        var usual = new Dictionary<string, string?>(StringComparer.Ordinal);
        foreach (ColourWindow window in windows.DistinctBy(w => w.Rule.GetType()))
        {
            foreach ((string key, string? value) in From(window, units).Figures)
                usual[key] = value;
        }
        foreach (RuleForm rule in RuleForm.All)
        {
            foreach (RuleFigure figure in rule.Figures.Where(f => f.Usual is not null))
                usual.TryAdd(Key(rule, figure), Shown(figure, figure.Usual!.Value, units));
        }
        return usual;
    }

    /// <summary>What is missing or cannot be read, by field.</summary>
    public IEnumerable<(string Field, string Message)> Missing()
    {
        if (!Colours.Where((c, i) => i < Has.Length && Has[i] && !string.IsNullOrWhiteSpace(c)).Any())
            yield return ("Colours[0]", "choose at least one colour");
        if (TypedNumber.Read(Share ?? string.Empty) is null)
            yield return ("Share", "must be a number of percent");
        if (!string.IsNullOrWhiteSpace(Spread) && TypedNumber.Read(Spread) is null)
            yield return ("Spread", "must be a number of days");
        if (RuleForm.All.FirstOrDefault(r => r.Rule == Rule) is not { } form)
        {
            yield return ("Rule", "must be chosen");
            yield break;
        }
        foreach (RuleFigure figure in form.Figures)
        {
            string typed = Figures.GetValueOrDefault(Key(form, figure)) ?? string.Empty;
            if (string.IsNullOrWhiteSpace(typed))
            {
                if (!figure.MayLack)
                    yield return ($"Figures[{Key(form, figure)}]", "must be given");
            }
            else if (TypedNumber.Read(typed.Replace('−', '-')) is null)
                yield return ($"Figures[{Key(form, figure)}]", "must be a number");
        }
    }

    /// <summary>The window as a sheet writes it. What is no number stays as it was typed, so that it is named when it is read.</summary>
    /// <param name="units">Units typed in.</param>
    /// <param name="before">The window as it was; a form that was left alone gives it back to the digit. Null for none.</param>
    public string Notation(UnitsText units, ColourWindow? before)
    {
        string typed = Written(units);
        return before is not null && From(before, units).Written(units) == typed ? Whole(before) : typed;
    }

    // More colours than the form shows stay with a window that is left alone.
    private static string Whole(ColourWindow window) => ShowNotation.Write([window]);

    private string Written(UnitsText units)
    {
        RuleForm? form = RuleForm.All.FirstOrDefault(r => r.Rule == Rule);
        var words = new List<string> { Part ?? string.Empty };
        words.AddRange(Colours.Where((c, i) => i < Has.Length && Has[i] && !string.IsNullOrWhiteSpace(c)).Select(c => c!.Trim()));
        words.Add($"share={(TypedNumber.Read(Share ?? string.Empty) is { } percent ? ShowNotation.Text(percent / 100) : Plain(Share))}");
        words.Add($"rule={Rule}");
        foreach (RuleFigure figure in form?.Figures ?? [])
        {
            if (Figures.GetValueOrDefault(Key(form!, figure)) is { } value && !string.IsNullOrWhiteSpace(value))
                words.Add($"{figure.Key}={Metric(figure, value, units)}");
        }
        if (!string.IsNullOrWhiteSpace(Spread))
            words.Add($"spread={Plain(Spread)}");
        return string.Join(' ', words);
    }

    private static string Shown(RuleFigure figure, double value, UnitsText units) =>
        figure.Kind switch
        {
            FigureKind.Temperature => units.TemperatureNumber(value),
            FigureKind.DegreeDays => (units.IsUs ? value * FahrenheitDegrees : value).ToString("0.##", CultureInfo.InvariantCulture),
            _ => ShowNotation.Text(value),
        };

    private static string Metric(RuleFigure figure, string typed, UnitsText units)
    {
        if (TypedNumber.Read(typed.Replace('−', '-')) is not { } value)
            return Plain(typed);
        return ShowNotation.Text(
            figure.Kind switch
            {
                FigureKind.Temperature => Math.Round(units.ReadTemperature(value), 2),
                FigureKind.DegreeDays when units.IsUs => Math.Round(value / FahrenheitDegrees, 2),
                _ => value,
            }
        );
    }

    // A word of its own: what would part the cell is not let through.
    private static string Plain(string? typed) =>
        string.Concat((typed ?? string.Empty).Where(c => !char.IsWhiteSpace(c) && c is not (';' or '='))) is { Length: > 0 } word ? word : "?";
}

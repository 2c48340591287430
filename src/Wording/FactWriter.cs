using System.Collections;
using System.Globalization;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Wording;

/// <summary>
/// Turns facts into sentences in a site's units and in a language. Each kind has its template among the resources, under the name of its
/// enumeration and its own; see <see cref="Template"/> for how a template is written. What a language lacks is said in English.
/// </summary>
/// <param name="units">Units of the figures.</param>
/// <param name="money">Sign or code of the site's money.</param>
/// <param name="language">The language; null for English.</param>
public sealed class FactWriter(SiteUnits units, string money = "", CultureInfo? language = null)
{
    private readonly CultureInfo _language = language ?? CultureInfo.InvariantCulture;

    /// <summary>Figures in the site's units.</summary>
    public UnitsText Units { get; } = new(units);

    /// <summary>A fact as a sentence, or as the words that stand for it.</summary>
    public string Say(Fact fact) => Say(fact, string.Empty);

    /// <summary>What a remark says, in a few words.</summary>
    public string What(Remark remark) => Say(remark.Says, "What");

    /// <summary>Why, with the figures.</summary>
    public string Why(Remark remark) => Say(remark.Says, "Why");

    /// <summary>What would put it right.</summary>
    public string Mend(Remark remark) => Say(remark.Says, "Mend");

    /// <summary>What a remark on the ground says, in a few words.</summary>
    public string What(GroundRemark remark) => Say(remark.Says, "What");

    /// <summary>Why, with the figures.</summary>
    public string Why(GroundRemark remark) => Say(remark.Says, "Why");

    /// <summary>What helps.</summary>
    public string Mend(GroundRemark remark) => Say(remark.Says, "Mend");

    /// <summary>What a remedy does, in a few words that begin with a verb.</summary>
    public string Say(Remedy remedy) => Say(remedy.Does);

    /// <summary>A sentence that holds figures with their units in braces, as templates do, but no other parts.</summary>
    public string Figures(string sentence) => Template.Figures(sentence, Of);

    /// <summary>A fault's sentence.</summary>
    public string Say(Fault fault) => Figures(fault.Template);

    /// <summary>A working in words: figure, inputs, rule, source and steps.</summary>
    public WorkedFigure Say(Working working)
    {
        var kind = new Fact(working.Kind, [.. working.Parts]);
        return new WorkedFigure(
            working.Kind.ToString(),
            Say(kind, "Figure"),
            Of(working.Value),
            [.. working.Inputs.Select(i => new WorkedInput(Of(i.Name), Of(i.Value)))],
            Say(kind, "Rule"),
            Say(kind, "Source"),
            [.. working.Steps.Select(s => Of(s)).Where(s => s.Length > 0)]
        );
    }

    /// <summary>A member of an enumeration in words: of a set of kinds that has a file of its own, or of the words used everywhere.</summary>
    public string Say(Enum value)
    {
        string set = value.GetType().Name;
        return Texts.Find(set, value.ToString(), _language) is { } own
            ? Template.Figures(own, Of)
            : Template.Figures(Texts.Find("Words", $"{set}.{value}", _language) ?? Texts.Unknown($"{set}.{value}"), Of);
    }

    /// <summary>A text of a crew's page.</summary>
    /// <param name="key">Its name among those of the pages.</param>
    /// <param name="parts">What it speaks of.</param>
    public string Crew(string key, params ReadOnlySpan<(string Name, object? Value)> parts)
    {
        (string Name, object? Value)[] given = parts.ToArray();
        return Template.Fill(
            Texts.Find("Crew", key, _language) ?? Texts.Unknown(key),
            name => Array.Find(given, p => p.Name == name) is { Name: not null } found ? found.Value : Texts.Unknown(name),
            Of
        );
    }

    /// <summary>Work of one person: "25 min of work", "6 h 40 of work".</summary>
    /// <param name="minutes">Minutes.</param>
    public string Work(int minutes) =>
        minutes < 100 ? Crew("WorkMinutes", ("minutes", minutes)) : Crew("WorkHours", ("hours", minutes / 60), ("minutes", $"{minutes % 60:00}"));

    /// <summary>A part of a fact in words; empty for nothing.</summary>
    /// <param name="value">What <see cref="Fact"/> allows.</param>
    /// <param name="format">What its template asks of it: see <see cref="Template"/>.</param>
    public string Of(object? value, string format = "") =>
        value switch
        {
            null => string.Empty,
            string typed => typed,
            bool truth => format.Split('|') is [var yes, var no]
                ? truth
                    ? yes
                    : no
                : string.Empty,
            int number when format == "0" => number.ToString(CultureInfo.InvariantCulture),
            int few when format == "words" => Texts.Find("Words", $"Number.{few}", _language) ?? few.ToString("#,0", CultureInfo.InvariantCulture),
            int count => format.Length > 0
                ? Counted(count, count.ToString("#,0", CultureInfo.InvariantCulture), format)
                : count.ToString("#,0", CultureInfo.InvariantCulture),
            Quantity quantity => Quantities.Text(quantity, Units, money, format, _language),
            LocalDate day => Dates.Text(day, format, _language),
            ISubject subject => subject.Name,
            ColourCode colour => colour.Hex,
            Fact fact => Say(fact, format),
            Enum member => Say(member),
            IEnumerable several => Listed([.. several.Cast<object?>().Select(v => Of(v)).Where(t => t.Length > 0)], format),
            _ => throw new ArgumentException($"{value.GetType().Name} has no words", nameof(value)),
        };

    internal static string Counted(double count, string number, string format)
    {
        string[] forms = format.Split('|');
        return (Math.Abs(count - 1) < 1e-9 ? forms[0] : forms[^1]).Replace("#", number, StringComparison.Ordinal);
    }

    private string Say(Fact fact, string part)
    {
        string set = fact.Kind.GetType().Name;
        string key = part.Length == 0 ? fact.Kind.ToString() : $"{fact.Kind}.{part}";
        string template = Texts.Find(set, key, _language) ?? Texts.Unknown($"{set}.{key}");
        return Template.Fill(
            template,
            name => fact.Parts.FirstOrDefault(p => p.Name == name) is { Name: not null } found ? found.Value : Texts.Unknown(name),
            Of
        );
    }

    private string Listed(IReadOnlyList<string> items, string format)
    {
        if (format.Length > 0 || items.Count < 2)
            return string.Join(format, items);
        string and = Texts.Find("Words", "And", _language) ?? ", ";
        return string.Join(", ", items.SkipLast(1)) + and + items[^1];
    }
}

using System.Globalization;
using NodaTime;

namespace UnrulyMeadow.Wording;

/// <summary>Days as people read them.</summary>
public static class Dates
{
    private const string Usual = "d MMM uuuu";

    // What is named in a language, under which names, and by what part of a pattern; the longer before the shorter.
    private static readonly (string Part, string Names)[] Named = [("MMMM", "FullMonth"), ("MMM", "Month"), ("ddd", "Weekday")];

    /// <summary>A day; months and days of the week are named in the language.</summary>
    /// <param name="day">The day.</param>
    /// <param name="format">A NodaTime pattern; empty for day, month and year.</param>
    /// <param name="language">The language.</param>
    public static string Text(LocalDate day, string format, CultureInfo language)
    {
        string pattern = format.Length == 0 ? Usual : format;
        string text = day.ToString(pattern, CultureInfo.InvariantCulture);
        foreach ((string part, string names) in Named)
        {
            if (!pattern.Contains(part, StringComparison.Ordinal) || (part == "MMM" && pattern.Contains("MMMM", StringComparison.Ordinal)))
                continue;
            string english = day.ToString(part, CultureInfo.InvariantCulture);
            if (Texts.Find("Words", $"{names}.{english}", language) is { } own)
                text = text.Replace(english, own, StringComparison.Ordinal);
        }
        return text;
    }
}

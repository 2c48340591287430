using System.Globalization;

namespace UnrulyMeadow.Exchange.Supply;

/// <summary>Months as price lists write them: "3-5", "Mar, Apr, Sept", "October to December", "all year".</summary>
public static class MonthsText
{
    private static readonly string[] Parts = [",", ";", "/", "&", " and ", "+"];
    private static readonly string[] Spans = [" to ", "–", "—", "-", "until"];

    /// <summary>Reads them.</summary>
    /// <param name="text">The cell.</param>
    /// <returns>Months in order, 1 to 12; empty for all year or where nothing is said; null where it names none.</returns>
    public static IReadOnlyList<int>? Read(string text)
    {
        string plain = text.Trim().ToLowerInvariant();
        if (plain is "" or "all" or "all year" or "year round" or "any")
            return [];
        var months = new SortedSet<int>();
        foreach (string part in plain.Split(Parts, StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            string[] ends = part.Split(Spans, StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
            if (ends.Length is 0 or > 2 || Month(ends[0]) is not { } first || Month(ends[^1]) is not { } last)
                return null;
            // October to February crosses the turn of the year.
            for (int m = first; ; m = m % 12 + 1)
            {
                months.Add(m);
                if (m == last)
                    break;
            }
        }
        return months.Count is 0 or 12 ? [] : [.. months];
    }

    private static int? Month(string text)
    {
        if (int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out int number))
            return number is >= 1 and <= 12 ? number : null;
        string word = text.TrimEnd('.');
        if (word.Length < 3)
            return null;
        int at = Array.FindIndex(CultureInfo.InvariantCulture.DateTimeFormat.MonthNames, m =>
            m.Length > 0
            && (m.StartsWith(word, StringComparison.OrdinalIgnoreCase) || word.Equals("sept", StringComparison.Ordinal) && m == "September")
        );
        return at < 0 ? null : at + 1;
    }
}

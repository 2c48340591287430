namespace UnrulyMeadow.Core.Climate;

/// <summary>
/// What a weather year is called. Years that were generated bear numbers in which no station stood, and are named by
/// their turn, so that none is taken for one that happened.
/// </summary>
public static class WeatherYear
{
    /// <summary>The calendar number of the first generated year.</summary>
    public const int FirstGenerated = 101;

    private const int FirstMeasured = 1600;

    /// <summary>True for a year that was generated.</summary>
    public static bool IsGenerated(int year) => year < FirstMeasured;

    /// <summary>Its name in a sentence: "1998", "1998–99" or "generated year 7".</summary>
    /// <param name="year">The calendar year in which it begins.</param>
    /// <param name="spansNewYear">True when it ends in the next.</param>
    public static string Name(int year, bool spansNewYear = false) =>
        IsGenerated(year) ? $"generated year {Turn(year)}"
        : spansNewYear ? $"{year}–{(year + 1) % 100:00}"
        : $"{year}";

    /// <summary>Its name in a list of years: "1998" or "no. 7".</summary>
    public static string Short(int year) => IsGenerated(year) ? $"no. {Turn(year)}" : $"{year}";

    /// <summary>A run of years: "1991–2020" or "generated, no. 1–40".</summary>
    public static string Span(int first, int last) => IsGenerated(first) ? $"generated, no. {Turn(first)}–{Turn(last)}" : $"{first}–{last}";

    private static int Turn(int year) => year - FirstGenerated + 1;
}

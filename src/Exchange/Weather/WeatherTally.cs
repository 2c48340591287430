using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Exchange.Weather;

/// <summary>A reading that weather files hold, in GHCN-Daily's name for it.</summary>
/// <param name="Code">GHCN-Daily's element.</param>
/// <param name="Name">For people.</param>
/// <param name="PerUnit">GHCN-Daily's whole numbers per unit used here.</param>
/// <param name="Low">Least that is believed.</param>
/// <param name="High">Most that is believed.</param>
/// <param name="Unit">Unit used here.</param>
internal sealed record WeatherElement(string Code, string Name, double PerUnit, double Low, double High, string Unit)
{
    public static readonly WeatherElement[] All =
    [
        new("TMIN", "temperature", 10, -90, 60, "°C"),
        new("TMAX", "temperature", 10, -90, 60, "°C"),
        new("PRCP", "precipitation", 10, 0, 2000, "mm"),
        new("SNWD", "snow depth", 1, 0, 12_000, "mm"),
        new("AWND", "wind", 10, 0, 80, "m/s"),
        new("RHAV", "humidity", 1, 0, 100, "%"),
        new("RSUN", "sun", 1, 0, 45, "MJ/m²"), // plain files only
    ];

    public static int IndexOf(ReadOnlySpan<char> code)
    {
        for (int i = 0; i < All.Length; i++)
        {
            if (code.SequenceEqual(All[i].Code))
                return i;
        }
        return -1;
    }

    /// <summary>What is wrong with a value; null when it can be believed.</summary>
    public string? Doubt(double value) =>
        value >= Low && value <= High ? null : FormattableString.Invariant($"{Name} {value:0.#} {Unit} cannot be ({Low:0} to {High:0})");
}

/// <summary>Collects days and refusals while a file is read, and doubts the whole of it.</summary>
internal sealed class WeatherTally
{
    /// <summary>Days in a row with the same lowest and highest that are no weather any more.</summary>
    public const int LongestStuck = 15;

    private const int Min = 0;
    private const int Max = 1;

    private readonly Dictionary<LocalDate, Row> _rows = [];
    private readonly List<RefusedLine> _refused = [];
    private IReadOnlyList<WeatherDay>? _days;

    public int RefusedCount { get; private set; }

    public int Flagged { get; set; }

    public IReadOnlyList<RefusedLine> Refused => _refused;

    /// <summary>Days with a temperature, ascending.</summary>
    public IReadOnlyList<WeatherDay> Days =>
        _days ??= [
            .. _rows
                .Where(r => r.Value.Values[Min] is not null || r.Value.Values[Max] is not null)
                .OrderBy(r => r.Key)
                .Select(r =>
                {
                    double?[] v = r.Value.Values;
                    return new WeatherDay(r.Key, v[0], v[1], v[2], v[3], v[4], v[5], v[6]);
                }),
        ];

    public void Refuse(int line, string why)
    {
        RefusedCount++;
        if (_refused.Count < WeatherFile.MostNamed)
            _refused.Add(new RefusedLine(line, why));
    }

    public int? LineOf(LocalDate day) => _rows.TryGetValue(day, out Row? row) ? row.Line : null;

    /// <summary>Notes a reading; what is wrong with it, or null.</summary>
    public string? Put(LocalDate day, int element, double value, int line)
    {
        if (day.Year is < 1750 or > 2150)
            return $"{Iso(day)} is no day of a record (1750 to 2150)";
        if (WeatherElement.All[element].Doubt(value) is { } doubt)
            return $"{Iso(day)}: {doubt}";
        if (!_rows.TryGetValue(day, out Row? row))
            _rows[day] = row = new Row(line);
        if (row.Values[element] is { } before && before != value)
            return $"{Iso(day)}: {WeatherElement.All[element].Code} was given before in line {row.Line}, and differently; keep one of the two";
        row.Values[element] = value;
        return null;
    }

    /// <summary>Days whose lowest lies above the highest lose both; they are counted as refused.</summary>
    public void DropCrossed()
    {
        var crossed = _rows.Where(r => r.Value.Values[Min] > r.Value.Values[Max]).OrderBy(r => r.Value.Line).ToList();
        int both = _rows.Count(r => r.Value.Values[Min] is not null && r.Value.Values[Max] is not null);
        if (both >= 10 && crossed.Count * 2 > both)
        {
            throw new InvalidInputException(
                "file",
                $"line {crossed[0].Value.Line} and {crossed.Count - 1:#,0} others: the lowest lies above the highest on most days; the two columns are exchanged, so exchange their headings"
            );
        }
        foreach ((LocalDate day, Row row) in crossed)
        {
            Refuse(
                row.Line,
                FormattableString.Invariant(
                    $"{Iso(day)}: lowest {row.Values[Min]:0.0} °C lies above highest {row.Values[Max]:0.0} °C; mend or empty the two"
                )
            );
            row.Values[Min] = row.Values[Max] = null;
        }
    }

    /// <summary>Refuses a file whose days may be well-formed but cannot be a station's.</summary>
    /// <param name="usByChoice">True when °F was chosen by the giver and not named by the file.</param>
    public void DoubtWhole(bool usByChoice)
    {
        Stuck();
        var highest = Days.Where(d => d.MaxC is not null).ToList();
        if (highest.Count < 60)
            return;
        // The hottest inhabited places mean 35–36 °C of daily maxima; a temperate year in °F means 45 and more.
        double mean = highest.Average(d => d.MaxC!.Value);
        if (mean > 40)
        {
            throw new InvalidInputException(
                "file",
                FormattableString.Invariant(
                    $"line {LineOf(highest[0].Day)}: the daily highest means {mean:0} °C over {highest.Count} days, which no place has; these look like °F: choose °F, or name the unit in the heading (tmax_f)"
                )
            );
        }
        if (usByChoice && highest.Count >= 300 && highest.Max(d => d.MaxC!.Value) < 10)
        {
            throw new InvalidInputException(
                "file",
                FormattableString.Invariant(
                    $"line {LineOf(highest[0].Day)}: read as °F no day of {highest.Count} passes 50 °F; these look like °C: choose °C, or name the unit in the heading (tmax_c)"
                )
            );
        }
    }

    /// <summary>Gaps of a year and more between days.</summary>
    public IReadOnlyList<string> Gaps()
    {
        var notes = new List<string>();
        for (int i = 1; i < Days.Count; i++)
        {
            if (Period.DaysBetween(Days[i - 1].Day, Days[i].Day) > 365)
                notes.Add(
                    $"no readings from {Iso(Days[i - 1].Day.PlusDays(1))} to {Iso(Days[i].Day.PlusDays(-1))} (line {LineOf(Days[i].Day)}); these years are left out"
                );
        }
        return notes;
    }

    private void Stuck()
    {
        int run = 1;
        for (int i = 1; i < Days.Count; i++)
        {
            WeatherDay a = Days[i - 1];
            WeatherDay b = Days[i];
            bool same = a.MinC is not null && a.MinC == b.MinC && a.MaxC == b.MaxC && b.Day == a.Day.PlusDays(1);
            run = same ? run + 1 : 1;
            if (run < LongestStuck)
                continue;
            LocalDate first = b.Day.PlusDays(1 - run);
            throw new InvalidInputException(
                "file",
                FormattableString.Invariant(
                    $"line {LineOf(first)}: from {Iso(first)} the lowest and highest stay at {b.MinC:0.0} and {b.MaxC:0.0} °C for {LongestStuck} days and more; a stuck instrument or filled cells: empty them and bring the file in again"
                )
            );
        }
    }

    private static string Iso(LocalDate day) => NodaTime.Text.LocalDatePattern.Iso.Format(day);

    private sealed class Row(int line)
    {
        public double?[] Values { get; } = new double?[WeatherElement.All.Length];

        public int Line { get; } = line;
    }
}

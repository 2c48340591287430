using NodaTime;
using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Climate;

/// <summary>One day as a station reported it; a missing reading is null.</summary>
/// <param name="Day">The day.</param>
/// <param name="MinC">Lowest air temperature, °C.</param>
/// <param name="MaxC">Highest air temperature, °C.</param>
/// <param name="PrecipitationMm">Rain and melted snow, mm.</param>
/// <param name="SnowDepthMm">Snow lying, mm.</param>
/// <param name="WindMs">Mean wind, m/s.</param>
/// <param name="HumidityPct">Mean relative humidity, %.</param>
/// <param name="SunMJ">Sun on the level, MJ/m².</param>
public readonly record struct WeatherDay(
    LocalDate Day,
    double? MinC,
    double? MaxC,
    double? PrecipitationMm,
    double? SnowDepthMm = null,
    double? WindMs = null,
    double? HumidityPct = null,
    double? SunMJ = null
)
{
    /// <summary>True when no reading is given.</summary>
    public bool IsEmpty => (MinC ?? MaxC ?? PrecipitationMm ?? SnowDepthMm ?? WindMs ?? HumidityPct ?? SunMJ) is null;
}

/// <summary>A year that the record cannot speak for.</summary>
/// <param name="Year">The climate year, named by the calendar year in which it begins.</param>
/// <param name="MissingDays">Days without both temperatures.</param>
public sealed record YearLeftOut(int Year, int MissingDays);

/// <summary>
/// A station's daily record, made ready for computing: gaps of up to three days are interpolated, and a year that
/// lacks more than ten days is left out and named. Longer gaps inside a used year stay empty (NaN).
/// </summary>
/// <remarks>
/// Climate years begin on 1 January in the north and on 1 July in the south, so that each holds one whole winter's end
/// and the next one's start, spring before fall. Missing days are counted before interpolation.
/// </remarks>
public sealed class WeatherRecord
{
    /// <summary>Gaps of at most this many days are interpolated.</summary>
    public const int LongestInterpolatedGap = 3;

    /// <summary>A year lacking more days than this is left out.</summary>
    public const int MostMissingDays = 10;

    /// <summary>With fewer used years a record is short: its odds are read off generated years.</summary>
    public const int EnoughYears = 10;

    /// <summary>Years generated for a short record.</summary>
    public const int GeneratedYears = 40;

    /// <summary>Fall of temperature with height, °C per km: the standard atmosphere's.</summary>
    public const double LapseCPerKm = 6.5;

    private readonly Dictionary<int, int> _firstIndexOfYear = [];
    private readonly Lazy<WeatherRecord> _forOdds;
    private double[]? _meanMin;
    private double[]? _meanMax;

    private WeatherRecord(Station station, LocalDate firstDay, int length)
    {
        Station = station;
        FirstDay = firstDay;
        _forOdds = new Lazy<WeatherRecord>(() =>
            IsShort ? WeatherGenerator.Generate(DailyNormals.From(this), 1, WeatherYear.FirstGenerated, GeneratedYears) : this
        );
        MinC = Empty(length);
        MaxC = Empty(length);
        PrecipitationMm = Empty(length);
        SnowDepthMm = Empty(length);
        WindMs = Empty(length);
        HumidityPct = Empty(length);
        SunMJ = Empty(length);
    }

    /// <summary>Where the record was taken.</summary>
    public Station Station { get; }

    /// <summary>The day of index 0 of the arrays.</summary>
    public LocalDate FirstDay { get; }

    /// <summary>The last day of the arrays.</summary>
    public LocalDate LastDay => FirstDay.PlusDays(MinC.Length - 1);

    /// <summary>Lowest temperature by day, °C; NaN where missing.</summary>
    public double[] MinC { get; }

    /// <summary>Highest temperature by day, °C; NaN where missing.</summary>
    public double[] MaxC { get; }

    /// <summary>Precipitation by day, mm; NaN where missing. Never interpolated.</summary>
    public double[] PrecipitationMm { get; }

    /// <summary>Snow lying by day, mm; NaN where missing. Never interpolated; nor are the next three.</summary>
    public double[] SnowDepthMm { get; }

    /// <summary>Mean wind by day, m/s; NaN where missing.</summary>
    public double[] WindMs { get; }

    /// <summary>Mean relative humidity by day, %; NaN where missing.</summary>
    public double[] HumidityPct { get; }

    /// <summary>Sun on the level by day, MJ/m²; NaN where missing.</summary>
    public double[] SunMJ { get; }

    /// <summary>Climate years complete enough to use, ascending.</summary>
    public IReadOnlyList<int> YearsUsed { get; private set; } = [];

    /// <summary>Climate years left out, with the days each lacks.</summary>
    public IReadOnlyList<YearLeftOut> YearsLeftOut { get; private set; } = [];

    /// <summary>The normals that a generated record was made from; null for what a station saw.</summary>
    public DailyNormals? GeneratedFrom { get; private set; }

    /// <summary>Years of knowledge behind the odds: the years used, or those behind the normals of a generated record.</summary>
    public int KnownYears => GeneratedFrom?.KnownYears ?? YearsUsed.Count;

    /// <summary>How many days were filled by interpolation.</summary>
    public int InterpolatedDays { get; private set; }

    /// <summary>Makes a record from days in any order; a day given twice keeps the later one given.</summary>
    /// <exception cref="InvalidInputException">No day has both temperatures.</exception>
    public static WeatherRecord From(Station station, IEnumerable<WeatherDay> days)
    {
        var given = days.Where(d => !d.IsEmpty).ToList();
        if (!given.Exists(d => d.MinC is not null && d.MaxC is not null))
            throw new InvalidInputException("days", "no day has both a lowest and a highest temperature");
        LocalDate first = given.Min(d => d.Day);
        int length = Period.DaysBetween(first, given.Max(d => d.Day)) + 1;
        var record = new WeatherRecord(station, first, length);
        foreach (WeatherDay day in given)
        {
            int i = Period.DaysBetween(first, day.Day);
            record.MinC[i] = day.MinC ?? record.MinC[i];
            record.MaxC[i] = day.MaxC ?? record.MaxC[i];
            record.PrecipitationMm[i] = day.PrecipitationMm ?? record.PrecipitationMm[i];
            record.SnowDepthMm[i] = day.SnowDepthMm ?? record.SnowDepthMm[i];
            record.WindMs[i] = day.WindMs ?? record.WindMs[i];
            record.HumidityPct[i] = day.HumidityPct ?? record.HumidityPct[i];
            record.SunMJ[i] = day.SunMJ ?? record.SunMJ[i];
        }
        record.CountYears();
        record.InterpolatedDays = Interpolate(record.MinC) + Interpolate(record.MaxC);
        return record;
    }

    /// <summary>
    /// The record as it would be at another height: 6.5 °C colder per 1,000 m climbed, the lapse of the standard
    /// atmosphere. Rain, snow and wind stay.
    /// </summary>
    /// <param name="elevationM">Height of the site, m.</param>
    public WeatherRecord AtElevation(double elevationM)
    {
        double shift = LapseCPerKm * (Station.ElevationM - elevationM) / 1000;
        if (Math.Abs(shift) < 0.005)
            return this;
        WeatherRecord moved = Copy(Station with { ElevationM = elevationM });
        for (int i = 0; i < MinC.Length; i++)
        {
            moved.MinC[i] += shift;
            moved.MaxC[i] += shift;
        }
        return moved;
    }

    /// <summary>The record with a spell of heat in every year, to ask what if: the ground is heated with the air.</summary>
    /// <param name="first">First of the days; its place in the year counts.</param>
    /// <param name="days">How many.</param>
    /// <param name="minC">Their lowest, °C; a night that was warmer stays so.</param>
    /// <param name="maxC">Their highest, °C; likewise.</param>
    public WeatherRecord WithHeat(LocalDate first, int days, double minC, double maxC)
    {
        WeatherRecord hot = Copy(Station);
        for (int year = FirstDay.Year - 1; year <= LastDay.Year; year++)
        {
            int from = IndexOf(first.PlusYears(year - first.Year));
            for (int i = Math.Max(0, from); i < Math.Min(MinC.Length, from + days); i++)
                (hot.MinC[i], hot.MaxC[i]) = (Math.Max(MinC[i], minC), Math.Max(MaxC[i], maxC));
        }
        return hot;
    }

    private WeatherRecord Copy(Station station)
    {
        var copy = new WeatherRecord(station, FirstDay, MinC.Length);
        MinC.CopyTo(copy.MinC, 0);
        MaxC.CopyTo(copy.MaxC, 0);
        PrecipitationMm.CopyTo(copy.PrecipitationMm, 0);
        SnowDepthMm.CopyTo(copy.SnowDepthMm, 0);
        WindMs.CopyTo(copy.WindMs, 0);
        HumidityPct.CopyTo(copy.HumidityPct, 0);
        SunMJ.CopyTo(copy.SunMJ, 0);
        foreach ((int year, int index) in _firstIndexOfYear)
            copy._firstIndexOfYear[year] = index;
        copy.YearsUsed = YearsUsed;
        copy.YearsLeftOut = YearsLeftOut;
        copy.InterpolatedDays = InterpolatedDays;
        copy.GeneratedFrom = GeneratedFrom;
        return copy;
    }

    /// <summary>The same record, marked as generated.</summary>
    internal WeatherRecord AsGenerated(DailyNormals normals)
    {
        GeneratedFrom = normals;
        return this;
    }

    /// <summary>True for a station's record of at least one but fewer than <see cref="EnoughYears"/> used years.</summary>
    public bool IsShort => GeneratedFrom is null && YearsUsed.Count is > 0 and < EnoughYears;

    /// <summary>
    /// The record that odds of winters are read off: itself, or for a short one forty years generated from its normals, which smooth it and add no
    /// knowledge.
    /// </summary>
    public WeatherRecord ForOdds => _forOdds.Value;

    /// <summary>The first day of a climate year.</summary>
    public LocalDate YearStart(int year) => new(year, Station.IsSouthern ? 7 : 1, 1);

    /// <summary>The array index of a day; may lie outside the arrays.</summary>
    public int IndexOf(LocalDate day) => Period.DaysBetween(FirstDay, day);

    /// <summary>The array range of a used climate year, clipped to the record.</summary>
    public Range RangeOf(int year)
    {
        int start = _firstIndexOfYear[year];
        int end = IndexOf(YearStart(year + 1));
        return Math.Max(0, start)..Math.Min(MinC.Length, end);
    }

    /// <summary>
    /// Lowest and highest temperature to be expected on a day of the year: the mean over the used years, smoothed over
    /// nine days. 29 February is taken as 28 February. Used to fill what a record lacks.
    /// </summary>
    public (double MinC, double MaxC) ExpectedOn(LocalDate day)
    {
        _meanMin ??= Means(MinC);
        _meanMax ??= Means(MaxC);
        int slot = Slot(day);
        return (_meanMin[slot], _meanMax[slot]);
    }

    /// <summary>The arithmetic behind which years count.</summary>
    public Working ExplainCoverage() =>
        new Working(
            WorkingKind.YearsLeftOut,
            YearsLeftOut.Count,
            [
                new WorkingInput(
                    InputName.Record,
                    GeneratedFrom is { } normals
                        ? (object?)new Fact(WorkingPhrase.GeneratedFrom, ("origin", normals.Origin))
                        : new Fact(WorkingPhrase.YearsLeftOutRecord, ("firstDay", FirstDay), ("lastDay", LastDay))
                ),
                new WorkingInput(InputName.YearsUsed, YearsUsed.Count == 0 ? (object?)WorkingPhrase.None : YearsUsed.Count),
                new WorkingInput(
                    InputName.LeftOut,
                    YearsLeftOut.Count == 0
                        ? (object?)WorkingPhrase.None
                        : new Fact(
                            WorkingPhrase.Listed,
                            (
                                "items",
                                YearsLeftOut
                                    .Select(y =>
                                        (object?)
                                            new Fact(WorkingPhrase.LacksDays, ("year", WeatherYear.Short(y.Year)), ("missingDays", y.MissingDays))
                                    )
                                    .ToList()
                            )
                        )
                ),
            ],
            [new Fact(WorkingPhrase.ReadingsWereInterpolated, ("interpolatedDays", InterpolatedDays))]
        )
        {
            Parts = [("mostMissingDays", MostMissingDays), ("longestInterpolatedGap", LongestInterpolatedGap)],
        };

    private static double[] Empty(int length)
    {
        var values = new double[length];
        Array.Fill(values, double.NaN);
        return values;
    }

    // Day of a 365-day year, 0-based.
    private static int Slot(LocalDate day)
    {
        int month = day.Month;
        int dayOfMonth = month == 2 && day.Day == 29 ? 28 : day.Day;
        return new LocalDate(2001, month, dayOfMonth).DayOfYear - 1;
    }

    private static int Interpolate(double[] values)
    {
        int filled = 0;
        int last = -1;
        for (int i = 0; i < values.Length; i++)
        {
            if (double.IsNaN(values[i]))
                continue;
            int gap = i - last - 1;
            if (last >= 0 && gap is > 0 and <= LongestInterpolatedGap)
            {
                for (int k = 1; k <= gap; k++)
                    values[last + k] = values[last] + ((values[i] - values[last]) * k / (gap + 1));
                filled += gap;
            }
            last = i;
        }
        return filled;
    }

    private void CountYears()
    {
        var used = new List<int>();
        var leftOut = new List<YearLeftOut>();
        int firstYear = Station.IsSouthern && FirstDay.Month < 7 ? FirstDay.Year - 1 : FirstDay.Year;
        for (int year = firstYear; YearStart(year) <= LastDay; year++)
        {
            int start = IndexOf(YearStart(year));
            int end = IndexOf(YearStart(year + 1));
            _firstIndexOfYear[year] = start;
            int missing = 0;
            for (int i = start; i < end; i++)
            {
                if (i < 0 || i >= MinC.Length || double.IsNaN(MinC[i]) || double.IsNaN(MaxC[i]))
                    missing++;
            }
            if (missing > MostMissingDays)
                leftOut.Add(new YearLeftOut(year, missing));
            else
                used.Add(year);
        }
        YearsUsed = used;
        YearsLeftOut = leftOut;
    }

    private double[] Means(double[] values)
    {
        var sum = new double[365];
        var count = new int[365];
        for (int i = 0; i < values.Length; i++)
        {
            if (double.IsNaN(values[i]))
                continue;
            int slot = Slot(FirstDay.PlusDays(i));
            sum[slot] += values[i];
            count[slot]++;
        }
        var smooth = new double[365];
        for (int d = 0; d < 365; d++)
        {
            double total = 0;
            int n = 0;
            for (int k = -4; k <= 4; k++)
            {
                int slot = (d + k + 365) % 365;
                total += sum[slot];
                n += count[slot];
            }
            smooth[d] = n == 0 ? double.NaN : total / n;
        }
        double whole = smooth.Where(v => !double.IsNaN(v)).DefaultIfEmpty(double.NaN).Average();
        for (int d = 0; d < 365; d++)
        {
            if (double.IsNaN(smooth[d]))
                smooth[d] = whole;
        }
        return smooth;
    }
}

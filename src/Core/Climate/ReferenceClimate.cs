using System.Globalization;
using NodaTime;

namespace UnrulyMeadow.Core.Climate;

/// <summary>What a planner knows of a place's climate; each may be left out.</summary>
/// <param name="LastFrost">Day after which a freeze (0 °C) follows in one year of ten; only month and day count.</param>
/// <param name="FirstFrost">Day before which one comes in one year of ten.</param>
/// <param name="ColdestLowC">Mean lowest of the coldest month, °C.</param>
/// <param name="HottestHighC">Mean highest of the hottest month, °C.</param>
public sealed record KnownClimate(LocalDate? LastFrost, LocalDate? FirstFrost, double? ColdestLowC, double? HottestHighC);

/// <summary>A place whose monthly normals ship with the app, for sites that have no record at hand. All from memory.</summary>
/// <param name="Name">The place.</param>
/// <param name="LatitudeDeg">Degrees north.</param>
/// <param name="LongitudeDeg">Degrees east.</param>
/// <param name="Normals">Its normals.</param>
public sealed record ReferenceClimate(string Name, double LatitudeDeg, double LongitudeDeg, MonthlyNormals Normals)
{
    // A frost day that is known shifts the lows of its month, and of those before and after by less.
    private const double Reach = 3;

    // Normals of a place may be moved so far before it is another kind of place.
    private const double MostShiftC = 14;

    private const int Years = 31;
    private const int Seed = 1;

    /// <summary>The places, by name.</summary>
    public static IReadOnlyList<ReferenceClimate> All { get; } = Read();

    /// <summary>The place of a name; null where there is none.</summary>
    public static ReferenceClimate? Find(string? name) => All.FirstOrDefault(c => c.Name == name);

    /// <summary>The station that its normals are kept under.</summary>
    public Station Station => new(Ids.From($"like {Name}", _ => false), $"Like {Name}", LatitudeDeg, LongitudeDeg, 0);

    /// <summary>The same with what is known better of the site: months are moved until they say what is known.</summary>
    /// <param name="known">What is known.</param>
    /// <exception cref="InvalidInputException">No such climate comes of this place; another is to be chosen.</exception>
    public ReferenceClimate With(KnownClimate known)
    {
        double[] low = [.. Normals.MeanMinC];
        double[] high = [.. Normals.MeanMaxC];
        double[] mean = [.. low.Zip(high, (a, b) => (a + b) / 2)];
        double coldest = mean.Min();
        double range = Math.Max(1e-6, mean.Max() - coldest);
        // Winter months take the winter's shift, summer months the summer's, those between of both.
        double winter = known.ColdestLowC is { } cold ? Shift("coldestLowC", cold - low.Min()) : 0;
        double summer =
            known.HottestHighC is { } hot ? Shift("hottestHighC", hot - high.Max())
            : known.ColdestLowC is null ? 0
            : winter / 3;
        winter = known.ColdestLowC is null ? summer / 3 : winter;
        for (int m = 0; m < 12; m++)
        {
            double warm = (mean[m] - coldest) / range;
            low[m] += winter + ((summer - winter) * warm);
            high[m] += winter + ((summer - winter) * warm);
        }
        // Each moves the other's a little: three times over, both hold within a week.
        for (int i = 0; i < 3; i++)
        {
            if (known.LastFrost is { } last)
                Move(low, high, FrostEnd.LastSpring, last, "lastFrost");
            if (known.FirstFrost is { } first)
                Move(low, high, FrostEnd.FirstFall, first, "firstFrost");
        }
        return this with { Normals = Normals with { MeanMinC = low, MeanMaxC = high } };
    }

    private double Shift(string field, double by) =>
        Math.Abs(by) <= MostShiftC ? by : throw new InvalidInputException(field, $"is too far from {Name}'s: choose a place more like yours");

    // Bisects the shift of the lows around a day until a freeze is as likely after (before) it as is known.
    private void Move(double[] low, double[] high, FrostEnd end, LocalDate day, string field)
    {
        double[] Shifted(double by) =>
            [
                .. low.Select(
                    (t, m) =>
                    {
                        double apart = Math.Abs(m + 1 - (day.Month + ((day.Day - 15) / 30.0)));
                        return t + (by * Math.Max(0, Math.Cos(Math.PI * Math.Min(apart, 12 - apart) / (2 * Reach))));
                    }
                ),
            ];
        // Days after the known one on which the odds fall: below 0 while it freezes too seldom.
        int Late(double by)
        {
            MonthlyNormals tried = Normals with { MeanMinC = Shifted(by), MeanMaxC = [.. high.Select((t, m) => Math.Max(t, Shifted(by)[m] + 1))] };
            WeatherRecord record = WeatherGenerator.Generate(tried.At(Station), Seed, WeatherYear.FirstGenerated, Years);
            if (FrostOdds.From(record, end, 0).DateAt(FrostOdds.UsualRisk).Date is not { } found)
                return end == FrostEnd.LastSpring ? -400 : 400;
            int apart = found.DayOfYear - new LocalDate(found.Year, day.Month, Math.Min(day.Day, 28)).DayOfYear;
            return apart > 183 ? apart - 365
                : apart < -183 ? apart + 365
                : apart;
        }
        double least = -MostShiftC;
        double most = MostShiftC;
        // Colder lows make the last frost later and the first one earlier.
        bool TooWarm(double by) => end == FrostEnd.LastSpring ? Late(by) < 0 : Late(by) > 0;
        if (TooWarm(least) || !TooWarm(most))
            throw new InvalidInputException(field, $"cannot be had from a climate like {Name}'s: choose a place more like yours");
        while (most - least > 0.1)
        {
            double middle = (least + most) / 2;
            if (TooWarm(middle))
                most = middle;
            else
                least = middle;
        }
        double[] moved = Shifted((least + most) / 2);
        for (int m = 0; m < 12; m++)
            (low[m], high[m]) = (moved[m], Math.Max(high[m], moved[m] + 1));
    }

    private static IReadOnlyList<ReferenceClimate> Read()
    {
        using Stream stream = typeof(ReferenceClimate).Assembly.GetManifestResourceStream("reference-climates.txt")!;
        using var reader = new StreamReader(stream);
        var all = new List<ReferenceClimate>();
        while (reader.ReadLine() is { } line)
        {
            if (line.Length == 0 || line[0] == '#')
                continue;
            string[] cells = line.Split(';', StringSplitOptions.TrimEntries);
            double Celsius(string text) => double.Parse(text, CultureInfo.InvariantCulture) is var t && cells[4] == "F" ? FrostOdds.CelsiusOf(t) : t;
            string[][] months = [.. cells[5].Split(' ').Select(m => m.Split('/'))];
            all.Add(
                new ReferenceClimate(
                    cells[0],
                    double.Parse(cells[1], CultureInfo.InvariantCulture),
                    double.Parse(cells[2], CultureInfo.InvariantCulture),
                    new MonthlyNormals([.. months.Select(m => Celsius(m[1]))], [.. months.Select(m => Celsius(m[0]))], null, cells[3])
                )
            );
        }
        return all;
    }
}

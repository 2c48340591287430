using MathNet.Numerics.Statistics;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Accuracy;

/// <summary>A climate in which dates are tried.</summary>
/// <param name="Name">Its name, by which windows call it.</param>
/// <param name="Record">Its weather: a station's days, or years generated from monthly normals.</param>
/// <param name="FirstYear">First year whose flowering counts.</param>
/// <param name="LastYear">Last year whose flowering counts.</param>
public sealed record AccuracyClimate(string Name, WeatherRecord Record, int FirstYear, int LastYear)
{
    private const int Seed = 1;
    private const int Years = 31;

    /// <summary>A climate known by its twelve monthly normals: the years that a site with these normals would be given.</summary>
    public static AccuracyClimate From(string name, double latitudeDeg, MonthlyNormals normals) =>
        new(
            name,
            WeatherGenerator.Generate(normals.At(new Station("accuracy", name, latitudeDeg, 0, 0)), Seed, WeatherYear.FirstGenerated, Years + 1),
            WeatherYear.FirstGenerated,
            WeatherYear.FirstGenerated + Years
        );

    /// <summary>
    /// A climate known by a few years of days. Two years before them and one after are filled with what is usual, so that
    /// every year of the record has a fall before its spring.
    /// </summary>
    public static AccuracyClimate From(string name, WeatherRecord record)
    {
        IEnumerable<WeatherDay> Days()
        {
            var end = new LocalDate(record.LastDay.Year + 2, 1, 1);
            for (var d = new LocalDate(record.FirstDay.Year - 2, 1, 1); d < end; d = d.PlusDays(1))
            {
                int i = record.IndexOf(d);
                (double min, double max) =
                    i >= 0 && i < record.MinC.Length && !double.IsNaN(record.MinC[i]) && !double.IsNaN(record.MaxC[i])
                        ? (record.MinC[i], record.MaxC[i])
                        : record.ExpectedOn(d);
                yield return new WeatherDay(d, min, max, null);
            }
        }
        return new(name, WeatherRecord.From(record.Station, Days()), record.FirstDay.Year, record.LastDay.Year);
    }

    /// <summary>Hardiness zone by the mean of annual minima.</summary>
    public string Zone => HardinessZone.From(Record).Name;
}

/// <summary>A customary window of first good colour in a climate.</summary>
/// <param name="PlantId">The plant.</param>
/// <param name="Part">Which of its colours.</param>
/// <param name="Climate">The climate's name.</param>
/// <param name="From">First day, in the common year 2001.</param>
/// <param name="To">Last day; may lie after the turn of the year.</param>
public sealed record AccuracyWindow(string PlantId, ColourPart Part, string Climate, AnnualDate From, AnnualDate To);

/// <summary>A window with what the rules give.</summary>
/// <param name="Window">The window.</param>
/// <param name="Median">Median day of first colour over the years; null when it shows in fewer than half of them.</param>
/// <param name="Early">Day of one year in ten.</param>
/// <param name="Late">Day of nine years in ten.</param>
/// <param name="YearsShown">Years in which it shows.</param>
/// <param name="Years">Years tried.</param>
/// <param name="DaysOff">Days outside the window; negative for too early, 0 within it.</param>
public sealed record AccuracyCell(
    AccuracyWindow Window,
    AnnualDate? Median,
    AnnualDate? Early,
    AnnualDate? Late,
    int YearsShown,
    int Years,
    int DaysOff
);

/// <summary>Tries the dates of a palette against customary windows in many climates.</summary>
/// <param name="Climates">The climates.</param>
/// <param name="Windows">The windows.</param>
public sealed record AccuracyTable(IReadOnlyList<AccuracyClimate> Climates, IReadOnlyList<AccuracyWindow> Windows)
{
    private const int PlanYear = 2027;

    /// <summary>Every window with its result, in the windows' order. Established plants, bulbs 15 cm deep in a bed under thin litter.</summary>
    /// <param name="palette">The plants.</param>
    /// <exception cref="InvalidInputException">A window names a plant or climate that is not there.</exception>
    public IReadOnlyList<AccuracyCell> Try(IReadOnlyList<Plant> palette)
    {
        var faults = new FaultList();
        var plants = palette.ToDictionary(p => p.Id, StringComparer.Ordinal);
        var climates = Climates.ToDictionary(c => c.Name, StringComparer.Ordinal);
        for (int i = 0; i < Windows.Count; i++)
        {
            AccuracyWindow w = Windows[i];
            if (!plants.TryGetValue(w.PlantId, out Plant? plant))
                faults.Add($"windows[{i}].plant", $"\"{w.PlantId}\" is not in the palette");
            else if (plant.Windows.All(x => x.Part != w.Part))
                faults.Add($"windows[{i}].part", $"\"{w.PlantId}\" shows no {w.Part}");
            if (!climates.ContainsKey(w.Climate))
                faults.Add($"windows[{i}].climate", $"there is no climate \"{w.Climate}\"");
        }
        faults.ThrowIfAny();
        var seasons = new Dictionary<(string, LocalDate), IReadOnlyList<GrowingSeason>>();
        return
        [
            .. Windows.Select(w =>
            {
                AccuracyClimate climate = climates[w.Climate];
                LocalDate start = StartFor(w);
                if (!seasons.TryGetValue((w.Climate, start), out IReadOnlyList<GrowingSeason>? runs))
                {
                    int yearOfWindow = w.From.InYear(start.Year) < start ? 1 : 0;
                    runs = seasons[(w.Climate, start)] = [
                        .. WeatherRun
                            .For(climate.Record, start)
                            .Where(r => r.Year + yearOfWindow >= climate.FirstYear && r.Year + yearOfWindow <= climate.LastYear)
                            .Select(r => new GrowingSeason(r, climate.Record.Station.IsSouthern)),
                    ];
                }
                return CellOf(w, First(plants[w.PlantId], w.Part, runs, start, BulbPlace.UsualBed), start);
            }),
        ];
    }

    /// <summary>First day of colour by weather year, as days of the plan year; −1 where none shows.</summary>
    /// <param name="plant">The plant.</param>
    /// <param name="part">Which of its colours.</param>
    /// <param name="runs">The years.</param>
    /// <param name="start">First day of the plan year.</param>
    /// <param name="place">Where a bulb lies.</param>
    public static IReadOnlyList<int> First(Plant plant, ColourPart part, IReadOnlyList<GrowingSeason> runs, LocalDate start, BulbPlace place)
    {
        LocalDate planted = plant.Windows.Any(w => w.Rule.FollowsTheCrew) ? start : start.PlusYears(-3);
        var standing = new Standing(planted, planted, start.PlusYears(2), place, 0, false, []);
        PlantYears years = PlantYears.Of(plant, standing, runs, start);
        int window = plant.Windows.ToList().FindIndex(w => w.Part == part);
        return
        [
            .. Enumerable
                .Range(0, runs.Count)
                .Select(y =>
                {
                    ReadOnlySpan<float> share = years.Share(window, y);
                    // What still stands from the year before is not this year's first colour.
                    int d = 0;
                    while (d < share.Length && share[d] >= ColourOdds.Shows)
                        d++;
                    while (d < share.Length && share[d] < ColourOdds.Shows)
                        d++;
                    return d < share.Length ? d : -1;
                }),
        ];
    }

    // A year that has the window in its middle, so that no season is cut in two.
    private static LocalDate StartFor(AccuracyWindow w)
    {
        LocalDate middle = w.From.InYear(PlanYear).PlusMonths(-5);
        return new LocalDate(middle.Year, middle.Month, 1);
    }

    private static AccuracyCell CellOf(AccuracyWindow w, IReadOnlyList<int> first, LocalDate start)
    {
        double[] shown = [.. first.Where(d => d >= 0).Select(d => (double)d)];
        if (shown.Length * 2 < first.Count || shown.Length == 0)
            return new AccuracyCell(w, null, null, null, shown.Length, first.Count, 365);
        int median = (int)Math.Round(shown.Median(), MidpointRounding.AwayFromZero);
        AnnualDate Date(double day)
        {
            LocalDate d = start.PlusDays((int)Math.Round(day));
            return new AnnualDate(d.Month, d.Day);
        }
        LocalDate from = w.From.InYear(start.Year) < start ? w.From.InYear(start.Year + 1) : w.From.InYear(start.Year);
        LocalDate to = w.To.InYear(from.Year) < from ? w.To.InYear(from.Year + 1) : w.To.InYear(from.Year);
        int early = Period.DaysBetween(start, from) - median;
        int late = median - Period.DaysBetween(start, to);
        int off = early > 0 ? -early : Math.Max(0, late);
        return new AccuracyCell(
            w,
            Date(median),
            Date(shown.QuantileCustom(0.1, QuantileDefinition.R7)),
            Date(shown.QuantileCustom(0.9, QuantileDefinition.R7)),
            shown.Length,
            first.Count,
            off
        );
    }
}

using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Care;

/// <summary>When things happen this year: the plan year's usual days, moved by as much as the season is ahead.</summary>
public sealed class CareSeason
{
    // Warmth above this counts for how far a season is, °C (common practice: growing degree-days).
    private const double BaseC = 5;

    // Fewer measured days say nothing of a season; and no season is taken to be farther off than this.
    private const int FewestDays = 30;
    private const int MostDays = 28;

    // A week's mean above this is spring: growth begins, °C (common practice: 41 °F).
    private const double GrowthC = 5;

    private readonly Dictionary<(string Display, string Plant), (LocalDate First, LocalDate Last)> _flowers = [];

    private CareSeason(int daysAhead, LocalDate? growthBegins, bool southern)
    {
        DaysAhead = daysAhead;
        GrowthBegins = growthBegins;
        IsSouthern = southern;
    }

    /// <summary>Days by which the season is ahead of most years; less than 0 for a late one.</summary>
    public int DaysAhead { get; }

    /// <summary>When growth begins this spring; the middle of the last month of winter where it never stops; null where nothing is known.</summary>
    public LocalDate? GrowthBegins { get; }

    /// <summary>True south of the equator.</summary>
    public bool IsSouthern { get; }

    /// <summary>First and last day on which a kind shows flowers in a display; null where it shows none this plan year.</summary>
    public (LocalDate First, LocalDate Last)? Flowers(string displayId, string plantId) =>
        _flowers.TryGetValue((displayId, plantId), out var days) ? days : null;

    /// <summary>Six months on in the south: a day of the northern year as it falls in this hemisphere.</summary>
    /// <param name="day">Any day of the year that is asked about.</param>
    /// <param name="month">Month in the north.</param>
    /// <param name="date">Day of the month.</param>
    public LocalDate InSeason(LocalDate day, int month, int date) => new(day.Year, IsSouthern ? ((month + 5) % 12) + 1 : month, date);

    /// <summary>Reads a plan year.</summary>
    /// <param name="year">The plan year; null where none is worked out yet, and then no plant is known to flower.</param>
    /// <param name="record">The site's record; null where none is known.</param>
    /// <param name="days">Days that a station measured.</param>
    /// <param name="today">The day.</param>
    public static CareSeason Of(SiteYear? year, WeatherRecord? record, IReadOnlyCollection<CareDay> days, LocalDate today)
    {
        bool southern = record?.Station.IsSouthern ?? false;
        int ahead = record is null ? 0 : Ahead(record, days, today, southern);
        var season = new CareSeason(ahead, record is null ? null : Growth(record, today, southern, ahead), southern);
        if (year is null)
            return season;
        foreach (PlanterSeason planter in year.Planters)
        {
            foreach (var bands in planter.Bands.Where(b => b.Window.Part == ColourPart.Flower).GroupBy(b => (b.DisplayId, b.Plant.Id)))
            {
                int first = int.MaxValue;
                int last = -1;
                foreach (ColourBand band in bands)
                {
                    float shows = band.Peak * (float)ColourOdds.Shows;
                    if (shows <= 0)
                        continue;
                    for (int d = 0; d < band.MeanCover.Length; d++)
                    {
                        if (band.MeanCover[d] < shows)
                            continue;
                        first = Math.Min(first, d);
                        last = Math.Max(last, d);
                    }
                }
                if (last >= 0)
                    season._flowers[bands.Key] = (On(first), On(last));
            }
        }
        return season;

        LocalDate On(int index) => year.Start.PlusDays(index - ahead);
    }

    // The usual warmth since the year began has been reached so many days sooner than usual.
    private static int Ahead(WeatherRecord record, IReadOnlyCollection<CareDay> days, LocalDate today, bool southern)
    {
        LocalDate begin = new(today.Year, southern ? 7 : 1, 1);
        if (begin > today)
            begin = begin.PlusYears(-1);
        List<CareDay> measured = [.. days.Where(d => d.Source == CareDaySource.Measured && d.Day >= begin && d.Day <= today).OrderBy(d => d.Day)];
        if (measured.Count < FewestDays)
            return 0;
        // Only days that were measured are compared.
        double had = measured.Sum(d => Warmth(d.MeanC)) - measured.Sum(d => Usual(d.Day));
        int moved = 0;
        for (int step = Math.Sign(had); step != 0 && Math.Abs(moved) < MostDays; moved += step)
        {
            double next = Usual(today.PlusDays(step > 0 ? moved + 1 : moved));
            if (next <= 0 || Math.Abs(had) < next / 2)
                break;
            had -= step * next;
            if (Math.Sign(had) != step)
            {
                moved += step;
                break;
            }
        }
        return moved;

        double Usual(LocalDate day) => record.ExpectedOn(day) is var e && double.IsNaN(e.MinC) ? 0 : Warmth((e.MinC + e.MaxC) / 2);
    }

    private static double Warmth(double meanC) => Math.Max(0, meanC - BaseC);

    private static LocalDate? Growth(WeatherRecord record, LocalDate today, bool southern, int ahead)
    {
        // The coldest weeks lie behind when spring is looked for.
        LocalDate from = new(today.Year, southern ? 7 : 1, 15);
        for (int d = 0; d < 180; d++)
        {
            (double min, double max) = record.ExpectedOn(from.PlusDays(d));
            if (double.IsNaN(min))
                return null;
            if ((min + max) / 2 >= GrowthC)
                // Where growth never stops, what is cut in spring is cut in the last month of winter (common practice).
                return (d == 0 ? from.PlusMonths(1) : from.PlusDays(d)).PlusDays(-ahead);
        }
        return null;
    }
}

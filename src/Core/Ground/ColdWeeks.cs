using MathNet.Numerics.Statistics;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Ground;

/// <summary>A kind of bulb with the cold it wants; handbook ranges from memory.</summary>
/// <param name="Name">The kind.</param>
/// <param name="LowWeeks">Fewest weeks for good flowers.</param>
/// <param name="HighWeeks">Weeks after which more does nothing.</param>
/// <param name="UsualDepthCm">Usual depth to its base, cm.</param>
public sealed record BulbKind(string Name, double LowWeeks, double HighWeeks, double UsualDepthCm)
{
    /// <summary>The kinds a crew plants.</summary>
    public static IReadOnlyList<BulbKind> All { get; } =
    [
        new("snowdrop", 10, 15, 8),
        new("crocus and muscari", 8, 15, 8),
        new("hyacinth", 10, 14, 15),
        new("daffodil", 12, 16, 15),
        new("tulip", 12, 18, 18),
    ];
}

/// <summary>The cold that bulbs planted on a day get before spring warms the medium, over all winters.</summary>
/// <param name="Planted">Planting day of the common year.</param>
/// <param name="Weeks">Weeks of cold of each winter.</param>
public sealed record ColdWeeks(LocalDate Planted, IReadOnlyList<(int Year, double Weeks)> Weeks)
{
    /// <summary>Weeks of cold that a share of the winters gives: 0.9 for what nine in ten have.</summary>
    public double ReachedBy(double share) =>
        Weeks.Count == 0 ? double.NaN : Weeks.Select(w => w.Weeks).QuantileCustom(1 - share, QuantileDefinition.R7);

    /// <summary>Share of winters that fall short of a kind's need.</summary>
    public double ShareShort(BulbKind kind) => Weeks.Count == 0 ? double.NaN : (double)Weeks.Count(w => w.Weeks < kind.LowWeeks) / Weeks.Count;

    /// <summary>Weeks lacking in the middle winter; 0 when there are enough.</summary>
    public double Shortfall(BulbKind kind) => Math.Max(0, kind.LowWeeks - ReachedBy(0.5));

    /// <summary>
    /// Counts credits of cold (see <see cref="ColdCredit"/>) from planting, or from the first day below 13 °C after it,
    /// until the week's mean passes 13 °C after midwinter.
    /// </summary>
    /// <param name="soil">Daily means at bulb depth, over the record.</param>
    /// <param name="record">The weather behind it.</param>
    /// <param name="planted">Planting day; only its place in the year counts.</param>
    public static ColdWeeks From(float[] soil, WeatherRecord record, LocalDate planted)
    {
        var weeks = new List<(int, double)>();
        foreach (BulbYear year in BulbYear.Of(record))
        {
            LocalDate first = record.FirstDay.PlusDays(year.From);
            var day = new LocalDate(first.Year, planted.Month, planted.Month == 2 && planted.Day == 29 ? 28 : planted.Day);
            if (day < first)
                day = day.PlusYears(1);
            int from = year.From + Period.DaysBetween(first, day);
            int midwinter = year.From + 184;
            double credit = 0;
            double week = double.NaN;
            for (int i = from; i < year.From + year.Days; i++)
            {
                week = double.IsNaN(week) ? soil[i] : week + ((soil[i] - week) / 7);
                if (i > midwinter && week > ColdCredit.UpperC)
                    break;
                credit += ColdCredit.Of(soil[i]);
            }
            weeks.Add((year.Year, credit / 7));
        }
        return new ColdWeeks(planted, weeks);
    }

    /// <summary>
    /// The last planting day, by weeks of the common year, on which a share of the winters still gives a kind its fewest
    /// weeks; null when no day does.
    /// </summary>
    /// <param name="soil">Daily means at bulb depth, over the record.</param>
    /// <param name="record">The weather behind it.</param>
    /// <param name="kind">The kind.</param>
    /// <param name="share">0 to 1, e.g. 0.9.</param>
    public static LocalDate? LatestDay(float[] soil, WeatherRecord record, BulbKind kind, double share)
    {
        LocalDate start = BulbCalendar.CommonStart(record.Station.IsSouthern);
        LocalDate? latest = null;
        // The later the planting, the less the cold: halving finds the week at which it falls short.
        int low = 0;
        int high = 34;
        while (low <= high)
        {
            int week = (low + high) / 2;
            LocalDate day = start.PlusDays(week * 7);
            if (From(soil, record, day).ReachedBy(share) >= kind.LowWeeks)
            {
                latest = day;
                low = week + 1;
            }
            else
            {
                high = week - 1;
            }
        }
        return latest;
    }

    /// <summary>The arithmetic behind the weeks.</summary>
    public Working Explain(BulbKind kind, ThermalClass what, double depthCm) =>
        new Working(
            WorkingKind.ColdWeeks,
            new Fact(WorkingPhrase.WeeksInMiddleWinter, ("reachedBy", Quantity.Number(ReachedBy(0.5), 1))),
            [
                new WorkingInput(
                    InputName.Where,
                    new Fact(WorkingPhrase.ColdWeeksWhereDeep, ("depth", Quantity.Cm(depthCm)), ("describe", what.Describe()))
                ),
                new WorkingInput(
                    InputName.Wanted,
                    new Fact(
                        WorkingPhrase.ColdWeeksWantedWeeks,
                        ("lowWeeks", Quantity.Number(kind.LowWeeks)),
                        ("highWeeks", Quantity.Number(kind.HighWeeks))
                    )
                ),
                new WorkingInput(
                    InputName.ByWinter,
                    new Fact(WorkingPhrase.Listed, ("items", Weeks.Take(40).Select(w => (object?)Quantity.Number(w.Weeks, 1)).ToList()))
                ),
            ],
            [
                new Fact(
                    WorkingPhrase.NineWintersInTenGiveLeast,
                    ("reachedBy", Quantity.Number(ReachedBy(0.9), 1)),
                    ("kind", Quantity.Share(ShareShort(kind)))
                ),
            ]
        )
        {
            Parts = [("kind", kind.Name), ("planted", Planted)],
        };
}

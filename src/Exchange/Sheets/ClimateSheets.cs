using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;

namespace UnrulyMeadow.Exchange.Sheets;

/// <summary>The climate's figures as CSV, in °C and days; see <see cref="CsvSheets"/> for the form.</summary>
public static class ClimateSheets
{
    private static readonly double[] Shares = [0.1, 0.5, 0.9];

    /// <summary>Frost dates as odds, one a line.</summary>
    public static byte[] Frost(IEnumerable<FrostOdds> odds) =>
        CsvSheets.Write(csv =>
        {
            CsvSheets.Row(csv, "end", "threshold C", "odds", "date", "by ranks", "standard error days", "share of years without", "years");
            foreach (FrostOdds o in odds)
            {
                foreach (double share in Shares)
                {
                    OddsDate at = o.DateAt(share);
                    CsvSheets.Row(
                        csv,
                        o.End == FrostEnd.LastSpring ? "last spring" : "first fall",
                        Number(o.ThresholdC),
                        Number(share),
                        Date(at.Date),
                        Date(at.RankDate),
                        double.IsNaN(at.StandardErrorDays) ? string.Empty : Number(at.StandardErrorDays),
                        Number(o.ShareWithout),
                        o.Events.Count
                    );
                }
            }
        });

    /// <summary>A band of all years with one on top, one day a line.</summary>
    /// <param name="band">All years.</param>
    /// <param name="onTop">The year on top by day of the common year; null for none.</param>
    /// <param name="southern">True south of the equator.</param>
    public static byte[] Band(DailyBand band, double[]? onTop, bool southern) =>
        CsvSheets.Write(csv =>
        {
            CsvSheets.Row(csv, "day", "lowest C", "1 in 10 below C", "middle C", "1 in 10 above C", "highest C", "year on top C");
            for (int d = 0; d < BulbCalendar.CommonDays; d++)
            {
                CsvSheets.Row(
                    csv,
                    BulbCalendar.CommonStart(southern).PlusDays(d).ToString("MM-dd", null),
                    Number(band.Lowest[d]),
                    Number(band.Low[d]),
                    Number(band.Middle[d]),
                    Number(band.High[d]),
                    Number(band.Highest[d]),
                    onTop is null || double.IsNaN(onTop[d]) ? string.Empty : Number(onTop[d])
                );
            }
        });

    /// <summary>Planting windows, one depth a line.</summary>
    public static byte[] Windows(IEnumerable<PlantingWindow> windows) =>
        CsvSheets.Write(csv =>
        {
            CsvSheets.Row(
                csv,
                "depth cm",
                "opens in 9 of 10",
                "best until in the middle year",
                "safe until in 9 of 10",
                "freezes in 1 of 10",
                "freezes in 5 of 10",
                "share of winters without frost",
                "frozen days"
            );
            foreach (PlantingWindow w in windows)
            {
                CsvSheets.Row(
                    csv,
                    Number(w.DepthCm),
                    Date(w.OpensSafely),
                    Date(w.BestUntil),
                    Date(w.LastSafeDay),
                    Date(w.Freeze.Freezes.By(0.1)),
                    Date(w.Freeze.Freezes.By(0.5)),
                    Number(w.Freeze.Freezes.ShareWithout),
                    Number(w.Freeze.MeanFrozenDays)
                );
            }
        });

    /// <summary>Weeks of cold, one kind and planting day a line.</summary>
    public static byte[] Cold(IEnumerable<(BulbKind Kind, double DepthCm, ColdWeeks Weeks)> cold) =>
        CsvSheets.Write(csv =>
        {
            CsvSheets.Row(
                csv,
                "kind",
                "depth cm",
                "planted",
                "wanted from",
                "wanted to",
                "middle winter weeks",
                "nine winters of ten weeks",
                "short by",
                "share of winters short"
            );
            foreach ((BulbKind kind, double depth, ColdWeeks weeks) in cold)
            {
                CsvSheets.Row(
                    csv,
                    kind.Name,
                    Number(depth),
                    Date(weeks.Planted),
                    Number(kind.LowWeeks),
                    Number(kind.HighWeeks),
                    Number(weeks.ReachedBy(0.5)),
                    Number(weeks.ReachedBy(0.9)),
                    Number(weeks.Shortfall(kind)),
                    Number(weeks.ShareShort(kind))
                );
            }
        });

    /// <summary>Odds that roots live, one place or remedy a line.</summary>
    /// <param name="rows">Places with their winters.</param>
    /// <param name="killingC">What kills the roots, °C.</param>
    /// <param name="estimated">Whether that was estimated.</param>
    public static byte[] Roots(IEnumerable<(string What, RootSurvival Survival)> rows, double killingC, bool estimated) =>
        CsvSheets.Write(csv =>
        {
            CsvSheets.Row(
                csv,
                "where",
                "roots die at C",
                "odds",
                "odds from",
                "odds to",
                "mean lowest C",
                "deviation K",
                "winters",
                "years of knowledge"
            );
            foreach ((string what, RootSurvival survival) in rows)
            {
                (double low, double high) = survival.Between(killingC, estimated);
                CsvSheets.Row(
                    csv,
                    what,
                    Number(killingC),
                    Number(survival.Odds(killingC)),
                    Number(low),
                    Number(high),
                    Number(survival.MeanC),
                    Number(survival.DeviationC),
                    survival.Winters.Count,
                    survival.KnownYears
                );
            }
        });

    /// <summary>What a thermal class felt, one day a line.</summary>
    /// <param name="ground">The class.</param>
    /// <param name="depthCm">The depth asked.</param>
    public static byte[] Days(GroundTemperatures ground, double depthCm) =>
        CsvSheets.Write(csv =>
        {
            CsvSheets.Row(csv, "day", $"mean at {depthCm:0.#} cm C", "root zone lowest C", "root zone mean C", "root zone highest C");
            float[] depth = ground.AtDepth(depthCm);
            for (int i = 0; i < ground.Days; i++)
                CsvSheets.Row(
                    csv,
                    NodaTime.Text.LocalDatePattern.Iso.Format(ground.FirstDay.PlusDays(i)),
                    Number(depth[i]),
                    Number(ground.RootMin[i]),
                    Number(ground.RootMean[i]),
                    Number(ground.RootMax[i])
                );
        });

    /// <summary>Weather that the weather reader takes back, one day a line.</summary>
    public static byte[] Weather(WeatherRecord record) =>
        CsvSheets.Write(csv =>
        {
            CsvSheets.Row(csv, "date", "tmin_c", "tmax_c", "prcp_mm");
            for (int i = 0; i < record.MinC.Length; i++)
                CsvSheets.Row(
                    csv,
                    NodaTime.Text.LocalDatePattern.Iso.Format(record.FirstDay.PlusDays(i)),
                    Number(record.MinC[i]),
                    Number(record.MaxC[i]),
                    Number(record.PrecipitationMm[i])
                );
        });

    /// <summary>Months, one a line.</summary>
    public static byte[] Months(IEnumerable<MonthMeans> months) =>
        CsvSheets.Write(csv =>
        {
            CsvSheets.Row(csv, "month", "mean lowest C", "mean highest C", "rain mm", "days above 30 C", "daylight hours", "ET0 mm a day");
            foreach (MonthMeans m in months)
                CsvSheets.Row(
                    csv,
                    m.Month,
                    Number(m.MeanMinC),
                    Number(m.MeanMaxC),
                    Number(m.PrecipitationMm),
                    Number(m.DaysAbove30C),
                    Number(m.DaylightHours),
                    Number(m.EvapotranspirationMm)
                );
        });

    private static string Date(LocalDate? day) => day?.ToString("MM-dd", null) ?? string.Empty;

    // A number, not its text, so that a frost does not look like a formula.
    private static object Number(double v) => double.IsFinite(v) ? Math.Round(v, 2) : string.Empty;
}

namespace UnrulyMeadow.Core.Climate;

/// <summary>What makes one doubt a record: a warm season in the other hemisphere's months, frost in every month, a frost date that never moves.</summary>
internal static class OddRecord
{
    private const int EnoughYears = 3;

    /// <summary>The doubts.</summary>
    public static IEnumerable<ClimateRemark> Of(WeatherRecord record)
    {
        if (record.YearsUsed.Count == 0)
            yield break;
        var mean = new double[12];
        var lowest = Enumerable.Repeat(double.PositiveInfinity, 12).ToArray();
        var days = new int[12];
        for (int i = 0; i < record.MinC.Length; i++)
        {
            if (double.IsNaN(record.MinC[i]) || double.IsNaN(record.MaxC[i]))
                continue;
            int month = record.FirstDay.PlusDays(i).Month - 1;
            mean[month] += (record.MinC[i] + record.MaxC[i]) / 2;
            lowest[month] = Math.Min(lowest[month], record.MinC[i]);
            days[month]++;
        }
        WorkingInput[] inputs =
        [
            .. Enumerable
                .Range(0, 12)
                .Select(m => new WorkingInput(
                    $"{new NodaTime.LocalDate(2001, m + 1, 1).ToString("MMMM", null)}",
                    $"mean {mean[m] / Math.Max(1, days[m]):0.0} °C, lowest {lowest[m]:0.0} °C"
                )),
        ];
        double Season(int a, int b, int c) => (mean[a] + mean[b] + mean[c]) / Math.Max(1, days[a] + days[b] + days[c]);
        bool southern = Season(11, 0, 1) > Season(5, 6, 7);
        if (!record.Station.IsTropical && southern != record.Station.IsSouthern)
        {
            yield return new ClimateRemark(
                $"The record is warmest around {(southern ? "January" : "July")}, but its station lies {(record.Station.IsSouthern ? "south" : "north")} of the equator: is its latitude's sign right?",
                new Working(
                    "Warm season",
                    southern ? "around January" : "around July",
                    inputs,
                    "Means of June to August and of December to February",
                    "Plain count",
                    []
                )
            );
        }
        if (lowest.All(l => l <= 0))
            yield return new ClimateRemark(
                "It froze in every month of the year in this record: no day is safe for tender plants",
                new Working("Lowest by month", $"{lowest.Max():0.0} °C at best", inputs, "Lowest of each month over all years", "Plain count", [])
            );
        foreach (FrostEnd end in new[] { FrostEnd.LastSpring, FrostEnd.FirstFall })
        {
            FrostOdds odds = FrostOdds.From(record, end, 0);
            if (odds.Events.Count >= EnoughYears && odds.ShareWithout == 0 && odds.StandardDeviationDays == 0)
            {
                yield return new ClimateRemark(
                    $"The {(end == FrostEnd.LastSpring ? "last spring" : "first fall")} frost falls on the same day in all {odds.Events.Count} years: these are hardly days that were measured",
                    odds.Explain(0.5)
                );
            }
        }
    }
}

using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Climate;

/// <summary>
/// What makes one doubt a record: a warm season in the other hemisphere's months, frost in every month, a frost date that never moves.
/// </summary>
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
                    new Fact(WorkingPhrase.DayFullMonth, ("day", new NodaTime.LocalDate(2001, m + 1, 1))),
                    new Fact(
                        WorkingPhrase.MeanAndLowest,
                        ("mean", Quantity.Celsius(mean[m] / Math.Max(1, days[m]), 1)),
                        ("lowest", Quantity.Celsius(lowest[m], 1))
                    )
                )),
        ];
        double Season(int a, int b, int c) => (mean[a] + mean[b] + mean[c]) / Math.Max(1, days[a] + days[b] + days[c]);
        bool southern = Season(11, 0, 1) > Season(5, 6, 7);
        if (!record.Station.IsTropical && southern != record.Station.IsSouthern)
        {
            yield return new ClimateRemark(
                new Fact(
                    ClimateRemarkKind.WrongHemisphere,
                    ("warmest", new NodaTime.LocalDate(2001, southern ? 1 : 7, 1)),
                    ("isSouthern", record.Station.IsSouthern)
                ),
                new Working(WorkingKind.WarmSeason, southern ? (object?)WorkingPhrase.AroundJanuary : WorkingPhrase.AroundJuly, inputs)
            );
        }
        if (lowest.All(l => l <= 0))
            yield return new ClimateRemark(
                new Fact(ClimateRemarkKind.FrostInEveryMonth),
                new Working(
                    WorkingKind.LowestByMonth,
                    new Fact(WorkingPhrase.LowestByMonthValueBest, ("lowest", Quantity.Celsius(lowest.Max(), 1))),
                    inputs
                )
            );
        foreach (FrostEnd end in new[] { FrostEnd.LastSpring, FrostEnd.FirstFall })
        {
            FrostOdds odds = FrostOdds.From(record, end, 0);
            if (odds.Events.Count >= EnoughYears && odds.ShareWithout == 0 && odds.StandardDeviationDays == 0)
            {
                yield return new ClimateRemark(
                    new Fact(ClimateRemarkKind.FrostDateNeverMoves, ("isSpring", end == FrostEnd.LastSpring), ("years", odds.Events.Count)),
                    odds.Explain(0.5)
                );
            }
        }
    }
}

using NodaTime;
using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Climate;

/// <summary>Something that the years of a record show as a whole.</summary>
/// <param name="Says">What, with its figures: of a <see cref="ClimateRemarkKind"/>.</param>
/// <param name="Working">The arithmetic.</param>
public sealed record ClimateRemark(Fact Says, Working Working);

/// <summary>Trends of thirty years and more, and a hint that the station itself changed.</summary>
/// <param name="All">The remarks; empty when nothing shows.</param>
public sealed record ClimateRemarks(IReadOnlyList<ClimateRemark> All)
{
    /// <summary>Looks through a record's used years.</summary>
    public static ClimateRemarks From(WeatherRecord record)
    {
        if (record.GeneratedFrom is not null)
            return new ClimateRemarks([]);
        var remarks = new List<ClimateRemark>(OddRecord.Of(record));
        (int Year, double Value)[] means = [.. record.YearsUsed.Select(y => (y, Mean(record, y)))];
        if (YearlyTrend.Of(means) is { IsRemarkable: true } warming)
            remarks.Add(
                new ClimateRemark(
                    new Fact(
                        warming.PerDecade > 0 ? ClimateRemarkKind.YearsGrowWarmer : ClimateRemarkKind.YearsGrowColder,
                        ("change", Quantity.CelsiusApart(Math.Abs(warming.PerDecade), 1))
                    ),
                    warming.Explain(WorkingPhrase.YearlyMeanTemperature, Dimension.TemperatureDifference)
                )
            );
        FrostOdds spring = FrostOdds.From(record, FrostEnd.LastSpring, 0);
        (int, double)[] last =
        [
            .. spring.Events.Where(e => e.Day is not null).Select(e => (e.Year, (double)Period.DaysBetween(record.YearStart(e.Year), e.Day!.Value))),
        ];
        if (YearlyTrend.Of(last) is { IsRemarkable: true } frost)
            remarks.Add(
                new ClimateRemark(
                    new Fact(
                        frost.PerDecade < 0 ? ClimateRemarkKind.LastFrostEarlier : ClimateRemarkKind.LastFrostLater,
                        ("change", Quantity.Days(Math.Abs(frost.PerDecade), 1))
                    ),
                    frost.Explain(WorkingPhrase.LastSpringFrost, Dimension.Days)
                )
            );
        (int, double)[] heat = [.. HeatSpells.From(record).Years.Select(y => (y.Year, (double)y.Days))];
        if (YearlyTrend.Of(heat) is { IsRemarkable: true } hot && Math.Abs(hot.PerDecade) >= 0.5)
            remarks.Add(
                new ClimateRemark(
                    new Fact(
                        hot.PerDecade > 0 ? ClimateRemarkKind.HotDaysGrow : ClimateRemarkKind.HotDaysFall,
                        ("change", Quantity.Number(Math.Abs(hot.PerDecade), 1))
                    ),
                    hot.Explain(WorkingPhrase.DaysAboveHeat, Dimension.Days)
                )
            );
        if (HomogeneityHint.Of(means) is { } jump)
            remarks.Add(
                new ClimateRemark(
                    new Fact(
                        ClimateRemarkKind.JumpOfTheMean,
                        ("change", Quantity.CelsiusApart(jump.JumpC, 1)),
                        ("year", WeatherYear.Short(jump.FirstYearAfter))
                    ),
                    jump.Explain()
                )
            );
        return new ClimateRemarks(remarks);
    }

    private static double Mean(WeatherRecord record, int year)
    {
        (int from, int length) = record.RangeOf(year).GetOffsetAndLength(record.MinC.Length);
        double sum = 0;
        int n = 0;
        for (int i = from; i < from + length; i++)
        {
            double v = (record.MinC[i] + record.MaxC[i]) / 2;
            if (double.IsNaN(v))
                continue;
            sum += v;
            n++;
        }
        return sum / Math.Max(1, n);
    }
}

using NodaTime;

namespace UnrulyMeadow.Core.Climate;

/// <summary>Something that the years of a record show as a whole.</summary>
/// <param name="What">A sentence with its figures.</param>
/// <param name="Working">The arithmetic.</param>
public sealed record ClimateRemark(string What, Working Working);

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
                    $"The years grow {(warming.PerDecade > 0 ? "warmer" : "colder")} by {Math.Abs(warming.PerDecade):0.0} °C in ten years",
                    warming.Explain("Yearly mean temperature", "°C")
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
                    $"The last spring frost comes {Math.Abs(frost.PerDecade):0.0} days {(frost.PerDecade < 0 ? "earlier" : "later")} in ten years: odds of all years lag behind",
                    frost.Explain("Last spring frost", "days")
                )
            );
        (int, double)[] heat = [.. HeatSpells.From(record).Years.Select(y => (y.Year, (double)y.Days))];
        if (YearlyTrend.Of(heat) is { IsRemarkable: true } hot && Math.Abs(hot.PerDecade) >= 0.5)
            remarks.Add(
                new ClimateRemark(
                    $"Hot days {(hot.PerDecade > 0 ? "grow" : "fall")} by {Math.Abs(hot.PerDecade):0.0} a year in ten years",
                    hot.Explain("Days above 30 °C", "days")
                )
            );
        if (HomogeneityHint.Of(means) is { } jump)
            remarks.Add(
                new ClimateRemark(
                    $"The yearly mean jumps by {jump.JumpC:+0.0;−0.0} °C in {jump.FirstYearAfter}: was the station moved or its thermometer replaced?",
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

using MathNet.Numerics.Distributions;
using MathNet.Numerics.Statistics;
using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Climate;

/// <summary>Whether one figure a year rises or falls: Mann and Kendall's test with Sen's slope.</summary>
/// <param name="Years">Years asked.</param>
/// <param name="PerDecade">Median slope between all pairs of years, units per ten years.</param>
/// <param name="PValue">Chance of as clear an order without a trend, two-sided.</param>
public sealed record YearlyTrend(int Years, double PerDecade, double PValue)
{
    /// <summary>Fewest years of which a trend is spoken.</summary>
    public const int FewestYears = 30;

    /// <summary>True for 30 years or more and a chance below 0.05.</summary>
    public bool IsRemarkable => Years >= FewestYears && PValue < 0.05;

    /// <summary>Tests a series.</summary>
    /// <param name="points">Year and value, at least three.</param>
    public static YearlyTrend? Of(IReadOnlyList<(int Year, double Value)> points)
    {
        int n = points.Count;
        if (n < 3)
            return null;
        int s = 0;
        var slopes = new List<double>(n * (n - 1) / 2);
        for (int i = 0; i < n; i++)
        {
            for (int j = i + 1; j < n; j++)
            {
                s += Math.Sign(points[j].Value - points[i].Value);
                slopes.Add((points[j].Value - points[i].Value) / (points[j].Year - points[i].Year));
            }
        }
        double ties = points.GroupBy(p => p.Value).Select(g => (double)g.Count()).Sum(t => t * (t - 1) * ((2 * t) + 5));
        double variance = (((double)n * (n - 1) * ((2 * n) + 5)) - ties) / 18;
        double z = s == 0 || variance <= 0 ? 0 : (s - Math.Sign(s)) / Math.Sqrt(variance);
        return new YearlyTrend(n, slopes.Median() * 10, 2 * (1 - Normal.CDF(0, 1, Math.Abs(z))));
    }

    /// <summary>The arithmetic behind the trend.</summary>
    /// <param name="figure">What was measured each year.</param>
    /// <param name="dimension">What it is measured in.</param>
    public Working Explain(WorkingPhrase figure, Dimension dimension) =>
        new Working(
            WorkingKind.YearlyTrend,
            new Fact(WorkingPhrase.InTenYears, ("perDecade", new Quantity(PerDecade, dimension, 2))),
            [new WorkingInput(InputName.Years, Years), new WorkingInput(InputName.ChanceWithoutATrend, Quantity.Number(PValue, 3))]
        )
        {
            Parts = [("figure", figure)],
        };
}

/// <summary>
/// A hint that a station changed: one jump in the yearly means that a steady climate would rarely show, as when it was
/// moved or its thermometer replaced. Alexandersson's standard normal homogeneity test (1986), without a neighbour to
/// compare with, so it is a hint and no more.
/// </summary>
/// <param name="FirstYearAfter">The first year after the jump.</param>
/// <param name="JumpC">How much warmer the later part is, °C.</param>
/// <param name="Statistic">The test's greatest value.</param>
/// <param name="Critical">What one steady series in twenty passes.</param>
public sealed record HomogeneityHint(int FirstYearAfter, double JumpC, double Statistic, double Critical)
{
    /// <summary>Fewest years tested.</summary>
    public const int FewestYears = 10;

    // Passed by one in twenty steady series of n years: our own simulation of 60,000 series each.
    private static readonly (int N, double Value)[] OneInTwenty =
    [
        (10, 5.63),
        (15, 6.53),
        (20, 7.08),
        (30, 7.76),
        (50, 8.41),
        (70, 8.90),
        (100, 9.16),
        (150, 9.58),
    ];

    /// <summary>The hint of a series of yearly means; null when nothing shows, or a steady trend explains it better.</summary>
    public static HomogeneityHint? Of(IReadOnlyList<(int Year, double Value)> points)
    {
        int n = points.Count;
        if (n < FewestYears)
            return null;
        double mean = points.Average(p => p.Value);
        double sd = Math.Sqrt(points.Sum(p => (p.Value - mean) * (p.Value - mean)) / (n - 1));
        if (sd <= 0)
            return null;
        (double greatest, int at) = Greatest([.. points.Select(p => (p.Value - mean) / sd)]);
        double critical = CriticalOf(n);
        if (greatest < critical)
            return null;
        double before = points.Take(at).Average(p => p.Value);
        double after = points.Skip(at).Average(p => p.Value);
        double step = points.Take(at).Sum(p => Square(p.Value - before)) + points.Skip(at).Sum(p => Square(p.Value - after));
        double yearMean = points.Average(p => (double)p.Year);
        double slope = points.Sum(p => (p.Year - yearMean) * (p.Value - mean)) / points.Sum(p => Square(p.Year - yearMean));
        double line = points.Sum(p => Square(p.Value - mean - (slope * (p.Year - yearMean))));
        return step < line ? new HomogeneityHint(points[at].Year, after - before, greatest, critical) : null;
    }

    /// <summary>Greatest of k z̄₁² + (n−k) z̄₂² over all divisions, and where.</summary>
    public static (double Value, int At) Greatest(IReadOnlyList<double> z)
    {
        double total = z.Sum();
        double sum = 0;
        (double Value, int At) best = (0, 1);
        for (int k = 1; k < z.Count; k++)
        {
            sum += z[k - 1];
            double value = (sum * sum / k) + ((total - sum) * (total - sum) / (z.Count - k));
            if (value > best.Value)
                best = (value, k);
        }
        return best;
    }

    /// <summary>What one steady series in twenty passes, for n years.</summary>
    public static double CriticalOf(int n)
    {
        int i = Array.FindIndex(OneInTwenty, c => c.N >= n);
        if (i < 0)
            return OneInTwenty[^1].Value;
        if (i == 0 || OneInTwenty[i].N == n)
            return OneInTwenty[i].Value;
        (int n0, double v0) = OneInTwenty[i - 1];
        (int n1, double v1) = OneInTwenty[i];
        return v0 + ((v1 - v0) * (n - n0) / (n1 - n0));
    }

    /// <summary>The arithmetic behind the hint.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.JumpOfYearlyMean,
            new Fact(WorkingPhrase.FromOn, ("jump", Quantity.CelsiusApart(JumpC, 1)), ("firstYearAfter", FirstYearAfter)),
            [
                new WorkingInput(InputName.GreatestValueOfTheTest, Quantity.Number(Statistic, 1)),
                new WorkingInput(InputName.OneSteadySeriesInTwentyPasses, Quantity.Number(Critical, 1)),
            ],
            [WorkingPhrase.NoNeighbouringStationWasComparedClimate]
        );

    private static double Square(double v) => v * v;
}

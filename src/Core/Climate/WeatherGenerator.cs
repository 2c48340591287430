using MathNet.Numerics.Distributions;
using MathNet.Numerics.Random;
using NodaTime;

namespace UnrulyMeadow.Core.Climate;

/// <summary>
/// Makes years of weather that never were but could have been: rain in two states, lowest and highest temperature about
/// the normals of wet and dry days with residuals that hang together from day to day (Richardson 1981).
/// </summary>
/// <remarks>
/// The same normals, seed and years give the same days. It smooths what a short record shows but adds no knowledge: the
/// odds reckoned from its years keep the standard errors of the years that were really seen. Cold spells of several
/// weeks are rarer in it than in nature, as in all generators of this form.
/// </remarks>
public static class WeatherGenerator
{
    /// <summary>Generates whole years.</summary>
    /// <param name="normals">The climate.</param>
    /// <param name="seed">Any number.</param>
    /// <param name="firstYear">The year that the first one is called.</param>
    /// <param name="years">1 to 1,000.</param>
    public static WeatherRecord Generate(DailyNormals normals, int seed, int firstYear, int years)
    {
        var faults = new FaultList();
        faults.Range("years", years, 1, 1000, "years");
        faults.Range("firstYear", firstYear, 1, 2200, string.Empty);
        faults.ThrowIfAny();
        bool southern = normals.Station.IsSouthern;
        LocalDate first = new(firstYear, southern ? 7 : 1, 1);
        int length = Period.DaysBetween(first, first.PlusYears(years));
        return WeatherRecord.From(normals.Station, Days(normals, seed, first, length)).AsGenerated(normals);
    }

    private static IEnumerable<WeatherDay> Days(DailyNormals n, int seed, LocalDate first, int length)
    {
        var random = new Xoshiro256StarStar(seed);
        Step step = Step.From(n);
        double zMin = 0;
        double zMax = 0;
        double year = 0;
        bool wet = false;
        // Sixty days before the first let the residuals forget that they began at nothing.
        for (int i = -60; i < length; i++)
        {
            LocalDate day = first.PlusDays(i);
            if (i == -60 || (day.Day == first.Day && day.Month == first.Month))
                year = Normal.Sample(random, 0, 1) * n.YearSpreadC;
            double rain = 0;
            if (n.Rain.Count > 0)
            {
                MonthRain month = n.Rain[day.Month - 1];
                wet = random.NextDouble() < (wet ? month.WetAfterWet : month.WetAfterDry);
                rain = wet ? Math.Max(DailyNormals.WetFromMm, Gamma.Sample(random, month.Shape, 1 / month.ScaleMm)) : 0;
            }
            double e1 = Normal.Sample(random, 0, 1);
            double e2 = Normal.Sample(random, 0, 1);
            (zMin, zMax) = step.Next(zMin, zMax, e1, e2);
            if (i < 0)
                continue;
            DayKind kind = wet ? n.Wet : n.Dry;
            int d = day.DayOfYear;
            (double minSd, double maxSd) = kind.DeviationOn(d);
            double min = kind.MinC.At(d) + (minSd * zMin) + year;
            double max = kind.MaxC.At(d) + (maxSd * zMax) + year;
            if (max < min + 0.5)
            {
                double middle = (min + max) / 2;
                (min, max) = (middle - 0.25, middle + 0.25);
            }
            yield return new WeatherDay(day, min, max, n.Rain.Count > 0 ? rain : null);
        }
    }

    // z(t) = A z(t−1) + B ε, A = M₁M₀⁻¹, BBᵀ = M₀ − A M₁ᵀ.
    private sealed record Step(double A11, double A12, double A21, double A22, double B11, double B21, double B22)
    {
        public (double Min, double Max) Next(double min, double max, double e1, double e2) =>
            ((A11 * min) + (A12 * max) + (B11 * e1), (A21 * min) + (A22 * max) + (B21 * e1) + (B22 * e2));

        public static Step From(DailyNormals n)
        {
            double r = n.SameDay;
            (double mm, double mx, double xm, double xx) = n.DayBefore;
            double det = 1 - (r * r);
            double a11 = (mm - (mx * r)) / det;
            double a12 = (mx - (mm * r)) / det;
            double a21 = (xm - (xx * r)) / det;
            double a22 = (xx - (xm * r)) / det;
            double c11 = 1 - ((a11 * mm) + (a12 * mx));
            double c21 = r - ((a21 * mm) + (a22 * mx));
            double c22 = 1 - ((a21 * xm) + (a22 * xx));
            double b11 = Math.Sqrt(Math.Max(1e-6, c11));
            double b21 = c21 / b11;
            return new Step(a11, a12, a21, a22, b11, b21, Math.Sqrt(Math.Max(0, c22 - (b21 * b21))));
        }
    }
}

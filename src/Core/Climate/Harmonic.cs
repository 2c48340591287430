using MathNet.Numerics.LinearAlgebra;
using MathNet.Numerics.LinearAlgebra.Double;

namespace UnrulyMeadow.Core.Climate;

/// <summary>A yearly course as a mean and a few waves: a₀ + Σ aₖ cos kωd + bₖ sin kωd, ω = 2π/365.25.</summary>
/// <param name="Coefficients">a₀, a₁, b₁, a₂, b₂ …</param>
public sealed record Harmonic(IReadOnlyList<double> Coefficients)
{
    private const double Omega = 2 * Math.PI / 365.25;

    /// <summary>The value in the middle of a day.</summary>
    /// <param name="dayOfYear">1 to 366; fractions allowed.</param>
    public double At(double dayOfYear)
    {
        double sum = Coefficients[0];
        for (int k = 1; k * 2 < Coefficients.Count; k++)
        {
            double angle = k * Omega * dayOfYear;
            sum += (Coefficients[(2 * k) - 1] * Math.Cos(angle)) + (Coefficients[2 * k] * Math.Sin(angle));
        }
        return sum;
    }

    /// <summary>The same course raised or lowered.</summary>
    public Harmonic Plus(double shift) => new([Coefficients[0] + shift, .. Coefficients.Skip(1)]);

    /// <summary>Least squares through points.</summary>
    /// <param name="waves">How many waves a year, 1 to 5.</param>
    /// <param name="points">Day of the year and value; at least twice as many as coefficients, or only their mean is kept.</param>
    public static Harmonic Fit(int waves, IReadOnlyList<(double Day, double Value)> points)
    {
        int n = 1 + (2 * waves);
        if (points.Count < 2 * n)
            return new Harmonic([points.Count == 0 ? 0 : points.Average(p => p.Value), .. new double[2 * waves]]);
        var normal = new DenseMatrix(n, n);
        var right = new DenseVector(n);
        var row = new double[n];
        foreach ((double day, double value) in points)
        {
            Row(row, day);
            Add(normal, right, row, value);
        }
        return Solve(normal, right);
    }

    /// <summary>
    /// The course whose months mean what twelve given figures say, with five waves. A month's mean is met as a mean, not
    /// as its 15th.
    /// </summary>
    /// <param name="monthMeans">January to December.</param>
    public static Harmonic ThroughMonths(IReadOnlyList<double> monthMeans)
    {
        const int n = 11;
        var normal = new DenseMatrix(n, n);
        var right = new DenseVector(n);
        double start = 0;
        for (int m = 0; m < 12; m++)
        {
            double length = m == 1 ? 28.25 : DateTime.DaysInMonth(2001, m + 1);
            var mean = new double[n];
            var row = new double[n];
            for (int d = 0; d < (int)length; d++)
            {
                Row(row, start + d + 1);
                for (int i = 0; i < n; i++)
                    mean[i] += row[i] / (int)length;
            }
            Add(normal, right, mean, monthMeans[m]);
            start += length;
        }
        return Solve(normal, right);
    }

    private static void Row(double[] row, double day)
    {
        row[0] = 1;
        for (int k = 1; 2 * k < row.Length; k++)
        {
            row[(2 * k) - 1] = Math.Cos(k * Omega * day);
            row[2 * k] = Math.Sin(k * Omega * day);
        }
    }

    private static void Add(DenseMatrix normal, DenseVector right, double[] row, double value)
    {
        for (int i = 0; i < row.Length; i++)
        {
            right[i] += row[i] * value;
            for (int j = 0; j < row.Length; j++)
                normal[i, j] += row[i] * row[j];
        }
    }

    private static Harmonic Solve(Matrix<double> normal, Vector<double> right) => new([.. normal.Solve(right)]);
}

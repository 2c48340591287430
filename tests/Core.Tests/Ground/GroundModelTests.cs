using MathNet.Numerics;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;

namespace UnrulyMeadow.Core.Tests.Ground;

/// <summary>The ground model at its shipped resolution against solutions known in closed form, and against itself refined.</summary>
public sealed class GroundModelTests
{
    private const double NoFilm = 1e-6;
    private const double YearDays = 365.0;

    private static readonly ThermalClass BareBed = ThermalClass.Bed(SurfaceCover.Bare);

    // A medium of D = 5e-7 m²/s, as the handbook's example has it.
    private static readonly Medium HalfMillionth = new("check", 0, 1.0, 1.0, 2.0);

    [Fact]
    [Published("Carslaw & Jaeger, Conduction of Heat in Solids, damped wave: d = √(2D/ω), 2.24 m yearly and 0.117 m daily for D = 5e-7 m²/s")]
    public void Damping_depths_of_a_year_and_a_day_are_2_24_m_and_0_117_m()
    {
        Assert.Equal(5e-7, HalfMillionth.ThawedDiffusivity, 12);
        Assert.Equal(2.24, DampingDepth(365.25 * 86400), 2);
        Assert.Equal(0.117, DampingDepth(86400), 3);
    }

    [Theory]
    [InlineData(0.5)]
    [InlineData(1.0)]
    [InlineData(2.24)]
    [Published("Carslaw & Jaeger, Conduction of Heat in Solids, T(z,t) = T̄ + A e^(−z/d) sin(ωt − z/d)")]
    public void The_year_sinks_into_a_bed_as_the_damped_wave(double depthM)
    {
        const int days = 365 * 6;
        double omega = 2 * Math.PI / (YearDays * 86400);
        double d = DampingDepth(YearDays * 86400);
        double[] air = [.. Enumerable.Range(0, days).Select(i => 15 + (10 * Math.Sin(omega * (i + 0.5) * 86400)))];
        float[] found = GroundModel.Run(BareBed with { Medium = HalfMillionth }, GroundForcing.Plain(air, air, NoFilm)).AtDepth(depthM * 100);
        // The last noted year, when the start is forgotten; the air steps from day to day, so the wave is met to 2 % of its height.
        for (int i = days - 365; i < days - 5; i += 30)
            Assert.Equal(15 + (10 * Math.Exp(-depthM / d) * Math.Sin((omega * (i + 0.5) * 86400) - (depthM / d))), found[i], 0.2);
    }

    [Fact]
    [Published("Carslaw & Jaeger, Conduction of Heat in Solids, damped wave, each harmonic of the day's air apart")]
    public void The_day_sinks_into_a_bed_as_the_damped_wave()
    {
        double[] low = [.. Enumerable.Repeat(10.0, 400)];
        double[] high = [.. Enumerable.Repeat(20.0, 400)];
        GroundTemperatures found = GroundModel.Run(BareBed with { Medium = HalfMillionth }, GroundForcing.Plain(low, high, NoFilm));
        double[] steps = [.. Enumerable.Range(0, GroundModel.StepsPerDay).Select(s => GroundModel.AirAt(s, 20, 10, 20, 10))];
        double mean = steps.Average();
        double[] expected =
        [
            .. Enumerable.Range(1, 24).Select(t => mean + Enumerable.Range(1, 5).Sum(n => Harmonic(steps, n, t, ThermalClass.BedRootDepthM))),
        ];
        Assert.Equal(mean, found.RootMean[390], 0.1);
        // 2 % of the surface's half range.
        Assert.Equal(expected.Min(), found.RootMin[390], 0.1);
        Assert.Equal(expected.Max(), found.RootMax[390], 0.1);
    }

    [Theory]
    [InlineData(0.05, 0.1568)]
    [InlineData(0.1, 0.2200)]
    [InlineData(0.5, 0.4648)]
    [InlineData(1.0, 0.6201)]
    [Published("Neumann/Stefan one-phase solution, X = 2λ√(αt), √π λ e^(λ²) erf λ = St (Carslaw & Jaeger ch. XI)")]
    public void Frost_goes_down_as_Neumann_and_Stefan_say(double stefan, double lambda)
    {
        Assert.Equal(stefan, Math.Sqrt(Math.PI) * lambda * Math.Exp(lambda * lambda) * SpecialFunctions.Erf(lambda), 3);
        Medium soil = Medium.Soil with { FreezingRangeK = 0.02 };
        double latent = soil.WaterShare * Medium.LatentMJ;
        double below = stefan * latent / soil.FrozenHeatMJ;
        const int still = 365;
        const int days = still + 20;
        double[] air = [.. Enumerable.Range(0, days).Select(i => i < still ? 0 : -below)];
        GroundTemperatures found = GroundModel.Run(BareBed with { Medium = soil }, GroundForcing.Plain(air, air, NoFilm));
        double alpha = soil.FrozenConductivity / (soil.FrozenHeatMJ * 1e6);
        foreach (int day in new[] { 5, 10, 20 })
        {
            double front = 2 * lambda * Math.Sqrt(alpha * day * 86400);
            // The shares of ice in half-frozen rows are counted, so that rows do not show as steps.
            Assert.Equal(1, found.FrozenDepthM[still + day - 1] / front, 0.02);
        }
    }

    [Fact]
    [Published("Lumped capacity, T = T∞ + ΔT e^(−UAt/C), valid for Biot < 0.1 (any handbook of heat transfer)")]
    public void A_small_well_insulated_pot_cools_as_one_lump()
    {
        var metalLike = new Medium("check", 0, 50, 50, 2.0);
        ThermalClass pot = ThermalClass.Pot(10, 10, WallMaterial.Terracotta) with { Medium = metalLike, WallResistance = 2 };
        const int warm = 365;
        double[] air = [.. Enumerable.Range(0, warm + 12).Select(i => i < warm ? 20.0 : 0.0)];
        GroundTemperatures found = GroundModel.Run(pot, GroundForcing.Plain(air, air, 2));
        double r = 0.05;
        double conductance = (Math.PI * r * r / 2) + (Math.PI * r * r / (2 + (1 / GroundForcing.FilmBelow))) + (2 * Math.PI * r * 0.10 / 4);
        double rate = conductance / (Math.PI * r * r * 0.10 * 2.0e6) * 86400;
        // The wall has its own 2 m²K/W besides the film of 2. The air turns smoothly over the change of days, so two later days are compared.
        double fall = found.RootMean[warm + 4] / found.RootMean[warm + 2];
        Assert.Equal(1, fall / Math.Exp(-rate * 2), 0.02);
    }

    [Fact]
    [Published(
        "Heisler series for an infinite cylinder with convection, mean temperature Σ 4Bi²/(ζ²(ζ²+Bi²)) e^(−ζ²Fo), ζJ₁ = Bi J₀ (Carslaw & Jaeger §7.7)"
    )]
    public void A_tall_pot_cools_at_mid_height_as_the_infinite_cylinder()
    {
        const double radius = 0.45;
        var medium = new Medium("check", 0, 0.5, 0.5, 2.34);
        ThermalClass pot = ThermalClass.Pot(90, 300, WallMaterial.Terracotta) with { Medium = medium };
        const int warm = 365;
        double[] air = [.. Enumerable.Range(0, warm + 12).Select(i => i < warm ? 20.0 : 0.0)];
        float[] found = GroundModel.Run(pot, GroundForcing.Plain(air, air, 1.0 / 12)).AtDepth(150);
        double u = 1 / ((1.0 / 12) + 0.025);
        double biot = u * radius / 0.5;
        double[] roots = Roots(biot, 20);
        double fourierPerDay = 0.5 / 2.34e6 * 86400 / (radius * radius);
        double Mean(double days) => roots.Sum(z => 4 * biot * biot / (z * z * ((z * z) + (biot * biot))) * Math.Exp(-z * z * fourierPerDay * days));
        double DayMean(int day) => 20 * Enumerable.Range(0, 24).Average(h => Mean(day + ((h + 0.5) / 24)));
        // The change of days is smoothed by the day's course of air, so falls from day to day are compared.
        for (int day = 2; day < 6; day++)
            Assert.Equal(1, found[warm + day + 1] / found[warm + day] / (DayMean(day + 1) / DayMean(day)), 0.02);
    }

    [Theory]
    [InlineData("New York")]
    [InlineData("Seattle")]
    public void Heat_is_neither_made_nor_lost_to_a_thousandth(string place)
    {
        GroundForcing forcing = GroundForcing.From(A.Record(place));
        foreach (
            ThermalClass what in new[]
            {
                BareBed,
                ThermalClass.Bed(SurfaceCover.Mulch),
                ThermalClass.Pot(40, 38, WallMaterial.Terracotta, Exposure.FullSun),
            }
        )
            Assert.InRange(GroundModel.Run(what, forcing).EnergyError, 0, 0.001);
    }

    [Fact]
    public void Halving_every_cell_moves_the_coldest_root_by_less_than_half_a_degree()
    {
        GroundForcing forcing = GroundForcing.From(A.Record("New York"));
        foreach (double width in new[] { 30.0, 60.0 })
        {
            ThermalClass pot = ThermalClass.Pot(width, width * 0.9, WallMaterial.Terracotta);
            Assert.Equal(GroundModel.Run(pot, forcing, refine: 2).RootMin.Min(), GroundModel.Run(pot, forcing).RootMin.Min(), 0.5);
        }
        Assert.Equal(GroundModel.Run(BareBed, forcing, refine: 2).RootMin.Min(), GroundModel.Run(BareBed, forcing).RootMin.Min(), 0.3);
    }

    private static double DampingDepth(double seconds) => Math.Sqrt(2 * HalfMillionth.ThawedDiffusivity / (2 * Math.PI / seconds));

    private static double Harmonic(double[] steps, int n, double t, double depth)
    {
        double a = 0;
        double b = 0;
        for (int s = 0; s < steps.Length; s++)
        {
            a += steps[s] * Math.Cos(2 * Math.PI * n * (s + 0.5) / steps.Length) * 2 / steps.Length;
            b += steps[s] * Math.Sin(2 * Math.PI * n * (s + 0.5) / steps.Length) * 2 / steps.Length;
        }
        double lag = depth / (DampingDepth(86400) / Math.Sqrt(n));
        double angle = (2 * Math.PI * n * t / 24) - lag;
        return Math.Exp(-lag) * ((a * Math.Cos(angle)) + (b * Math.Sin(angle)));
    }

    private static double[] Roots(double biot, int count)
    {
        double F(double z) => (z * SpecialFunctions.BesselJ(1, z)) - (biot * SpecialFunctions.BesselJ(0, z));
        var roots = new List<double>();
        for (double z = 0.01; roots.Count < count; z += 0.01)
        {
            if (F(z) * F(z + 0.01) < 0)
                roots.Add(MathNet.Numerics.RootFinding.Brent.FindRoot(F, z, z + 0.01));
        }
        return [.. roots];
    }
}

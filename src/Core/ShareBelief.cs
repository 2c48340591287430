using MathNet.Numerics.Distributions;

namespace UnrulyMeadow.Core;

/// <summary>What is believed of a share: beta distributed.</summary>
/// <param name="Hits">Hits as if seen, more than 0 (α).</param>
/// <param name="Misses">Misses as if seen, more than 0 (β).</param>
public readonly record struct ShareBelief(double Hits, double Misses)
{
    /// <summary>The mean.</summary>
    public double Mean => Hits / (Hits + Misses);

    /// <summary>Between what nine in ten lie.</summary>
    public (double Low, double High) Nine => (Beta.InvCDF(Hits, Misses, 0.05), Beta.InvCDF(Hits, Misses, 0.95));

    /// <summary>
    /// What is believed after some were seen: hits and misses are added, the beta–binomial update (A. Gelman and others, Bayesian Data Analysis,
    /// 3rd ed., section 2.4).
    /// </summary>
    /// <param name="hits">Hits, 0 to <paramref name="of"/>.</param>
    /// <param name="of">How many were seen.</param>
    public ShareBelief After(double hits, double of) => new(Hits + hits, Misses + of - hits);

    /// <summary>The density at a share.</summary>
    public double Density(double share) => Beta.PDF(Hits, Misses, share);
}

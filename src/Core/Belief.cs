namespace UnrulyMeadow.Core;

/// <summary>What is believed of a figure: normally distributed about a mean.</summary>
/// <param name="Mean">The mean.</param>
/// <param name="Spread">The standard deviation, more than 0.</param>
public readonly record struct Belief(double Mean, double Spread)
{
    // 1.6449 standard deviations hold nine in ten.
    private const double NineInTen = 1.6448536269514722;

    /// <summary>Between what nine in ten lie.</summary>
    public (double Low, double High) Nine => (Mean - (NineInTen * Spread), Mean + (NineInTen * Spread));

    /// <summary>
    /// What is believed after some data: each weighed by one over its variance, the normal–normal update (A. Gelman and others, Bayesian Data
    /// Analysis, 3rd ed., section 2.5).
    /// </summary>
    /// <param name="count">How many data.</param>
    /// <param name="mean">Their mean; nothing where there are none.</param>
    /// <param name="spread">Standard deviation of each about what is true, more than 0.</param>
    public Belief After(int count, double mean, double spread)
    {
        double prior = 1 / (Spread * Spread);
        double data = count / (spread * spread);
        return new Belief(count == 0 ? Mean : ((prior * Mean) + (data * mean)) / (prior + data), 1 / Math.Sqrt(prior + data));
    }

    /// <summary>What a next datum will be, that lies about what is true with a spread of its own.</summary>
    public Belief Next(double spread) => new(Mean, Math.Sqrt((Spread * Spread) + (spread * spread)));
}

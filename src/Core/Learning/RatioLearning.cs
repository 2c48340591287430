using System.Globalization;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Review;

namespace UnrulyMeadow.Core.Learning;

/// <summary>A figure of a kind that a site's log moves by a share of itself.</summary>
public enum LearntFigure
{
    /// <summary>Days from first colour until it is over.</summary>
    ShowLength,

    /// <summary>Surface under one plant.</summary>
    Fullness,
}

/// <summary>Something measured that was also expected.</summary>
/// <param name="Seen">The entry of the log that ends or names it.</param>
/// <param name="Was">What was seen: days of show, or share of the surface under leaf.</param>
/// <param name="Expected">What was expected: in that year's weather where it is known, else at the mean of all years; more than 0.</param>
/// <param name="Spread">Standard deviation of what is expected, as a share of it; 0 where that year's weather is known.</param>
public sealed record SeenRatio(Observation Seen, double Was, double Expected, double Spread)
{
    /// <summary>Natural logarithm of what was seen over what was expected.</summary>
    public double Log => Math.Log(Was / Expected);
}

/// <summary>What a log teaches of how long a kind shows at a site, or how full it grows: so many times what is reckoned.</summary>
/// <param name="Plant">The kind.</param>
/// <param name="Figure">Of which figure.</param>
/// <param name="Seen">What was seen, by day.</param>
/// <param name="Years">Mean logarithm of each year, by year: plants of one year share its weather and its care, so a year counts once.</param>
/// <param name="Prior">Logarithm as believed before anything was seen.</param>
/// <param name="Posterior">Logarithm as believed now.</param>
public sealed record RatioLearning(
    Plant Plant,
    LearntFigure Figure,
    IReadOnlyList<SeenRatio> Seen,
    IReadOnlyList<(int Year, double Log)> Years,
    Belief Prior,
    Belief Posterior
)
{
    /// <summary>What is seen beyond so many times the expected, or below its inverse, is another kind or a slip.</summary>
    public const double FarthestTimes = 3;

    /// <summary>A figure is worth moving from so large a share of itself on.</summary>
    public const double LeastMove = 0.02;

    /// <summary>How many times what is reckoned.</summary>
    public double Times => Math.Exp(Posterior.Mean);

    /// <summary>Between what nine in ten lie, times what is reckoned.</summary>
    public (double Low, double High) Nine => (Math.Exp(Posterior.Nine.Low), Math.Exp(Posterior.Nine.High));

    /// <summary>How far off a kind's figure may be at a site, as a logarithm (common practice: shows and widths of handbooks differ by a quarter).</summary>
    public static double PriorSpread { get; } = Math.Log(1.25);

    /// <summary>
    /// How far a year lies from what is true of the place, as a logarithm: of a show a fifth; of leaf, estimated by eye, a quarter (common practice).
    /// </summary>
    public static double YearSpread(LearntFigure figure) => Math.Log(figure == LearntFigure.ShowLength ? 1.2 : 1.25);

    /// <summary>Draws what was seen of a kind together.</summary>
    public static RatioLearning Of(Plant plant, LearntFigure figure, IEnumerable<SeenRatio> seen)
    {
        List<SeenRatio> all = [.. seen.OrderBy(s => s.Seen.Day)];
        double own = YearSpread(figure);
        List<(int Year, double Log, double Spread)> years =
        [
            .. all.GroupBy(s => s.Seen.Day.Year)
                .Select(g => (g.Key, g.Average(s => s.Log), Math.Sqrt((own * own) + g.Average(s => s.Spread * s.Spread))))
                .OrderBy(y => y.Key),
        ];
        var prior = new Belief(0, PriorSpread);
        Belief now = prior;
        foreach ((_, double log, double spread) in years)
            now = now.After(1, log, spread);
        return new RatioLearning(plant, figure, all, [.. years.Select(y => (y.Year, y.Log))], prior, now);
    }

    /// <summary>The kind with the figure moved as was learnt; null where it has none to move, or it would move by less than it is worth.</summary>
    public Plant? Adopted()
    {
        if (Math.Abs(Times - 1) < LeastMove || Seen.Count == 0)
            return null;
        if (Figure == LearntFigure.Fullness)
            return Plant with { MatureSpreadCm = Math.Max(Plant.SpreadAtPurchaseCm, Math.Round(Plant.MatureSpreadCm * Math.Sqrt(Times), 1)) };
        double more = Math.Round(Seen.Average(s => s.Expected) * (Times - 1));
        bool any = false;
        List<ColourWindow> windows = [];
        foreach (ColourWindow window in Plant.Windows)
        {
            ColourRule? rule = window.Rule.Lasting(more) is { } longer && longer.Faults().Count == 0 ? longer : null;
            any |= rule is not null;
            windows.Add(rule is null ? window : window with { Rule = rule });
        }
        return any && more != 0 ? Plant with { Windows = windows } : null;
    }

    /// <summary>The arithmetic behind it.</summary>
    public Working Explain() =>
        new(
            Figure == LearntFigure.ShowLength ? WorkingKind.ShowsLearnt : WorkingKind.FullnessLearnt,
            Quantity.Share(Times),
            [new WorkingInput(InputName.YearsSeen, Years.Count)],
            [
                .. Seen.Take(12)
                    .Select(s => new Fact(
                        Figure == LearntFigure.ShowLength ? WorkingPhrase.ShowSeen : WorkingPhrase.FullnessSeen,
                        ("day", s.Seen.Day),
                        ("was", Of(s.Was)),
                        ("expected", Of(s.Expected))
                    )),
                .. Years.Select(y => new Fact(
                    WorkingPhrase.RatioLearntYear,
                    ("year", y.Year.ToString(CultureInfo.InvariantCulture)),
                    ("times", Quantity.Share(Math.Exp(y.Log)))
                )),
                new Fact(
                    WorkingPhrase.RatioLearntStep,
                    ("prior", Quantity.Share(Math.Exp(Prior.Spread) - 1)),
                    ("times", Quantity.Share(Times)),
                    ("low", Quantity.Share(Nine.Low)),
                    ("high", Quantity.Share(Nine.High))
                ),
            ]
        )
        {
            Parts = [("plant", Plant)],
        };

    private Quantity Of(double seen) => Figure == LearntFigure.ShowLength ? Quantity.Days(seen) : Quantity.Share(seen);
}

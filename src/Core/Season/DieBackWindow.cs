using NodaTime;
using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Season;

/// <summary>The days on which a bulb's leaves yellow and die after bloom; they feed it and stay until brown.</summary>
/// <param name="First">First yellow leaves.</param>
/// <param name="Last">Brown.</param>
/// <param name="LeafCm">How high they stand before, cm.</param>
public sealed record DieBackWindow(LocalDate First, LocalDate Last, double LeafCm)
{
    /// <summary>From the last colour until the leaves are brown, days (common practice: about six weeks).</summary>
    public const int Days = 42;

    /// <summary>From the last colour until they begin to yellow, days (common practice).</summary>
    public const int GreenDays = 10;

    /// <summary>Other leaves hide them from this share of the surface on (common practice).</summary>
    public const double Hides = 0.3;

    /// <summary>Of a forecast; null when it does not flower.</summary>
    public static DieBackWindow? Of(BloomForecast forecast) =>
        forecast.Over is { } over ? new DieBackWindow(over.PlusDays(GreenDays), over.PlusDays(Days), BulbShoot.LeafCm(forecast.Plant)) : null;

    /// <summary>The arithmetic behind it.</summary>
    /// <param name="plant">The bulb.</param>
    /// <param name="cover">Share of the surface under what stands with it then.</param>
    public Working Explain(Plant plant, double cover) =>
        new(
            $"{plant.CommonName}: leaves die down",
            $"{First.ToString("d MMM", null)} to {Last.ToString("d MMM", null)}",
            [
                new("last colour", First.PlusDays(-GreenDays).ToString("d MMM uuuu", null)),
                new("leaves", $"{LeafCm:0} cm high"),
                new("covered by others then", $"{cover:P0}"),
            ],
            $"Leaves yellow from {GreenDays} days after the last colour and are brown after {Days}; others hide them from {Hides:P0} of the surface on",
            "Common practice",
            []
        );
}

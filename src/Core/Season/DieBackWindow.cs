using NodaTime;
using UnrulyMeadow.Core.Facts;
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
        new Working(
            WorkingKind.LeavesDieDown,
            new Fact(WorkingPhrase.LeavesDieDownValue, ("first", First), ("last", Last)),
            [
                new WorkingInput(InputName.LastColour, First.PlusDays(-GreenDays)),
                new WorkingInput(InputName.Leaves, new Fact(WorkingPhrase.LeavesDieDownLeavesHigh, ("leaf", Quantity.Cm(LeafCm)))),
                new WorkingInput(InputName.CoveredByOthersThen, Quantity.Share(cover)),
            ]
        )
        {
            Parts = [("plant", plant), ("greenDays", GreenDays), ("days", Days), ("hides", Quantity.Share(Hides))],
        };
}

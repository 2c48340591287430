using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Learning;

/// <summary>
/// How much later all kinds together open in one sort of place than their own dates at the site say: a sky or a wall that is not as surveyed
/// shows here first.
/// </summary>
/// <param name="Exposure">Direct sun by the survey.</param>
/// <param name="IsBed">True for beds, false for containers.</param>
/// <param name="Kinds">Kinds seen there.</param>
/// <param name="Years">Mean days late of each year beyond what each kind is late at the site, by year.</param>
/// <param name="Posterior">Days late, as believed now.</param>
public sealed record PlaceLearning(Exposure Exposure, bool IsBed, int Kinds, IReadOnlyList<(int Year, double DaysLate)> Years, Belief Posterior)
{
    /// <summary>How far a sort of place may lie from what the ground's model makes of it, days either way (common practice).</summary>
    public static Belief Prior { get; } = new(0, 2);

    /// <summary>True where nine in ten believe it later, or nine in ten earlier.</summary>
    public bool IsTold => Posterior.Nine.Low > 0 || Posterior.Nine.High < 0;

    /// <summary>The arithmetic behind it.</summary>
    public Working Explain() =>
        new(
            WorkingKind.PlacesLearnt,
            Quantity.Days(Posterior.Mean, 1),
            [new WorkingInput(InputName.YearsSeen, Years.Count)],
            DateLearning.Steps(Years, Prior, Posterior)
        );
}

using NodaTime;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Review;

namespace UnrulyMeadow.Core.Care;

/// <summary>A display that, as the log tells, will not hold until it is lifted: its end is called early.</summary>
/// <param name="Planter">Where it stands.</param>
/// <param name="Display">The display.</param>
/// <param name="Gone">Plants in it that are lost, or over.</param>
/// <param name="Planted">Plants in it.</param>
/// <param name="Poor">The review that found it poor; null where none did.</param>
/// <param name="DaysLeft">Days that it was to stand from today on.</param>
public sealed record FailingDisplay(Planter Planter, Display Display, int Gone, int Planted, Observation? Poor, int DaysLeft)
{
    // Half gone is past mending; what is lifted within ten days is lifted with its turn (common practice).
    private const double MostGone = 0.5;
    private const int WorthCallingDays = 10;
    private const int PoorRating = 1;

    private static readonly ObservationKind[] InShow =
    [
        ObservationKind.FirstColour,
        ObservationKind.Peak,
        ObservationKind.Full,
        ObservationKind.DidWell,
    ];

    /// <summary>
    /// Seasonal displays of which half the plants are lost or over, or that the last review found poor or not to be kept, and that were to stand
    /// for weeks; those first that were to stand longest. A kind that is over and shows again is not over; bulbs in the ground are not asked.
    /// </summary>
    /// <param name="plan">The plan.</param>
    /// <param name="log">The log since the first of the displays went in.</param>
    /// <param name="today">Today.</param>
    public static IReadOnlyList<FailingDisplay> Of(Plan plan, IEnumerable<Observation> log, LocalDate today)
    {
        ILookup<string, Observation> of = log.Where(o => o.Counts).ToLookup(o => o.PlanterId, StringComparer.Ordinal);
        var failing = new List<FailingDisplay>();
        foreach (Planter planter in plan.Planters.Where(p => !p.IsRetired && of.Contains(p.Id)))
        {
            foreach (Display display in plan.DisplaysOf(planter.Id).Where(d => d.Layer == DisplayLayer.Seasonal && d.StandsOn(today)))
            {
                int left = Period.DaysBetween(today, display.Lift);
                List<Observation> seen = [.. of[planter.Id].Where(o => o.Day >= display.Install && o.Day <= today).OrderBy(o => o.Day)];
                if (left <= WorthCallingDays || seen.Count == 0)
                    continue;
                int gone = 0;
                int planted = 0;
                foreach (IGrouping<string, DisplayItem> kind in display.Items.GroupBy(i => i.PlantId, StringComparer.Ordinal))
                {
                    if (plan.FindPlant(kind.Key) is not { GoesOutInLeaf: true } plant || plant.LifeForm == LifeForm.CutStems)
                        continue;
                    int count = kind.Sum(i => i.Count);
                    planted += count;
                    List<Observation> ofKind = [.. seen.Where(o => o.PlantId == plant.Id)];
                    bool isOver = ofKind.LastOrDefault(o => o.Kind == ObservationKind.Over || InShow.Contains(o.Kind))?.Kind == ObservationKind.Over;
                    gone += isOver ? count : Math.Min(count, ofKind.Where(o => Observation.IsLoss(o.Kind)).Sum(o => o.Count ?? 1));
                }
                Observation? poor =
                    seen.LastOrDefault(o => o.Review is not null) is { Review: { } review } last
                    && (review.Rating <= PoorRating || review.Verdict == ReviewVerdict.Drop)
                        ? last
                        : null;
                if (poor is not null || (planted > 0 && gone >= planted * MostGone))
                    failing.Add(new FailingDisplay(planter, display, gone, planted, poor, left));
            }
        }
        return [.. failing.OrderByDescending(f => f.DaysLeft).ThenBy(f => f.Planter.Name, StringComparer.Ordinal)];
    }
}

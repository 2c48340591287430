using System.Collections;
using NodaTime;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Proposing;

/// <summary>One thing that could be planted in the planters of a unit: a display for each of them.</summary>
/// <param name="Id">By what it plants and when; the same in every proposal of a unit.</param>
/// <param name="FirstSlot">The turn at which it goes in, from 0.</param>
/// <param name="Slots">How many times between turns it stands.</param>
/// <param name="Layer">The layer it fills.</param>
/// <param name="Displays">The displays, in the order of the unit's planters.</param>
/// <param name="Gains">Days of the plan year that it brings into colour by itself, for each planter.</param>
/// <param name="Colour">Days times the weighted cover that it adds, over the planters.</param>
/// <param name="Cost">What is to be bought, guide prices, spares included.</param>
/// <param name="Minutes">What setting and taking out takes one person, with a few minutes for every visit to a planter.</param>
/// <param name="Liked">How much of it is wanted more than other things: favourites and the shortlist, 0 to 1.</param>
public sealed record YearPiece(
    string Id,
    int FirstSlot,
    int Slots,
    DisplayLayer Layer,
    IReadOnlyList<Display> Displays,
    IReadOnlyList<BitArray> Gains,
    double Colour,
    decimal Cost,
    int Minutes,
    double Liked
)
{
    /// <summary>The recipe that it is made from; null for single plants.</summary>
    public Recipe? Recipe { get; init; }

    /// <summary>How many kinds it plants.</summary>
    public int Kinds { get; init; } = 1;

    /// <summary>Its colour, and more of it for what is wanted most and for several kinds together: by what the richest year chooses.</summary>
    public double Richness => Colour * (1 + (0.3 * Liked) + (0.1 * Math.Min(2, Kinds - 1)));

    /// <summary>Planter-days that it brings into colour by itself.</summary>
    public int Days { get; } = Gains.Sum(g => g.Cast<bool>().Count(b => b));

    /// <summary>The same piece in planters that are alike.</summary>
    /// <param name="plan">The plan, so that its displays are named anew.</param>
    /// <param name="unit">The planters.</param>
    public YearPiece For(Plan plan, ProposalUnit unit) =>
        Displays[0].PlanterId == unit.Lead.Id
            ? this
            : this with
            {
                Displays =
                [
                    .. Displays.Select(
                        (d, i) => d with { PlanterId = unit.Planters[i].Id, Id = DisplayId(plan, unit.Planters[i].Id, Layer, d.Install) }
                    ),
                ],
            };

    /// <summary>A name for a display that the plan does not have yet.</summary>
    public static string DisplayId(Plan plan, string planterId, DisplayLayer layer, LocalDate install) =>
        Ids.From($"{planterId} {layer} {install.ToString("uuuu-MM-dd", null)}", id => plan.DisplaysOf(planterId).Any(d => d.Id == id));

    /// <summary>True when both cannot be planted: they would fill one layer at one time.</summary>
    public bool Conflicts(YearPiece other) =>
        Layer == other.Layer && FirstSlot < other.FirstSlot + other.Slots && other.FirstSlot < FirstSlot + Slots;
}

using System.Collections.Immutable;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Core.Season;

/// <summary>Plants of one kind as a display sets them into a planter.</summary>
/// <param name="Display">The display.</param>
/// <param name="Plant">The plant.</param>
/// <param name="Count">How many.</param>
/// <param name="Standing">When and where they stand.</param>
internal sealed record PlantedItem(Display Display, Plant Plant, int Count, Standing Standing)
{
    /// <summary>Share of what people see for each share of the surface that its flowers take up; see <see cref="ViewedShare"/>.</summary>
    public double Seen { get; init; } = 1;

    /// <summary>True for bulbs, which stand on their stems above what grows around them.</summary>
    public bool IsAbove => Plant.Green == GreenLeaf.AroundFlower;

    /// <summary>What stands in a planter at any time between two days, earliest first.</summary>
    public static IReadOnlyList<PlantedItem> Of(Plan plan, Planter planter, LocalDate start, LocalDate end) =>
        Of(plan, planter, plan.DisplaysOf(planter.Id), start, end);

    /// <summary>What would stand there with other displays than the plan's.</summary>
    public static IReadOnlyList<PlantedItem> Of(Plan plan, Planter planter, IEnumerable<Display> displays, LocalDate start, LocalDate end)
    {
        HouseRules rules = plan.Site.RulesFor(planter);
        bool inColour = rules.Stage == StageSchool.InColour;
        double pocket = plan.AreaOf(planter).FrostPocketC + planter.Survey.FrostPocketC;
        BulbPlace roots = planter.PlaceAt(0);
        var found = new List<PlantedItem>();
        foreach (Display display in displays.Where(d => d.Install < end && d.Lift > start))
        {
            if (display.Layer == DisplayLayer.Bulbs)
            {
                IReadOnlySet<string> forced = display.Items.Any(i => i.Forced)
                    ? display.Items.Where(i => i.Forced).Select(i => i.PlantId).ToHashSet(StringComparer.Ordinal)
                    : ImmutableHashSet<string>.Empty;
                LocalDate? Later(string plant) => display.Items.FirstOrDefault(i => i.PlantId == plant)?.Since;
                // The ground model knows depths to half a centimetre.
                foreach (BulbDepth b in BulbStack.Depths(planter, plan.Site, plan.BulbsOf(display)))
                {
                    found.Add(
                        new(
                            display,
                            b.Plant,
                            b.Count,
                            new Standing(
                                Later(b.Plant.Id) ?? display.Install,
                                Latest(display.Install, Later(b.Plant.Id)),
                                display.Lift,
                                planter.PlaceAt(Math.Round(b.DepthCm * 2) / 2),
                                b.Plant.DiesWithFrost ? pocket : 0,
                                false,
                                []
                            )
                            {
                                Forced = forced.Contains(b.Plant.Id),
                            }
                        )
                        {
                            Seen = b.Plant.Green == GreenLeaf.AroundFlower ? ViewedShare.OnStems(planter, b.Plant.HeightCm) : 1,
                        }
                    );
                }

                continue;
            }
            foreach (DisplayItem item in display.Items)
            {
                Plant plant = plan.AsBought(planter, item);
                // Only what lives on in a container has roots to lose; all else shares one place, and so one computation.
                BulbPlace place = plant.IsLasting && !planter.Form.IsBed ? roots : BulbPlace.UsualBed;
                IReadOnlyList<CutBack> cuts = display.Cuts.Count == 0 ? [] : [.. display.Cuts.Where(c => c.PlantId == plant.Id).OrderBy(c => c.Day)];
                found.Add(
                    new(
                        display,
                        plant,
                        item.Count,
                        new Standing(item.Since ?? display.Install, Latest(display.Install, item.Since), display.Lift, place, pocket, inColour, cuts)
                        {
                            FromWarmHouse = rules.HardenOff == HardenOffSchool.FromWarmHouse && plant.IsRaisedWarm,
                            LightSteps = LightShortage.Steps(plant, planter.Exposure),
                        }
                    )
                );
            }
        }
        return found;
    }

    private static LocalDate Latest(LocalDate install, LocalDate? since) => since is { } day && day > install ? day : install;
}

/// <summary>When and where plants of one kind stand; equal standings show alike.</summary>
/// <param name="Planted">The day they went in, from which they grow.</param>
/// <param name="From">The day from which they are part of the display.</param>
/// <param name="Lift">The day they come out.</param>
/// <param name="Place">Where a bulb lies, or what roots in a container feel.</param>
/// <param name="PocketC">Frost pocket, °C.</param>
/// <param name="InColour">True for what is bought in full colour.</param>
/// <param name="Cuts">Cuts in order of their days.</param>
public sealed record Standing(
    LocalDate Planted,
    LocalDate From,
    LocalDate Lift,
    BulbPlace Place,
    double PocketC,
    bool InColour,
    IReadOnlyList<CutBack> Cuts
)
{
    /// <summary>True for bulbs forced beforehand: they flower from the day they are plugged in.</summary>
    public bool Forced { get; init; }

    /// <summary>True for stock that comes straight from a warm house, and stands less in its first week.</summary>
    public bool FromWarmHouse { get; init; }

    /// <summary>Steps of direct sun that it lacks; 0 where it has enough.</summary>
    public int LightSteps { get; init; }

    /// <inheritdoc />
    public bool Equals(Standing? other) =>
        other is not null
        && Planted == other.Planted
        && From == other.From
        && Lift == other.Lift
        && Place == other.Place
        && PocketC == other.PocketC
        && InColour == other.InColour
        && Forced == other.Forced
        && FromWarmHouse == other.FromWarmHouse
        && LightSteps == other.LightSteps
        && Cuts.SequenceEqual(other.Cuts);

    /// <inheritdoc />
    public override int GetHashCode() => HashCode.Combine(Planted, From, Lift, Place.DepthCm, PocketC, InColour || Forced, Cuts.Count, LightSteps);
}

using NodaTime;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>A plant as it looks on a day in most years.</summary>
/// <param name="Plant">The plant.</param>
/// <param name="Count">How many stand in the planter.</param>
/// <param name="Showing">The colour windows that show.</param>
/// <param name="InLeaf">True when it has leaves.</param>
public sealed record StandingPlant(Plant Plant, int Count, IReadOnlyList<ColourWindow> Showing, bool InLeaf)
{
    /// <summary>The display it stands in.</summary>
    public Display? Display { get; init; }

    /// <summary>Which of the display's kinds it is, from 0.</summary>
    public int Item { get; init; }

    /// <summary>What stands in a planter on a day, besides bulbs.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="planter">The planter.</param>
    /// <param name="season">Its year; its days outside it show everything.</param>
    /// <param name="day">The day.</param>
    public static IReadOnlyList<StandingPlant> On(Plan plan, Planter planter, PlanterSeason season, LocalDate day)
    {
        int index = season.IndexOf(day);
        bool known = season.Years > 0 && index >= 0 && index < season.Days;
        return
        [
            .. plan.DisplaysOf(planter.Id)
                .Where(d => d.Layer != DisplayLayer.Bulbs && d.StandsOn(day))
                .SelectMany(d =>
                    d.Items.Select(
                        (i, kind) =>
                        {
                            Plant plant = plan.Plant(i.PlantId);
                            bool Shows(ColourWindow w) =>
                                !known
                                || season.Bands.Any(b =>
                                    b.DisplayId == d.Id && b.Plant.Id == plant.Id && b.Window == w && b.Peak > 0 && b.MeanCover[index] > 0.3 * b.Peak
                                );
                            bool inLeaf = plant.Green == GreenLeaf.Evergreen || plant.DiesWithFrost || !known || season.DeciduousLeaf[index] >= 0.5;
                            return new StandingPlant(plant, i.Count, [.. plant.Windows.Where(Shows)], inLeaf) { Display = d, Item = kind };
                        }
                    )
                ),
        ];
    }
}

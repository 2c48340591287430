using MathNet.Numerics.Statistics;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Rehearsing;

/// <summary>What a spell of heat does to one planter beyond its flowers: its roots along the wall, and leaves that stand too open.</summary>
/// <param name="Planter">The planter.</param>
/// <param name="HottestRootC">Hottest roots of the spell in the middle year, °C; of a bed, too.</param>
/// <param name="RootDays">
/// Days of the spell on which roots pass <see cref="GroundRemark.RootHeatC"/>, middle year; 0 for beds, whose roots go deeper.
/// </param>
/// <param name="Scorched">
/// Kinds whose leaves scorch: those that stand in more sun than they bear, and all once their roots are harmed for days on end.
/// </param>
public sealed record HeatStress(Planter Planter, double HottestRootC, int RootDays, IReadOnlyList<Plant> Scorched)
{
    /// <summary>Roots too hot for so many days take the leaves with them (from memory of practice).</summary>
    public const int HarmfulDays = 3;

    /// <summary>Looks at a planter.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="planter">The planter.</param>
    /// <param name="hot">Weather with the spell in every year.</param>
    /// <param name="first">First day of the spell in the plan.</param>
    /// <param name="days">Its days.</param>
    /// <returns>Null where nothing suffers.</returns>
    public static HeatStress? Of(Plan plan, Planter planter, WeatherRecord hot, LocalDate first, int days)
    {
        float[] roots = GroundClimate.Of(hot).Of(planter.ThermalClass()).RootMax;
        var hottest = new List<double>();
        var over = new List<double>();
        foreach (int year in hot.YearsUsed)
        {
            int from = hot.IndexOf(first.PlusYears(year - first.Year));
            if (from < 0 || from + days > roots.Length)
                continue;
            float[] spell = roots[from..(from + days)];
            hottest.Add(spell.Max());
            over.Add(spell.Count(r => r > GroundRemark.RootHeatC));
        }
        if (hottest.Count == 0)
            return null;
        int rootDays = planter.Form.IsBed ? 0 : (int)over.Median();
        Plant[] scorched =
        [
            .. plan.DisplaysOf(planter.Id)
                .Where(d => d.Layer != DisplayLayer.Bulbs && d.Install <= first && first < d.Lift)
                .SelectMany(d => d.Items.Select(i => plan.Plant(i.PlantId)))
                .Where(p => p.LightHigh < planter.Exposure || rootDays >= HarmfulDays)
                .DistinctBy(p => p.Id),
        ];
        return rootDays == 0 && scorched.Length == 0 ? null : new HeatStress(planter, hottest.Median(), rootDays, scorched);
    }
}

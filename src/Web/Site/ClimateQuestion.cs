using System.Globalization;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Web.Site;

/// <summary>What is asked of the ground: where, how deep, in which weather, and for which plant's roots.</summary>
public sealed class ClimateQuestion
{
    /// <summary>"bed-bare", "bed-litter", "bed-mulch", "pot", or "planter-" and an id.</summary>
    public string? Where { get; set; }

    /// <summary>Depth as typed, in the site's unit.</summary>
    public string? Depth { get; set; }

    /// <summary>"now", "past", "hardest", "hottest", "typical", or a year.</summary>
    public string? Weather { get; set; }

    /// <summary>"zone-" and a number, or a plant's id.</summary>
    public string? Plant { get; set; }

    /// <summary>Width of a pot as typed.</summary>
    public string? Width { get; set; }

    /// <summary>Wall of a pot.</summary>
    public string? Wall { get; set; }

    /// <summary>Sun on a pot.</summary>
    public string? Sun { get; set; }

    /// <summary>Depth in cm, 18 when nothing usable was typed.</summary>
    public double DepthCm(UnitsText units) => units.ReadLength(Depth) is var cm && cm is >= 1 and <= 150 ? cm : 18;

    /// <summary>Width in cm of a pot tried by hand, 40 when nothing usable was typed.</summary>
    public double WidthCm(UnitsText units) => units.ReadLength(Width) is var cm && cm is >= 8 and <= 300 ? cm : 40;

    /// <summary>The pot tried by hand.</summary>
    public ThermalClass Pot(UnitsText units) =>
        ThermalClass.Pot(
            WidthCm(units),
            WidthCm(units) * 0.9,
            WallOfPot,
            Enum.TryParse(Sun, out Exposure sun) ? sun : Exposure.FullSun,
            SurfaceCover.Litter
        );

    /// <summary>The wall of the pot tried by hand.</summary>
    public WallMaterial WallOfPot => Enum.TryParse(Wall, out WallMaterial wall) && wall != WallMaterial.None ? wall : WallMaterial.Terracotta;

    /// <summary>The class asked, with its wall and its name.</summary>
    public (ThermalClass Class, WallMaterial Wall, string Name) Place(Plan plan, FactWriter words)
    {
        UnitsText units = words.Units;
        if (Where == "pot")
            return (Pot(units), WallOfPot, $"{Words.Of(WallOfPot)} pot, {units.Length(WidthCm(units))}");
        if (Where is { } where && where.StartsWith("planter-", StringComparison.Ordinal) && plan.FindPlanter(where[8..]) is { } planter)
            return (planter.ThermalClass(), planter.Wall, planter.Name);
        SurfaceCover cover = Where switch
        {
            "bed-bare" => SurfaceCover.Bare,
            "bed-mulch" => SurfaceCover.Mulch,
            _ => SurfaceCover.Litter,
        };
        return (ThermalClass.Bed(cover), WallMaterial.None, $"bed under {words.Say(cover)}");
    }

    /// <summary>What can be asked: beds, each kind of planter once, and a pot tried by hand.</summary>
    public static IReadOnlyList<(string Value, string Text)> Places(Plan plan, FactWriter words) =>
        [
            ("bed-litter", "bed, thin litter"),
            ("bed-mulch", $"bed, {words.Say(SurfaceCover.Mulch)}"),
            ("bed-bare", "bed, bare"),
            ("pot", "a pot of my choice"),
            .. plan
                .Planters.Where(p => !p.Form.IsBed)
                .GroupBy(p => p.ThermalClass())
                .Select(g => ($"planter-{g.First().Id}", g.First().Name + (g.Count() > 1 ? $" and {g.Count() - 1} alike" : string.Empty))),
        ];

    /// <summary>What kills the roots asked for, °C, whether it was estimated, and whose they are.</summary>
    public (double KillingC, bool Estimated, string Name) Roots(Plan plan)
    {
        if (Plant is { } id && plan.FindPlant(id) is { } plant)
        {
            return plant.RootKillingC is { } known
                ? (known, false, plant.CommonName)
                : (RootSurvival.EstimateRootKillingC(plant.TopDamageC), true, plant.CommonName);
        }
        int zone =
            Plant is { } text
            && text.StartsWith("zone-", StringComparison.Ordinal)
            && int.TryParse(text[5..], NumberStyles.None, CultureInfo.InvariantCulture, out int z)
            && z is >= 2 and <= 10
                ? z
                : 6;
        return (RootSurvival.EstimateRootKillingC(RootSurvival.TopHardinessOfZoneC(zone)), true, $"an evergreen hardy to zone {zone}");
    }

    /// <summary>Whose roots can be asked for: evergreens by zone, and what stands for years in the palette.</summary>
    public static IReadOnlyList<(string Value, string Text)> Plants(Plan plan) =>
        [
            .. Enumerable.Range(3, 7).Select(z => ($"zone-{z}", $"evergreen hardy to zone {z}")),
            .. plan
                .Palette.Where(p => p.LifeForm is LifeForm.Shrub or LifeForm.Tree or LifeForm.Perennial or LifeForm.Grass)
                .Select(p => (p.Id, p.CommonName)),
        ];

    /// <summary>The bulb year shown on top, and what it is called; null for none.</summary>
    /// <param name="record">The record.</param>
    /// <param name="notable">Its years by name.</param>
    /// <param name="currentYear">The bulb year of today.</param>
    public (int Year, string Name)? Shown(WeatherRecord record, NotableYears notable, int currentYear)
    {
        bool generated = record.GeneratedFrom is not null;
        return Weather switch
        {
            "typical" => null,
            "now" or "past" or null or "" when generated => null,
            "past" when notable.Past is { } y => (y, "the past year"),
            "hardest" when notable.HardestWinter is { } y => (y, "the hardest winter"),
            "hottest" when notable.HottestSummer is { } y => (y, "the hottest summer"),
            { } text
                when int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out int y)
                    && y >= record.FirstDay.Year - 1
                    && y <= record.LastDay.Year => (y, WeatherYear.Name(y, spansNewYear: true)),
            _ when generated => null,
            _ => (currentYear, "this year"),
        };
    }

    /// <summary>The choices of weather.</summary>
    public static IReadOnlyList<(string Value, string Text)> Weathers(WeatherRecord record) =>
        [
            .. record.GeneratedFrom is null ? [("now", "this year so far"), ("past", "this past year")] : Array.Empty<(string, string)>(),
            ("hardest", "hardest winter on record"),
            ("hottest", "hottest summer on record"),
            ("typical", "all years alone"),
            .. BulbYear.Of(record).Reverse().Select(y => ($"{y.Year}", WeatherYear.Name(y.Year, spansNewYear: true))),
        ];
}

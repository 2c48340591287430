using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Exchange.Weather;

namespace UnrulyMeadow.Core.Tests;

/// <summary>Plants, planters and weather for the checks, plain unless a check says otherwise.</summary>
internal static class A
{
    public static readonly string[] Places = ["New York", "Seattle"];

    public static Station Station(double latitude = 45) => new("S", "a station", latitude, 0, 10);

    /// <summary>The NOAA record of New York or Seattle, 2012–2015.</summary>
    public static WeatherRecord Record(string place)
    {
        using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "data", "new-york-seattle-2012-2015.csv"));
        return WeatherRecord.From(Station(place == "Seattle" ? 47.4 : 40.7), WeatherFile.Read(file, WeatherUnits.Metric, place).Days);
    }

    /// <summary>A record in which every day of every year is given by a rule.</summary>
    public static WeatherRecord Record(int firstYear, int years, Func<LocalDate, (double Min, double Max)> day, double latitude = 45) =>
        WeatherRecord.From(Station(latitude), Days(new LocalDate(firstYear, 1, 1), new LocalDate(firstYear + years, 1, 1), day));

    public static IEnumerable<WeatherDay> Days(LocalDate from, LocalDate to, Func<LocalDate, (double Min, double Max)> day)
    {
        for (LocalDate d = from; d < to; d = d.PlusDays(1))
        {
            (double min, double max) = day(d);
            yield return new WeatherDay(d, min, max, 0);
        }
    }

    /// <summary>A mild seasonal course: coldest near 25 January, mean 12 °C, half range 5 °C.</summary>
    public static (double Min, double Max) Mild(LocalDate d)
    {
        double mean = 12 - (11 * Math.Cos(2 * Math.PI * (d.DayOfYear - 25) / 365.25));
        return (mean - 5, mean + 5);
    }

    public static BulbForcing MidTulip { get; } = new(3.5, -3.4, 19.4, 236, 15) { LightFromH = 9.5 };

    public static Plant Tulip(string id = "tulip", BulbForcing? rule = null, double height = 5, double diameter = 4) =>
        Bulb(id, rule ?? MidTulip, height, diameter);

    public static Plant Bulb(string id, BulbForcing rule, double height, double diameter) =>
        Annual(id) with
        {
            LifeForm = LifeForm.Bulb,
            Green = GreenLeaf.AroundFlower,
            TopDamageC = -25,
            GrowthPerDegreeDay = 0,
            SpreadAtPurchaseCm = 14,
            MatureSpreadCm = 14,
            Bulb = new BulbFigures(height, diameter, 13, 12, 18),
            Windows = [new ColourWindow(ColourPart.Flower, ["#c5283d"], 0.6, rule)],
        };

    public static Plant Annual(string id = "annual", double topDamageC = -10, ColourRule? rule = null) =>
        new()
        {
            Id = id,
            BotanicalName = "Planta annua",
            CommonName = id,
            LifeForm = topDamageC > -1 ? LifeForm.TenderAnnual : LifeForm.CoolSeasonAnnual,
            Habit = Habit.Mounding,
            HeightCm = 25,
            SpreadAtPurchaseCm = 20,
            MatureSpreadCm = 20,
            LightLow = Exposure.PartSun,
            LightHigh = Exposure.FullSun,
            Water = WaterNeed.Medium,
            TopDamageC = topDamageC,
            Green = GreenLeaf.InSeason,
            Windows = [new ColourWindow(ColourPart.Flower, ["#7e57c2"], 0.6, rule ?? new FromInstall(0))],
            Packs = [new Pack("6-pack", 6, 4.5m)],
            Source = "a check",
        };

    /// <summary>The palette that ships with the app.</summary>
    public static IReadOnlyList<Plant> Palette => ShippedPalette.Value;

    /// <summary>A plant of the palette that ships with the app.</summary>
    public static Plant Shipped(string id) => Palette.Single(p => p.Id == id);

    /// <summary>The flowering rule of a bulb of that palette.</summary>
    public static BulbForcing Forcing(string id) => (BulbForcing)Shipped(id).Windows[0].Rule;

    private static readonly Lazy<IReadOnlyList<Plant>> ShippedPalette = new(() =>
    {
        using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "data", "palette.csv"));
        return [.. Exchange.Palette.PaletteSheet.Read(file, []).Select(c => c.Plant)];
    });

    public static Planter Pot(double top = 60, double bottom = 44, double depth = 50, string id = "pot") =>
        new()
        {
            Id = id,
            AreaId = "quay",
            Name = id,
            Form = PlanterForm.Round(top, bottom, depth),
            Exposure = Exposure.FullSun,
            Watering = Watering.Hand,
            ViewedFrom = ViewedFrom.AllRound,
            Wall = WallMaterial.Terracotta,
            WallColour = "#c98a67",
        };

    /// <summary>A pot that has been planted for years.</summary>
    public static Planter UsedPot(string id = "pot") => Pot(id: id) with { Survey = PlanterSurvey.Unseen with { StoodHere = "bedding, every year" } };

    public static Planter Bed(double length = 400, double width = 200) =>
        Pot() with
        {
            Id = "bed",
            Name = "bed",
            Form = new PlanterForm(PlanterShape.RectangularBed, length, width, length, width, 40, 0),
            Wall = WallMaterial.None,
        };

    public static Display Show(string id, LocalDate install, LocalDate lift, DisplayLayer layer, params DisplayItem[] items) =>
        new(id, "pot", layer, install, lift, items);

    public static Standing Stands(LocalDate install, LocalDate lift) => new(install, install, lift, BulbPlace.UsualBed, 0, false, []);

    public static Plan Plan(IReadOnlyList<Plant> palette, params Display[] displays) => Plan([Pot()], palette, displays);

    public static Plan Plan(
        IReadOnlyList<Planter> planters,
        IReadOnlyList<Plant> palette,
        IReadOnlyList<Display> displays,
        IReadOnlyList<Turn>? turns = null
    ) => new(Site.Default, [new Area("quay", "Quay", 0)], planters, palette, displays, turns ?? []);

    public static LocalDate Day(int year, int month, int day) => new(year, month, day);
}

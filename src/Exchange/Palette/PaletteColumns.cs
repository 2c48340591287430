using System.Globalization;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Exchange.Palette;

/// <summary>One column of a palette sheet.</summary>
/// <param name="Name">Its heading.</param>
/// <param name="About">What it holds, with unit and range.</param>
/// <param name="Required">True when a new plant cannot do without it.</param>
/// <param name="Get">The cell of a plant; a number stays a number.</param>
/// <param name="Set">Takes a cell's text into a plant; throws <see cref="FormatException"/> with what is wrong.</param>
public sealed record PaletteColumn(string Name, string About, bool Required, Func<Plant, object> Get, Func<Plant, string, Plant> Set)
{
    /// <summary>The words it may hold; empty for any text.</summary>
    public IReadOnlyList<string> Choices { get; init; } = [];
}

/// <summary>The columns of a palette sheet, in their order.</summary>
public static class PaletteColumns
{
    /// <summary>All columns.</summary>
    public static IReadOnlyList<PaletteColumn> All { get; } =
    [
        Text(
            "id",
            "short name: lower-case letters, digits, hyphens; made from the common name when empty",
            false,
            p => p.Id,
            (p, v) => p with { Id = v }
        ),
        Text("botanical name", "species, group or division; no cultivar", true, p => p.BotanicalName, (p, v) => p with { BotanicalName = v }),
        Text("common name", "name on the day sheet, with the colour", true, p => p.CommonName, (p, v) => p with { CommonName = v }),
        Text("family", "botanical family", false, p => p.Family, (p, v) => p with { Family = v }),
        Choice<LifeForm>("kind", true, p => p.LifeForm, (p, v) => p with { LifeForm = v }),
        Choice<Habit>("habit", true, p => p.Habit, (p, v) => p with { Habit = v }),
        Choice<Texture>("texture", false, p => p.Texture, (p, v) => p with { Texture = v }),
        Choice<Vigour>("vigour", false, p => p.Vigour, (p, v) => p with { Vigour = v }),
        Number("height cm", "in flower or grown, in a container", true, p => p.HeightCm, (p, v) => p with { HeightCm = v }),
        Number("spread bought cm", "width as usually bought", true, p => p.SpreadAtPurchaseCm, (p, v) => p with { SpreadAtPurchaseCm = v }),
        Number("spread grown cm", "width when grown", true, p => p.MatureSpreadCm, (p, v) => p with { MatureSpreadCm = v }),
        Number(
            "growth per degree-day",
            "logistic growth of the width; 0 for what does not grow on",
            false,
            p => p.GrowthPerDegreeDay,
            (p, v) => p with { GrowthPerDegreeDay = v }
        ),
        Number("growth base C", "no growth below, °C", false, p => p.GrowthBaseC, (p, v) => p with { GrowthBaseC = v }),
        Choice<Exposure>("light low", true, p => p.LightLow, (p, v) => p with { LightLow = v }),
        Choice<Exposure>("light high", true, p => p.LightHigh, (p, v) => p with { LightHigh = v }),
        Choice<WaterNeed>("water", true, p => p.Water, (p, v) => p with { Water = v }),
        Choice<RootingMedium>("medium", false, p => p.Roots.Medium, (p, v) => p with { Roots = p.Roots with { Medium = v } }),
        Number("pH low", "3 to 10", false, p => p.Roots.PhLow, (p, v) => p with { Roots = p.Roots with { PhLow = v } }),
        Number("pH high", "3 to 10", false, p => p.Roots.PhHigh, (p, v) => p with { Roots = p.Roots with { PhHigh = v } }),
        Maybe(
            "heat ceiling C",
            "a week's mean above this stalls it, °C; empty for none",
            p => p.Roots.HeatCeilingC,
            (p, v) => p with { Roots = p.Roots with { HeatCeilingC = v } }
        ),
        YesNo("dry summer rest", p => p.Roots.DrySummerRest, (p, v) => p with { Roots = p.Roots with { DrySummerRest = v } }),
        Number("tops spoiled C", "at or below this air temperature, °C", true, p => p.TopDamageC, (p, v) => p with { TopDamageC = v }),
        Maybe("roots die C", "°C; empty where nobody knows", p => p.RootKillingC, (p, v) => p with { RootKillingC = v }),
        Choice<GreenLeaf>("green leaf", true, p => p.Green, (p, v) => p with { Green = v }),
        new(
            "shows",
            "colour windows, see below",
            false,
            p => ShowNotation.Write(p.Windows),
            (p, v) => p with { Windows = ShowNotation.ReadWindows(v) }
        ),
        Maybe("bulb height cm", "base to tip; on bulbs only", p => p.Bulb?.HeightCm, (p, v) => Bulb(p, v, (b, x) => b with { HeightCm = x })),
        Maybe("bulb width cm", "at its widest", p => p.Bulb?.DiameterCm, (p, v) => Bulb(p, v, (b, x) => b with { DiameterCm = x })),
        Maybe("bulb spacing cm", "centre to centre in a bed", p => p.Bulb?.SpacingCm, (p, v) => Bulb(p, v, (b, x) => b with { SpacingCm = x })),
        Maybe(
            "cold weeks low",
            "fewest weeks of cold for good flowers",
            p => p.Bulb?.ColdWeeksLow,
            (p, v) => Bulb(p, v, (b, x) => b with { ColdWeeksLow = x })
        ),
        Maybe(
            "cold weeks high",
            "more than this does nothing",
            p => p.Bulb?.ColdWeeksHigh,
            (p, v) => Bulb(p, v, (b, x) => b with { ColdWeeksHigh = x })
        ),
        new("bulb grades", "e.g. 12/+: 5.2 x 4.2; height by width, cm", false, p => ShowNotation.Write(p.Bulb?.Grades ?? []), Grades),
        new(
            "returns",
            "share of its first show in year 2, 3, …, parted by spaces",
            false,
            p => string.Join(' ', p.ReturnByYear.Select(ShowNotation.Text)),
            (p, v) => p with { ReturnByYear = [.. ShowNotation.Pieces(v, ' ').Select(ShowNotation.Number)] }
        ),
        Text("cutting", "when and how far to cut", false, p => p.Tending.Cutting, (p, v) => p with { Tending = p.Tending with { Cutting = v } }),
        YesNo(
            "deadhead",
            p => p.Tending.Deadhead,
            (p, v) => p with { Tending = p.Tending with { Deadhead = v } },
            "yes where spent flowers are taken off week by week"
        ),
        Choice<CutMoment>("cut when", false, p => p.Tending.CutWhen, (p, v) => p with { Tending = p.Tending with { CutWhen = v } }),
        Number(
            "cut leaves",
            "share of its height that the cut leaves, 0.05 to 1",
            false,
            p => p.Tending.CutLeaves,
            (p, v) => p with { Tending = p.Tending with { CutLeaves = v } }
        ),
        Maybe(
            "flush after days",
            "from a cut to the next flowers",
            p => p.Tending.FlushAfterDays,
            (p, v) => p with { Tending = p.Tending with { FlushAfterDays = v } }
        ),
        Maybe("flush days", "that those flowers show", p => p.Tending.FlushDays, (p, v) => p with { Tending = p.Tending with { FlushDays = v } }),
        Text(
            "hidden by",
            "what hides its dying leaves",
            false,
            p => p.Tending.HiddenBy,
            (p, v) => p with { Tending = p.Tending with { HiddenBy = v } }
        ),
        Text(
            "partner",
            "without which it bears no berries",
            false,
            p => p.Tending.Partner,
            (p, v) => p with { Tending = p.Tending with { Partner = v } }
        ),
        Choice<Eaten>("deer", false, p => p.Resistance.Deer, (p, v) => p with { Resistance = p.Resistance with { Deer = v } }),
        Choice<Eaten>("rabbits", false, p => p.Resistance.Rabbits, (p, v) => p with { Resistance = p.Resistance with { Rabbits = v } }),
        Choice<Eaten>("slugs", false, p => p.Resistance.Slugs, (p, v) => p with { Resistance = p.Resistance with { Slugs = v } }),
        Choice<Grade>("salt borne", false, p => p.Resistance.Salt, (p, v) => p with { Resistance = p.Resistance with { Salt = v } }),
        Choice<Grade>("wind borne", false, p => p.Resistance.Wind, (p, v) => p with { Resistance = p.Resistance with { Wind = v } }),
        Text("pests", "usual pests and diseases", false, p => p.Resistance.Pests, (p, v) => p with { Resistance = p.Resistance with { Pests = v } }),
        Choice<Grade>("pollinators", false, p => p.Pollinators, (p, v) => p with { Pollinators = v }),
        Choice<Hazard>("eaten by people", false, p => p.Harm.People, (p, v) => p with { Harm = p.Harm with { People = v } }),
        Choice<Hazard>("eaten by animals", false, p => p.Harm.Animals, (p, v) => p with { Harm = p.Harm with { Animals = v } }),
        Choice<Hazard>("on skin", false, p => p.Harm.Skin, (p, v) => p with { Harm = p.Harm with { Skin = v } }),
        new(
            "cautions",
            "what the day sheet warns of, parted by |",
            false,
            p => string.Join(" | ", p.Cautions),
            (p, v) => p with { Cautions = [.. ShowNotation.Pieces(v, '|')] }
        ),
        Text("local status", "invasive or protected; the local list decides", false, p => p.LocalStatus, (p, v) => p with { LocalStatus = v }),
        new(
            "packs",
            "e.g. 6-pack: 6 @ 4.5; 10 cm pot: 1 @ 1.9 w 15 (width, cm)",
            true,
            p => ShowNotation.Write(p.Packs),
            (p, v) => p with { Packs = ShowNotation.ReadPacks(v) }
        ),
        new(
            "sold",
            "months in which growers sell it, as in the north, e.g. 2-5 8-11; empty for all year",
            false,
            p => ShowNotation.WriteMonths(p.SoldMonths),
            (p, v) => p with { SoldMonths = ShowNotation.ReadMonths(v) }
        ),
        YesNo("shortlisted", p => p.IsShortlisted, (p, v) => p with { IsShortlisted = v }),
        YesNo("retired", p => p.IsRetired, (p, v) => p with { IsRetired = v }),
        Text("source", "where its figures come from", true, p => p.Source, (p, v) => p with { Source = v }),
    ];

    private static readonly BulbFigures NoBulb = new(0, 0, 0, 0, 0);

    /// <summary>An enumeration's word in a sheet: kebab case.</summary>
    public static string Word<T>(T value)
        where T : struct, Enum =>
        string.Concat(value.ToString().Select((c, i) => char.IsUpper(c) && i > 0 ? $"-{char.ToLowerInvariant(c)}" : $"{char.ToLowerInvariant(c)}"));

    private static Plant Grades(Plant p, string text)
    {
        BulbFigures? bulb = p.Bulb;
        if (bulb is null && text.Length == 0)
            return p;
        return p with { Bulb = (bulb ?? NoBulb) with { Grades = ShowNotation.ReadGrades(text) } };
    }

    private static Plant Bulb(Plant p, double? value, Func<BulbFigures, double, BulbFigures> set) =>
        value is { } v ? p with { Bulb = set(p.Bulb ?? NoBulb, v) }
        : p.Bulb is null ? p
        : p with { Bulb = set(p.Bulb, 0) };

    private static PaletteColumn Text(string name, string about, bool required, Func<Plant, string> get, Func<Plant, string, Plant> set) =>
        new(name, about, required, get, set);

    private static PaletteColumn Number(string name, string about, bool required, Func<Plant, double> get, Func<Plant, double, Plant> set) =>
        new(name, about, required, p => get(p), (p, v) => v.Length == 0 ? p : set(p, ShowNotation.Number(v)));

    private static PaletteColumn Maybe(string name, string about, Func<Plant, double?> get, Func<Plant, double?, Plant> set) =>
        new(name, about, false, p => get(p) is { } v ? v : string.Empty, (p, v) => set(p, v.Length == 0 ? null : ShowNotation.Number(v)));

    private static PaletteColumn YesNo(string name, Func<Plant, bool> get, Func<Plant, bool, Plant> set, string about = "yes or no") =>
        new(
            name,
            about,
            false,
            p => get(p) ? "yes" : "no",
            (p, v) =>
                set(
                    p,
                    v.ToLower(CultureInfo.InvariantCulture) switch
                    {
                        "yes" => true,
                        "no" or "" => false,
                        _ => throw new FormatException($"\"{v}\" must be yes or no"),
                    }
                )
        )
        {
            Choices = ["no", "yes"],
        };

    private static PaletteColumn Choice<T>(string name, bool required, Func<Plant, T> get, Func<Plant, T, Plant> set)
        where T : struct, Enum
    {
        var words = Enum.GetValues<T>().ToDictionary(Word, v => v, StringComparer.OrdinalIgnoreCase);
        return new(
            name,
            string.Join(", ", words.Keys),
            required,
            p => Word(get(p)),
            (p, v) =>
                v.Length == 0 ? p
                : words.TryGetValue(v, out T value) ? set(p, value)
                : throw new FormatException($"\"{v}\" must be one of {string.Join(", ", words.Keys)}")
        )
        {
            Choices = [.. words.Keys],
        };
    }
}

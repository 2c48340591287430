namespace UnrulyMeadow.Web.Site;

/// <summary>What a rule's figure measures, so that it is typed in the site's units.</summary>
public enum FigureKind
{
    /// <summary>A count, hours, days or weeks: the same everywhere.</summary>
    Plain,

    /// <summary>A temperature.</summary>
    Temperature,

    /// <summary>Warmth added up over days.</summary>
    DegreeDays,
}

/// <summary>One figure of a rule.</summary>
/// <param name="Key">Its name in a sheet.</param>
/// <param name="Label">What it is called in a form.</param>
/// <param name="Kind">What it measures.</param>
/// <param name="MayLack">True when it may be left out.</param>
/// <param name="Usual">What a form begins with where no plant of the palette goes by the rule; null for none.</param>
public sealed record RuleFigure(string Key, string Label, FigureKind Kind = FigureKind.Plain, bool MayLack = false, double? Usual = null);

/// <summary>A rule by which colour comes and goes, as a form asks for it.</summary>
/// <param name="Rule">Its name in a sheet.</param>
/// <param name="Name">Its plain name.</param>
/// <param name="Figures">Its figures.</param>
public sealed record RuleForm(string Rule, string Name, IReadOnlyList<RuleFigure> Figures)
{
    /// <summary>Every rule, those that are wanted most first.</summary>
    public static IReadOnlyList<RuleForm> All { get; } =
    [
        new(
            "from-install",
            "days since planting",
            [
                new("bud", "opens after, days"),
                new("days", "shows for, days", MayLack: true),
                new("ceiling", "rests in weeks warmer than", FigureKind.Temperature, MayLack: true),
            ]
        ),
        new("heat-from-install", "warmth since planting", [Above, new("sum", "opens at", FigureKind.DegreeDays)]),
        new(
            "warmth",
            "the warmth of the past fortnight",
            [
                new("from", "none below", FigureKind.Temperature),
                new("full", "all from", FigureKind.Temperature),
                new("ceiling", "spent above", FigureKind.Temperature),
            ]
        ),
        new(
            "air-heat",
            "warmth of the year’s air",
            [Above with { Usual = 5 }, new("sum", "opens at", FigureKind.DegreeDays, Usual: 600), Shows with { Usual = 40 }, Browns]
        ),
        new(
            "chilling-forcing",
            "cold first, then warmth",
            [
                Above,
                new("chill", "days of chilling wanted"),
                new("sum", "opens at", FigureKind.DegreeDays),
                Shows,
                Light,
                new("unchilled", "share that opens unchilled, 0 to 1", MayLack: true),
                Browns,
            ]
        ),
        new(
            "bulb-forcing",
            "cold, then warmth in the soil: bulbs",
            [
                Above,
                new("cold-start", "weeks of cold before it begins"),
                new("cold-span", "further weeks until it has enough"),
                new("sum", "opens at", FigureKind.DegreeDays),
                Shows,
                Light,
            ]
        ),
        new(
            "short-days",
            "short days",
            [
                new("below", "days shorter than, hours"),
                new("days", "opens after so many of them"),
                new("cool", "weeks count whole up to", FigureKind.Temperature),
                new("hot", "and not at all from", FigureKind.Temperature),
                new("shows", "shows for, days"),
                Ends,
            ]
        ),
        new(
            "fruit",
            "summer’s warmth, then short days: fruit",
            [Above, new("sum", "ripe at", FigureKind.DegreeDays), new("below", "and days shorter than, hours"), Shows, Ends]
        ),
        new("all-year", "all the time it stands", []),
        new("in-leaf", "while it is in leaf", [Above, LeafOut, LeafDrop, new("last", "only the last so many days", MayLack: true)]),
        new("bare-stem", "while it is bare of leaf", [Above, LeafOut, LeafDrop]),
        new("cool-nights", "cool nights", [new("below", "nights below", FigureKind.Temperature), new("nights", "full after so many")]),
        new("cooling", "the year cools", [new("below", "a week’s mean below", FigureKind.Temperature, Usual: 14), Shows with { Usual = 40 }]),
    ];

    private static RuleFigure Above => new("base", "counts warmth above", FigureKind.Temperature);

    private static RuleFigure Shows => new("days", "shows for, days");

    private static RuleFigure Light => new("light", "days longer than, hours", MayLack: true);

    private static RuleFigure Browns => new("browns", "browned by a fortnight above", FigureKind.Temperature, MayLack: true);

    private static RuleFigure Ends => new("ends", "ended by a night of", FigureKind.Temperature, MayLack: true);

    private static RuleFigure LeafOut => new("sum", "leaves out at", FigureKind.DegreeDays);

    private static RuleFigure LeafDrop => new("nights", "leaves fall after so many cold nights");
}

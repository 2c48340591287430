using System.Globalization;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Web.Site;

/// <summary>A planter's survey as typed.</summary>
public sealed class SurveyInput
{
    public string? DrainHoles { get; set; } = "1";

    public string? OnFeet { get; set; } = "yes";

    public string? Gravel { get; set; } = "no";

    public string? Shelter { get; set; } = nameof(WinterShelter.Open);

    public string? RestsFrom { get; set; }

    public string? RestsUntil { get; set; }

    public string? WallThickness { get; set; }

    public string? Soil { get; set; }

    public string? Ph { get; set; }

    public string? WeedFabric { get; set; } = "no";

    public string? Mulch { get; set; }

    public string? Masonry { get; set; } = nameof(MasonryHeat.None);

    public string? Wind { get; set; } = nameof(WindReach.Usual);

    public string? SeaSpray { get; set; } = "no";

    public string? DeicingSalt { get; set; } = "no";

    public string? Deer { get; set; } = "no";

    public string? Dogs { get; set; } = "no";

    public string? Public { get; set; } = nameof(PublicReach.Passing);

    public string? FrostPocket { get; set; }

    public string? Sightline { get; set; }

    public string? OnDeck { get; set; } = "no";

    public string? DeckLimit { get; set; }

    public string? TreeName { get; set; }

    public string? TreeCrown { get; set; }

    public string? TreeHeight { get; set; }

    public string? TreeRoots { get; set; }

    public string? TreeGrowth { get; set; }

    public string? TreeYear { get; set; }

    public string? LookGroup { get; set; }

    public string? StoodHere { get; set; }

    public string? StoodSince { get; set; }

    /// <summary>A survey as a form shows it.</summary>
    public static SurveyInput From(PlanterSurvey s, UnitsText units)
    {
        string? Length(double? cm) => cm is { } v ? units.LengthNumber(v) : null;
        string? Plain(double? v) => v?.ToString("0.##", CultureInfo.InvariantCulture);
        return new SurveyInput
        {
            DrainHoles = $"{s.DrainHoles}",
            OnFeet = YesNo(s.OnFeet),
            Gravel = YesNo(s.GravelOverHole),
            Shelter = s.Shelter.ToString(),
            RestsFrom = s.RestsFromGenus,
            RestsUntil = s.RestsUntil is { } until ? Words.Iso(until) : null,
            WallThickness = Length(s.WallThicknessCm),
            Soil = s.Soil?.ToString(),
            Ph = Plain(s.Ph),
            WeedFabric = YesNo(s.WeedFabric),
            Mulch = s.MulchCm == 0 ? null : Length(s.MulchCm),
            Masonry = s.Masonry.ToString(),
            Wind = s.Wind.ToString(),
            SeaSpray = YesNo(s.SeaSpray),
            DeicingSalt = YesNo(s.DeicingSalt),
            Deer = YesNo(s.Deer),
            Dogs = YesNo(s.Dogs),
            Public = s.Public.ToString(),
            FrostPocket = s.FrostPocketC == 0 ? null : Plain(units.IsUs ? s.FrostPocketC * 1.8 : s.FrostPocketC),
            Sightline = Length(s.SightlineCm),
            OnDeck = YesNo(s.OnDeck),
            DeckLimit = Plain(s.DeckLimitKgM2 is { } d ? units.LoadNumber(d) : null),
            TreeName = s.Tree?.Name,
            TreeCrown = Length(s.Tree?.CrownCm),
            TreeHeight = Length(s.Tree?.HeightCm),
            TreeRoots = Length(s.Tree?.RootCm),
            TreeGrowth = Length(s.Tree?.GrowthCm),
            TreeYear = s.Tree is { } t ? $"{t.SurveyedIn}" : null,
            LookGroup = s.LookGroup,
            StoodHere = s.StoodHere,
            StoodSince = s.StoodSince is { } since ? Words.Iso(since) : null,
        };
    }

    /// <summary>The survey as typed; what is no number becomes one that its checks refuse.</summary>
    /// <param name="units">Units.</param>
    /// <param name="isBed">True for a bed.</param>
    /// <param name="faults">Takes what cannot be read at all.</param>
    public PlanterSurvey Read(UnitsText units, bool isBed, FaultList faults)
    {
        double? Length(string? text) => string.IsNullOrWhiteSpace(text) ? null : Math.Round(units.ReadLength(text), 3);
        StandingTree? tree =
            string.IsNullOrWhiteSpace(TreeName) && string.IsNullOrWhiteSpace(TreeCrown)
                ? null
                : new StandingTree(
                    TreeName?.Trim() ?? string.Empty,
                    Length(TreeCrown) ?? double.NaN,
                    Length(TreeHeight) ?? double.NaN,
                    Length(TreeRoots) ?? Length(TreeCrown) ?? double.NaN,
                    Length(TreeGrowth) ?? 0,
                    (int)(Number(TreeYear) is { } y && y is > 0 and < 9999 ? y : 0)
                );
        if (!string.IsNullOrWhiteSpace(StoodSince) && Words.ReadDay(StoodSince) is null)
            faults.Add("survey.stoodSince", "must be a date");
        if (!string.IsNullOrWhiteSpace(RestsUntil) && Words.ReadDay(RestsUntil) is null)
            faults.Add("survey.restsUntil", "must be a date");
        return new PlanterSurvey
        {
            RestsFromGenus = string.IsNullOrWhiteSpace(RestsFrom) ? null : RestsFrom.Trim(),
            RestsUntil = Words.ReadDay(RestsUntil),
            DrainHoles =
                Number(DrainHoles) is { } holes && holes == Math.Floor(holes) && Math.Abs(holes) < 1000 ? (int)holes
                : isBed && string.IsNullOrWhiteSpace(DrainHoles) ? 1
                : -1,
            OnFeet = OnFeet != "no",
            GravelOverHole = Gravel == "yes",
            Shelter = !isBed && Enum.TryParse(Shelter, out WinterShelter shelter) && Enum.IsDefined(shelter) ? shelter : WinterShelter.Open,
            WallThicknessCm = isBed ? null : Length(WallThickness),
            Soil = Enum.TryParse(Soil, out SoilKind soil) && Enum.IsDefined(soil) ? soil : null,
            Ph = Number(Ph),
            WeedFabric = WeedFabric == "yes",
            MulchCm = Length(Mulch) ?? 0,
            Masonry = Parse(Masonry, MasonryHeat.None),
            Wind = Parse(Wind, WindReach.Usual),
            SeaSpray = SeaSpray == "yes",
            DeicingSalt = DeicingSalt == "yes",
            Deer = Deer == "yes",
            Dogs = Dogs == "yes",
            Public = Parse(Public, PublicReach.Passing),
            FrostPocketC = Math.Round((Number(FrostPocket) ?? 0) / (units.IsUs ? 1.8 : 1), 3),
            SightlineCm = Length(Sightline),
            OnDeck = OnDeck == "yes",
            DeckLimitKgM2 = Number(DeckLimit) is { } load ? Math.Round(units.ReadLoad(load), 1) : null,
            Tree = tree,
            LookGroup = LookGroup?.Trim() ?? string.Empty,
            StoodHere = StoodHere?.Trim() ?? string.Empty,
            StoodSince = Words.ReadDay(StoodSince),
        };
    }

    /// <summary>The form's field that a fault of the survey speaks of.</summary>
    public static string? Field(string fault) =>
        fault switch
        {
            "drainHoles" => "Survey.DrainHoles",
            "wallThicknessCm" => "Survey.WallThickness",
            "ph" => "Survey.Ph",
            "mulchCm" => "Survey.Mulch",
            "frostPocketC" => "Survey.FrostPocket",
            "sightlineCm" => "Survey.Sightline",
            "deckLimitKgM2" => "Survey.DeckLimit",
            "onDeck" => "Survey.OnDeck",
            "tree.name" => "Survey.TreeName",
            "tree.crownCm" => "Survey.TreeCrown",
            "tree.heightCm" => "Survey.TreeHeight",
            "tree.rootCm" => "Survey.TreeRoots",
            "tree.growthCm" => "Survey.TreeGrowth",
            "tree.surveyedIn" => "Survey.TreeYear",
            "restsFromGenus" => "Survey.RestsFrom",
            "restsUntil" => "Survey.RestsUntil",
            "lookGroup" => "Survey.LookGroup",
            "stoodHere" => "Survey.StoodHere",
            "stoodSince" => "Survey.StoodSince",
            _ => null,
        };

    private static string YesNo(bool value) => value ? "yes" : "no";

    // Null for an empty field; NaN, which every range refuses, for what is no number.
    private static double? Number(string? text) => string.IsNullOrWhiteSpace(text) ? null : TypedNumber.Read(text) ?? double.NaN;

    private static T Parse<T>(string? text, T otherwise)
        where T : struct, Enum => Enum.TryParse(text, out T value) && Enum.IsDefined(value) ? value : otherwise;
}

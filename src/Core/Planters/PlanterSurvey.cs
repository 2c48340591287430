using System.Text.Json.Serialization;
using NodaTime;
using UnrulyMeadow.Core.Colour;

namespace UnrulyMeadow.Core.Planters;

/// <summary>Heat that masonry throws back at a planter.</summary>
public enum MasonryHeat
{
    /// <summary>None near.</summary>
    None,

    /// <summary>A sunny wall or paving beside it.</summary>
    OneWall,

    /// <summary>A sunny court, walls on several sides.</summary>
    Court,
}

/// <summary>How the wind reaches a planter.</summary>
public enum WindReach
{
    /// <summary>Sheltered.</summary>
    Sheltered,

    /// <summary>As usual in a town or garden.</summary>
    Usual,

    /// <summary>On a quay, a roof, a corner.</summary>
    Exposed,
}

/// <summary>What the planter is filled with, or the bed's own soil.</summary>
public enum SoilKind
{
    /// <summary>Potting medium.</summary>
    Potting,

    /// <summary>Garden loam.</summary>
    Loam,

    /// <summary>Sandy.</summary>
    Sandy,

    /// <summary>Heavy clay.</summary>
    HeavyClay,

    /// <summary>Amended with compost or grit.</summary>
    Amended,

    /// <summary>Often saturated.</summary>
    Saturated,
}

/// <summary>How near people and their dogs come.</summary>
public enum PublicReach
{
    /// <summary>Out of reach.</summary>
    OutOfReach,

    /// <summary>They walk past.</summary>
    Passing,

    /// <summary>They touch it, sit on it, children play beside it.</summary>
    Touching,
}

/// <summary>A tree or shrub that stands in a planter for good.</summary>
/// <param name="Name">What it is.</param>
/// <param name="CrownCm">Width of its crown at the survey, cm.</param>
/// <param name="HeightCm">Height at the survey, cm.</param>
/// <param name="RootCm">Width of its root spread at the survey, cm.</param>
/// <param name="GrowthCm">How much wider crown and roots grow each year, cm.</param>
/// <param name="SurveyedIn">Year of the survey.</param>
public sealed record StandingTree(string Name, double CrownCm, double HeightCm, double RootCm, double GrowthCm, int SurveyedIn)
{
    /// <summary>Width of its crown in a year, cm.</summary>
    public double CrownIn(int year) => CrownCm + (GrowthCm * Math.Max(0, year - SurveyedIn));

    /// <summary>Width of its roots in a year, cm.</summary>
    public double RootsIn(int year) => RootCm + (GrowthCm * Math.Max(0, year - SurveyedIn));

    /// <summary>Every fault of the tree.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Text("name", Name, 60);
        faults.Range("crownCm", CrownCm, 10, 3000, "cm");
        faults.Range("heightCm", HeightCm, 10, 4000, "cm");
        faults.Range("rootCm", RootCm, 5, 3000, "cm");
        faults.Range("growthCm", GrowthCm, 0, 200, "cm a year");
        faults.Range("surveyedIn", SurveyedIn, 1950, 2150, string.Empty);
        return faults.Faults;
    }
}

/// <summary>What the crew saw at a planter beyond its measures. Everything has the value that is usual where nobody has looked.</summary>
public sealed record PlanterSurvey
{
    /// <summary>A planter that nobody has looked at.</summary>
    public static PlanterSurvey Unseen { get; } = new();

    /// <summary>Free drainage holes in a container.</summary>
    public int DrainHoles { get; init; } = 1;

    /// <summary>True when it stands on feet and air passes beneath.</summary>
    public bool OnFeet { get; init; } = true;

    /// <summary>What stands around a container in winter besides its wall.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public Ground.WinterShelter Shelter { get; init; }

    /// <summary>True with shards or gravel over the hole.</summary>
    public bool GravelOverHole { get; init; }

    /// <summary>Thickness of the wall, cm; null for what is usual for its material.</summary>
    public double? WallThicknessCm { get; init; }

    /// <summary>What it is filled with; null for potting medium in a container and loam in a bed.</summary>
    public SoilKind? Soil { get; init; }

    /// <summary>Measured pH of it; null where nobody has measured.</summary>
    public double? Ph { get; init; }

    /// <summary>True with weed fabric under the mulch.</summary>
    public bool WeedFabric { get; init; }

    /// <summary>Mulch, cm.</summary>
    public double MulchCm { get; init; }

    /// <summary>Heat thrown back by masonry.</summary>
    public MasonryHeat Masonry { get; init; }

    /// <summary>Wind.</summary>
    public WindReach Wind { get; init; } = WindReach.Usual;

    /// <summary>Sea spray reaches it.</summary>
    public bool SeaSpray { get; init; }

    /// <summary>De-icing salt reaches it.</summary>
    public bool DeicingSalt { get; init; }

    /// <summary>Deer come to it.</summary>
    public bool Deer { get; init; }

    /// <summary>Dogs come to it.</summary>
    public bool Dogs { get; init; }

    /// <summary>How near people come.</summary>
    public PublicReach Public { get; init; } = PublicReach.Passing;

    /// <summary>How much colder its leaves are than the area's others on clear nights, °C.</summary>
    public double FrostPocketC { get; init; }

    /// <summary>No plant may stand higher than this above the ground, cm: a sightline, a sign, a window; null for no limit.</summary>
    public double? SightlineCm { get; init; }

    /// <summary>What the deck, roof or balcony under it may bear, kg per m², as given by a qualified person; null on the ground.</summary>
    public double? DeckLimitKgM2 { get; init; }

    /// <summary>True when it stands on a deck, a roof or a balcony.</summary>
    public bool OnDeck { get; init; }

    /// <summary>Colour of the wall, hedge or paving behind it, #rrggbb; null where there is none to speak of.</summary>
    public string? BackdropColour { get; init; }

    /// <summary>A tree or shrub that stands in it for good.</summary>
    public StandingTree? Tree { get; init; }

    /// <summary>The group with which it shares a look; empty for none.</summary>
    public string LookGroup { get; init; } = string.Empty;

    /// <summary>What stood here when it was surveyed, and how it did.</summary>
    public string StoodHere { get; init; } = string.Empty;

    /// <summary>Since when that stood.</summary>
    public LocalDate? StoodSince { get; init; }

    /// <summary>The genus that the planter rests from after a disease, e.g. Tulipa after tulip fire; empty for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? RestsFromGenus { get; init; }

    /// <summary>Until when it rests from it; null with <see cref="RestsFromGenus"/> for good.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public LocalDate? RestsUntil { get; init; }

    /// <summary>True when a plant that goes in on a day is of the genus that the planter rests from.</summary>
    public bool RestsFrom(Palette.Plant plant, LocalDate install) =>
        !string.IsNullOrEmpty(RestsFromGenus)
        && (RestsUntil is null || install < RestsUntil)
        && plant.BotanicalName.Split(' ', ',')[0].Equals(RestsFromGenus, StringComparison.OrdinalIgnoreCase);

    /// <summary>Extra heat on a hot day, °C: 2 beside one wall, 4 in a court (common practice).</summary>
    public double MasonryHeatC =>
        Masonry switch
        {
            MasonryHeat.OneWall => 2,
            MasonryHeat.Court => 4,
            _ => 0,
        };

    /// <summary>Every fault of the survey.</summary>
    /// <param name="isBed">True for a bed.</param>
    public IReadOnlyList<Fault> Faults(bool isBed)
    {
        var faults = new FaultList();
        faults.Range("drainHoles", DrainHoles, 0, 100, "holes");
        if (WallThicknessCm is { } wall)
            faults.Range("wallThicknessCm", wall, 0.05, 40, "cm");
        if (Ph is { } ph)
            faults.Range("ph", ph, 3, 10, "pH");
        faults.Range("mulchCm", MulchCm, 0, 30, "cm");
        faults.Range("frostPocketC", FrostPocketC, -3, 6, "°C");
        if (SightlineCm is { } sight)
            faults.Range("sightlineCm", sight, 10, 1000, "cm");
        if (DeckLimitKgM2 is { } deck)
            faults.Range("deckLimitKgM2", deck, 10, 20_000, "kg/m²");
        if (isBed && OnDeck)
            faults.Add("onDeck", "must be no for a bed in the ground; give what stands on a deck as a container");
        if (BackdropColour is not null && !Srgb.IsColour(BackdropColour))
            faults.Add("backdropColour", "must be written #rrggbb");
        if (Tree is not null)
            faults.AddAll("tree", Tree.Faults());
        if (RestsFromGenus is { } genus && (genus.Length is < 2 or > 40 || !genus.All(char.IsLetter)))
            faults.Add("restsFromGenus", "must be one genus, e.g. Tulipa, or left out");
        if (RestsUntil is { } until && (until.Year is < 1950 or > 2150 || string.IsNullOrEmpty(RestsFromGenus)))
            faults.Add("restsUntil", "must be a date from 1950 to 2150, given together with the genus");
        faults.Phrase("lookGroup", LookGroup, 60);
        faults.Note("stoodHere", StoodHere, 2000);
        if (StoodSince is { } since && since.Year is < 1950 or > 2150)
            faults.Add("stoodSince", "must be a date from 1950 to 2150");
        return faults.Faults;
    }
}

using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Rules;

namespace UnrulyMeadow.Core.Planters;

/// <summary>How a planter is watered.</summary>
public enum Watering
{
    /// <summary>By hand.</summary>
    Hand,

    /// <summary>By drip line: out before a turn and back after it.</summary>
    Drip,

    /// <summary>By rain alone.</summary>
    Rain,
}

/// <summary>From where people see a planter.</summary>
public enum ViewedFrom
{
    /// <summary>From all round: tallest in the centre.</summary>
    AllRound,

    /// <summary>From one side: tallest at the back.</summary>
    OneSide,
}

/// <summary>A part of the site with planters of its own: a quay, a courtyard.</summary>
/// <param name="Id">Short name.</param>
/// <param name="Name">Name for people.</param>
/// <param name="FrostPocketC">How much colder leaves are here on clear nights than the station's shelter, °C (default 1, common practice).</param>
public sealed record Area(string Id, string Name, double FrostPocketC)
{
    /// <summary>Every fault of the area.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        if (!Ids.IsValid(Id))
            faults.Add("id", Ids.Rule);
        faults.Text("name", Name, 60);
        faults.Range("frostPocketC", FrostPocketC, -2, 6, "°C");
        return faults.Faults;
    }
}

/// <summary>A container or bed that must not look bare.</summary>
public sealed record Planter : ISubject
{
    /// <summary>Short name for files and addresses.</summary>
    public required string Id { get; init; }

    /// <summary>The area it stands in.</summary>
    public required string AreaId { get; init; }

    /// <summary>Name for people, unique on the site.</summary>
    public required string Name { get; init; }

    /// <summary>Inside measures.</summary>
    public required PlanterForm Form { get; init; }

    /// <summary>Direct sun.</summary>
    public required Exposure Exposure { get; init; }

    /// <summary>How it is watered.</summary>
    public required Watering Watering { get; init; }

    /// <summary>From where it is seen.</summary>
    public required ViewedFrom ViewedFrom { get; init; }

    /// <summary>Wall.</summary>
    public required WallMaterial Wall { get; init; }

    /// <summary>Wall colour, #rrggbb.</summary>
    public required string WallColour { get; init; }

    /// <summary>What stands between it and the sun; null when nobody has looked.</summary>
    public Skyline? Skyline { get; init; }

    /// <summary>What the crew saw at it.</summary>
    public PlanterSurvey Survey { get; init; } = PlanterSurvey.Unseen;

    /// <summary>Where it stands on the site's map; null when nobody has placed it.</summary>
    public MapPlace? Place { get; init; }

    /// <summary>Where it follows other schools than its site; null where it follows the site in all.</summary>
    public PlanterRules? Rules { get; init; }

    /// <summary>True when it is no longer planted; its history stays.</summary>
    public bool IsRetired { get; init; }

    /// <summary>Anything else the crew should know.</summary>
    public string Note { get; init; } = string.Empty;

    /// <summary>A depth in this planter, as heat knows it.</summary>
    public BulbPlace PlaceAt(double depthCm) => new(ThermalClass(), depthCm);

    /// <summary>All that decides the temperature inside it; see <see cref="PlanterForm.ThermalClass"/>.</summary>
    public ThermalClass ThermalClass() => Form.ThermalClass(Wall, WallColour, Exposure, Survey);

    /// <summary>Every fault of the planter.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        if (!Ids.IsValid(Id))
            faults.Add("id", Ids.Rule);
        if (!Ids.IsValid(AreaId))
            faults.Add("areaId", "must name an area");
        faults.Text("name", Name, 60);
        faults.AddAll("form", Form.Faults());
        if (!Srgb.IsColour(WallColour))
            faults.Add("wallColour", "must be written #rrggbb");
        faults.Note("note", Note, 2000);
        if (Skyline is not null)
            faults.AddAll("skyline", Skyline.Faults());
        faults.AddAll("survey", Survey.Faults(Form.IsBed));
        if (Place is not null)
            faults.AddAll("place", Place.Faults());
        if (Form.IsBed != (Wall == WallMaterial.None))
            faults.Add("wall", Form.IsBed ? "must be none for a bed" : "must be given for a container");
        return faults.Faults;
    }
}

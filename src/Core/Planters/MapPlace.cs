namespace UnrulyMeadow.Core.Planters;

/// <summary>Where a planter's middle stands on the site's map, and how it is turned.</summary>
/// <param name="EastM">Metres east of the map's origin.</param>
/// <param name="NorthM">Metres north of it.</param>
/// <param name="TurnDeg">Its length points this many degrees anticlockwise from east.</param>
public sealed record MapPlace(double EastM, double NorthM, double TurnDeg = 0)
{
    /// <summary>The map reaches this far from its origin, m.</summary>
    public const double FarthestM = 20_000;

    /// <summary>The middle of some planters that stand on the map; null where none does.</summary>
    public static MapPlace? MiddleOf(IEnumerable<Planter> planters)
    {
        List<MapPlace> places = [.. planters.Where(p => !p.IsRetired).Select(p => p.Place).OfType<MapPlace>()];
        return places.Count == 0 ? null : new MapPlace(places.Average(p => p.EastM), places.Average(p => p.NorthM));
    }

    /// <summary>Every fault of the place.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Range("eastM", EastM, -FarthestM, FarthestM, "m");
        faults.Range("northM", NorthM, -FarthestM, FarthestM, "m");
        faults.Range("turnDeg", TurnDeg, -360, 360, "degrees");
        return faults.Faults;
    }

    /// <summary>Distance to another place, m.</summary>
    public double DistanceTo(MapPlace other) => Math.Sqrt(Math.Pow(EastM - other.EastM, 2) + Math.Pow(NorthM - other.NorthM, 2));
}

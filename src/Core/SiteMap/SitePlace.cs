namespace UnrulyMeadow.Core.SiteMap;

/// <summary>Where a site lies.</summary>
/// <param name="LatitudeDeg">Degrees north; negative in the south.</param>
/// <param name="LongitudeDeg">Degrees east; negative in the west.</param>
/// <param name="ElevationM">Metres above the sea.</param>
/// <param name="AtElevation">True to carry a station's temperatures to the site's height, 6.5 °C per km.</param>
public sealed record SitePlace(double LatitudeDeg, double LongitudeDeg, double ElevationM, bool AtElevation = false)
{
    /// <summary>Every fault of the place.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Range("latitudeDeg", LatitudeDeg, -90, 90, "degrees");
        faults.Range("longitudeDeg", LongitudeDeg, -180, 180, "degrees");
        faults.Range("elevationM", ElevationM, -430, 9000, "m");
        return faults.Faults;
    }
}

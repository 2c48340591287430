namespace UnrulyMeadow.Core.Climate;

/// <summary>A weather station: where its thermometer stands.</summary>
/// <param name="Id">The record's own name for the station, e.g. a GHCN identifier.</param>
/// <param name="Name">A name for people.</param>
/// <param name="LatitudeDeg">Degrees north; negative in the south.</param>
/// <param name="LongitudeDeg">Degrees east; negative in the west.</param>
/// <param name="ElevationM">Metres above the sea.</param>
public sealed record Station(string Id, string Name, double LatitudeDeg, double LongitudeDeg, double ElevationM)
{
    /// <summary>True where the year's cold lies in July, so that climate years run July to June.</summary>
    public bool IsSouthern => LatitudeDeg < 0;

    /// <summary>True between the tropics, where no half of the year is the warm one.</summary>
    public bool IsTropical => Math.Abs(LatitudeDeg) < 23.5;

    /// <summary>Great-circle distance to a place, km (haversine, mean radius 6,371 km).</summary>
    public double DistanceKm(double latitudeDeg, double longitudeDeg)
    {
        static double Half(double degrees) => Math.Pow(Math.Sin(degrees * Math.PI / 360), 2);
        double h =
            Half(latitudeDeg - LatitudeDeg)
            + (Math.Cos(latitudeDeg * Math.PI / 180) * Math.Cos(LatitudeDeg * Math.PI / 180) * Half(longitudeDeg - LongitudeDeg));
        return 2 * 6371 * Math.Asin(Math.Sqrt(Math.Min(1, h)));
    }

    /// <summary>Every fault of the station's own figures.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Text("id", Id, 40);
        faults.Text("name", Name, 80);
        faults.Range("latitudeDeg", LatitudeDeg, -90, 90, "degrees");
        faults.Range("longitudeDeg", LongitudeDeg, -180, 180, "degrees");
        faults.Range("elevationM", ElevationM, -430, 5000, "m");
        return faults.Faults;
    }
}

using System.Globalization;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.SiteMap;

namespace UnrulyMeadow.Web.Site;

/// <summary>Twelve monthly normals as typed.</summary>
public sealed class NormalsInput
{
    public string? Name { get; set; }

    public string? Latitude { get; set; }

    public string? Longitude { get; set; }

    public string? Elevation { get; set; }

    public string? ClimateId { get; set; } = "continental";

    public string?[] Min { get; set; } = new string?[12];

    public string?[] Max { get; set; } = new string?[12];

    public string?[] Rain { get; set; } = new string?[12];

    /// <summary>True when anything was typed, so that the form stays open.</summary>
    public bool IsBegun => !string.IsNullOrWhiteSpace(Name) || Min.Concat(Max).Any(m => !string.IsNullOrWhiteSpace(m));

    /// <summary>The station and its normals in SI.</summary>
    /// <param name="units">Units typed in.</param>
    /// <param name="place">The site's place, where the station's is left out.</param>
    /// <exception cref="InvalidInputException">A month is missing or no number; all are named.</exception>
    public (Station Station, MonthlyNormals Normals) Read(UnitsText units, SitePlace? place)
    {
        var faults = new FaultList();
        double Celsius(double v) => units.IsUs ? (v - 32) * 5 / 9 : v;
        double[] min = Twelve(faults, Min, "mean lowest", Celsius);
        double[] max = Twelve(faults, Max, "mean highest", Celsius);
        double[]? rain = Array.TrueForAll(Rain, string.IsNullOrWhiteSpace) ? null : Twelve(faults, Rain, "rain", v => units.IsUs ? v * 25.4 : v);
        string name = string.IsNullOrWhiteSpace(Name) ? "Monthly normals" : Name.Trim();
        var station = new Station(
            Ids.From(name, _ => false),
            name,
            Coordinate(faults, Latitude, "latitudeDeg", place?.LatitudeDeg),
            Coordinate(faults, Longitude, "longitudeDeg", place?.LongitudeDeg),
            units.ReadMetres(Coordinate(faults, Elevation, "elevationM", units.Metres(place?.ElevationM ?? 0)))
        );
        faults.ThrowIfAny();
        return (station, new MonthlyNormals(min, max, rain, ClimateId ?? string.Empty));
    }

    /// <summary>Refuses what makes no sense, each month by its name.</summary>
    /// <exception cref="InvalidInputException">Something is faulty or makes no sense; all is named.</exception>
    public static void Check(Station station, MonthlyNormals normals)
    {
        IReadOnlyList<Fault> wrong = normals.FaultsAsTyped(station);
        if (wrong.Count > 0)
            throw new InvalidInputException([.. wrong.Select(InWords)]);
    }

    // meanMaxC[6] is what the form calls the mean highest of July.
    private static Fault InWords(Fault fault)
    {
        int at = fault.Field.IndexOf('[', StringComparison.Ordinal);
        if (
            at < 0
            || !int.TryParse(fault.Field.AsSpan(at + 1, fault.Field.Length - at - 2), NumberStyles.None, CultureInfo.InvariantCulture, out int month)
            || month > 11
        )
            return fault;
        string what = fault.Field[..at] switch
        {
            "meanMinC" => "mean lowest",
            "meanMaxC" => "mean highest",
            _ => "rain",
        };
        return fault with { Field = $"{what} of {new LocalDate(2001, month + 1, 1).ToString("MMMM", null)}" };
    }

    /// <summary>The form's field that a fault speaks of; months stand in a table and are named at its head.</summary>
    public static string? Field(string fault) =>
        fault switch
        {
            "name" or "id" => "Normals.Name",
            "latitudeDeg" => "Normals.Latitude",
            "longitudeDeg" => "Normals.Longitude",
            "elevationM" => "Normals.Elevation",
            "climateId" => "Normals.ClimateId",
            _ => null,
        };

    private static double[] Twelve(FaultList faults, string?[] typed, string what, Func<double, double> si) =>
        [
            .. Enumerable
                .Range(0, 12)
                .Select(m =>
                {
                    string text = (m < typed.Length ? typed[m] : null)?.Trim() ?? string.Empty;
                    if (Number(text) is { } v)
                        return si(v);
                    faults.Add(
                        what,
                        $"{new LocalDate(2001, m + 1, 1).ToString("MMMM", null)} is {(text.Length == 0 ? "missing" : $"no number: \"{text}\"")}"
                    );
                    return 0;
                }),
        ];

    private static double Coordinate(FaultList faults, string? text, string field, double? otherwise)
    {
        if (string.IsNullOrWhiteSpace(text) && otherwise is { } known)
            return known;
        if (Number(text) is { } v)
            return v;
        faults.Add(field, string.IsNullOrWhiteSpace(text) ? "is needed, here or as the site's place" : "must be a number");
        return 0;
    }

    private static double? Number(string? text) => TypedNumber.Read(text);
}

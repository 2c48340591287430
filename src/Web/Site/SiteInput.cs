using System.Globalization;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.SiteMap;

namespace UnrulyMeadow.Web.Site;

/// <summary>The settings as typed.</summary>
public sealed class SiteInput
{
    public string? Name { get; set; }

    public string? Units { get; set; }

    public string? Money { get; set; }

    public string? CoverPercent { get; set; }

    public string? SparePercent { get; set; }

    public string? FreshMedium { get; set; }

    public string? Bag { get; set; }

    public string? BagPrice { get; set; }

    public string? WallGap { get; set; }

    public string? BulbGap { get; set; }

    public string? OnePerson { get; set; }

    public string? FrostYears { get; set; }

    public string? TimeZone { get; set; }

    public string? Latitude { get; set; }

    public string? Longitude { get; set; }

    public string? Elevation { get; set; }

    public bool AtElevation { get; set; }

    public long Version { get; set; }

    /// <summary>The form of the present settings.</summary>
    public static SiteInput From(Core.Planning.Site site, long version, UnitsText units) =>
        new()
        {
            Name = site.Name,
            Units = site.Units.ToString(),
            Money = site.Money,
            CoverPercent = Plain(site.CoverThreshold * 100),
            SparePercent = Plain(site.SpareShare * 100),
            FreshMedium = units.LengthNumber(site.FreshMediumCm),
            Bag = Plain(units.VolumeNumber(site.MediumBagLitres)),
            BagPrice = site.MediumBagPrice.ToString("0.00", CultureInfo.InvariantCulture),
            WallGap = units.LengthNumber(site.WallGapCm),
            BulbGap = units.LengthNumber(site.BulbGapCm),
            OnePerson = Plain(Math.Round(units.WeightNumber(site.OnePersonKg), 1)),
            FrostYears = Plain(1 / site.FrostRisk),
            TimeZone = site.TimeZone,
            Latitude = Coordinate(site.Place?.LatitudeDeg),
            Longitude = Coordinate(site.Place?.LongitudeDeg),
            Elevation = site.Place is { } place ? Plain(units.Metres(place.ElevationM)) : null,
            AtElevation = site.Place?.AtElevation ?? false,
            Version = version,
        };

    /// <summary>The settings as typed; what is no number is a fault of its range.</summary>
    public Core.Planning.Site Read(UnitsText units)
    {
        double price = Number(BagPrice);
        if (!(price is >= 0 and <= 100_000))
            throw new InvalidInputException("mediumBagPrice", "must be from 0 to 100,000");
        return new Core.Planning.Site(
            (Name ?? string.Empty).Trim(),
            Enum.TryParse(Units, out SiteUnits u) ? u : SiteUnits.Metric,
            (Money ?? string.Empty).Trim(),
            Number(CoverPercent) / 100,
            Number(SparePercent) / 100,
            units.ReadLength(FreshMedium),
            Math.Round(units.ReadVolume(Number(Bag)), 2),
            Math.Round((decimal)price, 2),
            units.ReadLength(WallGap),
            units.ReadLength(BulbGap)
        )
        {
            OnePersonKg = Math.Round(units.ReadWeight(Number(OnePerson)), 2),
            TimeZone = string.IsNullOrWhiteSpace(TimeZone) ? null : TimeZone.Trim(),
            FrostRisk = Math.Round(1 / Number(FrostYears), 4),
            Place =
                string.IsNullOrWhiteSpace(Latitude) && string.IsNullOrWhiteSpace(Longitude)
                    ? null
                    : new SitePlace(
                        Number(Latitude?.Replace('−', '-')),
                        Number(Longitude?.Replace('−', '-')),
                        string.IsNullOrWhiteSpace(Elevation) ? 0 : Math.Round(units.ReadMetres(Number(Elevation.Replace('−', '-'))), 2),
                        AtElevation
                    ),
        };
    }

    /// <summary>Time zones to choose from: each by its present name.</summary>
    public static IReadOnlyList<(string Value, string Text)> TimeZones { get; } =
    [
        ("", "as this machine"),
        .. NodaTime
            .TimeZones.TzdbDateTimeZoneSource.Default.CanonicalIdMap.Values.Distinct(StringComparer.Ordinal)
            .Where(z => z.Contains('/', StringComparison.Ordinal) && !z.StartsWith("Etc/", StringComparison.Ordinal))
            .Order(StringComparer.Ordinal)
            .Select(z => (z, z.Replace('_', ' '))),
    ];

    /// <summary>The form's field that a fault speaks of.</summary>
    public static string? Field(string fault) =>
        fault switch
        {
            "name" => "Input.Name",
            "money" => "Input.Money",
            "coverThreshold" => "Input.CoverPercent",
            "spareShare" => "Input.SparePercent",
            "freshMediumCm" => "Input.FreshMedium",
            "mediumBagLitres" => "Input.Bag",
            "mediumBagPrice" => "Input.BagPrice",
            "wallGapCm" => "Input.WallGap",
            "bulbGapCm" => "Input.BulbGap",
            "onePersonKg" => "Input.OnePerson",
            "timeZone" => "Input.TimeZone",
            "frostRisk" => "Input.FrostYears",
            "place.latitudeDeg" => "Input.Latitude",
            "place.longitudeDeg" => "Input.Longitude",
            "place.elevationM" => "Input.Elevation",
            _ => null,
        };

    private static string? Coordinate(double? v) => v?.ToString("0.######", CultureInfo.InvariantCulture);

    private static string Plain(double v) => v.ToString("0.##", CultureInfo.InvariantCulture);

    private static double Number(string? text) => TypedNumber.Read(text) ?? double.NaN;
}

using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Web.Site;

/// <summary>A place whose climate a site's is like, and what is known better of the site, as typed.</summary>
public sealed class LikeInput
{
    public string? Place { get; set; }

    public string? LastFrost { get; set; }

    public string? FirstFrost { get; set; }

    public string? ColdestLow { get; set; }

    public string? HottestHigh { get; set; }

    /// <summary>The climate that is meant.</summary>
    /// <param name="units">Units typed in.</param>
    /// <exception cref="InvalidInputException">No place is chosen, something cannot be read, or no such climate comes of the place.</exception>
    public ReferenceClimate Read(UnitsText units)
    {
        var faults = new FaultList();
        NodaTime.LocalDate? Day(string? text, string field)
        {
            if (string.IsNullOrWhiteSpace(text))
                return null;
            if (Words.ReadDay(text) is { } day)
                return day;
            faults.Add(field, "must be a date");
            return null;
        }
        double? Celsius(string? text, string field)
        {
            if (string.IsNullOrWhiteSpace(text))
                return null;
            if (TypedNumber.Read(text) is { } number)
                return units.ReadTemperature(number);
            faults.Add(field, "must be a number");
            return null;
        }
        ReferenceClimate? place = ReferenceClimate.Find(Place);
        if (place is null)
            faults.Add("place", "must be chosen");
        var known = new KnownClimate(
            Day(LastFrost, "lastFrost"),
            Day(FirstFrost, "firstFrost"),
            Celsius(ColdestLow, "coldestLowC"),
            Celsius(HottestHigh, "hottestHighC")
        );
        faults.ThrowIfAny();
        return place!.With(known);
    }

    /// <summary>The form's field that a fault speaks of.</summary>
    public static string? Field(string fault) =>
        fault switch
        {
            "place" => "Like.Place",
            "lastFrost" => "Like.LastFrost",
            "firstFrost" => "Like.FirstFrost",
            "coldestLowC" => "Like.ColdestLow",
            "hottestHighC" => "Like.HottestHigh",
            _ => null,
        };
}

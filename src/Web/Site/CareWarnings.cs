using NodaTime;
using UnrulyMeadow.Core.Care;
using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Web.Site;

/// <summary>What days to come threaten, a sentence each: on first pages, phones and in calendars.</summary>
public static class CareWarnings
{
    /// <summary>The sentences, by day; none where nothing threatens.</summary>
    /// <param name="care">The care of the day.</param>
    /// <param name="crew">Words in the reader's language.</param>
    /// <param name="units">The site's units.</param>
    public static IEnumerable<(LocalDate Day, string Text)> Of(CareNow care, FactWriter crew, UnitsText units) =>
        care
            .Nights.GroupBy(n => n.Night)
            .Select(night => (night.Key, Night(night, crew, units)))
            .Concat(care.Threats.Select(t => (t.Day, Threat(t, crew))))
            .OrderBy(w => w.Item1);

    /// <summary>A cold night: planters, the lowest, fleece.</summary>
    public static string Night(IGrouping<LocalDate, PlanterAtRisk> night, FactWriter crew, UnitsText units) =>
        crew.Crew(
            "CareNight",
            ("day", night.Key),
            ("planters", night.Count()),
            ("low", units.Temperature(night.Min(n => n.LowC))),
            ("area", units.Area(night.Sum(n => n.FleeceM2)))
        );

    /// <summary>What else threatens: the day, what, its odds and what it harms.</summary>
    public static string Threat(WeatherThreat threat, FactWriter crew) =>
        $"{crew.Of(threat.Day, "ddd d MMM")}, {crew.Say(threat.Kind)}"
        + (threat.Odds < 1 ? ", " + crew.Crew("CareOdds", ("odds", crew.Of(Quantity.Share(threat.Odds)))) : string.Empty)
        + (threat.Plants.Count > 0 ? ": " + string.Join(", ", threat.Plants.Select(p => p.CommonName)) : string.Empty);
}

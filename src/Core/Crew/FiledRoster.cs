using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Crew;

/// <summary>When somebody works, by their name.</summary>
/// <param name="Name">Their name.</param>
/// <param name="Minutes">Minutes of each weekday, Monday first.</param>
/// <param name="Away">When they are not there.</param>
/// <param name="Skills">What they are trained for.</param>
public sealed record FiledWorker(string Name, IReadOnlyList<int> Minutes, IReadOnlyList<Absence> Away, IReadOnlyList<Skill> Skills);

/// <summary>People who go out together, by their names.</summary>
/// <param name="Id">Short name.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Members">Names of its people.</param>
/// <param name="VehicleId">The vehicle that it goes with; null on foot.</param>
public sealed record FiledTeam(string Id, string Name, IReadOnlyList<string> Members, string? VehicleId = null);

/// <summary>A roster as it stands in a file: people are there by name, for their ids belong to their installation.</summary>
/// <param name="Workers">People.</param>
/// <param name="Teams">Who goes out together.</param>
/// <param name="Vehicles">Vehicles.</param>
/// <param name="Closures">When nobody can work where.</param>
/// <param name="Yard">Where vehicles are loaded; null where nobody has said.</param>
/// <param name="HeatLimitC">Heat index above which work ends at noon, °C.</param>
/// <param name="Asked">Care that is asked of the crew as tasks; null for none.</param>
public sealed record FiledRoster(
    IReadOnlyList<FiledWorker> Workers,
    IReadOnlyList<FiledTeam> Teams,
    IReadOnlyList<Vehicle> Vehicles,
    IReadOnlyList<Closure> Closures,
    MapPlace? Yard = null,
    double HeatLimitC = WorkWeather.UsualHeatC,
    IReadOnlyList<CareWork>? Asked = null
)
{
    /// <summary>A roster for a file.</summary>
    /// <param name="roster">The roster.</param>
    /// <param name="nameOf">Names of people; those who are not named are left out.</param>
    public static FiledRoster Of(Roster roster, IReadOnlyDictionary<Guid, string> nameOf) =>
        new(
            [
                .. roster
                    .Workers.Where(w => nameOf.ContainsKey(w.PersonId))
                    .Select(w => new FiledWorker(nameOf[w.PersonId], w.Minutes, w.Away, w.Skills)),
            ],
            [.. roster.Teams.Select(t => new FiledTeam(t.Id, t.Name, [.. t.Members.Where(nameOf.ContainsKey).Select(m => nameOf[m])], t.VehicleId))],
            roster.Vehicles,
            roster.Closures,
            roster.Yard,
            roster.HeatLimitC,
            roster.Asked
        );

    /// <summary>The roster among the people of a site.</summary>
    /// <param name="idOf">Their ids by name; those whom nobody knows are left out.</param>
    public Roster Among(IReadOnlyDictionary<string, Guid> idOf) =>
        new(
            [.. Workers.Where(w => idOf.ContainsKey(w.Name)).Select(w => new Worker(idOf[w.Name], w.Minutes, w.Away, w.Skills))],
            [.. Teams.Select(t => new Team(t.Id, t.Name, [.. t.Members.Where(idOf.ContainsKey).Select(m => idOf[m])], t.VehicleId))],
            Vehicles,
            Closures
        )
        {
            Yard = Yard,
            HeatLimitC = HeatLimitC,
            Asked = Asked ?? [],
        };

    /// <summary>Every fault of it.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        Dictionary<string, Guid> each = Workers
            .Select(w => w.Name)
            .Concat(Teams.SelectMany(t => t.Members))
            .Distinct(StringComparer.Ordinal)
            .ToDictionary(n => n, _ => Guid.NewGuid(), StringComparer.Ordinal);
        return Among(each).Faults();
    }
}

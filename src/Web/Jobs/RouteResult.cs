using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.SiteMap;

namespace UnrulyMeadow.Web.Jobs;

/// <summary>Asks in what order stops are gone to, and with what on the vehicle.</summary>
/// <param name="Vehicle">The vehicle.</param>
/// <param name="Yard">Where it is loaded.</param>
/// <param name="Stops">The stops.</param>
/// <param name="Paths">What stands for the map's paths (<see cref="MarkOf"/>).</param>
public sealed record RouteAsk(Vehicle Vehicle, MapPlace Yard, IReadOnlyList<RouteStop> Stops, string Paths) : INamesItsInputs
{
    /// <summary>Most stops of one question.</summary>
    public const int MostStops = 500;

    /// <summary>The question in full.</summary>
    /// <exception cref="Core.InvalidInputException">The vehicle cannot take something of it, or there are too many stops.</exception>
    public RouteQuestion Question(Plan plan)
    {
        if (Stops.Count > MostStops)
            throw new Core.InvalidInputException(string.Empty, $"at most {MostStops} stops are put into order at once: give fewer to one team");
        return RouteQuestion.Of(Yard, Stops, Vehicle, new WalkingWays(plan.Map).Metres);
    }

    /// <summary>What stands for the paths of a map: another as soon as any is moved.</summary>
    public static string MarkOf(Plan plan) =>
        Core.Ids.Fingerprint(string.Join('\n', plan.Map.Where(f => f.Kind == MapKind.Path).Select(f => string.Join(' ', f.Points))), 16);
}

/// <summary>Trips, as they are kept.</summary>
/// <param name="Trips">Trips in their order.</param>
public sealed record RouteResult(IReadOnlyList<Trip> Trips)
{
    /// <summary>Tasks in the order in which they are done: each where its last part is brought.</summary>
    public IReadOnlyList<string> Order => [.. Trips.SelectMany(t => t.Stops).Select(s => s.TaskId).Reverse().Distinct().Reverse()];
}

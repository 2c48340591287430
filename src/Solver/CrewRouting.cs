using Google.OrTools.ConstraintSolver;
using Google.Protobuf.WellKnownTypes;
using UnrulyMeadow.Core.Crew;

namespace UnrulyMeadow.Solver;

/// <summary>Orders stops into trips of a vehicle that are as short as can be found.</summary>
public static class CrewRouting
{
    /// <summary>The time that is taken where nobody says otherwise, seconds.</summary>
    public const double UsualSeconds = 2;

    // Loads are told to the solver in hundredths.
    private const int Parts = 100;

    /// <summary>Finds the trips.</summary>
    /// <param name="question">The question.</param>
    /// <param name="seconds">How long to look.</param>
    public static Route Find(RouteQuestion question, double seconds = UsualSeconds)
    {
        int stops = question.Stops.Count;
        if (stops == 0)
            return new Route(question, []);
        Func<Load, double>[] kinds = [l => l.Trays, l => l.Bags, l => l.WaterLitres, l => l.Kg];
        double[] holds = [question.Vehicle.Trays, question.Vehicle.Bags, question.Vehicle.WaterLitres, question.Vehicle.MostKg];
        // As many trips as the scarcest room asks for, and a few more where loads do not divide well.
        double least = kinds.Select((k, i) => question.Stops.Sum(s => k(s.Unloads)) is > 0 and var sum ? sum / holds[i] : 0).Max();
        int trips = Math.Min(stops, (int)Math.Ceiling(least * 1.5) + 2);
        var places = new RoutingIndexManager(stops + 1, trips, 0);
        var model = new RoutingModel(places);
        long[,] way = new long[stops + 1, stops + 1];
        for (int i = 0; i <= stops; i++)
        {
            for (int k = 0; k <= stops; k++)
                way[i, k] = (long)Math.Round(question.Metres[i][k]);
        }
        int metres = model.RegisterTransitCallback((from, to) => way[places.IndexToNode(from), places.IndexToNode(to)]);
        model.SetArcCostEvaluatorOfAllVehicles(metres);
        for (int kind = 0; kind < kinds.Length; kind++)
        {
            // Rounded up, so that no trip is overloaded by what was rounded away.
            long[] unloads = [0, .. question.Stops.Select(s => (long)Math.Ceiling((kinds[kind](s.Unloads) * Parts) - 1e-6))];
            if (unloads.All(u => u == 0))
                continue;
            int demand = model.RegisterUnaryTransitCallback(at => unloads[places.IndexToNode(at)]);
            model.AddDimension(demand, 0, (long)Math.Floor((holds[kind] * Parts) + 1e-6), true, $"kind{kind}");
        }
        RoutingSearchParameters search = operations_research_constraint_solver.DefaultRoutingSearchParameters();
        search.FirstSolutionStrategy = FirstSolutionStrategy.Types.Value.ParallelCheapestInsertion;
        search.LocalSearchMetaheuristic = LocalSearchMetaheuristic.Types.Value.GuidedLocalSearch;
        search.TimeLimit = Duration.FromTimeSpan(TimeSpan.FromSeconds(seconds));
        Assignment? answer = model.SolveWithParameters(search);
        if (answer is null)
            return new Route(question, [.. question.Stops.Select((s, i) => TripOf(question, [i + 1]))]);
        var found = new List<Trip>();
        for (int trip = 0; trip < trips; trip++)
        {
            var order = new List<int>();
            for (long at = answer.Value(model.NextVar(model.Start(trip))); !model.IsEnd(at); at = answer.Value(model.NextVar(at)))
                order.Add(places.IndexToNode(at));
            if (order.Count > 0)
                found.Add(TripOf(question, order));
        }
        return new Route(question, found);
    }

    private static Trip TripOf(RouteQuestion question, IReadOnlyList<int> order)
    {
        double metres = 0;
        int last = 0;
        foreach (int at in order.Append(0))
        {
            metres += question.Metres[last][at];
            last = at;
        }
        return new Trip([.. order.Select(i => question.Stops[i - 1])], metres);
    }
}

using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Solver;

namespace UnrulyMeadow.Solver.Tests;

/// <summary>Trips against rounds whose length is known, and against every order tried by hand.</summary>
public sealed class CrewRoutingTests
{
    private static readonly Vehicle Cart = new("cart", "Cart", 100, 20, 1000, 1500);

    // Places on a circle: the shortest round is the polygon; on a grid with an even side, one step for each place.
    [Fact]
    public void A_round_of_known_length_is_found()
    {
        List<MapPlace> circle =
        [
            .. Enumerable.Range(0, 40).Select(i => new MapPlace(500 * Math.Cos(i * Math.PI / 20), 500 * Math.Sin(i * Math.PI / 20))),
        ];
        double polygon = 40 * 2 * 500 * Math.Sin(Math.PI / 40);
        Route round = CrewRouting.Find(Ask(circle[0], [.. circle.Skip(1).Select(p => (p, Load.None))]));
        Assert.Empty(round.Faults());
        Assert.InRange(round.Metres, polygon - 40, polygon + 40);

        List<MapPlace> grid = [.. Enumerable.Range(0, 36).Select(i => new MapPlace(i % 6 * 100, i / 6 * 100))];
        Route steps = CrewRouting.Find(Ask(grid[0], [.. grid.Skip(1).Select(p => (p, Load.None))]));
        Assert.Equal(3600, steps.Metres, 1e-6);
    }

    [Fact]
    public void No_order_and_division_into_trips_tried_by_hand_is_shorter()
    {
        for (int seed = 0; seed < 8; seed++)
        {
            var random = new Random(seed);
            List<(MapPlace, Load)> stops =
            [
                .. Enumerable
                    .Range(0, 6)
                    .Select(_ => (new MapPlace(random.Next(-300, 300), random.Next(-300, 300)), new Load(0, 0, random.Next(200, 600), 0))),
            ];
            RouteQuestion question = Ask(new MapPlace(0, 0), stops);
            Route route = CrewRouting.Find(question, seconds: 1);
            Assert.Empty(route.Faults());
            double best = Orders([.. Enumerable.Range(1, question.Stops.Count)]).Min(o => Shortest(question, o));
            // The solver reckons in whole metres.
            Assert.InRange(route.Metres, best - 1e-6, best + question.Stops.Count);
        }
    }

    [Fact]
    public void What_the_tank_cannot_hold_is_brought_in_parts_and_what_no_part_fits_is_refused_with_what_would_help()
    {
        RouteQuestion large = Ask(new MapPlace(0, 0), [(new MapPlace(100, 0), new Load(0, 0, 2500, 0))]);
        Assert.Equal(3, large.Stops.Count);
        Route route = CrewRouting.Find(large, seconds: 1);
        Assert.Equal(3, route.Trips.Count);
        Assert.Equal(600, route.Metres, 1e-6);
        // Plants go with the first part and are not carried about in pieces.
        RouteQuestion planted = Ask(new MapPlace(0, 0), [(new MapPlace(100, 0), new Load(12, 2, 2500, 2600))]);
        Assert.Equal([12.0, 0, 0], planted.Stops.Select(s => s.Unloads.Trays));
        Assert.Equal(2500, planted.Stops.Sum(s => s.Unloads.WaterLitres), 1e-9);
        Assert.All(planted.Stops, s => Assert.True(s.Unloads.FitsIn(Cart)));
        InvalidInputException refused = Assert.Throws<InvalidInputException>(() =>
            RouteQuestion.Of(
                new MapPlace(0, 0),
                [new RouteStop("bed", new MapPlace(1, 1), new Load(0, 0, 50, 50))],
                Cart with
                {
                    WaterLitres = 0,
                },
                Straight
            )
        );
        Assert.Contains("give it a tank", refused.Message, StringComparison.Ordinal);
        // A thimble is no tank: nothing is cut into millions of parts.
        Assert.Throws<InvalidInputException>(() =>
            RouteQuestion.Of(
                new MapPlace(0, 0),
                [new RouteStop("bed", new MapPlace(1, 1), new Load(0, 0, 20_000, 20_000))],
                Cart with
                {
                    WaterLitres = 0.001,
                },
                Straight
            )
        );
        Assert.Empty(CrewRouting.Find(Ask(new MapPlace(0, 0), [])).Trips);
    }

    private static RouteQuestion Ask(MapPlace yard, IReadOnlyList<(MapPlace Place, Load Load)> stops) =>
        RouteQuestion.Of(yard, [.. stops.Select((s, i) => new RouteStop($"stop-{i}", s.Place, s.Load))], Cart, Straight);

    private static double[][] Straight(IReadOnlyList<MapPlace> places) => [.. places.Select(a => places.Select(b => a.DistanceTo(b)).ToArray())];

    private static IEnumerable<List<int>> Orders(List<int> of)
    {
        if (of.Count == 0)
        {
            yield return [];
            yield break;
        }
        foreach (int first in of)
        {
            foreach (List<int> rest in Orders([.. of.Where(i => i != first)]))
                yield return [first, .. rest];
        }
    }

    // The shortest division of an order into trips that the tank allows.
    private static double Shortest(RouteQuestion question, List<int> order)
    {
        double[] best = [0, .. Enumerable.Repeat(double.PositiveInfinity, order.Count)];
        for (int from = 0; from < order.Count; from++)
        {
            Load load = Load.None;
            double metres = 0;
            int last = 0;
            for (int to = from; to < order.Count; to++)
            {
                load += question.Stops[order[to] - 1].Unloads;
                if (!load.FitsIn(question.Vehicle))
                    break;
                metres += question.Metres[last][order[to]];
                last = order[to];
                best[to + 1] = Math.Min(best[to + 1], best[from] + metres + question.Metres[last][0]);
            }
        }
        return best[^1];
    }
}

using System.Diagnostics;
using System.Globalization;
using NodaTime;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Solver;

namespace UnrulyMeadow.Bench;

/// <summary>A schedule of 600 tasks for three teams over fifteen days, and a route over 120 stops.</summary>
public static class CrewFigures
{
    private static readonly LocalDate Monday = new(2027, 5, 10);

    /// <summary>Measures both and prints.</summary>
    public static void Print()
    {
        // Once with time to spare, once with more work than there are hands.
        foreach (int minutes in new[] { 40, 75 })
        {
            ScheduleQuestion question = Large(new Random(20270510), minutes);
            var watch = Stopwatch.StartNew();
            double first = double.NaN;
            ScheduleAnswer answer = CrewScheduling.Place(
                question,
                20,
                new First(() => first = double.IsNaN(first) ? watch.Elapsed.TotalMilliseconds : first)
            );
            Line($"first schedule, {question.Jobs.Sum(j => j.Minutes) / 60} h of work", first);
            Line("schedule given 20 s", watch.Elapsed.TotalMilliseconds);
            Console.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{"", -34}{answer.Gap, 10:P2} above the bound, {answer.Schedule.Unplaced.Count} find no place"
                )
            );
        }

        var random = new Random(7);
        List<RouteStop> stops =
        [
            .. Enumerable
                .Range(0, 120)
                .Select(i => new RouteStop($"stop-{i}", new MapPlace(random.Next(-400, 400), random.Next(-200, 200)), new Load(0.5, 0.2, 15, 20))),
        ];
        var timer = Stopwatch.StartNew();
        Route route = CrewRouting.Find(
            RouteQuestion.Of(new MapPlace(0, 0), stops, new Vehicle("cart", "Cart", 24, 12, 200, 500), p =>
                [.. p.Select(a => p.Select(b => a.DistanceTo(b)).ToArray())]
            )
        );
        Line("route over 120 stops", timer.Elapsed.TotalMilliseconds);
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{"", -34}{route.Trips.Count, 10} trips, {route.Metres:0} m"));
    }

    private static ScheduleQuestion Large(Random random, int minutes)
    {
        List<TeamDay> days =
        [
            .. Enumerable
                .Range(0, 15)
                .SelectMany(d =>
                    Enumerable
                        .Range(0, 3)
                        .Select(t => new TeamDay($"team-{t}", Monday.PlusDays(d + (d / 5 * 2)), 2, 840, t == 0 ? [Skill.Auger] : []))
                ),
        ];
        return new ScheduleQuestion(
            [
                .. Enumerable
                    .Range(0, 600)
                    .SelectMany(i =>
                    {
                        LocalDate best = Monday.PlusDays(random.Next(0, 19));
                        var task = new CrewTask(
                            $"task-{i}",
                            TaskKind.Other,
                            new TaskWindow(best.PlusDays(-random.Next(2, 8)), best, best.PlusDays(random.Next(2, 8))),
                            [],
                            [new TaskLine(1, LineKind.In, 10)]
                        )
                        {
                            AreaId = $"area-{random.Next(12)}",
                        };
                        return ScheduleQuestion.JobsOf(task, random.Next(minutes / 2, minutes * 3 / 2));
                    }),
            ],
            days,
            [new Closure("market", Monday.PlusDays(3), Monday.PlusDays(3), "area-1", "a market")],
            [new WorkWeather(Monday.PlusDays(2), true, [WeatherHinder.Frozen])]
        );
    }

    private static void Line(string what, double ms) => Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{what, -34}{ms, 10:0.00}"));

    private sealed class First(Action told) : IProgress<Schedule>
    {
        public void Report(Schedule value) => told();
    }
}

using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.SiteMap;
using UnrulyMeadow.Core.Work;
using UnrulyMeadow.Solver;

namespace UnrulyMeadow.Reckon;

/// <summary>One kind of work, for reckoning.</summary>
/// <param name="Kind">Its kind.</param>
/// <param name="Units">Plants, bulbs or litres, 0 to 1,000,000.</param>
/// <param name="Fabric">True in ground under weed fabric.</param>
/// <param name="HeavyClay">True in heavy clay; it makes no difference to an auger.</param>
public sealed record LabourPartInput(WorkKind Kind, double Units, bool Fabric = false, bool HeavyClay = false);

/// <summary>Input of <c>labour</c>.</summary>
/// <param name="Parts">The work, by kind.</param>
/// <param name="Own">The crew's own times, at most one of a kind; common practice alone where left out.</param>
public sealed record LabourInput(IReadOnlyList<LabourPartInput> Parts, IReadOnlyList<TimesTaken>? Own = null);

/// <summary>Minutes of one kind of work.</summary>
/// <param name="Kind">The kind.</param>
/// <param name="Minutes">Minutes of people in all.</param>
/// <param name="MinutesEach">Minutes for one unit as they are reckoned with.</param>
/// <param name="Spread">Their standard deviation.</param>
/// <param name="People">People who must do it together.</param>
/// <param name="HalfDays">Half-days of so many people.</param>
public sealed record LabourPartOutput(WorkKind Kind, double Minutes, double MinutesEach, double Spread, int People, double HalfDays);

/// <summary>Output of <c>labour</c>.</summary>
public sealed record LabourOutput(double Minutes, IReadOnlyList<LabourPartOutput> Parts);

/// <summary>A piece of work to be placed.</summary>
/// <param name="Id">Its name.</param>
/// <param name="Minutes">Minutes of people, 1 to 6,000.</param>
/// <param name="NotBefore">The first day on which it can be done.</param>
/// <param name="Best">The best day.</param>
/// <param name="NotAfter">The last day.</param>
/// <param name="AreaId">The area.</param>
/// <param name="People">People who must do it together.</param>
/// <param name="Needs">What one of them must be trained for.</param>
/// <param name="IsPlanting">True where something is planted.</param>
/// <param name="IsInBed">True where it is planted into a bed.</param>
/// <param name="IsTall">True where something tall is handled.</param>
public sealed record ScheduleJobInput(
    string Id,
    int Minutes,
    LocalDate NotBefore,
    LocalDate Best,
    LocalDate NotAfter,
    string? AreaId = null,
    int People = 1,
    Skill? Needs = null,
    bool IsPlanting = false,
    bool IsInBed = false,
    bool IsTall = false
);

/// <summary>Input of <c>schedule</c>.</summary>
/// <param name="Jobs">The work.</param>
/// <param name="TeamDays">Teams on days, with people and their minutes in all.</param>
/// <param name="Closures">When nobody can work where.</param>
/// <param name="Weather">What the weather of days hinders; days that are not named are fair.</param>
/// <param name="Seconds">How long to look, 1 to 60, default 20.</param>
public sealed record ScheduleInput(
    IReadOnlyList<ScheduleJobInput> Jobs,
    IReadOnlyList<TeamDay> TeamDays,
    IReadOnlyList<Closure>? Closures = null,
    IReadOnlyList<WorkWeather>? Weather = null,
    double Seconds = CrewScheduling.UsualSeconds
);

/// <summary>A piece of work with its day and team.</summary>
public sealed record PlacedOutput(string Id, int Piece, string TeamId, LocalDate Day);

/// <summary>Work that finds no place.</summary>
public sealed record LeftOutput(string Id, ScheduleHinder Hinder, int? DaysOutside, int MinutesShort);

/// <summary>Output of <c>schedule</c>; costs in minutes, none less than the bound.</summary>
public sealed record ScheduleOutput(double Cost, double Bound, bool IsBest, IReadOnlyList<PlacedOutput> Placed, IReadOnlyList<LeftOutput> Left);

/// <summary>A stop, for reckoning.</summary>
/// <param name="Id">Its name.</param>
/// <param name="EastM">Metres east of the map's origin.</param>
/// <param name="NorthM">Metres north of it.</param>
/// <param name="Trays">Trays unloaded there.</param>
/// <param name="Bags">Bags of medium.</param>
/// <param name="WaterLitres">Litres of water.</param>
/// <param name="Kg">Weight of all of it, kg.</param>
public sealed record RouteStopInput(string Id, double EastM, double NorthM, double Trays = 0, double Bags = 0, double WaterLitres = 0, double Kg = 0);

/// <summary>Input of <c>route</c>.</summary>
/// <param name="Stops">Stops, at most 200.</param>
/// <param name="Yard">Where the vehicle is loaded.</param>
/// <param name="Vehicle">The vehicle; on foot where left out.</param>
/// <param name="PlanFile">A plan whose map's paths are followed; straight lines, longer by a quarter, where left out.</param>
/// <param name="Seconds">How long to look, 1 to 60, default 2.</param>
public sealed record RouteInput(
    IReadOnlyList<RouteStopInput> Stops,
    MapPoint Yard,
    Vehicle? Vehicle = null,
    string? PlanFile = null,
    double Seconds = CrewRouting.UsualSeconds
);

/// <summary>A trip from the yard and back.</summary>
public sealed record TripOutput(IReadOnlyList<string> Stops, double Metres, double Minutes, Load Load);

/// <summary>Output of <c>route</c>.</summary>
public sealed record RouteOutput(double Metres, IReadOnlyList<TripOutput> Trips);

/// <summary>Input of <c>load</c>.</summary>
/// <param name="PlanFile">A plan.</param>
/// <param name="First">The first day whose changeovers are loaded for.</param>
/// <param name="Last">The last; the first where left out.</param>
/// <param name="PlanterIds">Planters; all where left out.</param>
/// <param name="Vehicle">A vehicle, to tell how many trips it must make at least.</param>
public sealed record LoadInput(
    string PlanFile,
    LocalDate First,
    LocalDate? Last = null,
    IReadOnlyList<string>? PlanterIds = null,
    Vehicle? Vehicle = null
);

/// <summary>What one planter takes.</summary>
public sealed record PlanterLoadOutput(string PlanterId, LocalDate Day, Load Load);

/// <summary>Output of <c>load</c>.</summary>
/// <param name="Load">All of it.</param>
/// <param name="Planters">By planter.</param>
/// <param name="LeastTrips">Trips of the vehicle at least; null without one, or where it cannot take something.</param>
public sealed record LoadOutput(Load Load, IReadOnlyList<PlanterLoadOutput> Planters, int? LeastTrips);

/// <summary>Topics of the crew's day.</summary>
internal static class CrewTopics
{
    public static Topic Labour { get; } =
        new Topic<LabourInput, LabourOutput>("labour", "minutes and people that work takes, by kind, tool and ground", input =>
        {
            var faults = new FaultList();
            for (int i = 0; i < input.Parts.Count; i++)
                faults.Range($"parts[{i}].units", input.Parts[i].Units, 0, 1_000_000, string.Empty);
            IReadOnlyList<TimesTaken> own = input.Own ?? [];
            for (int i = 0; i < own.Count; i++)
            {
                faults.Range($"own[{i}].times", own[i].Times, 0, 100_000, string.Empty);
                faults.Range($"own[{i}].meanRatio", own[i].MeanRatio, 0.01, 100, string.Empty);
            }
            if (own.DistinctBy(o => o.Kind).Count() < own.Count)
                faults.Add("own", "names a kind of work twice");
            faults.ThrowIfAny();
            LabourTable table = LabourTable.Of([.. own]);
            List<WorkPart> parts =
            [
                .. input.Parts.Select(p => new WorkPart(
                    p.Kind,
                    p.Units,
                    (p.Fabric ? Core.Work.Labour.FabricTimes : 1)
                        * (p.HeavyClay && p.Kind != WorkKind.SetBulbsByAuger ? Core.Work.Labour.ClayTimes : 1)
                )),
            ];
            return (
                new LabourOutput(
                    Math.Round(parts.Sum(p => p.MinutesBy(table)), 1),
                    [
                        .. parts.Select(p => new LabourPartOutput(
                            p.Kind,
                            Math.Round(p.MinutesBy(table), 1),
                            Math.Round(table[p.Kind].Minutes, 3),
                            Math.Round(table[p.Kind].Spread, 3),
                            table[p.Kind].People,
                            Math.Round(p.MinutesBy(table) / table[p.Kind].People / ScheduleQuestion.HalfDay, 2)
                        )),
                    ]
                ),
                [Core.Work.Labour.Explain(parts, table)]
            );
        });

    public static Topic Schedule { get; } =
        new Topic<ScheduleInput, ScheduleOutput>("schedule", "days and teams for work in its windows, with what finds no place and why", input =>
        {
            ScheduleAnswer answer = CrewScheduling.Place(Question(input), input.Seconds);
            return (
                new ScheduleOutput(
                    answer.Schedule.Cost / 10.0,
                    answer.Bound / 10.0,
                    answer.IsBest,
                    [.. answer.Schedule.Placed.Select(p => new PlacedOutput(p.Job.Task.Id, p.Job.Piece, p.At.TeamId, p.At.Day))],
                    [.. answer.Schedule.Left.Select(l => new LeftOutput(l.Job.Task.Id, l.Hinder, l.DaysOutside, l.MinutesShort))]
                ),
                [answer.Schedule.Explain()]
            );
        });

    public static Topic Route { get; } =
        new Topic<RouteInput, RouteOutput>("route", "the order of stops in trips of a vehicle that holds only so much", input =>
        {
            var faults = new FaultList();
            Vehicle vehicle = input.Vehicle ?? Vehicle.OnFoot;
            faults.AddAll("vehicle", vehicle.Faults());
            faults.Range("seconds", input.Seconds, 1, 60, "seconds");
            if (input.Stops.Count > 200)
                faults.Add("stops", $"must be at most 200 (there are {input.Stops.Count})");
            var yard = new MapPlace(input.Yard.EastM, input.Yard.NorthM);
            faults.AddAll("yard", yard.Faults());
            for (int i = 0; i < input.Stops.Count; i++)
            {
                RouteStopInput s = input.Stops[i];
                faults.Text($"stops[{i}].id", s.Id, 60);
                faults.AddAll($"stops[{i}]", new MapPlace(s.EastM, s.NorthM).Faults());
                foreach ((string name, double value) in new[] { ("trays", s.Trays), ("bags", s.Bags), ("waterLitres", s.WaterLitres), ("kg", s.Kg) })
                    faults.Range($"stops[{i}].{name}", value, 0, 100_000, string.Empty);
            }
            faults.ThrowIfAny();
            IReadOnlyList<MapFeature> map = input.PlanFile is { } file ? PlanTopics.ReadPlan(file, "planFile").Map : [];
            var question = RouteQuestion.Of(
                yard,
                [.. input.Stops.Select(s => new RouteStop(s.Id, new MapPlace(s.EastM, s.NorthM), new Load(s.Trays, s.Bags, s.WaterLitres, s.Kg)))],
                vehicle,
                new WalkingWays(map).Metres
            );
            Core.Crew.Route route = CrewRouting.Find(question, input.Seconds);
            return (
                new RouteOutput(
                    Math.Round(route.Metres, 1),
                    [
                        .. route.Trips.Select(t => new TripOutput(
                            [.. t.Stops.Select(s => s.TaskId)],
                            Math.Round(t.Metres, 1),
                            Math.Round(t.MinutesWith(vehicle), 1),
                            Rounded(t.Load)
                        )),
                    ]
                ),
                [Trip.Explain(route.Trips)]
            );
        });

    public static Topic Load { get; } =
        new Topic<LoadInput, LoadOutput>("load", "what the changeovers of some days take along: trays, bags, water, weight", input =>
        {
            Plan plan = PlanTopics.ReadPlan(input.PlanFile, "planFile");
            LocalDate last = input.Last ?? input.First;
            var faults = new FaultList();
            faults.Days("first", input.First, "last", last);
            if (input.Vehicle is { } asked)
                faults.AddAll("vehicle", asked.Faults());
            foreach (string id in (input.PlanterIds ?? []).Where(p => plan.FindPlanter(p) is null))
                faults.Add("planterIds", $"\"{id}\" is no planter of the plan");
            faults.ThrowIfAny();
            List<(CrewTask Task, Load Load)> loads =
            [
                .. CrewTasks
                    .Between(plan, [], input.First, last)
                    .Where(t => t.PlanterId is { } p && (input.PlanterIds?.Contains(p) ?? true))
                    .Select(t => (t, Core.Crew.Load.Of(t, plan))),
            ];
            Load all = loads.Aggregate(Core.Crew.Load.None, (sum, l) => sum + l.Load);
            return (
                new LoadOutput(
                    Rounded(all),
                    [.. loads.Select(l => new PlanterLoadOutput(l.Task.PlanterId!, l.Task.Window.Best, Rounded(l.Load)))],
                    input.Vehicle is { } vehicle && RouteQuestion.Pieces(all, vehicle) is > 0 and var trips ? trips : null
                ),
                [Core.Crew.Load.Explain([.. loads.Select(l => (l.Task.Place, l.Load))])]
            );
        });

    private static Load Rounded(Load load) =>
        new(Math.Round(load.Trays, 2), Math.Round(load.Bags, 2), Math.Round(load.WaterLitres, 1), Math.Round(load.Kg, 1));

    private static ScheduleQuestion Question(ScheduleInput input)
    {
        var faults = new FaultList();
        faults.Range("seconds", input.Seconds, 1, 60, "seconds");
        for (int i = 0; i < input.Jobs.Count; i++)
        {
            ScheduleJobInput job = input.Jobs[i];
            faults.Text($"jobs[{i}].id", job.Id, 200);
            faults.Range($"jobs[{i}].minutes", job.Minutes, 1, 6000, "minutes");
            faults.Range($"jobs[{i}].people", job.People, 1, 20, "people");
            if (job.NotBefore > job.Best || job.Best > job.NotAfter)
                faults.Add($"jobs[{i}].best", "must be from the first of its days to the last");
        }
        if (input.Jobs.DistinctBy(j => j.Id).Count() < input.Jobs.Count)
            faults.Add("jobs", "two have the same id");
        for (int i = 0; i < input.TeamDays.Count; i++)
        {
            faults.Range($"teamDays[{i}].people", input.TeamDays[i].People, 0, 200, "people");
            faults.Range($"teamDays[{i}].minutes", input.TeamDays[i].Minutes, 0, 200_000, "minutes");
        }
        if (input.TeamDays.DistinctBy(t => (t.TeamId, t.Day)).Count() < input.TeamDays.Count)
            faults.Add("teamDays", "names a team twice on one day");
        IReadOnlyList<Closure> closures = input.Closures ?? [];
        for (int i = 0; i < closures.Count; i++)
            faults.AddAll($"closures[{i}]", closures[i].Faults());
        if (input.Jobs.Count > 2000 || input.TeamDays.Count > 1000)
            faults.Add("jobs", "at most 2,000 jobs, and 1,000 teams on days");
        faults.ThrowIfAny();
        return new ScheduleQuestion(
            [
                .. input.Jobs.SelectMany(j =>
                {
                    var task = new CrewTask(
                        j.Id,
                        TaskKind.Other,
                        new TaskWindow(j.NotBefore, j.Best, j.NotAfter),
                        [],
                        [new TaskLine(1, j.IsPlanting ? LineKind.In : LineKind.Whole, 1)]
                    )
                    {
                        AreaId = j.AreaId,
                        People = j.People,
                    };
                    return ScheduleQuestion
                        .JobsOf(task, j.Minutes)
                        .Select(job => job with { Needs = j.Needs, IsInBed = j.IsInBed, IsTall = j.IsTall });
                }),
            ],
            input.TeamDays,
            closures,
            input.Weather ?? []
        );
    }
}

using NodaTime;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Crew;

/// <summary>What somebody must be trained or licensed for; local codes say in what.</summary>
public enum Skill
{
    /// <summary>A powered auger.</summary>
    Auger,

    /// <summary>A sprayer.</summary>
    Sprayer,

    /// <summary>Driving the crew's vehicles.</summary>
    Driving,

    /// <summary>Work on ladders and platforms.</summary>
    Heights,
}

/// <summary>Days on which somebody is not there.</summary>
/// <param name="First">The first.</param>
/// <param name="Last">The last.</param>
public sealed record Absence(LocalDate First, LocalDate Last);

/// <summary>When somebody works, and what they can do.</summary>
/// <param name="PersonId">The person.</param>
/// <param name="Minutes">Minutes of each weekday, Monday first.</param>
/// <param name="Away">When they are not there.</param>
/// <param name="Skills">What they are trained for.</param>
public sealed record Worker(Guid PersonId, IReadOnlyList<int> Minutes, IReadOnlyList<Absence> Away, IReadOnlyList<Skill> Skills)
{
    /// <summary>Somebody who works seven hours from Monday to Friday (common practice).</summary>
    public static Worker Usual(Guid person) => new(person, [420, 420, 420, 420, 420, 0, 0], [], []);

    /// <summary>Minutes that they work on a day; 0 where they are away.</summary>
    public int MinutesOn(LocalDate day) => Away.Any(a => a.First <= day && day <= a.Last) ? 0 : Minutes[(int)day.DayOfWeek - 1];

    /// <summary>Every fault of it.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        if (Minutes.Count != 7)
            faults.Add("minutes", "must be given for each of the seven weekdays");
        for (int i = 0; i < Minutes.Count; i++)
            faults.Range($"minutes[{i}]", Minutes[i], 0, 960, "minutes");
        for (int i = 0; i < Away.Count; i++)
            faults.Days($"away[{i}].first", Away[i].First, $"away[{i}].last", Away[i].Last);
        return faults.Faults;
    }
}

/// <summary>People who go out together.</summary>
/// <param name="Id">Short name.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Members">Its people.</param>
/// <param name="VehicleId">The vehicle that it goes with; null on foot.</param>
public sealed record Team(string Id, string Name, IReadOnlyList<Guid> Members, string? VehicleId = null)
{
    /// <summary>Every fault of it.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        if (!Ids.IsValid(Id))
            faults.Add("id", Ids.Rule);
        faults.Text("name", Name, 60);
        if (Members.Distinct().Count() < Members.Count)
            faults.Add("members", "names somebody twice");
        return faults.Faults;
    }
}

/// <summary>A vehicle, with what it holds.</summary>
/// <param name="Id">Short name.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Trays">Trays and flats.</param>
/// <param name="Bags">Bags of medium.</param>
/// <param name="WaterLitres">Litres of its tank; 0 for none.</param>
/// <param name="MostKg">What it may carry, kg, water among it.</param>
/// <param name="SpeedKmH">How fast it goes on the site's paths, km/h.</param>
public sealed record Vehicle(string Id, string Name, int Trays, int Bags, double WaterLitres, double MostKg, double SpeedKmH = Vehicle.UsualKmH)
{
    /// <summary>How fast vehicles go among people, km/h (common practice: not much faster than those walk).</summary>
    public const double UsualKmH = 10;

    // A tank is filled, and its water poured, so fast, L/min (common practice).
    private const double FillLitresAMinute = 40;

    /// <summary>A team without a vehicle: two barrows and watering cans, at the pace of a loaded crew (common practice).</summary>
    public static Vehicle OnFoot { get; } = new("on-foot", "on foot", 6, 4, 40, 160, 3.6);

    /// <summary>Minutes that a way of so many metres takes, with its tank filled before.</summary>
    public double Minutes(double metres, double waterLitres) => (metres / (SpeedKmH * 1000 / 60)) + (waterLitres / FillLitresAMinute);

    /// <summary>Every fault of it.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        if (!Ids.IsValid(Id))
            faults.Add("id", Ids.Rule);
        faults.Text("name", Name, 60);
        faults.Range("trays", Trays, 0, 2000, "trays");
        faults.Range("bags", Bags, 0, 1000, "bags");
        faults.Range("waterLitres", WaterLitres, 0, 20_000, "litres");
        faults.Range("mostKg", MostKg, 10, 40_000, "kg");
        faults.Range("speedKmH", SpeedKmH, 1, 60, "km/h");
        return faults.Faults;
    }
}

/// <summary>Days on which nobody can work at an area, or anywhere.</summary>
/// <param name="Id">Short name.</param>
/// <param name="First">The first.</param>
/// <param name="Last">The last.</param>
/// <param name="AreaId">The area; null for all.</param>
/// <param name="Why">Why, in a few words.</param>
public sealed record Closure(string Id, LocalDate First, LocalDate Last, string? AreaId, string Why)
{
    /// <summary>True where it keeps the crew out of an area on a day.</summary>
    public bool Closes(string? areaId, LocalDate day) => First <= day && day <= Last && (AreaId is null || AreaId == areaId);

    /// <summary>Every fault of it.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Days("first", First, "last", Last);
        faults.Text("why", Why, 80);
        return faults.Faults;
    }
}

/// <summary>Who and what there is to do the work with.</summary>
/// <param name="Workers">People; those who are not named work the usual hours.</param>
/// <param name="Teams">Who goes out together.</param>
/// <param name="Vehicles">Vehicles.</param>
/// <param name="Closures">When nobody can work where.</param>
public sealed record Roster(
    IReadOnlyList<Worker> Workers,
    IReadOnlyList<Team> Teams,
    IReadOnlyList<Vehicle> Vehicles,
    IReadOnlyList<Closure> Closures
)
{
    /// <summary>Where vehicles are loaded and tanks filled; null where nobody has said.</summary>
    public MapPlace? Yard { get; init; }

    /// <summary>Heat index above which work ends at noon, °C.</summary>
    public double HeatLimitC { get; init; } = WorkWeather.UsualHeatC;

    /// <summary>Litres a day that may be given by hand under a water ban, 0 to <see cref="MostWaterLitres"/>; null where there is none.</summary>
    public double? WaterLitresADay { get; init; }

    /// <summary>Care that is asked of the crew as tasks; what is not in it is only shown to those who look.</summary>
    public IReadOnlyList<CareWork> Asked { get; init; } = [];

    /// <summary>More than any crew carries in a day, L.</summary>
    public const double MostWaterLitres = 1_000_000;

    /// <summary>Nobody and nothing yet.</summary>
    public static Roster None { get; } = new([], [], [], []);

    /// <summary>Every fault of it: of its parts, and people who are in two teams.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        if (Yard is { } yard)
            faults.AddAll("yard", yard.Faults());
        faults.Range("heatLimitC", HeatLimitC, 20, 60, "°C");
        if (WaterLitresADay is { } litres)
            faults.Range("waterLitresADay", litres, 0, MostWaterLitres, "L");
        Each("workers", Workers, w => w.Faults());
        Each("teams", Teams, t => t.Faults());
        Each("vehicles", Vehicles, v => v.Faults());
        Each("closures", Closures, c => c.Faults());
        Once("workers", Workers.Select(w => w.PersonId));
        Once("teams", Teams.Select(t => t.Id));
        Once("vehicles", Vehicles.Select(v => v.Id));
        var of = new Dictionary<Guid, string>();
        for (int i = 0; i < Teams.Count; i++)
        {
            foreach (Guid member in Teams[i].Members.Distinct())
            {
                if (!of.TryAdd(member, Teams[i].Name))
                    faults.Add($"teams[{i}].members", $"somebody of {Teams[i].Name} is in {of[member]} already: nobody goes out twice at once");
            }
            if (Teams[i].VehicleId is { } vehicle && Vehicles.All(v => v.Id != vehicle))
                faults.Add($"teams[{i}].vehicleId", "is no vehicle");
        }
        foreach (IGrouping<string, Team> shared in Teams.Where(t => t.VehicleId is not null).GroupBy(t => t.VehicleId!, StringComparer.Ordinal))
        {
            if (shared.Skip(1).Any())
                faults.Add("teams.vehicleId", $"{string.Join(" and ", shared.Select(t => t.Name))} cannot drive the same vehicle");
        }
        return faults.Faults;

        void Once<T>(string list, IEnumerable<T> ids)
        {
            if (ids.GroupBy(i => i).Any(g => g.Skip(1).Any()))
                faults.Add(list, "names one twice");
        }

        void Each<T>(string list, IReadOnlyList<T> items, Func<T, IReadOnlyList<Fault>> faultsOf)
        {
            for (int i = 0; i < items.Count; i++)
                faults.AddAll($"{list}[{i}]", faultsOf(items[i]));
        }
    }

    /// <summary>The team that does what was given to some people: the first that one of them is in; null for people in none.</summary>
    public Team? TeamOf(IReadOnlyList<Guid> people) => Teams.FirstOrDefault(t => people.Any(t.Members.Contains));

    /// <summary>The vehicle of a team; on foot where it has none.</summary>
    public Vehicle VehicleOf(Team? team) => Vehicles.FirstOrDefault(v => v.Id == team?.VehicleId) ?? Vehicle.OnFoot;

    /// <summary>What a team can do on a day.</summary>
    /// <param name="team">The team.</param>
    /// <param name="day">The day.</param>
    /// <param name="weather">The day's weather; null for fair.</param>
    /// <param name="given">Work that its people have on that day already: the people of each piece, and its minutes.</param>
    public TeamDay On(Team team, LocalDate day, WorkWeather? weather = null, IEnumerable<(IReadOnlyList<Guid> To, int Minutes)>? given = null)
    {
        double taken = (given ?? []).Sum(g => g.To.Count == 0 ? 0 : (double)g.Minutes * g.To.Count(team.Members.Contains) / g.To.Count);
        Dictionary<Guid, Worker> known = Workers.ToDictionary(w => w.PersonId);
        List<(Worker Worker, int Minutes)> there =
        [
            .. team.Members.Select(m => known.GetValueOrDefault(m) ?? Worker.Usual(m)).Select(w => (w, w.MinutesOn(day))).Where(w => w.Item2 > 0),
        ];
        int minutes = there.Sum(w => weather?.Of(w.Minutes) ?? w.Minutes);
        return new TeamDay(
            team.Id,
            day,
            there.Count,
            Math.Max(0, minutes - (int)Math.Ceiling(taken)),
            [.. there.SelectMany(w => w.Worker.Skills).Distinct().Order()]
        );
    }
}

/// <summary>What a team can do on a day.</summary>
/// <param name="TeamId">The team.</param>
/// <param name="Day">The day.</param>
/// <param name="People">People who are there.</param>
/// <param name="Minutes">Their minutes in all.</param>
/// <param name="Skills">What at least one of them is trained for.</param>
public sealed record TeamDay(string TeamId, LocalDate Day, int People, int Minutes, IReadOnlyList<Skill> Skills);

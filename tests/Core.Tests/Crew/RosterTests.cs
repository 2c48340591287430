using CsCheck;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.SiteMap;

namespace UnrulyMeadow.Core.Tests.Crew;

/// <summary>Who there is to do the work, what weather leaves of their days, and what they take along.</summary>
public sealed class RosterTests
{
    private static readonly LocalDate Monday = A.Day(2027, 5, 17);
    private static readonly Guid Ada = Guid.NewGuid();
    private static readonly Guid Bruno = Guid.NewGuid();
    private static readonly Vehicle Cart = new("cart", "Cart", 20, 10, 200, 500);

    [Fact]
    public void A_team_has_the_minutes_of_those_who_are_there_less_what_they_have_to_do_already()
    {
        var team = new Team("one", "One", [Ada, Bruno]);
        Roster roster = Roster.None with
        {
            Teams = [team],
            Workers = [new Worker(Ada, [480, 420, 420, 420, 420, 0, 0], [new Absence(Monday.PlusDays(1), Monday.PlusDays(2))], [Skill.Auger])],
        };
        // Bruno works the usual seven hours.
        Assert.Equal((2, 900), (roster.On(team, Monday).People, roster.On(team, Monday).Minutes));
        TeamDay tuesday = roster.On(team, Monday.PlusDays(1));
        Assert.Equal((1, 420), (tuesday.People, tuesday.Minutes));
        Assert.Empty(tuesday.Skills);
        Assert.Equal(0, roster.On(team, Monday.PlusDays(5)).People);
        // Of work that Ada shares with somebody of another team, half is hers.
        Assert.Equal(900 - 60 - 30, roster.On(team, Monday, null, [([Ada], 60), ([Ada, Guid.NewGuid()], 60)]).Minutes);
        Assert.Equal(450, roster.On(team, Monday, new WorkWeather(Monday, true, [WeatherHinder.Hot])).Minutes);
    }

    [Fact]
    public void What_cannot_be_is_refused_where_it_stands()
    {
        Roster twice = Roster.None with { Teams = [new Team("one", "One", [Ada]), new Team("two", "Two", [Bruno, Ada])] };
        Assert.Contains(twice.Faults(), f => f.Field == "teams[1].members");
        Roster shared = Roster.None with
        {
            Vehicles = [Cart],
            Teams = [new Team("one", "One", [Ada], "cart"), new Team("two", "Two", [Bruno], "cart")],
        };
        Assert.Contains(shared.Faults(), f => f.Field == "teams.vehicleId");
        Roster negative = Roster.None with { Workers = [Worker.Usual(Ada) with { Minutes = [-60, 0, 0, 0, 0, 0, 0] }] };
        Assert.Contains(negative.Faults(), f => f.Field == "workers[0].minutes[0]");
        Roster backwards = Roster.None with { Closures = [new Closure("market", Monday, Monday.PlusDays(-1), null, "a market")] };
        Assert.Contains(backwards.Faults(), f => f.Field.StartsWith("closures[0].", StringComparison.Ordinal));
        // A file that names somebody twice is refused: a page could not tell which hours hold.
        var named = new FiledWorker("Ada", [420, 0, 0, 0, 0, 0, 0], [], []);
        Assert.Contains(new FiledRoster([named, named], [], [], []).Faults(), f => f.Field == "workers");
        Assert.Empty((Roster.None with { Vehicles = [Cart], Teams = [new Team("one", "One", [Ada, Bruno], "cart")] }).Faults());
    }

    [Fact]
    public void A_roster_comes_back_from_a_file_among_people_of_the_same_names()
    {
        var roster = new Roster(
            [new Worker(Ada, [480, 0, 0, 0, 0, 0, 60], [new Absence(Monday, Monday)], [Skill.Driving])],
            [new Team("one", "One", [Ada, Bruno], "cart")],
            [Cart],
            [new Closure("market", Monday, Monday, "quay", "a market")]
        )
        {
            Yard = new MapPlace(3, 4),
            HeatLimitC = 30,
        };
        FiledRoster filed = FiledRoster.Of(roster, new Dictionary<Guid, string> { [Ada] = "Ada", [Bruno] = "Bruno" });
        Assert.Empty(filed.Faults());
        var other = Guid.NewGuid();
        Roster back = filed.Among(new Dictionary<string, Guid> { ["Ada"] = other });
        Assert.Equal([other], back.Teams[0].Members);
        Assert.Equal((480, 60), (back.Workers[0].Minutes[0], back.Workers[0].Minutes[6]));
        Assert.Equal((roster.Yard, 30.0), (back.Yard, back.HeatLimitC));
        Assert.Equivalent(roster.Closures, back.Closures);
    }

    // The heat index of the US National Weather Service: at 90 °F (32.2 °C) and 50 % humidity it feels like 95 °F (35 °C).
    [Fact]
    public void Work_ends_at_noon_where_the_afternoon_is_beyond_the_limit_and_nothing_is_planted_into_frozen_or_sodden_ground()
    {
        DayForecast[] told =
        [
            new(Monday, 20.5, 32.2, 0),
            new(Monday.PlusDays(1), 12, 24, 14, 11),
            new(Monday.PlusDays(2), 10, 18, 5),
            new(Monday.PlusDays(3), -9, -1, 0),
        ];
        IReadOnlyList<WorkWeather> days = WorkWeather.Of(null, told, Monday, 5);
        Assert.InRange(WorkWeather.Heat(20.5, 32.2), 34, 36);
        Assert.Equal([WeatherHinder.Hot], days[0].Hinders);
        Assert.Equal([WeatherHinder.Sodden, WeatherHinder.Windy], days[1].Hinders);
        Assert.Empty(days[2].Hinders);
        Assert.Equal([WeatherHinder.Frozen], days[3].Hinders);
        Assert.Equal((false, 0), (days[4].IsForecast, days[4].Hinders.Count));
        Assert.Empty(WorkWeather.Of(null, told, Monday, 1, heatC: 40)[0].Hinders);

        var planting = new ScheduleJob(
            new CrewTask("t", TaskKind.Changeover, new TaskWindow(Monday, Monday, Monday), [], [new TaskLine(1, LineKind.In, 3)]),
            30
        );
        Assert.True(days[3].Keeps(planting));
        Assert.True(days[1].Keeps(planting with { IsInBed = true }));
        Assert.True(days[1].Keeps(planting with { IsTall = true }));
        Assert.False(days[1].Keeps(planting));
    }

    // Beyond the forecast, most years of the record speak: hard winters freeze the ground, hot summers end work at noon.
    [Fact]
    public void Most_years_tell_of_days_that_no_forecast_reaches()
    {
        WeatherRecord harsh = A.Record(2000, 12, d => d.Month is 12 or 1 or 2 ? (-22, -10)
            : d.Month is 7 ? (24, 36)
            : (5, 15));
        Assert.Contains(WeatherHinder.Frozen, WorkWeather.Of(harsh, [], A.Day(2028, 1, 25), 1)[0].Hinders);
        Assert.Equal([WeatherHinder.Hot], WorkWeather.Of(harsh, [], A.Day(2028, 7, 20), 1)[0].Hinders);
        Assert.Empty(WorkWeather.Of(harsh, [], A.Day(2028, 5, 20), 1)[0].Hinders);
        Assert.Single(WorkWeather.Of(harsh, [], A.Day(2028, 2, 29), 1));
    }

    // CommonPractice: 450 bedding plants in flats of 10 and 18 are some thirty flats, and a hundred bulbs one tray.
    [Fact]
    public void A_load_is_the_sum_of_its_lines_and_water_weighs_a_kilogram_a_litre()
    {
        Plant petunia = A.Annual("petunia") with { SpreadAtPurchaseCm = 10, Packs = [new Pack("flat of 18", 18, 12)] };
        Load flats = Load.OfPlants(petunia, GoodsForm.Usual(petunia), 450);
        Assert.InRange(flats.Trays, 20, 35);
        Assert.InRange(flats.Kg, 50, 250);
        Plant tulip = A.Tulip();
        Assert.Equal(1, Load.OfPlants(tulip, GoodsForm.Usual(tulip), 100).Trays, 1e-9);

        var plan = new Plan(Site.Default, [new Area("quay", "Quay", 0)], [A.UsedPot()], [petunia, tulip], [], []);
        TaskLine[] lines =
        [
            new(1, LineKind.In, 30) { PlantId = "petunia" },
            new(2, LineKind.In, 40) { PlantId = "tulip" },
            new(3, LineKind.Medium, 1) { Litres = 90 },
            new(4, LineKind.WaterIn, 1) { Litres = 25 },
        ];
        CrewTask Of(params TaskLine[] some) => new("t", TaskKind.Changeover, new TaskWindow(Monday, Monday, Monday), [], some);
        Load all = Load.Of(Of(lines), plan);
        Load sum = lines.Aggregate(Load.None, (s, l) => s + Load.Of(Of(l), plan));
        Assert.Equal(all.Trays, sum.Trays, 1e-9);
        Assert.Equal(all.Kg, sum.Kg, 1e-9);
        Assert.Equal(25, Load.Of(Of(lines[3]), plan).Kg, 1e-9);
        Assert.Equal(90 / plan.Site.MediumBagLitres, all.Bags, 1e-9);
    }

    [Fact]
    public void The_points_of_a_way_are_as_long_as_the_way()
    {
        MapFeature Path(string id, params MapPoint[] points) =>
            new()
            {
                Id = id,
                Kind = MapKind.Path,
                Points = points,
                WidthM = 2,
            };
        MapFeature[] map = [Path("quay", new(0, 0), new(200, 0)), Path("lane", new(120, 0), new(120, 90)), Path("top", new(0, 90), new(120, 90))];
        Gen.Select(Gen.Double[-20, 220], Gen.Double[-20, 120])
            .Array[2]
            .Sample(
                ends =>
                {
                    var ways = new WalkingWays(map);
                    MapPlace from = new(ends[0].Item1, ends[0].Item2);
                    MapPlace to = new(ends[1].Item1, ends[1].Item2);
                    (double metres, bool along) = ways.Between(from, to);
                    IReadOnlyList<MapPoint> points = ways.Way(from, to);
                    double length = points
                        .Zip(points.Skip(1))
                        .Sum(p => Math.Sqrt(Math.Pow(p.First.EastM - p.Second.EastM, 2) + Math.Pow(p.First.NorthM - p.Second.NorthM, 2)));
                    // Where paths lead nowhere near, the straight line is drawn and a quarter is added to it.
                    Assert.Equal(metres, along ? length : length * WalkingWays.Detour, 0.5);
                    double[][] all = ways.Metres([from, to]);
                    Assert.Equal(metres, all[0][1], 1e-6);
                    Assert.Equal(all[0][1], all[1][0], 1e-6);
                },
                iter: 200
            );
    }

    [Fact]
    public void Each_plant_is_picked_once_from_where_it_stands_and_none_from_a_lot_that_others_take()
    {
        Gen.Select(Gen.Int[0, 40], Gen.Int[0, 40], Gen.Int[1, 30], Gen.Int[1, 30])
            .Sample(
                (bench, frame, first, second) =>
                {
                    Lot Lot(string place, int count) =>
                        new($"{place}-lot", "petunia", count, LotState.Waiting, place, Monday.PlusDays(-5), LotCondition.Good);
                    var plan = new Plan(
                        Site.Default,
                        [new Area("quay", "Quay", 0)],
                        [A.UsedPot(), A.UsedPot() with { Id = "other", Name = "Other" }],
                        [A.Annual("petunia")],
                        [
                            A.Show("one", Monday, A.Day(2027, 10, 1), DisplayLayer.Seasonal, new DisplayItem("petunia", first)),
                            A.Show("two", Monday, A.Day(2027, 10, 1), DisplayLayer.Seasonal, new DisplayItem("petunia", second)) with
                            {
                                PlanterId = "other",
                            },
                        ],
                        [],
                        lots: [.. new[] { Lot("bench", bench), Lot("frame", frame) }.Where(l => l.Count > 0)]
                    );
                    IReadOnlyList<CrewTask> tasks = CrewTasks.Between(plan, [], Monday, Monday);
                    List<Pick> apart = [.. tasks.SelectMany(t => PickList.Of(plan, [t]))];
                    foreach (IReadOnlyList<Pick> picks in new[] { PickList.Of(plan, [.. tasks]), apart })
                    {
                        Assert.Equal(first + second, picks.Sum(p => p.Count));
                        Assert.True(picks.Where(p => p.Place == "bench").Sum(p => p.Count) <= bench);
                        Assert.True(picks.Where(p => p.Place == "frame").Sum(p => p.Count) <= frame);
                        Assert.Equal(Math.Max(0, first + second - bench - frame), picks.Where(p => p.Place is null).Sum(p => p.Count));
                    }
                },
                iter: 100
            );
    }
}

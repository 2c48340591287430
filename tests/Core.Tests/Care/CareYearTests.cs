using NodaTime;
using UnrulyMeadow.Core.Care;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Tests.Care;

/// <summary>A crew that does what it is asked, week by week through a year of real weather.</summary>
public sealed class CareYearTests
{
    private static readonly LocalDate Start = A.Day(2014, 9, 1);
    private static readonly WeatherRecord Record = A.Record("New York");

    private static readonly Planter Pot = A.Pot();
    private static readonly Planter Second = A.Pot(id: "second") with { Name = "Second pot" };

    private static readonly Planter Late = A.Pot(id: "late") with { Name = "Late pot" };

    private static readonly Plan Plan = A.Plan(
        [Pot, Second, Late],
        A.Palette,
        [
            // Left standing into November, when nights kill it.
            A.Show("lantana", A.Day(2014, 8, 20), A.Day(2014, 12, 1), DisplayLayer.Seasonal, new DisplayItem("lantana-gold", 4)) with
            {
                PlanterId = "late",
            },
            A.Show("bulbs", A.Day(2014, 10, 20), A.Day(2020, 6, 1), DisplayLayer.Bulbs, new DisplayItem("tulip-darwin-orange", 15)),
            A.Show("summer", A.Day(2015, 5, 20), A.Day(2015, 10, 12), DisplayLayer.Seasonal, new DisplayItem("petunia-magenta", 6)),
            A.Show("grass", A.Day(2014, 4, 20), A.Day(2019, 6, 1), DisplayLayer.Standing, new DisplayItem("feather-reed-grass", 1)) with
            {
                PlanterId = "second",
            },
            A.Show("marigolds", A.Day(2015, 5, 20), A.Day(2015, 10, 12), DisplayLayer.Seasonal, new DisplayItem("marigold-orange", 8)) with
            {
                PlanterId = "second",
            },
        ]
    );

    private static readonly SiteYear Year = SiteYear.From(Plan, Record, Start);

    private static readonly Lazy<IReadOnlyList<(LocalDate Day, CareJob Job)>> Done = new(() => Walk(0).Done);

    private static CareDay Measured(LocalDate day) =>
        CareDay.Of(
            day,
            Record.MinC[Record.IndexOf(day)],
            Record.MaxC[Record.IndexOf(day)],
            Record.PrecipitationMm[Record.IndexOf(day)],
            Record.Station.LatitudeDeg,
            CareDaySource.Measured
        );

    // Every day of the year: what is asked is done on the first day on which it helps, what a crew was told is kept.
    private static (IReadOnlyList<(LocalDate Day, CareJob Job)> Done, IReadOnlyList<PlanterWater> Last) Walk(double forecastErrorC)
    {
        var random = new Random(7);
        var done = new List<CareDone>();
        var jobs = new List<(LocalDate, CareJob)>();
        CareNow now = null!;
        for (LocalDate day = Start; day < Start.PlusMonths(12); day = day.PlusDays(1))
        {
            LocalDate today = day;
            List<DayForecast> forecast =
            [
                .. Enumerable
                    .Range(1, 6)
                    .Select(d => (At: Measured(today.PlusDays(d)), Off: forecastErrorC * ((random.NextDouble() * 2) - 1)))
                    .Select(x => new DayForecast(x.At.Day, x.At.MinC + x.Off, x.At.MaxC + x.Off, x.At.RainMm)),
            ];
            now = CareNow.Of(
                new CareQuestion(
                    Plan,
                    Year,
                    Record,
                    [.. Enumerable.Range(-CareNow.DaysBack, CareNow.DaysBack + 8).Select(d => Measured(today.PlusDays(d)))],
                    forecast,
                    today,
                    done,
                    40,
                    true
                )
            );
            foreach (CareJob job in WaterRound.Jobs(now.Round(today), today).Concat(now.ThisWeek))
            {
                if (!job.IsDue(today) || (job.Work != CareWork.Water && now.IsDone(job)))
                    continue;
                jobs.Add((today, job));
                done.Add(new CareDone(job.Planter.Id, job.Plant?.Id, job.Work, today, job.Litres));
            }
        }
        return (jobs, [now.WaterOf("pot")!, now.WaterOf("second")!]);
    }

    private static IEnumerable<LocalDate> On(CareWork work, string? plant = null) =>
        Done.Value.Where(d => d.Job.Work == work && (plant is null || d.Job.Plant?.Id == plant)).Select(d => d.Day);

    [Fact, CommonPractice]
    public void Petunias_are_cut_back_once_in_July_and_fed_afterwards()
    {
        LocalDate cut = Assert.Single(On(CareWork.CutBack, "petunia-magenta"));
        Assert.Equal(7, cut.Month);
        Assert.Contains(Done.Value, d => d.Job.Work == CareWork.Feed && d.Job.Planter.Id == "pot" && d.Day >= cut && d.Day <= cut.PlusDays(14));
        Assert.Equal(30 * 0.33, Done.Value.First(d => d.Job.Work == CareWork.CutBack).Job.CutToCm!.Value, 0.5);
    }

    [Fact, CommonPractice]
    public void Grasses_stand_through_winter_and_are_cut_once_before_they_grow()
    {
        LocalDate cut = Assert.Single(On(CareWork.CutInSpring, "feather-reed-grass"));
        Assert.InRange(cut, A.Day(2015, 2, 15), A.Day(2015, 4, 10));
    }

    [Fact, CommonPractice]
    public void Bulbs_lose_their_old_flowers_at_once_and_their_leaves_only_when_brown()
    {
        LocalDate flowers = Assert.Single(On(CareWork.BulbFlowers));
        LocalDate leaves = Assert.Single(On(CareWork.BulbLeaves));
        Assert.InRange(flowers, A.Day(2015, 4, 20), A.Day(2015, 5, 31));
        Assert.InRange(Period.DaysBetween(flowers, leaves), 30, 50);
        // They are fed as their leaves come up.
        Assert.Contains(Done.Value, d => d.Job is { Work: CareWork.Feed, Litres: null } && d.Day < flowers && d.Day.Month is 3 or 4 or 5);
    }

    [Fact, CommonPractice]
    public void Spent_flowers_come_off_week_by_week_while_it_flowers()
    {
        LocalDate[] days = [.. On(CareWork.Deadhead, "marigold-orange").Order()];
        Assert.True(days.Length is >= 8 and <= 24, $"{days.Length}");
        Assert.All(days.Zip(days.Skip(1)), p => Assert.InRange(Period.DaysBetween(p.First, p.Second), 6, 15));
        Assert.DoesNotContain(days, d => d < A.Day(2015, 5, 20) || d >= A.Day(2015, 10, 12));
    }

    [Fact, CommonPractice]
    public void Nothing_is_fed_late_in_the_year_nor_on_frozen_ground()
    {
        Assert.DoesNotContain(On(CareWork.Feed), d => d.Month is >= 9 or <= 2);
    }

    [Fact, CommonPractice]
    public void In_summer_a_sunny_pot_is_watered_most_days_and_in_winter_seldom()
    {
        int summer = On(CareWork.Water).Where(d => d.Month is 7 or 8).Distinct().Count();
        int winter = On(CareWork.Water).Where(d => d.Month is 12 or 1 or 2).Distinct().Count();
        Assert.InRange(summer, 25, 62);
        Assert.InRange(winter, 0, 14);
        Assert.DoesNotContain(On(CareWork.Water), d => Measured(d).MaxC <= 0);
    }

    [Fact]
    public void What_is_watered_never_runs_through_but_for_a_cup()
    {
        // As much as lacks and no more: what is given on a day without rain stays in.
        foreach ((LocalDate day, CareJob job) in Done.Value.Where(d => d.Job.Work == CareWork.Water))
        {
            WaterDay holds = PlanterWater.Of(Plan, job.Planter, [Measured(day)], []).Days[0];
            Assert.True(job.Litres <= holds.HoldsLitres * 1.3, $"{job.Planter.Id} {day}: {job.Litres} into {holds.HoldsLitres}");
        }
    }

    [Fact]
    public void Every_killing_night_finds_the_plants_covered_and_on_mild_ones_nobody_is_called_out()
    {
        // Forecasts as far off as those of a day ahead usually are.
        IReadOnlyList<(LocalDate Day, CareJob Job)> done = Walk(1.2).Done;
        double spoils = A.Shipped("lantana-gold").TopDamageC;
        int killing = 0;
        for (LocalDate night = Start.PlusDays(1); night < A.Day(2014, 12, 1); night = night.PlusDays(1))
        {
            if (Measured(night).MinC > spoils)
                continue;
            killing++;
            (_, CareJob last) = done.Last(d => d.Job.Planter.Id == "late" && d.Job.Work is CareWork.Cover or CareWork.Uncover && d.Day < night);
            Assert.True(last.Work == CareWork.Cover, $"{night}: {Measured(night).MinC} °C");
        }
        Assert.True(killing >= 5, $"{killing} nights of this fall kill it");
        (LocalDate Day, CareJob Job)[] called = [.. done.Where(d => d.Job.Work == CareWork.Cover)];
        Assert.All(called, c => Assert.True(Measured(c.Day.PlusDays(1)).MinC < spoils + 4));
        // What is covered is uncovered before it is covered again.
        Assert.All(done.Where(d => d.Job.Work is CareWork.Cover or CareWork.Uncover).GroupBy(d => d.Job.Planter.Id), g =>
            Assert.All(g.Zip(g.Skip(1)), p => Assert.NotEqual(p.First.Job.Work, p.Second.Job.Work))
        );
    }

    [Fact]
    public void Tasks_of_a_week_are_there_once_with_the_same_ids_whoever_works_them_out_and_whenever()
    {
        LocalDate wednesday = A.Day(2015, 7, 15);
        IReadOnlyList<CrewTask> On(LocalDate day) =>
            CareNow
                .Of(
                    new CareQuestion(Plan, Year, Record, [.. Enumerable.Range(-60, 68).Select(d => Measured(day.PlusDays(d)))], [], day, [], 40, true)
                )
                .Tasks(Enum.GetValues<CareWork>());
        IReadOnlyList<CrewTask> now = On(wednesday);
        Assert.NotEmpty(now);
        Assert.Equal(now.Count, now.Select(t => t.Id).Distinct().Count());
        Assert.All(now, t => Assert.True(t.Window.NotBefore <= t.Window.Best && t.Window.Best <= t.Window.NotAfter));
        Assert.All(now, t => Assert.Empty(t.Faults()));
        string[] hands = [.. now.Where(t => t.Kind is TaskKind.CutBack or TaskKind.Deadhead).Select(t => t.Id + t.Mark).Order()];
        Assert.Equal(hands, On(wednesday.PlusDays(1)).Where(t => t.Kind is TaskKind.CutBack or TaskKind.Deadhead).Select(t => t.Id + t.Mark).Order());
    }

    [Fact]
    public void A_planners_own_cut_is_asked_on_its_day_and_the_plants_rule_is_silent_beside_it()
    {
        Plan own = A.Plan(
            [Pot],
            A.Palette,
            [
                A.Show("summer", A.Day(2015, 5, 20), A.Day(2015, 10, 12), DisplayLayer.Seasonal, new DisplayItem("petunia-magenta", 6)) with
                {
                    Cuts = [new CutBack("petunia-magenta", A.Day(2015, 6, 24), 12)],
                },
            ]
        );
        CareSeason season = CareSeason.Of(SiteYear.From(own, Record, Start), Record, [], A.Day(2015, 6, 22));
        CareJob cut = Assert.Single(HandCare.Of(own, season, A.Day(2015, 6, 22), A.Day(2015, 6, 28), []), j => j.Work == CareWork.CutBack);
        Assert.Equal(12, cut.CutToCm);
        Assert.DoesNotContain(HandCare.Of(own, season, A.Day(2015, 7, 13), A.Day(2015, 7, 19), []), j => j.Work == CareWork.CutBack);
    }

    [Theory]
    [InlineData(4, 1, 30)]
    [InlineData(-4, -30, -1)]
    [InlineData(0, 0, 0)]
    public void A_warm_spring_is_ahead_and_a_cold_one_behind(double offC, int low, int high)
    {
        LocalDate today = A.Day(2015, 4, 20);
        List<CareDay> days =
        [
            .. Enumerable
                .Range(-100, 101)
                .Select(d => (Day: today.PlusDays(d), Usual: Record.ExpectedOn(today.PlusDays(d))))
                .Select(x => CareDay.Of(x.Day, x.Usual.MinC + offC, x.Usual.MaxC + offC, 0, 41, CareDaySource.Measured)),
        ];
        Assert.InRange(CareSeason.Of(null, Record, days, today).DaysAhead, low, high);
    }

    // In the south half a year later; where growth never stops in the last month of winter.
    [Theory]
    [InlineData(45, -2, 3)]
    [InlineData(-45, 8, 9)]
    [InlineData(45, 10, 2)]
    [InlineData(-45, 10, 8)]
    public void Spring_begins_in_every_climate(double latitudeDeg, double winterC, int month)
    {
        bool southern = latitudeDeg < 0;
        double mean = winterC >= 10 ? 14 : 9;
        WeatherRecord record = A.Record(
            2010,
            12,
            d =>
            {
                double at = mean - (8 * (winterC >= 10 ? 0.4 : 1) * (southern ? -1 : 1) * Math.Cos(2 * Math.PI * (d.DayOfYear - 25) / 365.25));
                return (at - 4, at + 4);
            },
            latitudeDeg
        );
        LocalDate growth = CareSeason.Of(null, record, [], A.Day(2027, southern ? 8 : 2, 1)).GrowthBegins!.Value;
        Assert.InRange(growth.Month, month, month + 1);
    }

    // Day after day of the same weather, a pot that lasts some days is dry once in so many, whatever day it is looked at.
    [Theory]
    [InlineData(12, 22)]
    [InlineData(8, 16)]
    [InlineData(6, 13)]
    public void Where_nobody_tells_a_pot_is_dry_once_in_as_many_days_as_it_lasts(double minC, double maxC)
    {
        LocalDate first = A.Day(2015, 7, 1);
        CareDay Alike(LocalDate day) => CareDay.Of(day, minC, maxC, 0, 43, CareDaySource.Measured);
        bool[] due =
        [
            .. Enumerable
                .Range(0, 30)
                .Select(d => first.PlusDays(d))
                .Select(today =>
                    CareNow
                        .Of(
                            new CareQuestion(
                                Plan,
                                null,
                                Record,
                                [.. Enumerable.Range(-CareNow.DaysBack, CareNow.DaysBack + 8).Select(d => Alike(today.PlusDays(d)))],
                                [],
                                today,
                                [],
                                40,
                                false
                            )
                        )
                        .Round(today)
                        .Any(s => s.Planter.Id == "pot")
                ),
        ];
        Assert.InRange(due.Count(d => d), 5, 20);
        Assert.DoesNotContain(Enumerable.Range(0, 29), d => due[d] && due[d + 1]);
    }

    // On the day on which a lead begins to ask for water nobody has told of any, and yet not all is dry.
    [Fact]
    public void Asking_for_water_does_not_make_everything_dry()
    {
        LocalDate day = A.Day(2015, 7, 20);
        int Due(bool isTold, IReadOnlyList<CareDone> done) =>
            CareNow
                .Of(
                    new CareQuestion(
                        Plan,
                        Year,
                        Record,
                        [.. Enumerable.Range(-60, 68).Select(d => Measured(day.PlusDays(d)))],
                        [],
                        day,
                        done,
                        40,
                        isTold
                    )
                )
                .Round(day)
                .Count;
        Assert.Equal(Due(false, []), Due(true, []));
        // What was told once and never since is dry.
        CareDone[] once = [.. new[] { "pot", "second" }.Select(p => new CareDone(p, null, CareWork.Water, day.PlusDays(-40)))];
        Assert.Equal(2, Due(true, once));
    }
}

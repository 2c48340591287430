using NodaTime;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Solver;

namespace UnrulyMeadow.Solver.Tests;

/// <summary>Schedules against every schedule tried by hand, and what crews met.</summary>
public sealed class CrewSchedulingTests
{
    private static readonly LocalDate Monday = new(2027, 5, 17);
    private static readonly string?[] Areas = ["quay", "green", "steps"];

    [Fact]
    public void No_schedule_tried_by_hand_beats_the_bound_or_costs_less_than_the_answer()
    {
        for (int seed = 0; seed < 15; seed++)
        {
            ScheduleQuestion question = Some(new Random(seed), jobs: 5, teams: 2, days: 2);
            ScheduleAnswer answer = CrewScheduling.Place(question);
            Assert.Empty(answer.Schedule.Faults());
            Assert.True(answer.IsBest, $"seed {seed}");
            long best = Every(question).Where(s => s.Faults().Count == 0).Min(s => s.Cost);
            Assert.Equal(best, answer.Schedule.Cost);
            Assert.Equal(best, answer.Bound);
        }
    }

    [Fact]
    public void Nobody_is_sent_where_they_cannot_work_and_what_is_left_says_why_and_what_would_help()
    {
        for (int seed = 100; seed < 110; seed++)
        {
            ScheduleQuestion question = Some(new Random(seed), jobs: 40, teams: 2, days: 5);
            // However little time there was.
            ScheduleAnswer answer = CrewScheduling.Place(question, seconds: seed % 2 == 0 ? 0.05 : 0.3);
            Assert.Empty(answer.Schedule.Faults());
            Assert.True(answer.Bound <= answer.Schedule.Cost);
            Assert.Equal(question.Jobs.Count, answer.Schedule.Placed.Count + answer.Schedule.Unplaced.Count);
            IReadOnlyDictionary<TeamDay, int> left = answer.Schedule.MinutesLeft;
            foreach (LeftJob job in answer.Schedule.Left)
            {
                List<TeamDay> able = [.. question.TeamDays.Where(t => question.Fits(job.Job, t))];
                // What says that time is short is right: nobody who could do it has so much left.
                if (job.Hinder == ScheduleHinder.NoTime)
                    Assert.All(able, t => Assert.True(left[t] < job.Job.Minutes + ScheduleQuestion.VisitMinutes));
                else
                    Assert.Empty(able);
                if (job.DaysOutside is { } days)
                {
                    LocalDate day = days < 0 ? job.Job.Task.Window.NotBefore.PlusDays(days) : job.Job.Task.Window.NotAfter.PlusDays(days);
                    Assert.Contains(question.TeamDays, t => t.Day == day && left[t] >= job.Job.Minutes + ScheduleQuestion.VisitMinutes);
                }
            }
        }
    }

    // Of much work, days come first and teams after: what comes out is as sound, and better than what was put together piece by piece.
    [Fact]
    public void Much_work_is_placed_in_parts_and_still_by_the_rules()
    {
        ScheduleQuestion question = Some(new Random(3), jobs: 220, teams: 3, days: 9);
        var told = new List<long>();
        ScheduleAnswer answer = CrewScheduling.Place(question, seconds: 4, new Costs(told));
        Assert.Empty(answer.Schedule.Faults());
        Assert.Equal(question.Jobs.Count, answer.Schedule.Placed.Count + answer.Schedule.Unplaced.Count);
        Assert.True(answer.Bound <= answer.Schedule.Cost);
        Assert.Equal(told.Min(), answer.Schedule.Cost);
        Assert.True(answer.Schedule.Cost < told[0]);
    }

    // CommonPractice: 22 large containers are one day's work of a crew of four with a tank of water behind.
    [Fact]
    public void A_crew_of_four_changes_22_containers_over_in_a_day()
    {
        List<ScheduleJob> jobs = [.. Enumerable.Range(0, 22).SelectMany(i => ScheduleQuestion.JobsOf(Task($"pot-{i}", "quay", Monday, 0), 70))];
        var question = new ScheduleQuestion(jobs, [new TeamDay("all", Monday, 4, 4 * 420, [])], [], []);
        ScheduleAnswer answer = CrewScheduling.Place(question);
        Assert.Empty(answer.Schedule.Unplaced);
        Assert.True(answer.IsBest);
    }

    // CommonPractice: with an auger, 250 bulbs are two people's work for two half-days; nobody is sent alone.
    [Fact]
    public void Two_hundred_and_fifty_bulbs_with_an_auger_are_two_half_days_of_two_people()
    {
        CrewTask bulbs = Task("bed", "green", Monday, 3) with { People = 2, Kind = TaskKind.Changeover };
        List<ScheduleJob> jobs = [.. ScheduleQuestion.JobsOf(bulbs, 960)];
        Assert.Equal([480, 480], jobs.Select(j => j.Minutes));
        IReadOnlyList<Skill> trained = [Skill.Auger];
        TeamDay[] days =
        [
            new("one", Monday, 1, 420, trained),
            new("two", Monday, 2, 2 * 270, trained),
            new("two", Monday.PlusDays(1), 2, 2 * 270, trained),
            new("untrained", Monday, 4, 4 * 420, []),
        ];
        ScheduleAnswer answer = CrewScheduling.Place(new ScheduleQuestion(jobs, days, [], []));
        Assert.Equal([days[1], days[2]], answer.Schedule.Placed.Select(p => p.At).OrderBy(t => t.Day));
        Assert.Equal(
            ScheduleHinder.NoSkill,
            Assert.Single(CrewScheduling.Place(new ScheduleQuestion([jobs[0]], [days[3]], [], [])).Schedule.Left).Hinder
        );
        Assert.Equal(
            ScheduleHinder.TooFewPeople,
            Assert.Single(CrewScheduling.Place(new ScheduleQuestion([jobs[0]], [days[0]], [], [])).Schedule.Left).Hinder
        );
    }

    private sealed class Costs(List<long> told) : IProgress<Schedule>
    {
        public void Report(Schedule value) => told.Add(value.Cost);
    }

    private static CrewTask Task(string id, string? area, LocalDate best, int within) =>
        new(id, TaskKind.Other, new TaskWindow(best.PlusDays(-within), best, best.PlusDays(within)), [], [new TaskLine(1, LineKind.Whole, 1)])
        {
            AreaId = area,
        };

    private static ScheduleQuestion Some(Random random, int jobs, int teams, int days)
    {
        List<TeamDay> at =
        [
            .. Enumerable
                .Range(0, teams)
                .SelectMany(t =>
                    Enumerable
                        .Range(0, days)
                        .Select(d => (People: random.Next(0, 4), Day: Monday.PlusDays(d)))
                        .Select(x => new TeamDay($"team-{t}", x.Day, x.People, x.People * random.Next(100, 300), []))
                ),
        ];
        return new ScheduleQuestion(
            [
                .. Enumerable
                    .Range(0, jobs)
                    .Select(j => new ScheduleJob(
                        Task($"job-{j}", Areas[random.Next(Areas.Length)], Monday.PlusDays(random.Next(days)), random.Next(0, days)) with
                        {
                            People = random.Next(5) == 0 ? 2 : 1,
                        },
                        random.Next(30, 260)
                    )
                    {
                        IsTall = random.Next(3) == 0,
                    }),
            ],
            at,
            random.Next(2) == 0 ? [new Closure("shut", Monday, Monday, Areas[0], "a market")] : [],
            random.Next(2) == 0 ? [new WorkWeather(Monday, true, [WeatherHinder.Windy])] : []
        );
    }

    private static IEnumerable<Schedule> Every(ScheduleQuestion question)
    {
        int ways = question.TeamDays.Count + 1;
        int all = (int)Math.Pow(ways, question.Jobs.Count);
        for (int i = 0; i < all; i++)
        {
            var placed = new List<(ScheduleJob, TeamDay)>();
            var left = new List<ScheduleJob>();
            int rest = i;
            foreach (ScheduleJob job in question.Jobs)
            {
                int way = rest % ways;
                rest /= ways;
                if (way == 0)
                    left.Add(job);
                else
                    placed.Add((job, question.TeamDays[way - 1]));
            }
            yield return new Schedule(question, placed, left);
        }
    }
}

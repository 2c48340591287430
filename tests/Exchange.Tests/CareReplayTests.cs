using NodaTime;
using UnrulyMeadow.Core.Care;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Learning;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Exchange.Weather;

namespace UnrulyMeadow.Exchange.Tests;

/// <summary>
/// The demo's plan year in that weather of its record which kills most, with forecasts that err as those of a day ahead do: a crew that does each day what Today
/// asks of it, and nothing else, and a planner who reads what the year left behind.
/// </summary>
public sealed class CareReplayTests
{
    private const double ForecastErrorC = 1.2;

    private static readonly LocalDate Start = new(2026, 9, 1);
    private static readonly LocalDate End = new(2027, 9, 1);
    private static readonly Plan Plan = PlanFileTests.Demo();
    private static readonly WeatherRecord Record = ReadRecord();
    private static readonly SiteYear Year = SiteYear.From(Plan, Record, Start);

    // The weather of the plan year is that of so many years before: of those, the ones with the most killing nights.
    private static readonly int YearsBack = Enumerable.Range(2, 28).MaxBy(back => Killing(back).Count());
    private static readonly Lazy<Replay> Walked = new(Walk);

    private sealed record Replay(IReadOnlyList<(LocalDate Day, CareJob Job)> Done, IReadOnlyList<(string Planter, WaterDay Water)> Water);

    private static WeatherRecord ReadRecord()
    {
        using FileStream weather = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "demo", "kittiwake-quay.dly"));
        return WeatherRecord.From(new Station("K", "K", 43.1, -66.9, 6), WeatherFile.Read(weather).Days);
    }

    private static CareDay Measured(LocalDate day) => Measured(day, YearsBack);

    // Nights that take what stands in a planter and dies with frost.
    private static IEnumerable<(Planter Planter, LocalDate Night)> Killing(int yearsBack) =>
        from display in Plan.Displays
        where display.Layer == DisplayLayer.Seasonal
        let planter = Plan.FindPlanter(display.PlanterId)!
        let spoils = display
            .Items.Select(i => Plan.Plant(i.PlantId))
            .Where(p => p.DiesWithFrost)
            .Select(p => p.TopDamageC + Plan.AreaOf(planter).FrostPocketC + planter.Survey.FrostPocketC)
            .DefaultIfEmpty(double.MinValue)
            .Max()
        let first = LocalDate.Max(Start.PlusDays(2), display.Install.PlusDays(1))
        let last = LocalDate.Min(End, display.Lift)
        from d in Enumerable.Range(0, Math.Max(0, Period.DaysBetween(first, last)))
        where Measured(first.PlusDays(d), yearsBack).MinC <= spoils
        select (planter, first.PlusDays(d));

    private static CareDay Measured(LocalDate day, int yearsBack)
    {
        int at = Record.IndexOf(day.PlusYears(-yearsBack));
        return CareDay.Of(day, Record.MinC[at], Record.MaxC[at], Record.PrecipitationMm[at], Record.Station.LatitudeDeg, CareDaySource.Measured);
    }

    private static Replay Walk()
    {
        var random = new Random(4);
        var told = new List<CareDone>();
        var done = new List<(LocalDate, CareJob)>();
        var water = new List<(string, WaterDay)>();
        for (LocalDate day = Start; day < End; day = day.PlusDays(1))
        {
            LocalDate today = day;
            double Off() => MathNet.Numerics.Distributions.Normal.Sample(random, 0, ForecastErrorC);
            List<DayForecast> forecast =
            [
                .. Enumerable
                    .Range(1, 6)
                    .Select(d => Measured(today.PlusDays(d)))
                    .Select(m => (Of: m, Low: m.MinC + Off(), High: m.MaxC + Off()))
                    .Select(f => new DayForecast(f.Of.Day, Math.Min(f.Low, f.High), Math.Max(f.Low, f.High), f.Of.RainMm)),
            ];
            CareNow now = CareNow.Of(
                new CareQuestion(
                    Plan,
                    Year,
                    Record,
                    [.. Enumerable.Range(-CareNow.DaysBack, CareNow.DaysBack + 8).Select(d => Measured(today.PlusDays(d)))],
                    forecast,
                    today,
                    told,
                    40,
                    true
                )
            );
            foreach (PlanterWater of in Plan.Planters.Select(p => now.WaterOf(p.Id)).OfType<PlanterWater>())
            {
                if (of.On(today.PlusDays(-1)) is { } yesterday && today > Start)
                    water.Add((of.Planter.Id, yesterday));
            }
            foreach (CareJob job in WaterRound.Jobs(now.Round(today), today).Concat(now.ThisWeek))
            {
                if (!job.IsDue(today) || (job.Work != CareWork.Water && now.IsDone(job)))
                    continue;
                done.Add((today, job));
                told.Add(new CareDone(job.Planter.Id, job.Plant?.Id, job.Work, today, job.Litres));
            }
        }
        return new Replay(done, water);
    }

    private static IEnumerable<(LocalDate Day, CareJob Job)> Done(CareWork work) => Walked.Value.Done.Where(d => d.Job.Work == work);

    [Fact]
    public void Nothing_is_watered_to_death_and_nothing_dries_out()
    {
        // Never at the wilting point; and of what is given hardly more than a quarter runs through, but where feed is poured after water.
        Assert.DoesNotContain(Walked.Value.Water, w => w.Water.CanopyM2 > 0.02 && w.Water.LackingLitres >= 0.95 * w.Water.HoldsLitres);
        HashSet<(string, LocalDate)> fed = [.. Done(CareWork.Feed).Select(d => (d.Job.Planter.Id, d.Day))];
        Assert.DoesNotContain(
            Walked.Value.Water.Where(w => w.Water is { GivenLitres: > 0, RainLitres: 0 } && !fed.Contains((w.Planter, w.Water.Day.Day))),
            w => w.Water.DrainedLitres > Math.Max(0.5, 0.3 * w.Water.GivenLitres)
        );
    }

    [Fact]
    public void Nothing_is_lost_to_a_night_that_was_forecast()
    {
        (int killing, int covered) = (0, 0);
        foreach ((Planter planter, LocalDate night) in Killing(YearsBack))
        {
            killing++;
            CareJob? last = Walked
                .Value.Done.LastOrDefault(d => d.Job.Planter.Id == planter.Id && d.Job.Work is CareWork.Cover or CareWork.Uncover && d.Day < night)
                .Job;
            covered += last?.Work == CareWork.Cover ? 1 : 0;
        }
        // Nights that the forecast missed by more than it usually does are not foreseen by anybody.
        Assert.True(killing >= 3 && covered >= 0.85 * killing, $"{covered} of {killing}");
    }

    [Fact]
    public void Petunias_are_cut_in_July_and_grasses_left_until_spring()
    {
        LocalDate[] cuts = [.. Done(CareWork.CutBack).Where(d => d.Job.Plant?.Id == "petunia-magenta").Select(d => d.Day)];
        Assert.True(cuts.Length > 0 && cuts.All(d => d.Month == 7), string.Join(", ", cuts));
        LocalDate[] grass = [.. Done(CareWork.CutInSpring).Where(d => d.Job.Plant?.Id == "fountain-grass").Select(d => d.Day)];
        Assert.True(grass.Length > 0 && grass.All(d => d.Year == 2027 && d.Month is 2 or 3 or 4), string.Join(", ", grass));
    }

    [Fact]
    public void The_year_ends_with_a_report_and_with_dates_that_moved_towards_what_was_seen()
    {
        // The crew walks when a walk is due; the tulips of this quay open six days later than reckoned.
        const int HiddenDays = 6;
        const string Late = "tulip-mid-red";
        var log = new List<Observation>();
        foreach (LocalDate day in ReviewWalk.Of(Plan.Turns).Select(w => w.Day).Where(d => d > Start && d < End).Distinct())
        {
            foreach (PlanterSeason season in Year.Planters)
            {
                if (PlanterExpectation.Of(season, day) is not { } expected)
                    continue;
                log.Add(
                    new Observation(Guid.NewGuid(), season.Planter.Id, null, day, ObservationKind.Reviewed, string.Empty, "Rosa")
                    {
                        Review = new PlanterReview(
                            expected.Odds >= ColourOdds.InColour ? 4 : 2,
                            ReviewVerdict.Repeat,
                            expected.Odds >= ColourOdds.InColour
                        ),
                    }
                );
            }
        }
        SeasonReport report = SeasonReport.Of(Plan, Year, End.PlusDays(-1), log, new Dictionary<string, double>(), new Dictionary<string, decimal>());
        Assert.All(report.Planters, p => Assert.NotNull(p.Rating));
        Assert.True(report.Planters.Sum(p => p.DaysSeen) > 0.9 * report.Planters.Sum(p => p.DaysExpectedOfKnown));

        var kernel = new SeasonKernel(Record, Start);
        foreach (Planter planter in Plan.Planters)
        {
            if (kernel.Detail(Plan, planter).Plants.FirstOrDefault(p => p.Plant.Id == Late)?.First(0.5) is not { } first)
                continue;
            log.Add(new Observation(Guid.NewGuid(), planter.Id, Late, first.PlusDays(HiddenDays), ObservationKind.FirstColour, string.Empty, "Rosa"));
        }
        DateLearning learnt = Assert.Single(SiteLearning.Of(Plan, Record, log).Dates);
        Assert.InRange(learnt.Posterior.Mean, 0.5, HiddenDays);
        Assert.NotNull(SiteLearning.Adopted(Plan, Record, learnt));
    }
}

using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Learning;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Tests.Learning;

/// <summary>What dates in the log teach: by the closed form, as sure as it says, and nothing from nonsense.</summary>
public sealed class LearningTests
{
    private const string Tulip = "tulip-darwin-orange";

    private static readonly WeatherRecord Record = A.Record("New York");

    // Each month of each year warmer or colder than usual by chance.
    private static readonly WeatherRecord Simulated = A.Record(2000, 20, d =>
    {
        double off = (new Random((d.Year * 12) + d.Month).NextDouble() * 6) - 3;
        (double min, double max) = A.Mild(d);
        return (min + off, max + off);
    });

    private static readonly Plan Plan = In(A.Palette);

    // Two by hand: 0 ± 3 and one year at 6 ± 3 meet halfway at 3 ± 2.12; ten years at 6 stand at 5.45 (Gelman and others, section 2.5).
    [Theory]
    [InlineData(0, 0, 3)]
    [InlineData(1, 3, 2.1213)]
    [InlineData(3, 4.5, 1.5)]
    [InlineData(10, 5.4545, 0.9045)]
    public void The_update_is_the_closed_form(int years, double mean, double spread)
    {
        Belief after = new Belief(0, 3).After(years, 6, 3);
        Assert.Equal(mean, after.Mean, 1e-4);
        Assert.Equal(spread, after.Spread, 1e-4);
        // The same one after another, and by summing the densities over a grid.
        Belief step = new(0, 3);
        for (int i = 0; i < years; i++)
            step = step.After(1, 6, 3);
        Assert.Equal(after.Mean, step.Mean, 1e-9);
        Assert.Equal(after.Spread, step.Spread, 1e-9);
        (double mass, double sum) = (0, 0);
        for (double x = -20; x <= 25; x += 0.01)
        {
            double density = Normal01(x, 0, 3) * Math.Pow(Normal01(6, x, 3), years);
            (mass, sum) = (mass + density, sum + (density * x));
        }
        Assert.Equal(after.Mean, sum / mass, 1e-3);
    }

    [Fact]
    public void Nine_in_ten_dates_lie_within_what_is_said_of_nine_in_ten()
    {
        var random = new Random(11);
        int within = 0;
        const int Sites = 4000;
        for (int i = 0; i < Sites; i++)
        {
            double truth = Sample(random, 0, 3);
            Belief now = new(0, 3);
            int years = random.Next(0, 6);
            for (int y = 0; y < years; y++)
                now = now.After(1, Sample(random, truth, DateLearning.YearSpread), DateLearning.YearSpread);
            (double low, double high) = now.Next(DateLearning.YearSpread).Nine;
            double next = Sample(random, truth, DateLearning.YearSpread);
            within += low <= next && next <= high ? 1 : 0;
        }
        Assert.InRange((double)within / Sites, 0.85, 0.95);
    }

    // Hidden sums, at a simulated place of twenty springs and at NOAA's own: what opens later or earlier here than anywhere is half as far
    // off after three springs, on springs that nobody logged.
    [Theory]
    [InlineData(1.35, false)]
    [InlineData(0.7, false)]
    [InlineData(1.35, true)]
    [InlineData(0.7, true)]
    public void After_three_logged_springs_the_error_of_first_colour_halves(double hidden, bool isNoaa)
    {
        WeatherRecord record = isNoaa ? Record : Simulated;
        int[] springs = isNoaa ? [2013, 2014] : [2011, 2012, 2013];
        Plant shipped = Plan.Plant(Tulip);
        Plant truth = shipped with { Windows = [.. shipped.Windows.Select(w => w with { Rule = w.Rule.Scaled(hidden) ?? w.Rule })] };
        var random = new Random(3);
        List<Observation> log = [];
        foreach (int spring in springs)
        {
            LocalDate start = A.Day(spring - 1, 9, 1);
            PlantYear of = First(record, truth, start).First(y => y.WeatherYear == start.Year);
            log.Add(Seen(start.PlusDays(of.First + (int)Math.Round(Sample(random, 0, 1.5)))));
        }
        SiteLearning learning = SiteLearning.Of(Plan, record, log);
        Assert.Empty(learning.Left);
        Plant learnt = SiteLearning.Adopted(Plan, record, Assert.Single(learning.Dates))!;
        LocalDate later = A.Day(2017, 9, 1);
        double Error(Plant plant) =>
            First(record, plant, later)
                .Zip(First(record, truth, later))
                .Where(p => p.First.First >= 0 && p.Second.First >= 0 && !springs.Contains(p.First.WeatherYear + 1))
                .Average(p => Math.Abs(p.First.First - p.Second.First));
        Assert.True(Error(shipped) > 3, $"{Error(shipped):0.0}");
        // Two springs alone take off two thirds of what three would.
        Assert.True(Error(learnt) < Error(shipped) * (isNoaa ? 0.6 : 0.5), $"{Error(learnt):0.0} of {Error(shipped):0.0}");
        // The palette is as it was until somebody takes it over.
        Assert.Same(shipped, Plan.Plant(Tulip));
    }

    // A show that lasts a third longer here, and one that is a quarter shorter: half as far off after three springs.
    [Theory]
    [InlineData(8)]
    [InlineData(-5)]
    public void After_three_logged_springs_the_error_of_a_shows_length_halves(double hiddenDays)
    {
        Plant shipped = Plan.Plant(Tulip);
        Plant truth = shipped with { Windows = [.. shipped.Windows.Select(w => w with { Rule = w.Rule.Lasting(hiddenDays) ?? w.Rule })] };
        var random = new Random(8);
        List<Observation> log = [];
        foreach (int spring in (int[])[2011, 2012, 2013])
        {
            LocalDate start = A.Day(spring - 1, 9, 1);
            PlantYear of = First(Simulated, truth, start).First(y => y.WeatherYear == start.Year);
            log.Add(Seen(start.PlusDays(of.First)));
            log.Add(Seen(start.PlusDays(of.Last + 1 + (int)Math.Round(Sample(random, 0, 1)))) with { Kind = ObservationKind.Over });
        }
        SiteLearning learning = SiteLearning.Of(Plan, Simulated, log);
        Assert.Empty(learning.Left);
        RatioLearning shows = Assert.Single(learning.Shows);
        Assert.Equal(hiddenDays > 0, shows.Times > 1);
        Plant learnt = shows.Adopted()!;
        LocalDate later = A.Day(2017, 9, 1);
        double Error(Plant plant) =>
            First(Simulated, plant, later)
                .Zip(First(Simulated, truth, later))
                .Average(p => Math.Abs(p.First.Last - p.First.First - (p.Second.Last - p.Second.First)));
        Assert.True(Error(learnt) < Error(shipped) * 0.5, $"{Error(learnt):0.0} of {Error(shipped):0.0}");
    }

    // Petunias that grow half as wide again by area: seen by eye at three reviews, and when they had grown together.
    [Fact]
    public void How_full_a_kind_grows_is_learnt_from_what_was_seen_of_it_alone()
    {
        Plant shipped = A.Palette.First(p => p.Id == "petunia-magenta");
        Plant truth = shipped with { MatureSpreadCm = shipped.MatureSpreadCm * 1.3 };
        Display Bedding(int year) =>
            A.Show($"bedding-{year}", A.Day(year, 5, 20), A.Day(year, 9, 25), DisplayLayer.Seasonal, new DisplayItem(shipped.Id, 40)) with
            {
                PlanterId = "bed",
            };
        Plan In(Plant plant) => A.Plan([A.Bed()], [plant], [.. Enumerable.Range(2011, 3).Select(Bedding)]);
        double Cover(Plant plant, LocalDate day)
        {
            LocalDate start = SiteYear.UsualStart(day, false);
            var kernel = new SeasonKernel(Simulated, start);
            PlantYears years = kernel.Follow(plant, A.Stands(A.Day(day.Year, 5, 20), A.Day(day.Year, 9, 25)));
            int at = kernel.WeatherYears.ToList().IndexOf(start.Year);
            return 40 * years.AreaCm2(at)[Period.DaysBetween(start, day) - years.From] / A.Bed().Form.SurfaceCm2;
        }
        List<Observation> log =
        [
            .. Enumerable
                .Range(2011, 3)
                .Select(year =>
                {
                    LocalDate day = A.Day(year, 7, 25);
                    return new Observation(Guid.NewGuid(), "bed", null, day, ObservationKind.Reviewed, string.Empty, "Rosa")
                    {
                        Review = new PlanterReview(4, ReviewVerdict.Keep, CoverPct: (int)Math.Round(Cover(truth, day) * 100)),
                    };
                }),
        ];
        RatioLearning fuller = Assert.Single(SiteLearning.Of(In(shipped), Simulated, log).Fullness);
        Assert.Equal(3, fuller.Years.Count);
        Plant learnt = fuller.Adopted()!;
        LocalDate later = A.Day(2013, 8, 20);
        Assert.True(Math.Abs(Cover(learnt, later) - Cover(truth, later)) < 0.5 * Math.Abs(Cover(shipped, later) - Cover(truth, later)));
        // Where plants died, or another kind shares the surface, cover says nothing of the kind.
        SiteLearning lost = SiteLearning.Of(
            In(shipped),
            Simulated,
            log.Append(
                log[0] with
                {
                    Id = Guid.NewGuid(),
                    Day = A.Day(2011, 7, 1),
                    Kind = ObservationKind.Eaten,
                    PlantId = shipped.Id,
                    Review = null,
                }
            )
        );
        Assert.Equal(2, Assert.Single(lost.Fullness).Years.Count);
        Assert.Equal(NotLearnt.PlantsLost, Assert.Single(lost.Left).Why);
    }

    [Fact]
    public void A_sort_of_place_that_is_late_with_all_its_kinds_is_told()
    {
        Planter bed = A.Bed();
        Planter shaded = A.Bed() with { Id = "shaded", Name = "shaded", Exposure = Exposure.Shade };
        Display Bulbs(string planter) =>
            A.Show($"in-{planter}", A.Day(2009, 10, 20), A.Day(2020, 6, 1), DisplayLayer.Bulbs, new DisplayItem(Tulip, 15)) with
            {
                PlanterId = planter,
            };
        Plan plan = A.Plan([bed, shaded], A.Palette, [Bulbs("bed"), Bulbs("shaded")]);
        List<Observation> log = [];
        foreach (int spring in (int[])[2011, 2012, 2013])
        {
            LocalDate start = A.Day(spring - 1, 9, 1);
            int first = First(Simulated, Plan.Plant(Tulip), start).First(y => y.WeatherYear == start.Year).First;
            log.Add(Seen(start.PlusDays(first)));
            log.Add(Seen(start.PlusDays(first + 20)) with { PlanterId = "shaded" });
        }
        SiteLearning learning = SiteLearning.Of(plan, Simulated, log);
        Assert.Equal([Exposure.Shade, Exposure.FullSun], learning.Places.Select(p => p.Exposure));
        Assert.True(learning.Places[0].IsTold && learning.Places[0].Posterior.Mean > 2);
        Assert.True(learning.Places[1].Posterior.Mean < -1);
        // One sort of place alone is the site.
        Assert.Empty(SiteLearning.Of(plan, Simulated, log.Where(o => o.PlanterId == "bed")).Places);
    }

    [Fact]
    public void One_odd_year_moves_little_and_five_that_agree_move_much()
    {
        DateLearning Of(int years) =>
            DateLearning.Of(
                Plan.Plant(Tulip),
                Enumerable.Range(0, years).Select(y => new SeenDate(Seen(A.Day(2011 + y, 5, 10)), A.Day(2011 + y, 5, 1), 0))
            );
        Assert.True(Of(1).Posterior.Mean <= 4.5);
        Assert.True(Of(5).Posterior.Mean >= 7);
        // Ten pots of one spring are one spring.
        DateLearning pots = DateLearning.Of(
            Plan.Plant(Tulip),
            Enumerable.Range(0, 10).Select(_ => new SeenDate(Seen(A.Day(2011, 5, 10)), A.Day(2011, 5, 1), 0))
        );
        Assert.Equal(Of(1).Posterior, pots.Posterior);
        // A year whose weather nobody knows says less.
        DateLearning unsure = DateLearning.Of(Plan.Plant(Tulip), [new SeenDate(Seen(A.Day(2011, 5, 10)), A.Day(2011, 5, 1), 6)]);
        Assert.True(unsure.Posterior.Mean < Of(1).Posterior.Mean && unsure.Posterior.Spread > Of(1).Posterior.Spread);
    }

    [Fact]
    public void Nonsense_teaches_nothing_and_says_why()
    {
        SiteLearning learning = SiteLearning.Of(
            Plan,
            Record,
            [
                Seen(A.Day(2009, 10, 10)),
                Seen(A.Day(2011, 1, 5)),
                Seen(A.Day(2012, 4, 28)),
                Seen(A.Day(2012, 5, 6)),
                Seen(A.Day(2013, 4, 28)) with
                {
                    PlanterId = "gone",
                },
                Seen(A.Day(2013, 4, 28)) with
                {
                    PlantId = "petunia-magenta",
                },
            ]
        );
        Assert.Equal(
            [NotLearnt.BeforePlanting, NotLearnt.TooFarOff, NotLearnt.SecondInYear, NotLearnt.NotThere, NotLearnt.ByPlanting],
            learning.Left.Select(l => l.Why)
        );
        Assert.Equal(A.Day(2012, 4, 28), Assert.Single(Assert.Single(learning.Dates).Seen).Seen.Day);
        // An end of which nobody saw the beginning, and one that comes before it.
        foreach (LocalDate first in (LocalDate[])[A.Day(2013, 4, 28), A.Day(2014, 5, 30)])
        {
            SiteLearning ended = SiteLearning.Of(Plan, Record, [Seen(first), Seen(A.Day(2014, 5, 20)) with { Kind = ObservationKind.Over }]);
            Assert.Empty(ended.Shows);
            Assert.Contains(NotLearnt.NoBeginning, ended.Left.Select(l => l.Why));
        }
    }

    private static Observation Seen(LocalDate day) => new(Guid.NewGuid(), "bed", Tulip, day, ObservationKind.FirstColour, string.Empty, "Rosa");

    private static PlantYear[] First(WeatherRecord record, Plant plant, LocalDate start)
    {
        Plan plan = In([plant]);
        return [.. new SeasonKernel(record, start).Detail(plan, plan.Planters[0]).Plants.Single().Years];
    }

    private static Plan In(IReadOnlyList<Plant> palette) =>
        A.Plan(
            [A.Bed()],
            palette,
            [A.Show("bulbs", A.Day(2009, 10, 20), A.Day(2020, 6, 1), DisplayLayer.Bulbs, new DisplayItem(Tulip, 15)) with { PlanterId = "bed" }]
        );

    private static double Normal01(double x, double mean, double spread) => MathNet.Numerics.Distributions.Normal.PDF(mean, spread, x);

    private static double Sample(Random random, double mean, double spread) => MathNet.Numerics.Distributions.Normal.Sample(random, mean, spread);
}

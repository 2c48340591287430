using NodaTime;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Work;

namespace UnrulyMeadow.Core.Care;

/// <summary>Feed in water.</summary>
public static class LiquidFeed
{
    /// <summary>What flowering containers are given, ppm of nitrogen (common practice: 100 to 200, week by week).</summary>
    public const double UsualPpm = 150;

    /// <summary>Nitrogen in a usual soluble feed, percent (20-20-20).</summary>
    public const double UsualPercentN = 20;

    /// <summary>Grams of a feed in a litre of water; one part in a million is a milligram a litre.</summary>
    /// <param name="ppmN">Parts of nitrogen in a million.</param>
    /// <param name="percentN">Nitrogen in the feed, percent; more than 0.</param>
    public static double GramsPerLitre(double ppmN, double percentN) => ppmN / (percentN / 100) / 1000;

    /// <summary>
    /// The same in ounces to a hundred US gallons, by the rule of extension services: ppm = ounces in 100 gal × percent × 0.75.
    /// </summary>
    public static double OuncesIn100Gallons(double ppmN, double percentN) => ppmN / (percentN * 0.75);

    /// <summary>The arithmetic behind some litres of it.</summary>
    public static Working Explain(double litres, double ppmN, double percentN) =>
        new(
            WorkingKind.LiquidFeed,
            Quantity.Kilograms(litres * GramsPerLitre(ppmN, percentN) / 1000, 3),
            [
                new WorkingInput(InputName.LitresGiven, Quantity.Litres(litres, 1)),
                new WorkingInput(InputName.NitrogenPpm, Quantity.Number(ppmN)),
                new WorkingInput(InputName.NitrogenShare, Quantity.Share(percentN / 100)),
            ],
            [new Fact(WorkingPhrase.LiquidFeedStep, ("grams", Quantity.Number(GramsPerLitre(ppmN, percentN), 2)))]
        );
}

/// <summary>How much of a coated feed is given off: the warmer the faster.</summary>
public static class SlowRelease
{
    /// <summary>Days that a usual one lasts at 21 °C (makers name 3 to 4 months at 70 °F; from memory).</summary>
    public const double UsualDays = 105;

    private const double NamedAtC = 21;

    // Ten degrees more halve the time (from memory: release doubles from 21 to 32 °C).
    private const double DoublesOverC = 10;

    /// <summary>Share of a day's release at 21 °C that a day gives off; none in frozen medium.</summary>
    /// <param name="meanC">Mean of the day, °C.</param>
    public static double DayShare(double meanC) => meanC <= 0 ? 0 : Math.Pow(2, (meanC - NamedAtC) / DoublesOverC);

    /// <summary>Share that is given off after some days, 0 to 1.</summary>
    public static double Released(IEnumerable<double> meansC, double namedDays = UsualDays) => Math.Min(1, meansC.Sum(DayShare) / namedDays);
}

/// <summary>Who is fed when: what lasts in spring, bulbs that stay as their leaves come up, containers in flower once their first feed is spent.</summary>
public static class Feeding
{
    private const double SpentFrom = 0.8;
    private const int EveryDays = 7;

    // So many days before the end of the feeding season nothing soft is made to grow any more (common practice: not late in the year).
    private const int LastWeeksDays = 14;
    private const double BulbGramsAM2 = 50;
    private const int BeforeBloomDays = 21;

    // As much as wets the medium through without running off: a quarter of what is between full and wilting (common practice).
    private const double LitresShare = 0.25;
    private const double LeastLitres = 0.5;

    /// <summary>What is due within some days.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="season">When things happen this year.</param>
    /// <param name="days">The weather day by day, as far back as planters were filled.</param>
    /// <param name="first">The first day.</param>
    /// <param name="last">The last.</param>
    /// <param name="done">What was done before.</param>
    /// <param name="waters">Balances of water, by planter: dry medium is watered before it is fed.</param>
    public static IReadOnlyList<CareJob> Of(
        Plan plan,
        CareSeason season,
        IReadOnlyList<CareDay> days,
        LocalDate first,
        LocalDate last,
        IReadOnlyCollection<CareDone> done,
        IReadOnlyDictionary<string, PlanterWater> waters
    )
    {
        if (!FeedLine.IsGrowingSeason(first, season.IsSouthern) || !FeedLine.IsGrowingSeason(first.PlusDays(LastWeeksDays), season.IsSouthern))
            return [];
        ILookup<string, CareDone> fed = done.Where(d => d.Work is CareWork.Feed or CareWork.CutBack).ToLookup(d => d.PlanterId);
        var jobs = new List<CareJob>();
        foreach (Planter planter in plan.Planters.Where(p => !p.IsRetired))
        {
            IReadOnlyList<Display> displays = plan.DisplaysOf(planter.Id);
            List<Display> standing = [.. displays.Where(d => d.StandsOn(first))];
            LocalDate? lastFed = fed[planter.Id].Where(d => d.Work == CareWork.Feed).Select(d => (LocalDate?)d.Day).Max();
            if (SpringBulbs(planter, standing, first) is { } bulbs && bulbs.First <= last && bulbs.Last >= first)
                jobs.Add(bulbs);
            if (planter.Form.IsBed || !standing.Exists(IsFlowering))
                continue;
            LocalDate filled = standing.Where(IsFlowering).Max(d => d.Install);
            double released = SlowRelease.Released(days.Where(d => d.Day >= filled && d.Day <= first).Select(d => d.MeanC));
            bool isCut = fed[planter.Id].Any(d => d.Work == CareWork.CutBack && Period.DaysBetween(d.Day, first) is >= 0 and <= 10);
            if (released < SpentFrom && !isCut)
                continue;
            LocalDate from = LocalDate.Max(first, lastFed?.PlusDays(EveryDays) ?? first);
            if (from > last)
                continue;
            double litres = Math.Max(
                LeastLitres,
                (waters.GetValueOrDefault(planter.Id)?.On(first)?.HoldsLitres ?? planter.Form.PlantableLitres * 0.3) * LitresShare
            );
            jobs.Add(
                new CareJob(planter, CareWork.Feed, from, from.PlusDays(EveryDays - 1))
                {
                    Litres = litres,
                    Grams = litres * LiquidFeed.GramsPerLitre(LiquidFeed.UsualPpm, LiquidFeed.UsualPercentN),
                    WaterFirst = waters.GetValueOrDefault(planter.Id)?.On(first) is { } water && water.LackingLitres >= water.EasyLitres,
                }
            );
        }
        return jobs;

        bool IsFlowering(Display d) =>
            d.Layer == DisplayLayer.Seasonal
            && d.Items.Any(i => plan.FindPlant(i.PlantId) is { LifeForm: LifeForm.TenderAnnual or LifeForm.CoolSeasonAnnual } or { IsTender: true });

        CareJob? SpringBulbs(Planter planter, List<Display> standing, LocalDate day)
        {
            (LocalDate First, LocalDate Last)? bloom = standing
                .Where(d => d.Layer == DisplayLayer.Bulbs)
                .SelectMany(d =>
                    d.Items.Select(i => (d, Flowers: season.Flowers(d.Id, i.PlantId)))
                        .Where(x => x.Flowers is { } f && d.Lift > f.Last.PlusDays(Season.DieBackWindow.Days))
                        .Select(x => ((LocalDate, LocalDate)?)(x.Flowers!.Value.First, x.Flowers.Value.Last))
                )
                .Min();
            if (bloom is not { } b)
                return null;
            LocalDate from = b.First.PlusDays(-BeforeBloomDays);
            bool isFed = fed[planter.Id].Any(d => d.Work == CareWork.Feed && d.Day >= from.PlusDays(-7));
            return isFed ? null : new CareJob(planter, CareWork.Feed, from, b.First) { Grams = planter.Form.SurfaceCm2 / 10_000 * BulbGramsAM2 };
        }
    }
}

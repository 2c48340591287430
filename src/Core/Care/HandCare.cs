using NodaTime;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Care;

/// <summary>What hands do at planters between turns, by each plant's own rule, when the season has come so far, and after what was done.</summary>
public static class HandCare
{
    // Common practice throughout, days: spent flowers off weekly; a pinch two to four weeks after planting; a cut when the flowers are over
    // within a fortnight; nothing is cut anew within six weeks; a tired plant is cut while it has three weeks left to flower again; old
    // flowers of bulbs off within ten days; a container turned each month from spring to fall; what lasts divided in its fourth year.
    private const int DeadheadEvery = 7;
    private const int PinchAfter = 14;
    private const int PinchWithin = 14;
    private const int CutWithin = 14;
    private const int CutAgainAfter = 42;
    private const int WorthCuttingFor = 21;
    private const int OldFlowersWithin = 10;
    private const int BrownLeavesWithin = 14;
    private const int TurnEvery = 28;
    private const int DivideAfterYears = 4;
    private const int EstablishedDays = 28;
    private const int StakeAfter = 14;
    private const int StakeWithin = 21;
    private const int BeforeGrowth = 21;
    private const int AfterGrowth = 7;
    private const int StoodWinterDays = 90;
    private const double StakedFromCm = 75;

    /// <summary>What is due within some days.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="season">When things happen this year.</param>
    /// <param name="first">The first day.</param>
    /// <param name="last">The last.</param>
    /// <param name="done">What was done before the first day.</param>
    public static IReadOnlyList<CareJob> Of(Plan plan, CareSeason season, LocalDate first, LocalDate last, IReadOnlyCollection<CareDone> done)
    {
        ILookup<(string, string?, CareWork), LocalDate> when = done.ToLookup(d => (d.PlanterId, d.PlantId, d.Work), d => d.Day);
        var jobs = new List<CareJob>();
        foreach (Planter planter in plan.Planters.Where(p => !p.IsRetired))
        {
            foreach (Display display in plan.DisplaysOf(planter.Id))
            {
                if (display.Install > last || display.Lift <= first)
                    continue;
                foreach (IGrouping<string, DisplayItem> kind in display.Items.GroupBy(i => i.PlantId))
                {
                    if (plan.FindPlant(kind.Key) is not { } plant || plant.LifeForm == LifeForm.CutStems)
                        continue;
                    LocalDate since = kind.Min(i => i.Since) is { } own && own > display.Install ? own : display.Install;
                    int count = kind.Sum(i => i.Count);
                    foreach (CareJob job in Each(display, plant, since, season, first, LastOf))
                    {
                        // What is nearly out is not tended any more, but for what a winter needs.
                        if (job.First <= last && job.Last >= first && job.First < display.Lift)
                            jobs.Add(job with { Planter = planter, Plant = plant, DisplayId = display.Id, Count = count });
                    }

                    LocalDate? LastOf(CareWork work)
                    {
                        List<LocalDate> days = [.. when[(planter.Id, plant.Id, work)].Where(d => d >= since)];
                        return days.Count == 0 ? null : days.Max();
                    }
                }
            }
            if (TurnDue(plan, planter, season, first, when) is { } turn && turn <= last)
                jobs.Add(new CareJob(planter, CareWork.Turn, LocalDate.Max(turn, first), turn.PlusDays(TurnEvery)));
        }
        return jobs;
    }

    private static IEnumerable<CareJob> Each(
        Display display,
        Plant plant,
        LocalDate since,
        CareSeason season,
        LocalDate day,
        Func<CareWork, LocalDate?> doneOn
    )
    {
        var flowers = season.Flowers(display.Id, plant.Id);
        bool hardyBulb = plant.Bulb is not null && !plant.IsTender;
        foreach (CutBack cut in display.Cuts.Where(c => c.PlantId == plant.Id))
        {
            if (doneOn(CareWork.CutBack) is not { } already || already < cut.Day.PlusDays(-CutWithin))
                yield return Job(CareWork.CutBack, cut.Day.PlusDays(-3), cut.Day.PlusDays(3)) with
                {
                    CutToCm = cut.HeightCm ?? (plant.HeightCm / 2),
                };
        }
        if (hardyBulb)
        {
            if (flowers is not { } bloom)
                yield break;
            // Lifted after its bloom there is nothing to save it for.
            bool staysOn = display.Lift > bloom.Last.PlusDays(DieBackWindow.Days);
            if (staysOn && doneOn(CareWork.BulbFlowers) is null)
                yield return Job(CareWork.BulbFlowers, bloom.Last, bloom.Last.PlusDays(OldFlowersWithin));
            LocalDate brown = bloom.Last.PlusDays(DieBackWindow.Days);
            if (staysOn && doneOn(CareWork.BulbLeaves) is null)
                yield return Job(CareWork.BulbLeaves, brown, brown.PlusDays(BrownLeavesWithin));
            yield break;
        }
        if (plant.Tending.Deadhead && flowers is { } spent)
        {
            LocalDate from = (doneOn(CareWork.Deadhead) ?? spent.First).PlusDays(DeadheadEvery);
            from = LocalDate.Max(from, CareTasks.WeekOf(day));
            if (from <= spent.Last.PlusDays(DeadheadEvery))
                yield return Job(CareWork.Deadhead, from, from.PlusDays(DeadheadEvery - 1));
        }
        if (plant.Resistance.Wind == Grade.Low && plant.HeightCm >= StakedFromCm && !plant.HasLastingTops && doneOn(CareWork.Stake) is null)
        {
            LocalDate from = plant.IsLasting && flowers is { } high ? high.First.PlusDays(-StakeWithin - StakeAfter) : since.PlusDays(StakeAfter);
            if (from > since)
                yield return Job(CareWork.Stake, from, from.PlusDays(StakeWithin));
        }
        if (season.GrowthBegins is { } growth && plant.LifeForm is LifeForm.Perennial or LifeForm.Grass && doneOn(CareWork.Divide) is null)
        {
            LocalDate spring = growth.PlusDays(AfterGrowth);
            int years = Period.Between(since, spring, PeriodUnits.Years).Years;
            if (years >= DivideAfterYears && years % DivideAfterYears == 0 && (flowers is null || flowers.Value.First > spring.PlusDays(60)))
                yield return Job(CareWork.Divide, spring, spring.PlusDays(CutWithin));
        }
        // A planner's own cut says when; the plant's rule is silent beside it.
        if (display.Cuts.Any(c => c.PlantId == plant.Id))
            yield break;
        LocalDate? cutOn = doneOn(CareWork.CutBack);
        bool isRested = cutOn is not { } last || last.PlusDays(CutAgainAfter) <= day;
        switch (plant.Tending.CutWhen)
        {
            case CutMoment.WhenYoung when doneOn(CareWork.Pinch) is null:
                // What lasts is pinched in early summer; what was set out this year as soon as it has rooted.
                LocalDate young = plant.IsLasting ? season.InSeason(day, 6, 1) : since.PlusDays(PinchAfter);
                if (young >= since.PlusDays(PinchAfter))
                    yield return Cut(CareWork.Pinch, young, young.PlusDays(PinchWithin));
                break;
            case CutMoment.AfterFlowering when flowers is { } over && isRested:
                yield return Cut(CareWork.CutBack, over.Last.PlusDays(1), over.Last.PlusDays(CutWithin));
                break;
            case CutMoment.MidSummer when isRested:
                LocalDate middle = season.InSeason(day, 7, 8);
                if (middle >= since.PlusDays(EstablishedDays) && middle.PlusDays(WorthCuttingFor) < display.Lift)
                    yield return Cut(CareWork.CutBack, middle, middle.PlusDays(20));
                break;
            case CutMoment.WhenTired when flowers is { } tired && isRested:
                // Once its first show goes over, while there is time for another.
                LocalDate goes = tired.Last.PlusDays(-3);
                if (goes >= since.PlusDays(EstablishedDays) && goes.PlusDays(WorthCuttingFor) < display.Lift)
                    yield return Cut(CareWork.CutBack, goes, goes.PlusDays(CutWithin));
                break;
            case CutMoment.EarlySpring when season.GrowthBegins is { } begins && since <= begins.PlusDays(-StoodWinterDays):
                if (doneOn(CareWork.CutInSpring) is not { } cut || cut < begins.PlusDays(-StoodWinterDays))
                    yield return Cut(CareWork.CutInSpring, begins.PlusDays(-BeforeGrowth), begins.PlusDays(AfterGrowth));
                break;
        }

        CareJob Job(CareWork work, LocalDate from, LocalDate to) => new(null!, work, from, to);
        CareJob Cut(CareWork work, LocalDate from, LocalDate to) => Job(work, from, to) with { CutToCm = plant.HeightCm * plant.Tending.CutLeaves };
    }

    // Evergreen wood in a container that light reaches from one side grows towards it.
    private static LocalDate? TurnDue(
        Plan plan,
        Planter planter,
        CareSeason season,
        LocalDate day,
        ILookup<(string, string?, CareWork), LocalDate> when
    )
    {
        bool grows = Work.FeedLine.IsGrowingSeason(day, season.IsSouthern);
        if (planter.Form.IsBed || !grows || planter.Exposure == Climate.Exposure.FullSun || planter.Form.Shape == PlanterShape.Basket)
            return null;
        LocalDate? standing = plan.DisplaysOf(planter.Id)
            .Where(d => d.Layer == DisplayLayer.Standing && d.StandsOn(day))
            .Where(d => d.Items.Any(i => plan.FindPlant(i.PlantId) is { LifeForm: LifeForm.Shrub or LifeForm.Tree, Green: GreenLeaf.Evergreen }))
            .Select(d => (LocalDate?)d.Install)
            .Min();
        if (standing is not { } since)
            return null;
        // The spring before the day: in the south it lies in the year before from January on.
        LocalDate spring = season.InSeason(day, 3, 1);
        if (spring > day)
            spring = spring.PlusYears(-1);
        LocalDate last = when[(planter.Id, null, CareWork.Turn)].Append(LocalDate.Max(since, spring)).Max();
        return last.PlusDays(TurnEvery);
    }
}

using NodaTime;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Work;

namespace UnrulyMeadow.Core.Turning;

/// <summary>What a turn would bring if it began on another day.</summary>
/// <param name="FirstDay">Its first day.</param>
/// <param name="ColourDays">Expected planter-days of colour in the plan year, over the turn's planters.</param>
/// <param name="OldColour">Mean odds that what comes out still shows on the day.</param>
/// <param name="FrostLoss">Share of weather years in which frost takes something that went in within two months.</param>
/// <param name="PlantsLost">Expected plants that frost takes of those that go in, within two months.</param>
/// <param name="LostCost">What these cost at their guide prices.</param>
/// <param name="FullShare">Mean share of its grown cover that what goes in has on the day asked; 1 where nothing grows.</param>
/// <param name="LeavesGreen">Mean share of weather years in which leaves of bulbs that come out are still green, and are wanted again.</param>
/// <param name="Hinders">What forbids the day, each of a <see cref="TurnHinder"/> or a <see cref="PlantingHinder"/>; empty when nothing does.</param>
public sealed record TurnOption(
    LocalDate FirstDay,
    double ColourDays,
    double OldColour,
    double FrostLoss,
    double PlantsLost,
    decimal LostCost,
    double FullShare,
    double LeavesGreen,
    IReadOnlyList<Fact> Hinders
);

/// <summary>The days on which a turn may begin, what each would bring, and the one to take.</summary>
public sealed class TurnWindow
{
    private TurnWindow(
        Turn turn,
        IReadOnlyList<TurnChange> changes,
        IReadOnlyList<TurnOption> options,
        LocalDate fullBy,
        TurnOption? best,
        TurnOption? past,
        TurnOption planned
    )
    {
        (Turn, Changes, Options, FullBy, Best, WhenPast, Planned) = (turn, changes, options, fullBy, best, past, planned);
    }

    /// <summary>Days before and after the planned one that are looked at.</summary>
    public const int Reach = 42;

    /// <summary>Days between one option and the next.</summary>
    public const int Step = 7;

    /// <summary>A frost within so many days of planting is laid to the turn.</summary>
    public const int FrostDays = 60;

    /// <summary>The turn.</summary>
    public Turn Turn { get; }

    /// <summary>
    /// What a planter-day of colour costs in this turn: its plants by its colour; losses to frost are weighed against colour by it.
    /// </summary>
    public decimal CostOfADay { get; private init; }

    /// <summary>Colour of an option less what frost takes, in planter-days at <see cref="CostOfADay"/>.</summary>
    public double Worth(TurnOption option) => option.ColourDays - (CostOfADay > 0 ? (double)(option.LostCost / CostOfADay) : 0);

    /// <summary>What it changes.</summary>
    public IReadOnlyList<TurnChange> Changes { get; }

    /// <summary>Options in order of their days.</summary>
    public IReadOnlyList<TurnOption> Options { get; }

    /// <summary>The day by which what goes in should be full: the turn's own, or eight weeks after it.</summary>
    public LocalDate FullBy { get; }

    /// <summary>
    /// The day worth most, colour less losses, among those that nothing forbids and that frost allows: the school that turns at its calendar's
    /// best.
    /// </summary>
    public TurnOption? Best { get; }

    /// <summary>The first day on which what stands there is past its best: the school that waits.</summary>
    public TurnOption? WhenPast { get; }

    /// <summary>The option nearest the planned day.</summary>
    public TurnOption Planned { get; }

    /// <summary>Expected colour-days that a week later than the best costs; null where it is not known.</summary>
    public double? WeekLaterCosts =>
        Best is null ? null
        : Options.FirstOrDefault(o => o.FirstDay == Best.FirstDay.PlusDays(Step)) is { } later ? Best.ColourDays - later.ColourDays
        : null;

    /// <summary>Years of ten in which a week earlier than the best loses something to frost; null where it is not known.</summary>
    public double? WeekEarlierFrost =>
        Best is null ? null
        : Options.FirstOrDefault(o => o.FirstDay == Best.FirstDay.PlusDays(-Step)) is { } earlier ? earlier.FrostLoss * 10
        : null;

    /// <summary>Looks at a turn.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="turn">The turn.</param>
    /// <param name="kernel">The season's kernel of the plan year that holds the turn.</param>
    /// <param name="done">Told how many options are done.</param>
    /// <param name="cancel">Stops the work.</param>
    /// <returns>The window; null when the turn changes nothing or there is no weather.</returns>
    public static TurnWindow? Of(Plan plan, Turn turn, SeasonKernel kernel, IProgress<int>? done = null, CancellationToken cancel = default)
    {
        IReadOnlyList<TurnChange> changes = TurnChange.Of(plan, turn);
        if (changes.Count == 0 || kernel.Seasons.Count == 0)
            return null;
        LocalDate fullBy = turn.FullBy ?? turn.FirstDay.PlusDays(56);
        int[] offsets = [.. Enumerable.Range(-Reach / Step, (2 * Reach / Step) + 1).Select(k => k * Step)];
        var options = new TurnOption[offsets.Length];
        int count = 0;
        Parallel.For(
            0,
            offsets.Length,
            new ParallelOptions
            {
                CancellationToken = cancel,
                MaxDegreeOfParallelism = Environment.ProcessorCount,
                TaskScheduler = TaskScheduler.Current,
            },
            i =>
            {
                options[i] = Option(plan, turn, changes, kernel, offsets[i], fullBy);
                done?.Report(Interlocked.Increment(ref count));
            }
        );
        List<TurnOption> open = [.. options.Where(o => o.Hinders.Count == 0)];
        TurnOption planned = options.MinBy(o => Math.Abs(Period.DaysBetween(turn.FirstDay, o.FirstDay)))!;
        TurnOption? past = changes.Any(c => c.Out.Count > 0) ? open.FirstOrDefault(o => o.OldColour < 0.5) : null;
        decimal plants = changes.Sum(c => c.ComesIn.Sum(i => i.Count * i.Plant.Packs.Min(p => p.Price / p.Size)));
        var window = new TurnWindow(turn, changes, options, fullBy, null, past, planned)
        {
            CostOfADay = planned.ColourDays > 0 ? plants / (decimal)planned.ColourDays : 0,
        };
        // No day is recommended on which frost takes something in more years than the site accepts, unless every day does.
        double accepted = Math.Max(plan.Site.FrostRisk, open.Select(o => o.FrostLoss).DefaultIfEmpty(1).Min());
        TurnOption? best = open.Where(o => o.FrostLoss <= accepted).MaxBy(window.Worth);
        // A day here or there over all planters is no reason to move a turn that stands.
        if (
            best is not null
            && planned.Hinders.Count == 0
            && planned.FrostLoss <= accepted
            && window.Worth(best) - window.Worth(planned) < Math.Max(2, 0.5 * changes.Count)
        )
            best = planned;
        return new TurnWindow(turn, changes, options, fullBy, best, past, planned) { CostOfADay = window.CostOfADay };
    }

    /// <summary>The trade-off, of a <see cref="TurnAdvice"/>.</summary>
    public Fact Advice()
    {
        if (Best is null)
            return new Fact(TurnAdvice.NoDayOpen);
        double gain = Math.Round(Best.ColourDays - Planned.ColourDays, MidpointRounding.AwayFromZero);
        TurnAdvice kind =
            Best.FirstDay == Planned.FirstDay ? TurnAdvice.PlannedIsBest
            : Planned.Hinders.Count > 0 ? TurnAdvice.PlannedIsNotOpen
            : Planned.FrostLoss > Best.FrostLoss + 0.05 ? TurnAdvice.FrostSpeaksForAnother
            : TurnAdvice.AnotherIsBetter;
        return new Fact(
            kind,
            ("best", Best.FirstDay),
            ("planned", Planned.FirstDay),
            ("hinder", Planned.Hinders.Count > 0 ? Planned.Hinders[0] : null),
            ("more", gain >= 1 ? (int)gain : null),
            ("less", gain <= -1 ? (int)-gain : null),
            ("frost", Quantity.OutOfTen(Best.FrostLoss)),
            ("frostThen", Quantity.OutOfTen(Planned.FrostLoss)),
            ("later", WeekLaterCosts is { } costs ? (int)Math.Round(Math.Max(0, costs)) : null),
            ("both", WeekLaterCosts is not null && WeekEarlierFrost is not null),
            ("earlier", WeekEarlierFrost is { } years ? Quantity.OutOfTen(years / 10) : null)
        );
    }

    /// <summary>The arithmetic behind one day.</summary>
    public Working Explain(TurnOption option) =>
        new Working(
            WorkingKind.TurnFromDay,
            new Fact(WorkingPhrase.PlanterDaysColour, ("colourDays", Quantity.Number(option.ColourDays))),
            [
                new WorkingInput(InputName.Planters, Changes.Count),
                new WorkingInput(
                    InputName.WhatComesOutStillShows,
                    new Fact(WorkingPhrase.InYears, ("oldColour", Quantity.OutOfTen(option.OldColour)))
                ),
                new WorkingInput(
                    InputName.FrostTakesSomethingWithinTwoMonths,
                    new Fact(
                        WorkingPhrase.InYearsPlantsExpectedGuidePrices,
                        ("frostLoss", Quantity.OutOfTen(option.FrostLoss)),
                        ("plantsLost", Quantity.Number(option.PlantsLost)),
                        ("lostCost", Quantity.Number((double)option.LostCost, 2))
                    )
                ),
                new WorkingInput(
                    InputName.Worth,
                    new Fact(
                        WorkingPhrase.PlanterDaysLossesCountedPlanterDay,
                        ("option", Quantity.Number(Worth(option))),
                        ("costOfADay", Quantity.Number((double)CostOfADay, 2))
                    )
                ),
                new WorkingInput(
                    new Fact(WorkingPhrase.TurnFromDayNameGrown, ("fullBy", Text(FullBy))),
                    new Fact(WorkingPhrase.FullWidth, ("fullShare", Quantity.Share(option.FullShare)))
                ),
                new WorkingInput(
                    InputName.BulbLeavesStillGreen,
                    new Fact(WorkingPhrase.TurnFromDayInYears, ("leavesGreen", Quantity.OutOfTen(option.LeavesGreen)))
                ),
                new WorkingInput(InputName.ForbidsIt, option.Hinders.Count == 0 ? (object?)WorkingPhrase.Nothing : option.Hinders.Count),
            ]
        )
        {
            Parts = [("turn", Turn.Name), ("firstDay", Text(option.FirstDay))],
        };

    private static TurnOption Option(Plan plan, Turn turn, IReadOnlyList<TurnChange> changes, SeasonKernel kernel, int offset, LocalDate fullBy)
    {
        LocalDate start = kernel.Start;
        double colour = 0;
        double old = 0;
        int olds = 0;
        double full = 0;
        int fulls = 0;
        double green = 0;
        int greens = 0;
        double lost = 0;
        double lostCost = 0;
        var yearsHit = new bool[kernel.Seasons.Count];
        foreach (TurnChange change in changes)
        {
            List<Display> moved = Moved(plan, change, turn, offset);
            colour += kernel.Try(plan, change.Planter, moved).ShareInColour.Sum();
            foreach (PlantedItem item in PlantedItem.Of(plan, change.Planter, moved, start, start.PlusMonths(12)))
            {
                PlantYears years = kernel.Follow(item.Plant, item.Standing);
                if (change.Out.Any(d => d.Id == item.Display.Id))
                {
                    old += StillShows(years);
                    olds++;
                    if (
                        item.Plant.Bulb is not null
                        && item.Display.Items.Any(i => i.PlantId == item.Plant.Id && i.Fate is PlantFate.Store or PlantFate.Keep or PlantFate.ToBed)
                    )
                    {
                        int lift = Period.DaysBetween(start, item.Standing.Lift);
                        green += years.Years.Count(y => y.Last >= 0 && lift < y.Last + DieBackWindow.Days) / (double)years.Years.Length;
                        greens++;
                    }
                }
                if (change.In.Any(d => d.Id == item.Display.Id))
                {
                    int zero = Period.DaysBetween(start, item.Standing.From);
                    for (int y = 0; y < years.Years.Length; y++)
                    {
                        if (years.Years[y].Loss == LossKind.Frost && years.Years[y].LostOn - zero <= FrostDays)
                        {
                            yearsHit[y] = true;
                            lost += (double)item.Count / years.Years.Length;
                            lostCost += (double)item.Count / years.Years.Length * (double)item.Plant.Packs.Min(p => p.Price / p.Size);
                        }
                    }
                    if (item.Plant.MatureSpreadCm > item.Plant.SpreadAtPurchaseCm && item.Display.Layer != DisplayLayer.Bulbs)
                    {
                        full += Grown(years, Period.DaysBetween(start, fullBy) - years.From);
                        fulls++;
                    }
                }
            }
        }
        return new TurnOption(
            turn.FirstDay.PlusDays(offset),
            colour,
            olds == 0 ? 0 : old / olds,
            yearsHit.Count(h => h) / (double)yearsHit.Length,
            lost,
            Math.Round((decimal)lostCost, 2),
            fulls == 0 ? 1 : full / fulls,
            greens == 0 ? 0 : green / greens,
            Hinders(plan, turn, changes, kernel, offset)
        );
    }

    private static List<Display> Moved(Plan plan, TurnChange change, Turn turn, int offset) =>
        [.. plan.DisplaysOf(change.Planter.Id).Select(d => TurnChange.Moved(turn, d, offset))];

    private static double StillShows(PlantYears years)
    {
        if (years.Length == 0 || years.Plant.Windows.Count == 0)
            return 0;
        int shows = 0;
        for (int y = 0; y < years.Years.Length; y++)
        {
            float best = 0;
            for (int w = 0; w < years.Plant.Windows.Count; w++)
                best = Math.Max(best, years.Share(w, y)[years.Length - 1]);
            shows += best >= ColourOdds.InColour ? 1 : 0;
        }
        return (double)shows / years.Years.Length;
    }

    // Share of its grown width, in the middle year.
    private static double Grown(PlantYears years, int day)
    {
        if (day < 0 || years.Length == 0)
            return 0;
        double mature = Math.PI / 4 * years.Plant.MatureSpreadCm * years.Plant.MatureSpreadCm;
        double[] shares =
        [
            .. Enumerable.Range(0, years.Years.Length).Select(y => years.AreaCm2(y)[Math.Min(day, years.Length - 1)] / mature).Order(),
        ];
        return Math.Sqrt(shares[shares.Length / 2]);
    }

    private static List<Fact> Hinders(Plan plan, Turn turn, IReadOnlyList<TurnChange> changes, SeasonKernel kernel, int offset)
    {
        LocalDate first = turn.FirstDay.PlusDays(offset);
        var hinders = new List<Fact>();
        if (turn.Delivery is { } delivery && first < delivery)
            hinders.Add(new Fact(TurnHinder.Delivery, ("day", delivery)));
        bool southern = kernel.Seasons[0].IsSouthern;
        foreach (
            IGrouping<string, DisplayItem> kind in changes
                .SelectMany(c => c.ComesIn)
                .Select(x => x.Item)
                .GroupBy(i => i.PlantId, StringComparer.Ordinal)
        )
        {
            Plant plant = plan.Plant(kind.Key);
            if (!plant.IsSoldOn(first, southern) && plan.Lots.All(l => l.PlantId != plant.Id))
                hinders.Add(new Fact(TurnHinder.NotSold, ("plant", plant)));
        }
        foreach (TurnChange change in changes)
        {
            foreach (Display display in change.In.Concat(change.Out))
            {
                Display? next = plan.DisplaysOf(change.Planter.Id)
                    .FirstOrDefault(d => d.Layer == display.Layer && d.Install >= display.Lift && change.In.All(i => i.Id != d.Id));
                LocalDate ends = change.Out.Any(o => o.Id == display.Id) ? display.Lift.PlusDays(offset) : display.Lift;
                if (change.Out.Any(o => o.Id == display.Id) && next is not null && next.Install < ends && next.Install >= display.Lift)
                    hinders.Add(new Fact(TurnHinder.NextDisplay, ("planter", change.Planter), ("day", next.Install)));
                if (change.In.Any(o => o.Id == display.Id) && display.Install.PlusDays(offset) >= display.Lift)
                    hinders.Add(new Fact(TurnHinder.OutBeforeIn, ("planter", change.Planter)));
                Display? before = plan.DisplaysOf(change.Planter.Id)
                    .LastOrDefault(d => d.Layer == display.Layer && d.Lift <= display.Install && change.Out.All(o => o.Id != d.Id));
                if (change.In.Any(o => o.Id == display.Id) && before is not null && display.Install.PlusDays(offset) < before.Lift)
                    hinders.Add(new Fact(TurnHinder.FilledUntil, ("planter", change.Planter), ("day", before.Lift)));
            }
        }
        var time = new PlantingTime(kernel);
        foreach (ChangeoverItem kind in changes.SelectMany(c => c.ComesIn).DistinctBy(x => (x.Item.PlantId, x.Item.Forced)))
            hinders.AddRange(time.Against(kind.Plant, kind.Item.Forced, first));
        return [.. hinders.Distinct().Take(6)];
    }

    private static string Text(LocalDate day) => day.ToString("d MMM", null);
}

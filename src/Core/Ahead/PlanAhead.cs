using NodaTime;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Ahead;

/// <summary>How far what stands for years has closed over a planter, and the bedding that still goes between.</summary>
/// <param name="Planter">The planter.</param>
/// <param name="Cover">Share of the surface under what stands, at midsummer of each plan year, mean over weather years.</param>
/// <param name="Bedding">Seasonal plants set out in each plan year.</param>
public sealed record GapAhead(Planter Planter, IReadOnlyList<double> Cover, IReadOnlyList<int> Bedding);

/// <summary>
/// A plan carried on over the years: each year's displays are planted again, with less bedding as what stands for years closes
/// over it; bulbs are lifted or left and replaced; what the planner has already planned for a later year stays as planned.
/// </summary>
public sealed class PlanAhead
{
    /// <summary>
    /// Bulbs of which less than this share of their first show is to be expected are replaced (common practice: tulips in year 2 to 3).
    /// </summary>
    public const double Dwindled = 0.5;

    /// <summary>Less than this share of the first year's gap is not worth bedding out.</summary>
    public const double NoGap = 0.12;

    /// <summary>Years after which woody plants in a container want a look at their roots (common practice: several years, then out).</summary>
    public const int LongInContainer = 5;

    private readonly AheadQuestion _question;
    private readonly Func<LocalDate, SeasonKernel> _kernels;
    private readonly List<Display> _displays;
    private readonly List<DueAhead> _due = [];

    private PlanAhead(Plan plan, AheadQuestion question, Func<LocalDate, SeasonKernel> kernels)
    {
        (Before, _question, _kernels) = (plan, question, kernels);
        _displays = [.. plan.Displays];
        Plan = plan;
    }

    /// <summary>The plan as it is.</summary>
    public Plan Before { get; }

    /// <summary>The plan with the years ahead filled in.</summary>
    public Plan Plan { get; private set; }

    /// <summary>What falls due, in order of its days.</summary>
    public IReadOnlyList<DueAhead> Due => [.. _due.OrderBy(d => d.Day).ThenBy(d => d.PlanterId, StringComparer.Ordinal)];

    /// <summary>Planters in which something stands for years, with its cover and the bedding between.</summary>
    public IReadOnlyList<GapAhead> Gaps { get; private set; } = [];

    /// <summary>Carries a plan on.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="question">How far, and how.</param>
    /// <param name="kernels">The season's kernel of a plan year.</param>
    /// <param name="cancel">Stops the work.</param>
    /// <exception cref="InvalidInputException">The question is faulty.</exception>
    public static PlanAhead Of(Plan plan, AheadQuestion question, Func<LocalDate, SeasonKernel> kernels, CancellationToken cancel = default)
    {
        IReadOnlyList<Fault> faults = question.Faults();
        if (faults.Count > 0)
            throw new InvalidInputException(faults);
        var ahead = new PlanAhead(plan, question, kernels);
        var gaps = new List<GapAhead>();
        List<Planter> inUse = [.. plan.Planters.Where(p => !p.IsRetired)];
        // Year by year, so that one kernel is needed at a time.
        double[][] cover = [.. Enumerable.Range(0, question.Years).Select(y => inUse.Select(p => ahead.StandingCover(p, y)).ToArray())];
        for (int i = 0; i < inUse.Count; i++)
        {
            Planter planter = inUse[i];
            cancel.ThrowIfCancellationRequested();
            ahead.Standing(planter);
            if (ahead.Seasonal(planter, [.. cover.Select(c => c[i])]) is { } gap)
                gaps.Add(gap);
            ahead.Bulbs(planter);
        }
        ahead.Gaps = gaps;
        ahead.Plan = plan.Changed([.. plan.Displays.Select(d => d.Id)], ahead._displays);
        return ahead;
    }

    private LocalDate YearStart(int year) => _question.Start.PlusYears(year);

    private LocalDate End => YearStart(_question.Years);

    private bool IsFirstYear(Display display) => display.Install >= _question.Start && display.Install < YearStart(1);

    // Bedding is repeated; where shrubs and perennials close over the planter, with fewer plants each year.
    private GapAhead? Seasonal(Planter planter, double[] cover)
    {
        List<Display> first = [.. Before.DisplaysOf(planter.Id).Where(d => d.Layer == DisplayLayer.Seasonal && IsFirstYear(d))];
        bool closes = cover.Any(c => c > 0);
        // Bedding under a closed cover stands there because the planner wants it there.
        bool hasGap = 1 - cover[0] >= NoGap;
        for (int y = 1; y < _question.Years; y++)
        {
            double gap = hasGap ? Math.Min(1, (1 - cover[y]) / (1 - cover[0])) : 1;
            if (gap < NoGap && first.Count > 0)
            {
                if (!_due.Exists(d => d.Kind == DueKind.NoMoreBedding && d.PlanterId == planter.Id))
                    _due.Add(
                        new DueAhead(
                            DueKind.NoMoreBedding,
                            planter.Id,
                            first[0].Install.PlusYears(y),
                            new Fact(DueKind.NoMoreBedding, ("cover", Quantity.Share(cover[y])))
                        )
                    );
                continue;
            }
            foreach (Display display in first)
                Again(display, y, gap);
        }
        return !closes
            ? null
            : new GapAhead(
                planter,
                cover,
                [
                    .. Enumerable
                        .Range(0, _question.Years)
                        .Select(y =>
                            _displays
                                .Where(d =>
                                    d.PlanterId == planter.Id
                                    && d.Layer == DisplayLayer.Seasonal
                                    && d.Install >= YearStart(y)
                                    && d.Install < YearStart(y + 1)
                                )
                                .Sum(d => d.Items.Sum(i => i.Count))
                        ),
                ]
            );
    }

    private void Bulbs(Planter planter)
    {
        foreach (Display display in Before.DisplaysOf(planter.Id).Where(d => d.Layer == DisplayLayer.Bulbs && IsFirstYear(d)).ToList())
        {
            LocalDate planned = display.Lift;
            int springs = Period.Between(display.Install, planned, PeriodUnits.Years).Years + 1;
            int years = Math.Max(springs, LeftFor(planter, display));
            if (years <= 1)
            {
                for (int y = 1; y < _question.Years; y++)
                    Again(display, y, 1);
                continue;
            }
            // Left for some springs, then replaced; and again after as many years.
            for (int y = 0; y < _question.Years; y += years)
            {
                LocalDate lift = planned.PlusYears(y + years - springs);
                if (y == 0)
                {
                    if (lift > display.Lift)
                        Replace(display, display with { Lift = Free(display, display.Lift, lift) });
                    continue;
                }
                if (Again(display, y, 1, lift) is { } again)
                    _due.Add(
                        new DueAhead(
                            DueKind.ReplaceBulbs,
                            planter.Id,
                            again.Install,
                            Of(DueKind.ReplaceBulbs, display, ("springs", years), ("share", Quantity.Share(Return(display, years))))
                        )
                    );
            }
        }
    }

    // Springs for which bulbs are left: until less than half their first show is to be expected.
    private int LeftFor(Planter planter, Display display)
    {
        if (display.Items.All(i => i.Forced))
            return 1;
        bool longPlanned = display.Lift > display.Install.PlusMonths(14);
        bool leaves = _question.Tulips switch
        {
            TulipCycle.LiftEachYear => false,
            TulipCycle.LeaveAndReplace => true,
            _ => longPlanned || Before.Site.RulesFor(planter).Tulips == TulipSchool.Perennial,
        };
        if (!leaves)
            return 1;
        int springs = 1;
        while (springs < AheadQuestion.MostYears && Return(display, springs) >= Dwindled)
            springs++;
        return springs;
    }

    // What of the first show is to be expected after so many springs, all kinds weighed by their count.
    private double Return(Display display, int springs)
    {
        double sum = 0;
        foreach (DisplayItem item in display.Items)
        {
            Plant plant = Before.Plant(item.PlantId);
            // Tender bulbs do not winter; of what nothing is known, the first show is expected again.
            double share =
                plant.IsTender ? 0
                : plant.ReturnByYear.Count == 0 ? 1
                : plant.ReturnByYear[Math.Min(springs, plant.ReturnByYear.Count) - 1];
            sum += item.Count * share;
        }
        return sum / display.Items.Sum(i => i.Count);
    }

    private void Standing(Planter planter)
    {
        foreach (
            Display display in Before
                .DisplaysOf(planter.Id)
                .Where(d => d.Layer == DisplayLayer.Standing && d.Install < End && d.Lift > _question.Start)
        )
        {
            if (
                display.Lift < End
                && !Before
                    .DisplaysOf(planter.Id)
                    .Any(d => d.Layer == DisplayLayer.Standing && d.Install >= display.Lift && d.Install <= display.Lift.PlusMonths(6))
            )
                _due.Add(new DueAhead(DueKind.StandingComesOut, planter.Id, display.Lift, Of(DueKind.StandingComesOut, display)));
            List<DisplayItem> woody = [.. display.Items.Where(i => Before.Plant(i.PlantId).LifeForm is LifeForm.Shrub or LifeForm.Tree)];
            LocalDate since = woody.Select(i => i.Since ?? display.Install).DefaultIfEmpty(display.Install).Min();
            LocalDate due = since.PlusYears(LongInContainer);
            if (!planter.Form.IsBed && woody.Count > 0 && due < End && due < display.Lift)
            {
                LocalDate day = due < _question.Start ? _question.Start : due;
                _due.Add(
                    new DueAhead(
                        DueKind.LongInContainer,
                        planter.Id,
                        day,
                        Of(DueKind.LongInContainer, display with { Items = woody }, ("years", Period.Between(since, day, PeriodUnits.Years).Years))
                    )
                );
            }
        }
    }

    // Share of the surface under what stands for years, at midsummer; trees are underplanted.
    private double StandingCover(Planter planter, int year)
    {
        LocalDate start = YearStart(year);
        List<PlantedItem> items =
        [
            .. PlantedItem
                .Of(Before, planter, start, start.PlusMonths(12))
                .Where(i => i.Display.Layer == DisplayLayer.Standing && i.Plant.LifeForm != LifeForm.Tree),
        ];
        if (items.Count == 0)
            return 0;
        SeasonKernel kernel = _kernels(start);
        if (kernel.Seasons.Count == 0)
            return 0;
        int day = Midsummer(kernel);
        double sum = 0;
        foreach (PlantedItem item in items)
        {
            PlantYears followed = kernel.Follow(item.Plant, item.Standing);
            int at = day - followed.From;
            if (at < 0 || at >= followed.Length)
                continue;
            // Followed over the years in which it lives: what winter kills is replaced.
            double[] areas = [.. Enumerable.Range(0, followed.Years.Length).Select(y => (double)followed.AreaCm2(y)[at]).Where(a => a > 0)];
            sum += areas.Length == 0 ? 0 : item.Count * areas.Average();
        }
        return Math.Min(1, sum / planter.Form.SurfaceCm2);
    }

    private static int Midsummer(SeasonKernel kernel)
    {
        LocalDate day = new(kernel.Start.Year, kernel.Seasons[0].IsSouthern ? 1 : 7, 15);
        int index = Period.DaysBetween(kernel.Start, day < kernel.Start ? day.PlusYears(1) : day);
        return Math.Min(index, kernel.Days - 1);
    }

    // A display planted again some years later, in what room the plan leaves it; null where it leaves too little.
    private Display? Again(Display display, int years, double share, LocalDate? lift = null)
    {
        LocalDate install = display.Install.PlusYears(years);
        LocalDate until = lift ?? display.Lift.PlusYears(years);
        int wanted = Period.DaysBetween(install, until);
        List<Display> others = [.. _displays.Where(d => d.PlanterId == display.PlanterId && d.Layer == display.Layer && d.Id != display.Id)];
        foreach (Display other in others.Append(_displays.First(d => d.Id == display.Id)).Where(d => d.Install <= install && d.Lift > install))
            install = other.Lift;
        until = Free(display, install, until);
        if (install >= until || Period.DaysBetween(install, until) * 2 < wanted)
            return null;
        int moved = Period.DaysBetween(display.Install.PlusYears(years), install);
        List<DisplayItem> items =
        [
            .. display
                .Items.Select(i =>
                    i with
                    {
                        Count = (int)Math.Round(i.Count * share, MidpointRounding.AwayFromZero),
                        Places = share < 1 ? null : i.Places,
                        // What had stayed on from the display before is bought anew; what is plugged in later, later again.
                        Since = i.Since is { } since && since > display.Install ? since.PlusYears(years).PlusDays(moved) : null,
                    }
                )
                .Where(i => i.Count > 0 && (i.Since is null || i.Since < until)),
        ];
        if (items.Count == 0)
            return null;
        var again = new Display(
            Ids.From($"{display.PlanterId} {display.Layer} {install.ToString("uuuu-MM", null)}", x => _displays.Exists(d => d.Id == x)),
            display.PlanterId,
            display.Layer,
            install,
            until,
            items
        )
        {
            Pairs = [.. display.Pairs.Where(p => items.Exists(i => i.PlantId == p.FirstPlantId) && items.Exists(i => i.PlantId == p.SecondPlantId))],
            Cuts =
            [
                .. display
                    .Cuts.Select(c => c with { Day = c.Day.PlusYears(years) })
                    .Where(c => c.Day > install && c.Day < until && items.Exists(i => i.PlantId == c.PlantId)),
            ],
        };
        if (again.Faults().Count > 0)
            return null;
        _displays.Add(again);
        return again;
    }

    // The latest day until which a display's layer is free.
    private LocalDate Free(Display display, LocalDate from, LocalDate until) =>
        _displays
            .Where(d => d.PlanterId == display.PlanterId && d.Layer == display.Layer && d.Id != display.Id && d.Install >= from && d.Install < until)
            .Select(d => d.Install)
            .DefaultIfEmpty(until)
            .Min();

    private void Replace(Display before, Display after) => _displays[_displays.FindIndex(d => d.Id == before.Id)] = after;

    private Fact Of(DueKind kind, Display display, params ReadOnlySpan<(string Name, object? Value)> parts) =>
        new(
            kind,
            [
                ("plants", display.Items.OrderByDescending(i => i.Count).Take(3).Select(i => Before.Plant(i.PlantId)).ToList()),
                ("more", display.Items.Count > 3 ? display.Items.Count - 3 : null),
                .. parts,
            ]
        );
}

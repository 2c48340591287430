using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Core.Closing;

/// <summary>
/// Finds the changes that would put colour into one planter's bare spells: every way that its rules, room, light, height and
/// the stock allow, each followed through every weather year before it is offered.
/// </summary>
public sealed class GapMoves
{
    // Of the plants that fit, so many of each sort are followed; the rest showed less, or cost more for the same.
    private const int MostFills = 5;
    private const int MostEvergreens = 4;
    private const int MostBulbs = 4;
    private const int MostSwaps = 3;

    // Growers force what flowers by the late tulips and stands in a nursery pot (common practice).
    private const double LatestForcedDays = 112;
    private const double TallestForcedCm = 60;

    // A change must bring at least so many days.
    private const int LeastDays = 5;

    // A new display should reach this many times the threshold as it goes in, so that a poor year still shows.
    private const double Plenty = 1.6;

    private readonly Plan _plan;
    private readonly SeasonKernel _kernel;
    private readonly SiteFlowering _flowering;
    private readonly GapQuestion _question;
    private readonly Planter _planter;
    private readonly PlanterSeason _before;
    private readonly List<Display> _displays;
    private readonly List<GapMove> _found = [];
    private readonly PlantingTime _time;
    private readonly HouseRules _rules;
    private FitQuestion? _asked;

    private GapMoves(Plan plan, Planter planter, SeasonKernel kernel, SiteFlowering flowering, GapQuestion question, PlantingTime time)
    {
        _time = time;
        _rules = plan.Site.RulesFor(planter);
        (_plan, _planter, _kernel, _flowering, _question) = (plan, planter, kernel, flowering, question);
        _before = kernel.Of(plan, planter);
        _displays = [.. plan.DisplaysOf(planter.Id)];
    }

    // The first working day on or after a day on which plants can be there: today for what is at hand, a delivery later otherwise.
    private LocalDate Earliest(LocalDate day, bool atHand)
    {
        LocalDate there = atHand ? _question.From : _question.From.PlusDays(_question.LeadDays);
        return _rules.WorkingDayFrom(day < there ? there : day);
    }

    private double PocketC => _plan.AreaOf(_planter).FrostPocketC + _planter.Survey.FrostPocketC;

    /// <summary>Every change worth weighing for a planter, the most days first.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="planter">The planter.</param>
    /// <param name="kernel">The season's kernel of the plan year.</param>
    /// <param name="flowering">The site's flowering in the same plan year.</param>
    /// <param name="question">What is allowed.</param>
    /// <param name="time">When the ground takes a planting, by the same kernel; null to find out anew.</param>
    public static IReadOnlyList<GapMove> For(
        Plan plan,
        Planter planter,
        SeasonKernel kernel,
        SiteFlowering flowering,
        GapQuestion question,
        PlantingTime? time = null
    )
    {
        var moves = new GapMoves(plan, planter, kernel, flowering, question, time ?? new PlantingTime(kernel));
        foreach (BareSpell spell in moves._before.BareSpells.Where(s => s.LastDay >= question.From))
            moves.Close(spell);
        return [.. moves._found.OrderByDescending(m => m.DaysGained).ThenBy(m => m.Cost).Select((m, i) => m with { Id = $"{planter.Id}-{i + 1}" })];
    }

    private void Close(BareSpell spell)
    {
        LocalDate first = spell.FirstDay < _question.From ? _question.From : spell.FirstDay;
        if (_question.Allows(GapMoveKind.MoveTurn))
            MoveTurns(first, spell.LastDay);
        if (_question.Allows(GapMoveKind.CutBack))
            CutBacks(first, spell.LastDay);
        if (_question.Allows(GapMoveKind.AddBulbs))
            AddBulbs(first, spell.LastDay);
        if (_question.Allows(GapMoveKind.PlugIn))
            PlugIn(first, spell.LastDay);
        PlantFreeDays(first, spell.LastDay);
        if (_question.Allows(GapMoveKind.Swap))
            Swap(first, spell.LastDay);
    }

    private IEnumerable<Display> Seasonal => _displays.Where(d => d.Layer == DisplayLayer.Seasonal);

    private void MoveTurns(LocalDate first, LocalDate last)
    {
        Display? previous = Seasonal.Where(d => d.Lift <= last && d.Lift > _question.From && d.Lift >= first.PlusDays(-14)).MaxBy(d => d.Lift);
        Display? next = Seasonal.Where(d => d.Install >= first && d.Install > _question.From).MinBy(d => d.Install);
        if (previous is not null)
        {
            LocalDate to = next is not null && next.Install <= last.PlusDays(14) ? next.Install : _rules.WorkingDayFrom(last.PlusDays(1));
            if (to > previous.Lift && !Seasonal.Any(d => d.Id != previous.Id && d.Install < to && d.Lift > previous.Lift))
                Offer(
                    GapMoveKind.MoveTurn,
                    new Fact(GapAction.LeaveIn, ("plants", Kinds(previous)), ("until", to), ("was", previous.Lift)),
                    [previous.Id],
                    [previous with { Lift = to }]
                );
        }
        if (next is null)
            return;
        LocalDate after = previous?.Lift ?? first;
        LocalDate earliest = after > first ? after : first;
        // Tender stock stays where it is until the frosts are past, and nothing is set out before growers sell it.
        if (next.Items.Any(i => _plan.Plant(i.PlantId).IsTender) && _flowering.AllClear > earliest && next.Install >= _flowering.AllClear)
            earliest = _flowering.AllClear;
        while (earliest < next.Install && next.Items.Any(i => !_plan.Plant(i.PlantId).IsSoldOn(earliest, _flowering.IsSouthern)))
            earliest = earliest.PlusDays(1);
        bool atHand = next.Items.All(i => Lots(_plan.Plant(i.PlantId)).Sum(l => l.Count) >= i.Count);
        foreach (
            LocalDate to in new[] { earliest, earliest.PlusDays(Period.DaysBetween(earliest, next.Install) / 2) }
                .Select(d => Earliest(d, atHand))
                .Distinct()
        )
        {
            if (to < next.Install)
                Offer(
                    GapMoveKind.MoveTurn,
                    new Fact(GapAction.BringForward, ("plants", Kinds(next)), ("to", to), ("was", next.Install)),
                    [next.Id],
                    [next with { Install = to }]
                );
        }
    }

    private void CutBacks(LocalDate first, LocalDate last)
    {
        foreach (Display display in _displays.Where(d => d.Layer != DisplayLayer.Bulbs && d.Install <= first && d.Lift > first))
        {
            foreach (DisplayItem item in display.Items)
            {
                Plant plant = _plan.Plant(item.PlantId);
                if (plant.Tending is not { FlushAfterDays: { } after, FlushDays: not null } || display.Cuts.Any(c => c.PlantId == plant.Id))
                    continue;
                // So that its flush opens as the bare spell would begin; and two weeks earlier, for what tires sooner.
                foreach (int ahead in new[] { 0, 14 })
                {
                    LocalDate cut = _rules.WorkingDayFrom(first.PlusDays(-(int)after - 3 - ahead));
                    if (cut <= display.Install.PlusDays(21) || cut >= display.Lift || cut < _question.From)
                        continue;
                    foreach (double share in new[] { 1, 0.5 })
                    {
                        Offer(
                            GapMoveKind.CutBack,
                            new Fact(GapAction.CutBack, ("plant", plant), ("day", cut), ("half", share < 1)),
                            [display.Id],
                            [display with { Cuts = [.. display.Cuts.Append(new CutBack(plant.Id, cut) { Share = share }).OrderBy(c => c.Day)] }]
                        );
                    }
                }
            }
        }
    }

    private void AddBulbs(LocalDate first, LocalDate last)
    {
        var wish = new StackWish(first, last > first.PlusDays(290) ? first.PlusDays(290) : last, _question.Colours, null, 8, _question.OnlyStock);
        Display? stack = _displays.Where(d => d.Layer == DisplayLayer.Bulbs && d.Install <= last && d.Lift > first).MinBy(d => d.Install);
        // Room is measured only for those that show most: laying bulbs out takes the longest of all.
        IEnumerable<StackCandidate> best = StackCandidate
            .Showing(_plan, _planter, _flowering, wish)
            .OrderByDescending(s => s.Odds.Sum())
            .ThenBy(s => GoodsForm.Usual(s.Plant).Packs.Min(p => p.Price / p.Size))
            .Select(s => StackCandidate.Measured(_plan, _planter, wish, s.Plant, s.Odds))
            .OfType<StackCandidate>();
        foreach (StackCandidate bulb in best.Take(MostBulbs))
        {
            LocalDate usual = _flowering.UsualInstall(bulb.Plant, first);
            bool atHand = IsAtHand(bulb.Plant, bulb.Count);
            LocalDate install = Earliest(usual, atHand);
            if (stack is not null)
            {
                if (stack.Install < Earliest(_question.From, atHand) || stack.Items.Any(i => i.PlantId == bulb.Plant.Id))
                    continue;
                Buy(
                    GapMoveKind.AddBulbs,
                    bulb.Plant,
                    bulb.Count,
                    new Fact(GapAction.AddToStack, ("count", bulb.Count), ("plant", bulb.Plant), ("day", stack.Install)),
                    [stack.Id],
                    [stack with { Items = [.. stack.Items, new DisplayItem(bulb.Plant.Id, bulb.Count)] }]
                );
                continue;
            }
            LocalDate until = Clear(DisplayLayer.Bulbs, install, last.PlusDays(60));
            if (install < first && until > first && bulb.Plant.IsSoldOn(install, _flowering.IsSouthern))
                Buy(
                    GapMoveKind.AddBulbs,
                    bulb.Plant,
                    bulb.Count,
                    new Fact(GapAction.PlantOn, ("count", bulb.Count), ("plant", bulb.Plant), ("day", install)),
                    [],
                    [New("bulbs", DisplayLayer.Bulbs, install, until, new DisplayItem(bulb.Plant.Id, bulb.Count))]
                );
        }
    }

    // The usual cure for a bare pot: bulbs forced and held in nursery pots, set in as their buds colour.
    private void PlugIn(LocalDate first, LocalDate last)
    {
        LocalDate wanted = first.PlusDays(-(int)PlantYears.ForcedBudDays);
        // Forced bulbs are to be had from midwinter until those outdoors flower.
        int month = _flowering.IsSouthern ? ((wanted.Month + 5) % 12) + 1 : wanted.Month;
        if (month is > 5)
            return;
        var forced = _plan
            .Palette.Where(p =>
                p.Bulb is not null
                && !p.IsRetired
                && p.HeightCm <= TallestForcedCm
                && p.Windows.Any(w => w.Rule is BulbForcing { DaysInSteadySpring: <= LatestForcedDays })
                && Wanted(p)
                && Fits(p, first, last)
            )
            .Select(p => (Plant: p, AtHand: Lots(p, LotState.Forced).Sum(l => l.Count)))
            .Where(p => p.AtHand > 0 || !_question.OnlyStock)
            .OrderByDescending(p => p.AtHand > 0)
            .ThenByDescending(p => Shown(p.Plant))
            .Take(MostBulbs);
        foreach ((Plant plant, int atHand) in forced)
        {
            int count = Enough(plant, 1.25);
            LocalDate install = Earliest(wanted, atHand >= count);
            Display? stack = _displays
                .Where(d => d.Layer == DisplayLayer.Bulbs && d.Install <= install && d.Lift > install.PlusDays(14))
                .MinBy(d => d.Install);
            var item = new DisplayItem(plant.Id, count) { Forced = true };
            if (stack is not null)
            {
                if (stack.Items.All(i => i.PlantId != plant.Id))
                    Buy(
                        GapMoveKind.PlugIn,
                        plant,
                        count,
                        new Fact(GapAction.PlugIn, ("count", count), ("plant", plant), ("day", install)),
                        [stack.Id],
                        [stack with { Items = [.. stack.Items, item with { Since = install }] }],
                        LotState.Forced
                    );
                continue;
            }
            LocalDate until = Clear(DisplayLayer.Bulbs, install, last.PlusDays(1));
            if (until >= install.PlusDays(10))
                Buy(
                    GapMoveKind.PlugIn,
                    plant,
                    count,
                    new Fact(GapAction.PlugIn, ("count", count), ("plant", plant), ("day", install)),
                    [],
                    [New("forced", DisplayLayer.Bulbs, install, until, item)],
                    LotState.Forced
                );
        }
    }

    private void PlantFreeDays(LocalDate first, LocalDate last)
    {
        LocalDate free = Seasonal
            .Where(d => d.Install <= last && d.Lift <= last)
            .Select(d => d.Lift)
            .Append(_question.From)
            .Append(_kernel.Start)
            .Max();
        if (Seasonal.Any(d => d.Install <= free && d.Lift > free) || free > last)
            return;
        LocalDate until = Clear(DisplayLayer.Seasonal, free, last.PlusDays(1));
        if (until < first.PlusDays(LeastDays))
            return;
        var ranked = Ranked(p => p.GoesOutInLeaf, first, last).ToList();
        void Take(GapMoveKind kind, Func<Plant, bool> sort, int most)
        {
            if (!_question.Allows(kind))
                return;
            foreach (Plant plant in ranked.Where(sort).Take(most))
            {
                LocalDate usual = plant.IsLasting ? free : _flowering.UsualInstall(plant, first);
                int count = Enough(plant, Plenty);
                LocalDate install = Earliest(usual < free ? free : usual, IsAtHand(plant, count));
                if (install >= last || install >= until || (!plant.IsSoldOn(install, _flowering.IsSouthern) && !Lots(plant).Any()))
                    continue;
                Buy(
                    kind,
                    plant,
                    count,
                    new Fact(GapAction.PlantUntil, ("count", count), ("plant", plant), ("day", install), ("until", until)),
                    [],
                    [New(kind == GapMoveKind.Fill ? "fill" : "stems", DisplayLayer.Seasonal, install, until, new DisplayItem(plant.Id, count))]
                );
            }
        }
        Take(GapMoveKind.Fill, p => !p.IsLasting && p.LifeForm != LifeForm.CutStems, MostFills);
        Take(GapMoveKind.StemsAndEvergreens, p => p.IsLasting || p.LifeForm == LifeForm.CutStems, MostEvergreens);
    }

    // Only what has not gone in yet can be swapped: the kind that shows least in the spell makes way.
    private void Swap(LocalDate first, LocalDate last)
    {
        if (Seasonal.FirstOrDefault(d => d.Install <= last && d.Lift > first && d.Install >= _question.From) is not { } display)
            return;
        DisplayItem least = display.Items.MinBy(i => _flowering.Of(_plan.Plant(i.PlantId), display.Install, null, PocketC).OddsOver(first, last))!;
        foreach (
            Plant plant in Ranked(
                    p =>
                        p.GoesOutInLeaf
                        && !p.IsLasting
                        && (p.IsSoldOn(display.Install, _flowering.IsSouthern) || Lots(p).Any())
                        && display.Items.All(i => i.PlantId != p.Id),
                    first,
                    last
                )
                .Take(MostSwaps)
        )
        {
            int count = Math.Max(1, Math.Min(Enough(plant, Plenty), least.Count * 3));
            if (display.Install < Earliest(_question.From, IsAtHand(plant, count)))
                continue;
            Buy(
                GapMoveKind.Swap,
                plant,
                count,
                new Fact(
                    GapAction.PlantInstead,
                    ("count", count),
                    ("plant", plant),
                    ("was", least.Count),
                    ("goes", _plan.Plant(least.PlantId)),
                    ("day", display.Install)
                ),
                [display.Id],
                [
                    display with
                    {
                        Items = [.. display.Items.Select(i => i == least ? new DisplayItem(plant.Id, count) : i)],
                        Cuts = [.. display.Cuts.Where(c => c.PlantId != least.PlantId)],
                    },
                ]
            );
        }
    }

    // Plants that fit, those that show most in the spell first; one of a species, so that the choice is a choice.
    private IEnumerable<Plant> Ranked(Func<Plant, bool> sort, LocalDate first, LocalDate last)
    {
        FitQuestion question = Question(first, last);
        return _plan
            .Palette.Where(p => !p.IsRetired && sort(p) && Wanted(p) && (!_question.OnlyStock || Lots(p).Any()))
            .Select(p => question.Of(p))
            .Where(f =>
                f.Odds > 0.15 && f.Plant.Suits(_planter.Exposure) && f.Reasons.All(r => r.Verdict != FitVerdict.Fails || r.What == FitAspect.Colour)
            )
            .OrderByDescending(f => Lots(f.Plant).Any())
            .ThenByDescending(f => f.Score)
            .Select(f => f.Plant)
            .DistinctBy(p => p.BotanicalName);
    }

    private bool Fits(Plant plant, LocalDate first, LocalDate last) =>
        plant.Suits(_planter.Exposure)
        && Question(first, last).Of(plant).Reasons.All(r => r.Verdict != FitVerdict.Fails || r.What == FitAspect.Colour);

    private FitQuestion Question(LocalDate first, LocalDate last)
    {
        if (_asked is null || _asked.First != first || _asked.Last != last)
            _asked = new FitQuestion(_flowering, _plan.Site, _planter, _plan.AreaOf(_planter), first, last);
        return _asked;
    }

    private bool Wanted(Plant plant) =>
        _question.Colours.Count == 0
        || plant.Windows.Any(w => w.Colours.Take(2).Any(c => _question.Colours.Any(q => ColourDifference.Between(c, q) <= ColourDifference.Near)));

    private static double Shown(Plant plant) => plant.Windows.Max(w => w.Share * w.Weight) * plant.MatureSpreadCm * plant.MatureSpreadCm;

    // So many that what shows reaches so many times the threshold as they go in; never more than cover the surface.
    private int Enough(Plant plant, double times)
    {
        double wide = plant.GoesOutInLeaf ? Math.Max(plant.SpreadAtPurchaseCm, 0.7 * plant.MatureSpreadCm) : plant.MatureSpreadCm;
        double each = Math.PI / 4 * wide * wide / _planter.Form.SurfaceCm2;
        double seen = plant.Green == GreenLeaf.AroundFlower ? ViewedShare.OnStems(_planter, plant.HeightCm) : 1;
        double shows = each * seen * plant.Windows.Select(w => w.Share * w.Weight).DefaultIfEmpty(0.1).Max();
        return Math.Clamp((int)Math.Ceiling(times * _plan.Site.CoverThreshold / shows), 1, Math.Max(1, (int)Math.Ceiling(1.1 / each)));
    }

    private IEnumerable<Lot> Lots(Plant plant, LotState? state = null) =>
        _plan.Lots.Where(l =>
            l.PlantId == plant.Id
            && l.Count > 0
            && l.Condition != LotCondition.Poor
            && (state is { } s ? l.State == s : l.State is not (LotState.Forced or LotState.Quarantine))
        );

    private bool IsAtHand(Plant plant, int count) => Lots(plant).Sum(l => l.Count) >= count;

    // What a change plants, and when, that is not planted so already.
    private IEnumerable<(DisplayItem Item, LocalDate Day)> Planted(IReadOnlyList<Display> displays)
    {
        static IEnumerable<(DisplayItem Item, LocalDate Day)> Of(Display d) =>
            d.Items.Select(i => (i, i.Since > d.Install ? i.Since.Value : d.Install));
        foreach (Display display in displays)
        {
            var known = _displays.Where(d => d.Id == display.Id).SelectMany(Of).Select(x => (x.Item.PlantId, x.Day)).ToHashSet();
            foreach ((DisplayItem item, LocalDate day) in Of(display).Where(x => !known.Contains((x.Item.PlantId, x.Day))))
                yield return (item, day);
        }
    }

    // When a new display comes out: as the next goes in where that is near, otherwise on the day asked.
    private LocalDate Clear(DisplayLayer layer, LocalDate from, LocalDate until)
    {
        LocalDate next = _displays
            .Where(d => d.Layer == layer && d.Install > from)
            .Select(d => d.Install)
            .DefaultIfEmpty(LocalDate.MaxIsoValue)
            .Min();
        return next < until || (next != LocalDate.MaxIsoValue && next <= until.PlusDays(14)) ? next : until;
    }

    private Display New(string name, DisplayLayer layer, LocalDate install, LocalDate lift, DisplayItem item) =>
        new(
            Ids.From($"{_planter.Id} {name} {install.ToString("uuuu-MM", null)}", x => _plan.Displays.Any(d => d.Id == x)),
            _planter.Id,
            layer,
            install,
            lift,
            [item]
        );

    private void Buy(
        GapMoveKind kind,
        Plant plant,
        int count,
        Fact does,
        IReadOnlyList<string> replaces,
        IReadOnlyList<Display> displays,
        LotState? state = null
    )
    {
        var used = new List<StockUse>();
        int left = count;
        foreach (Lot lot in Lots(plant, state))
        {
            int take = Math.Min(left, lot.Count);
            if (take > 0)
                used.Add(new StockUse(lot.Id, take));
            left -= take;
        }
        if (left > 0 && _question.OnlyStock)
            return;
        decimal cost = left > 0 ? _plan.Site.GuidePrice(plant, left, _rules.Stage == StageSchool.InColour) : 0;
        if (_question.Budget is { } budget && cost > budget)
            return;
        Offer(kind, does, replaces, displays, plant, count, used, cost);
    }

    private void Offer(
        GapMoveKind kind,
        Fact does,
        IReadOnlyList<string> replaces,
        IReadOnlyList<Display> displays,
        Plant? plant = null,
        int count = 0,
        IReadOnlyList<StockUse>? used = null,
        decimal cost = 0
    )
    {
        bool clashes = displays.Any(d =>
            _displays.Any(o => o.Layer == d.Layer && !replaces.Contains(o.Id, StringComparer.Ordinal) && o.Install < d.Lift && d.Install < o.Lift)
        );
        if (clashes || displays.Any(d => d.Faults().Count > 0) || _found.Any(m => m.Does.Equals(does)))
            return;
        foreach (Display stack in displays.Where(d => d.Layer == DisplayLayer.Bulbs))
        {
            if (BulbStack.Of(_plan, _planter, stack).Problems.Count > 0)
                return;
        }
        foreach ((DisplayItem item, LocalDate day) in Planted(displays))
        {
            if (_time.IsFrozen(_planter, day) || _time.Against(_plan.Plant(item.PlantId), item.Forced, day).Any())
                return;
        }
        PlanterSeason after = _kernel.Try(_plan, _planter, [.. _displays.Where(d => !replaces.Contains(d.Id)), .. displays]);
        var move = new GapMove("new", _planter, kind, does, replaces, displays, _before, after)
        {
            Plant = plant,
            Count = count,
            FromStock = used ?? [],
            Cost = cost,
        };
        if (move.DaysGained >= LeastDays)
            _found.Add(move);
    }

    private List<Plant> Kinds(Display display) => [.. display.Items.Take(3).Select(i => _plan.Plant(i.PlantId))];
}

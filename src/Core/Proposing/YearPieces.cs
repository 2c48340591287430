using System.Collections;
using NodaTime;
using UnrulyMeadow.Core.Arranging;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Recipes;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Stacks;
using UnrulyMeadow.Core.Work;

namespace UnrulyMeadow.Core.Proposing;

/// <summary>
/// Finds what could be planted in the planters of a unit through a year: single kinds and mixes of those that fit, bulbs in stacks, an
/// evergreen to stand for years, and the site's recipes; each followed through every weather year, and none that a check speaks against.
/// </summary>
public sealed class YearPieces
{
    // Of the kinds that fit, so many are tried alone, and so many of those together.
    private const int MostSingles = 7;
    private const int MostLasting = 3;
    private const int MostPairs = 8;
    private const int MostTriples = 3;
    private const int MostMixed = 9;
    private const int MostBulbs = 9;
    private const int MostFrames = 2;

    // And so many recipes, for planters so many times as large or small as theirs.
    private const int MostRecipes = 6;
    private const double MostTimes = 8;

    // Of what was tried for one time and layer, so many of the best, of the cheapest and of the quickest are kept.
    private const int MostBest = 8;
    private const int MostThrifty = 3;

    // A display may stand through so many times between turns.
    private const int MostSlots = 3;

    // Bulbs set in fall are in flower until so many days later (common practice: late tulips into May).
    private const int DaysOfBulbs = 190;

    // A visit to a planter takes so long whatever is set there (an exchange of our own).
    private const int MinutesOfVisit = 5;

    // So wide a part of a bed shows how close plants stand in it.
    private const double PatchCm = 110;

    private const int FewestDays = 21;
    private const int LeastGain = 5;
    private const double LeastOdds = 0.15;

    private readonly Plan _plan;
    private readonly ProposalUnit _unit;
    private readonly IReadOnlyList<TurnSlot> _slots;
    private readonly SeasonKernel _kernel;
    private readonly SiteFlowering _flowering;
    private readonly PlantingTime _time;
    private readonly YearWish _wish;
    private readonly Func<Plan, DisplayChecks> _checks;
    private readonly HouseRules _rules;
    private readonly HashSet<string> _never;
    private readonly HashSet<string> _favourites;
    private readonly PlanterSeason[] _before;
    private readonly LocalDate _end;
    private readonly Dictionary<string, int[]> _counts = new(StringComparer.Ordinal);
    private readonly List<YearPiece> _found = [];
    private readonly List<YearPiece> _kept = [];

    private YearPieces(
        Plan plan,
        ProposalUnit unit,
        IReadOnlyList<TurnSlot> slots,
        SeasonKernel kernel,
        SiteFlowering flowering,
        PlantingTime time,
        YearWish wish,
        Func<Plan, DisplayChecks> checks
    )
    {
        _checks = checks;
        (_unit, _slots, _kernel, _flowering, _time, _wish) = (unit, slots, kernel, flowering, time, wish);
        _plan = Only(plan, unit);
        _rules = plan.Site.RulesFor(unit.Lead);
        _never = [.. wish.Never];
        _favourites = [.. wish.Favourites];
        _end = wish.Start.PlusYears(1);
        _before = [.. unit.Planters.Select(p => kernel.Try(_plan, p))];
    }

    /// <summary>Every piece worth weighing for a unit.</summary>
    /// <param name="plan">The plan that it is added to.</param>
    /// <param name="unit">The planters.</param>
    /// <param name="slots">The times between turns.</param>
    /// <param name="kernel">The season's kernel of the plan year.</param>
    /// <param name="flowering">The site's flowering in the same plan year.</param>
    /// <param name="time">When the ground takes a planting.</param>
    /// <param name="wish">What is wanted.</param>
    /// <param name="checks">Makes the checks of a plan.</param>
    public static IReadOnlyList<YearPiece> For(
        Plan plan,
        ProposalUnit unit,
        IReadOnlyList<TurnSlot> slots,
        SeasonKernel kernel,
        SiteFlowering flowering,
        PlantingTime time,
        YearWish wish,
        Func<Plan, DisplayChecks> checks
    )
    {
        var pieces = new YearPieces(plan, unit, slots, kernel, flowering, time, wish, checks);
        for (int s = 0; s < slots.Count; s++)
        {
            for (int n = 1; n <= MostSlots && s + n <= slots.Count; n++)
            {
                pieces.Seasonal(s, n);
                pieces.Keep();
            }
            if (slots[s].TakesBulbs)
            {
                pieces.Bulbs(s);
                pieces.Keep();
            }
        }
        pieces.Frames();
        pieces.Keep();
        return pieces._kept;
    }

    /// <summary>A plan of a unit's planters alone, so that trying something costs what the unit costs.</summary>
    public static Plan Only(Plan plan, ProposalUnit unit)
    {
        HashSet<string> groups = [.. unit.Planters.Select(p => p.Survey.LookGroup.ToUpperInvariant()).Where(g => g.Length > 0)];
        HashSet<string> ids = [.. unit.Planters.Select(p => p.Id)];
        IReadOnlyList<Planter> planters = [.. plan.Planters.Where(p => ids.Contains(p.Id) || groups.Contains(p.Survey.LookGroup.ToUpperInvariant()))];
        return new Plan(
            plan.Site,
            plan.Areas,
            planters,
            plan.Palette,
            [.. planters.SelectMany(p => plan.DisplaysOf(p.Id))],
            plan.Turns,
            lots: [.. plan.Lots.Select(l => planters.Any(p => p.Id == l.FromPlanterId) ? l : l with { FromPlanterId = null })],
            recipes: plan.Recipes
        );
    }

    // Of what was tried since the last time, the best, the cheapest and the quickest that no check speaks against.
    private void Keep()
    {
        if (_found.Count == 0)
            return;
        int most = _found.Max(p => p.Days);
        var showy = _found.Where(p => p.Days >= 0.6 * most).ToList();
        IEnumerable<YearPiece> inOrder = _found
            .OrderByDescending(p => p.Days + (0.5 * p.Richness))
            .Take(2 * MostBest)
            .Concat(showy.OrderBy(p => p.Cost).Take(2 * MostThrifty))
            .Concat(showy.OrderBy(p => p.Minutes).Take(2 * MostThrifty))
            .Concat(_found.Where(p => p.Recipe is not null))
            .Distinct();
        int kept = 0;
        foreach (YearPiece piece in inOrder)
        {
            bool locked = _wish.Locks.Any(l => l.PieceId == piece.Id);
            if (kept >= MostBest + (2 * MostThrifty) && !locked && piece.Recipe is null)
                continue;
            DisplayChecks with = _checks(_plan.Changed([], piece.Displays));
            if (!piece.Displays.Any(d => with.SpeakAgainst(d)))
            {
                _kept.Add(piece);
                kept++;
            }
        }
        _found.Clear();
    }

    private double PocketC => _plan.AreaOf(_unit.Lead).FrostPocketC + _unit.Lead.Survey.FrostPocketC;

    private void Seasonal(int slot, int slots)
    {
        LocalDate wanted = _slots[slot].From;
        LocalDate until = _slots[slot + slots - 1].To;
        if (Free(_unit.Lead, DisplayLayer.Seasonal, wanted, until) is not { } free)
            return;
        LocalDate last = free.To.PlusDays(-1) < _end ? free.To.PlusDays(-1) : _end.PlusDays(-1);
        if (last <= free.From)
            return;
        IReadOnlyList<Plant> ranked = Ranked(free.From, last);
        Plant[] passing = [.. ranked.Where(p => !p.IsLasting && p.LifeForm != LifeForm.CutStems).Take(slots == 1 ? MostSingles : 4)];
        Plant[] lasting = [.. ranked.Where(p => p.IsLasting || p.LifeForm == LifeForm.CutStems).Take(slots == 1 ? MostLasting : 1)];
        void Mix(params Plant[] kinds) => Offer(slot, slots, DisplayLayer.Seasonal, (p, f) => Full(p, kinds, f.From, f.To), kinds, null);
        foreach (Plant plant in passing.Concat(lasting))
            Mix(plant);
        Plant[] mixed = [.. ranked.Where(p => p.LifeForm != LifeForm.CutStems).Take(MostMixed)];
        var pairs =
            from a in Enumerable.Range(0, mixed.Length)
            from b in Enumerable.Range(a + 1, mixed.Length - a - 1)
            orderby a + b
            select (First: mixed[a], Second: mixed[b]);
        var matched = pairs.Where(p => GoTogether([p.First, p.Second], free)).Take(slots == 1 ? MostPairs : 2).ToList();
        foreach ((Plant first, Plant second) in matched)
            Mix(first, second);
        if (slots > 1)
            return;
        // A tall one singly, with two that go together at its feet.
        var triples =
            from pair in matched
            from tall in mixed
            where tall.HeightCm > 1.4 * Math.Max(pair.First.HeightCm, pair.Second.HeightCm)
            where GoTogether([tall, pair.First, pair.Second], free)
            select new[] { tall, pair.First, pair.Second };
        foreach (Plant[] triple in triples.Take(MostTriples))
            Mix(triple);
        foreach (Recipe recipe in Recipes(DisplayLayer.Seasonal, free.From, last))
            Plant(recipe, slot, slots);
    }

    // Whether no check speaks against some kinds in the lead's planter: their colours, their water and medium.
    private bool GoTogether(Plant[] kinds, (LocalDate From, LocalDate To) free)
    {
        double each = _unit.Lead.Form.SurfaceCm2 / kinds.Length;
        var display = new Display(
            YearPiece.DisplayId(_plan, _unit.Lead.Id, DisplayLayer.Seasonal, free.From),
            _unit.Lead.Id,
            DisplayLayer.Seasonal,
            free.From,
            free.To,
            [.. kinds.Select(k => new DisplayItem(k.Id, Math.Max(1, (int)(each / (k.MatureSpreadCm * k.MatureSpreadCm)))))]
        );
        return !_checks(_plan.Changed([], [display])).SpeakAgainst(display, isCounted: false);
    }

    private void Plant(Recipe recipe, int slot, int slots, LocalDate? lift = null) =>
        Offer(
            slot,
            slots,
            recipe.Layer,
            (p, _) => [.. ScaledRecipe.For(recipe, p, _plan.Site, _plan.Plant).Items],
            [.. recipe.Items.Select(i => _plan.Plant(i.PlantId))],
            recipe,
            lift
        );

    // Recipes of a layer whose kinds may go in on a day, those that show most until another first; what was kept of an earlier answer is among them.
    private IReadOnlyList<Recipe> Recipes(DisplayLayer layer, LocalDate first, LocalDate last)
    {
        var question = new FitQuestion(_flowering, _plan.Site, _unit.Lead, _plan.AreaOf(_unit.Lead), first, last);
        var ranked = _plan
            .Recipes.Where(r => r.Layer == layer)
            .Select(r => (Recipe: r, Kinds: (Plant[])[.. r.Items.Select(i => _plan.FindPlant(i.PlantId)).OfType<Plant>()]))
            .Where(r =>
                r.Kinds.Length == r.Recipe.Items.Count
                && Array.TrueForAll(r.Kinds, CanGoIn)
                && Array.Exists(r.Kinds, k => _favourites.Contains(k.Id) || _wish.Wants(k))
                && IsOfASize(r.Recipe)
            )
            .Select(r => (r.Recipe, Odds: r.Kinds.Average(k => question.Of(k).Odds * (1 + (0.5 * Liked(k))))))
            .Where(r => r.Odds > LeastOdds)
            .OrderByDescending(r => r.Odds)
            .ToList();
        return
        [
            .. ranked
                .Where((r, i) => i < MostRecipes || _wish.Locks.Any(l => l.PieceId.EndsWith($"recipe:{r.Recipe.Id}", StringComparison.Ordinal)))
                .Select(r => r.Recipe),
        ];

        bool CanGoIn(Plant plant) =>
            !plant.IsRetired && !_never.Contains(plant.Id) && plant.IsSoldOn(first, _flowering.IsSouthern) && !IsWronglyLit(plant);
    }

    // A pattern for pots says little of a bed, and one for a bowl little of a tank.
    private bool IsOfASize(Recipe recipe) =>
        recipe.Form.IsBed == _unit.Lead.Form.IsBed
        && recipe.Form.SurfaceCm2 / _unit.Lead.Form.SurfaceCm2 is var ratio
        && ratio is > 1 / MostTimes and < MostTimes;

    private bool IsWronglyLit(Plant plant) => _unit.Planters.Any(p => !plant.Suits(p.Exposure));

    private void Bulbs(int slot)
    {
        LocalDate install = _slots[slot].From;
        TurnSlot? summer = _slots.Skip(slot + 1).FirstOrDefault(s => s.From >= install.PlusDays(DaysOfBulbs) || s.From >= _flowering.AllClear);
        LocalDate clear = summer?.From ?? _slots[slot].To;
        LocalDate lift = _rules.Tulips == TulipSchool.Perennial ? clear.PlusYears(2) : clear;
        LocalDate first = install.PlusDays(60);
        LocalDate last = clear.PlusDays(-1) < first.PlusDays(290) ? clear.PlusDays(-1) : first.PlusDays(290);
        if (last <= first)
            return;
        var wish = new StackWish(first, last, _wish.Colours, null, 8);
        StackCandidate[] bulbs =
        [
            .. StackCandidate
                .Showing(_plan, _unit.Lead, _flowering, wish)
                .Where(s => !_never.Contains(s.Plant.Id) && s.Plant.IsSoldOn(install, _flowering.IsSouthern))
                .OrderByDescending(s => s.Odds.Sum() * (1 + (0.5 * Liked(s.Plant))))
                .Select(s => StackCandidate.Measured(_plan, _unit.Lead, wish, s.Plant, s.Odds))
                .OfType<StackCandidate>()
                .Take(MostBulbs),
        ];
        void Stack(params StackCandidate[] kinds) =>
            Offer(
                slot,
                1,
                DisplayLayer.Bulbs,
                (p, _) =>
                    [
                        .. kinds.Select(k =>
                            p == _unit.Lead ? new DisplayItem(k.Plant.Id, k.Count)
                            : StackCandidate.Measured(_plan, p, wish, k.Plant, k.Odds) is { } own ? new DisplayItem(k.Plant.Id, own.Count)
                            : new DisplayItem(k.Plant.Id, 0)
                        ),
                    ],
                [.. kinds.Select(k => k.Plant)],
                null,
                lift
            );
        foreach (StackCandidate bulb in bulbs.Take(4))
            Stack(bulb);
        double Weeks(params StackCandidate[] kinds) => Enumerable.Range(0, kinds[0].Odds.Count).Sum(w => kinds.Max(k => k.Odds[w]));
        var pairs =
            from a in Enumerable.Range(0, bulbs.Length)
            from b in Enumerable.Range(a + 1, bulbs.Length - a - 1)
            select new[] { bulbs[a], bulbs[b] };
        foreach (StackCandidate[] pair in pairs.OrderByDescending(p => Weeks(p)).Take(3))
            Stack(pair);
        var triples =
            from a in Enumerable.Range(0, bulbs.Length)
            from b in Enumerable.Range(a + 1, bulbs.Length - a - 1)
            from c in Enumerable.Range(b + 1, bulbs.Length - b - 1)
            select new[] { bulbs[a], bulbs[b], bulbs[c] };
        foreach (StackCandidate[] triple in triples.OrderByDescending(p => Weeks(p)).Take(4))
            Stack(triple);
        foreach (Recipe recipe in Recipes(DisplayLayer.Bulbs, install, last))
            Plant(recipe, slot, 1, lift);
    }

    // An evergreen that stands for years, in a container that has nothing of the kind.
    private void Frames()
    {
        if (_slots.Count == 0 || _unit.Planters.Any(p => p.Form.IsBed || _plan.DisplaysOf(p.Id).Any(d => d.Layer == DisplayLayer.Standing)))
            return;
        for (int slot = 0; slot < _slots.Count; slot++)
        {
            LocalDate install = _slots[slot].From;
            IEnumerable<Plant> evergreen = Ranked(install, _end.PlusDays(-1))
                .Where(p => p.IsLasting && p.Green == GreenLeaf.Evergreen && !_time.Against(p, false, install).Any());
            foreach (Plant plant in evergreen.Take(MostFrames))
                Offer(
                    slot,
                    _slots.Count - slot,
                    DisplayLayer.Standing,
                    (_, _) => [new DisplayItem(plant.Id, 1)],
                    [plant],
                    null,
                    Display.OpenEnd(install)
                );
            if (_found.Count > 0)
                return;
        }
    }

    // When a layer of a planter is free between two days; null where it is not for long enough to plant anything.
    private (LocalDate From, LocalDate To)? Free(Planter planter, DisplayLayer layer, LocalDate from, LocalDate to)
    {
        foreach (Display display in _plan.DisplaysOf(planter.Id).Where(d => d.Layer == layer && d.Lift > from && d.Install < to))
        {
            if (display.Install <= from.PlusDays(FewestDays))
                from = display.Lift;
            else if (display.Install < to)
                to = display.Install;
        }
        if (layer == DisplayLayer.Seasonal && !_rules.WorksOn(from))
            from = _rules.WorkingDayFrom(from);
        return to >= from.PlusDays(FewestDays) ? (from, to) : null;
    }

    // Kinds that fit the unit between two days, those that show most first; one of a species, so that the choice is a choice.
    private IReadOnlyList<Plant> Ranked(LocalDate first, LocalDate last)
    {
        FitQuestion[] questions =
        [
            .. _unit
                .Planters.DistinctBy(p => (p.Form, p.Exposure, p.Wall, p.Survey))
                .Select(p => new FitQuestion(_flowering, _plan.Site, p, _plan.AreaOf(p), first, last)),
        ];
        return
        [
            .. _plan
                .Palette.Where(p =>
                    p.GoesOutInLeaf
                    && !p.IsRetired
                    && !_never.Contains(p.Id)
                    && !IsWronglyLit(p)
                    && (_favourites.Contains(p.Id) || _wish.Wants(p))
                    && p.IsSoldOn(first, _flowering.IsSouthern)
                    && !(p.IsTender && first < _flowering.AllClear && first >= _flowering.AllClear.PlusMonths(-8))
                    && !_time.Against(p, false, first).Any()
                )
                .Select(p => questions[0].Of(p))
                .Where(f => f.Odds > LeastOdds && Fits(f))
                .OrderByDescending(f => f.Score * (1 + (0.5 * Liked(f.Plant))))
                .Select(f => f.Plant)
                .DistinctBy(p => p.BotanicalName)
                .Take(3 * MostSingles)
                .Where(p => questions.Skip(1).All(q => Fits(q.Of(p)))),
        ];
    }

    private static bool Fits(PlantFit fit) => fit.Reasons.All(r => r.Verdict != FitVerdict.Fails || r.What == FitAspect.Colour);

    private double Liked(Plant plant) =>
        _favourites.Contains(plant.Id) ? 1
        : plant.IsShortlisted ? 0.5
        : 0;

    // So many of each that the planter is as full as the house rule wants it.
    private DisplayItem[] Full(Planter planter, Plant[] kinds, LocalDate install, LocalDate lift)
    {
        Display[] standing = [.. _plan.DisplaysOf(planter.Id).Where(d => d.Layer == DisplayLayer.Standing && d.Install < lift && d.Lift > install)];
        string key =
            $"{planter.Form} {(standing.Length == 0 ? string.Empty : planter.Id)} {install} {lift} {string.Join(' ', kinds.Select(k => k.Id))}";
        if (!_counts.TryGetValue(key, out int[]? counts))
        {
            LocalDate by = FullnessQuestion.By(install, lift);
            int day = Math.Clamp(Period.DaysBetween(_wish.Start, by), 0, _kernel.Days - 1);
            double[] wide = [.. kinds.Select(k => (double)_flowering.Spread(k, install, lift, PocketC)[day])];
            double[] spread = [.. kinds.Select((k, i) => wide[i] > 0 ? wide[i] : k.SpreadAtPurchaseCm)];
            // The tallest of three stands singly among many.
            // How close plants stand in a large bed shows on a part of it.
            double times = planter.Form.IsBed && standing.Length == 0 ? Math.Max(1, planter.Form.SurfaceCm2 / (PatchCm * PatchCm)) : 1;
            Planter patch =
                times > 1
                    ? planter with
                    {
                        Form = new PlanterForm(PlanterShape.RectangularBed, PatchCm, PatchCm, PatchCm, PatchCm, planter.Form.DepthCm, 0),
                    }
                    : planter;
            var question = FullnessQuestion.Beside(_plan, patch, [.. kinds.Select((k, i) => (k, kinds.Length > 2 && i == 0 ? 1 : 2))], standing);
            FullnessAnswer answer = question.By(_plan.Site.RulesFor(planter).Density, FullnessQuestion.Full, spread);
            counts =
                answer.Total > 0
                    ? [.. answer.Counts]
                    : FullnessQuestion.InProportion([.. kinds.Select((_, i) => kinds.Length > 2 && i == 0 ? 1 : 2)], question.Most);
            counts = [.. counts.Select(c => Math.Max(1, (int)Math.Round(c * times)))];
            _counts[key] = counts;
        }
        return [.. kinds.Select((k, i) => new DisplayItem(k.Id, counts[i]))];
    }

    private void Offer(
        int slot,
        int slots,
        DisplayLayer layer,
        Func<Planter, (LocalDate From, LocalDate To), DisplayItem[]> items,
        Plant[] kinds,
        Recipe? recipe,
        LocalDate? lift = null
    )
    {
        var displays = new List<Display>();
        var gains = new List<BitArray>();
        double colour = 0;
        int minutes = 0;
        for (int i = 0; i < _unit.Planters.Count; i++)
        {
            Planter planter = _unit.Planters[i];
            if (Free(planter, layer, _slots[slot].From, lift ?? _slots[slot + slots - 1].To) is not { } free)
                return;
            DisplayItem[] own = items(planter, free);
            var display = new Display(YearPiece.DisplayId(_plan, planter.Id, layer, free.From), planter.Id, layer, free.From, free.To, own);
            if (
                own.Any(o => o.Count < 1)
                || display.Faults().Count > 0
                || _time.IsFrozen(planter, free.From)
                || kinds.Any(k => _time.Against(k, false, free.From).Any())
                || (layer == DisplayLayer.Bulbs && BulbStack.Of(_plan, planter, display).Problems.Count > 0)
            )
                return;
            PlanterSeason after = _kernel.Try(_plan, planter, [.. _plan.DisplaysOf(planter.Id), display]);
            var gained = new BitArray(after.Days);
            for (int d = 0; d < after.Days; d++)
            {
                gained[d] = after.ShareInColour[d] >= ColourOdds.InColour && _before[i].ShareInColour[d] < ColourOdds.InColour;
                colour += after.Cover50[d] - _before[i].Cover50[d];
            }
            displays.Add(display);
            gains.Add(gained);
            minutes += MinutesOfVisit + Labour.MinutesToSetAndClear(planter, [.. own.Select(o => (_plan.Plant(o.PlantId), o))], _plan.Records.Labour);
        }
        string name = recipe is null ? string.Join('+', kinds.Select(k => k.Id)) : $"recipe:{recipe.Id}";
        var piece = new YearPiece(
            $"{layer} {slot}+{slots} {name}",
            slot,
            slots,
            layer,
            displays,
            gains,
            colour,
            Cost(displays),
            minutes,
            kinds.Average(Liked)
        )
        {
            Kinds = kinds.Length,
            Recipe = recipe,
        };
        if (piece.Days >= LeastGain * _unit.Planters.Count)
            _found.Add(piece);
    }

    private decimal Cost(IEnumerable<Display> displays) =>
        displays
            .SelectMany(d => d.Items)
            .GroupBy(i => i.PlantId, StringComparer.Ordinal)
            .Sum(g => _plan.Site.GuidePrice(_plan.Plant(g.Key), g.Sum(i => i.Count), _rules.Stage == StageSchool.InColour));
}

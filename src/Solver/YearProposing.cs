using System.Collections;
using Google.OrTools.Sat;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Proposing;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Solver;

/// <summary>What is proposed for the planters of a unit.</summary>
/// <param name="Unit">The planters.</param>
/// <param name="Pieces">What goes in, the earliest first.</param>
/// <param name="Others">For each piece, what else could go in at its time and layer, the best first.</param>
/// <param name="Before">The years of the planters as they are.</param>
/// <param name="After">The same with the pieces planted, followed through every weather year.</param>
public sealed record ProposedUnit(
    ProposalUnit Unit,
    IReadOnlyList<YearPiece> Pieces,
    IReadOnlyList<IReadOnlyList<YearPiece>> Others,
    IReadOnlyList<PlanterSeason> Before,
    IReadOnlyList<PlanterSeason> After
);

/// <summary>A whole year proposed.</summary>
/// <param name="Character">What it is best at.</param>
/// <param name="Units">What is proposed for each unit.</param>
/// <param name="Bound">
/// What no choice among the pieces found that leaves as few bare runs can beat: planter-days brought into colour at most, money or minutes at
/// least, as the character has it.
/// </param>
public sealed record ProposedYear(YearCharacter Character, IReadOnlyList<ProposedUnit> Units, double Bound)
{
    /// <summary>What is to be bought, guide prices.</summary>
    public decimal Cost => Units.SelectMany(u => u.Pieces).Sum(p => p.Cost);

    /// <summary>Minutes that setting and taking out takes one person.</summary>
    public int Minutes => Units.SelectMany(u => u.Pieces).Sum(p => p.Minutes);

    /// <summary>Planter-days that the pieces bring into colour, no day counted twice, each piece by itself.</summary>
    public int Gained => Units.Sum(u => YearProposing.Covered(u.Pieces));
}

/// <summary>Three years for some planters, that differ in character.</summary>
/// <param name="Wish">What was wanted.</param>
/// <param name="Slots">The times between turns.</param>
/// <param name="Removed">Displays of the plan that make way, whichever year is taken.</param>
/// <param name="Years">The years; of those that are the same only the first is named.</param>
/// <param name="Considered">Pieces that were weighed.</param>
public sealed record YearProposal(
    YearWish Wish,
    IReadOnlyList<TurnSlot> Slots,
    IReadOnlyList<Display> Removed,
    IReadOnlyList<ProposedYear> Years,
    int Considered
);

/// <summary>Puts whole years together from pieces, so that colour does not break, within what is allowed.</summary>
public static class YearProposing
{
    // Share of the most days that the richest year may give up for more colour on the others.
    private const double Within = 0.04;

    // A run of days without colour that is longer than is put up with weighs more than any gain.
    private const int RunWeighs = 2000;

    private const int MostOthers = 6;

    // When first years are told.
    private static readonly TimeSpan FirstAnswer = TimeSpan.FromSeconds(1);
    private const int MostTries = 8;

    /// <summary>Proposes.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="kernel">The season's kernel of the plan year.</param>
    /// <param name="flowering">The site's flowering in the same plan year.</param>
    /// <param name="wish">What is wanted.</param>
    /// <param name="checks">Makes the checks of a plan.</param>
    /// <param name="seconds">Longest the solver may think for each year, seconds.</param>
    /// <param name="sofar">Told the count of planters looked through, and first years as soon as there are some.</param>
    /// <param name="cancel">Stops the work.</param>
    /// <exception cref="InvalidInputException">The wish is faulty, or its parts contradict each other.</exception>
    public static YearProposal Propose(
        Plan plan,
        SeasonKernel kernel,
        SiteFlowering flowering,
        YearWish wish,
        Func<Plan, DisplayChecks> checks,
        double seconds = 10,
        IProgress<(int Planters, YearProposal? Proposal)>? sofar = null,
        CancellationToken cancel = default
    )
    {
        var faults = new FaultList();
        faults.AddAll(string.Empty, wish.Faults(plan));
        if (kernel.Seasons.Count == 0)
            faults.Add("weather", "is not known yet: bring in a station's record, and years can be proposed");
        faults.ThrowIfAny();
        if (!plan.Palette.Any(p => !p.IsRetired && !wish.Never.Contains(p.Id, StringComparer.Ordinal) && wish.Wants(p)))
            throw new InvalidInputException("colours", "conflict with the palette and the kinds not wanted: no kind that is left shows any of them");
        HashSet<string> ids = [.. wish.PlanterIds];
        IReadOnlyList<Planter> planters = [.. plan.Planters.Where(p => ids.Contains(p.Id))];
        Display[] removed = wish.KeepsPlanned
            ? []
            :
            [
                .. planters
                    .SelectMany(p => plan.DisplaysOf(p.Id))
                    .Where(d => d.Layer != DisplayLayer.Standing && d.Install >= wish.From && d.Install >= wish.Start)
                    .Where(d => d.Install < wish.Start.PlusYears(1)),
            ];
        Plan open = removed.Length == 0 ? plan : plan.Changed([.. removed.Select(d => d.Id)], []);
        var time = new PlantingTime(kernel);
        IReadOnlyList<TurnSlot> slots = TurnCalendar.Of(open, planters, wish, flowering, time);
        if (slots.Count == 0)
            throw new InvalidInputException(
                "from",
                $"leaves no turn in this plan year: the last would be before {wish.From.ToString("d MMM uuuu", null)}"
            );
        IReadOnlyList<ProposalUnit> units = ProposalUnit.Of(open, planters, wish.Start);
        var kinds = new List<(ProposalUnit First, List<ProposalUnit> All)>();
        foreach (ProposalUnit unit in units)
        {
            // What somebody has settled for one unit does not hold for another that is like it.
            HashSet<string> settled = Settled(wish, unit);
            var like = kinds.FirstOrDefault(k => settled.SetEquals(Settled(wish, k.First)) && k.First.IsLike(open, unit));
            if (like.All is null)
                kinds.Add((unit, [unit]));
            else
                like.All.Add(unit);
        }
        var found = new Work[kinds.Count];
        int done = 0;
        var watch = System.Diagnostics.Stopwatch.StartNew();
        int told = 0;
        Parallel.For(
            0,
            kinds.Count,
            new ParallelOptions
            {
                CancellationToken = cancel,
                MaxDegreeOfParallelism = Environment.ProcessorCount,
                TaskScheduler = TaskScheduler.Current,
            },
            k =>
            {
                IReadOnlyList<YearPiece> pieces = YearPieces.For(open, kinds[k].First, slots, kernel, flowering, time, wish, checks);
                found[k] = new Work(
                    open,
                    kinds[k].First,
                    kinds[k].All,
                    pieces,
                    [.. kinds[k].First.Planters.Select(p => InColour(kernel.Try(open, p)))]
                );
                int count = Interlocked.Add(ref done, kinds[k].All.Sum(u => u.Planters.Count));
                sofar?.Report((count, null));
                // Something to look at while the rest is looked through: once, and not where all is there in a moment.
                if (sofar is not null && watch.Elapsed > FirstAnswer && Interlocked.Exchange(ref told, 1) == 0)
                    sofar.Report((count, Answer(open, wish, slots, removed, [.. found.Where(w => w is not null)], kernel, checks, 0.3, cancel)));
            }
        );
        foreach (PieceLock settled in wish.Locks)
        {
            bool Holds(Work w) => w.All.Any(u => u.Planters.Any(x => x.Id == settled.PlanterId));
            if (!found.Any(w => Holds(w) && w.Pieces.Any(p => p.Id == settled.PieceId)))
                throw new InvalidInputException("locks", "name something that no longer fits its planter: let it go, and ask again");
        }
        decimal settledCost = found
            .SelectMany(w => w.Pieces.Where(p => Settled(wish, w.First).Contains(p.Id)).Select(p => p.Cost * w.All.Count))
            .Sum();
        if (settledCost > wish.Budget)
            throw new InvalidInputException(
                "budget",
                FormattableString.Invariant($"conflicts with what is settled, which alone costs {settledCost:0.00}: allow more, or let something go")
            );
        return Answer(open, wish, slots, removed, found, kernel, checks, seconds, cancel);
    }

    /// <summary>Planter-days that pieces of one unit bring into colour, no day counted twice.</summary>
    public static int Covered(IReadOnlyList<YearPiece> pieces)
    {
        if (pieces.Count == 0)
            return 0;
        int days = 0;
        for (int p = 0; p < pieces[0].Gains.Count; p++)
        {
            var all = new BitArray(pieces[0].Gains[p]);
            foreach (YearPiece piece in pieces)
                all.Or(piece.Gains[p]);
            days += all.Cast<bool>().Count(b => b);
        }
        return days;
    }

    private static BitArray InColour(PlanterSeason season) => new([.. season.ShareInColour.Select(s => s >= ColourOdds.InColour)]);

    private static HashSet<string> Settled(YearWish wish, ProposalUnit unit) =>
        [.. wish.Locks.Where(l => unit.Planters.Any(p => p.Id == l.PlanterId)).Select(l => l.PieceId)];

    private static YearProposal Answer(
        Plan open,
        YearWish wish,
        IReadOnlyList<TurnSlot> slots,
        IReadOnlyList<Display> removed,
        IReadOnlyList<Work> works,
        SeasonKernel kernel,
        Func<Plan, DisplayChecks> checks,
        double seconds,
        CancellationToken cancel
    )
    {
        var years = new List<ProposedYear>();
        foreach (YearCharacter character in Enum.GetValues<YearCharacter>())
        {
            ProposedYear year = One(open, wish, works, character, kernel, checks, seconds, cancel);
            if (years.All(y => !AreSame(y, year)))
                years.Add(year);
        }
        return new YearProposal(wish, slots, removed, years, works.Sum(w => w.Pieces.Count * w.All.Count));
    }

    private static bool AreSame(ProposedYear one, ProposedYear other) =>
        one.Units.Zip(other.Units).All(u => u.First.Pieces.Select(p => p.Id).SequenceEqual(u.Second.Pieces.Select(p => p.Id)));

    private static ProposedYear One(
        Plan open,
        YearWish wish,
        IReadOnlyList<Work> works,
        YearCharacter character,
        SeasonKernel kernel,
        Func<Plan, DisplayChecks> checks,
        double seconds,
        CancellationToken cancel
    )
    {
        var chosen = new IReadOnlyList<YearPiece>[works.Count];
        double bound = 0;
        List<int> left = [.. Enumerable.Range(0, works.Count)];
        var banned = works.Select(_ => new HashSet<string>(StringComparer.Ordinal)).ToList();
        for (int tries = 0; ; tries++)
        {
            cancel.ThrowIfCancellationRequested();
            if (wish.Budget is null)
            {
                // Nothing is shared: each kind of unit is a question of its own.
                foreach (int k in left)
                {
                    (IReadOnlyList<YearPiece>[] best, double most) = Choose([works[k]], [banned[k]], wish, character, seconds / works.Count, cancel);
                    chosen[k] = best[0];
                    if (tries == 0)
                        bound += most;
                }
            }
            else
            {
                (IReadOnlyList<YearPiece>[] best, double most) = Choose(works, banned, wish, character, seconds / (tries + 1), cancel);
                chosen = best;
                bound = tries == 0 ? most : bound;
            }
            // What is wrong in company is left out, and the rest chosen anew; in the end it goes without another in its place.
            left = [.. Enumerable.Range(0, works.Count).Where(k => Ban(works[k], chosen[k], banned[k], wish, checks))];
            if (left.Count == 0)
                break;
            if (tries < MostTries)
                continue;
            foreach (int k in left)
            {
                do
                {
                    chosen[k] = [.. chosen[k].Where(p => !banned[k].Contains(p.Id))];
                } while (Ban(works[k], chosen[k], banned[k], wish, checks));
            }
            break;
        }
        Dictionary<string, int> order = open.Planters.Select((p, i) => (p.Id, i)).ToDictionary(x => x.Id, x => x.i, StringComparer.Ordinal);
        return new ProposedYear(
            character,
            [
                .. works
                    .SelectMany((w, k) => w.All.Select(unit => Proposed(open, w, unit, chosen[k], banned[k], kernel)))
                    .OrderBy(u => order[u.Unit.Lead.Id]),
            ],
            bound
        );
    }

    private static ProposedUnit Proposed(
        Plan open,
        Work work,
        ProposalUnit unit,
        IReadOnlyList<YearPiece> chosen,
        HashSet<string> banned,
        SeasonKernel kernel
    )
    {
        YearPiece[] pieces = [.. chosen.Select(p => p.For(open, unit)).OrderBy(p => p.FirstSlot).ThenBy(p => p.Layer)];
        IReadOnlyList<YearPiece>[] others =
        [
            .. pieces.Select(p =>
                (IReadOnlyList<YearPiece>)
                    [
                        .. work
                            .Pieces.Where(o =>
                                o.Id != p.Id
                                && !banned.Contains(o.Id)
                                && o.Layer == p.Layer
                                && o.FirstSlot == p.FirstSlot
                                && chosen.All(c => c.Id == p.Id || !c.Conflicts(o))
                            )
                            .OrderByDescending(o => o.Days + (0.5 * o.Richness))
                            .Take(MostOthers)
                            .Select(o => o.For(open, unit)),
                    ]
            ),
        ];
        PlanterSeason After(Planter planter, int i) =>
            kernel.Try(open, planter, [.. open.DisplaysOf(planter.Id), .. pieces.Select(p => p.Displays[i])]);
        return new ProposedUnit(unit, pieces, others, [.. unit.Planters.Select(p => kernel.Try(open, p))], [.. unit.Planters.Select(After)]);
    }

    // Looks over what was chosen for a unit, every plant at its place; true where something had to be banned.
    private static bool Ban(Work work, IReadOnlyList<YearPiece> chosen, HashSet<string> banned, YearWish wish, Func<Plan, DisplayChecks> checks)
    {
        string key = string.Join('\n', chosen.Select(p => p.Id).Order(StringComparer.Ordinal));
        if (chosen.Count == 0 || work.Sound.Contains(key))
            return false;
        DisplayChecks with = checks(work.Only.Changed([], [.. chosen.SelectMany(p => p.Displays)]));
        var wrong = chosen.Where(p => p.Displays.Any(d => with.SpeakAgainst(d))).ToList();
        if (wrong.Count == 0)
        {
            work.Sound.Add(key);
            return false;
        }
        bool Settled(YearPiece piece) => wish.Locks.Any(l => l.PieceId == piece.Id && work.First.Planters.Any(p => p.Id == l.PlanterId));
        // What somebody has settled stays, and what stands beside it goes; what stands for years shades and crowds the rest, and goes first.
        List<YearPiece> open = [.. chosen.Where(p => !Settled(p))];
        YearPiece? frame = open.FirstOrDefault(p => p.Layer == DisplayLayer.Standing);
        List<YearPiece> go =
            frame is not null && !wrong.Contains(frame) ? [frame]
            : wrong.Exists(p => !Settled(p)) ? [.. wrong.Where(p => !Settled(p))]
            : open;
        if (go.Count == 0)
            throw new InvalidInputException(
                "locks",
                $"cannot all be kept: a check speaks against {string.Join(" and ", wrong.SelectMany(w => w.Displays[0].Items).Select(i => work.Only.Plant(i.PlantId).CommonName).Distinct())} there. Let one go, and ask again"
            );
        banned.UnionWith(go.Select(p => p.Id));
        return true;
    }

    /// <summary>Chooses pieces for some units together.</summary>
    /// <param name="units">The pieces of each, and for each of its planters the days on which it is in colour without any.</param>
    /// <param name="wish">What is allowed.</param>
    /// <param name="character">What is wanted most.</param>
    /// <param name="seconds">Longest the solver may think, seconds.</param>
    /// <param name="cancel">Stops the work.</param>
    /// <returns>The pieces of each unit, and what no choice can beat.</returns>
    public static (IReadOnlyList<IReadOnlyList<YearPiece>> Chosen, double Bound) Choose(
        IReadOnlyList<(ProposalUnit Unit, IReadOnlyList<YearPiece> Pieces, IReadOnlyList<BitArray> InColour)> units,
        YearWish wish,
        YearCharacter character,
        double seconds,
        CancellationToken cancel = default
    ) =>
        Choose(
            [.. units.Select(u => new Work(null, u.Unit, [u.Unit], u.Pieces, u.InColour))],
            [.. units.Select(_ => new HashSet<string>())],
            wish,
            character,
            seconds,
            cancel
        );

    private static (IReadOnlyList<YearPiece>[] Chosen, double Bound) Choose(
        IReadOnlyList<Work> works,
        IReadOnlyList<HashSet<string>> banned,
        YearWish wish,
        YearCharacter character,
        double seconds,
        CancellationToken cancel
    )
    {
        var model = new YearModel(works, banned, wish);
        // First the most days, with no run of bare days that can be helped; what follows keeps to as few such runs.
        (long days, long daysBound, int runs) = model.MostDays(seconds * 0.5, cancel);
        double bound = model.Best(character, (long)Math.Floor(days * (1 - Within)), runs, seconds * 0.5, cancel);
        return (model.Chosen(), character == YearCharacter.Richest ? daysBound : bound);
    }

    // Pieces of one kind of unit, and the units that are like it.
    private sealed class Work(
        Plan? plan,
        ProposalUnit first,
        IReadOnlyList<ProposalUnit> all,
        IReadOnlyList<YearPiece> pieces,
        IReadOnlyList<BitArray> inColour
    )
    {
        private Plan? _only;

        public ProposalUnit First { get; } = first;

        public IReadOnlyList<ProposalUnit> All { get; } = all;

        public IReadOnlyList<YearPiece> Pieces { get; } = pieces;

        // Days on which each planter of the unit is in colour without any piece.
        public IReadOnlyList<BitArray> InColour { get; } = inColour;

        // Choices of pieces that were looked over and found sound.
        public HashSet<string> Sound { get; } = new(StringComparer.Ordinal);

        public Plan Only => _only ??= YearPieces.Only(plan!, First);
    }

    // The choice as a solver sees it. Days of a planter that are alike in what brings them are one term.
    private sealed class YearModel
    {
        private readonly CpModel _model = new();
        private readonly List<(int Work, YearPiece Piece, BoolVar Take)> _take = [];
        private readonly List<LinearExpr> _days = [];
        private readonly List<LinearExpr> _runs = [];
        private readonly IReadOnlyList<Work> _works;
        private HashSet<int> _hint = [];
        private long _dayCount;

        public YearModel(IReadOnlyList<Work> works, IReadOnlyList<HashSet<string>> banned, YearWish wish)
        {
            _works = works;
            for (int w = 0; w < works.Count; w++)
                Add(w, works[w], banned[w], wish);
            if (wish.Budget is { } budget)
                _model.Add(Sum(t => Times(t) * (long)Math.Round(t.Piece.Cost * 100)) <= (long)(budget * 100));
        }

        private long Times((int Work, YearPiece Piece, BoolVar Take) t) => _works[t.Work].All.Count;

        private LinearExpr Sum(Func<(int Work, YearPiece Piece, BoolVar Take), long> weight) =>
            _take.Count == 0 ? LinearExpr.Constant(0) : LinearExpr.WeightedSum(_take.Select(t => t.Take), _take.Select(weight));

        private void Add(int w, Work work, HashSet<string> banned, YearWish wish)
        {
            var here = new List<(YearPiece Piece, BoolVar Take)>();
            foreach (YearPiece piece in work.Pieces.Where(p => !banned.Contains(p.Id)))
            {
                BoolVar take = _model.NewBoolVar($"w{w} {piece.Id}");
                here.Add((piece, take));
                _take.Add((w, piece, take));
                if (wish.Locks.Any(l => l.PieceId == piece.Id && work.First.Planters.Any(p => p.Id == l.PlanterId)))
                    _model.Add(take == 1);
            }
            foreach (var layer in here.GroupBy(h => h.Piece.Layer))
            {
                for (int slot = 0; slot <= layer.Max(h => h.Piece.FirstSlot + h.Piece.Slots); slot++)
                    _model.AddAtMostOne(layer.Where(h => h.Piece.FirstSlot <= slot && slot < h.Piece.FirstSlot + h.Piece.Slots).Select(h => h.Take));
            }
            for (int p = 0; p < work.First.Planters.Count && here.Count > 0; p++)
                AddDays(w, here, p, work, wish);
        }

        private void AddDays(int w, List<(YearPiece Piece, BoolVar Take)> here, int planter, Work work, YearWish wish)
        {
            int times = work.All.Count;
            BitArray inColour = work.InColour[planter];
            int days = here[0].Piece.Gains[planter].Length;
            var alike = new Dictionary<string, (BoolVar InColour, int Days)>(StringComparer.Ordinal);
            var of = new BoolVar?[days];
            for (int d = 0; d < days; d++)
            {
                int[] bring = [.. Enumerable.Range(0, here.Count).Where(i => here[i].Piece.Gains[planter][d])];
                if (bring.Length == 0)
                    continue;
                string key = string.Join(',', bring);
                if (!alike.TryGetValue(key, out (BoolVar InColour, int Days) known))
                {
                    known.InColour = _model.NewBoolVar($"d{w} {planter} {d}");
                    _model.Add(LinearExpr.Sum(bring.Select(i => here[i].Take)) >= known.InColour);
                }
                alike[key] = (known.InColour, known.Days + 1);
                of[d] = known.InColour;
            }
            foreach ((BoolVar brought, int count) in alike.Values)
            {
                _days.Add(brought * (count * times));
                _dayCount += count * times;
            }
            // Every run of days that is longer than is put up with holds one in colour, where a piece can bring it.
            int longest = wish.LongestBareDays + 1;
            string? before = null;
            for (int d = 0; d + longest <= days; d++)
            {
                BoolVar[] any = [.. of.Skip(d).Take(longest).OfType<BoolVar>().DistinctBy(v => v.Index)];
                string key = string.Join(',', any.Select(v => v.Index));
                if (any.Length == 0 || key == before || Enumerable.Range(d, longest).Any(x => inColour[x]))
                    continue;
                before = key;
                BoolVar bare = _model.NewBoolVar($"b{w} {planter} {d}");
                _model.Add(LinearExpr.Sum(any) + bare >= 1);
                _runs.Add(bare * times);
            }
        }

        public (long Days, long Bound, int Runs) MostDays(double seconds, CancellationToken cancel)
        {
            LinearExpr days = LinearExpr.Sum(_days);
            LinearExpr runs = LinearExpr.Sum(_runs);
            _model.Maximize(days - (runs * RunWeighs));
            if (Solve(seconds, cancel) is not { } solver)
                return (0, 0, int.MaxValue);
            // What leaves no more bare runs than the answer brings no more days than this.
            return (
                (long)solver.Value(days),
                (long)Math.Ceiling(solver.BestObjectiveBound + (solver.Value(runs) * RunWeighs) - 1e-6),
                (int)solver.Value(runs)
            );
        }

        public double Best(YearCharacter character, long leastDays, int mostRuns, double seconds, CancellationToken cancel)
        {
            if (mostRuns == int.MaxValue)
                return 0;
            _model.Add(LinearExpr.Sum(_runs) <= mostRuns);
            LinearExpr days = LinearExpr.Sum(_days);
            LinearExpr cost = Sum(Cents);
            LinearExpr minutes = Sum(Minutes);
            // One of the first outweighs all of the second together, which so decides between equals only.
            long most = 1 + _dayCount + _take.Sum(character == YearCharacter.Cheapest ? Minutes : Cents);
            switch (character)
            {
                case YearCharacter.Richest:
                    _model.Add(days >= leastDays);
                    // An exchange of our own: fifteen units of money for a day of full cover, so that nothing dear is bought for next to nothing.
                    _model.Maximize((Sum(t => Times(t) * (long)Math.Round(t.Piece.Richness * 100)) * MoneyForADay) - cost);
                    break;
                case YearCharacter.Cheapest:
                    _model.Minimize((cost * most) + minutes - days);
                    break;
                default:
                    _model.Minimize((minutes * most) + cost - days);
                    break;
            }
            if (Solve(seconds, cancel) is not { } solver || character == YearCharacter.Richest)
                return 0;
            double least = Math.Max(0, Math.Floor(solver.BestObjectiveBound / most));
            return character == YearCharacter.Cheapest ? least / 100 : least;
        }

        private long Cents((int Work, YearPiece Piece, BoolVar Take) t) => Times(t) * (long)Math.Round(t.Piece.Cost * 100);

        private long Minutes((int Work, YearPiece Piece, BoolVar Take) t) => Times(t) * t.Piece.Minutes;

        // A question of one unit is answered in a tenth of a second; a machine that is busy elsewhere gets the time to answer it all the same.
        private const double LeastSeconds = 8;

        // An answer so near its bound is as good as the best, as a share of it.
        private const double Enough = 0.002;

        private const int MoneyForADay = 15;

        public IReadOnlyList<YearPiece>[] Chosen() =>
            [.. _works.Select((_, w) => (IReadOnlyList<YearPiece>)[.. _take.Where((t, i) => t.Work == w && _hint.Contains(i)).Select(t => t.Piece)])];

        private CpSolver? Solve(double seconds, CancellationToken cancel)
        {
            _model.ClearHints();
            for (int i = 0; i < _take.Count && _hint.Count > 0; i++)
                _model.AddHint(_take[i].Take, _hint.Contains(i));
            var solver = new CpSolver();
            CpSolverStatus status = solver.Solve(_model, Math.Max(LeastSeconds, seconds), Enough, Math.Max(2, Environment.ProcessorCount), cancel);
            cancel.ThrowIfCancellationRequested();
            if (status == CpSolverStatus.Infeasible && _hint.Count == 0)
                throw new InvalidInputException(
                    "locks",
                    "cannot be kept together: two of them would fill one layer at one time. Let one go, and ask again"
                );
            if (status is not (CpSolverStatus.Optimal or CpSolverStatus.Feasible))
                return _hint.Count > 0 || _take.Count == 0
                    ? null
                    : throw new InvalidInputException(string.Empty, "no year could be put together in time, for the machine is busy: ask again");
            _hint = [.. Enumerable.Range(0, _take.Count).Where(i => solver.BooleanValue(_take[i].Take))];
            return solver;
        }
    }
}

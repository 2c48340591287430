using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using System.Runtime.InteropServices;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Season;

/// <summary>
/// Computes planters' years over all weather years laid over one plan year. Plants that stand alike in many planters are
/// followed once; what was computed for a planter is kept until something that it rests on changes. Safe for several
/// threads. The same plan and weather always give the same result.
/// </summary>
public sealed class SeasonKernel
{
    // Followed plants kept: a megabyte for each planter, within bounds. Half of it holds those last asked for; when that is
    // full, what was not asked for since the last time is dropped.
    private const long LeastBytes = 32L << 20;
    private const long MostBytes = 128L << 20;

    // From so many planters on, plants that stand alike in less than several are followed for each alone.
    private const int FewPlanters = 64;
    private const int Several = 4;

    private long _budget = LeastBytes;

    // The site's year as it was asked for last: planters that stand in the next plan as in that one keep their years.
    private volatile Asked? _asked;

    private volatile ConcurrentDictionary<(Plant Plant, Standing Standing), Lazy<PlantYears>> _followed = new(new ByPlant());
    private volatile ConcurrentDictionary<(Plant Plant, Standing Standing), Lazy<PlantYears>> _before = new(new ByPlant());
    private readonly ConcurrentDictionary<string, Known> _planters = new(StringComparer.Ordinal);
    private readonly ConcurrentBag<CoverYears> _scratch = [];
    private readonly float[][] _leaf;
    private readonly float[] _meanLeaf;
    private readonly WeatherRecord? _record;
    private long _bytes;
    private long _bytesBefore;

    /// <summary>Lays weather over a plan year.</summary>
    /// <param name="record">The weather; null when the site has none, and then nothing can be said about any planter.</param>
    /// <param name="start">First day of the plan year, the first of a month.</param>
    /// <exception cref="InvalidInputException">The start is not the first of a month.</exception>
    public SeasonKernel(WeatherRecord? record, LocalDate start)
        : this(record, start, record is null ? [] : WeatherRun.For(record, start)) { }

    /// <summary>Lays chosen weather over a plan year: some years of a record, or years changed to ask what if.</summary>
    /// <param name="record">The record they come from; null without weather.</param>
    /// <param name="start">First day of the plan year, the first of a month.</param>
    /// <param name="runs">The weather years.</param>
    public SeasonKernel(WeatherRecord? record, LocalDate start, IReadOnlyList<WeatherRun> runs)
    {
        if (start.Day != 1)
            throw new InvalidInputException("start", "must be the first of a month");
        _record = record;
        Start = start;
        Days = Period.DaysBetween(start, start.PlusMonths(12));
        Seasons = [.. runs.Select(r => new GrowingSeason(r, record!.Station.IsSouthern))];
        WeatherYears = [.. runs.Select(r => r.Year)];
        _leaf = [.. Seasons.Select(Leaf)];
        _meanLeaf = new float[Days];
        foreach (float[] leaf in _leaf)
        {
            for (int d = 0; d < Days; d++)
                _meanLeaf[d] += leaf[d] / _leaf.Length;
        }
    }

    /// <summary>First day of the plan year.</summary>
    public LocalDate Start { get; }

    /// <summary>Days in it.</summary>
    public int Days { get; }

    /// <summary>Years of the record whose weather is laid over it.</summary>
    public IReadOnlyList<int> WeatherYears { get; }

    /// <summary>The weather, year by year.</summary>
    public IReadOnlyList<GrowingSeason> Seasons { get; }

    /// <summary>Followed plants at hand, and the bytes they hold.</summary>
    public (int Count, long Bytes) Followed => (_followed.Count + _before.Count, Interlocked.Read(ref _bytes) + Interlocked.Read(ref _bytesBefore));

    /// <summary>Computes every planter in use; only those are computed anew whose inputs changed since they were last asked for.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="done">Told the count of planters done, now and then.</param>
    /// <param name="cancel">Stops the work.</param>
    public SiteYear Of(Plan plan, IProgress<int>? done = null, CancellationToken cancel = default)
    {
        Asked? asked = _asked;
        if (ReferenceEquals(asked?.Plan, plan))
            return asked.Year;
        List<Planter> inUse = [.. plan.Planters.Where(p => !p.IsRetired)];
        var seasons = new PlanterSeason[inUse.Count];
        List<int> open = Taken(asked, plan, inUse, seasons);
        PrepareGround(plan, [.. open.Select(i => inUse[i])], inUse.Count);
        HashSet<(Plant, Standing)>? shared = open.Count < FewPlanters ? null : Shared(plan, open.Select(i => inUse[i]));
        int count = 0;
        Parallel.For(
            0,
            open.Count,
            new ParallelOptions
            {
                CancellationToken = cancel,
                MaxDegreeOfParallelism = Environment.ProcessorCount,
                TaskScheduler = TaskScheduler.Current,
            },
            k =>
            {
                int i = open[k];
                seasons[i] = Of(plan, inUse[i], shared);
                int now = Interlocked.Increment(ref count);
                if (now % 32 == 0)
                    done?.Report(now);
            }
        );
        var year = new SiteYear(Start, seasons, WeatherYears);
        _asked = new Asked(plan, year);
        return year;
    }

    // Of many planters, those plants that stand alike in several: only they are worth the memory.
    private HashSet<(Plant, Standing)> Shared(Plan plan, IEnumerable<Planter> planters)
    {
        var uses = new Dictionary<(Plant, Standing), int>(new ByPlant());
        var shared = new HashSet<(Plant, Standing)>(new ByPlant());
        foreach (PlantedItem item in planters.SelectMany(p => PlantedItem.Of(plan, p, Start, Start.PlusMonths(12))))
        {
            ref int count = ref CollectionsMarshal.GetValueRefOrAddDefault(uses, (item.Plant, item.Standing), out _);
            if (++count == Several)
                shared.Add((item.Plant, item.Standing));
        }
        return shared;
    }

    // Takes over the years of planters that stand as they stood; the places of the others.
    private static List<int> Taken(Asked? asked, Plan plan, List<Planter> inUse, PlanterSeason[] seasons)
    {
        if (asked is null || plan.PlantersChangedSince(asked.Plan) is not { } changed)
            return [.. Enumerable.Range(0, inUse.Count)];
        var open = new List<int>();
        IReadOnlyList<PlanterSeason> before = asked.Year.Planters;
        // Both stand in the plans' orders, which seldom differ by much.
        Dictionary<string, PlanterSeason>? byId = null;
        for (int i = 0; i < inUse.Count; i++)
        {
            string id = inUse[i].Id;
            if (changed.Contains(id))
                open.Add(i);
            else if (i < before.Count && ReferenceEquals(before[i].Planter, inUse[i]))
                seasons[i] = before[i];
            else if (
                (byId ??= before.ToDictionary(s => s.Planter.Id, StringComparer.Ordinal)).TryGetValue(id, out PlanterSeason? known)
                && ReferenceEquals(known.Planter, inUse[i])
            )
                seasons[i] = known;
            else
                open.Add(i);
        }
        return open;
    }

    /// <summary>One planter's year; kept until something it rests on changes.</summary>
    public PlanterSeason Of(Plan plan, Planter planter) => Of(plan, planter, null);

    // Plants that few other planters have so standing are not kept, where it is known which they are.
    private PlanterSeason Of(Plan plan, Planter planter, HashSet<(Plant, Standing)>? shared)
    {
        IReadOnlyList<Display> displays = [.. plan.DisplaysOf(planter.Id)];
        Known? known = _planters.GetValueOrDefault(planter.Id);
        if (known is not null && known.RestsOnTheSame(plan, planter, displays))
            return known.Season;
        IReadOnlyList<PlantedItem> items = PlantedItem.Of(plan, planter, displays, Start, Start.PlusMonths(12));
        PlanterSeason season =
            known is null || !IsSame(plan, planter, items, known) ? Compute(plan, planter, items, null, shared)
            : ReferenceEquals(known.Season.Planter, planter) ? known.Season
            : known.Season.For(planter);
        _planters[planter.Id] = new Known(
            plan.Site,
            plan.AreaOf(planter),
            planter,
            displays,
            [.. displays.SelectMany(d => d.Items).Select(i => plan.Plant(i.PlantId))],
            items,
            season
        );
        return season;
    }

    /// <summary>One planter's year as it would be with other displays; not kept.</summary>
    /// <param name="plan">The plan, for its palette and rules.</param>
    /// <param name="planter">The planter.</param>
    /// <param name="displays">All displays that it would have; the plan's own where left out.</param>
    public PlanterSeason Try(Plan plan, Planter planter, IEnumerable<Display>? displays = null) =>
        Compute(plan, planter, PlantedItem.Of(plan, planter, displays ?? plan.DisplaysOf(planter.Id), Start, Start.PlusMonths(12)), null);

    /// <summary>One planter's year under one weather year; not kept.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="planter">The planter.</param>
    /// <param name="weatherYear">One of <see cref="WeatherYears"/>.</param>
    public PlanterSeason Of(Plan plan, Planter planter, int weatherYear) =>
        Compute(plan, planter, PlantedItem.Of(plan, planter, Start, Start.PlusMonths(12)), IndexOf(weatherYear));

    /// <summary>Every planter in use under one weather year; not kept.</summary>
    /// <exception cref="InvalidInputException">The record holds no such year.</exception>
    public SiteYear Of(Plan plan, int weatherYear)
    {
        int year = IndexOf(weatherYear);
        List<Planter> inUse = [.. plan.Planters.Where(p => !p.IsRetired)];
        PrepareGround(plan, inUse, inUse.Count);
        var seasons = new PlanterSeason[inUse.Count];
        Parallel.For(0, inUse.Count, new ParallelOptions { TaskScheduler = TaskScheduler.Current }, i =>
            seasons[i] = Compute(plan, inUse[i], PlantedItem.Of(plan, inUse[i], Start, Start.PlusMonths(12)), year)
        );
        return new SiteYear(Start, seasons, [weatherYear]);
    }

    /// <summary>A planter's year in detail: cover by colour in poor and good years, dates and losses of each plant.</summary>
    public PlanterDetail Detail(Plan plan, Planter planter) =>
        new(Of(plan, planter), With(PlantedItem.Of(plan, planter, Start, Start.PlusMonths(12))), new CoverYears(), _leaf);

    /// <summary>One plant of one standing over all weather years.</summary>
    public PlantYears Follow(Plant plant, Standing standing)
    {
        (Plant, Standing) key = (plant, standing);
        if (_followed.TryGetValue(key, out Lazy<PlantYears>? known))
            return known.Value;
        PlantYears result = _followed
            .GetOrAdd(
                key,
                _before.TryGetValue(key, out Lazy<PlantYears>? earlier)
                    ? earlier
                    : new Lazy<PlantYears>(() => PlantYears.Of(plant, standing, Seasons, Start))
            )
            .Value;
        if (Interlocked.Add(ref _bytes, result.Bytes) > Interlocked.Read(ref _budget) / 2)
        {
            Interlocked.Exchange(ref _bytesBefore, Interlocked.Exchange(ref _bytes, 0));
            _before = _followed;
            _followed = new(new ByPlant());
        }
        return result;
    }

    private PlanterSeason Compute(Plan plan, Planter planter, IReadOnlyList<PlantedItem> items, int? year, HashSet<(Plant, Standing)>? shared = null)
    {
        var season = new PlanterSeason(planter, Start, Days, plan.Site.CoverThreshold)
        {
            DeciduousLeaf = year is { } one ? _leaf[one][..Days] : _meanLeaf,
        };
        if (Seasons.Count == 0)
            return season;
        CoverYears scratch = _scratch.TryTake(out CoverYears? used) ? used : new CoverYears();
        scratch.WriteCover(season, shared is null ? With(items) : [.. items.Select(i => (i, Follow(i, shared, scratch.Room)))], _leaf, year);
        scratch.Room.Reset();
        _scratch.Add(scratch);
        return season;
    }

    private PlantYears Follow(PlantedItem item, HashSet<(Plant, Standing)> shared, DayRoom room)
    {
        (Plant, Standing) key = (item.Plant, item.Standing);
        return shared.Contains(key) || _followed.ContainsKey(key) || _before.ContainsKey(key)
            ? Follow(item.Plant, item.Standing)
            : PlantYears.Of(item.Plant, item.Standing, Seasons, Start, room);
    }

    private IReadOnlyList<(PlantedItem Item, PlantYears Years)> With(IReadOnlyList<PlantedItem> items) =>
        [.. items.Select(i => (i, Follow(i.Plant, i.Standing)))];

    private static bool IsSame(Plan plan, Planter planter, IReadOnlyList<PlantedItem> items, Known known)
    {
        if (
            known.Season.CoverThreshold != plan.Site.CoverThreshold
            || known.Season.Planter.Form.SurfaceCm2 != planter.Form.SurfaceCm2
            || known.Items.Count != items.Count
        )
            return false;
        for (int i = 0; i < items.Count; i++)
        {
            PlantedItem a = items[i];
            PlantedItem b = known.Items[i];
            if (
                a.Display.Id != b.Display.Id
                || !ReferenceEquals(a.Plant, b.Plant)
                || a.Count != b.Count
                || a.Seen != b.Seen
                || !a.Standing.Equals(b.Standing)
            )
                return false;
        }
        return true;
    }

    // Ground of planters whose years are to be computed, of a site that has so many.
    private void PrepareGround(Plan plan, List<Planter> planters, int ofSite)
    {
        Interlocked.Exchange(ref _budget, Math.Clamp((long)ofSite << 20, LeastBytes, MostBytes));
        if (Seasons.Count == 0)
            return;
        // What is known of a planter that is still the same was computed over its ground.
        GroundClimate
            .Of(_record!)
            .Prepare(
                planters
                    .Where(p =>
                        plan.DisplaysOf(p.Id).Any(d => d.Layer != DisplayLayer.Seasonal)
                        && !(_planters.TryGetValue(p.Id, out Known? known) && ReferenceEquals(known.Planter, p))
                    )
                    .Select(p => p.ThermalClass())
            );
    }

    private int IndexOf(int weatherYear)
    {
        for (int y = 0; y < WeatherYears.Count; y++)
        {
            if (WeatherYears[y] == weatherYear)
                return y;
        }
        throw new InvalidInputException(
            "weatherYear",
            $"the record holds no whole year of weather from {Start.ToString("d MMM", null)} {weatherYear}"
        );
    }

    private float[] Leaf(GrowingSeason season)
    {
        var leaf = new float[DayMath.RowOfYear];
        bool[] usual = season.UsualLeaf;
        int zero = season.Run.IndexOf(Start);
        for (int d = 0; d < Days; d++)
            leaf[d] = usual[zero + d] ? 1 : 0;
        return leaf;
    }

    private sealed record Asked(Plan Plan, SiteYear Year);

    // What a planter's year was computed from, and the year.
    private sealed record Known(
        Planning.Site Site,
        Area Area,
        Planter Planter,
        IReadOnlyList<Display> Displays,
        IReadOnlyList<Plant> Palette,
        IReadOnlyList<PlantedItem> Items,
        PlanterSeason Season
    )
    {
        // The very same objects: nothing has to be laid out to see that the year is the same.
        public bool RestsOnTheSame(Plan plan, Planter planter, IReadOnlyList<Display> displays)
        {
            if (
                !ReferenceEquals(Site, plan.Site)
                || !ReferenceEquals(Planter, planter)
                || !ReferenceEquals(Area, plan.AreaOf(planter))
                || Displays.Count != displays.Count
            )
                return false;
            for (int i = 0; i < displays.Count; i++)
            {
                if (!ReferenceEquals(Displays[i], displays[i]))
                    return false;
            }
            return Palette.All(p => ReferenceEquals(p, plan.FindPlant(p.Id)));
        }
    }

    // Plants are compared as the objects they are: comparing all their figures would cost more than the lookup saves.
    private sealed class ByPlant : IEqualityComparer<(Plant Plant, Standing Standing)>
    {
        public bool Equals((Plant Plant, Standing Standing) x, (Plant Plant, Standing Standing) y) =>
            ReferenceEquals(x.Plant, y.Plant) && x.Standing.Equals(y.Standing);

        public int GetHashCode((Plant Plant, Standing Standing) key) => HashCode.Combine(RuntimeHelpers.GetHashCode(key.Plant), key.Standing);
    }
}

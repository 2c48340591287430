using System.Collections.Concurrent;
using System.Diagnostics.CodeAnalysis;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rehearsing;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Sequencing;
using UnrulyMeadow.Core.SiteMap;
using UnrulyMeadow.Core.Stacks;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.Jobs;

namespace UnrulyMeadow.Web.Site;

/// <summary>The plan and the weather as of one moment.</summary>
/// <param name="Loaded">The plan with its versions.</param>
/// <param name="Record">The chosen station's record; null when the site has none.</param>
public sealed record SiteNow(LoadedPlan Loaded, WeatherRecord? Record)
{
    /// <summary>Where plan and weather stand.</summary>
    public PlanMark Mark => Loaded.Mark;

    /// <summary>The plan.</summary>
    public Plan Plan => Loaded.Plan;

    /// <summary>Versions of its parts, read in the same moment.</summary>
    public PlanVersions Versions => Loaded.Versions;

    /// <summary>What stands beside the plan because it does not fit.</summary>
    public IReadOnlyList<SetAside> Aside => Loaded.Aside;

    /// <summary>A hash of all that figures of this plan and weather rest on.</summary>
    public Lazy<string> Inputs { get; } = new(() => $"{PlanFile.Fingerprint(Loaded.Plan)} {Loaded.Mark.StationId} {Loaded.Mark.StationRevision}");

    /// <summary>True south of the equator.</summary>
    public bool IsSouthern => Record?.Station.IsSouthern ?? false;
}

/// <summary>
/// Keeps the plan, the weather and the years computed from them until either changes. All of it can be dropped at any
/// time; the database alone holds the truth.
/// </summary>
/// <param name="plans">The plan.</param>
/// <param name="weather">The weather.</param>
/// <param name="threads">Compute what pages wait for.</param>
/// <param name="log">The log.</param>
[SuppressMessage("Design", "CA1001", Justification = "Nobody waits on the handles of its semaphores: they hold nothing to let go of.")]
public sealed class SiteState(PlanStore plans, WeatherStore weather, ReckoningThreads threads, ILogger<SiteState> log)
{
    private const int SpareLooked = 500;
    private const long OneYearBytes = 40L << 20;

    /// <summary>The zone by whose clock the site's days begin, as last loaded.</summary>
    public DateTimeZone Zone { get; private set; } = DateTimeZoneProviders.Tzdb.GetSystemDefault();

    private readonly SemaphoreSlim _loading = new(1, 1);
    private readonly SemaphoreSlim _remarks = new(1, 1);
    private readonly SemaphoreSlim _suns = new(1, 1);
    private readonly ConcurrentDictionary<
        string,
        (Planter Planter, IReadOnlyList<MapFeature> Map, SunPaths Paths, int Year, ExposureForecast? Forecast)
    > _sun = new(StringComparer.Ordinal);
    private readonly ConcurrentDictionary<(string Display, bool Thorough), LookedOver> _looked = new();

    // Kept plans set beside the present one.
    private readonly BoundedCache<(Guid Id, LocalDate Start, WeatherRecord? Record), SiteYear> _others = new(OneYearBytes, y => y.Bytes);

    // For so long those who only look stay with what others look at, while these do.
    private static readonly TimeSpan SharedLasts = TimeSpan.FromSeconds(2);
    private volatile Kept? _shared;
    private long _sharedAt;

    private SunPaths? _paths;
    private volatile Kept? _kept;

    /// <summary>Planters of the plan that is kept; 0 while none is.</summary>
    public int KeptPlanters => _kept?.Now.Plan.Planters.Count ?? 0;

    /// <summary>The plan and weather of now.</summary>
    public async Task<SiteNow> Now() => (await Fresh()).Now;

    /// <summary>The site's year from a first of a month, over all weather years or one of them.</summary>
    public async Task<SiteYear> Year(LocalDate start, int? weatherYear)
    {
        Kept kept = await Fresh();
        return weatherYear is { } only
            ? await kept.OneYears.GetOrAddBeside((start, only), k => Kernel(kept, k.Start).Of(kept.Now.Plan, k.Year), threads)
            : await kept.Years.GetOrAddBeside(start, s => Kernel(kept, s).Of(kept.Now.Plan), threads);
    }

    /// <summary>
    /// One planter's year, kept while what it rests on stands; those of the others are not waited for. Nothing is said of one that is retired.
    /// </summary>
    public async Task<PlanterSeason> Season(Planter planter, LocalDate start)
    {
        Kept kept = await Fresh();
        // Somebody may have removed or retired it since the page read it.
        return kept.Now.Plan.FindPlanter(planter.Id) is { IsRetired: false } present
            ? await threads.Run(() => Kernel(kept, start).Of(kept.Now.Plan, present))
            : PlanterSeason.Unknown(kept.Now.Plan, planter, start);
    }

    /// <summary>What computes planters' years from a first of a month on; an edit costs it one planter.</summary>
    public async Task<SeasonKernel> Kernel(LocalDate start)
    {
        Kept kept = await Fresh();
        return await kept.Kernels.GetOrAddBeside(start, s => new SeasonKernel(kept.Now.Record, s), threads);
    }

    /// <summary>Weather years of a plan year that are asked for by name; null without weather.</summary>
    public async Task<NotableRuns?> Notable(LocalDate start)
    {
        Kept kept = await Fresh();
        ThermalClass[] classes = Classes(kept.Now.Plan.Planters.Where(p => !p.IsRetired));
        return await kept.Notable.GetOrAddBeside(
            (start, classes.Aggregate(17, HashCode.Combine)),
            k => NotableRuns.Of(Kernel(kept, k.Start).Seasons, k.Start, classes, kept.Now.IsSouthern),
            threads
        );
    }

    /// <summary>What the record says of the site's air; null without one.</summary>
    public async Task<ClimateFigures?> Climate()
    {
        Kept kept = await Fresh();
        if (kept.Now.Record is not { YearsUsed.Count: > 0 } record)
            return null;
        ThermalClass[] classes = Classes(kept.Now.Plan.Planters.Where(p => !p.Form.IsBed));
        return await kept.Climate.GetOrAddBeside(classes.Aggregate(17, HashCode.Combine), _ => ClimateFigures.Of(record, classes), threads);
    }

    // What rests on the weather and on these outlives most edits.
    private static ThermalClass[] Classes(IEnumerable<Planter> planters) =>
        [.. planters.Select(p => p.ThermalClass()).Distinct().OrderBy(c => c.GetHashCode())];

    /// <summary>Each area's run of bulbs in a plan year.</summary>
    public async Task<IReadOnlyList<AreaSequence>> Sequences(LocalDate start)
    {
        Kept kept = await Fresh();
        return await kept.Sequences.GetOrAddBeside(
            start,
            s =>
            {
                IReadOnlyList<AreaSequence> areas = AreaSequence.Of(kept.Now.Plan, Kernel(kept, s));
                foreach (AreaSequence area in areas)
                    _ = (area.Findings, area.Kinds);
                return areas;
            },
            threads
        );
    }

    /// <summary>A mishap rehearsed; null without weather.</summary>
    public async Task<RehearsalResult?> Rehearsed(LocalDate start, RehearsalKind kind, LocalDate today)
    {
        Kept kept = await Fresh();
        if (kept.Now.Record is not { } record || kept.Now.Plan.Planters.Count == 0)
            return null;
        return await kept.Rehearsed.GetOrAddBeside(
            (start, kind, today),
            k => Kernel(kept, k.Start).Seasons.Count == 0 ? null : new Rehearsal(kept.Now.Plan, Kernel(kept, k.Start), record, k.Today).Of(k.Kind),
            threads
        );
    }

    /// <summary>What a page derives from a plan and its weather, computed once while they stand.</summary>
    /// <param name="now">The plan and weather as the page read them.</param>
    /// <param name="what">Names it, with all that it rests on beside them.</param>
    /// <param name="derive">Derives it.</param>
    public async Task<T> Derived<T>(SiteNow now, object what, Func<SiteNow, T> derive)
        where T : class
    {
        Kept kept = await Fresh();
        return ReferenceEquals(kept.Now, now)
            ? (T)await kept.Derived.GetOrAddBeside(what, _ => derive(now), threads)
            : await threads.Run(() => derive(now));
    }

    /// <summary>A kept plan's year under the site's weather.</summary>
    /// <param name="id">The kept plan's; what is kept under it never changes.</param>
    /// <param name="other">The kept plan.</param>
    /// <param name="start">First of the plan year.</param>
    public async Task<SiteYear> YearOf(Guid id, Plan other, LocalDate start)
    {
        Kept kept = await Fresh();
        return await _others.GetOrAddBeside((id, start, kept.Now.Record), k => new SeasonKernel(k.Record, k.Start).Of(other), threads);
    }

    /// <summary>
    /// The remarks on every display that stands on or after a day; null where they could not be looked for. Several who ask share one
    /// looking, and what a later edit has overtaken is not looked for any more.
    /// </summary>
    public async Task<IReadOnlyList<Remark>?> RemarksFrom(LocalDate day)
    {
        Kept kept = await Fresh();
        return await kept.Looking.GetOrAdd(day, d => RemarksSoFar(kept, d));
    }

    /// <summary>
    /// The remarks on some displays of the plan, every plant followed. They are looked for once and kept while what they rest on stands.
    /// </summary>
    public async Task<IReadOnlyList<Remark>> RemarksOn(IReadOnlyList<Display> displays)
    {
        Kept kept = await Fresh();
        return await threads.Run(() => displays.SelectMany(d => RemarksOn(kept, d, thorough: true)).OrderBy(r => r.Gravity).ToList());
    }

    // Several who ask at once share one looking.
    private IReadOnlyList<Remark> RemarksOn(Kept kept, Display display, bool thorough)
    {
        object[] rests = kept.Rests.GetOrAdd(display.PlanterId, id => [.. DisplayChecks.RestsOn(kept.Now.Plan, kept.Now.Plan.FindPlanter(id)!)]);
        LookedOver Fresh() =>
            new(display, kept.AllRest, rests, kept.Now.Record, new Lazy<IReadOnlyList<Remark>>(() => Found(kept, display, thorough)));
        // Displays that are gone would be remembered for ever.
        if (_looked.Count > (2 * kept.Now.Plan.Displays.Count) + SpareLooked)
            _looked.Clear();
        return _looked
            .AddOrUpdate(
                (display.Id, thorough),
                _ => Fresh(),
                (_, known) => known.Holds(display, kept.AllRest, rests, kept.Now.Record) ? known : Fresh()
            )
            .Remarks.Value;
    }

    // A check that fails is the program's fault and no reason for a page to fail: the log tells of it.
    private IReadOnlyList<Remark> Found(Kept kept, Display display, bool thorough)
    {
        try
        {
            return Checks(kept).For(display, thorough);
        }
        catch (Exception e)
        {
            log.LogError(e, "The display {Id} could not be looked over.", display.Id);
            return [];
        }
    }

    private async Task<IReadOnlyList<Remark>?> RemarksSoFar(Kept kept, LocalDate from)
    {
        await _remarks.WaitAsync();
        try
        {
            return await threads.Run(() =>
            {
                var found = new List<Remark>();
                foreach (Display display in kept.Now.Plan.Displays.Where(d => d.Lift > from))
                {
                    if (!ReferenceEquals(kept, _kept))
                        return null;
                    found.AddRange(RemarksOn(kept, display, thorough: false));
                }
                return (IReadOnlyList<Remark>)[.. found.OrderBy(r => r.Gravity)];
            });
        }
        catch (Exception e)
        {
            // Pages stand without remarks.
            log.LogError(e, "The plan could not be looked through.");
            return null;
        }
        finally
        {
            _remarks.Release();
        }
    }

    /// <summary>The checks of the plan as it is now, for one request.</summary>
    public async Task<DisplayChecks> Checks() => Checks(await Fresh());

    /// <summary>The checks of another plan under the site's weather.</summary>
    public async Task<DisplayChecks> ChecksOf(Plan other) => (await ChecksOf())(other);

    /// <summary>Makes the checks of other plans under the site's weather.</summary>
    public async Task<Func<Plan, DisplayChecks>> ChecksOf()
    {
        Kept kept = await Fresh();
        return Checks(kept).On;
    }

    /// <summary>
    /// The flowering of a stack planted on a day. Weather years are laid out once per bulb year and used by one
    /// computation at a time.
    /// </summary>
    public async Task<StackBloom?> Bloom(BulbStack stack, LocalDate install)
    {
        Kept kept = await Fresh();
        if (kept.Now.Record is not { } record)
            return null;
        IReadOnlyList<GrowingSeason> seasons = await kept.BulbYears.GetOrAddBeside(
            StackBloom.BulbYearStart(install, record.Station.IsSouthern),
            year => StackBloom.Seasons(record, year),
            threads
        );
        return await threads.Run(() =>
        {
            lock (seasons)
                return StackBloom.From(stack, seasons, install);
        });
    }

    /// <summary>When every plant shows at this site in a plan year.</summary>
    public async Task<SiteFlowering> Flowering(LocalDate start)
    {
        return Flowering(await Fresh(), start);
    }

    /// <summary>A planter's sun over the next years, as trees grow; computed once while the planter and the map stand.</summary>
    public async Task<ExposureForecast?> SunOf(Planter planter, double latitudeDeg, int year)
    {
        Kept kept = await Fresh();
        return await threads.Run(() => SunOf(kept.Map, planter, latitudeDeg, year));
    }

    /// <summary>
    /// Planters whose class of sun changes within five years as trees grow. Only what changed is computed, once for all who ask.
    /// </summary>
    public async Task<IReadOnlyList<ExposureForecast>> SunAhead(double latitudeDeg, int year)
    {
        Kept kept = await Fresh();
        return await kept.Sun.GetOrAdd((latitudeDeg, year), k => ChangingSun(kept, k.LatitudeDeg, k.Year));
    }

    private async Task<IReadOnlyList<ExposureForecast>> ChangingSun(Kept kept, double latitudeDeg, int year)
    {
        await _suns.WaitAsync();
        try
        {
            return await threads.Run(() =>
                (IReadOnlyList<ExposureForecast>)
                    [
                        .. kept
                            .Now.Plan.Planters.Where(p => !p.IsRetired)
                            .Select(p => SunOf(kept.Map, p, latitudeDeg, year))
                            .OfType<ExposureForecast>()
                            .Where(f => f.Change is not null),
                    ]
            );
        }
        finally
        {
            _suns.Release();
        }
    }

    private ExposureForecast? SunOf(IReadOnlyList<MapFeature> map, Planter planter, double latitudeDeg, int year)
    {
        if (
            _sun.TryGetValue(planter.Id, out var known)
            && ReferenceEquals(known.Planter, planter)
            && ReferenceEquals(known.Map, map)
            && known.Paths.LatitudeDeg == latitudeDeg
            && known.Year == year
        )
            return known.Forecast;
        SunPaths paths = _paths is { } kept && kept.LatitudeDeg == latitudeDeg ? kept : _paths = new SunPaths(latitudeDeg);
        ExposureForecast? forecast = ExposureForecast.Of(planter, map, paths, year);
        _sun[planter.Id] = (planter, map, paths, year, forecast);
        return forecast;
    }

    private static SiteFlowering Flowering(Kept kept, LocalDate start) =>
        kept.Flowering.GetOrAdd((start, kept.Now.Plan.Site.FrostRisk), k => new SiteFlowering(kept.Now.Record, k.Start, k.FrostRisk));

    private static SeasonKernel Kernel(Kept kept, LocalDate start) => kept.Kernels.GetOrAdd(start, s => new SeasonKernel(kept.Now.Record, s));

    private static DisplayChecks Checks(Kept kept) =>
        new(
            kept.Now.Plan,
            kept.Now.Record,
            start => Flowering(kept, start),
            month => Stay(kept, month),
            year => kept.BulbYears.GetOrAdd(year, y => StackBloom.Seasons(kept.Now.Record!, y))
        );

    private static IReadOnlyList<GrowingSeason> Stay(Kept kept, LocalDate month) =>
        kept.Stays.GetOrAdd(month, m => StayLosses.Seasons(kept.Now.Record!, m));

    // What this request looks at; beside requests, and where one saves, what stands now.
    private async Task<Kept> Fresh()
    {
        if (Moment.Now is not { } moment)
            return await Latest();
        if (moment.Of(this) is Kept here)
            return here;
        Kept? shared = _shared;
        if (!moment.MayShare || shared is not { Lookers: > 0 } || Environment.TickCount64 - _sharedAt > SharedLasts.TotalMilliseconds)
        {
            long asked = Environment.TickCount64;
            _shared = shared = await Latest();
            _sharedAt = asked;
        }
        Interlocked.Increment(ref shared.Lookers);
        moment.Stay(this, shared, () => Interlocked.Decrement(ref shared.Lookers));
        return moment.Of(this) as Kept ?? shared;
    }

    private async Task<Kept> Latest()
    {
        PlanMark mark = await plans.Mark();
        if (_kept is { } kept && kept.Now.Mark == mark)
            return kept;
        await _loading.WaitAsync();
        try
        {
            mark = await plans.Mark();
            if (_kept is { } meanwhile && meanwhile.Now.Mark == mark)
                return meanwhile;
            LoadedPlan plan = await plans.Now();
            PlanMark? before = _kept?.Now.Mark;
            WeatherRecord? record =
                before is not null && before.StationId == plan.Mark.StationId && before.StationRevision == plan.Mark.StationRevision ? _kept!.Station
                : plan.Mark.StationId is null ? null
                : await weather.Load(plan.Mark.StationId);
            SitePlace? place = plan.Plan.Site.Place;
            WeatherRecord? here = place is { AtElevation: true } ? Moved(record, place.ElevationM) : record;
            var fresh = new Kept(new SiteNow(plan, here), record);
            if (_kept is not null)
                fresh.TakeOver(_kept);
            Zone = plan.Plan.Site.TimeZone is { } zone ? DateTimeZoneProviders.Tzdb[zone] : DateTimeZoneProviders.Tzdb.GetSystemDefault();
            return _kept = fresh;
        }
        finally
        {
            _loading.Release();
        }
    }

    // The record carried to the site's height; the one already carried there is kept, with all that was computed from it.
    private WeatherRecord? Moved(WeatherRecord? record, double elevationM) =>
        record is not null
        && ReferenceEquals(record, _kept?.Station)
        && _kept.Now.Plan.Site.Place is { AtElevation: true } before
        && before.ElevationM == elevationM
            ? _kept.Now.Record
            : record?.AtElevation(elevationM);

    private sealed record LookedOver(Display Display, object[] All, object[] Rests, WeatherRecord? Record, Lazy<IReadOnlyList<Remark>> Remarks)
    {
        public bool Holds(Display display, object[] all, object[] rests, WeatherRecord? record) =>
            ReferenceEquals(display, Display) && ReferenceEquals(record, Record) && ReferenceEquals(all, All) && AreSame(rests, Rests);
    }

    private static bool AreSame(object[] some, object[] others) =>
        ReferenceEquals(some, others) || some.SequenceEqual(others, ReferenceEqualityComparer.Instance);

    private sealed class Kept(SiteNow now, WeatherRecord? station)
    {
        /// <summary>What remarks on a planter's displays rest on, by planter.</summary>
        public ConcurrentDictionary<string, object[]> Rests { get; } = new(StringComparer.Ordinal);

        /// <summary>What the remarks on all of them rest on; the same object as before while each of it is.</summary>
        public object[] AllRest { get; private set; } = [.. DisplayChecks.AllRestOn(now.Plan)];

        /// <summary>The station's record as it was read.</summary>
        public WeatherRecord? Station { get; } = station;

        public SiteNow Now { get; } = now;

        /// <summary>Requests that look at it.</summary>
        public int Lookers;

        /// <summary>By plan year. The kernel holds the planters' years themselves.</summary>
        public BoundedCache<LocalDate, SiteYear> Years { get; } = Few<LocalDate, SiteYear>(2);

        public BoundedCache<object, object> Derived { get; } = Few<object, object>(24);

        public BoundedCache<(LocalDate Start, int Year), SiteYear> OneYears { get; } = new(OneYearBytes, y => y.Bytes);

        public BoundedCache<LocalDate, IReadOnlyList<GrowingSeason>> BulbYears { get; private set; } =
            Few<LocalDate, IReadOnlyList<GrowingSeason>>(3);

        public BoundedCache<LocalDate, IReadOnlyList<GrowingSeason>> Stays { get; private set; } = Few<LocalDate, IReadOnlyList<GrowingSeason>>(4);

        public BoundedCache<(LocalDate Start, double FrostRisk), SiteFlowering> Flowering { get; private set; } =
            Few<(LocalDate, double), SiteFlowering>(3);

        public BoundedCache<(LocalDate Start, int Classes), NotableRuns?> Notable { get; private set; } = Few<(LocalDate, int), NotableRuns?>(20);

        public BoundedCache<int, ClimateFigures> Climate { get; private set; } = Few<int, ClimateFigures>(2);

        public BoundedCache<LocalDate, SeasonKernel> Kernels { get; private set; } = Few<LocalDate, SeasonKernel>(2);

        /// <summary>The map; the same list while its features are the same.</summary>
        public IReadOnlyList<MapFeature> Map { get; private set; } = now.Plan.Map;

        public BoundedCache<LocalDate, IReadOnlyList<AreaSequence>> Sequences { get; } = Few<LocalDate, IReadOnlyList<AreaSequence>>(4);

        public BoundedCache<(LocalDate Start, RehearsalKind Kind, LocalDate Today), RehearsalResult?> Rehearsed { get; } =
            Few<(LocalDate, RehearsalKind, LocalDate), RehearsalResult?>(4);

        public BoundedCache<LocalDate, Task<IReadOnlyList<Remark>?>> Looking { get; } = Few<LocalDate, Task<IReadOnlyList<Remark>?>>(4);

        public BoundedCache<(double LatitudeDeg, int Year), Task<IReadOnlyList<ExposureForecast>>> Sun { get; } =
            Few<(double, int), Task<IReadOnlyList<ExposureForecast>>>(2);

        /// <summary>Takes over what rests on the weather alone, or on a map that is still the same.</summary>
        public void TakeOver(Kept before)
        {
            if (AreSame(AllRest, before.AllRest))
                AllRest = before.AllRest;
            // Plants that did not change are the same objects as before.
            if (ReferenceEquals(before.Now.Record, Now.Record))
            {
                (Flowering, Kernels, BulbYears, Stays) = (before.Flowering, before.Kernels, before.BulbYears, before.Stays);
                (Notable, Climate) = (before.Notable, before.Climate);
            }
            // Features that did not change are the same objects: most edits leave the map as it was.
            if (ListChange.Between(before.Map, Now.Plan.Map) is { IsNone: true } && before.Map.Count == Now.Plan.Map.Count)
                Map = before.Map;
        }

        private static BoundedCache<TKey, TValue> Few<TKey, TValue>(int most)
            where TKey : notnull => new(most, _ => 1);
    }
}

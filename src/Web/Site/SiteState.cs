using System.Collections.Concurrent;
using System.Security.Cryptography;
using System.Text;
using NodaTime;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Grounds;
using UnrulyMeadow.Core.Planting;
using UnrulyMeadow.Core.Plants;
using UnrulyMeadow.Core.Rehearsing;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Sequencing;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web.Site;

/// <summary>The plan and the weather as of one moment.</summary>
/// <param name="Mark">Where they stand.</param>
/// <param name="Plan">The plan.</param>
/// <param name="Record">The chosen station's record; null when the site has none.</param>
public sealed record SiteNow(PlanMark Mark, Plan Plan, WeatherRecord? Record)
{
    /// <summary>A hash of all that figures of this plan and weather rest on.</summary>
    public Lazy<string> Inputs { get; } = new(() => Convert.ToHexString(SHA256.HashData([.. PlanFile.Write(Plan), .. Encoding.UTF8.GetBytes($"{Mark.StationId} {Mark.StationRevision}")])));

    /// <summary>True south of the equator.</summary>
    public bool IsSouthern => Record?.Station.IsSouthern ?? false;
}

/// <summary>
/// Keeps the plan, the weather and the years computed from them until either changes. All of it can be dropped at any
/// time; the database alone holds the truth.
/// </summary>
public sealed class SiteState(PlanStore plans, WeatherStore weather) : IDisposable
{
    private readonly SemaphoreSlim _loading = new(1, 1);
    private Kept? _kept;

    /// <summary>The plan and weather of now.</summary>
    public async Task<SiteNow> Now() => (await Fresh()).Now;

    /// <summary>The site's year from a first of a month, over all weather years or one of them.</summary>
    public async Task<SiteYear> Year(LocalDate start, int? weatherYear)
    {
        Kept kept = await Fresh();
        if (kept.Years.Count > 60)
            kept.Years.Clear();
        return kept.Years.GetOrAdd((start, weatherYear), _ => new Lazy<SiteYear>(() =>
        {
            SeasonKernel kernel = Kernel(kept, start);
            return weatherYear is { } only ? kernel.Of(kept.Now.Plan, only) : kernel.Of(kept.Now.Plan);
        })).Value;
    }

    /// <summary>What computes planters' years from a first of a month on; an edit costs it one planter.</summary>
    public async Task<SeasonKernel> Kernel(LocalDate start) => Kernel(await Fresh(), start);

    /// <summary>Weather years of a plan year that are asked for by name; null without weather.</summary>
    public async Task<NotableRuns?> Notable(LocalDate start)
    {
        Kept kept = await Fresh();
        return kept.Notable.GetOrAdd(start, s => new Lazy<NotableRuns?>(() => NotableRuns.Of(
            Kernel(kept, s).Seasons, s, [.. kept.Now.Plan.Planters.Where(p => !p.IsRetired).Select(Core.Ground.ThermalClass.Of)], kept.Now.IsSouthern))).Value;
    }

    /// <summary>Each area's run of bulbs in a plan year.</summary>
    public async Task<IReadOnlyList<AreaSequence>> Sequences(LocalDate start)
    {
        Kept kept = await Fresh();
        return kept.Sequences.GetOrAdd(start, s => new Lazy<IReadOnlyList<AreaSequence>>(() => AreaSequence.Of(kept.Now.Plan, Kernel(kept, s)))).Value;
    }

    /// <summary>A mishap rehearsed; null without weather.</summary>
    public async Task<RehearsalResult?> Rehearsed(LocalDate start, RehearsalKind kind, LocalDate today)
    {
        Kept kept = await Fresh();
        if (kept.Now.Record is not { } record || kept.Now.Plan.Planters.Count == 0)
            return null;
        return kept.Rehearsed.GetOrAdd((start, kind, today), k => new Lazy<RehearsalResult?>(() => Kernel(kept, k.Start).Seasons.Count == 0 ? null : new Rehearsal(kept.Now.Plan, Kernel(kept, k.Start), record, k.Today).Of(k.Kind))).Value;
    }

    /// <summary>Another plan's year under the site's weather.</summary>
    public async Task<SiteYear> YearOf(Plan other, LocalDate start) => new SeasonKernel((await Fresh()).Now.Record, start).Of(other);

    /// <summary>The remarks where they are known; where not, they are looked for beside the page, which waits only a little.</summary>
    public async Task<IReadOnlyList<Remark>?> RemarksSoon(LocalDate from, TimeSpan wait)
    {
        Kept kept = await Fresh();
        Task<IReadOnlyList<Remark>> looking = kept.Looking.GetOrAdd(from, f => new Lazy<Task<IReadOnlyList<Remark>>>(() => Task.Run(() => Remarks(f)))).Value;
        return await Task.WhenAny(looking, Task.Delay(wait)) == looking ? await looking : null;
    }

    /// <summary>The remarks on every display that stands on or after a day.</summary>
    public async Task<IReadOnlyList<Remark>> Remarks(LocalDate from)
    {
        Kept kept = await Fresh();
        if (kept.Remarks is { } known && known.From == from)
            return known.Remarks;
        IReadOnlyList<Remark> remarks = [.. Checks(kept).All(from).OrderBy(r => r.Gravity)];
        kept.Remarks = (from, remarks);
        return remarks;
    }

    /// <summary>The checks of the plan as it is now, for one request.</summary>
    public async Task<DisplayChecks> Checks() => Checks(await Fresh());

    /// <summary>
    /// The flowering of a stack planted on a day. Weather years are laid out once per bulb year and used by one
    /// computation at a time.
    /// </summary>
    public async Task<StackBloom?> Bloom(BulbStack stack, LocalDate install)
    {
        Kept kept = await Fresh();
        if (kept.Now.Record is not { } record)
            return null;
        var seasons = kept.BulbYears.GetOrAdd(
            StackBloom.BulbYearStart(install, record.Station.IsSouthern),
            _ => new Lazy<IReadOnlyList<GrowingSeason>>(() => StackBloom.Seasons(record, install))).Value;
        lock (seasons)
        {
            return StackBloom.From(stack, seasons, install);
        }
    }

    /// <summary>When every plant shows at this site in a plan year.</summary>
    public async Task<SiteFlowering> Flowering(LocalDate start)
    {
        return Flowering(await Fresh(), start);
    }

    /// <summary>Planters whose class of sun changes within five years as trees grow.</summary>
    public async Task<IReadOnlyList<ExposureForecast>> SunAhead(double latitudeDeg, int year)
    {
        Kept kept = await Fresh();
        if (kept.SunAhead is { } known && known.Year == year)
            return known.Changing;
        Plan plan = kept.Now.Plan;
        IReadOnlyList<ExposureForecast> changing = [.. plan.Planters.Where(p => !p.IsRetired).AsParallel().AsOrdered().Select(p => ExposureForecast.Of(p, plan.Map, latitudeDeg, year)).OfType<ExposureForecast>().Where(f => f.Change is not null)];
        kept.SunAhead = (year, changing);
        return changing;
    }

    /// <inheritdoc />
    public void Dispose() => _loading.Dispose();

    private static SiteFlowering Flowering(Kept kept, LocalDate start)
    {
        if (kept.Flowering.Count > 6)
            kept.Flowering.Clear();
        return kept.Flowering.GetOrAdd(start, _ => new Lazy<SiteFlowering>(() => new SiteFlowering(kept.Now.Record, start))).Value;
    }

    private static SeasonKernel Kernel(Kept kept, LocalDate start)
    {
        if (kept.Kernels.Count > 4)
            kept.Kernels.Clear();
        return kept.Kernels.GetOrAdd(start, _ => new Lazy<SeasonKernel>(() => new SeasonKernel(kept.Now.Record, start))).Value;
    }

    private static DisplayChecks Checks(Kept kept) => new(kept.Now.Plan, kept.Now.Record, start => Flowering(kept, start));

    private async Task<Kept> Fresh()
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
            PlanMark? before = _kept?.Now.Mark;
            WeatherRecord? record = before is not null && before.StationId == mark.StationId && before.StationRevision == mark.StationRevision
                ? _kept!.Station
                : mark.StationId is null ? null : await weather.Load(mark.StationId);
            Plan plan = await plans.Load();
            SitePlace? place = plan.Site.Place;
            WeatherRecord? here = place is { AtElevation: true } ? Moved(record, place.ElevationM) : record;
            var fresh = new Kept(new SiteNow(mark, plan, here), record);
            // Flowering and followed plants rest on the weather alone; plants that did not change are the same objects as before.
            if (_kept is not null && ReferenceEquals(_kept.Now.Record, here))
                (fresh.Flowering, fresh.Kernels) = (_kept.Flowering, _kept.Kernels);
            return _kept = fresh;
        }
        finally
        {
            _loading.Release();
        }
    }

    // The record carried to the site's height; the one already carried there is kept, with all that was computed from it.
    private WeatherRecord? Moved(WeatherRecord? record, double elevationM) =>
        record is not null && ReferenceEquals(record, _kept?.Station) && _kept.Now.Plan.Site.Place is { AtElevation: true } before && before.ElevationM == elevationM
            ? _kept.Now.Record
            : record?.AtElevation(elevationM);

    private sealed class Kept(SiteNow now, WeatherRecord? station)
    {
        /// <summary>The station's record as it was read.</summary>
        public WeatherRecord? Station { get; } = station;

        public SiteNow Now { get; } = now;

        public ConcurrentDictionary<(LocalDate Start, int? WeatherYear), Lazy<SiteYear>> Years { get; } = new();

        public ConcurrentDictionary<LocalDate, Lazy<IReadOnlyList<GrowingSeason>>> BulbYears { get; } = new();

        public (int Year, IReadOnlyList<ExposureForecast> Changing)? SunAhead { get; set; }

        public ConcurrentDictionary<LocalDate, Lazy<SiteFlowering>> Flowering { get; set; } = new();

        public ConcurrentDictionary<LocalDate, Lazy<NotableRuns?>> Notable { get; } = new();

        public ConcurrentDictionary<LocalDate, Lazy<IReadOnlyList<AreaSequence>>> Sequences { get; } = new();

        public ConcurrentDictionary<(LocalDate Start, RehearsalKind Kind, LocalDate Today), Lazy<RehearsalResult?>> Rehearsed { get; } = new();

        public ConcurrentDictionary<LocalDate, Lazy<Task<IReadOnlyList<Remark>>>> Looking { get; } = new();

        public ConcurrentDictionary<LocalDate, Lazy<SeasonKernel>> Kernels { get; set; } = new();

        public (LocalDate From, IReadOnlyList<Remark> Remarks)? Remarks { get; set; }
    }
}

using System.Collections.Concurrent;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Season;

/// <summary>
/// When every plant of a palette shows at one site, for one plan year. Strips are computed when first asked for and kept;
/// several threads may ask.
/// </summary>
public sealed class SiteFlowering
{
    private const int MostSpreads = 2_000;

    // A palette of some thousand kinds; a strip takes about 5 kB.
    private const long MostBytesOfStrips = 24L << 20;

    private readonly BoundedCache<(Plant Plant, LocalDate Install, BulbPlace Place, double PocketC), FloweringStrip> _strips = new(
        MostBytesOfStrips,
        s => s.Bytes,
        new ByReference()
    );
    private readonly ConcurrentDictionary<(Plant Plant, LocalDate Install, LocalDate Lift, double PocketC), float[]> _spreads = new(
        new SpreadByReference()
    );
    private readonly Lock _lock = new();
    private float[]? _inLeaf;
    private readonly IReadOnlyList<GrowingSeason> _seasons;
    private readonly FrostOdds? _lastFreeze;

    /// <summary>Prepares a plan year.</summary>
    /// <param name="record">The weather; null when the site has none, and then no strip shows anything.</param>
    /// <param name="start">First day of the plan year, the first of a month.</param>
    /// <param name="frostRisk">Odds of a freeze after the frost all-clear that the site accepts, 0 to 1.</param>
    public SiteFlowering(WeatherRecord? record, LocalDate start, double frostRisk = FrostOdds.UsualRisk)
    {
        Record = record;
        FrostRisk = frostRisk;
        Start = start;
        IsSouthern = record?.Station.IsSouthern ?? false;
        _seasons = record is null ? [] : [.. WeatherRun.For(record, start).Select(r => new GrowingSeason(r, IsSouthern))];
        _lastFreeze = record is { YearsUsed.Count: > 0 } ? FrostOdds.From(record, FrostEnd.LastSpring, 0) : null;
    }

    /// <summary>The weather.</summary>
    public WeatherRecord? Record { get; }

    /// <summary>First day of the plan year.</summary>
    public LocalDate Start { get; }

    /// <summary>Odds of a freeze after the frost all-clear that the site accepts, 0 to 1.</summary>
    public double FrostRisk { get; }

    /// <summary>True south of the equator.</summary>
    public bool IsSouthern { get; }

    /// <summary>Weather years behind the strips.</summary>
    public int Years => _seasons.Count;

    /// <summary>
    /// The day after which a freeze follows in no more years than the site accepts, in the plan year's spring; 15 May where no weather is known.
    /// </summary>
    public LocalDate AllClear
    {
        get
        {
            LocalDate day =
                _lastFreeze?.DateAt(FrostRisk).Date is { } d && (d.Month < 7) != IsSouthern
                    ? new LocalDate(2001, d.Month, Math.Min(d.Day, 28))
                    : new LocalDate(2001, IsSouthern ? 11 : 5, 15);
            var inYear = new LocalDate(Start.Year, day.Month, day.Day);
            return inYear < Start ? inYear.PlusYears(1) : inYear;
        }
    }

    /// <summary>
    /// The day a plant would usually go in so as to show in a span: bulbs in mid-fall, what lasts long before, annuals in
    /// bud a little ahead, but cool-season ones not into frozen ground and tender ones not before the all-clear (common practice).
    /// </summary>
    public LocalDate UsualInstall(Plant plant, LocalDate first)
    {
        int shift = IsSouthern ? 6 : 0;
        LocalDate fall = OnOrBefore(first, 9 + shift, 20);
        switch (plant.LifeForm)
        {
            case LifeForm.Bulb when plant.IsTender:
                return AllClear;
            case LifeForm.Bulb:
                // What flowers in fall goes in before it; the rest in mid-fall of the plan year.
                return plant.Windows.All(w => w.Rule is BulbForcing) ? OnOrBefore(first, 10 + shift, 15) : Start.PlusYears(-2);
            case LifeForm.TenderAnnual:
                return Ahead(plant, first) is var ahead && ahead < AllClear && first < AllClear.PlusDays(120) ? AllClear : ahead;
            case LifeForm.CoolSeasonAnnual:
                LocalDate cool = Ahead(plant, first);
                return IsFrozenSeason(cool, shift) ? fall : cool;
            case LifeForm.Biennial:
                return fall;
            case LifeForm.CutStems:
                return Ahead(plant, first);
            default:
                return Start.PlusYears(-2);
        }
    }

    /// <summary>A plant's strip.</summary>
    /// <param name="plant">The plant; kept by reference.</param>
    /// <param name="install">The day it goes in.</param>
    /// <param name="place">Where a bulb lies; null for the usual bed.</param>
    /// <param name="pocketC">Frost pocket, °C.</param>
    public FloweringStrip Of(Plant plant, LocalDate install, BulbPlace? place = null, double pocketC = 0)
    {
        var key = (plant, install, plant.Bulb is null ? BulbPlace.UsualBed : place ?? BulbPlace.UsualBed, pocketC);
        return _strips.GetOrAdd(key, k => FloweringStrip.From(k.Plant, _seasons, Start, k.Install, k.Place, k.PocketC));
    }

    /// <summary>Share of years in which deciduous plants are in leaf, by day of the plan year; empty without weather.</summary>
    public float[] InLeaf
    {
        get
        {
            lock (_lock)
            {
                if (_inLeaf is null)
                {
                    var share = new float[_seasons.Count == 0 ? 0 : Period.DaysBetween(Start, Start.PlusMonths(12))];
                    foreach (GrowingSeason season in _seasons)
                    {
                        bool[] leaf = season.UsualLeaf;
                        int offset = season.Run.IndexOf(Start);
                        for (int d = 0; d < share.Length; d++)
                            share[d] += leaf[offset + d] ? 1f / _seasons.Count : 0;
                    }
                    _inLeaf = share;
                }
                return _inLeaf;
            }
        }
    }

    /// <summary>How wide a plant stands on each day of the plan year, cm, in the middle year; see <see cref="SpreadByDay"/>.</summary>
    /// <param name="plant">The plant; kept by reference.</param>
    /// <param name="install">The day it goes in.</param>
    /// <param name="lift">The day it comes out.</param>
    /// <param name="pocketC">Frost pocket, °C.</param>
    public float[] Spread(Plant plant, LocalDate install, LocalDate lift, double pocketC = 0)
    {
        var key = (plant, install, lift, pocketC);
        if (_spreads.TryGetValue(key, out float[]? known))
            return known;
        lock (_lock)
        {
            if (_spreads.Count > MostSpreads)
                _spreads.Clear();
            return _spreads[key] = SpreadByDay.Of(plant, _seasons, Start, install, lift, pocketC);
        }
    }

    /// <summary>
    /// The greatest height that a plant reaches between two days, cm: what stands longer than the plan year, or of which nothing is known, is taken
    /// as grown.
    /// </summary>
    /// <param name="plant">The plant.</param>
    /// <param name="install">The day it goes in.</param>
    /// <param name="lift">The day it comes out.</param>
    /// <param name="pocketC">How much colder than the station its leaves are, °C.</param>
    public double GreatestHeightCm(Plant plant, LocalDate install, LocalDate lift, double pocketC = 0)
    {
        if (Years == 0 || lift > Start.PlusMonths(12))
            return plant.HeightCm;
        float[] spread = Spread(plant, install, lift, pocketC);
        int from = Math.Clamp(Period.DaysBetween(Start, install), 0, spread.Length - 1);
        int to = Math.Clamp(Period.DaysBetween(Start, lift), from + 1, spread.Length);
        return Arranging.Stature.Of(plant, spread[from..to].Max()).HeightCm;
    }

    /// <summary>A plant's strip as it would usually be planted to show from its plan year's first day on.</summary>
    public FloweringStrip Usual(Plant plant) =>
        Of(
            plant,
            UsualInstall(
                plant,
                plant.LifeForm switch
                {
                    LifeForm.TenderAnnual => AllClear.PlusDays(10),
                    LifeForm.CoolSeasonAnnual or LifeForm.Biennial => Start.PlusDays(40),
                    // Boughs and stems are set before the ground freezes.
                    LifeForm.CutStems => Start.PlusDays(75),
                    _ => Start.PlusDays(200),
                }
            )
        );

    /// <summary>Share of years in which the air falls to a temperature between two days of the plan year.</summary>
    public double OddsOfFrost(LocalDate first, LocalDate last, double atOrBelowC)
    {
        if (_seasons.Count == 0)
            return 0;
        int hit = 0;
        foreach (GrowingSeason season in _seasons)
        {
            int from = Math.Max(0, season.Run.IndexOf(first));
            int to = Math.Min(season.Length - 1, season.Run.IndexOf(last));
            for (int d = from; d <= to; d++)
            {
                if (season.Run.MinC[d] <= atOrBelowC)
                {
                    hit++;
                    break;
                }
            }
        }
        return (double)hit / _seasons.Count;
    }

    /// <summary>Share of the years in which no night between two days spoils a plant's tops, as hardened as they then are.</summary>
    /// <param name="plant">The plant.</param>
    /// <param name="first">First day.</param>
    /// <param name="last">Last day.</param>
    /// <param name="pocketC">How much colder than the station its leaves are, °C.</param>
    public double ComesThrough(Plant plant, LocalDate first, LocalDate last, double pocketC)
    {
        int lives = 0;
        double safe = Hardening.SpoiledAtC(plant, 0) + pocketC;
        foreach (GrowingSeason season in _seasons)
        {
            int i = Math.Max(0, season.Run.IndexOf(first));
            int end = Math.Min(season.Length - 1, season.Run.IndexOf(last));
            double[] low = season.Run.MinC;
            while (i <= end && (low[i] > safe || low[i] - pocketC > Hardening.SpoiledAtC(plant, season.Hardened[i])))
                i++;
            lives += i > end ? 1 : 0;
        }
        return _seasons.Count == 0 ? 1 : (double)lives / _seasons.Count;
    }

    /// <summary>The highest week's mean between two days, one per weather year, sorted, °C.</summary>
    public double[] HottestWeeks(LocalDate first, LocalDate last)
    {
        var hot = new double[_seasons.Count];
        lock (_lock)
        {
            for (int y = 0; y < _seasons.Count; y++)
            {
                GrowingSeason season = _seasons[y];
                int from = Math.Max(0, season.Run.IndexOf(first));
                int to = Math.Min(season.Length - 1, season.Run.IndexOf(last));
                hot[y] = double.NegativeInfinity;
                for (int d = from; d <= to; d++)
                    hot[y] = Math.Max(hot[y], season.WeekMeanC[d]);
            }
        }
        Array.Sort(hot);
        return hot;
    }

    private static LocalDate Ahead(Plant plant, LocalDate first)
    {
        double bud = plant.Windows.Select(w => w.Rule).OfType<FromInstall>().Select(r => r.BudDays).DefaultIfEmpty(10).Min();
        LocalDate day = first.PlusDays(-(int)bud - 7);
        // Whole weeks, so that neighbouring questions share a strip.
        return day.PlusDays(-((int)day.DayOfWeek - 1));
    }

    private static bool IsFrozenSeason(LocalDate day, int shift)
    {
        int month = ((day.Month - 1 + 12 - shift) % 12) + 1;
        return month is 12 or 1 or 2 || (month == 11 && day.Day > 10) || (month == 3 && day.Day < 15);
    }

    private static LocalDate OnOrBefore(LocalDate day, int month, int dayOfMonth)
    {
        int m = ((month - 1) % 12) + 1;
        var inYear = new LocalDate(day.Year, m, dayOfMonth);
        return inYear <= day ? inYear : inYear.PlusYears(-1);
    }

    // Plants are compared as the objects they are: comparing all their figures would cost more than the lookup saves.
    private sealed class ByReference : IEqualityComparer<(Plant Plant, LocalDate Install, BulbPlace Place, double PocketC)>
    {
        public bool Equals(
            (Plant Plant, LocalDate Install, BulbPlace Place, double PocketC) x,
            (Plant Plant, LocalDate Install, BulbPlace Place, double PocketC) y
        ) =>
            ReferenceEquals(x.Plant, y.Plant)
            && x.Install == y.Install
            && x.PocketC == y.PocketC
            && x.Place.DepthCm == y.Place.DepthCm
            && x.Place.Class == y.Place.Class;

        public int GetHashCode((Plant Plant, LocalDate Install, BulbPlace Place, double PocketC) key) =>
            HashCode.Combine(System.Runtime.CompilerServices.RuntimeHelpers.GetHashCode(key.Plant), key.Install, key.Place.DepthCm, key.PocketC);
    }

    private sealed class SpreadByReference : IEqualityComparer<(Plant Plant, LocalDate Install, LocalDate Lift, double PocketC)>
    {
        public bool Equals(
            (Plant Plant, LocalDate Install, LocalDate Lift, double PocketC) x,
            (Plant Plant, LocalDate Install, LocalDate Lift, double PocketC) y
        ) => ReferenceEquals(x.Plant, y.Plant) && x.Install == y.Install && x.Lift == y.Lift && x.PocketC == y.PocketC;

        public int GetHashCode((Plant Plant, LocalDate Install, LocalDate Lift, double PocketC) key) =>
            HashCode.Combine(System.Runtime.CompilerServices.RuntimeHelpers.GetHashCode(key.Plant), key.Install, key.Lift, key.PocketC);
    }
}

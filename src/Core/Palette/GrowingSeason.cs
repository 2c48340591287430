using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Diagnostics.CodeAnalysis;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;

namespace UnrulyMeadow.Core.Palette;

/// <summary>
/// One weather run with what many plants ask of it, each computed once: heat sums, week means, leaf seasons and
/// temperatures at bulb depth. Safe for several threads.
/// </summary>
public sealed class GrowingSeason
{
    private static readonly (int Month, int Day) AutumnEquinox = (9, 23);
    private static readonly (int Month, int Day) SpringEquinox = (3, 21);
    private static readonly (int Month, int Day) June = (6, 21);
    private static readonly (int Month, int Day) December = (12, 21);

    private readonly Kept<double, double[]> _yearHeat;
    private readonly Kept<double, double[]> _heat;
    private readonly Kept<(double BaseC, double Rate), double[]> _slowing;
    private readonly Kept<ThermalClass, float[]> _roots;
    private readonly Kept<(double BaseC, double LeafOutCd, int Nights), bool[]> _leaf;
    private readonly LocalDate[] _days;
    private readonly bool _southern;
    private readonly Kept<double, double[]> _springLight;
    private readonly Lazy<double[]> _weekMean;
    private readonly Lazy<double[]> _fortnightMean;
    private readonly Lazy<double[]> _dayLength;
    private readonly Lazy<double[]> _chill;

    private readonly Lazy<float[]> _hardened;
    private readonly Lazy<ImmutableArray<int>> _lateSummers;
    private readonly Lazy<ImmutableArray<int>> _autumnEquinoxes;
    private readonly Lazy<ImmutableArray<int>> _longestDays;

    /// <summary>Prepares a run.</summary>
    /// <param name="run">The weather.</param>
    /// <param name="southern">True south of the equator: the seasons lie six months on.</param>
    public GrowingSeason(WeatherRun run, bool southern)
    {
        Run = run;
        _southern = southern;
        _days = [.. Enumerable.Range(0, run.MinC.Length).Select(run.FirstDay.PlusDays)];
        _yearHeat = new(b => HeatSums(b, fromShortestDay: true));
        _heat = new(b => HeatSums(b, fromShortestDay: false));
        _slowing = new(k => [.. Heat(k.BaseC).Select(h => Math.Exp(-k.Rate * h))]);
        _roots = new(run.RootsC);
        _leaf = new(k => InLeaf(k.BaseC, k.LeafOutCd, k.Nights));
        _springLight = new(h => SpringLights(double.IsNaN(h) ? null : h));
        _weekMean = new Lazy<double[]>(() => MeansOver(7));
        _fortnightMean = new Lazy<double[]>(() => MeansOver(14));
        _dayLength = new Lazy<double[]>(() => [.. _days.Select(d => SolarGeometry.DaylightHours(Run.LatitudeDeg, d.DayOfYear))]);
        _chill = new Lazy<double[]>(ChillSums);
        _hardened = new Lazy<float[]>(() => Hardening.Of(FortnightMeanC));
        _autumnEquinoxes = new Lazy<ImmutableArray<int>>(() => Days(AutumnEquinox, SpringEquinox));
        _longestDays = new Lazy<ImmutableArray<int>>(() => Days(June, December));
        _lateSummers = new Lazy<ImmutableArray<int>>(() =>
            [.. Enumerable.Range(0, Length).Where(i => _days[i].Month == BulbCalendar.FirstMonth(_southern) && _days[i].Day == 1)]
        );
    }

    /// <summary>True south of the equator.</summary>
    public bool IsSouthern => _southern;

    /// <summary>The weather underneath.</summary>
    public WeatherRun Run { get; }

    /// <summary>Days in the run.</summary>
    public int Length => _days.Length;

    /// <summary>Indices of 1 August (1 February in the south), when a bulb's year turns.</summary>
    public ImmutableArray<int> LateSummers => _lateSummers.Value;

    /// <summary>Indices of the autumn equinox, from which chilling is counted.</summary>
    public ImmutableArray<int> AutumnEquinoxes => _autumnEquinoxes.Value;

    /// <summary>Indices of the longest day.</summary>
    public ImmutableArray<int> LongestDays => _longestDays.Value;

    /// <summary>Mean air temperature of the seven days up to each day, °C.</summary>
    public double[] WeekMeanC => _weekMean.Value;

    /// <summary>Mean air temperature of the fourteen days up to each day, °C.</summary>
    public double[] FortnightMeanC => _fortnightMean.Value;

    /// <summary>Share of full hardiness that tops have by day, 0 to 1.</summary>
    public float[] Hardened => _hardened.Value;

    /// <summary>Day length, hours (FAO-56 eq. 34).</summary>
    public double[] DayLengthH => _dayLength.Value;

    /// <summary>Days of chilling since the autumn equinox, by the triangular curve of Hänninen (1990; from memory) on the day's mean.</summary>
    public double[] ChillDays => _chill.Value;

    /// <summary>
    /// Share of a day's heat that counts by day length: 0 at so many hours and 1 at twelve; 0 from the autumn
    /// equinox to the shortest day. Without hours every day counts wholly.
    /// </summary>
    public double[] SpringLight(double? fromH) => _springLight.Of(fromH ?? double.NaN);

    /// <summary>Share of heat that counts at a day length: 0 at so many hours, 1 at twelve; 1 where no hours are given.</summary>
    public static double LightShare(double dayLengthH, double? fromH) => fromH is { } from ? Math.Clamp((dayLengthH - from) / (12 - from), 0, 1) : 1;

    /// <summary>Days from one day to the first night at or below a temperature, at most so many; all of them where none is given.</summary>
    public double DaysUntilNight(int from, double? atC, double most)
    {
        if (atC is null)
            return most;
        for (int i = Math.Max(0, from); i < Math.Min(Length, from + most); i++)
        {
            if (Run.MinC[i] <= atC)
                return i - from;
        }
        return most;
    }

    /// <summary>Heat above a base since the shortest day, °C·d by single sine.</summary>
    public double[] YearHeat(double baseC) => _yearHeat.Of(baseC);

    /// <summary>Heat above a base since the run's first day, °C·d by single sine.</summary>
    public double[] Heat(double baseC) => _heat.Of(baseC);

    /// <summary>How far growth is from done: e to the power of minus a rate times <see cref="Heat"/>, 1 and less.</summary>
    /// <param name="baseC">The base of the heat, °C.</param>
    /// <param name="rate">Of growth, per °C·d.</param>
    public double[] Slowing(double baseC, double rate) => _slowing.Of((baseC, rate));

    /// <summary>Daily mean temperature where a bulb lies, °C.</summary>
    public GroundDays SoilC(BulbPlace place) => Run.SoilC(place);

    /// <summary>The day's lowest where roots are coldest in a planter, °C.</summary>
    public float[] RootsC(ThermalClass what) => _roots.Of(what);

    /// <summary>True on the first day of the second half of the growing year: 1 July, or 1 January in the south.</summary>
    public bool IsMidsummer(int index) => _days[index].Day == 1 && _days[index].Month == (_southern ? 1 : 7);

    /// <summary>
    /// True on days when mixed deciduous planting is in leaf: leaf-out at 150 °C·d above 5 °C, drop after twelve nights
    /// at or below 5 °C (common practice).
    /// </summary>
    public bool[] UsualLeaf => LeafSeason(5, 150, 12);

    /// <summary>
    /// True on days in leaf: from the heat sum of leaf-out until so many nights at or below 5 °C have passed since
    /// midsummer. The nights are common practice.
    /// </summary>
    public bool[] LeafSeason(double baseC, double leafOutCd, int dropNights) => _leaf.Of((baseC, leafOutCd, dropNights));

    private bool[] InLeaf(double baseC, double leafOutCd, int dropNights)
    {
        var leaf = new bool[Length];
        double[] heat = YearHeat(baseC);
        int nights = 0;
        for (int i = 0; i < Length; i++)
        {
            if (_days[i].Day == 1 && _days[i].Month == (_southern ? 1 : 7))
                nights = 0;
            if (Run.MinC[i] <= 5)
                nights++;
            bool secondHalf = (_days[i].Month >= 7) != _southern;
            leaf[i] = heat[i] >= leafOutCd && (!secondHalf || nights < dropNights);
        }
        return leaf;
    }

    // Figures and pots tried by hand must not fill the memory: what was not asked for lately goes when there are many.
    private sealed class Kept<TKey, TValue>(Func<TKey, TValue> make)
        where TKey : notnull
    {
        private const int Most = 32;

        private volatile ConcurrentDictionary<TKey, TValue> _now = new();
        private volatile ConcurrentDictionary<TKey, TValue> _before = new();

        public TValue Of(TKey key)
        {
            if (_now.TryGetValue(key, out TValue? known))
                return known;
            if (_now.Count >= Most)
            {
                _before = _now;
                _now = new();
            }
            return _now[key] = _before.TryGetValue(key, out TValue? earlier) ? earlier : make(key);
        }
    }

    private double[] HeatSums(double baseC, bool fromShortestDay)
    {
        var heat = new double[Length];
        double sum = 0;
        for (int i = 0; i < Length; i++)
        {
            if (fromShortestDay && Is(_days[i], December, June))
                sum = 0;
            sum += ThermalTime.SingleSine(Run.MinC[i], Run.MaxC[i], baseC);
            heat[i] = sum;
        }
        return heat;
    }

    private bool Is(LocalDate day, (int Month, int Day) north, (int Month, int Day) south)
    {
        (int month, int date) = _southern ? south : north;
        return day.Month == month && day.Day == date;
    }

    private ImmutableArray<int> Days((int Month, int Day) north, (int Month, int Day) south) =>
        [.. Enumerable.Range(0, Length).Where(i => Is(_days[i], north, south))];

    private double[] ChillSums()
    {
        var chill = new double[Length];
        double sum = 0;
        for (int i = 0; i < Length; i++)
        {
            if (Is(_days[i], AutumnEquinox, SpringEquinox))
                sum = 0;
            sum += ChillOf(Run.MeanC(i));
            chill[i] = sum;
        }
        return chill;
    }

    // Hänninen (1990): wholly at 5 °C, nothing at −3.4 and at 10.4 °C.
    private static double ChillOf(double meanC) => Math.Clamp(meanC <= 5 ? (meanC + 3.4) / 8.4 : (10.4 - meanC) / 5.4, 0, 1);

    private double[] SpringLights(double? fromH)
    {
        var light = new double[Length];
        for (int i = 0; i < Length; i++)
        {
            LocalDate d = _days[i];
            int north = _southern ? ((d.Month + 5) % 12) + 1 : d.Month;
            bool beforeShortest = north is 10 or 11 || (north == 9 && d.Day >= 23) || (north == 12 && d.Day < 21);
            light[i] =
                fromH is null ? 1
                : beforeShortest ? 0
                : LightShare(DayLengthH[i], fromH);
        }
        return light;
    }

    private double[] MeansOver(int days)
    {
        var means = new double[Length];
        double sum = 0;
        for (int i = 0; i < Length; i++)
        {
            sum += Run.MeanC(i);
            if (i >= days)
                sum -= Run.MeanC(i - days);
            means[i] = sum / Math.Min(days, i + 1);
        }
        return means;
    }
}

/// <summary>One plant as it stands in a planter during a run.</summary>
public sealed class Growing
{
    private readonly LocalDate _install;
    private readonly LocalDate _lift;
    private int? _killedIndex;
    private GroundDays? _soil;

    /// <summary>Sets a plant into a run.</summary>
    /// <param name="season">The run.</param>
    /// <param name="plant">The plant.</param>
    /// <param name="install">The day it goes in.</param>
    /// <param name="lift">The day it comes out; it no longer shows on that day.</param>
    /// <param name="place">Where its bulb lies; any place for what is no bulb.</param>
    /// <param name="frostPocketC">How much colder than the station its leaves are on clear nights, °C.</param>
    /// <param name="inColour">True for what is bought in full colour instead of in bud.</param>
    public Growing(GrowingSeason season, Plant plant, LocalDate install, LocalDate lift, BulbPlace place, double frostPocketC, bool inColour = false)
    {
        InColour = inColour;
        _install = install;
        _lift = lift;
        Plant = plant;
        Place = place;
        FrostPocketC = frostPocketC;
        Enter(season);
    }

    /// <summary>The run.</summary>
    public GrowingSeason Season { get; private set; }

    /// <summary>The plant.</summary>
    public Plant Plant { get; }

    /// <summary>True for what is bought in full colour: it shows at once, and is over sooner.</summary>
    public bool InColour { get; }

    /// <summary>The days on which it is cut, and the cuts; what flowers once a year is held back by a cut in leaf.</summary>
    public IReadOnlyList<(int Index, Palette.CutBack Cut)> Cuts { get; init; } = [];

    /// <summary>Index of the day it goes in; negative when that was before the run.</summary>
    public int InstallIndex { get; private set; }

    /// <summary>Index of the day it comes out, at most the run's length.</summary>
    public int LiftIndex { get; private set; }

    /// <summary>Where its bulb lies.</summary>
    public BulbPlace Place { get; }

    /// <summary>Frost-pocket offset, °C.</summary>
    public double FrostPocketC { get; }

    /// <summary>Temperature at its bulb's depth, °C.</summary>
    public GroundDays SoilC => _soil ??= Season.SoilC(Place);

    /// <summary>Frost before this index takes nothing: what stands as a plan year begins is known to have lived.</summary>
    public int SafeUntilIndex { get; private set; }

    /// <summary>True for stock that comes straight from a warm house.</summary>
    public bool FromWarmHouse { get; init; }

    /// <summary>Stands the same plant in another run, so that one is enough to follow it through many.</summary>
    /// <param name="season">The run.</param>
    /// <param name="safeUntilIndex">Frost before this index takes nothing.</param>
    [MemberNotNull(nameof(Season))]
    public void Enter(GrowingSeason season, int safeUntilIndex = 0)
    {
        Season = season;
        SafeUntilIndex = safeUntilIndex;
        InstallIndex = season.Run.IndexOf(_install);
        LiftIndex = Math.Min(season.Length, season.Run.IndexOf(_lift));
        _killedIndex = null;
        _soil = null;
    }

    /// <summary>Index of the first day of some that is cold enough to spoil its tops, as hardened as it then is; their end where none is.</summary>
    /// <param name="from">The first of them.</param>
    /// <param name="end">The day after the last.</param>
    public int FirstSpoiled(int from, int end)
    {
        // What it stands lies between the two in proportion to how far it has hardened.
        double soft = Hardening.SpoiledAtC(Plant, 0) + FrostPocketC;
        double hard = Hardening.SpoiledAtC(Plant, 1) + FrostPocketC;
        double[] low = Season.Run.MinC;
        float[] hardened = Season.Hardened;
        for (int i = from; i < end; i++)
        {
            if (low[i] <= soft + ((hard - soft) * hardened[i]) + (FromWarmHouse ? Hardening.SoftnessK(i - InstallIndex) : 0))
                return i;
        }
        return Math.Max(from, end);
    }

    /// <summary>Index of the first day whose frost spoils its tops; that of the day it comes out where none does before.</summary>
    public int KilledIndex
    {
        get
        {
            if (_killedIndex is { } known)
                return known;
            int i = FirstSpoiled(Math.Max(SafeUntilIndex, InstallIndex), LiftIndex);
            _killedIndex = i;
            return i;
        }
    }

    /// <summary>
    /// What is added to the run's own heat sum to give the heat since install, °C·d: what a plant that went in before the
    /// run had by then, at the run's mean rate, or less what the run had before a later install.
    /// </summary>
    public double HeatBeforeCd
    {
        get
        {
            double[] heat = Season.Heat(Plant.GrowthBaseC);
            return InstallIndex < 0
                ? -InstallIndex * heat[^1] / heat.Length
                : -(InstallIndex == 0 ? 0 : heat[Math.Min(InstallIndex, heat.Length) - 1]);
        }
    }

    /// <summary>Sets to 0 what lies before the install day or from the lift day on.</summary>
    public void ClearOutside(Span<double> share)
    {
        share[..Math.Clamp(InstallIndex, 0, share.Length)].Clear();
        share[Math.Clamp(LiftIndex, 0, share.Length)..].Clear();
    }

    /// <summary>Sets to 0 what follows a killing frost, for plants that do not come back from one.</summary>
    public void ClearAfterFrost(Span<double> share)
    {
        if (Plant.DiesWithFrost)
            share[Math.Min(KilledIndex, share.Length)..].Clear();
    }
}

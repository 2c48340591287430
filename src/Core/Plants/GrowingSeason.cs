using System.Collections.Concurrent;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;

namespace UnrulyMeadow.Core.Plants;

/// <summary>
/// One weather run with what many plants ask of it, each computed once: heat sums, week means, leaf seasons and
/// temperatures at bulb depth. Safe for several threads.
/// </summary>
public sealed class GrowingSeason
{
    private readonly ConcurrentDictionary<double, double[]> _yearHeat = new();
    private readonly ConcurrentDictionary<double, double[]> _heat = new();
    private readonly ConcurrentDictionary<ThermalClass, float[]> _roots = new();
    private readonly ConcurrentDictionary<(double BaseC, double LeafOutCd, int Nights), bool[]> _leaf = new();
    private readonly LocalDate[] _days;
    private readonly bool _southern;
    private readonly Lazy<double[]> _weekMean;
    private readonly Lazy<int[]> _lateSummers;

    /// <summary>Prepares a run.</summary>
    /// <param name="run">The weather.</param>
    /// <param name="southern">True south of the equator: late summer is then 1 February and the heat year begins on 1 July.</param>
    public GrowingSeason(WeatherRun run, bool southern)
    {
        Run = run;
        _southern = southern;
        _days = [.. Enumerable.Range(0, run.MinC.Length).Select(run.FirstDay.PlusDays)];
        _weekMean = new Lazy<double[]>(WeekMeans);
        _lateSummers = new Lazy<int[]>(() => [.. Enumerable.Range(0, Length).Where(i => _days[i].Month == BulbCalendar.FirstMonth(_southern) && _days[i].Day == 1)]);
    }

    /// <summary>True south of the equator.</summary>
    public bool IsSouthern => _southern;

    /// <summary>The weather underneath.</summary>
    public WeatherRun Run { get; }

    /// <summary>Days in the run.</summary>
    public int Length => _days.Length;

    /// <summary>Indices of 1 August (1 February in the south), when a bulb's year turns.</summary>
    public IReadOnlyList<int> LateSummers => _lateSummers.Value;

    /// <summary>Mean air temperature of the seven days up to each day, °C.</summary>
    public double[] WeekMeanC => _weekMean.Value;

    /// <summary>Heat above a base since the new year (1 July in the south), °C·d by single sine.</summary>
    public double[] YearHeat(double baseC) => _yearHeat.GetOrAdd(baseC, b => HeatSums(b, fromNewYear: true));

    /// <summary>Heat above a base since the run's first day, °C·d by single sine.</summary>
    public double[] Heat(double baseC) => _heat.GetOrAdd(baseC, b => HeatSums(b, fromNewYear: false));

    /// <summary>Daily mean temperature where a bulb lies, °C.</summary>
    public double[] SoilC(BulbPlace place) => Run.SoilC(place);

    /// <summary>The day's lowest where roots are coldest in a planter, °C.</summary>
    public float[] RootsC(ThermalClass what) => _roots.GetOrAdd(what, Run.RootsC);

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
    public bool[] LeafSeason(double baseC, double leafOutCd, int dropNights) =>
        _leaf.GetOrAdd((baseC, leafOutCd, dropNights), k => InLeaf(k.BaseC, k.LeafOutCd, k.Nights));

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

    private double[] HeatSums(double baseC, bool fromNewYear)
    {
        var heat = new double[Length];
        double sum = 0;
        for (int i = 0; i < Length; i++)
        {
            if (fromNewYear && _days[i].Day == 1 && _days[i].Month == (_southern ? 7 : 1))
                sum = 0;
            sum += ThermalTime.SingleSine(Run.MinC[i], Run.MaxC[i], baseC);
            heat[i] = sum;
        }
        return heat;
    }

    private double[] WeekMeans()
    {
        var means = new double[Length];
        double sum = 0;
        for (int i = 0; i < Length; i++)
        {
            sum += Run.MeanC(i);
            if (i >= 7)
                sum -= Run.MeanC(i - 7);
            means[i] = sum / Math.Min(7, i + 1);
        }
        return means;
    }
}

/// <summary>One plant as it stands in a planter during a run.</summary>
public sealed class Growing
{
    private int? _killedIndex;
    private double[]? _soil;

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
        Season = season;
        Plant = plant;
        InstallIndex = season.Run.IndexOf(install);
        LiftIndex = Math.Min(season.Length, season.Run.IndexOf(lift));
        Place = place;
        FrostPocketC = frostPocketC;
    }

    /// <summary>The run.</summary>
    public GrowingSeason Season { get; }

    /// <summary>The plant.</summary>
    public Plant Plant { get; }

    /// <summary>True for what is bought in full colour: it shows at once, and is over sooner.</summary>
    public bool InColour { get; }

    /// <summary>Indices of the days on which it is cut; what flowers once a year is held back by a cut in leaf.</summary>
    public IReadOnlyList<int> CutIndices { get; init; } = [];

    /// <summary>Index of the day it goes in; negative when that was before the run.</summary>
    public int InstallIndex { get; }

    /// <summary>Index of the day it comes out, at most the run's length.</summary>
    public int LiftIndex { get; }

    /// <summary>Where its bulb lies.</summary>
    public BulbPlace Place { get; }

    /// <summary>Frost-pocket offset, °C.</summary>
    public double FrostPocketC { get; }

    /// <summary>Temperature at its bulb's depth, °C.</summary>
    public double[] SoilC => _soil ??= Season.SoilC(Place);

    /// <summary>Frost before this index takes nothing: what stands as a plan year begins is known to have lived.</summary>
    public int SafeUntilIndex { get; init; }

    /// <summary>Index of the first day whose frost spoils its tops, or the run's length.</summary>
    public int KilledIndex
    {
        get
        {
            if (_killedIndex is { } known)
                return known;
            int i = Math.Max(SafeUntilIndex, InstallIndex);
            while (i < Season.Length && Season.Run.MinC[i] - FrostPocketC > Plant.TopDamageC)
                i++;
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
            return InstallIndex < 0 ? -InstallIndex * heat[^1] / heat.Length : -(InstallIndex == 0 ? 0 : heat[Math.Min(InstallIndex, heat.Length) - 1]);
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

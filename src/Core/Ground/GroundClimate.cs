using System.Runtime.CompilerServices;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Ground;

/// <summary>Where a bulb lies: in what planter, and how deep.</summary>
/// <param name="Class">The planter as heat knows it.</param>
/// <param name="DepthCm">Depth to its base, cm.</param>
public readonly record struct BulbPlace(ThermalClass Class, double DepthCm)
{
    /// <summary>The usual place of a reckoning without a planter: 15 cm down in a bed under thin litter.</summary>
    public static BulbPlace UsualBed { get; } = new(ThermalClass.Bed(SurfaceCover.Litter), 15);

    /// <summary>In a few words.</summary>
    public Fact Describe() => new(GroundPhrase.At, ("depth", Quantity.Cm(DepthCm)), ("in", Class.Describe()));
}

/// <summary>Daily mean temperatures at a place, °C, read by the days of a run without laying them out anew.</summary>
public readonly struct GroundDays
{
    private readonly float[] _known;
    private readonly float[] _usual;
    private readonly int[] _days;

    internal GroundDays(float[] known, float[] usual, int[] days) => (_known, _usual, _days) = (known, usual, days);

    /// <summary>Days of the run.</summary>
    public int Length => _days.Length;

    /// <summary>The temperature of a day of the run.</summary>
    public double this[int index] => _days[index] is var day && day >= 0 ? _known[day] : _usual[-day - 1];
}

/// <summary>
/// What a record's weather does under the surface, class by class, each computed when first asked and then kept. Safe
/// for several threads.
/// </summary>
public sealed class GroundClimate
{
    // A record of thirty years takes about 0.9 MB a class and 50 kB a place. All records share the room: those that were replaced and
    // are still held by somebody's answer would otherwise each keep as much.
    private const long MostBytesOfClasses = 32L << 20;
    private const long MostBytesOfPlaces = 48L << 20;

    private static readonly ConditionalWeakTable<WeatherRecord, GroundClimate> OfRecords = [];

    private readonly Lazy<GroundForcing> _forcing;
    private static readonly BoundedCache<(GroundClimate, ThermalClass), GroundTemperatures> Classes = new(MostBytesOfClasses, g => g.Bytes);
    private static readonly BoundedCache<(GroundClimate, BulbPlace), Series> Places = new(MostBytesOfPlaces, s => s.Bytes);
    private static readonly BoundedCache<(GroundClimate, ThermalClass), Series> OfRoots = new(MostBytesOfPlaces, s => s.Bytes);

    private readonly WeatherRecord _record;

    /// <summary>Nothing is computed yet.</summary>
    /// <param name="record">The weather.</param>
    public GroundClimate(WeatherRecord record)
    {
        _record = record;
        _forcing = new(() => GroundForcing.From(record));
    }

    /// <summary>The weather as the ground meets it.</summary>
    public GroundForcing Forcing => _forcing.Value;

    /// <summary>What a record's weather does under the surface: one for each record, kept as long as the record is.</summary>
    /// <param name="record">The weather.</param>
    public static GroundClimate Of(WeatherRecord record) => OfRecords.GetValue(record, r => new GroundClimate(r));

    /// <summary>What a class felt.</summary>
    public GroundTemperatures Of(ThermalClass what) => Classes.GetOrAdd((this, what), static k => GroundModel.Run(k.Item2, k.Item1.Forcing));

    /// <summary>Computes several classes side by side, so that asking for them later costs nothing.</summary>
    public void Prepare(IEnumerable<ThermalClass> classes) =>
        Parallel.ForEach(
            classes.Distinct().Where(c => !Classes.Contains((this, c)) && !OfRoots.Contains((this, c))),
            new ParallelOptions { TaskScheduler = TaskScheduler.Current },
            c => Roots(c)
        );

    /// <summary>Daily mean temperature at a place over the record, °C; the depth is taken to the nearest half centimetre.</summary>
    public float[] At(BulbPlace place) => Kept(place).Days;

    /// <summary>Stands for a day outside the record in <see cref="Over"/>: the mean of its day of the year is taken.</summary>
    public static int Usually(LocalDate day) => -Math.Min(365, day.DayOfYear);

    /// <summary>The temperature at a place on chosen days.</summary>
    /// <param name="place">The place.</param>
    /// <param name="days">Indices of the record's days, or what <see cref="Usually"/> gives.</param>
    public GroundDays Over(BulbPlace place, int[] days)
    {
        Series at = Kept(place);
        return new GroundDays(at.Days, at.Usual, days);
    }

    /// <summary>The day's lowest where roots are coldest, on days as in <see cref="Over"/>, °C.</summary>
    public float[] RootsOver(ThermalClass what, ReadOnlySpan<int> days)
    {
        Series roots = Roots(what);
        var result = new float[days.Length];
        for (int i = 0; i < result.Length; i++)
            result[i] = days[i] >= 0 ? roots.Days[days[i]] : roots.Usual[-days[i] - 1];
        return result;
    }

    // Depths are read off their class at little cost.
    private Series Kept(BulbPlace place) =>
        Places.GetOrAdd((this, place with { DepthCm = Math.Round(place.DepthCm * 2) / 2 }), static k =>
            k.Item1.SeriesOf(k.Item1.Of(k.Item2.Class).AtDepth(k.Item2.DepthCm))
        );

    private Series Roots(ThermalClass what) => OfRoots.GetOrAdd((this, what), static k => k.Item1.SeriesOf(k.Item1.Of(k.Item2).RootMin));

    private Series SeriesOf(float[] days) => new(days, Usual(days));

    private float[] Usual(float[] days)
    {
        var sum = new double[365];
        var count = new int[365];
        for (int i = 0; i < days.Length; i++)
        {
            int slot = Math.Min(364, _record.FirstDay.PlusDays(i).DayOfYear - 1);
            sum[slot] += days[i];
            count[slot]++;
        }
        double whole = days.Length == 0 ? 0 : days.Average(d => (double)d);
        return [.. Enumerable.Range(0, 365).Select(d => (float)(count[d] == 0 ? whole : sum[d] / count[d]))];
    }

    private sealed record Series(float[] Days, float[] Usual)
    {
        public long Bytes => sizeof(float) * (long)(Days.Length + Usual.Length);
    }
}

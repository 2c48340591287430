using System.Collections.Concurrent;
using NodaTime;
using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Core.Ground;

/// <summary>Where a bulb lies: in what planter, and how deep.</summary>
/// <param name="Class">The planter as heat knows it.</param>
/// <param name="DepthCm">Depth to its base, cm.</param>
public readonly record struct BulbPlace(ThermalClass Class, double DepthCm)
{
    /// <summary>The usual place of a reckoning without a planter: 15 cm down in a bed under thin litter.</summary>
    public static BulbPlace UsualBed { get; } = new(ThermalClass.Bed(SurfaceCover.Litter), 15);

    /// <summary>In a few words.</summary>
    public string Describe() => $"{DepthCm:0} cm deep, {Class.Describe()}";
}

/// <summary>
/// What a record's weather does under the surface, class by class, each computed when first asked and then kept. Safe
/// for several threads.
/// </summary>
/// <param name="record">The weather.</param>
public sealed class GroundClimate(WeatherRecord record)
{
    private const int MostKept = 300;

    private readonly Lazy<GroundForcing> _forcing = new(() => GroundForcing.From(record));
    private readonly ConcurrentDictionary<ThermalClass, Lazy<GroundTemperatures>> _classes = new();
    private readonly ConcurrentDictionary<BulbPlace, Lazy<(float[] Days, float[] Usual)>> _places = new();

    /// <summary>The weather as the ground meets it.</summary>
    public GroundForcing Forcing => _forcing.Value;

    /// <summary>What a class felt.</summary>
    public GroundTemperatures Of(ThermalClass what)
    {
        // Pots tried by hand must not fill the memory; what is needed again is computed again.
        if (_classes.Count > MostKept)
        {
            _classes.Clear();
            _places.Clear();
        }
        return _classes.GetOrAdd(what, w => new Lazy<GroundTemperatures>(() => GroundModel.Run(w, Forcing))).Value;
    }

    /// <summary>Computes several classes side by side, so that asking for them later costs nothing.</summary>
    public void Prepare(IEnumerable<ThermalClass> classes) =>
        classes.Distinct().Where(c => !_classes.ContainsKey(c)).AsParallel().ForAll(c => Of(c));

    /// <summary>Daily mean temperature at a place over the record, °C; the depth is taken to the nearest half centimetre.</summary>
    public float[] At(BulbPlace place) => Kept(place).Days;

    /// <summary>
    /// The temperature at a place on days that need not lie in the record: where they do not, the mean of the day of the
    /// year stands in.
    /// </summary>
    /// <param name="place">The place.</param>
    /// <param name="days">Days, as the record counts them.</param>
    public double[] Over(BulbPlace place, IReadOnlyList<LocalDate> days)
    {
        (float[] known, float[] usual) = Kept(place);
        var result = new double[days.Count];
        for (int i = 0; i < result.Length; i++)
        {
            int at = record.IndexOf(days[i]);
            result[i] = at >= 0 && at < known.Length ? known[at] : usual[Math.Min(364, days[i].DayOfYear - 1)];
        }
        return result;
    }

    private (float[] Days, float[] Usual) Kept(BulbPlace place)
    {
        var rounded = place with { DepthCm = Math.Round(place.DepthCm * 2) / 2 };
        return _places.GetOrAdd(rounded, p => new Lazy<(float[], float[])>(() =>
        {
            float[] days = Of(p.Class).AtDepth(p.DepthCm);
            return (days, Usual(days));
        })).Value;
    }

    private float[] Usual(float[] days)
    {
        var sum = new double[365];
        var count = new int[365];
        for (int i = 0; i < days.Length; i++)
        {
            int slot = Math.Min(364, record.FirstDay.PlusDays(i).DayOfYear - 1);
            sum[slot] += days[i];
            count[slot]++;
        }
        double whole = days.Length == 0 ? 0 : days.Average(d => (double)d);
        return [.. Enumerable.Range(0, 365).Select(d => (float)(count[d] == 0 ? whole : sum[d] / count[d]))];
    }
}

using System.Buffers;
using NodaTime;
using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Season;

/// <summary>What weather did to a plant.</summary>
public enum LossKind
{
    /// <summary>Nothing.</summary>
    None,

    /// <summary>Frost spoiled its flower and leaf, and ended its show.</summary>
    Frost,

    /// <summary>Winter killed its roots in the container.</summary>
    Roots,

    /// <summary>Winter spoiled its tops; they grow again in summer.</summary>
    Tops,
}

/// <summary>One plant in one weather year of a plan year; days count from the plan year's first, −1 for never.</summary>
/// <param name="WeatherYear">The year whose weather it was.</param>
/// <param name="First">First day on which it shows a third of its best.</param>
/// <param name="Peak">The day of most colour: the share that shows times the room that the plant takes.</param>
/// <param name="Last">Last day on which it shows a third of its best.</param>
/// <param name="DaysShown">Days on which it shows a third of its best.</param>
/// <param name="DaysStalled">Days on which heat holds its flowers back.</param>
/// <param name="Loss">What it lost to the weather.</param>
/// <param name="LostOn">On what day; −1 for nothing lost.</param>
public readonly record struct PlantYear(int WeatherYear, int First, int Peak, int Last, int DaysShown, int DaysStalled, LossKind Loss, int LostOn);

/// <summary>
/// One plant of one standing through a plan year, over every weather year: the width it has and the share of its best that
/// each of its colours shows, day by day. Planters that set the same plant out alike share one. Immutable.
/// </summary>
public sealed class PlantYears
{
    /// <summary>Days from plugging in a forced bulb to its open colour (common practice: in bud).</summary>
    public const double ForcedBudDays = 4;

    private readonly Memory<float> _area;
    private readonly Memory<float>[] _shares;
    private readonly double? _heatCeilingC;
    private float[]? _shown;

    private PlantYears(Plant plant, int from, int length, int years, DayRoom? room)
    {
        Plant = plant;
        From = from;
        Length = length;
        Stride = (length + DayMath.Lanes - 1) / DayMath.Lanes * DayMath.Lanes;
        Memory<float> Rows() => room is null ? new float[Stride * years] : room.Take(Stride * years);
        _area = Rows();
        _shares = [.. plant.Windows.Select(_ => Rows())];
        Years = new PlantYear[years];
        _heatCeilingC = plant.Windows.Select(w => w.Rule).OfType<FromInstall>().FirstOrDefault()?.HeatCeilingC;
    }

    /// <summary>The plant.</summary>
    public Plant Plant { get; }

    /// <summary>First day of the plan year on which it stands, from 0.</summary>
    public int From { get; }

    /// <summary>Days of the plan year on which it stands.</summary>
    public int Length { get; }

    /// <summary>What each weather year makes of it.</summary>
    public PlantYear[] Years { get; }

    /// <summary>Bytes held.</summary>
    public long Bytes => sizeof(float) * (long)_area.Length * (1 + _shares.Length);

    /// <summary>Days of one row in memory: <see cref="Length"/> and what rounds it up; the rest is 0.</summary>
    internal int Stride { get; }

    /// <summary>Surface under one plant by day of its standing, cm²; 0 once it is dead, and for a bulb while it does not show.</summary>
    public ReadOnlySpan<float> AreaCm2(int year) => _area.Span.Slice(year * Stride, Length);

    /// <summary>Share of its best that a colour window shows by day of its standing, 0 to 1.</summary>
    public ReadOnlySpan<float> Share(int window, int year) => _shares[window].Span.Slice(year * Stride, Length);

    /// <summary>Share of weather years that show a third of its best, by day of the plan year; kept, not to be changed.</summary>
    /// <param name="days">Days in the plan year.</param>
    public float[] ShownOdds(int days)
    {
        if (_shown is { } known && known.Length == days)
            return known;
        var odds = new float[days];
        for (int y = 0; y < Years.Length; y++)
        {
            ReadOnlySpan<float> area = AreaCm2(y);
            for (int d = 0; d < Length; d++)
            {
                bool shows = false;
                for (int w = 0; w < _shares.Length && !shows; w++)
                    shows = Share(w, y)[d] >= ColourOdds.Shows;
                odds[From + d] += shows && area[d] > 0 ? 1f / Years.Length : 0;
            }
        }
        return _shown = odds;
    }

    internal ReadOnlySpan<float> AreaRow(int year) => _area.Span.Slice(year * Stride, Stride);

    internal ReadOnlySpan<float> ShareRow(int window, int year) => _shares[window].Span.Slice(year * Stride, Stride);

    /// <summary>Follows a plant through every weather year.</summary>
    /// <param name="plant">The plant.</param>
    /// <param name="standing">When and where it stands.</param>
    /// <param name="seasons">Weather years laid over the plan year.</param>
    /// <param name="start">First day of the plan year.</param>
    public static PlantYears Of(Plant plant, Standing standing, IReadOnlyList<GrowingSeason> seasons, LocalDate start) =>
        Of(plant, standing, seasons, start, null);

    /// <summary>Follows a plant in rows that are lent: what is returned must not be read once they serve another planter.</summary>
    internal static PlantYears Of(Plant plant, Standing standing, IReadOnlyList<GrowingSeason> seasons, LocalDate start, DayRoom? room)
    {
        int days = Period.DaysBetween(start, start.PlusMonths(12));
        int from = Math.Clamp(Period.DaysBetween(start, standing.From), 0, days);
        int to = Math.Clamp(Period.DaysBetween(start, standing.Lift), from, days);
        var result = new PlantYears(plant, from, to - from, seasons.Count, room);
        if (result.Length == 0)
            return result;
        if (seasons.Count == 0)
            return result;
        double[] share = ArrayPool<double>.Shared.Rent(seasons.Max(s => s.Length));
        Growing uncut = result.Stand(standing, seasons[0], []);
        for (int y = 0; y < seasons.Count; y++)
            result.Follow(y, standing, uncut, seasons[y], start, share.AsSpan(0, seasons[y].Length));
        ArrayPool<double>.Shared.Return(share);
        return result;
    }

    private void Follow(int year, Standing standing, Growing uncut, GrowingSeason season, LocalDate start, Span<double> share)
    {
        int zero = season.Run.IndexOf(start);
        uncut.Enter(season, zero);
        (double Share, Growing Growing)[] groups = standing.Cuts.Count == 0 ? [] : Cut(standing, season, zero);
        (LossKind loss, int lost) = FirstLoss(uncut, Math.Max(zero, season.Run.IndexOf(standing.From)));
        int dead = loss is LossKind.Frost or LossKind.Roots ? lost : int.MaxValue;
        int spoiledTo = loss == LossKind.Tops ? Regrown(season, lost) : -1;
        Span<float> best = stackalloc float[Stride];
        Span<float> most = stackalloc float[Stride];
        double[] mixed = groups.Length == 0 ? [] : new double[share.Length];
        for (int w = 0; w < _shares.Length; w++)
        {
            ColourWindow window = Plant.Windows[w];
            // Bulbs forced beforehand are set in as their buds colour, and last their usual days.
            ColourRule rule = standing.Forced && window.Rule is BulbForcing bulb ? new FromInstall(ForcedBudDays, bulb.ShowDays) : window.Rule;
            if (groups.Length == 0)
            {
                // Only these days are read below; what an earlier year or window left elsewhere plays no part.
                share.Slice(zero + From, Length).Clear();
                rule.WriteShares(share, uncut);
            }
            else
            {
                Mix(share, mixed, rule, window, uncut, groups);
            }
            float light = LightShortage.ColourShare(standing.LightSteps);
            float weight = (float)(window.Share * window.Weight);
            Span<float> row = _shares[w].Span.Slice(year * Stride, Stride);
            DayMath.Take(share.Slice(zero + From, Math.Clamp(dead - zero - From, 0, Length)), light, row);
            if (spoiledTo >= 0)
                row[Math.Clamp(lost - zero - From, 0, Length)..Math.Clamp(spoiledTo - zero - From, 0, Length)].Clear();
            DayMath.Gather(row, weight, best, most);
        }
        Span<float> area = _area.Span.Slice(year * Stride, Length);
        Grow(area[..Math.Clamp(dead - zero - From, 0, Length)], uncut, groups, zero + From, best, LightShortage.WidthShare(standing.LightSteps));
        for (int d = 0; d < Length; d++)
            most[d] *= area[d];
        Years[year] = Sum(season, uncut, zero, best[..Length], most[..Length], loss, lost);
    }

    private Growing Stand(Standing standing, GrowingSeason season, IReadOnlyList<(int Index, CutBack Cut)> cuts) =>
        new(season, Plant, standing.Planted, standing.Lift, standing.Place, standing.PocketC, standing.InColour)
        {
            FromWarmHouse = standing.FromWarmHouse,
            Cuts = cuts,
        };

    private (double Share, Growing Growing)[] Cut(Standing standing, GrowingSeason season, int zero) =>
        [
            .. CutBack
                .Groups(standing.Cuts)
                .Select(g =>
                {
                    Growing cut = Stand(standing, season, [.. g.Cuts.Select(c => (season.Run.IndexOf(c.Day), c))]);
                    cut.Enter(season, zero);
                    return (g.Share, cut);
                }),
        ];

    // A rule's shares, as of the plants that are cut and of those that are not, each in proportion.
    private static void Mix(
        Span<double> share,
        double[] mixed,
        ColourRule rule,
        ColourWindow window,
        Growing uncut,
        (double Share, Growing Growing)[] groups
    )
    {
        double rest = 1 - groups.Sum(g => g.Share);
        Array.Clear(mixed);
        foreach ((double of, Growing growing) in groups)
        {
            share.Clear();
            rule.WriteShares(share, growing);
            if (window.Part == ColourPart.Flower)
                CutEffect.Apply(share, growing, rule);
            for (int i = 0; i < mixed.Length; i++)
                mixed[i] += of * share[i];
        }
        share.Clear();
        if (rest > 1e-6)
            rule.WriteShares(share, uncut);
        for (int i = 0; i < mixed.Length; i++)
            share[i] = mixed[i] + (rest > 1e-6 ? rest * share[i] : 0);
    }

    // The surface under its width; a bulb takes room only while it shows, and others close over it before and after.
    private void Grow(
        Span<float> area,
        Growing growing,
        (double Share, Growing Growing)[] groups,
        int first,
        ReadOnlySpan<float> best,
        double widthShare
    )
    {
        if (Plant.Grows)
        {
            double atInstall = Math.Exp(-Plant.GrowthPerDegreeDay * growing.HeatBeforeCd);
            DayMath.Grow(
                growing.Season.Slowing(Plant.GrowthBaseC, Plant.GrowthPerDegreeDay).AsSpan(first),
                atInstall,
                widthShare * Plant.MatureSpreadCm,
                (Plant.MatureSpreadCm / Plant.SpreadAtPurchaseCm) - 1,
                area
            );
        }
        else
        {
            double spread = widthShare * Plant.SpreadAtPurchaseCm;
            area.Fill((float)(Math.PI / 4 * spread * spread));
        }
        if (Plant.Green == GreenLeaf.AroundFlower)
        {
            for (int d = 0; d < area.Length; d++)
                area[d] *= best[d] > 0 ? (float)ReturnOf(first + d - growing.InstallIndex) : 0;
        }
        if (groups.Length == 0)
            return;
        for (int d = 0; d < area.Length; d++)
        {
            double left = 1;
            foreach ((double of, Growing cut) in groups)
                left -= of * (1 - (CutEffect.WidthLeft(cut, first + d) is var width ? width * width : 1));
            area[d] *= (float)left;
        }
    }

    // What of its first show a bulb that was left in the ground gives after so many days.
    private double ReturnOf(int daysSince)
    {
        int year = daysSince / 365;
        return year < 1 || Plant.ReturnByYear.Count == 0 ? 1 : Plant.ReturnByYear[Math.Min(year, Plant.ReturnByYear.Count) - 1];
    }

    // The first thing that winter takes. What stands for years is taken to have lived until the plan year begins.
    internal static (LossKind Kind, int Index) FirstLoss(Growing growing, int from)
    {
        Plant plant = growing.Plant;
        int end = growing.LiftIndex;
        if (plant.DiesWithFrost)
            return growing.KilledIndex < end ? (LossKind.Frost, growing.KilledIndex) : (LossKind.None, -1);
        int roots = int.MaxValue;
        if ((plant.IsLasting || plant.Bulb is not null) && !growing.Place.Class.IsBed)
        {
            float[] felt = growing.Season.RootsC(growing.Place.Class);
            double kills = plant.RootKilling.Celsius;
            roots = from;
            while (roots < end && felt[roots] > kills)
                roots++;
        }
        int tops = plant.HasLastingTops ? growing.FirstSpoiled(from, end) : int.MaxValue;
        int first = Math.Min(roots, tops);
        return first >= end ? (LossKind.None, -1)
            : roots <= tops ? (LossKind.Roots, roots)
            : (LossKind.Tops, tops);
    }

    // Tops that winter spoiled are in leaf again after midsummer (common practice).
    private static int Regrown(GrowingSeason season, int lost)
    {
        int i = lost;
        while (i < season.Length && !season.IsMidsummer(i))
            i++;
        return i;
    }

    private PlantYear Sum(
        GrowingSeason season,
        Growing growing,
        int zero,
        ReadOnlySpan<float> best,
        ReadOnlySpan<float> flower,
        LossKind loss,
        int lost
    )
    {
        int first = -1;
        int last = -1;
        int peak = -1;
        int shown = 0;
        for (int d = 0; d < best.Length; d++)
        {
            if (best[d] < ColourOdds.Shows)
                continue;
            first = first < 0 ? d : first;
            last = d;
            shown++;
            if (peak < 0 || flower[d] > flower[peak])
                peak = d;
        }
        int stalled = 0;
        if (_heatCeilingC is { } ceiling)
        {
            for (int d = 0; d < best.Length; d++)
                stalled += growing.Season.WeekMeanC[zero + From + d] > ceiling ? 1 : 0;
        }
        int At(int d) => d < 0 ? -1 : From + d;
        return new PlantYear(
            season.Run.Year,
            At(first),
            At(peak),
            At(last),
            shown,
            stalled,
            loss,
            loss == LossKind.None ? -1 : Math.Max(0, lost - zero)
        );
    }
}

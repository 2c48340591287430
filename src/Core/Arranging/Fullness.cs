using NodaTime;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;

namespace UnrulyMeadow.Core.Arranging;

/// <summary>How many plants fill a planter by a day.</summary>
/// <param name="Counts">Plants of each kind; empty when no count reaches the cover asked.</param>
/// <param name="CoverAtInstall">Share covered on the install day with these counts.</param>
/// <param name="CoverOnDay">Share covered on the day asked.</param>
public sealed record FullnessAnswer(IReadOnlyList<int> Counts, double CoverAtInstall, double CoverOnDay)
{
    /// <summary>All plants together; 0 when no count reaches the cover asked.</summary>
    public int Total => Counts.Sum();
}

/// <summary>The answer for one install day.</summary>
/// <param name="DaysLater">Days after the install day asked; negative for earlier.</param>
/// <param name="Answer">The counts, or with no counts the best cover that packed plants reach.</param>
public sealed record FullnessIf(int DaysLater, FullnessAnswer Answer);

/// <summary>
/// "How many for 90 % cover by a day?": the smallest count in the mix's proportions whose plants, laid out and grown to
/// that day, cover so much of the surface.
/// </summary>
public sealed class FullnessQuestion
{
    /// <summary>Cover that a crew calls full (common practice).</summary>
    public const double Full = 0.9;

    // Plants as bought are not pressed closer than this share of the surface (common practice): root balls need their room.
    private const double Pressed = 1.25;

    // Room to grow: grown plants just touch in a staggered pattern.
    private const double Staggered = 0.9069;

    private readonly Planter _planter;
    private readonly IReadOnlyList<(Plant Plant, int Share)> _mix;
    private readonly IReadOnlyList<(PlanePoint At, Stature Stature)> _others;
    private readonly Dictionary<int, (int[] Counts, IReadOnlyList<IReadOnlyList<PlanePoint>> Places)> _laid = [];

    /// <summary>Prepares a question.</summary>
    /// <param name="planter">The planter.</param>
    /// <param name="mix">Kinds with their shares of the count, at least one.</param>
    /// <param name="others">What stands there besides, as wide as on the day asked.</param>
    /// <exception cref="InvalidInputException">The mix is empty or a share is below one.</exception>
    public FullnessQuestion(
        Planter planter,
        IReadOnlyList<(Plant Plant, int Share)> mix,
        IReadOnlyList<(PlanePoint At, Stature Stature)>? others = null
    )
    {
        if (mix.Count == 0)
            throw new InvalidInputException("mix", "must hold at least one plant");
        for (int i = 0; i < mix.Count; i++)
        {
            if (mix[i].Share is < 1 or > DisplayItem.MostCount)
                throw new InvalidInputException($"mix[{i}].share", $"must be from 1 to {DisplayItem.MostCount:#,0} (it is {mix[i].Share})");
        }
        _planter = planter;
        _mix = mix;
        _others = others ?? [];
    }

    /// <summary>A question of what goes in beside what stands for years.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="planter">The planter.</param>
    /// <param name="mix">Kinds with their shares of the count.</param>
    /// <param name="standing">What stands there for years.</param>
    public static FullnessQuestion Beside(Plan plan, Planter planter, IReadOnlyList<(Plant Plant, int Share)> mix, IReadOnlyList<Display> standing) =>
        new(
            planter,
            mix,
            [
                .. standing
                    .SelectMany(d => Arrangement.Of(plan, planter, d).Plants)
                    .Select(p => (p.At, Stature.Of(p.Plant, p.Plant.HeightCm > 120 ? p.Plant.SpreadAtPurchaseCm * 0.5 : p.Plant.SpreadAtPurchaseCm))),
            ]
        );

    /// <summary>The day by which a display should be full: six weeks after it goes in, or half-way where it stands less than twelve.</summary>
    public static LocalDate By(LocalDate install, LocalDate lift) =>
        Period.DaysBetween(install, lift) is var days && days > 84 ? install.PlusDays(42) : install.PlusDays(days / 2);

    /// <summary>Most plants that go in as bought without pressing their root balls.</summary>
    public int Most
    {
        get
        {
            double one = _mix.Sum(m => m.Share * Math.PI / 4 * m.Plant.SpreadAtPurchaseCm * m.Plant.SpreadAtPurchaseCm) / _mix.Sum(m => m.Share);
            return Math.Clamp((int)Math.Floor(Pressed * _planter.Form.SurfaceCm2 / one), 1, DisplayItem.MostCount);
        }
    }

    /// <summary>The smallest count that covers so much on a day.</summary>
    /// <param name="target">Cover wanted, above 0 to 1.</param>
    /// <param name="spreadThen">Width of each kind on the day, cm.</param>
    /// <exception cref="InvalidInputException">The target is out of range.</exception>
    public FullnessAnswer For(double target, IReadOnlyList<double> spreadThen)
    {
        if (!(target is > 0 and <= 1))
            throw new InvalidInputException("target", $"must be above 0 and at most 1 (it is {target:0.##})");
        // The answer lies near the count whose plants, laid side by side, take up so much: bounds are sought from there outward.
        double one = _mix.Select((m, k) => m.Share * Math.PI / 4 * spreadThen[k] * spreadThen[k]).Sum() / _mix.Sum(m => m.Share);
        int high = Math.Clamp((int)Math.Ceiling(target * _planter.Form.SurfaceCm2 / Math.Max(one, 1)), 1, Most);
        int low = high;
        while (Cover(high, spreadThen) < target)
        {
            if (high == Most)
                return new FullnessAnswer([], Cover(high, AsBought), Cover(high, spreadThen));
            low = high;
            high = Math.Min(Most, high + Math.Max(1, high / 6));
        }
        while (low == high || (low > 0 && Cover(low, spreadThen) >= target))
        {
            high = low;
            low -= Math.Max(1, low / 6);
        }
        while (high - low > 1)
        {
            int middle = (low + high) / 2;
            if (Cover(middle, spreadThen) >= target)
                high = middle;
            else
                low = middle;
        }
        // Cover does not rise with every single plant, for each count is laid out anew: look a little lower.
        for (int n = high - 1; n >= Math.Max(1, high - 2); n--)
        {
            if (Cover(n, spreadThen) >= target)
                high = n;
        }
        return new FullnessAnswer(Laid(high).Counts, Cover(high, AsBought), Cover(high, spreadThen));
    }

    /// <summary>Packed from day one: full on the install day itself.</summary>
    public FullnessAnswer Packed(double target) => For(target, AsBought);

    /// <summary>Room to grow: as many as can grow to their full width side by side.</summary>
    /// <param name="spreadThen">Width of each kind on the day asked, cm.</param>
    public FullnessAnswer RoomToGrow(IReadOnlyList<double> spreadThen)
    {
        double one = _mix.Sum(m => m.Share * Math.PI / 4 * m.Plant.MatureSpreadCm * m.Plant.MatureSpreadCm) / _mix.Sum(m => m.Share);
        int n = Math.Clamp((int)Math.Floor(Staggered * _planter.Form.SurfaceCm2 / one), 1, Most);
        return new FullnessAnswer(Laid(n).Counts, Cover(n, AsBought), Cover(n, spreadThen));
    }

    /// <summary>By the house rule's school of density.</summary>
    /// <param name="school">The school.</param>
    /// <param name="target">Cover wanted.</param>
    /// <param name="spreadThen">Width of each kind on the day asked, cm.</param>
    public FullnessAnswer By(DensitySchool school, double target, IReadOnlyList<double> spreadThen) =>
        school switch
        {
            DensitySchool.PackedFromDayOne => Packed(target),
            DensitySchool.RoomToGrow => RoomToGrow(spreadThen),
            _ => For(target, spreadThen),
        };

    /// <summary>The cover of a total laid out in the mix's proportions.</summary>
    public double Cover(int total, IReadOnlyList<double> spread)
    {
        if (total <= 0)
            return PlantCover.Count(SurfaceRaster.Of(_planter.Form), _others).Covered;
        (int[] _, IReadOnlyList<IReadOnlyList<PlanePoint>> places) = Laid(total);
        return PlantCover
            .Count(
                SurfaceRaster.Of(_planter.Form),
                [.. _others, .. places.SelectMany((kind, k) => kind.Select(p => (p, Stature.Of(_mix[k].Plant, spread[k]))))]
            )
            .Covered;
    }

    /// <summary>The arithmetic behind an answer.</summary>
    public Working Explain(FullnessAnswer answer, double target, LocalDate install, LocalDate day, IReadOnlyList<double> spreadThen) =>
        new Working(
            WorkingKind.PlantsForCover,
            answer.Total == 0 ? (object?)new Fact(WorkingPhrase.NotReachedClosest, ("coverOnDay", Quantity.Share(answer.CoverOnDay))) : answer.Total,
            [
                new WorkingInput(InputName.Surface, Quantity.SquareMetres(_planter.Form.SurfaceCm2 / 10_000, 2)),
                new WorkingInput(InputName.GoesIn, install),
                .. _mix.Select(
                    (m, i) =>
                        new WorkingInput(
                            m.Plant,
                            new Fact(
                                WorkingPhrase.WideAsBoughtThenGrown,
                                ("spreadAtPurchase", Quantity.Cm(m.Plant.SpreadAtPurchaseCm, 1)),
                                ("spreadThen", Quantity.Cm(spreadThen[i], 1)),
                                ("matureSpread", Quantity.Cm(m.Plant.MatureSpreadCm, 1))
                            )
                        )
                ),
            ],
            [
                new Fact(
                    WorkingPhrase.CoveredWhenPlantedOnDay,
                    ("coverAtInstall", Quantity.Share(answer.CoverAtInstall)),
                    ("coverOnDay", Quantity.Share(answer.CoverOnDay))
                ),
                .. answer.Total == 0 ? [new Fact(WorkingPhrase.NoMoreThanGoInAs, ("most", Most))] : Array.Empty<object>(),
            ]
        )
        {
            Parts = [("planter", _planter), ("target", Quantity.Share(target)), ("day", day)],
        };

    private IReadOnlyList<double> AsBought => [.. _mix.Select(m => m.Plant.SpreadAtPurchaseCm)];

    private (int[] Counts, IReadOnlyList<IReadOnlyList<PlanePoint>> Places) Laid(int total)
    {
        if (!_laid.TryGetValue(total, out var laid))
        {
            int[] counts = InProportion([.. _mix.Select(m => m.Share)], total);
            _laid[total] = laid = (counts, Layout.LayOut(_planter, [.. _mix.Select((m, i) => (m.Plant, counts[i]))]));
        }
        return laid;
    }

    /// <summary>A total dealt out in proportion by largest remainders; ties go to the first.</summary>
    public static int[] InProportion(IReadOnlyList<int> shares, int total)
    {
        double all = shares.Sum();
        double[] exact = [.. shares.Select(s => total * s / all)];
        int[] counts = [.. exact.Select(e => (int)Math.Floor(e))];
        foreach (int i in Enumerable.Range(0, counts.Length).OrderByDescending(i => exact[i] - counts[i]).ThenBy(i => i).Take(total - counts.Sum()))
            counts[i]++;
        return counts;
    }
}

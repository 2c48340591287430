using NodaTime;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Core.Work;

/// <summary>Medium for one planter.</summary>
/// <param name="Planter">The planter.</param>
/// <param name="Litres">Litres needed.</param>
/// <param name="Reason">Why so many: a <see cref="MediumReason"/>.</param>
public sealed record MediumLine(Planter Planter, double Litres, Fact Reason)
{
    /// <summary>Finished surface to the bottom of the fresh medium, cm.</summary>
    public double DepthCm { get; init; }

    /// <summary>True where something that goes in or stays wants acid medium.</summary>
    public bool IsAcid { get; init; }

    /// <summary>Of that, the top that is still fresh and is laid aside, cm; 0 for none.</summary>
    public double FreshCm { get; init; }
}

/// <summary>Feeds that the house rules give.</summary>
public enum FeedKind
{
    /// <summary>Starter feed, mixed into fresh medium.</summary>
    StarterFeed,

    /// <summary>Bulb food, in the hole.</summary>
    BulbFood,
}

/// <summary>Feed for one planter, as the house rules want it.</summary>
/// <param name="Planter">The planter.</param>
/// <param name="What">Of which kind.</param>
/// <param name="Grams">Grams.</param>
public sealed record FeedLine(Planter Planter, FeedKind What, double Grams)
{
    /// <summary>Starter feed for a recharged planter, grams per litre of fresh medium (common practice).</summary>
    public const double StarterGramsPerLitre = 2;

    /// <summary>Bulb food in the hole, grams per bulb (common practice).</summary>
    public const double BulbFoodGrams = 5;

    /// <summary>
    /// True from March to August, or September to February in the south: later nothing is made to grow that winter would take (common practice).
    /// </summary>
    public static bool IsGrowingSeason(LocalDate day, bool southern) => (day.Month is >= 3 and <= 8) != southern;
}

/// <summary>
/// What fresh medium the changeovers of one container bring, one after the other: a container that was never filled takes its
/// whole volume; what was renewed within the year is not renewed again; over bulbs and roots that stay only what may be dug.
/// </summary>
/// <param name="plan">The plan.</param>
/// <param name="planter">The planter.</param>
public sealed class MediumRenewal(Plan plan, Planter planter)
{
    /// <summary>Medium renewed within so many days is not renewed again: a plan year less the weeks by which a turn moves.</summary>
    public const int FreshDays = 300;

    // Less than this nobody carries to a planter.
    private const double LeastLitres = 0.05;

    private readonly List<(LocalDate Day, double DepthCm)> _fresh = [];
    private bool _filled = planter.Survey.StoodHere.Length > 0 || planter.Survey.StoodSince is not null;

    /// <summary>The fresh medium of the next changeover; null for none, and always in beds.</summary>
    /// <param name="change">The changeover, later than those asked for before.</param>
    public MediumLine? For(Changeover change)
    {
        if (planter.Form.IsBed || change.In.Count == 0)
            return null;
        double whole = BulbStack.MediumDepthCm(planter, plan.Site);
        (double depth, Fact reason) =
            _filled || change.Out.Count + change.Stays.Count > 0 ? Wanted(change, whole) : (whole, new Fact(MediumReason.FilledForTheFirstTime));
        _filled = true;
        depth = Math.Min(depth, whole);
        if (change.DigDepthCm is { } dig && dig < depth)
            (depth, reason) = (dig, new Fact(MediumReason.NoDeeperOverBulbs, ("depth", Quantity.Depth(dig))));
        double had = _fresh
            .Where(f => Period.DaysBetween(f.Day, change.Day) < FreshDays)
            .Select(f => Math.Min(f.DepthCm, depth))
            .DefaultIfEmpty(0)
            .Max();
        double litres = (planter.Form.LitresBetween(0, depth) - planter.Form.LitresBetween(0, had)) * FreeOfRoots(change);
        if (depth > had)
            _fresh.Add((change.Day, depth));
        if (litres <= LeastLitres)
            return null;
        return new MediumLine(planter, litres, reason)
        {
            DepthCm = depth,
            FreshCm = had,
            IsAcid = change.In.Concat(change.Stays).Any(i => i.Plant.Roots.Medium == RootingMedium.Acid),
        };
    }

    private (double DepthCm, Fact Reason) Wanted(Changeover change, double whole)
    {
        double depth = 0;
        var reason = new Fact(MediumReason.FreshTop, ("depth", Quantity.Depth(0)));
        void Want(double to, Fact why)
        {
            if (to > depth)
                (depth, reason) = (to, why);
        }
        bool emptied = change.Stays.Count == 0;
        if (change.In.Any(i => i.Display.Layer == DisplayLayer.Standing) && emptied)
            Want(whole, new Fact(MediumReason.NewForWhatStands));
        if (change.In.Where(i => i.DepthCm is not null).Select(i => i.DepthCm!.Value).DefaultIfEmpty(0).Max() is > 0 and var deepest)
        {
            double to = Math.Min(deepest + BulbStack.RootRoomCm, whole);
            Want(to, new Fact(MediumReason.FreshUnderBulbs, ("depth", Quantity.Depth(to))));
        }
        if (change.In.Any(i => i.Display.Layer == DisplayLayer.Seasonal))
        {
            if (plan.Site.RulesFor(planter).Medium == MediumSchool.ReplaceAll && emptied)
                Want(whole, new Fact(MediumReason.AllReplaced));
            else
                Want(plan.Site.FreshMediumCm, new Fact(MediumReason.FreshTop, ("depth", Quantity.Depth(plan.Site.FreshMediumCm))));
        }
        return (depth, reason);
    }

    // Share of the surface that no root ball of what stays takes up, where it is not lifted.
    private double FreeOfRoots(Changeover change)
    {
        double taken = change
            .Stays.Except(change.Lifted)
            .Where(s => s.DepthCm is null)
            .Sum(s =>
            {
                double radius = RootBall.Of(s.Plant, new PlanePoint(0, 0)).RadiusCm;
                return s.Count * Math.PI * radius * radius;
            });
        return Math.Clamp(1 - (taken / planter.Form.SurfaceCm2), 0, 1);
    }
}

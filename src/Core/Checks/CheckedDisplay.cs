using NodaTime;
using UnrulyMeadow.Core.Arranging;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Checks;

/// <summary>A display with all that its checks ask of it, and the changes that they can propose.</summary>
internal sealed class CheckedDisplay
{
    // A plant that differs by more than this in colour, height and width together is no substitute.
    private const double FarthestSubstitute = 55;

    private readonly Func<LocalDate, IReadOnlyList<GrowingSeason>> _stay;
    private readonly Lazy<RootSurvival> _roots;
    private readonly Lazy<IReadOnlyList<PlantedItem>> _standing;
    private readonly Lazy<Arrangement> _arrangement;
    private readonly Lazy<IReadOnlyList<(Display Display, Plant Plant, DisplayItem Item)>> _together;

    public CheckedDisplay(
        Plan plan,
        Display display,
        Planter planter,
        WeatherRecord? record,
        SiteFlowering flowering,
        Func<LocalDate, IReadOnlyList<GrowingSeason>> stay
    )
    {
        Plan = plan;
        Display = display;
        Planter = planter;
        Record = record;
        Flowering = flowering;
        _stay = stay;
        _roots = new(() => RootSurvival.From(GroundClimate.Of(record!.ForOdds).Of(planter.ThermalClass()), record.ForOdds));
        _standing = new(() => PlantedItem.Of(plan, planter, [display], display.Install, display.Lift));
        Area = plan.AreaOf(planter);
        Rules = plan.Site.RulesFor(planter);
        Kinds = [.. display.Items.Select(i => (plan.AsBought(planter, i), i))];
        PocketC = Area.FrostPocketC + planter.Survey.FrostPocketC;
        _arrangement = new(() => Arrangement.Of(planter, Kinds));
        _together = new(() =>
            [
                .. plan.DisplaysOf(planter.Id)
                    .Where(d => d.Id != display.Id && d.Layer != DisplayLayer.Bulbs && d.Install < display.Lift && display.Install < d.Lift)
                    .SelectMany(d => d.Items.Select(i => (d, plan.AsBought(planter, i), i))),
            ]
        );
    }

    public Plan Plan { get; }

    public Display Display { get; }

    public Planter Planter { get; }

    public Area Area { get; }

    public HouseRules Rules { get; }

    public WeatherRecord? Record { get; }

    /// <summary>The site's flowering in the plan year in which the display goes in.</summary>
    public SiteFlowering Flowering { get; }

    public IReadOnlyList<(Plant Plant, DisplayItem Item)> Kinds { get; }

    /// <summary>How much colder leaves are here than at the station, °C.</summary>
    public double PocketC { get; }

    public bool IsBulbs => Display.Layer == DisplayLayer.Bulbs;

    /// <summary>Where each plant stands; for displays that are no bulb stacks.</summary>
    public Arrangement Arrangement => _arrangement.Value;

    /// <summary>What else stands in the planter during part of its time, bulbs left aside.</summary>
    public IReadOnlyList<(Display Display, Plant Plant, DisplayItem Item)> Together => _together.Value;

    /// <summary>Width of one of its kinds by day of the plan year, cm.</summary>
    public float[] Spread(Plant plant) => Flowering.Spread(plant, Display.Install, Display.Lift, PocketC);

    /// <summary>
    /// How high one of its kinds grows while it stands, cm: by its width in its time, as its profile draws it; what stands on beyond the plan year
    /// comes to its full height.
    /// </summary>
    public double GreatestHeightCm(Plant plant) => Flowering.GreatestHeightCm(plant, Display.Install, Display.Lift, PocketC);

    /// <summary>What weather takes of one of its kinds during its whole stay; there must be weather.</summary>
    public StayLosses Losses(Plant plant) =>
        StayLosses.Of(plant, _standing.Value.First(i => i.Plant.Id == plant.Id).Standing, _stay(Display.Install));

    /// <summary>Odds that a kind sold as an annual returns after a winter in this planter; null for what never does.</summary>
    public double? ReturnOdds(Plant plant) => StayLosses.MayReturn(plant) ? StayLosses.ReturnOdds(plant, _roots.Value) : null;

    /// <summary>False where nobody asks what could stand instead: looking through the palette takes the longest.</summary>
    public bool SeeksSubstitutes { get; set; } = true;

    /// <summary>The index of a day in the plan year, held within it.</summary>
    public int IndexOf(LocalDate day) =>
        Math.Clamp(Period.DaysBetween(Flowering.Start, day), 0, Period.DaysBetween(Flowering.Start, Flowering.Start.PlusMonths(12)) - 1);

    /// <summary>The day half-way through its stay in the plan year in which it goes in.</summary>
    public LocalDate Midway
    {
        get
        {
            LocalDate from = Display.Install < Flowering.Start ? Flowering.Start : Display.Install;
            LocalDate end = Flowering.Start.PlusMonths(12);
            LocalDate to = Display.Lift < end ? Display.Lift : end;
            return from.PlusDays(Math.Max(0, Period.DaysBetween(from, to) / 2));
        }
    }

    /// <summary>Every kind that stands together with it, its own first, with the colours and cover that it shows in its time.</summary>
    /// <param name="goes">A kind of its own whose place another takes; null for the display as it is.</param>
    /// <param name="comes">What takes its place.</param>
    public IReadOnlyList<SchemePart> Scheme(Plant? goes = null, Plant? comes = null) =>
        [
            .. Kinds.Select(k => Part(Display, ReferenceEquals(k.Plant, goes) ? comes! : k.Plant, k.Item)),
            .. Together.Select(t => Part(t.Display, t.Plant, t.Item)),
        ];

    /// <summary>Its kinds that stand side by side, half-way between their width as bought and as grown, and what tells them apart.</summary>
    public IReadOnlyList<NeighbourDifference> Neighbours
    {
        get
        {
            // Each kind's strongest colour in its time, or a leaf's green.
            string[] shown = [.. Scheme().Take(Kinds.Count).Select(p => p.Colours.FirstOrDefault("#7f9a68"))];
            return
            [
                .. Arrangement
                    .Neighbours(p => (p.Plant.SpreadAtPurchaseCm + p.Plant.MatureSpreadCm) / 2)
                    .Order()
                    .Select(pair => new NeighbourDifference(Kinds[pair.One].Plant, shown[pair.One], Kinds[pair.Other].Plant, shown[pair.Other])),
            ];
        }
    }

    public Remark Say(
        Gravity gravity,
        RemarkKind kind,
        ReadOnlySpan<(string Name, object? Value)> parts,
        Working working,
        params IEnumerable<Remedy?> remedies
    ) => new(Display.PlanterId, Display.Id, gravity, new Fact(kind, parts), working) { Remedies = [.. remedies.OfType<Remedy>()] };

    /// <summary>Puts another plant in the place of one: the nearest in colour, height and width that is free of the fault.</summary>
    /// <param name="plant">The one that goes.</param>
    /// <param name="isFree">True for plants without the fault.</param>
    public Remedy? Swap(Plant plant, Func<Plant, bool> isFree)
    {
        if (!SeeksSubstitutes)
            return null;
        Plant? best = null;
        double nearest = FarthestSubstitute;
        foreach (Plant other in Plan.Palette)
        {
            if (
                other.IsRetired
                || other.Id == plant.Id
                || !IsLike(plant, other)
                || Kinds.Any(k => k.Plant.Id == other.Id)
                || !other.Suits(Planter.Exposure)
                || !isFree(other)
            )
            {
                continue;
            }
            double far =
                ColourDifference.Between(plant.LeadColour, other.LeadColour)
                + (25 * Math.Abs(Math.Log(other.HeightCm / plant.HeightCm)))
                + (15 * Math.Abs(Math.Log(other.MatureSpreadCm / plant.MatureSpreadCm)));
            if (far < nearest)
                (nearest, best) = (far, other);
        }
        return best is null
            ? null
            : new Remedy(
                new Fact(RemedyKind.PutInItsPlace, ("plant", best), ("instead", plant)),
                Display with
                {
                    Items = [.. Display.Items.Select(i => i.PlantId == plant.Id ? i with { PlantId = best.Id, DepthCm = null, Form = null } : i)],
                    Pairs = [.. Display.Pairs.Where(p => p.FirstPlantId != plant.Id && p.SecondPlantId != plant.Id)],
                }
            );
    }

    /// <summary>Plants another count of a kind; places by hand of that kind are laid out anew.</summary>
    public Remedy? Count(Plant plant, int count)
    {
        int now = Display.Items.First(i => i.PlantId == plant.Id).Count;
        return count < 1 || count == now
            ? null
            : new Remedy(
                new Fact(RemedyKind.PlantCount, ("plant", plant), ("count", count), ("now", now)),
                Display with
                {
                    Items = [.. Display.Items.Select(i => i.PlantId == plant.Id ? i with { Count = count, Places = null } : i)],
                }
            );
    }

    /// <summary>Moves its days; null when it would not stand a day, or would run into another display of its layer.</summary>
    public Remedy? Days(RemedyKind kind, LocalDate? install = null, LocalDate? lift = null)
    {
        Display moved = Display with { Install = install ?? Display.Install, Lift = lift ?? Display.Lift };
        bool clashes = Plan.DisplaysOf(Planter.Id)
            .Any(d => d.Id != Display.Id && d.Layer == Display.Layer && d.Install < moved.Lift && moved.Install < d.Lift);
        return clashes || moved.Faults().Count > 0 ? null : new Remedy(new Fact(kind, ("day", install ?? lift)), moved);
    }

    /// <summary>Takes a kind out; null when it is the only one.</summary>
    public Remedy? Without(Plant plant) =>
        Display.Items.Count < 2
            ? null
            : new Remedy(
                new Fact(RemedyKind.LeaveOut, ("plant", plant)),
                Display with
                {
                    Items = [.. Display.Items.Where(i => i.PlantId != plant.Id)],
                    Pairs = [.. Display.Pairs.Where(p => p.FirstPlantId != plant.Id && p.SecondPlantId != plant.Id)],
                }
            );

    public static string Day(LocalDate day) => day.ToString("d MMM uuuu", null);

    private static bool IsLike(Plant plant, Plant other) =>
        plant.Bulb is not null
            ? other.Bulb is not null && other.IsTender == plant.IsTender
            : other.Bulb is null
                && other.IsLasting == plant.IsLasting
                && other.Habit == plant.Habit
                && (plant.IsLasting ? other.LifeForm == plant.LifeForm : other.IsTender == plant.IsTender);

    private SchemePart Part(Display display, Plant plant, DisplayItem item)
    {
        LocalDate from = display.Install < Display.Install ? Display.Install : display.Install;
        LocalDate to = display.Lift > Display.Lift ? Display.Lift : display.Lift;
        int middle = IndexOf(from.PlusDays(Math.Max(0, Period.DaysBetween(from, to) / 2)));
        double wide = Flowering.Spread(plant, display.Install, display.Lift, PocketC)[middle];
        double ground = Math.Min(1, item.Count * Math.PI / 4 * wide * wide / Planter.Form.SurfaceCm2);
        IReadOnlyList<(string Colour, double Share)> colours = Flowering.Of(plant, display.Install, null, PocketC).ColoursOver(from, to.PlusDays(-1));
        if (colours.Count == 0 && Flowering.Years == 0)
            colours = [.. plant.Windows.SelectMany(w => w.Colours.Select((c, i) => (c, w.Share / (i + 1))))];
        return new SchemePart(
            plant,
            [.. colours.Select(c => c.Colour).Distinct(StringComparer.Ordinal).Take(4)],
            ground * Math.Min(1, colours.Sum(c => c.Share))
        );
    }
}

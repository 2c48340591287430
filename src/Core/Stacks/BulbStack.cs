using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;
using static UnrulyMeadow.Core.Facts.Quantity;

namespace UnrulyMeadow.Core.Stacks;

/// <summary>The depth at which a kind comes to lie.</summary>
/// <param name="Plant">The bulb.</param>
/// <param name="Count">How many.</param>
/// <param name="DepthCm">Finished surface to the base, cm.</param>
/// <param name="IsByRule">False when the planner chose it.</param>
/// <param name="Reason">How it came about: a <see cref="DepthReason"/>.</param>
public sealed record BulbDepth(Plant Plant, int Count, double DepthCm, bool IsByRule, Fact Reason)
{
    /// <summary>How many go into one clump; null to spread them evenly.</summary>
    public int? Clump { get; init; }
}

/// <summary>One layer of a bulb stack.</summary>
/// <param name="Plant">The bulb.</param>
/// <param name="Count">Bulbs planned.</param>
/// <param name="DepthCm">Finished surface to the bulb's base, cm.</param>
/// <param name="IsByRule">True when the depth follows the rule, false when the planner chose it.</param>
/// <param name="LengthCm">Inside length at the narrowest over the bulb's height, cm.</param>
/// <param name="WidthCm">Inside width there, cm.</param>
/// <param name="Places">Where bulbs can lie, as many as fit, cm from the centre.</param>
/// <param name="LiftLitres">Medium from this layer's base up to the next layer's base or the surface, litres.</param>
/// <param name="Reason">How the depth came about: a <see cref="DepthReason"/>.</param>
public sealed record StackLayer(
    Plant Plant,
    int Count,
    double DepthCm,
    bool IsByRule,
    double LengthCm,
    double WidthCm,
    IReadOnlyList<PlanePoint> Places,
    double LiftLitres,
    Fact Reason
)
{
    /// <summary>How many fit at this depth.</summary>
    public int Fits => Places.Count;

    /// <summary>
    /// Places for the bulbs planned, spread as wide as the layer allows; when more are planned than fit, all places that
    /// there are.
    /// </summary>
    public required IReadOnlyList<PlanePoint> Spread { get; init; }

    /// <summary>How many lie in one clump; null when spread evenly.</summary>
    public int? Clump { get; init; }

    /// <summary>Kinds that lie at the same height; empty when it has its depth to itself.</summary>
    public IReadOnlyList<string> Shares { get; init; } = [];

    /// <summary>False when the kinds at this height do not fit beside each other.</summary>
    public bool SharedFits { get; init; } = true;

    /// <summary>Weight of its bulbs, kg: half-ellipsoids of 1.05 kg per litre (from memory).</summary>
    public double WeightKg => Count * Math.PI / 6 * Plant.Bulb!.DiameterCm * Plant.Bulb.DiameterCm * Plant.Bulb.HeightCm * 1.05 / 1000;

    /// <summary>What is wrong with this layer, of a <see cref="StackProblem"/>; null when it fits.</summary>
    public Fact? Problem { get; init; }

    /// <summary>Finished surface to the bulb's tip, cm.</summary>
    public double CoverCm => DepthCm - Plant.Bulb!.HeightCm;
}

/// <summary>
/// Bulbs at several depths in one planter, shallowest layer first. In a container, layers without a chosen depth are
/// laid so that each bulb's tip clears the base of the layer above it; in a bed, kinds lie side by side at their own depth.
/// </summary>
public sealed class BulbStack
{
    /// <summary>Room for roots under the deepest base in a container, cm (common practice).</summary>
    public const double RootRoomCm = 5;

    /// <summary>Medium between a base and the tip below it, cm (common practice).</summary>
    public const double LayerGapCm = 1;

    /// <summary>Depth of large bulbs in the deep school, cm: 7½ in (common practice).</summary>
    public const double DeepCm = 19;

    /// <summary>
    /// Depth of the deepest large bulbs in a stacked container, cm: 11 in, where the planter is deep enough (common practice: 10 to 12 in).
    /// </summary>
    public const double StackedCm = 28;

    /// <summary>Bulbs at least this high are large, cm.</summary>
    public const double LargeBulbCm = 4;

    /// <summary>Beds keep this far from their edge, cm (common practice).</summary>
    public const double BedSetbackCm = 10;

    /// <summary>Shards or gravel over the hole, where the house rule or the survey says so, cm (common practice).</summary>
    public const double GravelCm = 3;

    private BulbStack(Planter planter, Site site, IReadOnlyList<StackLayer> layers, IReadOnlyList<Fact> problems)
    {
        Planter = planter;
        Site = site;
        Layers = layers;
        Problems = problems;
    }

    /// <summary>The planter.</summary>
    public Planter Planter { get; }

    /// <summary>The site's choices that were used.</summary>
    public Site Site { get; }

    /// <summary>Layers, shallowest first.</summary>
    public IReadOnlyList<StackLayer> Layers { get; }

    /// <summary>What is wrong with the stack as planned, each of a <see cref="StackProblem"/>: too deep, too many, too wide.</summary>
    public IReadOnlyList<Fact> Problems { get; }

    /// <summary>Share of a bed that the bulbs need at their spacings, above 1; null when they find room.</summary>
    public double? Overfilled { get; private init; }

    /// <summary>Medium to fill the planter to the finished surface, litres, less gravel and bulbs; nothing for a bed.</summary>
    public double MediumLitres =>
        Planter.Form.IsBed
            ? 0
            : Planter.Form.LitresBetween(0, MediumDepthCm(Planter, Site)) - (Layers.Sum(l => l.Count * BulbCm3(l.Plant.Bulb!)) / 1000);

    /// <summary>Bags of medium, rounded up.</summary>
    public int MediumBags => (int)Math.Ceiling((MediumLitres / Site.MediumBagLitres) - 1e-9);

    /// <summary>Gravel over the hole in a container, cm: by the house rule or as surveyed.</summary>
    public static double GravelIn(Planter planter, Site site) =>
        !planter.Form.IsBed
        && planter.Form.Shape != PlanterShape.Basket
        && (planter.Survey.GravelOverHole || site.RulesFor(planter).Drainage == DrainageSchool.GravelOverHole)
            ? GravelCm
            : 0;

    /// <summary>Depth of medium in a planter, cm: to its floor, less gravel.</summary>
    public static double MediumDepthCm(Planter planter, Site site) => planter.Form.PlantableDepthCm - GravelIn(planter, site);

    /// <summary>No bulb's base lies deeper than this, cm: the floor, less gravel and room for roots.</summary>
    public static double DeepestBaseCm(Planter planter, Site site) => MediumDepthCm(planter, site) - (planter.Form.IsBed ? 0 : RootRoomCm);

    /// <summary>Depth by rule for a bulb on its own, cm to the base: 3 × height, or the deep school's for large bulbs.</summary>
    public static double DepthByRule(BulbFigures bulb, BulbDepthSchool school)
    {
        double depth = 3 * bulb.HeightCm;
        return school == BulbDepthSchool.Deep && bulb.HeightCm >= LargeBulbCm ? Math.Max(depth, DeepCm) : depth;
    }

    /// <summary>
    /// The depths of a stack, shallowest first: the chosen one, or by rule and, in a container, low enough for the tip
    /// to clear the base of the layer above.
    /// </summary>
    /// <exception cref="InvalidInputException">A plant is no bulb.</exception>
    public static IReadOnlyList<BulbDepth> Depths(Planter planter, Site site, IReadOnlyList<PlannedBulb> bulbs)
    {
        for (int i = 0; i < bulbs.Count; i++)
        {
            if (bulbs[i].Plant.Bulb is null)
                throw new InvalidInputException($"items[{i}].plantId", $"{bulbs[i].Plant.CommonName} is no bulb");
        }
        var depths = new List<BulbDepth>();
        double above = 0;
        int laid = 0;
        BulbDepthSchool school = site.RulesFor(planter).BulbDepth;
        foreach (PlannedBulb planned in FromTheTop(bulbs, school))
        {
            (Plant plant, int count, double? chosen) = planned;
            BulbFigures bulb = plant.Bulb!;
            double rule = DepthByRule(bulb, school);
            double clear = above + bulb.HeightCm + LayerGapCm;
            bool pushed = !planter.Form.IsBed && depths.Count > 0 && clear > rule;
            Fact reason = (chosen is not null, pushed) switch
            {
                (true, _) => new Fact(DepthReason.Chosen, ("rule", Cm(rule, 1))),
                (_, true) => new Fact(
                    DepthReason.BelowTheLayerAbove,
                    ("above", Cm(above, 1)),
                    ("height", Cm(bulb.HeightCm, 1)),
                    ("gap", Cm(LayerGapCm, 1)),
                    ("rule", Cm(rule, 1))
                ),
                _ => school == BulbDepthSchool.Deep && rule > 3 * bulb.HeightCm
                    ? new Fact(DepthReason.DeepSchool, ("depth", Cm(DeepCm, 1)))
                    : new Fact(DepthReason.ByHeight, ("height", Cm(bulb.HeightCm, 1))),
            };
            double own = pushed ? clear : rule;
            double stacked = Math.Floor(Math.Min(StackedCm, DeepestBaseCm(planter, site)) * 10) / 10;
            laid++;
            if (
                chosen is null
                && laid == bulbs.Count
                && school == BulbDepthSchool.StackedContainers
                && !planter.Form.IsBed
                && bulb.HeightCm >= LargeBulbCm
                && stacked > own
            )
                (own, reason) = (stacked, new Fact(DepthReason.DeepestOfAStack, ("deepest", Cm(StackedCm))));
            above = Math.Round(chosen ?? own, 1);
            depths.Add(new BulbDepth(plant, count, above, chosen is null, reason) { Clump = planned.Clump });
        }
        return [.. depths.OrderBy(d => d.DepthCm)];
    }

    /// <summary>
    /// Lays out a display's bulbs beside the roots of what stands over them: what is there when they go in, and what
    /// follows within weeks.
    /// </summary>
    /// <param name="plan">The plan.</param>
    /// <param name="planter">The planter.</param>
    /// <param name="display">The bulbs; the display need not be in the plan.</param>
    public static BulbStack Of(Plan plan, Planter planter, Display display) =>
        LayOut(planter, plan.Site, plan.BulbsOf(display), planter.Form.IsBed ? [] : RootsOver(plan, planter, display));

    /// <summary>Lays out a stack.</summary>
    /// <param name="planter">The planter.</param>
    /// <param name="site">The site's choices: gaps and schools.</param>
    /// <param name="bulbs">Bulbs with their counts and, where chosen, depths.</param>
    /// <param name="roots">Root balls that stand over them; bulbs that lie as high keep beside them.</param>
    /// <exception cref="InvalidInputException">A plant is no bulb.</exception>
    public static BulbStack LayOut(Planter planter, Site site, IReadOnlyList<PlannedBulb> bulbs, IReadOnlyList<RootBall>? roots = null)
    {
        IReadOnlyList<BulbDepth> depths = Depths(planter, site, bulbs);
        var finder = new StackPlaces(planter.Form, site, roots ?? []);
        IReadOnlyList<IReadOnlyList<PlanePoint>>? drifts =
            planter.Form.IsBed && depths.Count > 1 && depths.Sum(d => d.Count) <= DiscPacking.MostDiscs / 2
                ? finder.Drifts([.. depths.Select(Planned)], planter.Form.TopLengthCm, planter.Form.TopWidthCm)
                : null;
        var layers = new List<StackLayer>();
        double upper = 0;
        int i = 0;
        foreach (IReadOnlyList<BulbDepth> plane in Planes(planter.Form, depths))
        {
            var measured = plane
                .Select(d =>
                {
                    (double length, double width) = InsideOver(planter.Form, d.DepthCm - d.Plant.Bulb!.HeightCm, d.DepthCm);
                    return (Planned: Planned(d), Length: length, Width: width, Cover: d.DepthCm - d.Plant.Bulb!.HeightCm);
                })
                .ToList();
            bool outside = !planter.Form.IsBed && plane.Any(d => d.DepthCm > MediumDepthCm(planter, site));
            IReadOnlyList<LayerPlaces>? shared = plane.Count > 1 && !outside ? finder.Together(measured) : null;
            for (int k = 0; k < plane.Count; k++, i++)
            {
                BulbDepth d = plane[k];
                LayerPlaces places = outside
                    ? new LayerPlaces([], [])
                    : shared?[k] ?? finder.Alone(measured[k].Planned, measured[k].Length, measured[k].Width, measured[k].Cover);
                layers.Add(
                    new StackLayer(
                        d.Plant,
                        d.Count,
                        d.DepthCm,
                        d.IsByRule,
                        measured[k].Length,
                        measured[k].Width,
                        places.Fitting,
                        planter.Form.LitresBetween(upper, d.DepthCm),
                        d.Reason
                    )
                    {
                        Spread = drifts?[i] ?? places.Planned,
                        Clump = d.Clump,
                        Shares = plane.Count > 1 ? [.. plane.Where(o => o != d).Select(o => o.Plant.CommonName)] : [],
                        SharedFits = plane.Count == 1 || shared is not null,
                    }
                );
                upper = Math.Max(upper, d.DepthCm);
            }
        }
        layers = [.. layers.Select(l => l with { Problem = ProblemOf(planter, site, l) })];
        double needed = layers.Sum(l => l.Fits == 0 ? 0 : (double)l.Count / l.Fits);
        double? overfilled = planter.Form.IsBed && needed > 1.0001 ? needed : null;
        return new BulbStack(planter, site, layers, Check(layers, overfilled)) { Overfilled = overfilled };
    }

    // Root balls of plants that stand on the day, or go in so soon that the bulbs must leave them room (six weeks, common practice).
    private static IReadOnlyList<RootBall> RootsOver(Plan plan, Planter planter, Display bulbs) =>
        [
            .. plan.DisplaysOf(planter.Id)
                .Where(d => d.Layer != DisplayLayer.Bulbs && d.Install <= bulbs.Install.PlusDays(42) && d.Lift > bulbs.Install)
                .SelectMany(d => Arranging.Arrangement.Of(plan, planter, d).Plants)
                .Select(p => RootBall.Of(p.Plant, p.At)),
        ];

    private static PlannedBulb Planned(BulbDepth d) => new(d.Plant, d.Count, d.DepthCm) { Clump = d.Clump };

    // Kinds whose bulbs stand at one height, between tip and base, share a plane; in a bed each has ground of its own.
    private static IEnumerable<IReadOnlyList<BulbDepth>> Planes(PlanterForm form, IReadOnlyList<BulbDepth> depths)
    {
        var plane = new List<BulbDepth>();
        foreach (BulbDepth d in depths)
        {
            if (plane.Count > 0 && (form.IsBed || d.DepthCm - d.Plant.Bulb!.HeightCm > plane.Max(p => p.DepthCm) - 0.05))
            {
                yield return plane;
                plane = [];
            }
            plane.Add(d);
        }
        if (plane.Count > 0)
            yield return plane;
    }

    /// <summary>The arithmetic behind a layer's depth and count.</summary>
    public Working Explain(StackLayer layer)
    {
        BulbFigures bulb = layer.Plant.Bulb!;
        bool bed = Planter.Form.IsBed;
        double wall = SetbackOf(Planter.Form, Site);
        double pitch = bed ? bulb.SpacingCm : bulb.DiameterCm + Site.BulbGapCm;
        double gap = pitch - bulb.DiameterCm;
        var steps = new List<object?>
        {
            layer.Reason,
            new Fact(
                WorkingPhrase.CoverOverTheTip,
                ("depth", Quantity.Cm(layer.DepthCm, 1)),
                ("height", Quantity.Cm(bulb.HeightCm, 1)),
                ("cover", Quantity.Cm(layer.CoverCm, 1))
            ),
        };
        if (Planter.Form.Outline is { } outline)
        {
            steps.Add(
                new Fact(
                    WorkingPhrase.DiscsWithCentresLeastInsideOutline,
                    ("pitch", Quantity.Cm(pitch, 1)),
                    ("diameter", Quantity.Cm(wall + (bulb.DiameterCm / 2), 1)),
                    ("area", Quantity.SquareMetres(outline.AreaCm2 / 10_000, 2)),
                    ("fits", layer.Fits)
                )
            );
        }
        else if (Planter.Form.IsRoundish && Math.Abs(layer.LengthCm - layer.WidthCm) < 1e-6)
        {
            double circle = (layer.LengthCm / 2) - wall + (gap / 2);
            steps.Add(
                new Fact(
                    WorkingPhrase.DiscsInCircleRadiusRatioFit,
                    ("pitch", Quantity.Cm(pitch, 1)),
                    ("length", Quantity.Cm(layer.LengthCm / 2, 1)),
                    ("wall", Quantity.Cm(wall, 1)),
                    ("gap", Quantity.Cm(gap / 2, 1)),
                    ("circle", Quantity.Cm(circle, 1)),
                    ("pitch2", Quantity.Number(circle / (pitch / 2), 2)),
                    ("fits", layer.Fits)
                )
            );
        }
        else
        {
            steps.Add(
                new Fact(
                    WorkingPhrase.DiscsInFitBestLatticeTried,
                    ("pitch", Quantity.Cm(pitch, 1)),
                    ("gap", Quantity.Cm(layer.LengthCm - (2 * wall) + gap, 1)),
                    ("gap2", Quantity.Cm(layer.WidthCm - (2 * wall) + gap, 1)),
                    ("fits", layer.Fits)
                )
            );
        }
        return new Working(
            WorkingKind.BulbDepthAndCount,
            new Fact(WorkingPhrase.BulbDepthAndCountValueFit, ("depth", Quantity.Cm(layer.DepthCm, 1)), ("fits", layer.Fits)),
            [
                new WorkingInput(
                    InputName.Bulb,
                    new Fact(
                        WorkingPhrase.BulbDepthAndCountHighWide,
                        ("height", Quantity.Cm(bulb.HeightCm, 1)),
                        ("diameter", Quantity.Cm(bulb.DiameterCm, 1))
                    )
                ),
                new WorkingInput(
                    InputName.InsideAtThatDepth,
                    Planter.Form.IsRoundish && !bed
                        ? (object?)new Fact(WorkingPhrase.BulbDepthAndCountInsideThatDepth, ("length", Quantity.Cm(layer.LengthCm, 1)))
                        : new Fact(
                            WorkingPhrase.BulbDepthAndCountInsideThatDepthPair,
                            ("length", Quantity.Number(layer.LengthCm, 1)),
                            ("width", Quantity.Cm(layer.WidthCm, 1))
                        )
                ),
                new WorkingInput(bed ? InputName.FromTheEdge : InputName.FromTheWall, Quantity.Cm(wall, 1)),
                new WorkingInput(bed ? InputName.CentreToCentre : InputName.BetweenBulbs, bed ? (object?)Quantity.Cm(pitch, 1) : Quantity.Cm(gap, 1)),
            ],
            steps
        )
        {
            Parts = [("plant", layer.Plant)],
        };
    }

    // How far bulbs keep from the edge: a bed's own setback where it has one.
    internal static double SetbackOf(PlanterForm form, Site site) => form.Outline?.SetbackCm ?? (form.IsBed ? BedSetbackCm : site.WallGapCm);

    private static double BulbCm3(BulbFigures bulb) => Math.PI / 6 * bulb.DiameterCm * bulb.DiameterCm * bulb.HeightCm;

    // Largest and latest deepest: small bulbs on top by their own depth, large ones below in order of flowering, and
    // what has a chosen depth at its place among them.
    private static List<PlannedBulb> FromTheTop(IReadOnlyList<PlannedBulb> bulbs, BulbDepthSchool school)
    {
        double Rule(PlannedBulb b) => DepthByRule(b.Plant.Bulb!, school);
        var order = bulbs
            .Where(b => b.DepthCm is null)
            .OrderBy(b => b.Plant.Bulb!.HeightCm >= LargeBulbCm)
            .ThenBy(b => b.Plant.Bulb!.HeightCm >= LargeBulbCm ? 0 : Rule(b))
            .ThenBy(b => Lateness(b.Plant))
            .ToList();
        foreach (PlannedBulb chosen in bulbs.Where(b => b.DepthCm is not null).OrderBy(b => b.DepthCm))
        {
            int at = order.FindIndex(b => (b.DepthCm ?? Rule(b)) > chosen.DepthCm);
            order.Insert(at < 0 ? order.Count : at, chosen);
        }
        return order;
    }

    private static double Lateness(Plant plant) =>
        plant.Windows.Select(w => w.Rule).OfType<BulbForcing>().Select(r => r.DaysInSteadySpring).DefaultIfEmpty(0).Max();

    // The taper's smallest over the bulb's height.
    private static (double Length, double Width) InsideOver(PlanterForm form, double tip, double baseDepth)
    {
        (double l0, double w0) = form.InsideAt(tip);
        (double l1, double w1) = form.InsideAt(Math.Min(baseDepth, form.PlantableDepthCm));
        return (Math.Min(l0, l1), Math.Min(w0, w1));
    }

    private static Fact? ProblemOf(Planter planter, Site site, StackLayer layer)
    {
        double floor = DeepestBaseCm(planter, site);
        double gravel = GravelIn(planter, site);
        if (layer.DepthCm > floor)
        {
            return new Fact(
                StackProblem.TooDeep,
                ("plant", layer.Plant),
                ("depth", Cm(layer.DepthCm, 1)),
                ("leaves", Cm(planter.Form.PlantableDepthCm, 1)),
                ("roots", Cm(planter.Form.IsBed ? 0 : RootRoomCm)),
                ("gravel", gravel > 0 ? Cm(gravel) : null)
            );
        }
        if (layer.CoverCm < 1)
            return new Fact(
                StackProblem.StandsOut,
                ("plant", layer.Plant),
                ("depth", Cm(layer.DepthCm, 1)),
                ("height", Cm(layer.Plant.Bulb!.HeightCm, 1))
            );
        if (layer.Fits == 0)
            return new Fact(StackProblem.DoesNotFit, ("plant", layer.Plant), ("length", Cm(layer.LengthCm, 1)), ("width", Cm(layer.WidthCm, 1)));
        if (!layer.SharedFits)
            return new Fact(StackProblem.NotBesideEachOther, ("plant", layer.Plant), ("others", layer.Shares));
        return !planter.Form.IsBed && layer.Count > layer.Fits
            ? new Fact(StackProblem.TooMany, ("plant", layer.Plant), ("count", layer.Count), ("fits", layer.Fits), ("depth", Cm(layer.DepthCm, 1)))
            : null;
    }

    private static IReadOnlyList<Fact> Check(IReadOnlyList<StackLayer> layers, double? overfilled) =>
        [
            .. layers.Select(l => l.Problem).OfType<Fact>(),
            .. overfilled is { } filled ? [new Fact(StackProblem.BedOverfilled, ("share", Share(filled)))] : Array.Empty<Fact>(),
        ];
}

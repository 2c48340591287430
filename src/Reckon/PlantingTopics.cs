using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Reckon;

/// <summary>A bulb for reckoning.</summary>
/// <param name="Name">Its name.</param>
/// <param name="HeightCm">Base to tip, cm.</param>
/// <param name="DiameterCm">At its widest, cm.</param>
/// <param name="Count">How many are wanted.</param>
/// <param name="DepthCm">Chosen depth to the base; by rule when left out.</param>
/// <param name="SpacingCm">Centre to centre in a bed; default three diameters.</param>
/// <param name="Clump">Bulbs in one clump; spread evenly when left out.</param>
/// <param name="Rule">When it flowers; its dates are left out without one.</param>
/// <param name="ShootCm">Height in flower, default 30 cm.</param>
public sealed record BulbInput(
    string Name,
    double HeightCm,
    double DiameterCm,
    int Count = 1,
    double? DepthCm = null,
    double? SpacingCm = null,
    int? Clump = null,
    BulbForcing? Rule = null,
    double ShootCm = 30
);

/// <summary>Input of <c>layer</c> and <c>stack</c>.</summary>
/// <param name="Form">The planter's inside.</param>
/// <param name="Bulbs">Bulbs, in any order.</param>
/// <param name="WallGapCm">From the wall, default 2.5 cm.</param>
/// <param name="BulbGapCm">Between bulbs, default 2 cm.</param>
/// <param name="BulbDepth">School of depth.</param>
/// <param name="Drainage">School of drainage: gravel over the hole takes 3 cm.</param>
/// <param name="MediumBagLitres">Litres in one bag of medium.</param>
/// <param name="Weather">The record; without it no dates are given.</param>
/// <param name="Planted">Planting day, with the weather.</param>
/// <param name="Wall">The planter's wall.</param>
public sealed record StackInput(
    PlanterForm Form,
    IReadOnlyList<BulbInput> Bulbs,
    double WallGapCm = 2.5,
    double BulbGapCm = 2,
    BulbDepthSchool BulbDepth = BulbDepthSchool.ThreeTimesHeight,
    DrainageSchool Drainage = DrainageSchool.FreeHole,
    double MediumBagLitres = 60,
    WeatherInput? Weather = null,
    LocalDate? Planted = null,
    WallMaterial Wall = WallMaterial.Terracotta
);

/// <summary>When one layer flowers and dies down.</summary>
public sealed record LayerBloomOutput(string Name, LocalDate? First, LocalDate? Half, LocalDate? Over, double SpreadDays, LocalDate? LeavesBrown);

/// <summary>How one layer passes to the next.</summary>
public sealed record HandOverOutput(string From, string To, double DaysTogether, double ShareOfYearsBroken);

/// <summary>One layer as laid out.</summary>
public sealed record LayerOutput(
    string Name,
    double DepthCm,
    double CoverCm,
    double InsideLengthCm,
    double InsideWidthCm,
    int Fits,
    int Wanted,
    double LiftLitres
);

/// <summary>Output of <c>stack</c>; dates only where weather and flowering rules were given.</summary>
public sealed record StackOutput(
    double PlantableLitres,
    double MediumLitres,
    int MediumBags,
    double BulbsKg,
    IReadOnlyList<LayerOutput> Layers,
    IReadOnlyList<string> Problems,
    IReadOnlyList<LayerBloomOutput> Bloom,
    IReadOnlyList<HandOverOutput> HandOvers,
    IReadOnlyList<string> LeavesOverFlowers
);

/// <summary>Input of <c>layer</c>.</summary>
public sealed record LayerInput(
    PlanterForm Form,
    BulbInput Bulb,
    double WallGapCm = 2.5,
    double BulbGapCm = 2,
    BulbDepthSchool BulbDepth = BulbDepthSchool.ThreeTimesHeight
);

/// <summary>Output of <c>layer</c>: the layer, and where the bulbs can lie, cm from the centre.</summary>
public sealed record LayerPlacesOutput(LayerOutput Layer, IReadOnlyList<double[]> Places);

/// <summary>Input of <c>bloom</c>.</summary>
/// <param name="Weather">The record.</param>
/// <param name="Rule">The bulb's figures.</param>
/// <param name="Planted">Planting day.</param>
/// <param name="DepthCm">Depth to the base, default 15 cm.</param>
/// <param name="Form">The planter; a bed when left out.</param>
/// <param name="ColdWeeksLow">Weeks of cold it wants, default 12.</param>
/// <param name="Wall">The planter's wall, default terracotta.</param>
public sealed record BloomInput(
    WeatherInput Weather,
    BulbForcing Rule,
    LocalDate Planted,
    double DepthCm = 15,
    PlanterForm? Form = null,
    double ColdWeeksLow = 12,
    WallMaterial Wall = WallMaterial.Terracotta
);

/// <summary>Output of <c>bloom</c>.</summary>
public sealed record BloomOutput(
    LocalDate? First,
    LocalDate? Half,
    LocalDate? Over,
    double MedianColdWeeks,
    double ShareOfYearsShortOfCold,
    IReadOnlyList<BloomYear> Years,
    int YearsAsked
);

/// <summary>Topics of bulbs.</summary>
internal static class PlantingTopics
{
    public static Topic Layer { get; } =
        new Topic<LayerInput, LayerPlacesOutput>("layer", "depth of one bulb layer in a planter and how many fit there", input =>
        {
            BulbStack stack = LayOut(new StackInput(input.Form, [input.Bulb], input.WallGapCm, input.BulbGapCm, input.BulbDepth));
            StackLayer layer = stack.Layers[0];
            return (
                new LayerPlacesOutput(Output(layer), [.. layer.Places.Select(p => new[] { Math.Round(p.XCm, 2), Math.Round(p.YCm, 2) })]),
                [stack.Explain(layer)]
            );
        });

    public static Topic Stack { get; } =
        new Topic<StackInput, StackOutput>("stack", "bulbs at several depths in one planter: depths, counts, medium, what does not fit", input =>
        {
            if ((input.Weather is null) != (input.Planted is null))
                throw new InvalidInputException("planted", "give weather and planted together, or neither");
            BulbStack stack = LayOut(input);
            StackBloom? bloom = input.Weather is { } weather ? StackBloom.From(stack, weather.Read(), input.Planted!.Value) : null;
            IReadOnlyList<BloomForecast> dated =
            [
                .. (bloom?.Forecasts ?? []).Where((f, i) => input.Bulbs.First(b => b.Name == f.Plant.CommonName).Rule is not null),
            ];
            return (
                new StackOutput(
                    Math.Round(input.Form.PlantableLitres, 2),
                    Math.Round(stack.MediumLitres, 2),
                    stack.MediumBags,
                    Math.Round(stack.Layers.Sum(l => l.WeightKg), 2),
                    [.. stack.Layers.Select(Output)],
                    [.. stack.Problems.Select(Said.Metric.Say)],
                    [
                        .. dated.Select(f => new LayerBloomOutput(
                            f.Plant.CommonName,
                            f.First,
                            f.Half,
                            f.Over,
                            Math.Round(f.SpreadDays, 1),
                            DieBackWindow.Of(f)?.Last
                        )),
                    ],
                    [
                        .. (bloom?.HandOvers ?? [])
                            .Where(h => dated.Contains(h.From) && dated.Contains(h.To))
                            .Select(h => new HandOverOutput(
                                h.From.Plant.CommonName,
                                h.To.Plant.CommonName,
                                h.OverlapDays,
                                Math.Round(h.ShareBroken, 3)
                            )),
                    ],
                    [
                        .. dated
                            .SelectMany(e => dated.Select(l => BulbShoot.Hides(e, l)))
                            .OfType<LeavesOver>()
                            .Select(l => $"{l.Late.Plant.CommonName}, {l.LeafCm:0} cm, over {l.Early.Plant.CommonName}"),
                    ]
                ),
                [
                    input.Form.ExplainVolume(),
                    .. stack.Layers.Select(stack.Explain),
                    .. (bloom?.HandOvers ?? []).Where(h => dated.Contains(h.From) && dated.Contains(h.To)).Select(h => h.Explain()),
                ]
            );
        });

    public static Topic Bloom { get; } =
        new Topic<BloomInput, BloomOutput>("bloom", "when a bulb flowers in every weather year, from cold and heat at its depth", input =>
        {
            var faults = new FaultList();
            faults.AddAll("rule", input.Rule.Faults());
            faults.Range("depthCm", input.DepthCm, 1, 150, "cm");
            faults.Range("coldWeeksLow", input.ColdWeeksLow, 0, 40, "weeks");
            if (input.Form is { } form)
                faults.AddAll("form", form.Faults());
            if (input.Planted.Year is < 1950 or > 2150)
                faults.Add("planted", "must be a date from 1950 to 2150");
            faults.ThrowIfAny();
            Plant plant = Bulb(new BulbInput("bulb", 5, 4), input.Rule, input.ColdWeeksLow);
            BulbPlace place = input.Form is { } pot
                ? new BulbPlace(pot.ThermalClass(input.Wall, "#9a6b4f", Exposure.FullSun), input.DepthCm)
                : BulbPlace.UsualBed with
                {
                    DepthCm = input.DepthCm,
                };
            BloomForecast f = StackBloom.Forecast(plant, StackBloom.Seasons(input.Weather.Read(), input.Planted), input.Planted, place);
            return (
                new BloomOutput(
                    f.First,
                    f.Half,
                    f.Over,
                    Math.Round(f.MedianColdWeeks, 1),
                    Math.Round(f.ShareShortOfCold, 3),
                    [.. f.Years.Select(y => y with { ColdWeeks = Math.Round(y.ColdWeeks, 2) })],
                    f.YearsAsked
                ),
                [f.Explain(place)]
            );
        });

    private static BulbStack LayOut(StackInput input)
    {
        var faults = new FaultList();
        faults.AddAll("form", input.Form.Faults());
        faults.Range("wallGapCm", input.WallGapCm, 0, 10, "cm");
        faults.Range("bulbGapCm", input.BulbGapCm, 0, 20, "cm");
        if (input.Bulbs.Count is < 1 or > 20)
            faults.Add("bulbs", "must hold from 1 to 20 kinds");
        for (int i = 0; i < input.Bulbs.Count; i++)
        {
            BulbInput b = input.Bulbs[i];
            faults.Range($"bulbs[{i}].heightCm", b.HeightCm, 0.5, 20, "cm");
            faults.Range($"bulbs[{i}].diameterCm", b.DiameterCm, 0.5, 20, "cm");
            faults.Range($"bulbs[{i}].count", b.Count, 1, DisplayItem.MostCount, string.Empty);
            if (b.DepthCm is { } depth)
                faults.Range($"bulbs[{i}].depthCm", depth, 1, 150, "cm");
            if (b.Clump is { } clump)
                faults.Range($"bulbs[{i}].clump", clump, 2, DisplayItem.MostInClump, "bulbs");
            faults.Range($"bulbs[{i}].shootCm", b.ShootCm, 1, 300, "cm");
            if (b.Rule is { } given)
                faults.AddAll($"bulbs[{i}].rule", given.Faults());
        }
        foreach (string twice in input.Bulbs.GroupBy(b => b.Name).Where(g => g.Count() > 1).Select(g => g.Key))
            faults.Add("bulbs", $"hold \"{twice}\" twice; give each kind once");
        faults.Range("mediumBagLitres", input.MediumBagLitres, 1, 2000, "L");
        if (input.Planted is { } planted && planted.Year is < 1950 or > 2150)
            faults.Add("planted", "must be a date from 1950 to 2150");
        faults.ThrowIfAny();
        Site site = Site.Default with
        {
            WallGapCm = input.WallGapCm,
            BulbGapCm = input.BulbGapCm,
            MediumBagLitres = input.MediumBagLitres,
            Rules = HouseRules.Default with { BulbDepth = input.BulbDepth, Drainage = input.Drainage },
        };
        Planter planter = PlainPlanter.Of(input.Form, input.Wall);
        var rule = new BulbForcing(0, 12, 10, 100, 18);
        return BulbStack.LayOut(
            planter,
            site,
            [
                .. input.Bulbs.Select(b => new PlannedBulb(Bulb(b, b.Rule ?? rule, 12) with { HeightCm = b.ShootCm }, b.Count, b.DepthCm)
                {
                    Clump = b.Clump,
                }),
            ]
        );
    }

    private static LayerOutput Output(StackLayer l) =>
        new(
            l.Plant.CommonName,
            l.DepthCm,
            Math.Round(l.CoverCm, 2),
            Math.Round(l.LengthCm, 2),
            Math.Round(l.WidthCm, 2),
            l.Fits,
            l.Count,
            Math.Round(l.LiftLitres, 2)
        );

    private static Plant Bulb(BulbInput b, BulbForcing rule, double coldWeeksLow) =>
        RuleBulb.Of(b.Name, new BulbFigures(b.HeightCm, b.DiameterCm, b.SpacingCm ?? 3 * b.DiameterCm, coldWeeksLow, 40), rule);
}

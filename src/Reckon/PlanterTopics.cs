using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Reckon;

/// <summary>Input of <c>volume</c>.</summary>
/// <param name="Form">The planter's inside; a bed of any outline carries its corners.</param>
public sealed record VolumeInput(PlanterForm Form);

/// <summary>Output of <c>volume</c>.</summary>
public sealed record VolumeOutput(double PlantableLitres, double FullLitres, double SurfaceM2, double PlantableDepthCm);

/// <summary>A planter for reckoning.</summary>
/// <param name="Form">Its inside.</param>
/// <param name="Wall">Its wall; none for a bed.</param>
/// <param name="WallColour">Colour of the wall.</param>
/// <param name="Exposure">Direct sun.</param>
/// <param name="Watering">How it is watered.</param>
/// <param name="Survey">What was seen at it; the usual when left out.</param>
public sealed record PlanterInput(
    PlanterForm Form,
    WallMaterial Wall = WallMaterial.Terracotta,
    string WallColour = "#c98a67",
    Exposure Exposure = Exposure.FullSun,
    Watering Watering = Watering.Hand,
    PlanterSurvey? Survey = null
)
{
    /// <summary>The planter, checked.</summary>
    /// <exception cref="InvalidInputException">Something is out of range.</exception>
    public Planter Read()
    {
        var planter = new Planter
        {
            Id = "planter",
            AreaId = "area",
            Name = "the planter",
            Form = Form,
            Wall = Form.IsBed ? WallMaterial.None : Wall,
            WallColour = WallColour,
            Exposure = Exposure,
            Watering = Watering,
            ViewedFrom = ViewedFrom.AllRound,
            Survey = Survey ?? PlanterSurvey.Unseen,
        };
        IReadOnlyList<Fault> faults = planter.Faults();
        return faults.Count == 0 ? planter : throw new InvalidInputException(faults);
    }
}

/// <summary>Input of <c>weight</c>.</summary>
/// <param name="Planter">The container.</param>
/// <param name="OnePersonKg">What one person may lift, kg.</param>
public sealed record WeightInput(PlanterInput Planter, double OnePersonKg = 20);

/// <summary>Output of <c>weight</c>.</summary>
public sealed record WeightOutput(
    double EmptyKg,
    double DryKg,
    double SaturatedKg,
    double SaturatedKgPerM2,
    string Lifting,
    string? Deck,
    double? GreatestPlantHeightCm,
    DrainageVerdict Drainage
);

/// <summary>Input of <c>fit</c>.</summary>
/// <param name="Weather">The record.</param>
/// <param name="Planter">The planter.</param>
/// <param name="First">First day asked.</param>
/// <param name="Last">Last day asked.</param>
/// <param name="Palette">Plants, as a plan file holds them.</param>
/// <param name="FrostPocketC">How much colder than the station its leaves are, °C.</param>
public sealed record FitInput(
    WeatherInput Weather,
    PlanterInput Planter,
    LocalDate First,
    LocalDate Last,
    IReadOnlyList<Plant> Palette,
    double FrostPocketC = 1
);

/// <summary>Why a plant fits badly: what was looked at, of what kind the reason is, and in words.</summary>
public sealed record FitReasonOutput(FitAspect What, FitVerdict Verdict, string Kind, string Why);

/// <summary>One plant's fit.</summary>
public sealed record FitPlantOutput(
    string Id,
    FitVerdict Verdict,
    double Odds,
    double Score,
    LocalDate GoesIn,
    IReadOnlyList<FitReasonOutput> Reasons
);

/// <summary>Output of <c>fit</c>, the best first.</summary>
public sealed record FitOutput(IReadOnlyList<FitPlantOutput> Plants);

/// <summary>Input of <c>palette-check</c>.</summary>
/// <param name="Palette">Plants, as a plan file holds them.</param>
public sealed record PaletteCheckInput(IReadOnlyList<Plant> Palette);

/// <summary>One remark of <c>palette-check</c>.</summary>
public sealed record PaletteRemarkOutput(string PlantId, string Kind, string Message);

/// <summary>Output of <c>palette-check</c>: what is hardly possible, and figures out of range.</summary>
public sealed record PaletteCheckOutput(IReadOnlyList<PaletteRemarkOutput> Remarks);

/// <summary>Topics of planters and of what fits them.</summary>
internal static class PlanterTopics
{
    public static Topic Volume { get; } = new Topic<VolumeInput, VolumeOutput>("volume", "litres and surface of a planter of any shape", input =>
        {
            var faults = new FaultList();
            faults.AddAll("form", input.Form.Faults());
            faults.ThrowIfAny();
            PlanterForm form = input.Form;
            return (
                new VolumeOutput(R(form.PlantableLitres), R(form.FullLitres), Math.Round(form.SurfaceCm2 / 10_000, 4), R(form.PlantableDepthCm)),
                [form.ExplainVolume()]
            );
        });

    public static Topic Weight { get; } =
        new Topic<WeightInput, WeightOutput>("weight", "what a container weighs, who may lift it, and how high plants may stand in it", input =>
        {
            var faults = new FaultList();
            faults.Range("onePersonKg", input.OnePersonKg, 1, 60, "kg");
            faults.ThrowIfAny();
            Planter planter = input.Planter.Read();
            PlanterLoad load = PlanterLoad.Of(planter) ?? throw new InvalidInputException("planter.form", "must be a container; nobody lifts a bed");
            GreatestHeight height = GreatestHeight.Of(planter);
            Drainage drainage = Drainage.Of(planter);
            return (
                new WeightOutput(
                    R(load.EmptyKg),
                    R(load.DryKg),
                    R(load.SaturatedKg),
                    Math.Round(load.KgPerM2),
                    Said.Metric.Say(load.LiftingCaution(input.OnePersonKg)),
                    load.DeckCaution is { } deck ? Said.Metric.Say(deck) : null,
                    double.IsFinite(height.LimitCm) ? height.LimitCm : null,
                    drainage.Verdict
                ),
                [load.Explain(), height.Explain(), drainage.Explain()]
            );
        });

    public static Topic Fit { get; } =
        new Topic<FitInput, FitOutput>("fit", "what can stand in a planter and give colour in given weeks, with reasons", input =>
        {
            var faults = new FaultList();
            for (int i = 0; i < input.Palette.Count; i++)
                faults.AddAll($"palette[{i}]", input.Palette[i].Faults());
            faults.Range("frostPocketC", input.FrostPocketC, -3, 9, "°C");
            if (input.First.Year is < 1950 or > 2150)
                faults.Add("first", "must be a date from 1950 to 2150");
            faults.ThrowIfAny();
            Core.Climate.WeatherRecord record = input.Weather.Read();
            var site = new SiteFlowering(record, SiteYear.UsualStart(input.First, record.Station.IsSouthern));
            var question = new FitQuestion(
                site,
                Site.Default,
                input.Planter.Read(),
                new Area("area", "Area", input.FrostPocketC),
                input.First,
                input.Last
            );
            IReadOnlyList<PlantFit> found = question.Ask(input.Palette);
            return (
                new FitOutput([
                    .. found.Select(f => new FitPlantOutput(
                        f.Plant.Id,
                        f.Verdict,
                        Math.Round(f.Odds, 3),
                        Math.Round(f.Score, 3),
                        f.Strip.Install,
                        [.. f.Reasons.Select(r => new FitReasonOutput(r.What, r.Verdict, r.Why.Kind.ToString(), Said.Metric.Say(r.Why)))]
                    )),
                ]),
                [.. found.Select(f => f.Explain())]
            );
        });

    public static Topic PaletteCheck { get; } =
        new Topic<PaletteCheckInput, PaletteCheckOutput>("palette-check", "figures of a palette that cannot go together", input =>
            (
                new PaletteCheckOutput([
                    .. input.Palette.SelectMany(p => p.Faults().Select(f => new PaletteRemarkOutput(p.Id, "Fault", f.ToString()))),
                    .. Core
                        .Palette.PaletteCheck.Of(input.Palette)
                        .Select(r => new PaletteRemarkOutput(r.PlantId, r.Says.Kind.ToString(), Said.Metric.Say(r.Says))),
                ]),
                [Core.Palette.PaletteCheck.Explain(input.Palette)]
            )
        );

    private static double R(double v) => Math.Round(v, 2);
}

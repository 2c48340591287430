using System.Text.Json;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;

namespace UnrulyMeadow.Store;

/// <summary>A planter as its table holds it.</summary>
internal sealed record PlanterRow
{
    public int Ordinal { get; init; }

    public string Id { get; init; } = string.Empty;

    public string AreaId { get; init; } = string.Empty;

    public string Name { get; init; } = string.Empty;

    public string Shape { get; init; } = string.Empty;

    public double TopLengthCm { get; init; }

    public double TopWidthCm { get; init; }

    public double BottomLengthCm { get; init; }

    public double BottomWidthCm { get; init; }

    public double DepthCm { get; init; }

    public double RimGapCm { get; init; }

    public string Exposure { get; init; } = string.Empty;

    public string Watering { get; init; } = string.Empty;

    public string ViewedFrom { get; init; } = string.Empty;

    public string Wall { get; init; } = string.Empty;

    public string WallColour { get; init; } = string.Empty;

    public string Note { get; init; } = string.Empty;

    public string? Skyline { get; init; }

    public string? Outline { get; init; }

    public string? Survey { get; init; }

    public string? Place { get; init; }

    public bool IsRetired { get; init; }

    public string? Rules { get; init; }

    public long Version { get; init; }

    public static PlanterRow From(Planter p, int ordinal, JsonSerializerOptions json) =>
        new()
        {
            Ordinal = ordinal,
            Id = p.Id,
            AreaId = p.AreaId,
            Name = p.Name,
            Shape = p.Form.Shape.ToString(),
            TopLengthCm = p.Form.TopLengthCm,
            TopWidthCm = p.Form.TopWidthCm,
            BottomLengthCm = p.Form.BottomLengthCm,
            BottomWidthCm = p.Form.BottomWidthCm,
            DepthCm = p.Form.DepthCm,
            RimGapCm = p.Form.RimGapCm,
            Exposure = p.Exposure.ToString(),
            Watering = p.Watering.ToString(),
            ViewedFrom = p.ViewedFrom.ToString(),
            Wall = p.Wall.ToString(),
            WallColour = p.WallColour,
            Note = p.Note,
            Skyline = p.Skyline is null ? null : JsonSerializer.Serialize(p.Skyline, json),
            Outline = p.Form.Outline is null ? null : JsonSerializer.Serialize(p.Form.Outline, json),
            Survey = p.Survey == PlanterSurvey.Unseen ? null : JsonSerializer.Serialize(p.Survey, json),
            Place = p.Place is null ? null : JsonSerializer.Serialize(p.Place, json),
            IsRetired = p.IsRetired,
            Rules = p.Rules is null || p.Rules == new PlanterRules() ? null : JsonSerializer.Serialize(p.Rules, json),
        };

    public Planter ToPlanter(JsonSerializerOptions json) =>
        new()
        {
            Id = Id,
            AreaId = AreaId,
            Name = Name,
            Form = new PlanterForm(Enum.Parse<PlanterShape>(Shape), TopLengthCm, TopWidthCm, BottomLengthCm, BottomWidthCm, DepthCm, RimGapCm)
            {
                Outline = Read<BedOutline>(Outline, json),
            },
            Exposure = Enum.Parse<Exposure>(Exposure),
            Watering = Enum.Parse<Watering>(Watering),
            ViewedFrom = Enum.Parse<ViewedFrom>(ViewedFrom),
            Wall = Enum.Parse<WallMaterial>(Wall),
            WallColour = WallColour,
            Note = Note,
            Skyline = Read<Skyline>(Skyline, json),
            Survey = Read<PlanterSurvey>(Survey, json) ?? PlanterSurvey.Unseen,
            Place = Read<MapPlace>(Place, json),
            IsRetired = IsRetired,
            Rules = Read<PlanterRules>(Rules, json),
        };

    private static T? Read<T>(string? text, JsonSerializerOptions json)
        where T : class => text is null ? null : JsonSerializer.Deserialize<T>(text, json);
}

using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Plants;

namespace UnrulyMeadow.Web.Site;

/// <summary>A planter as typed, so that nothing typed is lost when something is wrong.</summary>
public sealed class PlanterInput
{
    public string? Name { get; set; }

    public string? AreaId { get; set; }

    public string? NewArea { get; set; }

    public string? Shape { get; set; } = nameof(PlanterShape.Round);

    public string? TopLength { get; set; }

    public string? TopWidth { get; set; }

    public string? BottomLength { get; set; }

    public string? BottomWidth { get; set; }

    public string? Depth { get; set; }

    public string? RimGap { get; set; }

    public string? Exposure { get; set; } = nameof(Core.Plants.Exposure.FullSun);

    public string? Watering { get; set; } = nameof(Core.Planters.Watering.Hand);

    public string? ViewedFrom { get; set; } = nameof(Core.Planters.ViewedFrom.AllRound);

    public string? Wall { get; set; } = nameof(WallMaterial.Terracotta);

    public string? WallColour { get; set; } = "#c98a67";

    public string? Note { get; set; }

    public int Version { get; set; }

    /// <summary>The form of a planter that is already there.</summary>
    public static PlanterInput From(Planter p, int version, UnitsText units) => new()
    {
        Name = p.Name,
        AreaId = p.AreaId,
        Shape = p.Form.Shape.ToString(),
        TopLength = units.LengthNumber(p.Form.TopLengthCm),
        TopWidth = units.LengthNumber(p.Form.TopWidthCm),
        BottomLength = units.LengthNumber(p.Form.BottomLengthCm),
        BottomWidth = units.LengthNumber(p.Form.BottomWidthCm),
        Depth = units.LengthNumber(p.Form.DepthCm),
        RimGap = units.LengthNumber(p.Form.RimGapCm),
        Exposure = p.Exposure.ToString(),
        Watering = p.Watering.ToString(),
        ViewedFrom = p.ViewedFrom.ToString(),
        Wall = p.Wall.ToString(),
        WallColour = p.WallColour,
        Note = p.Note,
        Version = version,
    };

    /// <summary>The inside measures as typed; what is left empty follows from the shape.</summary>
    public PlanterForm ReadForm(UnitsText units)
    {
        PlanterShape shape = Enum.TryParse(Shape, out PlanterShape s) ? s : PlanterShape.Round;
        bool bed = shape is PlanterShape.RectangularBed or PlanterShape.OvalBed;
        bool round = shape is PlanterShape.Round or PlanterShape.Basket;
        double length = units.ReadLength(TopLength);
        double width = round ? length : units.ReadLength(TopWidth);
        double bottomLength = shape == PlanterShape.Basket ? 0 : bed || Blank(BottomLength) ? length : units.ReadLength(BottomLength);
        double bottomWidth = shape == PlanterShape.Basket ? 0
            : round ? bottomLength
            : bed || Blank(BottomWidth) ? width : units.ReadLength(BottomWidth);
        double gap = bed ? 0 : Blank(RimGap) ? 2.5 : units.ReadLength(RimGap);
        return new PlanterForm(shape, length, width, bottomLength, bottomWidth, units.ReadLength(Depth), gap);
    }

    /// <summary>The planter as typed.</summary>
    public Planter Read(string id, string areaId, UnitsText units)
    {
        PlanterForm form = ReadForm(units);
        return new Planter
        {
            Id = id,
            AreaId = areaId,
            Name = (Name ?? string.Empty).Trim(),
            Form = form,
            Exposure = Parse(Exposure, Core.Plants.Exposure.FullSun),
            Watering = Parse(Watering, Core.Planters.Watering.Hand),
            ViewedFrom = Parse(ViewedFrom, Core.Planters.ViewedFrom.AllRound),
            Wall = form.IsBed ? WallMaterial.None : Parse(Wall, WallMaterial.Terracotta),
            WallColour = (WallColour ?? string.Empty).ToLowerInvariant(),
            Note = Note?.Trim() ?? string.Empty,
        };
    }

    /// <summary>The form's field that a fault speaks of.</summary>
    public static string? Field(string fault) => fault switch
    {
        "name" => "Input.Name",
        "areaId" => "Input.AreaId",
        "area.name" => "Input.NewArea",
        "form.topLengthCm" => "Input.TopLength",
        "form.topWidthCm" => "Input.TopWidth",
        "form.bottomLengthCm" => "Input.BottomLength",
        "form.bottomWidthCm" => "Input.BottomWidth",
        "form.depthCm" => "Input.Depth",
        "form.rimGapCm" => "Input.RimGap",
        "wallColour" => "Input.WallColour",
        "wall" => "Input.Wall",
        "note" => "Input.Note",
        _ => null,
    };

    private static bool Blank(string? text) => string.IsNullOrWhiteSpace(text);

    private static T Parse<T>(string? text, T otherwise)
        where T : struct, Enum => Enum.TryParse(text, out T value) && Enum.IsDefined(value) ? value : otherwise;
}

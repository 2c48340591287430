using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Planters;

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

    public string? Exposure { get; set; } = nameof(Core.Climate.Exposure.FullSun);

    public string? Watering { get; set; } = nameof(Core.Planters.Watering.Hand);

    public string? ViewedFrom { get; set; } = nameof(Core.Planters.ViewedFrom.AllRound);

    public string? Wall { get; set; } = nameof(WallMaterial.Terracotta);

    public string? WallColour { get; set; } = "#c98a67";

    public string? Note { get; set; }

    public string? Sides { get; set; }

    public string? Corners { get; set; }

    public string? Setback { get; set; }

    public string? HowMany { get; set; }

    public string? East { get; set; }

    public string? North { get; set; }

    public string? Turn { get; set; }

    public SurveyInput Survey { get; set; } = new();

    /// <summary>Schools that it follows instead of its site's, by matter; empty for the site's.</summary>
    public Dictionary<string, string?> Rules { get; set; } = [];

    public long Version { get; set; }

    /// <summary>The form of a planter that is already there.</summary>
    public static PlanterInput From(Planter p, long version, UnitsText units) =>
        new()
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
            Corners = p.Form.Outline is { } outline ? OutlineInput.Write(outline, units) : null,
            Setback = p.Form.Outline is { } set ? units.LengthNumber(set.SetbackCm) : null,
            East = p.Place is { } at ? Text(units.Metres(at.EastM)) : null,
            North = p.Place is { } there ? Text(units.Metres(there.NorthM)) : null,
            Turn = p.Place is { TurnDeg: not 0 } turned ? Text(turned.TurnDeg) : null,
            Survey = SurveyInput.From(p.Survey, units),
            Rules = HouseRuleMatter.All.ToDictionary(m => m.Key, m => m.Of(p.Rules), StringComparer.Ordinal),
            Version = version,
        };

    /// <summary>The inside measures as typed; what is left empty follows from the shape.</summary>
    public PlanterForm ReadForm(UnitsText units)
    {
        PlanterShape shape = Enum.TryParse(Shape, out PlanterShape s) ? s : PlanterShape.Round;
        if (shape == PlanterShape.OutlinedBed)
            return ReadOutlined(units);
        bool bed = shape is PlanterShape.RectangularBed or PlanterShape.OvalBed;
        bool round = shape is PlanterShape.Round or PlanterShape.Basket or PlanterShape.Bowl or PlanterShape.HalfBarrel;
        double length = units.ReadLength(TopLength);
        double width = round ? length : units.ReadLength(TopWidth);
        double bottomLength =
            shape == PlanterShape.Basket ? 0
            : bed || Blank(BottomLength) ? length
            : units.ReadLength(BottomLength);
        double bottomWidth =
            shape == PlanterShape.Basket ? 0
            : round ? bottomLength
            : bed || Blank(BottomWidth) ? width
            : units.ReadLength(BottomWidth);
        double gap =
            bed ? 0
            : Blank(RimGap) ? 2.5
            : units.ReadLength(RimGap);
        return new PlanterForm(shape, length, width, bottomLength, bottomWidth, units.ReadLength(Depth), gap);
    }

    /// <summary>The planter as typed.</summary>
    /// <exception cref="InvalidInputException">Something cannot be read at all.</exception>
    public Planter Read(string id, string areaId, UnitsText units)
    {
        PlanterForm form = ReadForm(units);
        var faults = new FaultList();
        PlanterSurvey survey = Survey.Read(units, form.IsBed, faults);
        faults.ThrowIfAny();
        return new Planter
        {
            Id = id,
            AreaId = areaId,
            Name = (Name ?? string.Empty).Trim(),
            Form = form,
            Exposure = Parse(Exposure, Core.Climate.Exposure.FullSun),
            Watering = Parse(Watering, Core.Planters.Watering.Hand),
            ViewedFrom = Parse(ViewedFrom, Core.Planters.ViewedFrom.AllRound),
            Wall = form.IsBed ? WallMaterial.None : Parse(Wall, WallMaterial.Terracotta),
            WallColour = (WallColour ?? string.Empty).ToLowerInvariant(),
            Note = Note?.Trim() ?? string.Empty,
            Survey = survey,
            Rules = HouseRuleMatter.ReadPlanter(Rules),
            Place = ReadPlace(units),
        };
    }

    private PlanterForm ReadOutlined(UnitsText units)
    {
        double depth = units.ReadLength(Depth);
        double setback = Blank(Setback) ? 10 : Math.Round(units.ReadLength(Setback), 2);
        BedOutline outline = OutlineInput.Read(Sides, Corners, setback, units)
            ?? throw new InvalidInputException("sides", "give the bed's sides, or its corners, or draw it on the map");
        IReadOnlyList<Fault> faults = outline.Faults();
        if (faults.Count > 0)
            throw new InvalidInputException([
                .. faults.Select(f => new Fault(
                    f.Field == "setbackCm" ? "form.outline.setbackCm"
                        : Blank(Corners) ? "sides"
                        : "corners",
                    f.Field == "setbackCm" ? f.Message : $"the outline {f.Message}"
                )),
            ]);
        return PlanterForm.Bed(outline, depth);
    }

    // Null while nobody has placed it; a half-given place is refused by its range.
    private MapPlace? ReadPlace(UnitsText units) =>
        Blank(East) && Blank(North)
            ? null
            : new MapPlace(
                Math.Round(units.ReadMetres(Plain(East)), 2),
                Math.Round(units.ReadMetres(Plain(North)), 2),
                Blank(Turn) ? 0 : Math.Round(Plain(Turn), 1)
            );

    /// <summary>The form's field that a fault speaks of.</summary>
    public static string? Field(string fault) =>
        fault switch
        {
            "sides" => "Input.Sides",
            "corners" => "Input.Corners",
            "form.outline.setbackCm" => "Input.Setback",
            "howMany" => "Input.HowMany",
            "place.eastM" => "Input.East",
            "place.northM" => "Input.North",
            "place.turnDeg" => "Input.Turn",
            _ when fault.StartsWith("survey.", StringComparison.Ordinal) => SurveyInput.Field(fault[7..]) is { } field ? $"Input.{field}" : null,
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

    private static string Text(double value) => value.ToString("0.##", System.Globalization.CultureInfo.InvariantCulture);

    private static double Plain(string? text) => TypedNumber.Read(text) ?? double.NaN;

    private static bool Blank(string? text) => string.IsNullOrWhiteSpace(text);

    private static T Parse<T>(string? text, T otherwise)
        where T : struct, Enum => Enum.TryParse(text, out T value) && Enum.IsDefined(value) ? value : otherwise;
}

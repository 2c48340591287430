using System.Text;
using System.Xml.Linq;
using NodaTime;
using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Stacks;
using UnrulyMeadow.Web.Site;
using static UnrulyMeadow.Web.Drawing.Figure;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>
/// A planter cut down its middle, to scale: wall, medium, bulbs at their depths and places, roots, and what stands above
/// on a day. A bed is shown as a piece of it.
/// </summary>
public sealed class CutAway
{
    private const double WidestBedCm = 150;
    private const double TallestCm = 95;
    private const double WallCm = 2.5;

    // Flowers reach above the height at which their stems end.
    private const double FlowerRoomCm = 11;

    private readonly Planter _planter;
    private readonly BulbStack? _stack;
    private readonly StackBloom? _bloom;
    private readonly IReadOnlyList<StandingPlant> _standing;
    private readonly LocalDate _day;
    private readonly UnitsText _units;
    private readonly double _scale;
    private readonly double _surfaceY;
    private readonly double _centreX;
    private readonly double _height;
    private readonly bool _tilted;

    /// <summary>Prepares a drawing.</summary>
    /// <param name="planter">The planter.</param>
    /// <param name="stack">Its bulbs; null for none.</param>
    /// <param name="bloom">When they flower; null without weather.</param>
    /// <param name="standing">What else stands on the day.</param>
    /// <param name="day">The day.</param>
    /// <param name="units">Units of the labels.</param>
    public CutAway(Planter planter, BulbStack? stack, StackBloom? bloom, IReadOnlyList<StandingPlant> standing, LocalDate day, UnitsText units)
    {
        _tilted = stack?.Site.RulesFor(planter).BulbAttitude == BulbAttitude.Tilted;
        _planter = planter;
        _stack = stack;
        _bloom = bloom;
        _standing = standing;
        _day = day;
        _units = units;
        double wide = ShownLength(planter.Form);
        double tall = Math.Clamp(
            (stack?.Layers.Select(l => l.Plant.HeightCm) ?? []).Concat(standing.Select(s => s.Plant.HeightCm)).DefaultIfEmpty(20).Max(),
            20,
            TallestCm
        );
        double deep = planter.Form.DepthCm;
        _scale = Math.Min(330 / wide, 490 / (tall + FlowerRoomCm + deep + 6));
        _surfaceY = 12 + ((tall + FlowerRoomCm) * _scale);
        _centreX = 212;
        _height = _surfaceY + ((deep + 5) * _scale) + 34;
    }

    /// <summary>The drawing.</summary>
    public XElement Draw()
    {
        XElement svg = El(
            "svg",
            "viewBox",
            $"0 0 640 {N(_height)}",
            "class",
            "cutaway",
            "role",
            "img",
            Title(
                $"Cut-away of {_planter.Name} on {Words.Day(_day)}, to scale: "
                    + string.Join(", ", _stack?.Layers.Select(l => $"{l.Count} {l.Plant.CommonName} at {_units.Length(l.DepthCm)}") ?? ["no bulbs"])
            )
        );
        svg.Add(Pot());
        svg.Add(DepthScale());
        // What stands behind is drawn before what stands in front, and short before tall within it.
        foreach (StandingPlant plant in _standing.OrderByDescending(s => s.Plant.HeightCm))
            svg.Add(Standing(plant));
        foreach (StackLayer layer in (_stack?.Layers ?? []).Reverse())
            svg.Add(Layer(layer));
        svg.Add(Labels());
        svg.Add(Text(4, _height - 6, "depth-text", Caption()));
        return svg;
    }

    private static double ShownLength(PlanterForm form) => form.IsBed ? Math.Min(WidestBedCm, form.TopLengthCm) : form.TopLengthCm + (2 * WallCm);

    private string Caption()
    {
        string what = _planter.Form.IsBed && _planter.Form.TopLengthCm > WidestBedCm ? $"{_units.Length(WidestBedCm)} of the bed" : "cut-away";
        return $"{what}, to scale, on {Words.Day(_day)}; depths in {_units.LengthUnit} below the finished surface";
    }

    private double Y(double depthCm) => _surfaceY + (depthCm * _scale);

    private double X(double cm) => _centreX + (cm * _scale);

    private XElement Pot()
    {
        PlanterForm form = _planter.Form;
        XElement group = El("g");
        double half = form.IsBed ? ShownLength(form) / 2 : form.TopLengthCm / 2;
        if (form.IsBed)
        {
            group.Add(El("rect", "x", X(-half), "y", Y(0), "width", 2 * half * _scale, "height", form.DepthCm * _scale, "class", "medium"));
        }
        else
        {
            string colour = _planter.WallColour;
            group.Add(
                El(
                    "path",
                    "d",
                    Outline(-form.RimGapCm, WallCm, form.DepthCm + (form.Shape == PlanterShape.Basket ? 1 : 2.2)),
                    "fill",
                    colour,
                    "class",
                    "wall"
                )
            );
            group.Add(El("path", "d", Outline(-form.RimGapCm, 0, form.DepthCm), "fill", "#fbf9f3"));
            group.Add(El("path", "d", Outline(0, 0, form.PlantableDepthCm + form.RimGapCm, fromSurface: true), "class", "medium"));
            if (form.Shape != PlanterShape.Basket)
            {
                group.Add(
                    El(
                        "rect",
                        "x",
                        X(-1.2),
                        "y",
                        Y(form.PlantableDepthCm) - 0.5,
                        "width",
                        2.4 * _scale,
                        "height",
                        (2.2 * _scale) + 1,
                        "fill",
                        "#fbf9f3"
                    )
                );
            }
        }
        for (int i = 0; i < 170; i++)
        {
            double depth = Ragged(41, i) * form.PlantableDepthCm * 0.97;
            double reach = form.IsBed ? half : form.InsideAt(depth).LengthCm / 2;
            group.Add(
                El("circle", "cx", X(((2 * Ragged(97, i)) - 1) * reach * 0.96), "cy", Y(depth + 0.5), "r", 0.5 + Ragged(3, i), "class", "crumb")
            );
        }
        group.Add(El("line", "x1", X(-half), "x2", X(half), "y1", Y(0), "y2", Y(0), "class", "surface"));
        return group;
    }

    // The inside from a depth to the floor, widened by a wall, as a closed path.
    private string Outline(double fromDepth, double widen, double depthCm, bool fromSurface = false)
    {
        PlanterForm form = _planter.Form;
        var left = new StringBuilder();
        var points = new List<(double X, double Y)>();
        const int Steps = 14;
        double floor = form.PlantableDepthCm;
        for (int i = 0; i <= Steps; i++)
        {
            double depth = fromDepth + ((floor - fromDepth) * i / Steps);
            points.Add(((form.InsideAt(depth).LengthCm / 2) + widen, depth));
        }
        if (!fromSurface && widen > 0)
            points.Add((points[^1].X, depthCm - form.RimGapCm));
        left.Append('M');
        foreach ((double x, double y) in points)
            left.Append(N(X(-x))).Append(' ').Append(N(Y(y))).Append('L');
        for (int i = points.Count - 1; i >= 0; i--)
            left.Append(N(X(points[i].X))).Append(' ').Append(N(Y(points[i].Y))).Append(i == 0 ? 'Z' : 'L');
        return left.ToString();
    }

    private XElement DepthScale()
    {
        XElement group = El("g");
        double half = ShownLength(_planter.Form) / 2;
        double step = _planter.Form.DepthCm > 60 ? 20 : 10;
        if (_units.IsUs)
            step = 10.16;
        double x = X(-half) - 8;
        for (double d = 0; d <= _planter.Form.PlantableDepthCm; d += step)
        {
            group.Add(El("line", "x1", x - 8, "x2", x, "y1", Y(d), "y2", Y(d), "class", "tick"));
            group.Add(Text(x - 12, Y(d) + 4, "depth-text", _units.LengthNumber(Math.Round(d, 2)), "end"));
        }
        return group;
    }

    private XElement Layer(StackLayer layer)
    {
        XElement group = El("g", Title($"{layer.Plant.CommonName}: {layer.Count} at {_units.Length(layer.DepthCm)}"));
        BulbFigures bulb = layer.Plant.Bulb!;
        BloomForecast? forecast = _bloom?.Forecasts.FirstOrDefault(f => f.Plant.Id == layer.Plant.Id);
        double half = ShownLength(_planter.Form) / 2;
        double slab = _planter.Form.IsBed ? bulb.SpacingCm * 0.6 : Math.Sqrt(layer.LengthCm * layer.WidthCm / Math.Max(1, layer.Spread.Count)) * 0.5;
        var places = layer.Spread.Where(p => Math.Abs(p.XCm) <= half - 1).ToList();
        // Behind the cut first, paler; what stands before the cut is taken away.
        foreach (PlanePoint p in places.Where(p => p.YCm < -slab && p.YCm > -slab * 3.2))
        {
            XElement behind = El("g", "class", "behind");
            if (forecast is not null)
                behind.Add(Shoot(layer.Plant, p.XCm, 0, forecast));
            behind.Add(
                El(
                    "path",
                    "d",
                    BulbShape(p.XCm, layer.DepthCm, bulb),
                    "fill",
                    Skin(layer.Plant),
                    "class",
                    "bulb",
                    "transform",
                    Tilt(p.XCm, layer.DepthCm)
                )
            );
            group.Add(behind);
        }
        foreach (PlanePoint p in places.Where(p => Math.Abs(p.YCm) <= slab).OrderBy(p => p.XCm))
        {
            group.Add(El("path", "d", Roots(p.XCm, layer.DepthCm, bulb), "class", "root"));
            if (forecast is not null)
                group.Add(Shoot(layer.Plant, p.XCm, layer.CoverCm, forecast));
            group.Add(
                El(
                    "path",
                    "d",
                    BulbShape(p.XCm, layer.DepthCm, bulb),
                    "fill",
                    Skin(layer.Plant),
                    "class",
                    "bulb",
                    "transform",
                    Tilt(p.XCm, layer.DepthCm)
                )
            );
        }
        if (layer.Count > layer.Fits && !_planter.Form.IsBed)
        {
            double reach = layer.LengthCm / 2;
            group.Add(
                El("rect", "x", X(-reach), "y", Y(layer.CoverCm), "width", 2 * reach * _scale, "height", bulb.HeightCm * _scale, "class", "too-many")
            );
        }
        return group;
    }

    // Tilted bulbs lean away from the middle.
    private string? Tilt(double xCm, double depthCm) => _tilted ? $"rotate({(xCm < 0 ? -14 : 14)} {N(X(xCm))} {N(Y(depthCm))})" : null;

    private string BulbShape(double xCm, double depthCm, BulbFigures bulb)
    {
        double x = X(xCm);
        double y = Y(depthCm);
        double w = bulb.DiameterCm * _scale / 2;
        double h = bulb.HeightCm * _scale;
        return $"M{N(x)} {N(y - h)}C{N(x + (w * 0.35))} {N(y - (h * 0.72))} {N(x + w)} {N(y - (h * 0.62))} {N(x + w)} {N(y - (h * 0.3))}"
            + $"C{N(x + w)} {N(y + (h * 0.08))} {N(x - w)} {N(y + (h * 0.08))} {N(x - w)} {N(y - (h * 0.3))}"
            + $"C{N(x - w)} {N(y - (h * 0.62))} {N(x - (w * 0.35))} {N(y - (h * 0.72))} {N(x)} {N(y - h)}Z";
    }

    private string Roots(double xCm, double depthCm, BulbFigures bulb)
    {
        var path = new StringBuilder();
        double x = X(xCm);
        double y = Y(depthCm);
        double w = bulb.DiameterCm * _scale / 2;
        for (int i = -2; i <= 2; i++)
            path.Append($"M{N(x + (i * w * 0.2))} {N(y)}q{N(i * 1.5)} 4 {N(i * w * 0.3)} {N(Math.Min(9, 2.6 * _scale))}");
        return path.ToString();
    }

    private XElement Shoot(Plant plant, double xCm, double coverCm, BloomForecast forecast)
    {
        XElement group = El("g");
        if (forecast.First is not { } first || forecast.Over is not { } over)
            return group;
        int toFirst = Period.DaysBetween(_day, first);
        int past = Period.DaysBetween(over, _day);
        double grown = BulbShoot.Grown(_day, first);
        if (grown <= 0.03 || past > 45)
            return group;
        double lean = (Ragged((int)(xCm * 10), 5) - 0.5) * 2.4;
        double tall = Math.Min(TallestCm, plant.HeightCm) * grown * (0.9 + (0.14 * Ragged((int)(xCm * 7), 9)));
        double x = X(xCm);
        double top = Y(-tall);
        string css = past > 8 ? "shoot shoot-fading" : "shoot";
        double thick = Math.Max(1, 0.45 * _scale);
        group.Add(
            El(
                "path",
                "d",
                $"M{N(x)} {N(Y(coverCm))}L{N(x)} {N(Y(0))}Q{N(x)} {N((Y(0) + top) / 2)} {N(X(xCm + lean))} {N(top)}",
                "class",
                css,
                "stroke-width",
                thick
            )
        );
        for (int side = -1; side <= 1; side += 2)
        {
            double leafTop = Y(-tall * 0.62);
            group.Add(
                El(
                    "path",
                    "d",
                    (
                        $"M{N(x)} {N(Y(0))}Q{N(x + (side * 0.8 * _scale))} {N((Y(0) + leafTop) / 2)} "
                        + $"{N(x + (side * (1 + (plant.MatureSpreadCm * 0.24)) * _scale))} {N(leafTop)}"
                    ),
                    "class",
                    css,
                    "stroke-width",
                    thick * 1.5
                )
            );
        }
        if (toFirst <= 0 && past <= 0)
            group.Add(FlowerShape.Draw(plant, X(xCm + lean), top, _scale));
        else if (toFirst > 0 && grown > 0.7)
            group.Add(
                El("ellipse", "cx", X(xCm + lean), "cy", top, "rx", 0.9 * _scale, "ry", 1.7 * _scale, "fill", Mix(plant.LeadColour, "#6f8f57", 0.55))
            );
        return group;
    }

    private XElement Standing(StandingPlant standing)
    {
        (Plant plant, int count) = (standing.Plant, standing.Count);
        XElement group = El("g", Title($"{plant.CommonName}, {count}"));
        double wide = ShownLength(_planter.Form) - (_planter.Form.IsBed ? 0 : 2 * WallCm);
        double spread = Math.Max(6, (plant.SpreadAtPurchaseCm + plant.MatureSpreadCm) / 2);
        int n = plant.LifeForm == LifeForm.Tree ? 1 : Math.Clamp((int)Math.Round(Math.Min(Math.Sqrt(count) * 1.3, wide / spread)), 1, 14);
        double tall = Math.Min(TallestCm, plant.HeightCm);
        int seed = plant.Id.Length * 13;
        for (int i = 0; i < n; i++)
        {
            double x = n == 1 ? (seed % 7) - 3 : ((i + 0.5) / n * wide * 0.96) - (wide * 0.48) + ((Ragged(seed, i) - 0.5) * spread * 0.4);
            group.Add(FlowerShape.Mound(standing, X(x), _surfaceY, spread * _scale, tall * _scale * (0.85 + (0.2 * Ragged(seed, i + 50))), seed + i));
        }
        return group;
    }

    private XElement Labels()
    {
        XElement group = El("g");
        if (_stack is null)
            return group;
        double edge = X(ShownLength(_planter.Form) / 2);
        double last = double.NegativeInfinity;
        foreach (StackLayer layer in _stack.Layers)
        {
            double at = Y(layer.DepthCm - (layer.Plant.Bulb!.HeightCm / 2));
            double y = Math.Max(at, last + 37);
            last = y;
            double from = X(Math.Min(layer.LengthCm / 2, ShownLength(_planter.Form) / 2));
            group.Add(El("path", "d", $"M{N(from)} {N(at)}H{N(edge + 6)}L{N(edge + 22)} {N(y)}H{N(edge + 30)}", "class", "leader"));
            group.Add(Text(edge + 36, y, "part-name", layer.Plant.CommonName));
            BloomForecast? forecast = _bloom?.Forecasts.FirstOrDefault(f => f.Plant.Id == layer.Plant.Id);
            string when =
                forecast is null ? string.Empty
                : forecast.First is { } first ? $" · {Words.Short(first)} ± {forecast.SpreadDays:0}"
                : " · no flower";
            XElement said = Text(
                edge + 36,
                y + 15,
                layer.Count > layer.Fits && !_planter.Form.IsBed ? "part-text part-late" : "part-text",
                $"{_units.Length(layer.DepthCm)} · {layer.Count} of {layer.Fits}{when}"
            );
            if (forecast?.First is { } flowers)
                said.Add(
                    new XAttribute("data-figure", $"first colour, {_planter.Id}, {layer.Plant.Id}, {flowers.Year}"),
                    new XAttribute("data-value", Words.Iso(flowers))
                );
            group.Add(said);
        }
        return group;
    }

    private static string Skin(Plant plant) =>
        plant.BotanicalName.Split(' ', ',')[0] switch
        {
            "Hyacinthus" => "#9a7aa0",
            "Tulipa" => "#bb8345",
            "Allium" => "#d8cfbd",
            "Galanthus" or "Scilla" => "#c9b48b",
            "Crocus" => "#b9935c",
            _ => "#cba763",
        };
}

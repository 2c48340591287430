using System.Globalization;
using System.Text.RegularExpressions;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Exchange.Sheets;

/// <summary>What one row of a table of planters would do.</summary>
/// <param name="Line">The row's line.</param>
/// <param name="Planter">The planter as it becomes.</param>
/// <param name="Before">The planter as it is; null for a new one.</param>
public sealed record PlanterRowChange(int Line, Planter Planter, Planter? Before);

/// <summary>What a table of planters would do; nothing is written.</summary>
/// <param name="Rows">New planters and those that change, in the order of the table.</param>
/// <param name="NewAreas">Areas that it names and that are not there yet.</param>
/// <param name="Same">How many rows say what is so already.</param>
public sealed record PlanterTable(IReadOnlyList<PlanterRowChange> Rows, IReadOnlyList<Area> NewAreas, int Same);

/// <summary>
/// Tables of planters, in and out: a row each, found again by their names. Measures are in the site's unit unless a heading or a cell names
/// another: "length in", 50 cm, 20", 1.2 m.
/// </summary>
public static partial class PlanterSheet
{
    private const double UsualRimGapCm = 2.5;
    private const int MostOfAKind = 500;

    private static readonly string[] Columns =
    [
        "name",
        "area",
        "shape",
        "length",
        "width",
        "depth",
        "how many",
        "bottom length",
        "bottom width",
        "light",
        "watering",
        "seen from",
        "wall",
        "wall colour",
        "look group",
        "note",
    ];

    // What people head such columns with.
    private static readonly Dictionary<string, string> Synonyms = new(StringComparer.OrdinalIgnoreCase)
    {
        ["planter"] = "name",
        ["container"] = "name",
        ["place"] = "area",
        ["location"] = "area",
        ["zone"] = "area",
        ["form"] = "shape",
        ["type"] = "shape",
        ["diameter"] = "length",
        ["top"] = "length",
        ["top diameter"] = "length",
        ["height"] = "depth",
        ["count"] = "how many",
        ["number"] = "how many",
        ["quantity"] = "how many",
        ["sun"] = "light",
        ["exposure"] = "light",
        ["water"] = "watering",
        ["irrigation"] = "watering",
        ["material"] = "wall",
        ["colour"] = "wall colour",
        ["color"] = "wall colour",
        ["group"] = "look group",
        ["notes"] = "note",
    };

    private static readonly Dictionary<string, PlanterShape> Shapes = new(StringComparer.OrdinalIgnoreCase)
    {
        ["pot"] = PlanterShape.Round,
        ["round pot"] = PlanterShape.Round,
        ["urn"] = PlanterShape.Round,
        ["tub"] = PlanterShape.Round,
        ["box"] = PlanterShape.Trough,
        ["square"] = PlanterShape.Trough,
        ["rectangular"] = PlanterShape.Trough,
        ["window box"] = PlanterShape.Trough,
        ["hanging basket"] = PlanterShape.Basket,
        ["bed"] = PlanterShape.RectangularBed,
        ["barrel"] = PlanterShape.HalfBarrel,
    };

    /// <summary>Planters as rows, to be written as CSV or a workbook; measures in cm or inches, as the headings say.</summary>
    /// <param name="plan">The plan.</param>
    public static (IReadOnlyList<string> Headings, IEnumerable<IReadOnlyList<object?>> Rows) Of(Plan plan)
    {
        bool us = plan.Site.Units == SiteUnits.UsCustomary;
        string unit = us ? "in" : "cm";
        double Measure(double cm) => Math.Round(us ? cm / CmPerInch : cm, 2);
        return (
            [.. Columns.Where(c => c != "how many").Select(c => IsMeasure(c) ? $"{c} {unit}" : c)],
            plan.Planters.Where(p => p.Form.Shape != PlanterShape.OutlinedBed)
                .Select(p =>
                    (IReadOnlyList<object?>)
                        [
                            p.Name,
                            plan.AreaOf(p).Name,
                            Word(p.Form.Shape),
                            Measure(p.Form.TopLengthCm),
                            Measure(p.Form.TopWidthCm),
                            Measure(p.Form.DepthCm),
                            Measure(p.Form.BottomLengthCm),
                            Measure(p.Form.BottomWidthCm),
                            Word(p.Exposure),
                            Word(p.Watering),
                            Word(p.ViewedFrom),
                            Word(p.Wall),
                            p.WallColour,
                            p.Survey.LookGroup,
                            p.Note,
                        ]
                )
        );
    }

    /// <summary>Reads a table over a plan and says what it would do.</summary>
    /// <param name="rows">The rows; the first may hold headings, or the columns stand in the usual order.</param>
    /// <param name="plan">The plan as it is.</param>
    /// <exception cref="InvalidInputException">Anything is wrong; each fault names its line and column.</exception>
    public static PlanterTable Read(IReadOnlyList<TypedRow> rows, Plan plan)
    {
        var faults = new FaultList();
        var sheet = new SheetRows(rows, Columns, faults, c => Heading(c).Name);
        faults.ThrowIfAny();
        var reader = new Reader(plan, sheet, faults);
        foreach (TypedRow row in sheet.Rows.Where(sheet.FitsColumns))
            reader.Take(row);
        faults.ThrowIfAny();
        return reader.Table();
    }

    internal const double CmPerInch = 2.54;

    private static bool IsMeasure(string column) => column is "length" or "width" or "depth" or "bottom length" or "bottom width";

    // The column that a heading means, and the unit it ends with.
    private static (string Name, double? UnitCm) Heading(string cell)
    {
        string text = cell.Replace("(", " ", StringComparison.Ordinal)
            .Replace(")", " ", StringComparison.Ordinal)
            .Replace(",", " ", StringComparison.Ordinal);
        List<string> words = [.. text.Split(' ', StringSplitOptions.RemoveEmptyEntries)];
        double? unit = words.Count > 1 ? UnitCm(words[^1]) : null;
        if (unit is not null)
            words.RemoveAt(words.Count - 1);
        string name = string.Join(' ', words).ToLowerInvariant();
        return (Synonyms.GetValueOrDefault(name, name), unit);
    }

    /// <summary>A unit of length in cm; null where it is none.</summary>
    internal static double? UnitCm(string unit) =>
        unit.ToLowerInvariant() switch
        {
            "mm" => 0.1,
            "cm" => 1,
            "m" => 100,
            "in" or "inch" or "inches" or "\"" or "”" or "″" => CmPerInch,
            "ft" or "foot" or "feet" or "'" or "’" or "′" => 12 * CmPerInch,
            _ => null,
        };

    /// <summary>The word of a sheet for a choice: lower case, parted by blanks.</summary>
    internal static string Word(Enum value) => Capital().Replace(value.ToString(), " $0").Trim().ToLowerInvariant();

    [GeneratedRegex("[A-Z]", RegexOptions.None, 1000)]
    private static partial Regex Capital();

    [GeneratedRegex("""^(?<number>\d{1,6}(?:[.,]\d{1,6})?)\s*(?<unit>[a-zA-Z"”″'’′]*)$""", RegexOptions.None, 1000)]
    private static partial Regex Length();

    private sealed class Reader(Plan plan, SheetRows sheet, FaultList faults)
    {
        private readonly Dictionary<string, Planter> _present = plan.Planters.ToDictionary(p => p.Name, StringComparer.OrdinalIgnoreCase);
        private readonly Dictionary<string, Area> _areas = plan
            .Areas.GroupBy(a => a.Name, StringComparer.OrdinalIgnoreCase)
            .ToDictionary(g => g.Key, g => g.First(), StringComparer.OrdinalIgnoreCase);
        private readonly HashSet<string> _areaIds = [.. plan.Areas.Select(a => a.Id)];
        private readonly HashSet<string> _ids = [.. plan.Planters.Select(p => p.Id), "new", "table"];
        private readonly Dictionary<string, int> _named = new(StringComparer.OrdinalIgnoreCase);
        private readonly List<Area> _newAreas = [];
        private readonly List<PlanterRowChange> _changes = [];
        private readonly Dictionary<string, double> _units = sheet
            .Headings.Select(Heading)
            .Where(h => h.UnitCm is not null)
            .ToDictionary(h => h.Name, h => h.UnitCm!.Value, StringComparer.Ordinal);
        private readonly double _siteUnit = plan.Site.Units == SiteUnits.UsCustomary ? CmPerInch : 1;
        private int _same;

        public PlanterTable Table() => new(_changes, _newAreas, _same);

        public void Take(TypedRow row)
        {
            int before = faults.Count;
            string name = Cell(row, "name");
            _present.TryGetValue(name, out Planter? old);
            int many = Many(row, old);
            for (int i = 1; i <= many && faults.Count == before; i++)
            {
                string own = many == 1 ? name : $"{name} {i}";
                if (many > 1)
                    _present.TryGetValue(own, out old);
                if (!_named.TryAdd(own, row.Line))
                {
                    faults.Add($"line {row.Line}", $"names \"{own}\", as line {_named[own]} does; every name must be its own");
                    return;
                }
                Planter planter = Read(row, own, old);
                if (faults.Count > before)
                    return;
                faults.AddAll(string.Empty, planter.Faults().Select(f => f with { Field = $"line {row.Line}, {Column(f.Field)}" }));
                if (old is null || !planter.Equals(old))
                    _changes.Add(new PlanterRowChange(row.Line, planter, old));
                else
                    _same++;
            }
        }

        private string Cell(TypedRow row, string column) => sheet.Cell(row, column);

        private void Fault(TypedRow row, string column, string message) => sheet.Fault(row, column, message);

        private int Many(TypedRow row, Planter? old) => old is not null ? 1 : sheet.Whole(row, "how many", 1, MostOfAKind, mayLack: true) ?? 1;

        private Planter Read(TypedRow row, string name, Planter? old)
        {
            PlanterShape shape = sheet.Choice(row, "shape", old?.Form.Shape ?? PlanterShape.Round, Shapes);
            if (shape == PlanterShape.OutlinedBed)
                Fault(row, "shape", "an outlined bed is drawn on the map or on its own page");
            string colour = Cell(row, "wall colour").ToLowerInvariant();
            var planter = (
                old
                ?? new Planter
                {
                    Id = Ids.From(name, _ids.Contains),
                    AreaId = string.Empty,
                    Name = name,
                    Form = PlanterForm.Round(1, 1, 1),
                    Exposure = Exposure.FullSun,
                    Watering = Watering.Hand,
                    ViewedFrom = ViewedFrom.AllRound,
                    Wall = WallMaterial.Terracotta,
                    WallColour = "#c98a67",
                    Note = string.Empty,
                    Survey = PlanterSurvey.Unseen,
                }
            ) with
            {
                AreaId = AreaOf(row, old),
                Form = Form(row, shape, old),
                Exposure = sheet.Choice(row, "light", old?.Exposure ?? Exposure.FullSun),
                Watering = sheet.Choice(row, "watering", old?.Watering ?? Watering.Hand),
                ViewedFrom = sheet.Choice(row, "seen from", old?.ViewedFrom ?? ViewedFrom.AllRound),
            };
            _ids.Add(planter.Id);
            string group = Cell(row, "look group");
            string note = Cell(row, "note");
            return planter with
            {
                Wall = planter.Form.IsBed ? WallMaterial.None : sheet.Choice(row, "wall", old?.Wall ?? WallMaterial.Terracotta),
                WallColour = colour.Length > 0 ? colour : planter.WallColour,
                Note = note.Length > 0 ? note : planter.Note,
                Survey = group.Length > 0 && group != planter.Survey.LookGroup ? planter.Survey with { LookGroup = group } : planter.Survey,
            };
        }

        private string AreaOf(TypedRow row, Planter? old)
        {
            string name = Cell(row, "area");
            if (name.Length == 0 && old is not null)
                return old.AreaId;
            if (name.Length == 0 && plan.Areas.Count == 1)
                return plan.Areas[0].Id;
            if (name.Length == 0)
            {
                Fault(row, "area", "must name one");
                return string.Empty;
            }
            if (!_areas.TryGetValue(name, out Area? area))
            {
                area = new Area(Ids.From(name, _areaIds.Contains), name, 1);
                foreach (Fault fault in area.Faults())
                    Fault(row, "area", fault.Message);
                _areaIds.Add(area.Id);
                _areas[name] = area;
                _newAreas.Add(area);
            }
            return area.Id;
        }

        private PlanterForm Form(TypedRow row, PlanterShape shape, Planter? old)
        {
            PlanterForm? before = old?.Form.Shape == shape ? old.Form : null;
            bool bed = shape is PlanterShape.RectangularBed or PlanterShape.OvalBed;
            bool round = shape is PlanterShape.Round or PlanterShape.Basket or PlanterShape.Bowl or PlanterShape.HalfBarrel;
            double length = Measure(row, "length", before?.TopLengthCm, isNeeded: true) ?? 0;
            double width = round ? length : Measure(row, "width", before?.TopWidthCm, isNeeded: true) ?? 0;
            double depth = Measure(row, "depth", before?.DepthCm, isNeeded: true) ?? 0;
            double? bottom = Measure(row, "bottom length", before?.BottomLengthCm, isNeeded: false);
            double? bottomWidth = Measure(row, "bottom width", before?.BottomWidthCm, isNeeded: false);
            double bottomLength =
                shape == PlanterShape.Basket ? 0
                : bed ? length
                : bottom ?? length;
            return new PlanterForm(
                shape,
                length,
                width,
                bottomLength,
                shape == PlanterShape.Basket ? 0
                    : round ? bottomLength
                    : bed ? width
                    : bottomWidth ?? width,
                depth,
                bed ? 0 : before?.RimGapCm ?? UsualRimGapCm
            );
        }

        private double? Measure(TypedRow row, string column, double? before, bool isNeeded)
        {
            string typed = Cell(row, column);
            if (typed.Length == 0)
            {
                if (before is null && isNeeded)
                    Fault(row, column, "is missing");
                return before;
            }
            Match match = Length().Match(typed);
            double? unit = match.Groups["unit"].Value is { Length: > 0 } named ? UnitCm(named) : _units.GetValueOrDefault(column, _siteUnit);
            if (!match.Success || unit is null)
            {
                Fault(row, column, $"\"{PlainText.Cut(typed, 20)}\" is no measure; write 50, 50 cm or 20 in");
                return before;
            }
            double cm = Math.Round(double.Parse(match.Groups["number"].Value.Replace(',', '.'), CultureInfo.InvariantCulture) * unit.Value, 2);
            // A figure written in a rounded unit is the figure that was there.
            return before is { } was && Math.Abs(was - cm) <= 0.005 * unit.Value + 1e-9 ? was : cm;
        }

        private static string Column(string field) =>
            field switch
            {
                "form.topLengthCm" => "length",
                "form.topWidthCm" => "width",
                "form.depthCm" => "depth",
                "form.bottomLengthCm" => "bottom length",
                "form.bottomWidthCm" => "bottom width",
                "wallColour" => "wall colour",
                "survey.lookGroup" => "look group",
                _ => field,
            };
    }
}

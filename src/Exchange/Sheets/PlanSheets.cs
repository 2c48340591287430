using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Exchange.Sheets;

/// <summary>What of a plan a table holds, besides planters.</summary>
public enum PlanSheetKind
{
    /// <summary>Displays, a row for each kind in them.</summary>
    Displays,

    /// <summary>Turns.</summary>
    Turns,

    /// <summary>Plants at hand.</summary>
    Stock,
}

/// <summary>What a table of displays, turns or stock would do; nothing is written.</summary>
/// <param name="Lines">What changes, each with its line and whether it is new.</param>
/// <param name="Same">How many say what is so already.</param>
public sealed record PlanSheetChange(IReadOnlyList<(int Line, string What, bool IsNew)> Lines, int Same)
{
    /// <summary>Displays that change, as they are.</summary>
    public IReadOnlyList<Display> DisplaysBefore { get; init; } = [];

    /// <summary>Those as they become.</summary>
    public IReadOnlyList<Display> DisplaysAfter { get; init; } = [];

    /// <summary>New displays.</summary>
    public IReadOnlyList<Display> DisplaysAdded { get; init; } = [];

    /// <summary>Turns that change, as they are.</summary>
    public IReadOnlyList<Turn> TurnsBefore { get; init; } = [];

    /// <summary>Those as they become, and new ones.</summary>
    public IReadOnlyList<Turn> TurnsAfter { get; init; } = [];

    /// <summary>Lots that change, as they are.</summary>
    public IReadOnlyList<Lot> LotsBefore { get; init; } = [];

    /// <summary>Those as they become, and new ones.</summary>
    public IReadOnlyList<Lot> LotsAfter { get; init; } = [];
}

/// <summary>
/// Tables of displays, turns and stock, in and out. A display is found again by planter, layer and the day it goes in; a turn by its name;
/// a lot by plant, state, place and since when. What a table does not name stays.
/// </summary>
public static class PlanSheets
{
    private static readonly string[] DisplayColumns = ["planter", "layer", "goes in", "comes out", "plant", "count"];
    private static readonly string[] TurnColumns = ["name", "first day", "last day", "full by", "delivery", "people"];
    private static readonly string[] LotColumns = ["plant", "count", "state", "place", "since", "condition", "from planter", "note"];

    /// <summary>The columns of a kind in their usual order.</summary>
    public static IReadOnlyList<string> Columns(PlanSheetKind kind) =>
        kind switch
        {
            PlanSheetKind.Displays => DisplayColumns,
            PlanSheetKind.Turns => TurnColumns,
            _ => LotColumns,
        };

    /// <summary>What a plan holds, as rows.</summary>
    public static IEnumerable<IReadOnlyList<object?>> Of(Plan plan, PlanSheetKind kind) =>
        kind switch
        {
            PlanSheetKind.Displays => plan
                .Displays.OrderBy(d => d.Install)
                .ThenBy(d => d.PlanterId, StringComparer.Ordinal)
                .SelectMany(d =>
                    d.Items.Select(i =>
                        (IReadOnlyList<object?>)
                            [
                                plan.FindPlanter(d.PlanterId)!.Name,
                                PlanterSheet.Word(d.Layer),
                                Text(d.Install),
                                d.IsOpenEnded ? null : Text(d.Lift),
                                plan.Plant(i.PlantId).CommonName,
                                i.Count,
                            ]
                    )
                ),
            PlanSheetKind.Turns => plan.Turns.Select(t =>
                (IReadOnlyList<object?>)[t.Name, Text(t.FirstDay), Text(t.LastDay), Text(t.FullBy), Text(t.Delivery), t.People]
            ),
            _ => plan.Lots.Select(l =>
                (IReadOnlyList<object?>)
                    [
                        plan.Plant(l.PlantId).CommonName,
                        l.Count,
                        PlanterSheet.Word(l.State),
                        l.Place,
                        Text(l.Since),
                        PlanterSheet.Word(l.Condition),
                        l.FromPlanterId is { } from ? plan.FindPlanter(from)?.Name : null,
                        l.Note,
                    ]
            ),
        };

    /// <summary>Reads a table over a plan and says what it would do.</summary>
    /// <param name="rows">The rows.</param>
    /// <param name="plan">The plan as it is.</param>
    /// <param name="kind">What the table holds.</param>
    /// <exception cref="InvalidInputException">Anything is wrong; each fault names its line and column.</exception>
    public static PlanSheetChange Read(IReadOnlyList<TypedRow> rows, Plan plan, PlanSheetKind kind)
    {
        var faults = new FaultList();
        var sheet = new SheetRows(rows, Columns(kind), faults);
        faults.ThrowIfAny();
        PlanSheetChange change = kind switch
        {
            PlanSheetKind.Displays => Displays(sheet, plan, faults),
            PlanSheetKind.Turns => Turns(sheet, plan, faults),
            _ => Lots(sheet, plan, faults),
        };
        faults.ThrowIfAny();
        return change;
    }

    private static string? Text(LocalDate? day) => day?.ToString("uuuu-MM-dd", null);

    private static void Check(FaultList faults, int line, IReadOnlyList<Fault> found) =>
        faults.AddAll(string.Empty, found.Select(f => f with { Field = $"line {line}, {f.Field}" }));

    private static PlanSheetChange Displays(SheetRows sheet, Plan plan, FaultList faults)
    {
        IReadOnlyDictionary<string, Planter> planters = SheetRows.ByName(plan.Planters.Where(p => !p.IsRetired), p => p.Name, p => p.Id);
        IReadOnlyDictionary<string, Plant> plants = SheetRows.ByName(plan.Palette, p => p.CommonName, p => p.Id);
        var read = new List<(TypedRow Row, Display Display)>();
        var ids = new HashSet<string>(plan.Displays.Select(d => d.Id), StringComparer.Ordinal);
        foreach (TypedRow row in sheet.Rows.Where(sheet.FitsColumns))
        {
            Planter? planter = sheet.Named(row, "planter", planters, "planter in use");
            DisplayLayer layer = sheet.Choice(row, "layer", DisplayLayer.Seasonal);
            LocalDate? install = sheet.Day(row, "goes in");
            LocalDate? lift = sheet.Day(row, "comes out", mayLack: layer == DisplayLayer.Standing);
            Plant? plant = sheet.Named(row, "plant", plants, "plant of the palette");
            int? count = sheet.Whole(row, "count", 1, DisplayItem.MostCount);
            if (
                planter is null
                || install is not { } goesIn
                || plant is null
                || count is not { } many
                || (lift is null && layer != DisplayLayer.Standing)
            )
                continue;
            LocalDate comesOut = lift ?? Display.OpenEnd(goesIn);
            int at = read.FindIndex(r => r.Display.PlanterId == planter.Id && r.Display.Layer == layer && r.Display.Install == goesIn);
            if (at < 0)
            {
                Display? old = plan.DisplaysOf(planter.Id).FirstOrDefault(d => d.Layer == layer && d.Install == goesIn);
                string id = old?.Id ?? Ids.From($"{planter.Id}-{layer}-{goesIn.ToString("uuuu-MM", null)}", ids.Contains);
                ids.Add(id);
                read.Add(
                    (
                        row,
                        (old ?? new Display(id, planter.Id, layer, goesIn, comesOut, [])) with
                        {
                            Lift = comesOut,
                            Items = [Item(old, plant, many)],
                        }
                    )
                );
                continue;
            }
            Display display = read[at].Display;
            if (display.Lift != comesOut)
                sheet.Fault(row, "comes out", $"line {read[at].Row.Line} lets the same display come out on {Text(display.Lift)}");
            else
            {
                Display? old = plan.DisplaysOf(planter.Id).FirstOrDefault(d => d.Id == display.Id);
                read[at] = (read[at].Row, display with { Items = [.. display.Items, Item(old, plant, many)] });
            }
        }
        foreach ((TypedRow row, Display display) in read)
            Check(faults, row.Line, display.Faults());
        Dictionary<string, Display> before = plan.Displays.ToDictionary(d => d.Id, StringComparer.Ordinal);
        bool Same(Display d) => before.TryGetValue(d.Id, out Display? b) && b.Lift == d.Lift && b.Items.SequenceEqual(d.Items);
        var changed = read.Where(r => !Same(r.Display)).ToList();
        string What(Display d) =>
            $"{plan.FindPlanter(d.PlanterId)!.Name}, {PlanterSheet.Word(d.Layer)} from {Text(d.Install)}: "
            + string.Join(", ", d.Items.Select(i => $"{i.Count} {plan.Plant(i.PlantId).CommonName}"));
        return new PlanSheetChange(
            [.. changed.Select(r => (r.Row.Line, What(r.Display), !before.ContainsKey(r.Display.Id)))],
            read.Count - changed.Count
        )
        {
            DisplaysBefore = [.. changed.Where(r => before.ContainsKey(r.Display.Id)).Select(r => before[r.Display.Id])],
            DisplaysAfter = [.. changed.Where(r => before.ContainsKey(r.Display.Id)).Select(r => r.Display)],
            DisplaysAdded = [.. changed.Where(r => !before.ContainsKey(r.Display.Id)).Select(r => r.Display)],
        };
    }

    // What was said of a kind besides its count stays, but for places, which no longer hold where the count differs.
    private static DisplayItem Item(Display? old, Plant plant, int count) =>
        old?.Items.FirstOrDefault(i => i.PlantId == plant.Id) is { } item
            ? item.Count == count
                ? item
                : item with
                {
                    Count = count,
                    Places = null,
                }
            : new DisplayItem(plant.Id, count);

    private static PlanSheetChange Turns(SheetRows sheet, Plan plan, FaultList faults)
    {
        IReadOnlyDictionary<string, Turn> present = SheetRows.ByName(plan.Turns, t => t.Name, t => t.Id);
        var read = new List<(int Line, Turn Turn)>();
        foreach (TypedRow row in sheet.Rows.Where(sheet.FitsColumns))
        {
            string name = sheet.Cell(row, "name");
            Turn? old = present.GetValueOrDefault(name);
            if (read.Exists(r => r.Turn.Name.Equals(old?.Name ?? name, StringComparison.OrdinalIgnoreCase)))
                sheet.Fault(row, "name", $"\"{PlainText.Cut(name, 60)}\" is there twice");
            if (sheet.Day(row, "first day") is not { } first || sheet.Day(row, "last day") is not { } last)
                continue;
            string id = old?.Id
                ?? Ids.From(name.Length == 0 ? "turn" : name, x => plan.Turns.Any(t => t.Id == x) || read.Exists(r => r.Turn.Id == x));
            var turn = new Turn(id, old?.Name ?? name, first, last)
            {
                FullBy = sheet.Day(row, "full by", mayLack: true),
                Delivery = sheet.Day(row, "delivery", mayLack: true),
                People = sheet.Whole(row, "people", 1, 1000, mayLack: true),
            };
            Check(faults, row.Line, turn.Faults());
            read.Add((row.Line, turn));
        }
        var changed = read.Where(r => plan.Turns.All(t => t != r.Turn)).ToList();
        return new PlanSheetChange(
            [
                .. changed.Select(r =>
                    (r.Line, $"{r.Turn.Name}: {Text(r.Turn.FirstDay)} to {Text(r.Turn.LastDay)}", plan.Turns.All(t => t.Id != r.Turn.Id))
                ),
            ],
            read.Count - changed.Count
        )
        {
            TurnsBefore = [.. plan.Turns.Where(t => changed.Exists(c => c.Turn.Id == t.Id))],
            TurnsAfter = [.. changed.Select(c => c.Turn)],
        };
    }

    private static PlanSheetChange Lots(SheetRows sheet, Plan plan, FaultList faults)
    {
        IReadOnlyDictionary<string, Plant> plants = SheetRows.ByName(plan.Palette, p => p.CommonName, p => p.Id);
        IReadOnlyDictionary<string, Planter> planters = SheetRows.ByName(plan.Planters, p => p.Name, p => p.Id);
        var read = new List<(int Line, Lot Lot)>();
        foreach (TypedRow row in sheet.Rows.Where(sheet.FitsColumns))
        {
            Plant? plant = sheet.Named(row, "plant", plants, "plant of the palette");
            int? count = sheet.Whole(row, "count", 0, 100_000);
            LotState state = sheet.Choice(row, "state", LotState.Waiting);
            LotCondition condition = sheet.Choice(row, "condition", LotCondition.Good);
            LocalDate? since = sheet.Day(row, "since");
            Planter? from = sheet.Cell(row, "from planter").Length == 0 ? null : sheet.Named(row, "from planter", planters, "planter");
            if (plant is null || count is not { } many || since is not { } day)
                continue;
            string place = sheet.Cell(row, "place");
            bool Is(Lot l) => l.PlantId == plant.Id && l.State == state && l.Place == place && l.Since == day;
            if (read.Exists(r => Is(r.Lot)))
                sheet.Fault(row, "plant", "the same lot is there twice: plant, state, place and day are those of another line");
            Lot? old = plan.Lots.FirstOrDefault(Is);
            string id = old?.Id ?? Ids.From($"{plant.Id} {state}", x => plan.Lots.Any(l => l.Id == x) || read.Exists(r => r.Lot.Id == x));
            var lot = new Lot(id, plant.Id, many, state, place, day, condition, from?.Id, sheet.Cell(row, "note"));
            Check(faults, row.Line, lot.Faults());
            read.Add((row.Line, lot));
        }
        var changed = read.Where(r => plan.Lots.All(l => l != r.Lot)).ToList();
        return new PlanSheetChange(
            [
                .. changed.Select(r =>
                    (
                        r.Line,
                        $"{r.Lot.Count} {plan.Plant(r.Lot.PlantId).CommonName}, {PlanterSheet.Word(r.Lot.State)}, {r.Lot.Place}",
                        plan.Lots.All(l => l.Id != r.Lot.Id)
                    )
                ),
            ],
            read.Count - changed.Count
        )
        {
            LotsBefore = [.. plan.Lots.Where(l => changed.Exists(c => c.Lot.Id == l.Id))],
            LotsAfter = [.. changed.Select(c => c.Lot)],
        };
    }
}

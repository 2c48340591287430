using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Exchange.Palette;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Palette;

/// <summary>Adds a plant or changes one: the same columns as a sheet, one field each.</summary>
[Needs(SiteRole.Planner)]
public sealed class EditModel(PageFrame frame, PaletteStore palette) : PageModel
{
    /// <summary>The heading of what shows and when.</summary>
    public const string Showing = "When it shows";

    private const int MostWindows = 8;

    private static readonly (string Legend, string[] Columns)[] Groups =
    [
        ("What it is", ["common name", "botanical name", "family", "kind", "habit", "texture", "vigour"]),
        ("Size", ["height cm", "spread bought cm", "spread grown cm", "growth per degree-day", "growth base C"]),
        (
            "Needs",
            ["light low", "light high", "water", "medium", "pH low", "pH high", "tops spoiled C", "roots die C", "heat ceiling C", "dry summer rest"]
        ),
        (Showing, ["green leaf"]),
        ("If it is a bulb", ["bulb height cm", "bulb width cm", "bulb spacing cm", "cold weeks low", "cold weeks high", "bulb grades", "returns"]),
        ("Tending", ["cutting", "flush after days", "flush days", "hidden by", "partner"]),
        ("Around it", ["deer", "rabbits", "slugs", "salt borne", "wind borne", "pollinators", "pests", "local status"]),
        ("Care for people and animals", ["eaten by people", "eaten by animals", "on skin", "cautions"]),
        ("Buying", ["packs", "sold", "source"]),
    ];

    [FromRoute]
    public string Id { get; set; } = "new";

    [BindProperty(SupportsGet = true, Name = "copy")]
    public string? CopyOf { get; set; }

    [BindProperty]
    public Dictionary<string, string?> Cells { get; set; } = [];

    /// <summary>What shows and when, with room for one more.</summary>
    [BindProperty]
    public List<WindowInput> Windows { get; set; } = [];

    [BindProperty]
    public long Version { get; set; }

    public SiteNow Now { get; private set; } = null!;

    /// <summary>Its colour through the year as typed; null where that cannot be read yet.</summary>
    public FloweringStrip? Strip { get; private set; }

    /// <summary>The figures that a rule begins with: those of a plant of the palette that goes by it, one of the same kind where there is one.</summary>
    public IReadOnlyDictionary<string, string?> Usual { get; private set; } = new Dictionary<string, string?>();

    public bool IsNew => Id == "new";

    public string Heading { get; private set; } = "New plant";

    /// <summary>The fields by group.</summary>
    public IEnumerable<(string Legend, IEnumerable<FieldView> Fields)> Fields => Groups.Select(g => (g.Legend, g.Columns.Select(Field)));

    public async Task<IActionResult> OnGetAsync()
    {
        Now = await frame.Now();
        // A page that is only opened has nothing to mend yet.
        ModelState.Clear();
        if (IsNew)
        {
            if (CopyOf is not null && Now.Plan.FindPlant(CopyOf) is { } original)
                Take(original with { CommonName = original.CommonName + ", copy" });
            else
                Cells["source"] = "our own";
            await Prepare();
            return Page();
        }
        if (Now.Plan.FindPlant(Id) is not { } plant)
            return NotFound();
        Heading = plant.CommonName;
        Version = Now.Versions.Plant(Id);
        Take(plant);
        await Prepare();
        return Page();
    }

    /// <summary>Draws what is typed.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostPreviewAsync()
    {
        Now = await frame.Now();
        ModelState.Clear();
        await Prepare();
        return Page();
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAsync()
    {
        Now = await frame.Now();
        Plant? old = IsNew ? null : Now.Plan.FindPlant(Id);
        Heading = old?.CommonName ?? Heading;
        return await frame.Saving(
            this,
            Name,
            async () =>
            {
                if (!IsNew && old is null)
                    throw new LostUpdateException("The plant", isGone: true);
                Plant plant = Typed(old) with { Id = old?.Id ?? "new" };
                if (old is null)
                    plant = plant with
                    {
                        Id = Ids.From(plant.CommonName, x => x is "new" or "import" or "compare" || Now.Plan.FindPlant(x) is not null),
                    };
                if (Now.Plan.Palette.Any(p => p.Id != plant.Id && p.CommonName.Equals(plant.CommonName, StringComparison.OrdinalIgnoreCase)))
                    throw new InvalidInputException("common name", "is already used; add its colour");
                await palette.Save(plant, IsNew ? null : Version);
                TempData["Said"] = $"{plant.CommonName} saved.";
                return Redirect($"/palette/{plant.Id}");
            },
            Prepare,
            now =>
            {
                Now = now;
                if (now.Plan.FindPlant(Id) is not { } theirs)
                    return [];
                Version = now.Versions.Plant(Id);
                return FormDifference.Between(
                    Cells,
                    PaletteColumns
                        .All.Where(c => Cells.ContainsKey(c.Name))
                        .ToDictionary(c => c.Name, c => Measure.InSiteUnits(c, theirs, Units), StringComparer.Ordinal)
                );
            }
        );
    }

    private static string? Name(string fault) =>
        fault.StartsWith("Windows[", StringComparison.Ordinal) ? fault
        : PaletteColumns.All.Any(c => c.Name == fault) ? $"Cells[{fault}]"
        : null;

    // The plant as typed.
    private Plant Typed(Plant? old)
    {
        var faults = new FaultList();
        for (int i = 0; i < Windows.Count; i++)
        {
            foreach ((string field, string message) in Windows[i].IsEmpty ? [] : Windows[i].Missing())
                faults.Add($"Windows[{i}].{field}", message);
        }
        faults.ThrowIfAny();
        // A sheet's cell may be sent in the form's place.
        if (Windows.Count > 0)
            Cells["shows"] = string.Join(
                "; ",
                Windows.Select((w, i) => w.IsEmpty ? null : w.Notation(Units, old?.Windows.ElementAtOrDefault(i))).OfType<string>()
            );
        return PaletteSheet.FromCells(
            old,
            PaletteColumns
                .All.Where(c => c.Name is not ("id" or "retired" or "shortlisted"))
                .Select(c => (c, Measure.InMetric(c, old, (Cells.GetValueOrDefault(c.Name) ?? string.Empty).Trim(), Units)))
        );
    }

    private void Take(Plant plant)
    {
        foreach (PaletteColumn column in PaletteColumns.All)
            Cells[column.Name] = Measure.InSiteUnits(column, plant, Units);
        Windows = [.. plant.Windows.Select(w => WindowInput.From(w, Units))];
    }

    // Room for one more window, what rules begin with, and the strip of what is typed.
    private async Task Prepare()
    {
        if (Windows.Count < MostWindows && (Windows.Count == 0 || !Windows[^1].IsEmpty))
            Windows.Add(new WindowInput());
        string kind = Cells.GetValueOrDefault("kind") ?? string.Empty;
        Usual = WindowInput.Usual(
            Now.Plan.Palette.OrderByDescending(p => PaletteSheet.Text(KindColumn.Get(p)) == kind).SelectMany(p => p.Windows),
            Units
        );
        try
        {
            Plant typed = Typed(IsNew ? null : Now.Plan.FindPlant(Id));
            SiteFlowering flowering = await frame.State.Flowering(SiteYear.UsualStart(frame.Today, Now.IsSouthern));
            Strip = flowering.Years > 0 ? flowering.Usual(typed) : null;
        }
        catch (InvalidInputException)
        {
            Strip = null;
        }
    }

    private static PaletteColumn KindColumn => PaletteColumns.All.First(c => c.Name == "kind");

    /// <summary>Units typed in.</summary>
    public UnitsText Units => frame.Units;

    private string Label(string name)
    {
        (string what, string unit) = Measure.Split(name, Units);
        return (what.StartsWith("pH", StringComparison.Ordinal) ? what : char.ToUpperInvariant(what[0]) + what[1..])
            + (unit.Length > 0 ? ", " + unit : string.Empty);
    }

    private FieldView Field(string name)
    {
        PaletteColumn column = PaletteColumns.All.First(c => c.Name == name);
        string? value = Cells.GetValueOrDefault(name);
        if (column.Choices.Count > 0)
            return new FieldView(
                $"Cells[{name}]",
                Label(name),
                value ?? string.Empty,
                Options: [.. column.Choices.Select(c => (c, c.Replace('-', ' ')))]
            );
        bool wide = name is "packs" or "bulb grades" or "cautions" or "cutting" or "local status" or "pests" or "hidden by" or "source";
        string label =
            Label(name) + (name is "packs" or "bulb grades" or "returns" or "sold" or "cautions" ? $" ({column.About.Split(';')[0]})" : string.Empty);
        return new FieldView($"Cells[{name}]", label, value, Type: wide ? "textarea" : "text", Class: wide ? "whole" : string.Empty);
    }
}

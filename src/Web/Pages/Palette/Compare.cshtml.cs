using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Exchange.Palette;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Palette;

/// <summary>Up to four plants side by side; what differs stands out.</summary>
[Needs(SiteRole.Guest)]
public sealed class CompareModel(PageFrame frame) : PageModel
{
    private static readonly string[] Columns =
    [
        "kind",
        "habit",
        "texture",
        "vigour",
        "height cm",
        "spread bought cm",
        "spread grown cm",
        "light low",
        "light high",
        "water",
        "medium",
        "tops spoiled C",
        "roots die C",
        "heat ceiling C",
        "cold weeks low",
        "bulb height cm",
        "returns",
        "flush after days",
        "deer",
        "salt borne",
        "wind borne",
        "pollinators",
        "eaten by people",
        "eaten by animals",
        "on skin",
        "local status",
        "packs",
    ];

    [BindProperty(SupportsGet = true, Name = "compare[]")]
    public List<string> Ids { get; set; } = [];

    public SiteNow Now { get; private set; } = null!;

    public IReadOnlyList<(Plant Plant, FloweringStrip Strip)> Plants { get; private set; } = [];

    public int LeftOut { get; private set; }

    /// <summary>One row a column: its name, each plant's cell, and whether they differ.</summary>
    public IEnumerable<(string Name, IReadOnlyList<string> Cells, bool Differs)> Rows =>
        Columns
            .Select(n => PaletteColumns.All.First(c => c.Name == n))
            .Select(c => (c.Name, Cells: (IReadOnlyList<string>)[.. Plants.Select(p => Cell(c, p.Plant))]))
            .Where(r => r.Cells.Any(c => c.Length > 0))
            .Select(r => (WithoutUnit(r.Name), r.Cells, r.Cells.Distinct(StringComparer.Ordinal).Count() > 1));

    private UnitsText Units => frame.Units;

    public async Task OnGetAsync()
    {
        Now = await frame.Now();
        SiteFlowering flowering = await frame.State.Flowering(SiteYear.UsualStart(frame.Today, Now.IsSouthern));
        var known = Ids.Distinct(StringComparer.Ordinal).Select(Now.Plan.FindPlant).OfType<Plant>().ToList();
        LeftOut = Math.Max(0, known.Count - 4);
        Plants = [.. known.Take(4).Select(p => (p, flowering.Usual(p)))];
    }

    private string Cell(PaletteColumn column, Plant plant) =>
        column.Get(plant) switch
        {
            double cm when column.Name.EndsWith(" cm", StringComparison.Ordinal) => Units.Length(cm),
            double c when column.Name.EndsWith(" C", StringComparison.Ordinal) => Units.Threshold(c),
            var value when column.Choices.Count > 0 => PaletteSheet.Text(value).Replace('-', ' '),
            var value => PaletteSheet.Text(value).Replace("; ", "\n", StringComparison.Ordinal),
        };

    private string WithoutUnit(string column) => Measure.Split(column, Units).What;
}

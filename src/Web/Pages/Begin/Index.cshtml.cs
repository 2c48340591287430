using System.Text;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Exchange.Sheets;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Pages.Planters;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Begin;

/// <summary>Leads a new site from nothing to a planned year: where it is, what stands there, what is liked, what to order.</summary>
[Needs(SiteRole.Planner)]
public sealed class IndexModel(PageFrame frame, PlanStore plans, PaletteStore palette, WeatherStore weather, DraftStore drafts) : PageModel
{
    [BindProperty]
    public string? Name { get; set; }

    [BindProperty]
    public string? Units { get; set; }

    [BindProperty]
    public LikeInput Like { get; set; } = new();

    /// <summary>Planters as people name them.</summary>
    [BindProperty]
    public string? Phrases { get; set; }

    public SiteNow Now { get; private set; } = null!;

    /// <summary>The step that is next, from 1; 4 when all are done.</summary>
    public int Next =>
        Now.Record is null ? 1
        : Count == 0 ? 2
        : Planned == 0 ? 3
        : 4;

    /// <summary>Planters in use.</summary>
    public int Count => Now.Plan.Planters.Count(p => !p.IsRetired);

    /// <summary>Planters with anything planned.</summary>
    public int Planned => Now.Plan.Displays.Select(d => d.PlanterId).Distinct(StringComparer.Ordinal).Count();

    /// <summary>The first day from today on which anything goes in or out; null for none.</summary>
    public LocalDate? FirstDay =>
        Now
            .Plan.Displays.SelectMany(d => d.IsOpenEnded ? [d.Install] : new[] { d.Install, d.Lift })
            .Where(d => d >= frame.Today)
            .Select(d => (LocalDate?)d)
            .Min();

    /// <summary>Where planters stand that are named now.</summary>
    public string PlanterList => string.Join(' ', Now.Plan.Planters.Where(p => !p.IsRetired).Select(p => p.Id));

    /// <summary>The plan year that is proposed for.</summary>
    public LocalDate Day => frame.Today;

    public async Task OnGetAsync()
    {
        Now = await frame.Now();
        Fill();
    }

    /// <summary>Takes the site's name, units and climate, and gives it what ships with the app.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostPlaceAsync()
    {
        Now = await frame.Now();
        return await frame.Saving(
            this,
            f => f == "name" ? "Name" : LikeInput.Field(f),
            async () =>
            {
                Core.Planning.Site site = Now.Plan.Site with
                {
                    Name = (Name ?? string.Empty).Trim(),
                    Units = Enum.TryParse(Units, out SiteUnits units) && Enum.IsDefined(units) ? units : Now.Plan.Site.Units,
                };
                ReferenceClimate climate = await Task.Run(() => Like.Read(new UnitsText(site.Units)));
                if (site != Now.Plan.Site)
                    await plans.SaveSite(site, Now.Mark.Version);
                if (Now.Plan.Palette.Count == 0)
                    await Starter.Add(Now.Plan, Now.Versions, palette);
                await weather.SaveNormals(climate.Station, climate.Normals, frame.Instant);
                frame.Forget();
                return Redirect("/begin");
            }
        );
    }

    /// <summary>Reads planters as they were named, to be looked at before they are taken.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostPlantersAsync()
    {
        Now = await frame.Now();
        return await frame.Saving(
            this,
            f => f == "phrases" ? "Phrases" : null,
            async () =>
            {
                IReadOnlyList<TypedRow> rows = PlanterPhrases.Rows(Phrases ?? string.Empty, Now.Plan);
                PlanterSheet.Read(rows, Now.Plan);
                byte[] table = TypedTable.WriteCsv(rows[0].Cells, rows.Skip(1).Select(r => (IReadOnlyList<object?>)[.. r.Cells]));
                return Redirect($"/planters/table?draft={await drafts.Keep(TableModel.Kind, TableModel.Beginning, table)}");
            },
            () =>
            {
                Fill();
                return Task.CompletedTask;
            }
        );
    }

    private void Fill() =>
        (Name, Units) = (
            Now.Record is null && Now.Plan.Site.Name == Core.Planning.Site.Default.Name ? null : Now.Plan.Site.Name,
            $"{Now.Plan.Site.Units}"
        );
}

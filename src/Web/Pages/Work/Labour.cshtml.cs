using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Work;

/// <summary>Minutes by kind of work: those of common practice, and what the crew's own times have made of them.</summary>
[Needs(SiteRole.Guest)]
public sealed class LabourModel(PageFrame frame) : PageModel
{
    public LabourTable Table { get; private set; } = LabourTable.Usual;

    /// <summary>Pieces of work that the crew has timed.</summary>
    public int Times => Table.Rates.Sum(r => r.Times);

    public async Task OnGetAsync() => Table = (await frame.Now()).Plan.Records.Labour;

    /// <summary>How much of a kind of work an hour of one person does.</summary>
    public string AnHour(WorkRate rate, double minutes) =>
        rate.Kind is WorkKind.RenewMedium or WorkKind.WaterIn ? frame.Units.Volume(60 / minutes) : $"{60 / minutes:0}";
}

using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core.Care;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Care;

/// <summary>What planters ask for between turns: what threatens, what hands do this week, who is watered.</summary>
[Needs(SiteRole.Guest)]
public sealed class IndexModel(PageFrame frame, CareDesk desk, CrewStore crew, Visitor visitor) : PageModel
{
    // A station that was silent for so many days says nothing of today.
    private const int SilentDays = 2;

    // Of more planters a page shows one area at a time.
    private const int MostAtOnce = 120;

    /// <summary>Of an area no more are shown.</summary>
    public const int MostShown = 250;

    // Emitters a foot apart, half a gallon an hour each (common practice).
    private const double EmitterSpacingCm = 30;

    /// <summary>What each emitter gives, L/h.</summary>
    public const double EmitterLitresAnHour = 2;

    [BindProperty(SupportsGet = true, Name = "day")]
    public string? DayText { get; set; }

    /// <summary>The area that is looked at; null for all, or for the first where there are too many planters for one page.</summary>
    [BindProperty(SupportsGet = true, Name = "area")]
    public string? AreaId { get; set; }

    /// <summary>Care that is asked of the crew, as ticked.</summary>
    [BindProperty(Name = "asked[]")]
    public IReadOnlyList<CareWork> Ticked { get; set; } = [];

    [BindProperty]
    public long Version { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public LocalDate Day { get; private set; }

    public CareNow Care { get; private set; } = null!;

    public Roster Roster { get; private set; } = Roster.None;

    /// <summary>Who is watered by hand on the day.</summary>
    public IReadOnlyList<WaterStop> Round { get; private set; } = [];

    /// <summary>Who is let go on the day under a water ban; null where there is enough for all.</summary>
    public WaterBan? Ban { get; private set; }

    /// <summary>Displays of what is looked at that will not hold as long as planned.</summary>
    public IReadOnlyList<FailingDisplay> Failing { get; private set; } = [];

    /// <summary>True where no forecast reaches the site.</summary>
    public bool IsWithoutForecast { get; private set; }

    /// <summary>The day on which the station was heard last, where that is too long ago; null where it is not.</summary>
    public LocalDate? SilentSince { get; private set; }

    /// <summary>True for who may say what is asked of the crew.</summary>
    public bool MayAsk => visitor.Role >= SiteRole.Lead;

    /// <summary>The house's school about pests.</summary>
    public PestSchool Pests => Now.Plan.Site.Rules.Pests;

    /// <summary>Areas to choose among; empty where all stand on one page.</summary>
    public IReadOnlyList<Area> Areas { get; private set; } = [];

    /// <summary>What cold nights put at risk in what is looked at.</summary>
    public IReadOnlyList<PlanterAtRisk> Nights { get; private set; } = [];

    /// <summary>Planters of what is looked at that stand wet.</summary>
    public IReadOnlyList<Planter> Soaked { get; private set; } = [];

    /// <summary>The round of what is looked at, by area.</summary>
    public IEnumerable<(Area Area, IReadOnlyList<WaterStop> Stops)> ByArea =>
        Now
            .Plan.Areas.Select(a =>
                (a, (IReadOnlyList<WaterStop>)[.. Round.Where(s => s.Planter.AreaId == a.Id).Where(s => IsShown(s.Planter)).Take(MostShown)])
            )
            .Where(a => a.Item2.Count > 0);

    /// <summary>What hands do this week, by kind of work; what weather asks stands under what threatens.</summary>
    public IEnumerable<IGrouping<CareWork, CareJob>> ByWork =>
        Care
            .ThisWeek.Where(j => IsShown(j.Planter) && j.Work is not (CareWork.Cover or CareWork.Secure or CareWork.Winter or CareWork.ShakeSnow))
            .GroupBy(j => j.Work)
            .OrderBy(g => g.Key);

    /// <summary>Planters on drip that are dry by themselves, with what they lack and emitters.</summary>
    public IEnumerable<(Planter Planter, double Litres, int Emitters, double Minutes)> Drip =>
        Now
            .Plan.Planters.Where(p => !p.IsRetired && p.Watering == Watering.Drip && IsShown(p))
            .Select(p => (p, Care.WaterOf(p.Id)!))
            .Where(x => x.Item2.TimesOn(Day) > 0)
            .Select(x =>
            {
                double litres = x.Item2.ToFill(Day);
                int emitters = Math.Max(1, (int)Math.Round(x.p.Form.SurfaceCm2 / (EmitterSpacingCm * EmitterSpacingCm)));
                return (x.p, litres, emitters, PlanterWater.DripMinutes(litres, emitters, EmitterLitresAnHour));
            })
            .Take(MostShown);

    /// <summary>Planters of a threat that are looked at.</summary>
    public IEnumerable<Planter> Of(WeatherThreat threat) => threat.Planters.Where(IsShown).Take(MostShown);

    private bool IsShown(Planter planter) => AreaId is null || planter.AreaId == AreaId;

    /// <summary>Jobs of one kind of work at which the same is done, with its words: planters by what is looked for, or by what is done there.</summary>
    public IEnumerable<(string What, IReadOnlyList<IGrouping<Planter, CareJob>> At)> Alike(IGrouping<CareWork, CareJob> work, FactWriter crew) =>
        work.Key == CareWork.Scout
            ? work.GroupBy(j => j.Pest).Select(g => (What(g, crew), (IReadOnlyList<IGrouping<Planter, CareJob>>)[.. g.GroupBy(j => j.Planter)]))
            : work.GroupBy(j => j.Planter).GroupBy(at => What(at, crew)).Select(g => (g.Key, (IReadOnlyList<IGrouping<Planter, CareJob>>)[.. g]));

    // What is done, in the crew's words: what is looked for, plants with their cuts, and feed.
    private string What(IEnumerable<CareJob> jobs, FactWriter crew)
    {
        var said = new List<string>();
        foreach (CareJob job in jobs)
        {
            if (job.Pest is { } pest)
                said.Add(crew.Say(pest));
            else if (job.Plant is { } plant)
                said.Add($"{job.Count} {plant.CommonName}" + (job.CutToCm is { } cut ? $" ({crew.Of(Quantity.Cm(cut))})" : string.Empty));
            if (job.WaterFirst)
                said.Add(crew.Crew("CareWaterFirst"));
            if (job.Grams is { } grams)
                said.Add(frame.Units.Small(grams / 1000) + (job.Litres is { } litres ? $" / {frame.Units.Volume(litres)}" : string.Empty));
        }
        return string.Join(", ", said.Distinct());
    }

    public Task OnGetAsync() => Load();

    /// <summary>Takes what a lead asks of the crew.</summary>
    [Needs(SiteRole.Lead)]
    public async Task<IActionResult> OnPostAskAsync()
    {
        (Roster roster, _) = await crew.Roster();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                await crew.Save(roster with { Asked = [.. Ticked.Where(w => Enum.IsDefined(w)).Distinct().Order()] }, Version);
                return Redirect("/care");
            },
            Load
        );
    }

    private async Task Load()
    {
        Now = await frame.Now();
        Day = Words.ReadDay(DayText) is { } day && day >= frame.Today && day <= frame.Today.PlusDays(3) ? day : frame.Today;
        if (Now.Plan.Areas.All(a => a.Id != AreaId))
            AreaId = null;
        if (Now.Plan.Planters.Count > MostAtOnce)
        {
            Areas = Now.Plan.Areas;
            AreaId ??= Areas[0].Id;
        }
        Care = await frame.Soon(desk.Now());
        Nights = [.. Care.Nights.Where(n => IsShown(n.Planter)).GroupBy(n => n.Night).SelectMany(g => g.Take(MostShown))];
        Soaked = [.. Care.Soaked.Select(w => w.Planter).Where(IsShown).Take(MostShown)];
        (Roster, Version) = await crew.Roster();
        Round = Care.Round(Day);
        Ban = Care.Ban(Day);
        Failing = [.. (await desk.Failing()).Where(f => IsShown(f.Planter)).Take(MostShown)];
        IsWithoutForecast = !desk.HasForecast;
        SilentSince =
            desk.HeardAt is { } heard && heard.InZone(frame.State.Zone).Date is var on && on < frame.Today.PlusDays(-SilentDays) ? on : null;
    }
}

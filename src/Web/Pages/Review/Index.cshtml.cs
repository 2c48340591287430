using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Review;

/// <summary>A walk from planter to planter: what is expected of the day, beside what is seen. It is told with or without signal.</summary>
[Needs(SiteRole.Guest)]
public sealed class IndexModel(PageFrame frame, LogStore log, PhotoStore photos, HeavyWork heavy, Visitor visitor) : PageModel
{
    // A walk takes some days: what was looked at so long ago is looked at anew.
    private const int WalkDays = 14;

    // Of more planters a page shows one area at a time, and of an area with more a part.
    private const int MostAtOnce = 60;

    private IReadOnlyList<Planter> _walk = [];
    private IReadOnlyDictionary<string, Observation> _seen = new Dictionary<string, Observation>();
    private IReadOnlyDictionary<string, PlanterSeason> _seasons = new Dictionary<string, PlanterSeason>();

    [BindProperty(SupportsGet = true, Name = "area")]
    public string? AreaId { get; set; }

    [BindProperty(Name = "planter")]
    public string? PlanterId { get; set; }

    [BindProperty]
    public string? EntryId { get; set; }

    [BindProperty]
    public string? Day { get; set; }

    [BindProperty]
    public string? Rating { get; set; }

    [BindProperty]
    public string? Verdict { get; set; }

    /// <summary>Whether it shows colour, as chosen: "yes", "no", or empty.</summary>
    [BindProperty]
    public string? InColour { get; set; }

    /// <summary>How much of the surface is hidden, %, as typed.</summary>
    [BindProperty]
    public string? Cover { get; set; }

    [BindProperty]
    public string? Note { get; set; }

    /// <summary>A photograph of what was seen; may be left out.</summary>
    [BindProperty]
    public IFormFile? Picture { get; set; }

    public SiteNow Now { get; private set; } = null!;

    /// <summary>Which part of the area's walk is asked for.</summary>
    [BindProperty(SupportsGet = true, Name = "part")]
    public string? PartText { get; set; }

    /// <summary>The part that is shown.</summary>
    public ListPage Part { get; private set; } = null!;

    /// <summary>Planters of the walk that are shown, in their order.</summary>
    public IReadOnlyList<Planter> Planters { get; private set; } = [];

    /// <summary>Areas to choose among; empty where all stand on one page.</summary>
    public IReadOnlyList<Area> Areas { get; private set; } = [];

    public bool MayTell => visitor.Role >= SiteRole.Crew;

    public Guid? Reader => visitor.Person?.Id;

    /// <summary>How many of all planters were looked at on this walk.</summary>
    public int Seen => Now.Plan.Planters.Count(p => !p.IsRetired && _seen.ContainsKey(p.Id));

    /// <summary>The walk that is due next; null where no turn is planned.</summary>
    public ReviewWalk? Next => ReviewWalk.Of(Now.Plan.Turns).Where(w => w.Day >= frame.Today).MinBy(w => w.Day);

    /// <summary>How many there are.</summary>
    public int All => Now.Plan.Planters.Count(p => !p.IsRetired);

    /// <summary>What was found of a planter on this walk; null where nobody looked yet.</summary>
    public Observation? Found(Planter planter) => _seen.GetValueOrDefault(planter.Id);

    /// <summary>What is expected of it today.</summary>
    public PlanterExpectation? Expected(Planter planter) =>
        _seasons.GetValueOrDefault(planter.Id) is { } season ? PlanterExpectation.Of(season, frame.Today) : null;

    public Task OnGetAsync() => Load();

    /// <summary>Takes what was found at one planter.</summary>
    [Needs(SiteRole.Crew)]
    public Task<IActionResult> OnPostAsync() =>
        frame.Saving(
            this,
            // What is wrong stands at the form that it is about.
            f => f == "photo" ? nameof(Picture) : null,
            async () =>
            {
                await Load();
                var faults = new FaultList();
                // A sheet that was held on a phone whose clock is ahead tells of today.
                LocalDate day = Words.ReadDay(Day) is { } told && told <= frame.Today ? told : frame.Today;
                if (!int.TryParse(Rating, System.Globalization.CultureInfo.InvariantCulture, out int rating))
                    faults.Add("rating", "choose how it looks");
                if (!Enum.TryParse(Verdict, out ReviewVerdict verdict) || !Enum.IsDefined(verdict))
                    faults.Add("verdict", "choose what is to become of it");
                int? cover = null;
                if (!string.IsNullOrWhiteSpace(Cover))
                {
                    if (int.TryParse(Cover, System.Globalization.CultureInfo.InvariantCulture, out int typed))
                        cover = typed;
                    else
                        faults.Add("cover", "must be a whole number");
                }
                if (Now.Plan.FindPlanter(PlanterId ?? string.Empty) is null)
                    faults.Add("planterId", "there is no such planter any more: open the walk again");
                faults.ThrowIfAny();
                var seen = new Observation(
                    Guid.TryParse(EntryId, out Guid given) ? given : Guid.NewGuid(),
                    PlanterId!,
                    null,
                    day,
                    ObservationKind.Reviewed,
                    Note?.Trim() ?? string.Empty,
                    visitor.Person!.Name
                )
                {
                    Review = new PlanterReview(rating, verdict, InColour is "yes" or "no" ? InColour == "yes" : null, cover),
                };
                // A second look on the same day stands in the place of the first, which stays readable.
                if (_seen.GetValueOrDefault(seen.PlanterId) is { } before && before.Day == day && before.Id != seen.Id)
                    seen = seen with { Corrects = before.Id };
                faults.AddAll(string.Empty, seen.Faults(frame.Today));
                faults.ThrowIfAny();
                if (Picture is { Length: > 0 })
                {
                    Photograph picture = await Photograph.Of(Picture, heavy);
                    await photos.Add(picture.At(seen), picture.Jpeg, picture.Thumb);
                }
                await log.Record([seen], visitor.Person!.Id);
                Planter? next = _walk.SkipWhile(p => p.Id != seen.PlanterId).Skip(1).FirstOrDefault(p => Found(p) is null);
                return Redirect(Address(next is null ? Part.Number : PartOf(next.Id)) + (next is null ? "#walk" : $"#planter-{next.Id}"));
            },
            Load
        );

    /// <summary>The address of a part of the walk.</summary>
    public string Address(int part) =>
        "/review" + (Areas.Count > 0 ? $"?area={Uri.EscapeDataString(AreaId!)}" : string.Empty) + (part > 1 ? $"&part={part}" : string.Empty);

    private int PartOf(string planterId) => (_walk.TakeWhile(p => p.Id != planterId).Count() / MostAtOnce) + 1;

    private async Task Load()
    {
        Now = await frame.Now();
        List<Planter> inUse = [.. Now.Plan.Planters.Where(p => !p.IsRetired)];
        if (PlanterId is not null && Now.Plan.FindPlanter(PlanterId) is { } told)
            AreaId = told.AreaId;
        if (Now.Plan.Areas.All(a => a.Id != AreaId))
            AreaId = null;
        if (inUse.Count > MostAtOnce)
        {
            Areas = Now.Plan.Areas;
            AreaId ??= Areas[0].Id;
            inUse = [.. inUse.Where(p => p.AreaId == AreaId)];
        }
        _walk = [.. Now.Plan.Areas.SelectMany(a => inUse.Where(p => p.AreaId == a.Id))];
        Part = ListPage.Of(_walk.Count, _walk.Any(p => p.Id == PlanterId) ? $"{PartOf(PlanterId!)}" : PartText, MostAtOnce);
        Planters = [.. Part.Take(_walk)];
        SiteYear year = await frame.Soon(frame.State.Year(SiteYear.UsualStart(frame.Today, Now.IsSouthern), null));
        HashSet<string> shown = [.. Planters.Select(p => p.Id)];
        _seasons = year.Planters.Where(s => shown.Contains(s.Planter.Id)).ToDictionary(s => s.Planter.Id, StringComparer.Ordinal);
        _seen = (await log.Between(frame.Today.PlusDays(-WalkDays), frame.Today))
            .Where(o => o is { Kind: ObservationKind.Reviewed, IsCorrected: false })
            .GroupBy(o => o.PlanterId)
            .ToDictionary(g => g.Key, g => g.Last(), StringComparer.Ordinal);
    }
}

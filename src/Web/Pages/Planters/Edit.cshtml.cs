using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Planters;

/// <summary>Adds a planter ("new") or changes one, with its volume shown as it is typed.</summary>
[Needs(SiteRole.Planner)]
public sealed class EditModel(PageFrame frame, PlanterStore planters) : PageModel
{
    /// <summary>Most planters made at once.</summary>
    public const int MostOfAKind = 500;

    [BindProperty]
    public PlanterInput Input { get; set; } = new();

    [FromRoute]
    public string Id { get; set; } = "new";

    public SiteNow Now { get; private set; } = null!;

    public string Heading { get; private set; } = string.Empty;

    public bool IsNew => Id == "new";

    public string PreviewAddress => $"/planters/{Id}/edit?handler=preview";

    /// <summary>The measures as typed; null while they do not fit together.</summary>
    public PlanterForm? Volume
    {
        get
        {
            try
            {
                PlanterForm form = Input.ReadForm(frame.Units);
                return form.Faults().Count == 0 ? form : null;
            }
            catch (InvalidInputException)
            {
                // Half-typed: the figures come back with the next keystroke that makes sense.
                return null;
            }
        }
    }

    /// <summary>The planter as typed, for its weight and limits; null while it cannot stand.</summary>
    public Planter? Typed
    {
        get
        {
            if (Volume is null)
                return null;
            try
            {
                Planter typed = Input.Read("typed", "area", frame.Units) with { Name = "typed" };
                return typed.Faults().Count == 0 ? typed : null;
            }
            catch (InvalidInputException)
            {
                return null;
            }
        }
    }

    /// <summary>True when its sun follows from a measured skyline and is not typed here.</summary>
    public bool HasSkyline => Now.Plan.FindPlanter(Id)?.Skyline is not null;

    public async Task<IActionResult> OnGetAsync(string? copy, string? corners, string? east, string? north)
    {
        Now = await frame.Now();
        UnitsText units = frame.Units;
        // A page that is only opened has nothing to mend yet.
        ModelState.Clear();
        if (IsNew && copy is not null && Now.Plan.FindPlanter(copy) is { } original)
        {
            Input = PlanterInput.From(original, 0, units);
            Input.Name = $"{original.Name}, copy";
            (Input.East, Input.North) = (null, null);
            return Page();
        }
        if (IsNew && corners is not null)
        {
            // Drawn on the map.
            Input.Shape = nameof(PlanterShape.OutlinedBed);
            Input.Corners = corners.Replace(';', '\n');
            Input.Depth = units.LengthNumber(units.IsUs ? 40.64 : 40);
        }
        if (IsNew)
        {
            (Input.East, Input.North) = (east, north);
            Input.AreaId = Now.Plan.Areas.Count > 0 ? Now.Plan.Areas[0].Id : null;
            return Page();
        }
        if (Now.Plan.FindPlanter(Id) is not { } planter)
            return NotFound();
        Heading = planter.Name;
        Input = PlanterInput.From(planter, Now.Versions.Planter(Id), frame.Units);
        return Page();
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostPreviewAsync()
    {
        Now = await frame.Now();
        Heading = Now.Plan.FindPlanter(Id)?.Name ?? string.Empty;
        ModelState.Clear();
        return Page();
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAsync()
    {
        Now = await frame.Now();
        UnitsText units = frame.Units;
        Heading = Now.Plan.FindPlanter(Id)?.Name ?? string.Empty;
        return await frame.Saving(
            this,
            PlanterInput.Field,
            async () =>
            {
                if (!IsNew && Now.Plan.FindPlanter(Id) is null)
                    throw new LostUpdateException("The planter", isGone: true);
                Area? area = NewArea();
                string id = IsNew ? Ids.From(Input.Name ?? string.Empty, x => x == "new" || Now.Plan.FindPlanter(x) is not null) : Id;
                Planter? old = Now.Plan.FindPlanter(id);
                Planter planter = Input.Read(id, area?.Id ?? Input.AreaId ?? string.Empty, units) with
                {
                    Skyline = old?.Skyline,
                    IsRetired = old?.IsRetired ?? false,
                };
                if (old?.Skyline is not null)
                    planter = planter with { Exposure = old.Exposure };
                var faults = new FaultList();
                if (area is not null)
                    faults.AddAll("area", area.Faults());
                faults.AddAll(string.Empty, planter.Faults());
                if (Now.Plan.Planters.Any(p => p.Id != id && p.Name == planter.Name))
                    faults.Add("name", "is already used; every name must be its own");
                int many =
                    IsNew && !string.IsNullOrWhiteSpace(Input.HowMany)
                        ? (
                            int.TryParse(
                                Input.HowMany,
                                System.Globalization.NumberStyles.None,
                                System.Globalization.CultureInfo.InvariantCulture,
                                out int n
                            )
                                ? n
                                : 0
                        )
                        : 1;
                if (many is < 1 or > MostOfAKind)
                    faults.Add("howMany", $"must be a whole number from 1 to {MostOfAKind}");
                faults.ThrowIfAny();
                Area? newArea = area is not null && Now.Plan.Areas.All(a => a.Id != area.Id) ? area : null;
                if (IsNew && many > 1)
                {
                    await planters.Add(OfAKind(planter, many), newArea);
                    TempData["Said"] = $"{many} planters added: {planter.Name} 1 to {many}.";
                    return Redirect("/planters");
                }
                if (IsNew)
                    await planters.Add([planter], newArea);
                else
                    await planters.Save(planter, Input.Version, newArea);
                TempData["Said"] = IsNew ? $"{planter.Name} added." : $"{planter.Name} saved.";
                return Redirect($"/planters/{id}");
            },
            compare: now =>
            {
                Now = now;
                if (now.Plan.FindPlanter(Id) is not { } saved)
                    return [];
                PlanterInput theirs = PlanterInput.From(saved, now.Versions.Planter(Id), units);
                Input.Version = theirs.Version;
                return FormDifference.Between(Input, theirs);
            }
        );
    }

    // As many as were asked, numbered; names that are taken are passed over.
    private List<Planter> OfAKind(Planter first, int many)
    {
        var names = Now.Plan.Planters.Select(p => p.Name).ToHashSet(StringComparer.OrdinalIgnoreCase);
        var ids = Now.Plan.Planters.Select(p => p.Id).ToHashSet(StringComparer.Ordinal);
        var made = new List<Planter>();
        for (int number = 1; made.Count < many; number++)
        {
            string name = $"{first.Name} {number}";
            if (!names.Add(name))
                continue;
            string id = Ids.From(name, x => x == "new" || ids.Contains(x));
            ids.Add(id);
            made.Add(first with { Id = id, Name = name, Place = null });
        }
        return made;
    }

    // A new area is meant when none is chosen; one of the same name is taken instead of made twice.
    private Area? NewArea()
    {
        if (!string.IsNullOrEmpty(Input.AreaId))
            return null;
        string name = (Input.NewArea ?? string.Empty).Trim();
        Area? known = Now.Plan.Areas.FirstOrDefault(a => a.Name.Equals(name, StringComparison.OrdinalIgnoreCase));
        return known ?? new Area(Ids.From(name, x => Now.Plan.Areas.Any(a => a.Id == x)), name, 1);
    }
}

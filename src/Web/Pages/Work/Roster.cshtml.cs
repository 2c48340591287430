using System.Globalization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.SiteMap;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Work;

/// <summary>Who and what there is to do the work with: hours, skills, absence, teams, vehicles, and when nobody can work where.</summary>
[Needs(SiteRole.Guest)]
public sealed class RosterModel(PageFrame frame, CrewDesk desk, Visitor visitor) : PageModel
{
    [BindProperty]
    public long Version { get; set; }

    /// <summary>The person, team, vehicle or closure that a form is about.</summary>
    [BindProperty]
    public string? Id { get; set; }

    [BindProperty]
    public string? Name { get; set; }

    /// <summary>Hours of each weekday, Monday first.</summary>
    [BindProperty(Name = "hours[]")]
    public List<string?> Hours { get; set; } = [];

    [BindProperty(Name = "skills[]")]
    public List<Skill> Skills { get; set; } = [];

    [BindProperty(Name = "members[]")]
    public List<Guid> Members { get; set; } = [];

    [BindProperty]
    public string? VehicleId { get; set; }

    [BindProperty]
    public string? Trays { get; set; }

    [BindProperty]
    public string? Bags { get; set; }

    [BindProperty]
    public string? Water { get; set; }

    [BindProperty]
    public string? Weight { get; set; }

    [BindProperty]
    public string? Speed { get; set; }

    [BindProperty]
    public string? Yard { get; set; }

    [BindProperty]
    public string? Heat { get; set; }

    /// <summary>Water that may be given by hand in a day, in the site's unit; empty where there is no ban.</summary>
    [BindProperty]
    public string? Allowed { get; set; }

    [BindProperty]
    public string? First { get; set; }

    [BindProperty]
    public string? Last { get; set; }

    [BindProperty]
    public string? AreaId { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public Roster Roster { get; private set; } = Roster.None;

    public IReadOnlyList<SiteMember> People { get; private set; } = [];

    public UnitsText Units => frame.Units;

    /// <summary>True for those who keep hours, teams and vehicles; others see them.</summary>
    public bool MayKeep => visitor.May(SiteRole.Planner);

    /// <summary>When somebody works; the usual hours where nobody has said.</summary>
    public Worker WorkerOf(Guid person) => Roster.Workers.FirstOrDefault(w => w.PersonId == person) ?? Worker.Usual(person);

    /// <summary>What a person is called.</summary>
    public string NameOf(Guid person) => People.FirstOrDefault(m => m.Id == person)?.Name ?? "somebody who left";

    public Task OnGetAsync() => Load();

    /// <summary>Hours and skills of a person.</summary>
    [Needs(SiteRole.Planner)]
    public Task<IActionResult> OnPostHoursAsync() =>
        Save(roster =>
        {
            Guid person = Person();
            Worker before = roster.Workers.FirstOrDefault(w => w.PersonId == person) ?? Worker.Usual(person);
            Worker after = before with
            {
                Minutes = [.. Hours.Select((h, i) => (int)Math.Round(Number(h, $"workers.minutes[{i}]", 0, 16, "hours") * 60))],
                Skills = [.. Skills.Distinct().Order()],
            };
            return roster with { Workers = [.. roster.Workers.Where(w => w.PersonId != person), after] };
        });

    /// <summary>Days on which a person is away.</summary>
    [Needs(SiteRole.Lead)]
    public Task<IActionResult> OnPostAwayAsync() =>
        Save(roster =>
        {
            Guid person = Person();
            Worker before = roster.Workers.FirstOrDefault(w => w.PersonId == person) ?? Worker.Usual(person);
            LocalDate first = Day(First, "first");
            return roster with
            {
                Workers =
                [
                    .. roster.Workers.Where(w => w.PersonId != person),
                    before with
                    {
                        Away = [.. before.Away, new Absence(first, string.IsNullOrWhiteSpace(Last) ? first : Day(Last, "last"))],
                    },
                ],
            };
        });

    /// <summary>Somebody is there after all.</summary>
    [Needs(SiteRole.Lead)]
    public Task<IActionResult> OnPostBackAsync() =>
        Save(roster =>
        {
            LocalDate first = Day(First, "first");
            return roster with
            {
                Workers = [.. roster.Workers.Select(w => $"{w.PersonId}" == Id ? w with { Away = [.. w.Away.Where(a => a.First != first)] } : w)],
            };
        });

    /// <summary>A team, new or changed.</summary>
    [Needs(SiteRole.Planner)]
    public Task<IActionResult> OnPostTeamAsync() =>
        Save(roster =>
        {
            string id = Id is { Length: > 0 } known ? known : Ids.From(Name ?? string.Empty, x => roster.Teams.Any(t => t.Id == x));
            var team = new Team(id, Name?.Trim() ?? string.Empty, [.. Members.Distinct()], string.IsNullOrEmpty(VehicleId) ? null : VehicleId);
            return roster with { Teams = [.. roster.Teams.Where(t => t.Id != id), team] };
        });

    /// <summary>A vehicle, new or changed.</summary>
    [Needs(SiteRole.Planner)]
    public Task<IActionResult> OnPostVehicleAsync() =>
        Save(roster =>
        {
            string id = Id is { Length: > 0 } known ? known : Ids.From(Name ?? string.Empty, x => roster.Vehicles.Any(v => v.Id == x));
            var vehicle = new Vehicle(
                id,
                Name?.Trim() ?? string.Empty,
                (int)Number(Trays, "vehicles.trays", 0, 2000, "trays"),
                (int)Number(Bags, "vehicles.bags", 0, 1000, "bags"),
                Units.ReadVolume(Number(Water, "vehicles.waterLitres", 0, 20_000, Units.VolumeUnit)),
                Units.ReadWeight(Number(Weight, "vehicles.mostKg", 0, 90_000, Units.WeightUnit)),
                Units.ReadSpeed(Number(Speed, "vehicles.speedKmH", 0, 60, Units.SpeedUnit))
            );
            return roster with { Vehicles = [.. roster.Vehicles.Where(v => v.Id != id), vehicle] };
        });

    /// <summary>Places at which vehicles may be loaded: buildings of the map that have a name, and areas.</summary>
    public IReadOnlyList<(string Id, string Name, MapPlace Place)> YardPlaces =>
        [
            .. Now
                .Plan.Map.Where(f => f.Kind == MapKind.Building && f.Name.Length > 0)
                .Select(f => (f.Id, f.Name, new MapPlace(f.Shape.Centroid.X, f.Shape.Centroid.Y))),
            .. Now
                .Plan.Areas.Select(a => (a.Id, a.Name, Place: MapPlace.MiddleOf(Now.Plan.Planters.Where(p => p.AreaId == a.Id))))
                .Where(a => a.Place is not null)
                .Select(a => (a.Id, a.Name, a.Place!)),
        ];

    /// <summary>Where vehicles are loaded, when it is too hot, and how much water there is.</summary>
    [Needs(SiteRole.Planner)]
    public Task<IActionResult> OnPostYardAsync() =>
        Save(roster =>
            roster with
            {
                Yard = Yard == "as-it-is" ? roster.Yard : YardPlaces.Where(y => y.Id == Yard).Select(y => y.Place).FirstOrDefault(),
                HeatLimitC = Units.ReadTemperature(Number(Heat, "heatLimitC", -100, 200, Units.TemperatureUnit)),
                WaterLitresADay = string.IsNullOrWhiteSpace(Allowed)
                    ? null
                    : Units.ReadVolume(Number(Allowed, "waterLitresADay", 0, Units.VolumeNumber(Roster.MostWaterLitres), Units.VolumeUnit)),
            }
        );

    /// <summary>Days on which nobody can work at an area, or anywhere.</summary>
    [Needs(SiteRole.Lead)]
    public Task<IActionResult> OnPostClosureAsync() =>
        Save(roster =>
        {
            LocalDate first = Day(First, "closures.first");
            return roster with
            {
                Closures =
                [
                    .. roster.Closures,
                    new Closure(
                        $"{Guid.CreateVersion7()}",
                        first,
                        string.IsNullOrWhiteSpace(Last) ? first : Day(Last, "closures.last"),
                        Now.Plan.Areas.Any(a => a.Id == AreaId) ? AreaId : null,
                        Name?.Trim() ?? string.Empty
                    ),
                ],
            };
        });

    /// <summary>Takes a team, vehicle or closure out.</summary>
    [Needs(SiteRole.Planner)]
    public Task<IActionResult> OnPostRemoveAsync() =>
        Save(roster =>
            roster with
            {
                Teams = [.. roster.Teams.Where(t => t.Id != Id).Select(t => t.VehicleId == Id ? t with { VehicleId = null } : t)],
                Vehicles = [.. roster.Vehicles.Where(v => v.Id != Id)],
                Closures = [.. roster.Closures.Where(c => c.Id != Id)],
            }
        );

    private Guid Person() =>
        Guid.TryParse(Id, out Guid person) && People.Any(p => p.Id == person)
            ? person
            : throw new InvalidInputException(string.Empty, "Somebody took that person off the site a moment ago");

    private static LocalDate Day(string? text, string field) => Words.ReadDay(text) ?? throw new InvalidInputException(field, "must be a date");

    private static double Number(string? text, string field, double low, double high, string unit)
    {
        if (string.IsNullOrWhiteSpace(text))
            return 0;
        if (
            !double.TryParse(text.Trim().Replace(',', '.'), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out double number)
            || number < low
            || number > high
        )
            throw new InvalidInputException(field, $"must be from {low:0} to {high:0} {unit}");
        return number;
    }

    private async Task<IActionResult> Save(Func<Roster, Roster> change)
    {
        await Load();
        return await frame.Saving(
            this,
            Field,
            async () =>
            {
                await desk.Store.Save(change(Roster), Version);
                return Redirect("/work/roster");
            },
            Load
        );
    }

    // The field of a form that a fault's path ends in; what is found in no form heads the page.
    private static string? Field(string fault) =>
        fault.Split('.')[^1].Split('[')[0] switch
        {
            "minutes" => "hours[]",
            "name" or "why" => nameof(Name),
            "first" => nameof(First),
            "last" => nameof(Last),
            "trays" => nameof(Trays),
            "bags" => nameof(Bags),
            "waterLitres" => nameof(Water),
            "mostKg" => nameof(Weight),
            "speedKmH" => nameof(Speed),
            "heatLimitC" => nameof(Heat),
            "waterLitresADay" => nameof(Allowed),
            _ => null,
        };

    /// <summary>What a field holds: what was typed, in a form that is shown again; else what is there now.</summary>
    /// <param name="handler">What the form asks for.</param>
    /// <param name="id">Whom or what the form is about; null where it is about nothing in particular.</param>
    /// <param name="field">The field.</param>
    /// <param name="now">What is there now.</param>
    /// <param name="at">Of fields of the same name, which.</param>
    public string Typed(string handler, string? id, string field, string now, int at = 0) =>
        IsShownAgain(handler, id) && Request.Form[field] is { Count: var count } typed && count > at ? typed[at] ?? string.Empty : now;

    /// <summary>What is wrong with what was typed into a form; empty for every other.</summary>
    /// <param name="handler">What the form asks for.</param>
    /// <param name="id">Whom or what the form is about; null where it is about nothing in particular.</param>
    public IEnumerable<string> FaultsOf(string handler, string? id) =>
        IsShownAgain(handler, id)
            ? ModelState.Where(e => e.Key.Length > 0).SelectMany(e => e.Value!.Errors).Select(e => e.ErrorMessage).Distinct()
            : [];

    private bool IsShownAgain(string handler, string? id) =>
        !ModelState.IsValid
        && HttpMethods.IsPost(Request.Method)
        && string.Equals(Request.Query["handler"], handler, StringComparison.OrdinalIgnoreCase)
        && (id is null || Id == id || (id.Length == 0 && Id is null));

    private async Task Load()
    {
        Now = await frame.Now();
        People = await desk.Members();
        (Roster, long version) = await desk.Store.Roster();
        // A form that is shown again goes on from what is there now; what was typed stays.
        Version = HttpContext.Request.Method == HttpMethods.Post && ModelState.IsValid ? Version : version;
    }
}

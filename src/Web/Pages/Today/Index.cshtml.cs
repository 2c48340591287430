using System.Text.Json;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Work;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Today;

/// <summary>
/// The day's work of whoever reads, stop by stop, on a phone with or without signal: what is ticked waits on the phone until it is sent,
/// and is taken once however often it arrives.
/// </summary>
[Needs(SiteRole.Crew)]
public sealed class IndexModel(PageFrame frame, CrewDesk desk, CareDesk care, Visitor visitor, HeavyWork heavy) : PageModel
{
    [BindProperty(SupportsGet = true, Name = "day")]
    public string? DayText { get; set; }

    /// <summary>True to see the work of all.</summary>
    [BindProperty(SupportsGet = true, Name = "all")]
    public bool All { get; set; }

    public SiteNow Now { get; private set; } = null!;

    /// <summary>What days to come threaten.</summary>
    public CareThreats Threats { get; private set; } = new(true, null);

    public LocalDate Day { get; private set; }

    /// <summary>Stops, in their order.</summary>
    public IReadOnlyList<DayTask> Stops { get; private set; } = [];

    /// <summary>Work of the day that others have.</summary>
    public int OfOthers { get; private set; }

    /// <summary>What each stop asks beside its lines.</summary>
    public IReadOnlyDictionary<Guid, SheetPlanter> Sheets { get; private set; } = new Dictionary<Guid, SheetPlanter>();

    /// <summary>Steps that hold at every stop where something goes in, said once.</summary>
    public IReadOnlyList<Fact> Everywhere { get; private set; } = [];

    /// <summary>What to take care of.</summary>
    public IReadOnlyList<Fact> Cautions { get; private set; } = [];

    /// <summary>Kinds that are at hand and may go in instead of another.</summary>
    public IReadOnlyList<Plant> AtHand { get; private set; } = [];

    public Guid? Reader => visitor.Person?.Id;

    /// <summary>What is to be taken along: plants by kind, and litres of medium.</summary>
    public IReadOnlyList<(string PlantId, string Name, int Count)> ToTake =>
        [
            .. Stops
                .Where(s => s.Item.IsOpen)
                .SelectMany(s => s.Task.Lines)
                .Where(l => l is { Kind: LineKind.In, PlantId: not null })
                .GroupBy(l => (l.PlantId!, l.Name))
                .Select(g => (g.Key.Item1, g.Key.Name, g.Sum(l => l.Count)))
                .OrderBy(t => t.Name, StringComparer.CurrentCulture),
        ];

    /// <summary>Where in the holding area plants of a kind stand that are to be taken.</summary>
    public IReadOnlyList<string> PlacesOf(string plantId) =>
        [.. _picks.Where(p => p.Plant.Id == plantId).Select(p => p.Place).OfType<string>().Distinct(StringComparer.Ordinal)];

    private IReadOnlyList<Pick> _picks = [];

    public double LitresOfMedium =>
        Stops.Where(s => s.Item.IsOpen).SelectMany(s => s.Task.Lines).Where(l => l.Kind == LineKind.Medium).Sum(l => l.Litres ?? 0);

    public double LitresOfWater =>
        Stops.Where(s => s.Item.IsOpen).SelectMany(s => s.Task.Lines).Where(l => l.Kind == LineKind.WaterIn).Sum(l => l.Litres ?? 0);

    public async Task OnGetAsync()
    {
        Now = await frame.Now();
        Day = Words.ReadDay(DayText) ?? frame.Today;
        List<DayTask> given = [.. (await desk.Of(Day)).Where(t => t.Kept is { } k && (k.Given.Day == Day || t.Item.IsOpen))];
        Stops = All ? given : given.FindAll(t => Reader is { } me && t.Kept!.Given.To.Contains(me));
        OfOthers = given.Count - Stops.Count;
        var sheets = new Dictionary<Guid, SheetPlanter>();
        var cautions = new List<Fact>();
        foreach (LocalDate day in Stops.Where(s => s.Task.Kind == TaskKind.Changeover).Select(s => s.Task.Window.Best).Distinct())
        {
            LocalDate today = frame.Today;
            Core.Work.DaySheet sheet = await frame.Soon(
                frame.State.Derived(Now, ("day sheet", day, today), n => Core.Work.DaySheet.For(n.Plan, day, today))
            );
            foreach (DayTask stop in Stops.Where(s => s.Task.Window.Best == day))
            {
                if (sheet.Planters.FirstOrDefault(p => p.Planter.Id == stop.Task.PlanterId) is { } here)
                    sheets[stop.Kept!.Given.Id] = here;
            }
            cautions.AddRange(sheet.Cautions);
        }
        Sheets = sheets;
        if (Day == frame.Today)
            Threats = await care.Threatening();
        List<SheetPlanter> planted = [.. sheets.Values.Where(s => s.Change.In.Count > 0)];
        Everywhere = planted.Count > 1 ? [.. planted[0].Steps.Where(s => planted.TrueForAll(p => p.Steps.Contains(s)))] : [];
        Cautions = [.. cautions.DistinctBy(c => c.Content)];
        _picks = await desk.Picks([.. Stops.Where(s => s.Item.IsOpen).Select(s => s.Task)]);
        AtHand =
        [
            .. Now.Plan.Lots.Where(l => l.Count > 0).Select(l => Now.Plan.FindPlant(l.PlantId)).OfType<Plant>().Distinct().OrderBy(p => p.CommonName),
        ];
    }

    /// <summary>A photograph of a task.</summary>
    public async Task<IActionResult> OnGetPhotoAsync(Guid id, bool small) =>
        await desk.Store.Photograph(id, small) is { } jpeg ? File(jpeg, "image/jpeg") : NotFound();

    /// <summary>Takes what was told on a phone. Each entry is answered by itself; one that is refused says why and harms no other.</summary>
    [Needs(SiteRole.Crew)]
    public async Task<IActionResult> OnPostTellAsync()
    {
        Told? told;
        try
        {
            told = await JsonSerializer.DeserializeAsync<Told>(Request.Body, Read, HttpContext.RequestAborted);
        }
        catch (JsonException e)
        {
            return BadRequest(new { why = $"This is not what a sheet sends ({e.Path})." });
        }
        List<ToldEntry> entries = [.. (told?.Entries ?? []).OfType<ToldEntry>()];
        if (entries.Count > CrewStore.MostEntries)
            return BadRequest(new { why = $"At most {CrewStore.MostEntries} entries at once." });
        // What has no id that can be read is answered by its place.
        var answers = new List<object>();
        var good = new List<TaskEntry>();
        foreach (ToldEntry entry in entries)
        {
            if (entry.ToEntry() is { } read)
                good.Add(read);
            else
                answers.Add(Answer(entry.Id, TaskRefusal.Unreadable));
        }
        if (good.Count > 0)
        {
            IReadOnlyList<EntryAnswer> kept = await desk.Store.Tell(good, visitor.Person?.Id, visitor.Person?.Name ?? string.Empty);
            answers.AddRange(kept.Select(a => Answer(a.Id.ToString(), a.Why)));
        }
        return new JsonResult(new { answers }, Write);
    }

    /// <summary>Takes a photograph of a task, once however often it is sent.</summary>
    [Needs(SiteRole.Crew)]
    public async Task<IActionResult> OnPostPhotoAsync(Guid id, Guid given, IFormFile? photograph) =>
        new JsonResult(Answer(id.ToString(), await Keep(id, given, photograph)), Write);

    // Why it was not kept; null where it was.
    private async Task<TaskRefusal?> Keep(Guid id, Guid given, IFormFile? photograph)
    {
        if (photograph is not { Length: > 0 })
            return TaskRefusal.NoPicture;
        if (photograph.Length > Photograph.MostBytes)
            return TaskRefusal.PictureTooLarge;
        Photograph read;
        try
        {
            read = await Photograph.Of(photograph, heavy);
        }
        catch (InvalidInputException)
        {
            return TaskRefusal.NoPicture;
        }
        try
        {
            await desk.Store.AddPhotograph(id, given, read.Jpeg, read.Thumb, visitor.Person?.Id);
            return null;
        }
        catch (InvalidInputException)
        {
            return TaskRefusal.NoMorePictures;
        }
    }

    // What a phone is answered, in the language of who holds it.
    private object Answer(string? id, TaskRefusal? why) => new { id, why = why is { } refusal ? frame.Crew.Say(refusal) : null };

    private static readonly JsonSerializerOptions Read = new(JsonSerializerDefaults.Web) { MaxDepth = 8 };
    private static readonly JsonSerializerOptions Write = new(JsonSerializerDefaults.Web);

    /// <summary>What a phone sends.</summary>
    private sealed record Told(List<ToldEntry?>? Entries);

    private sealed record ToldLine(int Line, int Done, string? Short, string? CameAs);

    private sealed record ToldEntry(
        string? Id,
        string? Given,
        string? Day,
        string? Mark,
        List<ToldLine?>? Lines,
        string? NotDone,
        int? Minutes,
        string? Note
    )
    {
        // Null where its identity or its day cannot be read.
        public TaskEntry? ToEntry()
        {
            if (!Guid.TryParse(Id, out Guid id) || !Guid.TryParse(Given, out Guid given) || Words.ReadDay(Day) is not { } day)
                return null;
            if (!Known<NotDoneReason>(NotDone, out NotDoneReason? notDone))
                return null;
            var lines = new List<EntryLine>();
            foreach (ToldLine line in (Lines ?? []).OfType<ToldLine>())
            {
                if (!Known<ShortReason>(line.Short, out ShortReason? why))
                    return null;
                lines.Add(new EntryLine(line.Line, line.Done, why, string.IsNullOrEmpty(line.CameAs) ? null : line.CameAs));
            }
            return new TaskEntry(id, given, day, Mark ?? string.Empty, lines)
            {
                NotDone = notDone,
                Minutes = Minutes,
                Note = Note?.Trim() ?? string.Empty,
            };
        }

        private static bool Known<T>(string? text, out T? value)
            where T : struct, Enum
        {
            value = null;
            if (string.IsNullOrEmpty(text))
                return true;
            if (!Enum.TryParse(text, out T read) || !Enum.IsDefined(read))
                return false;
            value = read;
            return true;
        }
    }
}

using System.Globalization;
using System.Text.Json.Serialization;
using NodaTime;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Work;

namespace UnrulyMeadow.Core.Crew;

/// <summary>What a task is.</summary>
public enum TaskKind
{
    /// <summary>A planter is changed over: what stands comes out, what is planned goes in.</summary>
    Changeover,

    /// <summary>A delivery is received and inspected.</summary>
    Receive,

    /// <summary>Ground, pots or beds are made ready.</summary>
    Prepare,

    /// <summary>Something is planted beside the plan.</summary>
    Plant,

    /// <summary>Water.</summary>
    Water,

    /// <summary>Feed.</summary>
    Feed,

    /// <summary>Spent flowers come off.</summary>
    Deadhead,

    /// <summary>Plants are cut back.</summary>
    CutBack,

    /// <summary>Plants are staked.</summary>
    Stake,

    /// <summary>Somebody looks for pests, disease and damage.</summary>
    Scout,

    /// <summary>Plants are covered against frost.</summary>
    Cover,

    /// <summary>The cover comes off.</summary>
    Uncover,

    /// <summary>Something is moved in or out.</summary>
    Move,

    /// <summary>Tubers and the like are lifted and stored.</summary>
    Lift,

    /// <summary>Made ready for hard frost: drip lines are blown out, clay is wrapped or moved in.</summary>
    BlowOutDrip,

    /// <summary>Plants that wait are hardened off.</summary>
    HardenOff,

    /// <summary>What was planted is looked over.</summary>
    Review,

    /// <summary>Anything else, as its note says.</summary>
    Other,
}

/// <summary>What one line of a task is.</summary>
public enum LineKind
{
    /// <summary>Plants that come out.</summary>
    Out,

    /// <summary>Plants or bulbs that go in.</summary>
    In,

    /// <summary>Fresh medium.</summary>
    Medium,

    /// <summary>Feed.</summary>
    Feed,

    /// <summary>Watering in.</summary>
    WaterIn,

    /// <summary>The whole of a task that has no other lines.</summary>
    Whole,

    /// <summary>Care of a planter, or of a kind of plant in it.</summary>
    Tend,
}

/// <summary>One line of a task, ticked by itself.</summary>
/// <param name="Number">Its number in the task, from 1.</param>
/// <param name="Kind">What it is.</param>
/// <param name="Count">Plants; 1 for what is not counted.</param>
public sealed record TaskLine(int Number, LineKind Kind, int Count)
{
    /// <summary>The kind of plant; null for what is none.</summary>
    public string? PlantId { get; init; }

    /// <summary>What it is called, so that a record reads whatever becomes of the palette.</summary>
    public string Name { get; init; } = string.Empty;

    /// <summary>The display that the plants belong to; null for what is in none.</summary>
    public string? DisplayId { get; init; }

    /// <summary>For bulbs, finished surface to the base, cm; null for all else.</summary>
    public double? DepthCm { get; init; }

    /// <summary>For bulbs, how many go into one clump; null to spread them evenly.</summary>
    public int? Clump { get; init; }

    /// <summary>The planter, of a line that is about one by itself; null where the task's own is meant.</summary>
    public string? PlanterId { get; init; }

    /// <summary>The form in which plants come; null where nobody has said.</summary>
    public string? Form { get; init; }

    /// <summary>What becomes of plants that come out; null where nobody has said.</summary>
    public PlantFate? Fate { get; init; }

    /// <summary>Litres of medium or water; null for what is none.</summary>
    public double? Litres { get; init; }

    /// <summary>Grams of feed; null for what is none.</summary>
    public double? Grams { get; init; }

    /// <summary>What the planter was called; null where the task's own is meant.</summary>
    public string? At { get; init; }

    /// <summary>The care that it is; null for what is none.</summary>
    public CareWork? Care { get; init; }

    /// <summary>How high a cut is made, cm; null for what is not cut.</summary>
    public double? CutToCm { get; init; }

    /// <summary>What is looked for; null where it is no scouting.</summary>
    public Pest? Pest { get; init; }

    /// <summary>What the line is about: lines of two sheets that say the same of different counts are the same line.</summary>
    [JsonIgnore]
    public (LineKind, string?, string?, double?, string?, Pest?) Key =>
        (Kind, PlantId, DisplayId, Kind == LineKind.In ? DepthCm : null, PlanterId, Pest);
}

/// <summary>Days between which a task is done.</summary>
/// <param name="NotBefore">The first.</param>
/// <param name="Best">The best.</param>
/// <param name="NotAfter">The last.</param>
public sealed record TaskWindow(LocalDate NotBefore, LocalDate Best, LocalDate NotAfter)
{
    /// <summary>True on a day within it.</summary>
    public bool Holds(LocalDate day) => NotBefore <= day && day <= NotAfter;
}

/// <summary>Work for somebody: of a changeover, of an order, or as a planner wrote it down.</summary>
/// <param name="Id">
/// What it comes of, e.g. "turn:quay-bed:2027-05-14": worked out again it has the same, so that it is never there twice.
/// </param>
/// <param name="Kind">What it is.</param>
/// <param name="Window">When it is to be done.</param>
/// <param name="Parts">The work in it, by kind; empty where its minutes alone are known.</param>
/// <param name="Lines">Its lines.</param>
public sealed record CrewTask(string Id, TaskKind Kind, TaskWindow Window, IReadOnlyList<WorkPart> Parts, IReadOnlyList<TaskLine> Lines)
{
    /// <summary>Most characters of a note.</summary>
    public const int LongestNote = 500;

    /// <summary>The planter; null where it is at none.</summary>
    public string? PlanterId { get; init; }

    /// <summary>The area; null where it is in none.</summary>
    public string? AreaId { get; init; }

    /// <summary>The order; null where it is about none.</summary>
    public Guid? OrderId { get; init; }

    /// <summary>Where, or what about, in words that stay.</summary>
    public string Place { get; init; } = string.Empty;

    /// <summary>Anything else.</summary>
    public string Note { get; init; } = string.Empty;

    /// <summary>Minutes of people, as they were given by hand; null to reckon them from the parts.</summary>
    public int? GivenMinutes { get; init; }

    /// <summary>People who must do it together.</summary>
    public int People { get; init; } = 1;

    /// <summary>A fingerprint of what is asked; another as soon as any line changes.</summary>
    [JsonIgnore]
    public string Mark =>
        Ids.Fingerprint(
            string.Join(
                '\n',
                Lines
                    .Select(l =>
                        string.Create(
                            CultureInfo.InvariantCulture,
                            $"{l.Number} {l.Key} {l.Count} {l.Clump} {l.Form} {l.Fate} {l.Litres:0} {l.Grams:0}"
                        )
                    )
                    .Append(Note)
            ),
            12
        );

    /// <summary>Minutes of people, one or more together.</summary>
    public int MinutesBy(LabourTable table) => GivenMinutes ?? (int)Math.Ceiling(Parts.Sum(p => p.MinutesBy(table)) - 1e-9);

    /// <summary>Every fault of a task that somebody wrote down.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Day("first", Window.NotBefore);
        faults.Day("last", Window.NotAfter);
        if (Window.NotAfter < Window.NotBefore)
            faults.Add("last", "must not be before the first day");
        faults.Range("minutes", GivenMinutes ?? 0, 0, 6000, "minutes");
        faults.Range("people", People, 1, 20, "people");
        faults.Note("note", Note, LongestNote);
        if (Kind == TaskKind.Other && string.IsNullOrWhiteSpace(Note))
            faults.Add("note", "say what is to be done");
        return faults.Faults;
    }
}

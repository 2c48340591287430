using NodaTime;
using NodaTime.Text;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Work;

namespace UnrulyMeadow.Core.Care;

/// <summary>One handling that one planter asks for.</summary>
/// <param name="Planter">The planter.</param>
/// <param name="Work">What is done.</param>
/// <param name="First">The first day on which it helps.</param>
/// <param name="Last">The last.</param>
public sealed record CareJob(Planter Planter, CareWork Work, LocalDate First, LocalDate Last)
{
    /// <summary>The kind of plant; null where the whole planter is meant.</summary>
    public Plant? Plant { get; init; }

    /// <summary>The display that it stands in; null where the whole planter is meant.</summary>
    public string? DisplayId { get; init; }

    /// <summary>Plants; 1 where the whole planter is meant.</summary>
    public int Count { get; init; } = 1;

    /// <summary>How high a cut is made, cm; null for what is not cut.</summary>
    public double? CutToCm { get; init; }

    /// <summary>Litres of water, or of feed in water; null for neither.</summary>
    public double? Litres { get; init; }

    /// <summary>Grams of feed; null for none.</summary>
    public double? Grams { get; init; }

    /// <summary>What is looked for; null where it is no scouting.</summary>
    public Pest? Pest { get; init; }

    /// <summary>True where the medium is dry: it is watered first.</summary>
    public bool WaterFirst { get; init; }

    /// <summary>True on a day on which it helps.</summary>
    public bool IsDue(LocalDate day) => First <= day && day <= Last;
}

/// <summary>Care that somebody told of.</summary>
/// <param name="PlanterId">The planter.</param>
/// <param name="PlantId">The kind; null for the whole planter.</param>
/// <param name="Work">What was done.</param>
/// <param name="Day">When.</param>
/// <param name="Litres">Litres given; null for none, or until it ran out below.</param>
public sealed record CareDone(string PlanterId, string? PlantId, CareWork Work, LocalDate Day, double? Litres = null);

/// <summary>Makes tasks of care: one for each kind of handling and area, a line for each planter and plant.</summary>
public static class CareTasks
{
    /// <summary>How ids of such tasks begin.</summary>
    public const string IdBegins = "care:";

    // Minutes of one person at one planter, by what is done (common practice: deadheading 3 to 5 min a pot).
    private static double MinutesAt(CareWork work) =>
        work switch
        {
            CareWork.Deadhead or CareWork.BulbFlowers or CareWork.BulbLeaves => 4,
            CareWork.CutBack or CareWork.CutInSpring => 6,
            CareWork.Divide => 20,
            CareWork.Cover or CareWork.Secure or CareWork.Winter => 5,
            CareWork.Feed or CareWork.Uncover or CareWork.Turn or CareWork.ShakeSnow => 2,
            _ => 3,
        };

    /// <summary>What a kind of handling is among the crew's tasks.</summary>
    public static TaskKind KindOf(CareWork work) =>
        work switch
        {
            CareWork.Water => TaskKind.Water,
            CareWork.Feed => TaskKind.Feed,
            CareWork.Deadhead or CareWork.BulbFlowers => TaskKind.Deadhead,
            CareWork.Pinch or CareWork.CutBack or CareWork.CutInSpring or CareWork.BulbLeaves => TaskKind.CutBack,
            CareWork.Stake or CareWork.Secure => TaskKind.Stake,
            CareWork.Scout => TaskKind.Scout,
            CareWork.Cover => TaskKind.Cover,
            CareWork.Uncover => TaskKind.Uncover,
            CareWork.Winter => TaskKind.BlowOutDrip,
            CareWork.Turn => TaskKind.Move,
            _ => TaskKind.Other,
        };

    /// <summary>The Monday of a day's week.</summary>
    public static LocalDate WeekOf(LocalDate day) => day.DayOfWeek == IsoDayOfWeek.Monday ? day : day.Previous(IsoDayOfWeek.Monday);

    /// <summary>
    /// The tasks of some jobs. What is due within days has a task of its week, what is due on one day a task of that day; worked out again
    /// they have the same ids.
    /// </summary>
    /// <param name="jobs">The jobs.</param>
    /// <param name="areas">Areas in their order.</param>
    /// <param name="day">A day of the week that is asked for.</param>
    public static IReadOnlyList<CrewTask> Of(IReadOnlyCollection<CareJob> jobs, IReadOnlyList<Area> areas, LocalDate day)
    {
        LocalDate monday = WeekOf(day);
        LocalDate sunday = monday.PlusDays(6);
        var tasks = new List<CrewTask>();
        foreach (var kind in jobs.GroupBy(j => (j.Work, On: j.First == j.Last ? j.First : monday)).OrderBy(g => g.Key.On).ThenBy(g => g.Key.Work))
        {
            foreach (Area area in areas)
            {
                List<CareJob> here = [.. kind.Where(j => j.Planter.AreaId == area.Id)];
                if (here.Count == 0)
                    continue;
                LocalDate first = LocalDate.Max(here.Min(j => j.First), monday);
                LocalDate last = LocalDate.Min(here.Max(j => j.Last), sunday);
                if (last < first)
                    last = first;
                CareWork work = kind.Key.Work;
                tasks.Add(
                    new CrewTask(
                        $"{IdBegins}{work}:{area.Id}:{LocalDatePattern.Iso.Format(kind.Key.On)}",
                        KindOf(work),
                        new TaskWindow(first, first == last ? first : LocalDate.Max(first, LocalDate.Min(monday.PlusDays(1), last)), last),
                        work == CareWork.Water ? [new WorkPart(WorkKind.WaterIn, here.Sum(j => j.Litres ?? 0))] : [],
                        [
                            .. here.Select(
                                (j, i) =>
                                    new TaskLine(i + 1, work == CareWork.Water ? LineKind.WaterIn : LineKind.Tend, j.Count)
                                    {
                                        PlanterId = j.Planter.Id,
                                        PlantId = j.Plant?.Id,
                                        DisplayId = j.DisplayId,
                                        Name = j.Plant?.CommonName ?? string.Empty,
                                        At = j.Planter.Name,
                                        Care = work,
                                        CutToCm = j.CutToCm is { } cut ? Math.Round(cut) : null,
                                        Litres = j.Litres is { } litres ? Math.Round(litres, 1) : null,
                                        Grams = j.Grams is { } grams ? Math.Round(grams, 1) : null,
                                        Pest = j.Pest,
                                    }
                            ),
                        ]
                    )
                    {
                        AreaId = area.Id,
                        Place = area.Name,
                        GivenMinutes =
                            work == CareWork.Water ? null : (int)Math.Ceiling(here.Select(j => j.Planter.Id).Distinct().Count() * MinutesAt(work)),
                    }
                );
            }
        }
        return tasks;
    }

    /// <summary>What was told of care in tasks that were given.</summary>
    public static IEnumerable<CareDone> DoneIn(TaskAccount account, LocalDate day) =>
        account
            .Lines.Where(l => l is { Done: > 0, Line: { Care: not null, PlanterId: not null } })
            .Select(l => new CareDone(l.Line.PlanterId!, l.Line.PlantId, l.Line.Care!.Value, account.Day ?? day, l.Line.Litres));
}

using System.Globalization;
using System.Xml.Linq;
using NodaTime;
using UnrulyMeadow.Core.Crew;
using static UnrulyMeadow.Web.Drawing.Figure;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>
/// A schedule on rules: one for each team, with a bed for each day. The work of an area stands on it as a mound as wide as its share of the
/// day; what is left of the day stays bare ground.
/// </summary>
public static class ScheduleSheet
{
    private const double Label = 150;
    private const double Width = 1200;
    private const double Head = 30;
    private const double Row = 74;
    private const double MoundHigh = 40;

    private static readonly string[] Tints = ["#7f9a68", "#c98a67", "#6f8fae", "#b98bb0", "#d0b04c", "#8a8f7c", "#5d9a94", "#c06a5a"];

    /// <summary>The drawing.</summary>
    /// <param name="schedule">The schedule.</param>
    /// <param name="teams">Teams, with what they are called.</param>
    /// <param name="areas">Areas in their order, with what they are called.</param>
    /// <param name="weather">What the weather of days hinders, in words; days that are not named are fair.</param>
    /// <param name="today">The day that the thread runs through.</param>
    public static XElement Draw(
        Schedule schedule,
        IReadOnlyList<(string Id, string Name)> teams,
        IReadOnlyList<(string Id, string Name)> areas,
        IReadOnlyDictionary<LocalDate, string> weather,
        LocalDate today
    )
    {
        LocalDate[] days = [.. schedule.Question.TeamDays.Select(t => t.Day).Distinct().Order()];
        double wide = (Width - Label) / Math.Max(1, days.Length);
        double high = Head + (teams.Count * Row) + 4;
        XElement svg = El("svg", "viewBox", $"0 0 {N(Width)} {N(high)}", "class", "schedule-sheet", "role", "img", Title(Said(schedule, days)));
        for (int d = 0; d < days.Length; d++)
        {
            double x = Label + (d * wide);
            svg.Add(Text(x + (wide / 2), 12, "day-name", days[d].ToString("ddd", CultureInfo.InvariantCulture), "middle"));
            svg.Add(
                Text(
                    x + (wide / 2),
                    25,
                    "day-name",
                    days[d].ToString(d == 0 || days[d].Day == 1 ? "d MMM" : "%d", CultureInfo.InvariantCulture),
                    "middle"
                )
            );
            // A thin line of sky above a day that the weather takes something from.
            if (weather.TryGetValue(days[d], out string? hinders))
                svg.Add(El("g", Title(hinders), El("rect", "x", x + 2, "y", Head - 3, "width", wide - 4, "height", 4, "class", "foul")));
            if (days[d] == today)
                svg.Add(El("line", "x1", x, "x2", x, "y1", 0, "y2", high, "class", "thread"));
        }
        for (int t = 0; t < teams.Count; t++)
        {
            double y = Head + ((t + 1) * Row) - 14;
            svg.Add(Text(0, y, "team-name", teams[t].Name));
            for (int d = 0; d < days.Length; d++)
            {
                double x = Label + (d * wide) + 2;
                TeamDay? at = schedule.Question.TeamDays.FirstOrDefault(q => q.TeamId == teams[t].Id && q.Day == days[d]);
                bool works = at is { People: > 0, Minutes: > 0 };
                svg.Add(El("line", "x1", x, "x2", x + wide - 4, "y1", y, "y2", y, "class", works ? "rule" : "rule is-off"));
                if (!works)
                    continue;
                double from = x;
                foreach (var area in schedule.Placed.Where(p => p.At == at).GroupBy(p => p.Job.Task.AreaId).OrderBy(g => At(areas, g.Key)))
                {
                    int minutes = area.Sum(p => p.Job.Minutes) + ScheduleQuestion.VisitMinutes;
                    double mound = Math.Max(3, (wide - 4) * minutes / at!.Minutes);
                    int stops = area.Select(p => p.Job.Task.Id).Distinct().Count();
                    string name = areas.FirstOrDefault(a => a.Id == area.Key).Name ?? "elsewhere";
                    svg.Add(
                        El(
                            "g",
                            Title(
                                $"{teams[t].Name}, {days[d].ToString("ddd d MMM", CultureInfo.InvariantCulture)}: {name}, {stops} {(stops == 1 ? "task" : "tasks")}, {minutes} min"
                            ),
                            El(
                                "path",
                                "d",
                                $"M{N(from)} {N(y)} C{N(from)} {N(y - (MoundHigh * 1.25))} {N(from + mound)} {N(y - (MoundHigh * 1.25))} {N(from + mound)} {N(y)} Z",
                                "fill",
                                Tints[(At(areas, area.Key) + Tints.Length) % Tints.Length],
                                "class",
                                "mound"
                            ),
                            mound > 14 ? Text(from + (mound / 2), y - 8, "mound-count", $"{stops}", "middle") : null
                        )
                    );
                    from += mound;
                }
            }
        }
        return svg;
    }

    /// <summary>The tint of an area in the drawing.</summary>
    public static string TintOf(IReadOnlyList<(string Id, string Name)> areas, string? area) =>
        Tints[(At(areas, area) + Tints.Length) % Tints.Length];

    private static int At(IReadOnlyList<(string Id, string Name)> areas, string? id)
    {
        for (int i = 0; i < areas.Count; i++)
        {
            if (areas[i].Id == id)
                return i;
        }
        return -1;
    }

    private static string Said(Schedule schedule, LocalDate[] days) =>
        days.Length == 0
            ? "no days"
            : $"{schedule.Placed.Select(p => p.Job.Task.Id).Distinct().Count()} tasks placed from {days[0]:d MMM} to {days[^1]:d MMM}";
}

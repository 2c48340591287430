using NodaTime;

namespace UnrulyMeadow.Web.Site;

/// <summary>The day and the year that a planning page stands on, from its address.</summary>
/// <param name="Day">The day of the red thread.</param>
/// <param name="Start">First day of the plan year that holds it.</param>
/// <param name="Today">Today.</param>
public sealed record YearView(LocalDate Day, LocalDate Start, LocalDate Today)
{
    /// <summary>
    /// Takes the day from the address; without one, today, or the middle of the latest planned year when nothing
    /// is planned around today.
    /// </summary>
    public static YearView From(string? day, SiteNow now, LocalDate today)
    {
        LocalDate chosen = Words.ReadDay(day) ?? today;
        LocalDate start = Core.Season.SiteYear.UsualStart(chosen, now.IsSouthern);
        if (
            Words.ReadDay(day) is null
            && now.Plan.Displays.Count > 0
            && !now.Plan.Displays.Any(d => d.Lift > start && d.Install < start.PlusMonths(12))
        )
        {
            LocalDate last = now.Plan.Displays.Max(d => d.Install);
            start = Core.Season.SiteYear.UsualStart(last, now.IsSouthern);
            chosen = last;
        }
        return new YearView(chosen, start, today);
    }
}

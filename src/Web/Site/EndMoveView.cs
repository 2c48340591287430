using NodaTime;
using UnrulyMeadow.Core.Acts;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Web.Drawing;

namespace UnrulyMeadow.Web.Site;

/// <summary>What moving an end of a display would do, as it is shown while it is dragged.</summary>
/// <param name="Display">The display as it is.</param>
/// <param name="End">Its end.</param>
/// <param name="Day">The day it would move to.</param>
/// <param name="Days">Days later; below zero for earlier.</param>
/// <param name="Act">What it would do.</param>
/// <param name="Turn">The turn that holds the day; null for none.</param>
/// <param name="Frost">Odds that a freeze comes yet after the day in spring, or has come before it in fall; null without weather.</param>
/// <param name="Before">The planter's year as it is.</param>
/// <param name="After">Its year then; the same where nothing is done.</param>
/// <param name="Row">Its rule then.</param>
/// <param name="Against">What checks would say against it.</param>
public sealed record EndMoveView(
    Display Display,
    DisplayEnd End,
    LocalDate Day,
    int Days,
    PlanterAct Act,
    Turn? Turn,
    double? Frost,
    PlanterSeason Before,
    PlanterSeason After,
    YearRow Row,
    IReadOnlyList<Remark> Against
)
{
    /// <summary>Looks at it.</summary>
    /// <param name="now">The plan and weather.</param>
    /// <param name="frame">The site.</param>
    /// <param name="start">First day of the plan year shown.</param>
    /// <param name="display">The display.</param>
    /// <param name="end">Its end.</param>
    /// <param name="day">The day it would move to.</param>
    public static async Task<EndMoveView> Of(SiteNow now, PageFrame frame, LocalDate start, Display display, DisplayEnd end, LocalDate day)
    {
        PlanterAct act = EndMove.Of(now.Plan, display, end, day, frame.Today);
        SeasonKernel kernel = await frame.State.Kernel(start);
        PlanterSeason before = kernel.Of(now.Plan, act.Planter);
        Display[] displays = [.. now.Plan.DisplaysOf(display.PlanterId).Select(d => act.After.FirstOrDefault(a => a.Id == d.Id) ?? d)];
        PlanterSeason after = act.Changes ? kernel.Try(now.Plan, act.Planter, displays) : before;
        double? frost = now.Record is { YearsUsed.Count: > 0 } record
            ? FrostOdds.OddsOn(FrostOdds.From(record, FrostEnd.LastSpring, 0), FrostOdds.From(record, FrostEnd.FirstFall, 0), day)
            : null;
        IReadOnlyList<Remark> against = [];
        if (act.Changes)
        {
            DisplayChecks checks = (await frame.State.Checks()).On(now.Plan.Changed([.. act.Before.Select(d => d.Id)], act.After));
            against = [.. act.After.SelectMany(d => checks.For(d)).Where(r => r.SpeaksAgainst).Take(3)];
        }
        return new EndMoveView(
            display,
            end,
            day,
            Period.DaysBetween(end == DisplayEnd.Install ? display.Install : display.Lift, day),
            act,
            now.Plan.Turns.FirstOrDefault(t => t.Holds(day)),
            frost,
            before,
            after,
            new YearRow(after, before, YearScale.Of(start), [], displays, frame.Units) { MovableFrom = frame.Today },
            against
        );
    }
}

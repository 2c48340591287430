using NodaTime;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;

namespace UnrulyMeadow.Core.Season;

/// <summary>The day on which a display makes way by the house rule, and the day on which it is past its best.</summary>
/// <param name="Planned">The day on which it is planned to come out.</param>
/// <param name="PastBest">The first day from which it shows less than half its best for good; null when it never shows.</param>
/// <param name="ByRule">The day by the school that is followed.</param>
/// <param name="School">The school.</param>
public sealed record TurnDay(LocalDate Planned, LocalDate? PastBest, LocalDate ByRule, TurnSchool School)
{
    // Past its best: less than this share of the most that it shows (common practice).
    private const double Past = 0.5;

    /// <summary>Days that the next display gains or loses when the rule is followed instead of the plan.</summary>
    public int DaysLater => Period.DaysBetween(Planned, ByRule);

    /// <summary>The turn day of a seasonal display; null for other layers and without weather.</summary>
    public static TurnDay? Of(Plan plan, Planter planter, Display display, SiteFlowering flowering)
    {
        if (display.Layer != DisplayLayer.Seasonal || flowering.Years == 0)
            return null;
        TurnSchool school = plan.Site.RulesFor(planter).Turn;
        LocalDate end = flowering.Start.PlusMonths(12);
        double pocket = plan.AreaOf(planter).FrostPocketC + planter.Survey.FrostPocketC;
        var shows = new double[Period.DaysBetween(flowering.Start, end)];
        foreach (DisplayItem item in display.Items)
        {
            Plant plant = plan.AsBought(planter, item);
            FloweringStrip strip = flowering.Of(plant, display.Install, null, pocket);
            float[] wide = flowering.Spread(plant, display.Install, end, pocket);
            for (int w = 0; w < strip.ByWindow.Count; w++)
            {
                for (int d = 0; d < shows.Length; d++)
                    shows[d] += item.Count * wide[d] * wide[d] * strip.ByWindow[w][d] * plant.Windows[w].Share * plant.Windows[w].Weight;
            }
        }
        double best = shows.Max();
        int last = best <= 0 ? -1 : Array.FindLastIndex(shows, s => s >= Past * best);
        LocalDate? past = last < 0 ? null : flowering.Start.PlusDays(last + 1);
        LocalDate byRule = school == TurnSchool.WhenPast && past is { } p && p > display.Install ? p : display.Lift;
        return new TurnDay(display.Lift, past, byRule, school);
    }

    /// <summary>The arithmetic behind the day.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.TurnDay,
            ByRule,
            [
                new WorkingInput(InputName.Planned, Planned),
                new WorkingInput(InputName.PastItsBest, PastBest is { } atPastBest ? (object?)atPastBest : WorkingPhrase.NeverShows),
                new WorkingInput(
                    InputName.School,
                    School == TurnSchool.AtCalendar ? (object?)WorkingPhrase.CalendarTurn : WorkingPhrase.WhenPastBest
                ),
            ]
        );
}

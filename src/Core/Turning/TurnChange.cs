using NodaTime;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Work;

namespace UnrulyMeadow.Core.Turning;

/// <summary>What a turn changes in one planter.</summary>
/// <param name="Planter">The planter.</param>
/// <param name="Out">Displays that come out, whole or but for what stays.</param>
/// <param name="In">Displays that go in.</param>
public sealed record TurnChange(Planter Planter, IReadOnlyList<Display> Out, IReadOnlyList<Display> In)
{
    /// <summary>Planters that a crew lays out in a day, where the turn has days enough (common practice).</summary>
    public const int PlantersADay = 6;

    /// <summary>The day of a turn on which the crew comes to a planter: so many a day, and the last day takes what is left.</summary>
    /// <param name="turn">The turn.</param>
    /// <param name="index">The planter's place in the row, from 0.</param>
    /// <param name="count">Planters in the row.</param>
    public static LocalDate DayOf(Turn turn, int index, int count)
    {
        int days = Period.DaysBetween(turn.FirstDay, turn.LastDay) + 1;
        return turn.FirstDay.PlusDays(Math.Min(days - 1, index / Math.Max(PlantersADay, (count + days - 1) / days)));
    }

    /// <summary>What physically happens, day by day.</summary>
    public required IReadOnlyList<Changeover> Changeovers { get; init; }

    /// <summary>Plants that go in.</summary>
    public IEnumerable<ChangeoverItem> ComesIn => Changeovers.SelectMany(c => c.In);

    /// <summary>Plants that stay on from a display that ends in the next one.</summary>
    public IEnumerable<ChangeoverItem> Stays => Changeovers.SelectMany(c => c.Stays.Where(s => s.Display.Install == c.Day));

    /// <summary>Plants that come out: of kinds that stay on, only what is over.</summary>
    public IEnumerable<ChangeoverItem> GoesOut => Changeovers.SelectMany(c => c.Out);

    /// <summary>What a turn changes, planter by planter in the plan's order.</summary>
    public static IReadOnlyList<TurnChange> Of(Plan plan, Turn turn)
    {
        var goesOut = plan.Displays.Where(d => turn.Holds(d.Lift)).ToLookup(d => d.PlanterId, StringComparer.Ordinal);
        var comesIn = plan.Displays.Where(d => turn.Holds(d.Install)).ToLookup(d => d.PlanterId, StringComparer.Ordinal);
        return
        [
            .. plan
                .Planters.Where(p => goesOut.Contains(p.Id) || comesIn.Contains(p.Id))
                .Select(p => new TurnChange(p, [.. goesOut[p.Id].OrderBy(d => d.Layer)], [.. comesIn[p.Id].OrderBy(d => d.Layer)])
                {
                    Changeovers = [.. Changeover.Of(plan, p).Where(c => turn.Holds(c.Day))],
                }),
        ];
    }

    /// <summary>
    /// A display as a turn that is moved by so many days moves it: what goes in or comes out in the turn does so later, what is
    /// plugged in then likewise. It never ends before it begins, and cuts that no longer lie within it are dropped.
    /// </summary>
    public static Display Moved(Turn turn, Display display, int days)
    {
        LocalDate install = turn.Holds(display.Install) ? display.Install.PlusDays(days) : display.Install;
        LocalDate lift = turn.Holds(display.Lift) ? display.Lift.PlusDays(days) : display.Lift;
        bool MovesToo(DisplayItem item) => item.Since is { } since && turn.Holds(since);
        if (install == display.Install && lift == display.Lift && !display.Items.Any(MovesToo))
            return display;
        if (lift <= install)
            lift = install.PlusDays(1);
        return display with
        {
            Install = install,
            Lift = lift,
            Cuts = [.. display.Cuts.Where(c => c.Day > install && c.Day < lift)],
            Items =
            [
                .. display.Items.Select(i =>
                    MovesToo(i) && i.Since!.Value.PlusDays(days) < lift ? i with { Since = i.Since.Value.PlusDays(days) } : i
                ),
            ],
        };
    }

    /// <summary>
    /// The next display, as what is said of the one before has it: kinds that are to stay stand in it from the day they first went
    /// in, and are added where it has none of them; kinds of which something else is said go in anew.
    /// </summary>
    /// <param name="before">The display before.</param>
    /// <param name="next">The next one of the same planter and layer; returned as it is where it does not follow at once.</param>
    public static Display WithStays(Display before, Display next)
    {
        if (before.PlanterId != next.PlanterId || before.Layer != next.Layer || before.Layer == DisplayLayer.Bulbs || before.Lift != next.Install)
            return next;
        var items = next.Items.ToList();
        foreach (DisplayItem item in before.Items.Where(i => i.Fate is not null))
        {
            int at = items.FindIndex(i => i.PlantId == item.PlantId);
            LocalDate? since = item.Fate == PlantFate.Stays ? item.Since ?? before.Install : null;
            if (at >= 0 && (since is not null ? items[at].Since is null : items[at].Since < next.Install))
                items[at] = items[at] with { Since = since };
            else if (at < 0 && since is not null)
                items.Add(item with { Since = since, Fate = null });
        }
        return next with { Items = items };
    }

    /// <summary>
    /// The next display made from this turn's: some kinds stay on, others go in. Plants that stay keep the day they first went
    /// in, and with it their width.
    /// </summary>
    /// <param name="before">The display that comes out.</param>
    /// <param name="id">The next one's id.</param>
    /// <param name="install">The turn's day.</param>
    /// <param name="lift">When the next comes out.</param>
    /// <param name="stays">Plants that stay, by id.</param>
    /// <param name="comes">What goes in.</param>
    public static Display Next(
        Display before,
        string id,
        LocalDate install,
        LocalDate lift,
        IReadOnlyCollection<string> stays,
        IReadOnlyList<DisplayItem> comes
    ) =>
        new(
            id,
            before.PlanterId,
            before.Layer,
            install,
            lift,
            [
                .. before
                    .Items.Where(i => stays.Contains(i.PlantId, StringComparer.Ordinal))
                    .Select(i => i with { Since = i.Since ?? before.Install, Fate = null }),
                .. comes.Where(c => !stays.Contains(c.PlantId, StringComparer.Ordinal)),
            ]
        );
}

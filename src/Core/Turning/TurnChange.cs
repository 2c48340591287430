using NodaTime;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Planting;

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

    /// <summary>Plants that go into the planter new, with the display.</summary>
    public IEnumerable<(Display Display, DisplayItem Item)> ComesIn => In.SelectMany(d => d.Items.Where(i => i.Since is null || i.Since >= d.Install).Select(i => (d, i)));

    /// <summary>Plants that stay on from the display before.</summary>
    public IEnumerable<(Display Display, DisplayItem Item)> Stays => In.SelectMany(d => d.Items.Where(i => i.Since < d.Install).Select(i => (d, i)));

    /// <summary>Plants that come out: of kinds that stay on, only what is over.</summary>
    public IEnumerable<(Display Display, DisplayItem Item)> GoesOut => Out.SelectMany(d => d.Items.Select(i =>
    {
        int stays = Stays.Where(s => s.Item.PlantId == i.PlantId && s.Display.Layer == d.Layer).Sum(s => s.Item.Count);
        return (d, i with { Count = Math.Max(0, i.Count - stays), Places = null });
    })).Where(x => x.Item2.Count > 0);

    /// <summary>What a turn changes, planter by planter in the plan's order.</summary>
    public static IReadOnlyList<TurnChange> Of(Plan plan, Turn turn)
    {
        var goesOut = plan.Displays.Where(d => turn.Holds(d.Lift)).ToLookup(d => d.PlanterId, StringComparer.Ordinal);
        var comesIn = plan.Displays.Where(d => turn.Holds(d.Install)).ToLookup(d => d.PlanterId, StringComparer.Ordinal);
        return
        [
            .. plan.Planters.Where(p => goesOut.Contains(p.Id) || comesIn.Contains(p.Id))
                .Select(p => new TurnChange(p, [.. goesOut[p.Id].OrderBy(d => d.Layer)], [.. comesIn[p.Id].OrderBy(d => d.Layer)])),
        ];
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
    public static Display Next(Display before, string id, LocalDate install, LocalDate lift, IReadOnlyCollection<string> stays, IReadOnlyList<DisplayItem> comes) => new(
        id, before.PlanterId, before.Layer, install, lift,
        [
            .. before.Items.Where(i => stays.Contains(i.PlantId, StringComparer.Ordinal)).Select(i => i with { Since = i.Since ?? before.Install, Fate = null }),
            .. comes.Where(c => !stays.Contains(c.PlantId, StringComparer.Ordinal)),
        ]);
}

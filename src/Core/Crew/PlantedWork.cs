using NodaTime;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Work;

namespace UnrulyMeadow.Core.Crew;

/// <summary>Plants that leave a lot.</summary>
/// <param name="LotId">The lot.</param>
/// <param name="Planted">Plants that went in.</param>
/// <param name="Lost">Plants that were not there, or were too poor.</param>
public sealed record LotUse(string LotId, int Planted, int Lost);

/// <summary>What a changeover that was done makes of the plan and the stock: the season follows what really went in, on the day on which it did.</summary>
/// <param name="Plantings">What went in.</param>
/// <param name="Before">Displays that change, as they were.</param>
/// <param name="After">The same as they become; what is left out of these is gone.</param>
/// <param name="Uses">What leaves the stock.</param>
/// <param name="Kept">Lots of what came out and is kept.</param>
/// <param name="Refused">Why the plan could not follow; null where it could.</param>
public sealed record PlantedWork(
    IReadOnlyList<Planting> Plantings,
    IReadOnlyList<Display> Before,
    IReadOnlyList<Display> After,
    IReadOnlyList<LotUse> Uses,
    IReadOnlyList<Lot> Kept,
    string? Refused
)
{
    /// <summary>Works it out.</summary>
    /// <param name="plan">The plan as it is.</param>
    /// <param name="account">The task, with all that was told of it.</param>
    public static PlantedWork Of(Plan plan, TaskAccount account)
    {
        CrewTask asked = account.Given.Asked;
        if (asked.Kind != TaskKind.Changeover || account.Day is not { } day)
            return new PlantedWork([], [], [], [], [], null);
        LocalDate planned = asked.Window.Best;
        List<LineState> goesIn = [.. account.Lines.Where(l => l.Line.Kind == LineKind.In)];
        List<LineState> comesOut = [.. account.Lines.Where(l => l.Line.Kind == LineKind.Out && l.Done > 0)];
        Planting[] plantings =
        [
            .. goesIn
                .Where(l => l.Done > 0 && l.Line.DisplayId is not null)
                .Select(l => new Planting(l.Line.DisplayId!, l.CameAs ?? l.Line.PlantId!, day, l.Done)),
        ];
        Changeover? change = plan.FindPlanter(asked.PlanterId) is { } planter
            ? Changeover.Of(plan, planter).FirstOrDefault(c => c.Day == planned)
            : null;
        IReadOnlyList<LotUse> uses = [.. UsesOf(plan, asked, goesIn, planned)];
        IReadOnlyList<Lot> kept = change is null ? [] : [.. KeptOf(change with { Day = day }, comesOut, plan)];
        // Where the day does not fit between other displays, the counts alone follow.
        foreach (LocalDate to in new[] { day, planned }.Distinct())
        {
            (List<Display> before, List<Display> after) = Displays(plan, asked, goesIn, comesOut, planned, to);
            try
            {
                FaultList faults = new();
                foreach (Display display in after)
                    faults.AddAll(string.Empty, display.Faults());
                faults.ThrowIfAny();
                plan.Changed([.. before.Select(d => d.Id)], after);
                return new PlantedWork(plantings, before, after, uses, kept, null);
            }
            catch (InvalidInputException e) when (to == planned)
            {
                return new PlantedWork(plantings, [], [], uses, kept, e.Message);
            }
            catch (InvalidInputException)
            {
                // With the planned day.
            }
        }
        return new PlantedWork(plantings, [], [], uses, kept, null);
    }

    /// <summary>The displays of a task with what fell short put back into the plan: what is not planted of it is to be planted still.</summary>
    /// <param name="plan">The plan as it is.</param>
    /// <param name="account">The task, done.</param>
    /// <returns>The displays as they were and as they become, and how many plants are wanted again.</returns>
    public static (IReadOnlyList<Display> Before, IReadOnlyList<Display> After, int Plants) Rest(Plan plan, TaskAccount account)
    {
        var before = new List<Display>();
        var after = new List<Display>();
        int plants = 0;
        foreach (Display display in plan.DisplaysOf(account.Given.Asked.PlanterId ?? string.Empty))
        {
            List<DisplayItem> items = [.. display.Items];
            int here = 0;
            foreach (LineState line in account.Lines.Where(l => l.Line.Kind == LineKind.In && l.Line.DisplayId == display.Id && l.Missing > 0))
            {
                string kind = line.CameAs ?? line.Line.PlantId!;
                if (plan.FindPlant(kind) is null)
                    continue;
                int at = items.FindIndex(i => i.PlantId == kind);
                if (at < 0)
                    items.Add(new DisplayItem(kind, line.Missing) { Clump = line.Line.Clump });
                else
                    items[at] = items[at] with { Count = items[at].Count + line.Missing, Places = null };
                here += line.Missing;
            }
            if (here == 0)
                continue;
            plants += here;
            before.Add(display);
            after.Add(display with { Items = items });
        }
        return (before, after, plants);
    }

    private static (List<Display> Before, List<Display> After) Displays(
        Plan plan,
        CrewTask asked,
        List<LineState> goesIn,
        List<LineState> comesOut,
        LocalDate planned,
        LocalDate day
    )
    {
        var before = new List<Display>();
        var after = new List<Display>();
        foreach (Display display in plan.DisplaysOf(asked.PlanterId ?? string.Empty))
        {
            Display now = display;
            List<LineState> into = goesIn.FindAll(l => l.Line.DisplayId == display.Id);
            if (into.Count > 0)
            {
                bool isAdded = display.Install < planned;
                List<DisplayItem> items = [.. display.Items.Select(i => i.Since == planned ? i with { Since = day } : i)];
                foreach (LineState line in into.Where(l => l.Missing > 0 || l.Done > l.Line.Count || l.CameAs is not null))
                    Follow(items, line, isAdded ? day : null);
                now = now with { Install = display.Install == planned ? day : display.Install, Items = items };
            }
            if (comesOut.Exists(l => l.Line.DisplayId == display.Id) && display.Lift == planned)
                now = now with { Lift = day };
            if (ReferenceEquals(now, display) || now == display)
                continue;
            before.Add(display);
            // Of what nothing went in, nothing stands.
            if (now.Items.Count > 0)
                after.Add(now);
        }
        return (before, after);
    }

    // A line of the display takes the count that went in; another kind in its place becomes a line of its own.
    private static void Follow(List<DisplayItem> items, LineState line, LocalDate? since)
    {
        int at = items.FindIndex(i => i.PlantId == line.Line.PlantId && (since is null || i.Since == since));
        if (at < 0)
            return;
        DisplayItem item = items[at];
        // What a line before it brought stands already; the rest is what was asked now.
        int left = item.Count - line.Line.Count + (line.CameAs is null ? line.Done : 0);
        items.RemoveAt(at);
        if (line.CameAs is { } kind && line.Done > 0 && items.FindIndex(i => i.PlantId == kind) is >= 0 and var same)
            items[same] = items[same] with { Count = items[same].Count + line.Done, Places = null };
        else if (line.CameAs is { } other && line.Done > 0)
            items.Insert(at, item with { PlantId = other, Count = line.Done, Form = null, Places = null, DepthCm = null });
        if (left > 0)
            items.Insert(Math.Min(at, items.Count), item with { Count = left, Places = item.Places?.Count == left ? item.Places : null });
    }

    private static IEnumerable<LotUse> UsesOf(Plan plan, CrewTask asked, List<LineState> goesIn, LocalDate planned)
    {
        HashSet<string> kinds = [.. goesIn.Select(l => l.Line.PlantId).OfType<string>()];
        List<StockReservation> kept =
        [
            .. StockReservation.OfKinds(plan, kinds, planned).Where(r => r.Day == planned && r.PlanterId == asked.PlanterId),
        ];
        int[] left = [.. plan.Lots.Select(l => l.Count)];
        int[] planted = new int[left.Length];
        int[] lost = new int[left.Length];
        foreach (LineState line in goesIn)
        {
            // What came in place of another kind is taken from lots of its own.
            bool isOther = line.CameAs is not null;
            List<(int Lot, int Most)> from = isOther
                ?
                [
                    .. plan
                        .Lots.Select((l, i) => (Lot: l, At: i))
                        .Where(l => StockReservation.Serves(l.Lot, plan.Plant(line.CameAs!), forced: false))
                        .Select(l => (l.At, l.Lot.Count)),
                ]
                :
                [
                    .. kept.Where(r => r.Lot.PlantId == line.Line.PlantId)
                        .Select(r => (plan.Lots.ToList().FindIndex(l => l.Id == r.Lot.Id), r.Count)),
                ];
            Take(planted, from, line.Done);
            if (!isOther && line.Short is ShortReason.Missing or ShortReason.Poor)
                Take(lost, from, line.Missing);
        }
        for (int i = 0; i < left.Length; i++)
        {
            if (planted[i] + lost[i] > 0)
                yield return new LotUse(plan.Lots[i].Id, planted[i], lost[i]);
        }

        void Take(int[] into, List<(int Lot, int Most)> from, int wanted)
        {
            for (int f = 0; f < from.Count && wanted > 0; f++)
            {
                int count = Math.Min(wanted, Math.Min(from[f].Most, left[from[f].Lot]));
                left[from[f].Lot] -= count;
                into[from[f].Lot] += count;
                from[f] = (from[f].Lot, from[f].Most - count);
                wanted -= count;
            }
        }
    }

    private static IEnumerable<Lot> KeptOf(Changeover change, List<LineState> comesOut, Plan plan)
    {
        foreach (Lot lot in KeptPlants.Missing(change, plan.Lots))
        {
            int count = comesOut
                .Where(l => l.Line.PlantId == lot.PlantId && l.Line.Fate is PlantFate.Keep or PlantFate.Store or PlantFate.ToBed)
                .Sum(l => l.Done);
            if (count > 0)
                yield return lot with
                {
                    Count = Math.Min(count, lot.Count),
                };
        }
    }
}

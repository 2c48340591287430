using NodaTime;
using NodaTime.Text;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Core.Work;

namespace UnrulyMeadow.Core.Crew;

/// <summary>Tasks that follow from the plan and from orders. Worked out again, the same task has the same id.</summary>
public static class CrewTasks
{
    // A changeover outside turns may be a few days off (common practice).
    private const int DaysOff = 3;

    // Unpacking, counting and looking over a delivery: so many minutes and plants a minute (common practice).
    private const int MinutesToReceive = 15;
    private const double ReceivedAMinute = 25;

    // Watering in wets a pot down to its roots: 40 L a square metre of its surface, and no more than its medium holds beside what it holds
    // already, about a seventh of its volume; ground of a bed takes 10 L a square metre (common practice: 10 to 20 L for a 60 cm pot).
    private const double PotLitresAM2 = 40;
    private const double WaterShare = 0.15;
    private const double BedLitresAM2 = 10;
    private const double LeastWaterLitres = 1;

    /// <summary>The id of a changeover's task.</summary>
    public static string IdOf(string planterId, LocalDate day) => $"turn:{planterId}:{LocalDatePattern.Iso.Format(day)}";

    /// <summary>Litres that a planter is watered in with.</summary>
    public static double WaterInLitres(Planter planter) =>
        Math.Round(
            Math.Max(
                LeastWaterLitres,
                planter.Form.IsBed
                    ? planter.Form.SurfaceCm2 / 10_000 * BedLitresAM2
                    : Math.Min(planter.Form.SurfaceCm2 / 10_000 * PotLitresAM2, planter.Form.PlantableLitres * WaterShare)
            )
        );

    /// <summary>The task of a changeover; null where all of it is planted.</summary>
    public static CrewTask? Of(Plan plan, Changeover change)
    {
        if (change.IsPlanted)
            return null;
        // Of what is planted in part, what stood before is out, the medium is in, and the rest follows.
        bool begun = change.ToPlant.Sum(i => i.Count) < change.In.Sum(i => i.Count);
        var lines = new List<TaskLine>();
        if (!begun)
            lines.AddRange(
                change.Out.Select(i => new TaskLine(0, LineKind.Out, i.Count)
                {
                    PlantId = i.Item.PlantId,
                    Name = i.Plant.CommonName,
                    DisplayId = i.Display.Id,
                    Fate = i.Item.Fate,
                })
            );
        if (!begun && change.Medium is { } medium)
            lines.Add(new TaskLine(0, LineKind.Medium, 1) { Litres = Math.Round(medium.Litres, 1) });
        if (!begun)
            lines.AddRange(change.Feed.Select(f => new TaskLine(0, LineKind.Feed, 1) { Name = f.What.ToString(), Grams = f.Grams }));
        lines.AddRange(
            change.ToPlant.Select(i => new TaskLine(0, LineKind.In, i.Count)
            {
                PlantId = i.Item.PlantId,
                Name = i.Plant.CommonName,
                DisplayId = i.Display.Id,
                DepthCm = i.DepthCm,
                Clump = i.Item.Clump,
                Form = GoodsForm.Of(i.Plant)[0].Name,
            })
        );
        double? water = change.ToPlant.Count > 0 ? WaterInLitres(change.Planter) : null;
        if (water is { } litres)
            lines.Add(new TaskLine(0, LineKind.WaterIn, 1) { Litres = litres });
        List<WorkPart> parts = [.. Labour.Of(change).Where(p => !begun || p.Kind is not (WorkKind.TakeOut or WorkKind.RenewMedium))];
        if (water is { } poured)
            parts.Add(new WorkPart(WorkKind.WaterIn, poured));
        Turn? turn = plan.Turns.FirstOrDefault(t => t.Holds(change.Day));
        return new CrewTask(
            IdOf(change.Planter.Id, change.Day),
            TaskKind.Changeover,
            new TaskWindow(turn?.FirstDay ?? change.Day.PlusDays(-DaysOff), change.Day, turn?.LastDay ?? change.Day.PlusDays(DaysOff)),
            parts,
            [.. lines.Select((l, i) => l with { Number = i + 1 })]
        )
        {
            PlanterId = change.Planter.Id,
            AreaId = change.Planter.AreaId,
            Place = change.Planter.Name,
            People = parts.Exists(p => p.Kind == WorkKind.SetBulbsByAuger) ? 2 : 1,
        };
    }

    /// <summary>The task of receiving an order; null where nothing is waited for.</summary>
    public static CrewTask? Of(OrderAccount account)
    {
        int waited = account.Lines.Sum(l => l.Outstanding);
        if (!account.Order.IsOpen || waited == 0)
            return null;
        LocalDate day = account.Order.PromisedFor ?? account.Order.Lines.Min(l => l.By);
        return new CrewTask(
            $"receive:{account.Order.Id}",
            TaskKind.Receive,
            new TaskWindow(day, day, day),
            [],
            [new TaskLine(1, LineKind.Whole, 1) { Name = account.Order.Supplier.Name }]
        )
        {
            OrderId = account.Order.Id,
            Place = account.Order.Supplier.Name,
            GivenMinutes = MinutesToReceive + (int)Math.Ceiling(waited / ReceivedAMinute),
        };
    }

    /// <summary>Tasks whose best day lies between two days, both included, by day and then in the plan's order of planters.</summary>
    /// <param name="plan">The plan, with what was planted.</param>
    /// <param name="orders">Orders with what came of them.</param>
    /// <param name="first">The first day.</param>
    /// <param name="last">The last day.</param>
    public static IReadOnlyList<CrewTask> Between(Plan plan, IReadOnlyList<OrderAccount> orders, LocalDate first, LocalDate last) =>
        [
            .. Changeover
                .Between(plan, first, last)
                .Select(c => Of(plan, c))
                .Concat(orders.Select(o => Of(o)))
                .OfType<CrewTask>()
                .Where(t => first <= t.Window.Best && t.Window.Best <= last)
                .OrderBy(t => t.Window.Best),
        ];
}

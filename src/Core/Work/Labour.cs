using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Work;

/// <summary>One kind of work at one planter.</summary>
/// <param name="Kind">Its kind.</param>
/// <param name="Units">Plants, or litres.</param>
/// <param name="Times">By how much the ground makes it longer; 1 for plain ground.</param>
public sealed record WorkPart(WorkKind Kind, double Units, double Times = 1)
{
    /// <summary>Minutes of people, one or more, by a table.</summary>
    public double MinutesBy(LabourTable table) => Units * Times * table[Kind].Minutes;
}

/// <summary>What a changeover takes people who know the work. Ways, watering and clearing away are not in it.</summary>
public static class Labour
{
    /// <summary>Weed fabric more than doubles the planting (common practice).</summary>
    public const double FabricTimes = 2.2;

    /// <summary>In heavy clay it takes half as long again by hand (common practice).</summary>
    public const double ClayTimes = 1.5;

    /// <summary>So many bulbs at once in a bed are set into holes of a powered auger (common practice).</summary>
    public const int AugerBulbs = 50;

    // Pots narrower than this are set like packs, cm.
    private const double LargePotCm = 18;

    /// <summary>The work of a changeover, by kind; what is planted already is not in it.</summary>
    public static IReadOnlyList<WorkPart> Of(Changeover change)
    {
        int bulbs = change.ToPlant.Where(IsAtDepth).Sum(i => i.Count);
        return
        [
            .. change
                .ToPlant.Select(i => Setting(change.Planter, i.Plant, i.Count, IsAtDepth(i), bulbs))
                .Append(new WorkPart(WorkKind.SetBack, change.Lifted.Sum(i => i.Count), GroundTimes(change.Planter, isByAuger: false)))
                .Append(new WorkPart(WorkKind.TakeOut, change.Out.Sum(i => i.Count)))
                .Append(new WorkPart(WorkKind.RenewMedium, change.IsPlanted ? 0 : change.Medium?.Litres ?? 0))
                .Where(p => p.Units > 0)
                .GroupBy(p => (p.Kind, p.Times))
                .Select(g => new WorkPart(g.Key.Kind, g.Sum(p => p.Units), g.Key.Times)),
        ];
    }

    /// <summary>Minutes that a changeover takes one person.</summary>
    /// <param name="change">The changeover.</param>
    /// <param name="table">Minutes by kind of work.</param>
    public static int MinutesOf(Changeover change, LabourTable table) => Whole(Of(change).Sum(p => p.MinutesBy(table)));

    /// <summary>Minutes that lifting what stays and setting it back takes one person.</summary>
    public static int SetBackMinutes(Changeover change, LabourTable table) =>
        Whole(Of(change).Where(p => p.Kind == WorkKind.SetBack).Sum(p => p.MinutesBy(table)));

    /// <summary>Minutes that setting some plants and taking them out later takes one person.</summary>
    /// <param name="planter">The planter.</param>
    /// <param name="plants">The kinds, with their lines.</param>
    /// <param name="table">Minutes by kind of work.</param>
    public static int MinutesToSetAndClear(Planter planter, IReadOnlyList<(Plant Plant, DisplayItem Item)> plants, LabourTable table)
    {
        int bulbs = plants.Where(p => p.Plant.Bulb is not null && !p.Item.Forced).Sum(p => p.Item.Count);
        return Whole(
            plants.Sum(p =>
                Setting(planter, p.Plant, p.Item.Count, p.Plant.Bulb is not null && !p.Item.Forced, bulbs).MinutesBy(table)
                + new WorkPart(WorkKind.TakeOut, p.Item.Count).MinutesBy(table)
            )
        );
    }

    /// <summary>The arithmetic behind the minutes of some work.</summary>
    /// <param name="parts">The work, by kind.</param>
    /// <param name="table">Minutes by kind of work.</param>
    public static Working Explain(IReadOnlyList<WorkPart> parts, LabourTable table) =>
        new(
            WorkingKind.LabourMinutes,
            Quantity.Hours(parts.Sum(p => p.MinutesBy(table)) / 60, 1),
            [],
            [
                .. parts.Select(p => new Fact(
                    WorkingPhrase.LabourStep,
                    ("kind", p.Kind),
                    ("units", Quantity.Number(p.Units, 1)),
                    ("minutes", Quantity.Number(table[p.Kind].Minutes, 2)),
                    ("times", Quantity.Number(p.Times, 2)),
                    ("total", Quantity.Number(p.MinutesBy(table), 1)),
                    ("count", table[p.Kind].Times)
                )),
            ]
        );

    private static bool IsAtDepth(ChangeoverItem item) => item.DepthCm is not null && !item.Item.Forced;

    private static WorkPart Setting(Planter planter, Plant plant, int count, bool isAtDepth, int bulbs)
    {
        WorkKind kind = isAtDepth
            ? !planter.Form.IsBed
                ? WorkKind.SetBulbs
                : bulbs >= AugerBulbs
                    ? WorkKind.SetBulbsByAuger
                    : WorkKind.SetBulbsInBed
            : GoodsForm.Of(plant)[0] switch
            {
                { Sort: GoodsSort.Plugs } => WorkKind.SetPlugs,
                { Sort: GoodsSort.Pot, SpreadCm: >= LargePotCm } => WorkKind.SetPots,
                _ => WorkKind.SetPacks,
            };
        return new WorkPart(kind, count, GroundTimes(planter, kind == WorkKind.SetBulbsByAuger));
    }

    // An auger bores through clay as it bores through loam.
    private static double GroundTimes(Planter planter, bool isByAuger) =>
        (planter.Survey.WeedFabric ? FabricTimes : 1) * (planter.Survey.Soil == SoilKind.HeavyClay && !isByAuger ? ClayTimes : 1);

    private static int Whole(double minutes) => (int)Math.Ceiling(minutes - 1e-9);
}

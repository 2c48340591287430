using System.Globalization;
using NodaTime;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Work;

/// <summary>One planter on a day sheet.</summary>
/// <param name="Change">What happens there.</param>
/// <param name="Area">Its area.</param>
/// <param name="FromStock">What of it is taken from the stock.</param>
/// <param name="Steps">What is to be done at this planter, each of a <see cref="StepKind"/>, in order of work.</param>
public sealed record SheetPlanter(Changeover Change, Area Area, IReadOnlyList<StockReservation> FromStock, IReadOnlyList<Fact> Steps)
{
    /// <summary>The planter.</summary>
    public Planter Planter => Change.Planter;

    /// <summary>Minutes that it takes one person.</summary>
    public required int Minutes { get; init; }

    /// <summary>Fresh medium, litres; 0 for none.</summary>
    public double MediumLitres => Change.Medium?.Litres ?? 0;

    /// <summary>A fingerprint of all that the crew is asked to do here; another as soon as any of it changes.</summary>
    public string Mark { get; } =
        Ids.Fingerprint(
            string.Join(
                '\n',
                [
                    Change.Planter.Id,
                    Change.Planter.Name,
                    string.Create(CultureInfo.InvariantCulture, $"{Change.Medium?.Litres ?? 0:0.0}"),
                    .. new[] { Change.Out, Change.Stays, Change.In }.SelectMany(
                        (items, k) =>
                            items.Select(i =>
                                string.Create(
                                    CultureInfo.InvariantCulture,
                                    $"{k} {i.Plant.CommonName} {i.Count} {i.DepthCm:0.#} {i.Item.Fate} {i.Item.Form}"
                                )
                            )
                    ),
                    .. FromStock.Select(r => string.Create(CultureInfo.InvariantCulture, $"{r.Lot.PlantId} {r.Count} {r.Lot.Place}")),
                    .. Steps.Select(s => s.Content),
                ]
            ),
            12
        );
}

/// <summary>One crew's work for one day.</summary>
/// <param name="Turn">The turn that the day belongs to; null for a day in no turn.</param>
/// <param name="Day">The day.</param>
/// <param name="Planters">Planters in order of area.</param>
/// <param name="Cautions">What to take care of, each of a <see cref="CautionKind"/> and once.</param>
public sealed record DaySheet(Turn? Turn, LocalDate Day, IReadOnlyList<SheetPlanter> Planters, IReadOnlyList<Fact> Cautions)
{
    /// <summary>Steps that hold wherever something goes in, said once instead of at each; empty where one planter alone is planted.</summary>
    public IReadOnlyList<Fact> Everywhere { get; } =
        Planters.Where(p => p.Change.In.Count > 0).Select(p => p.Steps).ToList() is { Count: > 1 } planted
            ? [.. planted[0].Where(s => planted.TrueForAll(p => p.Contains(s)))]
            : [];

    /// <summary>A fingerprint of the whole sheet, short enough to be printed: paper that bears another is out of date.</summary>
    public string Mark { get; } = Ids.Fingerprint(string.Join('\n', Planters.Select(p => p.Mark)), 6);

    /// <summary>The days of a turn on which anything goes in or comes out.</summary>
    public static IReadOnlyList<LocalDate> DaysOf(Plan plan, Turn turn) =>
        [.. plan.Displays.SelectMany(Changeover.DaysOf).Where(turn.Holds).Distinct().Order()];

    /// <summary>Makes the sheet of one day, in a turn or not.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="day">The day.</param>
    /// <param name="today">Today: what was to be planted before no longer takes from the stock. By default the sheet's day.</param>
    public static DaySheet For(Plan plan, LocalDate day, LocalDate? today = null)
    {
        IReadOnlyList<Changeover> changes = Changeover.ToCome(plan, today is { } now && now < day ? now : day, day);
        var reserved = StockReservation
            .Of(plan, changes.Where(c => !(c.Day < today)))
            .Where(r => r.Day == day)
            .ToLookup(r => r.PlanterId, StringComparer.Ordinal);
        var here = changes.Where(c => c.Day == day).ToLookup(c => c.Planter.AreaId, StringComparer.Ordinal);
        List<SheetPlanter> planters =
        [
            .. plan.Areas.SelectMany(a =>
                here[a.Id]
                    .Select(c => new SheetPlanter(c, a, [.. reserved[c.Planter.Id]], [.. Steps(plan, c)])
                    {
                        Minutes = Labour.MinutesOf(c, plan.Records.Labour),
                    })
            ),
        ];
        return new DaySheet(
            plan.Turns.FirstOrDefault(t => t.Holds(day)),
            day,
            planters,
            [.. Care(planters), .. RuleSteps.Pests(plan, planters.Select(p => p.Planter))]
        );
    }

    private static IEnumerable<Fact> Steps(Plan plan, Changeover change)
    {
        if (change.Planter.Watering == Watering.Drip)
            yield return new Fact(StepKind.DripLineOut);
        if (change.Lifted.Count > 0)
            yield return new Fact(
                StepKind.LiftAndSetBack,
                ("plants", change.Lifted.Select(i => new Fact(Phrase.CountOf, ("count", i.Count), ("plant", i.Plant))).ToList()),
                ("minutes", Labour.SetBackMinutes(change, plan.Records.Labour))
            );
        else if (change.DigDepthCm is { } dig && change.In.Any(i => i.Display.Layer != DisplayLayer.Bulbs))
            yield return new Fact(StepKind.DigNoDeeper, ("depth", Quantity.Depth(Math.Floor(dig))));
        foreach (Fact step in RuleSteps.For(plan, change))
            yield return step;
        if (change.SetsBulbs)
            yield return new Fact(StepKind.DeepestFirst);
        if (change.In.Any(i => i.Display.Layer != DisplayLayer.Bulbs && i.Plant.LifeForm != LifeForm.CutStems))
            yield return new Fact(StepKind.SetOutInPots);
        if (
            change.In.Any(i => i.DepthCm is not null && i.Plant.Bulb is { ColdWeeksHigh: > 0 })
            && !FeedLine.IsGrowingSeason(change.Day, plan.Site.IsSouthern)
        )
            yield return new Fact(StepKind.WaterUntilFrozen);
    }

    private static List<Fact> Care(List<SheetPlanter> planters)
    {
        var care = planters
            .SelectMany(p => p.Change.In.Concat(p.Change.Out))
            .SelectMany(i => i.Plant.Cautions)
            .Distinct(StringComparer.Ordinal)
            .Select(c => new Fact(CautionKind.OfPlant, ("text", c)))
            .ToList();
        if (planters.Exists(p => p.Planter.Form.IsBed && p.Change.In.Where(i => i.DepthCm is not null).Sum(i => i.Count) >= Labour.AugerBulbs))
            care.Add(new Fact(CautionKind.PoweredAuger));
        if (planters.Exists(p => p.Change.SetsBulbs))
            care.Add(new Fact(CautionKind.Kneeling));
        if (planters.Exists(p => p.Planter.Form is { IsBed: false, FullLitres: > 40 }))
            care.Add(new Fact(CautionKind.HeavyPots));
        if (planters.Exists(p => p.Change.In.Any(i => i.DepthCm is null)))
            care.Add(new Fact(CautionKind.Knife));
        return care;
    }
}

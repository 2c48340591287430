using NodaTime;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Work;

namespace UnrulyMeadow.Core.Ahead;

/// <summary>What one plan year costs, guide prices of the palette without inflation.</summary>
/// <param name="Bulbs">Bulbs.</param>
/// <param name="Bedding">Seasonal plants.</param>
/// <param name="Standing">What stands for years.</param>
/// <param name="Losses">What winter is expected to take of plants that stand for years, bought again.</param>
/// <param name="Medium">Medium.</param>
public sealed record YearCost(decimal Bulbs, decimal Bedding, decimal Standing, decimal Losses, decimal Medium)
{
    /// <summary>All of it.</summary>
    public decimal Total => Bulbs + Bedding + Standing + Losses + Medium;
}

/// <summary>One of the years ahead.</summary>
/// <param name="Start">First day of the plan year.</param>
/// <param name="Year">The season's year over all planters.</param>
/// <param name="Cost">What is bought in it.</param>
/// <param name="BulbCount">Bulbs planted in it.</param>
/// <param name="BeddingCount">Seasonal plants set out in it.</param>
/// <param name="Added">Displays that the plan does not hold yet and that go in in this year.</param>
/// <param name="Changed">Displays of the plan that stay longer than planned, beyond a lift day in this year.</param>
public sealed record OneYearAhead(
    LocalDate Start,
    SiteYear Year,
    YearCost Cost,
    int BulbCount,
    int BeddingCount,
    IReadOnlyList<Display> Added,
    IReadOnlyList<Display> Changed
)
{
    /// <summary>Mean days in colour of a planter.</summary>
    public double MeanDaysInColour => Year.Planters.Count == 0 ? 0 : Year.Planters.Average(p => (double)p.DaysInColour);

    /// <summary>The arithmetic behind the cost.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.PlanYearCost,
            Quantity.Money(Cost.Total),
            [
                new WorkingInput(
                    InputName.Bulbs,
                    new Fact(WorkingPhrase.PlanYearCostBulbs, ("bulbCount", BulbCount), ("bulbs", Quantity.Money(Cost.Bulbs)))
                ),
                new WorkingInput(
                    InputName.SeasonalPlants,
                    new Fact(WorkingPhrase.PlanYearCostSeasonalPlants, ("beddingCount", BeddingCount), ("bedding", Quantity.Money(Cost.Bedding)))
                ),
                new WorkingInput(InputName.WhatStandsForYears, Quantity.Money(Cost.Standing)),
                new WorkingInput(InputName.ExpectedWinterLossesOfIt, Quantity.Money(Cost.Losses)),
                new WorkingInput(InputName.Medium, Quantity.Money(Cost.Medium)),
            ]
        )
        {
            Parts = [("start", Start)],
        };
}

/// <summary>The years ahead of a site: colour, cost and what falls due.</summary>
/// <param name="Ahead">The plan carried on.</param>
/// <param name="Years">Year by year.</param>
public sealed record YearsAhead(PlanAhead Ahead, IReadOnlyList<OneYearAhead> Years)
{
    /// <summary>Cost of all years.</summary>
    public decimal Cost => Years.Sum(y => y.Cost.Total);

    /// <summary>Carries a plan on and computes each of its years.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="question">How far, and how.</param>
    /// <param name="kernels">The season's kernel of a plan year.</param>
    /// <param name="done">Told the count of years done.</param>
    /// <param name="cancel">Stops the work.</param>
    /// <exception cref="InvalidInputException">The question is faulty.</exception>
    public static YearsAhead Of(
        Plan plan,
        AheadQuestion question,
        Func<LocalDate, SeasonKernel> kernels,
        IProgress<int>? done = null,
        CancellationToken cancel = default
    )
    {
        PlanAhead ahead = PlanAhead.Of(plan, question, kernels, cancel);
        var known = plan.Displays.ToDictionary(d => d.Id, StringComparer.Ordinal);
        var years = new List<OneYearAhead>();
        for (int y = 0; y < question.Years; y++)
        {
            LocalDate start = question.Start.PlusYears(y);
            LocalDate end = start.PlusYears(1);
            SeasonKernel kernel = kernels(start);
            SiteYear year = kernel.Of(ahead.Plan, cancel: cancel);
            List<Display> goesIn = [.. ahead.Plan.Displays.Where(d => d.Install >= start && d.Install < end)];
            years.Add(
                new OneYearAhead(
                    start,
                    year,
                    CostOf(ahead.Plan, kernel, start),
                    goesIn.Where(d => d.Layer == DisplayLayer.Bulbs).Sum(d => d.Items.Sum(i => i.Count)),
                    goesIn.Where(d => d.Layer == DisplayLayer.Seasonal).Sum(d => d.Items.Sum(i => i.Count)),
                    [.. goesIn.Where(d => !known.ContainsKey(d.Id))],
                    [
                        .. ahead.Plan.Displays.Where(d =>
                            known.TryGetValue(d.Id, out Display? was) && was.Lift != d.Lift && was.Lift >= start && was.Lift < end
                        ),
                    ]
                )
            );
            done?.Report(y + 1);
        }
        return new YearsAhead(ahead, years);
    }

    private static YearCost CostOf(Plan plan, SeasonKernel kernel, LocalDate start)
    {
        decimal bulbs = 0;
        decimal bedding = 0;
        decimal standing = 0;
        decimal medium = 0;
        IReadOnlyList<Changeover> changes = Changeover.Between(plan, start, start.PlusMonths(12).PlusDays(-1));
        IReadOnlyList<StockReservation> reserved = StockReservation.Of(plan, changes);
        for (int m = 0; m < 12; m++)
        {
            LocalDate first = start.PlusMonths(m);
            TurnOrder order = TurnOrder.From(plan, new Turn("month", "month", first, first.PlusMonths(1).PlusDays(-1)), changes, reserved);
            medium += order.MediumCost;
            foreach (OrderLine line in order.Lines)
            {
                if (line.Plant.Bulb is not null)
                    bulbs += line.Purchase.Cost;
                else if (line.Plant.LifeForm is LifeForm.Shrub or LifeForm.Tree)
                    standing += line.Purchase.Cost;
                else
                    bedding += line.Purchase.Cost;
            }
        }
        return new YearCost(bulbs, bedding, standing, Losses(plan, kernel, start), medium);
    }

    private static decimal Losses(Plan plan, SeasonKernel kernel, LocalDate start)
    {
        decimal sum = 0;
        foreach (Planter planter in plan.Planters.Where(p => !p.IsRetired))
        {
            foreach (
                PlantedItem item in PlantedItem.Of(plan, planter, start, start.PlusMonths(12)).Where(i => i.Display.Layer == DisplayLayer.Standing)
            )
            {
                PlantYear[] years = kernel.Follow(item.Plant, item.Standing).Years;
                if (years.Length == 0)
                    continue;
                double share = years.Count(y => y.Loss is LossKind.Frost or LossKind.Roots) / (double)years.Length;
                sum += item.Count * (decimal)share * item.Plant.Packs.Min(p => p.Price / p.Size);
            }
        }
        return Math.Round(sum, 2);
    }
}

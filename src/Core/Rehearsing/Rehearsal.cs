using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Rehearsing;

/// <summary>What is rehearsed.</summary>
public enum RehearsalKind
{
    /// <summary>The hardest winter on record comes.</summary>
    HardestWinter,

    /// <summary>The latest spring on record comes.</summary>
    LateSpring,

    /// <summary>A fortnight at 35 °C comes in the hottest part of every year.</summary>
    Heatwave,

    /// <summary>What is still to go in arrives two weeks late.</summary>
    StockLate,

    /// <summary>Half the crew: every turn still ahead takes twice as long.</summary>
    HalfCrew,
}

/// <summary>Plants that a rehearsal loses in one planter.</summary>
/// <param name="Planter">The planter.</param>
/// <param name="Display">The display.</param>
/// <param name="Plant">The plant.</param>
/// <param name="Count">How many.</param>
/// <param name="Kind">To what.</param>
/// <param name="On">When.</param>
/// <param name="Cost">What it would cost to buy them again, guide prices.</param>
public sealed record RehearsalLoss(Planter Planter, Display Display, Plant Plant, int Count, LossKind Kind, LocalDate On, decimal Cost);

/// <summary>A site's year as it would be if something went wrong, beside the year as planned.</summary>
/// <param name="Kind">What is rehearsed.</param>
/// <param name="Says">What, with the figures of the year that is taken: a <see cref="RehearsalPhrase"/>.</param>
/// <param name="Planned">The year as planned, over the same kind of weather without the mishap.</param>
/// <param name="Under">The year under the mishap.</param>
/// <param name="Losses">Plants lost, the dearest first.</param>
/// <param name="Covered">Planter-days of colour that covers on frost nights and wrapped pots would save.</param>
/// <param name="SavedByCover">Plants that covers would save.</param>
/// <param name="Reserve">Plants to hold in reserve to make the losses good, by kind.</param>
public sealed record RehearsalResult(
    RehearsalKind Kind,
    Fact Says,
    SiteYear Planned,
    SiteYear Under,
    IReadOnlyList<RehearsalLoss> Losses,
    int Covered,
    IReadOnlyList<RehearsalLoss> SavedByCover,
    IReadOnlyList<(Plant Plant, int Count)> Reserve
)
{
    /// <summary>What the year of the mishap is set beside: the odds of all years, or one typical year.</summary>
    public Fact Beside { get; init; } = new(RehearsalPhrase.AsPlanned);

    /// <summary>Planters whose roots or leaves heat harms, the worst first; empty for other mishaps.</summary>
    public IReadOnlyList<HeatStress> Heat { get; init; } = [];

    /// <summary>Planter-days in colour lost.</summary>
    public int DaysLost => Planned.Planters.Sum(p => p.DaysInColour) - Under.Planters.Sum(p => p.DaysInColour);

    /// <summary>Planter by planter, those that lose most first.</summary>
    public YearComparison Comparison => YearComparison.Of(Planned, Under);

    /// <summary>The arithmetic behind it.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.RehearsalResult,
            new Fact(WorkingPhrase.PlanterDaysColourLost, ("daysLost", DaysLost)),
            [
                new WorkingInput(Beside, new Fact(WorkingPhrase.PlanterDaysInColour, ("daysInColour", Planned.Planters.Sum(p => p.DaysInColour)))),
                new WorkingInput(InputName.UnderIt, Under.Planters.Sum(p => p.DaysInColour)),
                new WorkingInput(
                    InputName.PlantsLost,
                    Losses.Count == 0
                        ? (object?)WorkingPhrase.None
                        : new Fact(WorkingPhrase.BuyAgain, ("losses", Losses.Sum(l => l.Count)), ("cost", Quantity.Money(Losses.Sum(l => l.Cost))))
                ),
                new WorkingInput(
                    InputName.SavedByCovers,
                    new Fact(WorkingPhrase.PlanterDaysPlants, ("covered", Covered), ("savedByCover", SavedByCover.Sum(l => l.Count)))
                ),
            ]
        )
        {
            Parts = [("figure", Says)],
        };
}

/// <summary>Rehearses what may go wrong.</summary>
/// <param name="plan">The plan.</param>
/// <param name="kernel">The season's kernel of the plan year, over all weather years.</param>
/// <param name="record">The weather.</param>
/// <param name="today">Nothing before this day changes.</param>
/// <param name="done">Told the count of steps done: the year as planned, under the mishap, and with covers.</param>
/// <param name="cancel">Stops the work.</param>
public sealed class Rehearsal(
    Plan plan,
    SeasonKernel kernel,
    WeatherRecord record,
    LocalDate today,
    IProgress<int>? done = null,
    CancellationToken cancel = default
)
{
    /// <summary>How much warmer a cover keeps tops on a frost night, °C (from memory: fleece, 2–4).</summary>
    public const double CoverC = 3;

    /// <summary>Days that late stock is late.</summary>
    public const int LateDays = 14;

    /// <summary>Days of the rehearsed heat.</summary>
    public const int HotDays = 14;

    /// <summary>Highest of each rehearsed hot day, °C.</summary>
    public const double HotC = 35;

    /// <summary>Lowest of each rehearsed hot day, °C.</summary>
    public const double HotNightC = 22;

    /// <summary>Steps of a rehearsal, of which it tells.</summary>
    public const int Steps = 3;

    private readonly LocalDate _start = kernel.Start;

    /// <summary>Rehearses one mishap.</summary>
    /// <param name="kind">What.</param>
    /// <exception cref="InvalidInputException">There is no weather to rehearse with.</exception>
    public RehearsalResult Of(RehearsalKind kind)
    {
        if (kernel.Seasons.Count == 0)
            throw new InvalidInputException("weather", "there is none yet: bring in a station's record, and rehearsals can be made");
        NotableRuns runs = NotableRuns.Of(
            kernel.Seasons,
            _start,
            [.. plan.Planters.Where(p => !p.IsRetired).Select(p => p.ThermalClass())],
            record.Station.IsSouthern
        )!;
        return kind switch
        {
            RehearsalKind.HardestWinter => OneYear(
                kind,
                runs.HardestWinter,
                runs.Typical,
                new Fact(
                    RehearsalPhrase.HardWinter,
                    ("year", Name(runs.HardestWinter)),
                    ("roots", Quantity.Celsius(runs.HardestRootC, 1)),
                    ("air", Quantity.Celsius(runs.HardestAirC, 1))
                )
            ),
            RehearsalKind.LateSpring => OneYear(
                kind,
                runs.LatestSpring,
                runs.Typical,
                new Fact(RehearsalPhrase.LateSpring, ("year", Name(runs.LatestSpring)))
            ),
            RehearsalKind.Heatwave => Heatwave(),
            RehearsalKind.StockLate => Shifted(kind, new Fact(RehearsalPhrase.StockLate, ("days", LateDays)), (_, _) => LateDays),
            _ => Shifted(kind, new Fact(RehearsalPhrase.HalfTheCrew), (turn, display) => Period.DaysBetween(turn.FirstDay, display.Install)),
        };
    }

    private string Name(int year) => WeatherYear.Name(year, spansNewYear: _start.Month > 1);

    private RehearsalResult OneYear(RehearsalKind kind, int year, int typical, Fact said)
    {
        var one = new SeasonKernel(record, _start, [kernel.Seasons.First(s => s.Run.Year == year).Run]);
        return Result(kind, said, kernel.Of(plan, typical), one, plan, one) with
        {
            Beside = new Fact(RehearsalPhrase.InTheTypicalYear, ("year", Name(typical))),
        };
    }

    private RehearsalResult Heatwave()
    {
        // The fortnight lies where days are hottest over all years.
        int zero = kernel.Seasons[0].Run.IndexOf(_start);
        int hottest = Enumerable
            .Range(0, kernel.Days - HotDays)
            .MaxBy(d => kernel.Seasons.Sum(s => Enumerable.Range(zero + d, HotDays).Sum(i => s.Run.MaxC[i])));
        LocalDate first = _start.PlusDays(hottest);
        WeatherRecord heated = record.WithHeat(first, HotDays, HotNightC, HotC);
        var hot = new SeasonKernel(heated, _start);
        RehearsalResult result = Result(
            RehearsalKind.Heatwave,
            new Fact(RehearsalPhrase.Heatwave, ("hottest", Quantity.Celsius(HotC)), ("from", first)),
            kernel.Of(plan, cancel: cancel),
            hot,
            plan,
            hot
        );
        return result with
        {
            Heat =
            [
                .. plan
                    .Planters.Where(p => !p.IsRetired)
                    .Select(p => HeatStress.Of(plan, p, heated, first, HotDays))
                    .OfType<HeatStress>()
                    .OrderByDescending(h => h.RootDays)
                    .ThenByDescending(h => h.HottestRootC),
            ],
        };
    }

    private RehearsalResult Shifted(RehearsalKind kind, Fact said, Func<Turn, Display, int> late)
    {
        Plan shifted = Late(late);
        return Result(kind, said, kernel.Of(plan, cancel: cancel), kernel, shifted, kernel);
    }

    // What goes in later than today comes late by so many days; what it replaces stays until then.
    private Plan Late(Func<Turn, Display, int> late)
    {
        var moved = new Dictionary<string, Display>(StringComparer.Ordinal);
        foreach (Display display in plan.Displays.Where(d => d.Install > today && d.Install < _start.PlusMonths(12)))
        {
            Turn turn = plan.Turns.FirstOrDefault(t => t.Holds(display.Install)) ?? new Turn("alone", "alone", display.Install, display.Install);
            int days = Math.Min(late(turn, display), Period.DaysBetween(display.Install, display.Lift) - 1);
            if (days <= 0)
                continue;
            moved[display.Id] = (moved.GetValueOrDefault(display.Id) ?? display) with
            {
                Install = display.Install.PlusDays(days),
                Cuts = [.. display.Cuts.Where(c => c.Day > display.Install.PlusDays(days))],
            };
            if (plan.DisplaysOf(display.PlanterId).LastOrDefault(d => d.Layer == display.Layer && d.Lift == display.Install) is { } before)
                moved[before.Id] = (moved.GetValueOrDefault(before.Id) ?? before) with { Lift = before.Lift.PlusDays(days) };
        }
        return plan.Changed(moved.Keys, [.. moved.Values.Select(d => d.Install < d.Lift ? d : d with { Lift = d.Install.PlusDays(1) })]);
    }

    private RehearsalResult Result(RehearsalKind kind, Fact said, SiteYear planned, SeasonKernel weather, Plan under, SeasonKernel cover)
    {
        done?.Report(1);
        SiteYear year = weather.Of(under, cancel: cancel);
        List<RehearsalLoss> losses = Losses(under, weather);
        done?.Report(2);
        Plan covered = Covered(under);
        SiteYear withCover = cover.Of(covered, cancel: cancel);
        List<RehearsalLoss> still = Losses(covered, cover);
        done?.Report(Steps);
        return new RehearsalResult(
            kind,
            said,
            planned,
            year,
            losses,
            withCover.Planters.Sum(p => p.DaysInColour) - year.Planters.Sum(p => p.DaysInColour),
            [.. losses.Where(l => !still.Any(s => s.Display.Id == l.Display.Id && s.Plant.Id == l.Plant.Id && s.On <= l.On))],
            [
                .. losses
                    .GroupBy(l => l.Plant.Id, StringComparer.Ordinal)
                    .Select(g => (g.First().Plant, g.Sum(l => l.Count)))
                    .OrderByDescending(r => r.Item2),
            ]
        );
    }

    // What most of the weather years laid over the plan take, before it would come out anyway.
    private List<RehearsalLoss> Losses(Plan under, SeasonKernel weather)
    {
        var losses = new List<RehearsalLoss>();
        foreach (Planter planter in under.Planters.Where(p => !p.IsRetired))
        {
            cancel.ThrowIfCancellationRequested();
            foreach (PlantedItem item in PlantedItem.Of(under, planter, _start, _start.PlusMonths(12)))
            {
                PlantYear[] lost = [.. weather.Follow(item.Plant, item.Standing).Years.Where(y => y.Loss != LossKind.None).OrderBy(y => y.LostOn)];
                if (lost.Length * 2 <= weather.WeatherYears.Count)
                    continue;
                PlantYear middle = lost[lost.Length / 2];
                decimal cost = PackPurchase.Cheapest(Math.Min(item.Count, PackPurchase.MostPlants), item.Plant.Packs).Cost;
                losses.Add(
                    new RehearsalLoss(
                        planter,
                        item.Display,
                        item.Plant,
                        item.Count,
                        middle.Loss,
                        _start.PlusDays(middle.LostOn),
                        middle.Loss == LossKind.Tops ? 0 : cost
                    )
                );
            }
        }
        return [.. losses.OrderByDescending(l => l.Cost)];
    }

    // Covers on frost nights keep tops warmer; containers are wrapped.
    private static Plan Covered(Plan under) =>
        new(
            under.Site,
            under.Areas,
            [
                .. under.Planters.Select(p =>
                    p with
                    {
                        Survey = p.Survey with
                        {
                            FrostPocketC = Math.Max(-3, p.Survey.FrostPocketC - CoverC),
                            Shelter = p.Form.IsBed ? p.Survey.Shelter : WinterShelter.Wrapped,
                        },
                    }
                ),
            ],
            under.Palette,
            under.Displays,
            under.Turns,
            under.Map,
            under.Lots,
            under.Recipes,
            under.Events
        );
}

using NodaTime;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Work;
using UnrulyMeadow.Exchange.PlanFiles;

namespace UnrulyMeadow.Core.Tests.Work;

/// <summary>A crew that does what the demo's sheets say, with what its orders bought, through the whole plan year.</summary>
public sealed class YearOfSheetsTests
{
    private static readonly Plan Demo = Read();

    [Fact]
    public void Ends_with_every_planter_as_the_plan_shows_it_with_nothing_short_and_no_bulb_cut()
    {
        LocalDate first = Demo.Turns.Min(t => t.FirstDay);
        LocalDate last = Demo.Turns.Max(t => t.LastDay);
        // What stands in each planter, by layer and kind, as the crew finds it on the first morning.
        var ground = Demo.Planters.ToDictionary(p => p.Id, p => Stands(p.Id, first.PlusDays(-1)), StringComparer.Ordinal);
        var lies = Demo.Planters.ToDictionary(p => p.Id, _ => new Dictionary<(string Display, string Plant), double>(), StringComparer.Ordinal);
        var yard = new Dictionary<string, int>(StringComparer.Ordinal);
        var kept = new Dictionary<string, int>(StringComparer.Ordinal);
        var delivered = new HashSet<string>(StringComparer.Ordinal);
        var filled = Demo.Planters.ToDictionary(p => p.Id, _ => 0.0, StringComparer.Ordinal);
        for (LocalDate day = first; day <= last; day = day.PlusDays(1))
        {
            foreach (Turn turn in Demo.Turns.Where(t => t.Holds(day) && delivered.Add(t.Id)))
            {
                foreach (OrderLine line in TurnOrder.For(Demo, turn, first).Lines)
                    yard[line.Plant.Id] = yard.GetValueOrDefault(line.Plant.Id) + line.Purchase.Bought;
            }
            foreach (SheetPlanter job in DaySheet.For(Demo, day, first).Planters)
            {
                var here = ground[job.Planter.Id];
                foreach (Lot lot in KeptPlants.ToPlantAgain(job.Change, Demo.Lots))
                    kept[lot.PlantId] = kept.GetValueOrDefault(lot.PlantId) + lot.Count;
                foreach (StockReservation r in job.FromStock.Where(r => r.IsToCome))
                {
                    kept[r.Lot.PlantId] = kept.GetValueOrDefault(r.Lot.PlantId) - r.Count;
                    Assert.True(
                        kept[r.Lot.PlantId] >= 0,
                        $"{job.Planter.Name}, {day}: {r.Count} {r.Lot.PlantId} were to come out of another planter and did not"
                    );
                }
                foreach (ChangeoverItem i in job.Change.Out)
                {
                    here[(i.Display.Layer, i.Plant.Id)] -= i.Count;
                    Assert.True(
                        here[(i.Display.Layer, i.Plant.Id)] >= 0,
                        $"{job.Planter.Name}, {day}: {i.Count} {i.Plant.Id} are to come out that do not stand there"
                    );
                    lies[job.Planter.Id].Remove((i.Display.Id, i.Plant.Id));
                }
                // Nothing is dug through bulbs that lie there.
                double dug = Math.Max(job.Change.Medium?.DepthCm ?? 0, 0);
                Assert.All(lies[job.Planter.Id].Values, tip =>
                    Assert.True(dug < tip, $"{job.Planter.Name}, {day}: dug to {dug} cm over bulbs {tip} cm down")
                );
                filled[job.Planter.Id] += job.MediumLitres;
                foreach (ChangeoverItem i in job.Change.In)
                {
                    here[(i.Display.Layer, i.Plant.Id)] = here.GetValueOrDefault((i.Display.Layer, i.Plant.Id)) + i.Count;
                    yard[i.Plant.Id] =
                        yard.GetValueOrDefault(i.Plant.Id)
                        - i.Count
                        + job.FromStock.Where(r => r.Lot.PlantId == i.Plant.Id && r.DisplayId == i.Display.Id).Sum(r => r.Count);
                    Assert.True(yard[i.Plant.Id] >= 0, $"{job.Planter.Name}, {day}: {-yard[i.Plant.Id]} {i.Plant.Id} are short");
                    if (i.CoverCm is { } cover)
                        lies[job.Planter.Id][(i.Display.Id, i.Plant.Id)] = cover;
                }
            }
        }
        foreach ((string planter, var here) in ground)
            Assert.Equal(Stands(planter, last).Where(s => s.Value > 0).OrderBy(s => s.Key), here.Where(s => s.Value > 0).OrderBy(s => s.Key));
        Assert.All(Demo.Planters.Where(p => !p.Form.IsBed), p =>
            Assert.True(filled[p.Id] <= p.Form.PlantableLitres + 1e-6, $"{p.Name} takes {filled[p.Id]:0} L")
        );
    }

    private static Dictionary<(DisplayLayer Layer, string Plant), int> Stands(string planter, LocalDate day) =>
        Demo.DisplaysOf(planter)
            .Where(d => d.StandsOn(day))
            .SelectMany(d => d.Items.Where(i => !(i.Since > day)).Select(i => (d.Layer, i.PlantId, i.Count)))
            .GroupBy(x => (x.Layer, x.PlantId))
            .ToDictionary(g => g.Key, g => g.Sum(x => x.Count));

    private static Plan Read()
    {
        using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "data", "kittiwake-quay.plan.json"));
        return PlanFile.Read(file);
    }
}

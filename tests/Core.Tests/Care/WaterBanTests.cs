using NodaTime;
using UnrulyMeadow.Core.Care;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Tests.Care;

/// <summary>A water ban: no drop more than is allowed, and a litre goes where it saves most.</summary>
public sealed class WaterBanTests
{
    private static readonly LocalDate Day = A.Day(2027, 7, 20);

    private static readonly Plant Thirsty = A.Annual("petunia");
    private static readonly Plant Dry = A.Annual("stonecrop") with { Water = WaterNeed.Low };

    private static (Plan Plan, IReadOnlyList<WaterStop> Round) Site(params (string Plant, int Count, double Litres, LocalDate Lift)[] planters)
    {
        Plan plan = A.Plan(
            [.. planters.Select((_, i) => A.Pot(id: $"pot-{i}") with { Name = $"Pot {i}" })],
            [Thirsty, Dry],
            [
                .. planters.Select(
                    (p, i) =>
                        A.Show($"show-{i}", A.Day(2027, 5, 15), p.Lift, DisplayLayer.Seasonal, new DisplayItem(p.Plant, p.Count)) with
                        {
                            PlanterId = $"pot-{i}",
                        }
                ),
            ]
        );
        return (plan, [.. plan.Planters.Select((p, i) => new WaterStop(p, WaterReason.Dry, 1, planters[i].Litres))]);
    }

    [Fact, CommonPractice]
    public void What_is_lifted_soon_and_what_bears_drought_is_let_go_first()
    {
        LocalDate october = A.Day(2027, 10, 10);
        (Plan plan, IReadOnlyList<WaterStop> round) = Site(
            ("petunia", 8, 10, october),
            ("petunia", 8, 10, Day.PlusDays(4)),
            ("stonecrop", 8, 10, october)
        );
        WaterBan ban = WaterBan.Of(plan, round, Day, 20);
        Assert.Equal(["pot-1"], ban.LetGo.Select(s => s.Stop.Planter.Id));
        ban = WaterBan.Of(plan, round, Day, 12);
        Assert.Equal(["pot-1", "pot-2"], ban.LetGo.Select(s => s.Stop.Planter.Id));
        Assert.Equal(3, WaterBan.Of(plan, round, Day, 0).LetGo.Count);
    }

    [Fact]
    public void Over_random_rounds_no_drop_is_given_twice_and_nobody_goes_dry_for_one_who_loses_less()
    {
        var random = new Random(9);
        for (int run = 0; run < 60; run++)
        {
            (Plan plan, IReadOnlyList<WaterStop> round) = Site([
                .. Enumerable
                    .Range(0, 2 + random.Next(20))
                    .Select(_ =>
                        (
                            random.Next(2) == 0 ? "petunia" : "stonecrop",
                            1 + random.Next(30),
                            0.5 + random.Next(200) / 10.0,
                            Day.PlusDays(1 + random.Next(80))
                        )
                    ),
            ]);
            double allowed = random.NextDouble() * round.Sum(s => s.Litres);
            WaterBan ban = WaterBan.Of(plan, round, Day, allowed);
            Assert.True(ban.Watered.Sum(s => s.Stop.Litres) <= allowed + 1e-6);
            Assert.Equal(
                round.Select(s => s.Planter.Id).Order(StringComparer.Ordinal),
                ban.Watered.Concat(ban.LetGo).Select(s => s.Stop.Planter.Id).Order(StringComparer.Ordinal)
            );
            double left = allowed - ban.Watered.Sum(s => s.Stop.Litres);
            Assert.All(ban.LetGo, dry => Assert.True(dry.Stop.Litres > left));
            Assert.All(ban.LetGo, dry =>
                Assert.All(ban.Watered.Where(w => w.Stop.Litres >= dry.Stop.Litres), w => Assert.True(w.Worth >= dry.Worth))
            );
        }
    }

    [Fact]
    public void The_rounds_of_a_day_are_what_the_ban_leaves()
    {
        (Plan plan, IReadOnlyList<WaterStop> _) = Site(("petunia", 24, 1, A.Day(2027, 10, 10)), ("petunia", 3, 1, A.Day(2027, 7, 24)));
        List<CareDay> days = [.. Enumerable.Range(-30, 38).Select(i => CareDay.Of(Day.PlusDays(i), 20, 36, 0, 45, CareDaySource.Measured))];
        // The crew watered ten days ago, and says so.
        CareDone[] told = [.. plan.Planters.Select(p => new CareDone(p.Id, null, CareWork.Water, Day.PlusDays(-10)))];
        CareNow With(double? litres) =>
            CareNow.Of(new CareQuestion(plan, null, null, days, [], Day, told, 40, IsWaterTold: true) { WaterLitresADay = litres });
        IReadOnlyList<WaterStop> free = With(null).Round(Day);
        Assert.Equal(2, free.Count);
        Assert.Null(With(free.Sum(s => s.Litres)).Ban(Day));
        CareNow banned = With(free[0].Litres);
        Assert.Equal(free[0], Assert.Single(banned.Round(Day)));
        Assert.Equal("pot-1", Assert.Single(banned.Ban(Day)!.LetGo).Stop.Planter.Id);
        // Tasks ask for no more than the page shows.
        Assert.Equal(1, banned.Tasks([CareWork.Water]).Sum(t => t.Lines.Count));
    }
}

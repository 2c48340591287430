using CsCheck;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Tests.Planning;

/// <summary>A plan made of the one before and what changed is the plan that reading all anew would give.</summary>
public sealed class PlanChangeTests
{
    private static readonly Plant[] Kinds = [A.Annual("pansy"), A.Annual("petunia"), A.Tulip("tulip"), A.Tulip("crocus", height: 2, diameter: 2)];

    [Fact]
    public void What_is_looked_at_after_a_change_finds_just_what_looking_at_all_would_find() =>
        Gen.Int[0, 1_000_000]
            .Sample(
                seed =>
                {
                    var random = new Random(seed);
                    Plan plan = Start(random);
                    for (int step = 0; step < 6; step++)
                    {
                        PlanParts next = plan.Parts;
                        for (int edits = random.Next(1, 4); edits > 0; edits--)
                            next = Edited(next, random);
                        Plan quick = Plan.Fitting(next, plan, out IReadOnlyList<SetAside> asideQuick);
                        Plan whole = Plan.Fitting(next, null, out IReadOnlyList<SetAside> asideWhole);
                        Assert.Equal(asideWhole, asideQuick);
                        Assert.Equal(whole.Displays, quick.Displays);
                        Assert.Equal(whole.Planters, quick.Planters);
                        foreach (Planter p in whole.Planters)
                        {
                            Assert.Equal(whole.DisplaysOf(p.Id), quick.DisplaysOf(p.Id));
                            Assert.Same(p, quick.FindPlanter(p.Id));
                        }
                        Assert.All(whole.Palette, p => Assert.Same(p, quick.FindPlant(p.Id)));
                        Assert.Null(quick.FindPlanter("nobody"));
                        Assert.Empty(quick.DisplaysOf("nobody"));
                        plan = quick;
                    }
                },
                iter: 400
            );

    [Fact]
    public void A_year_taken_over_from_the_plan_before_is_the_year_computed_anew()
    {
        WeatherRecord record = A.Record(2001, 5, A.Mild);
        Gen.Int[0, 1_000_000]
            .Sample(
                seed =>
                {
                    var random = new Random(seed);
                    Plan plan = Start(random);
                    var kernel = new SeasonKernel(record, A.Day(2026, 9, 1));
                    kernel.Of(plan);
                    for (int step = 0; step < 5; step++)
                    {
                        plan = Plan.Fitting(Edited(plan.Parts, random), plan, out _);
                        SiteYear taken = kernel.Of(plan);
                        SiteYear anew = new SeasonKernel(record, A.Day(2026, 9, 1)).Of(plan);
                        Assert.Equal(anew.Planters.Select(s => s.Planter), taken.Planters.Select(s => s.Planter));
                        Assert.Equal(anew.Planters.SelectMany(s => s.ShareInColour), taken.Planters.SelectMany(s => s.ShareInColour));
                    }
                },
                iter: 12
            );
    }

    [Fact]
    public void Of_a_thousand_planters_only_those_that_stand_otherwise_are_named()
    {
        Planter[] pots = [.. Enumerable.Range(0, 1000).Select(i => A.Pot(id: $"p{i}"))];
        Display[] shows = [.. pots.Select((p, i) => Standing($"d{i}", p.Id, Kinds[i % 2].Id, 10))];
        Plan plan = A.Plan(pots, Kinds, shows);
        Plan moved = plan.Changed(["d7"], [shows[7] with { Lift = shows[7].Lift.PlusDays(3) }]);
        Assert.Equal(["p7"], moved.PlantersChangedSince(plan)!);
        Plan recoloured = Plan.Fitting(plan.Parts with { Palette = [Kinds[0] with { HeightCm = 9 }, .. Kinds[1..]] }, plan, out _);
        Assert.Equal(500, recoloured.PlantersChangedSince(plan)!.Count);
        Assert.Empty(plan.PlantersChangedSince(plan)!);
        Assert.Null(Plan.Fitting(plan.Parts with { Site = plan.Site with { CoverThreshold = 0.3 } }, plan, out _).PlantersChangedSince(plan));
    }

    private static Plan Start(Random random)
    {
        Planter[] pots = [.. Enumerable.Range(0, 6).Select(i => A.Pot(id: $"p{i}"))];
        return new Plan(
            Site.Default,
            [new Area("quay", "Quay", 0), new Area("yard", "Yard", 1)],
            pots,
            Kinds,
            [.. pots.Select((p, i) => Standing($"d{i}", p.Id, Kinds[random.Next(2)].Id, random.Next(28)))],
            [],
            lots: [new Lot("l", "pansy", 4, LotState.Kept, "shed", A.Day(2026, 9, 1), LotCondition.Good, "p1")],
            recipes: [new Recipe("r", "Spring", DisplayLayer.Bulbs, A.Pot().Form, [new DisplayItem("tulip", 9)])]
        );
    }

    private static Display Standing(string id, string planter, string plant, int day) =>
        new(id, planter, DisplayLayer.Seasonal, A.Day(2026, 10, 1).PlusDays(day), A.Day(2027, 5, 1).PlusDays(day), [new DisplayItem(plant, 9)]);

    // One edit, of which some fit and some do not.
    private static PlanParts Edited(PlanParts parts, Random random)
    {
        T Any<T>(IReadOnlyList<T> list) => list[random.Next(list.Count)];
        IReadOnlyList<T> With<T>(IReadOnlyList<T> list, T one, T other)
            where T : class => [.. list.Select(x => ReferenceEquals(x, one) ? other : x)];
        if (parts.Displays.Count < 2 || parts.Planters.Count < 3 || parts.Palette.Count < 2)
            return parts;
        Display display = Any(parts.Displays);
        Planter planter = Any(parts.Planters);
        Plant plant = Any(parts.Palette);
        return random.Next(16) switch
        {
            0 => parts with { Displays = With(parts.Displays, display, display with { Lift = display.Lift.PlusDays(random.Next(1, 300)) }) },
            1 => parts with { Displays = With(parts.Displays, display, display with { PlanterId = planter.Id }) },
            2 => parts with { Displays = [Standing($"n{random.Next(4)}", planter.Id, plant.Id, random.Next(-200, 200)), .. parts.Displays] },
            3 => parts with { Displays = [.. parts.Displays.Where(d => d != display)] },
            4 => parts with { Planters = [.. parts.Planters.Where(p => p != planter)] },
            5 => parts with { Planters = With(parts.Planters, planter, planter with { Name = $"name {random.Next(3)}" }) },
            6 => parts with { Planters = [.. parts.Planters, A.Pot(id: $"p{random.Next(9)}")] },
            7 => parts with { Palette = [.. parts.Palette.Where(p => p != plant)] },
            8 => parts with { Palette = With(parts.Palette, plant, (random.Next(2) == 0 ? A.Tulip(plant.Id) : A.Annual(plant.Id))) },
            9 => parts with { Planters = [.. parts.Planters.Reverse()] },
            10 => parts with { Areas = [.. parts.Areas.Skip(1)] },
            11 => parts with { Planters = With(parts.Planters, planter, planter with { AreaId = random.Next(3) == 0 ? "nowhere" : "yard" }) },
            12 => parts with { Displays = With(parts.Displays, display, display with { Layer = DisplayLayer.Bulbs, Items = [new(plant.Id, 5)] }) },
            13 => parts with { Lots = [.. parts.Lots.Select(l => l with { PlantId = plant.Id, FromPlanterId = planter.Id })] },
            14 => parts with { Recipes = [.. parts.Recipes, .. parts.Recipes.Take(random.Next(2))] },
            _ => parts with { Site = parts.Site with { SpareShare = random.NextDouble() } },
        };
    }
}

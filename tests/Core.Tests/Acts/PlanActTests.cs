using CsCheck;
using NodaTime;
using UnrulyMeadow.Core.Acts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Exchange.PlanFiles;

namespace UnrulyMeadow.Core.Tests.Acts;

/// <summary>Acts on many planters, asked by chance of a whole site and by hand of a few pots.</summary>
public sealed class PlanActTests
{
    private static readonly LocalDate Start = A.Day(2026, 9, 1);
    private static readonly LocalDate Today = A.Day(2026, 11, 23);
    private static readonly Plan Demo = ReadDemo();
    private static readonly Plant[] Kinds = [A.Annual("pansy"), A.Annual("petunia"), A.Tulip(), A.Bulb("crocus", A.MidTulip, 2, 2)];

    [Fact]
    public void Whatever_is_done_fits_and_what_has_gone_in_only_ever_comes_out_earlier() =>
        Gen.Int[0, 1_000_000]
            .Sample(
                seed =>
                {
                    ActQuestion question = Any(new Random(seed));
                    ActAnswer answer = PlanAct.Of(Demo, question);
                    // Made checks the whole plan: layers that overlap and faulty displays are refused.
                    Plan made = answer.Made(Demo);
                    Assert.Equal(question.PlanterIds.Order(), answer.Planters.Select(p => p.Planter.Id).Order());
                    foreach (PlanterAct act in answer.Planters)
                    {
                        Assert.True(act.Changes || act.Remarks.Count > 0, $"{act.Planter.Id}: nothing is done, and nobody says why");
                        Assert.All(act.Removed, d => Assert.True(d.Install >= question.From));
                        Assert.All(act.Added, d => Assert.True(d.Install >= question.From));
                        foreach ((Display before, Display after) in act.Before.Zip(act.After))
                        {
                            Assert.Equal(before.Id, after.Id);
                            if (before.Install < question.From)
                                Assert.True(after.Install == before.Install && after.Lift <= before.Lift || after.Lift >= question.From);
                        }
                    }
                    // What is not chosen stays as it is.
                    Assert.Equal(
                        Demo.Displays.Where(d => !question.PlanterIds.Contains(d.PlanterId)),
                        made.Displays.Where(d => !question.PlanterIds.Contains(d.PlanterId))
                    );
                },
                iter: 300
            );

    [Fact]
    public void The_counts_told_are_those_of_the_plan_made() =>
        Gen.Int[0, 1_000_000]
            .Sample(
                seed =>
                {
                    ActAnswer answer = PlanAct.Of(Demo, Any(new Random(seed)));
                    Dictionary<string, int> Counts(Plan plan) =>
                        plan.Displays.SelectMany(d => d.Items).GroupBy(i => i.PlantId).ToDictionary(g => g.Key, g => g.Sum(i => i.Count));
                    Dictionary<string, int> before = Counts(Demo);
                    Dictionary<string, int> after = Counts(answer.Made(Demo));
                    Assert.Equal(
                        before
                            .Keys.Union(after.Keys)
                            .Select(k => (k, after.GetValueOrDefault(k) - before.GetValueOrDefault(k)))
                            .Where(c => c.Item2 != 0)
                            .Order(),
                        answer.Plants().Select(p => (p.Key, p.Value)).Order()
                    );
                },
                iter: 100
            );

    [Fact]
    public void The_year_before_comes_again_on_the_days_of_this_years_turns()
    {
        Display summer = A.Show("summer", A.Day(2026, 5, 20), A.Day(2026, 9, 28), DisplayLayer.Seasonal, new DisplayItem("petunia", 7));
        Display winter = A.Show("winter", A.Day(2026, 9, 28), A.Day(2027, 5, 20), DisplayLayer.Seasonal, new DisplayItem("pansy", 9));
        Display bulbs = A.Show("bulbs", A.Day(2026, 10, 20), A.Day(2027, 5, 20), DisplayLayer.Bulbs, new DisplayItem("tulip", 20, 15));
        Plan plan = Plan(
            [A.Pot()],
            [summer, winter, bulbs],
            new Turn("fall-1", "Fall", A.Day(2026, 9, 26), A.Day(2026, 9, 30)),
            new Turn("fall-2", "Fall", A.Day(2027, 10, 4), A.Day(2027, 10, 8))
        );
        PlanterAct act = Only(plan, new ActQuestion(ActKind.SameAsLastYear, ["pot"], A.Day(2027, 9, 1), A.Day(2027, 9, 1)));
        Assert.Equal(
            [(A.Day(2027, 10, 6), A.Day(2028, 5, 20), "pansy"), (A.Day(2027, 10, 20), A.Day(2028, 5, 20), "tulip")],
            act.Added.Select(d => (d.Install, d.Lift, d.Items[0].PlantId))
        );
        Assert.Equal(bulbs.Items, act.Added[1].Items);
    }

    [Fact]
    public void Moving_later_and_back_leaves_the_plan_as_it_was_and_neighbours_move_their_ends()
    {
        Display winter = A.Show("winter", A.Day(2026, 9, 28), A.Day(2027, 5, 20), DisplayLayer.Seasonal, new DisplayItem("pansy", 9));
        Display summer = A.Show("summer", A.Day(2027, 5, 20), A.Day(2027, 9, 20), DisplayLayer.Seasonal, new DisplayItem("petunia", 7));
        Plan plan = Plan([A.Pot()], [winter, summer]);
        ActQuestion later = new(ActKind.MoveByDays, ["pot"], Start, Today) { Days = 9 };
        ActAnswer moved = PlanAct.Of(plan, later);
        Plan made = moved.Made(plan);
        Assert.Equal((winter.Install, A.Day(2027, 5, 29)), (made.DisplaysOf("pot")[0].Install, made.DisplaysOf("pot")[0].Lift));
        Assert.Equal((A.Day(2027, 5, 29), A.Day(2027, 9, 29)), (made.DisplaysOf("pot")[1].Install, made.DisplaysOf("pot")[1].Lift));
        Plan back = PlanAct.Of(made, later with { Days = -9 }).Made(made);
        Assert.Equal(plan.DisplaysOf("pot").Select(d => (d.Id, d.Install, d.Lift)), back.DisplaysOf("pot").Select(d => (d.Id, d.Install, d.Lift)));
    }

    [Fact]
    public void One_kind_gives_way_to_another_as_wide_as_it_covers()
    {
        Plant wide = A.Annual("wide") with { SpreadAtPurchaseCm = 20, MatureSpreadCm = 60 };
        Plant narrow = A.Annual("narrow") with { SpreadAtPurchaseCm = 10, MatureSpreadCm = 30 };
        Display summer = A.Show("summer", A.Day(2027, 5, 20), A.Day(2027, 9, 20), DisplayLayer.Seasonal, new DisplayItem("wide", 5));
        var plan = new Plan(Site.Default, [Area], [A.Pot()], [wide, narrow], [summer], []);
        ActQuestion question = new(ActKind.ReplaceKind, ["pot"], Start, Today) { OldPlantId = "wide", NewPlantId = "narrow" };
        PlanterAct act = Only(plan, question);
        Assert.Equal([("narrow", 20)], act.After[0].Items.Select(i => (i.PlantId, i.Count)));
        Assert.Equal([ActHinder.NothingThere], Only(new ActAnswer(question, [act]).Made(plan), question).Remarks.Select(r => (ActHinder)r.Kind));
    }

    [Fact]
    public void A_recipe_ends_what_stands_and_ends_itself_where_the_next_goes_in()
    {
        Display spring = A.Show("spring", A.Day(2027, 3, 20), A.Day(2027, 6, 20), DisplayLayer.Seasonal, new DisplayItem("pansy", 9));
        Display fall = A.Show("fall", A.Day(2027, 9, 20), A.Day(2028, 3, 1), DisplayLayer.Seasonal, new DisplayItem("pansy", 9));
        Recipe recipe = new("summer", "Summer", DisplayLayer.Seasonal, A.Pot().Form, [new DisplayItem("petunia", 7)]);
        var plan = new Plan(Site.Default, [Area], [A.Pot()], Kinds, [spring, fall], [], recipes: [recipe]);
        ActQuestion question = new(ActKind.PlantRecipe, ["pot"], Start, Today)
        {
            RecipeId = "summer",
            Install = A.Day(2027, 5, 20),
            Lift = A.Day(2027, 10, 10),
        };
        PlanterAct act = Only(plan, question);
        Assert.Equal((A.Day(2027, 5, 20), A.Day(2027, 9, 20)), (act.Added[0].Install, act.Added[0].Lift));
        Assert.Equal(A.Day(2027, 5, 20), act.After[0].Lift);
        Assert.Contains(act.Remarks, r => (ActHinder)r.Kind == ActHinder.Shortened);
        Plan made = new ActAnswer(question, [act]).Made(plan);
        Assert.Contains(Only(made, question).Remarks, r => (ActHinder)r.Kind == ActHinder.LayerTaken);
    }

    [Fact]
    public void A_pair_and_a_planter_that_is_copied_lend_their_year()
    {
        Planter left = A.Pot(id: "left") with { Survey = PlanterSurvey.Unseen with { LookGroup = "gate" } };
        Planter right = left with { Id = "right", Name = "right" };
        Planter large = A.Pot(top: 90, bottom: 80, id: "large");
        Display summer = A.Show("summer", A.Day(2027, 5, 20), A.Day(2027, 9, 20), DisplayLayer.Seasonal, new DisplayItem("petunia", 7)) with
        {
            PlanterId = "left",
            Cuts = [new CutBack("petunia", A.Day(2027, 7, 10), 20)],
        };
        Plan plan = Plan([left, right, large], [summer]);
        Display paired = Assert.Single(Only(plan, new ActQuestion(ActKind.SameAsPair, ["right"], Start, Today)).Added);
        Assert.Equal(summer.Items, paired.Items);
        Assert.Equal(summer.Cuts, paired.Cuts);
        Display copied = Assert.Single(Only(plan, new ActQuestion(ActKind.CopyYear, ["large"], Start, Today) { SourceId = "left" }).Added);
        Assert.True(copied.Items[0].Count > 7);
        Assert.Equal(
            [ActHinder.NoPair],
            Only(plan, new ActQuestion(ActKind.SameAsPair, ["large"], Start, Today)).Remarks.Select(r => (ActHinder)r.Kind)
        );
    }

    [Fact]
    public void A_question_that_cannot_be_answered_says_what_is_wrong_with_it()
    {
        var faults = Assert.Throws<InvalidInputException>(() =>
            PlanAct.Of(Demo, new ActQuestion(ActKind.MoveByDays, ["nobody"], Start, Today) { Days = 400 })
        );
        Assert.Contains(faults.Faults, f => f.Field == "planters");
        Assert.Contains(faults.Faults, f => f.Field == "days");
    }

    // Every kind of act, with what it needs taken from the demo by chance.
    [Fact]
    public void An_end_that_is_dragged_anywhere_leaves_a_plan_that_loads_and_moves_only_that_end_and_what_meets_it() =>
        Gen.Int[0, 1_000_000]
            .Sample(
                seed =>
                {
                    var random = new Random(seed);
                    Display display = Demo.Displays[random.Next(Demo.Displays.Count)];
                    var end = (DisplayEnd)random.Next(2);
                    LocalDate was = end == DisplayEnd.Install ? display.Install : display.Lift;
                    LocalDate day = random.Next(3) == 0 ? was.PlusDays(random.Next(-9, 10)) : A.Day(2026, 6, 1).PlusDays(random.Next(900));
                    PlanterAct act = EndMove.Of(Demo, display, end, day, Today);
                    if (!act.Changes)
                    {
                        Assert.Single(act.Remarks);
                        return;
                    }
                    Assert.True(was >= Today && day >= Today && day != was);
                    Plan made = Demo.Changed([.. act.Before.Select(d => d.Id)], act.After);
                    Display moved = made.Displays.Single(d => d.Id == display.Id);
                    Assert.Equal(end == DisplayEnd.Install ? display with { Install = day } : display with { Lift = day }, moved);
                    // What followed at once still follows at once.
                    foreach (Display other in act.After.Skip(1))
                        Assert.Equal(day, end == DisplayEnd.Install ? other.Lift : other.Install);
                    Assert.Equal(Demo.Displays.Count, made.Displays.Count);
                },
                iter: 600
            );

    private static ActQuestion Any(Random random)
    {
        T One<T>(IReadOnlyList<T> all) => all[random.Next(all.Count)];
        ActKind kind = One(Enum.GetValues<ActKind>());
        List<Recipe> recipes = [.. Demo.Recipes];
        if (kind == ActKind.PlantRecipe && recipes.Count == 0)
            kind = ActKind.TakeOut;
        LocalDate start = Start.PlusYears(random.Next(2));
        LocalDate install = Today.PlusDays(random.Next(500));
        List<string> kinds = [.. Demo.Displays.SelectMany(d => d.Items.Select(i => i.PlantId)).Distinct()];
        string old = One(kinds);
        return new ActQuestion(
            kind,
            [.. Demo.Planters.Where(_ => random.Next(3) == 0).Append(One(Demo.Planters)).Select(p => p.Id).Distinct()],
            start,
            start > Today ? start : Today
        )
        {
            RecipeId = kind == ActKind.PlantRecipe ? One(recipes).Id : null,
            Install = install < start ? start : install,
            Lift = (install < start ? start : install).PlusDays(20 + random.Next(300)),
            DisplayId = One(Demo.Displays).Id,
            SourceId = One(Demo.Planters).Id,
            TurnId = kind == ActKind.MoveToTurn ? One(Demo.Turns).Id : null,
            OldPlantId = old,
            NewPlantId = One([.. Demo.Palette.Where(p => p.Id != old)]).Id,
            Days = One([-40, -7, 1, 14, 60]),
            Layer = One<DisplayLayer?>([null, DisplayLayer.Seasonal, DisplayLayer.Bulbs, DisplayLayer.Standing]),
        };
    }

    private static Area Area { get; } = Demo.Areas[0] with { Id = A.Pot().AreaId };

    private static Plan Plan(Planter[] planters, Display[] displays, params Turn[] turns) =>
        new(Site.Default, [Area], planters, Kinds, displays, turns);

    private static PlanterAct Only(Plan plan, ActQuestion question) => Assert.Single(PlanAct.Of(plan, question).Planters);

    private static Plan ReadDemo()
    {
        using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "data", "kittiwake-quay.plan.json"));
        return PlanFile.Read(file);
    }
}

using System.Text.Json;
using NodaTime;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Closing;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Sequencing;
using UnrulyMeadow.Core.Stacks;
using UnrulyMeadow.Core.Turning;
using UnrulyMeadow.Exchange.PlanFiles;

namespace UnrulyMeadow.Solver.Tests;

/// <summary>
/// Nothing is known by its words: sentences stand outside the core, and with every name of the plan another, what is remarked, proposed and
/// chosen is the same. Of choices that are worth the same the solver may take either; what they are worth is compared.
/// </summary>
public sealed class RenamedTests
{
    private static readonly JsonSerializerOptions Json = new(PlanFile.Stored) { IncludeFields = true };
    private static readonly LocalDate Start = new(2026, 9, 1);
    private static readonly LocalDate From = new(2026, 11, 25);
    private static readonly Plan Demo = Shipped.Plan;
    private static readonly Plan Renamed = WithOtherWords(Demo);

    [Fact]
    public void Changes_among_which_those_that_close_bare_spells_are_chosen_are_the_same() =>
        Alike(plan =>
        {
            (SeasonKernel kernel, SiteFlowering flowering) = At(plan);
            string[] planters = ["kiosk-basket", "wall-pot-west"];
            var question = new GapQuestion(From) { PlanterIds = planters.ToHashSet(StringComparer.Ordinal) };
            return planters
                .SelectMany(p => GapMoves.For(plan, plan.FindPlanter(p)!, kernel, flowering, question))
                .Select(m => (m.Id, m.Kind, m.Replaces, m.Displays, m.Cost));
        });

    [Fact]
    public void Remarks_and_what_would_mend_them_are_the_same() =>
        Alike(plan =>
        {
            var checks = new DisplayChecks(plan, Shipped.Record, start => new SiteFlowering(Shipped.Record, start));
            return plan
                .Displays.Where(d => d.Lift > Start && d.Layer != DisplayLayer.Standing)
                .Take(24)
                .SelectMany(d => checks.For(d))
                .Select(r => (r.DisplayId, r.Kind, r.Gravity, Becomes: r.Remedies.Select(m => (m.Does.Kind, m.After)).ToList()));
        });

    [Fact]
    public void Exchanges_of_bulbs_and_the_days_of_a_turn_are_the_same() =>
        Alike(plan =>
        {
            (SeasonKernel kernel, _) = At(plan);
            var exchanges = AreaSequence
                .Of(plan, kernel)
                .Select(a => (a.Area.Id, Area: a, Moves: SequenceMove.For(plan, kernel, a, Start)))
                .Select(a => (a.Id, Moves: a.Moves.Select(m => m.After).ToList(), SequenceSpreading.Choose(a.Area, a.Moves).After));
            TurnWindow? window = TurnWindow.Of(plan, plan.Turns.First(t => t.FirstDay > From), kernel);
            return exchanges.Select(e => (object)e).Append(window!.Options.Select(window.Worth).ToList());
        });

    [Fact]
    public void Stacks_that_are_built_are_the_same() =>
        Alike(plan =>
        {
            (SeasonKernel kernel, SiteFlowering flowering) = At(plan);
            return StackProposals
                .For(
                    plan,
                    plan.FindPlanter("flag-pot")!,
                    flowering,
                    kernel,
                    new DisplayChecks(plan, flowering.Record, _ => flowering),
                    new StackWish(new LocalDate(2027, 3, 1), new LocalDate(2027, 5, 20), ["#3a4fb0"]),
                    new LocalDate(2026, 10, 15),
                    new LocalDate(2027, 6, 7)
                )
                .Select(s => (s.Aim, s.Weeks, s.MostWeeks));
        });

    private static (SeasonKernel Kernel, SiteFlowering Flowering) At(Plan plan) =>
        (new SeasonKernel(Shipped.Record, Start), new SiteFlowering(Shipped.Record, Start, plan.Site.FrostRisk));

    private static void Alike<T>(Func<Plan, IEnumerable<T>> answer)
    {
        string Written(Plan plan) => JsonSerializer.Serialize(answer(plan).ToList(), Json);
        string usual = Written(Demo);
        Assert.True(usual.Length > 50, usual);
        Assert.Equal(usual, Written(Renamed));
    }

    // Each name its fingerprint: no two alike, none in the old order.
    private static Plan WithOtherWords(Plan plan)
    {
        string Other(string name) => Core.Ids.Fingerprint($"other {name}", 9);
        return new Plan(
            plan.Site with
            {
                Name = "Other",
            },
            [.. plan.Areas.Select(a => a with { Name = Other(a.Name) })],
            [.. plan.Planters.Select(p => p with { Name = Other(p.Name), Note = "" })],
            [.. plan.Palette.Select(p => p with { CommonName = Other(p.CommonName), Cautions = [.. p.Cautions.Select(Other)], Source = "other" })],
            plan.Displays,
            [.. plan.Turns.Select(t => t with { Name = Other(t.Name) })],
            [.. plan.Map.Select(f => f with { Name = f.Name.Length > 0 ? Other(f.Name) : "" })],
            [.. plan.Lots.Select(l => l with { Note = "", Place = Other(l.Place) })],
            [.. plan.Recipes.Select(r => r with { Name = Other(r.Name) })],
            [.. plan.Events.Select(e => e with { Name = Other(e.Name) })]
        );
    }
}

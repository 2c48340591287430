using CsCheck;
using NodaTime;
using UnrulyMeadow.Core.Arranging;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Work;

namespace UnrulyMeadow.Core.Tests.Arranging;

/// <summary>Part of a display replaced while the rest stands on.</summary>
public sealed class DisplayPatchTests
{
    private static readonly Plant[] Kinds = [A.Annual("petunia"), A.Annual("lobelia"), A.Annual("aster")];

    private static Plan With(int petunias, int lobelias) =>
        A.Plan(
            [A.UsedPot()],
            Kinds,
            [
                A.Show(
                    "summer",
                    A.Day(2027, 5, 17),
                    A.Day(2027, 10, 20),
                    DisplayLayer.Seasonal,
                    new DisplayItem("petunia", petunias),
                    new DisplayItem("lobelia", lobelias)
                ),
            ]
        );

    [Fact]
    public void Whatever_is_patched_the_sheet_takes_out_just_that_sets_in_just_that_and_leaves_the_rest() =>
        Gen.Select(Gen.Int[1, 30], Gen.Int[1, 12], Gen.Int[1, 30], Gen.Int[0, 12], Gen.Int[1, 150], Gen.Bool)
            .Sample(
                (petunias, lobelias, outs, ins, after, sameKind) =>
                {
                    int count = Math.Min(outs, petunias);
                    Plan plan = With(petunias, lobelias);
                    LocalDate day = A.Day(2027, 5, 17).PlusDays(after);
                    var patch = new DisplayPatch(day, 0, count, ins == 0 ? null : new DisplayItem(sameKind ? "petunia" : "aster", ins))
                    {
                        Fate = PlantFate.Compost,
                    };
                    (Display before, Display then) = patch.Of(plan, plan.Displays[0], "summer-2");
                    Plan patched = plan.Changed([before.Id], [before, then]);
                    Changeover change = Changeover.Of(patched, patched.Planters[0]).Single(c => c.Day == day);
                    Assert.Equal(count, change.Out.Sum(o => o.Count));
                    Assert.All(change.Out, o => Assert.Equal("petunia", o.Plant.Id));
                    Assert.Equal(ins, change.In.Sum(i => i.Count));
                    Assert.Equal(petunias - count + lobelias, change.Stays.Sum(s => s.Count));
                    // What stays keeps the day since which it stands, and with it its width.
                    Assert.All(then.Items.Take(then.Items.Count - (ins > 0 ? 1 : 0)), i => Assert.Equal(A.Day(2027, 5, 17), i.Since));
                },
                iter: 500
            );

    [Fact]
    public void A_pulled_plants_place_is_taken_by_the_new_one_and_nothing_else_moves()
    {
        Plan plan = With(7, 5);
        IReadOnlyList<PlacedPlant> before = Arrangement.Of(plan, plan.Planters[0], plan.Displays[0]).Plants;
        (_, Display then) = new DisplayPatch(A.Day(2027, 7, 1), 0, 1, new DisplayItem("aster", 1)) { At = [2] }.Of(
            plan,
            plan.Displays[0],
            "summer-2"
        );
        IReadOnlyList<PlacedPlant> after = Arrangement.Of(plan, plan.Planters[0], then).Plants;
        Assert.Equal(before.Select(p => p.At).OrderBy(p => p.XCm).ThenBy(p => p.YCm), after.Select(p => p.At).OrderBy(p => p.XCm).ThenBy(p => p.YCm));
        Assert.Equal(before.Where(p => p.Item == 0).ElementAt(2).At, after.Single(p => p.Plant.Id == "aster").At);
    }

    [Fact]
    public void More_than_stands_a_day_outside_its_time_and_an_emptied_display_are_refused_by_field()
    {
        Plan plan = With(7, 5);
        Assert.Equal("count", Refused(new DisplayPatch(A.Day(2027, 7, 1), 0, 8, null)));
        Assert.Equal("day", Refused(new DisplayPatch(A.Day(2027, 5, 17), 0, 2, null)));
        Assert.Equal("day", Refused(new DisplayPatch(A.Day(2027, 10, 20), 0, 2, null)));
        Assert.Equal("item", Refused(new DisplayPatch(A.Day(2027, 7, 1), 2, 2, null)));
        Plan one = A.Plan(
            [A.UsedPot()],
            Kinds,
            [A.Show("summer", A.Day(2027, 5, 17), A.Day(2027, 10, 20), DisplayLayer.Seasonal, new DisplayItem("petunia", 3))]
        );
        Assert.Contains(
            "end the display",
            Assert.Throws<InvalidInputException>(() => new DisplayPatch(A.Day(2027, 7, 1), 0, 3, null).Of(one, one.Displays[0], "x")).Message,
            StringComparison.Ordinal
        );

        string Refused(DisplayPatch patch) => Assert.Throws<InvalidInputException>(() => patch.Of(plan, plan.Displays[0], "x")).Faults.Single().Field;
    }
}

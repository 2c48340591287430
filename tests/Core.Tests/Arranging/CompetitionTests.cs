using UnrulyMeadow.Core.Arranging;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Core.Tests.Arranging;

public sealed class CompetitionTests
{
    private static readonly Plant Weak = A.Annual("weak") with { HeightCm = 15, SpreadAtPurchaseCm = 15, MatureSpreadCm = 20, Vigour = Vigour.Weak };
    private static readonly Plant Strong = A.Annual("strong") with
    {
        HeightCm = 45,
        SpreadAtPurchaseCm = 15,
        MatureSpreadCm = 70,
        Vigour = Vigour.Vigorous,
    };

    [Fact]
    [CommonPractice]
    public void A_vigorous_spreader_drowns_a_weak_neighbour_and_the_day_is_named()
    {
        Overgrown found = Assert.Single(Competition.Follow(Beside(Weak, Strong), [Grow(15, 20), Grow(15, 70)], A.Day(2027, 5, 15)));
        Assert.Equal(("weak", "strong"), (found.LoserPlant.Id, found.WinnerPlant.Id));
        Assert.InRange(found.When, A.Day(2027, 5, 22), A.Day(2027, 8, 1));
        Assert.True(found.LightLeft < Competition.Losing);
    }

    [Fact]
    public void Apart_or_of_one_height_none_loses()
    {
        Assert.Empty(Competition.Follow(Beside(Weak, Strong, 80), [Grow(15, 20), Grow(15, 70)], A.Day(2027, 5, 15)));
        Assert.Empty(
            Competition.Follow(
                Beside(Weak with { HeightCm = 45, Vigour = Vigour.Moderate }, Strong with { Vigour = Vigour.Moderate }),
                [Grow(15, 20), Grow(15, 20)],
                A.Day(2027, 5, 15)
            )
        );
    }

    [Fact]
    public void Bare_wood_takes_no_light_and_the_same_shrub_in_leaf_does()
    {
        Plant shrub = Strong with { LifeForm = LifeForm.Shrub, HeightCm = 120 };
        float[] bare = new float[84];
        float[] leaf = [.. Enumerable.Repeat(1f, 84)];
        Assert.Empty(Competition.Follow(Beside(Weak, shrub), [Grow(15, 20), Grow(60, 70)], A.Day(2026, 12, 1), bare));
        Assert.NotEmpty(Competition.Follow(Beside(Weak, shrub), [Grow(15, 20), Grow(60, 70)], A.Day(2026, 12, 1), leaf));
    }

    private static Arrangement Beside(Plant one, Plant other, double apart = 18) =>
        Arrangement.Of(
            A.Bed(),
            [
                (one, new DisplayItem(one.Id, 1) { Places = [new(0, 0)] }),
                (other, new DisplayItem(other.Id, 2) { Places = [new(-apart, 0), new(apart, 0)] }),
            ]
        );

    // Twelve weeks of even growth.
    private static float[] Grow(float from, float to) => [.. Enumerable.Range(0, 84).Select(d => from + ((to - from) * d / 83f))];
}

using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Tests.Palette;

/// <summary>What a site takes of the palette that all sites share.</summary>
public sealed class SharedPaletteTests
{
    [Fact]
    public void A_site_takes_whatever_it_has_not_made_its_own_and_nothing_else()
    {
        var random = new Random(41);
        for (int round = 0; round < 400; round++)
        {
            // Of each of eight kinds: what the site was given last, what it has, and what is shared now; none, or figures that differ in the height.
            List<(string Id, Plant? Given, Plant? Here, Plant? Shared)> kinds =
            [
                .. Enumerable.Range(0, 8).Select(i => ($"kind-{i}", Some($"kind-{i}", random), Some($"kind-{i}", random), Some($"kind-{i}", random))),
            ];
            SharedPalette follow = SharedPalette.Of(
                [.. kinds.Select(k => k.Here!).Where(p => p is not null)],
                id => kinds.Single(k => k.Id == id).Given,
                _ => null,
                [.. kinds.Select(k => k.Shared!).Where(p => p is not null)],
                Figures
            );
            foreach ((string id, Plant? given, Plant? here, Plant? shared) in kinds)
            {
                Plant? becomes = follow.Remove.Contains(id) ? null : follow.Take.SingleOrDefault(p => p.Id == id) ?? here;
                bool isOwn = here?.HeightCm != given?.HeightCm;
                if (!isOwn)
                    Assert.Equal(shared?.HeightCm, becomes?.HeightCm);
                else
                    Assert.Equal(here?.HeightCm, becomes?.HeightCm);
                bool goesOwnWay = isOwn && here?.HeightCm != shared?.HeightCm;
                Assert.Equal(goesOwnWay && shared is not null, follow.Own.Contains(id));
                Assert.Equal(goesOwnWay && shared is null, follow.More.Contains(id));
                if (here is not null && becomes is not null)
                    Assert.Equal((here.IsRetired, here.IsShortlisted), (becomes.IsRetired, becomes.IsShortlisted));
            }
            Assert.Equal(follow.NewCount, follow.Take.Count(p => kinds.Single(k => k.Id == p.Id).Here is null));
        }
    }

    [Fact]
    public void Whoever_has_followed_has_nothing_more_to_take()
    {
        Plant[] shared = [One("a", 20), One("b", 30)];
        SharedPalette first = SharedPalette.Of([One("b", 25), One("c", 10)], id => id == "b" ? One("b", 25) : null, _ => null, shared, Figures);
        Assert.Equal(["a", "b"], first.Take.Select(p => p.Id));
        Plant[] here = [.. first.Take, One("c", 10)];
        SharedPalette again = SharedPalette.Of(here, id => shared.FirstOrDefault(p => p.Id == id), _ => null, shared, Figures);
        Assert.True(again.IsFollowed);
        Assert.Equal(["c"], again.More);
    }

    [Fact]
    public void Kinds_that_ship_with_the_app_follow_where_they_are_shared_and_are_never_taken_out_where_they_are_not()
    {
        Plant[] shipped = [One("a", 20), One("b", 30), One("c", 40)];
        Plant? Usual(string id) => shipped.FirstOrDefault(p => p.Id == id);
        // Only "a" is shared, with other figures: "b" stays as it came, and "c", which the site lacks, is no matter.
        SharedPalette follow = SharedPalette.Of([One("a", 20), One("b", 30)], _ => null, Usual, [One("a", 25)], Figures);
        Assert.Equal(25, Assert.Single(follow.Take).HeightCm);
        Assert.Empty(follow.Remove);
        Assert.Equal(["b"], follow.More);
        // A site with nothing takes all that is shared.
        Assert.Equal(3, SharedPalette.Of([], _ => null, Usual, shipped, Figures).NewCount);
    }

    private static string Figures(Plant plant) => $"{plant.HeightCm} {plant.IsRetired} {plant.IsShortlisted}";

    private static Plant? Some(string id, Random random) =>
        random.Next(4) is > 0 and var tall ? One(id, 10 * tall) with { IsRetired = random.Next(3) == 0, IsShortlisted = random.Next(3) == 0 } : null;

    private static Plant One(string id, double heightCm) => A.Annual(id) with { HeightCm = heightCm };
}

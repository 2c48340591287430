using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Exchange.PlanFiles;

namespace UnrulyMeadow.Store.Tests;

/// <summary>The palette that all sites share, followed through the door of each site's plan.</summary>
public sealed class SharedPaletteTests(TestDatabase test) : IClassFixture<TestDatabase>, IAsyncLifetime
{
    private const string By = "Ann";

    private SharedPaletteStore _shared = null!;
    private SiteDatabase _site = null!;
    private PlanStore _plans = null!;
    private Plan _demo = null!;

    public async ValueTask InitializeAsync()
    {
        _shared = new SharedPaletteStore(test.Whole, PlanFile.Stored);
        // A site of its own for each test.
        string name = $"site-{Guid.NewGuid():N}"[..20];
        _site = test.Whole.At((await test.Whole.AddSite(name, name)).Id);
        _plans = new PlanStore(_site, PlanFile.Stored, () => By);
        await using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "demo", "kittiwake-quay.plan.json"));
        _demo = PlanFile.Read(file);
        await _plans.Replace(_demo);
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    [Fact]
    public async Task A_site_takes_new_figures_and_keeps_its_own_and_what_would_not_fit_is_named_and_left()
    {
        Plant bulb = Used(p => p.Bulb is not null && !p.IsTender);
        Plant bedding = Used(p => p.LifeForm == LifeForm.TenderAnnual && p.Bulb is null);
        Plant own = Used(p => p.LifeForm == LifeForm.CoolSeasonAnnual);
        await Share(_demo.Palette);
        await Follow();
        LoadedPlan before = await _plans.Now();
        await new PaletteStore(_plans).Save(own with { HeightCm = own.HeightCm + 3 }, before.Versions.Plant(own.Id));
        // Bulbs stand in stacks under other bulbs: as a perennial this one fits nowhere that it stands.
        Plant spoilt = bulb with { LifeForm = LifeForm.Perennial, Bulb = null };
        await Share([
            spoilt,
            bedding with
            {
                HeightCm = bedding.HeightCm + 5,
            },
            own with
            {
                HeightCm = own.HeightCm + 9,
            },
            bedding with
            {
                Id = "another-kind",
            },
        ]);
        await Follow();
        LoadedPlan after = await _plans.Now();
        Assert.Equal(bedding.HeightCm + 5, after.Plan.FindPlant(bedding.Id)!.HeightCm);
        Assert.Equal(own.HeightCm + 3, after.Plan.FindPlant(own.Id)!.HeightCm);
        Assert.NotNull(after.Plan.FindPlant(bulb.Id)!.Bulb);
        Assert.NotNull(after.Plan.FindPlant("another-kind"));
        Assert.Empty(after.Aside);
        PaletteFollowing followed = await Following();
        Assert.Equal((1, 1, 0, 1), (followed.Added, followed.Changed, followed.Removed, followed.Own));
        Assert.Contains(bulb.CommonName, followed.Refused, StringComparison.Ordinal);
        // Followed once is followed: nothing is written any more.
        await Follow();
        Assert.Equal(after.Mark, await _plans.Mark());
        // Once it may be changed again, the next sharing is taken whole.
        await Share([bulb with { HeightCm = bulb.HeightCm + 1 }]);
        await Follow();
        Assert.Equal(bulb.HeightCm + 1, (await _plans.Load()).FindPlant(bulb.Id)!.HeightCm);
        Assert.Contains(await new ChangeStore(_plans).Latest(5), c => c.MadeBy == By && c.What.Contains("shared palette", StringComparison.Ordinal));
    }

    [Fact]
    public async Task What_is_shared_no_more_goes_where_nothing_uses_it_and_stays_as_the_sites_own_where_it_stands()
    {
        Plant used = Used(p => p.Bulb is not null);
        Plant unused = _demo.Palette.First(p =>
            !_demo.Displays.Any(d => d.Items.Any(i => i.PlantId == p.Id))
            && !_demo.Lots.Any(l => l.PlantId == p.Id)
            && !_demo.Recipes.Any(r => r.Items.Any(i => i.PlantId == p.Id))
        );
        await Share(_demo.Palette);
        await Follow();
        await _shared.Share([], [used.Id, unused.Id], (await _shared.LatestSharing())?.Number, By, "somewhere");
        await Follow();
        Plan after = await _plans.Load();
        Assert.NotNull(after.FindPlant(used.Id));
        Assert.Null(after.FindPlant(unused.Id));
        Assert.Equal((1, 1), ((await Following()).Removed, (await Following()).More));
    }

    [Fact]
    public async Task Of_two_who_share_at_once_the_second_is_told()
    {
        long? seen = (await _shared.LatestSharing())?.Number;
        await _shared.Share([_demo.Palette[0]], [], seen, By, "somewhere");
        await Assert.ThrowsAsync<LostUpdateException>(() => _shared.Share([_demo.Palette[1]], [], seen, "Bea", "elsewhere"));
        await Assert.ThrowsAsync<InvalidInputException>(() => _shared.Share([], [], seen, By, "somewhere"));
    }

    private Plant Used(Func<Plant, bool> what) => _demo.Palette.First(p => what(p) && _demo.Displays.Any(d => d.Items.Any(i => i.PlantId == p.Id)));

    private async Task Share(IReadOnlyList<Plant> plants) =>
        await _shared.Share(plants, [], (await _shared.LatestSharing())?.Number, By, "somewhere");

    private Task Follow() => _shared.Follow(_plans, _ => null, TestContext.Current.CancellationToken);

    private async Task<PaletteFollowing> Following() => (await _shared.Followings()).Single(f => f.SiteId == _site.Site);
}

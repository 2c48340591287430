using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.SiteMap;
using UnrulyMeadow.Exchange.PlanFiles;

namespace UnrulyMeadow.Store.Tests;

public sealed class GroundsStoreTests(TestDatabase test) : IClassFixture<TestDatabase>, IAsyncLifetime
{
    private PlanStore Plans => new(test.Database, PlanFile.Stored);

    private PlanterStore Planters => new(Plans);

    private PaletteStore Palette => new(Plans);

    private async Task<PlanVersions> Versions() => (await Plans.Now()).Versions;

    public async ValueTask InitializeAsync() => await Plans.Replace(Demo());

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    [Fact]
    public async Task A_surveyed_bed_of_any_outline_comes_back_as_it_was_saved()
    {
        Planter bed = Demo().FindPlanter("north-bed")! with
        {
            Form = PlanterForm.Bed(BedOutline.Of(12, (0, 0), (500, 0), (500, 200), (100, 300)), 45),
            Survey = new PlanterSurvey
            {
                Soil = SoilKind.HeavyClay,
                Ph = 7.4,
                Tree = new StandingTree("Lime", 300, 700, 320, 25, 2026),
                StoodSince = new LocalDate(2024, 5, 2),
            },
            Place = new MapPlace(12.5, -3.25, 15),
            IsRetired = true,
        };
        await Planters.Save(bed, (await Versions()).Planter("north-bed"));
        Planter back = (await Plans.Load()).FindPlanter("north-bed")!;
        Assert.Equal(bed, back);
        Assert.Equal(bed.Form.Outline!.AreaCm2, back.Form.Outline!.AreaCm2, 1e-6);
    }

    [Fact]
    public async Task Many_of_a_kind_are_added_all_or_none()
    {
        Planter pot = Demo().FindPlanter("flag-pot")!;
        await Assert.ThrowsAsync<InvalidInputException>(() => Planters.Add([pot with { Id = "new-1", Name = "New 1" }, pot with { Id = "new-2" }]));
        Assert.Equal(0, (await Versions()).Planter("new-1"));
        await Planters.Add([pot with { Id = "new-1", Name = "New 1" }, pot with { Id = "new-2", Name = "New 2" }]);
        Assert.NotEqual(0, (await Versions()).Planter("new-2"));
    }

    [Fact]
    public async Task A_planter_in_use_is_not_removed_but_says_where_and_offers_retirement()
    {
        InvalidInputException refused = await Assert.ThrowsAsync<InvalidInputException>(() => Planters.Remove("flag-pot", 1));
        Assert.Contains("display flag-pot-bulbs", refused.Message, StringComparison.Ordinal);
        Assert.Contains("Retire it instead", refused.Message, StringComparison.Ordinal);
        await Planters.Add([Demo().FindPlanter("flag-pot")! with { Id = "idle", Name = "Idle" }]);
        await Assert.ThrowsAsync<LostUpdateException>(() => Planters.Remove("idle", 7));
        await Planters.Remove("idle", (await Versions()).Planter("idle"));
        Assert.Null((await Plans.Load()).FindPlanter("idle"));
    }

    [Fact]
    public async Task A_plant_in_use_is_not_removed_but_says_where_and_offers_retirement()
    {
        InvalidInputException refused = await Assert.ThrowsAsync<InvalidInputException>(() => Palette.Remove("lantana-gold", 1));
        Assert.Contains("Flag pot from 2026-05-18", refused.Message, StringComparison.Ordinal);
        Assert.Contains("Retire it instead", refused.Message, StringComparison.Ordinal);
        await Palette.Remove("witch-hazel-gold", (await Versions()).Plant("witch-hazel-gold"));
        Assert.Null((await Plans.Load()).FindPlant("witch-hazel-gold"));
    }

    [Fact]
    public async Task A_plant_saved_twice_from_one_reading_is_refused_the_second_time()
    {
        Plant plant = (await Plans.Load()).Plant("snowdrop");
        long read = (await Versions()).Plant("snowdrop");
        await Palette.Save(plant with { HeightCm = 15 }, read);
        await Assert.ThrowsAsync<LostUpdateException>(() => Palette.Save(plant with { HeightCm = 16 }, read));
        Assert.Equal(15, (await Plans.Load()).Plant("snowdrop").HeightCm);
    }

    [Fact]
    public async Task A_sheet_is_taken_whole_or_not_at_all_and_unchanged_plants_stay_the_same_objects()
    {
        PlanStore plans = Plans;
        Plan before = await plans.Load();
        Plant wrong = before.Plant("snowdrop") with { HeightCm = -1 };
        PlanVersions read = (await plans.Now()).Versions;
        await Assert.ThrowsAsync<InvalidInputException>(() => Palette.Put([before.Plant("scilla-blue") with { HeightCm = 15 }, wrong], read));
        Assert.Equal(14, (await plans.Load()).Plant("scilla-blue").HeightCm);
        await Palette.Put([before.Plant("scilla-blue") with { HeightCm = 15 }], read);
        Plan after = await plans.Load();
        Assert.Equal(15, after.Plant("scilla-blue").HeightCm);
        Assert.Same(before.Plant("snowdrop"), after.Plant("snowdrop"));
        await Assert.ThrowsAsync<LostUpdateException>(() => Palette.Put([before.Plant("scilla-blue") with { HeightCm = 16 }], read));
    }

    [Fact]
    public async Task Lots_are_added_changed_and_removed_with_their_version()
    {
        var lots = new LotStore(new PlanStore(test.Database, PlanFile.Stored));
        var lot = new Lot(
            "kept-1",
            "dusty-miller",
            12,
            LotState.HeeledIn,
            "Trench",
            new LocalDate(2026, 10, 1),
            LotCondition.Fair,
            "flag-pot",
            "under fleece"
        );
        await lots.Save(lot, null);
        long first = (await Versions()).Lot("kept-1");
        await lots.Save(lot with { Count = 9 }, first);
        Assert.Contains(lot with { Count = 9 }, (await Plans.Load()).Lots);
        await Assert.ThrowsAsync<LostUpdateException>(() => lots.Save(lot, first));
        await Assert.ThrowsAsync<InvalidInputException>(() => lots.Save(lot with { Id = "other", PlantId = "ghost" }, null));
        await lots.Remove("kept-1", (await Versions()).Lot("kept-1"));
        Assert.DoesNotContain((await Plans.Load()).Lots, l => l.Id == "kept-1");
    }

    [Fact]
    public async Task A_map_is_taken_with_its_beds_and_areas_or_not_at_all()
    {
        var maps = new MapStore(new PlanStore(test.Database, PlanFile.Stored));
        PlanVersions read = await Versions();
        var lawn = new MapFeature
        {
            Id = "new-lawn",
            Kind = MapKind.Lawn,
            Points = [new(0, 0), new(9, 0), new(9, 9)],
        };
        Planter bed = Demo().FindPlanter("bandstand-ring")! with { Id = "sail-bed", Name = "Sail bed", AreaId = "slipway" };
        await Assert.ThrowsAsync<InvalidInputException>(() => maps.Put([lawn, lawn with { Id = "bad", Points = [] }], [], [], read));
        await Assert.ThrowsAsync<InvalidInputException>(() => maps.Put([lawn], [bed], [], read));
        Assert.DoesNotContain((await Plans.Load()).Map, f => f.Id == "new-lawn");
        await maps.Put([lawn], [bed], [new Area("slipway", "Slipway", 1)], read);
        Plan plan = await Plans.Load();
        Assert.Equal(lawn, plan.Map.First(f => f.Id == "new-lawn"));
        Assert.Equal("Slipway", plan.AreaOf(plan.FindPlanter("sail-bed")!).Name);
        await maps.Remove("new-lawn", (await Versions()).Feature("new-lawn"));
        Assert.DoesNotContain((await Plans.Load()).Map, f => f.Id == "new-lawn");
    }

    [Fact]
    public async Task A_draft_is_kept_for_a_yes_and_then_forgotten()
    {
        var drafts = new DraftStore(test.Database);
        Guid id = await drafts.Keep("palette", "sheet.csv", [1, 2, 3]);
        Assert.Equal([1, 2, 3], (await drafts.Find("palette", id))!.Value.Content);
        Assert.Null(await drafts.Find("map", id));
        await drafts.Drop(id);
        Assert.Null(await drafts.Find("palette", id));
    }

    [Fact]
    public async Task Photographs_belong_to_their_planter_and_are_limited_in_number()
    {
        var photos = new PhotoStore(test.Database);
        for (int i = 0; i < PhotoStore.MostOfOne; i++)
            await photos.Add(Photo("flag-pot"), [0xff, (byte)i], [1]);
        Assert.Contains(
            "the most it may have",
            (await Assert.ThrowsAsync<InvalidInputException>(() => photos.Add(Photo("flag-pot"), [1], [1]))).Message,
            StringComparison.Ordinal
        );
        PlanterPhoto first = (await photos.Of("flag-pot"))[0];
        Assert.Null(await photos.Bytes("great-pot", first.Id, small: false));
        Assert.Equal([1], await photos.Bytes("flag-pot", first.Id, small: true));
        await photos.Remove("flag-pot", first.Id);
        Assert.Equal(PhotoStore.MostOfOne - 1, (await photos.Of("flag-pot")).Count);
    }

    private static PlanterPhoto Photo(string planter) => new(Guid.CreateVersion7(), planter, new LocalDate(2027, 4, 14), string.Empty, 4, 3);

    private static Plan Demo()
    {
        using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "demo", "kittiwake-quay.plan.json"));
        return PlanFile.Read(file);
    }
}

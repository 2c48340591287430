using NodaTime;
using UnrulyMeadow.Core.Review;

namespace UnrulyMeadow.Store.Tests;

/// <summary>Entries that correct others: the first stays readable, and counts no more.</summary>
public sealed class LogCorrectionTests(TestDatabase test) : IClassFixture<TestDatabase>
{
    [Fact]
    public async Task A_corrected_entry_stays_readable_and_is_counted_no_more()
    {
        var log = new LogStore(test.Database);
        Observation first = Entry(ObservationKind.Died) with { Count = 12 };
        Observation second = Entry(ObservationKind.Died) with { Count = 2, Corrects = first.Id };
        Observation withdrawn = Entry(ObservationKind.FirstColour);
        await log.Record([first, withdrawn]);
        await log.Record([second, Entry(ObservationKind.Withdrawn) with { Corrects = withdrawn.Id }]);
        Assert.True((await log.Find(first.Id))!.IsCorrected);
        Assert.Equal(2, Assert.Single(await log.OfKind(ObservationKind.Died)).Count);
        Assert.Empty(await log.OfKind(ObservationKind.FirstColour));
        Assert.Equal(4, (await log.Latest("pot", 10)).Count);
        Assert.Equal((0, 1), (await log.Ratings())["tulip"]);
    }

    [Fact]
    public async Task What_a_review_walk_found_comes_back_whole()
    {
        var log = new LogStore(test.Database);
        Observation[] found =
        [
            Entry(ObservationKind.Reviewed) with
            {
                PlanterId = "walked",
                PlantId = null,
                Review = new PlanterReview(4, ReviewVerdict.Change, true, 60),
                Note = "more yellow",
            },
            Entry(ObservationKind.Reviewed) with
            {
                PlanterId = "walked",
                PlantId = null,
                Review = new PlanterReview(1, ReviewVerdict.Drop),
            },
        ];
        await log.Record(found);
        foreach (Observation one in found)
            Assert.Equal((one.Review, one.Note), (await log.Find(one.Id) is { } read ? (read.Review, read.Note) : default));
        var all = new List<Observation>();
        await foreach (Observation o in log.All())
            all.Add(o);
        Assert.Equal(found.Select(f => f.Review).ToHashSet(), all.Where(o => o.Kind == ObservationKind.Reviewed).Select(o => o.Review).ToHashSet());
    }

    private static Observation Entry(ObservationKind kind) =>
        new(Guid.NewGuid(), "pot", "tulip", new LocalDate(2026, 10, 4), kind, string.Empty, "Rosa");
}

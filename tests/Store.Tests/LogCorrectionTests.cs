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

    private static Observation Entry(ObservationKind kind) =>
        new(Guid.NewGuid(), "pot", "tulip", new LocalDate(2026, 10, 4), kind, string.Empty, "Rosa");
}

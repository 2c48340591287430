using NodaTime;

namespace UnrulyMeadow.Core.Review;

/// <summary>What was seen.</summary>
public enum ObservationKind
{
    /// <summary>The first open colour.</summary>
    FirstColour,

    /// <summary>At its best.</summary>
    Peak,

    /// <summary>Grown together: no medium is seen any more.</summary>
    Full,

    /// <summary>No colour worth showing any more.</summary>
    Over,

    /// <summary>The display or plant did well here.</summary>
    DidWell,

    /// <summary>It did poorly here.</summary>
    DidPoorly,

    /// <summary>Dead.</summary>
    Died,

    /// <summary>Eaten by deer, rabbits, slugs or the like.</summary>
    Eaten,

    /// <summary>Taken by somebody.</summary>
    Stolen,

    /// <summary>Broken off, trodden down, or the container is damaged.</summary>
    Broken,

    /// <summary>It turned out to be another kind than it was sold as.</summary>
    Misnamed,

    /// <summary>Looked at on a review walk; see <see cref="Observation.Review"/>.</summary>
    Reviewed,

    /// <summary>Anything else, in words.</summary>
    Note,

    /// <summary>An entry that it corrects was never so.</summary>
    Withdrawn,
}

/// <summary>What is to become of a planting, after a look at it.</summary>
public enum ReviewVerdict
{
    /// <summary>It stays as it stands.</summary>
    Keep,

    /// <summary>The same again next year.</summary>
    Repeat,

    /// <summary>Again, but otherwise: the note says how.</summary>
    Change,

    /// <summary>Not again here.</summary>
    Drop,
}

/// <summary>What somebody found who stood before a planter with what was expected of the day in hand.</summary>
/// <param name="Rating">From 1, poor, to 5, splendid.</param>
/// <param name="Verdict">What is to become of it.</param>
/// <param name="IsInColour">True where it shows colour; null where nobody said.</param>
/// <param name="CoverPct">Share of the surface that leaf and flower hide, %; null where nobody said.</param>
public sealed record PlanterReview(int Rating, ReviewVerdict Verdict, bool? IsInColour = null, int? CoverPct = null)
{
    /// <summary>The best rating.</summary>
    public const int Best = 5;
}

/// <summary>One entry of the log: what happened, written once and never changed.</summary>
/// <param name="Id">Its own id, made where it was written, so that sending it twice records it once.</param>
/// <param name="PlanterId">The planter.</param>
/// <param name="PlantId">The plant; null when it is about the whole planter.</param>
/// <param name="Day">The day it was seen.</param>
/// <param name="Kind">What was seen.</param>
/// <param name="Note">Words; required for a note.</param>
/// <param name="By">Who saw it.</param>
public sealed record Observation(Guid Id, string PlanterId, string? PlantId, LocalDate Day, ObservationKind Kind, string Note, string By)
{
    /// <summary>What the plant was called when it was written down; null where nobody knows any more.</summary>
    public string? PlantName { get; init; }

    /// <summary>The instant at which it was written down; null until it is.</summary>
    public Instant? RecordedAt { get; init; }

    /// <summary>How many plants; null where nobody has counted.</summary>
    public int? Count { get; init; }

    /// <summary>The entry in whose place this one stands; null for one that corrects none. The first stays readable.</summary>
    public Guid? Corrects { get; init; }

    /// <summary>What was found on a review walk; null for every other entry.</summary>
    public PlanterReview? Review { get; init; }

    /// <summary>True where a later entry stands in its place.</summary>
    public bool IsCorrected { get; init; }

    /// <summary>True for what still holds: no later entry stands in its place, and it does not only take another back.</summary>
    public bool Counts => !IsCorrected && Kind != ObservationKind.Withdrawn;

    /// <summary>True for what takes plants away, and can be counted.</summary>
    public static bool IsLoss(ObservationKind kind) =>
        kind is ObservationKind.Died or ObservationKind.Eaten or ObservationKind.Stolen or ObservationKind.Broken;

    /// <summary>Every fault of the entry.</summary>
    /// <param name="today">No observation can be of a later day.</param>
    public IReadOnlyList<Fault> Faults(LocalDate today)
    {
        var faults = new FaultList();
        if (!Ids.IsValid(PlanterId))
            faults.Add("planterId", "must name a planter");
        if (PlantId is not null && !Ids.IsValid(PlantId))
            faults.Add("plantId", "must name a plant, or be left out");
        if (Day > today)
            faults.Add("day", "must not be after today");
        else if (Day < new LocalDate(1950, 1, 1))
            faults.Add("day", "must not be before 1950");
        if (Kind == ObservationKind.Note && string.IsNullOrWhiteSpace(Note))
            faults.Add("note", "must not be empty for a note");
        faults.Note("note", Note, 1000);
        faults.Text("by", By, 40);
        if (PlantName is not null)
            faults.Phrase("plantName", PlantName, 100);
        if (Count is { } count)
        {
            faults.Range("count", count, 1, Planning.DisplayItem.MostCount, "plants");
            if (!IsLoss(Kind))
                faults.Add("count", "is only said of what died, was eaten, stolen or broken");
        }
        if (Kind == ObservationKind.Reviewed != Review is not null)
            faults.Add("rating", "is said of what was reviewed, and of nothing else");
        if (Review is { } review)
        {
            if (review.Rating is < 1 or > PlanterReview.Best)
                faults.Add("rating", $"must be from 1 to {PlanterReview.Best}");
            if (!Enum.IsDefined(review.Verdict))
                faults.Add("verdict", "choose what is to become of it");
            if (review.CoverPct is < 0 or > 100)
                faults.Add("cover", "must be from 0 to 100 %");
        }
        if (Kind == ObservationKind.Withdrawn && Corrects is null)
            faults.Add("kind", "choose what you saw");
        if (Corrects == Id)
            faults.Add("corrects", "an entry cannot correct itself");
        if (Kind == ObservationKind.Misnamed && PlantId is null)
            faults.Add("plantId", "must name the plant that it was sold as");
        return faults.Faults;
    }
}

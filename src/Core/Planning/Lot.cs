using NodaTime;

namespace UnrulyMeadow.Core.Planning;

/// <summary>What a lot of plants is kept for.</summary>
public enum LotState
{
    /// <summary>Delivered, waiting to be planted.</summary>
    Waiting,

    /// <summary>Kept from a display to be used again.</summary>
    Kept,

    /// <summary>Heeled in: set close in a bed or tray for the time being.</summary>
    HeeledIn,

    /// <summary>Overwintering under cover.</summary>
    Overwintering,

    /// <summary>Bulbs forced and held in nursery pots, to plug into a bare planter.</summary>
    Forced,

    /// <summary>Lifted and stored dry.</summary>
    Stored,

    /// <summary>Set apart until it is known to be healthy: nothing is planted from it.</summary>
    Quarantine,

    /// <summary>Raised here, from cuttings or seed; its day is that from which it can be planted.</summary>
    Raised,
}

/// <summary>How a lot looks.</summary>
public enum LotCondition
{
    /// <summary>Good.</summary>
    Good,

    /// <summary>Fair: usable with care.</summary>
    Fair,

    /// <summary>Poor: fit to be dropped.</summary>
    Poor,
}

/// <summary>Plants of one kind that are at hand but stand in no display.</summary>
/// <param name="Id">Short name.</param>
/// <param name="PlantId">The plant.</param>
/// <param name="Count">How many, 0 once they are used up.</param>
/// <param name="State">What they are kept for.</param>
/// <param name="Place">Where, in the crew's words: a shelf, a frame, a bay.</param>
/// <param name="Since">Since when.</param>
/// <param name="Condition">How they look.</param>
/// <param name="FromPlanterId">The planter they came out of; null for bought ones.</param>
/// <param name="Note">Anything else.</param>
/// <param name="Form">The form in which they came, as displays and orders name it; null for the usual one.</param>
public sealed record Lot(
    string Id,
    string PlantId,
    int Count,
    LotState State,
    string Place,
    LocalDate Since,
    LotCondition Condition,
    string? FromPlanterId = null,
    string Note = "",
    string? Form = null
)
{
    /// <summary>Letters that its note takes.</summary>
    public const int MostNote = 500;

    /// <summary>Every fault of the lot on its own.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        if (!Ids.IsValid(Id))
            faults.Add("id", Ids.Rule);
        faults.Text("place", Place, 60);
        if (Count is < 0 or > 100_000)
            faults.Add("count", $"must be from 0 to 100,000 (it is {Count})");
        if (Since.Year is < 1950 or > 2150)
            faults.Add("since", "must be a date from 1950 to 2150");
        faults.Note("note", Note, MostNote);
        if (Form is not null)
            faults.Text("form", Form, 40);
        return faults.Faults;
    }
}

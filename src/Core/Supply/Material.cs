using NodaTime;
using UnrulyMeadow.Core.Work;

namespace UnrulyMeadow.Core.Supply;

/// <summary>What a material is for.</summary>
public enum MaterialKind
{
    /// <summary>Planting medium, litres.</summary>
    Medium,

    /// <summary>Acid planting medium, litres.</summary>
    AcidMedium,

    /// <summary>Feed of any sort, grams.</summary>
    Feed,

    /// <summary>Mulch, litres.</summary>
    Mulch,

    /// <summary>Pins for fabric, pieces.</summary>
    Pins,

    /// <summary>Nursery pots, pieces.</summary>
    Pots,

    /// <summary>Stakes and ties, pieces.</summary>
    Stakes,

    /// <summary>Labels, pieces.</summary>
    Labels,

    /// <summary>Anything else, pieces.</summary>
    Other,
}

/// <summary>A material kept in the store.</summary>
/// <param name="Id">Short name.</param>
/// <param name="Name">Name.</param>
/// <param name="Kind">What it is for; it tells the unit in which it is counted.</param>
/// <param name="PackSize">How much is in one pack: litres, grams or pieces.</param>
/// <param name="PackPrice">What a pack costs.</param>
/// <param name="ReorderAt">Once no more than so much is left, it is ordered again; 0 to leave it.</param>
public sealed record Material(string Id, string Name, MaterialKind Kind, double PackSize, decimal PackPrice, double ReorderAt)
{
    /// <summary>Days from its order to its delivery.</summary>
    public int LeadDays { get; init; } = 7;

    /// <summary>The unit in which it is counted.</summary>
    public static string UnitOf(MaterialKind kind) =>
        kind switch
        {
            MaterialKind.Medium or MaterialKind.AcidMedium or MaterialKind.Mulch => "L",
            MaterialKind.Feed => "g",
            _ => string.Empty,
        };

    /// <summary>What a turn needs of it; 0 for what no sheet measures.</summary>
    /// <param name="order">The turn's order.</param>
    public double NeededFor(TurnOrder order) =>
        Kind switch
        {
            MaterialKind.Medium => order.Medium.Where(m => !m.IsAcid).Sum(m => m.Litres),
            MaterialKind.AcidMedium => order.Medium.Where(m => m.IsAcid).Sum(m => m.Litres),
            MaterialKind.Feed => order.Feed.Sum(f => f.Grams),
            _ => 0,
        };

    /// <summary>Every fault of its own figures.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Text("name", Name, 60);
        faults.Range("packSize", PackSize, 0.01, 1_000_000, UnitOf(Kind));
        faults.Range("packPrice", (double)PackPrice, 0, 100_000, string.Empty);
        faults.Range("reorderAt", ReorderAt, 0, 10_000_000, UnitOf(Kind));
        faults.Range("leadDays", LeadDays, 0, 365, "days");
        return faults.Faults;
    }
}

/// <summary>Why the amount of a material changed.</summary>
public enum MaterialMove
{
    /// <summary>It was delivered.</summary>
    Received,

    /// <summary>A turn's sheets used it.</summary>
    Used,

    /// <summary>It was counted again.</summary>
    Counted,
}

/// <summary>A change of what is in the store: a record.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="MaterialId">The material.</param>
/// <param name="Day">The day.</param>
/// <param name="Change">More, or less below 0, in the material's unit.</param>
/// <param name="Kind">Why.</param>
/// <param name="TurnId">The turn whose sheets used it; null for none.</param>
public sealed record MaterialMovement(Guid Id, string MaterialId, LocalDate Day, double Change, MaterialMove Kind, string? TurnId = null);

/// <summary>What is in the store of a material, and what the turns to come want of it.</summary>
/// <param name="Material">The material.</param>
/// <param name="AtHand">What is there.</param>
/// <param name="Turns">Turns that have still to take of it, in order, with how much.</param>
public sealed record MaterialAccount(Material Material, double AtHand, IReadOnlyList<(Planning.Turn Turn, double Needed)> Turns)
{
    /// <summary>What they want in all.</summary>
    public double Needed => Turns.Sum(t => t.Needed);

    /// <summary>The first turn for which there is not enough; null where there is for all.</summary>
    public Planning.Turn? ShortFor
    {
        get
        {
            double left = AtHand;
            foreach ((Planning.Turn turn, double needed) in Turns)
            {
                left -= needed;
                if (left < -1e-6)
                    return turn;
            }
            return null;
        }
    }

    /// <summary>True where it is to be ordered again now: no more is left than the reorder point, or not enough for what comes.</summary>
    public bool IsToOrder => ShortFor is not null || (Material.ReorderAt > 0 && AtHand <= Material.ReorderAt);

    /// <summary>The last day to order it, for the first turn that goes short; null where none does.</summary>
    public LocalDate? OrderBy => ShortFor is { } turn ? (turn.Delivery ?? turn.FirstDay).PlusDays(-Material.LeadDays) : null;

    /// <summary>Packs that cover what is wanted, and leave the reorder point; 0 where nothing is to be ordered.</summary>
    public int PacksToOrder => IsToOrder ? Math.Max(1, (int)Math.Ceiling(((Needed + Material.ReorderAt - AtHand) / Material.PackSize) - 1e-9)) : 0;

    /// <summary>Adds up the store.</summary>
    /// <param name="material">The material.</param>
    /// <param name="movements">Movements of it.</param>
    /// <param name="orders">Orders of turns that are not over, in order.</param>
    public static MaterialAccount Of(Material material, IReadOnlyList<MaterialMovement> movements, IEnumerable<TurnOrder> orders)
    {
        // What a turn's sheets have used already is not wanted again.
        ILookup<string?, double> used = movements.Where(m => m.Kind == MaterialMove.Used).ToLookup(m => m.TurnId, m => -m.Change);
        return new MaterialAccount(
            material,
            movements.Sum(m => m.Change),
            [.. orders.Select(o => (o.Turn, Needed: Math.Max(0, material.NeededFor(o) - used[o.Turn.Id].Sum()))).Where(t => t.Needed > 0)]
        );
    }
}

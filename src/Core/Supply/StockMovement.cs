using NodaTime;

namespace UnrulyMeadow.Core.Supply;

/// <summary>Why the number of plants at hand changed.</summary>
public enum MovementKind
{
    /// <summary>They came from a supplier and were accepted.</summary>
    Received,

    /// <summary>They were kept out of a planter, or raised.</summary>
    Kept,

    /// <summary>They were planted.</summary>
    Planted,

    /// <summary>They died, were stolen or broken.</summary>
    Lost,

    /// <summary>They were composted: left over, or no good.</summary>
    Composted,

    /// <summary>They went to another site, or came from one.</summary>
    Moved,

    /// <summary>They were counted again, or written down otherwise.</summary>
    Corrected,
}

/// <summary>A change of the number of plants at hand: a record.</summary>
/// <param name="LotId">The lot.</param>
/// <param name="PlantId">The kind.</param>
/// <param name="Day">The day.</param>
/// <param name="Change">Plants more, or fewer below 0.</param>
/// <param name="Kind">Why.</param>
public sealed record StockMovement(string LotId, string PlantId, LocalDate Day, int Change, MovementKind Kind);

/// <summary>Where the plants of a kind came from and went to, over all that was written down.</summary>
/// <param name="PlantId">The kind.</param>
/// <param name="ByKind">Plants by why they came or went; those that went below 0.</param>
public sealed record StockAccount(string PlantId, IReadOnlyDictionary<MovementKind, int> ByKind)
{
    /// <summary>Plants at hand by what was written down: what came less what went.</summary>
    public int AtHand => ByKind.Values.Sum();

    /// <summary>Plants that came or went for a reason.</summary>
    public int Of(MovementKind kind) => ByKind.GetValueOrDefault(kind);

    /// <summary>Adds up movements, by kind of plant.</summary>
    public static IReadOnlyList<StockAccount> Of(IEnumerable<StockMovement> movements) =>
        [
            .. movements
                .GroupBy(m => m.PlantId, StringComparer.Ordinal)
                .OrderBy(g => g.Key, StringComparer.Ordinal)
                .Select(g => new StockAccount(g.Key, g.GroupBy(m => m.Kind).ToDictionary(k => k.Key, k => k.Sum(m => m.Change)))),
        ];
}

using NodaTime;
using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Closing;

/// <summary>A way to put colour into a bare spell.</summary>
public enum GapMoveKind
{
    /// <summary>The display before stays longer, or the next comes earlier.</summary>
    MoveTurn,

    /// <summary>What stands there is cut back, and flowers again.</summary>
    CutBack,

    /// <summary>Bulbs at hand or bought, forced and held in nursery pots, are plugged in.</summary>
    PlugIn,

    /// <summary>Bulbs go into the ground below.</summary>
    AddBulbs,

    /// <summary>Annuals or biennials fill an empty layer.</summary>
    Fill,

    /// <summary>Stems, evergreens or coloured leaf fill an empty layer.</summary>
    StemsAndEvergreens,

    /// <summary>One kind of a display makes way for another.</summary>
    Swap,
}

/// <summary>What a planner allows when bare spells are to be closed.</summary>
/// <param name="From">Nothing before this day can be changed: today.</param>
public sealed record GapQuestion(LocalDate From)
{
    /// <summary>Days from an order to its delivery where nobody has said otherwise (common practice: a week for what growers have ready).</summary>
    public const int UsualLeadDays = 7;

    /// <summary>Days from an order to its delivery, 0 to 120; what is at hand needs none.</summary>
    public int LeadDays { get; init; } = UsualLeadDays;

    /// <summary>Most that may be spent; null for no limit.</summary>
    public decimal? Budget { get; init; }

    /// <summary>True to use nothing but what is at hand.</summary>
    public bool OnlyStock { get; init; }

    /// <summary>Ways allowed; empty for all.</summary>
    public IReadOnlySet<GapMoveKind> Kinds { get; init; } = new HashSet<GapMoveKind>();

    /// <summary>Colours wanted, #rrggbb; empty for any.</summary>
    public IReadOnlyList<string> Colours { get; init; } = [];

    /// <summary>Most changes to one planter, 1 to 6.</summary>
    public int MostPerPlanter { get; init; } = 2;

    /// <summary>Most kinds of plants to buy over the whole answer; null for no limit.</summary>
    public int? MostKinds { get; init; }

    /// <summary>Most planters that can be worked on; null for no limit.</summary>
    public int? MostPlanters { get; init; }

    /// <summary>Planters asked; empty for the whole site.</summary>
    public IReadOnlySet<string> PlanterIds { get; init; } = new HashSet<string>(StringComparer.Ordinal);

    /// <summary>True when a way is allowed.</summary>
    public bool Allows(GapMoveKind kind) => Kinds.Count == 0 || Kinds.Contains(kind);

    /// <summary>Every fault of the question, and every pair of limits that cannot both hold.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        if (Budget is { } budget)
            faults.Range("budget", (double)budget, 0, 10_000_000, string.Empty);
        faults.Range("leadDays", LeadDays, 0, 120, "days");
        faults.Range("mostPerPlanter", MostPerPlanter, 1, 6, "changes");
        if (MostKinds is { } kinds)
            faults.Range("mostKinds", kinds, 0, 500, "kinds");
        if (MostPlanters is { } planters)
            faults.Range("mostPlanters", planters, 1, 100_000, "planters");
        for (int i = 0; i < Colours.Count; i++)
        {
            if (!Srgb.IsColour(Colours[i]))
                faults.Add($"colours[{i}]", "must be written #rrggbb");
        }
        bool plantsNew = Kinds.Count == 0 || Kinds.Any(k => k is not (GapMoveKind.MoveTurn or GapMoveKind.CutBack));
        if (!plantsNew && OnlyStock)
            faults.Add(
                "onlyStock",
                (
                    "conflicts with the ways allowed: moving turns and cutting back plant nothing, "
                    + "so there is no stock to use. Allow a way that plants, or leave stock open"
                )
            );
        if (MostKinds == 0 && Kinds.Count > 0 && Kinds.All(k => k is not (GapMoveKind.MoveTurn or GapMoveKind.CutBack)) && !OnlyStock)
            faults.Add(
                "mostKinds",
                (
                    "conflicts with the ways allowed: none may be bought, and every way allowed "
                    + "plants something. Allow some kinds, stock, or moving turns and cutting back"
                )
            );
        return faults.Faults;
    }
}

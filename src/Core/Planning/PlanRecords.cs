using NodaTime;

namespace UnrulyMeadow.Core.Planning;

/// <summary>Plants that really went in: a record.</summary>
/// <param name="DisplayId">The display that they belong to.</param>
/// <param name="PlantId">The kind that went in.</param>
/// <param name="Day">The day.</param>
/// <param name="Count">How many.</param>
public sealed record Planting(string DisplayId, string PlantId, LocalDate Day, int Count);

/// <summary>What has happened, as far as the plan must know of it: records, which no change of the plan takes back.</summary>
/// <param name="Plantings">What went in.</param>
/// <param name="Labour">Minutes by kind of work, as the crew's own times have taught them.</param>
public sealed record PlanRecords(IReadOnlyList<Planting> Plantings, LabourTable Labour)
{
    private Dictionary<(string, string), int>? _counts;

    /// <summary>Nothing yet.</summary>
    public static PlanRecords None { get; } = new([], LabourTable.Usual);

    /// <summary>Plants of a kind that went in with a display.</summary>
    public int CountOf(string displayId, string plantId) =>
        Plantings.Count == 0
            ? 0
            : (_counts ??= Plantings.GroupBy(p => (p.DisplayId, p.PlantId)).ToDictionary(g => g.Key, g => g.Sum(p => p.Count))).GetValueOrDefault(
                (displayId, plantId)
            );
}

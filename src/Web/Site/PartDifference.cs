using System.Text.Json;
using System.Text.Json.Nodes;

namespace UnrulyMeadow.Web.Site;

/// <summary>What a change did to one part of the plan, figure by figure, as plan files write them.</summary>
/// <param name="Part">The part, as list and id.</param>
/// <param name="Figures">The figures that differ: path, before and after; null where there was none.</param>
public sealed record PartDifference(string Part, IReadOnlyList<(string Path, string? Before, string? After)> Figures)
{
    // More is a part that came or went whole; its first figures say what it is.
    private const int MostFigures = 12;

    /// <summary>Compares a part as it was with what it became.</summary>
    /// <param name="part">The part, as list and id.</param>
    /// <param name="before">JSON; null where it was not there.</param>
    /// <param name="after">JSON; null where it is no more.</param>
    public static PartDifference Of(string part, string? before, string? after)
    {
        var was = new Dictionary<string, string>(StringComparer.Ordinal);
        var becomes = new Dictionary<string, string>(StringComparer.Ordinal);
        Lay(before is null ? null : JsonNode.Parse(before), string.Empty, was);
        Lay(after is null ? null : JsonNode.Parse(after), string.Empty, becomes);
        return new PartDifference(
            part,
            [
                .. was
                    .Keys.Union(becomes.Keys, StringComparer.Ordinal)
                    .Select(p => (Path: p, Before: was.GetValueOrDefault(p), After: becomes.GetValueOrDefault(p)))
                    .Where(f => f.Before != f.After)
                    .Take(MostFigures),
            ]
        );
    }

    private static void Lay(JsonNode? node, string path, Dictionary<string, string> into)
    {
        switch (node)
        {
            case JsonObject many:
                foreach ((string name, JsonNode? value) in many)
                    Lay(value, path.Length == 0 ? name : $"{path}.{name}", into);
                break;
            case JsonArray list:
                for (int i = 0; i < list.Count; i++)
                    Lay(list[i], $"{path}[{i + 1}]", into);
                break;
            case JsonValue value:
                into[path] = value.GetValueKind() == JsonValueKind.String ? value.GetValue<string>() : value.ToJsonString();
                break;
        }
    }
}

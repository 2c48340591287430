using System.Text.Json.Serialization;

namespace UnrulyMeadow.Hostile;

/// <summary>One request, as it can be written down and sent again.</summary>
/// <param name="Method">GET or POST.</param>
/// <param name="Path">Path and query.</param>
/// <param name="Fields">Form fields in their order; null for none.</param>
/// <param name="FileName">Name of the file sent in the field "Upload"; null for none.</param>
/// <param name="File">That file.</param>
public sealed record Operation(string Method, string Path, IReadOnlyList<string[]>? Fields = null, string? FileName = null, byte[]? File = null)
{
    /// <summary>Why it is kept, for one that once broke something.</summary>
    [JsonPropertyOrder(-1)]
    public string? Broke { get; init; }

    /// <inheritdoc />
    public override string ToString() =>
        (
            $"{Method} {Path} "
            + $"{string.Join('&', (Fields ?? []).Where(f => f[0] != "__RequestVerificationToken").Select(f => $"{f[0]}={(f[1].Length > 120 ? f[1][..120] + "…" : f[1])}"))}{(FileName is null ? string.Empty : $" [{FileName}, {File!.Length} bytes]")}"
        );
}

using System.Text.Json;
using UnrulyMeadow.Core;

namespace UnrulyMeadow.Exchange.PlanFiles;

/// <summary>Documents that stand beside a plan, as JSON files.</summary>
internal static class DocumentFile
{
    /// <summary>Reads one.</summary>
    /// <param name="stream">The file.</param>
    /// <param name="faults">Every fault of what was read.</param>
    /// <exception cref="InvalidInputException">It is no such file, or something in it is out of range.</exception>
    public static T Read<T>(Stream stream, Func<T, FaultList> faults)
        where T : class
    {
        using MemoryStream buffer = FileLimits.Read(stream);
        try
        {
            T document = JsonSerializer.Deserialize<T>(buffer, PlanFile.Options) ?? throw new InvalidInputException("file", "holds nothing");
            faults(document).ThrowIfAny();
            return document;
        }
        catch (JsonException e)
        {
            throw new InvalidInputException([PlanFile.FaultOf(e)]);
        }
        catch (Exception e) when (PlanFile.IsUnreadable(e))
        {
            throw PlanFile.Unreadable(e);
        }
    }

    /// <summary>Writes one.</summary>
    public static byte[] Write<T>(T document)
        where T : class => [.. JsonSerializer.SerializeToUtf8Bytes(document, PlanFile.Options), (byte)'\n'];
}

using System.Text.Json;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Exchange.PlanFiles;

namespace UnrulyMeadow.Exchange.Supply;

/// <summary>Suppliers, offers, orders and what came of them, the holding area, materials and budgets as a JSON file.</summary>
public static class SupplyFile
{
    /// <summary>Reads it.</summary>
    /// <exception cref="InvalidInputException">It is no such file, or something in it is out of range.</exception>
    public static SupplyDocument Read(Stream stream)
    {
        using MemoryStream buffer = FileLimits.Read(stream);
        try
        {
            SupplyDocument document = JsonSerializer.Deserialize<SupplyDocument>(buffer, PlanFile.Options)
                ?? throw new InvalidInputException("file", "holds nothing");
            document.Faults().ThrowIfAny();
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

    /// <summary>Writes it.</summary>
    public static byte[] Write(SupplyDocument document) => [.. JsonSerializer.SerializeToUtf8Bytes(document, PlanFile.Options), (byte)'\n'];
}

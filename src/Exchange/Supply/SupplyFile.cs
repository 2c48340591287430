using System.Text.Json;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Exchange.PlanFiles;

namespace UnrulyMeadow.Exchange.Supply;

/// <summary>Suppliers, offers, orders and what came of them, the holding area, materials and budgets as a JSON file.</summary>
public static class SupplyFile
{
    // What is not known may be left out.
    private static readonly JsonSerializerOptions Options = new(PlanFile.Options) { RespectRequiredConstructorParameters = false };

    /// <summary>Reads it.</summary>
    /// <exception cref="InvalidInputException">It is no such file, or something in it is out of range.</exception>
    public static SupplyDocument Read(Stream stream)
    {
        using MemoryStream buffer = FileLimits.Read(stream);
        try
        {
            SupplyDocument document = JsonSerializer.Deserialize<SupplyDocument>(buffer, Options)
                ?? throw new InvalidInputException("file", "holds nothing");
            // A list that is left out is empty.
            document = document with
            {
                Suppliers = document.Suppliers ?? [],
                Offers = document.Offers ?? [],
                Orders = document.Orders ?? [],
                Receipts = document.Receipts ?? [],
                Claims = document.Claims ?? [],
                Places = document.Places ?? [],
                Materials = document.Materials ?? [],
                MaterialMovements = document.MaterialMovements ?? [],
                Budgets = document.Budgets ?? [],
            };
            document.Faults().ThrowIfAny();
            return document;
        }
        catch (JsonException e)
        {
            throw new InvalidInputException([PlanFile.FaultOf(e)]);
        }
    }

    /// <summary>Writes it.</summary>
    public static byte[] Write(SupplyDocument document) => [.. JsonSerializer.SerializeToUtf8Bytes(document, Options), (byte)'\n'];
}

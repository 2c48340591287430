using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Exchange.PlanFiles;

namespace UnrulyMeadow.Exchange.Supply;

/// <summary>Suppliers, offers, orders and what came of them, the holding area, materials and budgets as a JSON file.</summary>
public static class SupplyFile
{
    /// <summary>Reads it.</summary>
    /// <exception cref="InvalidInputException">It is no such file, or something in it is out of range.</exception>
    public static SupplyDocument Read(Stream stream) => DocumentFile.Read<SupplyDocument>(stream, d => d.Faults());

    /// <summary>Writes it.</summary>
    public static byte[] Write(SupplyDocument document) => DocumentFile.Write(document);
}

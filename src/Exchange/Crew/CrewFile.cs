using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Exchange.PlanFiles;

namespace UnrulyMeadow.Exchange.Crew;

/// <summary>Work that was given, told and done as a JSON file.</summary>
public static class CrewFile
{
    /// <summary>Reads it.</summary>
    /// <exception cref="InvalidInputException">It is no such file, or something in it is out of range.</exception>
    public static CrewDocument Read(Stream stream) => DocumentFile.Read<CrewDocument>(stream, d => d.Faults());

    /// <summary>Writes it.</summary>
    public static byte[] Write(CrewDocument document) => DocumentFile.Write(document);
}

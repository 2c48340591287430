using System.Text;
using UnrulyMeadow.Core;

namespace UnrulyMeadow.Web.Site;

/// <summary>A table as a form sends it: rows pasted, or a file in their place.</summary>
public static class PastedTable
{
    /// <summary>Its bytes, as they wait to be looked at.</summary>
    /// <param name="rows">Rows as pasted.</param>
    /// <param name="upload">A file; it counts where there is one.</param>
    /// <exception cref="InvalidInputException">There is neither.</exception>
    public static async Task<byte[]> Of(string? rows, IFormFile? upload)
    {
        if (upload is not { Length: > 0 })
            return string.IsNullOrWhiteSpace(rows)
                ? throw new InvalidInputException("rows", "paste at least one row, or choose a file")
                : Encoding.UTF8.GetBytes(rows);
        using var buffer = new MemoryStream();
        await upload.CopyToAsync(buffer);
        return buffer.ToArray();
    }

    /// <summary>The form's field that a fault speaks of.</summary>
    public static string? Field(string fault) =>
        fault switch
        {
            "rows" => "Rows",
            "file" => "Upload",
            _ => null,
        };
}

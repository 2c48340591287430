using System.Text;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web.Site;

/// <summary>
/// Tables and files that are looked at before they are taken, all of it or nothing. What was sent waits under a number, so that every process
/// of the app can show it and take it.
/// </summary>
/// <param name="frame">The page's frame.</param>
/// <param name="drafts">Where they wait.</param>
/// <param name="heavy">One large table is read at a time.</param>
public sealed class LookFirst(PageFrame frame, DraftStore drafts, HeavyWork heavy)
{
    /// <summary>Keeps what was sent, once it can be read, and leads to where it is looked at.</summary>
    /// <param name="page">The page.</param>
    /// <param name="kind">What it is, as <see cref="DraftStore.Keep"/> knows it.</param>
    /// <param name="path">The page's path.</param>
    /// <param name="rows">Rows as pasted; null where the page takes files only.</param>
    /// <param name="upload">A file in their place.</param>
    /// <param name="read">Reads it; its faults are shown beside the form.</param>
    public Task<IActionResult> Keep(PageModel page, string kind, string path, string? rows, IFormFile? upload, Func<byte[], Task> read) =>
        frame.Saving(page, Field, () => heavy.Do<IActionResult>(async () =>
            {
                byte[] content = await Sent(rows, upload);
                await read(content);
                string name = upload is { Length: > 0 } file ? Path.GetFileName(file.FileName) : "rows";
                return new RedirectResult($"{path}?draft={await drafts.Keep(kind, name, content)}");
            }));

    /// <summary>Shows what waits.</summary>
    /// <param name="page">The page.</param>
    /// <param name="kind">What it is.</param>
    /// <param name="id">Its number.</param>
    /// <param name="path">Where it is sent again, when it waits no more.</param>
    /// <param name="show">Reads it, by name and bytes, for the page to show.</param>
    public Task<IActionResult> Show(PageModel page, string kind, Guid id, string path, Func<string, byte[], Task> show) =>
        With(page, kind, id, path, async (name, content) =>
        {
            await show(name, content);
            return page.Page();
        });

    /// <summary>Takes what was looked at; it waits no more.</summary>
    /// <param name="page">The page.</param>
    /// <param name="kind">What it is.</param>
    /// <param name="id">Its number.</param>
    /// <param name="path">Where it is sent again, when it waits no more.</param>
    /// <param name="take">Reads it anew, by name and bytes, and does what it says; returns the path that is led to.</param>
    public Task<IActionResult> Take(PageModel page, string kind, Guid id, string path, Func<string, byte[], Task<string>> take) =>
        With(page, kind, id, path, async (name, content) =>
        {
            string to = await take(name, content);
            await drafts.Drop(id);
            return new RedirectResult(to);
        });

    /// <summary>Works with what waits.</summary>
    /// <param name="page">The page.</param>
    /// <param name="kind">What it is.</param>
    /// <param name="id">Its number.</param>
    /// <param name="path">Where it is sent again, when it waits no more.</param>
    /// <param name="work">What is done, by name and bytes; faults are shown beside the form.</param>
    public async Task<IActionResult> With(PageModel page, string kind, Guid id, string path, Func<string, byte[], Task<IActionResult>> work)
    {
        if (await drafts.Find(kind, id) is { } draft)
            return await frame.Saving(page, Field, () => work(draft.Name, draft.Content));
        page.TempData["Said"] = "That was taken already, or waited more than a day. Send it again.";
        return new RedirectResult(path);
    }

    /// <summary>Reads a table when its turn comes.</summary>
    /// <param name="read">Reads its bytes.</param>
    public Task<T> Read<T>(Func<T> read) => heavy.Do(() => Task.FromResult(read()));

    // A file counts where there is one.
    private static async Task<byte[]> Sent(string? rows, IFormFile? upload)
    {
        if (upload is not { Length: > 0 })
            return rows switch
            {
                null => throw new InvalidInputException("file", "choose a file first"),
                _ when string.IsNullOrWhiteSpace(rows) => throw new InvalidInputException("rows", "paste at least one row, or choose a file"),
                _ => Encoding.UTF8.GetBytes(rows),
            };
        using var buffer = new MemoryStream();
        await upload.CopyToAsync(buffer);
        return buffer.ToArray();
    }

    // The form's field that a fault speaks of.
    private static string? Field(string fault) =>
        fault switch
        {
            "rows" => "Rows",
            "file" => "Upload",
            _ => null,
        };
}

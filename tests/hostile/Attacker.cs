using System.Diagnostics;
using System.Net;
using System.Text;
using AngleSharp;
using AngleSharp.Dom;
using AngleSharp.Html.Dom;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Web.Tests;

namespace UnrulyMeadow.Hostile;

/// <summary>What came of a request.</summary>
/// <param name="Code">The answer's code.</param>
/// <param name="Location">Where it leads; null for nowhere.</param>
/// <param name="Body">The answer's text, of pages alone.</param>
/// <param name="Took">How long it took, without the time for which the machine was given to others.</param>
public sealed record Outcome(int Code, string? Location, string Body, TimeSpan Took);

/// <summary>Fills forms as they are found, and changes what is in them.</summary>
/// <param name="browser">A browser with cookies.</param>
/// <param name="files">Good files by the route that takes them, to be changed.</param>
public sealed class Attacker(HttpClient browser, IReadOnlyDictionary<string, byte[]> files)
{
    /// <summary>Minutes that the whole is to take; null for the short run within the suite.</summary>
    public static readonly double? Minutes = double.TryParse(
        Environment.GetEnvironmentVariable("HOSTILE_MINUTES"),
        System.Globalization.CultureInfo.InvariantCulture,
        out double m
    )
        ? m
        : null;

    /// <summary>Longest that any answer may take. Within the suite other tests share the machine, and only what hangs is found.</summary>
    public static readonly TimeSpan Longest = TimeSpan.FromSeconds(Minutes is null ? 30 : 5);

    /// <summary>A file of all that the site holds takes as long as there is to write.</summary>
    public static readonly TimeSpan LongestDownload = 6 * Longest;

    private static readonly IBrowsingContext Context = BrowsingContext.New(Configuration.Default);

    /// <summary>Sends a request.</summary>
    public async Task<Outcome> Send(Operation operation)
    {
        long from = Stopwatch.GetTimestamp();
        TimeSpan stolen = Stolen.Time;
        using HttpContent? content = operation.Method == "GET" ? null : Content(operation);
        using var request = new HttpRequestMessage(new HttpMethod(operation.Method), new Uri(operation.Path, UriKind.Relative)) { Content = content };
        using HttpResponseMessage answer = await browser.SendAsync(request);
        string body = answer.Content.Headers.ContentType?.MediaType == "text/html" ? await answer.Content.ReadAsStringAsync() : string.Empty;
        if (body.Length == 0)
            await answer.Content.LoadIntoBufferAsync();
        TimeSpan took = Stopwatch.GetElapsedTime(from) - (Stolen.Time - stolen);
        if (answer.Content.Headers.ContentDisposition is { DispositionType: "attachment" } && took < LongestDownload)
            took = TimeSpan.Zero;
        string? leads = answer.Headers.Location?.ToString();
        // Whoever signed out, ended the session or became somebody who may less comes back as an owner.
        if (
            answer.StatusCode is HttpStatusCode.Forbidden or HttpStatusCode.Unauthorized
            || leads?.StartsWith("/signin", StringComparison.Ordinal) == true
        )
            await browser.TapIn();
        return new Outcome((int)answer.StatusCode, leads, body, took);
    }

    /// <summary>A page's forms that send something, each as a request that changes nothing.</summary>
    public static async Task<IReadOnlyList<Operation>> Forms(string path, string body)
    {
        using IDocument page = await Context.OpenAsync(r => r.Content(body));
        return
        [
            .. page.QuerySelectorAll<IHtmlFormElement>("main form[method=post]")
                .SelectMany(form =>
                {
                    string action = form.GetAttribute("action") is { Length: > 0 } a ? a : path;
                    List<string[]> fields = [.. Fields(form, page)];
                    IEnumerable<string> targets = form.QuerySelectorAll("[formaction]")
                        .Select(b => b.GetAttribute("formaction")!)
                        .Prepend(action)
                        .Distinct(StringComparer.Ordinal);
                    return targets.Select(t => new Operation("POST", t, fields));
                }),
        ];
    }

    /// <summary>A form sent through a door with nothing in it but the token of a page.</summary>
    public async Task<Operation> Bare(Door door, Plan plan, Random random)
    {
        string path = Path(door.Route, plan, random);
        return new Operation("POST", path + (door.Handler is null ? string.Empty : $"?handler={door.Handler}"), await Token(path));
    }

    /// <summary>A request through a door, hostile here and there.</summary>
    /// <param name="door">The door.</param>
    /// <param name="plan">The plan, for ids that exist.</param>
    /// <param name="random">Chance.</param>
    public async Task<Operation> Through(Door door, Plan plan, Random random)
    {
        string path = Path(door.Route, plan, random);
        if (door.Method == "GET" || door.Route.StartsWith("/jobs", StringComparison.Ordinal))
        {
            var query = new List<string>();
            if (door.Handler is not null)
                query.Add($"handler={door.Handler}");
            foreach (string name in door.Fields.Where(_ => random.Next(3) == 0))
                query.Add($"{Uri.EscapeDataString(name)}={Escaped(Known(name, plan, random))}");
            return new Operation(
                door.Method,
                query.Count == 0 ? path : $"{path}?{string.Join('&', query)}",
                door.Method == "GET" ? null : await Token(path)
            );
        }
        Outcome page = await Send(new Operation("GET", path));
        Assert.False(IsFailure(page), $"GET {path}: {page.Code} in {page.Took.TotalSeconds:0.0} s");
        IReadOnlyList<Operation> forms = page.Code == 200 ? await Forms(path, page.Body) : [];
        Operation[] own =
        [
            .. forms.Where(f =>
                door.Handler is null
                    ? !f.Path.Contains("handler=", StringComparison.Ordinal)
                    : f.Path.Contains($"handler={door.Handler}", StringComparison.OrdinalIgnoreCase)
            ),
        ];
        string[][] token = [.. forms.Take(1).SelectMany(f => f.Fields!).Where(f => f[0] == "__RequestVerificationToken")];
        Operation start =
            own.Length > 0
                ? own[random.Next(own.Length)]
                : new Operation(
                    "POST",
                    path + (door.Handler is null ? string.Empty : $"?handler={door.Handler}"),
                    [.. door.Fields.Select(f => new[] { f, Known(f, plan, random) }), .. token]
                );
        List<string[]> fields = [.. start.Fields!.Select(f => f.ToArray())];
        // Names that the door reads and its form does not show are tried too.
        if (random.Next(3) == 0 && door.Fields.Count > 0)
            fields.Add([door.Fields[random.Next(door.Fields.Count)], Known(string.Empty, plan, random)]);
        int changes = random.Next(5) == 0 ? 0 : 1 + random.Next(3);
        for (int i = 0; i < changes && fields.Count > 0; i++)
        {
            string[] field = fields[random.Next(fields.Count)];
            if (field[0] == "__RequestVerificationToken" && random.Next(20) > 0)
                continue;
            if (random.Next(12) == 0)
                fields.Remove(field);
            else if (random.Next(12) == 0)
                fields.Add([field[0], Corpus.Value(random)]);
            else
                field[1] = Known(field[0], plan, random);
        }
        if (!door.TakesFile || !files.TryGetValue(door.Route, out byte[]? file))
            return start with { Fields = fields };
        return start with
        {
            Fields = fields,
            FileName = Corpus.Value(random) is { Length: > 0 and < 200 } called ? called : "file.csv",
            File = random.Next(6) == 0 ? file : Corpus.Changed(file, random),
        };
    }

    private async Task<IReadOnlyList<string[]>> Token(string path)
    {
        Outcome page = await Send(new Operation("GET", "/site"));
        return page.Code == 200 ? [.. (await Forms(path, page.Body))[0].Fields!.Where(f => f[0] == "__RequestVerificationToken")] : [];
    }

    private static IEnumerable<string[]> Fields(IHtmlFormElement form, IDocument page)
    {
        foreach (
            IElement field in form.QuerySelectorAll("input[name], select[name], textarea[name]")
                .Concat(string.IsNullOrEmpty(form.Id) ? [] : page.QuerySelectorAll($"select[form='{form.Id}'], input[form='{form.Id}']"))
        )
        {
            if (field is IHtmlInputElement { Type: "file" } or IHtmlInputElement { Type: "radio" or "checkbox", IsChecked: false })
                continue;
            string value = field switch
            {
                IHtmlInputElement i => i.Value,
                IHtmlSelectElement s => s.Value ?? string.Empty,
                IHtmlTextAreaElement t => t.Value,
                _ => string.Empty,
            };
            yield return [field.GetAttribute("name")!, value];
        }
    }

    private static HttpContent Content(Operation operation)
    {
        if (operation.FileName is null)
            return new StringContent(
                string.Join('&', (operation.Fields ?? []).Select(f => $"{Escaped(f[0])}={Escaped(f[1])}")),
                Encoding.ASCII,
                "application/x-www-form-urlencoded"
            );
        var content = new MultipartFormDataContent();
        foreach (string[] field in operation.Fields ?? [])
            content.Add(new ByteArrayContent(Encoding.UTF8.GetBytes(field[1])), $"\"{Escaped(field[0])}\"");
        content.Add(new ByteArrayContent(operation.File!), "Upload", Escaped(operation.FileName));
        return content;
    }

    // Half characters cannot be written in UTF-8; they are sent as the bytes that a damaged client would send.
    private static string Escaped(string text)
    {
        var escaped = new StringBuilder();
        foreach (char c in text)
        {
            if (char.IsSurrogate(c))
                escaped.Append(
                    System.Globalization.CultureInfo.InvariantCulture,
                    $"%{0xE0 | (c >> 12):X2}%{0x80 | ((c >> 6) & 0x3F):X2}%{0x80 | (c & 0x3F):X2}"
                );
            else
                escaped.Append(Uri.EscapeDataString($"{c}"));
        }
        return escaped.ToString();
    }

    private static string Path(string route, Plan plan, Random random)
    {
        string[] parts = route.Split('/');
        for (int i = 0; i < parts.Length; i++)
        {
            if (!parts[i].Contains('{', StringComparison.Ordinal))
                continue;
            IReadOnlyList<string> ids = Surface.Ids(route, plan);
            string place =
                random.Next(12) == 0 || ids.Count == 0
                    ? Escaped(Corpus.Value(random) is { Length: > 0 and < 300 } odd && !odd.Contains('\0', StringComparison.Ordinal) ? odd : " ")
                    : ids[random.Next(ids.Count)];
            parts[i] = Surface.At(parts[i], place);
        }
        return string.Join('/', parts) is { Length: > 0 } path ? path : "/";
    }

    // Half of what is sent exists, and is only out of place.
    private static string Known(string name, Plan plan, Random random)
    {
        if (random.Next(2) == 0)
            return Corpus.Value(random);
        IReadOnlyList<string> ids = random.Next(7) switch
        {
            0 => [.. plan.Planters.Select(p => p.Id)],
            1 => [.. plan.Palette.Select(p => p.Id)],
            2 => [.. plan.Displays.Select(d => d.Id)],
            3 => [.. plan.Turns.Select(t => t.Id), .. plan.Areas.Select(a => a.Id)],
            4 =>
            [
                "Bulbs",
                "Seasonal",
                "Standing",
                "perennial",
                "bulb",
                "tender-annual",
                "Peak",
                "Stays",
                "OneEach",
                "true",
                "false",
                "shrub",
                "evergreen",
            ],
            5 => ["2027-04-14", "2026-12-01", "2028-06-01", "2027-09-30"],
            _ => ["5", "12", "40", "1.5", "#aabbcc", name],
        };
        return ids.Count == 0 ? string.Empty : ids[random.Next(ids.Count)];
    }

    /// <summary>True for an answer that no request may get.</summary>
    public static bool IsFailure(Outcome outcome) => outcome.Code >= (int)HttpStatusCode.InternalServerError || outcome.Took > Longest;
}

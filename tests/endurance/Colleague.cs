using System.Net;
using UnrulyMeadow.Web.Tests;

namespace UnrulyMeadow.Endurance;

/// <summary>Somebody who works at one site all the while, and remembers what the app said was saved.</summary>
internal sealed class Colleague(Fleet fleet, string name, string slug, string otherSlug, int seed) : IDisposable
{
    private const int MostEvents = 40;

    private readonly HttpClientHandler _cookies = new() { UseCookies = true };
    private readonly Random _random = new(seed);

    /// <summary>Log entries that were said to be recorded. Each is sent until it is.</summary>
    public HashSet<Guid> Logged { get; } = [];

    /// <summary>Events that were said to be added.</summary>
    public HashSet<string> Events { get; } = [];

    /// <summary>Events whose adding ended without a word.</summary>
    public HashSet<string> Unsure { get; } = [];

    /// <summary>The note that was said to be saved last, and those sent since without an answer.</summary>
    public List<string> Notes { get; } = [string.Empty];

    /// <summary>What was answered and must not have been.</summary>
    public List<string> Wrong { get; } = [];

    /// <summary>How often something was said to be saved.</summary>
    public int Acknowledged { get; private set; }

    /// <summary>How what was sent last was answered; empty while nothing was.</summary>
    public string Answered { get; private set; } = string.Empty;

    /// <summary>Who it is.</summary>
    public string Name => name;

    /// <summary>Writes the log as a crew does with its phones, until it is over.</summary>
    public async Task Log(string planter, CancellationToken over)
    {
        for (int i = 0; !over.IsCancellationRequested; i++)
        {
            Guid id = Guid.NewGuid();
            // A phone sends an entry again until it hears that it is there.
            while (!await Send("log", ("EntryId", $"{id}"), ("planter", planter), ("Day", "2026-11-01"), ("Kind", "Note"), ("Note", $"{slug} {i}")))
            {
                if (over.IsCancellationRequested)
                    return;
            }
            Logged.Add(id);
            await Peep();
        }
    }

    /// <summary>Changes a planter's note and adds events, as a planner at a desk.</summary>
    public async Task Plan(string planter, CancellationToken over)
    {
        for (int i = 0; !over.IsCancellationRequested; i++)
        {
            string note = $"{slug} {i}";
            Notes.Add(note);
            if (await Send($"planters/{planter}/edit", ("Input.Note", note)))
                Notes.RemoveRange(0, Notes.Count - 1);
            if (i % 4 == 0 && Events.Count < MostEvents)
            {
                string what = $"Fair {i} of {slug}";
                if (await Send("year/events", ("Name", what), ("FirstDay", $"2027-{1 + (i % 12):00}-{1 + (i % 28):00}")))
                    Events.Add(what);
                else
                    Unsure.Add(what);
            }
            await Peep();
        }
    }

    public void Dispose() => _cookies.Dispose();

    // The other site is not there for whoever does not belong to it, whatever is being killed meanwhile.
    private async Task Peep()
    {
        if (_random.Next(4) == 0)
            await Do(async browser =>
            {
                using HttpResponseMessage answer = await browser.GetAsync(new Uri($"/at/{otherSlug}/planters", UriKind.Relative));
                if (answer.IsSuccessStatusCode && answer.RequestMessage!.RequestUri!.AbsolutePath != "/signin")
                    Wrong.Add($"{name} was shown {otherSlug}");
                return true;
            });
    }

    private async Task<bool> Send(string page, params (string, string)[] fields)
    {
        bool isSaved = await Do(async browser =>
        {
            using HttpResponseMessage answer = await browser.Send($"/at/{slug}/{page}", null, fields);
            if (answer.StatusCode is HttpStatusCode.InternalServerError)
                Wrong.Add($"{name}, {page}: 500");
            Answered = $"{page}: {(int)answer.StatusCode} {answer.RequestMessage?.Method} {answer.RequestMessage?.RequestUri}";
            // A saved form leads on to another page; one that was refused is shown again.
            return answer.IsSuccessStatusCode
                && answer.RequestMessage!.Method == HttpMethod.Get
                && answer.RequestMessage.RequestUri!.AbsolutePath != "/signin";
        });
        if (isSaved)
            Acknowledged++;
        return isSaved;
    }

    private async Task<bool> Do(Func<HttpClient, Task<bool>> work)
    {
        Uri? at = fleet.Address(_random);
        if (at is null)
        {
            await Task.Delay(100);
            return false;
        }
        using var browser = new HttpClient(_cookies, disposeHandler: false) { BaseAddress = at, Timeout = TimeSpan.FromSeconds(30) };
        try
        {
            if (_cookies.CookieContainer.Count == 0)
                await browser.TapIn(name);
            return await work(browser);
        }
        catch (Exception e)
            when (e is HttpRequestException or IOException or TaskCanceledException or InvalidOperationException or Xunit.Sdk.XunitException)
        {
            // The process was killed midway, the page said that the database was away, or it is still being reckoned and has no form yet:
            // nothing was acknowledged.
            if (e is Xunit.Sdk.XunitException && e.Message.Contains(": 500", StringComparison.Ordinal))
                Wrong.Add($"{name}: {e.Message}");
            Answered = e.Message;
            await Task.Delay(50);
            return false;
        }
    }
}

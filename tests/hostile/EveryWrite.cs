using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Hostile;

/// <summary>After every kind of write that is accepted, every page loads.</summary>
public sealed class EveryWrite(HostileApp app) : IClassFixture<HostileApp>
{
    [Fact]
    public async Task After_every_kind_of_accepted_write_every_page_loads()
    {
        Attacker browser = app.Attacker();
        var accepted = new HashSet<string>(StringComparer.Ordinal);
        foreach (Door door in app.Doors.Where(d => d.Method == "POST" && !d.Route.StartsWith("/jobs", StringComparison.Ordinal)))
        {
            if (!IsOfPeople(door.Route))
                await app.Restore();
            Plan plan = await app.Plans.Load();
            IEnumerable<(string Path, string? Id)> paths = door.Route.Contains('{', StringComparison.Ordinal)
                ? Surface.Ids(door.Route, plan).Take(4).Select(id => (Surface.At(door.Route, id), (string?)id))
                : [(door.Route, null)];
            foreach ((string path, string? id) in paths)
            {
                if (await Accepted(browser, door, path) is not { } sent)
                    continue;
                accepted.Add(door.ToString());
                LoadedPlan now = await app.Plans.Now();
                Assert.True(now.Aside.Count == 0, $"{string.Join('\n', now.Aside)} after {sent}");
                // What is written about people stands on the pages about people.
                IReadOnlyList<Door> about = IsOfPeople(door.Route)
                    ? [.. app.Doors.Where(d => IsOfPeople(d.Route))]
                    : [.. app.Doors.Where(d => !IsOfPeople(d.Route))];
                IReadOnlyList<string> failed = await Walk.Failures(browser, about, now.Plan, 2, id);
                Assert.True(failed.Count == 0, $"{string.Join('\n', failed)}\nafter {sent}");
                break;
            }
        }
        // Forms that are sent as they are found are mostly accepted; if not, this test looks at nothing.
        Assert.True(accepted.Count >= 12, string.Join('\n', accepted));
    }

    private static bool IsOfPeople(string route) =>
        route.Split('/', StringSplitOptions.RemoveEmptyEntries)
            is ["me" or "people" or "sites" or "signin" or "signout" or "welcome" or "join" or "phone", ..];

    private async Task<Operation?> Accepted(Attacker browser, Door door, string path)
    {
        Outcome page = await browser.Send(new Operation("GET", path));
        if (page.Code != 200)
            return null;
        foreach (
            Operation form in (await Attacker.Forms(path, page.Body)).Where(f =>
                door.Handler is null
                    ? !f.Path.Contains("handler=", StringComparison.Ordinal)
                    : f.Path.Contains($"handler={door.Handler}", StringComparison.OrdinalIgnoreCase)
            )
        )
        {
            Operation sent =
                door.TakesFile && app.Files.TryGetValue(door.Route, out byte[]? file) ? form with { FileName = "file", File = file } : form;
            Outcome outcome = await browser.Send(sent);
            Assert.False(Attacker.IsFailure(outcome), $"{sent}: {outcome.Code}");
            if (outcome.Code == 302)
                return sent;
        }
        return null;
    }
}

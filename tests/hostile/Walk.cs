using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Hostile;

/// <summary>Loads the app's pages, each as a person would open it, and finds those that fail.</summary>
public static class Walk
{
    /// <summary>Every page that is opened with GET; of pages about one thing, some things of each kind.</summary>
    /// <param name="doors">Every door.</param>
    /// <param name="plan">The plan.</param>
    /// <param name="some">How many things of each kind; the latest and the first.</param>
    /// <param name="also">The id of a thing that is loaded in any case; none where nothing has it.</param>
    public static IEnumerable<string> Paths(IReadOnlyList<Door> doors, Plan plan, int some, string? also = null)
    {
        foreach (
            Door door in doors.Where(d =>
                d.Method == "GET"
                && d.Handler is not ("generate" or "photo" or "file" or "rows")
                && d.Route is not ("/" or "/site/plan")
                && !d.Route.StartsWith("/jobs", StringComparison.Ordinal)
            )
        )
        {
            string query = door.Handler is null ? string.Empty : $"?handler={door.Handler}";
            if (!door.Route.Contains('{', StringComparison.Ordinal))
            {
                yield return door.Route + query;
                continue;
            }
            IReadOnlyList<string> ids = Surface.Ids(door.Route, plan);
            foreach (
                string id in ids.Take(some / 2)
                    .Concat(ids.TakeLast(some - (some / 2)))
                    .Concat(ids.Where(id => id == also))
                    .Distinct(StringComparer.Ordinal)
                    .Where(id => id != "new" || door.Handler is null)
            )
                yield return Surface.At(door.Route, id) + query;
        }
    }

    /// <summary>Loads them; empty when all is well.</summary>
    public static async Task<IReadOnlyList<string>> Failures(Attacker browser, IReadOnlyList<Door> doors, Plan plan, int some, string? also = null)
    {
        var failed = new List<string>();
        foreach (string path in Paths(doors, plan, some, also))
        {
            Outcome outcome = await browser.Send(new Operation("GET", path));
            if (Attacker.IsFailure(outcome))
                failed.Add($"{path}: {outcome.Code} in {outcome.Took.TotalSeconds:0.0} s");
        }
        return failed;
    }
}

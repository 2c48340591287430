namespace UnrulyMeadow.Core.Crew;

/// <summary>Where people's time went.</summary>
public static class PlanterMinutes
{
    /// <summary>Minutes of people by the planter's id. A task at several planters is shared out alike; what nobody has timed is left out.</summary>
    /// <param name="accounts">Tasks with what was told of them.</param>
    public static IReadOnlyDictionary<string, double> Of(IEnumerable<TaskAccount> accounts)
    {
        var minutes = new Dictionary<string, double>(StringComparer.Ordinal);
        foreach (TaskAccount account in accounts)
        {
            if (account.Minutes is not { } took || took == 0)
                continue;
            CrewTask task = account.Given.Asked;
            List<string> at =
            [
                .. task.PlanterId is { } one ? [one] : task.Lines.Select(l => l.PlanterId).OfType<string>().Distinct(StringComparer.Ordinal),
            ];
            foreach (string planter in at)
                minutes[planter] = minutes.GetValueOrDefault(planter) + ((double)took / at.Count);
        }
        return minutes;
    }
}

using NodaTime;

namespace UnrulyMeadow.Core.Planting;

/// <summary>Days on which the site must look its best: an opening, a festival, a visit.</summary>
/// <param name="Id">Short name.</param>
/// <param name="Name">Name for people.</param>
/// <param name="FirstDay">First day.</param>
/// <param name="LastDay">Last day, included.</param>
public sealed record SiteEvent(string Id, string Name, LocalDate FirstDay, LocalDate LastDay)
{
    /// <summary>Every fault of the event.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        if (!Ids.IsValid(Id))
            faults.Add("id", Ids.Rule);
        faults.Text("name", Name, 60);
        if (FirstDay.Year is < 1950 or > 2150)
            faults.Add("firstDay", "must be a date from 1950 to 2150");
        if (LastDay < FirstDay)
            faults.Add("lastDay", "must not be before the first day");
        else if (LastDay > FirstDay.PlusDays(60))
            faults.Add("lastDay", "must be within 60 days of the first day");
        return faults.Faults;
    }
}

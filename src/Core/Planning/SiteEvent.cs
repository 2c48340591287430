using NodaTime;

namespace UnrulyMeadow.Core.Planning;

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
        faults.Days("firstDay", FirstDay, "lastDay", LastDay);
        return faults.Faults;
    }
}

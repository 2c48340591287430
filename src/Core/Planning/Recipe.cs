using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Planning;

/// <summary>A display kept as a pattern for other planters, with the planter that it was made for.</summary>
/// <param name="Id">Short name.</param>
/// <param name="Name">Name for people, unique on the site.</param>
/// <param name="Layer">The layer it fills.</param>
/// <param name="Form">Inside of the planter that it was made for.</param>
/// <param name="Items">Its plants, with their places where a person laid them out.</param>
/// <param name="Note">Anything else; may be empty.</param>
public sealed record Recipe(string Id, string Name, DisplayLayer Layer, PlanterForm Form, IReadOnlyList<DisplayItem> Items, string Note = "")
{
    /// <summary>Every fault of the recipe on its own.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        if (!Ids.IsValid(Id))
            faults.Add("id", Ids.Rule);
        faults.Text("name", Name, 60);
        faults.Note("note", Note, 500);
        faults.AddAll("form", Form.Faults());
        if (Items.Count == 0)
            faults.Add("items", "must hold at least one plant");
        for (int i = 0; i < Items.Count; i++)
        {
            if (Items[i].Count is < 1 or > DisplayItem.MostCount)
                faults.Add($"items[{i}].count", $"must be from 1 to 10,000 (it is {Items[i].Count})");
        }
        return faults.Faults;
    }
}

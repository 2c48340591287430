using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Planning;

/// <summary>
/// The displays of a planter and their kinds as they were in a plan: what was reckoned of them is kept while another plan holds the same objects.
/// </summary>
internal sealed class PlanterDisplays
{
    private readonly string _planterId;
    private readonly IReadOnlyList<Display> _displays;
    private readonly Plant?[] _plants;

    /// <summary>Notes what a plan has in a planter.</summary>
    public PlanterDisplays(Plan plan, Planter planter)
    {
        _planterId = planter.Id;
        _displays = plan.DisplaysOf(planter.Id);
        _plants = [.. _displays.SelectMany(d => d.Items.Select(i => plan.FindPlant(i.PlantId)))];
    }

    /// <summary>True while a plan has the same in it.</summary>
    public bool AreIn(Plan plan)
    {
        IReadOnlyList<Display> displays = plan.DisplaysOf(_planterId);
        if (displays.Count != _displays.Count)
            return false;
        int plant = 0;
        for (int d = 0; d < displays.Count; d++)
        {
            if (!ReferenceEquals(displays[d], _displays[d]))
                return false;
            foreach (DisplayItem item in displays[d].Items)
            {
                if (!ReferenceEquals(plan.FindPlant(item.PlantId), _plants[plant++]))
                    return false;
            }
        }
        return true;
    }
}

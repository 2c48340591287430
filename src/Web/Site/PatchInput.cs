using System.Globalization;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Arranging;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Web.Site;

/// <summary>Part of a display to be replaced, as typed.</summary>
public sealed class PatchInput
{
    public string? Day { get; set; }

    /// <summary>Which line of the display, from 0.</summary>
    public string? Item { get; set; }

    public string? Count { get; set; }

    /// <summary>Which of them, by the numbers that the arrangement gives them, parted by commas; empty for the last ones.</summary>
    public string? At { get; set; }

    /// <summary>What becomes of those that come out.</summary>
    public string? Fate { get; set; }

    /// <summary>What goes in; empty to leave the places open.</summary>
    public string? With { get; set; }

    /// <summary>How many go in; empty for as many as come out.</summary>
    public string? WithCount { get; set; }

    /// <summary>The form's field that a fault speaks of.</summary>
    public static string? Field(string fault) =>
        fault switch
        {
            "day" => "Patch.Day",
            "item" => "Patch.Item",
            "count" => "Patch.Count",
            "with" => "Patch.WithCount",
            "at" => "Patch.At",
            _ => fault.StartsWith("Patch.", StringComparison.Ordinal) ? fault : null,
        };

    /// <summary>Reads what was typed; every fault names its field of the form.</summary>
    public DisplayPatch Read(Plan plan)
    {
        var faults = new FaultList();
        if (Words.ReadDay(Day) is not { } day)
        {
            faults.Add("day", "must be a date");
            day = default;
        }
        if (!Number(Item, out int item))
            faults.Add("item", "choose what comes out");
        if (!Number(Count, out int count))
            faults.Add("count", "must be a whole number");
        DisplayItem? with = null;
        if (!string.IsNullOrEmpty(With))
        {
            int more = count;
            if (plan.FindPlant(With) is not { GoesOutInLeaf: true })
                faults.Add("Patch.With", "choose a plant");
            if (!string.IsNullOrWhiteSpace(WithCount) && !Number(WithCount, out more))
                faults.Add("with", "must be a whole number, or empty for as many as come out");
            with = new DisplayItem(With, more);
        }
        var at = new List<int>();
        foreach (string number in (At ?? string.Empty).Split([',', ' '], StringSplitOptions.RemoveEmptyEntries))
        {
            if (Number(number, out int n))
                at.Add(n - 1);
            else
                faults.Add("at", $"\"{number}\" is no number; write 3, 5, or leave it empty for the last ones");
        }
        faults.ThrowIfAny();
        return new DisplayPatch(day, item, count, with)
        {
            At = at,
            Fate = Enum.TryParse(Fate, out PlantFate fate) && Enum.IsDefined(fate) && fate != PlantFate.Stays ? fate : null,
        };
    }

    private static bool Number(string? text, out int number) =>
        int.TryParse(text, NumberStyles.AllowLeadingWhite | NumberStyles.AllowTrailingWhite, CultureInfo.InvariantCulture, out number);
}

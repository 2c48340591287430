using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Web.Site;

/// <summary>Lines of care in the crew's words and units.</summary>
public static class CareLines
{
    /// <summary>One line of a task of care.</summary>
    public static string Say(FactWriter crew, UnitsText units, TaskLine line) =>
        line.Care == CareWork.Water
            ? crew.Crew("LineWaterAt", ("at", line.At), ("litres", units.Volume(line.Litres ?? 0)))
            : crew.Crew(
                "LineTend",
                ("at", line.At),
                ("count", line.Name.Length == 0 ? null : line.Count),
                ("name", line.Name.Length == 0 ? null : line.Name),
                ("cut", line.CutToCm is { } cut ? crew.Of(Quantity.Cm(cut)) : null),
                ("grams", line.Grams is { } grams ? units.Small(grams / 1000) : null),
                ("litres", line.Litres is { } litres ? units.Volume(litres) : null),
                ("look", line.Pest is { } pest ? crew.Crew($"PestName{pest}") : null)
            );

    /// <summary>How a task of care is done, once for all its lines: what is looked for, and what hands do.</summary>
    public static IEnumerable<string> How(FactWriter crew, CrewTask task)
    {
        CareWork? work = task.Lines.Select(l => l.Care).FirstOrDefault(c => c is not null);
        if (work is CareWork.Winter or CareWork.Cover or CareWork.Secure)
            yield return crew.Crew($"CareHow{work}");
        foreach (Pest pest in task.Lines.Select(l => l.Pest).OfType<Pest>().Distinct().Order())
            yield return crew.Say(pest);
    }
}

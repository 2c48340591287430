using UnrulyMeadow.Core.Colour;

namespace UnrulyMeadow.Core.Palette;

/// <summary>What shows the colour.</summary>
public enum ColourPart
{
    /// <summary>Open flower, or coloured bract.</summary>
    Flower,

    /// <summary>Leaf of a colour other than plain green.</summary>
    Leaf,

    /// <summary>Bare stem or bark.</summary>
    Stem,

    /// <summary>Berry, hip or cone.</summary>
    Berry,
}

/// <summary>A stretch of the year in which a plant shows colour.</summary>
/// <param name="Part">What shows it.</param>
/// <param name="Colours">One or more sRGB colours as #rrggbb, the strongest first.</param>
/// <param name="Share">Share of the plant's spread that is in this colour at its best, 0 to 1.</param>
/// <param name="Rule">When.</param>
public sealed record ColourWindow(ColourPart Part, IReadOnlyList<string> Colours, double Share, ColourRule Rule)
{
    /// <summary>
    /// Standard deviation of the rule's own date at a site where nobody has watched it yet, days: what weather years alone
    /// do not show. Usual 6, from memory.
    /// </summary>
    public double SpreadDays { get; init; } = 6;

    /// <summary>Weight in "in colour": flowers 1, leaf, stem and berry 0.6 (common practice).</summary>
    public double Weight => Part == ColourPart.Flower ? 1 : 0.6;

    /// <summary>Every fault of the window.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Range("share", Share, 0, 1, string.Empty);
        faults.Range("spreadDays", SpreadDays, 0, 40, "days");
        if (Colours is not { Count: > 0 })
            faults.Add("colours", "must hold at least one colour");
        for (int i = 0; i < (Colours?.Count ?? 0); i++)
        {
            if (!Srgb.IsColour(Colours![i]))
                faults.Add($"colours[{i}]", "must be written #rrggbb");
        }
        if (Rule is null)
            faults.Add("rule", "must be given");
        else
            faults.AddAll("rule", Rule.Faults());
        return faults.Faults;
    }
}

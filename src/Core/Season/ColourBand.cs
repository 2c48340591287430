using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Season;

/// <summary>What one plant shows of one colour through a plan year.</summary>
/// <param name="DisplayId">The display it stands in.</param>
/// <param name="Plant">The plant.</param>
/// <param name="Window">The colour window.</param>
/// <param name="MeanCover">Share of what is seen of the planter by day, 0 to 1, meaned over the weather years; the odds soften its edges.</param>
public sealed record ColourBand(string DisplayId, Plant Plant, ColourWindow Window, float[] MeanCover)
{
    /// <summary>Its largest mean cover.</summary>
    public float Peak => MeanCover.Length == 0 ? 0 : MeanCover.Max();
}

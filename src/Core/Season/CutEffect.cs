using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Season;

/// <summary>What a cut does to flowers and width (common practice; days to the next flowers are the plant's own figures).</summary>
internal static class CutEffect
{
    private const int LatelyDays = 90;

    /// <summary>
    /// Takes the flowers off from each cut until the plant's own days have passed, then shows its flush for as many days as it
    /// lasts. A plant without a flush only loses what was cut until its own rule shows flowers again.
    /// </summary>
    /// <param name="share">Share of its best by day, as it would be uncut.</param>
    /// <param name="growing">The plant.</param>
    /// <param name="rule">The rule behind it: what flowers by warmth has no flush in the cold, cut or uncut.</param>
    public static void Apply(Span<double> share, Growing growing, ColourRule rule)
    {
        double after = growing.Plant.Tending.FlushAfterDays ?? 0;
        double lasts = growing.Plant.Tending.FlushDays ?? 0;
        foreach ((int cut, CutBack _) in growing.Cuts)
        {
            int at = Math.Clamp(cut, 0, share.Length);
            // Only a plant that has flowered lately has heads to lose; a cut before the flowers holds them back by its own rule.
            bool flowered = share[Math.Max(0, at - LatelyDays)..at].ContainsAnyExcept(0.0);
            int again = Math.Min(share.Length, at + (int)Math.Max(after, 14));
            if (!flowered)
                continue;
            share[at..again].Clear();
            if (lasts <= 0 || rule is WarmthFlowering)
                continue;
            int end = Math.Min(Math.Min(share.Length, growing.LiftIndex), again + (int)lasts);
            for (int i = again; i < end; i++)
            {
                bool stalled = growing.Plant.Windows.Any(w =>
                    w.Rule is FromInstall { HeatCeilingC: { } ceiling } && growing.Season.WeekMeanC[i] > ceiling
                );
                double open = Math.Clamp((i - again + 1) / (2 * ColourRule.PlantToPlantDays), 0, 1);
                share[i] = Math.Max(share[i], stalled ? 0 : open);
            }
        }
        growing.ClearAfterFrost(share);
    }

    /// <summary>Share of its width on a day: what a cut leaves, growing back until the next flowers.</summary>
    public static double WidthLeft(Growing growing, int day)
    {
        double back = Math.Max(14, growing.Plant.Tending.FlushAfterDays ?? 28);
        double left = 1;
        foreach ((int at, CutBack cut) in growing.Cuts)
        {
            double now = cut.WidthLeft(growing.Plant);
            // What is cut lower takes longer: the days of its next flowers from half its height, twice as many from the ground.
            double days = back * 2 * (1 - cut.HeightShare(growing.Plant));
            if (day >= at)
                left = days <= 0 ? 1 : Math.Min(1, now + ((1 - now) * (day - at) / days));
        }
        return left;
    }
}

using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Grounds;

/// <summary>How a planter looks from afar.</summary>
public enum Showing
{
    /// <summary>In colour in most years.</summary>
    Colour,

    /// <summary>Green, with too little colour.</summary>
    Green,

    /// <summary>Bare.</summary>
    Bare,
}

/// <summary>What a planter shows from one day on, until the next such stretch.</summary>
/// <param name="FromIndex">Day of the plan year.</param>
/// <param name="Showing">How it looks.</param>
/// <param name="Colours">Up to three colours with their shares of the surface, the largest first.</param>
public sealed record PaintStretch(int FromIndex, Showing Showing, IReadOnlyList<(string Colour, double Share)> Colours);

/// <summary>
/// A planter's looks through a plan year in few stretches, so that a map of a thousand planters can be moved through the
/// year without asking anew.
/// </summary>
public static class PlanterPaint
{
    // Shares are rounded to this; a change smaller than it cannot be seen on a map.
    private const double Step = 0.06;

    // Green covers that say more than bare earth.
    private const double LeastGreen = 0.15;

    /// <summary>The stretches of a planter's year; none without weather.</summary>
    public static IReadOnlyList<PaintStretch> Of(PlanterSeason season)
    {
        if (season.Years == 0)
            return [new PaintStretch(0, Showing.Bare, [])];
        var stretches = new List<PaintStretch>();
        for (int d = 0; d < season.Days; d++)
        {
            PaintStretch today = On(season, d);
            if (stretches.Count == 0 || stretches[^1].Showing != today.Showing || !stretches[^1].Colours.SequenceEqual(today.Colours))
                stretches.Add(today);
        }
        return stretches;
    }

    /// <summary>The looks on one day.</summary>
    public static PaintStretch On(PlanterSeason season, int day)
    {
        var byColour = new Dictionary<string, double>(StringComparer.Ordinal);
        foreach (ColourBand band in season.Bands)
        {
            double cover = band.MeanCover[day];
            if (cover > Step / 2)
                byColour[band.Window.Colours[0]] = byColour.GetValueOrDefault(band.Window.Colours[0]) + cover;
        }
        List<(string Colour, double Share)> colours = [.. byColour
            .Select(c => (Colour: c.Key, Share: Math.Min(1, Math.Round(c.Value / Step) * Step)))
            .Where(c => c.Share > 0)
            .OrderByDescending(c => c.Share).ThenBy(c => c.Colour, StringComparer.Ordinal)
            .Take(3)];
        Showing showing = season.ShareInColour[day] >= 0.5f ? Showing.Colour : season.Green[day] >= LeastGreen ? Showing.Green : Showing.Bare;
        return new PaintStretch(day, showing, colours);
    }
}

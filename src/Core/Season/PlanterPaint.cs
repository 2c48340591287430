namespace UnrulyMeadow.Core.Season;

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

    private const int MostColours = 3;

    /// <summary>The stretches of a planter's year; none without weather.</summary>
    public static IReadOnlyList<PaintStretch> Of(PlanterSeason season)
    {
        if (season.Years == 0)
            return [new PaintStretch(0, Showing.Bare, [])];
        (string[] names, float[][] covers) = ByColour(season);
        var stretches = new List<PaintStretch>();
        Span<int> before = stackalloc int[(2 * MostColours) + 1];
        Span<int> today = stackalloc int[(2 * MostColours) + 1];
        before.Fill(-2);
        for (int d = 0; d < season.Days; d++)
        {
            WriteAppearance(season, covers, d, today);
            if (today.SequenceEqual(before))
                continue;
            today.CopyTo(before);
            stretches.Add(Stretch(d, names, today));
        }
        return stretches;
    }

    /// <summary>The looks on one day.</summary>
    public static PaintStretch On(PlanterSeason season, int day)
    {
        (string[] names, float[][] covers) = ByColour(season);
        Span<int> look = stackalloc int[(2 * MostColours) + 1];
        WriteAppearance(season, covers, day, look);
        return Stretch(day, names, look);
    }

    // Covers of one colour together, colours in the order of their names so that equal ones keep their places.
    private static (string[] Names, float[][] Covers) ByColour(PlanterSeason season)
    {
        var groups = season.Bands.GroupBy(b => b.Window.Colours[0]).OrderBy(g => g.Key, StringComparer.Ordinal).ToList();
        return ([.. groups.Select(g => g.Key)], [.. groups.Select(Together)]);

        float[] Together(IGrouping<string, ColourBand> bands)
        {
            if (bands.Count() == 1)
                return bands.First().MeanCover;
            var sum = new float[season.Days];
            foreach (ColourBand band in bands)
            {
                for (int d = 0; d < sum.Length; d++)
                    sum[d] += band.MeanCover[d];
            }
            return sum;
        }
    }

    // How it looks, then up to three colours as number and steps of cover, the largest first; −1 for none.
    private static void WriteAppearance(PlanterSeason season, float[][] covers, int day, Span<int> look)
    {
        look[1..].Fill(-1);
        for (int c = 0; c < covers.Length; c++)
        {
            int steps = (int)Math.Round(Math.Min(1, covers[c][day]) / Step);
            if (steps == 0)
                continue;
            int place = MostColours;
            while (place > 0 && steps > look[2 * place])
                place--;
            if (place == MostColours)
                continue;
            for (int k = MostColours - 1; k > place; k--)
                (look[(2 * k) + 1], look[(2 * k) + 2]) = (look[(2 * k) - 1], look[2 * k]);
            (look[(2 * place) + 1], look[(2 * place) + 2]) = (c, steps);
        }
        look[0] = (int)(
            season.ShareInColour[day] >= ColourOdds.InColour ? Showing.Colour
            : season.Green[day] >= LeastGreen ? Showing.Green
            : Showing.Bare
        );
    }

    private static PaintStretch Stretch(int day, string[] names, ReadOnlySpan<int> look)
    {
        var colours = new List<(string, double)>(MostColours);
        for (int k = 0; k < MostColours && look[(2 * k) + 1] >= 0; k++)
            colours.Add((names[look[(2 * k) + 1]], Math.Min(1, look[(2 * k) + 2] * Step)));
        return new PaintStretch(day, (Showing)look[0], colours);
    }
}

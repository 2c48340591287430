using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Season;

/// <summary>What is known of a plant where one is to be chosen.</summary>
/// <param name="Plant">The plant.</param>
/// <param name="Match">How well it answers what was typed.</param>
/// <param name="Fit">Whether it fits, and how much colour it brings; null where no planter and days are asked, or it is not known yet.</param>
/// <param name="Recent">0 for the kind that was planned last, 1 for the one before; null where it was not planned lately.</param>
public sealed record PlantChoice(Plant Plant, WordMatch Match, (FitVerdict Verdict, double Score)? Fit, int? Recent);

/// <summary>Finds plants by words, the likeliest choice first.</summary>
public static class PlantFinder
{
    /// <summary>How many kinds count as planned lately.</summary>
    public const int MostRecent = 12;

    /// <summary>
    /// Plants that answer some words: those whose names begin so before those with the words in their names, and these before what other
    /// words answer; among them what fits or is doubtful before what fails, the shortlist and what was planned lately before the rest, then by the fit.
    /// Retired plants are left out.
    /// </summary>
    /// <param name="palette">Plants to choose from.</param>
    /// <param name="typed">What was typed; null or empty for all.</param>
    /// <param name="words">Words by which a plant is found besides its common name.</param>
    /// <param name="fits">Fits by plant; null where they are not known.</param>
    /// <param name="recent">Kinds planned lately, the last first.</param>
    public static IReadOnlyList<PlantChoice> Find(
        IEnumerable<Plant> palette,
        string? typed,
        Func<Plant, string> words,
        IReadOnlyDictionary<string, (FitVerdict Verdict, double Score)>? fits,
        IReadOnlyList<string> recent
    )
    {
        var search = new WordSearch(typed);
        var lately = recent.Take(MostRecent).Select((id, i) => (id, i)).ToDictionary(r => r.id, r => r.i, StringComparer.Ordinal);
        return
        [
            .. palette
                .Where(p => !p.IsRetired)
                .Select(p => (Plant: p, Match: search.Match(p.CommonName, words(p))))
                .Where(p => p.Match is not null)
                .Select(p => new PlantChoice(
                    p.Plant,
                    p.Match!.Value,
                    fits is not null && fits.TryGetValue(p.Plant.Id, out var fit) ? fit : null,
                    lately.TryGetValue(p.Plant.Id, out int i) ? i : null
                ))
                .OrderBy(c => c.Match)
                .ThenBy(c => c.Fit?.Verdict == FitVerdict.Fails)
                .ThenByDescending(c => c.Plant.IsShortlisted)
                .ThenBy(c => c.Recent ?? int.MaxValue)
                .ThenBy(c => c.Fit?.Verdict ?? FitVerdict.Fits)
                .ThenByDescending(c => c.Fit?.Score ?? 0)
                .ThenBy(c => c.Plant.CommonName, StringComparer.Ordinal),
        ];
    }
}

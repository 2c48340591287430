using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Arranging;

/// <summary>
/// In what two neighbours differ: height, texture, habit, colour. Neighbours that differ in nothing are lost in each
/// other.
/// </summary>
/// <param name="One">One plant.</param>
/// <param name="OneShows">The strongest colour that it shows, or its leaf's.</param>
/// <param name="Other">The other.</param>
/// <param name="OtherShows">The strongest colour that the other shows, or its leaf's.</param>
public sealed record NeighbourDifference(Plant One, string OneShows, Plant Other, string OtherShows)
{
    /// <summary>CIEDE2000 between the colours.</summary>
    public double ColourDifference { get; } = Colour.ColourDifference.Between(OneShows, OtherShows);

    /// <summary>Heights at least this many times apart are seen to differ (common practice).</summary>
    public const double HeightTimes = 1.4;

    /// <summary>What differs, in words; empty when nothing does.</summary>
    public IReadOnlyList<string> In
    {
        get
        {
            var found = new List<string>();
            double times = Math.Max(One.HeightCm, Other.HeightCm) / Math.Min(One.HeightCm, Other.HeightCm);
            if (times >= HeightTimes)
                found.Add($"height, {times:0.0} times");
            if (One.Texture != Other.Texture)
                found.Add($"texture, {One.Texture.ToString().ToLowerInvariant()} and {Other.Texture.ToString().ToLowerInvariant()}");
            if (One.Habit != Other.Habit)
                found.Add($"form, {One.Habit.ToString().ToLowerInvariant()} and {Other.Habit.ToString().ToLowerInvariant()}");
            if (ColourDifference >= Colour.ColourDifference.LooksAlike)
                found.Add($"colour, {ColourDifference:0}");
            return found;
        }
    }

    /// <summary>True when they differ in nothing.</summary>
    public bool IsLost => In.Count == 0;

    /// <summary>The arithmetic behind it.</summary>
    public Working Explain() =>
        new(
            $"{One.CommonName} beside {Other.CommonName}",
            IsLost ? "lost in each other" : "differ in " + string.Join("; ", In),
            [
                new(One.CommonName, $"{One.HeightCm:0} cm, {One.Texture.ToString().ToLowerInvariant()}, {One.Habit.ToString().ToLowerInvariant()}"),
                new(
                    Other.CommonName,
                    $"{Other.HeightCm:0} cm, {Other.Texture.ToString().ToLowerInvariant()}, {Other.Habit.ToString().ToLowerInvariant()}"
                ),
                new("colours", $"{ColourDifference:0.0} apart (CIEDE2000)"),
            ],
            $"Neighbours must differ in height ({HeightTimes:0.0} times), texture, form or colour ({Colour.ColourDifference.LooksAlike:0}), or one is lost",
            "Common practice; colour by Sharma, Wu & Dalal 2005",
            []
        );
}

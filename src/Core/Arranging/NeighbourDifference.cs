using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Facts;
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

    /// <summary>What differs, each a <see cref="NeighbourContrast"/>; empty when nothing does.</summary>
    public IReadOnlyList<Fact> In
    {
        get
        {
            var found = new List<Fact>();
            double times = Math.Max(One.HeightCm, Other.HeightCm) / Math.Min(One.HeightCm, Other.HeightCm);
            if (times >= HeightTimes)
                found.Add(new Fact(NeighbourContrast.Height, ("times", Quantity.Number(times, 1))));
            if (One.Texture != Other.Texture)
                found.Add(new Fact(NeighbourContrast.Texture, ("one", One.Texture), ("other", Other.Texture)));
            if (One.Habit != Other.Habit)
                found.Add(new Fact(NeighbourContrast.Form, ("one", One.Habit), ("other", Other.Habit)));
            if (ColourDifference >= Colour.ColourDifference.LooksAlike)
                found.Add(new Fact(NeighbourContrast.Colour, ("difference", Quantity.Number(ColourDifference))));
            return found;
        }
    }

    /// <summary>True when they differ in nothing.</summary>
    public bool IsLost => In.Count == 0;

    /// <summary>The arithmetic behind it.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.NeighbourDifference,
            IsLost ? (object?)WorkingPhrase.LostInEachOther : new Fact(WorkingPhrase.DifferIn, ("items", In.ToList())),
            [
                new WorkingInput(
                    One,
                    new Fact(WorkingPhrase.Beside, ("height", Quantity.Cm(One.HeightCm)), ("texture", One.Texture), ("habit", One.Habit))
                ),
                new WorkingInput(
                    Other,
                    new Fact(WorkingPhrase.Beside, ("height", Quantity.Cm(Other.HeightCm)), ("texture", Other.Texture), ("habit", Other.Habit))
                ),
                new WorkingInput(
                    InputName.Colours,
                    new Fact(WorkingPhrase.NeighbourDifferenceColoursApart, ("colourDifference", Quantity.Number(ColourDifference, 1)))
                ),
            ]
        )
        {
            Parts =
            [
                ("one", One),
                ("other", Other),
                ("heightTimes", Quantity.Number(HeightTimes, 1)),
                ("looksAlike", Quantity.Number(Colour.ColourDifference.LooksAlike)),
            ],
        };
}

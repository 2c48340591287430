using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Web.Site;

/// <summary>The lines of a display's form.</summary>
/// <param name="Lines">What was typed, always at least one line.</param>
/// <param name="Plants">Plants to choose from.</param>
/// <param name="WithDepth">True for bulbs.</param>
/// <param name="Units">Units of depth.</param>
/// <param name="PlanterId">The planter that they are for.</param>
public sealed record LinesView(IList<DisplayLine> Lines, IReadOnlyList<Plant> Plants, bool WithDepth, UnitsText Units, string PlanterId);

using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Wording;

namespace UnrulyMeadow.Reckon;

/// <summary>Words beside the codes that are given out.</summary>
internal static class Said
{
    /// <summary>In English, in metric units.</summary>
    public static FactWriter Metric { get; } = new(SiteUnits.Metric);
}

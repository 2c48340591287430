using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Reckon;

/// <summary>A planter of which only the inside, the wall and the side it is seen from are known.</summary>
internal static class PlainPlanter
{
    /// <summary>Makes it: in full sun and watered by hand, which nothing asked here depends on.</summary>
    public static Planter Of(PlanterForm form, WallMaterial wall = WallMaterial.Terracotta, ViewedFrom viewedFrom = ViewedFrom.AllRound) =>
        new()
        {
            Id = "planter",
            AreaId = "area",
            Name = "planter",
            Form = form,
            Exposure = Exposure.FullSun,
            Watering = Watering.Hand,
            ViewedFrom = viewedFrom,
            Wall = form.IsBed ? WallMaterial.None : wall,
            WallColour = "#c98a67",
        };
}

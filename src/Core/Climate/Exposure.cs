namespace UnrulyMeadow.Core.Climate;

/// <summary>Direct sun over the growing season: full is six hours a day or more, part three to six, shade less.</summary>
public enum Exposure
{
    /// <summary>Under three hours of direct sun.</summary>
    Shade,

    /// <summary>Three to six hours.</summary>
    PartSun,

    /// <summary>Six hours or more.</summary>
    FullSun,
}

namespace UnrulyMeadow.Core.Arranging;

/// <summary>How colours can go against a school. The words stand in the Wording project.</summary>
public enum SchemeBreak
{
    /// <summary>Hues are farther apart than one colour allows.</summary>
    NotOneColour,

    /// <summary>Hues are farther apart than neighbours.</summary>
    NotNeighbouring,

    /// <summary>A colour is near none of the institution's.</summary>
    NotOfTheInstitution,

    /// <summary>One hue, and too little difference in lightness for a contrast.</summary>
    OneHueNoContrast,

    /// <summary>Hues and lightness are too near for a contrast.</summary>
    NoContrast,
}

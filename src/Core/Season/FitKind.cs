namespace UnrulyMeadow.Core.Season;

/// <summary>What is looked at when a plant is judged for a planter.</summary>
public enum FitAspect
{
    /// <summary>Direct sun.</summary>
    Light,

    /// <summary>Water and drainage.</summary>
    Water,

    /// <summary>The measured pH.</summary>
    Ph,

    /// <summary>Acid medium.</summary>
    Medium,

    /// <summary>Depth for roots or bulbs.</summary>
    Depth,

    /// <summary>Width, and the roots of a tree.</summary>
    Room,

    /// <summary>Height against sightline, wind and proportion.</summary>
    Height,

    /// <summary>Cold on flower and leaf.</summary>
    Tops,

    /// <summary>Cold on roots in winter.</summary>
    WinterRoots,

    /// <summary>Heat that stops flowers.</summary>
    Heat,

    /// <summary>Wind.</summary>
    Wind,

    /// <summary>Salt.</summary>
    Salt,

    /// <summary>Deer.</summary>
    Deer,

    /// <summary>People and dogs near what harms.</summary>
    People,

    /// <summary>A rest of the soil after a disease.</summary>
    Rest,

    /// <summary>Colour in the weeks asked.</summary>
    Colour,
}

/// <summary>Why a plant fits badly. The words stand in the Wording project.</summary>
public enum FitKind
{
    /// <summary>It wants more sun.</summary>
    TooLittleSun,

    /// <summary>It stands less sun.</summary>
    TooMuchSun,

    /// <summary>It must never dry out, and only rain waters the planter.</summary>
    NeverDryButOnlyRain,

    /// <summary>It dries out between waterings, and the planter drains poorly.</summary>
    DryButDrainsPoorly,

    /// <summary>It rots in wet, and the planter drains poorly.</summary>
    RotsInWet,

    /// <summary>The measured pH is outside what it wants.</summary>
    PhOutOfRange,

    /// <summary>It wants acid soil, and nobody has measured the bed.</summary>
    AcidSoilNotMeasured,

    /// <summary>It wants acid medium, which a container can be given.</summary>
    GiveAcidMedium,

    /// <summary>A bulb lies deeper than the planter leaves.</summary>
    BaseTooDeep,

    /// <summary>A tree's roots fill the planter.</summary>
    TreeRoots,

    /// <summary>As bought it is wider than the planter.</summary>
    WiderThanThePlanter,

    /// <summary>Grown it is more than twice as wide as the planter.</summary>
    OutgrowsThePlanter,

    /// <summary>Its roots want more depth.</summary>
    LacksDepth,

    /// <summary>It stands higher than sightline or wind allow.</summary>
    TooHigh,

    /// <summary>It stands higher than looks right.</summary>
    TallForThePlanter,

    /// <summary>Cold spoils its tops before the weeks are over.</summary>
    TopsSpoiled,

    /// <summary>Its roots may die in winter.</summary>
    RootsLostInWinter,

    /// <summary>Heat stops its flowers.</summary>
    StallsInHeat,

    /// <summary>It bears little wind, and the planter stands exposed.</summary>
    Wind,

    /// <summary>It bears little salt, and sea spray reaches it.</summary>
    SeaSpray,

    /// <summary>It bears little salt, and de-icing salt reaches it.</summary>
    DeicingSalt,

    /// <summary>Deer eat it often, and come here.</summary>
    Deer,

    /// <summary>It irritates skin, and people touch it.</summary>
    IrritatesSkin,

    /// <summary>It is poisonous, and children or dogs come near.</summary>
    Poisonous,

    /// <summary>The planter rests from its genus.</summary>
    SoilRests,

    /// <summary>The site has no weather.</summary>
    NoWeather,

    /// <summary>It cannot go in early enough.</summary>
    CannotGoInBefore,

    /// <summary>It shows no colour in the weeks asked.</summary>
    ShowsNothing,

    /// <summary>It shows in few years in the weeks asked.</summary>
    SeldomShows,
}

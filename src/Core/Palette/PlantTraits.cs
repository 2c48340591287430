namespace UnrulyMeadow.Core.Palette;

/// <summary>How coarse leaf and branch look from a few steps away.</summary>
public enum Texture
{
    /// <summary>Grass-like, feathery or tiny-leaved.</summary>
    Fine,

    /// <summary>In between.</summary>
    Medium,

    /// <summary>Large leaves, thick stems.</summary>
    Bold,
}

/// <summary>How hard a plant pushes its neighbours.</summary>
public enum Vigour
{
    /// <summary>Is overgrown easily.</summary>
    Weak,

    /// <summary>Holds its place.</summary>
    Moderate,

    /// <summary>Takes its neighbours' room.</summary>
    Vigorous,
}

/// <summary>What a plant wants to root in.</summary>
public enum RootingMedium
{
    /// <summary>Any open medium.</summary>
    Any,

    /// <summary>Acid, without lime.</summary>
    Acid,

    /// <summary>Gritty, dry after rain.</summary>
    Gritty,

    /// <summary>Rich and moist.</summary>
    Rich,
}

/// <summary>How often something eats it.</summary>
public enum Eaten
{
    /// <summary>Seldom.</summary>
    Seldom,

    /// <summary>At times.</summary>
    AtTimes,

    /// <summary>Often.</summary>
    Often,
}

/// <summary>How much of something is borne, or offered.</summary>
public enum Grade
{
    /// <summary>Little.</summary>
    Low,

    /// <summary>Some.</summary>
    Medium,

    /// <summary>Much.</summary>
    High,
}

/// <summary>Harm that a plant does to those who eat or touch it.</summary>
public enum Hazard
{
    /// <summary>None known; nobody vouches for it.</summary>
    NoneKnown,

    /// <summary>Upsets the stomach, or irritates.</summary>
    Irritant,

    /// <summary>Poisonous.</summary>
    Poisonous,
}

/// <summary>What roots ask for beyond light and water.</summary>
/// <param name="Medium">The medium.</param>
/// <param name="PhLow">Lowest pH that suits.</param>
/// <param name="PhHigh">Highest pH that suits.</param>
/// <param name="HeatCeilingC">A week whose mean is above this stalls or spoils it, °C; null where heat does nothing.</param>
/// <param name="DrySummerRest">True where a wet summer rots it at rest.</param>
public sealed record RootNeeds(
    RootingMedium Medium = RootingMedium.Any,
    double PhLow = 5.5,
    double PhHigh = 7.5,
    double? HeatCeilingC = null,
    bool DrySummerRest = false
);

/// <summary>What it bears, and what eats it.</summary>
/// <param name="Deer">How often deer eat it.</param>
/// <param name="Rabbits">How often rabbits do.</param>
/// <param name="Slugs">How often slugs do.</param>
/// <param name="Salt">Salt borne: sea spray and de-icing.</param>
/// <param name="Wind">Wind borne.</param>
/// <param name="Pests">Usual pests and diseases, in words.</param>
public sealed record Resistance(
    Eaten Deer = Eaten.AtTimes,
    Eaten Rabbits = Eaten.AtTimes,
    Eaten Slugs = Eaten.Seldom,
    Grade Salt = Grade.Low,
    Grade Wind = Grade.Medium,
    string Pests = ""
);

/// <summary>When in its year a plant is cut.</summary>
public enum CutMoment
{
    /// <summary>Never, or nobody has said.</summary>
    None,

    /// <summary>Some weeks after planting, or in early summer, so that it branches: a pinch.</summary>
    WhenYoung,

    /// <summary>When its flowers are over.</summary>
    AfterFlowering,

    /// <summary>In the middle of summer, before it is bare below.</summary>
    MidSummer,

    /// <summary>As soon as it tires, stalls in heat or sprawls.</summary>
    WhenTired,

    /// <summary>Before it grows in spring; until then it stands.</summary>
    EarlySpring,
}

/// <summary>What it asks of the crew while it stands.</summary>
/// <param name="Cutting">When and how far to cut, in words.</param>
/// <param name="FlushAfterDays">Days from a cut to the next flowers; null where it does not flower again.</param>
/// <param name="FlushDays">Days that those flowers show.</param>
/// <param name="HiddenBy">What hides its dying leaves, in words.</param>
/// <param name="Partner">The partner without which it bears no berries, in words.</param>
/// <param name="Deadhead">True where spent flowers are taken off, week by week while it flowers.</param>
/// <param name="CutWhen">When it is cut.</param>
/// <param name="CutLeaves">Share of its height that the cut leaves, 0 to 1.</param>
public sealed record Tending(
    string Cutting = "",
    double? FlushAfterDays = null,
    double? FlushDays = null,
    string HiddenBy = "",
    string Partner = "",
    bool Deadhead = false,
    CutMoment CutWhen = CutMoment.None,
    double CutLeaves = 0.5
);

/// <summary>Harm to people and animals. Common knowledge, not a list of what is safe: ask poison control or a vet.</summary>
/// <param name="People">When people eat it.</param>
/// <param name="Animals">When pets or stock eat it.</param>
/// <param name="Skin">On skin and eyes.</param>
public sealed record Harm(Hazard People = Hazard.NoneKnown, Hazard Animals = Hazard.NoneKnown, Hazard Skin = Hazard.NoneKnown)
{
    /// <summary>Where to ask, said beside every such remark.</summary>
    public const string WhereToAsk = "Common knowledge, not a safety list: ask poison control, a vet, and local advice.";

    /// <summary>True when any harm is known.</summary>
    public bool IsKnown => People != Hazard.NoneKnown || Animals != Hazard.NoneKnown || Skin != Hazard.NoneKnown;
}

/// <summary>A grade in which a bulb is sold.</summary>
/// <param name="Name">By circumference or class, e.g. "12/+" or "top size".</param>
/// <param name="HeightCm">Base to tip, cm.</param>
/// <param name="DiameterCm">At its widest, cm.</param>
public sealed record BulbGrade(string Name, double HeightCm, double DiameterCm);

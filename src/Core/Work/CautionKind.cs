namespace UnrulyMeadow.Core.Work;

/// <summary>What a day sheet warns of. The words stand in the Wording project.</summary>
public enum CautionKind
{
    /// <summary>What the palette warns of.</summary>
    OfPlant,

    /// <summary>A powered auger is used.</summary>
    PoweredAuger,

    /// <summary>The crew kneels.</summary>
    Kneeling,

    /// <summary>Filled large pots are moved.</summary>
    HeavyPots,

    /// <summary>Root balls are cut.</summary>
    Knife,

    /// <summary>Pests are treated with soap or oil.</summary>
    SoapOrOil,

    /// <summary>Pests are tolerated.</summary>
    ToleratePests,
}

namespace UnrulyMeadow.Core.Crew;

/// <summary>What is looked for on plants: pests and diseases that crews meet on displays.</summary>
public enum Pest
{
    /// <summary>Whitefly under leaves, in damp half shade.</summary>
    Whitefly,

    /// <summary>Caterpillars on cabbages and kales.</summary>
    CabbageCaterpillars,

    /// <summary>Caterpillars in buds of petunias and their kin.</summary>
    Budworm,

    /// <summary>Aphids on soft tips.</summary>
    Aphids,

    /// <summary>Grey mould after wet days.</summary>
    Botrytis,

    /// <summary>Slugs and snails.</summary>
    Slugs,

    /// <summary>Vine weevil: notched leaves, grubs at the roots of pots.</summary>
    VineWeevil,

    /// <summary>Tulip fire: scorched, twisted shoots.</summary>
    TulipFire,

    /// <summary>Downy mildew of busy lizzies.</summary>
    DownyMildew,

    /// <summary>Red lily beetle.</summary>
    LilyBeetle,

    /// <summary>Spider mites in hot, dry places.</summary>
    SpiderMites,
}

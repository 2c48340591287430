namespace UnrulyMeadow.Core.Work;

/// <summary>Why a planter takes so much fresh medium at a changeover.</summary>
public enum MediumReason
{
    /// <summary>It is filled for the first time.</summary>
    FilledForTheFirstTime,

    /// <summary>No deeper than the bulbs that stay allow.</summary>
    NoDeeperOverBulbs,

    /// <summary>Filled new for what stands for years.</summary>
    NewForWhatStands,

    /// <summary>Laid fresh under the bulbs.</summary>
    FreshUnderBulbs,

    /// <summary>All replaced by the house rule.</summary>
    AllReplaced,

    /// <summary>The top is renewed.</summary>
    FreshTop,
}

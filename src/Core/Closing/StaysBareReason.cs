namespace UnrulyMeadow.Core.Closing;

/// <summary>Why a planter stays bare. The words stand in the Wording project.</summary>
public enum StaysBareReason
{
    /// <summary>Nothing that is allowed, fits and shows was found.</summary>
    NothingFound,

    /// <summary>What was found does not fit within the limits.</summary>
    BeyondTheLimits,

    /// <summary>Some days stay bare.</summary>
    DaysStay,
}

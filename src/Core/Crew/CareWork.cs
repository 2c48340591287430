namespace UnrulyMeadow.Core.Crew;

/// <summary>What care between turns asks of the crew, one kind of handling at a time.</summary>
public enum CareWork
{
    /// <summary>Give water by hand.</summary>
    Water,

    /// <summary>Give feed.</summary>
    Feed,

    /// <summary>Take off spent flowers.</summary>
    Deadhead,

    /// <summary>Pinch out tips, so that it branches.</summary>
    Pinch,

    /// <summary>Cut back or shear.</summary>
    CutBack,

    /// <summary>Cut down what stood through winter, before it grows.</summary>
    CutInSpring,

    /// <summary>Take the old flowers off bulbs; leaves stay.</summary>
    BulbFlowers,

    /// <summary>Take away leaves of bulbs, brown by now.</summary>
    BulbLeaves,

    /// <summary>Stake or tie.</summary>
    Stake,

    /// <summary>Turn the container by a quarter, so that it grows even.</summary>
    Turn,

    /// <summary>Lift, divide and set back.</summary>
    Divide,

    /// <summary>Look for pests and disease.</summary>
    Scout,

    /// <summary>Cover against frost, or move in.</summary>
    Cover,

    /// <summary>Take the cover off.</summary>
    Uncover,

    /// <summary>Make what is tall fast against a storm, or lay it down.</summary>
    Secure,

    /// <summary>Shake snow off.</summary>
    ShakeSnow,

    /// <summary>Make ready for hard frost: drip lines blown out, drains free, thin walls wrapped.</summary>
    Winter,
}

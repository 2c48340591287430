namespace UnrulyMeadow.Core.Acts;

/// <summary>Why nothing is done to a planter, or not all that was asked.</summary>
public enum ActHinder
{
    /// <summary>Nothing of the kind is there to be acted on.</summary>
    NothingThere,

    /// <summary>Nothing of what was to go in fits.</summary>
    NothingFits,

    /// <summary>Some kind was left out because none of it fits.</summary>
    LeftOut,

    /// <summary>The layer is filled on the day that it was to go in.</summary>
    LayerTaken,

    /// <summary>It comes out earlier than asked, because the next display goes in.</summary>
    Shortened,

    /// <summary>It stands in no look group, or alone in it.</summary>
    NoPair,

    /// <summary>It is the planter that is copied.</summary>
    ItsOwn,

    /// <summary>What was to change has gone in already.</summary>
    Begun,

    /// <summary>The kind cannot stand in that layer.</summary>
    CannotStand,

    /// <summary>It is as asked already.</summary>
    AsItIs,

    /// <summary>The display would be faulty.</summary>
    Faulty,
}

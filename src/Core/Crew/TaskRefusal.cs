namespace UnrulyMeadow.Core.Crew;

/// <summary>Why something that was told of a task on a phone is not kept.</summary>
public enum TaskRefusal
{
    /// <summary>It cannot be read.</summary>
    Unreadable,

    /// <summary>The task is not there.</summary>
    TaskGone,

    /// <summary>It belongs to no sheet of the task.</summary>
    OtherSheet,

    /// <summary>A line of it is not on the sheet.</summary>
    NotOnSheet,

    /// <summary>Far more than was asked, or less than none.</summary>
    NotThatMany,

    /// <summary>What went in instead is no kind of the palette.</summary>
    UnknownKind,

    /// <summary>Its day cannot be.</summary>
    NoSuchDay,

    /// <summary>The note is too long, or holds what cannot be kept.</summary>
    Note,

    /// <summary>More minutes than a day has, or fewer than none.</summary>
    Minutes,

    /// <summary>There is no picture in it, or none that can be read.</summary>
    NoPicture,

    /// <summary>The picture is too large.</summary>
    PictureTooLarge,

    /// <summary>The task is gone, or has as many photographs as are kept.</summary>
    NoMorePictures,
}

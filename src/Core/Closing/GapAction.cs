namespace UnrulyMeadow.Core.Closing;

/// <summary>What a change that closes a bare spell asks for. The words stand in the Wording project.</summary>
public enum GapAction
{
    /// <summary>Leave a display in for longer.</summary>
    LeaveIn,

    /// <summary>Set a display in earlier.</summary>
    BringForward,

    /// <summary>Cut a kind back so that it flowers again.</summary>
    CutBack,

    /// <summary>Add bulbs to those that are planted on a day.</summary>
    AddToStack,

    /// <summary>Plant bulbs on a day.</summary>
    PlantOn,

    /// <summary>Set forced bulbs in.</summary>
    PlugIn,

    /// <summary>Plant a kind for some time.</summary>
    PlantUntil,

    /// <summary>Plant a kind in the place of another.</summary>
    PlantInstead,
}

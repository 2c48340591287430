using UnrulyMeadow.Store;
using UnrulyMeadow.Web.Jobs;

namespace UnrulyMeadow.Web.Site;

/// <summary>A button that asks for long work, by a form: no page asks for work by being opened.</summary>
/// <param name="Label">What the button says.</param>
/// <param name="Job">The work whose result is shown; null where nobody has asked.</param>
/// <param name="IsOfNow">True when it was asked of the plan and weather as they are.</param>
public sealed record AskView(string Label, Job? Job, bool IsOfNow)
{
    /// <summary>True where it can be asked: nothing came of it yet, or it was asked before something changed.</summary>
    public bool IsOpen => JobDesk.IsOpen(Job) || !IsOfNow;

    /// <summary>True when a script may press the button as the page opens, once: not where somebody called the work off.</summary>
    public bool AtOnce => Job is null or { State: JobState.Failed };
}

namespace UnrulyMeadow.Web.Site;

/// <summary>A button that asks for long work, by a form: no page asks for work by being opened.</summary>
/// <param name="Label">What the button says.</param>
/// <param name="AtOnce">True when a script may press it as the page opens, once.</param>
public sealed record AskView(string Label, bool AtOnce);

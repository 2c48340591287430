namespace UnrulyMeadow.Web.Site;

/// <summary>One field of a form, with what was typed.</summary>
/// <param name="Name">Name as posted.</param>
/// <param name="Label">Label.</param>
/// <param name="Value">What was typed.</param>
/// <param name="Unit">Unit, for a number.</param>
/// <param name="Type">HTML type, or "textarea".</param>
/// <param name="Options">Values with their words, for a choice.</param>
/// <param name="Class">Extra class.</param>
/// <param name="Plants">Where a plant is chosen: "bulbs", "leaf" or "any"; null for other fields.</param>
/// <param name="Rows">How many lines a text of several lines shows.</param>
/// <param name="Example">What could be typed, shown until something is.</param>
/// <param name="AutoComplete">What a browser may fill in by itself.</param>
/// <param name="InputMode">The keys that a phone offers; null for the usual ones.</param>
public sealed record FieldView(
    string Name,
    string Label,
    string? Value,
    string Unit = "",
    string Type = "text",
    IReadOnlyList<(string Value, string Text)>? Options = null,
    string Class = "",
    string? Plants = null,
    int Rows = 2,
    string? Example = null,
    string AutoComplete = "off",
    string? InputMode = null
)
{
    /// <summary>The choices of an enumeration.</summary>
    /// <param name="word">What a choice is called; null for its usual word.</param>
    public static IReadOnlyList<(string Value, string Text)> Choices<T>(Func<T, string>? word = null)
        where T : struct, Enum => [.. Enum.GetValues<T>().Select(v => (v.ToString(), word?.Invoke(v) ?? Words.Of(v)))];
}

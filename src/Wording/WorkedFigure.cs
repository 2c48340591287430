namespace UnrulyMeadow.Wording;

/// <summary>A working in words.</summary>
/// <param name="Kind">Which figure, as the code knows it.</param>
/// <param name="Figure">What the figure is, e.g. "Volume inside".</param>
/// <param name="Value">The figure as shown, with its unit.</param>
/// <param name="Inputs">What went in, each with its unit.</param>
/// <param name="Rule">The rule by name, with its formula where it has one.</param>
/// <param name="Source">The published source, or "common practice", or "from memory".</param>
/// <param name="Steps">Intermediate values, one sentence each; may be empty.</param>
public sealed record WorkedFigure(
    string Kind,
    string Figure,
    string Value,
    IReadOnlyList<WorkedInput> Inputs,
    string Rule,
    string Source,
    IReadOnlyList<string> Steps
);

/// <summary>One input of a <see cref="WorkedFigure"/>.</summary>
/// <param name="Name">What it is.</param>
/// <param name="Value">Its value with its unit.</param>
public sealed record WorkedInput(string Name, string Value);

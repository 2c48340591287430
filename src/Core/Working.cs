namespace UnrulyMeadow.Core;

/// <summary>The arithmetic behind one figure, in the order in which a person would check it.</summary>
/// <param name="Figure">What the figure is, e.g. "Volume inside".</param>
/// <param name="Value">The figure as shown, with its unit.</param>
/// <param name="Inputs">What went in, each with its unit.</param>
/// <param name="Rule">The rule by name, with its formula where it has one.</param>
/// <param name="Source">The published source, or "common practice", or "from memory".</param>
/// <param name="Steps">Intermediate values, one sentence each; may be empty.</param>
public sealed record Working(
    string Figure,
    string Value,
    IReadOnlyList<WorkingInput> Inputs,
    string Rule,
    string Source,
    IReadOnlyList<string> Steps
);

/// <summary>One input of a <see cref="Working"/>.</summary>
/// <param name="Name">What it is.</param>
/// <param name="Value">Its value with its unit.</param>
public sealed record WorkingInput(string Name, string Value);

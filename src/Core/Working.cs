using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core;

/// <summary>
/// The arithmetic behind one figure, in the order in which a person would check it. It holds no words; the Wording project gives it them.
/// </summary>
/// <param name="Kind">Which figure; its name, rule and source are worded by it.</param>
/// <param name="Value">The figure: what a part of a <see cref="Fact"/> may be.</param>
/// <param name="Inputs">What went in.</param>
/// <param name="Steps">Intermediate values, each a <see cref="WorkingPhrase"/>; null for none.</param>
public sealed record Working(WorkingKind Kind, object? Value, IReadOnlyList<WorkingInput> Inputs, IReadOnlyList<object?>? Steps = null)
{
    /// <summary>Intermediate values; may be empty.</summary>
    public IReadOnlyList<object?> Steps { get; init; } = Steps ?? [];

    /// <summary>What the words for name, rule and source speak of; may be empty.</summary>
    public IReadOnlyList<(string Name, object? Value)> Parts { get; init; } = [];
}

/// <summary>One input of a <see cref="Working"/>.</summary>
/// <param name="Name">What it is: an <see cref="InputName"/>, or the plant or planter that it is about.</param>
/// <param name="Value">Its value: what a part of a <see cref="Fact"/> may be.</param>
public sealed record WorkingInput(object? Name, object? Value);

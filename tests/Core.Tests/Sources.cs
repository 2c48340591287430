using Xunit.v3;

namespace UnrulyMeadow.Core.Tests;

/// <summary>The check value comes from a published source, named here.</summary>
[AttributeUsage(AttributeTargets.Method | AttributeTargets.Class)]
public sealed class PublishedAttribute(string source) : Attribute, ITraitAttribute
{
    public string Source => source;

    public IReadOnlyCollection<KeyValuePair<string, string>> GetTraits() => [new("Source", source)];
}

/// <summary>The check value is a fact of the trade without a published source.</summary>
[AttributeUsage(AttributeTargets.Method | AttributeTargets.Class)]
public sealed class CommonPracticeAttribute : Attribute, ITraitAttribute
{
    public IReadOnlyCollection<KeyValuePair<string, string>> GetTraits() => [new("Source", "common practice")];
}

/// <summary>The check value was recalled without the document at hand.</summary>
[AttributeUsage(AttributeTargets.Method | AttributeTargets.Class)]
public sealed class FromMemoryAttribute : Attribute, ITraitAttribute
{
    public IReadOnlyCollection<KeyValuePair<string, string>> GetTraits() => [new("Source", "from memory")];
}

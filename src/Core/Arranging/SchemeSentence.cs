namespace UnrulyMeadow.Core.Arranging;

/// <summary>A display's colours in a sentence.</summary>
public enum SchemeSentence
{
    /// <summary>Which leads, what echoes it and what surprises.</summary>
    Leads,
}

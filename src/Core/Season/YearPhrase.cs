namespace UnrulyMeadow.Core.Season;

/// <summary>The sentence that heads a site's year.</summary>
public enum YearPhrase
{
    /// <summary>There are no planters.</summary>
    NoPlanters,

    /// <summary>There is no weather.</summary>
    NoWeather,

    /// <summary>No planter is bare for a week.</summary>
    NeverBare,

    /// <summary>One planter is bare.</summary>
    OneBare,

    /// <summary>Several are bare.</summary>
    SomeBare,
}

namespace UnrulyMeadow.Core.Climate;

/// <summary>What is said of a kind of climate and of weather made from it.</summary>
public enum ClimatePhrase
{
    /// <summary>How daily temperatures spread.</summary>
    DailySpread,
}

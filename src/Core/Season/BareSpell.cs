using NodaTime;

namespace UnrulyMeadow.Core.Season;

/// <summary>Seven or more days in a row on each of which fewer than half the years show colour.</summary>
/// <param name="FirstDay">Its first day.</param>
/// <param name="LastDay">Its last day, included.</param>
/// <param name="YearsBare">Years with at least seven bare days in a row inside it.</param>
/// <param name="Years">Years asked.</param>
public sealed record BareSpell(LocalDate FirstDay, LocalDate LastDay, int YearsBare, int Years)
{
    /// <summary>Shortest run of days that counts.</summary>
    public const int ShortestDays = 7;

    /// <summary>Its length, days.</summary>
    public int Days => Period.DaysBetween(FirstDay, LastDay) + 1;

    /// <summary>Years of ten, rounded.</summary>
    public int InTen => (int)Math.Round(10.0 * YearsBare / Years, MidpointRounding.AwayFromZero);
}

using System.Text;
using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using NodaTime;

namespace UnrulyMeadow.Exchange.Crew;

/// <summary>Something that stands in a calendar for whole days.</summary>
/// <param name="Uid">Its identity: told again, it is the same.</param>
/// <param name="First">The first day.</param>
/// <param name="Last">The last day.</param>
/// <param name="Title">What it is.</param>
/// <param name="Text">More of it; may be empty.</param>
/// <param name="Address">Where it is shown in the app; null for nowhere.</param>
public sealed record CalendarEntry(string Uid, LocalDate First, LocalDate Last, string Title, string Text, string? Address = null);

/// <summary>Calendars as other programs read them (RFC 5545).</summary>
public static class CalendarFile
{
    /// <summary>Writes one.</summary>
    /// <param name="name">What it is called.</param>
    /// <param name="entries">What stands in it.</param>
    /// <param name="at">When it is written.</param>
    public static byte[] Write(string name, IEnumerable<CalendarEntry> entries, Instant at)
    {
        var calendar = new Calendar { ProductId = "-//Unruly Meadow//EN" };
        calendar.AddProperty("X-WR-CALNAME", name);
        calendar.AddProperty("REFRESH-INTERVAL;VALUE=DURATION", "PT1H");
        foreach (CalendarEntry entry in entries)
        {
            LocalDate over = entry.Last.PlusDays(1);
            var it = new CalendarEvent
            {
                Uid = entry.Uid,
                Summary = entry.Title,
                Description = entry.Text.Length == 0 ? null : entry.Text,
                DtStamp = new CalDateTime(at.ToDateTimeUtc()),
                // Days without a time; the end is the day after the last.
                Start = new CalDateTime(entry.First.Year, entry.First.Month, entry.First.Day),
                End = new CalDateTime(over.Year, over.Month, over.Day),
                Url = entry.Address is null ? null : new Uri(entry.Address),
            };
            calendar.Events.Add(it);
        }
        return Encoding.UTF8.GetBytes(new CalendarSerializer().SerializeToString(calendar)!);
    }
}

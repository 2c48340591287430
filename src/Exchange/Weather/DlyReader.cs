using System.Globalization;
using NodaTime;

namespace UnrulyMeadow.Exchange.Weather;

/// <summary>
/// GHCN-Daily fixed width: identifier (11), year (4), month (2), element (4), then 31 times value (5) and three flags.
/// Tenths of °C, mm and m/s, whole mm of snow and % of humidity, −9999 missing; a value with a quality flag is left out.
/// </summary>
internal static class DlyReader
{
    private const int Head = 21;
    private const int PerDay = 8;

    public static bool Looks(string line) =>
        line.Length >= Head
        && !line.AsSpan(0, 17).Contains(',')
        && int.TryParse(line.AsSpan(11, 6), NumberStyles.None, CultureInfo.InvariantCulture, out _);

    public static WeatherFileContents Read(string text, WeatherTally tally)
    {
        string? station = null;
        int number = 0;
        foreach (ReadOnlySpan<char> raw in text.AsSpan().EnumerateLines())
        {
            number++;
            if (raw.Trim().Length == 0)
                continue;
            string? why = Month(raw, tally, ref station, number);
            if (why is not null)
                tally.Refuse(number, why);
        }
        tally.DropCrossed();
        return new WeatherFileContents
        {
            Format = WeatherFormat.GhcnDly,
            StationId = station,
            Days = tally.Days,
            Refused = tally.Refused,
            RefusedCount = tally.RefusedCount,
            FlaggedValues = tally.Flagged,
        };
    }

    private static string? Month(ReadOnlySpan<char> line, WeatherTally tally, ref string? station, int number)
    {
        if (line.Length < Head)
            return $"is cut short ({line.Length} characters)";
        if (!int.TryParse(line.Slice(11, 4), NumberStyles.None, CultureInfo.InvariantCulture, out int year) || year is < 1750 or > 2150)
            return $"\"{line.Slice(11, 4)}\" is no year from 1750 to 2150";
        if (!int.TryParse(line.Slice(15, 2), NumberStyles.None, CultureInfo.InvariantCulture, out int month) || month is < 1 or > 12)
            return $"\"{line.Slice(15, 2)}\" is no month";
        int element = WeatherElement.IndexOf(line.Slice(17, 4));
        if (element < 0)
            return null;
        string id = line[..11].Trim().ToString();
        station ??= id;
        if (id != station)
            return $"is of station {id}; the file began with {station}";
        int days = CalendarSystem.Iso.GetDaysInMonth(year, month);
        for (int d = 1; d <= 31; d++)
        {
            int at = Head + ((d - 1) * PerDay);
            if (at + 5 > line.Length)
                return d > days ? null : $"is cut short after day {d - 1}";
            if (
                !int.TryParse(
                    line.Slice(at, 5),
                    NumberStyles.AllowLeadingWhite | NumberStyles.AllowLeadingSign,
                    CultureInfo.InvariantCulture,
                    out int value
                )
            )
                return $"day {d}: \"{line.Slice(at, 5)}\" is no number";
            if (value == -9999)
                continue;
            if (d > days)
                return $"day {d}: {year}-{month:00} has {days} days; put -9999 there";
            if (at + 6 < line.Length && line[at + 6] != ' ')
            {
                tally.Flagged++;
                continue;
            }
            if (tally.Put(new LocalDate(year, month, d), element, value / WeatherElement.All[element].PerUnit, number) is { } why)
                return why;
        }
        return null;
    }
}

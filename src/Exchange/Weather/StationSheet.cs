using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;
using NodaTime;
using NodaTime.Text;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Exchange.Sheets;

namespace UnrulyMeadow.Exchange.Weather;

/// <summary>A station's days as they are kept, every figure to its last digit, so that a record comes back as it was.</summary>
public static class StationSheet
{
    private static readonly string[] Columns = ["date", "tmin_c", "tmax_c", "prcp_mm", "snow_depth_mm", "wind_ms", "humidity", "radiation"];

    /// <summary>Writes days, one a line.</summary>
    public static byte[] Write(IEnumerable<WeatherDay> days) =>
        CsvSheets.Write(csv =>
        {
            CsvSheets.Row(csv, [.. Columns]);
            foreach (WeatherDay d in days)
                CsvSheets.Row(
                    csv,
                    LocalDatePattern.Iso.Format(d.Day),
                    Cell(d.MinC),
                    Cell(d.MaxC),
                    Cell(d.PrecipitationMm),
                    Cell(d.SnowDepthMm),
                    Cell(d.WindMs),
                    Cell(d.HumidityPct),
                    Cell(d.SunMJ)
                );
        });

    /// <summary>Reads days written by <see cref="Write"/>; nothing is rounded or doubted, for it was when it was first brought in.</summary>
    /// <exception cref="InvalidInputException">It is no such sheet; the first faulty lines are named.</exception>
    public static IReadOnlyList<WeatherDay> Read(Stream stream)
    {
        using MemoryStream buffer = FileLimits.Read(stream, 4 * FileLimits.MostBytes);
        FileLimits.CheckLines(buffer.GetBuffer().AsSpan(0, (int)buffer.Length));
        using var reader = new StreamReader(buffer, new UTF8Encoding(false, true));
        using var csv = new CsvParser(reader, new CsvConfiguration(CultureInfo.InvariantCulture));
        var faults = new FaultList();
        var days = new List<WeatherDay>();
        try
        {
            if (!csv.Read() || csv.Record is not { } heading || !heading.SequenceEqual(Columns, StringComparer.Ordinal))
                throw new InvalidInputException("file", $"line 1 must name the columns {string.Join(", ", Columns)}");
            while (csv.Read() && !faults.IsFull)
            {
                string[] cells = csv.Record!;
                double?[] readings =
                [
                    .. cells
                        .Skip(1)
                        .Select(c =>
                            double.TryParse(c, NumberStyles.Float, CultureInfo.InvariantCulture, out double v) && double.IsFinite(v)
                                ? v
                                : (double?)null
                        ),
                ];
                if (cells.Length != Columns.Length || !LocalDatePattern.Iso.Parse(cells[0]).TryGetValue(default, out LocalDate day))
                    faults.Add($"line {csv.RawRow}", $"must hold a date and {Columns.Length - 1} figures, or nothing for a figure");
                else
                    days.Add(new WeatherDay(day, readings[0], readings[1], readings[2], readings[3], readings[4], readings[5], readings[6]));
            }
        }
        catch (Exception e) when (e is DecoderFallbackException or CsvHelperException)
        {
            throw new InvalidInputException("file", $"could not be read near line {csv.RawRow}");
        }
        faults.ThrowIfAny();
        return days;
    }

    private static object Cell(double? figure) => figure is { } v ? v : string.Empty;
}

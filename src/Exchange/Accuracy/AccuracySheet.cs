using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;
using NodaTime;
using NodaTime.Text;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Accuracy;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Exchange.Weather;

namespace UnrulyMeadow.Exchange.Accuracy;

/// <summary>
/// A table of climates and customary windows as CSV. Its first cell says what a line is:
/// <c>climate,NAME,LATITUDE,SPREAD,C or F</c> and twelve cells <c>highest/lowest</c> from January on;
/// <c>record,NAME,LATITUDE,FILE,LOCATION</c> for a weather file of days beside it;
/// <c>window,PLANT,PART,CLIMATE,FROM,TO</c> with days like <c>25 Feb</c>. Lines that begin with # are remarks.
/// </summary>
public static class AccuracySheet
{
    /// <summary>Climates that one table may hold: each is given its years as it is read.</summary>
    public const int MostClimates = 60;

    private static readonly AnnualDatePattern Day = AnnualDatePattern.CreateWithInvariantCulture("d MMM");

    /// <summary>Reads a table.</summary>
    /// <param name="stream">The sheet.</param>
    /// <param name="open">Opens a weather file that a line names.</param>
    /// <exception cref="InvalidInputException">A line is not of that form; each is named.</exception>
    public static AccuracyTable Read(Stream stream, Func<string, Stream> open)
    {
        using MemoryStream buffer = FileLimits.Read(stream);
        FileLimits.CheckLines(buffer.GetBuffer().AsSpan(0, (int)buffer.Length));
        using var reader = new StreamReader(buffer, new UTF8Encoding(false, true));
        using var csv = new CsvParser(
            reader,
            new CsvConfiguration(CultureInfo.InvariantCulture) { AllowComments = true, TrimOptions = TrimOptions.Trim }
        );
        var faults = new FaultList();
        var climates = new List<AccuracyClimate>();
        var windows = new List<AccuracyWindow>();
        try
        {
            while (csv.Read() && !faults.IsFull)
            {
                string[] cells = csv.Record!;
                if (climates.Count == MostClimates && (cells[0] is "climate" or "record"))
                    throw new InvalidInputException($"line {csv.RawRow}", $"a table holds at most {MostClimates} climates");
                try
                {
                    switch (cells[0])
                    {
                        case "climate":
                            climates.Add(Climate(cells));
                            break;
                        case "record":
                            climates.Add(Record(cells, open));
                            break;
                        case "window":
                            windows.Add(Window(cells));
                            break;
                        default:
                            throw new FormatException("must begin with climate, record or window");
                    }
                }
                catch (FormatException e)
                {
                    faults.Add($"line {csv.RawRow}", e.Message);
                }
                catch (InvalidInputException e)
                {
                    faults.Add($"line {csv.RawRow}", string.Join("; ", e.Faults));
                }
            }
        }
        catch (Exception e) when (e is DecoderFallbackException or CsvHelperException)
        {
            throw new InvalidInputException("file", $"could not be read near line {csv.RawRow}");
        }
        foreach (string name in climates.GroupBy(c => c.Name, StringComparer.Ordinal).Where(g => g.Count() > 1).Select(g => g.Key))
            faults.Add("climate", $"\"{name}\" is given twice");
        faults.ThrowIfAny();
        return new AccuracyTable(climates, windows);
    }

    private static AccuracyClimate Climate(string[] cells)
    {
        if (cells.Length != 17)
            throw new FormatException("must hold climate, name, latitude, spread, C or F, and twelve months highest/lowest");
        bool fahrenheit = cells[4] switch
        {
            "C" => false,
            "F" => true,
            _ => throw new FormatException("must say C or F before the months"),
        };
        double Celsius(string text)
        {
            double value = Number(text);
            return fahrenheit ? (value - 32) / 1.8 : value;
        }
        string[][] months = [.. cells[5..].Select(c => c.Split('/'))];
        if (months.Any(m => m.Length != 2))
            throw new FormatException("must give each month as highest/lowest, like 31.6/18.8");
        var normals = new MonthlyNormals([.. months.Select(m => Celsius(m[1]))], [.. months.Select(m => Celsius(m[0]))], null, cells[3]);
        var station = new Station("accuracy", Name(cells[1]), Latitude(cells[2]), 0, 0);
        if (normals.FaultsAsTyped(station) is { Count: > 0 } wrong)
            throw new InvalidInputException(wrong);
        return AccuracyClimate.From(station.Name, station.LatitudeDeg, normals);
    }

    private static AccuracyClimate Record(string[] cells, Func<string, Stream> open)
    {
        if (cells.Length != 5)
            throw new FormatException("must hold record, name, latitude, file and location in the file");
        using Stream file = open(cells[3]);
        var station = new Station("accuracy", Name(cells[1]), Latitude(cells[2]), 0, 0);
        return AccuracyClimate.From(
            station.Name,
            WeatherRecord.From(station, WeatherFile.Read(file, WeatherUnits.Metric, cells[4].Length == 0 ? null : cells[4]).Days)
        );
    }

    private static AccuracyWindow Window(string[] cells)
    {
        if (cells.Length != 6)
            throw new FormatException("must hold window, plant, part, climate, first and last day");
        if (!Enum.TryParse(cells[2], ignoreCase: true, out ColourPart part) || !Enum.IsDefined(part) || char.IsDigit(cells[2][0]))
            throw new FormatException($"part must be one of {string.Join(", ", Enum.GetNames<ColourPart>().Select(n => n.ToLowerInvariant()))}");
        return new AccuracyWindow(cells[1], part, cells[3], Date(cells[4]), Date(cells[5]));
    }

    private static string Name(string text) =>
        text is { Length: > 0 and <= 60 } ? text : throw new FormatException("must name its climate in at most 60 characters");

    private static double Latitude(string text) =>
        Number(text) is >= -65 and <= 65 and var value ? value : throw new FormatException("latitude must lie between -65 and 65");

    private static double Number(string text) =>
        double.TryParse(text.Replace('−', '-'), NumberStyles.Float, CultureInfo.InvariantCulture, out double value) && double.IsFinite(value)
            ? value
            : throw new FormatException($"\"{text}\" is no number");

    private static AnnualDate Date(string text) =>
        Day.Parse(text).TryGetValue(default, out AnnualDate day) ? day : throw new FormatException($"\"{text}\" is no day like 25 Feb");
}

using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Exchange.Weather;

namespace UnrulyMeadow.Reckon;

/// <summary>A day's readings.</summary>
public sealed record DayInput(LocalDate Day, double? MinC, double? MaxC, double? PrecipitationMm = null);

/// <summary>Weather for a topic: a file in any known form, or the days themselves.</summary>
/// <param name="File">Path of a GHCN-Daily or plain CSV file.</param>
/// <param name="Location">The place to read from a file that holds several.</param>
/// <param name="Days">The days, instead of a file.</param>
/// <param name="LatitudeDeg">Degrees north; negative turns the year round. Default 45.</param>
public sealed record WeatherInput(string? File = null, string? Location = null, IReadOnlyList<DayInput>? Days = null, double LatitudeDeg = 45)
{
    /// <summary>Reads a record that holds at least one whole climate year.</summary>
    /// <exception cref="InvalidInputException">It holds none, or cannot be read.</exception>
    public WeatherRecord Read()
    {
        WeatherRecord record = ReadDays();
        return record.YearsUsed.Count > 0
            ? record
            : throw new InvalidInputException(
                "weather",
                $"holds no year that is complete enough: a year may lack {WeatherRecord.MostMissingDays} days at most"
            );
    }

    /// <summary>Reads a record of any length.</summary>
    /// <exception cref="InvalidInputException">Neither or both ways are given, or the file cannot be read.</exception>
    public WeatherRecord ReadDays()
    {
        if ((File is null) == (Days is null))
            throw new InvalidInputException("weather", "must hold either a file or days");
        var station = new Station("reckon", "reckon", LatitudeDeg, 0, 0);
        var faults = new FaultList();
        faults.AddAll("weather", station.Faults());
        faults.ThrowIfAny();
        if (Days is not null)
        {
            var seen = new HashSet<LocalDate>();
            for (int i = 0; i < Days.Count; i++)
            {
                if (!seen.Add(Days[i].Day))
                    faults.Add($"weather.days[{i}].day", "is given twice");
                if (Days[i].MinC > Days[i].MaxC)
                    faults.Add($"weather.days[{i}].minC", "lies above the day's highest");
            }
            faults.ThrowIfAny();
            return WeatherRecord.From(station, Days.Select(d => new WeatherDay(d.Day, d.MinC, d.MaxC, d.PrecipitationMm)));
        }
        if (!System.IO.File.Exists(File))
            throw new InvalidInputException("weather.file", $"there is no file \"{File}\"");
        using FileStream stream = System.IO.File.OpenRead(File);
        return WeatherRecord.From(station, WeatherFile.Read(stream, WeatherUnits.Metric, Location).Days);
    }
}

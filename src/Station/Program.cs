using System.Text.Json;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;
using UnrulyMeadow.Core;
using UnrulyMeadow.Station;

// A weather station that does not exist: past, today and a week's forecast as JSON over HTTP, from a seed.
// dotnet UnrulyMeadow.Station.dll --settings FILE --urls http://127.0.0.1:PORT
var builder = WebApplication.CreateBuilder(args);
builder.Logging.SetMinimumLevel(LogLevel.Warning);
builder.WebHost.ConfigureKestrel(k => k.AddServerHeader = false);
builder.Services.ConfigureHttpJsonOptions(o => o.SerializerOptions.ConfigureForNodaTime(DateTimeZoneProviders.Tzdb));
builder.Services.AddSingleton<IClock>(SystemClock.Instance);
string path = builder.Configuration["settings"] ?? string.Empty;
if (!File.Exists(path))
{
    await Console.Error.WriteLineAsync($"settings: there is no file \"{path}\"; give --settings FILE");
    return 2;
}
SimulatedWeather weather;
try
{
    weather = new SimulatedWeather(
        JsonSerializer.Deserialize<StationSettings>(await File.ReadAllTextAsync(path), JsonSerializerOptions.Web)
            ?? throw new InvalidInputException("settings", "is empty")
    );
}
catch (Exception e) when (e is InvalidInputException or JsonException)
{
    await Console.Error.WriteLineAsync($"settings: {e.Message}");
    return 2;
}

var app = builder.Build();
LocalDate Today(IClock clock) => weather.Now(clock.GetCurrentInstant()).Day;
app.MapGet("/station", () => weather.Station);
app.MapGet("/today", (IClock clock) => weather.Now(clock.GetCurrentInstant()));
app.MapGet("/past", (IClock clock, int? days) =>
    days is < 1 or > SimulatedWeather.MostPastDays
        ? Results.BadRequest(new { fault = $"days must be from 1 to {SimulatedWeather.MostPastDays}" })
        : Results.Ok(weather.Past(Today(clock), days ?? 30))
);
app.MapGet("/forecast", (IClock clock) => weather.Forecast(Today(clock)));
await app.RunAsync();
return 0;

/// <summary>The service's entry, named so that tests can start it.</summary>
public partial class Program;

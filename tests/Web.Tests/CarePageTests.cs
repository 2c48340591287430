using NodaTime;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;

namespace UnrulyMeadow.Web.Tests;

/// <summary>The page of care says what the nights threaten, and is quiet when nothing does.</summary>
public sealed class CarePageTests(MeadowApp app) : IClassFixture<MeadowApp>
{
    [Fact]
    public async Task A_forecast_frost_is_told_and_a_mild_week_is_quiet()
    {
        HttpClient crew = app.Browser(SiteRole.Crew);
        Assert.Contains("No station tells", (await crew.Open("/care")).Words(), StringComparison.Ordinal);
        var live = new LiveStore(app.Database);
        LocalDate today = app.Services.GetRequiredService<IClock>().GetCurrentInstant().InUtc().Date;
        async Task Forecast(double minC) =>
            await live.Save(
                new LiveReading("Mole end", 43.1, -66.9, app.Services.GetRequiredService<IClock>().GetCurrentInstant(), 5, 80, 3),
                [.. Enumerable.Range(1, 7).Select(d => new LiveDay(today.PlusDays(d), true, minC, minC + 8, 0, 4))]
            );
        await Forecast(12);
        Assert.Contains("No cold threatens", (await crew.Open("/care")).Words(), StringComparison.Ordinal);
        await Forecast(-26);
        string told = (await crew.Open("/care")).Words();
        Assert.DoesNotContain("No cold threatens", told, StringComparison.Ordinal);
        Assert.Contains("Fleece", told, StringComparison.Ordinal);
        // From far away it says nothing of this place.
        await live.Save(new LiveReading("Elsewhere", 10, 10, app.Services.GetRequiredService<IClock>().GetCurrentInstant(), 5, 80, 3), []);
        Assert.Contains("No station tells", (await crew.Open("/care")).Words(), StringComparison.Ordinal);
    }
}

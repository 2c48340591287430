using System.Diagnostics;
using System.Globalization;
using NodaTime;
using UnrulyMeadow.Core.Care;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Bench;

/// <summary>Care of 5,000 planters for today and the week, and what a new forecast puts at risk.</summary>
public static class CareFigures
{
    private const int Planters = 5000;
    private static readonly LocalDate Today = new(2027, 7, 12);

    /// <summary>Measures and prints.</summary>
    public static void Print()
    {
        Plan demo = Shipped.Plan();
        WeatherRecord record = Shipped.Record();
        int copies = (Planters / demo.Planters.Count) + 1;
        var plan = new Plan(
            demo.Site,
            demo.Areas,
            [
                .. Enumerable
                    .Range(0, copies)
                    .SelectMany(c => demo.Planters.Select(p => p with { Id = $"{p.Id}-{c}", Name = $"{p.Name} {c}" }))
                    .Take(Planters),
            ],
            demo.Palette,
            [
                .. Enumerable
                    .Range(0, copies)
                    .SelectMany(c => demo.Displays.Select(d => d with { Id = $"{d.Id}-{c}", PlanterId = $"{d.PlanterId}-{c}" }))
                    .Where(d => Number(d.PlanterId) < copies - 1),
            ],
            []
        );
        SiteYear year = SiteYear.From(plan, record, SiteYear.UsualStart(Today, false));
        List<CareDay> days =
        [
            .. Enumerable
                .Range(-CareNow.DaysBack, CareNow.DaysBack + 8)
                .Select(d => Today.PlusDays(d))
                .Select(d => (Day: d, Usual: record.ExpectedOn(d)))
                .Select(x => CareDay.Of(x.Day, x.Usual.MinC, x.Usual.MaxC, x.Day.Day % 9 == 0 ? 8 : 0, 43, CareDaySource.Measured)),
        ];
        List<DayForecast> cold = [.. Enumerable.Range(1, 7).Select(d => new DayForecast(Today.PlusDays(d), 1 - d, 9, 0, 6))];
        List<DayForecast> one = [.. cold.Select((d, i) => i == 1 ? d : d with { MinC = 14, MaxC = 24 })];
        for (int i = 0; i < 3; i++)
        {
            var watch = Stopwatch.StartNew();
            CareNow now = CareNow.Of(new CareQuestion(plan, year, record, days, cold, Today, [], 32, true));
            int tasks = now.Tasks(Enum.GetValues<CareWork>()).Count;
            Line($"care of {plan.Planters.Count} planters, {tasks} tasks", watch.Elapsed.TotalMilliseconds);
            watch.Restart();
            int risks = ColdNights.Of(plan, cold, Today).Count + WeatherThreats.Of(plan, cold, Today, 32, []).Count;
            Line($"seven cold nights, {risks} risks", watch.Elapsed.TotalMilliseconds);
            watch.Restart();
            risks = ColdNights.Of(plan, one, Today).Count + WeatherThreats.Of(plan, one, Today, 32, []).Count;
            Line($"one cold night, {risks} risks", watch.Elapsed.TotalMilliseconds);
        }
    }

    private static int Number(string id) => int.Parse(id.AsSpan(id.LastIndexOf('-') + 1), CultureInfo.InvariantCulture);

    private static void Line(string what, double milliseconds) =>
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{what, -34}{milliseconds, 10:0.00}"));
}

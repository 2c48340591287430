using NodaTime;
using UnrulyMeadow.Core.Care;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web.Site;

/// <summary>What care reads, each thing computed once: the weather day by day, the water of planters, the nights to come.</summary>
/// <param name="frame">The page's frame.</param>
/// <param name="live">What a live station measured and expects.</param>
/// <param name="crew">What the crew told of its rounds.</param>
public sealed class CareDesk(PageFrame frame, LiveStore live, CrewStore crew)
{
    // A planter that was full so long ago is as it would be from ever before.
    private const int DaysBack = 45;
    private const int DaysAhead = 7;

    /// <summary>Who is watered by hand on a day.</summary>
    public async Task<IReadOnlyList<WaterStop>> Round(LocalDate day)
    {
        SiteNow now = await frame.Now();
        LocalDate first = LocalDate.Min(day, frame.Today).PlusDays(-DaysBack);
        LocalDate last = LocalDate.Max(day, frame.Today).PlusDays(DaysAhead);
        (_, IReadOnlyList<LiveDay> told) = await Heard(now);
        IReadOnlyList<CareDay> days = CareDay.Between(
            now.Record,
            [.. told.Select(d => (d.Day, d.Forecast, d.MinC, d.MaxC, d.PrecipitationMm))],
            first,
            last,
            now.Plan.Site.Place?.LatitudeDeg ?? now.Record?.Station.LatitudeDeg ?? 45
        );
        if (days.Count == 0)
            return [];
        // What was told of rounds corrects the balance.
        ILookup<string, Watered> given = (await crew.Between(first, last))
            .Where(k => k.Given.Asked.Kind == TaskKind.Water)
            .SelectMany(k =>
                k.Account.Lines.Where(l => l is { Done: > 0, Line.PlanterId: not null })
                    .Select(l => (l.Line.PlanterId!, new Watered(k.Account.Day ?? k.Given.Day, l.Line.Litres)))
            )
            .ToLookup(w => w.Item1, w => w.Item2);
        string key = string.Join(' ', given.SelectMany(g => g.Select(w => $"{g.Key}{w.Day:R}"))) + string.Join(' ', told.TakeLast(10));
        return await frame.Soon(
            frame.State.Derived<IReadOnlyList<WaterStop>>(
                now,
                ("water round", day, first, last, key),
                n =>
                    WaterRound.Of(
                        n.Plan,
                        n.Plan.Planters.Where(p => !p.IsRetired && p.Watering == Watering.Hand)
                            .Select(p => PlanterWater.Of(n.Plan, p, days, [.. given[p.Id]])),
                        day,
                        given.ToDictionary(g => g.Key, g => g.Max(w => w.Day), StringComparer.Ordinal)
                    )
            )
        );
    }

    /// <summary>What the nights to come put at risk, and whether a forecast reaches the site.</summary>
    public async Task<(IReadOnlyList<PlanterAtRisk> Nights, bool HasForecast)> Nights()
    {
        SiteNow now = await frame.Now();
        (LiveReading? heard, IReadOnlyList<LiveDay> told) = await Heard(now);
        List<DayForecast> forecast =
        [
            .. told.Where(d => d.Forecast && d.Day > frame.Today).Select(d => new DayForecast(d.Day, d.MinC, d.MaxC, d.PrecipitationMm, d.WindMs)),
        ];
        if (heard is null || forecast.Count == 0)
            return ([], false);
        LocalDate today = frame.Today;
        return (
            await frame.Soon(
                frame.State.Derived(now, ("cold nights", today, string.Join(' ', forecast)), n => ColdNights.Of(n.Plan, forecast, today))
            ),
            true
        );
    }

    private async Task<(LiveReading? Heard, IReadOnlyList<LiveDay> Told)> Heard(SiteNow now)
    {
        (LiveReading? heard, IReadOnlyList<LiveDay> told) = await live.Load();
        return heard is not null && (now.Record is null || heard.IsNear(now.Record.Station)) ? (heard, told) : (null, []);
    }
}

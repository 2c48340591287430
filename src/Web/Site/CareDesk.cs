using NodaTime;
using UnrulyMeadow.Core.Care;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.Jobs;

namespace UnrulyMeadow.Web.Site;

/// <summary>What threatens, as far as it is known.</summary>
/// <param name="IsKnown">False while it is being worked out.</param>
/// <param name="Care">The care of the day; null where nothing is forecast.</param>
public sealed record CareThreats(bool IsKnown, CareNow? Care);

/// <summary>What pages of care and of the crew read of it: computed once for a day, from the plan, the weather and what was told.</summary>
/// <param name="frame">The page's frame.</param>
/// <param name="live">What a live station measured and expects.</param>
/// <param name="crew">What the crew told, and what a lead asks of it.</param>
/// <param name="log">What was seen.</param>
public sealed class CareDesk(PageFrame frame, LiveStore live, CrewStore crew, LogStore log)
{
    private const int DaysAhead = 7;

    // Forecasts older than this were another service's, or another model's.
    private const int ForecastDaysBack = 730;

    // Where neither record nor place is known: the middle of the temperate north.
    private const double SomeLatitudeDeg = 45;

    private Task<CareNow>? _now;

    /// <summary>True where a station near enough tells what days to come bring; known once <see cref="Now"/> was asked.</summary>
    public bool HasForecast { get; private set; }

    /// <summary>When the station was heard last; null where none is near.</summary>
    public Instant? HeardAt { get; private set; }

    /// <summary>The care of today.</summary>
    public Task<CareNow> Now() => _now ??= Work();

    /// <summary>
    /// What threatens, for the head of a page: known at once where no station tells of days to come, or where care is worked out already.
    /// </summary>
    public async Task<CareThreats> Threatening()
    {
        await Heard();
        if (!HasForecast)
            return new CareThreats(true, null);
        CareNow? care = await frame.IfSoon(Now());
        return new CareThreats(care is not null, care);
    }

    /// <summary>Days that are forecast, with the low that is undercut one time in ten and the high, °C.</summary>
    public async Task<IReadOnlyDictionary<LocalDate, (double LowC, double HighC)>> ColdInTen()
    {
        List<LiveDay> ahead = [.. (await Heard()).Where(d => d.Forecast && d.Day >= frame.Today)];
        IReadOnlyList<ForecastNight> came = ahead.Count == 0 ? [] : await live.Came(frame.Today.PlusDays(-ForecastDaysBack));
        return ahead.ToDictionary(
            d => d.Day,
            d => (ForecastRecord.LowInTen(d.MinC, ForecastRecord.ErrorC(came, Math.Max(1, Period.DaysBetween(frame.Today, d.Day)))), d.MaxC)
        );
    }

    /// <summary>Displays that will not hold as long as planned, as the log tells.</summary>
    public async Task<IReadOnlyList<FailingDisplay>> Failing()
    {
        SiteNow now = await frame.Now();
        LocalDate today = frame.Today;
        string mark = await log.Mark();
        return await frame.Soon(frame.State.Derived(now, ("failing", today, mark), n =>
            {
                LocalDate first = n
                    .Plan.Displays.Where(d => d.Layer == DisplayLayer.Seasonal && d.StandsOn(today))
                    .Select(d => d.Install)
                    .DefaultIfEmpty(today)
                    .Min();
                return FailingDisplay.Of(n.Plan, ReckoningThreads.Read(() => log.Between(first, today)), today);
            }));
    }

    private async Task<IReadOnlyList<LiveDay>> Heard()
    {
        SiteNow now = await frame.Now();
        (LiveReading? heard, IReadOnlyList<LiveDay> told) = await live.Load();
        if (heard is null || (now.Record is { } near && !heard.IsNear(near.Station)))
            (heard, told) = (null, []);
        HeardAt = heard?.HeardAt;
        HasForecast = told.Any(d => d.Forecast && d.Day >= frame.Today);
        return told;
    }

    private async Task<CareNow> Work()
    {
        SiteNow now = await frame.Now();
        LocalDate today = frame.Today;
        LocalDate first = today.PlusDays(-CareNow.DaysBack);
        IReadOnlyList<LiveDay> told = await Heard();
        IReadOnlyList<ForecastNight> came = HeardAt is null ? [] : await live.Came(today.PlusDays(-ForecastDaysBack));
        IReadOnlyList<DayForecast> forecast =
        [
            .. told.Where(d => d.Forecast && d.Day >= today).Select(d => new DayForecast(d.Day, d.MinC, d.MaxC, d.PrecipitationMm, d.WindMs)),
        ];
        string mark = await crew.CareMark(first, today);
        (Roster roster, _) = await crew.Roster();
        bool isWaterTold = roster.Asked.Contains(CareWork.Water);
        SiteYear year = await frame.State.Year(SiteYear.UsualStart(today, now.IsSouthern), null);
        return await frame.State.Derived(
            now,
            ("care", today, mark, roster.HeatLimitC, roster.WaterLitresADay, isWaterTold, string.Join(' ', told), came.Count),
            n =>
                CareNow.Of(
                    new CareQuestion(
                        n.Plan,
                        year,
                        n.Record,
                        CareDay.Between(
                            n.Record,
                            [.. told.Select(d => (d.Day, d.Forecast, d.MinC, d.MaxC, d.PrecipitationMm))],
                            first,
                            today.PlusDays(DaysAhead),
                            n.Plan.Site.Place?.LatitudeDeg ?? n.Record?.Station.LatitudeDeg ?? SomeLatitudeDeg
                        ),
                        forecast,
                        today,
                        [.. ReckoningThreads.Read(() => crew.CareBetween(first, today)).SelectMany(k => CareTasks.DoneIn(k.Account, k.Given.Day))],
                        roster.HeatLimitC,
                        isWaterTold
                    )
                    {
                        Came = came,
                        WaterLitresADay = roster.WaterLitresADay,
                    }
                )
        );
    }
}

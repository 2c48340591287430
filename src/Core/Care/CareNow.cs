using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Care;

/// <summary>All that care of a day rests on.</summary>
/// <param name="Plan">The plan.</param>
/// <param name="Year">The plan year that holds today; null while it is not worked out.</param>
/// <param name="Record">The site's record; null where none is known.</param>
/// <param name="Days">The weather day by day without a gap, from <see cref="CareNow.DaysBack"/> back to as far ahead as is looked.</param>
/// <param name="Forecast">What is forecast; empty where no station tells.</param>
/// <param name="Today">The day.</param>
/// <param name="Done">Care that was told of.</param>
/// <param name="HeatLimitC">Heat index above which the crew works mornings only, °C.</param>
/// <param name="IsWaterTold">
/// True where the crew is asked for water and tells what it gave: from the first it tells of on, what it did not tell it did not give.
/// </param>
public sealed record CareQuestion(
    Plan Plan,
    SiteYear? Year,
    WeatherRecord? Record,
    IReadOnlyList<CareDay> Days,
    IReadOnlyList<DayForecast> Forecast,
    LocalDate Today,
    IReadOnlyList<CareDone> Done,
    double HeatLimitC,
    bool IsWaterTold
)
{
    /// <summary>Nights that were forecast and came: what is known of forecasts here.</summary>
    public IReadOnlyList<ForecastNight> Came { get; init; } = [];

    /// <summary>Litres a day that may be given by hand under a water ban; null where there is none.</summary>
    public double? WaterLitresADay { get; init; }
}

/// <summary>What a site asks for between turns, today and in the days to come: computed once, read by every page.</summary>
public sealed class CareNow
{
    /// <summary>Weather so many days back decides what coated feed has given off.</summary>
    public const int DaysBack = 200;

    // So many nights are looked back over: was it so?
    private const int NightsBack = 14;

    // A planter that was full so long ago is as it would be from ever before. The day on which it is taken to have been full stays the same for
    // as long again: moved on day by day, it would be dry every day, or never.
    private const int WaterDaysBack = 45;

    private readonly CareQuestion _question;
    private readonly LocalDate _toldSince;
    private readonly Dictionary<string, PlanterWater> _waters;
    private readonly ILookup<(string PlanterId, CareWork Work), CareDone> _done;

    private CareNow(CareQuestion question)
    {
        _question = question;
        _done = question.Done.ToLookup(d => (d.PlanterId, d.Work));
        // Before the crew told of any water it gave what was due without a word.
        _toldSince = question.IsWaterTold
            ? question.Done.Where(d => d.Work == CareWork.Water && d.Day < question.Today).Select(d => d.Day).DefaultIfEmpty(question.Today).Min()
            : question.Today;
        Plan plan = question.Plan;
        LocalDate today = question.Today;
        Monday = CareTasks.WeekOf(today);
        LocalDate sunday = Monday.PlusDays(6);
        Season = CareSeason.Of(question.Year, question.Record, question.Days, today);
        int sinceEpoch = Period.DaysBetween(new LocalDate(1970, 1, 1), today.PlusDays(-WaterDaysBack));
        LocalDate full = new LocalDate(1970, 1, 1).PlusDays(sinceEpoch / WaterDaysBack * WaterDaysBack);
        List<CareDay> lately = [.. question.Days.Where(d => d.Day >= full)];
        ILookup<string, Watered> given = question
            .Done.Where(d => d.Work == CareWork.Water && d.Day < today)
            .ToLookup(d => d.PlanterId, d => new Watered(d.Day, d.Litres));
        _waters = SideBySide
            .Each([.. plan.Planters.Where(p => !p.IsRetired)], p =>
                PlanterWater.Of(plan, p, lately, [.. given[p.Id]], p.Watering == Watering.Hand ? _toldSince : today)
            )
            .ToDictionary(w => w.Planter.Id, StringComparer.Ordinal);
        double ErrorC(int lead) => ForecastRecord.ErrorC(question.Came, lead);
        Nights = ColdNights.Of(plan, question.Forecast, today, ErrorC);
        Threats = WeatherThreats.Of(plan, question.Forecast, today, question.HeatLimitC, question.Done, ErrorC);
        Past = NightThatCame.Of(plan, question.Came.Where(n => n.Night >= today.PlusDays(-NightsBack) && n.Night <= today), ErrorC);
        List<CareDone> before = [.. question.Done.Where(d => d.Day < Monday)];
        Dictionary<string, Planter> planters = plan.Planters.ToDictionary(p => p.Id, StringComparer.Ordinal);
        ThisWeek =
        [
            .. ColdNights.Jobs(Nights, today, planters, question.Done),
            .. WeatherThreats.Jobs(Threats, today),
            .. HandCare.Of(plan, Season, Monday, sunday, before),
            .. Feeding.Of(plan, Season, question.Days, Monday, sunday, before, _waters),
            .. Scouting.Of(plan, question.Days, Season.IsSouthern, Monday, sunday, before),
        ];
    }

    /// <summary>Works it out.</summary>
    public static CareNow Of(CareQuestion question) => new(question);

    /// <summary>When things happen this year.</summary>
    public CareSeason Season { get; }

    /// <summary>The Monday of this week.</summary>
    public LocalDate Monday { get; }

    /// <summary>What nights to come put at risk.</summary>
    public IReadOnlyList<PlanterAtRisk> Nights { get; }

    /// <summary>What else days to come threaten.</summary>
    public IReadOnlyList<WeatherThreat> Threats { get; }

    /// <summary>Nights of the last fortnight that were warned of or spoiled something, the latest first: was it so?</summary>
    public IReadOnlyList<NightThatCame> Past { get; }

    /// <summary>Nights that were forecast a day ahead and came, and how far forecasts were off, °C; null where there were too few.</summary>
    public (int Nights, double ErrorC)? ForecastsHere =>
        _question.Came.Count(n => n.LeadDays == 1) is var count and >= ForecastRecord.FewestNights
            ? (count, ForecastRecord.ErrorC(_question.Came, 1))
            : null;

    /// <summary>Care that helps this week, water left aside; what was done this week is still in it.</summary>
    public IReadOnlyList<CareJob> ThisWeek { get; }

    /// <summary>The balance of water of a planter.</summary>
    public PlanterWater? WaterOf(string planterId) => _waters.GetValueOrDefault(planterId);

    /// <summary>Planters in which rain stands, or through which it ran as through a sieve, today.</summary>
    public IEnumerable<PlanterWater> Soaked => _waters.Values.Where(w => w.IsSoaked(_question.Today));

    /// <summary>Who is watered by hand on a day; under a water ban, those whom its litres reach.</summary>
    public IReadOnlyList<WaterStop> Round(LocalDate day) =>
        Ban(day) is { } ban ? [.. Asking(day).Intersect(ban.Watered.Select(s => s.Stop))] : Asking(day);

    /// <summary>How a day's water is divided under a water ban; null where there is none, or enough for all.</summary>
    public WaterBan? Ban(LocalDate day) =>
        _question.WaterLitresADay is { } litres && Asking(day) is var asking && asking.Sum(s => s.Litres) > litres
            ? WaterBan.Of(_question.Plan, asking, day, litres)
            : null;

    private IReadOnlyList<WaterStop> Asking(LocalDate day) =>
        WaterRound.Of(
            _question.Plan,
            _waters.Values,
            day,
            _question
                .Done.Where(d => d.Work == CareWork.Water && d.Day < day && d.Day < _question.Today)
                .GroupBy(d => d.PlanterId)
                .ToDictionary(g => g.Key, g => g.Max(d => d.Day), StringComparer.Ordinal),
            isTold: _toldSince < _question.Today
        );

    /// <summary>True where somebody told that it was done: on its day, or this week where it may be done on any.</summary>
    public bool IsDone(CareJob job) =>
        _done[(job.Planter.Id, job.Work)]
            .Any(d => (job.First == job.Last ? d.Day == job.First : d.Day >= Monday) && (d.PlantId is null || d.PlantId == job.Plant?.Id));

    /// <summary>Tasks of today and of this week: what a lead asks of the crew.</summary>
    /// <param name="asked">What is asked.</param>
    public IReadOnlyList<CrewTask> Tasks(IReadOnlyCollection<CareWork> asked) =>
        CareTasks.Of(
            [.. WaterRound.Jobs(Round(_question.Today), _question.Today).Concat(ThisWeek).Where(j => asked.Contains(j.Work))],
            _question.Plan.Areas,
            _question.Today
        );
}

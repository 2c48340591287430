using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Season;

/// <summary>What one weather year takes of a plant during its stay.</summary>
/// <param name="WeatherYear">The year.</param>
/// <param name="Kind">What is lost first.</param>
/// <param name="On">On what day of the plan; null for nothing lost.</param>
public readonly record struct StayLoss(int WeatherYear, LossKind Kind, LocalDate? On);

/// <summary>
/// What weather takes first of a plant between the day it goes in and the day it comes out, a year at most: which, when,
/// and in what share of the years; and whether it may return from its roots.
/// </summary>
/// <param name="Plant">The plant.</param>
/// <param name="Standing">When and where it stands.</param>
/// <param name="Years">Every weather year.</param>
public sealed record StayLosses(Plant Plant, Standing Standing, IReadOnlyList<StayLoss> Years)
{
    /// <summary>So many days after it goes in, a frost is no longer the spring's.</summary>
    public const int EarlyDays = 60;

    // Roots that stand so much more cold than the tops can bring a plant back that was sold as an annual, K.
    private const double OutlastsK = 1;

    /// <summary>Share of the years that take something, 0 to 1.</summary>
    public double Odds => OddsBy(LocalDate.MaxIsoValue);

    /// <summary>Share of the years that have taken something by a day, 0 to 1.</summary>
    public double OddsBy(LocalDate day) => Years.Count == 0 ? 0 : (double)Years.Count(y => y.On <= day) / Years.Count;

    /// <summary>The day by which half the years that brought it through its first weeks have taken it; null when fewer do.</summary>
    public LocalDate? LaterLoss
    {
        get
        {
            LocalDate early = Standing.From.PlusDays(EarlyDays);
            LocalDate[] later = [.. Years.Where(y => y.On is null || y.On > early).Select(y => y.On ?? LocalDate.MaxIsoValue).Order()];
            return later.Length == 0 || later[(later.Length - 1) / 2] == LocalDate.MaxIsoValue ? null : later[(later.Length - 1) / 2];
        }
    }

    /// <summary>Weather laid over a stay that begins on a day.</summary>
    public static IReadOnlyList<GrowingSeason> Seasons(WeatherRecord record, LocalDate from)
    {
        bool southern = record.Station.IsSouthern;
        return [.. WeatherRun.For(record, new LocalDate(from.Year, from.Month, 1)).Select(r => new GrowingSeason(r, southern))];
    }

    /// <summary>Follows a plant.</summary>
    /// <param name="plant">The plant.</param>
    /// <param name="standing">When and where it stands.</param>
    /// <param name="seasons">Weather laid over its stay.</param>
    public static StayLosses Of(Plant plant, Standing standing, IReadOnlyList<GrowingSeason> seasons) =>
        new(
            plant,
            standing,
            [
                .. seasons.Select(season =>
                {
                    int from = season.Run.IndexOf(standing.From);
                    var growing = new Growing(season, plant, standing.Planted, standing.Lift, standing.Place, standing.PocketC, standing.InColour)
                    {
                        FromWarmHouse = standing.FromWarmHouse,
                    };
                    growing.Enter(season, from);
                    (LossKind kind, int lost) = PlantYears.FirstLoss(growing, from);
                    return new StayLoss(season.Run.Year, kind, lost < 0 ? null : season.Run.FirstDay.PlusDays(lost));
                }),
            ]
        );

    /// <summary>True for what is sold as an annual and can come back from its roots, which stand more cold than its tops.</summary>
    public static bool MayReturn(Plant plant) => plant.DiesWithFrost && plant.RootKillingC is { } roots && roots <= plant.TopDamageC - OutlastsK;

    /// <summary>Odds that it returns after a winter where it stands, 0 to 1; null for what never does.</summary>
    /// <param name="plant">The plant.</param>
    /// <param name="roots">What roots feel there in winter.</param>
    public static double? ReturnOdds(Plant plant, RootSurvival roots) => MayReturn(plant) ? roots.Odds(plant.RootKillingC!.Value) : null;

    /// <summary>That a plant may return from its roots; null where it does not.</summary>
    /// <param name="returnOdds">The odds, 0 to 1.</param>
    public static Fact? MayReturnBy(double? returnOdds) =>
        returnOdds is { } odds && odds >= 0.05 ? new Fact(Phrase.MayReturn, ("odds", Quantity.OutOfTen(odds, 0))) : null;
}

using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;

namespace UnrulyMeadow.Web.Site;

/// <summary>Odds of frost at one threshold.</summary>
/// <param name="ThresholdF">The threshold, °F.</param>
/// <param name="Spring">The last in spring.</param>
/// <param name="Fall">The first in fall.</param>
/// <param name="Season">Days between them.</param>
public sealed record FrostAt(double ThresholdF, FrostOdds Spring, FrostOdds Fall, SeasonLength Season);

/// <summary>What a record says of a site's air, reckoned once.</summary>
/// <param name="Frost">By threshold.</param>
/// <param name="Zone">Its hardiness zone.</param>
/// <param name="Heat">Its spells of heat.</param>
/// <param name="Remarks">What is remarkable of it.</param>
/// <param name="Months">Its months.</param>
/// <param name="Notable">Its years that are asked for by name.</param>
/// <param name="Low">Lows of each day over the years, °C.</param>
/// <param name="High">Highs, °C.</param>
public sealed record ClimateFigures(
    IReadOnlyList<FrostAt> Frost,
    HardinessZone Zone,
    HeatSpells Heat,
    ClimateRemarks Remarks,
    IReadOnlyList<MonthMeans> Months,
    NotableYears Notable,
    DailyBand Low,
    DailyBand High
)
{
    /// <summary>Reckons them.</summary>
    /// <param name="record">The record.</param>
    /// <param name="classes">Containers of the site, which tell what winters were the coldest in the root zone.</param>
    public static ClimateFigures Of(WeatherRecord record, IReadOnlyList<ThermalClass> classes) =>
        new(
            [
                .. FrostOdds.ThresholdsF.Select(f =>
                {
                    double celsius = FrostOdds.CelsiusOf(f);
                    return new FrostAt(
                        f,
                        FrostOdds.From(record, FrostEnd.LastSpring, celsius),
                        FrostOdds.From(record, FrostEnd.FirstFall, celsius),
                        SeasonLength.From(record, celsius)
                    );
                }),
            ],
            HardinessZone.From(record),
            HeatSpells.From(record),
            ClimateRemarks.From(record),
            MonthMeans.From(record),
            NotableYears.From(record, classes),
            DailyBand.From(i => record.MinC[i], record),
            DailyBand.From(i => record.MaxC[i], record)
        );
}

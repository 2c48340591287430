using MathNet.Numerics.Statistics;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Core.Season;

/// <summary>One weather year's flowering of a bulb, days of the plan.</summary>
/// <param name="WeatherYear">The year whose weather it was.</param>
/// <param name="First">First open colour.</param>
/// <param name="Half">Half the plants open.</param>
/// <param name="Over">Last colour gone.</param>
/// <param name="ColdWeeks">Cold had by then, weeks.</param>
public sealed record BloomYear(int WeatherYear, LocalDate First, LocalDate Half, LocalDate Over, double ColdWeeks);

/// <summary>When a bulb flowers, over all weather years.</summary>
/// <param name="Plant">The bulb.</param>
/// <param name="Years">Years in which it flowered.</param>
/// <param name="YearsAsked">All years asked, also those without flower.</param>
public sealed record BloomForecast(Plant Plant, IReadOnlyList<BloomYear> Years, int YearsAsked)
{
    /// <summary>Median first colour; null when it flowers in fewer than half the years.</summary>
    public LocalDate? First => AtRank(y => y.First, 0.5);

    /// <summary>Median day of half open.</summary>
    public LocalDate? Half => AtRank(y => y.Half, 0.5);

    /// <summary>Median day on which the last colour is gone.</summary>
    public LocalDate? Over => AtRank(y => y.Over, 0.5);

    /// <summary>Half the span between the 10 % and 90 % first colours, days.</summary>
    public double SpreadDays => Years.Count < 2 ? 0 : Period.DaysBetween(AtRank(y => y.First, 0.1)!.Value, AtRank(y => y.First, 0.9)!.Value) / 2.0;

    /// <summary>Share of years whose cold fell short of the bulb's need by the day it flowered, or in which it did not flower.</summary>
    public double ShareShortOfCold =>
        YearsAsked == 0 ? 0 : (double)(YearsAsked - Years.Count(y => y.ColdWeeks >= Plant.Bulb!.ColdWeeksLow)) / YearsAsked;

    /// <summary>Median cold by flowering, weeks; 0 when it does not flower.</summary>
    public double MedianColdWeeks => Years.Count == 0 ? 0 : Years.Select(y => y.ColdWeeks).Median();

    /// <summary>The arithmetic behind the dates.</summary>
    public Working Explain(BulbPlace place)
    {
        if (Plant.Windows.Select(w => w.Rule).OfType<BulbForcing>().FirstOrDefault() is not { } rule)
        {
            return new Working(
                WorkingKind.FirstColour,
                First is { } day ? (object?)new Fact(WorkingPhrase.DayOfTheYear, ("day", day)) : WorkingPhrase.DoesNotFlower,
                [new WorkingInput(InputName.Where, place.Describe()), new WorkingInput(InputName.WeatherYears, YearsAsked)],
                [
                    new Fact(
                        WorkingPhrase.HalfOpenOn,
                        (
                            "items",
                            Years
                                .Select(y =>
                                    (object?)
                                        new Fact(
                                            WorkingPhrase.FirstColourStepEach,
                                            ("half", y.Half),
                                            ("weatherYear", WeatherYear.Short(y.WeatherYear))
                                        )
                                )
                                .ToList()
                        )
                    ),
                ]
            )
            {
                Parts =
                [
                    ("plant", Plant),
                    ("rule", Plant.Windows.Count == 0 ? (object?)WorkingPhrase.HasNoColourOwn : Plant.Windows[0].Rule.Describe()),
                    ("source", Plant.Source),
                ],
            };
        }
        return new Working(
            WorkingKind.FirstColourByThermalTime,
            First is { } f ? (object?)new Fact(WorkingPhrase.DayOfTheYear, ("day", f)) : WorkingPhrase.DoesNotFlower,
            [
                new WorkingInput(InputName.BBaseAtBulbDepth, Quantity.Celsius(rule.BaseC, 1)),
                new WorkingInput(
                    InputName.ColdResponse,
                    new Fact(
                        WorkingPhrase.FirstColourByThermalTimeWeeksCold,
                        ("coldStartWeeks", Quantity.Number(rule.ColdStartWeeks, 1)),
                        ("coldSpanWeeks", Quantity.Number(rule.ColdSpanWeeks, 1))
                    )
                ),
                new WorkingInput(InputName.HeatSumThreshold, Quantity.DegreeDays(rule.ThresholdCd, 1)),
                new WorkingInput(
                    InputName.Show,
                    new Fact(WorkingPhrase.FirstColourByThermalTimeShowDays, ("showDays", Quantity.Number(rule.ShowDays)))
                ),
                new WorkingInput(InputName.Where, place.Describe()),
                new WorkingInput(InputName.WeatherYears, YearsAsked),
            ],
            [
                new Fact(
                    WorkingPhrase.HalfOpenOn,
                    (
                        "items",
                        Years
                            .Select(y =>
                                (object?)
                                    new Fact(WorkingPhrase.FirstColourStepEach, ("half", y.Half), ("weatherYear", WeatherYear.Short(y.WeatherYear)))
                            )
                            .ToList()
                    )
                ),
                new Fact(
                    WorkingPhrase.ColdThenWeeksInMiddleYear,
                    ("medianColdWeeks", Quantity.Number(MedianColdWeeks, 1)),
                    ("coldWeeksLow", Quantity.Number(Plant.Bulb!.ColdWeeksLow)),
                    ("coldWeeksHigh", Quantity.Number(Plant.Bulb.ColdWeeksHigh))
                ),
            ]
        )
        {
            Parts = [("plant", Plant), ("rule", rule.Describe())],
        };
    }

    private LocalDate? AtRank(Func<BloomYear, LocalDate> day, double rank)
    {
        if (Years.Count * 2 < YearsAsked || Years.Count == 0)
            return null;
        LocalDate zero = day(Years[0]);
        double q = Years.Select(y => (double)Period.DaysBetween(zero, day(y))).QuantileCustom(rank, QuantileDefinition.R7);
        return zero.PlusDays((int)Math.Round(q, MidpointRounding.AwayFromZero));
    }
}

/// <summary>How one layer's colour passes to the next.</summary>
/// <param name="From">The earlier.</param>
/// <param name="To">The later.</param>
/// <param name="OverlapDays">Median days in which both show; negative for days between.</param>
/// <param name="ShareBroken">Share of years with days between, 0 to 1.</param>
public sealed record HandOver(BloomForecast From, BloomForecast To, double OverlapDays, double ShareBroken)
{
    /// <summary>True when more than half the years have days between.</summary>
    public bool IsBroken => ShareBroken > 0.5;

    /// <summary>The arithmetic behind the hand-over.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.HandOver,
            OverlapDays < 0
                ? (object?)new Fact(WorkingPhrase.DaysWithoutFlower, ("overlapDays", Quantity.Number(-OverlapDays)))
                : new Fact(WorkingPhrase.DaysTogether, ("overlapDays", Quantity.Number(OverlapDays))),
            [
                new WorkingInput(
                    InputName.LastColourOfTheEarlierByYear,
                    new Fact(
                        WorkingPhrase.Listed,
                        (
                            "items",
                            From.Years.Select(y =>
                                    (object?)
                                        new Fact(
                                            WorkingPhrase.HandOverLastColourEarlierYearEach,
                                            ("weatherYear", WeatherYear.Short(y.WeatherYear)),
                                            ("over", y.Over)
                                        )
                                )
                                .ToList()
                        )
                    )
                ),
                new WorkingInput(
                    InputName.FirstColourOfTheLaterByYear,
                    new Fact(
                        WorkingPhrase.Listed,
                        (
                            "items",
                            To.Years.Select(y =>
                                    (object?)
                                        new Fact(
                                            WorkingPhrase.HandOverFirstColourLaterYearEach,
                                            ("weatherYear", WeatherYear.Short(y.WeatherYear)),
                                            ("first", y.First)
                                        )
                                )
                                .ToList()
                        )
                    )
                ),
            ],
            [new Fact(WorkingPhrase.DaysWithoutFlowerInYearsBroken, ("shareBroken", Quantity.Share(ShareBroken)), ("years", To.Years.Count))]
        )
        {
            Parts = [("plant", From.Plant), ("plant2", To.Plant)],
        };
}

/// <summary>The flowering of a whole bulb stack.</summary>
public sealed class StackBloom
{
    private StackBloom(IReadOnlyList<BloomForecast> forecasts, IReadOnlyList<HandOver> handOvers)
    {
        Forecasts = forecasts;
        HandOvers = handOvers;
    }

    /// <summary>One forecast per layer, in the stack's order.</summary>
    public IReadOnlyList<BloomForecast> Forecasts { get; }

    /// <summary>From each to the next in order of flowering; only those that flower.</summary>
    public IReadOnlyList<HandOver> HandOvers { get; }

    /// <summary>The first day of the bulb year that holds a planting day: 1 August, or 1 February in the south.</summary>
    public static LocalDate BulbYearStart(LocalDate install, bool southern) => BulbCalendar.StartOf(BulbCalendar.YearOf(install, southern), southern);

    /// <summary>Forecasts a stack planted on a day.</summary>
    /// <param name="stack">The stack as laid out.</param>
    /// <param name="record">The weather.</param>
    /// <param name="install">Planting day.</param>
    public static StackBloom From(BulbStack stack, WeatherRecord record, LocalDate install) => From(stack, Seasons(record, install), install);

    /// <summary>Forecasts a stack over weather years already laid out, see <see cref="Seasons"/>.</summary>
    public static StackBloom From(BulbStack stack, IReadOnlyList<GrowingSeason> seasons, LocalDate install) =>
        From([.. stack.Layers.Select(l => Forecast(l.Plant, seasons, install, stack.Planter.PlaceAt(l.DepthCm)))]);

    /// <summary>The weather years for bulbs planted on a day.</summary>
    public static IReadOnlyList<GrowingSeason> Seasons(WeatherRecord record, LocalDate install) =>
        [.. WeatherRun.For(record, BulbYearStart(install, record.Station.IsSouthern)).Select(r => new GrowingSeason(r, record.Station.IsSouthern))];

    /// <summary>Forecasts one bulb.</summary>
    public static BloomForecast Forecast(Plant plant, IReadOnlyList<GrowingSeason> seasons, LocalDate install, BulbPlace place)
    {
        var years = new List<BloomYear>();
        foreach (GrowingSeason season in seasons)
        {
            LocalDate zero = season.Run.FirstDay;
            var growing = new Growing(season, plant, install, zero.PlusDays(season.Length), place, 0);
            if (Show(plant, growing) is not { } show)
                continue;
            LocalDate At(double index) => zero.PlusDays((int)Math.Floor(index));
            years.Add(
                new BloomYear(
                    season.Run.Year,
                    At(show.Median - ColourRule.PlantToPlantDays),
                    At(show.Median),
                    At(show.Over + ColourRule.PlantToPlantDays),
                    show.ColdWeeks
                )
            );
        }
        return new BloomForecast(plant, years, seasons.Count);
    }

    // Half open and half over of the first show after planting, as days of the run; bulbs without a rule of cold are read off their curve.
    private static (double Median, double Over, double ColdWeeks)? Show(Plant plant, Growing growing)
    {
        if (plant.Windows.Select(w => w.Rule).OfType<BulbForcing>().FirstOrDefault() is { } rule)
        {
            BulbBloom? bloom = rule.Blooms(growing).FirstOrDefault(b => b.MedianIndex > growing.InstallIndex);
            return bloom is null ? null : (bloom.MedianIndex, bloom.MedianIndex + rule.ShowDays, bloom.ColdWeeks);
        }
        if (plant.Windows.Count == 0)
            return null;
        var share = new double[growing.Season.Length];
        plant.Windows[0].Rule.WriteShares(share, growing);
        int open = Math.Max(0, growing.InstallIndex);
        while (open < share.Length && share[open] < 0.5)
            open++;
        int over = open;
        while (over < share.Length && share[over] >= 0.5)
            over++;
        return open == share.Length ? null : (open, over, plant.Bulb?.ColdWeeksHigh ?? 0);
    }

    private static StackBloom From(IReadOnlyList<BloomForecast> forecasts)
    {
        var order = forecasts.Where(f => f.Half is not null).OrderBy(f => f.Half).ToList();
        var handOvers = new List<HandOver>();
        for (int i = 1; i < order.Count; i++)
        {
            BloomForecast from = order[i - 1];
            BloomForecast to = order[i];
            var overlaps = to
                .Years.Join(from.Years, t => t.WeatherYear, f => f.WeatherYear, (t, f) => (double)Period.DaysBetween(t.First, f.Over))
                .ToList();
            handOvers.Add(new HandOver(from, to, overlaps.Median(), (double)overlaps.Count(o => o < 0) / overlaps.Count));
        }
        return new StackBloom(forecasts, handOvers);
    }
}

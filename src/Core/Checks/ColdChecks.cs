using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Season;
using static UnrulyMeadow.Core.Facts.Quantity;

namespace UnrulyMeadow.Core.Checks;

/// <summary>Cold: frost on tender tops, winter on roots, and the cold that bulbs want.</summary>
internal static class ColdChecks
{
    /// <summary>Roots that live through fewer winters than this are worth a remark.</summary>
    public const double LeastRootOdds = 0.8;

    // A loss so many days before it would come out anyway is worth a word.
    private const int WorthDays = 21;

    /// <summary>
    /// What frost takes of flower and leaf during the whole stay, in spring and in fall, and what winter takes of tops that should outlast it.
    /// </summary>
    public static IEnumerable<Remark> Tops(CheckedDisplay at, Plant plant)
    {
        if (at.IsBulbs || at.Record is not { YearsUsed.Count: > 0 } || !(plant.DiesWithFrost || plant.HasLastingTops))
            yield break;
        StayLosses losses = at.Losses(plant);
        if (!plant.DiesWithFrost)
        {
            if (Wintered(at, plant, losses) is { } remark)
                yield return remark;
            yield break;
        }
        Fact? returns = StayLosses.MayReturnBy(at.ReturnOdds(plant));
        if (BeforeAllClear(at, plant) is { } early)
            yield return early;
        if (Soft(at, plant, losses) is { } soft)
            yield return soft;
        if (losses.LaterLoss is not { } lost || Period.DaysBetween(lost, at.Display.Lift) is not (>= WorthDays and var left))
            yield break;
        yield return at.Say(
            Gravity.Loses,
            RemarkKind.SpoiledByFrost,
            [("plant", plant), ("lost", lost), ("left", left), ("returns", returns)],
            Follow(at, plant, losses, CheckedDisplay.Day(lost)),
            [at.Days(RemedyKind.LiftOn, lift: lost), at.Swap(plant, p => p.TopDamageC < plant.TopDamageC - 4)]
        );
    }

    // By the fitted odds of a night as cold as spoils this plant here; what hardens may go out early.
    private static Remark? BeforeAllClear(CheckedDisplay at, Plant plant)
    {
        if (Hardening.Hardens(plant) || !TowardsSummer(at, at.Display.Install))
            return null;
        FrostOdds spring = FrostOdds.From(at.Record!, FrostEnd.LastSpring, plant.TopDamageC + at.PocketC);
        OddsDate clear = spring.DateAt(at.Plan.Site.FrostRisk);
        double after = spring.OddsOn(at.Display.Install);
        if (after <= at.Plan.Site.FrostRisk || clear.Date is not { } date)
            return null;
        LocalDate allClear = InYearOf(date, at.Display.Install);
        // The date is rounded to a day; the remedy must truly end the remark.
        while (spring.OddsOn(allClear) > at.Plan.Site.FrostRisk && allClear < InYearOf(date, at.Display.Install).PlusDays(7))
            allClear = allClear.PlusDays(1);
        return at.Say(
            Gravity.Loses,
            RemarkKind.BeforeAllClear,
            [
                ("plant", plant),
                ("install", at.Display.Install),
                ("odds", OutOfTen(after, 0)),
                ("threshold", Celsius(spring.ThresholdC, 1)),
                ("pocket", at.PocketC > 0 ? CelsiusApart(at.PocketC, 1) : null),
                ("allClear", allClear),
            ],
            spring.Explain(at.Plan.Site.FrostRisk),
            [at.Days(RemedyKind.PlantOn, install: allClear), at.Swap(plant, p => p.TopDamageC < plant.TopDamageC - 4)]
        );
    }

    private static Remark? Soft(CheckedDisplay at, Plant plant, StayLosses losses)
    {
        LocalDate week = at.Display.Install.PlusDays(Hardening.SoftDays);
        if (!losses.Standing.FromWarmHouse || losses.OddsBy(week) <= at.Plan.Site.FrostRisk)
            return null;
        return at.Say(
            Gravity.Loses,
            RemarkKind.SoftFromWarmHouse,
            [("plant", plant), ("less", CelsiusApart(Hardening.SoftK, 1)), ("odds", OutOfTen(losses.OddsBy(week), 0)), ("days", Hardening.SoftDays)],
            Follow(at, plant, losses, $"{losses.OddsBy(week):P0} in the first week"),
            [at.Days(RemedyKind.HardenOffUntil, install: week)]
        );
    }

    private static Remark? Wintered(CheckedDisplay at, Plant plant, StayLosses losses)
    {
        // One complete year of weather holds no whole stay.
        if (losses.Years.Count == 0)
            return null;
        double live = 1 - ((double)losses.Years.Count(y => y.Kind == LossKind.Tops) / losses.Years.Count);
        return live >= 0.8
            ? null
            : at.Say(
                Gravity.Loses,
                RemarkKind.CutBackByWinter,
                [("plant", plant), ("spoiledAt", Celsius(plant.TopDamageC, 1)), ("odds", OutOfTen(live))],
                Follow(at, plant, losses, $"{live:P0} come through"),
                [at.Swap(plant, p => p.TopDamageC < plant.TopDamageC - 4)]
            );
    }

    private static Working Follow(CheckedDisplay at, Plant plant, StayLosses losses, string value) =>
        new Working(
            WorkingKind.FrostOnTops,
            value,
            [
                new WorkingInput(
                    InputName.FlowerAndLeafSpoiledAt,
                    new Fact(
                        WorkingPhrase.FullyHardenedNotHardened,
                        ("topDamage", Quantity.Celsius(plant.TopDamageC, 1)),
                        ("plant", Quantity.Celsius(Hardening.SpoiledAtC(plant, 0), 1))
                    )
                ),
                new WorkingInput(InputName.GrowthStopsBelow, Quantity.Celsius(plant.GrowthBaseC, 1)),
                new WorkingInput(InputName.LeavesColderThanTheStation, Quantity.CelsiusApart(at.PocketC, 1)),
                new WorkingInput(
                    InputName.Stands,
                    new Fact(WorkingPhrase.FrostOnTopsStands, ("install", at.Display.Install), ("lift", at.Display.Lift))
                ),
                new WorkingInput(
                    InputName.WeatherYears,
                    new Fact(WorkingPhrase.TakeSomething, ("years", losses.Years.Count), ("on", losses.Years.Count(y => y.On is not null)))
                ),
            ]
        )
        {
            Parts =
            [
                ("noneAt", Quantity.Celsius(Hardening.NoneAtC)),
                ("fullAt", Quantity.Celsius(Hardening.FullAtC)),
                ("gainDays", Quantity.Number(Hardening.GainDays)),
                ("lossDays", Quantity.Number(Hardening.LossDays)),
                ("source", plant.Source),
            ],
        };

    // Only what stands through a winter in a container, and is meant to live on or to flower after it.
    public static IEnumerable<Remark> Roots(CheckedDisplay at, Plant plant)
    {
        if (
            at.Record is not { YearsUsed.Count: > 0 } record
            || at.Planter.Form.IsBed
            || !(plant.IsLasting || plant is { Bulb: not null, IsTender: false })
        )
            yield break;
        int midwinter = record.Station.IsSouthern ? 7 : 1;
        LocalDate install = at.Display.Install;
        LocalDate winter = new(
            install.Month > midwinter || (install.Month == midwinter && install.Day > 15) ? install.Year + 1 : install.Year,
            midwinter,
            15
        );
        if (winter >= at.Display.Lift)
            yield break;
        (double kill, bool estimated) = plant.RootKilling;
        WeatherRecord odds = record.ForOdds;
        RootSurvival survival = RootSurvival.From(GroundClimate.Of(odds).Of(at.Planter.ThermalClass()), odds);
        if (survival.Odds(kill) >= LeastRootOdds)
            yield break;
        (double low, double high) = survival.Between(kill, estimated);
        // Nobody lifts before winter what was bought for its stems in winter.
        LocalDate before = winter.PlusDays(-60);
        yield return at.Say(
            Gravity.Loses,
            RemarkKind.RootsLostInWinter,
            [
                ("plant", plant),
                ("planter", at.Planter),
                ("killing", Celsius(kill, 1)),
                ("odds", OutOfTen(survival.Odds(kill))),
                ("low", Number(low * 10, 1)),
                ("high", Number(high * 10, 1)),
            ],
            survival.Explain(kill, estimated),
            [
                at.Swap(plant, p => survival.Odds(p.RootKilling.Celsius) >= LeastRootOdds),
                before > install && !plant.Windows.Any(w => w.Part == ColourPart.Stem) ? at.Days(RemedyKind.LiftBeforeWinter, lift: before) : null,
            ]
        );
    }

    public static IEnumerable<Remark> BulbCold(CheckedDisplay at, Plant plant, BulbPlace place, IReadOnlyList<GrowingSeason> seasons)
    {
        // Bulbs forced beforehand have had their cold.
        if (seasons.Count == 0 || !plant.Windows.Any(w => w.Rule is BulbForcing) || at.Display.Items.Any(i => i.PlantId == plant.Id && i.Forced))
            yield break;
        BloomForecast forecast = StackBloom.Forecast(plant, seasons, at.Display.Install, place);
        if (forecast.ShareShortOfCold < 0.5)
            yield break;
        BulbFigures bulb = plant.Bulb!;
        double shortBy = Math.Max(0, bulb.ColdWeeksLow - forecast.MedianColdWeeks);
        bool flowers = forecast.Years.Count * 2 >= forecast.YearsAsked;
        LocalDate fall = new LocalDate(
            StackBloom.BulbYearStart(at.Display.Install, at.Record!.Station.IsSouthern).Year,
            at.Record.Station.IsSouthern ? 4 : 10,
            20
        );
        yield return at.Say(
            Gravity.Loses,
            RemarkKind.TooLittleCold,
            [
                ("plant", plant),
                ("install", at.Display.Install),
                ("least", Number(bulb.ColdWeeksLow)),
                ("most", Weeks(bulb.ColdWeeksHigh)),
                ("had", flowers ? Weeks(forecast.MedianColdWeeks, 1) : null),
                ("shortBy", Number(shortBy, 1)),
                ("blind", !flowers),
            ],
            forecast.Explain(place),
            [
                fall < at.Display.Install ? at.Days(RemedyKind.PlantOn, install: fall) : null,
                at.Swap(plant, p => p.Bulb is { } b && b.ColdWeeksLow <= forecast.MedianColdWeeks - 1),
            ]
        );
    }

    // Only the half-year that runs towards summer can be "too early": a tender plant set out in fall is a short display.
    private static bool TowardsSummer(CheckedDisplay at, LocalDate day) => (day.Month < 7) != at.Flowering.IsSouthern;

    private static LocalDate InYearOf(LocalDate commonYearDate, LocalDate day)
    {
        var date = new LocalDate(day.Year, commonYearDate.Month, Math.Min(commonYearDate.Day, 28));
        return date.PlusDays(commonYearDate.Day - date.Day);
    }
}

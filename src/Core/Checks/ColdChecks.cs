using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Planting;
using UnrulyMeadow.Core.Plants;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Checks;

/// <summary>Cold: frost on tender tops, winter on roots, and the cold that bulbs want.</summary>
internal static class ColdChecks
{
    /// <summary>Roots that live through fewer winters than this are worth a remark.</summary>
    public const double LeastRootOdds = 0.8;

    public static IEnumerable<Remark> Frost(CheckedDisplay at, Plant plant, FrostOdds? spring)
    {
        if (!plant.IsTender || spring is null || at.IsBulbs)
            yield break;
        OddsDate clear = spring.DateAt(0.1);
        double after = spring.OddsOn(at.Display.Install);
        if (after <= 0.1 || !TowardsSummer(at, at.Display.Install) || clear.Date is not { } date)
            yield break;
        LocalDate allClear = InYearOf(date, at.Display.Install);
        // The date is rounded to a day; the remedy must truly end the remark.
        while (spring.OddsOn(allClear) > 0.1 && allClear < InYearOf(date, at.Display.Install).PlusDays(7))
            allClear = allClear.PlusDays(1);
        yield return at.Say(
            Gravity.Loses,
            $"{plant.CommonName} goes out before the frost all-clear",
            $"Planted out on {CheckedDisplay.Day(at.Display.Install)}, a freeze follows in {after * 10:0} of 10 years; its tops are spoiled at {plant.TopDamageC:0.#} °C.",
            $"Install on {CheckedDisplay.Day(allClear)} or later, or hold it under cover until then.",
            spring.Explain(0.1),
            [at.Days($"Install it on {CheckedDisplay.Day(allClear)}", install: allClear), at.Swap(plant, p => !p.IsTender)]);
    }

    // What still stands when frost comes: only worth saying when it is lost well before it would come out.
    public static IEnumerable<Remark> Tops(CheckedDisplay at, Plant plant)
    {
        if (at.IsBulbs || at.Flowering.Years == 0 || !(plant.DiesWithFrost || plant.HasLastingTops))
            yield break;
        float[] spread = at.Spread(plant);
        LocalDate last = at.Display.Lift.PlusDays(-1);
        LocalDate end = at.Flowering.Start.PlusMonths(12).PlusDays(-1);
        last = last < end ? last : end;
        int stands = Array.FindLastIndex(spread, s => s > 0);
        LocalDate lost = at.Flowering.Start.PlusDays(stands + 1);
        if (plant.DiesWithFrost)
        {
            int left = Period.DaysBetween(lost, last);
            if (stands < 0 || left < 21 || TowardsSummer(at, at.Display.Install) && lost < at.Display.Install.PlusDays(14))
                yield break;
            yield return at.Say(
                Gravity.Loses,
                $"{plant.CommonName} is killed by frost while it should stand",
                $"At {plant.TopDamageC:0.#} °C its tops are spoiled; in the middle year that is by {CheckedDisplay.Day(lost)}, {left} days before it comes out.",
                $"Lift it by {CheckedDisplay.Day(lost)}, cover it on frost nights, or choose what stands frost.",
                new Working("Frost on its tops", CheckedDisplay.Day(lost), [new("spoiled at", $"{plant.TopDamageC:0.#} °C"), new("leaves colder than the station", $"{at.PocketC:0.#} °C"), new("weather years", $"{at.Flowering.Years}")], "The first day on which most weather years have had a night as cold as that", "Station record; plant figures " + plant.Source, []),
                [at.Days($"Lift it on {CheckedDisplay.Day(lost)}", lift: lost), at.Swap(plant, p => p.TopDamageC < plant.TopDamageC - 4)]);
            yield break;
        }
        (double[] lowest, double[] _) = at.Flowering.Extremes(at.Display.Install < at.Flowering.Start ? at.Flowering.Start : at.Display.Install, last);
        double live = (double)lowest.Count(c => c - at.PocketC > plant.TopDamageC) / lowest.Length;
        if (live >= 0.8)
            yield break;
        yield return at.Say(
            Gravity.Loses,
            $"{plant.CommonName} may be cut back by winter",
            $"Its tops are spoiled at {plant.TopDamageC:0.#} °C; they come through {live * 10:0.#} of 10 winters here.",
            "Cover it, move it in, or choose what stands more.",
            new Working("Winter on its tops", $"{live:P0}", [new("spoiled at", $"{plant.TopDamageC:0.#} °C"), new("coldest night, middle year", $"{lowest[lowest.Length / 2]:0.0} °C"), new("leaves colder than the station", $"{at.PocketC:0.#} °C")], "Share of weather years whose coldest night stays above what its tops stand", "Station record; plant figures " + plant.Source, []),
            [at.Swap(plant, p => p.TopDamageC < plant.TopDamageC - 4)]);
    }

    // Only what stands through a winter in a container, and is meant to live on.
    public static IEnumerable<Remark> Roots(CheckedDisplay at, Plant plant)
    {
        if (at.Record is not { YearsUsed.Count: > 0 } record || at.Planter.Form.IsBed || !plant.IsLasting)
            yield break;
        int midwinter = record.Station.IsSouthern ? 7 : 1;
        LocalDate install = at.Display.Install;
        LocalDate winter = new(install.Month > midwinter || (install.Month == midwinter && install.Day > 15) ? install.Year + 1 : install.Year, midwinter, 15);
        if (winter >= at.Display.Lift)
            yield break;
        (double kill, bool estimated) = plant.RootKilling;
        WeatherRecord odds = record.ForOdds;
        RootSurvival survival = RootSurvival.From(odds.Ground.Of(ThermalClass.Of(at.Planter)), odds);
        if (survival.Odds(kill) >= LeastRootOdds)
            yield break;
        (double low, double high) = survival.Between(kill, estimated);
        LocalDate before = winter.PlusDays(-60);
        yield return at.Say(
            Gravity.Loses,
            $"{plant.CommonName} may lose its roots in winter",
            $"Its roots die at about {kill:0.#} °C; in {at.Planter.Name} they live through {survival.Odds(kill) * 10:0.#} of 10 winters (between {low * 10:0.#} and {high * 10:0.#}).",
            "Wrap or group the planter, move it in, sink it in a bed, or choose what stands more; the Climate page compares.",
            survival.Explain(kill, estimated),
            [at.Swap(plant, p => survival.Odds(p.RootKilling.Celsius) >= LeastRootOdds), before > install ? at.Days($"Lift it on {CheckedDisplay.Day(before)}, before winter", lift: before) : null]);
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
        string outcome = forecast.Years.Count * 2 < forecast.YearsAsked
            ? "it does not flower in most years"
            : $"{forecast.MedianColdWeeks:0.0} weeks by flowering in the middle year, {shortBy:0.0} short";
        LocalDate fall = new LocalDate(StackBloom.BulbYearStart(at.Display.Install, at.Record!.Station.IsSouthern).Year, at.Record.Station.IsSouthern ? 4 : 10, 20);
        yield return at.Say(
            Gravity.Loses,
            $"{plant.CommonName} goes in with too little cold ahead",
            $"Planted on {CheckedDisplay.Day(at.Display.Install)} it wants {bulb.ColdWeeksLow:0}–{bulb.ColdWeeksHigh:0} weeks: {outcome}. Expect late, short or blind flowers.",
            "Plant earlier in fall, or ask for pre-cooled bulbs.",
            forecast.Explain(place),
            [fall < at.Display.Install ? at.Days($"Plant on {CheckedDisplay.Day(fall)}", install: fall) : null, at.Swap(plant, p => p.Bulb is { } b && b.ColdWeeksLow <= forecast.MedianColdWeeks - 1)]);
    }

    // Only the half-year that runs towards summer can be "too early": a tender plant set out in fall is a short display.
    private static bool TowardsSummer(CheckedDisplay at, LocalDate day) => (day.Month < 7) != at.Flowering.IsSouthern;

    private static LocalDate InYearOf(LocalDate commonYearDate, LocalDate day)
    {
        var date = new LocalDate(day.Year, commonYearDate.Month, Math.Min(commonYearDate.Day, 28));
        return date.PlusDays(commonYearDate.Day - date.Day);
    }
}

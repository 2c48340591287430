using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Planting;
using UnrulyMeadow.Core.Plants;

namespace UnrulyMeadow.Core.Season;

/// <summary>Something worth a look in a display, with its reason and a way to mend it. It warns and never forbids.</summary>
/// <param name="PlanterId">The planter.</param>
/// <param name="DisplayId">The display.</param>
/// <param name="What">What, in a few words.</param>
/// <param name="Why">Why, with the figures.</param>
/// <param name="Mend">What would put it right.</param>
/// <param name="Working">The arithmetic.</param>
public sealed record Remark(string PlanterId, string DisplayId, string What, string Why, string Mend, Working Working);

/// <summary>Looks displays over against the climate, the planter and each other.</summary>
public sealed class DisplayChecks
{
    /// <summary>What is said of a stack that does not fit its planter.</summary>
    public const string StackDoesNotFit = "The bulb stack does not fit";

    /// <summary>Roots that live through fewer winters than this are worth a remark.</summary>
    public const double LeastRootOdds = 0.8;

    private readonly Plan _plan;
    private readonly WeatherRecord? _record;
    private readonly FrostOdds? _spring;
    private readonly FrostOdds? _fall;
    private readonly Dictionary<LocalDate, IReadOnlyList<GrowingSeason>> _seasons = [];

    /// <summary>Prepares the checks of a plan.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="record">The weather, or null: then nothing is said of frost and cold.</param>
    public DisplayChecks(Plan plan, WeatherRecord? record)
    {
        _plan = plan;
        _record = record;
        if (record is { YearsUsed.Count: > 0 })
        {
            _spring = FrostOdds.From(record, FrostEnd.LastSpring, 0);
            _fall = FrostOdds.From(record, FrostEnd.FirstFall, 0);
        }
    }

    /// <summary>Remarks on every display of the plan that stands on or after a day.</summary>
    public IEnumerable<Remark> All(LocalDate from) =>
        _plan.Displays.Where(d => d.Lift > from).SelectMany(For);

    /// <summary>Remarks on one display.</summary>
    public IEnumerable<Remark> For(Display display)
    {
        Planter? planter = _plan.FindPlanter(display.PlanterId);
        if (planter is null)
            return [];
        var plants = display.Items.Select(i => (Item: i, Plant: _plan.Plant(i.PlantId))).ToList();
        return
        [
            .. plants.SelectMany(p => Frost(display, p.Plant)),
            .. plants.SelectMany(p => Light(display, planter, p.Plant)),
            .. Water(display, planter),
            .. plants.SelectMany(p => Roots(display, planter, p.Plant)),
            .. display.Layer == DisplayLayer.Bulbs ? Cold(display, planter) : [],
            .. display.Layer == DisplayLayer.Bulbs ? Stack(display, planter) : [],
        ];
    }

    private IEnumerable<Remark> Frost(Display display, Plant plant)
    {
        if (!plant.IsTender || _spring is null || _fall is null)
            yield break;
        OddsDate clear = _spring.DateAt(0.1);
        double after = _spring.OddsOn(display.Install);
        if (after <= 0.1 || !BetweenFrosts(display.Install) || clear.Date is not { } date)
            yield break;
        LocalDate allClear = OnOrAfter(date, display.Install);
        yield return new Remark(
            display.PlanterId,
            display.Id,
            $"{plant.CommonName} goes out before the frost all-clear",
            $"Planted out on {Day(display.Install)}, a freeze follows in {after * 10:0} of 10 years; its tops are spoiled at {plant.TopDamageC:0.#} °C.",
            $"Install on {Day(allClear)} or later, or hold it under cover until then.",
            _spring.Explain(0.1));
    }

    // Only the half-year that runs towards summer can be "too early": a tender plant set out in fall is a short display.
    private bool BetweenFrosts(LocalDate day)
    {
        bool southern = _record!.Station.IsSouthern;
        bool towardsSummer = day.Month < 7;
        return towardsSummer != southern;
    }

    private static LocalDate OnOrAfter(LocalDate commonYearDate, LocalDate day)
    {
        var date = new LocalDate(day.Year, commonYearDate.Month, Math.Min(commonYearDate.Day, 28));
        return date.PlusDays(commonYearDate.Day - date.Day);
    }

    private static IEnumerable<Remark> Light(Display display, Planter planter, Plant plant)
    {
        if (planter.Exposure >= plant.LightLow && planter.Exposure <= plant.LightHigh)
            yield break;
        bool tooBright = planter.Exposure > plant.LightHigh;
        yield return new Remark(
            display.PlanterId,
            display.Id,
            $"{plant.CommonName} stands in too {(tooBright ? "much" : "little")} sun",
            $"{planter.Name} has {Name(planter.Exposure)}; the plant wants {Name(plant.LightLow)}{(plant.LightLow == plant.LightHigh ? string.Empty : " to " + Name(plant.LightHigh))}.",
            tooBright ? "Move it to a shadier planter or choose a plant for sun." : "Move it into more light or choose a plant for shade.",
            new Working(
                "Light",
                Name(planter.Exposure),
                [new("planter", Name(planter.Exposure)), new("plant, least", Name(plant.LightLow)), new("plant, most", Name(plant.LightHigh))],
                "Full sun six hours of direct sun a day or more, part sun three to six, shade under three",
                "Common practice; plant figures " + plant.Source,
                []));
    }

    private IEnumerable<Remark> Water(Display display, Planter planter)
    {
        if (display.Layer == DisplayLayer.Bulbs)
            yield break;
        var together = _plan.DisplaysOf(planter.Id)
            .Where(d => d.Layer != DisplayLayer.Bulbs && d.Install < display.Lift && display.Install < d.Lift)
            .SelectMany(d => d.Items.Select(i => _plan.Plant(i.PlantId)))
            .ToList();
        var own = display.Items.Select(i => _plan.Plant(i.PlantId)).ToList();
        Plant? dry = own.Concat(together).FirstOrDefault(p => p.Water == WaterNeed.Low);
        Plant? wet = own.Concat(together).FirstOrDefault(p => p.Water == WaterNeed.High);
        if (dry is null || wet is null || (!own.Contains(dry) && !own.Contains(wet)))
            yield break;
        yield return new Remark(
            display.PlanterId,
            display.Id,
            $"{dry.CommonName} and {wet.CommonName} want different water",
            "One dries out between waterings, the other must never be dry.",
            "Keep one of them and put the other where its neighbours drink as it does.",
            new Working(
                "Water",
                "low beside high",
                [new(dry.CommonName, "low"), new(wet.CommonName, "high")],
                "Same water need in one planter: low and high do not stand together",
                "Common practice",
                []));
    }

    // Only what stands through a winter in a container, and is meant to live on.
    private IEnumerable<Remark> Roots(Display display, Planter planter, Plant plant)
    {
        if (_record is not { YearsUsed.Count: > 0 } || planter.Form.IsBed || plant.LifeForm is not (LifeForm.Perennial or LifeForm.Grass or LifeForm.Shrub or LifeForm.Tree))
            yield break;
        int midwinter = _record.Station.IsSouthern ? 7 : 1;
        LocalDate winter = new(display.Install.Month > midwinter || (display.Install.Month == midwinter && display.Install.Day > 15) ? display.Install.Year + 1 : display.Install.Year, midwinter, 15);
        if (winter >= display.Lift)
            yield break;
        (double kill, bool estimated) = plant.RootKilling;
        WeatherRecord odds = _record.ForOdds;
        RootSurvival survival = RootSurvival.From(odds.Ground.Of(ThermalClass.Of(planter)), odds);
        if (survival.Odds(kill) >= LeastRootOdds)
            yield break;
        (double low, double high) = survival.Between(kill, estimated);
        yield return new Remark(
            display.PlanterId,
            display.Id,
            $"{plant.CommonName} may lose its roots in winter",
            $"Its roots die at about {kill:0.#} °C; in {planter.Name} they live through {survival.Odds(kill) * 10:0.#} of 10 winters (between {low * 10:0.#} and {high * 10:0.#}).",
            "Wrap or group the planter, move it in, sink it in a bed, or choose what stands more; the Climate page compares.",
            survival.Explain(kill, estimated));
    }

    private IEnumerable<Remark> Cold(Display display, Planter planter)
    {
        if (_record is null)
            return [];
        LocalDate year = StackBloom.BulbYearStart(display.Install, _record.Station.IsSouthern);
        if (!_seasons.TryGetValue(year, out IReadOnlyList<GrowingSeason>? seasons))
            _seasons[year] = seasons = StackBloom.Seasons(_record, display.Install);
        if (seasons.Count == 0)
            return [];
        return BulbStack.Depths(planter, _plan.Site, _plan.BulbsOf(display))
            .Where(d => d.Plant.Windows.Any(w => w.Rule is BulbForcing))
            .SelectMany(d => Cold(display, d.Plant, planter.PlaceAt(d.DepthCm), seasons));
    }

    private static IEnumerable<Remark> Cold(Display display, Plant plant, BulbPlace place, IReadOnlyList<GrowingSeason> seasons)
    {
        BloomForecast forecast = StackBloom.Forecast(plant, seasons, display.Install, place);
        if (forecast.ShareShortOfCold < 0.5)
            yield break;
        BulbFigures bulb = plant.Bulb!;
        double shortBy = Math.Max(0, bulb.ColdWeeksLow - forecast.MedianColdWeeks);
        string outcome = forecast.Years.Count * 2 < forecast.YearsAsked
            ? "it does not flower in most years"
            : $"{forecast.MedianColdWeeks:0.0} weeks by flowering in the middle year, {shortBy:0.0} short";
        yield return new Remark(
            display.PlanterId,
            display.Id,
            $"{plant.CommonName} goes in with too little cold ahead",
            $"Planted on {Day(display.Install)} it wants {bulb.ColdWeeksLow:0}–{bulb.ColdWeeksHigh:0} weeks: {outcome}. Expect late, short or blind flowers.",
            "Plant earlier in fall, or ask for pre-cooled bulbs.",
            forecast.Explain(place));
    }

    private IEnumerable<Remark> Stack(Display display, Planter planter)
    {
        BulbStack stack = BulbStack.LayOut(planter, _plan.Site, _plan.BulbsOf(display));
        return stack.Problems.Select(p => new Remark(
            display.PlanterId,
            display.Id,
            StackDoesNotFit,
            p.Message,
            "Change depth or count in the stack.",
            stack.Layers.Count == 0 ? planter.Form.ExplainVolume() : stack.Explain(stack.Layers[0])));
    }

    private static string Day(LocalDate day) => day.ToString("d MMM uuuu", null);

    private static string Name(Exposure exposure) => exposure switch
    {
        Exposure.FullSun => "full sun",
        Exposure.PartSun => "part sun",
        _ => "shade",
    };
}

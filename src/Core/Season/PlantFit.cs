using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Stacks;
using static UnrulyMeadow.Core.Facts.Quantity;

namespace UnrulyMeadow.Core.Season;

/// <summary>How well one thing fits.</summary>
public enum FitVerdict
{
    /// <summary>It fits.</summary>
    Fits,

    /// <summary>It may do, with a doubt.</summary>
    Doubtful,

    /// <summary>It does not.</summary>
    Fails,
}

/// <summary>One thing looked at.</summary>
/// <param name="What">What: light, roots in winter, height.</param>
/// <param name="Verdict">How well it fits.</param>
/// <param name="Why">Why, of a <see cref="FitKind"/>.</param>
public sealed record FitReason(FitAspect What, FitVerdict Verdict, Fact Why);

/// <summary>How a plant fits a question.</summary>
/// <param name="Plant">The plant.</param>
/// <param name="Reasons">Everything looked at that is not plainly right.</param>
/// <param name="Strip">Its colour at this site as it would be planted.</param>
/// <param name="Odds">Mean odds of colour over the weeks asked.</param>
/// <param name="Score">Odds times what of the plant shows, in colour's weight; the order of the list.</param>
public sealed record PlantFit(Plant Plant, IReadOnlyList<FitReason> Reasons, FloweringStrip Strip, double Odds, double Score)
{
    /// <summary>The worst of its reasons.</summary>
    public FitVerdict Verdict => Reasons.Count == 0 ? FitVerdict.Fits : Reasons.Max(r => r.Verdict);

    /// <summary>The arithmetic behind the odds and the order.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.PlantFit,
            Verdict,
            [
                new WorkingInput(InputName.OddsOfColourInThoseWeeks, Quantity.Share(Odds)),
                new WorkingInput(InputName.Order, Quantity.Number(Score, 2)),
                new WorkingInput(InputName.GoesIn, Strip.Install < Strip.Start.PlusYears(-1) ? (object?)WorkingPhrase.Established : Strip.Install),
            ],
            [.. Plant.Windows.Select(w => new Fact(WorkingPhrase.DaysOfColourGainedStep, ("part", w.Part), ("describe", w.Rule.Describe())))]
        )
        {
            Parts = [("plant", Plant)],
        };
}

/// <summary>
/// "What can stand in this planter, at this site, and give colour in these weeks?": every plant with the reason for each
/// doubt and each refusal.
/// </summary>
public sealed class FitQuestion
{
    private readonly SiteFlowering _site;
    private readonly Planning.Site _rules;
    private readonly RootSurvival? _roots;
    private readonly double _pocketC;
    private readonly GreatestHeight _height;
    private readonly Drainage _drainage;
    private readonly ThermalClass _class;

    /// <summary>Prepares a question.</summary>
    /// <param name="site">The site's flowering in the plan year that holds the weeks.</param>
    /// <param name="rules">The site's choices.</param>
    /// <param name="planter">The planter.</param>
    /// <param name="area">Its area.</param>
    /// <param name="first">First day asked.</param>
    /// <param name="last">Last day asked.</param>
    public FitQuestion(SiteFlowering site, Planning.Site rules, Planter planter, Area area, LocalDate first, LocalDate last)
    {
        if (last < first || last > first.PlusDays(366))
            throw new InvalidInputException("last", "must be from the first day to a year later");
        _site = site;
        _rules = rules;
        Planter = planter;
        First = first;
        Last = last;
        _pocketC = area.FrostPocketC + planter.Survey.FrostPocketC;
        _height = GreatestHeight.Of(planter);
        _drainage = Drainage.Of(planter);
        _class = planter.ThermalClass();
        _roots = site.Record is { YearsUsed.Count: > 0 } record
            ? RootSurvival.From(GroundClimate.Of(record.ForOdds).Of(_class), record.ForOdds)
            : null;
    }

    /// <summary>The planter.</summary>
    public Planter Planter { get; }

    /// <summary>First day asked.</summary>
    public LocalDate First { get; }

    /// <summary>Last day asked.</summary>
    public LocalDate Last { get; }

    /// <summary>Every plant, the best first: those that fit, then doubtful ones, then those that fail; retired ones are left out.</summary>
    public IReadOnlyList<PlantFit> Ask(IEnumerable<Plant> palette)
    {
        var hottest = new Dictionary<LocalDate, double[]>();
        return
        [
            .. palette
                .Where(p => !p.IsRetired)
                .Select(p => Of(p, hottest))
                .OrderBy(f => f.Verdict)
                .ThenByDescending(f => f.Score)
                .ThenBy(f => f.Plant.CommonName, StringComparer.Ordinal),
        ];
    }

    /// <summary>One plant.</summary>
    public PlantFit Of(Plant plant) => Of(plant, []);

    private PlantFit Of(Plant plant, Dictionary<LocalDate, double[]> hottest)
    {
        LocalDate install = _site.UsualInstall(plant, First);
        BulbPlace? place = plant.Bulb is { } bulb
            ? new BulbPlace(_class, Math.Round(BulbStack.DepthByRule(bulb, _rules.RulesFor(Planter).BulbDepth)))
            : null;
        FloweringStrip strip = _site.Of(plant, install, place, _pocketC);
        var reasons = new List<FitReason>();
        Light(plant, reasons);
        Water(plant, reasons);
        MediumAndPh(plant, reasons);
        Room(plant, reasons);
        Heights(plant, install, reasons);
        if (_site.Years > 0)
        {
            // Weather counts from the day it goes in, for what lasts from the fall before.
            LocalDate from = install < _site.Start ? _site.Start : install;
            if (!hottest.TryGetValue(from, out double[]? weeks))
                hottest[from] = weeks = _site.HottestWeeks(from, Last < from ? from : Last);
            Tops(plant, from, reasons);
            Roots(plant, install, reasons);
            Heat(plant, weeks, reasons);
        }
        Surroundings(plant, reasons);
        if (Planter.Survey.RestsFrom(plant, install < First.PlusYears(-1) ? First : install))
            reasons.Add(
                new(
                    FitAspect.Rest,
                    FitVerdict.Fails,
                    new Fact(FitKind.SoilRests, ("genus", Planter.Survey.RestsFromGenus), ("until", Planter.Survey.RestsUntil))
                )
            );
        double odds = strip.OddsOver(First, Last);
        Colour(plant, install, odds, reasons);
        return new PlantFit(plant, reasons, strip, odds, Score(strip, odds));
    }

    private double Score(FloweringStrip strip, double odds)
    {
        double shown = 0;
        int from = Math.Max(0, Period.DaysBetween(strip.Start, First));
        int to = Math.Min(strip.Odds.Length - 1, Period.DaysBetween(strip.Start, Last));
        for (int w = 0; w < strip.ByWindow.Count && to >= from; w++)
        {
            double mean = 0;
            for (int d = from; d <= to; d++)
                mean += strip.ByWindow[w][d];
            shown = Math.Max(shown, mean / (to - from + 1) * strip.Plant.Windows[w].Share * strip.Plant.Windows[w].Weight);
        }
        return Math.Sqrt(odds * shown);
    }

    private void Light(Plant plant, List<FitReason> reasons)
    {
        int off =
            Planter.Exposure < plant.LightLow ? plant.LightLow - Planter.Exposure
            : Planter.Exposure > plant.LightHigh ? Planter.Exposure - plant.LightHigh
            : 0;
        if (off == 0)
            return;
        bool dark = Planter.Exposure < plant.LightLow;
        reasons.Add(
            new(
                FitAspect.Light,
                off > 1 ? FitVerdict.Fails : FitVerdict.Doubtful,
                new Fact(
                    dark ? FitKind.TooLittleSun : FitKind.TooMuchSun,
                    ("wants", dark ? plant.LightLow : plant.LightHigh),
                    ("has", Planter.Exposure)
                )
            )
        );
    }

    private void Water(Plant plant, List<FitReason> reasons)
    {
        if (plant.Water == WaterNeed.High && Planter.Watering == Watering.Rain)
            reasons.Add(new(FitAspect.Water, FitVerdict.Doubtful, new Fact(FitKind.NeverDryButOnlyRain)));
        if (plant.Water == WaterNeed.Low && _drainage.Verdict == DrainageVerdict.Poor)
            reasons.Add(new(FitAspect.Water, FitVerdict.Fails, new Fact(FitKind.DryButDrainsPoorly)));
        else if ((plant.Bulb is not null || plant.Roots.Medium == RootingMedium.Gritty) && _drainage.Verdict == DrainageVerdict.Poor)
            reasons.Add(new(FitAspect.Water, FitVerdict.Fails, new Fact(FitKind.RotsInWet)));
    }

    private void MediumAndPh(Plant plant, List<FitReason> reasons)
    {
        if (Planter.Survey.Ph is { } ph && (ph < plant.Roots.PhLow || ph > plant.Roots.PhHigh))
        {
            bool far = ph < plant.Roots.PhLow - 0.7 || ph > plant.Roots.PhHigh + 0.7;
            reasons.Add(
                new(
                    FitAspect.Ph,
                    far ? FitVerdict.Fails : FitVerdict.Doubtful,
                    new Fact(
                        FitKind.PhOutOfRange,
                        ("low", Number(plant.Roots.PhLow, 1)),
                        ("high", Number(plant.Roots.PhHigh, 1)),
                        ("measured", Number(ph, 1))
                    )
                )
            );
        }
        else if (plant.Roots.Medium == RootingMedium.Acid && Planter.Survey.Ph is null)
        {
            reasons.Add(
                new(
                    FitAspect.Medium,
                    Planter.Form.IsBed ? FitVerdict.Doubtful : FitVerdict.Fits,
                    new Fact(Planter.Form.IsBed ? FitKind.AcidSoilNotMeasured : FitKind.GiveAcidMedium)
                )
            );
        }
    }

    private void Room(Plant plant, List<FitReason> reasons)
    {
        PlanterForm form = Planter.Form;
        if (plant.Bulb is { } bulb)
        {
            double depth = BulbStack.DepthByRule(bulb, _rules.RulesFor(Planter).BulbDepth);
            double floor = BulbStack.DeepestBaseCm(Planter, _rules);
            if (depth > floor)
                reasons.Add(new(FitAspect.Depth, FitVerdict.Fails, new Fact(FitKind.BaseTooDeep, ("depth", Cm(depth, 1)), ("leaves", Cm(floor, 1)))));
            return;
        }
        double narrow = Math.Min(form.TopLengthCm, form.TopWidthCm);
        if (
            Planter.Survey.Tree is { } tree
            && Math.Min(1, tree.RootsIn(Last.Year) * tree.RootsIn(Last.Year) * Math.PI / 4 / form.SurfaceCm2) is > 0.7 and var filled
        )
            reasons.Add(
                new(FitAspect.Room, FitVerdict.Doubtful, new Fact(FitKind.TreeRoots, ("tree", tree.Name), ("filled", Share(filled)), ("by", Last)))
            );
        double least = plant.Packs.Select(k => k.SpreadCm ?? plant.SpreadAtPurchaseCm).Min();
        if (!form.IsBed && least > narrow)
            reasons.Add(new(FitAspect.Room, FitVerdict.Fails, new Fact(FitKind.WiderThanThePlanter, ("wide", Cm(least)), ("planter", Cm(narrow)))));
        else if (!form.IsBed && plant.MatureSpreadCm > 2.2 * narrow && plant.IsLasting)
            reasons.Add(new(FitAspect.Room, FitVerdict.Doubtful, new Fact(FitKind.OutgrowsThePlanter, ("wide", Cm(plant.MatureSpreadCm)))));
        double want = plant.RootDepthCm;
        double has = BulbStack.MediumDepthCm(Planter, _rules);
        if (has < want - 1)
            reasons.Add(
                new(
                    FitAspect.Depth,
                    plant.IsLasting && has < want * 0.7 ? FitVerdict.Fails : FitVerdict.Doubtful,
                    new Fact(FitKind.LacksDepth, ("wants", Cm(want)), ("has", Cm(has)))
                )
            );
    }

    private void Heights(Plant plant, LocalDate install, List<FitReason> reasons)
    {
        if (plant.Habit == Habit.Trailing || plant.HeightCm <= Math.Min(_height.LimitCm, _height.ProportionCm))
            return;
        double reaches = _site.GreatestHeightCm(plant, install, Last.PlusDays(1), _pocketC);
        if (reaches > _height.LimitCm)
            reasons.Add(
                new(
                    FitAspect.Height,
                    FitVerdict.Fails,
                    new Fact(FitKind.TooHigh, ("reaches", Cm(reaches)), ("by", _height.LimitedBy), ("limit", Cm(_height.LimitCm)))
                )
            );
        else if (reaches > _height.ProportionCm)
            reasons.Add(
                new(
                    FitAspect.Height,
                    FitVerdict.Doubtful,
                    new Fact(FitKind.TallForThePlanter, ("reaches", Cm(reaches)), ("limit", Cm(_height.ProportionCm)))
                )
            );
    }

    private void Tops(Plant plant, LocalDate from, List<FitReason> reasons)
    {
        // Herbs that rest below ground lose only what is dead anyway.
        bool counts = plant.DiesWithFrost || plant.HasLastingTops;
        if (!counts)
            return;
        double live = _site.ComesThrough(plant, from, Last < from ? from : Last, _pocketC);
        if (live < 0.8)
            reasons.Add(
                new(
                    FitAspect.Tops,
                    live < 0.5 ? FitVerdict.Fails : FitVerdict.Doubtful,
                    new Fact(FitKind.TopsSpoiled, ("spoiledAt", Celsius(plant.TopDamageC, 1)), ("odds", OutOfTen(live)))
                )
            );
    }

    private void Roots(Plant plant, LocalDate install, List<FitReason> reasons)
    {
        bool winters =
            plant.IsLasting
            || (plant.LifeForm is LifeForm.Bulb or LifeForm.Biennial or LifeForm.CoolSeasonAnnual && !plant.IsTender && CrossesWinter(install));
        if (!winters || _roots is null)
            return;
        (double kill, bool estimated) = plant.RootKilling;
        double odds = _roots.Odds(kill);
        if (odds < 0.8)
            reasons.Add(
                new(
                    FitAspect.WinterRoots,
                    odds < 0.5 ? FitVerdict.Fails : FitVerdict.Doubtful,
                    new Fact(FitKind.RootsLostInWinter, ("about", estimated), ("killing", Celsius(kill, 1)), ("odds", OutOfTen(odds)))
                )
            );
    }

    private bool CrossesWinter(LocalDate install)
    {
        var midwinter = new LocalDate(Last.Year, _site.IsSouthern ? 7 : 1, 15);
        return (install < midwinter && midwinter <= Last) || (install < midwinter.PlusYears(-1) && midwinter.PlusYears(-1) <= Last);
    }

    private void Heat(Plant plant, double[] hottest, List<FitReason> reasons)
    {
        if (plant.Roots.HeatCeilingC is not { } ceiling || hottest.Length == 0)
            return;
        double hot = (double)hottest.Count(c => c + Planter.Survey.MasonryHeatC > ceiling) / hottest.Length;
        if (hot > 0.5)
            reasons.Add(
                new(
                    FitAspect.Heat,
                    FitVerdict.Doubtful,
                    new Fact(
                        FitKind.StallsInHeat,
                        ("ceiling", Celsius(ceiling)),
                        ("odds", OutOfTen(hot)),
                        ("masonry", Planter.Survey.MasonryHeatC > 0)
                    )
                )
            );
    }

    private void Surroundings(Plant plant, List<FitReason> reasons)
    {
        PlanterSurvey s = Planter.Survey;
        if (s.Wind == WindReach.Exposed && plant.Resistance.Wind == Grade.Low)
            reasons.Add(new(FitAspect.Wind, FitVerdict.Doubtful, new Fact(FitKind.Wind)));
        if ((s.SeaSpray || s.DeicingSalt) && plant.Resistance.Salt == Grade.Low)
            reasons.Add(new(FitAspect.Salt, FitVerdict.Doubtful, new Fact(s.SeaSpray ? FitKind.SeaSpray : FitKind.DeicingSalt)));
        if (s.Deer && plant.Resistance.Deer == Eaten.Often)
            reasons.Add(new(FitAspect.Deer, FitVerdict.Doubtful, new Fact(FitKind.Deer)));
        if (s.Public == PublicReach.Touching && plant.Harm.Skin != Hazard.NoneKnown)
            reasons.Add(new(FitAspect.People, FitVerdict.Doubtful, new Fact(FitKind.IrritatesSkin)));
        bool eaten =
            (s.Public == PublicReach.Touching && plant.Harm.People == Hazard.Poisonous) || (s.Dogs && plant.Harm.Animals == Hazard.Poisonous);
        if (eaten)
            reasons.Add(
                new(
                    FitAspect.People,
                    FitVerdict.Doubtful,
                    new Fact(
                        FitKind.Poisonous,
                        ("children", !(s.Dogs && plant.Harm.Animals == Hazard.Poisonous)),
                        ("ask", new Fact(Phrase.WhereToAsk))
                    )
                )
            );
    }

    private void Colour(Plant plant, LocalDate install, double odds, List<FitReason> reasons)
    {
        if (_site.Years == 0)
            reasons.Add(new(FitAspect.Colour, FitVerdict.Doubtful, new Fact(FitKind.NoWeather)));
        else if (install > Last)
            reasons.Add(new(FitAspect.Colour, FitVerdict.Fails, new Fact(FitKind.CannotGoInBefore, ("day", install))));
        else if (odds < ColourOdds.InColour)
            reasons.Add(
                new(
                    FitAspect.Colour,
                    odds < 0.2 ? FitVerdict.Fails : FitVerdict.Doubtful,
                    new Fact(odds < 0.005 ? FitKind.ShowsNothing : FitKind.SeldomShows, ("odds", OutOfTen(odds)))
                )
            );
    }
}

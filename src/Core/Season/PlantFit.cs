using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Stacks;

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
/// <param name="Why">One sentence; empty when it fits without a word.</param>
public sealed record FitReason(string What, FitVerdict Verdict, string Why);

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
    public Working Explain() => new(
        $"{Plant.CommonName}: fit",
        Verdict.ToString().ToLowerInvariant(),
        [new("odds of colour in those weeks", $"{Odds:P0}"), new("order", $"{Score:0.00}"), new("goes in", Strip.Install < Strip.Start.PlusYears(-1) ? "established" : Strip.Install.ToString("d MMM uuuu", null))],
        "Light, water, medium, room, height, cold of tops and roots, heat, wind, salt, deer, people, and colour; ranked by odds × share of the plant in colour × weight of flower, leaf or stem",
        "Common practice over the palette's figures and the station's weather",
        [.. Reasons.Select(r => $"{r.What}: {r.Why}"), .. Plant.Windows.Select(w => $"{w.Part}: {w.Rule.Describe()}.")]);
}

/// <summary>
/// "What can stand in this planter, at this site, and give colour in these weeks?": every plant with the reason for each
/// doubt and each refusal.
/// </summary>
public sealed class FitQuestion
{
    private readonly SiteFlowering _site;
    private readonly Planning.Site _rules;
    /// <summary>What a reason is called that speaks of roots in winter.</summary>
    public const string WinterRoots = "roots in winter";

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
        _roots = site.Record is { YearsUsed.Count: > 0 } record ? RootSurvival.From(GroundClimate.Of(record.ForOdds).Of(_class), record.ForOdds) : null;
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
        return [.. palette.Where(p => !p.IsRetired).Select(p => Of(p, hottest)).OrderBy(f => f.Verdict).ThenByDescending(f => f.Score).ThenBy(f => f.Plant.CommonName, StringComparer.Ordinal)];
    }

    /// <summary>One plant.</summary>
    public PlantFit Of(Plant plant) => Of(plant, []);

    private PlantFit Of(Plant plant, Dictionary<LocalDate, double[]> hottest)
    {
        LocalDate install = _site.UsualInstall(plant, First);
        BulbPlace? place = plant.Bulb is { } bulb ? new BulbPlace(_class, Math.Round(BulbStack.DepthByRule(bulb, _rules.RulesFor(Planter).BulbDepth))) : null;
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
            reasons.Add(new("rest", FitVerdict.Fails, $"The planter rests from {Planter.Survey.RestsFromGenus}{(Planter.Survey.RestsUntil is { } until ? $" until {until.ToString("d MMM uuuu", null)}" : string.Empty)} after a disease."));
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
        int off = Planter.Exposure < plant.LightLow ? plant.LightLow - Planter.Exposure : Planter.Exposure > plant.LightHigh ? Planter.Exposure - plant.LightHigh : 0;
        if (off == 0)
            return;
        bool dark = Planter.Exposure < plant.LightLow;
        reasons.Add(new("light", off > 1 ? FitVerdict.Fails : FitVerdict.Doubtful, dark
            ? $"It wants {Word(plant.LightLow)}; here is {Word(Planter.Exposure)}."
            : $"It stands no more than {Word(plant.LightHigh)}; here is {Word(Planter.Exposure)}."));
    }

    private void Water(Plant plant, List<FitReason> reasons)
    {
        if (plant.Water == WaterNeed.High && Planter.Watering == Watering.Rain)
            reasons.Add(new("water", FitVerdict.Doubtful, "It must never dry out, and only rain waters this planter."));
        if (plant.Water == WaterNeed.Low && _drainage.Verdict == DrainageVerdict.Poor)
            reasons.Add(new("water", FitVerdict.Fails, "It dries out between waterings, and this planter drains poorly."));
        else if ((plant.Bulb is not null || plant.Roots.Medium == RootingMedium.Gritty) && _drainage.Verdict == DrainageVerdict.Poor)
            reasons.Add(new("water", FitVerdict.Fails, "It rots in wet, and this planter drains poorly."));
    }

    private void MediumAndPh(Plant plant, List<FitReason> reasons)
    {
        if (Planter.Survey.Ph is { } ph && (ph < plant.Roots.PhLow || ph > plant.Roots.PhHigh))
        {
            bool far = ph < plant.Roots.PhLow - 0.7 || ph > plant.Roots.PhHigh + 0.7;
            reasons.Add(new("pH", far ? FitVerdict.Fails : FitVerdict.Doubtful, $"It wants pH {plant.Roots.PhLow:0.#}–{plant.Roots.PhHigh:0.#}; measured here {ph:0.#}."));
        }
        else if (plant.Roots.Medium == RootingMedium.Acid && Planter.Survey.Ph is null)
        {
            reasons.Add(new("medium", Planter.Form.IsBed ? FitVerdict.Doubtful : FitVerdict.Fits, Planter.Form.IsBed ? "It wants acid soil; nobody has measured this bed." : "Give it acid medium."));
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
                reasons.Add(new("depth", FitVerdict.Fails, $"Its base lies {depth:0.#} cm deep; this planter leaves {floor:0.#} cm."));
            return;
        }
        double narrow = Math.Min(form.TopLengthCm, form.TopWidthCm);
        if (Planter.Survey.Tree is { } tree && Math.Min(1, tree.RootsIn(Last.Year) * tree.RootsIn(Last.Year) * Math.PI / 4 / form.SurfaceCm2) is > 0.7 and var filled)
            reasons.Add(new("room", FitVerdict.Doubtful, $"Roots of the {tree.Name.ToLowerInvariant()} fill {filled:P0} of the planter by {Last.Year}."));
        double least = plant.Packs.Select(k => k.SpreadCm ?? plant.SpreadAtPurchaseCm).Min();
        if (!form.IsBed && least > narrow)
            reasons.Add(new("room", FitVerdict.Fails, $"It is {least:0} cm wide as bought; the planter is {narrow:0} cm."));
        else if (!form.IsBed && plant.MatureSpreadCm > 2.2 * narrow && plant.IsLasting)
            reasons.Add(new("room", FitVerdict.Doubtful, $"Grown it is {plant.MatureSpreadCm:0} cm wide, more than twice the planter."));
        double want = plant.RootDepthCm;
        double has = BulbStack.MediumDepthCm(Planter, _rules);
        if (has < want - 1)
            reasons.Add(new("depth", plant.IsLasting && has < want * 0.7 ? FitVerdict.Fails : FitVerdict.Doubtful, $"Its roots want about {want:0} cm of depth; here are {has:0} cm."));
    }

    private void Heights(Plant plant, LocalDate install, List<FitReason> reasons)
    {
        if (plant.Habit == Habit.Trailing || plant.HeightCm <= Math.Min(_height.LimitCm, _height.ProportionCm))
            return;
        double reaches = _site.GreatestHeightCm(plant, install, Last.PlusDays(1), _pocketC);
        if (reaches > _height.LimitCm)
            reasons.Add(new("height", FitVerdict.Fails, $"It stands {reaches:0} cm high by then; {_height.LimitedBy} allows {_height.LimitCm:0} cm here."));
        else if (reaches > _height.ProportionCm)
            reasons.Add(new("height", FitVerdict.Doubtful, $"At {reaches:0} cm it is tall for this planter ({_height.ProportionCm:0} cm looks right)."));
    }

    private void Tops(Plant plant, LocalDate from, List<FitReason> reasons)
    {
        // Herbs that rest below ground lose only what is dead anyway.
        bool counts = plant.DiesWithFrost || plant.HasLastingTops;
        if (!counts)
            return;
        double live = _site.ComesThrough(plant, from, Last < from ? from : Last, _pocketC);
        if (live < 0.8)
            reasons.Add(new("cold", live < 0.5 ? FitVerdict.Fails : FitVerdict.Doubtful, $"Its tops are spoiled at {plant.TopDamageC:0.#} °C; they come through until then in {live * 10:0.#} of 10 years."));
    }

    private void Roots(Plant plant, LocalDate install, List<FitReason> reasons)
    {
        bool winters = plant.IsLasting || (plant.LifeForm is LifeForm.Bulb or LifeForm.Biennial or LifeForm.CoolSeasonAnnual && !plant.IsTender && CrossesWinter(install));
        if (!winters || _roots is null)
            return;
        (double kill, bool estimated) = plant.RootKilling;
        double odds = _roots.Odds(kill);
        if (odds < 0.8)
            reasons.Add(new(WinterRoots, odds < 0.5 ? FitVerdict.Fails : FitVerdict.Doubtful, $"Roots die at {(estimated ? "about " : string.Empty)}{kill:0.#} °C; in this planter they live through {odds * 10:0.#} of 10 winters."));
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
            reasons.Add(new("heat", FitVerdict.Doubtful, $"A week's mean above {ceiling:0} °C stalls it: by then in {hot * 10:0.#} of 10 years{(Planter.Survey.MasonryHeatC > 0 ? ", with the heat of the masonry" : string.Empty)}."));
    }

    private void Surroundings(Plant plant, List<FitReason> reasons)
    {
        PlanterSurvey s = Planter.Survey;
        if (s.Wind == WindReach.Exposed && plant.Resistance.Wind == Grade.Low)
            reasons.Add(new("wind", FitVerdict.Doubtful, "It bears little wind, and the planter stands exposed."));
        if ((s.SeaSpray || s.DeicingSalt) && plant.Resistance.Salt == Grade.Low)
            reasons.Add(new("salt", FitVerdict.Doubtful, $"It bears little salt, and {(s.SeaSpray ? "sea spray" : "de-icing salt")} reaches it here."));
        if (s.Deer && plant.Resistance.Deer == Eaten.Often)
            reasons.Add(new("deer", FitVerdict.Doubtful, "Deer eat it often, and come here."));
        if (s.Public == PublicReach.Touching && plant.Harm.Skin != Hazard.NoneKnown)
            reasons.Add(new("people", FitVerdict.Doubtful, "It irritates the skin, and people touch what stands here."));
        bool eaten = (s.Public == PublicReach.Touching && plant.Harm.People == Hazard.Poisonous) || (s.Dogs && plant.Harm.Animals == Hazard.Poisonous);
        if (eaten)
            reasons.Add(new("people", FitVerdict.Doubtful, $"It is poisonous if eaten, and {(s.Dogs && plant.Harm.Animals == Hazard.Poisonous ? "dogs" : "children")} come near. {Harm.WhereToAsk}"));
    }

    private void Colour(Plant plant, LocalDate install, double odds, List<FitReason> reasons)
    {
        if (_site.Years == 0)
            reasons.Add(new("colour", FitVerdict.Doubtful, "The site has no weather yet, so that nobody knows when it shows."));
        else if (install > Last)
            reasons.Add(new("colour", FitVerdict.Fails, $"It cannot go in before {install.ToString("d MMM", null)}."));
        else if (odds < ColourOdds.InColour)
            reasons.Add(new("colour", odds < 0.2 ? FitVerdict.Fails : FitVerdict.Doubtful, odds < 0.005 ? "It shows no colour in those weeks." : $"It shows in only {odds * 10:0.#} of 10 years then."));
    }

    private static string Word(Exposure exposure) => exposure switch
    {
        Exposure.FullSun => "full sun",
        Exposure.PartSun => "part sun",
        _ => "shade",
    };
}

namespace UnrulyMeadow.Core.Palette;

/// <summary>Something in a palette that is hardly possible, or hardly meant.</summary>
/// <param name="PlantId">The plant.</param>
/// <param name="Message">What, and what would be usual.</param>
public sealed record PaletteRemark(string PlantId, string Message);

/// <summary>
/// Looks over a whole palette for figures that cannot go together. Every rule is common practice or plain physics; a
/// remark asks for a second look and refuses nothing.
/// </summary>
public static class PaletteCheck
{
    // Verbena stands most of what is sold as tender (common practice).
    private const double HardiestTenderC = -4;

    /// <summary>Every remark, in the palette's order, then those between plants.</summary>
    public static IReadOnlyList<PaletteRemark> Of(IReadOnlyList<Plant> palette) =>
        [.. palette.SelectMany(p => Single(p).Select(m => new PaletteRemark(p.Id, m))), .. Twins(palette), .. Order(palette)];

    /// <summary>The rules behind the remarks.</summary>
    public static Working Explain(IReadOnlyList<Plant> palette)
    {
        int found = Of(palette).Count;
        return new Working(
            "Palette",
            found == 0 ? "nothing to look at again" : $"{found} to look at again",
            [new("plants", $"{palette.Count}")],
            "Tender and hardy by kind and by figures; roots milder than lasting tops; growth, height and width that go together; bulbs of possible shape, 3 to 30 cm deep at three times their height; early, mid and late of a genus in order; larger packs no dearer each; cautions beside poison; names in the codes' form",
            "Common practice; International Codes of Nomenclature for the form of names",
            []
        );
    }

    private static IEnumerable<string> Single(Plant p)
    {
        if (!BotanicalName.IsWellFormed(p.BotanicalName))
            yield return $"Its botanical name {BotanicalName.Rule}.";
        if (p.LifeForm == LifeForm.TenderAnnual && p.TopDamageC < HardiestTenderC)
            yield return $"It is a tender annual, but its tops stand {p.TopDamageC:0.#} °C; what stands more than {HardiestTenderC:0} °C is a cool-season annual.";
        if (p.LifeForm == LifeForm.CoolSeasonAnnual && p.IsTender)
            yield return $"It is a cool-season annual, but its tops are spoiled at {p.TopDamageC:0.#} °C already.";
        if (p.IsLasting && p.HasLastingTops && p.IsTender)
            yield return $"Its tops should outlast a winter, but they are spoiled at {p.TopDamageC:0.#} °C.";
        if (p.IsLasting && p.HasLastingTops && p.RootKillingC is { } root && root < p.TopDamageC + 2)
            yield return $"Its roots would stand {root:0.#} °C, nearly what its tops stand ({p.TopDamageC:0.#} °C); roots are always milder.";
        if (p.SpreadAtPurchaseCm > p.MatureSpreadCm)
            yield return "It is wider as bought than when grown.";
        if (p.MatureSpreadCm > p.SpreadAtPurchaseCm * 1.05 && p.GrowthPerDegreeDay <= 0)
            yield return "It has room to grow but no growth.";
        if (p.HeightCm > 6 * p.MatureSpreadCm || (p.Habit == Habit.Mounding && p.HeightCm > 2.2 * p.MatureSpreadCm))
            yield return $"It is {p.HeightCm:0} cm high and only {p.MatureSpreadCm:0} cm wide.";
        if (p.Habit == Habit.Trailing && p.HeightCm > p.MatureSpreadCm)
            yield return "It trails, but is higher than wide.";
        foreach (string message in Bulb(p))
            yield return message;
        if (p.Windows.Sum(w => w.Part == ColourPart.Flower ? 0 : 1) == 0 && p.Windows.Count == 0 && p.Green != GreenLeaf.Evergreen)
            yield return "It never shows a colour and is not evergreen.";
        foreach (
            ColourWindow w in p.Windows.Where(w =>
                w.Part == ColourPart.Berry
                && p.Harm.People == Hazard.NoneKnown
                && p.Harm.Animals == Hazard.NoneKnown
                && p.LifeForm == LifeForm.Tree
                && w.Share > 0.6
            )
        )
            yield return $"Berries over {w.Share:P0} of its spread are hardly possible.";
        foreach (
            (Pack small, Pack large) in p
                .Packs.OrderBy(k => k.Size)
                .Zip(p.Packs.OrderBy(k => k.Size).Skip(1))
                .Where(k => k.First.SpreadCm == k.Second.SpreadCm)
        )
        {
            if (large.Price / large.Size > small.Price / small.Size)
                yield return $"Each costs more in a {large.Form} than in a {small.Form}.";
        }
        if (p.Harm.Skin != Hazard.NoneKnown && !p.Cautions.Any(c => c.Contains("glove", StringComparison.OrdinalIgnoreCase)))
            yield return "It harms the skin, but no caution on the day sheet speaks of gloves.";
        if (p.Harm.People == Hazard.Poisonous && p.Cautions.Count == 0)
            yield return "It is poisonous, but no caution stands on the day sheet.";
    }

    private static IEnumerable<string> Bulb(Plant p)
    {
        if (p.Bulb is not { } bulb)
            yield break;
        if (bulb.DiameterCm > 2.5 * bulb.HeightCm || bulb.HeightCm > 2.5 * bulb.DiameterCm)
            yield return $"A bulb {bulb.HeightCm:0.#} cm high and {bulb.DiameterCm:0.#} cm wide is hardly one.";
        double depth = 3 * bulb.HeightCm;
        if (depth is < 3 or > 30)
            yield return $"At three times its height it would lie {depth:0.#} cm deep.";
        if (p.HeightCm < bulb.HeightCm)
            yield return "It is lower in flower than its own bulb.";
        if (bulb.SpacingCm < 1.5 * bulb.DiameterCm)
            yield return $"Bulbs {bulb.DiameterCm:0.#} cm wide hardly stand {bulb.SpacingCm:0.#} cm apart in a bed.";
        foreach (BulbForcing rule in p.Windows.Select(w => w.Rule).OfType<BulbForcing>())
        {
            if (rule.ColdStartWeeks > bulb.ColdWeeksHigh)
                yield return "Its rule wants more cold than the bulb can use.";
        }
        foreach (BulbGrade grade in bulb.Grades.Where(g => g.DiameterCm > 2 * bulb.DiameterCm || g.DiameterCm < 0.4 * bulb.DiameterCm))
            yield return $"Grade {grade.Name} is far from the usual size.";
    }

    // Two entries that differ in nothing a crew could see.
    private static IEnumerable<PaletteRemark> Twins(IReadOnlyList<Plant> palette) =>
        palette
            .GroupBy(p => (p.BotanicalName, p.CommonName))
            .Where(g => g.Count() > 1)
            .SelectMany(g => g.Skip(1).Select(p => new PaletteRemark(p.Id, $"It has the names of {g.First().Id}; give each its colour.")));

    // Early, mid and late of one genus must open in that order.
    private static IEnumerable<PaletteRemark> Order(IReadOnlyList<Plant> palette)
    {
        var bulbs = palette
            .Where(p => Season(p) > 0 && p.Windows.Any(w => w.Rule is BulbForcing))
            .Select(p => (Plant: p, Season: Season(p), Days: p.Windows.Select(w => w.Rule).OfType<BulbForcing>().Min(r => r.DaysInSteadySpring)))
            .ToList();
        foreach (var genus in bulbs.GroupBy(b => BotanicalName.Genus(b.Plant.BotanicalName), StringComparer.Ordinal))
        {
            foreach (var late in genus)
            {
                var wrong = genus.FirstOrDefault(b => b.Season < late.Season && b.Days > late.Days);
                if (wrong.Plant is not null)
                    yield return new PaletteRemark(late.Plant.Id, $"It opens before {wrong.Plant.CommonName}, which is named earlier.");
            }
        }
    }

    private static int Season(Plant p) =>
        p.CommonName.Contains("early", StringComparison.OrdinalIgnoreCase) ? 1
        : p.CommonName.Contains(" mid", StringComparison.OrdinalIgnoreCase) || p.CommonName.Contains(" main", StringComparison.OrdinalIgnoreCase) ? 2
        : p.CommonName.Contains(" late", StringComparison.OrdinalIgnoreCase) ? 3
        : 0;
}

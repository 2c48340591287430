using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Palette;

/// <summary>Something in a palette that is hardly possible, or hardly meant.</summary>
/// <param name="PlantId">The plant.</param>
/// <param name="Says">What, and what would be usual: a <see cref="PaletteDoubt"/>.</param>
public sealed record PaletteRemark(string PlantId, Fact Says);

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
            WorkingKind.PaletteCheck,
            found == 0 ? (object?)WorkingPhrase.NothingLookAgain : new Fact(WorkingPhrase.LookAgain, ("found", found)),
            [new WorkingInput(InputName.Plants, palette.Count)]
        );
    }

    private static IEnumerable<Fact> Single(Plant p)
    {
        if (!BotanicalName.IsWellFormed(p.BotanicalName))
            yield return new Fact(PaletteDoubt.BotanicalNameForm, ("rule", BotanicalName.Rule));
        if (p.LifeForm == LifeForm.TenderAnnual && p.TopDamageC < HardiestTenderC)
            yield return new Fact(
                PaletteDoubt.HardyForATender,
                ("tops", Quantity.Celsius(p.TopDamageC, 1)),
                ("least", Quantity.Celsius(HardiestTenderC))
            );
        if (p.LifeForm == LifeForm.CoolSeasonAnnual && p.IsTender)
            yield return new Fact(PaletteDoubt.TenderForACoolSeason, ("tops", Quantity.Celsius(p.TopDamageC, 1)));
        if (p.IsLasting && p.HasLastingTops && p.IsTender)
            yield return new Fact(PaletteDoubt.TopsDoNotLast, ("tops", Quantity.Celsius(p.TopDamageC, 1)));
        if (p.IsLasting && p.HasLastingTops && p.RootKillingC is { } root && root < p.TopDamageC + 2)
            yield return new Fact(PaletteDoubt.RootsAsHardyAsTops, ("roots", Quantity.Celsius(root, 1)), ("tops", Quantity.Celsius(p.TopDamageC, 1)));
        if (p.SpreadAtPurchaseCm > p.MatureSpreadCm)
            yield return new Fact(PaletteDoubt.WiderAsBought);
        if (p.MatureSpreadCm > p.SpreadAtPurchaseCm * 1.05 && p.GrowthPerDegreeDay <= 0)
            yield return new Fact(PaletteDoubt.NoGrowth);
        if (p.HeightCm > 6 * p.MatureSpreadCm || (p.Habit == Habit.Mounding && p.HeightCm > 2.2 * p.MatureSpreadCm))
            yield return new Fact(PaletteDoubt.TooHighForItsWidth, ("height", Quantity.Cm(p.HeightCm)), ("width", Quantity.Cm(p.MatureSpreadCm)));
        if (p.Habit == Habit.Trailing && p.HeightCm > p.MatureSpreadCm)
            yield return new Fact(PaletteDoubt.TrailsUpward);
        foreach (Fact doubt in Bulb(p))
            yield return doubt;
        if (p.Windows.Sum(w => w.Part == ColourPart.Flower ? 0 : 1) == 0 && p.Windows.Count == 0 && p.Green != GreenLeaf.Evergreen)
            yield return new Fact(PaletteDoubt.NeverShows);
        foreach (
            ColourWindow w in p.Windows.Where(w =>
                w.Part == ColourPart.Berry
                && p.Harm.People == Hazard.NoneKnown
                && p.Harm.Animals == Hazard.NoneKnown
                && p.LifeForm == LifeForm.Tree
                && w.Share > 0.6
            )
        )
            yield return new Fact(PaletteDoubt.TooManyBerries, ("share", Quantity.Share(w.Share)));
        foreach (
            (Pack small, Pack large) in p
                .Packs.OrderBy(k => k.Size)
                .Zip(p.Packs.OrderBy(k => k.Size).Skip(1))
                .Where(k => k.First.SpreadCm == k.Second.SpreadCm)
        )
        {
            if (large.Price / large.Size > small.Price / small.Size)
                yield return new Fact(PaletteDoubt.LargerPackDearer, ("large", large.Form), ("small", small.Form));
        }
        if (p.Harm.Skin != Hazard.NoneKnown && !p.Cautions.Any(c => c.Contains("glove", StringComparison.OrdinalIgnoreCase)))
            yield return new Fact(PaletteDoubt.NoWordOfGloves);
        if (p.Harm.People == Hazard.Poisonous && p.Cautions.Count == 0)
            yield return new Fact(PaletteDoubt.NoCautionOfPoison);
    }

    private static IEnumerable<Fact> Bulb(Plant p)
    {
        if (p.Bulb is not { } bulb)
            yield break;
        if (bulb.DiameterCm > 2.5 * bulb.HeightCm || bulb.HeightCm > 2.5 * bulb.DiameterCm)
            yield return new Fact(PaletteDoubt.BulbShape, ("height", Quantity.Cm(bulb.HeightCm, 1)), ("width", Quantity.Cm(bulb.DiameterCm, 1)));
        double depth = 3 * bulb.HeightCm;
        if (depth is < 3 or > 30)
            yield return new Fact(PaletteDoubt.BulbDepth, ("depth", Quantity.Cm(depth, 1)));
        if (p.HeightCm < bulb.HeightCm)
            yield return new Fact(PaletteDoubt.LowerThanItsBulb);
        if (bulb.SpacingCm < 1.5 * bulb.DiameterCm)
            yield return new Fact(PaletteDoubt.BulbsTooClose, ("width", Quantity.Cm(bulb.DiameterCm, 1)), ("apart", Quantity.Cm(bulb.SpacingCm, 1)));
        foreach (BulbForcing rule in p.Windows.Select(w => w.Rule).OfType<BulbForcing>())
        {
            if (rule.ColdStartWeeks > bulb.ColdWeeksHigh)
                yield return new Fact(PaletteDoubt.MoreColdThanUsed);
        }
        foreach (BulbGrade grade in bulb.Grades.Where(g => g.DiameterCm > 2 * bulb.DiameterCm || g.DiameterCm < 0.4 * bulb.DiameterCm))
            yield return new Fact(PaletteDoubt.GradeFarFromUsual, ("grade", grade.Name));
    }

    // Two entries that differ in nothing a crew could see.
    private static IEnumerable<PaletteRemark> Twins(IReadOnlyList<Plant> palette) =>
        palette
            .GroupBy(p => (p.BotanicalName, p.CommonName))
            .Where(g => g.Count() > 1)
            .SelectMany(g => g.Skip(1).Select(p => new PaletteRemark(p.Id, new Fact(PaletteDoubt.NamesOfAnother, ("other", g.First().Id)))));

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
                    yield return new PaletteRemark(late.Plant.Id, new Fact(PaletteDoubt.OpensOutOfOrder, ("other", wrong.Plant)));
            }
        }
    }

    private static int Season(Plant p) =>
        p.CommonName.Contains("early", StringComparison.OrdinalIgnoreCase) ? 1
        : p.CommonName.Contains(" mid", StringComparison.OrdinalIgnoreCase) || p.CommonName.Contains(" main", StringComparison.OrdinalIgnoreCase) ? 2
        : p.CommonName.Contains(" late", StringComparison.OrdinalIgnoreCase) ? 3
        : 0;
}

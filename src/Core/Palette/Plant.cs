using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Palette;

/// <summary>What a plant is to the crew: how it is bought, kept and lost.</summary>
public enum LifeForm
{
    /// <summary>A true bulb, corm or tuber planted dormant.</summary>
    Bulb,

    /// <summary>An annual, or grown as one, that stands real frost.</summary>
    CoolSeasonAnnual,

    /// <summary>An annual, or grown as one, that frost kills.</summary>
    TenderAnnual,

    /// <summary>Lives two years.</summary>
    Biennial,

    /// <summary>A hardy herbaceous perennial.</summary>
    Perennial,

    /// <summary>An ornamental grass or sedge.</summary>
    Grass,

    /// <summary>A shrub.</summary>
    Shrub,

    /// <summary>A tree.</summary>
    Tree,

    /// <summary>Cut stems, boughs or seed heads, stood in a pot without roots.</summary>
    CutStems,
}

/// <summary>The way a plant stands.</summary>
public enum Habit
{
    /// <summary>Taller than wide.</summary>
    Upright,

    /// <summary>A rounded mound.</summary>
    Mounding,

    /// <summary>Hangs over the edge.</summary>
    Trailing,
}

/// <summary>How much water a plant wants while in growth.</summary>
public enum WaterNeed
{
    /// <summary>Dries out between waterings.</summary>
    Low,

    /// <summary>Even moisture.</summary>
    Medium,

    /// <summary>Never dry.</summary>
    High,
}

/// <summary>When a plant shows plain green leaf.</summary>
public enum GreenLeaf
{
    /// <summary>From leaf-out to leaf drop, or as long as an annual lives.</summary>
    InSeason,

    /// <summary>All year.</summary>
    Evergreen,

    /// <summary>From some weeks before its flower to some weeks after: bulbs.</summary>
    AroundFlower,
}

/// <summary>How a plant is sold.</summary>
/// <param name="Form">What one pack is, e.g. "6-pack" or "bag of 50".</param>
/// <param name="Size">Plants or bulbs in it, 1 to 1,000.</param>
/// <param name="Price">Guide price of one pack in the site's money.</param>
/// <param name="SpreadCm">Width of one plant in this form, cm; null for the plant's usual width as bought.</param>
public sealed record Pack(string Form, int Size, decimal Price, double? SpreadCm = null);

/// <summary>A bulb's own figures.</summary>
/// <param name="HeightCm">Base to tip, cm.</param>
/// <param name="DiameterCm">At its widest, cm.</param>
/// <param name="SpacingCm">Centre to centre in a bed, cm.</param>
/// <param name="ColdWeeksLow">Fewest weeks of cold for good flowers.</param>
/// <param name="ColdWeeksHigh">Weeks of cold after which more does nothing.</param>
public sealed record BulbFigures(double HeightCm, double DiameterCm, double SpacingCm, double ColdWeeksLow, double ColdWeeksHigh)
{
    /// <summary>Grades other than the usual one; may be empty.</summary>
    public IReadOnlyList<BulbGrade> Grades { get; init; } = [];
}

/// <summary>One plant of the palette, by species, group or division and colour.</summary>
public sealed record Plant : ISubject
{
    /// <summary>Short name for files and addresses: lower-case letters, digits and hyphens.</summary>
    public required string Id { get; init; }

    /// <summary>Species, group or division.</summary>
    public required string BotanicalName { get; init; }

    /// <summary>Name on the day sheet, with the colour.</summary>
    public required string CommonName { get; init; }

    string ISubject.Name => CommonName;

    /// <summary>What it is to the crew.</summary>
    public required LifeForm LifeForm { get; init; }

    /// <summary>The way it stands.</summary>
    public required Habit Habit { get; init; }

    /// <summary>Height in flower or at maturity in a container, cm.</summary>
    public required double HeightCm { get; init; }

    /// <summary>Width as bought, cm.</summary>
    public required double SpreadAtPurchaseCm { get; init; }

    /// <summary>Width when grown, cm; not below the width as bought.</summary>
    public required double MatureSpreadCm { get; init; }

    /// <summary>Logistic growth of the width per degree-day above <see cref="GrowthBaseC"/>; 0 for what does not grow on.</summary>
    public double GrowthPerDegreeDay { get; init; }

    /// <summary>Below this it does not grow, °C.</summary>
    public double GrowthBaseC { get; init; } = 10;

    /// <summary>Least light it stands.</summary>
    public required Exposure LightLow { get; init; }

    /// <summary>Most light it stands.</summary>
    public required Exposure LightHigh { get; init; }

    /// <summary>Water it wants.</summary>
    public required WaterNeed Water { get; init; }

    /// <summary>At or below this air temperature its tops are spoiled, °C.</summary>
    public required double TopDamageC { get; init; }

    /// <summary>At or below this temperature its roots die, °C; null where nobody knows, and then it is estimated from the tops.</summary>
    public double? RootKillingC { get; init; }

    /// <summary>Botanical family.</summary>
    public string Family { get; init; } = string.Empty;

    /// <summary>Texture of leaf and branch.</summary>
    public Texture Texture { get; init; } = Texture.Medium;

    /// <summary>How hard it pushes its neighbours.</summary>
    public Vigour Vigour { get; init; } = Vigour.Moderate;

    /// <summary>What its roots want.</summary>
    public RootNeeds Roots { get; init; } = new();

    /// <summary>What it bears, and what eats it.</summary>
    public Resistance Resistance { get; init; } = new();

    /// <summary>What it asks of the crew.</summary>
    public Tending Tending { get; init; } = new();

    /// <summary>Harm to people and animals.</summary>
    public Harm Harm { get; init; } = new();

    /// <summary>Worth to pollinators.</summary>
    public Grade Pollinators { get; init; } = Grade.Low;

    /// <summary>
    /// Share of its first show that is to be expected in its second, third and later years, 0 to 1.5; empty for what stands one season.
    /// </summary>
    public IReadOnlyList<double> ReturnByYear { get; init; } = [];

    /// <summary>Months in which growers sell it fit to plant, 1 to 12 as in the north; empty for all year. Six months on in the south.</summary>
    public IReadOnlyList<int> SoldMonths { get; init; } = [];

    /// <summary>True when it is to be had on a day, bought fresh.</summary>
    public bool IsSoldOn(NodaTime.LocalDate day, bool southern) =>
        SoldMonths.Count == 0 || SoldMonths.Contains(southern ? ((day.Month + 5) % 12) + 1 : day.Month);

    /// <summary>A remark on invasive or protected status; the local list decides.</summary>
    public string LocalStatus { get; init; } = string.Empty;

    /// <summary>True when it is no longer planned with; what stands of it stays.</summary>
    public bool IsRetired { get; init; }

    /// <summary>True when it stands on the crew's shortlist: what it likes to plan with is offered first.</summary>
    public bool IsShortlisted { get; init; }

    /// <summary>When it shows green leaf.</summary>
    public required GreenLeaf Green { get; init; }

    /// <summary>When and in what colours it shows.</summary>
    public required IReadOnlyList<ColourWindow> Windows { get; init; }

    /// <summary>Present on bulbs only.</summary>
    public BulbFigures? Bulb { get; init; }

    /// <summary>How it is sold, at least one pack.</summary>
    public required IReadOnlyList<Pack> Packs { get; init; }

    /// <summary>What the day sheet warns of.</summary>
    public IReadOnlyList<string> Cautions { get; init; } = [];

    /// <summary>Where its figures come from.</summary>
    public required string Source { get; init; }

    /// <summary>
    /// True for what goes out at the frost all-clear: tender annuals, and whatever a light frost spoils (tops damaged above −1 °C).
    /// </summary>
    public bool IsTender => LifeForm == LifeForm.TenderAnnual || TopDamageC > -1;

    /// <summary>
    /// True for what is set out as a growing plant: all but hardy bulbs. Tender tubers are started under cover and go out like bedding.
    /// </summary>
    public bool GoesOutInLeaf => Bulb is null || IsTender;

    /// <summary>True for what is raised under glass and sold in leaf.</summary>
    public bool IsRaisedWarm => GoesOutInLeaf && LifeForm is LifeForm.TenderAnnual or LifeForm.CoolSeasonAnnual or LifeForm.Bulb;

    /// <summary>True for what a killing frost ends for good rather than for the season.</summary>
    public bool DiesWithFrost =>
        LifeForm is LifeForm.CoolSeasonAnnual or LifeForm.TenderAnnual or LifeForm.Biennial || (LifeForm == LifeForm.Bulb && IsTender);

    /// <summary>True where tops outlast a winter: wood, and evergreen leaf.</summary>
    public bool HasLastingTops => LifeForm is LifeForm.Shrub or LifeForm.Tree || Green == GreenLeaf.Evergreen;

    /// <summary>True for what stands for years.</summary>
    public bool IsLasting => LifeForm is LifeForm.Perennial or LifeForm.Grass or LifeForm.Shrub or LifeForm.Tree;

    /// <summary>Root-killing temperature, °C: the one given, or the estimate from the tops; and whether it is estimated.</summary>
    public (double Celsius, bool Estimated) RootKilling =>
        RootKillingC is { } known ? (known, false) : (Ground.RootSurvival.EstimateRootKillingC(TopDamageC), true);

    /// <summary>The colour by which lists know it: the first of its first window.</summary>
    public string LeadColour => Windows.Count > 0 ? Windows[0].Colours[0] : "#6b8f4e";

    /// <summary>True when a planter's sun is within what it wants.</summary>
    public bool Suits(Exposure exposure) => exposure >= LightLow && exposure <= LightHigh;

    /// <summary>
    /// Depth that its roots want in a container, cm: a third of its height, at most 45 for what lasts and 15 for bedding (common practice).
    /// </summary>
    public double RootDepthCm => Math.Min(IsLasting ? 45 : 15, HeightCm / 3);

    /// <summary>Width after heat since planting: logistic from the width as bought to the grown width, cm.</summary>
    /// <param name="heatCd">Degree-days above <see cref="GrowthBaseC"/> since planting, °C·d.</param>
    public double SpreadCm(double heatCd) =>
        Grows ? MatureSpreadCm / (1 + (((MatureSpreadCm / SpreadAtPurchaseCm) - 1) * Math.Exp(-GrowthPerDegreeDay * heatCd))) : SpreadAtPurchaseCm;

    /// <summary>True for what is wider when grown than as it is bought.</summary>
    public bool Grows => GrowthPerDegreeDay > 0 && MatureSpreadCm > SpreadAtPurchaseCm;

    /// <summary>Every fault of the plant's own figures.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Text("id", Id, 60);
        if (!string.IsNullOrEmpty(Id) && !Ids.IsValid(Id))
            faults.Add("id", Ids.Rule);
        faults.Text("botanicalName", BotanicalName, 80);
        faults.Text("commonName", CommonName, 60);
        faults.Text("source", Source, 200);
        faults.Range("heightCm", HeightCm, 1, 2000, "cm");
        faults.Range("spreadAtPurchaseCm", SpreadAtPurchaseCm, 0.5, 500, "cm");
        faults.Range("matureSpreadCm", MatureSpreadCm, SpreadAtPurchaseCm, 1000, "cm");
        faults.Range("growthPerDegreeDay", GrowthPerDegreeDay, 0, 0.1, "per °C·d");
        faults.Range("growthBaseC", GrowthBaseC, -5, 20, "°C");
        faults.Range("topDamageC", TopDamageC, -60, 15, "°C");
        // Herbs lose their tops to a light frost and live on; wood and evergreen leaf stand more than their roots do.
        if (RootKillingC is { } root)
            faults.Range(
                "rootKillingC",
                root,
                HasLastingTops ? Math.Max(-40, TopDamageC) : -40,
                15,
                HasLastingTops ? "°C, never colder than the tops stand" : "°C"
            );
        AddTraitFaults(faults);
        if (LightLow > LightHigh)
            faults.Add("lightLow", "must not be more light than lightHigh");
        if (Bulb is { } bulb)
        {
            faults.Range("bulb.heightCm", bulb.HeightCm, 0.5, 20, "cm");
            faults.Range("bulb.diameterCm", bulb.DiameterCm, 0.5, 20, "cm");
            faults.Range("bulb.spacingCm", bulb.SpacingCm, bulb.DiameterCm, 100, "cm");
            faults.Range("bulb.coldWeeksLow", bulb.ColdWeeksLow, 0, 30, "weeks");
            faults.Range("bulb.coldWeeksHigh", bulb.ColdWeeksHigh, bulb.ColdWeeksLow, 40, "weeks");
        }
        if ((LifeForm == LifeForm.Bulb) != (Bulb is not null))
            faults.Add("bulb", "must be given for a bulb, and only for a bulb");
        if (Packs is not { Count: > 0 })
            faults.Add("packs", "must hold at least one pack");
        for (int i = 0; i < (Packs?.Count ?? 0); i++)
        {
            faults.Text($"packs[{i}].form", Packs![i].Form, 40);
            faults.Range($"packs[{i}].size", Packs[i].Size, 1, 1000, "plants");
            faults.Range($"packs[{i}].price", (double)Packs[i].Price, 0, 100_000, string.Empty);
            if (Packs[i].SpreadCm is { } spread)
                faults.Range($"packs[{i}].spreadCm", spread, 0.5, 500, "cm");
        }
        for (int i = 0; i < (Windows?.Count ?? 0); i++)
            faults.AddAll($"windows[{i}]", Windows![i].Faults());
        return faults.Faults;
    }

    private void AddTraitFaults(FaultList faults)
    {
        faults.Phrase("family", Family, 40);
        faults.Phrase("localStatus", LocalStatus, 200);
        faults.Phrase("resistance.pests", Resistance.Pests, 500);
        faults.Phrase("tending.cutting", Tending.Cutting, 500);
        faults.Phrase("tending.hiddenBy", Tending.HiddenBy, 500);
        faults.Phrase("tending.partner", Tending.Partner, 500);
        if (Cautions.Count > 20)
            faults.Add("cautions", "must be at most 20 cautions");
        for (int i = 0; i < Cautions.Count; i++)
            faults.Text($"cautions[{i}]", Cautions[i], 300);
        faults.Range("roots.phLow", Roots.PhLow, 3, 10, "pH");
        faults.Range("roots.phHigh", Roots.PhHigh, Roots.PhLow, 10, "pH");
        if (Roots.HeatCeilingC is { } ceiling)
            faults.Range("roots.heatCeilingC", ceiling, 5, 45, "°C");
        faults.Range("tending.cutLeaves", Tending.CutLeaves, 0.05, 1, string.Empty);
        if (Tending.FlushAfterDays is { } after)
            faults.Range("tending.flushAfterDays", after, 1, 200, "days");
        if (Tending.FlushDays is { } flush)
            faults.Range("tending.flushDays", flush, 1, 300, "days");
        if ((Tending.FlushAfterDays is null) != (Tending.FlushDays is null))
            faults.Add("tending.flushDays", "must be given together with the days from the cut");
        if (ReturnByYear.Count > 10)
            faults.Add("returnByYear", "must hold at most 10 years");
        for (int i = 0; i < ReturnByYear.Count; i++)
            faults.Range($"returnByYear[{i}]", ReturnByYear[i], 0, 3, string.Empty);
        if (SoldMonths.Any(m => m is < 1 or > 12) || SoldMonths.Distinct().Count() != SoldMonths.Count)
            faults.Add("soldMonths", "must be months from 1 to 12, each once");
        for (int i = 0; i < (Bulb?.Grades.Count ?? 0); i++)
        {
            faults.Text($"bulb.grades[{i}].name", Bulb!.Grades[i].Name, 30);
            faults.Range($"bulb.grades[{i}].heightCm", Bulb.Grades[i].HeightCm, 0.5, 20, "cm");
            faults.Range($"bulb.grades[{i}].diameterCm", Bulb.Grades[i].DiameterCm, 0.5, 25, "cm");
        }
    }
}

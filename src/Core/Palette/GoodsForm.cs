using System.Runtime.CompilerServices;

namespace UnrulyMeadow.Core.Palette;

/// <summary>The sort of goods in which a plant is bought.</summary>
public enum GoodsSort
{
    /// <summary>Plugs, to be grown on before they are planted out.</summary>
    Plugs,

    /// <summary>Cells of a pack or flat, in bud or flower.</summary>
    Packs,

    /// <summary>A pot or container of its own.</summary>
    Pot,

    /// <summary>Dry bulbs or tubers.</summary>
    Bulbs,

    /// <summary>Cut stems and branches.</summary>
    Stems,
}

/// <summary>A form in which a plant is bought: packs of one sort that hold plants of one width.</summary>
/// <param name="Name">As displays and orders name it: "packs", "plugs", "10 cm pot".</param>
/// <param name="Sort">The sort of goods.</param>
/// <param name="Packs">Packs that hold it.</param>
/// <param name="SpreadCm">Width of one plant as bought, cm.</param>
public sealed record GoodsForm(string Name, GoodsSort Sort, IReadOnlyList<Pack> Packs, double SpreadCm)
{
    private static readonly string[] PotWords = ["pot", "gallon", "container"];

    // What a plant is as bought in each of its forms; kept while the plant itself is.
    private static readonly ConditionalWeakTable<Plant, FormsOfPlant> Known = [];

    /// <summary>Weeks that plugs are grown on in the holding area before they may be planted out (common practice: four to seven).</summary>
    public const int PlugGrowOnWeeks = 5;

    /// <summary>Weeks that it is grown on in the holding area before it may be planted out.</summary>
    public int GrowOnWeeks => Sort == GoodsSort.Plugs ? PlugGrowOnWeeks : 0;

    /// <summary>True when a pack called so holds plugs.</summary>
    public static bool IsPlugs(string form) => form.Contains("plug", StringComparison.OrdinalIgnoreCase);

    /// <summary>Weeks after which it is root-bound if it is not planted (common practice); null for what has no roots to bind.</summary>
    public int? RootBoundWeeks =>
        Sort switch
        {
            GoodsSort.Plugs => 3,
            GoodsSort.Packs => 4,
            GoodsSort.Pot => SpreadCm < 20 ? 8 : 26,
            _ => null,
        };

    /// <summary>Every form in which a plant is sold, those that can be planted at once first.</summary>
    public static IReadOnlyList<GoodsForm> Of(Plant plant) => All(plant).Forms;

    /// <summary>
    /// The form bought where nobody has chosen one: packs in bud, a pot where there are none or the house buys in full colour; plugs
    /// only where nothing else is sold, for somebody has to grow them on (common practice).
    /// </summary>
    public static GoodsForm Usual(Plant plant, bool inColour = false) =>
        inColour && Of(plant).FirstOrDefault(f => f.Sort == GoodsSort.Pot) is { } pot ? pot : Of(plant)[0];

    /// <summary>The form of a name, or the usual one where the plant is not sold in it.</summary>
    public static GoodsForm Chosen(Plant plant, string? name, bool inColour = false) => Find(plant, name) ?? Usual(plant, inColour);

    /// <summary>The form of a name; null where the plant is not sold in it, or no name is given.</summary>
    public static GoodsForm? Find(Plant plant, string? name) => name is null ? null : Of(plant).FirstOrDefault(f => f.Name == name);

    /// <summary>
    /// A plant as it comes in a form: of that width, and sold in that form's packs alone. Always the same object for the same plant and form.
    /// </summary>
    public static Plant AsBought(Plant plant, GoodsForm form)
    {
        FormsOfPlant all = All(plant);
        int at = 0;
        while (!ReferenceEquals(all.Forms[at], form) && all.Forms[at].Name != form.Name)
            at++;
        return all.AsBought[at];
    }

    private static FormsOfPlant All(Plant plant) => Known.GetValue(plant, Make);

    private static FormsOfPlant Make(Plant plant)
    {
        List<GoodsForm> forms =
        [
            .. plant
                .Packs.GroupBy(p => (Sort: SortOf(plant, p), Width: p.SpreadCm ?? plant.SpreadAtPurchaseCm, Name: NameOf(plant, p)))
                .Select(g => new GoodsForm(g.Key.Name, g.Key.Sort, [.. g], g.Key.Width))
                .OrderBy(f => f.Sort == GoodsSort.Plugs)
                .ThenByDescending(f => f.Sort == GoodsSort.Packs),
        ];
        var alike = forms.CountBy(f => f.Name, StringComparer.Ordinal).Where(n => n.Value > 1).Select(n => n.Key).ToHashSet(StringComparer.Ordinal);
        GoodsForm[] named =
        [
            .. forms.Select(f => alike.Contains(f.Name) ? f with { Name = FormattableString.Invariant($"{f.Name}, {f.SpreadCm:0.#} cm") } : f),
        ];
        return new FormsOfPlant(named, [.. named.Select(f => Variant(plant, f))]);
    }

    private static Plant Variant(Plant plant, GoodsForm form)
    {
        double wide = Math.Min(form.SpreadCm, plant.MatureSpreadCm);
        Plant bought =
            form.Packs.Count == plant.Packs.Count && wide == plant.SpreadAtPurchaseCm
                ? plant
                : plant with
                {
                    Packs = form.Packs,
                    SpreadAtPurchaseCm = wide,
                };
        if (!ReferenceEquals(bought, plant))
            Known.Add(bought, new FormsOfPlant([form], [bought]));
        return bought;
    }

    private sealed record FormsOfPlant(GoodsForm[] Forms, Plant[] AsBought);

    /// <summary>The sort of goods in which a plant comes in a pack called so.</summary>
    /// <param name="plant">The plant.</param>
    /// <param name="form">What the pack is called.</param>
    /// <param name="size">Plants in it.</param>
    public static GoodsSort SortOf(Plant plant, string form, int size) => SortOf(plant, new Pack(form, size, 0));

    private static GoodsSort SortOf(Plant plant, Pack pack) =>
        IsPlugs(pack.Form) ? GoodsSort.Plugs
        : plant.LifeForm == LifeForm.CutStems ? GoodsSort.Stems
        : IsPot(pack.Form) ? GoodsSort.Pot
        : plant.Bulb is not null ? GoodsSort.Bulbs
        : pack.Size > 1 ? GoodsSort.Packs
        : GoodsSort.Pot;

    private static string NameOf(Plant plant, Pack pack) =>
        SortOf(plant, pack) switch
        {
            GoodsSort.Plugs => "plugs",
            GoodsSort.Packs => "packs",
            GoodsSort.Bulbs => "bulbs",
            GoodsSort.Stems => "stems",
            _ => pack.Form,
        };

    /// <summary>True when what is called so is a pot or container of its own.</summary>
    public static bool IsPot(string form) => PotWords.Any(w => form.Contains(w, StringComparison.OrdinalIgnoreCase));
}

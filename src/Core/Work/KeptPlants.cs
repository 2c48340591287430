using System.Globalization;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Core.Work;

/// <summary>What comes out to be used again, as it arrives in the stock.</summary>
public static class KeptPlants
{
    // Days around a changeover within which a crew writes down what it kept.
    private const int WrittenWithinDays = 14;

    private const string Mark = "kept-on-";

    /// <summary>
    /// The lots that a changeover brings: what is kept is potted up or, bulbs in leaf, heeled in; what is lifted is stored; what goes into
    /// a bed waits for it heeled in. Compost and saved seed bring none. Asked for again they have the same ids.
    /// </summary>
    public static IReadOnlyList<Lot> Of(Changeover change) => From(change, PlantFate.Keep, PlantFate.Store, PlantFate.ToBed);

    private static IReadOnlyList<Lot> From(Changeover change, params PlantFate[] fates) =>
        [
            .. change
                .Out.Where(i => i.Item.Fate is { } fate && fates.Contains(fate))
                .GroupBy(i => (i.Plant.Id, i.Item.Fate))
                .Select(g => new Lot(
                    IdOf(change, g.Key.Id, g.Key.Fate),
                    g.Key.Id,
                    g.Sum(i => i.Count),
                    g.Key.Fate switch
                    {
                        PlantFate.Store => LotState.Stored,
                        PlantFate.ToBed => LotState.HeeledIn,
                        _ => g.First().DepthCm is null ? LotState.Kept : LotState.HeeledIn,
                    },
                    g.Key.Fate == PlantFate.Store ? "dry store" : "holding area",
                    change.Day,
                    LotCondition.Good,
                    change.Planter.Id,
                    g.Key.Fate == PlantFate.ToBed ? "for a bed" : string.Empty
                )),
        ];

    /// <summary>
    /// What of it the stock does not hold yet. A lot of the kind that somebody wrote down by hand within a fortnight is taken for the same plants.
    /// </summary>
    public static IReadOnlyList<Lot> Missing(Changeover change, IReadOnlyList<Lot> stock) => NotIn(stock, change, Of(change));

    /// <summary>Of what the stock does not hold yet, that which may be planted anywhere again.</summary>
    public static IReadOnlyList<Lot> ToPlantAgain(Changeover change, IReadOnlyList<Lot> stock) =>
        NotIn(stock, change, From(change, PlantFate.Keep, PlantFate.Store));

    private static IReadOnlyList<Lot> NotIn(IReadOnlyList<Lot> stock, Changeover change, IReadOnlyList<Lot> kept) =>
        [
            .. kept.Where(k =>
                !stock.Any(l =>
                    l.Id == k.Id
                    || (
                        l.PlantId == k.PlantId
                        && !l.Id.StartsWith(Mark, StringComparison.Ordinal)
                        && Math.Abs(NodaTime.Period.DaysBetween(l.Since, change.Day)) <= WrittenWithinDays
                    )
                )
            ),
        ];

    private static string IdOf(Changeover change, string plantId, PlantFate? fate)
    {
        string what = string.Create(CultureInfo.InvariantCulture, $"{change.Planter.Id}\n{plantId}\n{fate}");
        return string.Create(CultureInfo.InvariantCulture, $"{Mark}{change.Day:uuuuMMdd}-{Ids.Fingerprint(what, 12)}");
    }
}

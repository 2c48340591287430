using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Arranging;

/// <summary>Where each plant of a display stands.</summary>
/// <param name="Planter">The planter.</param>
/// <param name="Plants">Plants at their places, kind by kind.</param>
/// <param name="ByHand">True when a person laid out at least one kind.</param>
public sealed record Arrangement(Planter Planter, IReadOnlyList<PlacedPlant> Plants, bool ByHand)
{
    // What is at least this share of the tallest makes height, and what is less than the lower share stands at the edge (common practice).
    private const double HeightShare = 0.7;
    private const double EdgeShare = 0.4;

    private const int MostCompared = 800;

    /// <summary>The arrangement of a display that is no bulb stack: as laid out by hand, and the rest by rule.</summary>
    public static Arrangement Of(Plan plan, Planter planter, Display display) =>
        Of(planter, [.. display.Items.Select(i => (plan.AsBought(planter, i), i))]);

    /// <summary>The arrangement of some kinds with their counts and, where laid out by hand, places.</summary>
    public static Arrangement Of(Planter planter, IReadOnlyList<(Plant Plant, DisplayItem Item)> kinds)
    {
        IReadOnlyList<IReadOnlyList<PlanePoint>> places = kinds.All(k => k.Item.Places is not null)
            ? [.. kinds.Select(k => k.Item.Places!)]
            : Layout.LayOut(planter, [.. kinds.Select(k => (k.Plant, k.Item.Count))]);
        return new Arrangement(
            planter,
            [.. kinds.SelectMany((k, i) => (k.Item.Places ?? places[i]).Select(p => new PlacedPlant(i, k.Plant, p)))],
            kinds.Any(k => k.Item.Places is not null)
        );
    }

    /// <summary>What a plant does among the others.</summary>
    public ArrangementRole RoleOf(Plant plant)
    {
        if (plant.Habit == Habit.Trailing)
            return ArrangementRole.Rim;
        double tallest = Plants.Where(p => p.Plant.Habit != Habit.Trailing).Select(p => p.Plant.HeightCm).DefaultIfEmpty(plant.HeightCm).Max();
        return plant.HeightCm >= HeightShare * tallest ? ArrangementRole.Height
            : plant.HeightCm >= EdgeShare * tallest ? ArrangementRole.Middle
            : ArrangementRole.Edge;
    }

    /// <summary>Pairs of kinds that stand beside each other, by the smaller index first.</summary>
    /// <param name="stature">Width of a plant of each kind.</param>
    public IReadOnlySet<(int One, int Other)> Neighbours(Func<PlacedPlant, double> stature)
    {
        var pairs = new HashSet<(int, int)>();
        // In large plantings the middle shows who stands beside whom.
        IReadOnlyList<PlacedPlant> plants =
            Plants.Count <= MostCompared ? Plants : [.. Plants.OrderBy(p => (p.At.XCm * p.At.XCm) + (p.At.YCm * p.At.YCm)).Take(MostCompared)];
        for (int i = 0; i < plants.Count; i++)
        {
            for (int k = i + 1; k < plants.Count; k++)
            {
                if (plants[i].Item != plants[k].Item && plants[i].At.DistanceTo(plants[k].At) < 1.35 * (stature(plants[i]) + stature(plants[k])) / 2)
                    pairs.Add((Math.Min(plants[i].Item, plants[k].Item), Math.Max(plants[i].Item, plants[k].Item)));
            }
        }
        return pairs;
    }

    /// <summary>The places of each kind, as a display keeps them; rounded to a millimetre.</summary>
    public IReadOnlyList<IReadOnlyList<PlanePoint>> Places(int kinds) =>
        [
            .. Enumerable
                .Range(0, kinds)
                .Select(i =>
                    (IReadOnlyList<PlanePoint>)
                        [.. Plants.Where(p => p.Item == i).Select(p => new PlanePoint(Math.Round(p.At.XCm, 1), Math.Round(p.At.YCm, 1)))]
                ),
        ];

    /// <summary>How the layout came about.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.Arrangement,
            ByHand ? (object?)WorkingPhrase.LaidOutHand : WorkingPhrase.LaidOutRule,
            [
                new WorkingInput(
                    InputName.SeenFrom,
                    Planter.ViewedFrom == ViewedFrom.AllRound ? (object?)WorkingPhrase.AllRound : WorkingPhrase.OneSide
                ),
                .. Plants
                    .GroupBy(p => p.Item)
                    .Select(g => new WorkingInput(
                        g.First().Plant,
                        new Fact(
                            WorkingPhrase.ArrangementHigh,
                            ("number", g.Count()),
                            ("height", Quantity.Cm(g.First().Plant.HeightCm)),
                            ("plant", Word(RoleOf(g.First().Plant)))
                        )
                    )),
            ]
        )
        {
            Parts =
            [
                ("planter", Planter),
                (
                    "rule",
                    Planter.ViewedFrom == ViewedFrom.AllRound
                        ? (object?)WorkingPhrase.TallestInCentreThenDownEdge
                        : WorkingPhrase.TallestBackThenDownFrontTrailing
                ),
            ],
        };

    private static string Word(ArrangementRole role) =>
        role switch
        {
            ArrangementRole.Height => "for height",
            ArrangementRole.Middle => "in between",
            ArrangementRole.Edge => "toward the edge",
            _ => "over the rim",
        };
}

using NodaTime;
using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Stacks;
using static UnrulyMeadow.Core.Facts.Quantity;

namespace UnrulyMeadow.Core.Checks;

/// <summary>Bulb stacks: what does not fit, what hides what, dying leaves in the open, and pairs that miss each other.</summary>
internal static class StackChecks
{
    /// <summary>Bulbs of a genus that the planter rests from after a disease in its soil (common practice: three years for tulip fire).</summary>
    public static IEnumerable<Remark> Rest(CheckedDisplay at, Plant plant)
    {
        if (!at.Planter.Survey.RestsFrom(plant, at.Display.Install))
            yield break;
        string until = at.Planter.Survey.RestsUntil is { } day ? CheckedDisplay.Day(day) : "nobody has said when";
        yield return at.Say(
            Gravity.Loses,
            RemarkKind.SoilRests,
            [("plant", plant), ("planter", at.Planter), ("genus", at.Planter.Survey.RestsFromGenus), ("until", at.Planter.Survey.RestsUntil)],
            new Working(
                WorkingKind.RestAfterDisease,
                until,
                [new WorkingInput(InputName.Genus, at.Planter.Survey.RestsFromGenus), new WorkingInput(InputName.GoesIn, at.Display.Install)]
            ),
            [at.Swap(plant, p => !at.Planter.Survey.RestsFrom(p, at.Display.Install))]
        );
    }

    public static IEnumerable<Remark> Fit(CheckedDisplay at, BulbStack stack)
    {
        foreach (StackLayer layer in stack.Layers)
        {
            if (layer.Problem is not { } problem)
                continue;
            Plant plant = layer.Plant;
            DisplayItem item = at.Display.Items.First(i => i.PlantId == plant.Id);
            yield return at.Say(
                Gravity.Loses,
                RemarkKind.StackDoesNotFit,
                [("plant", plant), ("problem", problem)],
                stack.Explain(layer),
                [
                    item.DepthCm is null || BulbStack.DepthByRule(plant.Bulb!, at.Rules.BulbDepth) > BulbStack.DeepestBaseCm(at.Planter, at.Plan.Site)
                        ? null
                        : new Remedy(
                            new Fact(RemedyKind.LayByTheRule, ("plant", plant)),
                            at.Display with
                            {
                                Items = [.. at.Display.Items.Select(i => i == item ? i with { DepthCm = null } : i)],
                            }
                        ),
                    layer.Fits > 0 && layer.Count > layer.Fits && !at.Planter.Form.IsBed ? at.Count(plant, layer.Fits) : null,
                    at.Without(plant),
                ]
            );
        }
        if (stack.Overfilled is { } filled)
        {
            yield return at.Say(
                Gravity.Loses,
                RemarkKind.BedOverfilled,
                [("share", Share(filled))],
                stack.Explain(stack.Layers[0]),
                [
                    new Remedy(
                        new Fact(RemedyKind.PlantShareOfEach, ("share", Share(1 / filled))),
                        at.Display with
                        {
                            Items = [.. at.Display.Items.Select(i => i with { Count = Math.Max(1, (int)Math.Floor(i.Count / filled)) })],
                        }
                    ),
                ]
            );
        }
    }

    /// <summary>Plants of the season set a few weeks before bulbs that go in below them: they are lifted and set back.</summary>
    public static IEnumerable<Remark> OverBulbs(CheckedDisplay at)
    {
        if (at.Planter.Form.IsBed)
            yield break;
        foreach (
            var top in at
                .Together.GroupBy(t => t.Display)
                .Where(g => g.Key.Layer == DisplayLayer.Seasonal && g.Key.Install < at.Display.Install && g.Key.Lift > at.Display.Install)
        )
        {
            int before = Period.DaysBetween(top.Key.Install, at.Display.Install);
            if (before > WeeksApart * 7)
                continue;
            int count = top.Sum(t => t.Item.Count);
            yield return at.Say(
                Gravity.Reminds,
                RemarkKind.LiftedForBulbs,
                [("display", top.Key), ("day", top.Key.Install), ("count", count), ("before", before)],
                new Working(
                    WorkingKind.LiftAndSetBack,
                    new Fact(WorkingPhrase.LiftAndSetBackValuePlants, ("count", count)),
                    [new WorkingInput(InputName.PlantsIn, top.Key.Install), new WorkingInput(InputName.BulbsIn, at.Display.Install)]
                )
                {
                    Parts = [("weeksApart", WeeksApart)],
                },
                [
                    at.Kinds.All(k => k.Plant.IsSoldOn(top.Key.Install, at.Plan.Site.IsSouthern))
                        ? at.Days(RemedyKind.PlantBulbsWithThem, install: top.Key.Install)
                        : null,
                ]
            );
        }
    }

    // Plants and bulbs that go in within so many weeks could go in on one day.
    private const int WeeksApart = 8;

    /// <summary>
    /// Kinds too few to read as a group, and beds with too few bulbs to be a display (common practice: clusters of ten, fifty to a display).
    /// </summary>
    public static IEnumerable<Remark> Clusters(CheckedDisplay at)
    {
        foreach ((Plant plant, DisplayItem item) in at.Kinds)
        {
            int least = BulbCluster.Least(at.Planter, plant.Bulb!);
            int count = at.Display.Items.Where(i => i.PlantId == plant.Id).Sum(i => i.Count);
            if (count >= least || plant.IsTender)
                continue;
            yield return at.Say(
                Gravity.Looks,
                RemarkKind.TooFewForAGroup,
                [("plant", plant), ("count", count), ("least", least), ("isBed", at.Planter.Form.IsBed)],
                new Working(
                    WorkingKind.ClusterSize,
                    new Fact(WorkingPhrase.ClusterSizeValueLeast, ("count", count), ("least", least)),
                    [new WorkingInput(InputName.Bulb, new Fact(WorkingPhrase.ClusterSizeBulbHigh, ("height", Quantity.Cm(plant.Bulb!.HeightCm, 1))))]
                )
                {
                    Parts =
                    [
                        ("inBed", BulbCluster.InBed),
                        ("smallInContainer", BulbCluster.SmallInContainer),
                        ("small", Quantity.Cm(BulbCluster.SmallCm)),
                        ("inContainer", BulbCluster.InContainer),
                    ],
                },
                [Fitting(at, at.Count(plant, least + item.Count - count)), at.Without(plant)]
            );
        }
        int all = at.Display.Items.Sum(i => i.Count);
        if (!at.Planter.Form.IsBed || all >= BulbCluster.MakeABed || at.Planter.Form.SurfaceCm2 < BulbCluster.DisplayBedCm2)
            yield break;
        double times = (double)BulbCluster.MakeABed / all;
        yield return at.Say(
            Gravity.Looks,
            RemarkKind.FewBulbsForTheBed,
            [("count", all), ("area", SquareMetres(at.Planter.Form.SurfaceCm2 / 10_000))],
            new Working(
                WorkingKind.BulbsInBed,
                new Fact(WorkingPhrase.BulbsInBedValue, ("all", all), ("makeABed", BulbCluster.MakeABed)),
                [new WorkingInput(InputName.Surface, Quantity.SquareMetres(at.Planter.Form.SurfaceCm2 / 10_000))]
            )
            {
                Parts = [("area", Quantity.SquareMetres(BulbCluster.DisplayBedCm2 / 10_000)), ("makeABed", BulbCluster.MakeABed)],
            },
            [
                Fitting(
                    at,
                    new Remedy(
                        new Fact(RemedyKind.PlantInAll, ("count", BulbCluster.MakeABed)),
                        at.Display with
                        {
                            Items = [.. at.Display.Items.Select(i => i with { Count = (int)Math.Ceiling(i.Count * times), Places = null })],
                        }
                    )
                ),
            ]
        );
    }

    /// <summary>Kinds of one genus that flower together in nearly one colour: they look mixed up.</summary>
    public static IEnumerable<Remark> LookAlikes(CheckedDisplay at, StackBloom bloom)
    {
        if (at.Rules.Colour == ColourSchool.OneColour)
            yield break;
        for (int i = 0; i < bloom.Forecasts.Count; i++)
        {
            for (int k = i + 1; k < bloom.Forecasts.Count; k++)
            {
                (BloomForecast a, BloomForecast b) = (bloom.Forecasts[i], bloom.Forecasts[k]);
                if (
                    !Alike(a.Plant, b.Plant)
                    || at.Display.Pairs.Any(p =>
                        p.FirstPlantId == a.Plant.Id && p.SecondPlantId == b.Plant.Id || p.FirstPlantId == b.Plant.Id && p.SecondPlantId == a.Plant.Id
                    )
                )
                    continue;
                if (
                    ReferenceEquals(a.Plant, b.Plant)
                    || a.First is not { } aOpens
                    || b.First is not { } bOpens
                    || a.Over is not { } aOver
                    || b.Over is not { } bOver
                )
                    continue;
                int together = Period.DaysBetween(aOpens > bOpens ? aOpens : bOpens, aOver < bOver ? aOver : bOver);
                if (together < TogetherDays)
                    continue;
                double apart = ColourDifference.Between(a.Plant.LeadColour, b.Plant.LeadColour);
                yield return at.Say(
                    Gravity.Looks,
                    RemarkKind.LookMixedUp,
                    [("plant", a.Plant), ("other", b.Plant), ("days", together)],
                    new Working(
                        WorkingKind.NearlyAlike,
                        Quantity.Number(apart, 1),
                        [
                            new WorkingInput(InputName.Together, new Fact(WorkingPhrase.NearlyAlikeTogetherDays, ("together", together))),
                            new WorkingInput(
                                InputName.Heights,
                                new Fact(
                                    WorkingPhrase.NearlyAlikeHeights,
                                    ("height", Quantity.Number(a.Plant.HeightCm)),
                                    ("height2", Quantity.Cm(b.Plant.HeightCm))
                                )
                            ),
                        ]
                    )
                    {
                        Parts = [("togetherDays", TogetherDays), ("nearlyAlike", Quantity.Number(Sequencing.AreaSequence.NearlyAlike))],
                    },
                    [
                        at.Swap(b.Plant, p => !Alike(a.Plant, p)),
                        new Remedy(
                            new Fact(RemedyKind.NameThemAPair, ("plant", a.Plant), ("other", b.Plant)),
                            at.Display with
                            {
                                Pairs = [.. at.Display.Pairs, new BloomPair(a.Plant.Id, b.Plant.Id, PairWish.Together)],
                            }
                        ),
                    ]
                );
            }
        }
    }

    // Days together that show two kinds as one.
    private const int TogetherDays = 5;

    private static bool Alike(Plant a, Plant b) =>
        Sequencing.SpringCalendar.GenusOf(a) == Sequencing.SpringCalendar.GenusOf(b)
        && Math.Abs(Math.Log(a.HeightCm / b.HeightCm)) < Math.Log(1.25)
        && ColourDifference.Between(a.LeadColour, b.LeadColour) <= Sequencing.AreaSequence.NearlyAlike;

    private static Remedy? Fitting(CheckedDisplay at, Remedy? remedy) =>
        remedy is null || BulbStack.Of(at.Plan, at.Planter, remedy.After).Problems.Count > 0 ? null : remedy;

    /// <summary>Leaves of a tall late bulb that stand over the flowers of a small early one.</summary>
    public static IEnumerable<Remark> HeightOrder(CheckedDisplay at, StackBloom bloom)
    {
        foreach (BloomForecast early in bloom.Forecasts)
        {
            foreach (BloomForecast late in bloom.Forecasts)
            {
                if (BulbShoot.Hides(early, late) is not { } hides)
                    continue;
                DisplayItem item = at.Display.Items.First(i => i.PlantId == early.Plant.Id);
                if (item.Clump is not null)
                    continue;
                yield return at.Say(
                    Gravity.Looks,
                    RemarkKind.LeavesOverFlowers,
                    [("plant", early.Plant), ("other", late.Plant), ("height", Cm(early.Plant.HeightCm)), ("leaves", Cm(hides.LeafCm))],
                    hides.Explain(),
                    [
                        item.Count < 6
                            ? null
                            : new Remedy(
                                new Fact(RemedyKind.SetInClumps, ("plant", early.Plant), ("count", 5)),
                                at.Display with
                                {
                                    Items = [.. at.Display.Items.Select(i => i == item ? i with { Clump = 5 } : i)],
                                }
                            ),
                        at.Swap(early.Plant, p => p.HeightCm > hides.LeafCm * 1.1),
                    ]
                );
            }
        }
    }

    /// <summary>Leaves that die down with nothing over them.</summary>
    public static IEnumerable<Remark> DieBack(CheckedDisplay at, StackBloom bloom)
    {
        foreach (BloomForecast f in bloom.Forecasts)
        {
            if (DieBackWindow.Of(f) is not { } window || window.Last >= at.Display.Lift.PlusDays(7) || window.LeafCm < 12)
                continue;
            double cover = at
                .Together.Where(t => t.Display.Install <= window.First.PlusDays(10) && t.Display.Lift >= window.Last.PlusDays(-10))
                .Sum(t =>
                {
                    double wide = at.Flowering.Spread(t.Plant, t.Display.Install, t.Display.Lift, at.PocketC)[
                        at.IndexOf(window.First.PlusDays(Period.DaysBetween(window.First, window.Last) / 2))
                    ];
                    return t.Item.Count * Math.PI / 4 * wide * wide / at.Planter.Form.SurfaceCm2;
                });
            if (cover >= DieBackWindow.Hides)
                continue;
            yield return at.Say(
                Gravity.Looks,
                RemarkKind.LeavesDieInTheOpen,
                [("plant", f.Plant), ("first", window.First), ("last", window.Last), ("cover", Share(cover)), ("hiddenBy", f.Plant.Tending.HiddenBy)],
                window.Explain(f.Plant, cover),
                [
                    at.Rules.Tulips == TulipSchool.Annual && window.First > at.Display.Install
                        ? at.Days(RemedyKind.LiftAfterBloom, lift: window.First)
                        : null,
                ]
            );
        }
    }

    /// <summary>Pairs that the planner wants together or one after the other, and mostly are not.</summary>
    public static IEnumerable<Remark> Pairs(CheckedDisplay at, StackBloom bloom)
    {
        foreach (BloomPair pair in at.Display.Pairs)
        {
            if (PairOdds.Of(pair, bloom) is not { } odds || odds.Share >= 0.5)
                continue;
            yield return at.Say(
                Gravity.Looks,
                pair.Wish == PairWish.Together ? RemarkKind.SeldomTogether : RemarkKind.SeldomFollows,
                [("plant", odds.First.Plant), ("other", odds.Second.Plant), ("odds", OutOfTen(odds.Share)), ("days", Days(odds.MedianDays))],
                odds.Explain(),
                [at.Swap(odds.Second.Plant, p => WouldPair(odds, p))]
            );
        }
    }

    // A rough judgement from the bulbs' own order: how far apart two kinds open in a steady spring.
    private static bool WouldPair(PairOdds odds, Plant other)
    {
        if (
            other.Windows.Select(w => w.Rule).OfType<BulbForcing>().FirstOrDefault() is not { } rule
            || odds.First.Plant.Windows.Select(w => w.Rule).OfType<BulbForcing>().FirstOrDefault() is not { } first
        )
            return false;
        double apart = rule.DaysInSteadySpring - first.DaysInSteadySpring;
        return odds.Pair.Wish == PairWish.Together
            ? Math.Abs(apart) < first.ShowDays * 0.5
            : apart > first.ShowDays * 0.7 && apart < first.ShowDays * 1.1;
    }
}

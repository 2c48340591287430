using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.Stacks;
using static UnrulyMeadow.Core.Facts.Quantity;

namespace UnrulyMeadow.Core.Checks;

/// <summary>Light, water, medium and pH, heat, height, depth for roots, and stock that has stood too long in its pot.</summary>
internal static class GrowingChecks
{
    /// <summary>What lasts should not stand longer in one container without its roots being cut, years (common practice).</summary>
    public const int YearsInAPot = 4;

    /// <summary>Plants that wait longer in their nursery pots come root-bound, days (common practice).</summary>
    public const int WaitedDays = 60;

    public static IEnumerable<Remark> Light(CheckedDisplay at, Plant plant)
    {
        Planter planter = at.Planter;
        if (plant.Suits(planter.Exposure))
            yield break;
        bool tooBright = planter.Exposure > plant.LightHigh;
        yield return at.Say(
            Gravity.Weakens,
            tooBright ? RemarkKind.TooMuchSun : RemarkKind.TooLittleSun,
            [
                ("plant", plant),
                ("planter", planter),
                ("has", planter.Exposure),
                ("least", plant.LightLow),
                ("most", plant.LightLow == plant.LightHigh ? null : plant.LightHigh),
            ],
            new Working(
                WorkingKind.Light,
                Name(planter.Exposure),
                [
                    new WorkingInput(InputName.Planter, Name(planter.Exposure)),
                    new WorkingInput(InputName.PlantLeast, Name(plant.LightLow)),
                    new WorkingInput(InputName.PlantMost, Name(plant.LightHigh)),
                ]
            )
            {
                Parts = [("source", plant.Source)],
            },
            [at.Swap(plant, _ => true)]
        );
    }

    public static IEnumerable<Remark> Water(CheckedDisplay at)
    {
        if (at.IsBulbs)
            yield break;
        List<Plant> own = [.. at.Kinds.Select(k => k.Plant)];
        List<Plant> all = [.. own, .. at.Together.Select(t => t.Plant)];
        Plant? dry = all.Find(p => p.Water == WaterNeed.Low);
        Plant? wet = all.Find(p => p.Water == WaterNeed.High);
        if (dry is null || wet is null || (!own.Contains(dry) && !own.Contains(wet)))
            yield break;
        Plant goes = own.Contains(dry) ? dry : wet;
        yield return at.Say(
            Gravity.Weakens,
            RemarkKind.DifferentWater,
            [("plant", dry), ("other", wet)],
            new Working(
                WorkingKind.Water,
                WorkingPhrase.LowBesideHigh,
                [new WorkingInput(dry, WorkingPhrase.Low), new WorkingInput(wet, WorkingPhrase.High)]
            ),
            [at.Swap(goes, p => p.Water is not (WaterNeed.Low or WaterNeed.High) || p.Water == (ReferenceEquals(goes, dry) ? wet : dry).Water)]
        );
    }

    public static IEnumerable<Remark> MediumAndPh(CheckedDisplay at)
    {
        if (at.Planter.Survey.Ph is { } ph)
        {
            foreach (Plant plant in at.Kinds.Select(k => k.Plant).Where(p => ph < p.Roots.PhLow || ph > p.Roots.PhHigh))
            {
                yield return at.Say(
                    Gravity.Weakens,
                    RemarkKind.PhOutOfRange,
                    [
                        ("plant", plant),
                        ("low", Number(plant.Roots.PhLow, 1)),
                        ("high", Number(plant.Roots.PhHigh, 1)),
                        ("measured", Number(ph, 1)),
                        ("isBed", at.Planter.Form.IsBed),
                    ],
                    new Working(
                        WorkingKind.MediumPh,
                        Quantity.Number(ph, 1),
                        [
                            new WorkingInput(InputName.Measured, Quantity.Number(ph, 1)),
                            new WorkingInput(
                                plant,
                                new Fact(
                                    WorkingPhrase.PH,
                                    ("phLow", Quantity.Number(plant.Roots.PhLow, 1)),
                                    ("phHigh", Quantity.Number(plant.Roots.PhHigh, 1))
                                )
                            ),
                        ]
                    )
                    {
                        Parts = [("source", plant.Source)],
                    },
                    [at.Swap(plant, p => ph >= p.Roots.PhLow && ph <= p.Roots.PhHigh)]
                );
            }
        }
        if (at.IsBulbs)
            yield break;
        List<Plant> all = [.. at.Kinds.Select(k => k.Plant), .. at.Together.Select(t => t.Plant)];
        Plant? acid = at.Kinds.Select(k => k.Plant).FirstOrDefault(p => p.Roots.Medium == RootingMedium.Acid);
        Plant? other = acid is null ? null : all.Find(p => p.Roots.PhLow > acid.Roots.PhHigh - 0.3);
        if (acid is not null && other is not null)
        {
            yield return at.Say(
                Gravity.Weakens,
                RemarkKind.DifferentMedium,
                [
                    ("plant", acid),
                    ("other", other),
                    ("low", Number(acid.Roots.PhLow, 1)),
                    ("high", Number(acid.Roots.PhHigh, 1)),
                    ("otherLow", Number(other.Roots.PhLow, 1)),
                    ("otherHigh", Number(other.Roots.PhHigh, 1)),
                ],
                new Working(
                    WorkingKind.MediumForAll,
                    WorkingPhrase.RangesPHDoNotMeet,
                    [
                        new WorkingInput(
                            acid,
                            new Fact(
                                WorkingPhrase.MediumForAllPH,
                                ("phLow", Quantity.Number(acid.Roots.PhLow, 1)),
                                ("phHigh", Quantity.Number(acid.Roots.PhHigh, 1))
                            )
                        ),
                        new WorkingInput(
                            other,
                            new Fact(
                                WorkingPhrase.MediumForAllPH,
                                ("phLow", Quantity.Number(other.Roots.PhLow, 1)),
                                ("phHigh", Quantity.Number(other.Roots.PhHigh, 1))
                            )
                        ),
                    ]
                ),
                [at.Swap(acid, p => p.Roots.Medium != RootingMedium.Acid)]
            );
        }
    }

    public static IEnumerable<Remark> Wet(CheckedDisplay at)
    {
        Drainage drainage = Drainage.Of(at.Planter);
        foreach (
            Plant plant in at.Kinds.Select(k => k.Plant).Where(p => drainage.Verdict == DrainageVerdict.Poor && RotsInWet(p)).DistinctBy(p => p.Id)
        )
        {
            yield return at.Say(
                Gravity.Loses,
                RemarkKind.TooWet,
                [("plant", plant)],
                drainage.Explain(),
                [plant.Bulb is null ? at.Swap(plant, p => !RotsInWet(p)) : null]
            );
        }
    }

    public static IEnumerable<Remark> Heat(CheckedDisplay at, Plant plant)
    {
        if (plant.Roots.HeatCeilingC is not { } ceiling || at.IsBulbs || at.Flowering.Years == 0)
            yield break;
        LocalDate last = at.Display.Lift.PlusDays(-1);
        LocalDate end = at.Flowering.Start.PlusMonths(12).PlusDays(-1);
        double[] hottest = at.Flowering.HottestWeeks(at.Display.Install, last < end ? last : end);
        double warm = at.Planter.Survey.MasonryHeatC;
        double hot = (double)hottest.Count(c => c + warm > ceiling) / hottest.Length;
        if (hot <= 0.5)
            yield break;
        yield return at.Say(
            Gravity.Weakens,
            RemarkKind.StallsInHeat,
            [("plant", plant), ("ceiling", Celsius(ceiling)), ("odds", OutOfTen(hot, 0)), ("masonry", warm > 0 ? CelsiusApart(warm) : null)],
            new Working(
                WorkingKind.Heat,
                new Fact(WorkingPhrase.HeatValueYears, ("hot", Quantity.Share(hot))),
                [
                    new WorkingInput(InputName.Ceiling, new Fact(WorkingPhrase.WeekMean, ("ceiling", Quantity.Celsius(ceiling)))),
                    new WorkingInput(InputName.HottestWeekMiddleYear, Quantity.Celsius(hottest[hottest.Length / 2], 1)),
                    new WorkingInput(InputName.Masonry, Quantity.Celsius(warm)),
                ]
            ),
            [at.Swap(plant, p => p.Roots.HeatCeilingC is not { } c || c > ceiling + 2)]
        );
    }

    public static IEnumerable<Remark> Height(CheckedDisplay at, Plant plant)
    {
        if (plant.Habit == Habit.Trailing || at.Planter.Survey.Tree is not null)
            yield break;
        GreatestHeight height = GreatestHeight.Of(at.Planter);
        double limit = height.LimitCm;
        double reaches = at.GreatestHeightCm(plant);
        bool passes = reaches > limit;
        if (!passes && reaches <= height.ProportionCm)
            yield break;
        yield return at.Say(
            passes ? Gravity.Loses : Gravity.Looks,
            passes ? RemarkKind.TooHigh : RemarkKind.TallForThePlanter,
            [("plant", plant), ("reaches", Cm(reaches)), ("limit", Cm(passes ? limit : height.ProportionCm)), ("by", height.LimitedBy)],
            height.Explain(),
            [at.Swap(plant, p => p.HeightCm <= Math.Min(limit, height.ProportionCm))]
        );
    }

    public static IEnumerable<Remark> RootRoom(CheckedDisplay at, Plant plant)
    {
        if (at.IsBulbs)
            yield break;
        double want = plant.RootDepthCm;
        double has = BulbStack.MediumDepthCm(at.Planter, at.Plan.Site);
        if (has < want - 1)
        {
            yield return at.Say(
                plant.IsLasting && has < want * 0.7 ? Gravity.Loses : Gravity.Weakens,
                RemarkKind.LacksDepth,
                [("plant", plant), ("wants", Cm(want)), ("has", Cm(has))],
                new Working(
                    WorkingKind.DepthForRoots,
                    Quantity.Cm(has),
                    [new WorkingInput(InputName.Wanted, Quantity.Cm(want)), new WorkingInput(InputName.Medium, Quantity.Cm(has, 1))]
                ),
                [at.Swap(plant, p => p.RootDepthCm <= has)]
            );
        }
        LocalDate limit = at.Display.Install.PlusYears(YearsInAPot);
        if (plant.IsLasting && !at.Planter.Form.IsBed && at.Planter.Survey.Tree is null && at.Display.Lift > limit.PlusDays(30))
        {
            yield return at.Say(
                Gravity.Reminds,
                RemarkKind.BecomesRootBound,
                [("plant", plant), ("install", at.Display.Install), ("lift", at.Display.Lift), ("years", YearsInAPot)],
                new Working(
                    WorkingKind.YearsInContainer,
                    Quantity.Number(Period.DaysBetween(at.Display.Install, at.Display.Lift) / 365.25, 1),
                    [new WorkingInput(InputName.GoesIn, at.Display.Install), new WorkingInput(InputName.ComesOut, at.Display.Lift)]
                )
                {
                    Parts = [("yearsInAPot", YearsInAPot)],
                },
                [at.Days(RemedyKind.LiftOn, lift: limit)]
            );
        }
    }

    /// <summary>The form in which a kind is bought: whether it is sold so, and whether it has to be grown on first.</summary>
    public static IEnumerable<Remark> Form(CheckedDisplay at, Plant plant, DisplayItem item)
    {
        GoodsForm form = GoodsForm.Of(plant)[0];
        Plant sold = at.Plan.Plant(plant.Id);
        if (item.Form is { } wanted && GoodsForm.Find(sold, wanted) is null)
        {
            yield return at.Say(
                Gravity.Reminds,
                RemarkKind.NotSoldSo,
                [("plant", plant), ("wanted", wanted), ("sold", GoodsForm.Of(sold).Select(f => f.Name).ToList()), ("form", form.Name)],
                new Working(WorkingKind.FormSold, form.Name, [new WorkingInput(InputName.Chosen, wanted)]),
                [
                    new Remedy(
                        new Fact(RemedyKind.BuyAs, ("plant", plant), ("form", form.Name)),
                        at.Display with
                        {
                            Items = [.. at.Display.Items.Select(i => i == item ? i with { Form = null } : i)],
                        }
                    ),
                ]
            );
        }
        else if (form.GrowOnWeeks > 0)
        {
            LocalDate by = at.Display.Install.PlusWeeks(-form.GrowOnWeeks);
            yield return at.Say(
                Gravity.Reminds,
                RemarkKind.BoughtAsPlugs,
                [("plant", plant), ("weeks", Weeks(form.GrowOnWeeks)), ("by", by)],
                new Working(
                    WorkingKind.GrowingOn,
                    new Fact(WorkingPhrase.GrowingOnValueWeeks, ("growOnWeeks", form.GrowOnWeeks)),
                    [new WorkingInput(InputName.GoesIn, at.Display.Install), new WorkingInput(InputName.PlugsBy, by)]
                ),
                [
                    GoodsForm.Usual(sold) is { GrowOnWeeks: 0 } usual
                        ? new Remedy(
                            new Fact(RemedyKind.BuyAs, ("plant", plant), ("form", usual.Name)),
                            at.Display with
                            {
                                Items = [.. at.Display.Items.Select(i => i == item ? i with { Form = usual.Name } : i)],
                            }
                        )
                        : null,
                ]
            );
        }
    }

    public static IEnumerable<Remark> Stock(CheckedDisplay at, Plant plant)
    {
        Lot? old = at.Plan.Lots.FirstOrDefault(l =>
            l.PlantId == plant.Id
            && l.Count > 0
            && l.State is LotState.Waiting or LotState.Kept or LotState.Overwintering
            && l.Since <= at.Display.Install
            && Period.DaysBetween(l.Since, at.Display.Install) > WaitedDays
        );
        if (old is null || plant.Bulb is not null)
            yield break;
        int days = Period.DaysBetween(old.Since, at.Display.Install);
        yield return at.Say(
            Gravity.Reminds,
            RemarkKind.AtHandRootBound,
            [("plant", plant), ("count", old.Count), ("place", old.Place), ("days", days), ("recharge", at.Rules.Medium == MediumSchool.Recharge)],
            new Working(
                WorkingKind.DaysInNurseryPots,
                days,
                [new WorkingInput(InputName.Since, old.Since), new WorkingInput(InputName.GoesIn, at.Display.Install)]
            )
            {
                Parts = [("waitedDays", WaitedDays)],
            }
        );
    }

    private static bool RotsInWet(Plant plant) =>
        plant.Bulb is not null || plant.Water == WaterNeed.Low || plant.Roots.Medium == RootingMedium.Gritty;

    internal static string Name(Exposure exposure) =>
        exposure switch
        {
            Exposure.FullSun => "full sun",
            Exposure.PartSun => "part sun",
            _ => "shade",
        };
}

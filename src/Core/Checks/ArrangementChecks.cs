using NodaTime;
using UnrulyMeadow.Core.Arranging;
using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using static UnrulyMeadow.Core.Facts.Quantity;

namespace UnrulyMeadow.Core.Checks;

/// <summary>How the plants of a display stand to each other: who overgrows, hides or is lost in whom, and whether they find room.</summary>
internal static class ArrangementChecks
{
    public static IEnumerable<Remark> Vigour(CheckedDisplay at)
    {
        IReadOnlyList<float[]> spread = [.. at.Kinds.Select(k => at.Spread(k.Plant))];
        foreach (
            Overgrown o in Competition.Follow(at.Arrangement, spread, at.Flowering.Start, at.Flowering.InLeaf is { Length: > 0 } leaf ? leaf : null)
        )
        {
            int winners = at.Kinds[o.Winner].Item.Count;
            yield return at.Say(
                Gravity.Weakens,
                RemarkKind.Overgrows,
                [("plant", o.WinnerPlant), ("other", o.LoserPlant), ("when", o.When), ("light", Share(o.LightLeft))],
                o.Explain(),
                [
                    at.Swap(o.WinnerPlant, p => p.Vigour < o.WinnerPlant.Vigour && p.MatureSpreadCm <= o.WinnerPlant.MatureSpreadCm),
                    at.Count(o.WinnerPlant, (int)Math.Floor(winners * 0.65)),
                    at.Swap(o.LoserPlant, p => p.HeightCm >= o.WinnerPlant.HeightCm * 0.85 && p.Vigour >= o.WinnerPlant.Vigour),
                ]
            );
        }
    }

    public static IEnumerable<Remark> Hidden(CheckedDisplay at)
    {
        int day = at.IndexOf(at.Midway);
        double[] wide = [.. at.Kinds.Select(k => (double)at.Spread(k.Plant)[day])];
        Sightline sight = Sightline.Of(at.Arrangement, p => Stature.Of(p.Plant, wide[p.Item]));
        for (int k = 0; k < at.Kinds.Count; k++)
        {
            double shown = sight.Shown.Where((_, i) => at.Arrangement.Plants[i].Item == k).DefaultIfEmpty(1).Average();
            if (shown >= Sightline.Hidden || wide[k] <= 0)
                continue;
            Plant plant = at.Kinds[k].Plant;
            yield return at.Say(
                Gravity.Looks,
                RemarkKind.HiddenBehind,
                [("plant", plant), ("day", at.Midway), ("shown", Share(shown)), ("away", Metres(sight.AwayCm / 100, 1))],
                new Working(
                    WorkingKind.ShareSeen,
                    Quantity.Share(shown),
                    [
                        new WorkingInput(
                            InputName.Eye,
                            new Fact(WorkingPhrase.AboveMediumAway, ("eye", Quantity.Cm(sight.EyeCm)), ("away", Quantity.Cm(sight.AwayCm)))
                        ),
                        new WorkingInput(
                            plant,
                            new Fact(
                                WorkingPhrase.WideHighOnDay,
                                ("wide", Quantity.Cm(wide[k])),
                                ("height", Quantity.Cm(Stature.Of(plant, wide[k]).HeightCm))
                            )
                        ),
                    ]
                ),
                [
                    at.Arrangement.ByHand
                        ? new Remedy(
                            new Fact(RemedyKind.LayOutAnew),
                            at.Display with
                            {
                                Items = [.. at.Display.Items.Select(i => i with { Places = null })],
                            }
                        )
                        : null,
                ]
            );
        }
    }

    public static IEnumerable<Remark> BarkHidden(CheckedDisplay at)
    {
        foreach (
            Plant bark in at
                .Together.Select(t => t.Plant)
                .Concat(at.Kinds.Select(k => k.Plant))
                .Where(p => p.Windows.Any(w => w.Part == ColourPart.Stem))
                .DistinctBy(p => p.Id)
        )
        {
            foreach (
                Plant front in at
                    .Kinds.Select(k => k.Plant)
                    .Where(p => p.Id != bark.Id && p.Habit != Habit.Trailing && p.HeightCm > 0.5 * bark.HeightCm)
            )
            {
                if (!ShowsAlong(at, bark))
                    continue;
                yield return at.Say(
                    Gravity.Looks,
                    RemarkKind.BeforeStems,
                    [("plant", front), ("other", bark), ("height", Cm(front.HeightCm)), ("stems", Cm(bark.HeightCm))],
                    new Working(
                        WorkingKind.BeforeOrnamentalBark,
                        new Fact(WorkingPhrase.BeforeOrnamentalBarkValueHeight, ("height", Quantity.Share(front.HeightCm / bark.HeightCm))),
                        [new WorkingInput(bark, Quantity.Cm(bark.HeightCm)), new WorkingInput(front, Quantity.Cm(front.HeightCm))]
                    ),
                    [at.Swap(front, p => p.HeightCm <= 0.5 * bark.HeightCm)]
                );
            }
        }
    }

    public static IEnumerable<Remark> RoomBesideWhatStays(CheckedDisplay at)
    {
        if (at.Display.Layer != DisplayLayer.Seasonal)
            yield break;
        int day = at.IndexOf(at.Display.Install);
        double surface = at.Planter.Form.SurfaceCm2;
        double stays = Math.Min(
            1,
            at.Together.Where(t => t.Display.Layer == DisplayLayer.Standing)
                .Sum(t =>
                {
                    double wide = at.Flowering.Spread(t.Plant, t.Display.Install, t.Display.Lift, at.PocketC)[day];
                    return t.Item.Count * AtTheGround(t.Plant) * Math.PI / 4 * wide * wide / surface;
                })
        );
        double own = at.Kinds.Sum(k => k.Item.Count * Math.PI / 4 * k.Plant.SpreadAtPurchaseCm * k.Plant.SpreadAtPurchaseCm) / surface;
        const double Pressed = 1.25;
        double room = Math.Max(0, 1 - stays) * Pressed;
        if (own <= room + 0.02)
            yield break;
        double keep = room / own;
        yield return at.Say(
            Gravity.Loses,
            stays > 0.02 ? RemarkKind.NoRoomBesideWhatStays : RemarkKind.MorePlantsThanFit,
            [("stays", Share(stays)), ("wanted", Share(own)), ("room", Share(room)), ("keep", Share(keep))],
            new Working(
                WorkingKind.RoomOnSurface,
                new Fact(WorkingPhrase.WantedFree, ("own", Quantity.Share(own)), ("room", Quantity.Share(room))),
                [
                    .. at.Kinds.Select(k => new WorkingInput(
                        k.Plant,
                        new Fact(
                            WorkingPhrase.RoomOnSurface,
                            ("item", k.Item.Count),
                            ("spreadAtPurchase", Quantity.Cm(k.Plant.SpreadAtPurchaseCm, 1))
                        )
                    )),
                    new WorkingInput(InputName.WhatStays, Quantity.Share(stays)),
                ]
            ),
            [
                keep * at.Kinds.Min(k => k.Item.Count) >= 0.5
                    ? new Remedy(
                        new Fact(RemedyKind.PlantShareOfEach, ("share", Share(keep))),
                        at.Display with
                        {
                            Items = [.. at.Display.Items.Select(i => i with { Count = Math.Max(1, (int)Math.Floor(i.Count * keep)), Places = null })],
                        }
                    )
                    : null,
            ]
        );
    }

    public static IEnumerable<Remark> LostInEachOther(CheckedDisplay at)
    {
        foreach (NeighbourDifference difference in at.Neighbours.Where(n => n.IsLost))
        {
            (Plant a, Plant b) = (difference.One, difference.Other);
            yield return at.Say(
                Gravity.Looks,
                RemarkKind.LostInEachOther,
                [("plant", a), ("other", b), ("apart", Number(difference.ColourDifference))],
                difference.Explain(),
                [at.Swap(b, p => !new NeighbourDifference(a, difference.OneShows, p, p.LeadColour).IsLost)]
            );
        }
    }

    // Share of its spread that a plant takes at the ground: stems rise from a narrower foot.
    private static double AtTheGround(Plant plant) =>
        plant.LifeForm == LifeForm.Tree
            ? 0.05
            : plant.Habit switch
            {
                Habit.Upright => 0.25,
                Habit.Trailing => 0.3,
                _ => 0.5,
            };

    private static bool ShowsAlong(CheckedDisplay at, Plant bark)
    {
        int window = bark.Windows.ToList().FindIndex(w => w.Part == ColourPart.Stem);
        float[] shows = at.Flowering.Of(bark, at.Flowering.Start.PlusYears(-2), null, at.PocketC).ByWindow[window];
        int from = at.IndexOf(at.Display.Install);
        int to = at.IndexOf(at.Display.Lift.PlusDays(-1));
        int days = 0;
        for (int d = from; d <= to; d++)
            days += shows[d] >= 0.5f ? 1 : 0;
        return days >= 21;
    }
}

using NodaTime;
using UnrulyMeadow.Core.Arranging;
using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.Season;
using static UnrulyMeadow.Core.Facts.Quantity;

namespace UnrulyMeadow.Core.Checks;

/// <summary>Where a display goes against a school that the crew has chosen.</summary>
internal static class HouseRuleChecks
{
    /// <summary>Rooting that fall chrysanthemums need before the ground freezes to live through a winter, weeks (common practice: 4 to 6).</summary>
    public const int ChrysanthemumWeeks = 5;

    public static IEnumerable<Remark> Colour(CheckedDisplay at)
    {
        if (at.IsBulbs)
            yield break;
        IReadOnlyList<SchemePart> parts = at.Scheme();
        if (ColourScheme.Of(parts) is not { } scheme)
            yield break;
        if (scheme.Breaks(at.Rules) is { } breaks)
        {
            // The plant of its own that stands out farthest from what the school allows goes first.
            Plant? goes = at.Kinds.Select(k => k.Plant).LastOrDefault(p => p.Id != scheme.Parts[scheme.Lead].Plant.Id) ?? at.Kinds[^1].Plant;
            yield return at.Say(
                Gravity.AgainstRule,
                RemarkKind.ColoursAgainstTheRule,
                [("school", at.Rules.Colour), ("breaks", breaks)],
                scheme.Explain(),
                [at.Swap(goes, p => ColourScheme.Of(at.Scheme(goes, p)) is { } with && with.Breaks(at.Rules) is null)]
            );
        }
        if (
            at.Rules.Colour == ColourSchool.OneColour
            && at.Kinds.Count > 1
            && parts.Count > 1
            && parts.Select(p => p.Plant.Texture).Distinct().Count() == 1
            && parts.Max(p => p.Plant.HeightCm) < 1.5 * parts.Min(p => p.Plant.HeightCm)
        )
        {
            yield return at.Say(
                Gravity.Looks,
                RemarkKind.OneColourWithoutChange,
                [],
                scheme.Explain(),
                [at.Swap(at.Kinds[^1].Plant, p => p.Texture != at.Kinds[0].Plant.Texture)]
            );
        }
        foreach (Remark remark in Pot(at, scheme))
            yield return remark;
    }

    public static IEnumerable<Remark> Pattern(CheckedDisplay at)
    {
        string group = at.Planter.Survey.LookGroup;
        if (group.Length == 0 || at.Rules.Pattern == PatternSchool.Free)
            yield break;
        List<Display> others =
        [
            .. at
                .Plan.PlantersOfLook(group)
                .Where(p => p.Id != at.Planter.Id && !p.IsRetired)
                .SelectMany(p => at.Plan.DisplaysOf(p.Id))
                .Where(d => d.Layer == at.Display.Layer && Math.Abs(Period.DaysBetween(d.Install, at.Display.Install)) <= 21),
        ];
        if (others.Count == 0)
            yield break;
        if (at.Rules.Pattern == PatternSchool.IdenticalPairs)
        {
            Display twin = others.FirstOrDefault(d => at.Plan.FindPlanter(d.PlanterId)!.Form == at.Planter.Form) ?? others[0];
            if (Same(twin, at.Display))
                yield break;
            Planter other = at.Plan.FindPlanter(twin.PlanterId)!;
            yield return at.Say(
                Gravity.AgainstRule,
                RemarkKind.UnlikeItsPair,
                [("planter", other), ("group", group)],
                new Working(
                    WorkingKind.IdenticalPair,
                    WorkingPhrase.NotIdentical,
                    [new WorkingInput(other, Kinds(at.Plan, twin)), new WorkingInput(at.Planter, Kinds(at.Plan, at.Display))]
                ),
                [
                    other.Form == at.Planter.Form
                        ? new Remedy(new Fact(RemedyKind.PlantLike, ("planter", other)), at.Display with { Items = twin.Items, Pairs = twin.Pairs })
                        : null,
                ]
            );
            yield break;
        }
        bool echoes = others.Exists(d =>
            d.Items.Any(i =>
                at.Kinds.Any(k =>
                    k.Plant.Id == i.PlantId
                    || k.Plant.Windows.SelectMany(w => w.Colours)
                        .Any(c =>
                            at.Plan.Plant(i.PlantId)
                                .Windows.SelectMany(w => w.Colours)
                                .Any(o => ColourDifference.Between(c, o) <= ColourScheme.Echoes)
                        )
                )
            )
        );
        if (!echoes)
        {
            yield return at.Say(
                Gravity.AgainstRule,
                RemarkKind.EchoesNothing,
                [("group", group)],
                new Working(
                    WorkingKind.EchoingPair,
                    WorkingPhrase.NoEcho,
                    [.. others.Take(4).Select(d => new WorkingInput(at.Plan.FindPlanter(d.PlanterId)!, Kinds(at.Plan, d)))]
                )
                {
                    Parts = [("echoes", Quantity.Number(ColourScheme.Echoes))],
                },
                [
                    new Remedy(
                        new Fact(RemedyKind.AddPlants, ("count", 3), ("plant", at.Plan.Plant(others[0].Items[0].PlantId))),
                        at.Display with
                        {
                            Items = [.. at.Display.Items, new DisplayItem(others[0].Items[0].PlantId, 3)],
                        }
                    ),
                ]
            );
        }
    }

    public static IEnumerable<Remark> Tulips(CheckedDisplay at, StackBloom bloom)
    {
        foreach (
            BloomForecast f in bloom.Forecasts.Where(f => f.Plant.BotanicalName.StartsWith("Tulipa", StringComparison.Ordinal) && f.Over is not null)
        )
        {
            LocalDate over = f.Over!.Value;
            if (at.Rules.Tulips == TulipSchool.Annual && at.Display.Lift > over.PlusDays(75))
            {
                yield return at.Say(
                    Gravity.AgainstRule,
                    RemarkKind.TulipsStay,
                    [("plant", f.Plant), ("over", over), ("lift", at.Display.Lift)],
                    new Working(
                        WorkingKind.AnnualTulips,
                        WorkingPhrase.Annual,
                        [new WorkingInput(InputName.LastColour, over), new WorkingInput(InputName.ComesOut, at.Display.Lift)]
                    ),
                    [at.Days(RemedyKind.LiftOn, lift: over.PlusDays(7))]
                );
            }
            else if (at.Rules.Tulips == TulipSchool.Perennial && at.Display.Lift < over.PlusDays(DieBackWindow.Days))
            {
                yield return at.Say(
                    Gravity.AgainstRule,
                    RemarkKind.TulipsLiftedEarly,
                    [("plant", f.Plant), ("brown", over.PlusDays(DieBackWindow.Days)), ("lift", at.Display.Lift)],
                    new Working(
                        WorkingKind.PerennialTulips,
                        WorkingPhrase.Perennial,
                        [
                            new WorkingInput(InputName.LastColour, over),
                            new WorkingInput(InputName.LeavesBrown, new Fact(WorkingPhrase.DaysLater, ("days", DieBackWindow.Days))),
                        ]
                    ),
                    [
                        at.Days(RemedyKind.LeaveForThreeSprings, lift: over.PlusDays(DieBackWindow.Days).PlusYears(2)),
                        at.Days(RemedyKind.LeaveUntilBrown, lift: over.PlusDays(DieBackWindow.Days)),
                    ]
                );
            }
        }
    }

    public static IEnumerable<Remark> Chrysanthemums(CheckedDisplay at, Plant plant)
    {
        if (!plant.BotanicalName.StartsWith("Chrysanthemum", StringComparison.Ordinal))
            yield break;
        LocalDate freeze = new(at.Display.Install.Year, at.Flowering.IsSouthern ? 6 : 12, 1);
        if (
            at.Record is { YearsUsed.Count: > 0 } record
            && PlantingWindow.From(GroundClimate.Of(record.ForOdds).Of(at.Planter.ThermalClass()), record.ForOdds, 10).Freeze.Freezes.By(0.5)
                is { } frozen
        )
            freeze = new LocalDate(
                frozen.Month < 7 == at.Flowering.IsSouthern ? at.Display.Install.Year : at.Display.Install.Year + 1,
                frozen.Month,
                Math.Min(frozen.Day, 28)
            );
        LocalDate latest = freeze.PlusDays(-7 * ChrysanthemumWeeks);
        if (at.Rules.Chrysanthemums == ChrysanthemumSchool.Overwinter && (at.Display.Install > latest || !at.Planter.Form.IsBed))
        {
            yield return at.Say(
                Gravity.AgainstRule,
                RemarkKind.ChrysanthemumTooLate,
                [
                    ("plant", plant),
                    ("freeze", freeze),
                    ("weeks", Weeks(ChrysanthemumWeeks)),
                    ("install", at.Display.Install),
                    ("isBed", at.Planter.Form.IsBed),
                ],
                new Working(
                    WorkingKind.RootingBeforeWinter,
                    new Fact(WorkingPhrase.RootingBeforeWinterValue, ("latest", latest)),
                    [
                        new WorkingInput(InputName.GroundFreezes, freeze),
                        new WorkingInput(
                            InputName.Rooting,
                            new Fact(WorkingPhrase.RootingBeforeWinterRootingWeeks, ("chrysanthemumWeeks", ChrysanthemumWeeks))
                        ),
                    ]
                ),
                [at.Planter.Form.IsBed ? at.Days(RemedyKind.PlantOn, install: latest) : null]
            );
        }
        else if (at.Rules.Chrysanthemums == ChrysanthemumSchool.Annual && at.Display.Lift > freeze.PlusDays(45))
        {
            yield return at.Say(
                Gravity.AgainstRule,
                RemarkKind.ChrysanthemumIntoWinter,
                [("plant", plant), ("lift", at.Display.Lift)],
                new Working(
                    WorkingKind.FallChrysanthemums,
                    WorkingPhrase.Annual,
                    [new WorkingInput(InputName.ComesOut, at.Display.Lift), new WorkingInput(InputName.GroundFreezes, freeze)]
                ),
                [at.Days(RemedyKind.LiftOn, lift: freeze)]
            );
        }
    }

    public static IEnumerable<Remark> Density(CheckedDisplay at)
    {
        if (at.Display.Layer != DisplayLayer.Seasonal)
            yield break;
        LocalDate by = FullnessQuestion.By(at.Display.Install, at.Display.Lift);
        int day = at.IndexOf(by);
        double[] then = [.. at.Kinds.Select(k => (double)at.Spread(k.Plant)[day])];
        if (then.Any(w => w <= 0))
            yield break;
        var question = FullnessQuestion.Beside(
            at.Plan,
            at.Planter,
            [.. at.Kinds.Select(k => (k.Plant, k.Item.Count))],
            [.. at.Together.Where(t => t.Display.Layer == DisplayLayer.Standing).Select(t => t.Display).Distinct()]
        );
        int total = at.Kinds.Sum(k => k.Item.Count);
        double cover = question.Cover(
            total,
            at.Rules.Density == DensitySchool.PackedFromDayOne ? [.. at.Kinds.Select(k => k.Plant.SpreadAtPurchaseCm)] : then
        );
        // What is full enough by any measure needs no count that would be; finding one takes the longest.
        if (at.Rules.Density != DensitySchool.RoomToGrow && cover >= FullnessQuestion.Full - 0.12)
            yield break;
        FullnessAnswer answer = question.By(at.Rules.Density, FullnessQuestion.Full, then);
        bool sparse =
            at.Rules.Density == DensitySchool.RoomToGrow
                ? total < 0.6 * answer.Total
                : cover < FullnessQuestion.Full - (answer.Total == 0 ? 0.25 : 0.12);
        bool crowded = at.Rules.Density == DensitySchool.RoomToGrow && total > 1.35 * answer.Total;
        if (!sparse && !crowded)
            yield break;
        yield return at.Say(
            Gravity.AgainstRule,
            crowded ? RemarkKind.PlantedTooClose : RemarkKind.PlantedTooThin,
            [
                ("packed", at.Rules.Density == DensitySchool.PackedFromDayOne),
                ("grown", at.Rules.Density == DensitySchool.RoomToGrow),
                ("byDate", at.Rules.Density == DensitySchool.ByDate),
                ("cover", Share(cover)),
                ("full", Share(FullnessQuestion.Full)),
                ("count", total),
                ("by", by),
                ("none", answer.Total == 0),
                ("total", answer.Total),
                (
                    "counts",
                    answer.Total == 0
                        ? null
                        : at.Kinds.Select((k, i) => new Fact(Phrase.CountOf, ("count", answer.Counts[i]), ("plant", k.Plant))).ToList()
                ),
            ],
            question.Explain(answer, FullnessQuestion.Full, at.Display.Install, by, then),
            [
                answer.Total == 0 || answer.Counts.Any(c => c == 0)
                    ? null
                    : new Remedy(
                        new Fact(RemedyKind.PlantInAll, ("count", answer.Total)),
                        at.Display with
                        {
                            Items = [.. at.Display.Items.Select((x, i) => x with { Count = answer.Counts[i], Places = null })],
                        }
                    ),
            ]
        );
    }

    private static IEnumerable<Remark> Pot(CheckedDisplay at, ColourScheme scheme)
    {
        if (at.Planter.Form.IsBed)
            yield break;
        string pot = at.Planter.WallColour;
        Plant lead = scheme.Parts[scheme.Lead].Plant;
        double apart = scheme.Parts[scheme.Lead].Colours.Min(c => ColourDifference.Between(c, pot));
        bool strict = at.Rules.Pots == PotSchool.SetsOffPlants;
        if (apart < (strict ? ColourScheme.Echoes : ColourDifference.LooksAlike))
        {
            yield return at.Say(
                strict ? Gravity.AgainstRule : Gravity.Looks,
                RemarkKind.DoesNotStandOffItsPot,
                [("plant", lead), ("apart", Number(apart)), ("pot", new ColourCode(pot)), ("least", Number(ColourScheme.Echoes))],
                ColourDifference.Explain(scheme.Parts[scheme.Lead].Colours[0], pot),
                [
                    at.Kinds.Any(k => k.Plant.Id == lead.Id)
                        ? at.Swap(lead, p => ColourDifference.Between(p.LeadColour, pot) >= ColourScheme.Echoes)
                        : null,
                ]
            );
        }
        if (
            at.Planter.Survey.BackdropColour is { } wall
            && scheme.Parts[scheme.Lead].Colours.Min(c => ColourDifference.Between(c, wall)) is var behind
            && behind < ColourDifference.LooksAlike
        )
        {
            yield return at.Say(
                Gravity.Looks,
                RemarkKind.DoesNotStandOffTheWall,
                [("plant", lead), ("apart", Number(behind)), ("wall", new ColourCode(wall))],
                ColourDifference.Explain(scheme.Parts[scheme.Lead].Colours[0], wall),
                [
                    at.Kinds.Any(k => k.Plant.Id == lead.Id)
                        ? at.Swap(lead, p => ColourDifference.Between(p.LeadColour, wall) >= ColourScheme.Echoes)
                        : null,
                ]
            );
        }
        if (!strict && LookGroup.Differences(at.Planter, at.Plan.PlantersOfLook(at.Planter.Survey.LookGroup)) is { Count: > 0 } differences)
        {
            yield return at.Say(
                Gravity.AgainstRule,
                RemarkKind.PotUnlikeItsGroup,
                [("group", at.Planter.Survey.LookGroup), ("differences", differences)],
                new Working(WorkingKind.PotColours, WorkingPhrase.NotAlike, [new WorkingInput(InputName.Group, at.Planter.Survey.LookGroup)])
            );
        }
    }

    private static bool Same(Display one, Display other) =>
        one.Items.Count == other.Items.Count && one.Items.All(i => other.Items.Any(o => o.PlantId == i.PlantId && o.Count == i.Count));

    private static string Kinds(Plan plan, Display display) =>
        string.Join(", ", display.Items.Select(i => $"{i.Count} {plan.Plant(i.PlantId).CommonName}"));
}

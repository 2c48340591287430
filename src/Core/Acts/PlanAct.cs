using NodaTime;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Recipes;
using UnrulyMeadow.Core.Turning;

namespace UnrulyMeadow.Core.Acts;

/// <summary>
/// Works out an act on many planters at once. What has gone in is never changed but by coming out earlier; what would not fit is left
/// as it is, and the reason is given.
/// </summary>
public static class PlanAct
{
    // A display that would stand for less is not worth its planting (common practice).
    private const int FewestDays = 14;

    /// <summary>What an act does.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="question">The act.</param>
    /// <param name="progress">Told how many planters are worked out.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="InvalidInputException">The question is faulty.</exception>
    public static ActAnswer Of(Plan plan, ActQuestion question, IProgress<int>? progress = null, CancellationToken cancel = default)
    {
        IReadOnlyList<Fault> faults = question.Faults(plan);
        if (faults.Count > 0)
            throw new InvalidInputException(faults);
        var chosen = question.PlanterIds.ToHashSet(StringComparer.Ordinal);
        var taken = plan.Displays.Select(d => d.Id).ToHashSet(StringComparer.Ordinal);
        var acts = new List<PlanterAct>();
        List<Planter> planters = [.. plan.Planters.Where(p => chosen.Contains(p.Id))];
        Turn? turn = plan.Turns.FirstOrDefault(t => t.Id == question.TurnId);
        foreach (Planter planter in planters)
        {
            cancel.ThrowIfCancellationRequested();
            LocalDate? day = turn is null ? question.Install : TurnChange.DayOf(turn, acts.Count, planters.Count);
            acts.Add(new Hand(plan, question, planter, day, taken).Do());
            progress?.Report(acts.Count);
        }
        return new ActAnswer(question, acts);
    }

    // One planter: its displays as they become, and what is to be said of them.
    private sealed class Hand(Plan plan, ActQuestion question, Planter planter, LocalDate? day, HashSet<string> taken)
    {
        private readonly List<Display> _displays = [.. plan.DisplaysOf(planter.Id)];
        private readonly List<Fact> _remarks = [];

        public PlanterAct Do()
        {
            switch (question.Kind)
            {
                case ActKind.PlantRecipe:
                    PutIn(plan.Recipes.First(r => r.Id == question.RecipeId), day!.Value, question.Lift ?? Display.OpenEnd(day.Value));
                    break;
                case ActKind.CopyDisplay:
                    Display source = plan.Displays.First(d => d.Id == question.DisplayId);
                    if (source.PlanterId == planter.Id)
                        Say(ActHinder.ItsOwn);
                    else
                        Copy([source], d => d);
                    break;
                case ActKind.CopyYear when question.SourceId == planter.Id:
                    Say(ActHinder.ItsOwn);
                    break;
                case ActKind.CopyYear:
                    Copy(Begin(question.SourceId!, question.Start), d => d);
                    break;
                case ActKind.SameAsPair:
                    if (Pair() is { } pair)
                        Copy(Begin(pair.Id, question.Start), d => d);
                    else
                        Say(ActHinder.NoPair);
                    break;
                case ActKind.SameAsLastYear:
                    Copy(Begin(planter.Id, question.Start.PlusYears(-1)), AYearLater);
                    break;
                case ActKind.MoveByDays:
                    Move(Begin(planter.Id, question.Start), _ => question.Days);
                    break;
                case ActKind.MoveToTurn:
                    Turn turn = plan.Turns.First(t => t.Id == question.TurnId);
                    Move(
                        [.. _displays.Where(d => IsMeant(d) && Math.Abs(Period.DaysBetween(turn.FirstDay, d.Install)) <= ActQuestion.NearTurnDays)],
                        d => turn.Holds(d.Install) ? 0 : Period.DaysBetween(d.Install, turn.FirstDay)
                    );
                    break;
                case ActKind.ReplaceKind:
                    Replace(plan.Plant(question.OldPlantId!), plan.Plant(question.NewPlantId!));
                    break;
                case ActKind.TakeOut:
                    TakeOut();
                    break;
            }
            return Result();
        }

        private bool IsMeant(Display display) => question.Layer is { } layer ? display.Layer == layer : display.Layer != DisplayLayer.Standing;

        // What goes in during a year, the earliest first.
        private List<Display> Begin(string planterId, LocalDate start) =>
            [.. plan.DisplaysOf(planterId).Where(d => IsMeant(d) && d.Install >= start && d.Install < start.PlusYears(1)).OrderBy(d => d.Install)];

        private Planter? Pair() =>
            plan.PlantersOfLook(planter.Survey.LookGroup)
                .Where(p => p.Id != planter.Id && !p.IsRetired && Begin(p.Id, question.Start).Count > 0)
                .OrderByDescending(p => p.Form == planter.Form)
                .FirstOrDefault();

        private void Copy(IReadOnlyList<Display> sources, Func<Display, Display> when)
        {
            if (sources.Count == 0)
                Say(ActHinder.NothingThere);
            foreach (Display source in sources)
            {
                Display then = when(source);
                var recipe = new Recipe(
                    source.Id,
                    source.Id,
                    source.Layer,
                    plan.FindPlanter(source.PlanterId)!.Form,
                    [.. source.Items.Where(i => i.Since is null || i.Since >= source.Install).Select(i => i with { Since = null })]
                );
                int days = Period.DaysBetween(source.Install, then.Install);
                // Only what stayed on stood in it: whether that stays again is said by the display before.
                if (recipe.Items.Count > 0)
                    PutIn(recipe, then.Install, then.Lift, d =>
                        d with
                        {
                            Cuts =
                            [
                                .. source
                                    .Cuts.Select(c => c with { Day = c.Day.PlusDays(days) })
                                    .Where(c => c.Day > d.Install && c.Day < d.Lift && d.Items.Any(i => i.PlantId == c.PlantId)),
                            ],
                            Pairs =
                            [
                                .. source.Pairs.Where(p =>
                                    d.Items.Any(i => i.PlantId == p.FirstPlantId) && d.Items.Any(i => i.PlantId == p.SecondPlantId)
                                ),
                            ],
                        }
                    );
            }
        }

        private Display AYearLater(Display display)
        {
            LocalDate install = AYearLater(display.Install);
            LocalDate lift = display.IsOpenEnded ? Display.OpenEnd(install) : AYearLater(display.Lift);
            return display with { Install = install, Lift = lift > install ? lift : install.PlusDays(FewestDays) };
        }

        // On the same day of the turn that follows a year after its turn, where there is one.
        private LocalDate AYearLater(LocalDate day)
        {
            LocalDate plain = day.PlusYears(1);
            if (plan.Turns.FirstOrDefault(t => t.Holds(day)) is not { } turn)
                return plain;
            LocalDate expected = turn.FirstDay.PlusYears(1);
            Turn? next = plan
                .Turns.Where(t => t.Id != turn.Id && Math.Abs(Period.DaysBetween(expected, t.FirstDay)) <= ActQuestion.NearTurnDays)
                .OrderBy(t => Math.Abs(Period.DaysBetween(expected, t.FirstDay)))
                .FirstOrDefault();
            if (next is null)
                return plain;
            LocalDate same = next.FirstDay.PlusDays(Period.DaysBetween(turn.FirstDay, day));
            return same <= next.LastDay ? same : next.LastDay;
        }

        private void PutIn(Recipe recipe, LocalDate install, LocalDate lift, Func<Display, Display>? finish = null)
        {
            if (install < question.From)
            {
                Say(ActHinder.Begun);
                return;
            }
            ScaledRecipe scaled = ScaledRecipe.For(recipe, planter, plan.Site, plan.Plant);
            foreach (RecipeChange left in scaled.Changes.Where(c => c.To == 0))
                Say(ActHinder.LeftOut, ("plant", left.Plant));
            List<DisplayItem> items = [.. scaled.Items.Where(i => i.Count > 0)];
            if (items.Count == 0)
            {
                Say(ActHinder.NothingFits);
                return;
            }
            List<Display> layer = [.. _displays.Where(d => d.Layer == recipe.Layer)];
            Display? standing = layer.Find(d => d.StandsOn(install));
            LocalDate? next = layer.Where(d => d.Install > install && d.Install < lift).Select(d => (LocalDate?)d.Install).Min();
            // Bedding gives way as at a turn; what stands for years, and bulbs in the ground, do not.
            bool givesWay = standing is null || (recipe.Layer == DisplayLayer.Seasonal && standing.Install < install);
            if (!givesWay || (next is { } soon && Period.DaysBetween(install, soon) < FewestDays))
            {
                Display at = standing is not null && !givesWay ? standing : layer.First(d => d.Install == next);
                Say(ActHinder.LayerTaken, ("layer", recipe.Layer), ("from", at.Install), ("to", at.Lift));
                return;
            }
            if (next is { } on)
            {
                lift = on;
                Say(ActHinder.Shortened, ("on", on));
            }
            string id = Ids.From($"{planter.Id}-{recipe.Layer}-{install.ToString("uuuu-MM", null)}", taken.Contains);
            var display = new Display(id, planter.Id, recipe.Layer, install, lift, items);
            Display? cut = standing is null
                ? null
                : standing with
                {
                    Lift = install,
                    Cuts = [.. standing.Cuts.Where(c => c.Day < install)],
                    Items =
                    [
                        .. standing
                            .Items.Where(i => !(i.Since >= install))
                            .Select(i => question.Stays.Contains(i.PlantId, StringComparer.Ordinal) ? i with { Fate = PlantFate.Stays } : i),
                    ],
                };
            Display? before = cut ?? layer.Find(d => d.Lift == install);
            if (before is not null)
                display = TurnChange.WithStays(before, display);
            display = finish?.Invoke(display) ?? display;
            if (IsFaulty(display) || (cut is not null && IsFaulty(cut)))
                return;
            taken.Add(id);
            if (cut is not null)
                _displays[_displays.IndexOf(standing!)] = cut;
            _displays.Add(display);
        }

        private void Move(IReadOnlyList<Display> meant, Func<Display, int> by)
        {
            Dictionary<string, int> days = meant
                .Where(d => d.Install >= question.From && d.Install.PlusDays(by(d)) >= question.From)
                .ToDictionary(d => d.Id, by, StringComparer.Ordinal);
            if (meant.Count == 0)
                Say(ActHinder.NothingThere);
            else if (days.Count < meant.Count)
                Say(ActHinder.Begun);
            if (days.Count > 0 && days.Values.All(d => d == 0))
                Say(ActHinder.AsItIs);
            List<Display> moved = [.. _displays.Select(d => Moved(d, days))];
            foreach (Display display in moved.Where((d, i) => !ReferenceEquals(d, _displays[i])))
            {
                if (IsFaulty(display))
                    return;
                // What it runs into keeps its place, and so does it.
                Display? other = moved.Find(o =>
                    o.Id != display.Id && o.Layer == display.Layer && o.Install < display.Lift && display.Install < o.Lift
                );
                if (other is not null)
                {
                    Say(ActHinder.LayerTaken, ("layer", other.Layer), ("from", other.Install), ("to", other.Lift));
                    return;
                }
            }
            _displays.Clear();
            _displays.AddRange(moved);
        }

        // What follows at once moves with it where it moves too; what came before at once ends when it goes in.
        private Display Moved(Display display, Dictionary<string, int> days)
        {
            int By(LocalDate install) =>
                _displays.Find(d => d.Layer == display.Layer && d.Install == install) is { } d ? days.GetValueOrDefault(d.Id) : 0;
            int by = days.GetValueOrDefault(display.Id);
            bool isFollowed = _displays.Exists(d => d.Layer == display.Layer && d.Install == display.Lift);
            int ends = isFollowed ? By(display.Lift) : by;
            if (by == 0 && ends == 0)
                return display;
            LocalDate install = display.Install.PlusDays(by);
            LocalDate lift = display.IsOpenEnded ? Display.OpenEnd(install) : display.Lift.PlusDays(ends);
            return display with
            {
                Install = install,
                Lift = lift,
                Cuts = [.. display.Cuts.Select(c => c with { Day = c.Day.PlusDays(by) }).Where(c => c.Day > install && c.Day < lift)],
                Items =
                [
                    .. display.Items.Select(i =>
                        i.Since is not { } since ? i
                        : since > display.Install ? i with { Since = since.PlusDays(by) }
                        : i with { Since = since.PlusDays(By(since)) }
                    ),
                ],
            };
        }

        private void Replace(Plant old, Plant fresh)
        {
            List<Display> holding =
            [
                .. _displays.Where(d =>
                    IsMeant(d) && d.Lift > question.Start && d.Install < question.Start.PlusYears(1) && d.Items.Any(i => i.PlantId == old.Id)
                ),
            ];
            if (holding.Count == 0)
                Say(ActHinder.NothingThere);
            foreach (Display display in holding)
            {
                if (!Display.CanHold(display.Layer, fresh))
                {
                    Say(ActHinder.CannotStand, ("plant", fresh), ("layer", display.Layer));
                    continue;
                }
                if (display.Install < question.From)
                {
                    Say(ActHinder.Begun);
                    continue;
                }
                Display replaced = Replaced(display, old, fresh);
                if (!IsFaulty(replaced))
                    _displays[_displays.IndexOf(display)] = replaced;
            }
        }

        private static Display Replaced(Display display, Plant old, Plant fresh)
        {
            double Wide(Plant p) => (p.SpreadAtPurchaseCm + p.MatureSpreadCm) / 2;
            // As much of the surface is covered as before; in a stack as many bulbs flower, and one plant stays one.
            double ratio = display.Layer == DisplayLayer.Bulbs || Wide(fresh) <= 0 ? 1 : Math.Pow(Wide(old) / Wide(fresh), 2);
            var items = new List<DisplayItem>();
            foreach (DisplayItem item in display.Items)
            {
                int count = item.Count == 1 ? 1 : Math.Clamp((int)Math.Round(item.Count * ratio), 1, DisplayItem.MostCount);
                DisplayItem next =
                    item.PlantId != old.Id
                        ? item
                        : item with
                        {
                            PlantId = fresh.Id,
                            Count = count,
                            DepthCm = null,
                            Form = null,
                            Places = count == item.Count ? item.Places : null,
                        };
                int same = items.FindIndex(i => i.PlantId == next.PlantId && i.Since == next.Since && i.Form == next.Form);
                if (same >= 0 && next.PlantId == fresh.Id)
                    items[same] = items[same] with { Count = items[same].Count + next.Count, Places = null };
                else
                    items.Add(next);
            }
            string Named(string id) => id == old.Id ? fresh.Id : id;
            return display with
            {
                Items = items,
                Cuts = [.. display.Cuts.Where(c => c.PlantId != old.Id)],
                Pairs =
                [
                    .. display
                        .Pairs.Select(p => p with { FirstPlantId = Named(p.FirstPlantId), SecondPlantId = Named(p.SecondPlantId) })
                        .Where(p => p.FirstPlantId != p.SecondPlantId)
                        .Distinct(),
                ],
            };
        }

        private void TakeOut()
        {
            List<Display> meant = Begin(planter.Id, question.Start);
            List<Display> ahead = [.. meant.Where(d => d.Install >= question.From)];
            if (meant.Count == 0)
                Say(ActHinder.NothingThere);
            else if (ahead.Count < meant.Count)
                Say(ActHinder.Begun);
            foreach (Display display in ahead)
                _displays.Remove(display);
        }

        private bool IsFaulty(Display display)
        {
            if (display.Faults() is not [var fault, ..])
                return false;
            Say(ActHinder.Faulty, ("fault", $"{fault}"));
            return true;
        }

        private void Say(ActHinder hinder, params (string, object?)[] parts)
        {
            var fact = new Fact(hinder, parts);
            if (_remarks.TrueForAll(r => r.Key != fact.Key))
                _remarks.Add(fact);
        }

        private PlanterAct Result()
        {
            Dictionary<string, Display> was = plan.DisplaysOf(planter.Id).ToDictionary(d => d.Id, StringComparer.Ordinal);
            HashSet<string> stay = [.. _displays.Select(d => d.Id)];
            List<Display> after = [.. _displays.Where(d => was.TryGetValue(d.Id, out Display? before) && !ReferenceEquals(before, d))];
            return new PlanterAct(
                planter,
                [.. after.Select(d => was[d.Id])],
                after,
                [.. _displays.Where(d => !was.ContainsKey(d.Id))],
                [.. was.Values.Where(d => !stay.Contains(d.Id))],
                _remarks
            );
        }
    }
}

using System.Collections;
using System.Globalization;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Proposing;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Solver;

namespace UnrulyMeadow.Solver.Tests;

/// <summary>Whole years proposed: for the demo's planters, for random sites in other climates, and against every choice tried by hand.</summary>
public sealed class YearProposingTests
{
    private static readonly LocalDate Start = new(2027, 9, 1);
    private static readonly Plan Demo = Shipped.Plan;
    private static readonly SiteFlowering Flowering = new(Shipped.Record, Start);
    private static readonly SeasonKernel Kernel = new(Shipped.Record, Start);
    private static readonly YearWish Two = new(Start, Start, ["bollard-pot-north", "bollard-pot-south"]);
    private static readonly IReadOnlyList<BitArray> NeverInColour = [new BitArray(366)];
    private static readonly Lazy<YearProposal> OfTwo = new(() => Propose(Two));

    [Fact]
    public void Nothing_is_proposed_that_a_check_speaks_against_and_every_year_brings_what_it_says()
    {
        YearProposal proposal = Propose(Two with { PlanterIds = ["bollard-pot-north", "bollard-pot-south", "ticket-trough-west", "shade-trough"] });
        Assert.NotEmpty(proposal.Years);
        foreach (ProposedYear year in proposal.Years)
        {
            Assert.Empty(Against(Demo, year, Checks));
            Assert.All(year.Units, u => Assert.True(u.After.Sum(s => s.DaysInColour) >= u.Before.Sum(s => s.DaysInColour)));
        }
        // Each is best at what it is named for.
        ProposedYear? Of(YearCharacter character) => proposal.Years.FirstOrDefault(y => y.Character == character);
        decimal cheapest = Of(YearCharacter.Cheapest)?.Cost ?? decimal.MaxValue;
        Assert.All(proposal.Years, y => Assert.True(y.Cost >= cheapest || cheapest == decimal.MaxValue));
        Assert.True(Of(YearCharacter.Richest)!.Gained <= Of(YearCharacter.Richest)!.Bound);
    }

    [Fact]
    public void Planters_of_a_look_group_are_planted_alike_on_the_same_days()
    {
        ProposedUnit unit = Assert.Single(OfTwo.Value.Years[0].Units);
        Assert.Equal(2, unit.Unit.Planters.Count);
        Assert.NotEmpty(unit.Pieces);
        foreach (YearPiece piece in unit.Pieces)
        {
            Assert.Equal(piece.Displays[0].Install, piece.Displays[1].Install);
            Assert.Equal(piece.Displays[0].Items, piece.Displays[1].Items);
        }
    }

    [Fact]
    public void What_is_settled_stays_what_is_never_wanted_stays_away_and_colours_are_kept_to()
    {
        ProposedUnit before = OfTwo.Value.Years[0].Units[0];
        YearPiece other = before.Others.SelectMany(o => o).First();
        string never = before
            .Pieces.SelectMany(p => p.Displays[0].Items)
            .First(i => other.Displays[0].Items.All(o => o.PlantId != i.PlantId))
            .PlantId;
        YearWish again = Two with { Locks = [new PieceLock("bollard-pot-north", other.Id)], Never = [never] };
        Assert.All(Propose(again).Years, y =>
        {
            Assert.Contains(y.Units[0].Pieces, p => p.Id == other.Id);
            Assert.DoesNotContain(y.Units[0].Pieces.SelectMany(p => p.Displays).SelectMany(d => d.Items), i => i.PlantId == never);
        });
        YearWish white = Two with { Colours = ColourWords.ShadesOf(ColourWord.White) };
        foreach (YearPiece piece in Propose(white).Years.SelectMany(y => y.Units).SelectMany(u => u.Pieces).Where(p => p.Recipe is null))
            Assert.All(piece.Displays[0].Items, i => Assert.True(white.Wants(Demo.Plant(i.PlantId)), i.PlantId));
    }

    [Fact]
    public void Units_that_are_alike_and_settled_alike_are_given_the_same_and_one_settled_by_itself_its_own()
    {
        Planter pot = Demo.FindPlanter("bollard-pot-north")! with { Place = null, Skyline = null, Survey = PlanterSurvey.Unseen };
        Plan row = new(
            Demo.Site,
            Demo.Areas,
            [.. Enumerable.Range(1, 3).Select(i => pot with { Id = $"pot-{i}", Name = $"Pot {i}" })],
            Demo.Palette,
            [],
            []
        );
        YearWish all = Two with { PlanterIds = [.. row.Planters.Select(p => p.Id)] };
        ProposedUnit first = Propose(all, row).Years[0].Units[0];
        YearPiece other = first.Others.SelectMany(o => o).First();
        YearProposal settled = Propose(all with { Locks = [.. row.Planters.Take(2).Select(p => new PieceLock(p.Id, other.Id))] }, row);
        Assert.All(settled.Years, y =>
        {
            Assert.All(y.Units.Take(2), u => Assert.Contains(u.Pieces, p => p.Id == other.Id));
            Assert.Equal(y.Units[0].Pieces.Select(p => p.Id), y.Units[1].Pieces.Select(p => p.Id));
        });
        Assert.DoesNotContain(settled.Years[0].Units[2].Pieces, p => p.Id == other.Id);
    }

    [Fact]
    public void Every_day_of_work_falls_into_a_turn_of_the_plan_or_one_that_is_made_for_it()
    {
        Plan plan = new(
            Demo.Site,
            Demo.Areas,
            Demo.Planters,
            Demo.Palette,
            [],
            [new Turn("own", "October 2027", new(2027, 10, 15), new(2027, 10, 20))]
        );
        Display Of(string planter, LocalDate install, LocalDate lift) =>
            new($"{planter}-{install:uuuu-MM-dd}", planter, DisplayLayer.Seasonal, install, lift, [new DisplayItem("petunia-magenta", 3)]);
        Display[] displays =
        [
            Of("bollard-pot-north", new(2027, 10, 16), new(2028, 3, 13)),
            Of("bollard-pot-south", new(2027, 10, 24), new(2028, 3, 15)),
            Of("great-pot", new(2028, 5, 1), Display.OpenEnd(new LocalDate(2028, 5, 1))),
        ];
        IReadOnlyList<Turn> made = TurnCalendar.Missing(plan, displays, new LocalDate(2027, 10, 1));
        Assert.Equal(["24 October 2027", "March 2028", "May 2028"], made.Select(t => t.Name));
        Assert.All(made, t => Assert.Empty(t.Faults()));
        Plan with = new(plan.Site, plan.Areas, plan.Planters, plan.Palette, displays, [.. plan.Turns, .. made]);
        Assert.Empty(TurnCalendar.Missing(with, displays, new LocalDate(2027, 10, 1)));
    }

    [Fact]
    public void A_budget_holds_and_wishes_that_contradict_each_other_are_named()
    {
        decimal rich = OfTwo.Value.Years[0].Cost;
        YearProposal poor = Propose(Two with { Budget = Math.Floor(rich / 3) });
        Assert.All(poor.Years, y => Assert.True(y.Cost <= Math.Floor(rich / 3)));
        Assert.All(Propose(Two with { Budget = 0 }).Years, y => Assert.Equal(0, y.Cost));
        string Fault(YearWish wish) => string.Join("; ", Assert.Throws<InvalidInputException>(() => Propose(wish)).Faults);
        Assert.Contains(
            "conflicts with the favourites",
            Fault(Two with { Never = ["snowdrop"], Favourites = ["snowdrop"] }),
            StringComparison.Ordinal
        );
        Assert.Contains("must name at least one", Fault(Two with { PlanterIds = [] }), StringComparison.Ordinal);
        Assert.Contains("turns", Fault(Two with { Turns = 9 }), StringComparison.Ordinal);
        YearPiece dear = OfTwo.Value.Years[0].Units[0].Pieces.MaxBy(p => p.Cost)!;
        Assert.Contains(
            "budget: conflicts with what is settled",
            Fault(Two with { Budget = 1, Locks = [new PieceLock("bollard-pot-north", dear.Id)] }),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "conflict with the palette",
            Fault(Two with { Colours = ["#00ff00"], Never = [.. Demo.Palette.Select(p => p.Id)] }),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void What_is_planned_stays_unless_it_may_make_way()
    {
        var now = new LocalDate(2026, 11, 26);
        var year = new LocalDate(2026, 9, 1);
        var flowering = new SiteFlowering(Shipped.Record, year);
        var kernel = new SeasonKernel(Shipped.Record, year);
        YearWish wish = new(year, now, ["bollard-pot-north", "bollard-pot-south"]);
        YearProposal keeps = YearProposing.Propose(Demo, kernel, flowering, wish, Checks);
        Assert.Empty(keeps.Removed);
        Apply(Demo, keeps, keeps.Years[0]);
        YearProposal makesWay = YearProposing.Propose(Demo, kernel, flowering, wish with { KeepsPlanned = false }, Checks);
        Assert.NotEmpty(makesWay.Removed);
        Assert.All(makesWay.Removed, d => Assert.True(d.Install >= now && d.Layer != DisplayLayer.Standing));
        Apply(Demo, makesWay, makesWay.Years[0]);
    }

    [Fact]
    public void No_choice_tried_by_hand_beats_the_bound_nor_what_was_chosen()
    {
        var random = new Random(11);
        for (int round = 0; round < 12; round++)
        {
            ProposalUnit one = new([Demo.FindPlanter("bollard-pot-north")!]);
            ProposalUnit two = new([Demo.FindPlanter("shade-trough")!]);
            var units = new[] { one, two }
                .Select(u => (u, (IReadOnlyList<YearPiece>)[.. Enumerable.Range(0, 7).Select(i => Piece(u, i, random))], NeverInColour))
                .ToList();
            YearWish wish = Two with { Budget = round % 2 == 0 ? null : 60, LongestBareDays = 365 };
            List<List<YearPiece>> choices = [.. Choices(units[0].Item2).SelectMany(a => Choices(units[1].Item2).Select(b => a.Concat(b).ToList()))];
            if (wish.Budget is { } budget)
                choices.RemoveAll(c => c.Sum(p => p.Cost) > budget);
            int Days(IEnumerable<YearPiece> choice) =>
                choice.GroupBy(p => p.Displays[0].PlanterId, StringComparer.Ordinal).Sum(g => YearProposing.Covered([.. g]));
            int best = choices.Max(Days);
            (var chosen, double bound) = YearProposing.Choose(units, wish, YearCharacter.Richest, 20, TestContext.Current.CancellationToken);
            Assert.True(best <= bound, $"{best} by hand, at most {bound} by the solver");
            Assert.True(Days(chosen.SelectMany(c => c)) >= best * 0.95);
            Assert.True(chosen.SelectMany(c => c).Sum(p => p.Cost) <= (wish.Budget ?? decimal.MaxValue));
        }
    }

    [Fact]
    public void The_cheapest_year_leaves_no_bare_run_that_another_choice_could_close_and_none_is_cheaper()
    {
        var random = new Random(5);
        int compared = 0;
        for (int round = 0; round < 12; round++)
        {
            ProposalUnit unit = new([Demo.FindPlanter("shade-trough")!]);
            IReadOnlyList<YearPiece> pieces = [.. Enumerable.Range(0, 8).Select(i => Piece(unit, i, random))];
            // What is in colour already breaks a run as well as anything that is bought.
            var inColour = new BitArray(366);
            for (int d = 30 * random.Next(8), end = d + (60 * (round % 3)); d < end && d < 366; d++)
                inColour[d] = true;
            YearWish wish = Two with { LongestBareDays = 40 };
            int Runs(IReadOnlyList<YearPiece> choice) => BareRuns(pieces, choice, inColour, wish.LongestBareDays);
            List<List<YearPiece>> choices = [.. Choices(pieces)];
            (var chosen, double bound) = YearProposing.Choose(
                [(unit, pieces, [inColour])],
                wish,
                YearCharacter.Cheapest,
                20,
                TestContext.Current.CancellationToken
            );
            if (choices.Min(Runs) > 0)
                continue;
            compared++;
            decimal least = choices.Where(c => Runs(c) == 0).Min(c => c.Sum(p => p.Cost));
            Assert.Equal(0, Runs(chosen[0]));
            Assert.Equal(least, chosen[0].Sum(p => p.Cost));
            Assert.True((double)least >= bound - 1e-6);
        }
        Assert.True(compared >= 4, $"{compared} rounds had a choice that leaves no run bare");
    }

    [Fact]
    public void What_speaks_against_a_display_is_the_same_with_and_without_its_remedies()
    {
        Display[] some = [.. Demo.Displays.Where((_, i) => i % 4 == 0)];
        // Set out in January, most of them cannot stand.
        Display[] early =
        [
            .. some.Where(d => d.Layer == DisplayLayer.Seasonal)
                .Take(6)
                .Select(d =>
                    d with
                    {
                        Install = Start.PlusMonths(4),
                        Lift = Start.PlusMonths(6),
                        Cuts = [],
                        Items = [.. d.Items.Select(i => i with { Since = null })],
                    }
                ),
        ];
        Assert.All(some.Concat(early), d => Assert.Equal(Looking.For(d).Any(r => r.SpeaksAgainst), Looking.SpeakAgainst(d)));
        Assert.Contains(early, d => Looking.SpeakAgainst(d));
        Assert.Contains(some, d => !Looking.SpeakAgainst(d));
    }

    [Fact]
    public void A_crew_turns_as_often_as_it_said_in_order_and_tender_plants_wait_for_the_all_clear()
    {
        var time = new PlantingTime(Kernel);
        Plan without = new(Demo.Site, Demo.Areas, Demo.Planters, Demo.Palette, [], []);
        for (int turns = YearWish.FewestTurns; turns <= YearWish.MostTurns; turns++)
        {
            IReadOnlyList<TurnSlot> slots = TurnCalendar.Of(without, without.Planters, Two with { Turns = turns }, Flowering, time);
            Assert.Equal(turns, slots.Count);
            Assert.All(slots.Zip(slots.Skip(1)), s => Assert.Equal(s.First.To, s.Second.From));
            Assert.Equal(slots[0].From.PlusYears(1), slots[^1].To);
            Assert.All(slots, s => Assert.True(Demo.Site.Rules.WorksOn(s.From)));
            TurnSlot bulbs = Assert.Single(slots, s => s.TakesBulbs);
            Assert.InRange(bulbs.From, new LocalDate(2027, 10, 1), new LocalDate(2027, 12, 15));
            Assert.Contains(slots, s => s.From >= Flowering.AllClear && s.From <= Flowering.AllClear.PlusDays(14));
        }
        // A turn that the crew has planned near the day is the one that is meant; what is past is no longer asked for.
        Turn own = new("own", "Own", new LocalDate(2027, 10, 22), new LocalDate(2027, 10, 26));
        Plan with = new(Demo.Site, Demo.Areas, Demo.Planters, Demo.Palette, [], [own]);
        Assert.Equal(own.FirstDay, TurnCalendar.Of(with, with.Planters, Two, Flowering, time).Single(s => s.TakesBulbs).From);
        // What is past is caught up with in a week, where that leaves some weeks to the next.
        IReadOnlyList<TurnSlot> late = TurnCalendar.Of(with, with.Planters, Two with { From = new LocalDate(2027, 12, 1) }, Flowering, time);
        Assert.InRange(late[0].From, new LocalDate(2027, 12, 8), new LocalDate(2027, 12, 11));
        Assert.True(late[0].TakesBulbs);
        LocalDate justBefore = late[1].From.PlusDays(-20);
        Assert.Equal(late[1].From, TurnCalendar.Of(with, with.Planters, Two with { From = justBefore }, Flowering, time)[0].From);
    }

    [Theory]
    [InlineData(40.7, new double[] { 0.5, 1.6, 6, 12, 17, 22, 25, 24, 20, 14, 8.5, 3 }, 4.2)]
    [InlineData(47.6, new double[] { 5, 6, 8, 10.5, 14, 16.5, 19.5, 19.5, 16.5, 12, 7.5, 4.5 }, 4)]
    [InlineData(33.4, new double[] { 13, 15, 18, 22, 27, 32, 35, 34, 31, 25, 18, 13 }, 7)]
    [InlineData(-37.8, new double[] { 20, 20.2, 18, 15, 12.3, 10, 9.5, 10.5, 12.3, 14.3, 16.5, 18.5 }, 5)]
    [InlineData(44.9, new double[] { -9, -6.5, 0.5, 8.5, 15.5, 20.5, 23, 21.5, 17, 9.5, 1.5, -6 }, 5)]
    public void Random_sites_in_other_climates_get_years_that_pass_every_check(double latitude, double[] means, double half)
    {
        // One site of each climate; MEADOW_SITES asks for more.
        int sites = int.TryParse(Environment.GetEnvironmentVariable("MEADOW_SITES"), CultureInfo.InvariantCulture, out int asked) ? asked : 1;
        var wrong = new List<string>();
        for (int seed = 0; seed < sites; seed++)
            wrong.AddRange(Wrong(latitude, means, half, (int)latitude + (1000 * seed)).Select(w => $"site {seed}: {w}"));
        Assert.True(wrong.Count == 0, string.Join("\n", wrong));
    }

    // What the product's own checks say against the years proposed for a random site.
    private static List<string> Wrong(double latitude, double[] means, double half, int seed)
    {
        var random = new Random(seed);
        MonthlyNormals normals = new([.. means.Select(m => m - half)], [.. means.Select(m => m + half)], null, "continental");
        WeatherRecord record = WeatherGenerator.Generate(normals.At(new Station("s", "s", latitude, 0, 0)), 3 + (seed / 1000), 2000, 16);
        LocalDate start = latitude < 0 ? new LocalDate(2027, 3, 1) : Start;
        var flowering = new SiteFlowering(record, start);
        var kernel = new SeasonKernel(record, start);
        Planter[] planters =
        [
            .. Enumerable
                .Range(0, 3)
                .Select(i => new Planter
                {
                    Id = $"p{i}",
                    AreaId = "a",
                    Name = $"P{i}",
                    Form =
                        i == 2
                            ? PlanterForm.Trough(90 + random.Next(60), 30 + random.Next(15), 85, 28, 30 + random.Next(15))
                            : PlanterForm.Round(40 + random.Next(40), 30 + random.Next(8), 35 + random.Next(25)),
                    Exposure = (Exposure)random.Next(3),
                    Watering = Watering.Hand,
                    ViewedFrom = ViewedFrom.AllRound,
                    Wall = random.Next(2) == 0 ? WallMaterial.Terracotta : WallMaterial.Concrete,
                    WallColour = "#77706a",
                }),
        ];
        Plan empty = new(Site.Default, [new Area("a", "A", 0)], planters, Demo.Palette, [], [], recipes: Shipped.Recipes);
        Func<Plan, DisplayChecks> looked = new DisplayChecks(empty, record, s => s == start ? flowering : new SiteFlowering(record, s)).On;
        YearWish wish = new(start, start, [.. planters.Select(p => p.Id)]) { Turns = 2 + random.Next(4) };
        YearProposal proposal = YearProposing.Propose(empty, kernel, flowering, wish, looked);
        return
        [
            .. proposal.Years.SelectMany(y => Against(empty, y, looked)),
            .. proposal.Years[0].Units.Any(u => u.Pieces.Count > 0) ? Array.Empty<string>() : ["nothing is proposed"],
        ];
    }

    private static YearProposal Propose(YearWish wish, Plan? plan = null) =>
        YearProposing.Propose(plan ?? Demo, Kernel, Flowering, wish, Checks, cancel: TestContext.Current.CancellationToken);

    private static readonly DisplayChecks Looking = new(Demo, Shipped.Record, s => s == Start ? Flowering : new SiteFlowering(Shipped.Record, s));

    private static DisplayChecks Checks(Plan plan) => Looking.On(plan);

    private static Plan Apply(Plan plan, YearProposal proposal, ProposedYear year) =>
        plan.Changed([.. proposal.Removed.Select(d => d.Id)], [.. year.Units.SelectMany(u => u.Pieces).SelectMany(p => p.Displays)]);

    // What the checks of the product say against what is proposed, on a plan that holds all of it.
    private static List<string> Against(Plan plan, ProposedYear year, Func<Plan, DisplayChecks> checks)
    {
        Display[] displays = [.. year.Units.SelectMany(u => u.Pieces).SelectMany(p => p.Displays)];
        DisplayChecks with = checks(plan.Changed([], displays));
        return [.. displays.SelectMany(d => with.For(d)).Where(r => r.SpeaksAgainst).Select(r => $"{year.Character} {r.DisplayId}: {r.Says}")];
    }

    private static YearPiece Piece(ProposalUnit unit, int number, Random random)
    {
        int slot = random.Next(4);
        int slots = Math.Min(4 - slot, 1 + random.Next(2));
        var gains = new BitArray(366);
        int from = (slot * 90) + random.Next(30);
        for (int d = from; d < Math.Min(366, from + 20 + random.Next(90 * slots)); d++)
            gains[d] = true;
        var layer = (DisplayLayer)random.Next(3);
        var display = new Display(
            $"d{number}",
            unit.Lead.Id,
            layer,
            Start.PlusDays(slot * 90),
            Start.PlusDays((slot + slots) * 90),
            [new DisplayItem("viola-purple", 3)]
        );
        return new YearPiece(
            $"{unit.Lead.Id} {number}",
            slot,
            slots,
            layer,
            [display],
            [gains],
            random.Next(100),
            random.Next(5, 40),
            random.Next(60),
            0
        );
    }

    private static IEnumerable<List<YearPiece>> Choices(IReadOnlyList<YearPiece> pieces) =>
        Enumerable
            .Range(0, 1 << pieces.Count)
            .Select(bits => pieces.Where((_, i) => (bits >> i & 1) == 1).ToList())
            .Where(c => !c.Any(a => c.Any(b => !ReferenceEquals(a, b) && a.Conflicts(b))));

    // Runs of bare days that are too long and that some piece could have broken.
    private static int BareRuns(IReadOnlyList<YearPiece> pieces, IReadOnlyList<YearPiece> choice, BitArray inColour, int longest)
    {
        bool Breaks(IReadOnlyList<YearPiece> of, int from) => Enumerable.Range(from, longest + 1).Any(d => of.Any(p => p.Gains[0][d]));
        return Enumerable
            .Range(0, 366 - longest)
            .Count(d => !Enumerable.Range(d, longest + 1).Any(x => inColour[x]) && Breaks(pieces, d) && !Breaks(choice, d));
    }
}

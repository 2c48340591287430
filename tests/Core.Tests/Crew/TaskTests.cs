using CsCheck;
using NodaTime;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Work;

namespace UnrulyMeadow.Core.Tests.Crew;

/// <summary>Work that is given, told and done: counted once, whatever arrives in which order, and the plan follows what really went in.</summary>
public sealed class TaskTests
{
    private static readonly LocalDate Monday = A.Day(2027, 5, 17);
    private static readonly Turn Summer = new("summer", "Summer", Monday.PlusDays(-3), Monday.PlusDays(10));
    private static readonly string[] Names = ["Ada", "Bruno", "Cleo"];
    private static readonly Guid[] People = [.. Names.Select(_ => Guid.NewGuid())];

    // Pansies come out; 24 petunias, 12 ivies and 6 daisies go in, of which some are at hand.
    private static Plan Plan(params Lot[] lots) =>
        new(
            Site.Default with
            {
                SpareShare = 0,
            },
            [new Area("quay", "Quay", 0)],
            [A.UsedPot()],
            [A.Annual("pansy"), A.Annual("petunia"), A.Annual("ivy"), A.Annual("daisy")],
            [
                A.Show("spring", A.Day(2027, 3, 1), Monday, DisplayLayer.Seasonal, new DisplayItem("pansy", 20) { Fate = PlantFate.Compost }),
                A.Show(
                    "summer",
                    Monday,
                    A.Day(2027, 10, 1),
                    DisplayLayer.Seasonal,
                    new DisplayItem("petunia", 24),
                    new DisplayItem("ivy", 12),
                    new DisplayItem("daisy", 6)
                ),
            ],
            [Summer],
            lots: lots
        );

    private static Lot Lot(string plant, int count) =>
        new($"{plant}-lot", plant, count, LotState.Waiting, "bench", Monday.PlusDays(-5), LotCondition.Good);

    private static GivenTask Given(Plan plan, LocalDate? day = null) =>
        new(Guid.CreateVersion7(), CrewTasks.Between(plan, [], Monday, Monday)[0], day ?? Monday, People);

    private static KeptEntry Says(GivenTask given, int who, int at, IReadOnlyList<EntryLine> lines, LocalDate? day = null) =>
        new(
            new TaskEntry(
                Guid.CreateVersion7(DateTimeOffset.UnixEpoch.AddDays(20_000).AddMinutes(at)),
                given.Id,
                day ?? given.Day,
                given.Asked.Mark,
                lines
            ),
            Names[who],
            Instant.FromUnixTimeSeconds(at),
            People[who]
        );

    private static TaskLine Line(GivenTask given, LineKind kind, string? plant = null) =>
        given.Asked.Lines.First(l => l.Kind == kind && (plant is null || l.PlantId == plant));

    private static IReadOnlyList<EntryLine> Everything(GivenTask given, params EntryLine[] otherwise) =>
        [.. given.Asked.Lines.Select(l => otherwise.FirstOrDefault(o => o.Line == l.Number) ?? new EntryLine(l.Number, l.Count))];

    private static readonly Gen<(int Who, int At, int Line, int Done, int Short)[]> Stories = Gen.Select(
        Gen.Int[0, 2],
        Gen.Int[0, 10_000],
        Gen.Int[0, 5],
        Gen.Int[0, 30],
        Gen.Int[0, 6]
    ).Array[0, 12];

    [Fact]
    public void What_was_told_adds_up_to_the_same_in_whatever_order_and_however_often_it_arrives() =>
        Gen.Select(Stories, Gen.Int[0, 1000])
            .Sample(
                (story, seed) =>
                {
                    GivenTask given = Given(Plan());
                    List<KeptEntry> entries = Told(given, story);
                    List<KeptEntry> shuffled = [.. entries, .. entries.Take(seed % 4)];
                    new Random(seed).Shuffle(System.Runtime.InteropServices.CollectionsMarshal.AsSpan(shuffled));
                    TaskAccount one = TaskAccount.Of(given, entries);
                    TaskAccount other = TaskAccount.Of(given, shuffled);
                    Assert.Equal(one.State, other.State);
                    Assert.Equal(one.Lines.Select(l => (l.Done, l.Short, l.CameAs)), other.Lines.Select(l => (l.Done, l.Short, l.CameAs)));
                    Assert.Equal(one.Entries.Select(e => e.It.Id), other.Entries.Select(e => e.It.Id));
                },
                iter: 300
            );

    [Fact]
    public void Two_people_who_tick_the_same_line_count_its_plants_once_and_that_they_disagree_is_said()
    {
        GivenTask given = Given(Plan());
        int petunias = Line(given, LineKind.In, "petunia").Number;
        TaskAccount same = TaskAccount.Of(given, [Says(given, 0, 1, [new(petunias, 24)]), Says(given, 1, 2, [new(petunias, 24)])]);
        LineState line = same.Lines.Single(l => l.Line.Number == petunias);
        Assert.Equal((24, false), (line.Done, line.Disagrees));
        Assert.Equal(["Ada", "Bruno"], line.By);
        LineState apart = TaskAccount
            .Of(given, [Says(given, 0, 1, [new(petunias, 18)]), Says(given, 1, 2, [new(petunias, 24)])])
            .Lines.Single(l => l.Line.Number == petunias);
        Assert.Equal((24, true), (apart.Done, apart.Disagrees));
        // Whoever corrects a slip of their own is believed.
        LineState mended = TaskAccount
            .Of(given, [Says(given, 0, 5, [new(petunias, 18)]), Says(given, 0, 2, [new(petunias, 24)])])
            .Lines.Single(l => l.Line.Number == petunias);
        Assert.Equal((18, false), (mended.Done, mended.Disagrees));
    }

    [Fact]
    public void A_bed_six_plants_short_is_done_and_the_season_follows_what_went_in_on_the_day_it_did()
    {
        Plan plan = Plan(Lot("petunia", 24));
        GivenTask given = Given(plan, Monday.PlusDays(1));
        int petunias = Line(given, LineKind.In, "petunia").Number;
        TaskAccount account = TaskAccount.Of(given, [Says(given, 0, 1, Everything(given, new EntryLine(petunias, 18, ShortReason.Missing)))]);
        Assert.Equal(TaskState.Done, account.State);
        PlantedWork work = PlantedWork.Of(plan, account);
        Plan after = After(plan, work);
        Display summer = after.Displays.Single(d => d.Id == "summer");
        Assert.Equal(Monday.PlusDays(1), summer.Install);
        Assert.Equal(Monday.PlusDays(1), after.Displays.Single(d => d.Id == "spring").Lift);
        Assert.Equal(18, summer.Items.Single(i => i.PlantId == "petunia").Count);
        // Of the 24 that the stock held, 18 went in and 6 were not there.
        Assert.Equal(new LotUse("petunia-lot", 18, 6), Assert.Single(work.Uses));
        Assert.Empty(CrewTasks.Between(after, [], Monday.PlusDays(-5), Monday.PlusDays(5)));

        // The planner wants them after all: six more are to be planted, and bought, and no more than that.
        (_, IReadOnlyList<Display> wanted, int plants) = PlantedWork.Rest(after, account);
        Plan again = after.Changed(["summer"], wanted);
        Assert.Equal(6, plants);
        CrewTask rest = Assert.Single(CrewTasks.Between(again, [], Monday.PlusDays(-5), Monday.PlusDays(5)));
        Assert.Equal([("petunia", 6)], rest.Lines.Where(l => l.Kind == LineKind.In).Select(l => (l.PlantId!, l.Count)));
        Assert.DoesNotContain(rest.Lines, l => l.Kind is LineKind.Out or LineKind.Medium);
        Assert.Equal(6, Assert.Single(TurnOrder.For(again, Summer, Monday).Lines).Purchase.Wanted);
    }

    [Fact]
    public void What_went_in_instead_of_another_kind_stands_in_the_plan_and_is_taken_from_its_own_lot()
    {
        Plan plan = Plan(Lot("daisy", 40));
        GivenTask given = Given(plan);
        int ivies = Line(given, LineKind.In, "ivy").Number;
        PlantedWork work = PlantedWork.Of(
            plan,
            TaskAccount.Of(given, [Says(given, 1, 1, Everything(given, new EntryLine(ivies, 12, CameAs: "daisy")))])
        );
        Plan after = After(plan, work);
        Display summer = after.Displays.Single(d => d.Id == "summer");
        Assert.DoesNotContain(summer.Items, i => i.PlantId == "ivy");
        Assert.Equal(18, summer.Items.Where(i => i.PlantId == "daisy").Sum(i => i.Count));
        Assert.Equal(18, work.Uses.Sum(u => u.Planted));
        Assert.True(Changeover.Of(after, after.Planters[0]).Single(c => c.Day == Monday).IsPlanted);
    }

    // Whatever is told: nothing is planted twice or out of nowhere, the plan still holds together, and what is neither planted nor given up
    // is asked again.
    [Fact]
    public void Plants_planted_lost_and_left_are_those_that_were_there_whatever_is_told() =>
        Gen.Select(Stories, Gen.Int[0, 40], Gen.Int[0, 40], Gen.Int[-2, 6])
            .Sample(
                (story, petunias, ivies, daysLate) =>
                {
                    Plan plan = Plan(Lot("petunia", petunias), Lot("ivy", ivies));
                    GivenTask given = Given(plan, Monday.PlusDays(daysLate));
                    // Whoever tells last says that no more will be done of any line.
                    List<KeptEntry> told = Told(given, story);
                    foreach (LineState line in TaskAccount.Of(given, told).Lines.Where(l => !l.IsSettled))
                        told.Add(Says(given, 0, 20_000 + line.Line.Number, [new EntryLine(line.Line.Number, line.Done, ShortReason.NoRoom)]));
                    TaskAccount account = TaskAccount.Of(given, told);
                    Assert.Equal(TaskState.Done, account.State);
                    PlantedWork work = PlantedWork.Of(plan, account);
                    Assert.Null(work.Refused);
                    Plan after = After(plan, work);
                    Assert.Equal(account.Lines.Where(l => l.Line.Kind == LineKind.In).Sum(l => l.Done), work.Plantings.Sum(p => p.Count));
                    foreach (Lot lot in plan.Lots)
                    {
                        int left = after.Lots.Single(l => l.Id == lot.Id).Count;
                        Assert.InRange(left, 0, lot.Count);
                        LotUse? use = work.Uses.FirstOrDefault(u => u.LotId == lot.Id);
                        Assert.Equal(lot.Count, left + (use?.Planted ?? 0) + (use?.Lost ?? 0));
                    }
                    foreach (Display display in after.Displays.Where(d => d.Id == "summer"))
                    {
                        foreach (IGrouping<string, DisplayItem> kind in display.Items.GroupBy(i => i.PlantId))
                            Assert.Equal(kind.Sum(i => i.Count), after.Records.CountOf("summer", kind.Key));
                    }
                    // Worked out again, the task is not asked a second time.
                    Assert.DoesNotContain(CrewTasks.Between(after, [], Monday.PlusDays(-9), Monday.PlusDays(9)), t =>
                        t.Lines.Any(l => l.Kind == LineKind.In)
                    );
                },
                iter: 300
            );

    [Fact]
    public void A_task_is_there_once_whether_the_plan_wants_it_or_somebody_has_it_and_a_moved_plan_is_said_not_followed()
    {
        Plan plan = Plan();
        GivenTask given = Given(plan);
        TaskAccount account = TaskAccount.Of(given, []);
        WorkItem item = Assert.Single(WorkItem.Of(CrewTasks.Between(plan, [], Monday, Monday), [account]));
        Assert.Null(item.Difference);
        Plan fewer = plan.Changed(
            ["summer"],
            [plan.Displays[1] with { Items = [new DisplayItem("petunia", 12), new DisplayItem("ivy", 12), new DisplayItem("daisy", 6)] }]
        );
        WorkItem moved = Assert.Single(WorkItem.Of(CrewTasks.Between(fewer, [], Monday, Monday), [account]));
        (TaskLine Line, int Given, int Wanted) differs = Assert.Single(moved.Difference!.Lines, l => l.Line.Kind == LineKind.In);
        Assert.Equal(("petunia", 24, 12), (differs.Line.PlantId, differs.Given, differs.Wanted));
        Assert.Equal(24, Line(moved.Account!.Given, LineKind.In, "petunia").Count);

        // Accepted, a phone that still shows the sheet before is understood, though its lines have other numbers.
        Plan otherwise = plan.Changed(["summer"], [plan.Displays[1] with { Items = [new DisplayItem("daisy", 6), new DisplayItem("petunia", 12)] }]);
        GivenTask accepted = given.Asking(CrewTasks.Between(otherwise, [], Monday, Monday)[0]);
        TaskAccount told = TaskAccount.Of(accepted, [Says(given, 0, 1, [new(Line(given, LineKind.In, "daisy").Number, 6)])]);
        Assert.Equal(6, told.Lines.Single(l => l.Line.PlantId == "daisy").Done);
        Assert.Equal(0, told.Lines.Single(l => l.Line.PlantId == "petunia").Done);

        // Gone from the plan, it is not gone from the hands of those who have it.
        Assert.True(Assert.Single(WorkItem.Of([], [account])).Difference!.IsGone);
        Assert.Single(
            WorkItem.Of(CrewTasks.Between(plan, [], Monday, Monday), [account with { Given = given with { Stage = GivenStage.Withdrawn } }])
        );
    }

    [Fact]
    public void What_only_comes_out_is_asked_once_though_nothing_planted_tells_of_it()
    {
        Plan plan = A.Plan([A.Annual("pansy")], A.Show("spring", A.Day(2027, 3, 1), Monday, DisplayLayer.Seasonal, new DisplayItem("pansy", 20)));
        GivenTask given = Given(plan);
        TaskAccount account = TaskAccount.Of(given, [Says(given, 0, 1, Everything(given), Monday.PlusDays(2))]);
        PlantedWork work = PlantedWork.Of(plan, account);
        Plan after = After(plan, work);
        Assert.Equal(Monday.PlusDays(2), after.Displays[0].Lift);
        IReadOnlyList<CrewTask> wanted = CrewTasks.Between(after, [], Monday, Monday.PlusDays(5));
        Assert.Single(wanted);
        Assert.Single(WorkItem.Of(wanted, [account with { Given = given with { Stage = GivenStage.Done } }]));
    }

    private static List<KeptEntry> Told(GivenTask given, (int Who, int At, int Line, int Done, int Short)[] story) =>
        [
            .. story
                .DistinctBy(s => s.At)
                .Select(s =>
                    Says(
                        given,
                        s.Who,
                        s.At,
                        [new EntryLine(given.Asked.Lines[s.Line % given.Asked.Lines.Count].Number, s.Done, s.Short < 4 ? (ShortReason)s.Short : null)]
                    )
                ),
        ];

    private static Plan After(Plan plan, PlantedWork work)
    {
        Dictionary<string, int> used = work.Uses.ToDictionary(u => u.LotId, u => u.Planted + u.Lost);
        return plan.Changed([.. work.Before.Select(d => d.Id)], work.After)
            .WithLots([.. plan.Lots.Select(l => l with { Count = l.Count - used.GetValueOrDefault(l.Id) }), .. work.Kept])
            .With(new PlanRecords([.. plan.Records.Plantings, .. work.Plantings], LabourTable.Usual));
    }
}

using System.Text.Json;
using Dapper;
using NodaTime;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Care;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Core.Work;

namespace UnrulyMeadow.Store;

/// <summary>A task as it was given, with the version it was read at.</summary>
/// <param name="Account">The task, with all that was told of it.</param>
/// <param name="Version">Its version.</param>
/// <param name="Refused">Why the plan could not follow what was done; null where it could.</param>
/// <param name="IsSettled">True once a planner has said that what was done otherwise stays so.</param>
/// <param name="Photographs">Photographs of it.</param>
public sealed record KeptTask(TaskAccount Account, long Version, string? Refused, bool IsSettled, IReadOnlyList<Guid> Photographs)
{
    /// <summary>The task.</summary>
    public GivenTask Given => Account.Given;
}

/// <summary>What became of an entry that was sent.</summary>
/// <param name="Id">The entry.</param>
/// <param name="Why">Why it was refused; null where it is kept.</param>
public sealed record EntryAnswer(Guid Id, TaskRefusal? Why);

/// <summary>Tasks that were given, and what was told of them.</summary>
/// <param name="database">The site's part of the database.</param>
/// <param name="plans">The door to the plan: what was planted becomes part of it in the same transaction.</param>
/// <param name="json">How parts of a plan are kept.</param>
public sealed class CrewStore(SiteDatabase database, PlanStore plans, JsonSerializerOptions json)
{
    /// <summary>Most entries that are taken at once.</summary>
    public const int MostEntries = 1000;

    /// <summary>Most photographs of one task.</summary>
    public const int MostPhotographs = 20;

    private const string Columns =
        "id, task_id, day, place, stage, asked::text as asked, earlier::text as earlier, array_to_string(people, ' ') as people, applied::text as applied, refused, settled, version";

    private readonly JsonSerializerOptions _json = new(json) { RespectRequiredConstructorParameters = false, WriteIndented = false };

    /// <summary>Tasks that were given for days between two, both included, and those of any day before that are still open.</summary>
    public Task<IReadOnlyList<KeptTask>> Between(LocalDate first, LocalDate last) =>
        Read("(day between @first and @last or (stage = 'Given' and day < @first))", new { first, last });

    /// <summary>Tasks of care that were given for days between two, both included.</summary>
    public Task<IReadOnlyList<KeptTask>> CareBetween(LocalDate first, LocalDate last) =>
        Read(
            "task_id like @care and day between @first and @last",
            new
            {
                care = CareTasks.IdBegins + "%",
                first,
                last,
            }
        );

    /// <summary>A mark of what was told of care between two days: another as soon as anything is given or told.</summary>
    public Task<string> CareMark(LocalDate first, LocalDate last) => Mark(CareTasks.IdBegins + "%", first, last);

    /// <summary>A mark of what was told of work between two days: another as soon as anything is given or told.</summary>
    public Task<string> Mark(LocalDate first, LocalDate last) => Mark("%", first, last);

    private async Task<string> Mark(string tasks, LocalDate first, LocalDate last)
    {
        await using NpgsqlConnection connection = await database.Open();
        return await connection.QuerySingleAsync<string>(
            """
            select concat_ws(' ', max(g.version), count(distinct g.id), count(e.id))
            from given_task g
            left join task_entry e on e.given_id = g.id
            where g.task_id like @tasks and g.day between @first and @last
            """,
            new
            {
                tasks,
                first,
                last,
            }
        );
    }

    /// <summary>Minutes of people by the planter's id, told of work between two days.</summary>
    public async Task<IReadOnlyDictionary<string, double>> Minutes(LocalDate first, LocalDate last) =>
        PlanterMinutes.Of((await Read("day between @first and @last", new { first, last })).Select(k => k.Account));

    /// <summary>Every task that is open, and those done of some planters.</summary>
    public Task<IReadOnlyList<KeptTask>> OpenOrOf(IReadOnlyCollection<string> taskIds) =>
        Read("(stage = 'Given' or task_id = any(@ids))", new { ids = taskIds.ToArray() });

    /// <summary>A task that was given; null where there is none.</summary>
    public async Task<KeptTask?> Find(Guid id) => (await Read("id = @id", new { id })).SingleOrDefault();

    /// <summary>Gives tasks to people for a day.</summary>
    /// <param name="tasks">The tasks, as they are asked.</param>
    /// <param name="day">The day.</param>
    /// <param name="to">To whom; nobody for what is only written down.</param>
    /// <param name="by">Who gives them.</param>
    /// <exception cref="InvalidInputException">One of them is given already, or was written down wrongly.</exception>
    public async Task<IReadOnlyList<Guid>> Give(IReadOnlyList<CrewTask> tasks, LocalDate day, IReadOnlyList<Guid> to, Guid? by)
    {
        if (tasks.SelectMany(t => t.Faults()).ToList() is { Count: > 0 } faults)
            throw new InvalidInputException(faults);
        await using NpgsqlConnection connection = await database.Open();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        List<NewTask> rows = [.. tasks.Select((t, i) => new NewTask(Guid.CreateVersion7(), t.Id, t, i))];
        int added = await SqlFaults.Naming(() =>
            connection.ExecuteAsync(
                """
                insert into given_task (id, task_id, day, place, stage, asked, people, given_by)
                select r.id, r."taskId", @day, coalesce((select max(place) from given_task where day = @day), 0) + 1 + r.place, 'Given', r.asked, @to, @by
                from jsonb_to_recordset(@rows::jsonb) as r (id uuid, "taskId" text, asked jsonb, place int)
                on conflict (site_id, task_id) where stage = 'Given' do nothing
                """,
                new
                {
                    rows = JsonSerializer.Serialize(rows, _json),
                    day,
                    to = to.ToArray(),
                    by,
                },
                transaction
            )
        );
        if (added < rows.Count)
            throw new InvalidInputException(
                string.Empty,
                $"{(rows.Count - added == 1 ? "One of these was" : $"{rows.Count - added} of these were")} given by somebody else just now: nothing was given. Look at the day again"
            );
        await transaction.CommitAsync();
        return [.. rows.Select(r => r.Id)];
    }

    /// <summary>Moves tasks to another day or to other people.</summary>
    /// <param name="tasks">The tasks, with the versions at which they were read.</param>
    /// <param name="day">The day; null to leave it.</param>
    /// <param name="to">To whom; null to leave it.</param>
    /// <exception cref="LostUpdateException">One of them was changed or done in between.</exception>
    public Task Move(IReadOnlyList<(Guid Id, long Version)> tasks, LocalDate? day, IReadOnlyList<Guid>? to) =>
        Change(tasks, "day = coalesce(@day, day), people = coalesce(@to, people)", new { day, to = to?.ToArray() });

    /// <summary>Takes tasks back. What was told of them stays.</summary>
    /// <exception cref="LostUpdateException">One of them was changed or done in between.</exception>
    public Task Withdraw(IReadOnlyList<(Guid Id, long Version)> tasks) => Change(tasks, "stage = 'Withdrawn'", null);

    /// <summary>Puts the stops of a day in an order.</summary>
    /// <param name="order">The tasks, first to last.</param>
    public async Task Order(IReadOnlyList<Guid> order)
    {
        await using NpgsqlConnection connection = await database.Open();
        await connection.ExecuteAsync(
            "update given_task set place = o.place from unnest(@ids) with ordinality as o (id, place) where given_task.id = o.id and stage = 'Given'",
            new { ids = order.ToArray() }
        );
    }

    /// <summary>Has a task ask what the plan wants now.</summary>
    /// <exception cref="LostUpdateException">It was changed or done in between.</exception>
    public async Task Accept(GivenTask given, long version, CrewTask now)
    {
        GivenTask changed = given.Asking(now);
        await Change(
            [(given.Id, version)],
            "asked = @asked::jsonb, earlier = @earlier::jsonb",
            new { asked = Text(changed.Asked), earlier = Text(changed.Earlier) }
        );
    }

    /// <summary>Who and what there is to do the work with, and the version at which it was read; none before anybody has said.</summary>
    public async Task<(Roster Roster, long Version)> Roster()
    {
        await using NpgsqlConnection connection = await database.Open();
        (string? details, long version) = await connection.QuerySingleOrDefaultAsync<(string?, long)>(
            "select details::text, version from crew_roster"
        );
        return (details is null ? Core.Crew.Roster.None : JsonSerializer.Deserialize<Roster>(details, _json)!, version);
    }

    /// <summary>Writes who and what there is to do the work with.</summary>
    /// <param name="roster">All of it.</param>
    /// <param name="version">The version at which it was read.</param>
    /// <exception cref="InvalidInputException">Something in it is out of range, or somebody would go out twice at once.</exception>
    /// <exception cref="LostUpdateException">Somebody saved in between.</exception>
    public async Task Save(Roster roster, long version)
    {
        if (roster.Faults() is { Count: > 0 } faults)
            throw new InvalidInputException(faults);
        await using NpgsqlConnection connection = await database.Open();
        int saved = await SqlFaults.Naming(() =>
            connection.ExecuteAsync(
                """
                insert into crew_roster (details) select @details::jsonb where @version = 0
                on conflict (site_id) do nothing;

                update crew_roster set details = @details::jsonb where version = @version;
                """,
                new { details = Text(roster), version }
            )
        );
        if (saved == 0)
            throw new LostUpdateException("The roster");
    }

    /// <summary>Says of a task that is done that what was done otherwise stays so.</summary>
    public async Task Settle(Guid id)
    {
        await using NpgsqlConnection connection = await database.Open();
        await connection.ExecuteAsync("update given_task set settled = true where id = @id and stage = 'Done'", new { id });
    }

    /// <summary>
    /// Takes what people have told: each entry once, however often it is sent. What is complete becomes part of the plan and of the stock in
    /// the same transaction. An entry that cannot be kept is refused with the reason, and the others are kept.
    /// </summary>
    /// <param name="entries">Entries, in any order.</param>
    /// <param name="person">Who tells.</param>
    /// <param name="by">What they are called.</param>
    public Task<IReadOnlyList<EntryAnswer>> Tell(IReadOnlyList<TaskEntry> entries, Guid? person, string by) =>
        plans.Write<IReadOnlyList<EntryAnswer>>(async edit =>
        {
            Guid[] ids = [.. entries.Select(e => e.GivenId).Distinct()];
            Dictionary<Guid, Row> rows = (
                await edit.Query<Row>($"select {Columns} from given_task where id = any(@ids) for update", new { ids })
            ).ToDictionary(r => r.Id);
            HashSet<Guid> known =
            [
                .. await edit.Query<Guid>("select id from task_entry where id = any(@ids)", new { ids = entries.Select(e => e.Id).ToArray() }),
            ];
            var answers = new List<EntryAnswer>();
            var kept = new List<TaskEntry>();
            foreach (TaskEntry entry in entries)
            {
                TaskRefusal? why =
                    known.Contains(entry.Id) ? null
                    : entry.Id == Guid.Empty ? TaskRefusal.Unreadable
                    : !rows.TryGetValue(entry.GivenId, out Row? row) ? TaskRefusal.TaskGone
                    : entry.Refusal(row.ToGiven(_json), edit.Before.Plan);
                answers.Add(new EntryAnswer(entry.Id, why));
                if (why is null && known.Add(entry.Id))
                    kept.Add(entry);
            }
            if (kept.Count == 0)
                return answers;
            await edit.Execute(
                """
                insert into task_entry (id, given_id, details, person_id, by)
                select (d ->> 'id')::uuid, (d ->> 'givenId')::uuid, d, @person, @by from jsonb_array_elements(@rows::jsonb) as r (d)
                """,
                new
                {
                    rows = Text(kept),
                    person,
                    by,
                }
            );
            ILookup<Guid, KeptEntry> told = (await Entries(edit.Connection, edit.Transaction, ids)).ToLookup(e => e.It.GivenId);
            HashSet<Guid> come = [.. kept.Select(e => e.Id)];
            Plan plan = edit.Before.Plan;
            var done = new List<string>();
            foreach (Guid id in kept.Select(e => e.GivenId).Distinct())
            {
                GivenTask given = rows[id].ToGiven(_json);
                if (given.Stage == GivenStage.Withdrawn)
                    continue;
                TaskAccount account = TaskAccount.Of(given with { Stage = GivenStage.Given }, told[id]);
                if (given.Stage == GivenStage.Done)
                {
                    // Somebody mends a slip: what was made of it is taken back, and what is told now is followed instead.
                    TaskAccount before = TaskAccount.Of(account.Given, told[id].Where(e => !come.Contains(e.It.Id)));
                    if (before.SaysTheSameAs(account))
                    {
                        await Time(edit, account);
                        continue;
                    }
                    (plan, bool isBack) = await TakeBack(edit, plan, rows[id]);
                    if (!isBack)
                        continue;
                }
                if (account.State != TaskState.Done)
                    continue;
                plan = await Follow(edit, plan, account);
                await Time(edit, account);
                done.Add(given.Asked.Place);
            }
            edit.Says(
                done.Count == 0 ? "the day's work told"
                : done.Count == 1 ? $"{done[0]}: done, as the crew told"
                : $"{done.Count} tasks done, as the crew told"
            );
            return answers;
        });

    /// <summary>Keeps a photograph of a task, once however often it is sent.</summary>
    /// <exception cref="InvalidInputException">The task is gone, or has as many as it may have.</exception>
    public async Task AddPhotograph(Guid id, Guid givenId, byte[] jpeg, byte[] thumb, Guid? person)
    {
        await using NpgsqlConnection connection = await database.Open();
        int added = await SqlFaults.Naming(() =>
            connection.ExecuteAsync(
                """
                insert into task_photo (id, given_id, jpeg, thumb, person_id)
                select @id, @givenId, @jpeg, @thumb, @person
                where exists (select from given_task where id = @givenId)
                  and (select count(*) from task_photo where given_id = @givenId) < @most
                on conflict (site_id, id) do nothing
                """,
                new
                {
                    id,
                    givenId,
                    jpeg,
                    thumb,
                    person,
                    most = MostPhotographs,
                }
            )
        );
        if (added == 0 && !await connection.ExecuteScalarAsync<bool>("select exists (select from task_photo where id = @id)", new { id }))
            throw new InvalidInputException("photograph", $"the task is gone, or has {MostPhotographs} photographs already");
    }

    /// <summary>A photograph's JPEG, or its small one; null when it is not there.</summary>
    public async Task<byte[]?> Photograph(Guid id, bool small)
    {
        await using NpgsqlConnection connection = await database.Open();
        return await connection.QuerySingleOrDefaultAsync<byte[]>(
            small ? "select thumb from task_photo where id = @id" : "select jpeg from task_photo where id = @id",
            new { id }
        );
    }

    /// <summary>All of it as it is kept in a file, but for photographs.</summary>
    public async Task<CrewDocument> All()
    {
        await using NpgsqlConnection connection = await database.Open();
        List<Row> rows = [.. await connection.QueryAsync<Row>($"select {Columns} from given_task order by day, place, id")];
        return new CrewDocument(
            [.. rows.Select(r => new FiledTask(r.ToGiven(_json) with { To = [] }, r.Settled, r.Refused))],
            [.. (await Entries(connection, null, [.. rows.Select(r => r.Id)])).OrderBy(e => e.It.Id).Select(e => e with { PersonId = null })],
            [
                .. (
                    await connection.QueryAsync<(Guid Given, string Display, string Plant, LocalDate Day, int Count)>(
                        "select given_id, display_id, plant_id, day, count from planting order by id"
                    )
                ).Select(p => new FiledPlanting(p.Given, new Planting(p.Display, p.Plant, p.Day, p.Count))),
            ],
            [
                .. (
                    await connection.QueryAsync<(Guid Given, string Kind, double Ratio)>(
                        "select given_id, kind, ratio from labour_time order by given_id, kind"
                    )
                ).Select(t => new FiledTime(t.Given, Enum.Parse<WorkKind>(t.Kind), t.Ratio)),
            ],
            await Roster() is { Version: > 0 } kept
                ? FiledRoster.Of(kept.Roster, (await People(connection)).ToDictionary(p => p.Id, p => p.Name))
                : null
        );
    }

    private static Task<IEnumerable<(Guid Id, string Name)>> People(NpgsqlConnection connection) =>
        connection.QueryAsync<(Guid, string)>(
            "select p.id, p.name from membership m join person p on p.id = m.person_id where p.left_at is null order by p.name, p.id"
        );

    /// <summary>Brings all of it from a file; what is there already stays as it is.</summary>
    /// <exception cref="InvalidInputException">Something in it is out of range, or does not fit together.</exception>
    public async Task Bring(CrewDocument document)
    {
        document.Faults().ThrowIfAny();
        await using NpgsqlConnection connection = await database.Open();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        Task<int> Put<T>(string sql, IEnumerable<T> rows) =>
            SqlFaults.Naming(() =>
                connection.ExecuteAsync(
                    $"{sql} from jsonb_array_elements(@rows::jsonb) with ordinality as r (d, ordinal) order by ordinal on conflict do nothing",
                    new { rows = Text(rows) },
                    transaction
                )
            );
        await Put(
            """
            insert into given_task (id, task_id, day, place, stage, asked, earlier, refused, settled)
            select (d ->> 'id')::uuid, d ->> 'task', (d ->> 'day')::date, (d ->> 'place')::int, d ->> 'stage', d -> 'asked', d -> 'earlier', d ->> 'refused', (d ->> 'settled')::boolean
            """,
            document.Given.Select(g => new FiledRow(
                g.It.Id,
                g.It.Asked.Id,
                g.It.Day,
                g.It.Place,
                g.It.Stage.ToString(),
                g.It.Asked,
                g.It.Earlier,
                g.Refused,
                g.IsSettled
            ))
        );
        await Put(
            """
            insert into task_entry (id, given_id, details, by, recorded_at)
            select (d -> 'it' ->> 'id')::uuid, (d -> 'it' ->> 'givenId')::uuid, d -> 'it', d ->> 'by', (d ->> 'recordedAt')::timestamptz
            """,
            document.Entries
        );
        await Put(
            """
            insert into planting (given_id, display_id, plant_id, day, count)
            select (d ->> 'givenId')::uuid, d -> 'it' ->> 'displayId', d -> 'it' ->> 'plantId', (d -> 'it' ->> 'day')::date, (d -> 'it' ->> 'count')::int
            """,
            document.Plantings
        );
        await Put(
            "insert into labour_time (given_id, kind, ratio) select (d ->> 'givenId')::uuid, d ->> 'kind', (d ->> 'ratio')::double precision",
            document.Times.Select(t => new TimeRow(t.GivenId, t.Kind.ToString(), t.Ratio))
        );
        if (document.Roster is { } roster)
        {
            Dictionary<string, Guid> people = (await People(connection))
                .DistinctBy(p => p.Name, StringComparer.Ordinal)
                .ToDictionary(p => p.Name, p => p.Id, StringComparer.Ordinal);
            await connection.ExecuteAsync(
                "insert into crew_roster (details) values (@details::jsonb) on conflict do nothing",
                new { details = Text(roster.Among(people)) },
                transaction
            );
        }
        await transaction.CommitAsync();
    }

    /// <summary>Every photograph with the task that it shows.</summary>
    public async Task<IReadOnlyList<(Guid Id, Guid GivenId)>> AllPhotographs()
    {
        await using NpgsqlConnection connection = await database.Open();
        return [.. await connection.QueryAsync<(Guid, Guid)>("select id, given_id from task_photo order by id")];
    }

    // What was done becomes part of the plan, of the stock and of the labour table.
    private async Task<Plan> Follow(PlanEdit edit, Plan plan, TaskAccount account)
    {
        GivenTask given = account.Given;
        PlantedWork work = PlantedWork.Of(plan, account);
        await edit.Execute(
            "update given_task set stage = 'Done', settled = false, refused = @refused, applied = @applied::jsonb where id = @id",
            new
            {
                id = given.Id,
                refused = work.Refused,
                applied = Text(work),
            }
        );
        plan = await Record(edit, plan, given.Id, work.Plantings);
        plan = await Replace(edit, plan, work.Before, work.After);
        if (work.Uses.Count + work.Kept.Count > 0)
        {
            LocalDate day = account.Day ?? given.Day;
            foreach (
                (MovementKind why, Func<LotUse, int> count) in new (MovementKind, Func<LotUse, int>)[]
                {
                    (MovementKind.Planted, u => u.Planted),
                    (MovementKind.Lost, u => u.Lost),
                }
            )
            {
                await edit.Because(why, day);
                foreach (LotUse use in work.Uses.Where(u => count(u) > 0))
                    await edit.Execute("update lot set count = count - @count where id = @LotId", new { use.LotId, count = count(use) });
            }
            await edit.Because(MovementKind.Kept, day);
            await edit.Put(work.Kept);
            Dictionary<string, int> used = work.Uses.ToDictionary(u => u.LotId, u => u.Planted + u.Lost, StringComparer.Ordinal);
            plan = plan.WithLots([
                .. plan.Lots.Select(l => used.TryGetValue(l.Id, out int left) ? l with { Count = l.Count - left } : l),
                .. work.Kept,
            ]);
        }
        return plan;
    }

    // Takes back what was made of a task that is told otherwise now; where the plan was changed since, nothing is, and the task says so.
    private async Task<(Plan Plan, bool IsBack)> TakeBack(PlanEdit edit, Plan plan, Row row)
    {
        PlantedWork? work = row.Applied is null ? null : JsonSerializer.Deserialize<PlantedWork>(row.Applied, _json);
        HashSet<string> touched = [.. (work?.Before ?? []).Select(d => d.Id)];
        string AsText(IEnumerable<Display> displays) => Text(displays.OrderBy(d => d.Id, StringComparer.Ordinal));
        bool isAsLeft =
            work is not null
            && AsText(plan.Displays.Where(d => touched.Contains(d.Id))) == AsText(work.After)
            && !await edit.Connection.ExecuteScalarAsync<bool>(
                "select exists (select from given_task where task_id = @TaskId and stage = 'Given' and id <> @Id)",
                new { row.TaskId, row.Id },
                edit.Transaction
            );
        if (!isAsLeft)
        {
            await edit.Execute(
                "update given_task set settled = false, refused = @why where id = @Id",
                new { row.Id, why = "it was told otherwise after it was done, and the plan was changed in between" }
            );
            return (plan, false);
        }
        await edit.Execute("update given_task set stage = 'Given', refused = null, applied = null where id = @Id", new { row.Id });
        plan = await Record(edit, plan, row.Id, [.. work!.Plantings.Select(p => p with { Count = -p.Count })]);
        plan = await Replace(edit, plan, work.After, work.Before);
        Dictionary<string, int> used = work.Uses.ToDictionary(u => u.LotId, u => u.Planted + u.Lost, StringComparer.Ordinal);
        HashSet<string> kept = [.. work.Kept.Select(l => l.Id)];
        foreach ((string lot, int count) in used)
            await edit.Execute("update lot set count = count + @count where id = @lot", new { lot, count });
        await edit.Execute("delete from lot where id = any(@kept)", new { kept = kept.ToArray() });
        return (
            used.Count + kept.Count == 0
                ? plan
                : plan.WithLots([
                    .. plan
                        .Lots.Where(l => !kept.Contains(l.Id))
                        .Select(l => used.TryGetValue(l.Id, out int back) ? l with { Count = l.Count + back } : l),
                ]),
            true
        );
    }

    private async Task<Plan> Record(PlanEdit edit, Plan plan, Guid given, IReadOnlyList<Planting> plantings)
    {
        if (plantings.Count == 0)
            return plan;
        await edit.Execute(
            """
            insert into planting (given_id, display_id, plant_id, day, count)
            select @given, d ->> 'displayId', d ->> 'plantId', (d ->> 'day')::date, (d ->> 'count')::int
            from jsonb_array_elements(@rows::jsonb) as r (d)
            """,
            new { given, rows = Text(plantings) }
        );
        return plan.With(plan.Records with { Plantings = [.. plan.Records.Plantings, .. plantings] });
    }

    private static async Task<Plan> Replace(PlanEdit edit, Plan plan, IReadOnlyList<Display> before, IReadOnlyList<Display> after)
    {
        if (before.Count + after.Count == 0)
            return plan;
        string[] gone = [.. before.Select(d => d.Id).Except(after.Select(d => d.Id), StringComparer.Ordinal)];
        await edit.CheckLater();
        if (gone.Length > 0)
            await edit.Execute("delete from display where id = any(@gone)", new { gone });
        await edit.Put(after);
        return plan.Changed([.. before.Select(d => d.Id)], after);
    }

    // Minutes that were told teach the labour table; who tells other minutes later is believed.
    private static async Task Time(PlanEdit edit, TaskAccount account)
    {
        CrewTask asked = account.Given.Asked;
        if (account.Minutes is not > 0 || asked.Parts.Count == 0)
            return;
        await edit.Execute(
            """
            insert into labour_time (given_id, kind, ratio) select @id, kind, @ratio from unnest(@kinds) as k (kind)
            on conflict (site_id, given_id, kind) do update set ratio = excluded.ratio
            """,
            new
            {
                id = account.Given.Id,
                ratio = account.Minutes / Math.Max(1, asked.Parts.Sum(p => p.MinutesBy(LabourTable.Usual))),
                kinds = asked.Parts.Select(p => p.Kind.ToString()).Distinct().ToArray(),
            }
        );
    }

    private async Task Change(IReadOnlyList<(Guid Id, long Version)> tasks, string set, object? values)
    {
        await using NpgsqlConnection connection = await database.Open();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        var parameters = new DynamicParameters(values);
        parameters.Add("ids", tasks.Select(t => t.Id).ToArray());
        parameters.Add("versions", tasks.Select(t => t.Version).ToArray());
        int changed = await SqlFaults.Naming(() =>
            connection.ExecuteAsync(
                $"""
                update given_task set {set}
                from unnest(@ids, @versions) as t (id, version)
                where given_task.id = t.id and given_task.version = t.version and stage = 'Given'
                """,
                parameters,
                transaction
            )
        );
        if (changed < tasks.Count)
            throw new LostUpdateException(tasks.Count == 1 ? "This task" : "One of these tasks");
        await transaction.CommitAsync();
    }

    private async Task<IReadOnlyList<KeptTask>> Read(string where, object values)
    {
        await using NpgsqlConnection connection = await database.Open();
        List<Row> rows = [.. await connection.QueryAsync<Row>($"select {Columns} from given_task where {where} order by day, place, id", values)];
        Guid[] ids = [.. rows.Select(r => r.Id)];
        ILookup<Guid, KeptEntry> told = (await Entries(connection, null, ids)).ToLookup(e => e.It.GivenId);
        ILookup<Guid, Guid> photographs = (
            await connection.QueryAsync<(Guid Given, Guid Id)>(
                "select given_id, id from task_photo where given_id = any(@ids) order by recorded_at, id",
                new { ids }
            )
        ).ToLookup(p => p.Given, p => p.Id);
        return
        [
            .. rows.Select(r => new KeptTask(TaskAccount.Of(r.ToGiven(_json), told[r.Id]), r.Version, r.Refused, r.Settled, [.. photographs[r.Id]])),
        ];
    }

    private async Task<List<KeptEntry>> Entries(NpgsqlConnection connection, NpgsqlTransaction? transaction, Guid[] of) =>
        [
            .. (
                await connection.QueryAsync<EntryRow>(
                    "select details::text as details, person_id, by, recorded_at from task_entry where given_id = any(@of)",
                    new { of },
                    transaction
                )
            ).Select(r => new KeptEntry(JsonSerializer.Deserialize<TaskEntry>(r.Details, _json)!, r.By, r.RecordedAt, r.PersonId)),
        ];

    private string Text<T>(T it) => JsonSerializer.Serialize(it, _json);

    private sealed record NewTask(Guid Id, string TaskId, CrewTask Asked, int Place);

    private sealed record FiledRow(
        Guid Id,
        string Task,
        LocalDate Day,
        int Place,
        string Stage,
        CrewTask Asked,
        IReadOnlyList<CrewTask> Earlier,
        string? Refused,
        bool Settled
    );

    private sealed record TimeRow(Guid GivenId, string Kind, double Ratio);

    private sealed record EntryRow(string Details, Guid? PersonId, string By, Instant RecordedAt);

    private sealed record Row(
        Guid Id,
        string TaskId,
        LocalDate Day,
        int Place,
        string Stage,
        string Asked,
        string Earlier,
        string People,
        string? Applied,
        string? Refused,
        bool Settled,
        long Version
    )
    {
        public GivenTask ToGiven(JsonSerializerOptions json) =>
            new(
                Id,
                JsonSerializer.Deserialize<CrewTask>(Asked, json)!,
                Day,
                [.. People.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(Guid.Parse)],
                Enum.Parse<GivenStage>(Stage)
            )
            {
                Place = Place,
                Earlier = JsonSerializer.Deserialize<IReadOnlyList<CrewTask>>(Earlier, json)!,
            };
    }
}

using System.Text.Json;
using Dapper;
using NodaTime;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.SiteMap;
using UnrulyMeadow.Core.Supply;

namespace UnrulyMeadow.Store;

/// <summary>
/// One change of the plan while it is being written: a transaction that holds the site's lock, so that no two changes meet.
/// Rows are written by the thousand in one statement.
/// </summary>
internal sealed class PlanEdit(NpgsqlConnection connection, NpgsqlTransaction transaction, LoadedPlan before, JsonSerializerOptions json)
{
    private static readonly JsonSerializerOptions RowNames = new() { PropertyNamingPolicy = JsonNamingPolicy.SnakeCaseLower };

    /// <summary>The change's id, by which it can be taken back.</summary>
    public Guid Id { get; } = Guid.CreateVersion7();

    /// <summary>What it does, in a few words; null where nobody has said.</summary>
    public string? What { get; private set; }

    /// <summary>The change that it takes back; null for none.</summary>
    public Guid? Undoes { get; private set; }

    /// <summary>False when what was before is kept elsewhere.</summary>
    public bool KeepsParts { get; private set; } = true;

    /// <summary>Says what the change does.</summary>
    /// <param name="what">What, in a few words.</param>
    /// <param name="undoes">The change that it takes back; null for none.</param>
    /// <param name="keepsParts">False when what was before is kept elsewhere.</param>
    public void Says(string what, Guid? undoes = null, bool keepsParts = true) => (What, Undoes, KeepsParts) = (what, undoes, keepsParts);

    /// <summary>The plan as it was when the lock was taken.</summary>
    public LoadedPlan Before => before;

    public NpgsqlConnection Connection => connection;

    public NpgsqlTransaction Transaction => transaction;

    /// <summary>Runs a statement; a broken rule of the database becomes a fault.</summary>
    public Task<int> Execute(string sql, object? values = null) => SqlFaults.Naming(() => connection.ExecuteAsync(sql, values, transaction));

    public Task<IEnumerable<T>> Query<T>(string sql, object? values = null) =>
        SqlFaults.Naming(() => connection.QueryAsync<T>(sql, values, transaction));

    /// <summary>Says why lots change from here on, and of which day.</summary>
    public Task Because(MovementKind kind, LocalDate day) =>
        Execute(
            "select set_config('meadow.movement', @kind, true), set_config('meadow.day', @day, true)",
            new { kind = kind.ToString(), day = Iso(day) }
        );

    /// <summary>Names and layers are looked at once all is written: rows may change places.</summary>
    public Task<int> CheckLater() => Execute("set constraints all deferred");

    /// <summary>Looks at what was put off.</summary>
    public Task<int> CheckNow() => Execute("set constraints all immediate");

    /// <summary>Makes sure that rows are as they were when they were read.</summary>
    /// <param name="table">Their table.</param>
    /// <param name="rows">Their ids with the versions read; null for rows that are not there yet.</param>
    /// <param name="what">Names a row for people.</param>
    /// <exception cref="LostUpdateException">A row was changed or removed since.</exception>
    /// <exception cref="InvalidInputException">A row that should be new is there already.</exception>
    public async Task Expect(string table, IEnumerable<(string Id, long? Version)> rows, Func<string, string> what)
    {
        var expected = rows.ToList();
        var present = (
            await Query<(string Id, long Version)>(
                $"select id, version from {table} where id = any(@ids)",
                new { ids = expected.Select(r => r.Id).ToArray() }
            )
        ).ToDictionary(r => r.Id, r => r.Version, StringComparer.Ordinal);
        foreach ((string id, long? version) in expected)
        {
            bool isThere = present.TryGetValue(id, out long now);
            if (version is null && isThere)
                throw new InvalidInputException("id", "is already used; open the list again and try once more");
            if (version is { } read && (!isThere || now != read))
                throw new LostUpdateException(what(id), isGone: !isThere);
        }
    }

    /// <summary>Removes a row at the version it was read.</summary>
    public async Task Remove(string table, string id, long version, string what)
    {
        await Expect(table, [(id, version)], _ => what);
        await Execute($"delete from {table} where id = @id", new { id });
    }

    public Task Put(IReadOnlyList<Area> areas) =>
        areas.Count == 0
            ? Task.CompletedTask
            : Execute(
                """
                insert into area (id, ordinal, name, frost_pocket_c)
                select r.id, (select coalesce(max(ordinal), 0) from area) + r.ordinal, r.name, r.frost_pocket_c
                from jsonb_to_recordset(@rows::jsonb) as r (id text, ordinal int, name text, frost_pocket_c double precision)
                order by r.ordinal
                on conflict (site_id, id) do update
                set name = excluded.name, frost_pocket_c = excluded.frost_pocket_c
                """,
                new
                {
                    rows = Rows(
                        areas.Select(
                            (a, i) =>
                                new
                                {
                                    a.Id,
                                    ordinal = i + 1,
                                    a.Name,
                                    frost_pocket_c = a.FrostPocketC,
                                }
                        )
                    ),
                }
            );

    public Task Put(IReadOnlyList<Planter> planters) =>
        planters.Count == 0
            ? Task.CompletedTask
            : Execute(
                """
                insert into planter (
                  id, ordinal, area_id, name, shape, top_length_cm, top_width_cm, bottom_length_cm, bottom_width_cm, depth_cm, rim_gap_cm,
                  exposure, watering, viewed_from, wall, wall_colour, note, skyline, outline, survey, place, is_retired, rules)
                select
                  id, (select coalesce(max(ordinal), 0) from planter) + ordinal, area_id, name, shape, top_length_cm, top_width_cm, bottom_length_cm,
                  bottom_width_cm, depth_cm, rim_gap_cm, exposure, watering, viewed_from, wall, wall_colour, note, skyline::jsonb,
                  outline::jsonb, survey::jsonb, place::jsonb, is_retired, rules::jsonb
                from jsonb_to_recordset(@rows::jsonb) as r (
                  ordinal int, id text, area_id text, name text, shape text, top_length_cm double precision, top_width_cm double precision,
                  bottom_length_cm double precision, bottom_width_cm double precision, depth_cm double precision, rim_gap_cm double precision,
                  exposure text, watering text, viewed_from text, wall text, wall_colour text, note text, skyline text,
                  outline text, survey text, place text, is_retired boolean, rules text)
                order by ordinal
                on conflict (site_id, id) do update
                set area_id = excluded.area_id, name = excluded.name, shape = excluded.shape, top_length_cm = excluded.top_length_cm,
                    top_width_cm = excluded.top_width_cm, bottom_length_cm = excluded.bottom_length_cm, bottom_width_cm = excluded.bottom_width_cm,
                    depth_cm = excluded.depth_cm, rim_gap_cm = excluded.rim_gap_cm, exposure = excluded.exposure, watering = excluded.watering,
                    viewed_from = excluded.viewed_from, wall = excluded.wall, wall_colour = excluded.wall_colour, note = excluded.note,
                    skyline = excluded.skyline, outline = excluded.outline, survey = excluded.survey, place = excluded.place,
                    is_retired = excluded.is_retired, rules = excluded.rules
                """,
                new { rows = Rows(planters.Select((p, i) => PlanterRow.From(p, i + 1, json))) }
            );

    public Task Put(IReadOnlyList<Plant> plants) => PutDetails("plant", plants);

    public Task Put(IReadOnlyList<MapFeature> features) => PutDetails("map_feature", features);

    public Task Put(IReadOnlyList<Recipe> recipes) =>
        recipes.Count == 0
            ? Task.CompletedTask
            : Execute(
                """
                insert into recipe (id, name, details)
                select r.details ->> 'id', r.details ->> 'name', r.details
                from jsonb_array_elements(@rows::jsonb) as r (details)
                on conflict (site_id, id) do update
                set name = excluded.name, details = excluded.details
                """,
                new { rows = JsonSerializer.Serialize(recipes, json) }
            );

    public async Task Put(IReadOnlyList<Display> displays)
    {
        if (displays.Count == 0)
            return;
        await Execute(
            """
            insert into display (id, planter_id, layer, during, pairs, cuts)
            select id, planter_id, layer, daterange(install, lift), pairs::jsonb, cuts::jsonb
            from jsonb_to_recordset(@rows::jsonb) as r (id text, planter_id text, layer text, install date, lift date, pairs text, cuts text)
            on conflict (site_id, id) do update
            set planter_id = excluded.planter_id, layer = excluded.layer, during = excluded.during, pairs = excluded.pairs, cuts = excluded.cuts
            """,
            new
            {
                rows = Rows(
                    displays.Select(d => new
                    {
                        d.Id,
                        d.PlanterId,
                        layer = d.Layer.ToString(),
                        install = Iso(d.Install),
                        lift = Iso(d.Lift),
                        pairs = d.Pairs.Count == 0 ? null : JsonSerializer.Serialize(d.Pairs, json),
                        cuts = d.Cuts.Count == 0 ? null : JsonSerializer.Serialize(d.Cuts, json),
                    })
                ),
            }
        );
        await Execute("delete from display_item where display_id = any(@ids)", new { ids = displays.Select(d => d.Id).ToArray() });
        await Execute(
            """
            insert into display_item (display_id, ordinal, plant_id, count, depth_cm, clump, places, since, fate, forced, form)
            select display_id, ordinal, plant_id, count, depth_cm, clump, places::jsonb, since, fate, forced, form
            from jsonb_to_recordset(@rows::jsonb) as r (
              display_id text, ordinal int, plant_id text, count int, depth_cm double precision, clump int, places text,
              since date, fate text, forced boolean, form text)
            """,
            new
            {
                rows = Rows(
                    displays.SelectMany(d =>
                        d.Items.Select(
                            (x, i) =>
                                new
                                {
                                    display_id = d.Id,
                                    ordinal = i,
                                    plant_id = x.PlantId,
                                    x.Count,
                                    depth_cm = x.DepthCm,
                                    x.Clump,
                                    places = x.Places is null ? null : JsonSerializer.Serialize(x.Places, json),
                                    since = Iso(x.Since),
                                    fate = x.Fate?.ToString(),
                                    x.Forced,
                                    x.Form,
                                }
                        )
                    )
                ),
            }
        );
    }

    public Task Put(IReadOnlyList<Turn> turns) =>
        turns.Count == 0
            ? Task.CompletedTask
            : Execute(
                """
                insert into turn (id, name, first_day, last_day, full_by, delivery, people)
                select id, name, first_day, last_day, full_by, delivery, people
                from jsonb_to_recordset(@rows::jsonb) as r (id text, name text, first_day date, last_day date, full_by date, delivery date, people int)
                on conflict (site_id, id) do update
                set name = excluded.name, first_day = excluded.first_day, last_day = excluded.last_day, full_by = excluded.full_by,
                    delivery = excluded.delivery, people = excluded.people
                """,
                new
                {
                    rows = Rows(
                        turns.Select(t => new
                        {
                            t.Id,
                            t.Name,
                            first_day = Iso(t.FirstDay),
                            last_day = Iso(t.LastDay),
                            full_by = Iso(t.FullBy),
                            delivery = Iso(t.Delivery),
                            t.People,
                        })
                    ),
                }
            );

    public Task Put(IReadOnlyList<SiteEvent> events) =>
        events.Count == 0
            ? Task.CompletedTask
            : Execute(
                """
                insert into site_event (id, name, first_day, last_day)
                select id, name, first_day, last_day
                from jsonb_to_recordset(@rows::jsonb) as r (id text, name text, first_day date, last_day date)
                on conflict (site_id, id) do update
                set name = excluded.name, first_day = excluded.first_day, last_day = excluded.last_day
                """,
                new
                {
                    rows = Rows(
                        events.Select(e => new
                        {
                            e.Id,
                            e.Name,
                            first_day = Iso(e.FirstDay),
                            last_day = Iso(e.LastDay),
                        })
                    ),
                }
            );

    public Task Put(IReadOnlyList<Lot> lots) =>
        lots.Count == 0
            ? Task.CompletedTask
            : Execute(
                """
                insert into lot (id, plant_id, count, state, place, since, condition, from_planter_id, note, form)
                select id, plant_id, count, state, place, since, condition, from_planter_id, note, form
                from jsonb_to_recordset(@rows::jsonb) as r (
                  id text, plant_id text, count int, state text, place text, since date, condition text, from_planter_id text, note text, form text)
                on conflict (site_id, id) do update
                set plant_id = excluded.plant_id, count = excluded.count, state = excluded.state, place = excluded.place, since = excluded.since,
                    condition = excluded.condition, from_planter_id = excluded.from_planter_id, note = excluded.note, form = excluded.form
                """,
                new
                {
                    rows = Rows(
                        lots.Select(l => new
                        {
                            l.Id,
                            plant_id = l.PlantId,
                            l.Count,
                            state = l.State.ToString(),
                            l.Place,
                            since = Iso(l.Since),
                            condition = l.Condition.ToString(),
                            from_planter_id = l.FromPlanterId,
                            l.Note,
                            l.Form,
                        })
                    ),
                }
            );

    public Task Put(Site site) =>
        Execute(
            """
            update site
            set name = @Name, units = @units, money = @Money, cover_threshold = @CoverThreshold, spare_share = @SpareShare,
                fresh_medium_cm = @FreshMediumCm, medium_bag_litres = @MediumBagLitres, medium_bag_price = @MediumBagPrice,
                rules = @rules::jsonb, wall_gap_cm = @WallGapCm, bulb_gap_cm = @BulbGapCm, one_person_kg = @OnePersonKg,
                frost_risk = @FrostRisk, time_zone = @TimeZone,
                latitude_deg = @latitude, longitude_deg = @longitude, elevation_m = @elevation, at_elevation = @atElevation,
                version = nextval('edit_version'), revision = revision + 1;

            -- A site that never had a name gets its address with its first; after that its address stays, for links are kept.
            select set_config('meadow.every', 'on', true);

            update site set slug = @slug
            where id = meadow_site() and slug = 'new-site' and not exists (select from site where slug = @slug);

            select set_config('meadow.every', '', true);
            """,
            new
            {
                site.Name,
                slug = Core.Ids.From(site.Name, _ => false),
                units = site.Units.ToString(),
                site.Money,
                site.CoverThreshold,
                site.SpareShare,
                site.FreshMediumCm,
                site.MediumBagLitres,
                site.MediumBagPrice,
                rules = JsonSerializer.Serialize(site.Rules, json),
                site.WallGapCm,
                site.BulbGapCm,
                site.OnePersonKg,
                site.FrostRisk,
                site.TimeZone,
                latitude = site.Place?.LatitudeDeg,
                longitude = site.Place?.LongitudeDeg,
                elevation = site.Place?.ElevationM,
                atElevation = site.Place?.AtElevation ?? false,
            }
        );

    private Task PutDetails<T>(string table, IReadOnlyList<T> items) =>
        items.Count == 0
            ? Task.CompletedTask
            : Execute(
                $"""
                insert into {table} (id, details)
                select r.details ->> 'id', r.details
                from jsonb_array_elements(@rows::jsonb) as r (details)
                on conflict (site_id, id) do update
                set details = excluded.details
                """,
                new { rows = JsonSerializer.Serialize(items, json) }
            );

    private static string? Iso(LocalDate? day) => day is { } known ? Iso(known) : null;

    private static string Iso(LocalDate day) => NodaTime.Text.LocalDatePattern.Iso.Format(day);

    private static string Rows<T>(IEnumerable<T> rows) => JsonSerializer.Serialize(rows, RowNames);
}

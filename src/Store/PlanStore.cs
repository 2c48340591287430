using System.Collections.Concurrent;
using System.Text.Json;
using Dapper;
using NodaTime;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Grounds;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Planting;
using UnrulyMeadow.Core.Plants;

namespace UnrulyMeadow.Store;

/// <summary>Where the plan and the weather stand: equal marks mean that nothing has changed.</summary>
/// <param name="Revision">Rises with every change to the plan.</param>
/// <param name="Version">Version of the settings.</param>
/// <param name="StationId">The station in use; null for none.</param>
/// <param name="StationRevision">Rises with every change to its record; 0 for none.</param>
public sealed record PlanMark(long Revision, int Version, string? StationId, long StationRevision);

/// <summary>Reads the plan whole, writes it whole, and keeps the settings.</summary>
/// <param name="database">The database.</param>
/// <param name="json">How a plant's figures are written as JSON.</param>
public sealed class PlanStore(MeadowDatabase database, JsonSerializerOptions json)
{
    private const string PlanterColumns = """
        id, area_id, name, shape, top_length_cm, top_width_cm, bottom_length_cm, bottom_width_cm,
        depth_cm, rim_gap_cm, exposure, watering, viewed_from, wall, wall_colour, note, skyline::text, outline::text, survey::text, place::text, is_retired, rules::text
        """;

    private const int MostKnown = 50_000;

    private readonly ConcurrentDictionary<string, Plant> _known = new(StringComparer.Ordinal);

    /// <summary>Where plan and weather stand now.</summary>
    public async Task<PlanMark> Mark()
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        return await connection.QuerySingleAsync<PlanMark>("""
            select s.revision, s.version, s.station_id, coalesce(w.revision, 0) as station_revision
            from site s
            left join station w on w.id = s.station_id
            """);
    }

    /// <summary>The whole plan as of one moment.</summary>
    public async Task<Plan> Load()
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync(System.Data.IsolationLevel.RepeatableRead);
        await using SqlMapper.GridReader rows = await connection.QueryMultipleAsync($"""
            select name, units, money, cover_threshold, spare_share, fresh_medium_cm, medium_bag_litres, medium_bag_price,
                   rules::text, wall_gap_cm, bulb_gap_cm, one_person_kg, latitude_deg, longitude_deg, elevation_m, at_elevation
            from site;

            select id, name, frost_pocket_c from area order by ordinal, id;

            select {PlanterColumns} from planter order by ordinal, id;

            select details::text from plant order by id collate "C";

            select id, planter_id, layer, lower(during) as install, upper(during) as lift, pairs::text, cuts::text
            from display
            order by lower(during), id;

            select display_id, plant_id, count, depth_cm, clump, places::text, since, fate, forced from display_item order by display_id, ordinal;

            select id, name, first_day, last_day, full_by, delivery, people from turn order by first_day, id;

            select details::text from map_feature order by id collate "C";

            select id, plant_id, count, state, place, since, condition, from_planter_id, note from lot order by id collate "C";

            select details::text from recipe order by id collate "C";

            select id, name, first_day, last_day from site_event order by first_day, id collate "C";
            """, transaction: transaction);
        SiteRow site = await rows.ReadSingleAsync<SiteRow>();
        List<Area> areas = [.. await rows.ReadAsync<Area>()];
        List<Planter> planters = [.. (await rows.ReadAsync<PlanterRow>()).Select(r => r.ToPlanter(json))];
        List<Plant> palette = [.. (await rows.ReadAsync<string>()).Select(Known)];
        List<DisplayRow> displays = [.. await rows.ReadAsync<DisplayRow>()];
        var items = (await rows.ReadAsync<ItemRow>()).ToLookup(i => i.DisplayId, StringComparer.Ordinal);
        List<Turn> turns = [.. (await rows.ReadAsync<TurnRow>()).Select(r => r.ToTurn())];
        List<MapFeature> map = [.. (await rows.ReadAsync<string>()).Select(t => JsonSerializer.Deserialize<MapFeature>(t, json)!)];
        List<Lot> lots = [.. (await rows.ReadAsync<LotRow>()).Select(r => r.ToLot())];
        List<Recipe> recipes = [.. (await rows.ReadAsync<string>()).Select(t => JsonSerializer.Deserialize<Recipe>(t, json)!)];
        List<SiteEvent> events = [.. await rows.ReadAsync<SiteEvent>()];
        return new Plan(
            site.ToSite(json),
            areas,
            planters,
            palette,
            [.. displays.Select(d => d.ToDisplay(items[d.Id], json))],
            turns,
            map,
            lots,
            recipes,
            events);
    }

    // A plant whose figures did not change stays the same object, with all that was computed for it.
    private Plant Known(string details)
    {
        if (_known.Count > MostKnown)
            _known.Clear();
        return _known.GetOrAdd(details, t => JsonSerializer.Deserialize<Plant>(t, json)!);
    }

    /// <summary>Puts a plan in the place of the present one, whole or not at all. The log and the weather stay.</summary>
    public async Task Replace(Plan plan)
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync("""
            delete from turn;
            delete from site_event;
            delete from lot;
            delete from recipe;
            delete from map_feature;
            delete from display;
            delete from planter;
            delete from area;
            delete from plant;
            """, transaction: transaction);
        await WriteSite(connection, transaction, plan.Site, null, json);
        await connection.ExecuteAsync(
            """
            insert into area (id, ordinal, name, frost_pocket_c)
            select id, ordinal, name, frost_pocket_c
            from jsonb_to_recordset(@rows::jsonb) as r (id text, ordinal int, name text, frost_pocket_c double precision)
            """,
            new { rows = Json(plan.Areas.Select((a, i) => new { a.Id, ordinal = i, a.Name, frost_pocket_c = a.FrostPocketC })) },
            transaction);
        await connection.ExecuteAsync(
            $"""
            insert into planter (ordinal, {PlanterColumns.Replace("::text", string.Empty, StringComparison.Ordinal)})
            select ordinal, {PlanterColumns.Replace("::text", "::jsonb", StringComparison.Ordinal)}
            from jsonb_to_recordset(@rows::jsonb) as r (
              ordinal int, id text, area_id text, name text, shape text, top_length_cm double precision, top_width_cm double precision,
              bottom_length_cm double precision, bottom_width_cm double precision, depth_cm double precision, rim_gap_cm double precision,
              exposure text, watering text, viewed_from text, wall text, wall_colour text, note text, skyline text,
              outline text, survey text, place text, is_retired boolean, rules text)
            """,
            new { rows = Json(plan.Planters.Select((p, i) => PlanterRow.From(p, i, json))) },
            transaction);
        await connection.ExecuteAsync(
            """
            insert into plant (id, details)
            select r.details ->> 'id', r.details
            from jsonb_array_elements(@rows::jsonb) as r (details)
            """,
            new { rows = JsonSerializer.Serialize(plan.Palette, json) },
            transaction);
        await connection.ExecuteAsync(
            """
            insert into display (id, planter_id, layer, during, pairs, cuts)
            select id, planter_id, layer, daterange(install, lift), pairs::jsonb, cuts::jsonb
            from jsonb_to_recordset(@rows::jsonb) as r (id text, planter_id text, layer text, install date, lift date, pairs text, cuts text)
            """,
            new { rows = Json(plan.Displays.Select(d => new { d.Id, planter_id = d.PlanterId, layer = d.Layer.ToString(), install = Iso(d.Install), lift = Iso(d.Lift), pairs = DisplayStore.PairsOf(d, json), cuts = DisplayStore.CutsOf(d, json) })) },
            transaction);
        await connection.ExecuteAsync(
            """
            insert into display_item (display_id, ordinal, plant_id, count, depth_cm, clump, places, since, fate, forced)
            select display_id, ordinal, plant_id, count, depth_cm, clump, places::jsonb, since, fate, forced
            from jsonb_to_recordset(@rows::jsonb) as r (
              display_id text, ordinal int, plant_id text, count int, depth_cm double precision, clump int, places text, since date, fate text, forced boolean)
            """,
            new
            {
                rows = Json(plan.Displays.SelectMany(d => d.Items.Select((x, i) => new { display_id = d.Id, ordinal = i, plant_id = x.PlantId, x.Count, depth_cm = x.DepthCm, x.Clump, places = DisplayStore.PlacesOf(x, json), since = x.Since is { } since ? Iso(since) : null, fate = x.Fate?.ToString(), x.Forced }))),
            },
            transaction);
        await connection.ExecuteAsync(
            """
            insert into turn (id, name, first_day, last_day, full_by, delivery, people)
            select id, name, first_day, last_day, full_by, delivery, people
            from jsonb_to_recordset(@rows::jsonb) as r (id text, name text, first_day date, last_day date, full_by date, delivery date, people int)
            """,
            new { rows = Json(plan.Turns.Select(t => new { t.Id, t.Name, first_day = Iso(t.FirstDay), last_day = Iso(t.LastDay), full_by = Iso(t.FullBy), delivery = Iso(t.Delivery), t.People })) },
            transaction);
        await connection.ExecuteAsync(
            """
            insert into site_event (id, name, first_day, last_day)
            select id, name, first_day, last_day
            from jsonb_to_recordset(@rows::jsonb) as r (id text, name text, first_day date, last_day date)
            """,
            new { rows = Json(plan.Events.Select(e => new { e.Id, e.Name, first_day = Iso(e.FirstDay), last_day = Iso(e.LastDay) })) },
            transaction);
        await connection.ExecuteAsync(
            """
            insert into map_feature (id, details)
            select r.details ->> 'id', r.details
            from jsonb_array_elements(@rows::jsonb) as r (details)
            """,
            new { rows = JsonSerializer.Serialize(plan.Map, json) },
            transaction);
        await connection.ExecuteAsync(RecipeStore.Insert, plan.Recipes.Select(r => RecipeStore.Row(r, json)), transaction);
        await connection.ExecuteAsync(LotStore.Insert, plan.Lots.Select(LotRow.From), transaction);
        await WeatherStore.FollowNearest(connection, transaction);
        await transaction.CommitAsync();
    }

    /// <summary>Saves the settings.</summary>
    /// <param name="site">The settings.</param>
    /// <param name="version">The version they were read at.</param>
    /// <exception cref="LostUpdateException">Someone saved in between.</exception>
    public async Task SaveSite(Site site, int version)
    {
        IReadOnlyList<Fault> faults = site.Faults();
        if (faults.Count > 0)
            throw new InvalidInputException(faults);
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        if (await WriteSite(connection, null, site, version, json) == 0)
            throw new LostUpdateException("The site's settings");
        await WeatherStore.FollowNearest(connection, null);
    }

    /// <summary>Adds an area at the end.</summary>
    /// <exception cref="InvalidInputException">Its name or id is taken, or a figure is out of range.</exception>
    public async Task AddArea(Area area)
    {
        var faults = new FaultList();
        faults.AddAll(string.Empty, area.Faults());
        faults.ThrowIfAny();
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        await SqlFaults.Naming(() => connection.ExecuteAsync(
            """
            insert into area (id, ordinal, name, frost_pocket_c)
            values (@Id, (select coalesce(max(ordinal), 0) + 1 from area), @Name, @FrostPocketC)
            """,
            area));
    }

    private static Task<int> WriteSite(NpgsqlConnection connection, NpgsqlTransaction? transaction, Site site, int? version, JsonSerializerOptions json) =>
        connection.ExecuteAsync(
            """
            update site
            set name = @Name, units = @units, money = @Money, cover_threshold = @CoverThreshold, spare_share = @SpareShare,
                fresh_medium_cm = @FreshMediumCm, medium_bag_litres = @MediumBagLitres, medium_bag_price = @MediumBagPrice,
                rules = @rules::jsonb, wall_gap_cm = @WallGapCm, bulb_gap_cm = @BulbGapCm, one_person_kg = @OnePersonKg,
                latitude_deg = @latitude, longitude_deg = @longitude, elevation_m = @elevation, at_elevation = @atElevation,
                version = version + 1, revision = revision + 1
            where @version::int is null or version = @version
            """,
            new
            {
                site.Name,
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
                latitude = site.Place?.LatitudeDeg,
                longitude = site.Place?.LongitudeDeg,
                elevation = site.Place?.ElevationM,
                atElevation = site.Place?.AtElevation ?? false,
                version,
            },
            transaction);

    private static string? Iso(LocalDate? day) => day is { } known ? Iso(known) : null;

    private static string Iso(LocalDate day) => NodaTime.Text.LocalDatePattern.Iso.Format(day);

    // Column names are written by hand above; only the first letter of short names is lowered here.
    private static string Json<T>(IEnumerable<T> rows) => JsonSerializer.Serialize(rows, RowNames);

    private static readonly JsonSerializerOptions RowNames = new() { PropertyNamingPolicy = JsonNamingPolicy.SnakeCaseLower };

    private sealed record SiteRow(
        string Name, string Units, string Money, double CoverThreshold, double SpareShare, double FreshMediumCm,
        double MediumBagLitres, decimal MediumBagPrice, string Rules, double WallGapCm, double BulbGapCm, double OnePersonKg,
        double? LatitudeDeg, double? LongitudeDeg, double? ElevationM, bool AtElevation)
    {
        public Site ToSite(JsonSerializerOptions json) => new(
            Name, Enum.Parse<SiteUnits>(Units), Money, CoverThreshold, SpareShare, FreshMediumCm, MediumBagLitres, MediumBagPrice,
            WallGapCm, BulbGapCm)
        {
            Rules = JsonSerializer.Deserialize<HouseRules>(Rules, json)!,
            OnePersonKg = OnePersonKg,
            Place = LatitudeDeg is { } latitude && LongitudeDeg is { } longitude && ElevationM is { } elevation
                ? new SitePlace(latitude, longitude, elevation, AtElevation)
                : null,
        };
    }

    internal sealed record DisplayRow(string Id, string PlanterId, string Layer, LocalDate Install, LocalDate Lift, string? Pairs, string? Cuts)
    {
        public Display ToDisplay(IEnumerable<ItemRow> items, JsonSerializerOptions json) =>
            new(Id, PlanterId, Enum.Parse<DisplayLayer>(Layer), Install, Lift, [.. items.Select(i => i.ToItem(json))])
            {
                Pairs = Pairs is null ? [] : JsonSerializer.Deserialize<List<BloomPair>>(Pairs, json)!,
                Cuts = Cuts is null ? [] : JsonSerializer.Deserialize<List<CutBack>>(Cuts, json)!,
            };
    }

    private sealed record TurnRow(string Id, string Name, LocalDate FirstDay, LocalDate LastDay, LocalDate? FullBy, LocalDate? Delivery, int? People)
    {
        public Turn ToTurn() => new(Id, Name, FirstDay, LastDay) { FullBy = FullBy, Delivery = Delivery, People = People };
    }

    internal sealed record ItemRow(string DisplayId, string PlantId, int Count, double? DepthCm, int? Clump, string? Places, LocalDate? Since, string? Fate, bool Forced)
    {
        public DisplayItem ToItem(JsonSerializerOptions json) => new(PlantId, Count, DepthCm)
        {
            Clump = Clump,
            Places = Places is null ? null : JsonSerializer.Deserialize<List<PlanePoint>>(Places, json),
            Since = Since,
            Forced = Forced,
            Fate = Fate is null ? null : Enum.Parse<PlantFate>(Fate),
        };
    }
}

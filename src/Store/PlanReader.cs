using System.Collections.Immutable;
using System.Text.Json;
using Dapper;
using NodaTime;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.SiteMap;

namespace UnrulyMeadow.Store;

/// <summary>Where the plan and the weather stand: equal marks mean that nothing has changed.</summary>
/// <param name="Revision">Rises with every change to the plan.</param>
/// <param name="Version">Version of the settings.</param>
/// <param name="StationId">The station in use; null for none.</param>
/// <param name="StationRevision">Rises with every change to its record; 0 for none.</param>
public sealed record PlanMark(long Revision, long Version, string? StationId, long StationRevision);

/// <summary>The plan as of one moment, with the version of each of its parts read in the same moment.</summary>
/// <param name="Mark">Where plan and weather stand.</param>
/// <param name="Plan">The plan.</param>
/// <param name="Versions">Versions of its parts.</param>
/// <param name="Aside">Stored parts that do not fit the others or cannot be read, and stand beside the plan until somebody mends them.</param>
public sealed record LoadedPlan(PlanMark Mark, Plan Plan, PlanVersions Versions, IReadOnlyList<SetAside> Aside)
{
    /// <summary>All rows that can be read, those that do not fit among them.</summary>
    internal PlanRows Rows { get; init; } = PlanRows.None;
}

/// <summary>Versions of a plan's parts as they were read. A version is never given twice.</summary>
public sealed class PlanVersions
{
    private readonly ImmutableDictionary<(string Table, string Id), long> _known;

    internal PlanVersions(ImmutableDictionary<(string Table, string Id), long> known) => _known = known;

    /// <summary>A planter's; 0 where it is not in the plan, which no row ever has.</summary>
    public long Planter(string id) => Of("planter", id);

    /// <summary>A plant's.</summary>
    public long Plant(string id) => Of("plant", id);

    /// <summary>A display's.</summary>
    public long Display(string id) => Of("display", id);

    /// <summary>A turn's.</summary>
    public long Turn(string id) => Of("turn", id);

    /// <summary>A lot's.</summary>
    public long Lot(string id) => Of("lot", id);

    /// <summary>A recipe's.</summary>
    public long Recipe(string id) => Of("recipe", id);

    /// <summary>An event's.</summary>
    public long Event(string id) => Of("site_event", id);

    /// <summary>A map feature's.</summary>
    public long Feature(string id) => Of("map_feature", id);

    internal long Of(string table, string id) => _known.GetValueOrDefault((table, id));
}

/// <summary>
/// Reads the plan. Of a plan that was read before, only the rows whose versions came since are read, and those that are gone; what
/// cannot be read or does not fit is set aside, and the rest is a plan.
/// </summary>
internal static class PlanReader
{
    public static Task<PlanMark> Mark(NpgsqlConnection connection, NpgsqlTransaction? transaction) =>
        connection.QuerySingleAsync<PlanMark>(
            """
            select s.revision, s.version, s.station_id, coalesce(w.revision, 0) as station_revision
            from site s
            left join station w on w.id = s.station_id
            """,
            transaction: transaction
        );

    /// <summary>Reads within a transaction that sees one moment.</summary>
    /// <param name="connection">The connection.</param>
    /// <param name="transaction">The transaction.</param>
    /// <param name="json">How plants and their like are written as JSON.</param>
    /// <param name="last">The plan as it was read last; null for none.</param>
    public static async Task<LoadedPlan> Load(
        NpgsqlConnection connection,
        NpgsqlTransaction transaction,
        JsonSerializerOptions json,
        LoadedPlan? last
    )
    {
        PlanMark mark = await Mark(connection, transaction);
        PlanRows before = last?.Rows ?? PlanRows.None;
        long toldFrom = await connection.ExecuteScalarAsync<long>("select removals_from from site", transaction: transaction);
        bool whole = before.Since < toldFrom;
        long since = whole ? 0 : before.Since;
        SiteRow siteRow;
        Area[] areas;
        PlanRows rows;
        PlanRecords records;
        await using (
            SqlMapper.GridReader read = await connection.QueryMultipleAsync(
                """
                select name, units, money, cover_threshold, spare_share, fresh_medium_cm, medium_bag_litres, medium_bag_price,
                       rules::text, wall_gap_cm, bulb_gap_cm, one_person_kg, frost_risk, time_zone, latitude_deg, longitude_deg, elevation_m, at_elevation
                from site;

                select id, name, frost_pocket_c from area order by ordinal, id;

                select part, id, version from plan_removal where version > @since and @since > 0;

                select ordinal, id, area_id, name, shape, top_length_cm, top_width_cm, bottom_length_cm, bottom_width_cm, depth_cm, rim_gap_cm,
                       exposure, watering, viewed_from, wall, wall_colour, note, skyline::text, outline::text, survey::text, place::text,
                       is_retired, rules::text, version
                from planter where version > @since;

                select id, details::text, version from plant where version > @since;

                select i.display_id, i.plant_id, i.count, i.depth_cm, i.clump, i.places::text, i.since, i.fate, i.forced, i.form
                from display d join display_item i on i.display_id = d.id where d.version > @since order by i.display_id, i.ordinal;

                select id, planter_id, layer, lower(during) as install, upper(during) as lift, pairs::text, cuts::text, version
                from display where version > @since;

                select id, details::text, version from map_feature where version > @since;

                select id, details::text, version from recipe where version > @since;

                select id, name, first_day, last_day, full_by, delivery, people, version from turn where version > @since;

                select id, plant_id, count, state, place, since, condition, from_planter_id, note, form, version from lot where version > @since;

                select id, name, first_day, last_day, version from site_event where version > @since;

                select id, display_id, plant_id, day, count from planting where id > @planted order by id;

                select kind, count(*)::int as times, avg(ratio) as mean_ratio from labour_time group by kind;
                """,
                new { since, planted = before.Planted },
                transaction
            )
        )
        {
            siteRow = await read.ReadSingleAsync<SiteRow>();
            IReadOnlyList<Area> known = last?.Plan.Areas ?? [];
            areas = [.. (await read.ReadAsync<Area>()).Select(a => known.FirstOrDefault(k => k == a) ?? a)];
            var change = new PlanRowsChange(before, whole, await read.ReadAsync<RemovalRow>());
            rows = before with
            {
                Planters = change.Read(
                    before.Planters,
                    await read.ReadAsync<PlanterRow>(),
                    r => new(r.Id, r.Version, r.Ordinal),
                    r => r.ToPlanter(json)
                ),
                Palette = change.Read(before.Palette, await read.ReadAsync<DetailsRow>(), r => new(r.Id, r.Version), r => r.To<Plant>(json)),
            };
            var items = (await read.ReadAsync<ItemRow>()).ToLookup(i => i.DisplayId, StringComparer.Ordinal);
            rows = rows with
            {
                Displays = change.Read(
                    before.Displays,
                    await read.ReadAsync<DisplayRow>(),
                    r => new(r.Id, r.Version),
                    r => r.ToDisplay(items[r.Id], json)
                ),
                Map = change.Read(before.Map, await read.ReadAsync<DetailsRow>(), r => new(r.Id, r.Version), r => r.To<MapFeature>(json)),
                Recipes = change.Read(before.Recipes, await read.ReadAsync<DetailsRow>(), r => new(r.Id, r.Version), r => r.To<Recipe>(json)),
                Turns = change.Read(before.Turns, await read.ReadAsync<TurnRow>(), r => new(r.Id, r.Version), r => r.ToTurn()),
                Lots = change.Read(before.Lots, await read.ReadAsync<LotRow>(), r => new(r.Id, r.Version), r => r.ToLot()),
                Events = change.Read(before.Events, await read.ReadAsync<EventRow>(), r => new(r.Id, r.Version), r => r.ToEvent()),
            };
            rows = change.Complete(rows, toldFrom);
            List<PlantingRow> plantings = [.. await read.ReadAsync<PlantingRow>()];
            TimesTaken[] times =
            [
                .. (await read.ReadAsync<TimesRow>()).OrderBy(t => t.Kind).Select(t => new TimesTaken(t.Kind, t.Times, t.MeanRatio)),
            ];
            records =
                plantings.Count == 0 && times.SequenceEqual(rows.Times)
                    ? last?.Plan.Records ?? PlanRecords.None
                    : new PlanRecords(
                        [.. last?.Plan.Records.Plantings ?? [], .. plantings.Select(p => new Planting(p.DisplayId, p.PlantId, p.Day, p.Count))],
                        LabourTable.Of(times)
                    );
            rows = rows with { Planted = plantings.Count == 0 ? rows.Planted : plantings[^1].Id, Times = times };
        }
        Site site = PlanRowsChange.Try(() => siteRow.ToSite(json), "site", siteRow.Name, out SetAside? unread) ?? Site.Default;
        site = last?.Plan.Site is { } same && same == site ? same : site;
        Plan plan = Plan.Fitting(
            new PlanParts(
                site,
                last is not null && areas.SequenceEqual(last.Plan.Areas, ReferenceEqualityComparer.Instance) ? last.Plan.Areas : areas,
                rows.Planters.Parts,
                rows.Palette.Parts,
                rows.Displays.Parts,
                rows.Turns.Parts,
                rows.Map.Parts,
                rows.Lots.Parts,
                rows.Recipes.Parts,
                rows.Events.Parts
            ),
            last?.Plan,
            out IReadOnlyList<SetAside> aside
        );
        plan = ReferenceEquals(plan.Records, records) ? plan : plan.With(records);
        IReadOnlyList<SetAside> unreadable = unread is null ? [.. rows.Unread.Values] : [unread, .. rows.Unread.Values];
        return new LoadedPlan(mark, plan, new PlanVersions(rows.Versions), unreadable.Count == 0 ? aside : [.. unreadable, .. aside]) { Rows = rows };
    }

    private sealed record DetailsRow(string Id, string Details, long Version)
    {
        public T? To<T>(JsonSerializerOptions json) => JsonSerializer.Deserialize<T>(Details, json);
    }

    private sealed record PlantingRow(long Id, string DisplayId, string PlantId, LocalDate Day, int Count);

    private sealed record TimesRow(WorkKind Kind, int Times, double MeanRatio);

    private sealed record EventRow(string Id, string Name, LocalDate FirstDay, LocalDate LastDay, long Version)
    {
        public SiteEvent ToEvent() => new(Id, Name, FirstDay, LastDay);
    }

    private sealed record SiteRow(
        string Name,
        string Units,
        string Money,
        double CoverThreshold,
        double SpareShare,
        double FreshMediumCm,
        double MediumBagLitres,
        decimal MediumBagPrice,
        string Rules,
        double WallGapCm,
        double BulbGapCm,
        double OnePersonKg,
        double FrostRisk,
        string? TimeZone,
        double? LatitudeDeg,
        double? LongitudeDeg,
        double? ElevationM,
        bool AtElevation
    )
    {
        public Site ToSite(JsonSerializerOptions json) =>
            new(
                Name,
                Enum.Parse<SiteUnits>(Units),
                Money,
                CoverThreshold,
                SpareShare,
                FreshMediumCm,
                MediumBagLitres,
                MediumBagPrice,
                WallGapCm,
                BulbGapCm
            )
            {
                Rules = JsonSerializer.Deserialize<HouseRules>(Rules, json)!,
                OnePersonKg = OnePersonKg,
                FrostRisk = FrostRisk,
                TimeZone = TimeZone,
                Place =
                    LatitudeDeg is { } latitude && LongitudeDeg is { } longitude && ElevationM is { } elevation
                        ? new SitePlace(latitude, longitude, elevation, AtElevation)
                        : null,
            };
    }

    private sealed record DisplayRow(
        string Id,
        string PlanterId,
        string Layer,
        LocalDate Install,
        LocalDate Lift,
        string? Pairs,
        string? Cuts,
        long Version
    )
    {
        public Display ToDisplay(IEnumerable<ItemRow> items, JsonSerializerOptions json) =>
            new(Id, PlanterId, Enum.Parse<DisplayLayer>(Layer), Install, Lift, [.. items.Select(i => i.ToItem(json))])
            {
                Pairs = Pairs is null ? [] : JsonSerializer.Deserialize<List<BloomPair>>(Pairs, json)!,
                Cuts = Cuts is null ? [] : JsonSerializer.Deserialize<List<CutBack>>(Cuts, json)!,
            };
    }

    private sealed record TurnRow(
        string Id,
        string Name,
        LocalDate FirstDay,
        LocalDate LastDay,
        LocalDate? FullBy,
        LocalDate? Delivery,
        int? People,
        long Version
    )
    {
        public Turn ToTurn() =>
            new(Id, Name, FirstDay, LastDay)
            {
                FullBy = FullBy,
                Delivery = Delivery,
                People = People,
            };
    }

    private sealed record ItemRow(
        string DisplayId,
        string PlantId,
        int Count,
        double? DepthCm,
        int? Clump,
        string? Places,
        LocalDate? Since,
        string? Fate,
        bool Forced,
        string? Form
    )
    {
        public DisplayItem ToItem(JsonSerializerOptions json) =>
            new(PlantId, Count, DepthCm)
            {
                Clump = Clump,
                Places = Places is null ? null : JsonSerializer.Deserialize<List<PlanePoint>>(Places, json),
                Since = Since,
                Forced = Forced,
                Fate = Fate is null ? null : Enum.Parse<PlantFate>(Fate),
                Form = Form,
            };
    }
}

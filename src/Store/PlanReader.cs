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
public sealed record LoadedPlan(PlanMark Mark, Plan Plan, PlanVersions Versions, IReadOnlyList<SetAside> Aside);

/// <summary>Versions of a plan's parts as they were read. A version is never given twice.</summary>
public sealed class PlanVersions
{
    private readonly Dictionary<(string Table, string Id), long> _known = [];

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

    internal void Add(string table, string id, long version) => _known[(table, id)] = version;

    internal long Of(string table, string id) => _known.GetValueOrDefault((table, id));
}

/// <summary>Reads the plan whole. What cannot be read or does not fit is set aside; the rest is a plan.</summary>
internal sealed class PlanReader(JsonSerializerOptions json)
{
    // Parts as they were read last, by the version that they had. A version is never given twice, so a part of the same version is
    // the same part, with all that was computed for it.
    private volatile Dictionary<(string Table, string Id), (long Version, object Part)> _last = [];

    // Settings and areas have no version of their own here; equal ones are the same objects.
    private volatile Site? _site;
    private volatile Area[] _areas = [];

    public static Task<PlanMark> Mark(NpgsqlConnection connection, NpgsqlTransaction? transaction) =>
        connection.QuerySingleAsync<PlanMark>(
            """
            select s.revision, s.version, s.station_id, coalesce(w.revision, 0) as station_revision
            from site s
            left join station w on w.id = s.station_id
            """,
            transaction: transaction
        );

    /// <summary>Reads within a transaction that sees one moment. What was read before in the same version is not read again.</summary>
    public async Task<LoadedPlan> Load(NpgsqlConnection connection, NpgsqlTransaction transaction)
    {
        PlanMark mark = await Mark(connection, transaction);
        var reading = new Reading(_last);
        SiteRow siteRow;
        Area[] areas;
        VersionRow[] planterRows,
            plantRows,
            displayRows,
            featureRows,
            recipeRows;
        List<Turn> turns;
        List<Lot> lots;
        List<SiteEvent> events;
        await using (
            SqlMapper.GridReader rows = await connection.QueryMultipleAsync(
                """
                select name, units, money, cover_threshold, spare_share, fresh_medium_cm, medium_bag_litres, medium_bag_price,
                       rules::text, wall_gap_cm, bulb_gap_cm, one_person_kg, frost_risk, time_zone, latitude_deg, longitude_deg, elevation_m, at_elevation
                from site;

                select id, name, frost_pocket_c from area order by ordinal, id;

                select id, version from planter order by ordinal, id;

                select id, version from plant order by id collate "C";

                select id, version from display order by lower(during), id;

                select id, version from map_feature order by id collate "C";

                select id, version from recipe order by id collate "C";

                select id, name, first_day, last_day, full_by, delivery, people, version from turn order by first_day, id;

                select id, plant_id, count, state, place, since, condition, from_planter_id, note, version from lot order by id collate "C";

                select id, name, first_day, last_day, version from site_event order by first_day, id collate "C";
                """,
                transaction: transaction
            )
        )
        {
            siteRow = await rows.ReadSingleAsync<SiteRow>();
            Area[] known = _areas;
            areas = [.. (await rows.ReadAsync<Area>()).Select(a => Array.Find(known, k => k == a) ?? a)];
            planterRows = [.. await rows.ReadAsync<VersionRow>()];
            plantRows = [.. await rows.ReadAsync<VersionRow>()];
            displayRows = [.. await rows.ReadAsync<VersionRow>()];
            featureRows = [.. await rows.ReadAsync<VersionRow>()];
            recipeRows = [.. await rows.ReadAsync<VersionRow>()];
            turns = reading.Read("turns", "turn", await rows.ReadAsync<TurnRow>(), r => (r.Id, r.Version), r => r.ToTurn());
            lots = reading.Read("lots", "lot", await rows.ReadAsync<LotRow>(), r => (r.Id, r.Version), r => r.ToLot());
            events = reading.Read(
                "events",
                "site_event",
                await rows.ReadAsync<EventRow>(),
                r => (r.Id, r.Version),
                r => new SiteEvent(r.Id, r.Name, r.FirstDay, r.LastDay)
            );
        }
        var changed = new
        {
            planters = reading.Changed("planter", planterRows),
            plants = reading.Changed("plant", plantRows),
            displays = reading.Changed("display", displayRows),
            features = reading.Changed("map_feature", featureRows),
            recipes = reading.Changed("recipe", recipeRows),
        };
        List<Planter> planters;
        List<Plant> palette;
        List<Display> displays;
        List<MapFeature> map;
        List<Recipe> recipes;
        await using (
            SqlMapper.GridReader rows = await connection.QueryMultipleAsync(
                """
                select id, area_id, name, shape, top_length_cm, top_width_cm, bottom_length_cm, bottom_width_cm, depth_cm, rim_gap_cm,
                       exposure, watering, viewed_from, wall, wall_colour, note, skyline::text, outline::text, survey::text, place::text,
                       is_retired, rules::text, version
                from planter where id = any(@planters);

                select id, details::text, version from plant where id = any(@plants);

                select id, planter_id, layer, lower(during) as install, upper(during) as lift, pairs::text, cuts::text, version
                from display where id = any(@displays);

                select display_id, plant_id, count, depth_cm, clump, places::text, since, fate, forced, form
                from display_item where display_id = any(@displays) order by display_id, ordinal;

                select id, details::text, version from map_feature where id = any(@features);

                select id, details::text, version from recipe where id = any(@recipes);
                """,
                changed,
                transaction
            )
        )
        {
            planters = reading.ReadAll("planters", "planter", planterRows, await rows.ReadAsync<PlanterRow>(), r => r.Id, r => r.ToPlanter(json));
            palette = reading.ReadAll(
                "palette",
                "plant",
                plantRows,
                await rows.ReadAsync<DetailsRow>(),
                r => r.Id,
                r => JsonSerializer.Deserialize<Plant>(r.Details, json)
            );
            List<DisplayRow> fresh = [.. await rows.ReadAsync<DisplayRow>()];
            var items = (await rows.ReadAsync<ItemRow>()).ToLookup(i => i.DisplayId, StringComparer.Ordinal);
            displays = reading.ReadAll("displays", "display", displayRows, fresh, r => r.Id, r => r.ToDisplay(items[r.Id], json));
            map = reading.ReadAll(
                "map",
                "map_feature",
                featureRows,
                await rows.ReadAsync<DetailsRow>(),
                r => r.Id,
                r => JsonSerializer.Deserialize<MapFeature>(r.Details, json)
            );
            recipes = reading.ReadAll(
                "recipes",
                "recipe",
                recipeRows,
                await rows.ReadAsync<DetailsRow>(),
                r => r.Id,
                r => JsonSerializer.Deserialize<Recipe>(r.Details, json)
            );
        }
        Site site = reading.Read("site", "site", [siteRow], r => (r.Name, 0), r => r.ToSite(json)) is [var read] ? read : Site.Default;
        site = _site is { } before && before == site ? before : site;
        Plan plan = Plan.Fitting(
            new PlanParts(site, areas, planters, palette, displays, turns, map, lots, recipes, events),
            out IReadOnlyList<SetAside> aside
        );
        (_last, _site, _areas) = (reading.Fresh, site, areas);
        return new LoadedPlan(mark, plan, reading.Versions, reading.Unread.Count == 0 ? aside : [.. reading.Unread, .. aside]);
    }

    // One loading: parts of before by their versions, and what comes of them now.
    private sealed class Reading(Dictionary<(string Table, string Id), (long Version, object Part)> last)
    {
        public PlanVersions Versions { get; } = new();

        public List<SetAside> Unread { get; } = [];

        public Dictionary<(string Table, string Id), (long Version, object Part)> Fresh { get; } = new(last.Count);

        /// <summary>Ids of rows that were not read in this version before.</summary>
        public string[] Changed(string table, VersionRow[] rows) => [.. rows.Where(r => Known(table, r.Id, r.Version) is null).Select(r => r.Id)];

        /// <summary>All parts of a list in their order, those that changed from their rows and the others as they were.</summary>
        public List<T> ReadAll<TRow, T>(
            string list,
            string table,
            VersionRow[] all,
            IEnumerable<TRow> changed,
            Func<TRow, string> id,
            Func<TRow, T?> make
        )
            where T : class
        {
            var rows = changed.ToDictionary(id, StringComparer.Ordinal);
            return Read(list, table, all, r => (r.Id, r.Version), r => rows.TryGetValue(r.Id, out TRow? row) ? make(row) : null);
        }

        /// <summary>Parts made of rows. A row that an older or newer program, or a hand, has left unreadable is set aside and named.</summary>
        public List<T> Read<TRow, T>(
            string list,
            string table,
            IEnumerable<TRow> found,
            Func<TRow, (string Id, long Version)> key,
            Func<TRow, T?> make
        )
            where T : class
        {
            var made = new List<T>();
            foreach (TRow row in found)
            {
                (string id, long version) = key(row);
                try
                {
                    T item = (T?)Known(table, id, version) ?? make(row) ?? throw new JsonException("it holds nothing");
                    made.Add(item);
                    Versions.Add(table, id, version);
                    Fresh[(table, id)] = (version, item);
                }
                catch (Exception e)
                    when (e
                            is JsonException
                                or ArgumentException
                                or InvalidOperationException
                                or NotSupportedException
                                or FormatException
                                or OverflowException
                    )
                {
                    Unread.Add(new SetAside(list, id, $"it cannot be read: {e.Message.Split('\n')[0]}"));
                }
            }
            return made;
        }

        // Settings have no version of their own here, and are read each time.
        private object? Known(string table, string id, long version) =>
            version > 0 && last.TryGetValue((table, id), out var known) && known.Version == version ? known.Part : null;
    }

    private sealed record VersionRow(string Id, long Version);

    private sealed record DetailsRow(string Id, string Details, long Version);

    private sealed record EventRow(string Id, string Name, LocalDate FirstDay, LocalDate LastDay, long Version);

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

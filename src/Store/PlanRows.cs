using System.Collections.Immutable;
using System.Text.Json;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.SiteMap;

namespace UnrulyMeadow.Store;

/// <summary>What a row is known by, and where it stands among the others where that is not told by what it holds.</summary>
internal readonly record struct RowKey(string Id, long Version, int Ordinal = 0);

/// <summary>A row of the plan that is gone.</summary>
internal sealed record RemovalRow(string Part, string Id, long Version);

/// <summary>One table of the plan as it was read: its parts in their order.</summary>
/// <param name="Table">The table.</param>
/// <param name="List">The list of a plan file that it stands for.</param>
/// <param name="Order">In which order its parts stand.</param>
internal sealed record PartTable<T>(string Table, string List, Comparison<(RowKey Key, T Part)> Order)
    where T : class
{
    private (RowKey Key, T Part)[] _rows = [];

    /// <summary>Its parts, in order.</summary>
    public IReadOnlyList<T> Parts { get; private init; } = [];

    /// <summary>Ids of its rows.</summary>
    public IEnumerable<string> Ids => _rows.Select(r => r.Key.Id);

    /// <summary>Its parts by their ids.</summary>
    public Dictionary<string, T> ById() => _rows.ToDictionary(r => r.Key.Id, r => r.Part, StringComparer.Ordinal);

    /// <summary>The same table without some rows and with others.</summary>
    public PartTable<T> With(IReadOnlySet<string> without, IReadOnlyList<(RowKey Key, T Part)> with)
    {
        if (without.Count + with.Count == 0)
            return this;
        List<(RowKey Key, T Part)> rows = [.. _rows.Where(r => !without.Contains(r.Key.Id)), .. with];
        rows.Sort(Order);
        return this with { _rows = [.. rows], Parts = [.. rows.Select(r => r.Part)] };
    }
}

/// <summary>The rows of the plan as they were read, and up to which version.</summary>
internal sealed record PlanRows
{
    /// <summary>Nothing read yet.</summary>
    public static readonly PlanRows None = new();

    /// <summary>The highest version that was read; 0 for none.</summary>
    public long Since { get; init; }

    /// <summary>The latest record of what was planted that was read; 0 for none.</summary>
    public long Planted { get; init; }

    /// <summary>Times that the crew took.</summary>
    public IReadOnlyList<TimesTaken> Times { get; init; } = [];

    /// <summary>Versions of all rows.</summary>
    public ImmutableDictionary<(string Table, string Id), long> Versions { get; init; } = ImmutableDictionary<(string, string), long>.Empty;

    /// <summary>Rows that cannot be read.</summary>
    public ImmutableDictionary<(string Table, string Id), SetAside> Unread { get; init; } = ImmutableDictionary<(string, string), SetAside>.Empty;

    public PartTable<Planter> Planters { get; init; } = new("planter", "planters", Then<Planter>((a, b) => a.Key.Ordinal.CompareTo(b.Key.Ordinal)));

    public PartTable<Plant> Palette { get; init; } = new("plant", "palette", ById);

    public PartTable<Display> Displays { get; init; } = new("display", "displays", Then<Display>((a, b) => a.Part.Install.CompareTo(b.Part.Install)));

    public PartTable<Turn> Turns { get; init; } = new("turn", "turns", Then<Turn>((a, b) => a.Part.FirstDay.CompareTo(b.Part.FirstDay)));

    public PartTable<MapFeature> Map { get; init; } = new("map_feature", "map", ById);

    public PartTable<Lot> Lots { get; init; } = new("lot", "lots", ById);

    public PartTable<Recipe> Recipes { get; init; } = new("recipe", "recipes", ById);

    public PartTable<SiteEvent> Events { get; init; } =
        new("site_event", "events", Then<SiteEvent>((a, b) => a.Part.FirstDay.CompareTo(b.Part.FirstDay)));

    /// <summary>All parts, those that do not fit among them.</summary>
    /// <param name="plan">The plan made of them, for its settings and areas.</param>
    public PlanParts All(Plan plan) =>
        new(plan.Site, plan.Areas, Planters.Parts, Palette.Parts, Displays.Parts, Turns.Parts, Map.Parts, Lots.Parts, Recipes.Parts, Events.Parts);

    private static int ById<T>((RowKey Key, T Part) a, (RowKey Key, T Part) b) => string.CompareOrdinal(a.Key.Id, b.Key.Id);

    private static Comparison<(RowKey Key, T Part)> Then<T>(Comparison<(RowKey Key, T Part)> first) =>
        (a, b) => first(a, b) is not 0 and int differs ? differs : ById(a, b);
}

/// <summary>The rows that one reading brings, over those that were known.</summary>
/// <param name="before">What was known.</param>
/// <param name="whole">True when all rows come, and what does not come is gone.</param>
/// <param name="removals">Rows that are gone since; some may have come back.</param>
internal sealed class PlanRowsChange(PlanRows before, bool whole, IEnumerable<RemovalRow> removals)
{
    private readonly ILookup<string, RemovalRow> _removals = removals.ToLookup(r => r.Part, StringComparer.Ordinal);
    private readonly ImmutableDictionary<(string Table, string Id), long>.Builder _versions = (
        whole ? ImmutableDictionary<(string, string), long>.Empty : before.Versions
    ).ToBuilder();
    private readonly ImmutableDictionary<(string Table, string Id), SetAside>.Builder _unread = (
        whole ? ImmutableDictionary<(string, string), SetAside>.Empty : before.Unread
    ).ToBuilder();
    private long _since = before.Since;

    /// <summary>
    /// A table with the rows that came. A row that an older or newer program, or a hand, has left unreadable is set aside and named.
    /// </summary>
    /// <param name="table">The table as it was.</param>
    /// <param name="found">Rows that came since.</param>
    /// <param name="key">What a row is known by.</param>
    /// <param name="make">Makes a part of a row; null when it holds nothing.</param>
    public PartTable<T> Read<TRow, T>(PartTable<T> table, IEnumerable<TRow> found, Func<TRow, RowKey> key, Func<TRow, T?> make)
        where T : class
    {
        var gone = new HashSet<string>(StringComparer.Ordinal);
        foreach (RemovalRow removal in _removals[table.Table])
        {
            _since = Math.Max(_since, removal.Version);
            gone.Add(removal.Id);
            Drop(table.Table, removal.Id);
        }
        Dictionary<string, T> known = whole ? table.ById() : [];
        var come = new List<(RowKey, T)>();
        foreach (TRow row in found)
        {
            RowKey at = key(row);
            _since = Math.Max(_since, at.Version);
            gone.Add(at.Id);
            // All come when nobody knows which are gone: those of the same version are the same parts, with all that was computed for them.
            T? part = before.Versions.GetValueOrDefault((table.Table, at.Id)) == at.Version ? known.GetValueOrDefault(at.Id) : null;
            SetAside? unread = null;
            part ??= Try(() => make(row), table.List, at.Id, out unread);
            Drop(table.Table, at.Id);
            if (part is null)
            {
                _unread[(table.Table, at.Id)] = unread!;
                continue;
            }
            _versions[(table.Table, at.Id)] = at.Version;
            come.Add((at, part));
        }
        if (whole)
            gone.UnionWith(table.Ids);
        return table.With(gone, come);
    }

    /// <summary>The tables with their versions, and up to which all is known.</summary>
    /// <param name="rows">The tables.</param>
    /// <param name="toldFrom">From which version on removals are told.</param>
    public PlanRows Complete(PlanRows rows, long toldFrom) =>
        rows with
        {
            Since = Math.Max(_since, toldFrom),
            Versions = _versions.ToImmutable(),
            Unread = _unread.ToImmutable(),
        };

    /// <summary>Makes a part; what cannot be made is named.</summary>
    public static T? Try<T>(Func<T?> make, string list, string id, out SetAside? unread)
        where T : class
    {
        unread = null;
        try
        {
            return make() ?? throw new JsonException("it holds nothing");
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
            unread = new SetAside(list, id, $"it cannot be read: {e.Message.Split('\n')[0]}");
            return null;
        }
    }

    private void Drop(string table, string id)
    {
        _versions.Remove((table, id));
        _unread.Remove((table, id));
    }
}

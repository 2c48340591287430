using System.Text.Json;
using Dapper;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Grounds;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Store;

/// <summary>Changes the site's map and where planters stand on it.</summary>
/// <param name="database">The database.</param>
/// <param name="json">How features are written as JSON.</param>
public sealed class MapStore(MeadowDatabase database, JsonSerializerOptions json)
{
    /// <summary>Writes features and planters' places together, all or none.</summary>
    /// <param name="features">Features, new ones and changed ones.</param>
    /// <param name="planters">Planters whose place or form changed, and new ones.</param>
    /// <param name="newAreas">Areas to make first.</param>
    public async Task Put(IReadOnlyList<MapFeature> features, IReadOnlyList<Planter> planters, IReadOnlyList<Area> newAreas)
    {
        var faults = new FaultList();
        foreach (MapFeature feature in features)
            faults.AddAll(feature.Id, feature.Faults());
        foreach (Planter planter in planters)
            faults.AddAll(planter.Id, planter.Faults());
        foreach (Area area in newAreas)
            faults.AddAll(area.Id, area.Faults());
        faults.ThrowIfAny();
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        await SqlFaults.Naming(() => connection.ExecuteAsync(
            """
            insert into area (id, ordinal, name, frost_pocket_c)
            values (@Id, (select coalesce(max(ordinal), 0) + 1 from area), @Name, @FrostPocketC)
            """,
            newAreas,
            transaction));
        await connection.ExecuteAsync(
            """
            insert into map_feature (id, details)
            select r.details ->> 'id', r.details
            from jsonb_array_elements(@rows::jsonb) as r (details)
            on conflict (id) do update
            set details = excluded.details, version = map_feature.version + 1
            """,
            new { rows = JsonSerializer.Serialize(features, json) },
            transaction);
        await SqlFaults.Naming(() => connection.ExecuteAsync(
            $"""
            {PlanterRow.Insert}
            on conflict (id) do update
            set shape = excluded.shape, top_length_cm = excluded.top_length_cm, top_width_cm = excluded.top_width_cm,
                bottom_length_cm = excluded.bottom_length_cm, bottom_width_cm = excluded.bottom_width_cm, outline = excluded.outline,
                place = excluded.place, version = planter.version + 1
            """,
            planters.Select(p => PlanterRow.From(p, 0, json)),
            transaction));
        await transaction.CommitAsync();
    }

    /// <summary>Removes a feature.</summary>
    public async Task Remove(string id)
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        await connection.ExecuteAsync("delete from map_feature where id = @id", new { id });
    }
}

using System.Text.Json;
using Dapper;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Plants;

namespace UnrulyMeadow.Store;

/// <summary>Adds and changes planters.</summary>
/// <param name="database">The database.</param>
/// <param name="json">How a skyline is written as JSON.</param>
public sealed class PlanterStore(MeadowDatabase database, JsonSerializerOptions json)
{
    /// <summary>The version of a planter, or null when there is none.</summary>
    public async Task<int?> Version(string id)
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        return await connection.QuerySingleOrDefaultAsync<int?>("select version from planter where id = @id", new { id });
    }

    /// <summary>Adds a planter after the others.</summary>
    /// <exception cref="InvalidInputException">A figure is out of range, its name is taken, or its area is gone.</exception>
    public async Task Add(Planter planter)
    {
        Check(planter);
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        await SqlFaults.Naming(() => connection.ExecuteAsync(
            """
            insert into planter (
              id, ordinal, area_id, name, shape, top_length_cm, top_width_cm, bottom_length_cm, bottom_width_cm, depth_cm, rim_gap_cm,
              exposure, watering, viewed_from, wall, wall_colour, note, skyline)
            values (
              @Id, (select coalesce(max(ordinal), 0) + 1 from planter), @AreaId, @Name, @Shape, @TopLengthCm, @TopWidthCm, @BottomLengthCm,
              @BottomWidthCm, @DepthCm, @RimGapCm, @Exposure, @Watering, @ViewedFrom, @Wall, @WallColour, @Note, @Skyline::jsonb)
            """,
            PlanterRow.From(planter, 0, json)));
    }

    /// <summary>Changes a planter.</summary>
    /// <param name="planter">Its new figures.</param>
    /// <param name="version">The version they were read at.</param>
    /// <exception cref="LostUpdateException">Someone saved in between.</exception>
    /// <exception cref="InvalidInputException">A figure is out of range, its name is taken, or its area is gone.</exception>
    public async Task Save(Planter planter, int version)
    {
        Check(planter);
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        PlanterRow row = PlanterRow.From(planter, 0, json);
        int changed = await SqlFaults.Naming(() => connection.ExecuteAsync(
            """
            update planter
            set area_id = @AreaId, name = @Name, shape = @Shape, top_length_cm = @TopLengthCm, top_width_cm = @TopWidthCm,
                bottom_length_cm = @BottomLengthCm, bottom_width_cm = @BottomWidthCm, depth_cm = @DepthCm, rim_gap_cm = @RimGapCm,
                exposure = @Exposure, watering = @Watering, viewed_from = @ViewedFrom, wall = @Wall, wall_colour = @WallColour,
                note = @Note, skyline = @Skyline::jsonb, version = version + 1
            where id = @Id and version = @version
            """,
            new
            {
                row.Id,
                row.AreaId,
                row.Name,
                row.Shape,
                row.TopLengthCm,
                row.TopWidthCm,
                row.BottomLengthCm,
                row.BottomWidthCm,
                row.DepthCm,
                row.RimGapCm,
                row.Exposure,
                row.Watering,
                row.ViewedFrom,
                row.Wall,
                row.WallColour,
                row.Note,
                row.Skyline,
                version,
            }));
        if (changed == 0)
            throw new LostUpdateException($"The planter {planter.Name}");
    }

    private static void Check(Planter planter)
    {
        IReadOnlyList<Fault> faults = planter.Faults();
        if (faults.Count > 0)
            throw new InvalidInputException(faults);
    }
}

/// <summary>A planter as its table holds it.</summary>
internal sealed record PlanterRow
{
    public int Ordinal { get; init; }

    public string Id { get; init; } = string.Empty;

    public string AreaId { get; init; } = string.Empty;

    public string Name { get; init; } = string.Empty;

    public string Shape { get; init; } = string.Empty;

    public double TopLengthCm { get; init; }

    public double TopWidthCm { get; init; }

    public double BottomLengthCm { get; init; }

    public double BottomWidthCm { get; init; }

    public double DepthCm { get; init; }

    public double RimGapCm { get; init; }

    public string Exposure { get; init; } = string.Empty;

    public string Watering { get; init; } = string.Empty;

    public string ViewedFrom { get; init; } = string.Empty;

    public string Wall { get; init; } = string.Empty;

    public string WallColour { get; init; } = string.Empty;

    public string Note { get; init; } = string.Empty;

    public string? Skyline { get; init; }

    public static PlanterRow From(Planter p, int ordinal, JsonSerializerOptions json) => new()
    {
        Ordinal = ordinal,
        Id = p.Id,
        AreaId = p.AreaId,
        Name = p.Name,
        Shape = p.Form.Shape.ToString(),
        TopLengthCm = p.Form.TopLengthCm,
        TopWidthCm = p.Form.TopWidthCm,
        BottomLengthCm = p.Form.BottomLengthCm,
        BottomWidthCm = p.Form.BottomWidthCm,
        DepthCm = p.Form.DepthCm,
        RimGapCm = p.Form.RimGapCm,
        Exposure = p.Exposure.ToString(),
        Watering = p.Watering.ToString(),
        ViewedFrom = p.ViewedFrom.ToString(),
        Wall = p.Wall.ToString(),
        WallColour = p.WallColour,
        Note = p.Note,
        Skyline = p.Skyline is null ? null : JsonSerializer.Serialize(p.Skyline, json),
    };

    public Planter ToPlanter(JsonSerializerOptions json) => new()
    {
        Id = Id,
        AreaId = AreaId,
        Name = Name,
        Form = new PlanterForm(Enum.Parse<PlanterShape>(Shape), TopLengthCm, TopWidthCm, BottomLengthCm, BottomWidthCm, DepthCm, RimGapCm),
        Exposure = Enum.Parse<Exposure>(Exposure),
        Watering = Enum.Parse<Watering>(Watering),
        ViewedFrom = Enum.Parse<ViewedFrom>(ViewedFrom),
        Wall = Enum.Parse<WallMaterial>(Wall),
        WallColour = WallColour,
        Note = Note,
        Skyline = Skyline is null ? null : JsonSerializer.Deserialize<Skyline>(Skyline, json),
    };
}

using System.Text.Json;
using Dapper;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Planting;
using UnrulyMeadow.Core.Plants;

namespace UnrulyMeadow.Store;

/// <summary>Adds, changes and removes planters.</summary>
/// <param name="database">The database.</param>
/// <param name="json">How skylines, surveys and outlines are written as JSON.</param>
public sealed class PlanterStore(MeadowDatabase database, JsonSerializerOptions json)
{
    /// <summary>The version of a planter, or null when there is none.</summary>
    public async Task<int?> Version(string id)
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        return await connection.QuerySingleOrDefaultAsync<int?>("select version from planter where id = @id", new { id });
    }

    /// <summary>Adds planters after the others, all or none.</summary>
    /// <exception cref="InvalidInputException">A figure is out of range, a name is taken, or an area is gone.</exception>
    public async Task Add(params IReadOnlyList<Planter> planters)
    {
        foreach (Planter planter in planters)
            Check(planter);
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        foreach (Planter planter in planters)
        {
            await SqlFaults.Naming(() => connection.ExecuteAsync(
                PlanterRow.Insert,
                PlanterRow.From(planter, 0, json),
                transaction));
        }
        await transaction.CommitAsync();
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
        PlanterRow row = PlanterRow.From(planter, 0, json) with { Version = version };
        int changed = await SqlFaults.Naming(() => connection.ExecuteAsync(
            """
            update planter
            set area_id = @AreaId, name = @Name, shape = @Shape, top_length_cm = @TopLengthCm, top_width_cm = @TopWidthCm,
                bottom_length_cm = @BottomLengthCm, bottom_width_cm = @BottomWidthCm, depth_cm = @DepthCm, rim_gap_cm = @RimGapCm,
                exposure = @Exposure, watering = @Watering, viewed_from = @ViewedFrom, wall = @Wall, wall_colour = @WallColour,
                note = @Note, skyline = @Skyline::jsonb, outline = @Outline::jsonb, survey = @Survey::jsonb, place = @Place::jsonb,
                rules = @Rules::jsonb, is_retired = @IsRetired, version = version + 1
            where id = @Id and version = @Version
            """,
            row));
        if (changed == 0)
            throw new LostUpdateException($"The planter {planter.Name}");
    }

    /// <summary>Removes a planter that nothing was ever planned for.</summary>
    /// <exception cref="InvalidInputException">Displays or lots name it; they are named, and retirement is offered.</exception>
    /// <exception cref="LostUpdateException">Someone saved in between.</exception>
    public async Task Remove(string id, int version)
    {
        await using NpgsqlConnection connection = await database.Source.OpenConnectionAsync();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        var uses = (await connection.QueryAsync<string>(
            """
            select 'display ' || id from display where planter_id = @id
            union all
            select 'lot ' || id from lot where from_planter_id = @id
            order by 1
            """,
            new { id },
            transaction)).ToList();
        if (uses.Count > 0)
            throw new InvalidInputException(string.Empty, $"It is in use by {PaletteStore.Some(uses)}. Retire it instead: its history stays, and nothing new is planned for it.");
        if (await connection.ExecuteAsync("delete from planter where id = @id and version = @version", new { id, version }, transaction) == 0)
            throw new LostUpdateException("The planter");
        await transaction.CommitAsync();
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
    /// <summary>Adds a row after the others.</summary>
    public const string Insert =
        """
        insert into planter (
          id, ordinal, area_id, name, shape, top_length_cm, top_width_cm, bottom_length_cm, bottom_width_cm, depth_cm, rim_gap_cm,
          exposure, watering, viewed_from, wall, wall_colour, note, skyline, outline, survey, place, is_retired, rules)
        values (
          @Id, (select coalesce(max(ordinal), 0) + 1 from planter), @AreaId, @Name, @Shape, @TopLengthCm, @TopWidthCm, @BottomLengthCm,
          @BottomWidthCm, @DepthCm, @RimGapCm, @Exposure, @Watering, @ViewedFrom, @Wall, @WallColour, @Note, @Skyline::jsonb,
          @Outline::jsonb, @Survey::jsonb, @Place::jsonb, @IsRetired, @Rules::jsonb)
        """;

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

    public string? Outline { get; init; }

    public string? Survey { get; init; }

    public string? Place { get; init; }

    public bool IsRetired { get; init; }

    public string? Rules { get; init; }

    public int Version { get; init; }

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
        Outline = p.Form.Outline is null ? null : JsonSerializer.Serialize(p.Form.Outline, json),
        Survey = p.Survey == PlanterSurvey.Unseen ? null : JsonSerializer.Serialize(p.Survey, json),
        Place = p.Place is null ? null : JsonSerializer.Serialize(p.Place, json),
        IsRetired = p.IsRetired,
        Rules = p.Rules is null || p.Rules == new PlanterRules() ? null : JsonSerializer.Serialize(p.Rules, json),
    };

    public Planter ToPlanter(JsonSerializerOptions json) => new()
    {
        Id = Id,
        AreaId = AreaId,
        Name = Name,
        Form = new PlanterForm(Enum.Parse<PlanterShape>(Shape), TopLengthCm, TopWidthCm, BottomLengthCm, BottomWidthCm, DepthCm, RimGapCm)
        {
            Outline = Read<BedOutline>(Outline, json),
        },
        Exposure = Enum.Parse<Exposure>(Exposure),
        Watering = Enum.Parse<Watering>(Watering),
        ViewedFrom = Enum.Parse<ViewedFrom>(ViewedFrom),
        Wall = Enum.Parse<WallMaterial>(Wall),
        WallColour = WallColour,
        Note = Note,
        Skyline = Read<Skyline>(Skyline, json),
        Survey = Read<PlanterSurvey>(Survey, json) ?? PlanterSurvey.Unseen,
        Place = Read<MapPlace>(Place, json),
        IsRetired = IsRetired,
        Rules = Read<PlanterRules>(Rules, json),
    };

    private static T? Read<T>(string? text, JsonSerializerOptions json)
        where T : class => text is null ? null : JsonSerializer.Deserialize<T>(text, json);
}

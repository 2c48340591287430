using Npgsql;
using UnrulyMeadow.Core;

namespace UnrulyMeadow.Store;

/// <summary>Turns a broken rule of the database into a sentence.</summary>
internal static class SqlFaults
{
    public static async Task<T> Naming<T>(Func<Task<T>> work)
    {
        try
        {
            return await work();
        }
        catch (PostgresException e) when (Sentence(e) is { } fault)
        {
            throw new InvalidInputException([fault]);
        }
    }

    private static Fault? Sentence(PostgresException e) =>
        (e.SqlState, e.ConstraintName) switch
        {
            (PostgresErrorCodes.ExclusionViolation, "display_layer_once") => new Fault(
                "install",
                "another display fills this layer of the planter in part of that time; lift it earlier or install this one later"
            ),
            (PostgresErrorCodes.UniqueViolation, "planter_name_key" or "area_name_key" or "recipe_name_key") => new Fault(
                "name",
                "is already used; every name must be its own"
            ),
            (PostgresErrorCodes.UniqueViolation or PostgresErrorCodes.CardinalityViolation, _) => new Fault(
                "id",
                "is already used; open the list again and try once more"
            ),
            (PostgresErrorCodes.ForeignKeyViolation, "planter_area_id_fkey") => new Fault("areaId", "there is no such area any more; choose another"),
            (PostgresErrorCodes.ForeignKeyViolation, "display_planter_id_fkey") => new Fault("planterId", "there is no such planter any more"),
            (PostgresErrorCodes.ForeignKeyViolation, "display_item_plant_id_fkey") => new Fault(
                "items",
                "a plant is no longer in the palette; choose another"
            ),
            (PostgresErrorCodes.ForeignKeyViolation, "lot_plant_id_fkey") => new Fault(
                "plantId",
                "this plant is no longer in the palette; choose another"
            ),
            (PostgresErrorCodes.ForeignKeyViolation, "lot_from_planter_id_fkey") => new Fault("fromPlanterId", "there is no such planter any more"),
            (PostgresErrorCodes.ForeignKeyViolation, _) => new Fault(
                string.Empty,
                $"something else still rests on it ({e.ConstraintName}); change that first"
            ),
            (PostgresErrorCodes.CharacterNotInRepertoire or PostgresErrorCodes.UntranslatableCharacter, _) => new Fault(
                string.Empty,
                "something in it holds a character that no text may hold"
            ),
            (PostgresErrorCodes.CheckViolation, _) => new Fault(string.Empty, $"a figure is out of its range ({e.ConstraintName})"),
            _ => null,
        };
}

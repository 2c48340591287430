using System.Globalization;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Exchange.Sheets;

/// <summary>Sheets of recipes: a row each, its plants in one cell as "4 pansy-yellow; 3 pansy-blue", measures inside in cm.</summary>
public static class RecipeSheet
{
    private static readonly string[] Columns =
    [
        "name",
        "layer",
        "shape",
        "length cm",
        "width cm",
        "bottom length cm",
        "bottom width cm",
        "depth cm",
        "plants",
        "note",
    ];

    private const double RimGapCm = 2.5;

    /// <summary>Reads recipes.</summary>
    /// <param name="stream">The sheet.</param>
    /// <param name="isKnown">Whether the palette holds a plant of an id.</param>
    /// <exception cref="InvalidInputException">Anything is wrong; each fault names its line and column.</exception>
    public static IReadOnlyList<Recipe> Read(Stream stream, Func<string, bool> isKnown)
    {
        IReadOnlyList<TypedRow> rows = TypedTable.Read(stream);
        if (!rows[0].Cells.SequenceEqual(Columns, StringComparer.Ordinal))
            throw new InvalidInputException("line 1", $"must hold the headings {string.Join(", ", Columns)}");
        var faults = new FaultList();
        var recipes = new List<Recipe>();
        foreach (TypedRow row in rows.Skip(1))
        {
            string Cell(string column) => row.Cells.ElementAtOrDefault(Array.IndexOf(Columns, column)) ?? string.Empty;
            void Fault(string column, string message) => faults.Add($"line {row.Line}", $"{column}: {message}");
            T Choice<T>(string column)
                where T : struct, Enum
            {
                string typed = Cell(column).Replace(" ", string.Empty, StringComparison.Ordinal);
                if (typed.Length > 0 && char.IsLetter(typed[0]) && Enum.TryParse(typed, ignoreCase: true, out T value))
                    return value;
                Fault(column, $"\"{PlainText.Cut(Cell(column), 30)}\" is none of {string.Join(", ", Enum.GetNames<T>())}");
                return default;
            }
            double Cm(string column)
            {
                if (double.TryParse(Cell(column), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out double cm))
                    return cm;
                Fault(column, "must be a number");
                return 0;
            }
            var shape = Choice<PlanterShape>("shape");
            bool isBed = shape is PlanterShape.RectangularBed or PlanterShape.OvalBed;
            var items = new List<DisplayItem>();
            foreach (string typed in Cell("plants").Split(';', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
            {
                string[] parts = typed.Split(' ', 2, StringSplitOptions.TrimEntries);
                if (parts.Length < 2 || !int.TryParse(parts[0], NumberStyles.None, CultureInfo.InvariantCulture, out int count))
                    Fault("plants", $"\"{PlainText.Cut(typed, 40)}\" must be a count and a plant's id");
                else if (!isKnown(parts[1]))
                    Fault("plants", $"\"{PlainText.Cut(parts[1], 40)}\" is not in the palette");
                else
                    items.Add(new DisplayItem(parts[1], count));
            }
            string name = Cell("name");
            var recipe = new Recipe(
                Ids.From(name.Length == 0 ? "recipe" : name, id => recipes.Exists(r => r.Id == id)),
                name,
                Choice<DisplayLayer>("layer"),
                new PlanterForm(
                    shape,
                    Cm("length cm"),
                    Cm("width cm"),
                    Cm("bottom length cm"),
                    Cm("bottom width cm"),
                    Cm("depth cm"),
                    isBed ? 0 : RimGapCm
                ),
                items,
                Cell("note")
            );
            faults.AddAll(string.Empty, recipe.Faults().Select(f => f with { Field = $"line {row.Line}, {f.Field}" }));
            if (recipes.Exists(r => r.Name == name))
                Fault("name", $"\"{PlainText.Cut(name, 60)}\" is there twice");
            recipes.Add(recipe);
        }
        faults.ThrowIfAny();
        return recipes;
    }
}

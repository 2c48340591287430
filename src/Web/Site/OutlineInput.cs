using System.Globalization;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Web.Site;

/// <summary>A bed's outline as typed: by sides walked round, or by corners.</summary>
public static class OutlineInput
{
    /// <summary>Reads an outline; null when nothing was typed.</summary>
    /// <param name="sides">One side a line: its length, and the inside angle at its end; 90 where left out.</param>
    /// <param name="corners">One corner a line: east and north; an empty line begins a hole.</param>
    /// <param name="setbackCm">Planting keeps this far from the edge.</param>
    /// <param name="units">Metres or feet.</param>
    /// <exception cref="InvalidInputException">A line cannot be read, or the sides do not close.</exception>
    public static BedOutline? Read(string? sides, string? corners, double setbackCm, UnitsText units)
    {
        if (!string.IsNullOrWhiteSpace(corners))
            return ReadCorners(corners, setbackCm, units);
        return string.IsNullOrWhiteSpace(sides) ? null : MeasuredSides.Walk(ReadSides(sides, units), setbackCm).Outline;
    }

    /// <summary>The sides as measured.</summary>
    public static IReadOnlyList<MeasuredSide> ReadSides(string text, UnitsText units) =>
        [
            .. Lines(text)
                .Where(l => l.Text.Length > 0)
                .Select(l =>
                {
                    double[] numbers = Numbers(l.Text, $"sides, line {l.Number}");
                    return numbers.Length is 1 or 2
                        ? new MeasuredSide(units.ReadMetres(numbers[0]) * 100, numbers.Length == 2 ? numbers[1] : 90)
                        : throw new InvalidInputException("sides", $"line {l.Number}: must be a length and an angle, e.g. 4.2 90");
                }),
        ];

    /// <summary>Corners as text, rings parted by an empty line.</summary>
    public static string Write(BedOutline outline, UnitsText units) =>
        string.Join(
            "\n\n",
            outline
                .Holes.Prepend(outline.Ring)
                .Select(ring =>
                    string.Join(
                        '\n',
                        ring.Select(c =>
                            string.Create(CultureInfo.InvariantCulture, $"{units.Metres(c.XCm / 100):0.###} {units.Metres(c.YCm / 100):0.###}")
                        )
                    )
                )
        );

    private static BedOutline ReadCorners(string text, double setbackCm, UnitsText units)
    {
        var rings = new List<List<Corner>> { new() };
        foreach ((int number, string line) in Lines(text))
        {
            if (line.Length == 0)
            {
                if (rings[^1].Count > 0)
                    rings.Add([]);
                continue;
            }
            double[] numbers = Numbers(line, $"corners, line {number}");
            if (numbers.Length != 2)
                throw new InvalidInputException("corners", $"line {number}: must be two numbers, east and north, e.g. 3.5 1.2");
            rings[^1].Add(new Corner(Math.Round(units.ReadMetres(numbers[0]) * 100, 2), Math.Round(units.ReadMetres(numbers[1]) * 100, 2)));
        }
        rings.RemoveAll(r => r.Count == 0);
        // A ring that ends where it began says its first corner twice.
        foreach (List<Corner> ring in rings.Where(r => r.Count > 1 && r[0] == r[^1]))
            ring.RemoveAt(ring.Count - 1);
        return new BedOutline(rings.Count == 0 ? [] : rings[0], [.. rings.Skip(1)], setbackCm);
    }

    private static IEnumerable<(int Number, string Text)> Lines(string text) =>
        text.ReplaceLineEndings("\n").Split('\n').Select((l, i) => (i + 1, l.Trim()));

    private static double[] Numbers(string line, string where)
    {
        // With a decimal comma, numbers are parted by spaces or semicolons; otherwise a comma parts them too.
        string[] words = line.Split([' ', ';', '\t'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        if (words.Length == 1)
            words = line.Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        return
        [
            .. words.Select(w =>
                double.TryParse(w.TrimEnd(',').Replace(',', '.').TrimEnd('°'), NumberStyles.Float, CultureInfo.InvariantCulture, out double v)
                && double.IsFinite(v)
                    ? v
                    : throw new InvalidInputException(where.Split(',')[0], $"{where}: \"{w}\" is no number")
            ),
        ];
    }
}

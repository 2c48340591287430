using System.Globalization;
using System.Text;
using NodaTime;
using NodaTime.Text;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Accuracy;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Exchange.Accuracy;
using UnrulyMeadow.Exchange.Palette;

namespace UnrulyMeadow.Reckon;

/// <summary>Tries the palette's dates against a table of customary windows and prints the result as tables in Markdown.</summary>
public static class AccuracyCommand
{
    /// <summary>The table that ships with the app, by the checkout's folder.</summary>
    public const string ShippedTable = "docs/accuracy.csv";

    private const string ShippedPalette = "demo/palette.csv";

    private static readonly AnnualDatePattern Day = AnnualDatePattern.CreateWithInvariantCulture("d MMM");

    /// <summary>Prints climates, published checks and windows.</summary>
    /// <param name="words">Nothing, or the table's file; then the palette's file.</param>
    /// <param name="output">Where to.</param>
    /// <returns>0 when every window is met, 1 when one is missed.</returns>
    /// <exception cref="InvalidInputException">A file is not there or faulty.</exception>
    public static int Run(IReadOnlyList<string> words, TextWriter output)
    {
        string file = words.Count > 0 ? words[0] : ShippedTable;
        using Stream sheet = Open(file);
        AccuracyTable table = AccuracySheet.Read(sheet, f => Open(File.Exists(f) ? f : Path.Combine(Path.GetDirectoryName(file) ?? string.Empty, f)));
        IReadOnlyList<AccuracyCell> cells = table.Try(Palette(words.Count > 1 ? words[1] : ShippedPalette));
        output.Write(Text(table, cells));
        return cells.All(c => c.DaysOff == 0) && PublishedCheck.All.All(c => c.IsMet) ? 0 : 1;
    }

    /// <summary>The plants of a palette sheet.</summary>
    public static IReadOnlyList<Plant> Palette(string file)
    {
        using Stream stream = Open(file);
        return [.. PaletteSheet.Read(stream, []).Select(c => c.Plant)];
    }

    /// <summary>The result as Markdown.</summary>
    public static string Text(AccuracyTable table, IReadOnlyList<AccuracyCell> cells)
    {
        var text = new StringBuilder();
        text.AppendLine("| published figure | source | published | ours | |").AppendLine("|---|---|---|---|---|");
        foreach (PublishedCheck check in PublishedCheck.All)
            text.AppendLine(
                CultureInfo.InvariantCulture,
                $"| {check.What} | {check.Source} | {check.Published} {check.Unit} | {check.Compute():0.####} | {(check.IsMet ? "met" : "missed")} |"
            );
        text.AppendLine().AppendLine("| climate | years | zone |").AppendLine("|---|---|---|");
        foreach (AccuracyClimate climate in table.Climates)
            text.AppendLine(CultureInfo.InvariantCulture, $"| {climate.Name} | {climate.LastYear - climate.FirstYear + 1} | {climate.Zone} |");
        text.AppendLine()
            .AppendLine("| plant | shows | climate | window | median | 1 in 10 to 9 in 10 | years | |")
            .AppendLine("|---|---|---|---|---|---|---|---|");
        foreach (AccuracyCell c in cells)
        {
            string verdict =
                c.Median is null ? "does not show"
                : c.DaysOff == 0 ? "within"
                : c.DaysOff < 0 ? $"{-c.DaysOff} days early"
                : $"{c.DaysOff} days late";
            string spread = c.Median is null ? "–" : $"{Say(c.Early)} – {Say(c.Late)}";
            text.AppendLine(
                CultureInfo.InvariantCulture,
                (
                    $"| {c.Window.PlantId} | {c.Window.Part.ToString().ToLowerInvariant()} | {c.Window.Climate} | {Say(c.Window.From)} "
                    + $"– {Say(c.Window.To)} | {Say(c.Median)} | {spread} | {c.YearsShown} of {c.Years} | {verdict} |"
                )
            );
        }
        int met = cells.Count(c => c.DaysOff == 0);
        text.AppendLine().AppendLine(CultureInfo.InvariantCulture, $"{met} of {cells.Count} windows are met.");
        return text.ToString();
    }

    private static string Say(AnnualDate? day) => day is { } d ? Day.Format(d) : "–";

    private static FileStream Open(string file) =>
        File.Exists(file) ? File.OpenRead(file) : throw new InvalidInputException("FILE", $"there is no file \"{file}\"");
}

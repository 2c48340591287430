using System.Globalization;
using System.Text.RegularExpressions;
using NodaTime;
using NodaTime.Text;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Exchange.Sheets;

namespace UnrulyMeadow.Exchange.Supply;

/// <summary>A heading of prices.</summary>
/// <param name="FromPacks">From how many packs on they count, 1 or more.</param>
/// <param name="Heading">The heading.</param>
public sealed record PriceHeading(int FromPacks, string Heading);

/// <summary>Which heading of a supplier's list means what; chosen once for a supplier and remembered.</summary>
/// <param name="Kind">The heading of the kind.</param>
/// <param name="Form">The heading of the pack's form.</param>
/// <param name="Size">The heading of the plants in a pack; empty where the form tells it.</param>
/// <param name="Prices">Headings of prices, each from so many packs on; the first from one.</param>
public sealed record PriceListColumns(string Kind, string Form, string Size, IReadOnlyList<PriceHeading> Prices)
{
    /// <summary>The heading of the days from order to delivery; empty for none.</summary>
    public string LeadDays { get; init; } = string.Empty;

    /// <summary>The heading of the last day to order; empty for none.</summary>
    public string OrderUntil { get; init; } = string.Empty;

    /// <summary>The heading of the months of delivery; empty for none.</summary>
    public string Months { get; init; } = string.Empty;

    /// <summary>The heading of what is grown to order; empty for none.</summary>
    public string Contract { get; init; } = string.Empty;

    /// <summary>Names of this supplier for kinds of the palette: their text, and the kind's id.</summary>
    public IReadOnlyDictionary<string, string> Names { get; init; } = new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase);
}

/// <summary>What a price list holds.</summary>
/// <param name="Offers">Offers of kinds of the palette.</param>
/// <param name="Unknown">Names that no kind of the palette goes by, with the line on which each stands first.</param>
/// <param name="Faults">What could not be read, by line.</param>
public sealed record PriceListReading(IReadOnlyList<Offer> Offers, IReadOnlyList<(int Line, string Name)> Unknown, IReadOnlyList<Fault> Faults);

/// <summary>Reads price lists of suppliers.</summary>
public static partial class PriceList
{
    private const int MostHeadingRows = 30;

    // Words by which headings are guessed; the planner corrects the guess.
    private static readonly string[] KindWords = ["plant", "kind", "name", "variety", "article", "item", "description", "species"];
    private static readonly string[] FormWords = ["form", "pack", "container", "format", "pot", "grade"];
    private static readonly string[] SizeWords = ["size", "per pack", "count", "quantity", "qty", "pcs", "pieces", "plants"];
    private static readonly string[] PriceWords = ["price", "cost", "each"];

    /// <summary>The row of headings: the first with two texts or more and without a price; null where there is none.</summary>
    public static TypedRow? HeadingsOf(IReadOnlyList<TypedRow> rows) =>
        rows.Take(MostHeadingRows)
            .FirstOrDefault(r =>
                r.Cells.Count(c => c.Length > 0 && PriceText.Read(c) is null) >= 2 && !r.Cells.Any(c => PriceText.Read(c) is not null)
            );

    /// <summary>Guesses which heading means what.</summary>
    /// <param name="headings">Headings.</param>
    public static PriceListColumns Guess(IReadOnlyList<string> headings)
    {
        string Like(IEnumerable<string> words, params string[] taken) =>
            words
                .SelectMany(w => headings.Where(h => !taken.Contains(h, StringComparer.Ordinal) && h.Contains(w, StringComparison.OrdinalIgnoreCase)))
                .FirstOrDefault()
            ?? string.Empty;
        string kind = Like(KindWords);
        string size = Like(SizeWords, kind);
        string form = Like(FormWords, kind, size);
        List<PriceHeading> prices =
        [
            .. headings
                .Where(h => PriceWords.Any(w => h.Contains(w, StringComparison.OrdinalIgnoreCase)))
                .Select(h => new PriceHeading(FirstNumber(h) ?? 1, h))
                .DistinctBy(p => p.FromPacks)
                .OrderBy(p => p.FromPacks),
        ];
        if (prices.Count > 0)
            prices[0] = prices[0] with { FromPacks = 1 };
        return new PriceListColumns(kind, form, size, prices)
        {
            LeadDays = Like(["lead"]),
            OrderUntil = Like(["order by", "order until", "deadline"]),
            Months = Like(["month"], kind, form, size),
            Contract = Like(["contract", "grown to order"], kind, form, size),
        };
    }

    /// <summary>Reads the offers.</summary>
    /// <param name="rows">The rows, headings among them.</param>
    /// <param name="columns">What the headings mean.</param>
    /// <param name="supplierId">Whose list it is.</param>
    /// <param name="palette">The palette; kinds go by their id, their common or their botanical name where that is one kind's alone.</param>
    /// <exception cref="InvalidInputException">There are no headings, or one that was chosen is not there.</exception>
    public static PriceListReading Read(IReadOnlyList<TypedRow> rows, PriceListColumns columns, string supplierId, IReadOnlyList<Plant> palette)
    {
        TypedRow headings = HeadingsOf(rows) ?? throw new InvalidInputException("file", "has no row of headings: put one above the prices");
        int At(string heading) =>
            heading.Length == 0 ? -1
            : headings.Cells.ToList().IndexOf(heading) is >= 0 and var at ? at
            : throw new InvalidInputException("columns", $"the list has no heading \"{PlainText.Cut(heading, 40)}\" any more: choose anew");
        int kindAt = At(columns.Kind);
        int formAt = At(columns.Form);
        int sizeAt = At(columns.Size);
        int leadAt = At(columns.LeadDays);
        int untilAt = At(columns.OrderUntil);
        int monthsAt = At(columns.Months);
        int contractAt = At(columns.Contract);
        List<(int From, int At)> prices = [.. columns.Prices.Select(p => (p.FromPacks, At(p.Heading)))];
        if (kindAt < 0 || prices.Count == 0)
            throw new InvalidInputException("columns", "say at least which heading names the kind and which the price");

        var known = Names(palette);
        var offers = new Dictionary<(string Plant, string Form, int Size), (Offer Offer, int Line)>();
        var unknown = new Dictionary<string, int>(StringComparer.OrdinalIgnoreCase);
        var faults = new FaultList();
        string above = string.Empty;
        foreach (TypedRow row in rows.Where(r => r.Line > headings.Line))
        {
            string Cell(int at) => at < 0 ? string.Empty : row.Cells.ElementAtOrDefault(at) ?? string.Empty;
            void Fault(string what, string message) => faults.Add($"line {row.Line}", $"{what}: {message}");
            // A cell that is merged over several rows stands in the first of them.
            string name = Cell(kindAt) is { Length: > 0 } own ? own : above;
            above = name;
            List<(int From, string Text)> typed = [.. prices.Select(p => (p.From, Cell(p.At))).Where(p => p.Item2.Length > 0)];
            // Headings of groups and remarks have no price.
            if (typed.Count == 0 || name.Length == 0)
                continue;
            string? plant = columns.Names.GetValueOrDefault(name) ?? known.GetValueOrDefault(name);
            if (plant is null)
            {
                unknown.TryAdd(name, row.Line);
                continue;
            }
            string form = Cell(formAt);
            int? size = sizeAt >= 0 ? FirstNumber(Cell(sizeAt)) : PlantsIn(form);
            if (size is not (>= 1 and <= 1000))
            {
                Fault(
                    columns.Size.Length > 0 ? columns.Size : columns.Form,
                    "does not tell how many plants are in a pack, 1 to 1,000; add a column for it, or write \"tray of 18\" or \"10 cm pot\""
                );
                continue;
            }
            var steps = new List<PriceStep>();
            foreach ((int from, string text) in typed)
            {
                if (PriceText.Read(text) is { } price)
                    steps.Add(
                        new PriceStep(
                            steps.Count == 0 ? 1 : from,
                            Math.Round(price.Per == 1 ? price.Price : price.Price / price.Per * size.Value, 2, MidpointRounding.AwayFromZero)
                        )
                    );
                else
                    Fault("price", $"\"{PlainText.Cut(text, 30)}\" is no price; write it as 12.50");
            }
            if (steps.Count < typed.Count)
                continue;
            var offer = new Offer(supplierId, plant, form.Length > 0 ? form : $"pack of {size}", size.Value, steps)
            {
                LeadDays = FirstNumber(Cell(leadAt)) ?? 0,
                OrderUntil = Day(Cell(untilAt)),
                Months = MonthsText.Read(Cell(monthsAt)) ?? [],
                // Plugs are grown to order (common practice), unless the list says otherwise.
                IsContract = YesOrNo(Cell(contractAt)) ?? GoodsForm.IsPlugs(form),
            };
            if (MonthsText.Read(Cell(monthsAt)) is null)
                Fault(columns.Months, $"\"{PlainText.Cut(Cell(monthsAt), 30)}\" names no months; write them as 3-5, or Mar, Apr");
            if (Cell(untilAt).Length > 0 && offer.OrderUntil is null)
                Fault(columns.OrderUntil, $"\"{PlainText.Cut(Cell(untilAt), 30)}\" is no day; write it as 2027-05-17");
            if (offer.Faults() is { Count: > 0 } wrong)
            {
                Fault(wrong[0].Field, wrong[0].Message);
                continue;
            }
            if (!offers.TryAdd((plant, offer.Form, offer.PackSize), (offer, row.Line)) && Other(offers, offer) is { } line)
                Fault("price", $"is another than on line {line} for the same pack; leave one of them");
        }
        return new PriceListReading([.. offers.Values.Select(o => o.Offer)], [.. unknown.Select(u => (u.Value, u.Key))], faults.Faults);
    }

    // The line of the same pack at other terms; a line that only says it again is none.
    private static int? Other(Dictionary<(string Plant, string Form, int Size), (Offer Offer, int Line)> offers, Offer offer)
    {
        (Offer there, int line) = offers[(offer.PlantId, offer.Form, offer.PackSize)];
        return there.Steps.SequenceEqual(offer.Steps) ? null : line;
    }

    private static Dictionary<string, string> Names(IReadOnlyList<Plant> palette)
    {
        var known = new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase);
        foreach (Plant plant in palette)
            known[plant.Id] = plant.Id;
        foreach (Func<Plant, string> name in new Func<Plant, string>[] { p => p.CommonName, p => p.BotanicalName })
        {
            foreach (IGrouping<string, Plant> alike in palette.GroupBy(name, StringComparer.OrdinalIgnoreCase).Where(g => g.Count() == 1))
                known.TryAdd(alike.Key, alike.Single().Id);
        }
        return known;
    }

    // How many plants a pack holds by what it is called: "tray of 18", "6-pack", "84 plugs"; one in a pot of its own, whatever its size, and
    // where nothing is said of the pack at all.
    private static int? PlantsIn(string form) =>
        form.Length == 0 ? 1
        : Counted().Match(form) is { Success: true } counted ? FirstNumber(counted.Value)
        : GoodsForm.IsPot(form) ? 1
        : null;

    [GeneratedRegex(
        @"\b(of|x|×)\s*[0-9]{1,4}\b|\b[0-9]{1,4}[\s-]*(pack|plug|cell|bulb|tuber|plant|pcs|piece|stem)",
        RegexOptions.CultureInvariant | RegexOptions.IgnoreCase | RegexOptions.ExplicitCapture,
        1000
    )]
    private static partial Regex Counted();

    private static int? FirstNumber(string text)
    {
        int start = text.AsSpan().IndexOfAnyInRange('0', '9');
        if (start < 0)
            return null;
        int end = start;
        while (end < text.Length && char.IsAsciiDigit(text[end]))
            end++;
        return int.TryParse(text.AsSpan(start, end - start), NumberStyles.None, CultureInfo.InvariantCulture, out int number) ? number : null;
    }

    private static bool? YesOrNo(string text) =>
        text.Trim().ToUpperInvariant() switch
        {
            "" => null,
            "NO" or "N" or "0" or "FALSE" or "-" => false,
            _ => true,
        };

    private static LocalDate? Day(string text) =>
        text.Length == 0 ? null
        : LocalDatePattern.Iso.Parse(text.Length > 10 ? text[..10] : text) is { Success: true } day ? day.Value
        : null;
}

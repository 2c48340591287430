using System.Globalization;
using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Exchange.Palette;

/// <summary>
/// Colour windows, packs and grades as they stand in one cell of a sheet. A window reads
/// <c>flower #7e57c2 #f0bf3f share=0.5 rule=from-install bud=0 ceiling=23</c>; several are parted by semicolons.
/// </summary>
public static class ShowNotation
{
    private static readonly Dictionary<string, string[]> RuleKeys = new(StringComparer.Ordinal)
    {
        ["bulb-forcing"] = ["base", "cold-start", "cold-span", "sum", "days", "light"],
        ["air-heat"] = ["base", "sum", "days", "browns"],
        ["chilling-forcing"] = ["base", "chill", "sum", "days", "light", "unchilled", "browns"],
        ["short-days"] = ["below", "days", "cool", "hot", "shows", "ends"],
        ["fruit"] = ["base", "sum", "below", "days", "ends"],
        ["heat-from-install"] = ["base", "sum"],
        ["warmth"] = ["from", "full", "ceiling"],
        ["from-install"] = ["bud", "days", "ceiling"],
        ["all-year"] = [],
        ["in-leaf"] = ["base", "sum", "nights", "last"],
        ["bare-stem"] = ["base", "sum", "nights"],
        ["cool-nights"] = ["below", "nights"],
        ["cooling"] = ["below", "days"],
    };

    /// <summary>Every rule with its keys, for the documentation.</summary>
    public static IReadOnlyDictionary<string, string[]> Rules => RuleKeys;

    /// <summary>Windows as text.</summary>
    public static string Write(IEnumerable<ColourWindow> windows) => string.Join("; ", windows.Select(Write));

    /// <summary>Windows from text.</summary>
    /// <exception cref="FormatException">The text is not of that form; the message says what is wrong.</exception>
    public static IReadOnlyList<ColourWindow> ReadWindows(string text) => [.. Pieces(text, ';').Select(ReadWindow)];

    /// <summary>Packs as text: <c>6-pack: 6 @ 4.5; 10 cm pot: 1 @ 1.9 w 15</c>.</summary>
    public static string Write(IEnumerable<Pack> packs) =>
        string.Join(
            "; ",
            packs.Select(p =>
                $"{p.Form}: {p.Size} @ {p.Price.ToString("0.##", CultureInfo.InvariantCulture)}"
                + (p.SpreadCm is { } w ? $" w {Text(w)}" : string.Empty)
            )
        );

    /// <summary>Packs from text.</summary>
    /// <exception cref="FormatException">The text is not of that form.</exception>
    public static IReadOnlyList<Pack> ReadPacks(string text) => [.. Pieces(text, ';').Select(ReadPack)];

    /// <summary>Grades as text: <c>12/+: 5.2 x 4.2</c>, height by width in cm.</summary>
    public static string Write(IEnumerable<BulbGrade> grades) =>
        string.Join("; ", grades.Select(g => $"{g.Name}: {Text(g.HeightCm)} x {Text(g.DiameterCm)}"));

    /// <summary>Grades from text.</summary>
    /// <exception cref="FormatException">The text is not of that form.</exception>
    public static IReadOnlyList<BulbGrade> ReadGrades(string text) =>
        [
            .. Pieces(text, ';')
                .Select(g =>
                {
                    (string name, string rest) = Named(g, "12/+: 5.2 x 4.2");
                    string[] sizes = rest.Split('x', StringSplitOptions.TrimEntries);
                    return sizes.Length == 2
                        ? new BulbGrade(name, Number(sizes[0]), Number(sizes[1]))
                        : throw new FormatException($"\"{g}\" must read like \"12/+: 5.2 x 4.2\"");
                }),
        ];

    /// <summary>Months as spans: <c>2-5 8-11</c>.</summary>
    public static string WriteMonths(IReadOnlyList<int> months)
    {
        var spans = new List<string>();
        int[] sorted = [.. months.Order()];
        for (int i = 0; i < sorted.Length; )
        {
            int end = i;
            while (end + 1 < sorted.Length && sorted[end + 1] == sorted[end] + 1)
                end++;
            spans.Add(end == i ? $"{sorted[i]}" : $"{sorted[i]}-{sorted[end]}");
            i = end + 1;
        }
        return string.Join(' ', spans);
    }

    /// <summary>Months from spans; a span may cross the new year, as in 11-2.</summary>
    /// <exception cref="FormatException">The text is not of that form.</exception>
    public static IReadOnlyList<int> ReadMonths(string text)
    {
        var months = new SortedSet<int>();
        foreach (string piece in Pieces(text, ' '))
        {
            string[] ends = piece.Split('-');
            if (ends.Length > 2 || !ends.All(e => int.TryParse(e, NumberStyles.None, CultureInfo.InvariantCulture, out int m) && m is >= 1 and <= 12))
                throw new FormatException($"\"{piece}\" must be months from 1 to 12, like 2-5");
            int from = int.Parse(ends[0], CultureInfo.InvariantCulture);
            int to = int.Parse(ends[^1], CultureInfo.InvariantCulture);
            for (int m = from; ; m = (m % 12) + 1)
            {
                months.Add(m);
                if (m == to)
                    break;
            }
        }
        return [.. months];
    }

    /// <summary>A number with a dot for its decimals.</summary>
    /// <exception cref="FormatException">It is none; a decimal comma is named as such.</exception>
    public static double Number(string text)
    {
        if (double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out double value) && double.IsFinite(value))
            return value;
        throw new FormatException(
            text.Contains(',', StringComparison.Ordinal)
            && double.TryParse(text.Replace(',', '.'), NumberStyles.Float, CultureInfo.InvariantCulture, out _)
                ? $"\"{text}\" has a decimal comma; write {text.Replace(',', '.')}"
                : $"\"{text}\" is no number"
        );
    }

    /// <summary>A number as a sheet writes it.</summary>
    public static string Text(double value) => value.ToString("R", CultureInfo.InvariantCulture);

    internal static IEnumerable<string> Pieces(string text, char by) =>
        text.Split(by, StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);

    private static string Write(ColourWindow w)
    {
        var words = new List<string> { w.Part.ToString().ToLowerInvariant() };
        words.AddRange(w.Colours);
        words.Add($"share={Text(w.Share)}");
        (string name, double?[] values) = w.Rule switch
        {
            BulbForcing r => ("bulb-forcing", [r.BaseC, r.ColdStartWeeks, r.ColdSpanWeeks, r.ThresholdCd, r.ShowDays, r.LightFromH]),
            AirHeat r => ("air-heat", [r.BaseC, r.FirstCd, r.ShowDays, r.BrownsAboveC]),
            ChillingForcing r => (
                "chilling-forcing",
                [r.BaseC, r.ChillDays, r.SumCd, r.ShowDays, r.LightFromH, r.ShareUnchilled > 0 ? r.ShareUnchilled : null, r.BrownsAboveC]
            ),
            ShortDays r => ("short-days", [r.BelowH, r.Days, r.CoolC, r.HotC, r.ShowDays, r.EndsAtC]),
            FruitRipening r => ("fruit", [r.BaseC, r.SumCd, r.BelowH, r.ShowDays, r.EndsAtC]),
            HeatFromInstall r => ("heat-from-install", new double?[] { r.BaseC, r.SumCd }),
            WarmthFlowering r => ("warmth", new double?[] { r.FromC, r.FullC, r.HeatCeilingC }),
            FromInstall r => ("from-install", [r.BudDays, r.ShowDays, r.HeatCeilingC]),
            AllYear => ("all-year", []),
            InLeaf r => ("in-leaf", [r.BaseC, r.LeafOutCd, r.DropNights, r.LastDays]),
            BareStem r => ("bare-stem", [r.BaseC, r.LeafOutCd, r.DropNights]),
            CoolNights r => ("cool-nights", [r.BelowC, r.FullNights]),
            Cooling r => ("cooling", new double?[] { r.BelowC, r.ShowDays }),
            _ => throw new InvalidOperationException($"No notation for {w.Rule.GetType().Name}."),
        };
        words.Add($"rule={name}");
        words.AddRange(RuleKeys[name].Zip(values).Where(k => k.Second is not null).Select(k => $"{k.First}={Text(k.Second!.Value)}"));
        words.Add($"spread={Text(w.SpreadDays)}");
        return string.Join(' ', words);
    }

    private static ColourWindow ReadWindow(string text)
    {
        string[] words = [.. Pieces(text, ' ')];
        if (
            words.Length == 0
            || !Enum.TryParse(words[0], ignoreCase: true, out ColourPart part)
            || !Enum.IsDefined(part)
            || char.IsDigit(words[0][0])
        )
            throw new FormatException(
                $"\"{text}\" must begin with {string.Join(", ", Enum.GetNames<ColourPart>().Select(n => n.ToLowerInvariant()))}"
            );
        string[] colours = [.. words.Skip(1).TakeWhile(w => w[0] == '#').Select(c => c.ToLowerInvariant())];
        foreach (string colour in colours.Where(c => !Srgb.IsColour(c)))
            throw new FormatException($"\"{colour}\" is no colour; write six hexadecimal digits, #000000 to #ffffff");
        var keys = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (string word in words.Skip(1 + colours.Length))
        {
            int equals = word.IndexOf('=', StringComparison.Ordinal);
            if (equals <= 0 || !keys.TryAdd(word[..equals], word[(equals + 1)..]))
                throw new FormatException($"\"{word}\" must be key=value, each key once");
        }
        if (!keys.Remove("rule", out string? rule) || !RuleKeys.TryGetValue(rule, out string[]? allowed))
            throw new FormatException($"rule= must be one of {string.Join(", ", RuleKeys.Keys)}");
        double share = keys.Remove("share", out string? s) ? Number(s) : throw new FormatException("share= is missing");
        double spread = keys.Remove("spread", out string? d) ? Number(d) : 6;
        if (keys.Keys.FirstOrDefault(k => !allowed.Contains(k, StringComparer.Ordinal)) is { } unknown)
            throw new FormatException(
                $"rule {rule} has no \"{unknown}\"; it knows {(allowed.Length == 0 ? "no figures" : string.Join(", ", allowed))}"
            );
        double Need(string key) => keys.TryGetValue(key, out string? v) ? Number(v) : throw new FormatException($"rule {rule} needs {key}=");
        double? May(string key) => keys.TryGetValue(key, out string? v) ? Number(v) : null;
        int Whole(string key)
        {
            double v = Need(key);
            return v == Math.Floor(v) && Math.Abs(v) < 100_000 ? (int)v : throw new FormatException($"{key}= must be a whole number");
        }
        ColourRule made = rule switch
        {
            "bulb-forcing" => new BulbForcing(Need("base"), Need("cold-start"), Need("cold-span"), Need("sum"), Need("days"))
            {
                LightFromH = May("light"),
            },
            "chilling-forcing" => new ChillingForcing(Need("base"), Need("chill"), Need("sum"), Need("days"))
            {
                LightFromH = May("light"),
                ShareUnchilled = May("unchilled") ?? 0,
                BrownsAboveC = May("browns"),
            },
            "short-days" => new ShortDays(Need("below"), Need("days"), Need("cool"), Need("hot"), Need("shows")) { EndsAtC = May("ends") },
            "fruit" => new FruitRipening(Need("base"), Need("sum"), Need("below"), Need("days")) { EndsAtC = May("ends") },
            "heat-from-install" => new HeatFromInstall(Need("base"), Need("sum")),
            "warmth" => new WarmthFlowering(Need("from"), Need("full"), Need("ceiling")),
            "air-heat" => new AirHeat(Need("base"), Need("sum"), Need("days")) { BrownsAboveC = May("browns") },
            "from-install" => new FromInstall(Need("bud"), May("days"), May("ceiling")),
            "in-leaf" => new InLeaf(Need("base"), Need("sum"), Whole("nights"), May("last")),
            "bare-stem" => new BareStem(Need("base"), Need("sum"), Whole("nights")),
            "cool-nights" => new CoolNights(Need("below"), Whole("nights")),
            "cooling" => new Cooling(Need("below"), Need("days")),
            _ => new AllYear(),
        };
        return new ColourWindow(part, colours, share, made) { SpreadDays = spread };
    }

    private static Pack ReadPack(string text)
    {
        const string Form = "6-pack: 6 @ 4.5";
        (string name, string rest) = Named(text, Form);
        string[] words = [.. Pieces(rest, ' ')];
        bool wide = words.Length == 5 && words[3] == "w";
        if (words.Length != 3 && !wide || words[1] != "@")
            throw new FormatException($"\"{text}\" must read like \"{Form}\", with the width after w when it differs");
        if (!int.TryParse(words[0], NumberStyles.None, CultureInfo.InvariantCulture, out int size))
            throw new FormatException($"\"{words[0]}\" is no whole number of plants");
        return new Pack(name, size, (decimal)Math.Clamp(Number(words[2]), -1e9, 1e9), wide ? Number(words[4]) : null);
    }

    private static (string Name, string Figures) Named(string text, string form)
    {
        int colon = text.LastIndexOf(':');
        return colon > 0 ? (text[..colon].Trim(), text[(colon + 1)..].Trim()) : throw new FormatException($"\"{text}\" must read like \"{form}\"");
    }
}

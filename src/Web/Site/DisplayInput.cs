using System.Globalization;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Web.Site;

/// <summary>One line of a display as typed.</summary>
public sealed class DisplayLine
{
    public string? PlantId { get; set; }

    public string? Count { get; set; }

    public string? Depth { get; set; }

    public string? Clump { get; set; }

    /// <summary>Days on which it is cut back, parted by commas.</summary>
    public string? Cuts { get; set; }

    /// <summary>What becomes of it when the display comes out.</summary>
    public string? Fate { get; set; }

    /// <summary>The form in which it is bought; empty for the usual one.</summary>
    public string? Form { get; set; }

    /// <summary>True when nothing was filled in.</summary>
    public bool IsBlank => string.IsNullOrWhiteSpace(PlantId) && string.IsNullOrWhiteSpace(Count) && string.IsNullOrWhiteSpace(Depth);
}

/// <summary>A display or bulb stack as typed, so that nothing typed is lost when something is wrong.</summary>
public sealed class DisplayInput
{
    public string? DisplayId { get; set; }

    public long? Version { get; set; }

    public string? Layer { get; set; } = nameof(DisplayLayer.Seasonal);

    public string? Install { get; set; }

    public string? Lift { get; set; }

    public string? Day { get; set; }

    public IList<DisplayLine> Lines { get; set; } = [];

    /// <summary>Pairs of bulbs as "Together:one:other" or "Follow:first:second".</summary>
    public IList<string> Pairs { get; set; } = [];

    /// <summary>What is saved by now otherwise than typed here, whose version is taken over; empty when the display is gone.</summary>
    /// <param name="now">The site as it is saved.</param>
    /// <param name="id">The display.</param>
    /// <param name="units">Units of the form.</param>
    public IReadOnlyList<FormDifference> Compare(SiteNow now, string? id, UnitsText units)
    {
        if (now.Plan.Displays.FirstOrDefault(d => d.Id == id) is not { } saved)
            return [];
        DisplayInput theirs = From(saved, now.Versions.Display(saved.Id), units);
        Version = theirs.Version;
        return FormDifference.Between(this, theirs);
    }

    /// <summary>The form of a display that is already there.</summary>
    public static DisplayInput From(Display d, long version, UnitsText units) =>
        new()
        {
            DisplayId = d.Id,
            Version = version,
            Layer = d.Layer.ToString(),
            Install = Words.Iso(d.Install),
            Lift = d.IsOpenEnded ? string.Empty : Words.Iso(d.Lift),
            Lines =
            [
                .. d.Items.Select(i => new DisplayLine
                {
                    PlantId = i.PlantId,
                    Count = i.Count.ToString(CultureInfo.InvariantCulture),
                    Depth = i.DepthCm is { } depth ? units.LengthNumber(depth) : null,
                    Clump = i.Clump?.ToString(CultureInfo.InvariantCulture),
                    Cuts = string.Join(", ", d.Cuts.Where(c => c.PlantId == i.PlantId).Select(c => CutText(c, units))),
                    Fate = i.Fate?.ToString(),
                    Form = i.Form,
                }),
            ],
            Pairs = [.. d.Pairs.Select(p => $"{p.Wish}:{p.FirstPlantId}:{p.SecondPlantId}")],
        };

    /// <summary>The form filled anew with a changed display, its version and day kept.</summary>
    public void Take(Display changed, UnitsText units)
    {
        DisplayInput fresh = From(changed, Version ?? 0, units);
        (Install, Lift, Lines, Pairs) = (fresh.Install, fresh.Lift, fresh.Lines, fresh.Pairs);
    }

    /// <summary>The form's field that a fault speaks of.</summary>
    public static string? Field(string fault) =>
        fault switch
        {
            "install" => "Input.Install",
            "lift" => "Input.Lift",
            _ => fault.StartsWith("Input.", StringComparison.Ordinal) ? fault : null,
        };

    /// <summary>Reads what was typed; every fault names its field of the form.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="planterId">The planter.</param>
    /// <param name="layer">The layer; null to read it from the form.</param>
    /// <param name="units">Units of the depths.</param>
    public Display Read(Plan plan, string planterId, DisplayLayer? layer, UnitsText units)
    {
        var faults = new FaultList();
        if (Words.ReadDay(Install) is not { } install)
        {
            faults.Add("Input.Install", "must be a date");
            install = new NodaTime.LocalDate(2000, 1, 1);
        }
        DisplayLayer into = layer ?? (Enum.TryParse(Layer, out DisplayLayer l) && Enum.IsDefined(l) ? l : DisplayLayer.Seasonal);
        if (Words.ReadDay(Lift) is not { } lift)
        {
            bool forGood = into == DisplayLayer.Standing && string.IsNullOrWhiteSpace(Lift);
            if (!forGood)
                faults.Add("Input.Lift", into == DisplayLayer.Standing ? "must be a date, or empty for as long as it lives" : "must be a date");
            lift = forGood ? Display.OpenEnd(install) : install.PlusDays(1);
        }
        var items = new List<DisplayItem>();
        var cuts = new List<CutBack>();
        for (int i = 0; i < Lines.Count; i++)
        {
            if (Lines[i].IsBlank || Item(plan, i, faults, units) is not { } item)
                continue;
            items.Add(item);
            cuts.AddRange(Cuts(i, install, lift, faults, units));
        }
        if (items.Count == 0 && faults.IsEmpty)
            faults.Add("Input.Lines[0].PlantId", "choose at least one plant");
        string id = string.IsNullOrEmpty(DisplayId)
            ? Ids.From($"{planterId}-{into}-{install.ToString("uuuu-MM", null)}", x => plan.Displays.Any(d => d.Id == x))
            : DisplayId;
        Display? before = plan.Displays.FirstOrDefault(d => d.Id == id);
        var display = new Display(
            id,
            planterId,
            into,
            install,
            lift,
            [.. items.Select((item, k) => Kept(item, before, items.Take(k).Count(o => o.PlantId == item.PlantId)))]
        )
        {
            Pairs = ReadPairs(items),
            Cuts = cuts,
        };
        foreach (Fault fault in display.Faults().Where(_ => faults.IsEmpty))
        {
            faults.Add(
                fault.Field switch
                {
                    "install" => "Input.Install",
                    "lift" => "Input.Lift",
                    _ => string.Empty,
                },
                fault.Message
            );
        }
        foreach (DisplayItem item in items.Where(i => !Display.CanHold(into, plan.Plant(i.PlantId))))
            faults.Add(string.Empty, $"{plan.Plant(item.PlantId).CommonName} cannot stand in the {Words.Of(into)} layer");
        Display? other = plan.DisplaysOf(planterId).FirstOrDefault(d => d.Id != id && d.Layer == into && d.Install < lift && install < d.Lift);
        if (faults.IsEmpty && other is not null)
        {
            faults.Add(
                "Input.Install",
                (
                    $"the {Words.Of(into)} layer is filled from {Words.DayYear(other.Install)} to {Words.DayYear(other.Lift)} by "
                    + $"{string.Join(", ", other.Items.Select(x => plan.Plant(x.PlantId).CommonName))}. Lift that earlier, or install this one on {Words.DayYear(other.Lift)} or later"
                )
            );
        }
        faults.ThrowIfAny();
        return display;
    }

    /// <summary>The lines that can be read, for a preview while others are still being typed.</summary>
    public IReadOnlyList<DisplayItem> Readable(Plan plan, UnitsText units)
    {
        var ignored = new FaultList();
        return [.. Enumerable.Range(0, Lines.Count).Where(i => !Lines[i].IsBlank).Select(i => Item(plan, i, ignored, units)).OfType<DisplayItem>()];
    }

    /// <summary>The pairs that can be read and whose bulbs are both planted.</summary>
    public IReadOnlyList<BloomPair> ReadPairs(IReadOnlyList<DisplayItem> items) =>
        [
            .. Pairs
                .Select(p => (p ?? string.Empty).Split(':'))
                .Where(p =>
                    p.Length == 3
                    && p[1] != p[2]
                    && items.Any(i => i.PlantId == p[1])
                    && items.Any(i => i.PlantId == p[2])
                    && Enum.TryParse(p[0], out PairWish wish)
                    && Enum.IsDefined(wish)
                )
                .Select(p => new BloomPair(p[1], p[2], Enum.Parse<PairWish>(p[0])))
                .Distinct(),
        ];

    // What the form does not show stays: since when it stands, and, where a person laid a kind out, its places while its count does.
    // Lines of one kind follow each other in the same order.
    private static DisplayItem Kept(DisplayItem item, Display? before, int nth) =>
        before?.Items.Where(b => b.PlantId == item.PlantId).ElementAtOrDefault(nth) is { } was
            ? item with
            {
                Since = was.Since,
                Forced = was.Forced,
                Places = was.Count == item.Count ? was.Places : null,
            }
            : item;

    private List<CutBack> Cuts(int i, NodaTime.LocalDate install, NodaTime.LocalDate lift, FaultList faults, UnitsText units)
    {
        var cuts = new List<CutBack>();
        foreach (string text in (Lines[i].Cuts ?? string.Empty).Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            if (ReadCut(text, Lines[i].PlantId ?? string.Empty, units) is not { } cut)
                faults.Add(
                    $"Input.Lines[{i}].Cuts",
                    (
                        $"\"{text}\" is no cut; write 2027-07-19, or 2027-07-19 at {units.LengthNumber(20)} of 50% for "
                        + $"a height in {(units.IsUs ? "inches" : "cm")} and a share of the plants; several parted by commas"
                    )
                );
            else if (cut.Day <= install || cut.Day >= lift)
                faults.Add($"Input.Lines[{i}].Cuts", $"must lie while it stands, between {Words.DayYear(install)} and {Words.DayYear(lift)}");
            else
                cuts.Add(cut);
        }
        return cuts;
    }

    /// <summary>The cuts that can be read.</summary>
    public IReadOnlyList<CutBack> ReadCuts(UnitsText units) =>
        [
            .. Lines
                .SelectMany(l =>
                    (l.Cuts ?? string.Empty)
                        .Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
                        .Select(t => ReadCut(t, l.PlantId ?? string.Empty, units))
                )
                .OfType<CutBack>(),
        ];

    private static string CutText(CutBack cut, UnitsText units) =>
        Words.Iso(cut.Day)
        + (cut.HeightCm is { } height ? $" at {units.LengthNumber(height)}" : string.Empty)
        + (cut.Share < 1 ? FormattableString.Invariant($" of {cut.Share * 100:0.#}%") : string.Empty);

    // "2027-07-19", "2027-07-19 at 20", "2027-07-19 at 20 of 50%".
    private static CutBack? ReadCut(string text, string plantId, UnitsText units)
    {
        string[] words = text.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        if (Words.ReadDay(words[0]) is not { } day || words.Length % 2 == 0)
            return null;
        var cut = new CutBack(plantId, day);
        for (int w = 1; w < words.Length; w += 2)
        {
            string figure = words[w + 1];
            switch (words[w])
            {
                case "at" when cut.HeightCm is null && units.ReadLength(figure) is >= 1 and <= 1000 and var height:
                    cut = cut with { HeightCm = Math.Round(height, 1) };
                    break;
                case "of"
                    when double.TryParse(figure.TrimEnd('%'), NumberStyles.Float, CultureInfo.InvariantCulture, out double share)
                        && share is >= 5 and <= 100:
                    cut = cut with { Share = share / 100 };
                    break;
                default:
                    return null;
            }
        }
        return cut;
    }

    private DisplayItem? Item(Plan plan, int i, FaultList faults, UnitsText units)
    {
        DisplayLine line = Lines[i];
        bool good = true;
        if (plan.FindPlant(line.PlantId ?? string.Empty) is null)
        {
            faults.Add($"Input.Lines[{i}].PlantId", "choose a plant");
            good = false;
        }
        if (
            !int.TryParse(line.Count, NumberStyles.AllowLeadingWhite | NumberStyles.AllowTrailingWhite, CultureInfo.InvariantCulture, out int count)
            || count is < 1 or > DisplayItem.MostCount
        )
        {
            faults.Add($"Input.Lines[{i}].Count", "must be a whole number from 1 to 10,000");
            good = false;
        }
        double? depth = null;
        if (!string.IsNullOrWhiteSpace(line.Depth))
        {
            double cm = units.ReadLength(line.Depth);
            if (!(cm is >= 1 and <= 150))
            {
                faults.Add($"Input.Lines[{i}].Depth", $"must be from {units.Length(1)} to {units.Length(150)}, or empty to follow the rule");
                good = false;
            }
            depth = Math.Round(cm, 2);
        }
        int? clump = null;
        if (!string.IsNullOrWhiteSpace(line.Clump))
        {
            if (
                !int.TryParse(
                    line.Clump,
                    NumberStyles.AllowLeadingWhite | NumberStyles.AllowTrailingWhite,
                    CultureInfo.InvariantCulture,
                    out int size
                ) || size is < 2 or > DisplayItem.MostInClump
            )
            {
                faults.Add($"Input.Lines[{i}].Clump", $"must be from 2 to {DisplayItem.MostInClump}, or empty to spread them evenly");
                good = false;
            }
            clump = size;
        }
        string? form = string.IsNullOrWhiteSpace(line.Form) ? null : line.Form.Trim();
        if (form is not null && plan.FindPlant(line.PlantId) is { } sold && GoodsForm.Find(sold, form) is null)
        {
            faults.Add(
                $"Input.Lines[{i}].Form",
                $"{sold.CommonName} is not sold as \"{form}\"; it is sold as {string.Join(", ", GoodsForm.Of(sold).Select(f => f.Name))}"
            );
            good = false;
        }
        PlantFate? fate = Enum.TryParse(line.Fate, out PlantFate f) && Enum.IsDefined(f) ? f : null;
        return good
            ? new DisplayItem(line.PlantId!, count, depth)
            {
                Clump = clump,
                Fate = fate,
                Form = form,
            }
            : null;
    }
}

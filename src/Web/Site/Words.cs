using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Store.People;

namespace UnrulyMeadow.Web.Site;

/// <summary>The words in which values stand on a page.</summary>
public static class Words
{
    private static readonly FactWriter English = new(Core.Planning.SiteUnits.Metric);

    /// <summary>A member of an enumeration that the Wording project has words for.</summary>
    public static string Of(Enum value) => English.Say(value);

    /// <summary>What somebody of a role may do.</summary>
    public static string About(SiteRole role) =>
        role switch
        {
            SiteRole.Guest => "reads",
            SiteRole.Crew => "writes the log and does the day’s work",
            SiteRole.Lead => "keeps the stock and signs phones in too",
            SiteRole.Planner => "plans too",
            _ => "settles people, settings and files too",
        };

    /// <summary>A plan year: "2026–27", or "2026" where it follows the calendar's.</summary>
    public static string PlanYear(LocalDate start) => start.Month == 1 ? $"{start.Year}" : $"{start.Year}–{(start.Year + 1) % 100:00}";

    /// <summary>
    /// The plant of a log entry as it was called then, with what it is called now where that differs; null where the entry names none.
    /// </summary>
    public static string? Called(Observation seen, Core.Planning.Plan plan)
    {
        if (seen.PlantId is not { } id)
            return null;
        string? now = plan.FindPlant(id)?.CommonName;
        string then = seen.PlantName ?? now ?? id;
        return now is null || now == then ? then : $"{then} (now called {now})";
    }

    /// <summary>A bare spell: "Bare 15 Mar to 28 Mar, 14 days, in 20 of 28 years".</summary>
    public static string Bare(Core.Season.BareSpell spell) =>
        $"Bare {Short(spell.FirstDay)} to {Short(spell.LastDay)}, {spell.Days} days, in {spell.YearsBare} of {spell.Years} years";

    /// <summary>Names in a sentence: "one, two and three".</summary>
    public static string List(IReadOnlyList<string> names) =>
        names.Count < 2 ? string.Concat(names) : $"{string.Join(", ", names.Take(names.Count - 1))} and {names[^1]}";

    /// <summary>The first of some names in a sentence, and how many there are besides: "one, two and 4 more".</summary>
    /// <param name="names">The names.</param>
    /// <param name="most">Most that are named.</param>
    public static string Some(IEnumerable<string> names, int most)
    {
        List<string> all = [.. names];
        return all.Count <= most ? List(all) : List([.. all.Take(most - 1), $"{all.Count - most + 1} more"]);
    }

    /// <summary>"Tue 14 Apr".</summary>
    public static string Day(LocalDate day) => day.ToString("ddd d MMM", null);

    /// <summary>"Tue 14 Apr 2027".</summary>
    public static string DayYear(LocalDate day) => day.ToString("ddd d MMM uuuu", null);

    /// <summary>"14 Apr".</summary>
    public static string Short(LocalDate day) => day.ToString("d MMM", null);

    /// <summary>As a date field holds it.</summary>
    public static string Iso(LocalDate day) => NodaTime.Text.LocalDatePattern.Iso.Format(day);

    /// <summary>Reads a date field; null when it is no date.</summary>
    public static LocalDate? ReadDay(string? text) =>
        NodaTime.Text.LocalDatePattern.Iso.Parse(text ?? string.Empty).TryGetValue(default, out LocalDate day) && day.Year is >= 1900 and <= 2200
            ? day
            : null;

    /// <summary>The name of a month, 1 to 12.</summary>
    public static string Month(int month) => System.Globalization.CultureInfo.InvariantCulture.DateTimeFormat.GetMonthName(month);

    /// <summary>"1 planter", "3 planters".</summary>
    public static string Count(int count, string one, string many) => $"{count:#,0} {(count == 1 ? one : many)}";

    /// <summary>What is ordered by a day: "450 plants of 6 kinds in packs".</summary>
    public static string Sort(Core.Supply.OrderDeadline deadline)
    {
        bool bulbs = deadline.Sort == Core.Palette.GoodsSort.Bulbs;
        string form = deadline.Sort switch
        {
            Core.Palette.GoodsSort.Plugs => " as plugs",
            Core.Palette.GoodsSort.Packs => " in packs",
            Core.Palette.GoodsSort.Pot => deadline.IsWood ? ", trees and shrubs" : " in pots",
            Core.Palette.GoodsSort.Stems => ", cut stems",
            _ => string.Empty,
        };
        return $"{Count(deadline.Bought, bulbs ? "bulb" : "plant", bulbs ? "bulbs" : "plants")} of {Count(deadline.Lines.Count, "kind", "kinds")}{form}";
    }

    /// <summary>A count; nothing where it is 0.</summary>
    public static string OrNothing(int count) => count == 0 ? string.Empty : $"{count:#,0}";

    /// <summary>What a supplier takes off a bill; "nothing" for none.</summary>
    /// <param name="supplier">The supplier.</param>
    /// <param name="money">The sign of the money.</param>
    public static string Terms(Core.Supply.Supplier supplier, string money) =>
        supplier.Discounts.Count == 0
            ? "nothing"
            : string.Join(
                "; ",
                supplier.Discounts.Select(d =>
                    d switch
                    {
                        Core.Supply.OffForEvery e => $"{money}{e.Each:0.##} for every full {money}{e.Every:0.##}, up to {money}{e.Most:0.##}",
                        Core.Supply.ShareFrom f => $"{f.Share * 100:0.##} % from {money}{f.From:0.##}",
                        _ => string.Empty,
                    }
                )
            );

    /// <summary>The same words with a capital at their head.</summary>
    public static string Capital(string text) => text.Length == 0 ? text : char.ToUpperInvariant(text[0]) + text[1..];

    /// <summary>A length of work.</summary>
    public static string Hours(double hours) => hours < 9.5 ? $"{hours:0.#} h" : $"{hours:#,0} h";

    /// <summary>A number with its sign: "+12", "−3", "0".</summary>
    public static string Signed(int number) => number == 0 ? "0" : $"{(number > 0 ? "+" : "−")}{Math.Abs(number):#,0}";

    /// <summary>"in 7 of 10 years".</summary>
    public static string InTen(double share) => $"in {Math.Round(share * 10, MidpointRounding.AwayFromZero):0} of 10 years";

    /// <summary>"3 minutes ago".</summary>
    public static string Ago(Instant then, Instant now)
    {
        double minutes = Math.Max(0, (now - then).TotalMinutes);
        return minutes < 1.5 ? "just now"
            : minutes < 90 ? $"{minutes:0} minutes ago"
            : minutes < 36 * 60 ? $"{minutes / 60:0} hours ago"
            : $"{minutes / 1440:0} days ago";
    }

    /// <summary>Odds that are small: "1 in 10".</summary>
    public static string OneIn(double share) => $"1 in {1 / share:0.#}";

    /// <summary>What stands behind a record's figures.</summary>
    public static string Basis(Core.Climate.WeatherRecord record) =>
        record.GeneratedFrom is { } normals
            ? $"generated from {normals.Origin}: rougher, worth {record.KnownYears} years"
            : $"{record.YearsUsed.Count} years used, {record.YearsUsed[0]}–{record.YearsUsed[^1]}"
                + (
                    record.YearsLeftOut.Count > 0
                        ? (
                            "; left out "
                            + $"{string.Join(", ", record.YearsLeftOut.Take(4).Select(y => $"{y.Year} ({y.MissingDays} days missing)"))}{(record.YearsLeftOut.Count > 4 ? " …" : string.Empty)}"
                        )
                        : string.Empty
                );

    /// <summary>A planter's size in a few words.</summary>
    public static string Size(PlanterForm form, UnitsText units) =>
        form.Shape switch
        {
            PlanterShape.Round => $"round {units.Length(form.TopLengthCm)}",
            PlanterShape.Basket => $"basket {units.Length(form.TopLengthCm)}",
            PlanterShape.Bowl => $"bowl {units.Length(form.TopLengthCm)}",
            PlanterShape.HalfBarrel => $"half-barrel {units.Length(form.TopLengthCm)}",
            PlanterShape.Oval => $"oval {units.LengthNumber(form.TopLengthCm)} × {units.Length(form.TopWidthCm)}",
            PlanterShape.Trough => $"trough {units.LengthNumber(form.TopLengthCm)} × {units.Length(form.TopWidthCm)}",
            _ => units.IsUs ? $"bed {form.SurfaceCm2 / 929.0304:0} ft²" : $"bed {form.SurfaceCm2 / 10_000:0.#} m²",
        };
}

using System.Collections.Concurrent;
using NodaTime;
using NodaTime.Text;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;

namespace UnrulyMeadow.Web.Site;

/// <summary>Something that was found by words.</summary>
/// <param name="Kind">What it is: "planter", "page".</param>
/// <param name="Name">Its name.</param>
/// <param name="Detail">What tells it from its like; empty where nothing does.</param>
/// <param name="Path">Where it is.</param>
public sealed record SiteHit(string Kind, string Name, string Detail, string Path);

/// <summary>Finds any page, day, planter, plant, turn, recipe or area by words.</summary>
public static class SiteFinder
{
    /// <summary>Most of one kind.</summary>
    public const int MostOfAKind = 8;

    private static readonly LocalDatePattern[] Days =
    [
        .. new[] { "uuuu-MM-dd", "d MMM uuuu", "d MMMM uuuu", "MMM d uuuu", "MMMM d uuuu" }.Select(LocalDatePattern.CreateWithInvariantCulture),
    ];

    private static readonly AnnualDatePattern[] DaysOfYear =
    [
        .. new[] { "d MMM", "d MMMM", "MMM d", "MMMM d" }.Select(AnnualDatePattern.CreateWithInvariantCulture),
    ];

    /// <summary>What answers, by kind, the best of each first.</summary>
    /// <param name="now">The plan.</param>
    /// <param name="today">Today.</param>
    /// <param name="typed">What was typed.</param>
    public static IReadOnlyList<SiteHit> Find(SiteNow now, LocalDate today, string? typed)
    {
        var search = new WordSearch(typed);
        Plan plan = now.Plan;
        IEnumerable<SitePage> pages = SitePages.Groups.SelectMany(g => g.Pages);
        if (search.IsEmpty)
            return [.. pages.Select(p => new SiteHit("page", p.Name, string.Empty, p.Path))];
        Dictionary<string, string> areas = plan.Areas.ToDictionary(a => a.Id, a => a.Name, StringComparer.Ordinal);
        IEnumerable<SiteHit> days = Day(typed!.Trim(), today) is { } day
            ?
            [
                new SiteHit("day", Words.DayYear(day), "on the year", $"/year?day={Words.Iso(day)}"),
                new SiteHit("day", Words.DayYear(day), "its sheet", $"/daysheet?date={Words.Iso(day)}"),
            ]
            : [];
        return
        [
            .. days,
            .. Best(pages.Concat(SitePages.Beneath), search, p => p.Name, p => p.About)
                .Select(p => new SiteHit("page", p.Name, string.Empty, p.Path)),
            .. Best(
                    plan.Planters.OrderBy(p => p.IsRetired),
                    search,
                    p => p.Name,
                    p => $"{areas[p.AreaId]} {Words.Of(p.Form.Shape)} {p.Survey.LookGroup}"
                )
                .Select(p => new SiteHit("planter", p.Name, p.IsRetired ? $"{areas[p.AreaId]}, retired" : areas[p.AreaId], $"/planters/{p.Id}")),
            .. Best(plan.Palette.OrderBy(p => p.IsRetired), search, p => p.CommonName, PlantWords.Of)
                .Select(p => new SiteHit("plant", p.CommonName, p.BotanicalName, $"/palette/{p.Id}")),
            .. Best(plan.Turns.OrderByDescending(t => t.FirstDay), search, t => t.Name, _ => "turn")
                .Select(t => new SiteHit("turn", t.Name, Words.DayYear(t.FirstDay), $"/turns/{t.Id}")),
            .. Best(plan.Recipes, search, r => r.Name, _ => "recipe")
                .Select(r => new SiteHit("recipe", r.Name, string.Empty, $"/recipes?recipe={Uri.EscapeDataString(r.Id)}")),
            .. Best(plan.Areas, search, a => a.Name, _ => "area")
                .Select(a => new SiteHit("area", a.Name, "its planters", $"/planters?area={Uri.EscapeDataString(a.Id)}")),
        ];
    }

    /// <summary>A day as somebody types it, "12 May" or "2027-05-12"; without a year the next such day.</summary>
    public static LocalDate? Day(string typed, LocalDate today)
    {
        string text = typed.Replace(",", " ", StringComparison.Ordinal).Replace("  ", " ", StringComparison.Ordinal).TrimEnd('.');
        if (text.Equals("today", StringComparison.OrdinalIgnoreCase))
            return today;
        if (text.Equals("tomorrow", StringComparison.OrdinalIgnoreCase))
            return today.PlusDays(1);
        foreach (LocalDatePattern pattern in Days)
        {
            if (pattern.Parse(text).TryGetValue(default, out LocalDate day) && Words.ReadDay(Words.Iso(day)) is not null)
                return day;
        }
        foreach (AnnualDatePattern pattern in DaysOfYear)
        {
            if (pattern.Parse(text).TryGetValue(default, out AnnualDate day))
                return day.InYear(today.Year) is var here && here >= today ? here : day.InYear(today.Year + 1);
        }
        return null;
    }

    private static IEnumerable<T> Best<T>(IEnumerable<T> all, WordSearch search, Func<T, string> name, Func<T, string> rest) =>
        all.Select(x => (Thing: x, Match: search.Match(name(x), rest(x))))
            .Where(x => x.Match is not null)
            .OrderBy(x => x.Match)
            .Take(MostOfAKind)
            .Select(x => x.Thing);
}

/// <summary>The words by which a plant is found besides its common name.</summary>
public static class PlantWords
{
    private static readonly ConcurrentDictionary<string, ColourWord> Known = new(StringComparer.Ordinal);

    /// <summary>Botanical name, family, kind, habit and colours.</summary>
    public static string Of(Plant plant) =>
        $"{plant.BotanicalName} {plant.Family} {Words.Of(plant.LifeForm)} {Words.Of(plant.Habit)} "
        + string.Join(' ', plant.Windows.SelectMany(w => w.Colours).Select(c => Words.Of(Word(c))).Distinct(StringComparer.Ordinal));

    private static ColourWord Word(string colour) => Known.GetOrAdd(colour, ColourWords.Of);
}

using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Web.Site;

/// <summary>A page that the navigation leads to.</summary>
/// <param name="Name">What it is called; pages beneath it name it as their view.</param>
/// <param name="Path">Its address.</param>
/// <param name="About">Words by which it is found besides its name.</param>
public sealed record SitePage(string Name, string Path, string About);

/// <summary>The pages of one moment of the work.</summary>
/// <param name="Name">The moment.</param>
/// <param name="Pages">Its pages; the first is opened by its name.</param>
public sealed record SitePageGroup(string Name, IReadOnlyList<SitePage> Pages);

/// <summary>Where everything is: the pages of the site by the moment of the work at which they are needed.</summary>
public static class SitePages
{
    /// <summary>The navigation.</summary>
    public static IReadOnlyList<SitePageGroup> Groups { get; } =
    [
        new(
            "Plan",
            [
                new("Year", "/year", "bare colour rules ribbons"),
                new("Grounds", "/grounds", "map site plan areas paths"),
                new("Planters", "/planters", "containers beds pots troughs baskets"),
                new("Turns", "/turns", "changeovers seasons"),
                new("Palette", "/palette", "plants catalogue"),
                new("Recipes", "/recipes", "combinations"),
            ]
        ),
        new("Supply", [new("What to order", "/supply", "orders buy packs cost"), new("Stock", "/stock", "at hand holding lots bulbs lifted")]),
        new(
            "Crew",
            [
                new("Work", "/work", "give tasks day who lead rain"),
                new("Schedule", "/work/schedule", "who when week loads route trips roster hours teams vehicles calendar"),
                new("Care", "/care", "water frost cold night cover feed round"),
                new("Today", "/today", "my stops sheet phone tick"),
                new("Day sheet", "/daysheet", "print jobs route"),
            ]
        ),
        new(
            "Look back",
            [
                new("Log", "/log", "record observations ratings notes"),
                new("Review", "/review", "walk rating keep repeat drop season"),
                new("Learnt", "/learnt", "dates posterior later earlier teach"),
                new("Trials", "/trials", "which kinds do well compare repeats chance"),
                new("Changes", "/changes", "undo take back history"),
            ]
        ),
        new(
            "Site",
            [
                new("Climate", "/climate", "frost weather zone heat"),
                new("House rules", "/rules", "schools thresholds limits"),
                new("People", "/people", "crew roles invitations sign in phone"),
                new("The site", "/site", "units name files export import plan settings"),
            ]
        ),
    ];

    /// <summary>The way down to a planter: its area and, for the pages beneath it, itself.</summary>
    public static IReadOnlyList<(string Name, string Path)> Trail(Plan plan, Planter planter, bool isBeneath)
    {
        (string, string) area = (plan.AreaOf(planter).Name, $"/planters?area={Uri.EscapeDataString(planter.AreaId)}");
        return isBeneath ? [area, (planter.Name, $"/planters/{planter.Id}")] : [area];
    }

    /// <summary>Pages beneath others that are looked for by name.</summary>
    public static IReadOnlyList<SitePage> Beneath { get; } =
    [
        new("Begin", "/begin", "new site first steps start"),
        new("Minutes by kind of work", "/work/labour", "labour hours times"),
        new("Basket", "/supply/basket", "what to buy where cheapest suppliers offers discounts"),
        new("Orders", "/supply/orders", "purchase sent deliveries receive credits"),
        new("Suppliers", "/supply/suppliers", "nurseries price lists offers terms"),
        new("Holding area", "/supply/holding", "waiting plants cold frame bench water harden off quarantine"),
        new("Materials", "/supply/materials", "medium feed mulch pins pots labels store reorder"),
        new("Money", "/supply/money", "budget cost planned committed paid"),
        new("Bulbs through spring", "/year/sequence", "sequence spread"),
        new("Act on many planters", "/year/act", "bulk recipe copy same as last year move replace take out"),
        new("Labels for planters", "/planters/labels", "qr squares print stickers"),
        new("Planters as a table", "/planters/table", "paste spreadsheet xlsx csv import export"),
        new("Displays as a table", "/tables/displays", "paste spreadsheet xlsx csv import export"),
        new("Turns as a table", "/tables/turns", "paste spreadsheet xlsx csv import export"),
        new("Stock as a table", "/tables/stock", "paste spreadsheet xlsx csv import export lots"),
        new("Close bare spells", "/year/close", "gaps fill"),
        new("Years ahead", "/year/ahead", "cost budget tulips"),
        new("Rehearse", "/year/rehearse", "what if late frost drought"),
        new("Events", "/year/events", "regatta festival dates"),
        new("Weather stations", "/climate/stations", "import record normals"),
        new("Root-zone temperatures", "/climate/ground", "soil cold container"),
        new("Bring in a palette sheet", "/palette/import", "csv"),
    ];
}

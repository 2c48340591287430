using System.Globalization;
using AngleSharp.Dom;
using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Work;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Exchange.Weather;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web.Tests;

/// <summary>
/// Every page is walked over and every figure that it marks is gathered: the same figure is the same wherever it is shown, and what
/// the day sheets say adds up to what the order and the turn say. Over the demo and two sites made by chance.
/// </summary>
public sealed class OneStoryTests
{
    [Theory]
    [InlineData(0)]
    [InlineData(71)]
    [InlineData(72)]
    public async Task The_same_figure_is_the_same_on_every_page(int seed)
    {
        Plan plan = seed == 0 ? Demo() : Made(seed);
        await using var app = new SiteApp(plan, seed);
        await app.InitializeAsync();
        HttpClient browser = app.Browser();
        var told = new Dictionary<string, List<(string Value, string Page)>>(StringComparer.Ordinal);
        var parts = new Dictionary<string, double>(StringComparer.Ordinal);
        IEnumerable<string> pages =
        [
            "/year",
            "/year?day=2027-09-15",
            .. plan.Planters.SelectMany(p => new[] { $"/planters/{p.Id}", $"/planters/{p.Id}?day=2027-04-25", $"/planters/{p.Id}?day=2027-09-15" }),
            .. plan
                .Displays.Where(d => d.Layer == DisplayLayer.Bulbs)
                .Select(d => d.PlanterId)
                .Distinct()
                .SelectMany(p => new[] { $"/stack/{p}?day=2026-12-01", $"/stack/{p}?day=2027-04-25" }),
            .. plan.Turns.SelectMany(t => new[] { $"/turns/{t.Id}", $"/supply?turn={t.Id}" }),
            .. plan
                .Turns.SelectMany(t => DaySheet.DaysOf(plan, t))
                .Distinct()
                .Select(d => FormattableString.Invariant($"/daysheet?date={d:uuuu-MM-dd}")),
        ];
        foreach (string page in pages)
        {
            IDocument document = await browser.Open(page);
            foreach (IElement figure in document.QuerySelectorAll("[data-figure]"))
            {
                string key = figure.GetAttribute("data-figure")!;
                if (!told.TryGetValue(key, out List<(string, string)>? known))
                    told[key] = known = [];
                known.Add((figure.GetAttribute("data-value") ?? figure.TextContent.Trim(), page));
            }
            foreach (IElement part in document.QuerySelectorAll("[data-part]"))
            {
                string key = part.GetAttribute("data-part")!;
                parts[key] = parts.GetValueOrDefault(key) + double.Parse(part.GetAttribute("data-value")!, CultureInfo.InvariantCulture);
            }
        }
        foreach ((string key, List<(string Value, string Page)> values) in told)
            Assert.True(
                values.Select(v => v.Value).Distinct(StringComparer.Ordinal).Count() == 1,
                $"{key}: {string.Join(", ", values.Select(v => $"{v.Value} on {v.Page}"))}"
            );
        // On two pages at least: on the year and at the planter, in the order and at the turn.
        Assert.All(told.Where(t => t.Key.StartsWith("days in colour", StringComparison.Ordinal)), t => Assert.True(t.Value.Count > 1, t.Key));
        Assert.Contains(told, t =>
            t.Key.StartsWith("first colour", StringComparison.Ordinal)
            && t.Value.Exists(v => v.Page.StartsWith("/stack", StringComparison.Ordinal))
            && t.Value.Exists(v => v.Page.StartsWith("/planters", StringComparison.Ordinal))
        );
        Assert.True(told.Keys.Count(k => k.StartsWith("plants in", StringComparison.Ordinal)) >= Math.Min(3, plan.Turns.Count));
        foreach ((string key, double sum) in parts)
        {
            double whole = double.Parse(told[key][0].Value, CultureInfo.InvariantCulture);
            Assert.True(Math.Abs(whole - sum) < 0.06, $"{key}: {whole} in the order, {sum} on the day sheets");
        }
    }

    private static Plan Demo()
    {
        using FileStream file = File.OpenRead(MeadowApp.Demo("kittiwake-quay.plan.json"));
        return PlanFile.Read(file);
    }

    // A small site with every sort of planter, kinds that stay, bulbs under what stays, days between turns and stock at hand.
    private static Plan Made(int seed)
    {
        var random = new Random(seed);
        Plan demo = Demo();
        Core.Planning.Site site = demo.Site with
        {
            Name = $"Made {seed}",
            Units = seed % 2 == 0 ? SiteUnits.UsCustomary : SiteUnits.Metric,
            SpareShare = 0.08,
        };
        Planter pot = demo.FindPlanter("great-pot")!;
        Planter bed = demo.Planters.First(p => p.Form.IsBed && p.Form.Outline is null);
        Planter basket = demo.Planters.First(p => p.Form.Shape == PlanterShape.Basket);
        List<Planter> planters =
        [
            .. Enumerable
                .Range(0, 7)
                .Select(i =>
                    (
                        i == 5 ? bed
                        : i == 6 ? basket
                        : pot with { Form = PlanterForm.Round(35 + random.Next(50), 30 + random.Next(30), 40 + random.Next(20)) }
                    ) with
                    {
                        Id = $"made-{i}",
                        Name = $"Made {i}",
                        Place = null,
                        Skyline = null,
                        AreaId = demo.Areas[i % 2].Id,
                    }
                ),
        ];
        Plant[] Of(Func<Plant, bool> which) => [.. demo.Palette.Where(p => !p.IsRetired && which(p))];
        Plant[] cool = Of(p => p.LifeForm == LifeForm.CoolSeasonAnnual);
        Plant[] tender = Of(p => p.LifeForm == LifeForm.TenderAnnual && p.Bulb is null);
        Plant[] lasting = Of(p => p.LifeForm is LifeForm.Perennial or LifeForm.Grass);
        Plant[] bulbs = Of(p => p.LifeForm == LifeForm.Bulb && !p.IsTender && p.Bulb!.HeightCm < 6);
        Turn[] turns =
        [
            new("fall", "Fall", new(2026, 9, 21), new(2026, 10, 9)),
            new("bulbs", "Bulbs", new(2026, 10, 19), new(2026, 11, 6)),
            new("spring", "Spring", new(2027, 3, 15), new(2027, 3, 26)),
            new("summer", "Summer", new(2027, 5, 17), new(2027, 6, 4)),
        ];
        var displays = new List<Display>();
        foreach (Planter planter in planters)
        {
            LocalDate Day(int turn) => turns[turn].FirstDay.PlusDays(random.Next(random.Next(6) == 0 ? 30 : 12));
            Display Show(string name, DisplayLayer layer, LocalDate from, LocalDate to, Plant[] kinds, int most, PlantFate? fate = null) =>
                new(
                    $"{planter.Id}-{name}",
                    planter.Id,
                    layer,
                    from,
                    to,
                    [.. random.GetItems(kinds, 2).DistinctBy(p => p.Id).Select(p => new DisplayItem(p.Id, 1 + random.Next(most)) { Fate = fate })]
                );
            (LocalDate fall, LocalDate spring, LocalDate summer) = (Day(0), Day(2), Day(3));
            Display winter = Show("fall", DisplayLayer.Seasonal, fall, spring, cool, 9, random.Next(2) == 0 ? PlantFate.Stays : null);
            Display next = Show("spring", DisplayLayer.Seasonal, spring, summer, cool, 9);
            displays.AddRange([
                winter,
                Core.Turning.TurnChange.WithStays(winter, next),
                Show("summer", DisplayLayer.Seasonal, summer, new(2027, 9, 24), tender, 7),
            ]);
            if (random.Next(3) > 0)
                displays.Add(Show("bulbs", DisplayLayer.Bulbs, Day(1), summer, bulbs, 11));
            if (random.Next(3) == 0)
                displays.Add(Show("standing", DisplayLayer.Standing, new(2025, 4, 1), new(2030, 4, 1), lasting, 2));
        }
        string kept = displays.First(d => d.Id.EndsWith("summer", StringComparison.Ordinal)).Items[0].PlantId;
        return new Plan(
            site,
            [.. demo.Areas.Take(2)],
            planters,
            demo.Palette,
            displays,
            turns,
            lots: [new Lot("kept", kept, 4, LotState.Overwintering, "frame", new(2026, 10, 1), LotCondition.Good)]
        );
    }

    private sealed class SiteApp(Plan plan, int seed) : MeadowApp
    {
        protected override bool WithDemo => seed == 0;

        public new async ValueTask InitializeAsync()
        {
            await InitializeAsync(withServer: true);
            if (seed == 0)
                return;
            await new PlanStore(Database, PlanFile.Stored).Replace(plan);
            using FileStream weather = File.OpenRead(Demo("kittiwake-quay.dly"));
            await new WeatherStore(Database).Merge(
                new Station("KTQ00000001", "Harbour office", 43.1, -66.9, 6),
                WeatherFile.Read(weather).Days,
                Instant.FromUtc(2026, 11, 23, 8, 0)
            );
        }
    }
}

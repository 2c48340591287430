using System.Text.RegularExpressions;
using NodaTime;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Exchange.Weather;

namespace UnrulyMeadow.Wording.Tests;

/// <summary>All that is said of the demo, in one system of units and the other.</summary>
public sealed partial class DemoWordsTests
{
    private static readonly LocalDate Start = new(2026, 9, 1);
    private static readonly Plan Demo = ReadPlan();
    private static readonly WeatherRecord Weather = ReadWeather();

    [Fact]
    public void What_is_remarked_on_the_demo_is_whole_and_in_the_units_of_the_site()
    {
        Remark[] remarks = [.. new DisplayChecks(Demo, Weather).All(Start)];
        Assert.True(remarks.Select(r => r.Kind).Distinct().Count() >= 8);
        Assert.All(remarks.SelectMany(r => Said(r, new FactWriter(SiteUnits.Metric))), s => Whole(s, OfTheUs()));
        Assert.All(remarks.SelectMany(r => Said(r, new FactWriter(SiteUnits.UsCustomary))), s => Whole(s, Metric()));
    }

    [Fact]
    public void Why_plants_do_not_fit_the_demos_planters_is_whole_and_in_the_units_of_the_site()
    {
        var flowering = new SiteFlowering(Weather, Start);
        Core.Facts.Fact[] reasons =
        [
            .. Demo
                .Planters.Take(6)
                .SelectMany(p =>
                    new FitQuestion(flowering, Demo.Site, p, Demo.AreaOf(p), new LocalDate(2027, 1, 10), new LocalDate(2027, 7, 10)).Ask(Demo.Palette)
                )
                .SelectMany(f => f.Reasons)
                .Select(r => r.Why),
        ];
        Assert.True(reasons.Select(r => r.Kind).Distinct().Count() >= 10);
        Assert.All(reasons.Select(new FactWriter(SiteUnits.Metric).Say), s => Whole(s, OfTheUs()));
        Assert.All(reasons.Select(new FactWriter(SiteUnits.UsCustomary).Say), s => Whole(s, Metric()));
    }

    [Fact]
    public void A_stack_that_does_not_fit_says_why_in_the_units_of_the_site()
    {
        Core.Planters.Planter pot = Demo.Planters.First(p => !p.Form.IsBed);
        Core.Palette.Plant bulb = Demo.Palette.First(p => p.Bulb is not null);
        Core.Facts.Fact problem = Assert.Single(Core.Stacks.BulbStack.LayOut(pot, Demo.Site, [new PlannedBulb(bulb, 5, 400)]).Problems);
        Assert.Contains("at 400 cm lies too deep", new FactWriter(SiteUnits.Metric).Say(problem), StringComparison.Ordinal);
        Assert.Contains("at 157.5 in lies too deep", new FactWriter(SiteUnits.UsCustomary).Say(problem), StringComparison.Ordinal);
    }

    private static IEnumerable<string> Said(Remark remark, FactWriter writer) =>
        [writer.What(remark), writer.Why(remark), writer.Mend(remark), .. remark.Remedies.Select(writer.Say)];

    private static void Whole(string sentence, Regex foreign)
    {
        Assert.NotEmpty(sentence);
        Assert.DoesNotContain('⟨', sentence);
        Assert.DoesNotMatch(@"[\[\]{}]|\s[.,;]|  ", sentence);
        Assert.DoesNotMatch(foreign, sentence);
    }

    private static Plan ReadPlan()
    {
        using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "demo", "kittiwake-quay.plan.json"));
        return PlanFile.Read(file);
    }

    private static WeatherRecord ReadWeather()
    {
        using FileStream file = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "demo", "kittiwake-quay.dly"));
        return WeatherRecord.From(new Station("K", "K", 43.1, -66.9, 6), WeatherFile.Read(file).Days);
    }

    [GeneratedRegex(@"°C|\d (cm|m|km|mm|L|kg|g)\b|m²", RegexOptions.CultureInvariant | RegexOptions.ExplicitCapture, 1000)]
    private static partial Regex Metric();

    [GeneratedRegex(@"°F|\d (in|ft|mi|gal|lb|oz)\b|ft²", RegexOptions.CultureInvariant | RegexOptions.ExplicitCapture, 1000)]
    private static partial Regex OfTheUs();
}

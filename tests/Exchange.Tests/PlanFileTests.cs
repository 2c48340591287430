using System.IO.Compression;
using System.Text;
using System.Text.Json.Nodes;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Work;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Exchange.Weather;

namespace UnrulyMeadow.Exchange.Tests;

public sealed class PlanFileTests
{
    private static readonly string DemoPath = Path.Combine(AppContext.BaseDirectory, "demo", "kittiwake-quay.plan.json");

    [Fact]
    public void A_second_export_equals_the_first_byte_for_byte()
    {
        byte[] first = PlanFile.Write(Demo());
        Assert.Equal(first, PlanFile.Write(Read(first)));
    }

    [Fact]
    public void The_demo_is_what_a_crew_would_recognise()
    {
        Plan demo = Demo();
        Assert.Equal("Kittiwake Quay", demo.Site.Name);
        Assert.Equal((24, 4), (demo.Planters.Count, demo.Areas.Count));
        Assert.True(demo.Palette.Count >= 45);
        Assert.Superset(Enum.GetValues<LifeForm>().ToHashSet(), demo.Palette.Select(p => p.LifeForm).ToHashSet());
        Assert.True(
            demo.Planters.Where(p => p.Form.Shape == Core.Planters.PlanterShape.Round).Select(p => p.Form.TopLengthCm).Distinct().Count() >= 3
        );
    }

    [Fact]
    public void The_demo_is_bare_in_five_planters_and_has_its_three_mistakes()
    {
        Plan demo = Demo();
        using FileStream weather = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "demo", "kittiwake-quay.dly"));
        WeatherRecord record = WeatherRecord.From(new Station("K", "K", 43.1, -66.9, 6), WeatherFile.Read(weather).Days);
        SiteYear year = SiteYear.From(demo, record, new NodaTime.LocalDate(2026, 9, 1));
        Assert.Equal(
            ["flag-pot", "kiosk-basket", "shade-trough", "south-bed", "wall-pot-west"],
            year.BareSpells.Select(s => s.Season.Planter.Id).Distinct().Order(StringComparer.Ordinal)
        );
        var found = new DisplayChecks(demo, record).All(new NodaTime.LocalDate(2026, 9, 1)).ToList();
        Assert.Equal(
            ["flag-pot-summer-2027", "seat-trough-right-bulbs"],
            found.Where(r => r.Gravity == Gravity.Loses).Select(r => r.DisplayId).Distinct().Order(StringComparer.Ordinal)
        );
        Assert.Contains(found, r => r.DisplayId == "tea-trough-standing" && r.Kind == RemarkKind.DifferentWater);
    }

    [Fact]
    public void Every_remedy_of_the_demo_ends_the_remark_that_offers_it()
    {
        Plan demo = Demo();
        using FileStream weather = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "demo", "kittiwake-quay.dly"));
        WeatherRecord record = WeatherRecord.From(new Station("K", "K", 43.1, -66.9, 6), WeatherFile.Read(weather).Days);
        var kept = new Dictionary<NodaTime.LocalDate, SiteFlowering>();
        SiteFlowering Kept(NodaTime.LocalDate start) =>
            kept.TryGetValue(start, out SiteFlowering? known) ? known : kept[start] = new SiteFlowering(record, start);
        int tried = 0;
        foreach (Display display in demo.Displays.Where(d => d.Lift > new NodaTime.LocalDate(2026, 9, 1)))
        {
            foreach (Remark remark in new DisplayChecks(demo, record, Kept).For(display, thorough: false))
            {
                foreach (Remedy remedy in remark.Remedies)
                {
                    Plan after = new(
                        demo.Site,
                        demo.Areas,
                        demo.Planters,
                        demo.Palette,
                        [.. demo.Displays.Select(d => d.Id == display.Id ? remedy.After : d)],
                        demo.Turns,
                        demo.Map,
                        demo.Lots,
                        demo.Recipes
                    );
                    Assert.DoesNotContain(new DisplayChecks(after, record, Kept).For(remedy.After, thorough: false), r =>
                        r.Says.Key == remark.Says.Key
                    );
                    tried++;
                }
            }
        }
        Assert.True(tried > 20, $"{tried} remedies tried");
    }

    [Theory]
    [InlineData("version", "3", "version", "this program reads versions 1 and 2; the file says 3")]
    [InlineData("version", "\"one\"", "version", "the file says \"one\"")]
    [InlineData("format", "\"a-letter\"", "format", "this is no plan file")]
    public void Another_version_or_format_is_refused_by_name(string member, string value, string field, string why)
    {
        JsonNode json = Json();
        json[member] = JsonNode.Parse(value);
        Fault fault = Assert.Single(Refused(json));
        Assert.Equal(field, fault.Field);
        Assert.Contains(why, fault.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void A_missing_plant_and_a_twice_used_id_are_both_named()
    {
        JsonNode json = Json();
        json["displays"]![0]!["items"]![0]!["plantId"] = "ghost";
        json["planters"]![1]!["id"] = json["planters"]![0]!["id"]!.GetValue<string>();
        var faults = Refused(json);
        Assert.Contains(faults, f => f.Field == "displays[0].items[0].plantId" && f.Message.Contains("\"ghost\"", StringComparison.Ordinal));
        Assert.Contains(faults, f => f.Field == "planters[1].id" && f.Message.Contains("already used", StringComparison.Ordinal));
    }

    [Theory]
    [InlineData("planters[0].form.depthCm")]
    public void A_trough_of_no_depth_is_named_by_its_path(string path)
    {
        JsonNode json = Json();
        json["planters"]![0]!["form"]!["depthCm"] = 0;
        Assert.Contains(Refused(json), f => f.Field == path);
    }

    [Fact]
    public void A_word_that_is_no_shape_is_named_with_its_place()
    {
        JsonNode json = Json();
        json["planters"]![2]!["exposure"] = "moonlight";
        Fault fault = Assert.Single(Refused(json));
        Assert.Equal("planters[2].exposure", fault.Field);
        Assert.Contains("line", fault.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void An_unknown_member_is_refused_so_that_a_slip_of_the_pen_is_not_lost()
    {
        JsonNode json = Json();
        json["planters"]![0]!["colour"] = "red";
        Assert.Contains(Refused(json), f => f.Message.Contains("colour", StringComparison.Ordinal));
    }

    [Theory]
    [InlineData("")]
    [InlineData("{")]
    [InlineData("[]")]
    [InlineData("null")]
    [InlineData("\u0000\u0001")]
    public void What_is_no_plan_is_refused(string text) => Assert.Throws<InvalidInputException>(() => Read(Encoding.UTF8.GetBytes(text)));

    [Fact]
    public void A_plan_file_of_the_version_before_comes_in_whole_and_buys_everything_in_its_usual_form()
    {
        using var packed = new GZipStream(
            File.OpenRead(Path.Combine(AppContext.BaseDirectory, "data", "plan-version-1.json.gz")),
            CompressionMode.Decompress
        );
        using var file = new MemoryStream();
        packed.CopyTo(file);
        Assert.Equal(1, (int)JsonNode.Parse(file.ToArray())!["version"]!);
        file.Position = 0;
        Plan plan = PlanFile.Read(file);
        Assert.Equal(JsonNode.Parse(file.ToArray())!["displays"]!.AsArray().Count, plan.Displays.Count);
        Assert.All(plan.Displays.SelectMany(d => d.Items), i => Assert.Null(i.Form));
        Plan again = Read(PlanFile.Write(plan));
        Assert.Equal(PlanFile.Write(plan), PlanFile.Write(again));
        foreach (Turn turn in plan.Turns)
            Assert.All(TurnOrder.For(plan, turn).Lines, l => Assert.Equal(0, l.Form.GrowOnWeeks));
    }

    [Fact]
    public void The_published_schema_is_the_one_in_the_documents()
    {
        string published = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "docs", "plan.schema.json"));
        Assert.Equal(published, PlanFile.Schema());
    }

    internal static Plan Demo()
    {
        using FileStream file = File.OpenRead(DemoPath);
        return PlanFile.Read(file);
    }

    private static JsonNode Json() => JsonNode.Parse(File.ReadAllText(DemoPath))!;

    private static Plan Read(byte[] bytes)
    {
        using var stream = new MemoryStream(bytes);
        return PlanFile.Read(stream);
    }

    private static IReadOnlyList<Fault> Refused(JsonNode json) =>
        Assert.Throws<InvalidInputException>(() => Read(Encoding.UTF8.GetBytes(json.ToJsonString()))).Faults;
}

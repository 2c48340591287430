using System.Text.Json.Nodes;
using System.Text.RegularExpressions;

namespace UnrulyMeadow.Reckon.Tests;

[Collection("current folder")]
public sealed partial class ReckonTests
{
    public ReckonTests() => Directory.SetCurrentDirectory(Root());

    public static TheoryData<string, string, string> Examples()
    {
        var data = new TheoryData<string, string, string>();
        string text = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "docs", "reckon.md"));
        foreach (Match section in Section().Matches(text))
            data.Add(section.Groups["topic"].Value, section.Groups["input"].Value, section.Groups["output"].Value);
        return data;
    }

    [Theory]
    [MemberData(nameof(Examples))]
    public void The_documented_example_gives_the_documented_answer(string topic, string input, string output)
    {
        (int exit, string answer, string errors) = Run(input, topic);
        Assert.Equal((0, string.Empty), (exit, errors));
        Holds(JsonNode.Parse(output)!, JsonNode.Parse(answer)!, topic);
    }

    [Fact]
    public void Every_topic_listed_has_an_example_and_a_schema()
    {
        (_, string list, _) = Run(string.Empty, "--list");
        string[] topics = [.. list.Split('\n', StringSplitOptions.RemoveEmptyEntries).Skip(1).Select(l => l.Split(' ')[0])];
        Assert.Equal(
            [
                "frost",
                "zone",
                "normals",
                "generate",
                "sun",
                "exposure",
                "et0",
                "heat-index",
                "ground",
                "planting-window",
                "cold-weeks",
                "root-survival",
                "volume",
                "weight",
                "fit",
                "palette-check",
                "layer",
                "stack",
                "pack",
                "arrange",
                "fullness",
                "colour-relation",
                "colour-difference",
                "checks",
                "bloom",
                "year",
                "turn",
                "basket",
                "order-deadlines",
                "holding",
                "labour",
                "schedule",
                "route",
                "load",
                "water",
                "feed",
                "tonight",
                "learn",
                "trial",
                "close-gaps",
                "rehearse",
                "order",
            ],
            topics
        );
        Assert.Equal(topics.Order(StringComparer.Ordinal), Examples().Select(e => e.Data.Item1).Order(StringComparer.Ordinal));
        foreach (string topic in topics)
        {
            (int exit, string schema, _) = Run(string.Empty, topic, "--schema");
            Assert.Equal(0, exit);
            Assert.NotNull(JsonNode.Parse(schema)!["input"]!["properties"]);
            Assert.NotNull(JsonNode.Parse(schema)!["output"]!["properties"]);
        }
    }

    [Theory]
    [MemberData(nameof(Examples))]
    public void The_schema_describes_every_field_of_question_and_answer_and_no_others(string topic, string input, string output)
    {
        Assert.NotEmpty(output);
        (_, string schema, _) = Run(string.Empty, topic, "--schema");
        (_, string answer, _) = Run(input, topic);
        JsonNode root = JsonNode.Parse(schema)!;
        Describes(root["input"]!, root["input"]!, JsonNode.Parse(input), "input");
        Describes(root["output"]!, root["output"]!, JsonNode.Parse(answer), "output");
        // Anything goes nowhere, and nothing of the geometry that a form is kept in shows.
        Assert.DoesNotMatch(@"(?m): true,?$", schema.Replace("\"default\": true", string.Empty, StringComparison.Ordinal));
        Assert.DoesNotContain("\"coordinates\"", schema, StringComparison.OrdinalIgnoreCase);
        Assert.DoesNotContain("\"polygon\"", schema, StringComparison.OrdinalIgnoreCase);
    }

    private static void Describes(JsonNode root, JsonNode schema, JsonNode? value, string at)
    {
        while (schema["$ref"]?.GetValue<string>() is { } reference)
            schema = reference
                .Split('/')
                .Skip(1)
                .Aggregate(root, (n, step) =>
                    (n is JsonArray list ? list[int.Parse(step, System.Globalization.CultureInfo.InvariantCulture)] : n[step])!
                );
        if (value is JsonArray items)
        {
            foreach (JsonNode? item in items)
                Describes(
                    root,
                    schema["items"] ?? throw new Xunit.Sdk.XunitException($"{at} is a list, and its schema has no items"),
                    item,
                    at + "[]"
                );
        }
        else if (value is JsonObject thing)
        {
            foreach ((string name, JsonNode? field) in thing)
            {
                JsonNode? own = (schema["anyOf"] as JsonArray ?? [schema.DeepClone()])
                    .Select(s => s!["properties"]?[name])
                    .FirstOrDefault(p => p is not null)
                    ?? schema["properties"]?[name]
                    ?? (schema["additionalProperties"] as JsonObject);
                Describes(root, own ?? throw new Xunit.Sdk.XunitException($"{at}.{name} is not in the schema"), field, $"{at}.{name}");
            }
        }
    }

    [Theory]
    [MemberData(nameof(Examples))]
    public void Working_is_added_when_asked_and_names_rule_and_source(string topic, string input, string output)
    {
        Assert.NotEmpty(output);
        (_, string plain, _) = Run(input, topic);
        Assert.Null(JsonNode.Parse(plain)!["working"]);
        (_, string with, _) = Run(input, topic, "--working");
        JsonArray working = JsonNode.Parse(with)!["working"]!.AsArray();
        Assert.NotEmpty(working);
        Assert.All(working, w =>
            Assert.False(string.IsNullOrEmpty(w!["rule"]!.GetValue<string>()) || string.IsNullOrEmpty(w["source"]!.GetValue<string>()))
        );
    }

    [Theory]
    [InlineData("zone", "{}", "weather: give either weather or annualMinimaC")]
    [InlineData("zone", """{ "annualMinimaC": [-14, 200] }""", "annualMinimaC[1]: must be from −90 °C to 40 °C (it is 200 °C)")]
    [InlineData("frost", """{ "weather": { "file": "nowhere.dly" } }""", "weather.file: there is no file \"nowhere.dly\"")]
    [InlineData("frost", """{ "weather": { "days": [] }, "odds": [0, 2] }""", "odds[0]: must be from 0 to 1 (it is 0)")]
    [InlineData("order", """{ "items": [ { "name": "x", "count": 0, "packs": [] } ] }""", "items[0].packs: must hold at least one pack")]
    [InlineData("order", """{ "planFile": "demo/kittiwake-quay.plan.json", "turnId": "never" }""", "turnId: must be one of fall-2026")]
    [InlineData(
        "layer",
        """{ "form": { "shape": "trough", "topLengthCm": 100, "topWidthCm": 40, "bottomLengthCm": 100, "bottomWidthCm": 40, "depthCm": 0, "rimGapCm": 0 }, "bulb": { "name": "t", "heightCm": 5, "diameterCm": 4 } }""",
        "form.depthCm: must be from 10 cm to 200 cm (it is 0 cm)"
    )]
    [InlineData("stack", "{ \"form\": 7", "line 1")]
    [InlineData("bloom", """{ "planted": "soon" }""", "planted")]
    [InlineData("poetry", "{}", "\"poetry\" is none of frost, zone")]
    [InlineData(
        "sun",
        """{ "at": "2026-06-21T12:00:00Z", "latitudeDeg": 91, "longitudeDeg": 0 }""",
        "latitudeDeg: must be from -90 to 90 degrees (it is 91)"
    )]
    [InlineData(
        "exposure",
        """{ "latitudeDeg": 45, "skyline": { "wallDeg": [1], "treeDeg": [], "surveyedIn": 2026 } }""",
        "skyline.wallDeg: must hold 16 angles"
    )]
    [InlineData("heat-index", """{ "airC": 30, "humidityPct": 130 }""", "humidityPct: must be from 0 to 100 % (it is 130)")]
    [InlineData("et0", """{ "day": "2026-07-06", "latitudeDeg": 50, "minC": 20, "maxC": 10 }""", "maxC: must be from 20 °C to 60 °C (it is 10 °C)")]
    [InlineData("root-survival", """{ "weather": { "days": [] } }""", "rootKillingC: give either rootKillingC or hardyToZone")]
    [InlineData(
        "cold-weeks",
        """{ "weather": { "days": [] }, "kind": "rose", "planted": "2026-11-01" }""",
        "kind: must be one of snowdrop, crocus and muscari"
    )]
    [InlineData(
        "ground",
        """{ "weather": { "days": [] }, "planter": { "widthCm": 900 } }""",
        "planter.widthCm: must be from 8 cm to 300 cm (it is 900 cm)"
    )]
    [InlineData("planting-window", """{ "weather": { "days": [] }, "depthCm": 0 }""", "depthCm: must be from 1 cm to 150 cm (it is 0 cm)")]
    [InlineData(
        "normals",
        """{ "monthly": { "meanMinC": [1], "meanMaxC": [2], "climateId": "moon" } }""",
        "monthly.meanMinC: must hold twelve months (it holds 1)"
    )]
    [InlineData(
        "generate",
        """{ "normals": { "weather": { "file": "tests/data/new-york-seattle-2012-2015.csv" } }, "years": 0 }""",
        "years: must be from 1 to 1000 years (it is 0)"
    )]
    [InlineData(
        "volume",
        """{ "form": { "shape": "outlined-bed", "topLengthCm": 100, "topWidthCm": 100, "bottomLengthCm": 100, "bottomWidthCm": 100, "depthCm": 40, "rimGapCm": 0, "outline": { "ring": [{ "xCm": 0, "yCm": 0 }, { "xCm": 100, "yCm": 100 }, { "xCm": 100, "yCm": 0 }, { "xCm": 0, "yCm": 100 }], "holes": [] } } }""",
        "form.outline.ring: crosses itself"
    )]
    [InlineData(
        "weight",
        """{ "planter": { "form": { "shape": "rectangular-bed", "topLengthCm": 100, "topWidthCm": 100, "bottomLengthCm": 100, "bottomWidthCm": 100, "depthCm": 40, "rimGapCm": 0 } } }""",
        "planter.form: must be a container"
    )]
    [InlineData("palette-check", """{ "palette": [{ "id": "x" }] }""", "line 1")]
    [InlineData("frost", """{ "weather": { "days": [{ "day": "2020-01-01", "minC": -2, "maxC": 3 }] } }""", "weather: holds no year")]
    [InlineData(
        "cold-weeks",
        """{ "weather": { "days": [{ "day": "2020-01-01", "minC": -2, "maxC": 3 }] }, "kind": "tulip", "planted": "2026-11-01" }""",
        "weather: holds no year"
    )]
    [InlineData(
        "frost",
        """{ "weather": { "days": [{ "day": "2020-01-01", "minC": 5, "maxC": 3 }, { "day": "2020-01-01", "minC": 1, "maxC": 3 }] } }""",
        "weather.days[0].minC: lies above"
    )]
    [InlineData(
        "zone",
        """{ "weather": { "days": [{ "day": "2020-01-01", "minC": 1, "maxC": 3 }, { "day": "2020-01-01", "minC": 1, "maxC": 3 }] } }""",
        "weather.days[1].day: is given twice"
    )]
    [InlineData("volume", """{ "\ud800": 1 }""", "could not be converted")]
    public void Bad_input_ends_with_2_a_line_per_fault_and_nothing_on_standard_output(string topic, string input, string fault)
    {
        (int exit, string output, string errors) = Run(input, topic);
        Assert.Equal((2, string.Empty), (exit, output));
        Assert.Contains(fault, errors, StringComparison.Ordinal);
    }

    [Fact]
    public void Every_fault_is_named_not_only_the_first()
    {
        (_, _, string errors) = Run(
            """{ "items": [ { "name": "x", "count": 0, "packs": [ { "form": "f", "size": 0, "price": -1 } ] } ], "spareShare": 3 }""",
            "order"
        );
        Assert.Equal(4, errors.Split('\n', StringSplitOptions.RemoveEmptyEntries).Length);
    }

    private static void Holds(JsonNode expected, JsonNode? actual, string path)
    {
        Assert.True(actual is not null, $"{path} is missing");
        switch (expected)
        {
            case JsonObject members:
                foreach ((string name, JsonNode? value) in members)
                    Holds(value!, actual![name], $"{path}.{name}");
                break;
            case JsonArray items:
                Assert.Equal(items.Count, actual!.AsArray().Count);
                for (int i = 0; i < items.Count; i++)
                    Holds(items[i]!, actual[i], $"{path}[{i}]");
                break;
            default:
                Assert.True(
                    JsonNode.DeepEquals(expected, actual),
                    $"{path}: documented {expected.ToJsonString()}, computed {actual!.ToJsonString()}"
                );
                break;
        }
    }

    private static (int Exit, string Output, string Errors) Run(string input, params string[] words)
    {
        using var output = new StringWriter();
        using var errors = new StringWriter();
        int exit = Program.Run(words, new StringReader(input), output, errors);
        return (exit, output.ToString(), errors.ToString());
    }

    private static string Root()
    {
        DirectoryInfo folder = new(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(folder.FullName, "UnrulyMeadow.slnx")))
            folder = folder.Parent ?? throw new InvalidOperationException("The tests run outside the checkout.");
        return folder.FullName;
    }

    [GeneratedRegex(
        @"^## (?<topic>\S+)$(?<prose>(?:(?!^## ).*\n)*?)```json\n(?<input>[\s\S]*?)```\ngives[^\n]*\n```json\n(?<output>[\s\S]*?)```",
        RegexOptions.Multiline | RegexOptions.ExplicitCapture,
        2000
    )]
    private static partial Regex Section();
}

using System.Text.Json.Nodes;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Exchange.PlanFiles;

namespace UnrulyMeadow.Exchange.Tests;

/// <summary>No text of a plan escapes the rule for texts, and no list the rule that it holds no nothing.</summary>
public sealed class PlanTextTests
{
    // Every text and every list of a full plan, one of each kind of place.
    private static readonly (JsonNode Document, List<(string Kind, JsonNode At)> Texts, List<(string Kind, JsonArray At)> Lists) Full = Read();

    public static TheoryData<string> Texts => [.. Full.Texts.Select(t => t.Kind).Distinct()];

    public static TheoryData<string> Lists => [.. Full.Lists.Select(l => l.Kind).Distinct()];

    [Theory]
    [InlineData("{\"format\": \"unruly-meadow-plan\", \"\\ud800\": 1}")]
    [InlineData("{\"format\": \"unruly-meadow-plan\", \"version\": 1, \"site\": {\"name\": \"\\ud800\"}}")]
    [InlineData("{\"format\": \"\\udfff\"}")]
    public void Half_a_character_is_refused_wherever_it_stands(string json)
    {
        using var stream = new MemoryStream(System.Text.Encoding.UTF8.GetBytes(json));
        Assert.Throws<InvalidInputException>(() => PlanFile.Read(stream));
    }

    [Theory]
    [MemberData(nameof(Texts))]
    public void No_text_of_a_plan_takes_a_control_character_or_a_noncharacter(string kind)
    {
        JsonNode document = Full.Document.DeepClone();
        foreach (string mark in new[] { "\u0001", "\uFFFE" })
        {
            JsonNode at = document;
            foreach (string step in Full.Texts.First(t => t.Kind == kind).At.GetPath()[2..].Replace("[", ".[", StringComparison.Ordinal).Split('.'))
                at = step.StartsWith('[') ? at[int.Parse(step.Trim('[', ']'), System.Globalization.CultureInfo.InvariantCulture)]! : at[step]!;
            at.ReplaceWith(at.GetValue<string>() + mark);
            Assert.ThrowsAny<InvalidInputException>(() => Taken(document));
        }
    }

    [Theory]
    [MemberData(nameof(Lists))]
    public void No_list_of_a_plan_takes_nothing_for_something(string kind)
    {
        JsonArray list = Full.Lists.First(l => l.Kind == kind).At;
        list.Add(null);
        try
        {
            Assert.ThrowsAny<InvalidInputException>(() => Taken(Full.Document));
        }
        finally
        {
            list.RemoveAt(list.Count - 1);
        }
    }

    private static Plan Taken(JsonNode document)
    {
        using var stream = new MemoryStream(System.Text.Encoding.UTF8.GetBytes(document.ToJsonString()));
        return PlanFile.Read(stream);
    }

    private static (JsonNode, List<(string, JsonNode)>, List<(string, JsonArray)>) Read()
    {
        JsonNode document = JsonNode.Parse(File.ReadAllBytes(Path.Combine(AppContext.BaseDirectory, "demo", "kittiwake-quay.plan.json")))!;
        var texts = new List<(string, JsonNode)>();
        var lists = new List<(string, JsonArray)>();
        Walk(document, string.Empty);
        return (document, texts, lists);

        void Walk(JsonNode node, string kind)
        {
            switch (node)
            {
                case JsonObject o:
                    foreach ((string name, JsonNode? value) in o.ToList())
                    {
                        if (value is not null)
                            Walk(value, $"{kind}.{name}");
                    }
                    break;
                case JsonArray a:
                    if (lists.TrueForAll(l => l.Item1 != kind) && a.Count > 0 && a[0] is not JsonValue)
                        lists.Add((kind, a));
                    foreach (JsonNode? item in a)
                    {
                        if (item is not null)
                            Walk(item, $"{kind}[]");
                    }
                    break;
                case JsonValue v when v.GetValueKind() == System.Text.Json.JsonValueKind.String && texts.TrueForAll(t => t.Item1 != kind):
                    texts.Add((kind, node));
                    break;
            }
        }
    }
}

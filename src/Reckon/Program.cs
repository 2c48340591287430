using System.Text.Json;
using System.Text.Json.Nodes;
using UnrulyMeadow.Core;
using UnrulyMeadow.Exchange.PlanFiles;

namespace UnrulyMeadow.Reckon;

/// <summary>The command line: a topic and JSON in, JSON out. Exit 0 when it reckoned, 2 when the input was wrong.</summary>
public static class Program
{
    private static readonly Topic[] Topics =
    [
        ClimateTopics.Frost, ClimateTopics.Zone, ClimateTopics.Normals, ClimateTopics.Generate,
        SkyTopics.Sun, SkyTopics.Exposure, SkyTopics.Et0, SkyTopics.HeatIndex,
        GroundTopics.Ground, GroundTopics.PlantingWindow, GroundTopics.ColdWeeks, GroundTopics.RootSurvival,
        PlanterTopics.Volume, PlanterTopics.Weight, PlanterTopics.Fit, PlanterTopics.PaletteCheck,
        PlantingTopics.Layer, PlantingTopics.Stack, StudioTopics.Pack, StudioTopics.Arrange, StudioTopics.Fullness, StudioTopics.ColourRelation, StudioTopics.ColourDifference, StudioTopics.Checks, PlantingTopics.Bloom, YearTopics.Year, YearTopics.Turn, YearTopics.CloseGaps, YearTopics.Rehearse, PlanTopics.Order,
    ];

    /// <summary>Runs with the process's own streams.</summary>
    public static int Main(string[] args) => Run(args, Console.In, Console.Out, Console.Error);

    /// <summary>Runs with given streams.</summary>
    public static int Run(string[] args, TextReader input, TextWriter output, TextWriter errors)
    {
        try
        {
            var words = args.Where(a => !a.StartsWith("--", StringComparison.Ordinal)).ToList();
            var flags = args.Except(words, StringComparer.Ordinal).ToHashSet(StringComparer.Ordinal);
            if (flags.FirstOrDefault(f => f is not "--list" and not "--schema" and not "--working" and not "--help") is { } unknown)
                throw new InvalidInputException(unknown, "is no option; options are --list, --schema, --working");
            if (flags.Contains("--list") || flags.Contains("--help") || words.Count == 0)
            {
                output.WriteLine("reckon TOPIC [FILE|-] [--working] · TOPIC --schema · --list · accuracy [FILE [PALETTE]]");
                foreach (Topic t in Topics)
                    output.WriteLine($"{t.Name,-18}{t.Summary}");
                return words.Count == 0 && flags.Count == 0 ? 2 : 0;
            }
            if (words[0] == "accuracy")
                return AccuracyCommand.Run(words[1..], output);
            Topic topic = Array.Find(Topics, t => t.Name == words[0])
                ?? throw new InvalidInputException("topic", $"\"{words[0]}\" is none of {string.Join(", ", Topics.Select(t => t.Name))}");
            if (flags.Contains("--schema"))
            {
                output.WriteLine(topic.Schema());
                return 0;
            }
            output.WriteLine(Text(topic.Run(Json(words, input)), flags.Contains("--working")));
            return 0;
        }
        catch (InvalidInputException e)
        {
            foreach (Fault fault in e.Faults)
                errors.WriteLine(fault);
            return 2;
        }
    }

    private static string Json(List<string> words, TextReader input)
    {
        if (words.Count < 2 || words[1] == "-")
            return input.ReadToEnd();
        if (!File.Exists(words[1]))
            throw new InvalidInputException("FILE", $"there is no file \"{words[1]}\"");
        return File.ReadAllText(words[1]);
    }

    private static string Text(Reckoned reckoned, bool withWorking)
    {
        JsonNode node = JsonSerializer.SerializeToNode(reckoned.Result, reckoned.Result.GetType(), PlanFile.Options)!;
        if (withWorking)
            node["working"] = JsonSerializer.SerializeToNode(reckoned.Working, PlanFile.Options);
        return node.ToJsonString(PlanFile.Options);
    }
}

using System.CommandLine;
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
        ClimateTopics.Frost,
        ClimateTopics.Zone,
        ClimateTopics.Normals,
        ClimateTopics.Generate,
        SkyTopics.Sun,
        SkyTopics.Exposure,
        SkyTopics.Et0,
        SkyTopics.HeatIndex,
        GroundTopics.Ground,
        GroundTopics.PlantingWindow,
        GroundTopics.ColdWeeks,
        GroundTopics.RootSurvival,
        PlanterTopics.Volume,
        PlanterTopics.Weight,
        PlanterTopics.Fit,
        PlanterTopics.PaletteCheck,
        PlantingTopics.Layer,
        PlantingTopics.Stack,
        StudioTopics.Pack,
        StudioTopics.Arrange,
        StudioTopics.Fullness,
        StudioTopics.ColourRelation,
        StudioTopics.ColourDifference,
        StudioTopics.Checks,
        PlantingTopics.Bloom,
        YearTopics.Year,
        YearTopics.Turn,
        SupplyTopics.Basket,
        SupplyTopics.OrderDeadlines,
        SupplyTopics.Holding,
        CrewTopics.Labour,
        CrewTopics.Schedule,
        CrewTopics.Route,
        CrewTopics.Load,
        CareTopics.Water,
        CareTopics.Feed,
        CareTopics.Tonight,
        LearnTopics.Learn,
        TrialTopics.Trial,
        YearTopics.CloseGaps,
        YearTopics.Rehearse,
        PlanTopics.Order,
    ];

    /// <summary>Runs with the process's own streams.</summary>
    public static int Main(string[] args) => Run(args, Console.In, Console.Out, Console.Error);

    /// <summary>Runs with given streams.</summary>
    public static int Run(string[] args, TextReader input, TextWriter output, TextWriter errors)
    {
        var list = new Option<bool>("--list") { Description = "name every topic" };
        var root = new RootCommand(
            "Reckons one topic: JSON in, JSON out. reckon TOPIC [FILE|-] [--working] · TOPIC --schema · --list · accuracy [FILE [PALETTE]]"
        )
        {
            list,
        };
        foreach (Topic topic in Topics)
            root.Add(CommandOf(topic, input, output));
        root.Add(Accuracy(output));
        root.SetAction(parsed =>
        {
            output.WriteLine(root.Description);
            foreach (Topic t in Topics)
                output.WriteLine($"{t.Name, -18}{t.Summary}");
            return parsed.GetValue(list) ? 0 : 2;
        });
        ParseResult parsed = root.Parse(args);
        if (parsed.Errors.Count > 0)
        {
            bool noTopic = parsed.CommandResult.Command == root && parsed.UnmatchedTokens is [{ } word, ..] && !word.StartsWith('-');
            errors.WriteLine(
                noTopic
                    ? $"topic: \"{parsed.UnmatchedTokens[0]}\" is none of {string.Join(", ", Topics.Select(t => t.Name))}"
                    : string.Join(Environment.NewLine, parsed.Errors.Select(e => e.Message))
            );
            return 2;
        }
        try
        {
            return parsed.Invoke(
                new InvocationConfiguration
                {
                    Output = output,
                    Error = errors,
                    EnableDefaultExceptionHandler = false,
                }
            );
        }
        catch (InvalidInputException e)
        {
            foreach (Fault fault in e.Faults)
                errors.WriteLine(fault);
            return 2;
        }
    }

    private static Command CommandOf(Topic topic, TextReader input, TextWriter output)
    {
        var file = new Argument<string>("FILE") { Arity = ArgumentArity.ZeroOrOne, Description = "the input; - or nothing for standard input" };
        var schema = new Option<bool>("--schema") { Description = "print the input's JSON Schema" };
        var working = new Option<bool>("--working") { Description = "add how each figure was worked out" };
        var command = new Command(topic.Name, topic.Summary) { file, schema, working };
        command.SetAction(parsed =>
        {
            output.WriteLine(
                parsed.GetValue(schema) ? topic.Schema() : Text(topic.Run(Json(parsed.GetValue(file), input)), parsed.GetValue(working))
            );
            return 0;
        });
        return command;
    }

    private static Command Accuracy(TextWriter output)
    {
        var files = new Argument<string[]>("FILES") { Arity = new ArgumentArity(0, 2), Description = "the table's file, then the palette's" };
        var command = new Command("accuracy", "tries the palette's dates against a table of customary windows") { files };
        command.SetAction(parsed => AccuracyCommand.Run(parsed.GetValue(files) ?? [], output));
        return command;
    }

    private static string Json(string? file, TextReader input)
    {
        if (file is null or "-")
            return input.ReadToEnd();
        return File.Exists(file) ? File.ReadAllText(file) : throw new InvalidInputException("FILE", $"there is no file \"{file}\"");
    }

    private static string Text(Reckoned reckoned, bool withWorking)
    {
        JsonNode node = JsonSerializer.SerializeToNode(reckoned.Result, reckoned.Result.GetType(), PlanFile.Options)!;
        if (withWorking)
            node["working"] = JsonSerializer.SerializeToNode(reckoned.Working.Select(Said.Metric.Say), PlanFile.Options);
        return node.ToJsonString(PlanFile.Options);
    }
}

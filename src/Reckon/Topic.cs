using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Schema;
using UnrulyMeadow.Core;
using UnrulyMeadow.Exchange.PlanFiles;

namespace UnrulyMeadow.Reckon;

/// <summary>A result with the arithmetic behind it.</summary>
/// <param name="Result">What is printed.</param>
/// <param name="Working">What <c>--working</c> adds.</param>
public sealed record Reckoned(object Result, IReadOnlyList<Working> Working);

/// <summary>One thing that can be reckoned from JSON.</summary>
public abstract class Topic
{
    /// <summary>Its word on the command line.</summary>
    public abstract string Name { get; }

    /// <summary>What it answers, in one line.</summary>
    public abstract string Summary { get; }

    /// <summary>Reckons from JSON.</summary>
    /// <exception cref="InvalidInputException">Something is wrong with the input; each fault names its field.</exception>
    public abstract Reckoned Run(string json);

    /// <summary>JSON Schema of the input and the output.</summary>
    public abstract string Schema();
}

/// <summary>A topic whose input is one record.</summary>
/// <typeparam name="TInput">The input.</typeparam>
/// <typeparam name="TOutput">The output.</typeparam>
public sealed class Topic<TInput, TOutput>(string name, string summary, Func<TInput, (TOutput Output, IReadOnlyList<Working> Working)> reckon) : Topic
    where TInput : class
    where TOutput : class
{
    /// <inheritdoc />
    public override string Name => name;

    /// <inheritdoc />
    public override string Summary => summary;

    /// <inheritdoc />
    public override Reckoned Run(string json)
    {
        TInput input;
        try
        {
            input = JsonSerializer.Deserialize<TInput>(json, PlanFile.Options) ?? throw new InvalidInputException(string.Empty, "the input is null");
        }
        catch (JsonException e)
        {
            throw new InvalidInputException([PlanFile.FaultOf(e)]);
        }
        catch (Exception e) when (PlanFile.IsUnreadable(e))
        {
            throw PlanFile.Unreadable(e);
        }
        (TOutput output, IReadOnlyList<Working> working) = reckon(input);
        return new Reckoned(output, working);
    }

    /// <inheritdoc />
    public override string Schema()
    {
        var both = new JsonObject
        {
            ["topic"] = name,
            ["input"] = PlanFile.SchemaOf(typeof(TInput)),
            ["output"] = PlanFile.SchemaOf(typeof(TOutput)),
        };
        return both.ToJsonString(new JsonSerializerOptions { WriteIndented = true });
    }
}

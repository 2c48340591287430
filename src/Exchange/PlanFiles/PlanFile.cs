using System.Runtime.CompilerServices;
using System.Security.Cryptography;
using System.Text;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Schema;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.SiteMap;

namespace UnrulyMeadow.Exchange.PlanFiles;

/// <summary>The whole plan as one JSON document.</summary>
/// <param name="Format">Always "unruly-meadow-plan".</param>
/// <param name="Version">Version of this form, now 2.</param>
/// <param name="Site">Settings.</param>
/// <param name="Areas">Areas in their order.</param>
/// <param name="Planters">Planters in their order.</param>
/// <param name="Palette">Plants.</param>
/// <param name="Displays">Displays.</param>
/// <param name="Turns">Turns.</param>
/// <param name="Map">The site's map; may be left out.</param>
/// <param name="Lots">Plants at hand that stand in no display; may be left out.</param>
/// <param name="Recipes">Displays kept as patterns; may be left out.</param>
/// <param name="Events">Days on which the site must look its best; may be left out.</param>
public sealed record PlanDocument(
    string Format,
    int Version,
    Site Site,
    IReadOnlyList<Area> Areas,
    IReadOnlyList<Planter> Planters,
    IReadOnlyList<Plant> Palette,
    IReadOnlyList<Display> Displays,
    IReadOnlyList<Turn> Turns,
    IReadOnlyList<MapFeature>? Map = null,
    IReadOnlyList<Lot>? Lots = null,
    IReadOnlyList<Recipe>? Recipes = null,
    IReadOnlyList<SiteEvent>? Events = null
);

/// <summary>Reads and writes plan files. What is written is in one fixed order, so that equal plans give equal bytes.</summary>
public static class PlanFile
{
    /// <summary>The document's name for itself.</summary>
    public const string Format = "unruly-meadow-plan";

    /// <summary>
    /// The version written. Version 1, which knew no forms in which plants are bought, is read as well: each of its plants is bought
    /// in its usual form.
    /// </summary>
    public const int Version = 2;

    /// <summary>Largest file, bytes.</summary>
    public const long MostBytes = 20 * 1024 * 1024;

    /// <summary>How JSON is written throughout: camelCase names, kebab-case words, ISO dates.</summary>
    public static JsonSerializerOptions Options { get; } = MakeOptions();

    /// <summary>
    /// As plan files are read, but what this version does not know is passed over: a database may have been written by a newer one.
    /// </summary>
    public static JsonSerializerOptions Stored { get; } = Lenient();

    // A part never changes, and what stands for it neither.
    private static readonly ConditionalWeakTable<object, byte[]> Prints = [];

    /// <summary>A fingerprint of all that a plan holds, in its order; after a change only what changed is written out for it.</summary>
    public static string Fingerprint(Plan plan)
    {
        using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        IEnumerable<object>[] lists =
        [
            [plan.Site],
            plan.Areas,
            plan.Planters,
            plan.Palette,
            plan.Displays,
            plan.Turns,
            plan.Map,
            plan.Lots,
            plan.Recipes,
            plan.Events,
        ];
        foreach (IEnumerable<object> list in lists)
        {
            foreach (object part in list)
                hash.AppendData(Prints.GetValue(part, p => SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(p, p.GetType(), Stored))));
            // Where one list ends and the next begins.
            hash.AppendData([0]);
        }
        return Convert.ToHexString(hash.GetHashAndReset());
    }

    /// <summary>Writes a plan.</summary>
    public static byte[] Write(Plan plan)
    {
        var planterOrder = plan.Planters.Select((p, i) => (p.Id, i)).ToDictionary(x => x.Id, x => x.i, StringComparer.Ordinal);
        var areaOrder = plan.Areas.Select((a, i) => (a.Id, i)).ToDictionary(x => x.Id, x => x.i, StringComparer.Ordinal);
        var document = new PlanDocument(
            Format,
            Version,
            plan.Site,
            plan.Areas,
            [.. plan.Planters.OrderBy(p => areaOrder[p.AreaId])],
            [.. plan.Palette.OrderBy(p => p.Id, StringComparer.Ordinal)],
            [
                .. plan
                    .Displays.OrderBy(d => areaOrder[plan.FindPlanter(d.PlanterId)!.AreaId])
                    .ThenBy(d => planterOrder[d.PlanterId])
                    .ThenBy(d => d.Install)
                    .ThenBy(d => d.Layer)
                    .ThenBy(d => d.Id, StringComparer.Ordinal),
            ],
            [.. plan.Turns.OrderBy(t => t.FirstDay).ThenBy(t => t.Id, StringComparer.Ordinal)],
            [.. plan.Map.OrderBy(f => f.Kind).ThenBy(f => f.Id, StringComparer.Ordinal)],
            [.. plan.Lots.OrderBy(l => l.Id, StringComparer.Ordinal)],
            [.. plan.Recipes.OrderBy(r => r.Id, StringComparer.Ordinal)],
            [.. plan.Events.OrderBy(e => e.FirstDay).ThenBy(e => e.Id, StringComparer.Ordinal)]
        );
        return [.. JsonSerializer.SerializeToUtf8Bytes(document, Options), (byte)'\n'];
    }

    /// <summary>Reads a plan and checks it whole.</summary>
    /// <exception cref="InvalidInputException">
    /// The file is no plan file, of another version, or something in it is wrong; every fault names its place.
    /// </exception>
    public static Plan Read(Stream stream)
    {
        using MemoryStream buffer = FileLimits.Read(stream, MostBytes);
        ReadOnlySpan<byte> bytes = buffer.GetBuffer().AsSpan(0, (int)buffer.Length);
        if (bytes.StartsWith(Encoding.UTF8.Preamble))
            bytes = bytes[Encoding.UTF8.Preamble.Length..];
        CheckHead(bytes);
        PlanDocument document = Deserialize(bytes);
        return new Plan(
            document.Site,
            document.Areas,
            document.Planters,
            document.Palette,
            document.Displays,
            document.Turns,
            document.Map,
            document.Lots,
            document.Recipes,
            document.Events
        );
    }

    /// <summary>The published JSON Schema of the document.</summary>
    public static string Schema()
    {
        return SchemaOf(typeof(PlanDocument))
                .ToJsonString(new JsonSerializerOptions { WriteIndented = true, Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping }) + "\n";
    }

    /// <summary>The JSON Schema of what is read and written as a type with <see cref="Options"/>.</summary>
    public static JsonNode SchemaOf(Type type) =>
        Options.GetJsonSchemaAsNode(
            type,
            new JsonSchemaExporterOptions
            {
                TreatNullObliviousAsNonNullable = true,
                // Dates and times have converters of their own, of which the exporter knows no form.
                TransformSchemaNode = (context, node) =>
                {
                    if (context.TypeInfo.ElementType is { } element && node is JsonObject list && DateOrTime(element) is { } items)
                        list["items"] = items;
                    return DateOrTime(context.TypeInfo.Type) ?? node;
                },
            }
        );

    private static JsonObject? DateOrTime(Type type)
    {
        Type? held = Nullable.GetUnderlyingType(type);
        return FormatOf(held ?? type) is not { } format
            ? null
            : new JsonObject { ["type"] = held is not null ? new JsonArray("string", "null") : "string", ["format"] = format };
    }

    private static string? FormatOf(Type type) =>
        type == typeof(LocalDate) ? "date"
        : type == typeof(LocalTime) ? "time"
        : type == typeof(Instant) || type == typeof(OffsetDateTime) ? "date-time"
        : null;

    /// <summary>Turns a JSON fault into one that names its place.</summary>
    public static Fault FaultOf(JsonException e)
    {
        string path = (e.Path ?? string.Empty).TrimStart('$').TrimStart('.');
        string where = e.LineNumber is { } line ? $" (line {line + 1})" : string.Empty;
        string message = e.Message;
        int cut = message.IndexOf(" Path:", StringComparison.Ordinal);
        if (cut >= 0)
            message = message[..cut];
        message = message
            .Replace("UnrulyMeadow.Core.", string.Empty, StringComparison.Ordinal)
            .Replace("UnrulyMeadow.Exchange.", string.Empty, StringComparison.Ordinal);
        return new Fault(path.Length == 0 ? "file" : path, $"{message.TrimEnd('.')}{where}");
    }

    private static void CheckHead(ReadOnlySpan<byte> bytes)
    {
        string? format = null;
        string? version = null;
        try
        {
            // Token by token: a document tree of the whole file would take many times its size.
            var reader = new Utf8JsonReader(bytes);
            while (reader.Read())
            {
                if (reader.CurrentDepth != 1 || reader.TokenType != JsonTokenType.PropertyName)
                    continue;
                bool isFormat = reader.ValueTextEquals("format");
                bool isVersion = reader.ValueTextEquals("version");
                if (!isFormat && !isVersion)
                    continue;
                reader.Read();
                string value = Encoding.UTF8.GetString(reader.ValueSpan);
                (format, version) = isFormat
                    ? (reader.TokenType == JsonTokenType.String ? value : null, version)
                    : (format, reader.TokenType == JsonTokenType.Number ? value : $"\"{value}\"");
            }
        }
        catch (JsonException e)
        {
            throw new InvalidInputException([FaultOf(e)]);
        }
        catch (Exception e) when (IsUnreadable(e))
        {
            throw Unreadable(e);
        }
        if (format != Format)
            throw new InvalidInputException("format", $"this is no plan file: its \"format\" must be \"{Format}\"");
        if (version is not ("1" or "2"))
            throw new InvalidInputException(
                "version",
                $"this program reads versions 1 and {Version}; the file says {(version is null ? "nothing" : PlainText.Cut(version, 40))}"
            );
    }

    private static PlanDocument Deserialize(ReadOnlySpan<byte> bytes)
    {
        try
        {
            return JsonSerializer.Deserialize<PlanDocument>(bytes, Options) ?? throw new InvalidInputException("file", "holds null");
        }
        catch (JsonException e)
        {
            throw new InvalidInputException([FaultOf(e)]);
        }
        catch (Exception e) when (IsUnreadable(e))
        {
            throw Unreadable(e);
        }
    }

    /// <summary>True for what the JSON reader throws at half characters and figures beyond all measure.</summary>
    public static bool IsUnreadable(Exception e) =>
        e is InvalidOperationException or ArgumentException or NotSupportedException or OverflowException or FormatException;

    /// <summary>The fault of such a file.</summary>
    public static InvalidInputException Unreadable(Exception e) =>
        new("file", $"holds something that cannot be read: {PlainText.Mended(e.Message.Split('\n')[0], lines: false)}");

    private static JsonSerializerOptions Lenient()
    {
        var options = new JsonSerializerOptions(Options) { UnmappedMemberHandling = JsonUnmappedMemberHandling.Skip };
        options.MakeReadOnly();
        return options;
    }

    private static JsonSerializerOptions MakeOptions()
    {
        var options = new JsonSerializerOptions(JsonSerializerDefaults.Web)
        {
            WriteIndented = true,
            UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
            RespectNullableAnnotations = true,
            RespectRequiredConstructorParameters = true,
            NumberHandling = JsonNumberHandling.Strict,
            DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
            IgnoreReadOnlyProperties = true,
            Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
            AllowDuplicateProperties = false,
            // PostgreSQL sorts the members of what it keeps, so a rule's name may follow its figures.
            AllowOutOfOrderMetadataProperties = true,
        };
        options.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.KebabCaseLower, allowIntegerValues: false));
        options.ConfigureForNodaTime(DateTimeZoneProviders.Tzdb);
        options.TypeInfoResolver = new DefaultJsonTypeInfoResolver { Modifiers = { LeaveOutWhatIsComputed, RefuseNullInLists } };
        options.MakeReadOnly();
        return options;
    }

    // What a thing computes of itself is neither written nor read; without this, the schema would show it all the same.
    private static void LeaveOutWhatIsComputed(JsonTypeInfo type)
    {
        if (type.Kind != JsonTypeInfoKind.Object)
            return;
        for (int i = type.Properties.Count - 1; i >= 0; i--)
        {
            if (type.Properties[i].Set is null)
                type.Properties.RemoveAt(i);
        }
    }

    // Nullable annotations are respected for members, not within lists; what would be null there is refused as it is read.
    private static void RefuseNullInLists(JsonTypeInfo type)
    {
        if (type.Kind != JsonTypeInfoKind.Object)
            return;
        JsonPropertyInfo[] lists =
        [
            .. type.Properties.Where(p =>
                p.Get is not null && p.PropertyType != typeof(string) && typeof(System.Collections.IEnumerable).IsAssignableFrom(p.PropertyType)
            ),
        ];
        if (lists.Length == 0)
            return;
        type.OnDeserialized = read =>
        {
            foreach (JsonPropertyInfo list in lists)
            {
                if (list.Get!(read) is not System.Collections.IEnumerable items)
                    continue;
                foreach (object? item in items)
                {
                    if (item is null)
                        throw new JsonException($"\"{list.Name}\" holds null");
                }
            }
        };
    }
}

using System.Diagnostics;
using System.Reflection;
using System.Text;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Exchange;
using UnrulyMeadow.Exchange.Accuracy;
using UnrulyMeadow.Exchange.Crew;
using UnrulyMeadow.Exchange.Maps;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Exchange.Sheets;
using UnrulyMeadow.Exchange.Supply;
using UnrulyMeadow.Exchange.Weather;
using UnrulyMeadow.Web;
using UnrulyMeadow.Web.Tests;

namespace UnrulyMeadow.Hostile;

/// <summary>Memory is measured of the whole process, so nothing else may run in it meanwhile.</summary>
[CollectionDefinition(nameof(Alone), DisableParallelization = true)]
public sealed class Alone;

/// <summary>Every reader of files, found by reflection: whatever it is given, it reads it or says what is wrong, in little memory.</summary>
[Collection(nameof(Alone))]
public sealed class Parsers
{
    private const long MostGrowthBytes = 300L << 20;

    private static readonly Plan Demo = Read();

    /// <summary>Public readers of a stream in the project for open formats.</summary>
    public static TheoryData<string> Readers => [.. Methods().Select(m => $"{m.DeclaringType!.Name}.{m.Name}")];

    [Theory]
    [MemberData(nameof(Readers))]
    public void Any_file_is_read_or_refused_in_words(string reader)
    {
        MethodInfo method = Methods().Single(m => $"{m.DeclaringType!.Name}.{m.Name}" == reader);
        byte[] good = Good(method);
        double minutes = Attacker.Minutes / 10 ?? 0.05;
        var random = new Random(7);
        var clock = Stopwatch.StartNew();
        while (clock.Elapsed.TotalMinutes < minutes)
        {
            byte[] file = Corpus.Changed(good, random);
            if (Failure(method, file) is { } failure)
                Assert.Fail($"{reader}: {failure}\n{Convert.ToBase64String(file.Length > 6000 ? file[..6000] : file)}");
        }
    }

    /// <summary>Files that once took gigabytes.</summary>
    public static TheoryData<string, string> Bombs =>
        new()
        {
            { "PaletteSheet.Read", "wide" },
            { "WeatherFile.Read", "wide" },
            { "CsvSheets.ReadLog", "wide" },
            { "WeatherFile.Read", "days" },
            { "PlanFile.Read", "areas" },
            { "PlanFile.Read", "deep" },
            { "PlanFile.Read", "nulls" },
            { "MapFile.Read", "points" },
            { "CsvSheets.ReadLog", "quote" },
            { "PaletteSheet.Read", "rows" },
        };

    [Theory]
    [MemberData(nameof(Bombs))]
    public void A_file_made_to_unfold_takes_little_memory(string reader, string kind)
    {
        MethodInfo method = Methods().Single(m => $"{m.DeclaringType!.Name}.{m.Name}" == reader);
        byte[] file = Bomb(kind);
        GC.Collect();
        long before = Environment.WorkingSet;
        long most = before;
        using (new Timer(_ => most = Math.Max(most, Environment.WorkingSet), null, 0, 20))
        {
            Assert.Null(Failure(method, file));
        }
        Assert.True(most - before < MostGrowthBytes, $"{(most - before) >> 20} MB");
    }

    [Fact]
    public void A_picture_far_larger_than_a_cameras_is_refused_and_the_largest_taken_needs_little_memory()
    {
        static byte[] Grey(int width, int height)
        {
            using var bitmap = new SkiaSharp.SKBitmap(
                new SkiaSharp.SKImageInfo(width, height, SkiaSharp.SKColorType.Gray8, SkiaSharp.SKAlphaType.Opaque)
            );
            using SkiaSharp.SKData data = bitmap.Encode(SkiaSharp.SKEncodedImageFormat.Jpeg, 60);
            return data.ToArray();
        }
        byte[] large = Grey(8000, 6000);
        byte[] larger = Grey(10_000, 8000);
        GC.Collect();
        long before = Environment.WorkingSet;
        long most = before;
        using (new Timer(_ => most = Math.Max(most, Environment.WorkingSet), null, 0, 10))
        {
            Assert.Contains("million", Assert.Throws<InvalidInputException>(() => Photograph.Read(larger)).Message, StringComparison.Ordinal);
            Assert.Equal((1600, 1200), (Photograph.Read(large).Width, Photograph.Read(large).Height));
        }
        Assert.True(most - before < MostGrowthBytes, $"{(most - before) >> 20} MB");
    }

    private static IEnumerable<MethodInfo> Methods() =>
        typeof(FileLimits)
            .Assembly.GetExportedTypes()
            .SelectMany(t => t.GetMethods(BindingFlags.Public | BindingFlags.Static | BindingFlags.DeclaredOnly))
            .Where(m => m.GetParameters() is [{ ParameterType: var first }, ..] && first == typeof(Stream) && m.DeclaringType != typeof(FileLimits));

    private static string? Failure(MethodInfo method, byte[] file)
    {
        using var stream = new MemoryStream(file);
        object?[] arguments =
        [
            .. method
                .GetParameters()
                .Select(p =>
                    p.ParameterType switch
                    {
                        var t when t == typeof(Stream) => stream,
                        var t when t == typeof(Plan) => Demo,
                        var t when t == typeof(IReadOnlyList<Plant>) => Demo.Palette,
                        var t when t == typeof(Func<string, bool>) => (Func<string, bool>)(id => Demo.FindPlant(id) is not null),
                        var t when t == typeof(LocalDate) => new LocalDate(2026, 11, 23),
                        var t when t == typeof(Func<string, Stream>) => (Func<string, Stream>)(
                            name => throw new InvalidInputException("file", $"there is no file \"{name}\"")
                        ),
                        _ when p.HasDefaultValue => p.DefaultValue,
                        var t => throw new InvalidOperationException($"Tell here what {t.Name} a reader takes."),
                    }
                ),
        ];
        try
        {
            method.Invoke(null, arguments);
            return null;
        }
        catch (TargetInvocationException e) when (e.InnerException is InvalidInputException refused)
        {
            return refused.Faults.Count > FaultList.MostNamed + 1 ? $"{refused.Faults.Count} faults" : null;
        }
        catch (TargetInvocationException e)
        {
            return e.InnerException!.ToString();
        }
    }

    private static byte[] Good(MethodInfo method) =>
        method.DeclaringType!.Name switch
        {
            nameof(PlanFile) => Encoding.UTF8.GetBytes(
                Encoding.UTF8.GetString(
                    PlanFile.Write(
                        new Plan(
                            Demo.Site,
                            Demo.Areas,
                            Demo.Planters,
                            [
                                .. Demo.Palette.Where(p =>
                                    Demo.Displays.Any(d => d.Items.Any(i => i.PlantId == p.Id))
                                    || Demo.Recipes.Any(r => r.Items.Any(i => i.PlantId == p.Id))
                                    || Demo.Lots.Any(l => l.PlantId == p.Id)
                                ),
                            ],
                            Demo.Displays,
                            Demo.Turns,
                            Demo.Map,
                            Demo.Lots,
                            Demo.Recipes,
                            Demo.Events
                        )
                    )
                )
            ),
            nameof(MapFile) => MapFile.Write(Demo),
            "PaletteSheet" => First("palette.csv", 6000),
            "CsvSheets" => File.ReadAllBytes(MeadowApp.Demo("kittiwake-quay.log.csv")),
            nameof(SupplyFile) => File.ReadAllBytes(MeadowApp.Demo("kittiwake-quay.supply.json")),
            nameof(CrewFile) => CrewFile.Write(Told()),
            nameof(WeatherFile) => First("kittiwake-quay.dly", 20_000),
            nameof(StationSheet) => StationSheet.Write([
                new(new LocalDate(2026, 1, 1), -3.5, 2.25, 1),
                new(new LocalDate(2026, 1, 2), null, 4, null, 12, 3.3, 80, 5),
            ]),
            nameof(AccuracySheet) =>
                "climate,Here,45,maritime,C,7/2,8/2,10/3,12/5,15/8,18/10,20/12,19/12,17/10,13/7,10/4,7/2\nwindow,snowdrop,flower,Here,22 Jan,15 Feb\n"u8.ToArray(),
            nameof(RecipeSheet) => File.ReadAllBytes(MeadowApp.Demo("recipes.csv")),
            nameof(TypedTable) => TypedTable.WriteWorkbook(
                ["name", "area", "shape", "length", "depth"],
                [
                    ["Gate pot", "Quay", "round", 50, 45.5],
                    ["Urn", "Quay", "pot", "20 in", 45],
                ]
            ),
            var name => throw new InvalidOperationException($"Give here a good file for {name}."),
        };

    private static byte[] First(string demo, int most)
    {
        byte[] all = File.ReadAllBytes(MeadowApp.Demo(demo));
        return all[..Array.LastIndexOf(all, (byte)'\n', most)];
    }

    private static byte[] Bomb(string kind) =>
        Encoding.UTF8.GetBytes(
            kind switch
            {
                "wide" => string.Join(',', Enumerable.Repeat("a", 9_000_000)),
                "days" => "date,tmin,tmax\n"
                    + string.Concat(
                        Enumerable.Range(0, 1_200_000).Select(i => $"{1 + (i / 372), 4:0000}-{1 + (i / 31 % 12):00}-{1 + (i % 31):00},1,2\n")
                    ),
                "areas" =>
                    $$"""{"format":"unruly-meadow-plan","version":1,"site":{{Encoding.UTF8.GetString(PlanFile.Write(Demo)).Split("\"site\":")[1].Split("\"areas\"")[0].Trim().TrimEnd(',')}},"areas":[{{string.Join(',', Enumerable.Range(0, 200_000).Select(i => "{\"id\":\"Bad Id\",\"name\":\"\",\"frostPocketC\":99}"))}}],"planters":[],"palette":[],"displays":[],"turns":[]}""",
                "deep" => new string('[', 5_000_000),
                "nulls" => $$"""{"format":"unruly-meadow-plan","version":1,"areas":[{{string.Join(',', Enumerable.Repeat("null", 3_000_000))}}]}""",
                "points" =>
                    $$$"""{"type":"FeatureCollection","features":[{"type":"Feature","properties":{"kind":"wall"},"geometry":{"type":"LineString","coordinates":[{{{string.Join(',', Enumerable.Repeat("[-66.9,43.1]", 1_400_000))}}}]}}]}""",
                "quote" => "id,planter,plant,day,what,note,by\n\"" + new string('x', 18_000_000),
                _ => "common name\n" + string.Concat(Enumerable.Range(0, 900_000).Select(i => $"plant {i}\n")),
            }
        );

    // A task of the demo, given, told and done.
    private static CrewDocument Told()
    {
        CrewTask task = CrewTasks.Between(Demo, [], new LocalDate(2027, 5, 17), new LocalDate(2027, 6, 11))[0];
        var given = new GivenTask(Guid.CreateVersion7(), task, task.Window.Best, [], GivenStage.Done);
        var entry = new TaskEntry(Guid.CreateVersion7(), given.Id, given.Day, task.Mark, [new EntryLine(1, 1, ShortReason.Poor)]) { Minutes = 30 };
        return new CrewDocument(
            [new FiledTask(given, IsSettled: true)],
            [new KeptEntry(entry, "somebody", Instant.FromUtc(2027, 5, 17, 9, 0))],
            [new FiledPlanting(given.Id, new Planting("display", "plant", given.Day, 4))],
            [new FiledTime(given.Id, WorkKind.SetPacks, 1.2)]
        );
    }

    private static Plan Read()
    {
        using FileStream file = File.OpenRead(MeadowApp.Demo("kittiwake-quay.plan.json"));
        return PlanFile.Read(file);
    }
}

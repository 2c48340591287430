using Microsoft.Extensions.DependencyInjection;
using Npgsql;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Exchange.Maps;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.Tests;

namespace UnrulyMeadow.Hostile;

/// <summary>The app over the demo, with its doors and with good files to be changed.</summary>
public sealed class HostileApp : IAsyncLifetime
{
    private readonly MeadowApp _app = new();

    public SiteDatabase Database => _app.Database;

    public IReadOnlyList<Door> Doors { get; private set; } = [];

    public IReadOnlyDictionary<string, byte[]> Files { get; private set; } = new Dictionary<string, byte[]>();

    public PlanStore Plans { get; private set; } = null!;

    public async ValueTask InitializeAsync()
    {
        await _app.InitializeAsync();
        // One site: what is asked of it is asked without its name.
        await using (NpgsqlConnection connection = await _app.Whole.Open())
        await using (var command = new NpgsqlCommand("update person set is_steward = false", connection))
            await command.ExecuteNonQueryAsync();
        Plans = new PlanStore(_app.Database, PlanFile.Stored);
        Doors = await Surface.Of(_app.Services);
        Plan plan = await Plans.Load();
        byte[] palette = await File.ReadAllBytesAsync(MeadowApp.Demo("palette.csv"));
        Files = new Dictionary<string, byte[]>(StringComparer.Ordinal)
        {
            ["/site"] = PlanFile.Write(plan),
            ["/palette/import"] = palette[..Array.LastIndexOf(palette, (byte)'\n', 6000)],
            ["/grounds"] = MapFile.Write(plan),
            ["/climate/stations"] = (await File.ReadAllBytesAsync(MeadowApp.Demo("kittiwake-quay.dly")))[..20_000],
            ["/log"] = await File.ReadAllBytesAsync(MeadowApp.Demo("kittiwake-quay.log.csv")),
            ["/planters/{id}"] = Picture(),
        };
    }

    /// <summary>A browser of its own.</summary>
    public Attacker Attacker() => new(_app.Browser(), Files);

    /// <summary>The demo as it was.</summary>
    public async Task Restore()
    {
        await using FileStream file = File.OpenRead(MeadowApp.Demo("kittiwake-quay.plan.json"));
        await Plans.Replace(PlanFile.Read(file));
    }

    public ValueTask DisposeAsync() => _app.DisposeAsync();

    private static byte[] Picture()
    {
        using var bitmap = new SkiaSharp.SKBitmap(60, 40);
        using SkiaSharp.SKData data = bitmap.Encode(SkiaSharp.SKEncodedImageFormat.Png, 90);
        return data.ToArray();
    }
}

using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Exchange.Palette;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Exchange.Weather;

namespace UnrulyMeadow.Bench;

/// <summary>What ships with the app, and the weather that figures are taken over.</summary>
internal static class Shipped
{
    /// <summary>The demo's plan.</summary>
    public static Plan Plan()
    {
        using FileStream file = Open("kittiwake-quay.plan.json");
        return PlanFile.Read(file);
    }

    /// <summary>The demo's weather.</summary>
    public static WeatherRecord Record()
    {
        using FileStream file = Open("kittiwake-quay.dly");
        return WeatherRecord.From(new Station("K", "K", 43.1, -66.9, 6), WeatherFile.Read(file).Days);
    }

    /// <summary>The palette.</summary>
    public static Plant[] Palette()
    {
        using FileStream file = Open("palette.csv");
        return [.. PaletteSheet.Read(file, []).Select(c => c.Plant)];
    }

    /// <summary>Generated weather of a continental place.</summary>
    /// <param name="years">Years of it.</param>
    public static WeatherRecord Generated(int years)
    {
        DailyNormals normals = new MonthlyNormals(
            [-6, -5, -1, 5, 11, 16, 19, 18, 13, 7, 2, -4],
            [2, 4, 9, 15, 21, 26, 29, 28, 23, 17, 10, 4],
            [80, 70, 85, 85, 90, 90, 95, 90, 85, 80, 80, 80],
            "continental"
        ).At(new Station("BENCH", "bench", 43, 0, 5));
        return WeatherGenerator.Generate(normals, 1, 1991, years);
    }

    private static FileStream Open(string name)
    {
        string root = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(root, "UnrulyMeadow.slnx")))
            root = Path.GetDirectoryName(root)!;
        return File.OpenRead(Path.Combine(root, "demo", name));
    }
}

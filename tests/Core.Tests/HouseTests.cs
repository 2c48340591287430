using System.Xml.Linq;

namespace UnrulyMeadow.Core.Tests;

/// <summary>Arrows between projects point one way: Web → Wording, Store, Exchange, Solver → Core; Reckon → Wording, Exchange, Solver, Core.</summary>
public sealed class HouseTests
{
    private static readonly Dictionary<string, string[]> Allowed = new(StringComparer.Ordinal)
    {
        ["Core"] = [],
        ["Solver"] = ["Core"],
        ["Exchange"] = ["Core"],
        ["Store"] = ["Core"],
        ["Station"] = ["Core"],
        ["Wording"] = ["Core"],
        ["Reckon"] = ["Core", "Exchange", "Solver", "Wording"],
        ["Web"] = ["Core", "Exchange", "Solver", "Store", "Wording"],
    };

    [Fact]
    public void Every_project_refers_only_to_those_below_it()
    {
        string[] projects = Directory.GetFiles(Path.Combine(Root(), "src"), "*.csproj", SearchOption.AllDirectories);
        Assert.True(projects.Length >= 5);
        foreach (string project in projects)
        {
            string name = Path.GetFileNameWithoutExtension(project);
            Assert.True(Allowed.ContainsKey(name), $"{name} has no place in the house yet");
            foreach (string to in References(project))
                Assert.True(Allowed[name].Contains(to, StringComparer.Ordinal), $"{name} must not refer to {to}");
        }
    }

    [Fact]
    public void Core_takes_no_package_for_interface_storage_or_files()
    {
        string[] packages =
        [
            .. XDocument
                .Load(Path.Combine(Root(), "src", "Core", "Core.csproj"))
                .Descendants("PackageReference")
                .Select(p => p.Attribute("Include")!.Value),
        ];
        Assert.Subset(
            new HashSet<string>(StringComparer.Ordinal) { "NodaTime", "MathNet.Numerics", "NetTopologySuite" },
            packages.ToHashSet(StringComparer.Ordinal)
        );
    }

    [Theory]
    [InlineData("DateTime.Now")]
    [InlineData("DateTime.UtcNow")]
    [InlineData("SystemClock")]
    [InlineData("File.")]
    [InlineData("new Random()")]
    [InlineData("Random.Shared")]
    public void Core_knows_no_clock_no_files_and_no_chance(string word)
    {
        foreach (string file in Directory.GetFiles(Path.Combine(Root(), "src", "Core"), "*.cs", SearchOption.AllDirectories))
            Assert.False(System.IO.File.ReadAllText(file).Contains(word, StringComparison.Ordinal), $"{file} holds {word}");
    }

    private static IEnumerable<string> References(string project) =>
        XDocument
            .Load(project)
            .Descendants("ProjectReference")
            .Select(r => Path.GetFileNameWithoutExtension(r.Attribute("Include")!.Value.Replace('\\', '/')));

    internal static string Root()
    {
        DirectoryInfo? folder = new(AppContext.BaseDirectory);
        while (folder is not null && !System.IO.File.Exists(Path.Combine(folder.FullName, "UnrulyMeadow.slnx")))
            folder = folder.Parent;
        return folder?.FullName ?? throw new InvalidOperationException("The tests run outside the checkout.");
    }
}

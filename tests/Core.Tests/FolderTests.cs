using ArchUnitNET.Domain;
using ArchUnitNET.Loader;

namespace UnrulyMeadow.Core.Tests;

/// <summary>
/// Arrows between Core's folders point one way, judged by the types that each folder's code truly uses. A folder stands in the list above
/// all that use it, and uses only what is named beside it.
/// </summary>
public sealed class FolderTests
{
    private const string Core = "UnrulyMeadow.Core";

    // Every folder may use Core's own types: faults, ids, plain text, workings.
    private static readonly (string Folder, string[] Uses)[] House =
    [
        ("Facts", []),
        ("Packing", []),
        ("Colour", ["Facts"]),
        ("Climate", ["Facts"]),
        ("Ground", ["Facts", "Colour", "Climate"]),
        ("Rules", ["Colour"]),
        ("Palette", ["Facts", "Colour", "Climate", "Ground"]),
        ("Planters", ["Facts", "Colour", "Climate", "Ground", "Rules", "Palette"]),
        ("SiteMap", ["Facts", "Climate", "Planters"]),
        ("Planning", ["Facts", "Packing", "Rules", "Palette", "Planters", "SiteMap"]),
        ("Arranging", ["Facts", "Packing", "Colour", "Rules", "Palette", "Planters", "Planning"]),
        ("Stacks", ["Facts", "Packing", "Rules", "Palette", "Planters", "Planning", "Arranging"]),
        ("Season", ["Facts", "Colour", "Climate", "Ground", "Rules", "Palette", "Planters", "SiteMap", "Planning", "Arranging", "Stacks"]),
        ("Review", ["Palette", "Planters", "Planning", "Season", "Stacks"]),
        ("Recipes", ["Facts", "Colour", "Climate", "Rules", "Palette", "Planters", "Planning", "Arranging", "Stacks", "Season"]),
        ("Work", ["Facts", "Packing", "Rules", "Palette", "Planters", "Planning", "Stacks"]),
        ("Supply", ["Climate", "Facts", "Palette", "Planning", "Planters", "Work"]),
        ("Crew", ["Climate", "Facts", "Ground", "Packing", "Palette", "Planning", "Planters", "Supply", "Work"]),
        ("Trials", ["Facts", "Planning", "Planters", "Review"]),
        ("Learning", ["Facts", "Climate", "Palette", "Planters", "Planning", "Review", "Season"]),
        ("Care", ["Facts", "Climate", "Ground", "Palette", "Planters", "Planning", "Season", "Review", "Work", "Crew"]),
        ("Sequencing", ["Facts", "Colour", "Ground", "Rules", "Palette", "Planters", "Planning", "Stacks", "Season"]),
        ("Closing", ["Facts", "Colour", "Ground", "Rules", "Palette", "Planters", "Planning", "Stacks", "Season"]),
        (
            "Checks",
            ["Facts", "Colour", "Climate", "Ground", "Rules", "Palette", "Planters", "Planning", "Arranging", "Stacks", "Season", "Sequencing"]
        ),
        ("Turning", ["Facts", "Palette", "Planters", "Planning", "Season", "Work"]),
        ("Acts", ["Facts", "Palette", "Planters", "Planning", "Recipes", "Turning"]),
        (
            "Proposing",
            [
                "Facts",
                "Colour",
                "Climate",
                "Ground",
                "Rules",
                "Palette",
                "Planters",
                "SiteMap",
                "Planning",
                "Arranging",
                "Stacks",
                "Season",
                "Work",
                "Checks",
                "Recipes",
            ]
        ),
        ("Rehearsing", ["Facts", "Climate", "Ground", "Palette", "Planters", "Planning", "Season"]),
        ("Ahead", ["Facts", "Rules", "Palette", "Planters", "Planning", "Season", "Work"]),
        ("Accuracy", ["Packing", "Colour", "Climate", "Ground", "Palette", "Planters", "Season"]),
    ];

    private static readonly Architecture Built = new ArchLoader().LoadAssembly(typeof(Working).Assembly).Build();

    [Fact]
    public void Every_folder_uses_only_folders_below_it()
    {
        var faults = new List<string>();
        foreach ((string folder, SortedDictionary<string, string> uses) in Uses())
        {
            int place = Array.FindIndex(House, h => h.Folder == folder);
            if (place < 0)
            {
                faults.Add($"{folder} has no place in the house yet; it uses {string.Join(", ", uses.Keys)}");
                continue;
            }
            foreach ((string used, string by) in uses)
            {
                if (!House[place].Uses.Contains(used, StringComparer.Ordinal))
                    faults.Add($"{folder} must not use {used}: {by}");
                else if (Array.FindIndex(House, h => h.Folder == used) >= place)
                    faults.Add($"{used} must stand above {folder} in the list");
            }
        }
        Assert.True(faults.Count == 0, string.Join('\n', faults));
    }

    [Fact]
    public void Every_folder_of_the_table_is_there_and_uses_what_it_may()
    {
        IReadOnlyDictionary<string, SortedDictionary<string, string>> uses = Uses();
        Assert.All(House, h => Assert.Equal(h.Uses.Order(StringComparer.Ordinal), uses[h.Folder].Keys));
    }

    /// <summary>Run with MEADOW_DRAW=1, as <c>./meadow house</c> does, it draws the house anew.</summary>
    [Fact]
    public void The_drawing_in_the_documents_shows_the_house_as_it_is()
    {
        string drawing = HouseDrawing.Of(Uses().ToDictionary(u => u.Key, u => (IReadOnlyCollection<string>)u.Value.Keys, StringComparer.Ordinal));
        string file = Path.Combine(HouseTests.Root(), "docs", "house.svg");
        if (Environment.GetEnvironmentVariable("MEADOW_DRAW") is not null)
            System.IO.File.WriteAllText(file, drawing);
        Assert.Equal(System.IO.File.ReadAllText(file), drawing);
    }

    // What each folder's types use of other folders, with one example each.
    private static SortedDictionary<string, SortedDictionary<string, string>> Uses()
    {
        var uses = new SortedDictionary<string, SortedDictionary<string, string>>(StringComparer.Ordinal);
        foreach (IType type in Built.Types)
        {
            if (FolderOf(type) is not { } folder)
                continue;
            if (!uses.TryGetValue(folder, out SortedDictionary<string, string>? found))
                uses[folder] = found = new(StringComparer.Ordinal);
            foreach (IType target in type.Dependencies.Select(d => d.Target))
            {
                if (FolderOf(target) is { } other && other != folder)
                    found.TryAdd(other, $"{type.Name} uses {target.Name}");
            }
        }
        return uses;
    }

    private static string? FolderOf(IType type)
    {
        string space = type.Namespace?.FullName ?? string.Empty;
        return space.StartsWith(Core + ".", StringComparison.Ordinal) ? space[(Core.Length + 1)..].Split('.')[0] : null;
    }
}

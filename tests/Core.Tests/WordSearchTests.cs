using CsCheck;
using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Season;

namespace UnrulyMeadow.Core.Tests;

/// <summary>Finding by the beginnings of words, against a plain scan of words.</summary>
public sealed class WordSearchTests
{
    [Theory]
    [InlineData("witch", "Witch hazel", true)]
    [InlineData("witch", "Switch grass", false)]
    [InlineData("PETUNIA mag", "Petunia, magenta", true)]
    [InlineData("mag petunia", "Petunia, magenta", true)]
    [InlineData("cafe", "Café au lait dahlia", true)]
    [InlineData("red-edged", "Ivy, red-edged", true)]
    [InlineData("", "Anything", true)]
    public void Words_are_found_by_how_they_begin(string typed, string name, bool found) =>
        Assert.Equal(found, new WordSearch(typed).Match(name) is not null);

    [Fact]
    public void It_finds_what_a_plain_scan_finds()
    {
        IReadOnlyList<Plant> palette = A.Palette;
        string[] Words(string text) =>
            string.Concat(text.Select(c => char.IsLetterOrDigit(c) ? c : ' ')).Split(' ', StringSplitOptions.RemoveEmptyEntries);
        string[] beginnings = [.. palette.SelectMany(p => Words(p.CommonName)).Distinct()];
        Gen.Int[0, 1_000_000]
            .Sample(
                seed =>
                {
                    var random = new Random(seed);
                    string[] typed =
                    [
                        .. Enumerable
                            .Range(0, random.Next(1, 3))
                            .Select(_ => beginnings[random.Next(beginnings.Length)])
                            .Select(w => w[..random.Next(1, w.Length + 1)]),
                    ];
                    var search = new WordSearch(string.Join(' ', typed));
                    Assert.Equal(
                        palette
                            .Where(p => typed.All(t => Words(p.CommonName).Any(w => w.StartsWith(t, StringComparison.OrdinalIgnoreCase))))
                            .Select(p => p.Id),
                        palette.Where(p => search.Match(p.CommonName) is not null).Select(p => p.Id)
                    );
                },
                iter: 100
            );
    }

    [Fact]
    public void What_fails_is_offered_last_and_the_shortlist_and_what_was_planned_lately_first()
    {
        Plant[] palette =
        [
            A.Annual("fails") with
            {
                CommonName = "Aster, blue",
                IsShortlisted = true,
            },
            A.Annual("fits") with
            {
                CommonName = "Bellflower, blue",
            },
            A.Annual("lately") with
            {
                CommonName = "Catmint, blue",
            },
            A.Annual("liked") with
            {
                CommonName = "Delphinium, blue",
                IsShortlisted = true,
            },
            A.Annual("gone") with
            {
                CommonName = "Echium, blue",
                IsRetired = true,
            },
        ];
        var fits = palette.ToDictionary(p => p.Id, p => (p.Id == "fails" ? FitVerdict.Fails : FitVerdict.Fits, 0.5));
        IEnumerable<string> Found(string typed) => PlantFinder.Find(palette, typed, _ => "annual", fits, ["lately"]).Select(c => c.Plant.Id);
        Assert.Equal(["liked", "lately", "fits", "fails"], Found("blue"));
        Assert.Equal(["liked", "lately", "fits", "fails"], Found("annual"));
        Assert.Equal(["lately"], Found("cat bl"));
    }

    [Theory]
    [InlineData("#ffffff", ColourWord.White)]
    [InlineData("#d02f2f", ColourWord.Red)]
    [InlineData("#f4c430", ColourWord.Yellow)]
    [InlineData("#3f51b5", ColourWord.Blue)]
    [InlineData("#c2378f", ColourWord.Magenta)]
    [InlineData("#f28c28", ColourWord.Orange)]
    [InlineData("#2f6b2f", ColourWord.Green)]
    public void A_colour_is_called_as_people_call_it(string colour, ColourWord word) => Assert.Equal(word, ColourWords.Of(colour));
}

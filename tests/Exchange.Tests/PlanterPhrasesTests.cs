using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Exchange.Sheets;

namespace UnrulyMeadow.Exchange.Tests;

/// <summary>Planters as people name them.</summary>
public sealed class PlanterPhrasesTests
{
    private static readonly Plan Metric = new(Site.Default, [], [], [], [], []);
    private static readonly Plan Us = new(Site.Default with { Units = SiteUnits.UsCustomary }, [], [], [], [], []);

    [Theory]
    [InlineData("12 round pots of 50 cm", 12, "Pot 1", PlanterShape.Round, 50, 50, 45)]
    [InlineData("a 60 cm pot", 1, "Pot 1", PlanterShape.Round, 60, 60, 54)]
    [InlineData("60 cm pot", 1, "Pot 1", PlanterShape.Round, 60, 60, 54)]
    [InlineData("two pots of 1,2 m, 50 cm deep", 2, "Pot 1", PlanterShape.Round, 120, 120, 50)]
    [InlineData("3 troughs 120 x 40 x 45 cm", 3, "Trough 1", PlanterShape.Trough, 120, 40, 45)]
    [InlineData("window boxes 80×20 cm", 1, "Box 1", PlanterShape.Trough, 80, 20, 20)]
    [InlineData("4 square planters 45 cm", 4, "Planter 1", PlanterShape.Trough, 45, 45, 40)]
    [InlineData("5 hanging baskets of 40", 5, "Basket 1", PlanterShape.Basket, 40, 40, 22)]
    [InlineData("an oval bed of 3 by 1.5 m", 1, "Bed 1", PlanterShape.OvalBed, 300, 150, 35)]
    [InlineData("half barrel 60 cm", 1, "Barrel 1", PlanterShape.HalfBarrel, 60, 60, 39)]
    public void A_phrase_is_so_many_planters_of_a_shape_and_size(
        string phrase,
        int many,
        string first,
        PlanterShape shape,
        double length,
        double width,
        double depth
    )
    {
        IReadOnlyList<Planter> planters = Read(phrase, Metric);
        Assert.Equal(many, planters.Count);
        Assert.Equal(
            (first, shape, length, width, depth),
            (planters[0].Name, planters[0].Form.Shape, planters[0].Form.TopLengthCm, planters[0].Form.TopWidthCm, planters[0].Form.DepthCm)
        );
    }

    [Theory]
    [InlineData("6 pots of 20 in")]
    [InlineData("6 pots of 20\"")]
    [InlineData("6 pots of 20")]
    public void A_site_in_inches_reads_inches(string phrase) => Assert.All(Read(phrase, Us), p => Assert.Equal(50.8, p.Form.TopLengthCm, 2));

    [Fact]
    public void Light_and_area_are_taken_from_the_phrase_and_names_go_on_from_those_there()
    {
        IReadOnlyList<Planter> planters = Read(
            "2 pots 50 cm in shade at the court, 1 trough 100 x 40 cm in part sun near the Old Gate\nthree pots of 40 cm and a bed of 4 x 2 m",
            Metric
        );
        Assert.Equal(["Pot 1", "Pot 2", "Trough 1", "Pot 3", "Pot 4", "Pot 5", "Bed 1"], planters.Select(p => p.Name));
        Assert.Equal([Exposure.Shade, Exposure.Shade, Exposure.PartSun, Exposure.FullSun], planters.Take(4).Select(p => p.Exposure));
        Plan with = new(
            Site.Default,
            [new Area("court", "Court", 1), new Area("gate", "Gate", 1)],
            [planters[0] with { AreaId = "court" }],
            [],
            [],
            []
        );
        Assert.Equal("Pot 2", Assert.Single(Read("a pot of 30 cm at the gate", with)).Name);
        PlanterTable table = PlanterSheet.Read(PlanterPhrases.Rows("2 pots 50 cm at the court", with), with);
        Assert.Empty(table.NewAreas);
        Assert.All(table.Rows, r => Assert.Equal("court", r.Planter.AreaId));
    }

    [Theory]
    [InlineData("six pots of fifty", "no size is said")]
    [InlineData("3 troughs of 100 cm", "its width is not said")]
    [InlineData("4 thingummies of 40 cm", "no kind of planter is named")]
    [InlineData("4 purple pots of 40 cm", "“purple” is not understood")]
    [InlineData("0 pots of 40 cm", "from 1 to 500")]
    [InlineData("999999 pots of 40 cm", "from 1 to 500")]
    [InlineData("  \n ", "name at least one planter")]
    [InlineData("pots\u0001 of 40 cm", "control character")]
    public void What_cannot_be_read_is_quoted_with_what_is_amiss(string phrase, string said) =>
        Assert.Contains(
            said,
            string.Join("; ", Assert.Throws<InvalidInputException>(() => PlanterPhrases.Rows(phrase, Metric)).Faults),
            StringComparison.Ordinal
        );

    [Fact]
    public void Any_words_are_read_or_refused_in_words()
    {
        string[] words =
        [
            "12",
            "a",
            "pots",
            "of",
            "50",
            "cm",
            "x",
            "by",
            "40",
            "in",
            "shade",
            "at",
            "the",
            "\"",
            ",",
            "bed",
            "deep",
            "1.5",
            "m",
            "and",
            "…",
        ];
        var random = new Random(11);
        for (int i = 0; i < 3000; i++)
        {
            string text = string.Join(' ', Enumerable.Range(0, random.Next(1, 14)).Select(_ => words[random.Next(words.Length)]));
            try
            {
                PlanterSheet.Read(PlanterPhrases.Rows(text, Metric), Metric);
            }
            catch (InvalidInputException refused)
            {
                Assert.All(refused.Faults, f => Assert.NotEmpty(f.Message));
            }
        }
    }

    private static IReadOnlyList<Planter> Read(string phrase, Plan plan) =>
        [.. PlanterSheet.Read(PlanterPhrases.Rows(phrase, plan), plan).Rows.Select(r => r.Planter)];
}

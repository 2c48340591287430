using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Core.Sequencing;

/// <summary>One kind of one planter's bulbs makes way for another that flowers earlier or later.</summary>
/// <param name="Id">Its own short name within one answer.</param>
/// <param name="Planter">The planter.</param>
/// <param name="Before">The display as planned.</param>
/// <param name="After">The display with the other kind.</param>
/// <param name="Goes">The kind that makes way.</param>
/// <param name="Comes">The kind that takes its place.</param>
/// <param name="InFlower">True on days on which the planter's bulbs flower in most years with the change.</param>
/// <param name="Cost">What it costs more than before, guide prices; negative for less.</param>
public sealed record SequenceMove(string Id, Planter Planter, Display Before, Display After, Plant Goes, Plant Comes, bool[] InFlower, decimal Cost)
{
    /// <summary>How far the two are apart in colour (CIEDE2000).</summary>
    public double ColourApart { get; } = ColourDifference.Between(Goes.LeadColour, Comes.LeadColour);

    /// <summary>What to do, beginning with a verb.</summary>
    public Fact Does =>
        new(SequencePhrase.Exchange, ("count", Before.Items.First(i => i.PlantId == Goes.Id).Count), ("comes", Comes), ("goes", Goes));

    /// <summary>Every exchange worth weighing in an area's bulbs that are still to be planted.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="kernel">The season's kernel of the plan year.</param>
    /// <param name="area">The area's run of bulbs.</param>
    /// <param name="from">What is planted before this day cannot be changed: today.</param>
    /// <param name="done">Told the count of kinds looked at.</param>
    /// <param name="cancel">Stops the work.</param>
    public static IReadOnlyList<SequenceMove> For(
        Plan plan,
        SeasonKernel kernel,
        AreaSequence area,
        LocalDate from,
        IProgress<int>? done = null,
        CancellationToken cancel = default
    )
    {
        var calendar = new SpringCalendar(plan, kernel);
        bool southern = kernel.Seasons.Count > 0 && kernel.Seasons[0].IsSouthern;
        List<Plant> bulbs = [.. plan.Palette.Where(p => !p.IsRetired && SpringCalendar.IsSpringBulb(p))];
        var found = new List<SequenceMove>();
        int looked = 0;
        foreach (var here in area.Shows.Where(s => s.Display.Install >= from).GroupBy(s => s.Planter.Id, StringComparer.Ordinal))
        {
            foreach (BulbShow show in here)
            {
                cancel.ThrowIfCancellationRequested();
                done?.Report(++looked);
                bool Fits(Plant p) =>
                    !ReferenceEquals(p, show.Plant)
                    && SpringCalendar.GenusOf(p) == SpringCalendar.GenusOf(show.Plant)
                    && show.Display.Items.All(i => i.PlantId != p.Id)
                    && p.Suits(show.Planter.Exposure)
                    && p.IsSoldOn(show.Display.Install, southern)
                    && !show.Planter.Survey.RestsFrom(p, show.Display.Install);
                // For each other third the nearest in colour.
                foreach (var third in bulbs.Where(Fits).GroupBy(calendar.ThirdOf).Where(t => t.Key is not null && t.Key != show.Third))
                {
                    Plant comes = third.MinBy(p => ColourDifference.Between(p.LeadColour, show.Plant.LeadColour))!;
                    float[] odds = calendar.Odds(show.Planter, show.Display, comes);
                    Display after = show.Display with
                    {
                        Items =
                        [
                            .. show.Display.Items.Select(i =>
                                i.PlantId == show.Plant.Id ? i with { PlantId = comes.Id, DepthCm = null, Places = null, Form = null } : i
                            ),
                        ],
                        Pairs = [.. show.Display.Pairs.Where(p => p.FirstPlantId != show.Plant.Id && p.SecondPlantId != show.Plant.Id)],
                    };
                    if (BulbStack.Of(plan, show.Planter, after).Problems.Count > 0)
                        continue;
                    bool[] flower =
                    [
                        .. Enumerable
                            .Range(0, kernel.Days)
                            .Select(d => odds[d] >= ColourOdds.InColour || here.Any(s => s != show && s.Odds[d] >= ColourOdds.InColour)),
                    ];
                    found.Add(
                        new SequenceMove(
                            $"{show.Planter.Id}-{found.Count + 1}",
                            show.Planter,
                            show.Display,
                            after,
                            show.Plant,
                            comes,
                            flower,
                            plan.Site.GuidePrice(comes, show.Count) - plan.Site.GuidePrice(show.Plant, show.Count)
                        )
                    );
                }
            }
        }
        return found;
    }

    /// <summary>The arithmetic behind it.</summary>
    public Working Explain(LocalDate start) =>
        new Working(
            WorkingKind.SequenceMove,
            new Fact(WorkingPhrase.DaysInBulbFlower, ("inFlower", InFlower.Count(f => f))),
            [
                new WorkingInput(InputName.GoesIn, Before.Install),
                new WorkingInput(InputName.InFlowerWithIt, Spans(start)),
                new WorkingInput(
                    InputName.DifferenceOfColour,
                    new Fact(WorkingPhrase.SequenceMoveDifferenceColour, ("colourApart", Quantity.Number(ColourApart, 1)))
                ),
                new WorkingInput(InputName.Cost, new Fact(WorkingPhrase.AgainstKindPlanned, ("cost", Quantity.Money(Cost)))),
            ]
        )
        {
            Parts = [("figure", Does), ("source", Comes.Source)],
        };

    private object Spans(LocalDate start)
    {
        var spans = new List<Fact>();
        for (int d = 0; d < InFlower.Length; d++)
        {
            if (!InFlower[d] || (d > 0 && InFlower[d - 1]))
                continue;
            int end = d;
            while (end + 1 < InFlower.Length && InFlower[end + 1])
                end++;
            spans.Add(new Fact(WorkingPhrase.BulbSequenceSiteSpring, ("from", start.PlusDays(d)), ("to", start.PlusDays(end))));
        }
        return spans.Count == 0 ? SequencePhrase.NeverInMostYears : new Fact(WorkingPhrase.Listed, ("items", spans));
    }
}

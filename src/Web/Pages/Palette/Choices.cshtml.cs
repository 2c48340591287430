using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Drawing;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Palette;

/// <summary>Plants to choose from, as JSON for the field in which one is chosen: the likeliest first, each with why it fits or not.</summary>
[Needs(SiteRole.Guest)]
public sealed class ChoicesModel(PageFrame frame, LogStore log) : PageModel
{
    private const int Most = 40;
    private const int StripHeight = 16;

    /// <summary>What was typed.</summary>
    [BindProperty(SupportsGet = true, Name = "q")]
    public string? Query { get; set; }

    /// <summary>The planter that it is for; null where there is none, or are many.</summary>
    [BindProperty(SupportsGet = true, Name = "planter")]
    public string? PlanterId { get; set; }

    /// <summary>First day on which it is to show.</summary>
    [BindProperty(SupportsGet = true, Name = "from")]
    public string? FromText { get; set; }

    /// <summary>Last day.</summary>
    [BindProperty(SupportsGet = true, Name = "to")]
    public string? ToText { get; set; }

    /// <summary>"bulbs", "leaf" for what goes out in leaf, or empty for all.</summary>
    [BindProperty(SupportsGet = true, Name = "sort")]
    public string? Sort { get; set; }

    /// <summary>Finds them.</summary>
    public async Task<IActionResult> OnGetAsync()
    {
        SiteNow now = await frame.Now();
        UnitsText units = frame.Units;
        LocalDate first = Words.ReadDay(FromText) ?? frame.Today;
        LocalDate last = Words.ReadDay(ToText) is { } to && to >= first && to <= first.PlusDays(366) ? to : first.PlusMonths(6);
        LocalDate start = SiteYear.UsualStart(first, now.IsSouthern);
        SiteFlowering flowering = await frame.State.Flowering(start);
        Planter? planter = now.Plan.FindPlanter(PlanterId ?? string.Empty);
        FitQuestion? question = planter is null ? null : new FitQuestion(flowering, now.Plan.Site, planter, now.Plan.AreaOf(planter), first, last);
        Fits? fits =
            question is null || flowering.Years == 0
                ? null
                : await frame.IfSoon(frame.State.Derived(now, ("fits", planter!.Id, first, last), n => new Fits(n.Plan.Palette, question)));
        IReadOnlyDictionary<string, (int Well, int Poorly)> ratings = await log.Ratings();
        ILookup<string, Lot> lots = now.Plan.Lots.ToLookup(l => l.PlantId, StringComparer.Ordinal);
        var found = PlantFinder.Find(
            now.Plan.Palette.Where(p =>
                Sort switch
                {
                    "bulbs" => p.Bulb is not null,
                    "leaf" => p.GoesOutInLeaf,
                    _ => true,
                }
            ),
            Query,
            PlantWords.Of,
            fits?.ByPlant,
            await frame.State.Derived(now, "kinds planned of late", Recent)
        );
        return new JsonResult(
            new
            {
                total = found.Count,
                reckoning = question is not null && flowering.Years > 0 && fits is null,
                plants = found.Take(Most).Select(c => Row(c, fits is null ? null : question!.Of(c.Plant))),
            }
        );

        object Row(PlantChoice choice, PlantFit? fit)
        {
            Plant plant = choice.Plant;
            (int well, int poorly) = ratings.GetValueOrDefault(plant.Id);
            int atHand = lots[plant.Id].Sum(l => l.Count);
            return new
            {
                id = plant.Id,
                name = plant.CommonName,
                botanical = plant.BotanicalName,
                colours = plant.Windows.SelectMany(w => w.Colours).Distinct().Take(4).Select(c => new { fill = c, line = Figure.Outline(c) }),
                strip = StripDrawing.Draw(fit?.Strip ?? flowering.Usual(plant), StripHeight, planter is null ? null : (first, last)).ToString(),
                height = units.Length(plant.HeightCm),
                verdict = fit?.Verdict.ToString().ToLowerInvariant(),
                why = fit is null ? null
                : fit.Verdict == FitVerdict.Fits ? $"fits, shows {Words.InTen(fit.Odds)}"
                : frame.Facts.Say(fit.Reasons.MaxBy(r => r.Verdict)!.Why),
                atHand = atHand > 0 ? $"{atHand} at hand" : null,
                rated = well + poorly == 0 ? null : $"did well {well}, poorly {poorly}",
                first = plant.IsShortlisted ? "shortlist"
                : choice.Recent is not null ? "lately"
                : null,
                forms = string.Join('|', GoodsForm.Of(plant).Select(f => f.Name)),
            };
        }
    }

    // Kinds by the display that was changed last.
    private static IReadOnlyList<string> Recent(SiteNow now) =>
        [
            .. now
                .Plan.Displays.OrderByDescending(d => now.Versions.Display(d.Id))
                .SelectMany(d => d.Items.Select(i => i.PlantId))
                .Distinct(StringComparer.Ordinal)
                .Take(PlantFinder.MostRecent),
        ];

    private sealed class Fits(IEnumerable<Plant> palette, FitQuestion question)
    {
        public IReadOnlyDictionary<string, (FitVerdict Verdict, double Score)> ByPlant { get; } =
            question.Ask(palette).ToDictionary(f => f.Plant.Id, f => (f.Verdict, f.Score), StringComparer.Ordinal);
    }
}

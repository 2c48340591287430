using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Learning;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Jobs;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Learnt;

/// <summary>What the log teaches of the site's plants; a planner takes it over, kind by kind, or not.</summary>
[Needs(SiteRole.Guest)]
public sealed class IndexModel(PageFrame frame, LogStore log, PaletteStore palette, PlanStore plans, Visitor visitor) : PageModel
{
    // More are not drawn on one page.
    private const int Most = 200;

    private static readonly NodaTime.LocalDate EarliestDay = new(1950, 1, 1);

    [BindProperty]
    public string? PlantId { get; set; }

    /// <summary>Of which figure something is taken over; null for its dates.</summary>
    [BindProperty]
    public LearntFigure? Figure { get; set; }

    [BindProperty]
    public long Version { get; set; }

    public SiteNow Now { get; private set; } = null!;

    /// <summary>What was learnt; null where the site has no weather.</summary>
    public SiteLearning? Learning { get; private set; }

    /// <summary>Losses by kind, those first of which most is lost.</summary>
    public IReadOnlyList<LossLearning> Losses { get; private set; } = [];

    /// <summary>Losses of all kinds of which spares are ordered.</summary>
    public LossLearning? AllLosses { get; private set; }

    /// <summary>The share of spares that the log speaks for: the mean, up to the next whole percent.</summary>
    public double SparesLearnt => Math.Ceiling((AllLosses?.Posterior.Mean ?? 0) * 100) / 100;

    /// <summary>Kinds that are shown.</summary>
    public IEnumerable<DateLearning> Shown => Learning?.Dates.Take(Most) ?? [];

    public bool MayAdopt => visitor.Role >= SiteRole.Planner;

    public Task OnGetAsync() => Load();

    /// <summary>Takes over what was learnt of one kind: its figures in the site's palette follow.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAdoptAsync() =>
        await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                await Load();
                (Plant adopted, string how) = Figure is { } figure ? AdoptedFigure(figure) : await AdoptedDates();
                await palette.Save(adopted, Version);
                TempData["Said"] = $"{adopted.CommonName} is reckoned {how} from now on. Under Changes it can be taken back.";
                return Redirect("/learnt");
            },
            Load
        );

    private static InvalidInputException Forgotten => new("plant", "nothing is learnt of it any more: the log or the plan has changed");

    private async Task<(Plant Adopted, string How)> AdoptedDates()
    {
        DateLearning learnt = Learning?.Dates.FirstOrDefault(d => d.Plant.Id == PlantId) ?? throw Forgotten;
        SiteNow now = Now;
        return (
            await Task.Run(() => SiteLearning.Adopted(now.Plan, now.Record!, learnt))
                ?? throw new InvalidInputException("plant", "it opens by no sum that could be moved, or by less than half a day"),
            Days(learnt.Posterior.Mean)
        );
    }

    private (Plant Adopted, string How) AdoptedFigure(LearntFigure figure)
    {
        RatioLearning learnt = Ratios(figure).FirstOrDefault(r => r.Plant.Id == PlantId) ?? throw Forgotten;
        return (
            learnt.Adopted() ?? throw new InvalidInputException("plant", "it has no such figure to move, or hardly moves it"),
            $"to {(figure == LearntFigure.ShowLength ? "show" : "cover")} {Times(learnt)}"
        );
    }

    /// <summary>What was learnt of a figure, by kind.</summary>
    public IReadOnlyList<RatioLearning> Ratios(LearntFigure figure) =>
        Learning is null ? []
        : figure == LearntFigure.ShowLength ? Learning.Shows
        : Learning.Fullness;

    /// <summary>So many times what is reckoned, in words.</summary>
    public static string Times(RatioLearning learnt)
    {
        string by = Math.Abs(learnt.Times - 1).ToString("0 %", System.Globalization.CultureInfo.InvariantCulture);
        string more = learnt.Figure == LearntFigure.ShowLength ? "longer" : "more";
        string less = learnt.Figure == LearntFigure.ShowLength ? "shorter" : "less";
        return Math.Abs(learnt.Times - 1) < 0.005 ? "as before" : $"{by} {(learnt.Times > 1 ? more : less)}";
    }

    /// <summary>Orders as many spares from now on as the log speaks for.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostSparesAsync() =>
        await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                await Load();
                if (AllLosses is not { Planters: > 0 })
                    throw new InvalidInputException(string.Empty, "Nobody has looked at anything yet: there is nothing to take over");
                await plans.SaveSite(Now.Plan.Site with { SpareShare = SparesLearnt }, Version);
                TempData["Said"] = $"Spares of {SparesLearnt:P0} are ordered from now on. Under The site they are set otherwise.";
                return Redirect("/learnt#losses");
            },
            Load
        );

    /// <summary>Days later or earlier, in words.</summary>
    public static string Days(double late) => Math.Abs(late) < 0.05 ? "as before" : $"{Math.Abs(late):0.0} days {(late > 0 ? "later" : "earlier")}";

    private async Task Load()
    {
        Now = await frame.Now();
        NodaTime.LocalDate today = frame.Today;
        string mark = await log.Mark();
        LogRead read = await frame.Soon(frame.State.Derived(Now, ("learnt", mark, today), n =>
            {
                IReadOnlyList<Observation> all = ReckoningThreads.Read(() => log.Between(EarliestDay, today));
                (IReadOnlyList<LossLearning> kinds, LossLearning every) = LossLearning.Of(n.Plan, all, today);
                return new LogRead(kinds, every, n.Record is { } record ? SiteLearning.Of(n.Plan, record, all) : null);
            }));
        (Losses, AllLosses, Learning) = (read.Losses, read.AllLosses, read.Learning);
    }

    private sealed record LogRead(IReadOnlyList<LossLearning> Losses, LossLearning AllLosses, SiteLearning? Learning);
}

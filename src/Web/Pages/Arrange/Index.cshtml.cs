using System.Globalization;
using System.Text.Json;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Arranging;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Packing;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Core.Rules;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Stacks;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.Drawing;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Arrange;

/// <summary>
/// "How do these plants stand, and what will they look like?": a display from above and the side, moved by hand, solved for fullness, looked at for
/// colour.
/// </summary>
[Needs(SiteRole.Guest)]
public sealed class IndexModel(PageFrame frame, DisplayStore displays, ChangeStore changes, LogStore log) : PageModel
{
    [FromRoute]
    public string Id { get; set; } = string.Empty;

    [BindProperty(SupportsGet = true, Name = "day")]
    public string? DayText { get; set; }

    [BindProperty]
    public long Version { get; set; }

    /// <summary>Places as moved by hand: [[[x, y], …], …], cm, kind by kind; empty for the layout by rule.</summary>
    [BindProperty]
    public string? Places { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? FullBy { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? FullPercent { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public Planter Planter { get; private set; } = null!;

    public Display Display { get; private set; } = null!;

    public YearView View { get; private set; } = null!;

    public YearScale Scale { get; private set; } = null!;

    public PlanterSeason Season { get; private set; } = null!;

    public PlanterOnDay OnDay { get; private set; } = null!;

    public Arrangement Arrangement { get; private set; } = null!;

    public Sightline Sight { get; private set; } = null!;

    public IReadOnlyList<Remark> Remarks { get; private set; } = [];

    public ColourScheme? Scheme { get; private set; }

    public IReadOnlyList<NeighbourDifference> Neighbours { get; private set; } = [];

    /// <summary>Neighbours that look alike to other eyes though they differ to most.</summary>
    public IReadOnlyList<(ColourSight Sight, Plant One, Plant Other)> AlikeToOthers { get; private set; } = [];

    public IReadOnlyList<FullnessIf> Fullness { get; private set; } = [];

    public Working? FullnessWorking { get; private set; }

    public double Target { get; private set; } = FullnessQuestion.Full;

    public LocalDate By { get; private set; }

    public string? CanUndo { get; private set; }

    /// <summary>The display that stood here a year before, and how it was rated.</summary>
    public Display? LastYear { get; private set; }

    /// <summary>How often the log says of last year's display that it did well, and poorly.</summary>
    public (int Well, int Poorly) LastYearRated { get; private set; }

    public UnitsText Units => frame.Units;

    private double[] _wide = [];

    public async Task<IActionResult> OnGetAsync()
    {
        if (!await Find())
            return NotFound();
        Version = Now.Versions.Display(Id);
        Places = Display.Items.Any(i => i.Places is not null) ? Write(Arrangement.Of(Now.Plan, Planter, Display)) : null;
        await Load();
        return Page();
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostPreviewAsync()
    {
        if (!await Find())
            return NotFound();
        ModelState.Clear();
        Display = Read() ?? Display;
        await Load();
        return Page();
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAsync() =>
        await Save(
            () => Read() ?? throw new InvalidInputException(string.Empty, "The places could not be read; move a plant and save again."),
            "The arrangement is saved.",
            "plants moved"
        );

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostRuleAsync() =>
        await Save(() => Display with { Items = [.. Display.Items.Select(i => i with { Places = null })] }, "Laid out by rule.", "laid out by rule");

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostCountAsync(int weeks) =>
        await Save(
            () =>
            {
                AskFullness(Display);
                FullnessAnswer answer = Fullness.FirstOrDefault(f => f.DaysLater == 7 * weeks)?.Answer ?? new FullnessAnswer([], 0, 0);
                if (answer.Total == 0)
                    throw new InvalidInputException(string.Empty, "No count of plants of this size fills it by then.");
                return Display with
                {
                    Install = Display.Install.PlusDays(7 * weeks),
                    Items = [.. Display.Items.Select((x, i) => x with { Count = Math.Max(1, answer.Counts[i]), Places = null })],
                };
            },
            "Counts changed.",
            "counts solved for fullness"
        );

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostMendAsync(string? mend) =>
        await Save(
            () =>
                RemarksView.Find(Checks!.For(Read() ?? Display), mend)?.Remedy.After
                ?? throw new InvalidInputException(string.Empty, "That remark is there no more. Look again."),
            "Done; it can be taken back.",
            (mend ?? string.Empty).Split("||")[^1]
        );

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostUndoAsync()
    {
        if (!await Find())
            return NotFound();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                await changes.UndoLastOf(Id);
                TempData["Said"] = "Taken back.";
                return Redirect(Here());
            },
            Load
        );
    }

    private DisplayChecks? Checks { get; set; }

    private string Here() => $"/arrange/{Id}" + (Words.ReadDay(DayText) is { } d ? $"?day={Words.Iso(d)}" : string.Empty);

    private async Task<IActionResult> Save(Func<Display> change, string said, string what)
    {
        if (!await Find())
            return NotFound();
        return await frame.Saving(
            this,
            f => f.StartsWith("items", StringComparison.Ordinal) ? string.Empty : null,
            async () =>
            {
                // Whoever changed the counts meanwhile is named first: places for other counts could not be read anyway.
                if (Now.Versions.Display(Id) != Version)
                    throw new LostUpdateException("This display");
                Display after = change();
                await displays.Save(after, Version, $"{Planter.Name}: {what}");
                TempData["Said"] = said;
                return Redirect(Here());
            },
            async () =>
            {
                Display = Read() ?? Display;
                await Load();
            },
            now =>
            {
                Display mine = Read() ?? Display;
                Now = now;
                if (now.Plan.Displays.FirstOrDefault(d => d.Id == Id) is not { } saved)
                    return [];
                (Display, Version) = (saved, now.Versions.Display(Id));
                // Places for other counts cannot be put in the place of what is saved now.
                if (Read() is null)
                    Places = null;
                return FormDifference.Between(DisplayInput.From(mine, 0, Units), DisplayInput.From(saved, 0, Units));
            }
        );
    }

    private async Task<bool> Find()
    {
        Now = await frame.Now();
        if (
            Now.Plan.Displays.FirstOrDefault(d => d.Id == Id) is not { Layer: not DisplayLayer.Bulbs } display
            || Now.Plan.FindPlanter(display.PlanterId) is not { } planter
        )
            return false;
        (Display, Planter) = (display, planter);
        // Without a day in the address it stands half-way through its stay, when its plants have grown.
        string day = DayText ?? Words.Iso(display.Install.PlusDays(Math.Min(60, Period.DaysBetween(display.Install, display.Lift) / 2)));
        View = YearView.From(day, Now, frame.Today);
        Scale = YearScale.Across(View.Start);
        _flowering = await frame.State.Flowering(View.Start);
        Season = await frame.Soon(frame.State.Season(planter, View.Start));
        Checks = await frame.State.Checks();
        return true;
    }

    private SiteFlowering _flowering = null!;

    private double Pocket => Now.Plan.AreaOf(Planter).FrostPocketC + Planter.Survey.FrostPocketC;

    // Places as moved by hand over the saved display; null when they cannot be read or do not match its counts.
    private Display? Read()
    {
        if (string.IsNullOrWhiteSpace(Places))
            return Display;
        try
        {
            double[][][]? read = JsonSerializer.Deserialize<double[][][]>(Places);
            if (
                read is null
                || read.Length != Display.Items.Count
                || read.Where((k, i) => k.Length != Display.Items[i].Count || k.Any(p => p.Length != 2)).Any()
            )
                return null;
            SurfaceRaster surface = SurfaceRaster.Of(Planter.Form);
            return Display with
            {
                Items =
                [
                    .. Display.Items.Select(
                        (item, i) => item with { Places = [.. read[i].Select(p => Rounded(surface.Nearest(new PlanePoint(p[0], p[1]))))] }
                    ),
                ],
            };
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private static PlanePoint Rounded(PlanePoint p) => new(Math.Round(p.XCm, 1), Math.Round(p.YCm, 1));

    private static string Write(Arrangement arrangement)
    {
        int kinds = arrangement.Plants.Select(p => p.Item).DefaultIfEmpty(-1).Max() + 1;
        return JsonSerializer.Serialize(arrangement.Places(kinds).Select(k => k.Select(p => new[] { p.XCm, p.YCm })));
    }

    private async Task Load()
    {
        BulbStack? stack = null;
        StackBloom? bloom = null;
        if (Now.Plan.DisplaysOf(Planter.Id).FirstOrDefault(d => d.Layer == DisplayLayer.Bulbs && d.StandsOn(View.Day)) is { } bulbs)
        {
            stack = BulbStack.Of(Now.Plan, Planter, bulbs);
            LocalDate year = StackBloom.BulbYearStart(View.Day, Now.IsSouthern);
            bloom = await frame.Soon(frame.State.Bloom(stack, bulbs.Install > year ? bulbs.Install : year));
        }
        Arrangement = Arrangement.Of(Now.Plan, Planter, Display);
        int index = Math.Clamp(Period.DaysBetween(_flowering.Start, View.Day), 0, Season.Days - 1);
        _wide =
        [
            .. Display.Items.Select(i => (double)_flowering.Spread(Now.Plan.AsBought(Planter, i), Display.Install, Display.Lift, Pocket)[index]),
        ];
        OnDay = PlanterOnDay.Of(Now.Plan, Planter, Season, _flowering, View.Day, stack, bloom, Display);
        Sight = Sightline.Of(Arrangement, StatureOf);
        Remarks = Checks!.For(Display);
        (Scheme, Neighbours) = Checks!.ColoursOf(Display);
        AlikeToOthers =
        [
            .. Neighbours
                .Where(n => n.ColourDifference >= ColourDifference.LooksAlike)
                .SelectMany(n =>
                    new[] { ColourSight.Deutan, ColourSight.Protan, ColourSight.Tritan }
                        .Where(s =>
                            ColourDifference.Between(ColourVision.Seen(n.OneShows, s), ColourVision.Seen(n.OtherShows, s))
                            < ColourDifference.LooksAlike / 2
                        )
                        .Select(s => (s, n.One, n.Other))
                ),
        ];
        CanUndo = (await changes.LastOf([Id])).GetValueOrDefault(Id)?.What;
        LastYear = Now
            .Plan.DisplaysOf(Planter.Id)
            .Where(d =>
                d.Layer == Display.Layer
                && d.Id != Id
                && d.Install < Display.Install
                && Math.Abs(Period.DaysBetween(d.Install.PlusYears(1), Display.Install)) < 75
            )
            .LastOrDefault();
        if (LastYear is { } last)
        {
            IReadOnlyList<Observation> seen =
            [
                .. (await log.Latest(Planter.Id, 500)).Where(o => o.Counts && o.Day >= last.Install && o.Day <= last.Lift.PlusDays(21)),
            ];
            LastYearRated = (
                seen.Count(o => o.Kind == ObservationKind.DidWell),
                seen.Count(o => o.Kind is ObservationKind.DidPoorly or ObservationKind.Died)
            );
        }
        AskFullness(Display);
    }

    /// <summary>Width and height of one of its plants on the day.</summary>
    public Stature StatureOf(PlacedPlant p) => Stature.Of(p.Plant, _wide[p.Item]);

    private void AskFullness(Display display)
    {
        Target =
            double.TryParse(FullPercent, NumberStyles.Float, CultureInfo.InvariantCulture, out double percent) && percent is >= 10 and <= 100
                ? percent / 100
                : FullnessQuestion.Full;
        By =
            Words.ReadDay(FullBy) is { } by && by > display.Install
                ? by
                : display.Install.PlusDays(Math.Min(42, Period.DaysBetween(display.Install, display.Lift) / 2));
        var question = new FullnessQuestion(Planter, [.. display.Items.Select(i => (Now.Plan.AsBought(Planter, i), i.Count))]);
        int index = Math.Clamp(Period.DaysBetween(_flowering.Start, By), 0, Season.Days - 1);
        double[] Then(int weeks) =>
            [
                .. display.Items.Select(i =>
                    (double)
                        _flowering.Spread(Now.Plan.AsBought(Planter, i), display.Install.PlusDays(7 * weeks), display.Lift.PlusDays(60), Pocket)[
                            index
                        ]
                ),
            ];
        DensitySchool school = Now.Plan.Site.RulesFor(Planter).Density;
        Fullness =
        [
            .. new[] { -1, 0, 1, 2 }
                .Where(w => display.Install.PlusDays(7 * w) < By)
                .Select(w => (Weeks: w, Then: Then(w)))
                .Where(w => w.Then.All(s => s > 0))
                .Select(w => new FullnessIf(7 * w.Weeks, question.By(school, Target, w.Then))),
        ];
        if (Fullness.FirstOrDefault(f => f.DaysLater == 0) is { } now)
            FullnessWorking = question.Explain(now.Answer, Target, display.Install, By, Then(0));
    }
}

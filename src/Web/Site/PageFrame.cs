using System.Diagnostics;
using System.Globalization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.ModelBinding;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Work;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Sites;

namespace UnrulyMeadow.Web.Site;

/// <summary>What every page asks for: the plan of now, today, the units.</summary>
public sealed class PageFrame(CurrentSite site, Visitor visitor, IClock clock, IHttpContextAccessor http)
{
    private const int MostShown = 20;

    // What a person takes for at once. What takes longer goes on beside the page.
    private static readonly TimeSpan AtOnce = TimeSpan.FromMilliseconds(180);

    // A page that is asked for again waits for what belongs to its moment: where others save all the time, the next moment's is not there either.
    private static readonly TimeSpan AskedAgain = TimeSpan.FromSeconds(4);

    private readonly long _begun = Stopwatch.GetTimestamp();
    private SiteNow? _now;
    private Core.Planning.SiteUnits _siteUnits = Core.Planning.SiteUnits.Metric;

    /// <summary>The state's keeper.</summary>
    public SiteState State => site.Memory.State;

    /// <summary>What every address of the site begins with; empty where its pages are found without it.</summary>
    public string Base => http.HttpContext?.Request.PathBase.Value ?? string.Empty;

    /// <summary>True where the page is about a site.</summary>
    public bool IsOnSite => site.IsKnown;

    /// <summary>Today by the site's time zone.</summary>
    public LocalDate Today => clock.GetCurrentInstant().InZone(State.Zone).Date;

    /// <summary>This instant.</summary>
    public Instant Instant => clock.GetCurrentInstant();

    /// <summary>The plan and weather, read once per request.</summary>
    public async Task<SiteNow> Now()
    {
        _now ??= await State.Now();
        _siteUnits = _now.Plan.Site.Units;
        return _now;
    }

    /// <summary>
    /// What a page rests on, where it is known at once. A page that is only looked at does not wait for more: it says that it is still being
    /// reckoned, and is asked for again, and then waits longer. What is sent, and parts that scripts ask for, wait.
    /// </summary>
    /// <param name="work">The reckoning; it goes on when the page has gone, and what it finds is kept for the next who asks.</param>
    /// <exception cref="StillReckoningException">It takes longer.</exception>
    public async Task<T> Soon<T>(Task<T> work)
    {
        if (http.HttpContext?.Request is not { } asked || !HttpMethods.IsGet(asked.Method) || asked.Query.ContainsKey("handler"))
            return await work;
        TimeSpan patience = asked.Cookies.ContainsKey(ShowsReckoning.Again) ? AskedAgain : AtOnce;
        return await IsThereWithin(patience, work) ? await work : throw new StillReckoningException();
    }

    /// <summary>
    /// A part of a page where it is known at once; null where it is not, and the page marks its place with <c>data-later</c> to have it
    /// filled in.
    /// </summary>
    /// <param name="work">The reckoning; it goes on when the page has gone, and what it finds is kept for the next who asks.</param>
    public async Task<T?> IfSoon<T>(Task<T> work)
        where T : class? => await IsThereWithin(AtOnce, work) ? await work : null;

    private async Task<bool> IsThereWithin(TimeSpan patience, Task work)
    {
        TimeSpan left = patience - Stopwatch.GetElapsedTime(_begun);
        return work.IsCompleted || (left > TimeSpan.Zero && await Task.WhenAny(work, Task.Delay(left)) == work);
    }

    /// <summary>Days on which something goes in or out in no turn.</summary>
    public async Task<IReadOnlyList<DayOutsideTurns>> Outside() =>
        await Soon(State.Derived(await Now(), "days outside turns", n => DayOutsideTurns.Of(n.Plan)));

    /// <summary>What a form and the present state differ in, when somebody saved in between; null otherwise.</summary>
    public IReadOnlyList<FormDifference>? Stale { get; private set; }

    /// <summary>Turns facts into sentences in the site's units, in English: for planners.</summary>
    public FactWriter Facts => Writer(null);

    /// <summary>Turns facts into sentences in the site's units, in the language of the request: for the crew.</summary>
    public FactWriter Crew => Writer(CultureInfo.CurrentUICulture);

    /// <summary>Who asks, as changes and long work name them: the person's identity; empty for nobody.</summary>
    public static string Asker(HttpContext http) => $"{http.RequestServices.GetRequiredService<Visitor>().Person?.Id}";

    private FactWriter Writer(CultureInfo? language) =>
        _now is { Plan.Site: var settings } ? new FactWriter(UnitsKind, settings.Money, language) : new FactWriter(UnitsKind, string.Empty, language);

    /// <summary>Drops what was read, after something was saved.</summary>
    public void Forget() => _now = null;

    /// <summary>Units in which whoever asks reads and writes: their own, or the site's.</summary>
    public UnitsText Units => new(UnitsKind);

    private Core.Planning.SiteUnits UnitsKind => visitor.Person?.Units ?? _siteUnits;

    /// <summary>
    /// Does what a form asks. When something is wrong nothing was written: the faults stand beside their fields, the page
    /// is filled again with what was typed, and is shown once more.
    /// </summary>
    /// <param name="page">The page.</param>
    /// <param name="field">Names the form's field for a fault's path, or null.</param>
    /// <param name="work">Reads, checks and writes; answers with where to go.</param>
    /// <param name="fill">Fills the page again; null when nothing needs filling.</param>
    /// <param name="compare">
    /// When somebody saved in between: takes the state of now and its version into the page, so that saving once more is done knowingly,
    /// and tells what it holds otherwise than what was typed. Null for what cannot be compared.
    /// </param>
    public async Task<IActionResult> Saving(
        PageModel page,
        Func<string, string?> field,
        Func<Task<IActionResult>> work,
        Func<Task>? fill = null,
        Func<SiteNow, IReadOnlyList<FormDifference>?>? compare = null
    )
    {
        page.ModelState.Clear();
        try
        {
            return await work();
        }
        catch (InvalidInputException e)
        {
            Show(e.Faults, page.ModelState, field, new FactWriter(UnitsKind));
        }
        catch (LostUpdateException e)
        {
            page.ModelState.AddModelError(string.Empty, e.Message);
            Forget();
            Stale = e.IsGone ? null : compare?.Invoke(await Now());
        }
        if (fill is not null)
            await fill();
        return page.Page();
    }

    /// <summary>Puts faults beside the fields they speak of; what fits no field heads the form.</summary>
    /// <param name="faults">The faults.</param>
    /// <param name="modelState">The page's.</param>
    /// <param name="field">Names the form's field for a fault's path, or null.</param>
    /// <param name="words">Words of the messages.</param>
    private static void Show(IReadOnlyList<Fault> faults, ModelStateDictionary modelState, Func<string, string?> field, FactWriter words)
    {
        if (faults.Count > MostShown)
            modelState.AddModelError(string.Empty, $"{faults.Count} faults; the first {MostShown} are named");
        foreach (Fault fault in faults.Take(MostShown))
        {
            string? beside = field(fault.Field);
            string said = words.Say(fault);
            modelState.AddModelError(beside ?? string.Empty, beside is null && fault.Field.Length > 0 ? $"{fault.Field}: {said}" : said);
        }
    }
}

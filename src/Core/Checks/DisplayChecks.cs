using System.Collections.Concurrent;
using NodaTime;
using UnrulyMeadow.Core.Arranging;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Stacks;

namespace UnrulyMeadow.Core.Checks;

/// <summary>Looks displays over against the climate, the planter, each other, the people around and the house rules.</summary>
public sealed class DisplayChecks
{
    private readonly Plan _plan;
    private readonly WeatherRecord? _record;
    private readonly Func<LocalDate, SiteFlowering> _flowering;
    private readonly Func<LocalDate, IReadOnlyList<GrowingSeason>> _bulbYear;
    private readonly ConcurrentDictionary<LocalDate, IReadOnlyList<GrowingSeason>> _bulbYears;
    private readonly Func<LocalDate, IReadOnlyList<GrowingSeason>> _stay;
    private readonly ConcurrentDictionary<LocalDate, IReadOnlyList<GrowingSeason>> _stays;
    private readonly ConcurrentDictionary<LocalDate, SiteFlowering> _own;

    /// <summary>Prepares the checks of a plan. Not safe for use by several threads at once.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="record">The weather, or null: then nothing is said of frost and cold.</param>
    /// <param name="flowering">The site's flowering in a plan year, where it is kept; null to compute it.</param>
    /// <param name="stay">Weather laid over stays that begin in a month, where it is kept; null to lay it.</param>
    /// <param name="bulbYear">Weather laid over the bulb year that begins on a day, where it is kept; null to lay it.</param>
    public DisplayChecks(
        Plan plan,
        WeatherRecord? record,
        Func<LocalDate, SiteFlowering>? flowering = null,
        Func<LocalDate, IReadOnlyList<GrowingSeason>>? stay = null,
        Func<LocalDate, IReadOnlyList<GrowingSeason>>? bulbYear = null
    )
    {
        _plan = plan;
        _record = record;
        _flowering = flowering ?? Own;
        _stay = stay ?? (month => StayLosses.Seasons(record!, month));
        _bulbYear = bulbYear ?? (year => StackBloom.Seasons(record!, year));
        (_bulbYears, _stays, _own) = (new(), new(), new());
    }

    private DisplayChecks(Plan plan, DisplayChecks like)
    {
        (_plan, _record, _flowering, _stay, _bulbYear) = (plan, like._record, like._flowering, like._stay, like._bulbYear);
        (_bulbYears, _stays, _own) = (like._bulbYears, like._stays, like._own);
    }

    /// <summary>The checks of another plan under the same weather, which is laid out once for both. Each may have a thread of its own.</summary>
    public DisplayChecks On(Plan other) => new(other, this);

    /// <summary>
    /// What remarks on a planter's displays rest on besides the weather and <see cref="AllRestOn"/>. While each of these is the same object
    /// as before, in the same order, the remarks are the same; whatever a check asks of the plan beyond them belongs here or there too.
    /// </summary>
    /// <param name="plan">The plan.</param>
    /// <param name="planter">The planter.</param>
    public static IEnumerable<object> RestsOn(Plan plan, Planter planter) =>
        [
            plan.AreaOf(planter),
            planter,
            .. plan.DisplaysOf(planter.Id),
            // Alike planters are looked at together.
            .. plan.PlantersOfLook(planter.Survey.LookGroup).SelectMany(p => plan.DisplaysOf(p.Id).Cast<object>().Prepend(p)),
        ];

    /// <summary>What the remarks on every planter's displays rest on.</summary>
    /// <param name="plan">The plan.</param>
    public static IEnumerable<object> AllRestOn(Plan plan) => [plan.Site, .. plan.Palette, .. plan.Lots];

    /// <summary>Remarks on every display of the plan that stands on or after a day, without those that follow every plant's place.</summary>
    public IEnumerable<Remark> All(LocalDate from) => _plan.Displays.Where(d => d.Lift > from).SelectMany(d => For(d, thorough: false));

    /// <summary>
    /// True where a remark speaks against a display, see <see cref="Remark.SpeaksAgainst"/>; what would put it right is not looked for, which
    /// takes far less time than <see cref="For"/>.
    /// </summary>
    /// <param name="display">The display; it need not be in the plan.</param>
    /// <param name="isCounted">False where how many of each go in is still to be found, and not looked at.</param>
    public bool SpeakAgainst(Display display, bool isCounted = true)
    {
        if (_plan.FindPlanter(display.PlanterId) is not { } planter || display.Items.Any(i => _plan.FindPlant(i.PlantId) is null))
            return false;
        CheckedDisplay at = At(display, planter);
        at.SeeksSubstitutes = false;
        return (at.IsBulbs ? OfBulbs(at) : OfPlants(at)).Any(r => r.SpeaksAgainst)
            || (!at.IsBulbs && Thorough(at, isCounted).Any(r => r.SpeaksAgainst));
    }

    /// <summary>Remarks on one display, the gravest first.</summary>
    /// <param name="display">The display; it need not be in the plan.</param>
    /// <param name="thorough">True to follow every plant at its place: who overgrows and hides whom, and how full it becomes.</param>
    public IReadOnlyList<Remark> For(Display display, bool thorough = true)
    {
        Planter? planter = _plan.FindPlanter(display.PlanterId);
        if (planter is null || display.Items.Any(i => _plan.FindPlant(i.PlantId) is null))
            return [];
        CheckedDisplay at = At(display, planter);
        IEnumerable<Remark> remarks = at.IsBulbs ? OfBulbs(at) : OfPlants(at);
        if (thorough && !at.IsBulbs)
            remarks = remarks.Concat(Thorough(at));
        return [.. remarks.DistinctBy(r => r.Says.Key).OrderBy(r => r.Gravity)];
    }

    /// <summary>How the colours of a display go together over its own time, as its remarks judge them.</summary>
    /// <param name="display">A display of the plan's planters; it need not be in the plan.</param>
    /// <returns>The scheme, null where nothing shows a colour; and each pair of kinds that stand side by side.</returns>
    public (ColourScheme? Scheme, IReadOnlyList<NeighbourDifference> Neighbours) ColoursOf(Display display)
    {
        CheckedDisplay at = At(display, _plan.FindPlanter(display.PlanterId)!);
        return (ColourScheme.Of(at.Scheme()), at.IsBulbs ? [] : at.Neighbours);
    }

    private static IEnumerable<Remark> OfPlants(CheckedDisplay at) =>
        [
            .. at.Kinds.SelectMany(k => ColdChecks.Tops(at, k.Plant)),
            .. at.Kinds.SelectMany(k => ColdChecks.Roots(at, k.Plant)),
            .. at.Kinds.SelectMany(k => StackChecks.Rest(at, k.Plant)),
            .. at.Kinds.SelectMany(k => GrowingChecks.Light(at, k.Plant)),
            .. GrowingChecks.Water(at),
            .. GrowingChecks.MediumAndPh(at),
            .. GrowingChecks.Wet(at),
            .. at.Kinds.SelectMany(k => GrowingChecks.Heat(at, k.Plant)),
            .. at.Kinds.SelectMany(k => GrowingChecks.Height(at, k.Plant)),
            .. at.Kinds.SelectMany(k => GrowingChecks.RootRoom(at, k.Plant)),
            .. at.Kinds.SelectMany(k => GrowingChecks.Form(at, k.Plant, k.Item)),
            .. at.Kinds.SelectMany(k => GrowingChecks.Stock(at, k.Plant)),
            .. at.Kinds.SelectMany(k => PeopleChecks.Harmful(at, k.Plant)),
            .. at.Kinds.SelectMany(k => PeopleChecks.Partner(at, k.Plant)),
            .. ArrangementChecks.RoomBesideWhatStays(at),
            .. ArrangementChecks.BarkHidden(at),
            .. HouseRuleChecks.Colour(at),
            .. HouseRuleChecks.Pattern(at),
            .. at.Kinds.SelectMany(k => HouseRuleChecks.Chrysanthemums(at, k.Plant)),
        ];

    private static IEnumerable<Remark> Thorough(CheckedDisplay at, bool isCounted = true) =>
        [
            .. ArrangementChecks.Vigour(at),
            .. ArrangementChecks.Hidden(at),
            .. ArrangementChecks.LostInEachOther(at),
            .. isCounted ? HouseRuleChecks.Density(at) : [],
        ];

    private CheckedDisplay At(Display display, Planter planter) =>
        new(_plan, display, planter, _record, _flowering(SiteYear.UsualStart(display.Install, _record?.Station.IsSouthern ?? false)), Stay);

    private IEnumerable<Remark> OfBulbs(CheckedDisplay at)
    {
        BulbStack stack = BulbStack.Of(_plan, at.Planter, at.Display);
        IReadOnlyList<GrowingSeason> seasons = Seasons(at.Display.Install);
        List<Remark> remarks =
        [
            .. StackChecks.Fit(at, stack),
            .. StackChecks.OverBulbs(at),
            .. StackChecks.Clusters(at),
            .. at.Kinds.SelectMany(k => ColdChecks.Roots(at, k.Plant)),
            .. at.Kinds.SelectMany(k => StackChecks.Rest(at, k.Plant)),
            .. at.Kinds.SelectMany(k => GrowingChecks.Light(at, k.Plant)),
            .. GrowingChecks.MediumAndPh(at),
            .. GrowingChecks.Wet(at),
            .. PeopleChecks.HarmfulBulbs(at),
            .. HouseRuleChecks.Pattern(at),
        ];
        if (seasons.Count == 0)
            return remarks;
        StackBloom bloom = StackBloom.From(stack, seasons, at.Display.Install);
        return
        [
            .. remarks,
            .. stack.Layers.SelectMany(l => ColdChecks.BulbCold(at, l.Plant, at.Planter.PlaceAt(l.DepthCm), seasons)),
            .. StackChecks.HeightOrder(at, bloom),
            .. StackChecks.DieBack(at, bloom),
            .. StackChecks.Pairs(at, bloom),
            .. StackChecks.LookAlikes(at, bloom),
            .. HouseRuleChecks.Tulips(at, bloom),
        ];
    }

    private IReadOnlyList<GrowingSeason> Seasons(LocalDate install)
    {
        return _record is null ? [] : _bulbYears.GetOrAdd(StackBloom.BulbYearStart(install, _record.Station.IsSouthern), _bulbYear);
    }

    private IReadOnlyList<GrowingSeason> Stay(LocalDate install)
    {
        return _stays.GetOrAdd(new LocalDate(install.Year, install.Month, 1), _stay);
    }

    private SiteFlowering Own(LocalDate start)
    {
        return _own.GetOrAdd(start, s => new SiteFlowering(_record, s, _plan.Site.FrostRisk));
    }
}

using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Work;

namespace UnrulyMeadow.Core.Supply;

/// <summary>What a place of the holding area is.</summary>
public enum HoldingKind
{
    /// <summary>A cold frame: keeps the worst of the frost off, and is opened by day.</summary>
    ColdFrame,

    /// <summary>A bench in the open.</summary>
    Bench,

    /// <summary>Under shade.</summary>
    Shade,

    /// <summary>Frost-free glass, kept at 5–10 °C.</summary>
    FrostFree,

    /// <summary>A dry, airy, cool store for bulbs and tubers.</summary>
    Store,

    /// <summary>A place apart, for what may carry pests or disease.</summary>
    Quarantine,
}

/// <summary>A place of the holding area.</summary>
/// <param name="Id">Short name.</param>
/// <param name="Name">Name, as lots say where they stand.</param>
/// <param name="Kind">What it is.</param>
/// <param name="RoomM2">Room, m².</param>
public sealed record HoldingPlace(string Id, string Name, HoldingKind Kind, double RoomM2)
{
    /// <summary>How much warmer than the open air its coldest nights are, K (common practice; a thermometer there knows better).</summary>
    public double ShelterK =>
        Kind switch
        {
            HoldingKind.ColdFrame => 3,
            HoldingKind.Shade => 1,
            HoldingKind.Quarantine => 1,
            _ => 0,
        };

    /// <summary>The lowest that it falls to, °C; null where it follows the air.</summary>
    public double? KeptAboveC => Kind is HoldingKind.FrostFree or HoldingKind.Store ? 5 : null;

    /// <summary>The coldest that it becomes in a night, °C.</summary>
    /// <param name="lowC">The night's low in the open air, °C.</param>
    public double LowC(double lowC) => KeptAboveC is { } kept ? Math.Max(kept, lowC) : lowC + ShelterK;

    /// <summary>Every fault of the place's own figures.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Text("name", Name, 60);
        faults.Range("roomM2", RoomM2, 0.1, 100_000, "m²");
        return faults.Faults;
    }
}

/// <summary>Plants that wait, or will wait, in the holding area.</summary>
/// <param name="Plant">The kind.</param>
/// <param name="Form">The form in which they wait.</param>
/// <param name="Count">How many.</param>
/// <param name="Place">Where; null where nobody has said, or the place is not one of the holding area.</param>
/// <param name="From">The day on which they come, or came.</param>
/// <param name="PlantOn">The day on which they are planted; null where nothing in the plan takes them.</param>
public sealed record HeldGoods(Plant Plant, GoodsForm Form, int Count, HoldingPlace? Place, LocalDate From, LocalDate? PlantOn)
{
    // Plants bought in bud are about three weeks from opening; what is bought in flower goes over while it waits (common practice).
    private const int InBudWeeks = 5;

    // Tender plants stand outside for a week or more before they are planted (common practice: seven to ten days).
    private const int HardeningDays = 10;

    // Bulbs kept dry and cool keep until they must be planted (common practice).
    private const int BulbWeeks = 14;
    private const int StemWeeks = 2;

    // Dry bulbs lie in crates, three layers of trays in one square metre of shelf (common practice).
    private const int BulbsInM2 = 400;

    /// <summary>How they stand with us: a lot's id, or an order's number with its line.</summary>
    public string Source { get; init; } = string.Empty;

    /// <summary>True for what has not come yet.</summary>
    public bool IsToCome { get; init; }

    /// <summary>True for what is left of a lot whose other plants are taken: its spares.</summary>
    public bool IsSpare { get; init; }

    /// <summary>What a lot is kept as; waiting for what is still to come.</summary>
    public LotState State { get; init; } = LotState.Waiting;

    /// <summary>The room that they take, m²: pot beside pot, bulbs dry in crates.</summary>
    public double RoomM2 =>
        Form.Sort switch
        {
            GoodsSort.Bulbs when State is not (LotState.Forced or LotState.Overwintering) => (double)Count / BulbsInM2,
            GoodsSort.Stems => Count / 100.0,
            _ => Count * Form.SpreadCm * Form.SpreadCm / 10_000,
        };

    /// <summary>The day from which their roots circle, or what is dry has waited too long; null for what may stand on.</summary>
    public LocalDate? RootBoundOn =>
        State is not (LotState.Waiting or LotState.Quarantine or LotState.Stored) ? null
        : Form.Sort == GoodsSort.Bulbs ? From.PlusWeeks(BulbWeeks)
        : Form.Sort == GoodsSort.Stems ? From.PlusWeeks(StemWeeks)
        : Form.GrowOnWeeks > 0 ? From.PlusWeeks(Form.GrowOnWeeks + (Form.RootBoundWeeks ?? 0))
        : Form.RootBoundWeeks is { } weeks ? From.PlusWeeks(weeks)
        : null;

    /// <summary>The day by which the first flowers of what was bought in bud are over; null for what does not flower in its pack.</summary>
    public LocalDate? GoesOverOn => State == LotState.Waiting && Form.Sort is GoodsSort.Packs && !Plant.IsLasting ? From.PlusWeeks(InBudWeeks) : null;

    /// <summary>The first day on which they may be planted: plugs are grown on before.</summary>
    public LocalDate ReadyOn => From.PlusWeeks(State == LotState.Waiting ? Form.GrowOnWeeks : 0);

    /// <summary>True for kinds that a night of frost harms.</summary>
    public bool IsTender => Plant.IsTender;

    /// <summary>The day on which hardening off begins; null for what needs none, or is never planted.</summary>
    public LocalDate? HardenFrom =>
        PlantOn is { } on && IsTender && Form.Sort is GoodsSort.Packs or GoodsSort.Pot or GoodsSort.Plugs ? on.PlusDays(-HardeningDays) : null;

    /// <summary>True while they stand there.</summary>
    public bool StandsOn(LocalDate day) => From <= day && !(PlantOn <= day);

    /// <summary>Days that they wait; until a day where nothing takes them.</summary>
    public int DaysWaiting(LocalDate until) => Math.Max(0, Period.DaysBetween(From, PlantOn ?? until));
}

/// <summary>What goods in the holding area need on a day.</summary>
public enum HoldingTask
{
    /// <summary>Stand the trays in water for an hour, then let them drain: on the day on which they come.</summary>
    SoakAndDrain,

    /// <summary>Water.</summary>
    Water,

    /// <summary>Water in the morning and again in the afternoon.</summary>
    WaterTwice,

    /// <summary>Shade for the first days out of the lorry, and in great heat.</summary>
    Shade,

    /// <summary>Cover for the night, or bring under glass.</summary>
    CoverTonight,

    /// <summary>Stand outside by day, when it is warm enough: hardening off.</summary>
    HardenOff,

    /// <summary>Look for rot, mould and sprouts.</summary>
    LookOver,
}

/// <summary>What is wrong with the way in which goods wait.</summary>
public enum HoldingWarning
{
    /// <summary>They will be root-bound, or dry for too long, before they are planted.</summary>
    RootBound,

    /// <summary>Their first flowers will be over before they are planted.</summary>
    GoesOver,

    /// <summary>The nights are too cold for them where they stand.</summary>
    TooCold,

    /// <summary>They come after they are wanted, or are not grown on by then.</summary>
    TooLate,

    /// <summary>Nothing in the plan takes them.</summary>
    NothingTakesThem,

    /// <summary>There is no room for them.</summary>
    NoRoom,

    /// <summary>Nobody has said where they are to stand.</summary>
    NoPlace,
}

/// <summary>A warning about goods that wait.</summary>
/// <param name="Kind">What is wrong.</param>
/// <param name="Goods">The goods.</param>
/// <param name="Day">The day from which it is so.</param>
/// <param name="LowC">For cold, the low expected where they stand, °C.</param>
public sealed record HoldingRemark(HoldingWarning Kind, HeldGoods Goods, LocalDate Day, double? LowC = null);

/// <summary>What waits in the holding area over some days, what it needs, and what will go wrong.</summary>
public sealed class HoldingPlan
{
    // Above this, packs dry out by the afternoon; below it nothing is watered (common practice).
    private const double HotC = 28;
    private const double StillC = 3;

    // What is hardened off stays in on days that are no warmer (common practice).
    private const double HardenC = 10;
    private const int ShadeDays = 3;

    private readonly Func<LocalDate, (double LowC, double HighC)> _air;

    /// <summary>Looks over what waits.</summary>
    /// <param name="places">Places.</param>
    /// <param name="goods">What waits, or will.</param>
    /// <param name="first">The first day looked at.</param>
    /// <param name="last">The last.</param>
    /// <param name="air">The lows and highs to be reckoned with, by day, °C: a forecast, or a cold year's.</param>
    public HoldingPlan(
        IReadOnlyList<HoldingPlace> places,
        IReadOnlyList<HeldGoods> goods,
        LocalDate first,
        LocalDate last,
        Func<LocalDate, (double LowC, double HighC)> air
    )
    {
        Places = places;
        Goods = [.. goods.OrderBy(g => g.From).ThenBy(g => g.Plant.CommonName, StringComparer.Ordinal)];
        First = first;
        Last = last;
        _air = air;
        Remarks = [.. Goods.SelectMany(Speaks).Concat(Full()).OrderBy(r => r.Day).ThenBy(r => r.Kind)];
    }

    /// <summary>The places.</summary>
    public IReadOnlyList<HoldingPlace> Places { get; }

    /// <summary>What waits, by the day on which it comes.</summary>
    public IReadOnlyList<HeldGoods> Goods { get; }

    /// <summary>The first day looked at.</summary>
    public LocalDate First { get; }

    /// <summary>The last.</summary>
    public LocalDate Last { get; }

    /// <summary>What will go wrong, the soonest first.</summary>
    public IReadOnlyList<HoldingRemark> Remarks { get; }

    /// <summary>The low to be reckoned with in the open air of a day, °C.</summary>
    public double LowC(LocalDate day) => _air(day).LowC;

    /// <summary>Room taken in a place on a day, m².</summary>
    public double RoomTaken(HoldingPlace place, LocalDate day) => Goods.Where(g => g.Place == place && g.StandsOn(day)).Sum(g => g.RoomM2);

    /// <summary>What goods need on a day.</summary>
    public IReadOnlyList<HoldingTask> Tasks(HeldGoods goods, LocalDate day)
    {
        if (!goods.StandsOn(day))
            return [];
        (double lowC, double highC) = _air(day);
        var tasks = new List<HoldingTask>();
        bool isDry = IsDry(goods);
        if (isDry)
        {
            if (day.DayOfWeek == IsoDayOfWeek.Monday || day == goods.From)
                tasks.Add(HoldingTask.LookOver);
            return tasks;
        }
        bool inTheAir = goods.Place?.KeptAboveC is null;
        if (day == goods.From && goods.State is (LotState.Waiting or LotState.Quarantine))
            tasks.Add(HoldingTask.SoakAndDrain);
        else if (highC >= HotC && goods.Form.Sort is GoodsSort.Packs or GoodsSort.Plugs)
            tasks.Add(HoldingTask.WaterTwice);
        else if (highC > StillC || !inTheAir)
            tasks.Add(HoldingTask.Water);
        if (goods.Place?.Kind != HoldingKind.Shade && (highC >= HotC || (goods.State == LotState.Waiting && day < goods.From.PlusDays(ShadeDays))))
            tasks.Add(HoldingTask.Shade);
        if (goods.HardenFrom <= day && highC >= HardenC)
            tasks.Add(HoldingTask.HardenOff);
        if ((goods.Place?.LowC(lowC) ?? lowC) <= goods.Plant.TopDamageC)
            tasks.Add(HoldingTask.CoverTonight);
        return tasks;
    }

    /// <summary>The arithmetic behind a place's room on a day.</summary>
    public Working Explain(HoldingPlace place, LocalDate day) =>
        new Working(
            WorkingKind.HoldingRoom,
            Quantity.SquareMetres(RoomTaken(place, day)),
            [new WorkingInput(InputName.Room, Quantity.SquareMetres(place.RoomM2))],
            [
                .. Goods
                    .Where(g => g.Place == place && g.StandsOn(day))
                    .Select(g => new Fact(
                        WorkingPhrase.HoldingRoomStep,
                        ("plant", g.Plant),
                        ("count", g.Count),
                        ("room", Quantity.SquareMetres(g.RoomM2))
                    )),
            ]
        )
        {
            Parts = [("place", place.Name)],
        };

    private IEnumerable<HoldingRemark> Speaks(HeldGoods goods)
    {
        if (goods.PlantOn is { } late && (goods.ReadyOn > late || goods.From > late))
            yield return new HoldingRemark(HoldingWarning.TooLate, goods, goods.ReadyOn);
        LocalDate leaves = goods.PlantOn ?? Last.PlusDays(1);
        // Spares wait on with the plants that they are spares of.
        if (goods.IsSpare)
            yield break;
        if (goods.PlantOn is null && goods.State is LotState.Waiting)
            yield return new HoldingRemark(HoldingWarning.NothingTakesThem, goods, goods.From);
        if (goods.RootBoundOn is { } bound && bound < leaves)
            yield return new HoldingRemark(HoldingWarning.RootBound, goods, bound);
        if (goods.GoesOverOn is { } over && over < leaves)
            yield return new HoldingRemark(HoldingWarning.GoesOver, goods, over);
        if (goods.Place is null && goods.PlantOn != goods.From)
            yield return new HoldingRemark(HoldingWarning.NoPlace, goods, goods.From);
        LocalDate from = goods.From > First ? goods.From : First;
        for (LocalDate day = from; day <= Last && day < leaves; day = day.PlusDays(1))
        {
            double low = goods.Place?.LowC(_air(day).LowC) ?? _air(day).LowC;
            if (low > goods.Plant.TopDamageC || IsDry(goods))
                continue;
            yield return new HoldingRemark(HoldingWarning.TooCold, goods, day, low);
            break;
        }
    }

    private static bool IsDry(HeldGoods goods) =>
        goods.Form.Sort == GoodsSort.Bulbs && goods.State is not (LotState.Forced or LotState.Overwintering);

    private IEnumerable<HoldingRemark> Full()
    {
        foreach (HoldingPlace place in Places)
        {
            for (LocalDate day = First; day <= Last; day = day.PlusDays(1))
            {
                if (RoomTaken(place, day) <= place.RoomM2)
                    continue;
                HeldGoods last = Goods.Last(g => g.Place == place && g.StandsOn(day));
                yield return new HoldingRemark(HoldingWarning.NoRoom, last, day);
                break;
            }
        }
    }
}

/// <summary>
/// The air that is reckoned with in a holding area: on each day the low that is undercut one time in ten, by the forecast as far as one reaches,
/// else over the years of the record.
/// </summary>
public sealed class HoldingAir
{
    private readonly DailyBand? _low;
    private readonly DailyBand? _high;
    private readonly bool _isSouthern;
    private readonly IReadOnlyDictionary<LocalDate, (double LowC, double HighC)> _forecast = new Dictionary<LocalDate, (double, double)>();

    /// <summary>Reads it off a record.</summary>
    /// <param name="record">The record; null where there is none, which is mild and tells nothing.</param>
    public HoldingAir(WeatherRecord? record)
    {
        if (record?.ForOdds is not { } odds)
            return;
        _isSouthern = odds.Station.IsSouthern;
        _low = DailyBand.From(i => odds.MinC[i], odds);
        _high = DailyBand.From(i => odds.MaxC[i], odds);
    }

    private HoldingAir(HoldingAir usual, IReadOnlyDictionary<LocalDate, (double LowC, double HighC)> forecast) =>
        (_low, _high, _isSouthern, _forecast) = (usual._low, usual._high, usual._isSouthern, forecast);

    /// <summary>The same with what is forecast.</summary>
    /// <param name="forecast">By day, the low that is undercut one time in ten, and the high, °C.</param>
    public HoldingAir With(IReadOnlyDictionary<LocalDate, (double LowC, double HighC)> forecast) => new(this, forecast);

    // Where nothing is known of the weather nobody is warned of it.
    private static readonly (double LowC, double HighC) Mild = (10, 20);

    /// <summary>The low that is undercut one time in ten, and the high that is expected, °C.</summary>
    public (double LowC, double HighC) On(LocalDate day)
    {
        if (_forecast.TryGetValue(day, out (double, double) told))
            return told;
        int slot = BulbCalendar.Slot(day, _isSouthern);
        return _low is null || double.IsNaN(_low.Low[slot]) ? Mild : (_low.Low[slot], _high!.Middle[slot]);
    }
}

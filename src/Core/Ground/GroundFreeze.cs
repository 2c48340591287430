using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Ground;

/// <summary>
/// When the medium freezes and thaws at a depth: frozen from the first of five days with means at or below −0.5 °C, and
/// thawed after the winter's last day as cold, however short its last spell.
/// </summary>
/// <param name="DepthCm">The depth.</param>
/// <param name="Freezes">First frozen day of each winter.</param>
/// <param name="Thaws">The last day of ice of each winter that froze.</param>
/// <param name="MeanFrozenDays">Frozen days of a winter, mean.</param>
public sealed record GroundFreeze(double DepthCm, DayOdds Freezes, DayOdds Thaws, double MeanFrozenDays)
{
    /// <summary>Daily mean at or below which medium counts as frozen, °C.</summary>
    public const double FrozenC = -0.5;

    /// <summary>Days in a row that make it frozen.</summary>
    public const int FrozenDays = 5;

    /// <summary>Looks through a record's winters.</summary>
    /// <param name="ground">What the class felt.</param>
    /// <param name="record">The weather behind it.</param>
    /// <param name="depthCm">The depth.</param>
    public static GroundFreeze From(GroundTemperatures ground, WeatherRecord record, double depthCm)
    {
        float[] soil = ground.AtDepth(depthCm);
        var freezes = new List<YearDay>();
        var thaws = new List<YearDay>();
        int frozenDays = 0;
        IReadOnlyList<BulbYear> years = BulbYear.Of(record);
        foreach (BulbYear year in years)
        {
            (int first, int last, int days) = Frozen(soil, year.From, year.From + year.Days);
            frozenDays += days;
            freezes.Add(new YearDay(year.Year, first < 0 ? null : record.FirstDay.PlusDays(first)));
            // A winter without ice has no last day of it, early or late.
            if (first >= 0)
                thaws.Add(new YearDay(year.Year, record.FirstDay.PlusDays(last)));
        }
        bool southern = record.Station.IsSouthern;
        return new GroundFreeze(
            depthCm,
            new DayOdds(freezes, southern, record.KnownYears),
            new DayOdds(thaws, southern, record.KnownYears),
            years.Count == 0 ? double.NaN : (double)frozenDays / years.Count
        );
    }

    /// <summary>
    /// The first index of a lasting spell of frozen medium, the last of any after it, and how many days lasting spells hold; −1 when there is none.
    /// </summary>
    /// <param name="soil">Daily means, °C.</param>
    /// <param name="from">First index looked at.</param>
    /// <param name="to">First index not looked at.</param>
    public static (int First, int Last, int Days) Frozen(float[] soil, int from, int to)
    {
        int first = -1;
        int last = -1;
        int days = 0;
        int run = 0;
        for (int i = from; i < to; i++)
        {
            run = soil[i] <= FrozenC ? run + 1 : 0;
            if (run >= FrozenDays)
            {
                if (first < 0)
                    first = i - FrozenDays + 1;
                days += run == FrozenDays ? FrozenDays : 1;
            }
            if (first >= 0 && run > 0)
                last = i;
        }
        return (first, last, days);
    }

    /// <summary>The arithmetic behind the dates.</summary>
    public Working Explain(ThermalClass what) =>
        new Working(
            WorkingKind.GroundFreeze,
            Freezes.ShareWithout >= 0.5 ? (object?)new Fact(WorkingPhrase.NotInWinters, ("shareWithout", Quantity.Share(Freezes.ShareWithout)))
                : Freezes.By(0.5) is { } atBy ? (object?)new Fact(WorkingPhrase.DayOfTheYear, ("day", atBy))
                : WorkingPhrase.Rarely,
            [
                new WorkingInput(InputName.Where, what.Describe()),
                new WorkingInput(InputName.Winters, Freezes.Years.Count),
                new WorkingInput(
                    InputName.FirstFrozenDayByWinter,
                    new Fact(
                        WorkingPhrase.Listed,
                        (
                            "items",
                            Freezes
                                .Years.Take(40)
                                .Select(y =>
                                    (object?)(y.Day is { } atDay ? (object?)new Fact(WorkingPhrase.DayOfTheYear, ("day", atDay)) : WorkingPhrase.None)
                                )
                                .ToList()
                        )
                    )
                ),
            ],
            [
                new Fact(
                    WorkingPhrase.FrozenOnDaysWinterWithoutFrost,
                    ("meanFrozenDays", Quantity.Number(MeanFrozenDays)),
                    ("shareWithout", Quantity.Share(Freezes.ShareWithout))
                ),
            ]
        )
        {
            Parts = [("depth", Quantity.Cm(DepthCm))],
        };
}

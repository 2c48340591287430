using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Ground;

/// <summary>A remark on what a climate does to a planter, besides killing roots.</summary>
/// <param name="Says">What and why, with the figures: of a <see cref="GroundRemarkKind"/>.</param>
/// <param name="Working">The arithmetic.</param>
public sealed record GroundRemark(Fact Says, Working Working)
{
    /// <summary>Summer roots are hurt above this, °C (common practice).</summary>
    public const double RootHeatC = 38;

    /// <summary>All that is worth saying of a class in a climate. All limits are common practice.</summary>
    /// <param name="ground">What it felt.</param>
    /// <param name="record">The weather behind it.</param>
    /// <param name="wall">Its wall.</param>
    public static IReadOnlyList<GroundRemark> For(GroundTemperatures ground, WeatherRecord record, WallMaterial wall)
    {
        IReadOnlyList<BulbYear> years = BulbYear.Of(record);
        if (years.Count == 0)
            return [];
        double PerYear(Func<int, bool> day) => years.Average(y => (double)Enumerable.Range(y.From, y.Days).Count(day));
        var remarks = new List<GroundRemark>();
        Fact where = ground.Class.Describe();

        double drying = PerYear(i => ground.RootMax[i] <= GroundFreeze.FrozenC && record.MaxC[i] >= 2);
        if (drying >= 5)
        {
            remarks.Add(Remark(where, new Fact(GroundRemarkKind.EvergreensDryOut, ("days", Quantity.Number(drying))), drying));
        }
        double cycles = years.Average(y => (double)Crossings(ground, y));
        if (Walls.CanCrack(wall) && cycles >= 3)
        {
            remarks.Add(Remark(where, new Fact(GroundRemarkKind.PotMayCrack, ("days", Quantity.Number(cycles))), cycles));
        }
        if (!ground.Class.IsBed)
        {
            float[] floor = ground.AtDepth(ground.Class.DepthM * 100);
            double stuck = PerYear(i => floor[i] <= GroundFreeze.FrozenC && (record.PrecipitationMm[i] >= 5 || record.MaxC[i] >= 5));
            if (stuck >= 2)
            {
                remarks.Add(Remark(where, new Fact(GroundRemarkKind.DrainFreezesShut, ("days", Quantity.Number(stuck))), stuck));
            }
        }
        float[] bulbs = ground.AtDepth(15);
        double wet = years.Average(y => (double)WetWeeks(bulbs, record, y));
        if (wet >= 4)
        {
            remarks.Add(Remark(where, new Fact(GroundRemarkKind.BulbsMayRot, ("days", Quantity.Number(wet))), wet));
        }
        double hot = PerYear(i => ground.RootMax[i] > RootHeatC);
        if (hot >= 1)
        {
            remarks.Add(
                Remark(
                    where,
                    new Fact(
                        GroundRemarkKind.RootsOverheat,
                        ("days", Quantity.Number(hot)),
                        ("heat", Quantity.Celsius(RootHeatC)),
                        ("hottest", Quantity.Celsius(ground.RootMax.Max()))
                    ),
                    hot
                )
            );
        }
        return remarks;
    }

    private static GroundRemark Remark(Fact where, Fact says, double count) =>
        new(
            says,
            new Working(
                WorkingKind.GroundRemark,
                new Fact(WorkingPhrase.GroundRemarkValueYear, ("count", Quantity.Number(count, 1))),
                [new WorkingInput(InputName.Where, where)]
            )
            {
                Parts = [("remark", says)],
            }
        );

    private static int Crossings(GroundTemperatures ground, BulbYear year)
    {
        int count = 0;
        bool frozen = false;
        for (int i = year.From; i < year.From + year.Days; i++)
        {
            if (!frozen && ground.RootMin[i] <= -1)
            {
                frozen = true;
                count++;
            }
            else if (frozen && ground.RootMin[i] > 0)
            {
                frozen = false;
            }
        }
        return count;
    }

    private static int WetWeeks(float[] soil, WeatherRecord record, BulbYear year)
    {
        int weeks = 0;
        // From two months into the bulb year, for six months: October to March, April to September in the south.
        for (int i = year.From + 61; i + 7 <= year.From + 243; i += 7)
        {
            double rain = 0;
            double used = 0;
            double mean = 0;
            for (int k = i; k < i + 7; k++)
            {
                rain += double.IsNaN(record.PrecipitationMm[k]) ? 0 : record.PrecipitationMm[k];
                double et = ReferenceEvapotranspiration.Of(record, k).Mm;
                used += double.IsNaN(et) ? 0 : et;
                mean += soil[k] / 7;
            }
            if (mean is >= 1 and <= 12 && rain - used > 20)
                weeks++;
        }
        return weeks;
    }
}

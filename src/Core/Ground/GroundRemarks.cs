using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Core.Ground;

/// <summary>A remark on what a climate does to a planter, besides killing roots.</summary>
/// <param name="What">What, in a few words.</param>
/// <param name="Why">Why, with the figures.</param>
/// <param name="Mend">What helps.</param>
/// <param name="Working">The arithmetic.</param>
public sealed record GroundRemark(string What, string Why, string Mend, Working Working)
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
        string where = ground.Class.Describe();

        double drying = PerYear(i => ground.RootMax[i] <= GroundFreeze.FrozenC && record.MaxC[i] >= 2);
        if (drying >= 5)
        {
            remarks.Add(
                Remark(
                    "Evergreens dry out",
                    $"on {drying:0} days a winter the root zone stays frozen while the air thaws: leaves lose water that frozen roots cannot bring",
                    "Water well before the freeze, keep them out of wind and sun, or wrap the pot.",
                    where,
                    "Days with the root zone at or below −0.5 °C all day and air at 2 °C or more",
                    drying
                )
            );
        }
        double cycles = years.Average(y => (double)Crossings(ground, y));
        if (Walls.CanCrack(wall) && cycles >= 3)
        {
            remarks.Add(
                Remark(
                    "The pot may crack",
                    $"its wall freezes and thaws {cycles:0} times a winter, and soaked clay and swelling medium push it apart",
                    "Keep it dry under cover, raise it on feet, or use a wall that gives.",
                    where,
                    "Passages from a day all thawed to one frozen 2 cm inside the wall",
                    cycles
                )
            );
        }
        if (!ground.Class.IsBed)
        {
            float[] floor = ground.AtDepth(ground.Class.DepthM * 100);
            double stuck = PerYear(i => floor[i] <= GroundFreeze.FrozenC && (record.PrecipitationMm[i] >= 5 || record.MaxC[i] >= 5));
            if (stuck >= 2)
            {
                remarks.Add(
                    Remark(
                        "The drain hole freezes shut",
                        $"on {stuck:0} days a winter rain or thaw comes while the floor is frozen: water stands above it",
                        "Raise it on feet and clear the hole before thaws.",
                        where,
                        "Days with the lowest row at or below −0.5 °C and 5 mm of rain or air at 5 °C",
                        stuck
                    )
                );
            }
        }
        float[] bulbs = ground.AtDepth(15);
        double wet = years.Average(y => (double)WetWeeks(bulbs, record, y));
        if (wet >= 4)
        {
            remarks.Add(
                Remark(
                    "Bulbs may rot",
                    $"{wet:0} weeks between planting and spring bring 20 mm more rain than cool, unfrozen medium gives off",
                    "Open the mix, raise the planter on feet, keep rain off resting bulbs.",
                    where,
                    "Weeks with medium at 1–12 °C and rain less evapotranspiration above 20 mm, from October to March (April to September in the south)",
                    wet
                )
            );
        }
        double hot = PerYear(i => ground.RootMax[i] > RootHeatC);
        if (hot >= 1)
        {
            remarks.Add(
                Remark(
                    "Roots overheat",
                    $"roots along the wall pass {RootHeatC:0} °C on {hot:0} days a year, {ground.RootMax.Max():0} °C at the worst",
                    "Shade the wall, choose a paler or thicker one, or group the pots.",
                    where,
                    $"Days above {RootHeatC:0} °C 2 cm inside the wall",
                    hot
                )
            );
        }
        return remarks;
    }

    private static GroundRemark Remark(string what, string why, string mend, string where, string rule, double count) =>
        new(
            what,
            $"In a usual year {why}.",
            mend,
            new Working(
                what,
                $"{count:0.0} a year",
                [new("where", where)],
                rule,
                "Common practice; temperatures by heat conduction with freezing",
                []
            )
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

using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Care;

/// <summary>
/// What is looked for where, by kind, season and weather. Treatment follows the house's school and, whatever the school, the label, which is
/// the law, and a licensed applicator.
/// </summary>
public static class Scouting
{
    // Common practice: a look every fortnight; grey mould and downy mildew after four wet days in a week, at 10 to 22 °C; mites after a dry
    // week above 22 °C; slugs in a wet week above 5 °C.
    private const int EveryDays = 14;
    private const int WeekDays = 7;
    private const int WetDays = 4;
    private const double WetMm = 1;

    private sealed record Rule(Pest Pest, int FromMonth, int ToMonth, Func<Plant, Planter, bool> On, Func<Week, bool>? Weather = null);

    private readonly record struct Week(int Wet, double MeanC);

    private static readonly Rule[] Rules =
    [
        new(Pest.Whitefly, 6, 9, (p, at) => Genus(p, "Petunia", "Lantana", "Fuchsia") && at.Exposure != Exposure.FullSun),
        new(Pest.CabbageCaterpillars, 8, 11, (p, _) => Genus(p, "Brassica")),
        new(Pest.Budworm, 6, 9, (p, _) => Genus(p, "Petunia", "Calibrachoa", "Pelargonium", "Nicotiana")),
        new(Pest.Aphids, 9, 11, (p, _) => Genus(p, "Viola", "Brassica", "Chrysanthemum", "Rosa", "Lupinus")),
        new(
            Pest.Botrytis,
            4,
            11,
            (p, _) => Genus(p, "Petunia", "Pelargonium", "Begonia", "Cyclamen", "Primula", "Paeonia", "Viola"),
            w => w.Wet >= WetDays && w.MeanC is >= 10 and <= 22
        ),
        new(Pest.Slugs, 3, 10, (p, _) => p.Resistance.Slugs == Eaten.Often, w => w.Wet >= WetDays && w.MeanC > 5),
        new(Pest.VineWeevil, 4, 10, (p, at) => !at.Form.IsBed && Genus(p, "Heuchera", "Cyclamen", "Begonia", "Primula", "Sedum", "Hylotelephium")),
        new(Pest.TulipFire, 3, 5, (p, _) => Genus(p, "Tulipa")),
        new(
            Pest.DownyMildew,
            6,
            10,
            (p, _) => p.BotanicalName.StartsWith("Impatiens walleriana", StringComparison.Ordinal),
            w => w.Wet >= WetDays - 1
        ),
        new(Pest.LilyBeetle, 4, 8, (p, _) => Genus(p, "Lilium", "Fritillaria")),
        new(
            Pest.SpiderMites,
            6,
            9,
            (p, _) => Genus(p, "Salvia", "Tagetes", "Impatiens", "Lantana", "Ipomoea", "Mandevilla", "Buxus", "Picea", "Thuja"),
            w => w.Wet == 0 && w.MeanC > 22
        ),
    ];

    /// <summary>What is due to be looked for within some days.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="days">The weather day by day.</param>
    /// <param name="southern">True south of the equator: seasons lie six months on.</param>
    /// <param name="first">The first day.</param>
    /// <param name="last">The last.</param>
    /// <param name="done">What was done before.</param>
    public static IReadOnlyList<CareJob> Of(
        Plan plan,
        IReadOnlyList<CareDay> days,
        bool southern,
        LocalDate first,
        LocalDate last,
        IReadOnlyCollection<CareDone> done
    )
    {
        List<CareDay> lately = [.. days.Where(d => d.Day < first && d.Day >= first.PlusDays(-WeekDays))];
        var week = new Week(lately.Count(d => d.RainMm >= WetMm), lately.Count == 0 ? double.NaN : lately.Average(d => d.MeanC));
        int month = southern ? ((first.Month + 5) % 12) + 1 : first.Month;
        Rule[] now = [.. Rules.Where(r => r.FromMonth <= month && month <= r.ToMonth && (r.Weather is null || r.Weather(week)))];
        if (now.Length == 0)
            return [];
        ILookup<string, LocalDate> looked = done.Where(d => d.Work == CareWork.Scout).ToLookup(d => d.PlanterId, d => d.Day);
        var jobs = new List<CareJob>();
        foreach (Planter planter in plan.Planters.Where(p => !p.IsRetired))
        {
            LocalDate from = LocalDate.Max(first, looked[planter.Id].Select(d => d.PlusDays(EveryDays)).Append(first).Max());
            if (from > last)
                continue;
            List<(Display Display, Plant Plant, int Count)> standing =
            [
                .. plan.DisplaysOf(planter.Id)
                    .Where(d => d.StandsOn(first))
                    .SelectMany(d => d.Items.Select(i => (d, plan.FindPlant(i.PlantId), i.Count)))
                    .Where(x => x.Item2 is not null)
                    .Select(x => (x.d, x.Item2!, x.Count)),
            ];
            foreach (Rule rule in now)
            {
                if (standing.FirstOrDefault(s => rule.On(s.Plant, planter)) is not { Plant: { } plant } it)
                    continue;
                jobs.Add(
                    new CareJob(planter, CareWork.Scout, from, last)
                    {
                        Plant = plant,
                        DisplayId = it.Display.Id,
                        Count = 1,
                        Pest = rule.Pest,
                    }
                );
            }
        }
        return jobs;
    }

    private static bool Genus(Plant plant, params ReadOnlySpan<string> genera)
    {
        foreach (string genus in genera)
        {
            if (
                plant.BotanicalName.StartsWith(genus, StringComparison.Ordinal)
                && (plant.BotanicalName.Length == genus.Length || !char.IsLetter(plant.BotanicalName[genus.Length]))
            )
            {
                return true;
            }
        }
        return false;
    }
}

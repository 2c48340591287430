using UnrulyMeadow.Core.Ground;
using UnrulyMeadow.Core.Planting;
using UnrulyMeadow.Core.Plants;

namespace UnrulyMeadow.Core.Season;

/// <summary>Plants of one kind as a display sets them.</summary>
/// <param name="Display">The display.</param>
/// <param name="Plant">The plant.</param>
/// <param name="Count">How many.</param>
/// <param name="Place">Where its bulb lies; any place for what is no bulb.</param>
/// <param name="InColour">True for what is bought in full colour.</param>
internal sealed record PlantedItem(Display Display, Plant Plant, int Count, BulbPlace Place, bool InColour);

/// <summary>The cover of one planter in one weather year, day by day.</summary>
internal static class WeatherYearCover
{
    // Adds one weather year to the means and returns its weighted cover by day.
    public static float[] Add(PlanterSeason season, IReadOnlyList<PlantedItem> standing, GrowingSeason weather, double pocketC)
    {
        int offset = weather.Run.IndexOf(season.Start);
        int days = season.Days;
        double surface = season.Planter.Form.SurfaceCm2;
        var canopy = new float[standing.Count][];
        var shares = new List<double[]>();
        var owners = new List<int>();
        for (int s = 0; s < standing.Count; s++)
        {
            (Display display, Plant plant, int count, BulbPlace place, bool inColour) = standing[s];
            var growing = new Growing(weather, plant, display.Install, display.Lift, place, pocketC, inColour);
            foreach (ColourWindow window in plant.Windows)
            {
                var share = new double[weather.Length];
                window.Rule.Fill(share, growing);
                shares.Add(share);
                owners.Add(s);
            }
            canopy[s] = Canopy(growing, count, surface, offset, days, shares, owners, s);
        }
        var weighted = new float[days];
        for (int d = 0; d < days; d++)
        {
            // Bedding shares the surface; bulbs stand on their stems above it and hide what their flowers cover.
            float bedding = 0;
            float bulbs = 0;
            for (int s = 0; s < canopy.Length; s++)
            {
                if (standing[s].Plant.Green == GreenLeaf.AroundFlower)
                    bulbs += canopy[s][d];
                else
                    bedding += canopy[s][d];
            }
            double bulbCrowd = bulbs > 1 ? 1 / bulbs : 1;
            double bulbFlower = 0;
            for (int b = 0; b < shares.Count; b++)
            {
                if (standing[owners[b]].Plant.Green == GreenLeaf.AroundFlower)
                    bulbFlower += canopy[owners[b]][d] * bulbCrowd * season.Bands[b].Window.Share * shares[b][offset + d];
            }
            double beddingCrowd = (bedding > 1 ? 1 / bedding : 1) * (1 - Math.Min(1, bulbFlower));
            double colour = 0;
            double green = 0;
            for (int s = 0; s < canopy.Length; s++)
                green += canopy[s][d] * beddingCrowd * GreenFraction(standing[s].Plant, weather, offset + d);
            for (int b = 0; b < shares.Count; b++)
            {
                ColourWindow window = season.Bands[b].Window;
                bool isBulb = standing[owners[b]].Plant.Green == GreenLeaf.AroundFlower;
                double cover = canopy[owners[b]][d] * (isBulb ? bulbCrowd : beddingCrowd) * window.Share * shares[b][offset + d];
                season.Bands[b].MeanCover[d] += (float)cover;
                colour += cover * window.Weight;
                green -= isBulb ? 0 : cover;
            }
            green = Math.Max(0, green);
            season.Green[d] += (float)green;
            season.DeciduousLeaf[d] += InLeaf(weather, offset + d) ? 1 : 0;
            weighted[d] = (float)(colour + Math.Min(PlanterSeason.MostGreen, PlanterSeason.GreenWeight * green));
        }
        return weighted;
    }

    // Share of the surface under a plant's spread, by day of the plan year; 0 when it is away or killed.
    private static float[] Canopy(
        Growing growing, int count, double surfaceCm2, int offset, int days, List<double[]> shares, List<int> owners, int owner)
    {
        Plant plant = growing.Plant;
        var canopy = new float[days];
        double[] heat = growing.Season.Heat(plant.GrowthBaseC);
        double before = growing.HeatBeforeCd;
        int from = Math.Max(0, growing.InstallIndex - offset);
        int to = Math.Min(days, growing.LiftIndex - offset);
        if (plant.DiesWithFrost)
            to = Math.Min(to, growing.KilledIndex - offset);
        for (int d = from; d < to; d++)
        {
            double spread = plant.SpreadCm(Math.Max(0, heat[offset + d] + before));
            double area = count * Math.PI / 4 * spread * spread / surfaceCm2;
            if (plant.Green == GreenLeaf.AroundFlower)
            {
                // A bulb takes room only while it shows: others close over it before and after.
                double shown = 0;
                for (int b = 0; b < shares.Count; b++)
                {
                    if (owners[b] == owner)
                        shown = Math.Max(shown, shares[b][offset + d]);
                }
                area *= shown > 0 ? ReturnOf(plant, offset + d - growing.InstallIndex) : 0;
            }
            canopy[d] = (float)Math.Min(1, area);
        }
        return canopy;
    }

    // What of its first show a bulb that was left in the ground gives after so many days.
    private static double ReturnOf(Plant plant, int daysSince)
    {
        int year = daysSince / 365;
        return year < 1 || plant.ReturnByYear.Count == 0 ? 1 : plant.ReturnByYear[Math.Min(year, plant.ReturnByYear.Count) - 1];
    }

    private static double GreenFraction(Plant plant, GrowingSeason weather, int index) => plant.Green switch
    {
        GreenLeaf.Evergreen => 1,
        GreenLeaf.InSeason when plant.DiesWithFrost => 1,
        GreenLeaf.InSeason => InLeaf(weather, index) ? 1 : 0,
        _ => 0,
    };

    private static bool InLeaf(GrowingSeason weather, int index) => weather.UsualLeaf[index];
}

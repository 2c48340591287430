using NodaTime;
using UnrulyMeadow.Core.Care;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Tests.Care;

/// <summary>What cold nights put at risk: with odds that come true, and silence when nothing threatens.</summary>
public sealed class ColdNightTests
{
    private static readonly LocalDate Today = A.Day(2027, 5, 18);

    private static Plan Plan(double pocketC = 0, double ownPocketC = 0) =>
        new(
            Site.Default,
            [new Area("quay", "Quay", pocketC)],
            [A.Pot() with { Survey = PlanterSurvey.Unseen with { FrostPocketC = ownPocketC } }],
            [A.Annual("petunia") with { TopDamageC = -0.5 }, A.Annual("basil") with { TopDamageC = 4 }],
            [
                A.Show(
                    "summer",
                    A.Day(2027, 5, 15),
                    A.Day(2027, 10, 1),
                    DisplayLayer.Seasonal,
                    new DisplayItem("petunia", 8),
                    new DisplayItem("basil", 2)
                ),
            ],
            []
        );

    private static DayForecast Night(double minC, int ahead = 1) => new(Today.PlusDays(ahead), minC, minC + 10, 0);

    [Fact]
    public void A_mild_week_is_quiet_and_a_night_at_the_threshold_is_even_odds()
    {
        Assert.Empty(ColdNights.Of(Plan(), [Night(12), Night(15, 3)], Today));
        PlanterAtRisk risk = Assert.Single(ColdNights.Of(Plan(), [Night(-0.5)], Today));
        Assert.Equal(0.5, risk.Plants.Single(p => p.Plant.Id == "petunia").Odds, 1e-9);
        Assert.Equal("basil", risk.Plants[0].Plant.Id);
        // A forecast of long before says less; a night that is over is no risk.
        Assert.True(ColdNights.Of(Plan(), [Night(1.5)], Today)[0].Plants.All(p => p.Plant.Id == "basil" || p.Odds < 0.1));
        Assert.Contains(ColdNights.Of(Plan(), [Night(1.5, 7)], Today)[0].Plants, p => p.Plant.Id == "petunia");
        Assert.Empty(ColdNights.Of(Plan(), [Night(-5, 0)], Today));
    }

    [Fact]
    public void A_frost_pocket_is_colder_by_what_its_area_is()
    {
        double open = ColdNights.Of(Plan(), [Night(1)], Today)[0].Odds;
        PlanterAtRisk low = ColdNights.Of(Plan(2), [Night(1)], Today)[0];
        Assert.Equal(-1, low.LowC, 1e-9);
        Assert.True(low.Odds >= open);
        // And by its own, as on every other page.
        Assert.Equal(-2.5, ColdNights.Of(Plan(2, 1.5), [Night(1)], Today)[0].LowC, 1e-9);
        Assert.True(low.FleeceM2 > A.Pot().Form.SurfaceCm2 / 10_000);
    }

    // The odds are honest: of nights told with odds p, a share p truly is as cold, whatever the lead.
    [Fact]
    public void Odds_come_true()
    {
        var random = new Random(20);
        double told = 0;
        int came = 0;
        int nights = 0;
        for (int i = 0; i < 4000; i++)
        {
            int lead = random.Next(1, 8);
            double truth = -4 + (random.NextDouble() * 8);
            double forecast = truth + (ColdNights.ErrorC(lead) * MathNet.Numerics.Distributions.Normal.Sample(random, 0, 1));
            if (forecast is < -2.5 or > 2)
                continue;
            PlantAtRisk? risk = ColdNights
                .Of(Plan(), [Night(forecast, lead)], Today)
                .SelectMany(r => r.Plants)
                .FirstOrDefault(p => p.Plant.Id == "petunia");
            if (risk is null)
                continue;
            nights++;
            told += risk.Odds;
            came += truth <= -0.5 ? 1 : 0;
        }
        Assert.True(nights > 1000);
        Assert.Equal(told / nights, (double)came / nights, 0.06);
    }
}

using System.Globalization;
using NodaTime;
using NodaTime.Text;
using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Core.Tests.Climate;

public sealed class SunPositionTests
{
    [Fact]
    [Published("npm astronomy-engine 2.1.19 and suncalc 1.9.0, 500 random places and times, tests/data/sun-positions.csv")]
    public void The_sun_stands_where_two_libraries_put_it_at_500_places_and_times()
    {
        string[] lines = File.ReadAllLines(Path.Combine(AppContext.BaseDirectory, "data", "sun-positions.csv"))[1..];
        Assert.Equal(500, lines.Length);
        foreach (string line in lines)
        {
            string[] cells = line.Split(',');
            double[] v = [.. cells.Skip(1).Select(c => double.Parse(c, CultureInfo.InvariantCulture))];
            Instant at = InstantPattern.CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mm'Z'").Parse(cells[0]).Value;
            SunPosition sun = SunPosition.At(at, v[0], v[1]);
            Assert.True(Apart(sun, v[2], v[3]) < 0.05, line);
            Assert.True(Apart(sun, v[4], v[5]) < 0.5, line);
        }
    }

    [Theory]
    [InlineData(40.7, 72.7)]
    [InlineData(66.6, 46.8)]
    [InlineData(-33.9, 32.7)]
    public void At_noon_of_the_June_solstice_it_stands_90_degrees_less_latitude_plus_the_tilt(double latitude, double altitude) =>
        Assert.Equal(altitude, SunPosition.AtSolarHour(A.Day(2025, 6, 21), 12, latitude).AltitudeDeg, 0.1);

    [Fact]
    public void At_noon_the_sun_is_south_in_the_north_and_north_in_the_south()
    {
        Assert.Equal(180, SunPosition.AtSolarHour(A.Day(2025, 3, 1), 12, 45).AzimuthDeg, 0.01);
        Assert.Equal(0, Math.IEEERemainder(SunPosition.AtSolarHour(A.Day(2025, 3, 1), 12, -45).AzimuthDeg, 360), 0.01);
        Assert.InRange(SunPosition.AtSolarHour(A.Day(2025, 3, 1), 8, 45).AzimuthDeg, 90, 180);
    }

    [Fact]
    public void Above_the_polar_circle_the_sun_does_not_set_in_June_nor_rise_in_December()
    {
        Assert.All(Enumerable.Range(0, 24), h => Assert.True(SunPosition.AtSolarHour(A.Day(2025, 6, 21), h, 70).AltitudeDeg > 0));
        Assert.All(Enumerable.Range(0, 24), h => Assert.True(SunPosition.AtSolarHour(A.Day(2025, 12, 21), h, 70).AltitudeDeg < 0));
    }

    // Angle between two directions, degrees: near the zenith azimuths alone say little.
    private static double Apart(SunPosition a, double altitude, double azimuth)
    {
        static double R(double d) => d * Math.PI / 180;
        double cosine =
            (Math.Sin(R(a.AltitudeDeg)) * Math.Sin(R(altitude)))
            + (Math.Cos(R(a.AltitudeDeg)) * Math.Cos(R(altitude)) * Math.Cos(R(a.AzimuthDeg - azimuth)));
        return Math.Acos(Math.Clamp(cosine, -1, 1)) * 180 / Math.PI;
    }
}

using NodaTime;
using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Core.Ground;

/// <summary>
/// What the weather does to the outside of a planter, day by day without gaps: made once per record and shared by every
/// thermal class.
/// </summary>
/// <remarks>
/// Air through the day: lowest at 06:00, highest at 15:00, cosines between. Sun: as recorded, else Rs = 0.16 √(Tmax −
/// Tmin) Ra (FAO-56 eq. 50), spread over the hours by the sine of the sun's height; on a wall the mean around its
/// outline, 40 % of it diffuse, with a fifth thrown back by the ground. Film: h = 5.7 + 3.8 v W/m²K (from memory) where
/// wind was recorded, v half the station's, held to 8–25; else 12. Snow lies only where the record has its depth,
/// 0.2 W/m·K (from memory).
/// </remarks>
public sealed class GroundForcing
{
    /// <summary>Film coefficient where wind is not recorded, W/m²K.</summary>
    public const double UsualFilm = 12;

    /// <summary>Film coefficient under a container on feet, W/m²K.</summary>
    public const double FilmBelow = 8;

    private GroundForcing(LocalDate firstDay, int days, bool southern)
    {
        FirstDay = firstDay;
        IsSouthern = southern;
        MinC = new double[days];
        MaxC = new double[days];
        SunMJ = new double[days];
        SkyLossMJ = new double[days];
        FilmResistance = new double[days];
        SnowResistance = new double[days];
        Month = new byte[days];
        TopSun = new double[12 * GroundModel.StepsPerDay];
        WallSun = new double[12 * GroundModel.StepsPerDay];
    }

    /// <summary>The day of index 0.</summary>
    public LocalDate FirstDay { get; }

    /// <summary>True south of the equator.</summary>
    public bool IsSouthern { get; }

    /// <summary>Days.</summary>
    public int Days => MinC.Length;

    /// <summary>Lowest air temperature, °C.</summary>
    public double[] MinC { get; }

    /// <summary>Highest air temperature, °C.</summary>
    public double[] MaxC { get; }

    /// <summary>Sun on the level, MJ/m² a day.</summary>
    public double[] SunMJ { get; }

    /// <summary>Net heat radiated to an open sky, MJ/m² a day (FAO-56 eq. 39).</summary>
    public double[] SkyLossMJ { get; }

    /// <summary>Film of still air at a surface, m²K/W.</summary>
    public double[] FilmResistance { get; }

    /// <summary>Snow, m²K/W.</summary>
    public double[] SnowResistance { get; }

    /// <summary>Month of each day, 0 to 11.</summary>
    public byte[] Month { get; }

    /// <summary>W/m² on the level in each step of the 15th of each month per MJ/m² of the day.</summary>
    public double[] TopSun { get; }

    /// <summary>The same on a wall, mean around its outline.</summary>
    public double[] WallSun { get; }

    /// <summary>Whether any day has recorded snow.</summary>
    public bool HasSnow { get; private set; }

    /// <summary>The forcing of a whole record; what it lacks is filled with what is usual for the day.</summary>
    public static GroundForcing From(WeatherRecord record)
    {
        double latitude = record.Station.LatitudeDeg;
        var forcing = new GroundForcing(record.FirstDay, record.MinC.Length, record.Station.IsSouthern);
        var ra = new double[367];
        for (int d = 1; d <= 366; d++)
            ra[d] = SolarGeometry.ExtraterrestrialRadiation(latitude, d);
        for (int i = 0; i < forcing.Days; i++)
        {
            LocalDate day = record.FirstDay.PlusDays(i);
            double min = record.MinC[i];
            double max = record.MaxC[i];
            if (double.IsNaN(min) || double.IsNaN(max))
                (min, max) = record.ExpectedOn(day);
            forcing.MinC[i] = min;
            forcing.MaxC[i] = max;
            forcing.Month[i] = (byte)(day.Month - 1);
            double given = record.SunMJ[i];
            forcing.SunMJ[i] = double.IsNaN(given) ? ReferenceEvapotranspiration.SunFromRange(min, max, ra[day.DayOfYear]) : given;
            double vapour = double.IsNaN(record.HumidityPct[i])
                ? ReferenceEvapotranspiration.Saturation(min) // eq. 48
                : record.HumidityPct[i] / 100 * (ReferenceEvapotranspiration.Saturation(min) + ReferenceEvapotranspiration.Saturation(max)) / 2;
            forcing.SkyLossMJ[i] = ReferenceEvapotranspiration.LongWave(
                min,
                max,
                vapour,
                ReferenceEvapotranspiration.Clearness(forcing.SunMJ[i], record.Station.ElevationM, ra[day.DayOfYear])
            );
            double wind = record.WindMs[i];
            forcing.FilmResistance[i] = 1 / (double.IsNaN(wind) ? UsualFilm : Math.Clamp(5.7 + (3.8 * wind / 2), 8, 25));
            double snow = record.SnowDepthMm[i];
            if (snow > 0)
            {
                forcing.SnowResistance[i] = snow / 1000 / 0.2;
                forcing.HasSnow = true;
            }
        }
        forcing.FillSun(latitude);
        return forcing;
    }

    /// <summary>Forcing without sun, wind or snow, for checks against known solutions.</summary>
    /// <param name="minC">Lowest temperatures, °C.</param>
    /// <param name="maxC">Highest temperatures, °C.</param>
    /// <param name="filmResistance">m²K/W.</param>
    public static GroundForcing Plain(double[] minC, double[] maxC, double filmResistance)
    {
        var forcing = new GroundForcing(new LocalDate(2001, 1, 1), minC.Length, false);
        minC.CopyTo(forcing.MinC, 0);
        maxC.CopyTo(forcing.MaxC, 0);
        Array.Fill(forcing.FilmResistance, filmResistance);
        return forcing;
    }

    /// <summary>
    /// The same weather inside an unheated, closed room: the three-day mean of the air with a quarter of the day's
    /// swing, no sun, no wind, no snow (common practice: no figures published for crews' sheds).
    /// </summary>
    public GroundForcing InUnheatedRoom()
    {
        var room = new GroundForcing(FirstDay, Days, IsSouthern);
        double held = (MinC[0] + MaxC[0]) / 2;
        for (int i = 0; i < Days; i++)
        {
            double mean = (MinC[i] + MaxC[i]) / 2;
            held += (mean - held) / 3;
            double swing = (MaxC[i] - MinC[i]) / 8;
            room.MinC[i] = held - swing;
            room.MaxC[i] = held + swing;
            room.FilmResistance[i] = 1.0 / 8;
            room.Month[i] = Month[i];
        }
        return room;
    }

    /// <summary>Mean air temperature of the first year, °C.</summary>
    public double FirstYearMeanC()
    {
        double sum = 0;
        int days = Math.Min(365, Days);
        for (int i = 0; i < days; i++)
            sum += (MinC[i] + MaxC[i]) / 2;
        return sum / days;
    }

    private void FillSun(double latitudeDeg)
    {
        double phi = latitudeDeg * Math.PI / 180;
        for (int month = 0; month < 12; month++)
        {
            double delta = SolarGeometry.Declination(new LocalDate(2001, month + 1, 15).DayOfYear);
            double Sine(double hour) => (Math.Sin(phi) * Math.Sin(delta)) + (Math.Cos(phi) * Math.Cos(delta) * Math.Cos((hour - 12) * Math.PI / 12));
            // The step's mean, so that steps in which the sun rises or sets count by their share.
            double Level(int step) => Enumerable.Range(0, 8).Average(q => Math.Max(0, Sine((step + ((q + 0.5) / 8)) * 24 / GroundModel.StepsPerDay)));
            double sum = Enumerable.Range(0, GroundModel.StepsPerDay).Sum(Level);
            for (int step = 0; step < GroundModel.StepsPerDay; step++)
            {
                double sine = Level(step);
                if (sine <= 0 || sum <= 0)
                    continue;
                double level = sine / sum * 1e6 / GroundModel.StepSeconds;
                double cotangent = Math.Min(3, Math.Sqrt(Math.Max(0, 1 - (sine * sine))) / sine);
                TopSun[(month * GroundModel.StepsPerDay) + step] = level;
                WallSun[(month * GroundModel.StepsPerDay) + step] = level * ((0.6 * cotangent / Math.PI) + (0.4 / 2) + (0.2 / 2));
            }
        }
    }
}

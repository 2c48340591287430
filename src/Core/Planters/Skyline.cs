using NodaTime;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;

namespace UnrulyMeadow.Core.Planters;

/// <summary>
/// What stands between a planter and the sun: for each of 16 compass sectors, clockwise from north, how high walls and
/// trees reach, as angles above the horizon seen from the planter.
/// </summary>
/// <param name="WallDeg">Opaque up to here, 16 angles of 0 to 90°.</param>
/// <param name="TreeDeg">Tree canopy from there up to here, 16 angles; 0 for none.</param>
/// <param name="SurveyedIn">Year of the survey; trees grow from it.</param>
/// <param name="TreeGrowthDeg">How much higher canopy reaches each year, degrees.</param>
/// <param name="LeafOnShare">Share of direct sun that comes through a canopy in leaf (usual 0.15, from memory).</param>
/// <param name="LeafOffShare">Share through bare branches (usual 0.6, from memory).</param>
public sealed record Skyline(
    IReadOnlyList<double> WallDeg,
    IReadOnlyList<double> TreeDeg,
    int SurveyedIn,
    double TreeGrowthDeg = 0,
    double LeafOnShare = 0.15,
    double LeafOffShare = 0.6
)
{
    /// <summary>From where canopy begins, 16 angles: low sun passes beneath it. Null where it reaches down to what is opaque.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public IReadOnlyList<double>? CanopyFromDeg { get; init; }

    /// <summary>Compass sectors.</summary>
    public const int Sectors = 16;

    /// <summary>The sectors' names, clockwise from north.</summary>
    public static IReadOnlyList<string> SectorNames { get; } =
    ["N", "NNE", "NE", "ENE", "E", "ESE", "SE", "SSE", "S", "SSW", "SW", "WSW", "W", "WNW", "NW", "NNW"];

    /// <summary>Nothing in the way.</summary>
    public static Skyline Open { get; } = new(new double[Sectors], new double[Sectors], 2026);

    /// <summary>Every fault of the angles.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        Check(faults, "wallDeg", WallDeg);
        Check(faults, "treeDeg", TreeDeg);
        faults.Range("surveyedIn", SurveyedIn, 1950, 2150, string.Empty);
        faults.Range("treeGrowthDeg", TreeGrowthDeg, 0, 10, "degrees a year");
        faults.Range("leafOnShare", LeafOnShare, 0, 1, string.Empty);
        faults.Range("leafOffShare", LeafOffShare, 0, 1, string.Empty);
        return faults.Faults;
    }

    /// <summary>Share of direct sun that reaches the planter from a point of the sky, 0 to 1.</summary>
    /// <param name="sun">Where the sun stands.</param>
    /// <param name="year">The year; canopy has grown since the survey.</param>
    /// <param name="inLeaf">0 for bare branches to 1 for full leaf.</param>
    public double Passing(SunPosition sun, int year, double inLeaf)
    {
        if (sun.AltitudeDeg <= 0)
            return 0;
        int sector = (int)Math.Round(sun.AzimuthDeg / (360.0 / Sectors)) % Sectors;
        if (sun.AltitudeDeg <= WallDeg[sector])
            return 0;
        return sun.AltitudeDeg >= (CanopyFromDeg?[sector] ?? 0) && sun.AltitudeDeg <= CanopyDeg(sector, year)
            ? LeafOffShare + ((LeafOnShare - LeafOffShare) * inLeaf)
            : 1;
    }

    /// <summary>How high canopy reaches in a sector in a year, degrees.</summary>
    public double CanopyDeg(int sector, int year) =>
        TreeDeg[sector] <= 0 ? 0 : Math.Min(90, TreeDeg[sector] + (TreeGrowthDeg * Math.Max(0, year - SurveyedIn)));

    /// <summary>True when both skylines say the same.</summary>
    public bool Equals(Skyline? other) =>
        other is not null
        && WallDeg.SequenceEqual(other.WallDeg)
        && TreeDeg.SequenceEqual(other.TreeDeg)
        && (SurveyedIn, TreeGrowthDeg, LeafOnShare, LeafOffShare) == (other.SurveyedIn, other.TreeGrowthDeg, other.LeafOnShare, other.LeafOffShare);

    /// <inheritdoc />
    public override int GetHashCode() => HashCode.Combine(WallDeg.Sum(), TreeDeg.Sum(), SurveyedIn, TreeGrowthDeg);

    private static void Check(FaultList faults, string field, IReadOnlyList<double>? angles)
    {
        if (angles?.Count != Sectors)
        {
            faults.Add(field, $"must hold {Sectors} angles, clockwise from north");
            return;
        }
        for (int i = 0; i < Sectors; i++)
            faults.Range($"{field}[{i}]", angles[i], 0, 90, "degrees");
    }
}

/// <summary>Direct sun of one month's middle day.</summary>
/// <param name="Month">1 to 12.</param>
/// <param name="MorningHours">Before the sun stands highest, hours.</param>
/// <param name="AfternoonHours">After it, hours.</param>
public sealed record MonthSun(int Month, double MorningHours, double AfternoonHours)
{
    /// <summary>Both together.</summary>
    public double Hours => MorningHours + AfternoonHours;
}

/// <summary>The direct sun a planter has through a year.</summary>
public sealed class SunYear
{
    private SunYear(double latitudeDeg, int year, IReadOnlyList<MonthSun> months)
    {
        LatitudeDeg = latitudeDeg;
        Year = year;
        Months = months;
    }

    /// <summary>Degrees north.</summary>
    public double LatitudeDeg { get; }

    /// <summary>The year.</summary>
    public int Year { get; }

    /// <summary>January to December.</summary>
    public IReadOnlyList<MonthSun> Months { get; }

    /// <summary>Spring, summer, fall, winter; turned by half a year in the south.</summary>
    public IReadOnlyList<(string Season, double Hours, Exposure Class)> Seasons =>
        [Season("spring", 3), Season("summer", 6), Season("fall", 9), Season("winter", 12)];

    /// <summary>Hours of direct sun a day over the growing season, April to September (October to March in the south).</summary>
    public double GrowingSeasonHours => Mean(4, 6);

    /// <summary>The class over the growing season.</summary>
    public Exposure GrowingSeason => ClassOf(GrowingSeasonHours);

    /// <summary>Counts the sun over a skyline.</summary>
    /// <param name="skyline">What stands in the way.</param>
    /// <param name="latitudeDeg">Degrees north.</param>
    /// <param name="year">The year, for the trees' growth.</param>
    public static SunYear Of(Skyline skyline, double latitudeDeg, int year) => Of(skyline, new SunPaths(latitudeDeg), year);

    /// <summary>Computes a year of sun over a skyline, along paths that many planters share.</summary>
    /// <param name="skyline">What stands in the way.</param>
    /// <param name="paths">The sun's paths at the latitude.</param>
    /// <param name="year">The year, for the trees' growth.</param>
    public static SunYear Of(Skyline skyline, SunPaths paths, int year)
    {
        var months = new MonthSun[12];
        for (int m = 1; m <= 12; m++)
        {
            double inLeaf = InLeaf(m, paths.LatitudeDeg < 0);
            double morning = 0;
            double afternoon = 0;
            ReadOnlySpan<SunPosition> path = paths.Of(year, m);
            for (int i = 0; i < path.Length; i++)
            {
                double passing = skyline.Passing(path[i], year, inLeaf) * SunPaths.StepHours;
                if (i < path.Length / 2)
                    morning += passing;
                else
                    afternoon += passing;
            }
            months[m - 1] = new MonthSun(m, morning, afternoon);
        }
        return new SunYear(paths.LatitudeDeg, year, months);
    }

    /// <summary>Full sun from six hours, part sun from three, else shade.</summary>
    public static Exposure ClassOf(double hours) =>
        hours >= 6 ? Exposure.FullSun
        : hours >= 3 ? Exposure.PartSun
        : Exposure.Shade;

    /// <summary>
    /// How far deciduous trees are in leaf in a month: May to October, half in April and November, half a year later in the south (common
    /// practice).
    /// </summary>
    public static double InLeaf(int month, bool southern)
    {
        int m = southern ? ((month + 5) % 12) + 1 : month;
        return m is >= 5 and <= 10 ? 1
            : m is 4 or 11 ? 0.5
            : 0;
    }

    /// <summary>The arithmetic behind a class.</summary>
    public Working Explain() =>
        new Working(
            WorkingKind.DirectSun,
            new Fact(WorkingPhrase.DayInSummer, ("hours", Quantity.Hours(Seasons[1].Hours, 1))),
            [
                new WorkingInput(InputName.Latitude, Quantity.Degrees(LatitudeDeg, 1)),
                new WorkingInput(InputName.Year, Year),
                .. Seasons.Select(s => new WorkingInput(s.Season, Quantity.Hours(s.Hours, 1))),
            ],
            [
                .. Months.Select(m => new Fact(
                    WorkingPhrase.BeforeNoonAfter,
                    ("month", new LocalDate(2001, m.Month, 1)),
                    ("morningHours", Quantity.Hours(m.MorningHours, 1)),
                    ("afternoonHours", Quantity.Hours(m.AfternoonHours, 1))
                )),
            ]
        );

    private (string, double, Exposure) Season(string name, int firstMonth)
    {
        double hours = Mean(firstMonth, 3);
        return (name, hours, ClassOf(hours));
    }

    private double Mean(int firstMonth, int count)
    {
        int shift = LatitudeDeg < 0 ? 6 : 0;
        return Enumerable.Range(firstMonth - 1 + shift, count).Average(m => Months[m % 12].Hours);
    }
}

using System.Globalization;
using System.Text.RegularExpressions;
using NodaTime;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Web.Drawing;
using UnrulyMeadow.Web.Site;
using UnrulyMeadow.Wording;

namespace UnrulyMeadow.Web.Tests.Drawing;

public sealed partial class RibbonTests
{
    private static readonly YearScale Scale = YearScale.Of(new LocalDate(2026, 9, 1));

    [Fact]
    public void Where_nothing_grows_nothing_is_drawn() => Assert.Empty(Ribbon.Path(new double[365], new double[365], Scale, 1));

    [Fact]
    public void A_stretch_of_growth_is_one_closed_shape_over_its_days()
    {
        var upper = new double[365];
        Array.Fill(upper, 20, 100, 30);
        string path = Ribbon.Path(new double[365], upper, Scale, 1);
        Assert.Equal(1, path.Count(c => c == 'M'));
        Assert.EndsWith("Z", path, StringComparison.Ordinal);
        double[] xs = [.. Number().Matches(path).Select(m => double.Parse(m.Groups["x"].Value, CultureInfo.InvariantCulture))];
        Assert.Equal(Scale.X(100), xs.Min(), 0.06);
        Assert.Equal(Scale.X(130), xs.Max(), 0.06);
    }

    [Fact]
    public void Two_stretches_are_two_shapes()
    {
        var upper = new double[365];
        Array.Fill(upper, 20, 10, 30);
        Array.Fill(upper, 20, 200, 30);
        Assert.Equal(2, Ribbon.Path(new double[365], upper, Scale, 1).Count(c => c == 'M'));
    }

    [Fact]
    public void The_ragged_edge_is_the_same_each_time_and_strays_little_from_the_cover()
    {
        var upper = new double[365];
        Array.Fill(upper, 20);
        string path = Ribbon.Path(new double[365], upper, Scale, 5);
        Assert.Equal(path, Ribbon.Path(new double[365], upper, Scale, 5));
        double[] ys =
        [
            .. Number().Matches(path).Select(m => double.Parse(m.Groups["y"].Value, CultureInfo.InvariantCulture)).Where(y => y < Ribbon.Baseline),
        ];
        Assert.All(ys, y => Assert.InRange(y, Ribbon.Baseline - 22.1, Ribbon.Baseline - 17.9));
    }

    [Fact]
    public void Height_follows_cover_up_to_the_full()
    {
        Assert.Equal(2 * Ribbon.HeightOf(0.2), Ribbon.HeightOf(0.4), 1e-9);
        Assert.True(Ribbon.HeightOf(0.2) > 0);
        Assert.Equal(Ribbon.HeightOf(Ribbon.FullCover), Ribbon.HeightOf(3));
    }

    [Fact]
    public void Months_begin_where_their_first_day_lies()
    {
        var months = Scale.Months().ToList();
        Assert.Equal(["Sep", "Oct", "Nov", "Dec", "Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug"], months.Select(m => m.Name));
        Assert.Equal(Scale.X(new LocalDate(2027, 4, 1)), months[7].X);
        Assert.Equal(366, YearScale.Of(new LocalDate(2027, 9, 1)).Days);
    }

    [Fact]
    public void US_units_turn_lengths_volumes_and_temperatures()
    {
        var us = new UnitsText(SiteUnits.UsCustomary);
        Assert.Equal("24 in", us.Length(60.96));
        Assert.Equal(25.4, us.ReadLength("10"), 1e-9);
        Assert.Equal("32 °F", us.Threshold(0));
        Assert.Equal("10 gal", us.Volume(37.854));
    }

    [Fact]
    public void A_decimal_comma_is_read_as_a_point() => Assert.Equal(12.5, new UnitsText(SiteUnits.Metric).ReadLength("12,5"));

    [GeneratedRegex(@"(?<x>-?[\d.]+) (?<y>-?[\d.]+)", RegexOptions.ExplicitCapture, 1000)]
    private static partial Regex Number();
}

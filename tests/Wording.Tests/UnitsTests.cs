using CsCheck;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Tests;

namespace UnrulyMeadow.Wording.Tests;

/// <summary>Figures in a site's units.</summary>
public sealed class UnitsTests
{
    private static readonly FactWriter Metric = new(SiteUnits.Metric, "€");
    private static readonly FactWriter Us = new(SiteUnits.UsCustomary, "$");

    public static TheoryData<Quantity, string, string> Figures =>
        new()
        {
            { Quantity.Cm(254), "254 cm", "100 in" },
            { Quantity.Cm(19, 1), "19 cm", "7.5 in" },
            { Quantity.Celsius(-40), "−40 °C", "−40 °F" },
            { Quantity.Celsius(0), "0 °C", "32 °F" },
            { Quantity.CelsiusApart(5), "5 °C", "9 °F" },
            { Quantity.Litres(3.785411784, 1), "3.8 L", "1 gal" },
            { Quantity.Kilograms(45.359237), "45 kg", "100 lb" },
            { Quantity.SquareMetres(9.290304), "9.3 m²", "100 ft²" },
            { Quantity.Metres(30.48), "30 m", "100 ft" },
            { new Quantity(25.4, Dimension.Rain), "25 mm", "1 in" },
            { new Quantity(10, Dimension.Speed), "10 m/s", "22 mph" },
            { new Quantity(100, Dimension.Load), "100 kg/m²", "20 lb/ft²" },
            { Quantity.Share(0.347), "35 %", "35 %" },
            { Quantity.OutOfTen(0.3), "3 of 10", "3 of 10" },
            { Quantity.Weeks(1), "1 week", "1 week" },
            { Quantity.Days(12), "12 days", "12 days" },
            { Quantity.Number(double.NaN), "—", "—" },
        };

    /// <summary>By the definitions of the inch, gallon and pound (NIST SP 811).</summary>
    [Theory]
    [Published("NIST SP 811 (2008), appendix B.8")]
    [MemberData(nameof(Figures))]
    public void A_figure_is_said_in_the_sites_units(Quantity figure, string metric, string us)
    {
        Assert.Equal(metric, Metric.Of(figure));
        Assert.Equal(us, Us.Of(figure));
    }

    [Fact]
    public void Money_bears_the_sites_sign_and_cents_only_where_there_are_any()
    {
        Assert.Equal("€1,250", Metric.Of(Quantity.Money(1250)));
        Assert.Equal("$3.50", Us.Of(Quantity.Money(3.5m)));
    }

    [Fact]
    public void A_faults_figures_are_said_in_the_sites_units_and_plainly_in_metric_without_a_site()
    {
        var faults = new FaultList();
        faults.Range("widthCm", 0, 10, 200, "cm");
        faults.Range("growthCm", double.NaN, 0, 50, "cm a year");
        faults.Range("frostC", -60, -40, 5, "°C");
        Assert.Equal("widthCm: must be from 10 cm to 200 cm (it is 0 cm)", faults.Faults[0].ToString());
        Assert.Equal("must be from 3.9 in to 78.7 in (it is 0 in)", Us.Say(faults.Faults[0]));
        Assert.Equal("must be from 0 cm to 50 cm a year (it must be a number)", faults.Faults[1].Message);
        Assert.Equal("must be from −40 °F to 41 °F (it is −76 °F)", Us.Say(faults.Faults[2]));
    }

    [Fact]
    public void What_a_form_shows_in_inches_is_read_back_as_the_same_length() =>
        Gen.Double[0.1, 500].Sample(cm => Assert.Equal(cm, Us.Units.ReadLength(Us.Units.LengthNumber(cm)), 0.02));
}

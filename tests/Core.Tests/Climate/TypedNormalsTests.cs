using UnrulyMeadow.Core.Climate;

namespace UnrulyMeadow.Core.Tests.Climate;

public sealed class TypedNormalsTests
{
    private static readonly double[] Low = [-7, -6, -1, 5, 10, 16, 19, 18, 14, 7, 2, -4];
    private static readonly double[] High = [0, 2, 8, 15, 21, 27, 29, 28, 24, 17, 9, 3];
    private static readonly double[] Rain = [50, 50, 60, 90, 100, 100, 90, 100, 80, 80, 70, 60];

    [Fact]
    public void Normals_of_a_real_place_make_sense_in_either_hemisphere()
    {
        Assert.Empty(new MonthlyNormals(Low, High, Rain).FaultsAsTyped(A.Station()));
        Assert.Empty(new MonthlyNormals(Turned(Low), Turned(High), Turned(Rain)).FaultsAsTyped(A.Station(-45)));
    }

    [Fact]
    public void A_July_typed_in_the_other_unit_is_named_alone()
    {
        double[] high = [.. High];
        high[6] = -2.2;
        Fault fault = Assert.Single(new MonthlyNormals([.. Low.Select(l => l - 30)], high).FaultsAsTyped(A.Station()), f =>
            f.Message.Contains("neighbours", StringComparison.Ordinal)
        );
        Assert.Equal("meanMaxC[6]", fault.Field);
    }

    [Fact]
    public void Rain_of_a_hundred_and_ten_inches_in_a_month_is_doubted()
    {
        double[] rain = [.. Rain];
        rain[3] = 110 * 25.4;
        Assert.Equal("precipitationMm[3]", Assert.Single(new MonthlyNormals(Low, High, rain).FaultsAsTyped(A.Station())).Field);
    }

    [Fact]
    public void A_warm_season_in_the_other_hemispheres_months_is_doubted_beyond_the_tropics()
    {
        Assert.Equal("latitudeDeg", Assert.Single(new MonthlyNormals(Low, High).FaultsAsTyped(A.Station(-45))).Field);
        Assert.Empty(new MonthlyNormals([.. Low.Select(l => 20 + (l / 10))], [.. High.Select(h => 28 + (h / 10))]).FaultsAsTyped(A.Station(-10)));
    }

    [Fact]
    public void What_is_kept_already_is_still_read_though_it_would_be_refused_now()
    {
        double[] high = [.. High];
        high[6] = 45;
        var kept = new MonthlyNormals(Low, high);
        Assert.NotEmpty(kept.FaultsAsTyped(A.Station()));
        Assert.NotNull(kept.At(A.Station()));
    }

    [Fact]
    public void A_record_that_is_warm_in_the_wrong_months_freezes_always_or_never_varies_is_doubted_aloud()
    {
        WeatherRecord turned = A.Record(2001, 4, A.Mild, -45);
        Assert.Contains(ClimateRemarks.From(turned).All, r => r.Says.Kind is ClimateRemarkKind.WrongHemisphere);
        WeatherRecord right = A.Record(2001, 3, A.Mild);
        Assert.DoesNotContain(ClimateRemarks.From(right).All, r => r.Says.Kind is ClimateRemarkKind.WrongHemisphere);
        Assert.Contains(ClimateRemarks.From(right).All, r => r.Says.Kind is ClimateRemarkKind.FrostDateNeverMoves);
        WeatherRecord cold = A.Record(2001, 4, d => (-3 - (d.Year % 3), 9));
        Assert.Contains(ClimateRemarks.From(cold).All, r => r.Says.Kind is ClimateRemarkKind.FrostInEveryMonth);
    }

    private static double[] Turned(double[] months) => [.. months[6..], .. months[..6]];
}

namespace UnrulyMeadow.Wording.Tests;

public sealed class TypedNumberTests
{
    [Theory]
    [InlineData("1,000", 1000)]
    [InlineData("1 250.50", 1250.5)]
    [InlineData("12,345,678", 12345678)]
    [InlineData("12,5", 12.5)]
    [InlineData("0,125", 0.125)]
    [InlineData("1,0000", 1)]
    [InlineData(" −3.5 ", -3.5)]
    [InlineData("1'000", 1000)]
    public void A_number_is_read_as_people_mean_it(string typed, double meant) => Assert.Equal(meant, TypedNumber.Read(typed));

    [Theory]
    [InlineData("")]
    [InlineData("a lot")]
    [InlineData("1,000,00")]
    [InlineData("1e999")]
    [InlineData("NaN")]
    public void What_is_no_number_is_none(string typed) => Assert.Null(TypedNumber.Read(typed));
}

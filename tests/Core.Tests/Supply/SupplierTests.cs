using NodaTime;
using UnrulyMeadow.Core.Supply;

namespace UnrulyMeadow.Core.Tests.Supply;

/// <summary>Bills as somebody would work them out with a pencil.</summary>
public sealed class SupplierTests
{
    // "For every full 25, 5 off, up to 20"; a tenth off from 200, fifteen hundredths from 500; 12 for the delivery, none from 300.
    private static readonly Supplier Nursery = new("hill-nursery", "Hill nursery")
    {
        DeliveryCharge = 12,
        FreeDeliveryFrom = 300,
        Discounts = [new OffForEvery(25, 5, 20), new ShareFrom(200, 0.10m), new ShareFrom(500, 0.15m)],
    };

    [Theory]
    [InlineData("0", "0", "0", "0")]
    [InlineData("24.99", "0", "12", "36.99")]
    [InlineData("25", "5", "12", "32")]
    [InlineData("74.99", "10", "12", "76.99")]
    [InlineData("99.50", "15", "12", "96.50")]
    [InlineData("100", "20", "12", "92")]
    [InlineData("150", "20", "12", "142")]
    [InlineData("200", "40", "12", "172")]
    [InlineData("299.95", "50.00", "12", "261.95")]
    [InlineData("300", "50", "0", "250")]
    [InlineData("500", "95", "0", "405")]
    public void Amounts_for_every_full_sum_end_at_their_limit_and_the_highest_share_that_is_reached_counts_alone(
        string goods,
        string discount,
        string delivery,
        string total
    )
    {
        SupplierBill bill = Nursery.Bill(Money(goods));
        Assert.Equal((Money(discount), Money(delivery), Money(total)), (bill.Discount, bill.Delivery, bill.Total));
    }

    [Fact]
    public void A_discount_that_never_ends_is_refused_and_nothing_is_ever_paid_out()
    {
        Assert.Contains(new OffForEvery(5, 5, 20).Faults(), f => f.Message.Contains("never ends", StringComparison.Ordinal));
        Assert.NotEmpty(new OffForEvery(0, 5, 20).Faults());
        Assert.NotEmpty(new ShareFrom(0, 1).Faults());
        Assert.Empty(Nursery.Faults());
        var generous = new Supplier("s", "S") { Discounts = [new OffForEvery(10, 9, 1000), new ShareFrom(0, 0.5m)] };
        for (decimal goods = 0.01m; goods < 60; goods += 0.37m)
            Assert.InRange(generous.Bill(goods).Total, 0, goods);
    }

    [Fact]
    public void A_price_step_counts_for_all_packs_and_the_last_order_day_is_the_earlier_of_lead_time_and_deadline()
    {
        var offer = new Offer("s", "tulip", "bag of 50", 50, [new PriceStep(1, 12), new PriceStep(5, 10), new PriceStep(20, 9)]) { LeadDays = 21 };
        Assert.Equal([0m, 12m, 48m, 50m, 190m, 180m], new[] { 0, 1, 4, 5, 19, 20 }.Select(offer.PriceOf));
        var by = new LocalDate(2027, 10, 15);
        Assert.Equal(new LocalDate(2027, 9, 24), offer.LastOrderDay(by));
        Offer early = offer with { OrderUntil = new LocalDate(2027, 6, 30) };
        Assert.Equal(new LocalDate(2027, 6, 30), early.LastOrderDay(by));
        Assert.True(early.IsToBeHad(new LocalDate(2027, 6, 30), by));
        Assert.False(early.IsToBeHad(new LocalDate(2027, 7, 1), by));
        Assert.False((offer with { Months = [3, 4, 5] }).IsToBeHad(new LocalDate(2027, 1, 1), by));
    }

    private static decimal Money(string text) => decimal.Parse(text, System.Globalization.CultureInfo.InvariantCulture);
}

using System.Diagnostics;
using System.Globalization;
using System.Text;
using NodaTime;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Exchange.Palette;
using UnrulyMeadow.Exchange.Sheets;
using UnrulyMeadow.Exchange.Supply;
using UnrulyMeadow.Solver;

namespace UnrulyMeadow.Bench;

/// <summary>A large basket (150 needs, six suppliers, three forms each) and a price list of 20,000 rows.</summary>
public static class SupplyFigures
{
    private static readonly LocalDate Today = new(2027, 1, 4);

    /// <summary>Measures both and prints.</summary>
    public static void Print()
    {
        BasketQuestion question = Large(new Random(20270104));
        var watch = Stopwatch.StartNew();
        double first = double.NaN;
        BasketAnswer answer = BasketSolving.Choose(
            question,
            10,
            new First(() => first = double.IsNaN(first) ? watch.Elapsed.TotalMilliseconds : first)
        );
        Line("first basket of 150 needs", first);
        Line("basket given 10 s", watch.Elapsed.TotalMilliseconds);
        Console.WriteLine(
            string.Create(CultureInfo.InvariantCulture, $"{"", -34}{answer.Gap, 10:P2} above the bound, {answer.Basket.Cost:0} in all")
        );

        IReadOnlyList<Plant> palette = Shipped.Palette();
        var list = new StringBuilder("plant;form;size;price from 1;price from 10\n");
        for (int i = 0; i < 20_000; i++)
            list.Append(
                CultureInfo.InvariantCulture,
                $"{palette[i % palette.Count].CommonName};tray {i / palette.Count};{6 + (i % 12)};{3 + (i % 7)},40 €;{3 + (i % 7)},10 €\n"
            );
        byte[] bytes = Encoding.UTF8.GetBytes(list.ToString());
        watch.Restart();
        using var stream = new MemoryStream(bytes);
        IReadOnlyList<TypedRow> rows = TypedTable.Read(stream);
        PriceListReading read = PriceList.Read(rows, PriceList.Guess(PriceList.HeadingsOf(rows)!.Cells), "s", palette);
        Line($"price list, {read.Offers.Count} offers", watch.Elapsed.TotalMilliseconds);
    }

    private static BasketQuestion Large(Random random)
    {
        List<Supplier> suppliers =
        [
            .. Enumerable
                .Range(0, 6)
                .Select(i => new Supplier($"s{i}", $"Supplier {i}")
                {
                    DeliveryCharge = 20 + (10 * i),
                    FreeDeliveryFrom = 400 + (200 * i),
                    LeastGoods = i % 2 == 0 ? 100 : 0,
                    Discounts = i % 3 == 0 ? [new OffForEvery(100, 5, 80)] : [new ShareFrom(500, 0.05m), new ShareFrom(1500, 0.09m)],
                }),
        ];
        var needs = new List<BasketNeed>();
        var offers = new List<Offer>();
        for (int n = 0; n < 150; n++)
        {
            needs.Add(new BasketNeed($"p{n}", random.Next(6, 400), Today.PlusDays(120)));
            foreach (Supplier s in suppliers)
            {
                decimal each = 0.4m + ((decimal)random.NextDouble() * 2);
                foreach ((string form, int size, decimal factor) in new[] { ("4-pack", 4, 1.08m), ("flat of 18", 18, 1m), ("tray of 72", 72, 0.93m) })
                {
                    decimal price = Math.Round(each * size * factor, 2);
                    offers.Add(
                        new Offer(s.Id, $"p{n}", form, size, [new PriceStep(1, price), new PriceStep(8, Math.Round(price * 0.95m, 2))])
                        {
                            LeadDays = 14,
                        }
                    );
                }
            }
        }
        return new BasketQuestion(needs, suppliers, offers, Today);
    }

    private static void Line(string what, double ms) => Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{what, -34}{ms, 10:0.00}"));

    private sealed class First(Action told) : IProgress<Basket>
    {
        public void Report(Basket value) => told();
    }
}

using System.Text;
using Dapper;
using NodaTime;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Exchange.Supply;

namespace UnrulyMeadow.Store.Tests;

/// <summary>Orders, deliveries and stock as they are kept: nothing lost, nothing counted twice.</summary>
public sealed class SupplyStoreTests(TestDatabase test) : IClassFixture<TestDatabase>, IAsyncLifetime
{
    private static readonly LocalDate Today = new(2027, 5, 10);

    private SiteDatabase _site = null!;
    private PlanStore _plans = null!;
    private SupplyStore _supply = null!;
    private Plan _demo = null!;

    public async ValueTask InitializeAsync()
    {
        string name = $"site-{Guid.NewGuid():N}"[..20];
        _site = test.Whole.At((await test.Whole.AddSite(name, name)).Id);
        _plans = new PlanStore(_site, PlanFile.Stored, () => "Ann");
        _supply = new SupplyStore(_site, _plans, PlanFile.Stored);
        await using FileStream plan = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "demo", "kittiwake-quay.plan.json"));
        _demo = PlanFile.Read(plan);
        await _plans.Replace(_demo);
        await using FileStream goods = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "demo", "kittiwake-quay.supply.json"));
        await _supply.Bring(SupplyFile.Read(goods) with { Orders = [], Receipts = [], Claims = [] });
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    [Fact]
    public async Task Of_two_who_send_an_order_at_once_the_second_is_told_and_it_gets_one_number()
    {
        PurchaseOrder draft = await Drafted(6);
        long version = (await _supply.Now()).VersionOf(draft.Id);
        Task<PurchaseOrder>[] both =
        [
            _supply.Advance(draft.Id, version, OrderState.Sent, Today),
            _supply.Advance(draft.Id, version, OrderState.Sent, Today),
        ];
        await Record.ExceptionAsync(async () => await Task.WhenAll(both));
        _ = Assert.Single(both, b => b.IsCompletedSuccessfully);
        Assert.IsType<LostUpdateException>(Assert.Single(both, b => b.IsFaulted).Exception!.InnerException);
        Assert.Equal(1, Assert.Single((await _supply.Now()).Orders).It.Number);
        Assert.Equal(2, (await Sent(3)).Number);
    }

    [Fact]
    public async Task An_order_keeps_the_terms_and_lines_on_which_it_was_sent_even_from_the_database()
    {
        PurchaseOrder order = await Sent(6);
        Kept<Supplier> supplier = (await _supply.Now()).Supplier(order.Supplier.Id)!;
        await _supply.Save(supplier.It with { DeliveryCharge = 99 }, supplier.Version);
        Assert.Equal(order.Bill, (await _supply.Now()).Account(order.Id)!.Order.Bill);
        await using NpgsqlConnection connection = await _site.Open();
        await Assert.ThrowsAsync<PostgresException>(() =>
            connection.ExecuteAsync(
                "update purchase_order set details = jsonb_set(details, '{lines,0,packs}', '99') where id = @Id",
                new { order.Id }
            )
        );
        await Assert.ThrowsAsync<PostgresException>(() => connection.ExecuteAsync("delete from purchase_order where id = @Id", new { order.Id }));
    }

    [Fact]
    public async Task A_delivery_sent_twice_is_one_and_its_lots_and_credits_come_with_it_or_not_at_all()
    {
        PurchaseOrder order = await Sent(10);
        OrderedLine line = order.Lines[0];
        int before = await AtHand(line.PlantId);
        Receipt receipt = new(
            Guid.CreateVersion7(),
            order.Id,
            Today,
            "Yard bench",
            [new ReceivedLine(1, line.Plants, line.Plants - 2, RefusalReason.Dry)]
        );
        Assert.True(await _supply.Receive(receipt, [], null, "Jory"));
        Assert.False(await _supply.Receive(receipt, [], null, "Jory"));
        SupplyNow now = await _supply.Now();
        Assert.Equal(before + line.Plants - 2, await AtHand(line.PlantId));
        Assert.Equal((2, "Jory"), (Assert.Single(now.Claims).It.Plants, Assert.Single(now.Receipts).By));
        // One that does not fit leaves nothing behind.
        await Assert.ThrowsAsync<InvalidInputException>(() =>
            _supply.Receive(receipt with { Id = Guid.CreateVersion7(), Lines = [new ReceivedLine(1, 5, 5)] }, [], null, "Jory")
        );
        Assert.Single((await _supply.Now()).Receipts);
        Assert.Equal(before + line.Plants - 2, await AtHand(line.PlantId));
    }

    [Fact]
    public async Task A_supplier_with_open_orders_stays_until_they_are_closed()
    {
        PurchaseOrder order = await Sent(6);
        Kept<Supplier> supplier = (await _supply.Now()).Supplier(order.Supplier.Id)!;
        InvalidInputException why = await Assert.ThrowsAsync<InvalidInputException>(() => _supply.RemoveSupplier(supplier.It.Id, supplier.Version));
        Assert.Contains("order 1", why.Message, StringComparison.Ordinal);
        await _supply.Advance(order.Id, (await _supply.Now()).VersionOf(order.Id), OrderState.Closed, Today);
        await _supply.RemoveSupplier(supplier.It.Id, supplier.Version);
        Assert.Empty(await _supply.Offers(supplierId: supplier.It.Id));
        Assert.Single((await _supply.Now()).Orders);
    }

    [Fact]
    public async Task A_credit_is_settled_once_and_never_for_more_than_came()
    {
        PurchaseOrder order = await Sent(10);
        await _supply.Receive(new Receipt(Guid.CreateVersion7(), order.Id, Today, "Yard bench", [new ReceivedLine(1, 10, 10)]), [], null, "Jory");
        await _supply.Claim(order.Id, 1, 6, RefusalReason.WrongKind, Today);
        await Assert.ThrowsAsync<InvalidInputException>(() => _supply.Claim(order.Id, 1, 5, RefusalReason.WrongKind, Today));
        Kept<CreditClaim> claim = Assert.Single((await _supply.Now()).Claims);
        await Assert.ThrowsAsync<InvalidInputException>(() => _supply.Settle(claim.It.Id, claim.Version, claim.It.Amount + 1, Today));
        await _supply.Settle(claim.It.Id, claim.Version, claim.It.Amount, Today);
        await Assert.ThrowsAsync<LostUpdateException>(() => _supply.Settle(claim.It.Id, claim.Version, 0, Today));
    }

    // Whatever is received, refused, planted, lost, composted, counted again, taken out of the plan or put back by undo: what came less what
    // went is what is there, for every kind and after every step.
    [Fact]
    public async Task Received_less_refused_planted_lost_and_composted_is_at_hand_over_random_histories()
    {
        var random = new Random(20270510);
        PurchaseOrder order = await Sent(200);
        string plant = order.Lines[0].PlantId;
        var changes = new ChangeStore(_plans);
        int accepted = 0;
        for (int step = 0; step < 60; step++)
        {
            LoadedPlan now = await _plans.Now();
            List<Lot> lots = [.. now.Plan.Lots.Where(l => l.Count > 0)];
            Lot lot = lots[random.Next(lots.Count)];
            switch (random.Next(6))
            {
                case 0:
                    int left = (await _supply.Now()).Account(order.Id)!.Lines[0].Outstanding;
                    int arrived = Math.Min(left, random.Next(1, 60));
                    if (arrived == 0)
                        break;
                    int refused = random.Next(0, arrived);
                    accepted += arrived - refused;
                    await _supply.Receive(
                        new Receipt(
                            Guid.CreateVersion7(),
                            order.Id,
                            Today,
                            "Yard bench",
                            [new ReceivedLine(1, arrived, arrived - refused, refused > 0 ? RefusalReason.Dry : null)]
                        ),
                        [],
                        null,
                        "Jory"
                    );
                    break;
                case 1 or 2:
                    MovementKind why = new[] { MovementKind.Planted, MovementKind.Lost, MovementKind.Composted }[random.Next(3)];
                    await _supply.TakeOut(lot.Id, now.Versions.Lot(lot.Id), random.Next(1, lot.Count + 1), why, Today);
                    break;
                case 3:
                    await new LotStore(_plans).Save(lot with { Count = random.Next(0, 300) }, now.Versions.Lot(lot.Id));
                    break;
                case 4 when lots.Count > 2:
                    await new LotStore(_plans).Remove(lot.Id, now.Versions.Lot(lot.Id));
                    break;
                default:
                    if ((await changes.Latest(1)) is [{ CanBeUndone: true } last])
                        await changes.Undo(last.Id);
                    break;
            }
            Plan after = (await _plans.Now()).Plan;
            Dictionary<string, int> there = after
                .Lots.GroupBy(l => l.PlantId, StringComparer.Ordinal)
                .ToDictionary(g => g.Key, g => g.Sum(l => l.Count), StringComparer.Ordinal);
            Assert.All(await _supply.Account(), a => Assert.Equal(there.GetValueOrDefault(a.PlantId), a.AtHand));
        }
        Assert.True(accepted > 0);
        Assert.Equal(accepted, (await _supply.Account()).Single(a => a.PlantId == plant).Of(MovementKind.Received));
    }

    [Fact]
    public async Task All_of_it_goes_into_a_file_and_comes_back_the_same_on_another_site()
    {
        PurchaseOrder order = await Sent(6);
        await Drafted(3);
        await _supply.Receive(
            new Receipt(Guid.CreateVersion7(), order.Id, Today, "Yard bench", [new ReceivedLine(1, 6, 5, RefusalReason.Size)]),
            [(Guid.CreateVersion7(), Encoding.ASCII.GetBytes("large"), Encoding.ASCII.GetBytes("small"))],
            null,
            "Jory"
        );
        byte[] written = SupplyFile.Write(await _supply.All());
        string name = $"site-{Guid.NewGuid():N}"[..20];
        SiteDatabase other = test.Whole.At((await test.Whole.AddSite(name, name)).Id);
        var plans = new PlanStore(other, PlanFile.Stored);
        var there = new SupplyStore(other, plans, PlanFile.Stored);
        // A site sees nothing of another's.
        Assert.Empty((await there.Now()).Orders);
        await plans.Replace(_demo);
        using (var stream = new MemoryStream(written))
            await there.Bring(SupplyFile.Read(stream));
        Assert.Equal(Encoding.UTF8.GetString(written), Encoding.UTF8.GetString(SupplyFile.Write(await there.All())));
    }

    private async Task<int> AtHand(string plant) => (await _plans.Now()).Plan.Lots.Where(l => l.PlantId == plant).Sum(l => l.Count);

    private async Task<PurchaseOrder> Drafted(int packs)
    {
        Offer offer = (await _supply.Offers(supplierId: "saltmarsh-plants")).First(o => o.PackSize == 6);
        PurchaseOrder draft = new(
            Guid.CreateVersion7(),
            (await _supply.Now()).Supplier("saltmarsh-plants")!.It,
            [new OrderedLine(1, offer.PlantId, "a plant", offer.Form, offer.PackSize, packs, offer.Steps[0].Price, Today, "summer-2027")]
        );
        await _supply.Draft([draft]);
        return draft;
    }

    private async Task<PurchaseOrder> Sent(int packs)
    {
        PurchaseOrder draft = await Drafted(packs);
        return await _supply.Advance(draft.Id, (await _supply.Now()).VersionOf(draft.Id), OrderState.Sent, Today);
    }
}

using System.Text.Json;
using Dapper;
using NodaTime;
using Npgsql;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Supply;

namespace UnrulyMeadow.Store;

/// <summary>Something of the supply wing with the version at which it was read.</summary>
/// <param name="It">The thing.</param>
/// <param name="Version">Its version.</param>
public sealed record Kept<T>(T It, long Version);

/// <summary>What a planner has decided of a kind in a turn's basket.</summary>
/// <param name="SupplierId">The supplier whose offers alone will do; null for any.</param>
/// <param name="Form">The form that alone will do; null for any that the plan allows.</param>
public sealed record SupplyChoice(string? SupplierId, string? Form);

/// <summary>Everything of the supply wing but offers and photographs.</summary>
/// <param name="Suppliers">Suppliers, by name.</param>
/// <param name="Orders">Orders, the latest first.</param>
/// <param name="Receipts">Deliveries, the latest first.</param>
/// <param name="Claims">Credits, the latest first.</param>
/// <param name="Places">Places of the holding area, by name.</param>
/// <param name="Materials">Materials, by name.</param>
/// <param name="MaterialMovements">Movements of them.</param>
/// <param name="Budgets">Budgets.</param>
/// <param name="Choices">What was decided of each turn's basket: by turn, then by kind.</param>
/// <param name="OfferCounts">Offers of each supplier.</param>
public sealed record SupplyNow(
    IReadOnlyList<Kept<Supplier>> Suppliers,
    IReadOnlyList<Kept<PurchaseOrder>> Orders,
    IReadOnlyList<KeptReceipt> Receipts,
    IReadOnlyList<Kept<CreditClaim>> Claims,
    IReadOnlyList<Kept<HoldingPlace>> Places,
    IReadOnlyList<Kept<Material>> Materials,
    IReadOnlyList<MaterialMovement> MaterialMovements,
    IReadOnlyList<Kept<Budget>> Budgets,
    IReadOnlyDictionary<string, Dictionary<string, SupplyChoice>> Choices,
    IReadOnlyDictionary<string, int> OfferCounts
)
{
    /// <summary>Every order with what has come of it.</summary>
    public IReadOnlyList<OrderAccount> Accounts { get; } =
    [.. Orders.Select(o => OrderAccount.Of(o.It, Receipts.Where(r => r.It.OrderId == o.It.Id).Select(r => r.It)))];

    /// <summary>An order with what has come of it; null where there is none.</summary>
    public OrderAccount? Account(Guid id) => Accounts.FirstOrDefault(a => a.Order.Id == id);

    /// <summary>The version of an order.</summary>
    public long VersionOf(Guid order) => Orders.First(o => o.It.Id == order).Version;

    /// <summary>A supplier; null where there is none.</summary>
    public Kept<Supplier>? Supplier(string? id) => Suppliers.FirstOrDefault(s => s.It.Id == id);
}

/// <summary>Suppliers, offers, orders, deliveries, credits, the holding area, materials and budgets of a site.</summary>
/// <param name="database">The site's part of the database.</param>
/// <param name="plans">The door to the plan: what is accepted at delivery becomes lots of it in the same transaction.</param>
/// <param name="json">How parts of a plan are kept.</param>
public sealed class SupplyStore(SiteDatabase database, PlanStore plans, JsonSerializerOptions json)
{
    private readonly JsonSerializerOptions _json = new(json) { RespectRequiredConstructorParameters = false, WriteIndented = false };

    /// <summary>Reads everything but offers and photographs.</summary>
    public async Task<SupplyNow> Now()
    {
        await using NpgsqlConnection connection = await database.Open();
        await using SqlMapper.GridReader read = await connection.QueryMultipleAsync(
            """
            select details::text as details, version from supplier order by details ->> 'name', id;
            select details::text as details, version from purchase_order order by coalesce(number, 2147483647) desc, made_at desc, id;
            select details::text as details, by, recorded_at from receipt order by details ->> 'day' desc, recorded_at desc, id;
            select details::text as details, version from credit_claim order by details ->> 'day' desc, id desc;
            select details::text as details, version from holding_place order by details ->> 'name', id;
            select details::text as details, version from material order by details ->> 'name', id;
            select details::text as details, 0::bigint as version from material_movement order by details ->> 'day', recorded_at;
            select details::text as details, version from budget order by details ->> 'year', id;
            select id, details::text as details from supply_choice;
            select supplier_id as id, count(*)::int as offers from offer group by supplier_id;
            """
        );
        return new SupplyNow(
            await Read<Supplier>(read),
            await Read<PurchaseOrder>(read),
            [.. (await read.ReadAsync<ReceiptRow>()).Select(r => new KeptReceipt(From<Receipt>(r.Details), r.By, r.RecordedAt))],
            await Read<CreditClaim>(read),
            await Read<HoldingPlace>(read),
            await Read<Material>(read),
            [.. (await Read<MaterialMovement>(read)).Select(m => m.It)],
            await Read<Budget>(read),
            (await read.ReadAsync<(string Id, string Details)>()).ToDictionary(
                c => c.Id,
                c => From<Dictionary<string, SupplyChoice>>(c.Details),
                StringComparer.Ordinal
            ),
            (await read.ReadAsync<(string Id, int Offers)>()).ToDictionary(o => o.Id, o => o.Offers, StringComparer.Ordinal)
        );
    }

    /// <summary>What changes with every supplier, price list, choice, order and delivery: a basket is of one such state.</summary>
    public async Task<string> Mark()
    {
        await using NpgsqlConnection connection = await database.Open();
        return await Mark(connection);
    }

    private static async Task<string> Mark(NpgsqlConnection connection) =>
        await connection.ExecuteScalarAsync<string>(
            """
            select concat_ws('-', (select max(version) from supplier), (select count(*) from supplier), (select max(version) from supply_choice),
                (select max(version) from purchase_order), (select count(*) from purchase_order), (select count(*) from receipt), (select max(version) from credit_claim), (select count(*) from credit_claim))
            """
        ) ?? string.Empty;

    /// <summary>Offers of some kinds.</summary>
    /// <param name="plantIds">Their ids; null for all.</param>
    /// <param name="supplierId">Of one supplier; null for all.</param>
    public async Task<IReadOnlyList<Offer>> Offers(IReadOnlyCollection<string>? plantIds = null, string? supplierId = null)
    {
        await using NpgsqlConnection connection = await database.Open();
        return
        [
            .. (
                await connection.QueryAsync<string>(
                    """
                    select details::text from offer
                    where (@plants::text[] is null or plant_id = any(@plants)) and (@supplierId::text is null or supplier_id = @supplierId)
                    order by supplier_id, ordinal
                    """,
                    new { plants = plantIds?.ToArray(), supplierId }
                )
            ).Select(From<Offer>),
        ];
    }

    /// <summary>Adds a supplier, or changes one at the version it was read.</summary>
    /// <exception cref="InvalidInputException">A figure is out of range, or the name is another's.</exception>
    /// <exception cref="LostUpdateException">Somebody saved in between.</exception>
    public Task Save(Supplier supplier, long? version) => Save("supplier", supplier.Id, supplier, supplier.Faults(), version, "This supplier");

    /// <summary>Removes a supplier with their offers. Orders keep the terms on which they were sent.</summary>
    /// <exception cref="InvalidInputException">Something is still waited for from them.</exception>
    public async Task RemoveSupplier(string id, long version)
    {
        SupplyNow now = await Now();
        List<OrderAccount> open = [.. now.Accounts.Where(a => a.Order.Supplier.Id == id && (a.Order.IsOpen || a.Order.Stage == OrderState.Draft))];
        if (open.Count > 0)
            throw new InvalidInputException(
                string.Empty,
                $"{open[0].Order.Supplier.Name} still has {string.Join(", ", open.Select(a => a.Order.Number is { } n ? $"order {n}" : "a draft"))}: "
                    + "receive, close or cancel it first"
            );
        await Drop("supplier", id, version, "This supplier");
    }

    /// <summary>Which heading of a supplier's list means what, as it was chosen last; null before one was brought in.</summary>
    public async Task<T?> Columns<T>(string supplierId)
        where T : class
    {
        await using NpgsqlConnection connection = await database.Open();
        string? kept = await connection.QuerySingleOrDefaultAsync<string?>(
            "select columns::text from supplier where id = @supplierId",
            new { supplierId }
        );
        return kept is null ? null : From<T>(kept);
    }

    /// <summary>Remembers which heading of a supplier's list means what.</summary>
    public async Task SaveColumns<T>(string supplierId, T columns)
        where T : class
    {
        await using NpgsqlConnection connection = await database.Open();
        int found = await SqlFaults.Naming(() =>
            connection.ExecuteAsync(
                "update supplier set columns = @columns::jsonb where id = @supplierId",
                new { supplierId, columns = Text(columns) }
            )
        );
        if (found == 0)
            throw new LostUpdateException("This supplier", isGone: true);
    }

    /// <summary>Puts a supplier's offers in the place of those before.</summary>
    /// <param name="supplierId">The supplier.</param>
    /// <param name="offers">Their offers.</param>
    /// <exception cref="InvalidInputException">The supplier is gone, or an offer is out of range.</exception>
    public async Task ReplaceOffers(string supplierId, IReadOnlyList<Offer> offers)
    {
        var faults = new FaultList();
        foreach (Offer offer in offers)
            faults.AddAll($"{offer.PlantId}, {offer.Form}", offer.Faults());
        faults.ThrowIfAny();
        await using NpgsqlConnection connection = await database.Open();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        // The supplier's version rises with their offers.
        if (await connection.ExecuteAsync("update supplier set details = details where id = @supplierId", new { supplierId }, transaction) == 0)
            throw new LostUpdateException("This supplier", isGone: true);
        await connection.ExecuteAsync("delete from offer where supplier_id = @supplierId", new { supplierId }, transaction);
        await SqlFaults.Naming(() =>
            connection.ExecuteAsync(
                """
                insert into offer (supplier_id, ordinal, plant_id, details)
                select @supplierId, r.ordinal, r.details ->> 'plantId', r.details from jsonb_array_elements(@rows::jsonb) with ordinality as r (details, ordinal)
                """,
                new { supplierId, rows = Text(offers.Select(o => o with { SupplierId = supplierId })) },
                transaction
            )
        );
        await transaction.CommitAsync();
    }

    /// <summary>Keeps what was decided of a kind in a turn's basket; with neither supplier nor form the decision is dropped.</summary>
    public async Task Choose(string turnId, string plantId, SupplyChoice choice)
    {
        await using NpgsqlConnection connection = await database.Open();
        object? value = choice is { SupplierId: null, Form: null } ? null : choice;
        await connection.ExecuteAsync(
            value is null
                ? "update supply_choice set details = details - @plantId where id = @turnId"
                : """
                insert into supply_choice (id, details) values (@turnId, jsonb_build_object(@plantId::text, @choice::jsonb))
                on conflict (site_id, id) do update set details = supply_choice.details || excluded.details
                """,
            new
            {
                turnId,
                plantId,
                choice = value is null ? null : Text(value),
            }
        );
    }

    /// <summary>Keeps orders that are not sent yet.</summary>
    /// <param name="orders">The orders.</param>
    /// <param name="mark">The state that they were made of; null for any.</param>
    /// <exception cref="InvalidInputException">It is another now: somebody has drafted, sent or received meanwhile.</exception>
    public async Task Draft(IReadOnlyList<PurchaseOrder> orders, string? mark = null)
    {
        await using NpgsqlConnection connection = await database.Open();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync("select from site for update", transaction: transaction);
        if (mark is not null && mark != await Mark(connection))
            throw new InvalidInputException(string.Empty, "Prices or orders have changed since this was worked out: find the cheapest again");
        await connection.ExecuteAsync(
            """
            insert into purchase_order (id, stage, details)
            select (r.details ->> 'id')::uuid, 'Draft', r.details from jsonb_array_elements(@rows::jsonb) as r (details)
            on conflict (site_id, id) do nothing
            """,
            new { rows = Text(orders) },
            transaction
        );
        await transaction.CommitAsync();
    }

    /// <summary>Changes an order that is not sent, or what was promised and paid of one that is.</summary>
    /// <exception cref="LostUpdateException">Somebody has changed, sent or removed it in between.</exception>
    public async Task Change(PurchaseOrder order, long version)
    {
        await using NpgsqlConnection connection = await database.Open();
        int done = await SqlFaults.Naming(() =>
            connection.ExecuteAsync(
                "update purchase_order set details = @details::jsonb where id = @Id and version = @version and stage = @stage",
                new
                {
                    order.Id,
                    version,
                    stage = order.Stage.ToString(),
                    details = Text(order),
                }
            )
        );
        if (done == 0)
            throw new LostUpdateException(Name(order));
    }

    /// <summary>Drops an order that was never sent.</summary>
    public async Task DropDraft(Guid id, long version)
    {
        await using NpgsqlConnection connection = await database.Open();
        if (
            await connection.ExecuteAsync("delete from purchase_order where id = @id and version = @version and stage = 'Draft'", new { id, version })
            == 0
        )
            throw new LostUpdateException("This draft");
    }

    /// <summary>
    /// Takes an order a step on. Sending gives it the next number and freezes it, with its supplier's terms of now; of two who send it at
    /// once the second is told.
    /// </summary>
    /// <param name="id">The order.</param>
    /// <param name="version">The version at which it was read.</param>
    /// <param name="to">Where to.</param>
    /// <param name="today">Today.</param>
    /// <returns>The order as it is now.</returns>
    /// <exception cref="InvalidInputException">It may not go there, or cannot be sent as it is.</exception>
    /// <exception cref="LostUpdateException">Somebody has changed, sent or removed it in between.</exception>
    public async Task<PurchaseOrder> Advance(Guid id, long version, OrderState to, LocalDate today)
    {
        await using NpgsqlConnection connection = await database.Open();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync("select from site for update", transaction: transaction);
        Row row = await connection.QuerySingleOrDefaultAsync<Row>(
            "select details::text as details, version from purchase_order where id = @id",
            new { id },
            transaction
        ) ?? throw new LostUpdateException("This order", isGone: true);
        PurchaseOrder order = From<PurchaseOrder>(row.Details);
        if (row.Version != version)
            throw new LostUpdateException(Name(order));
        bool came = await connection.ExecuteScalarAsync<bool>("select exists (select from receipt where order_id = @id)", new { id }, transaction);
        if (!order.MayBecome(to, came))
            throw new InvalidInputException(
                string.Empty,
                to == OrderState.Cancelled && came
                    ? $"Some of order {order.Number} has come already: close it instead, and what is missing is waited for no longer"
                    : "This order cannot go there from where it is"
            );
        PurchaseOrder after = order with { Stage = to };
        if (to == OrderState.Sent)
        {
            string? terms = await connection.QuerySingleOrDefaultAsync<string?>(
                "select details::text from supplier where id = @id",
                new { id = order.Supplier.Id },
                transaction
            );
            after = after with
            {
                Supplier = terms is null
                    ? throw new InvalidInputException(
                        string.Empty,
                        $"{order.Supplier.Name} is no longer among the suppliers: add them again, or drop this draft"
                    )
                    : From<Supplier>(terms),
                SentOn = today,
                Number = await connection.ExecuteScalarAsync<int>(
                    "select coalesce(max(number), 0) + 1 from purchase_order",
                    transaction: transaction
                ),
            };
            if (after.Faults() is { Count: > 0 } faults)
                throw new InvalidInputException(faults);
        }
        await connection.ExecuteAsync(
            "update purchase_order set details = @details::jsonb, stage = @stage, number = @Number where id = @id",
            new
            {
                id,
                after.Number,
                stage = to.ToString(),
                details = Text(after),
            },
            transaction
        );
        await transaction.CommitAsync();
        return after;
    }

    /// <summary>
    /// Writes a delivery down: the record, the lots that were accepted, and the credits for what was refused, together or not at all. One
    /// whose id is known already is not written again.
    /// </summary>
    /// <param name="receipt">The delivery.</param>
    /// <param name="photographs">Photographs of it, each with its small one.</param>
    /// <param name="person">Who inspected it; null for nobody that is known.</param>
    /// <param name="by">What they are called.</param>
    /// <returns>False where it was written down before.</returns>
    /// <exception cref="InvalidInputException">It does not fit the order.</exception>
    public Task<bool> Receive(Receipt receipt, IReadOnlyList<(Guid Id, byte[] Jpeg, byte[] Thumb)> photographs, Guid? person, string by) =>
        plans.Write(async edit =>
        {
            if ((await edit.Query<bool>("select true from receipt where id = @Id", new { receipt.Id })).Any())
                return false;
            string found = (
                await edit.Query<string>("select details::text from purchase_order where id = @OrderId for update", new { receipt.OrderId })
            ).SingleOrDefault() ?? throw new LostUpdateException("This order", isGone: true);
            PurchaseOrder order = From<PurchaseOrder>(found);
            List<Receipt> before =
            [
                .. (await edit.Query<string>("select details::text from receipt where order_id = @OrderId", new { receipt.OrderId })).Select(
                    From<Receipt>
                ),
            ];
            Plan plan = edit.Before.Plan;
            if (receipt.Faults(OrderAccount.Of(order, before), plan) is { Count: > 0 } faults)
                throw new InvalidInputException(faults);
            await edit.Execute(
                "insert into receipt (id, order_id, details, person_id, by) values (@Id, @OrderId, @details::jsonb, @person, @by)",
                new
                {
                    receipt.Id,
                    receipt.OrderId,
                    details = Text(receipt),
                    person,
                    by,
                }
            );
            foreach ((Guid id, byte[] jpeg, byte[] thumb) in photographs)
                await edit.Execute(
                    "insert into receipt_photo (id, receipt_id, jpeg, thumb) values (@id, @receipt, @jpeg, @thumb)",
                    new
                    {
                        id,
                        receipt = receipt.Id,
                        jpeg,
                        thumb,
                    }
                );
            foreach (CreditClaim claim in receipt.Claims(order))
                await edit.Execute(
                    "insert into credit_claim (id, order_id, details) values (@Id, @OrderId, @details::jsonb)",
                    new
                    {
                        claim.Id,
                        claim.OrderId,
                        details = Text(claim),
                    }
                );
            IReadOnlyList<Lot> lots = receipt.Lots(order, plan);
            if (lots.Count > 0)
            {
                await edit.Because(MovementKind.Received, receipt.Day);
                await edit.Put(lots);
            }
            edit.Says($"Order {order.Number} from {order.Supplier.Name}: {lots.Sum(l => l.Count)} plants received");
            return true;
        });

    /// <summary>All of it as it is kept in a file, but for photographs.</summary>
    public async Task<SupplyDocument> All()
    {
        SupplyNow now = await Now();
        return new SupplyDocument(
            [.. now.Suppliers.Select(s => s.It).OrderBy(s => s.Id, StringComparer.Ordinal)],
            await Offers(),
            [.. now.Orders.Select(o => o.It).OrderBy(o => o.Number ?? int.MaxValue).ThenBy(o => o.Id)],
            [.. now.Receipts.OrderBy(r => r.It.Day).ThenBy(r => r.It.Id)],
            [.. now.Claims.Select(c => c.It).OrderBy(c => c.Day).ThenBy(c => c.Id)],
            [.. now.Places.Select(p => p.It).OrderBy(p => p.Id, StringComparer.Ordinal)],
            [.. now.Materials.Select(m => m.It).OrderBy(m => m.Id, StringComparer.Ordinal)],
            [.. now.MaterialMovements.OrderBy(m => m.Day).ThenBy(m => m.Id)],
            [.. now.Budgets.Select(b => b.It).OrderBy(b => b.Year).ThenBy(b => b.Id)]
        );
    }

    /// <summary>Brings all of it from a file; what is there already stays as it is.</summary>
    /// <exception cref="InvalidInputException">Something in it is out of range, or does not fit together.</exception>
    public async Task Bring(SupplyDocument document)
    {
        document.Faults().ThrowIfAny();
        await using NpgsqlConnection connection = await database.Open();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        Task<int> Put<T>(string sql, IReadOnlyList<T> rows) =>
            rows.Count == 0
                ? Task.FromResult(0)
                : SqlFaults.Naming(() =>
                    connection.ExecuteAsync(
                        $"{sql} from jsonb_array_elements(@rows::jsonb) with ordinality as r (d, ordinal) order by ordinal on conflict do nothing",
                        new { rows = Text(rows) },
                        transaction
                    )
                );
        await Put("insert into supplier (id, details) select d ->> 'id', d", document.Suppliers);
        await Put(
            """
            insert into offer (supplier_id, ordinal, plant_id, details)
            select d ->> 'supplierId', row_number() over (partition by d ->> 'supplierId' order by ordinal), d ->> 'plantId', d
            """,
            document.Offers
        );
        await Put(
            "insert into purchase_order (id, number, stage, details) select (d ->> 'id')::uuid, (d ->> 'number')::int, initcap(d ->> 'stage'), d",
            document.Orders
        );
        await Put(
            """
            insert into receipt (id, order_id, details, by, recorded_at)
            select (d -> 'it' ->> 'id')::uuid, (d -> 'it' ->> 'orderId')::uuid, d -> 'it', d ->> 'by', (d ->> 'recordedAt')::timestamptz
            """,
            document.Receipts
        );
        await Put("insert into credit_claim (id, order_id, details) select (d ->> 'id')::uuid, (d ->> 'orderId')::uuid, d", document.Claims);
        await Put("insert into holding_place (id, details) select d ->> 'id', d", document.Places);
        await Put("insert into material (id, details) select d ->> 'id', d", document.Materials);
        await Put(
            "insert into material_movement (id, material_id, details) select (d ->> 'id')::uuid, d ->> 'materialId', d",
            document.MaterialMovements
        );
        await Put("insert into budget (id, details) select d ->> 'id', d", document.Budgets);
        await transaction.CommitAsync();
    }

    /// <summary>Every photograph of deliveries, with the delivery that it shows.</summary>
    public async Task<IReadOnlyList<(Guid Id, Guid ReceiptId)>> AllPhotographs()
    {
        await using NpgsqlConnection connection = await database.Open();
        return [.. await connection.QueryAsync<(Guid, Guid)>("select id, receipt_id from receipt_photo order by id")];
    }

    /// <summary>Puts a photograph to a delivery that is written down.</summary>
    public async Task AddPhotograph(Guid id, Guid receiptId, byte[] jpeg, byte[] thumb)
    {
        await using NpgsqlConnection connection = await database.Open();
        await connection.ExecuteAsync(
            "insert into receipt_photo (id, receipt_id, jpeg, thumb) values (@id, @receiptId, @jpeg, @thumb) on conflict do nothing",
            new
            {
                id,
                receiptId,
                jpeg,
                thumb,
            }
        );
    }

    /// <summary>Photographs of a delivery.</summary>
    public async Task<IReadOnlyList<Guid>> Photographs(Guid receipt)
    {
        await using NpgsqlConnection connection = await database.Open();
        return [.. await connection.QueryAsync<Guid>("select id from receipt_photo where receipt_id = @receipt order by id", new { receipt })];
    }

    /// <summary>A photograph's JPEG; null when there is none.</summary>
    public async Task<byte[]?> Photograph(Guid id, bool small)
    {
        await using NpgsqlConnection connection = await database.Open();
        return await connection.QuerySingleOrDefaultAsync<byte[]>(
            small ? "select thumb from receipt_photo where id = @id" : "select jpeg from receipt_photo where id = @id",
            new { id }
        );
    }

    /// <summary>Claims a credit for plants that turned out wrong after they were accepted.</summary>
    /// <exception cref="InvalidInputException">So many did not come, or are claimed already.</exception>
    public async Task Claim(Guid orderId, int line, int plants, RefusalReason reason, LocalDate day)
    {
        await using NpgsqlConnection connection = await database.Open();
        await using NpgsqlTransaction transaction = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync("select from purchase_order where id = @orderId for update", new { orderId }, transaction);
        SupplyNow now = await Now();
        OrderAccount account = now.Account(orderId) ?? throw new LostUpdateException("This order", isGone: true);
        if (account.Lines.All(l => l.Line.Number != line))
            throw new InvalidInputException("line", "is not a line of this order");
        CreditClaim claim = CreditClaim.For(account.Order, line, plants, reason, day);
        int claimed = now.Claims.Where(c => c.It.OrderId == orderId && c.It.Line == line).Sum(c => c.It.Plants);
        if (claim.Faults(account, claimed) is { Count: > 0 } faults)
            throw new InvalidInputException(faults);
        await connection.ExecuteAsync(
            "insert into credit_claim (id, order_id, details) values (@Id, @OrderId, @details::jsonb)",
            new
            {
                claim.Id,
                claim.OrderId,
                details = Text(claim),
            },
            transaction
        );
        await transaction.CommitAsync();
    }

    /// <summary>Settles a credit: what was given in the end, 0 where it was turned down.</summary>
    /// <exception cref="InvalidInputException">It is more than was claimed.</exception>
    /// <exception cref="LostUpdateException">Somebody has settled it in between.</exception>
    public async Task Settle(Guid claimId, long version, decimal settled, LocalDate day)
    {
        SupplyNow now = await Now();
        CreditClaim claim = now.Claims.FirstOrDefault(c => c.It.Id == claimId)?.It ?? throw new LostUpdateException("This credit", isGone: true);
        if (settled < 0 || settled > claim.Amount)
            throw new InvalidInputException("settled", $"must be from 0 to the {claim.Amount:0.00} that were claimed");
        await using NpgsqlConnection connection = await database.Open();
        int done = await connection.ExecuteAsync(
            "update credit_claim set details = @details::jsonb where id = @claimId and version = @version",
            new
            {
                claimId,
                version,
                details = Text(claim with { Settled = settled, SettledOn = day }),
            }
        );
        if (done == 0)
            throw new LostUpdateException("This credit");
    }

    /// <summary>Adds a place of the holding area, or changes one.</summary>
    public Task Save(HoldingPlace place, long? version) => Save("holding_place", place.Id, place, place.Faults(), version, "This place");

    /// <summary>Removes a place of the holding area; lots keep its name.</summary>
    public Task RemovePlace(string id, long version) => Drop("holding_place", id, version, "This place");

    /// <summary>Adds a material, or changes one.</summary>
    public Task Save(Material material, long? version) => Save("material", material.Id, material, material.Faults(), version, "This material");

    /// <summary>Adds a budget, or changes one.</summary>
    public Task Save(Budget budget, long? version) => Save("budget", budget.Id.ToString(), budget, budget.Faults(), version, "This budget");

    /// <summary>Removes a budget.</summary>
    public Task RemoveBudget(Guid id, long version) => Drop("budget", id.ToString(), version, "This budget");

    /// <summary>Writes movements of materials down; one whose id is known already is not written again.</summary>
    public async Task Record(IReadOnlyList<MaterialMovement> movements, Guid? person)
    {
        await using NpgsqlConnection connection = await database.Open();
        await SqlFaults.Naming(() =>
            connection.ExecuteAsync(
                """
                insert into material_movement (id, material_id, details, person_id)
                select (r.details ->> 'id')::uuid, r.details ->> 'materialId', r.details, @person from jsonb_array_elements(@rows::jsonb) as r (details)
                on conflict (site_id, id) do nothing
                """,
                new { rows = Text(movements), person }
            )
        );
    }

    /// <summary>Takes plants out of a lot, and writes down why.</summary>
    /// <param name="lotId">The lot.</param>
    /// <param name="version">The version at which it was read.</param>
    /// <param name="count">How many.</param>
    /// <param name="kind">Why.</param>
    /// <param name="day">The day.</param>
    /// <exception cref="InvalidInputException">There are not so many.</exception>
    /// <exception cref="LostUpdateException">Somebody has changed the lot in between.</exception>
    public Task TakeOut(string lotId, long version, int count, MovementKind kind, LocalDate day) =>
        plans.Write(async edit =>
        {
            await edit.Expect("lot", [(lotId, version)], _ => "This lot");
            Lot lot = edit.Before.Plan.Lots.First(l => l.Id == lotId);
            if (count < 1 || count > lot.Count)
                throw new InvalidInputException("count", $"must be from 1 to the {lot.Count} that are there");
            await edit.Because(kind, day);
            await edit.Put([lot with { Count = lot.Count - count }]);
            return true;
        });

    /// <summary>Where the plants at hand came from and went to, by kind.</summary>
    public async Task<IReadOnlyList<StockAccount>> Account()
    {
        await using NpgsqlConnection connection = await database.Open();
        return StockAccount.Of(
            (
                await connection.QueryAsync<(string LotId, string PlantId, LocalDate Day, int Change, string Kind)>(
                    "select '' as lot_id, plant_id, max(day) as day, sum(change)::int as change, kind from lot_movement group by plant_id, kind"
                )
            ).Select(m => new StockMovement(m.LotId, m.PlantId, m.Day, m.Change, Enum.Parse<MovementKind>(m.Kind)))
        );
    }

    // Why the lots that this transaction changes become more or fewer; the database writes it down.
    private static string Name(PurchaseOrder order) => order.Number is { } number ? $"Order {number}" : "This draft";

    private async Task Save<T>(string table, string id, T it, IReadOnlyList<Fault> faults, long? version, string what)
    {
        if (faults.Count > 0)
            throw new InvalidInputException(faults);
        await using NpgsqlConnection connection = await database.Open();
        int done = await SqlFaults.Naming(() =>
            connection.ExecuteAsync(
                version is null
                    ? $"insert into {table} (id, details) values (@id, @details::jsonb) on conflict do nothing"
                    : $"update {table} set details = @details::jsonb where id = @id and version = @version",
                new
                {
                    id,
                    version,
                    details = Text(it),
                }
            )
        );
        if (done == 0 && version is null)
            throw new InvalidInputException("name", "is another's already: give it a name of its own");
        if (done == 0)
            throw new LostUpdateException(what);
    }

    private async Task Drop(string table, string id, long version, string what)
    {
        await using NpgsqlConnection connection = await database.Open();
        if (await connection.ExecuteAsync($"delete from {table} where id = @id and version = @version", new { id, version }) == 0)
            throw new LostUpdateException(what);
    }

    private async Task<IReadOnlyList<Kept<T>>> Read<T>(SqlMapper.GridReader read) =>
        [.. (await read.ReadAsync<Row>()).Select(r => new Kept<T>(From<T>(r.Details), r.Version))];

    private string Text<T>(T value) => JsonSerializer.Serialize(value, _json);

    private T From<T>(string text) => JsonSerializer.Deserialize<T>(text, _json)!;

    private sealed record Row(string Details, long Version);

    private sealed record ReceiptRow(string Details, string By, Instant RecordedAt);
}

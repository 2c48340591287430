using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Work;
using UnrulyMeadow.Exchange.PlanFiles;

namespace UnrulyMeadow.Reckon;

/// <summary>Something to order.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Count">Planned, 1 to 100,000.</param>
/// <param name="Packs">How it is sold.</param>
public sealed record OrderItemInput(string Name, int Count, IReadOnlyList<Pack> Packs);

/// <summary>Input of <c>order</c>: items, or a plan file with a turn.</summary>
/// <param name="Items">What to order.</param>
/// <param name="SpareShare">Spares, 0 to 0.5; default 0.05.</param>
/// <param name="PlanFile">Path of a plan file, instead of items.</param>
/// <param name="TurnId">The turn of that plan.</param>
public sealed record OrderInput(
    IReadOnlyList<OrderItemInput>? Items = null,
    double SpareShare = 0.05,
    string? PlanFile = null,
    string? TurnId = null
);

/// <summary>One kind of pack bought.</summary>
public sealed record PackOutput(string Form, int Size, int Packs);

/// <summary>A line ordered.</summary>
public sealed record OrderLineOutput(string Name, int Planned, int WithSpares, int Bought, IReadOnlyList<PackOutput> Packs, decimal Cost);

/// <summary>Output of <c>order</c>.</summary>
public sealed record OrderOutput(IReadOnlyList<OrderLineOutput> Lines, double MediumLitres, int MediumBags, decimal Cost);

/// <summary>Topics of the whole plan.</summary>
internal static class PlanTopics
{
    public static Topic Order { get; } =
        new Topic<OrderInput, OrderOutput>("order", "cheapest packs for counts with spares, or for a whole turn of a plan", input =>
        {
            if ((input.Items is null) == (input.PlanFile is null))
                throw new InvalidInputException("items", "give either items or planFile with turnId");
            if (input.PlanFile is { } file)
            {
                Plan plan = ReadPlan(file, "planFile");
                Turn turn = plan.Turns.FirstOrDefault(t => t.Id == input.TurnId)
                    ?? throw new InvalidInputException("turnId", $"must be one of {string.Join(", ", plan.Turns.Select(t => t.Id))}");
                TurnOrder order = TurnOrder.For(plan, turn);
                return (
                    new OrderOutput(
                        [.. order.Lines.Select(l => Line(l.Plant.CommonName, l.Planned, l.Purchase))],
                        Math.Round(order.MediumLitres, 1),
                        order.MediumBags,
                        order.Cost
                    ),
                    [.. order.Lines.Select(order.Explain), order.ExplainMedium()]
                );
            }
            return Items(input);
        });

    private static (OrderOutput Output, IReadOnlyList<Working> Working) Items(OrderInput input)
    {
        var faults = new FaultList();
        faults.Range("spareShare", input.SpareShare, 0, 0.5, string.Empty);
        for (int i = 0; i < input.Items!.Count; i++)
        {
            OrderItemInput item = input.Items[i];
            faults.Range($"items[{i}].count", item.Count, 1, 100_000, string.Empty);
            if (item.Packs.Count == 0)
                faults.Add($"items[{i}].packs", "must hold at least one pack");
            for (int k = 0; k < item.Packs.Count; k++)
            {
                faults.Range($"items[{i}].packs[{k}].size", item.Packs[k].Size, 1, 1000, "plants");
                faults.Range($"items[{i}].packs[{k}].price", (double)item.Packs[k].Price, 0, 100_000, string.Empty);
            }
        }
        faults.ThrowIfAny();
        var bought = input
            .Items.Select(i => (Item: i, Purchase: PackPurchase.Cheapest(PackPurchase.WithSpares(i.Count, input.SpareShare), i.Packs)))
            .ToList();
        return (
            new OrderOutput([.. bought.Select(b => Line(b.Item.Name, b.Item.Count, b.Purchase))], 0, 0, bought.Sum(b => b.Purchase.Cost)),
            [
                .. bought.Select(b => new Working(
                    WorkingKind.PackOrder,
                    new Fact(WorkingPhrase.BoughtFor, ("bought", b.Purchase.Bought), ("cost", Quantity.Number((double)b.Purchase.Cost, 2))),
                    [new WorkingInput(InputName.Planned, b.Item.Count), new WorkingInput(InputName.Spares, Quantity.Share(input.SpareShare))],
                    [
                        new Fact(
                            WorkingPhrase.PackStep,
                            ("wanted", b.Purchase.Wanted),
                            (
                                "packs",
                                b.Purchase.Packs.Select(p => new Fact(WorkingPhrase.PacksOf, ("count", p.Packs), ("form", p.Pack.Form))).ToList()
                            )
                        ),
                    ]
                )
                {
                    Parts = [("name", b.Item.Name)],
                }),
            ]
        );
    }

    private static OrderLineOutput Line(string name, int planned, PackPurchase p) =>
        new(name, planned, p.Wanted, p.Bought, [.. p.Packs.Select(x => new PackOutput(x.Pack.Form, x.Pack.Size, x.Packs))], p.Cost);

    internal static Plan ReadPlan(string path, string field)
    {
        if (!File.Exists(path))
            throw new InvalidInputException(field, $"there is no file \"{path}\"");
        using FileStream stream = File.OpenRead(path);
        return PlanFile.Read(stream);
    }
}

using System.Security.Cryptography;
using System.Text.Json;
using NodaTime;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Core.Work;
using UnrulyMeadow.Solver;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web.Jobs;

/// <summary>Asks what to buy where for a turn.</summary>
/// <param name="TurnId">The turn.</param>
/// <param name="Today">The day of the order.</param>
/// <param name="Plugs">True where plugs that are grown on here will do.</param>
/// <param name="State">The state of suppliers, offers, choices and orders that it is asked of.</param>
/// <param name="Wanted">What stands for the needs that it is asked of (<see cref="MarkOf"/>).</param>
public sealed record BasketAsk(string TurnId, LocalDate Today, bool Plugs, string State, string Wanted) : INamesItsInputs
{
    // Plugs are potted on into pots of nine centimetres that stand side by side (common practice).
    private const double PlugsInM2 = 120;

    /// <summary>What each turn still has to get.</summary>
    public static IReadOnlyList<SupplyNeed> Needs(Plan plan, Turn turn, SupplyNow supply, LocalDate today) =>
        SupplyNeed.Of(TurnOrder.For(plan, turn, today), supply.Accounts, plan.Lots);

    /// <summary>What stands for some needs: the same for as long as the same is wanted, whatever else changes in the plan.</summary>
    public static string MarkOf(IReadOnlyList<SupplyNeed> needs) =>
        Convert.ToHexString(
            SHA256.HashData(
                JsonSerializer.SerializeToUtf8Bytes(needs.Select(n => new WantedKind(n.Line.Plant, n.Line.Form.Name, n.Open, n.By)), JobJson.Options)
            )
        );

    /// <summary>The question in full.</summary>
    /// <exception cref="Core.InvalidInputException">The turn is gone, or something else is wanted now.</exception>
    public static async Task<BasketQuestion> Question(Plan plan, SupplyStore store, BasketAsk ask)
    {
        Turn turn = plan.Turns.FirstOrDefault(t => t.Id == ask.TurnId) ?? throw new Core.InvalidInputException("turn", "is no longer in the plan");
        SupplyNow supply = await store.Now();
        IReadOnlyList<SupplyNeed> needs = Needs(plan, turn, supply, ask.Today);
        if (MarkOf(needs) != ask.Wanted || await store.Mark() != ask.State)
            throw new Core.InvalidInputException(string.Empty, "what is wanted, or what is offered, has changed since this was asked: ask again");
        return await Question(needs, store, supply, ask);
    }

    /// <summary>The question in full, where what the turn needs is known.</summary>
    public static async Task<BasketQuestion> Question(IReadOnlyList<SupplyNeed> needs, SupplyStore store, SupplyNow supply, BasketAsk ask)
    {
        IReadOnlyList<Offer> offers = await store.Offers([.. needs.Select(n => n.Line.Plant.Id).Distinct(StringComparer.Ordinal)]);
        Dictionary<string, SupplyChoice> choices = supply.Choices.GetValueOrDefault(ask.TurnId) ?? [];
        // Where no place of the holding area is known, nobody can say how many it takes.
        double? room =
            supply.Places.Count == 0
                ? null
                : supply.Places.Where(p => p.It.Kind is HoldingKind.ColdFrame or HoldingKind.FrostFree or HoldingKind.Bench).Sum(p => p.It.RoomM2);
        return BasketAsking.Of(
            needs,
            [.. supply.Suppliers.Select(s => s.It)],
            offers,
            kind => choices.GetValueOrDefault(kind) is { } c ? (c.SupplierId, c.Form) : null,
            ask.Plugs,
            room is { } m2 ? (int)(m2 * PlugsInM2) : null,
            ask.Today
        );
    }
}

/// <summary>What a need asks of those who offer.</summary>
internal sealed record WantedKind(Plant Plant, string Form, int Open, LocalDate By);

/// <summary>A line of a basket, by where its need stands in the question.</summary>
public sealed record BasketPick(int Need, string SupplierId, string Form, int PackSize, int Packs);

/// <summary>What to buy where, as it is kept.</summary>
/// <param name="Picks">Lines.</param>
/// <param name="Unserved">Places of needs that nobody serves.</param>
/// <param name="Cost">What it costs in all.</param>
/// <param name="Bound">No basket costs less; 0 where that is not known yet.</param>
/// <param name="IsBest">True where it is proven that none is cheaper.</param>
public sealed record BasketResult(IReadOnlyList<BasketPick> Picks, IReadOnlyList<int> Unserved, decimal Cost, decimal Bound, bool IsBest)
{
    /// <summary>An answer as it is kept.</summary>
    public static BasketResult Of(BasketAnswer answer)
    {
        List<BasketNeed> needs = [.. answer.Basket.Question.Needs];
        int At(BasketNeed need) => needs.FindIndex(n => ReferenceEquals(n, need));
        return new BasketResult(
            [.. answer.Basket.Lines.Select(l => new BasketPick(At(l.Need), l.Offer.SupplierId, l.Offer.Form, l.Offer.PackSize, l.Packs))],
            [.. answer.Basket.Unserved.Select(At)],
            answer.Basket.Cost,
            answer.Bound,
            answer.IsBest
        );
    }

    /// <summary>The basket of a question as it is now; lines whose need or offer is gone are left out.</summary>
    public Basket Over(BasketQuestion question) =>
        new(
            question,
            [
                .. Picks
                    .Where(p => p.Need >= 0 && p.Need < question.Needs.Count)
                    .Select(p =>
                        (
                            Need: question.Needs[p.Need],
                            Offer: question.Offers.FirstOrDefault(o =>
                                o.SupplierId == p.SupplierId
                                && o.PlantId == question.Needs[p.Need].PlantId
                                && o.Form == p.Form
                                && o.PackSize == p.PackSize
                            ),
                            p.Packs
                        )
                    )
                    .Where(p => p.Offer is not null)
                    .Select(p => new BasketLine(p.Need, p.Offer!, p.Packs)),
            ],
            [.. Unserved.Where(n => n >= 0 && n < question.Needs.Count).Select(n => question.Needs[n])]
        );
}

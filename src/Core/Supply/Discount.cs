using System.Text.Json.Serialization;

namespace UnrulyMeadow.Core.Supply;

/// <summary>What a supplier takes off a bill. All are reckoned from the sum of the goods before anything is taken off.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(OffForEvery), "offForEvery")]
[JsonDerivedType(typeof(ShareFrom), "shareFrom")]
public abstract record Discount
{
    /// <summary>What it takes off, in the supplier's money.</summary>
    /// <param name="goods">The sum of the goods.</param>
    public abstract decimal Off(decimal goods);

    /// <summary>Every fault of its figures.</summary>
    public abstract IReadOnlyList<Fault> Faults();
}

/// <summary>So much off for every full sum, up to a limit: "for every full 25, 5 off, up to 20".</summary>
/// <param name="Every">The sum, above 0.</param>
/// <param name="Each">Taken off for each, above 0 and below the sum.</param>
/// <param name="Most">Taken off in all at most.</param>
public sealed record OffForEvery(decimal Every, decimal Each, decimal Most) : Discount
{
    /// <inheritdoc />
    public override decimal Off(decimal goods) => Math.Min(Most, Math.Floor(goods / Every) * Each);

    /// <inheritdoc />
    public override IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Range("every", (double)Every, 0.01, 1_000_000, string.Empty);
        faults.Range("each", (double)Each, 0.01, 1_000_000, string.Empty);
        faults.Range("most", (double)Most, (double)Each, 1_000_000, string.Empty);
        if (Each >= Every)
            faults.Add("each", "must be less than the sum that it is taken off for: such a discount never ends");
        return faults.Faults;
    }
}

/// <summary>A share off once the goods reach a sum. Of several, the highest that is reached counts alone.</summary>
/// <param name="From">The sum.</param>
/// <param name="Share">Share taken off, above 0 and below 1.</param>
public sealed record ShareFrom(decimal From, decimal Share) : Discount
{
    /// <inheritdoc />
    public override decimal Off(decimal goods) => goods >= From ? Math.Round(goods * Share, 2, MidpointRounding.AwayFromZero) : 0;

    /// <inheritdoc />
    public override IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        faults.Range("from", (double)From, 0, 1_000_000, string.Empty);
        faults.Range("share", (double)Share, 0.0001, 0.95, string.Empty);
        return faults.Faults;
    }
}

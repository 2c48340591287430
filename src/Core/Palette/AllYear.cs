using UnrulyMeadow.Core.Facts;

namespace UnrulyMeadow.Core.Palette;

/// <summary>Coloured leaf that stands all year, as long as the plant lives.</summary>
public sealed record AllYear : ColourRule
{
    /// <inheritdoc />
    public override void WriteShares(Span<double> share, Growing growing)
    {
        share.Fill(1);
        growing.ClearOutside(share);
        growing.ClearAfterFrost(share);
    }

    /// <inheritdoc />
    public override IReadOnlyList<Fault> Faults() => [];

    /// <inheritdoc />
    public override Fact Describe() => new(ColourRuleKind.AllYear);

    /// <inheritdoc />
    public override bool FollowsTheCrew => true;
}

namespace UnrulyMeadow.Core.Trials;

/// <summary>Places of a trial that are alike: pots of one terrace, or a bed. What differs within it is chance.</summary>
/// <param name="Id">Its own id.</param>
/// <param name="Plots">Places in it, each for one kind.</param>
public sealed record TrialBlock(string Id, int Plots);

/// <summary>What stands where in a trial.</summary>
/// <param name="BlockId">The block.</param>
/// <param name="Place">The place in it, from 1.</param>
/// <param name="KindId">The kind.</param>
public sealed record TrialPlot(string BlockId, int Place, string KindId);

/// <summary>
/// Lays a trial out with repeats and chance: as a randomised complete block design where every block has room for every kind, and as an incomplete
/// one where not (R. A. Fisher, The Design of Experiments, 1935; F. Yates, 1936).
/// </summary>
public static class TrialLayout
{
    /// <summary>Most kinds in one trial.</summary>
    public const int MostKinds = 60;

    /// <summary>Most blocks, and most plots in one.</summary>
    public const int MostBlocks = 200;

    // Draws until all kinds can be compared; where it takes more, the blocks are too small for it.
    private const int MostDraws = 50;

    /// <summary>
    /// Lays it out: no kind stands a second time in a block before all stand there once, none stands more often than another by more than one
    /// plot, and any two can be compared, if only by way of others.
    /// </summary>
    /// <param name="kinds">Ids of the kinds.</param>
    /// <param name="blocks">The blocks.</param>
    /// <param name="seed">Where chance begins; the same gives the same.</param>
    /// <exception cref="InvalidInputException">Too few of anything, or too many; or blocks so small that some kinds cannot be compared.</exception>
    public static IReadOnlyList<TrialPlot> Of(IReadOnlyList<string> kinds, IReadOnlyList<TrialBlock> blocks, int seed)
    {
        var faults = new FaultList();
        if (kinds.Distinct(StringComparer.Ordinal).Count() != kinds.Count)
            faults.Add("kinds", "names one twice");
        if (kinds.Count is < 2 or > MostKinds)
            faults.Add("kinds", $"must be 2 to {MostKinds} (there are {kinds.Count})");
        if (blocks.Select(b => b.Id).Distinct(StringComparer.Ordinal).Count() != blocks.Count)
            faults.Add("blocks", "names one twice");
        if (blocks.Count is < 1 or > MostBlocks)
            faults.Add("blocks", $"must be 1 to {MostBlocks} (there are {blocks.Count})");
        for (int i = 0; i < blocks.Count; i++)
        {
            if (blocks[i].Plots is < 2 or > MostBlocks)
                faults.Add($"blocks[{i}].plots", $"must be 2 to {MostBlocks}: one plot by itself is compared with nothing");
        }
        if (faults.IsEmpty && blocks.Sum(b => b.Plots) < 2 * kinds.Count)
            faults.Add("blocks", $"must have room for every kind twice ({2 * kinds.Count} plots): what stands once tells nothing of chance");
        faults.ThrowIfAny();
        var random = new Random(seed);
        for (int draw = 0; draw < MostDraws; draw++)
        {
            List<TrialPlot> plots = Draw(kinds, blocks, random);
            if (IsConnected(plots.Select(p => (p.KindId, p.BlockId))))
                return plots;
        }
        throw new InvalidInputException("blocks", "are too small to compare all kinds: join some, or take fewer kinds");
    }

    /// <summary>True where any two kinds can be compared: they share a block, or each shares one with a third, and so on.</summary>
    internal static bool IsConnected(IEnumerable<(string Kind, string Block)> plots)
    {
        ILookup<string, string> blocksOf = plots.ToLookup(p => p.Kind, p => p.Block, StringComparer.Ordinal);
        ILookup<string, string> kindsIn = plots.ToLookup(p => p.Block, p => p.Kind, StringComparer.Ordinal);
        if (blocksOf.Count == 0)
            return true;
        var reached = new HashSet<string>(StringComparer.Ordinal) { blocksOf.First().Key };
        var open = new Stack<string>(reached);
        while (open.TryPop(out string? kind))
        {
            foreach (string other in blocksOf[kind].SelectMany(b => kindsIn[b]))
            {
                if (reached.Add(other))
                    open.Push(other);
            }
        }
        return reached.Count == blocksOf.Count;
    }

    private static List<TrialPlot> Draw(IReadOnlyList<string> kinds, IReadOnlyList<TrialBlock> blocks, Random random)
    {
        int[] all = new int[kinds.Count];
        int[,] met = new int[kinds.Count, kinds.Count];
        var plots = new List<TrialPlot>();
        foreach (TrialBlock block in blocks)
        {
            int[] here = new int[kinds.Count];
            var chosen = new List<int>();
            for (int plot = 0; plot < block.Plots; plot++)
            {
                // The rarest here, then the rarest in all, then who met the fewest of those that are here; among these, chance.
                int next = Enumerable.Range(0, kinds.Count).OrderBy(k => (here[k], all[k], chosen.Sum(c => met[k, c]), random.Next())).First();
                here[next]++;
                all[next]++;
                chosen.Add(next);
            }
            for (int i = 0; i < chosen.Count; i++)
            {
                for (int j = 0; j < i; j++)
                {
                    met[chosen[i], chosen[j]]++;
                    met[chosen[j], chosen[i]]++;
                }
            }
            int[] order = [.. chosen];
            random.Shuffle(order);
            plots.AddRange(order.Select((kind, place) => new TrialPlot(block.Id, place + 1, kinds[kind])));
        }
        return plots;
    }
}

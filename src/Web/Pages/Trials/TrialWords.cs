using System.Globalization;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Trials;

namespace UnrulyMeadow.Web.Pages.Trials;

/// <summary>A trial's answer in a sentence.</summary>
internal static class TrialWords
{
    /// <summary>Says it.</summary>
    public static string Answer(TrialResult result, Plan plan)
    {
        string Name(string id) => plan.FindPlant(id)?.CommonName ?? id;
        KindInTrial best = result.Kinds[0];
        if (result.ByChance is not { } odds)
            return $"{Name(best.KindId)} is ahead, but nothing tells yet of chance: score more.";
        if (!result.IsClear)
            return $"Nothing can be told apart yet: chance alone sets kinds so far apart in {odds.ToString("0 %", CultureInfo.InvariantCulture)} of such trials.";
        List<string> alike = [.. result.Kinds.Skip(1).Where(k => k.MayBeBest).Select(k => Name(k.KindId))];
        int worse = result.Kinds.Count - 1 - alike.Count;
        return $"{Name(best.KindId)} does best"
            + (alike.Count == 0 ? string.Empty : $"; {string.Join(", ", alike)} cannot be told from it")
            + (worse == 0 ? "." : $"; {(worse == 1 ? "one is" : $"{worse} are")} worse.");
    }
}

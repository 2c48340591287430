using UnrulyMeadow.Core.Checks;

namespace UnrulyMeadow.Web.Site;

/// <summary>Remarks with their remedies as buttons of a form.</summary>
/// <param name="Remarks">The remarks, the gravest first.</param>
/// <param name="FormId">Id of the form that the buttons send.</param>
/// <param name="Action">Where they send it.</param>
/// <param name="Nothing">What is said when there is nothing.</param>
public sealed record RemarksView(IReadOnlyList<Remark> Remarks, string FormId, string Action, string Nothing = "Nothing.")
{
    private const string Between = "||";

    /// <summary>The value that a remedy's button sends.</summary>
    public static string Value(Remark remark, Remedy remedy) => string.Join(Between, remark.DisplayId, remark.Says.Key, remedy.Does.Key);

    /// <summary>The remedy that a button's value names, or null when the remark is there no more.</summary>
    public static (Remark Remark, Remedy Remedy)? Find(IEnumerable<Remark> remarks, string? value)
    {
        foreach (Remark remark in remarks)
        {
            foreach (Remedy remedy in remark.Remedies)
            {
                if (Value(remark, remedy) == value)
                    return (remark, remedy);
            }
        }
        return null;
    }
}

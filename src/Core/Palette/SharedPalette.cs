namespace UnrulyMeadow.Core.Palette;

/// <summary>
/// What a site takes from the palette that the sites of an organisation share. It follows figure by figure what it has not made its own: a
/// kind whose figures here are those that it was given last is changed with the shared one; a kind that was changed, added or removed here stays as
/// it is here.
/// </summary>
/// <param name="Take">Kinds to add, and kinds to change, as they are to be here.</param>
/// <param name="Remove">Ids of kinds to remove, where nothing uses them: no longer shared, and never changed here.</param>
/// <param name="Own">Ids of shared kinds in which the site goes its own way: changed here, in the palette's order, and then those taken out here.</param>
/// <param name="More">Ids of kinds that are here alone.</param>
/// <param name="NewCount">How many of those to take were not here.</param>
public sealed record SharedPalette(
    IReadOnlyList<Plant> Take,
    IReadOnlyList<string> Remove,
    IReadOnlyList<string> Own,
    IReadOnlyList<string> More,
    int NewCount
)
{
    /// <summary>Nothing to take and nothing to remove.</summary>
    public bool IsFollowed => Take.Count + Remove.Count == 0;

    /// <summary>Compares a site's palette with the shared one.</summary>
    /// <param name="here">The site's palette.</param>
    /// <param name="given">What the site was given by the last sharing that it followed, by id; null for what it never was.</param>
    /// <param name="usual">
    /// The figures that ship with the app, by id: a kind that was never given and has them is nobody's own either. Only what was given is taken out
    /// again.
    /// </param>
    /// <param name="shared">The shared palette as it is now.</param>
    /// <param name="figures">All figures of a plant in one text, by which two are compared.</param>
    public static SharedPalette Of(
        IReadOnlyList<Plant> here,
        Func<string, Plant?> given,
        Func<string, Plant?> usual,
        IReadOnlyList<Plant> shared,
        Func<Plant, string> figures
    )
    {
        bool IsSame(Plant one, Plant other) => ReferenceEquals(one, other) || figures(one) == figures(As(other, one));
        var now = shared.ToDictionary(p => p.Id, StringComparer.Ordinal);
        var present = here.ToDictionary(p => p.Id, StringComparer.Ordinal);
        var take = new List<Plant>();
        var remove = new List<string>();
        var own = new List<string>();
        var more = new List<string>();
        foreach (Plant plant in here)
        {
            Plant? last = given(plant.Id);
            bool isUntouched = (last ?? usual(plant.Id)) is { } known && IsSame(plant, known);
            if (!now.TryGetValue(plant.Id, out Plant? common))
            {
                if (isUntouched && last is not null)
                    remove.Add(plant.Id);
                else
                    more.Add(plant.Id);
            }
            else if (!IsSame(plant, common))
            {
                if (isUntouched)
                    take.Add(As(common, plant));
                else
                    own.Add(plant.Id);
            }
        }
        List<Plant> absent = [.. shared.Where(p => !present.ContainsKey(p.Id))];
        List<Plant> added = [.. absent.Where(p => given(p.Id) is null).Select(p => As(p, null))];
        own.AddRange(absent.Where(p => given(p.Id) is not null).Select(p => p.Id));
        return new SharedPalette([.. added, .. take], remove, own, more, added.Count);
    }

    /// <summary>A shared plant as a site takes it: whether it is retired there and on the shortlist is that site's affair.</summary>
    /// <param name="shared">The shared figures.</param>
    /// <param name="here">The plant as it is there; null where it is not.</param>
    public static Plant As(Plant shared, Plant? here) =>
        shared with
        {
            IsRetired = here?.IsRetired ?? false,
            IsShortlisted = here?.IsShortlisted ?? false,
        };
}

using UnrulyMeadow.Wording;

namespace UnrulyMeadow.Web.Site;

/// <summary>A field that takes a photograph of what was seen.</summary>
/// <param name="Id">The field's id on its page.</param>
/// <param name="Crew">Words in the language of who holds the phone.</param>
public sealed record PictureView(string Id, FactWriter Crew);

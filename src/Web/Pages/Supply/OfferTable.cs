using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Supply;

namespace UnrulyMeadow.Web.Pages.Supply;

/// <summary>Offers as a table.</summary>
/// <param name="Offers">The offers.</param>
/// <param name="Plan">The plan, whose palette names the kinds.</param>
/// <param name="Money">The sign of the money.</param>
/// <param name="Rows">What its order is remembered by, where it stands whole; null where it does not.</param>
public sealed record OfferTable(IReadOnlyList<Offer> Offers, Plan Plan, string Money, string? Rows = null);

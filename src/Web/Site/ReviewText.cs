using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Review;

namespace UnrulyMeadow.Web.Site;

/// <summary>What a review walk found, in words.</summary>
public static class ReviewText
{
    /// <summary>Rating, what is to become of it, and what was seen: "4 of 5, the same again, 60 % hidden, in colour".</summary>
    public static string Found(FactWriter crew, PlanterReview review) =>
        crew.Crew(
            "ReviewFound",
            ("rating", review.Rating),
            ("best", PlanterReview.Best),
            ("verdict", review.Verdict),
            ("cover", review.CoverPct is { } share ? crew.Of(Quantity.Share(share / 100.0)) : null),
            ("shows", review.IsInColour == true),
            ("bare", review.IsInColour == false)
        );
}

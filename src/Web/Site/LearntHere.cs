using NodaTime;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web.Site;

/// <summary>Asks what was learnt of some planters, for whoever plans what stands there next.</summary>
/// <param name="PlanterIds">The planters.</param>
/// <param name="Day">The day that is planned for; null for today.</param>
public sealed record LearntQuestion(IReadOnlyList<string> PlanterIds, LocalDate? Day = null);

/// <summary>What was learnt of some planters.</summary>
/// <param name="Notes">Notes and ratings, latest first.</param>
/// <param name="Pictures">Their pictures of about the same time in an earlier year, the nearest first.</param>
public sealed record Learnt(IReadOnlyList<Observation> Notes, IReadOnlyList<PlanterPhoto> Pictures);

/// <summary>Notes, ratings and last year's pictures of a place, shown where its next display, recipe or order is made.</summary>
public sealed class LearntHere(LogStore log, PhotoStore photos)
{
    private const int MostNotes = 6;
    private const int MostPictures = 2;
    private const int MostPlantersPictured = 12;
    private const int NearDays = 60;

    /// <summary>Gathers it.</summary>
    public async Task<Learnt> Of(LearntQuestion question, LocalDate today)
    {
        if (question.PlanterIds.Count == 0)
            return new Learnt([], []);
        LocalDate day = question.Day ?? today;
        var pictures = new List<(PlanterPhoto Photo, int Apart)>();
        foreach (string planter in question.PlanterIds.Take(MostPlantersPictured))
            pictures.AddRange((await photos.Of(planter)).Where(p => p.TakenOn < day.PlusDays(-NearDays)).Select(p => (p, Apart(p.TakenOn, day))));
        return new Learnt(
            await log.Learnt(question.PlanterIds, MostNotes),
            [
                .. pictures
                    .Where(p => p.Apart <= NearDays)
                    .OrderByDescending(p => p.Photo.TakenOn.Year)
                    .ThenBy(p => p.Apart)
                    .Take(MostPictures)
                    .Select(p => p.Photo),
            ]
        );
    }

    // Days between two days of the year, the nearer way round.
    private static int Apart(LocalDate one, LocalDate other)
    {
        int days = Math.Abs(one.DayOfYear - other.DayOfYear);
        return Math.Min(days, 365 - days);
    }
}

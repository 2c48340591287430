using System.Text.Json;
using Hangfire;
using Hangfire.Server;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Acts;
using UnrulyMeadow.Core.Ahead;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Proposing;
using UnrulyMeadow.Core.Rehearsing;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Core.Sequencing;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Core.Turning;
using UnrulyMeadow.Solver;
using UnrulyMeadow.Store;
using UnrulyMeadow.Web.Safekeeping;
using UnrulyMeadow.Web.Site;
using UnrulyMeadow.Web.Sites;

namespace UnrulyMeadow.Web.Jobs;

/// <summary>The kinds of long work.</summary>
public static class JobKinds
{
    /// <summary>Closing bare spells.</summary>
    public const string CloseGaps = "close-gaps";

    /// <summary>Weighing the days of a turn.</summary>
    public const string TurnWindow = "turn-window";

    /// <summary>Rehearsing a mishap.</summary>
    public const string Rehearse = "rehearse";

    /// <summary>Spreading an area's bulbs over spring.</summary>
    public const string Sequence = "sequence";

    /// <summary>Laying kinds of bulbs over planters.</summary>
    public const string Spread = "spread";

    /// <summary>Building stacks for a planter.</summary>
    public const string Stack = "stack";

    /// <summary>Working out an act on many planters.</summary>
    public const string Act = "act";

    /// <summary>Proposing whole years.</summary>
    public const string Propose = "propose";

    /// <summary>Computing the years ahead.</summary>
    public const string Ahead = "ahead";

    /// <summary>Choosing what to buy where.</summary>
    public const string Basket = "basket";

    /// <summary>Placing the crew's work on days and teams.</summary>
    public const string Schedule = "schedule";

    /// <summary>Putting the stops of a day into order.</summary>
    public const string Route = "route";
}

/// <summary>
/// Does long work in the background of any process of the app. What a process leaves unfinished, because it ends or the database
/// goes away, is taken up again by another or by itself.
/// </summary>
/// <param name="waiting">What waits, of every site.</param>
/// <param name="scopes">Makes what belongs to one site.</param>
/// <param name="threads">Where the work is done.</param>
/// <param name="log">The log.</param>
public sealed class JobRunner(WaitingWork waiting, IServiceScopeFactory scopes, JobThreads threads, ILogger<JobRunner> log)
{
    private const int MostTries = 5;

    private static readonly TimeSpan Between = TimeSpan.FromMilliseconds(250);

    /// <summary>Does the jobs that wait, one after the other, whoever asked them: each person's turn comes round.</summary>
    /// <param name="context">The attempt; Hangfire fills it in.</param>
    /// <param name="stopping">Set when this process ends.</param>
    [AutomaticRetry(Attempts = MostTries, DelaysInSeconds = [1, 2, 5, 15, 30], LogEvents = false)]
    public async Task Run(PerformContext? context, CancellationToken stopping)
    {
        while (true)
        {
            if (await waiting.TakeNext() is { } taken)
            {
                await using AsyncServiceScope scope = scopes.CreateAsyncScope();
                CurrentSite site = scope.ServiceProvider.GetRequiredService<CurrentSite>();
                site.Enter(taken.Site);
                await Do(taken.Job, scope.ServiceProvider, site.Memory.State, stopping);
            }
            else if (!await waiting.IsAnySilent())
                return;
            else
                // Perhaps its worker ended; it can be taken when it has been silent for long enough.
                await Task.Delay(TimeSpan.FromSeconds(1), stopping);
        }
    }

    private async Task Do(Job job, IServiceProvider site, SiteState state, CancellationToken stopping)
    {
        JobStore jobs = site.GetRequiredService<JobStore>();
        for (int tries = 1; ; tries++)
        {
            using var off = CancellationTokenSource.CreateLinkedTokenSource(stopping);
            using var progress = new Progress(jobs, job.Id, off);
            // Progress is told and calling off is heard beside the work, which knows nothing of the database.
            Task told = progress.Tell(Between);
            long begun = System.Diagnostics.Stopwatch.GetTimestamp();
            void Ended(string how) => Telemetry.Tell(job.Kind, how, System.Diagnostics.Stopwatch.GetElapsedTime(begun));
            try
            {
                string result = await threads.Run(() => Work(job, site, state, progress, off.Token));
                await jobs.Finish(job.Id, result);
                Ended("done");
                return;
            }
            catch (InvalidInputException e)
            {
                await jobs.Fail(job.Id, e.Message);
                Ended("refused");
                return;
            }
            catch (OperationCanceledException) when (stopping.IsCancellationRequested)
            {
                // Another process, or this one when it is back, takes it up.
                await jobs.GiveBack(job.Id);
                throw;
            }
            catch (OperationCanceledException)
            {
                log.LogInformation("Job {Id} was called off.", job.Id);
                Ended("called off");
                return;
            }
            catch (Exception e) when (tries >= MostTries)
            {
                log.LogError(e, "Job {Id} is given up after {Tries} tries.", job.Id, MostTries);
                await jobs.Fail(job.Id, "it failed several times; the log of the app says why");
                Ended("failed");
                return;
            }
            catch (Exception e)
            {
                log.LogWarning("Job {Id} failed and is tried again: {Why}", job.Id, e.Message);
            }
            finally
            {
                await progress.Stop(told);
            }
            await Task.Delay(TimeSpan.FromSeconds(tries), stopping);
            if (await jobs.Take(job.Id) is null)
                return;
        }
    }

    private static async Task<string> Work(Job job, IServiceProvider site, SiteState state, Progress progress, CancellationToken cancel)
    {
        SiteNow now = await state.Now();
        var words = new FactWriter(job.Units ?? now.Plan.Site.Units, now.Plan.Site.Money);
        switch (job.Kind)
        {
            case JobKinds.CloseGaps:
                GapAsk gaps = Read<GapAsk>(job, now);
                progress.Total = gaps.PlanterIds.Count > 0 ? gaps.PlanterIds.Count : now.Plan.Planters.Count(p => !p.IsRetired);
                progress.Said = "looking through planters";
                var sofar = new CalledProgress<(int Planters, GapAnswer? Answer)>(p =>
                {
                    progress.Done = Math.Max(progress.Done, p.Planters);
                    if (p.Answer is { } first)
                        progress.Result = JsonSerializer.Serialize(GapResult.Of(now.Plan, first, words), JobJson.Options);
                });
                GapAnswer answer = GapClosing.Close(
                    now.Plan,
                    await state.Kernel(gaps.Start),
                    await state.Flowering(gaps.Start),
                    gaps.ToQuestion(),
                    sofar: sofar,
                    cancel: cancel
                );
                return JsonSerializer.Serialize(GapResult.Of(now.Plan, answer, words), JobJson.Options);
            case JobKinds.TurnWindow:
                string turnId = Read<TurnAsk>(job, now).TurnId;
                Turn turn = now.Plan.Turns.FirstOrDefault(t => t.Id == turnId) ?? throw new InvalidInputException("turn", "is no longer in the plan");
                progress.Total = (2 * TurnWindow.Reach / TurnWindow.Step) + 1;
                progress.Said = "weighing days";
                SeasonKernel kernel = await state.Kernel(SiteYear.UsualStart(turn.FirstDay, now.IsSouthern));
                TurnWindow? window = TurnWindow.Of(now.Plan, turn, kernel, new CalledProgress<int>(d => progress.Done = d), cancel);
                return JsonSerializer.Serialize(TurnResult.Of(window, words), JobJson.Options);
            case JobKinds.Rehearse:
                RehearsalAsk ask = Read<RehearsalAsk>(job, now);
                progress.Total = Rehearsal.Steps;
                progress.Said = "following plants through it";
                WeatherRecord record = now.Record
                    ?? throw new InvalidInputException("weather", "there is none yet: bring in a station's record, and rehearsals can be made");
                RehearsalResult rehearsed = new Rehearsal(
                    now.Plan,
                    await state.Kernel(ask.Start),
                    record,
                    ask.From,
                    new CalledProgress<int>(d => progress.Done = d),
                    cancel
                ).Of(ask.Kind);
                return JsonSerializer.Serialize(RehearsalAnswer.Of(rehearsed, words), JobJson.Options);
            case JobKinds.Sequence:
                SequenceAsk spread = Read<SequenceAsk>(job, now);
                progress.Said = "following bulbs";
                SeasonKernel bulbs = await state.Kernel(spread.Start);
                AreaSequence area = AreaSequence.Of(now.Plan, bulbs).FirstOrDefault(a => a.Area.Id == spread.AreaId)
                    ?? throw new InvalidInputException("area", "is no longer in the plan");
                progress.Total = area.Shows.Count;
                IReadOnlyList<SequenceMove> exchanges = SequenceMove.For(
                    now.Plan,
                    bulbs,
                    area,
                    spread.From,
                    new CalledProgress<int>(d => progress.Done = d),
                    cancel
                );
                return JsonSerializer.Serialize(
                    SequenceResult.Of(area, SequenceSpreading.Choose(area, exchanges), exchanges.Count, words),
                    JobJson.Options
                );
            case JobKinds.Spread:
                SpreadAsk kinds = Read<SpreadAsk>(job, now);
                progress.Said = "laying kinds over planters";
                SpreadQuestion question = kinds.ToQuestion(now.Plan);
                progress.Total = question.Planters.Count;
                SpreadAnswer laid = KindSpreading.Choose(
                    now.Plan,
                    await state.Kernel(kinds.Start),
                    question,
                    new CalledProgress<int>(d => progress.Done = d),
                    cancel
                );
                return JsonSerializer.Serialize(SpreadResult.Of(question, laid, words), JobJson.Options);
            case JobKinds.Stack:
                StackAsk build = Read<StackAsk>(job, now);
                progress.Said = "solving stacks";
                Core.Planters.Planter planter = now.Plan.FindPlanter(build.PlanterId)
                    ?? throw new InvalidInputException("planter", "is no longer in the plan");
                SiteFlowering flowering = await state.Flowering(SiteYear.UsualStart(build.Wish.First, now.IsSouthern));
                return JsonSerializer.Serialize(
                    StackResult.Of(
                        StackProposals.For(
                            now.Plan,
                            planter,
                            flowering,
                            await state.Kernel(flowering.Start),
                            await state.Checks(),
                            build.Wish,
                            PlantingTime.BulbsIn(build.Wish.First, build.From, now.Plan.Site.RulesFor(planter), now.IsSouthern),
                            build.Wish.Last.PlusDays(7)
                        ),
                        build.Wish,
                        words
                    ),
                    JobJson.Options
                );
            case JobKinds.Act:
                ActQuestion act = Read<ActQuestion>(job, now);
                progress.Total = 2 * act.PlanterIds.Count;
                progress.Said = "working it out";
                ActAnswer acted = PlanAct.Of(now.Plan, act, new CalledProgress<int>(d => progress.Done = d), cancel);
                SeasonKernel season = await state.Kernel(act.Start);
                DisplayChecks checks = await state.ChecksOf(acted.Made(now.Plan));
                return JsonSerializer.Serialize(
                    ActResult.Of(now.Plan, acted, season, checks, words, n => progress.Done = act.PlanterIds.Count + n, cancel),
                    JobJson.Options
                );
            case JobKinds.Propose:
                YearWish wish = Read<YearWish>(job, now);
                progress.Total = wish.PlanterIds.Count;
                progress.Said = "looking through planters";
                SeasonKernel proposed = await state.Kernel(wish.Start);
                var first = new CalledProgress<(int Planters, YearProposal? Proposal)>(p =>
                {
                    progress.Done = Math.Max(progress.Done, p.Planters);
                    if (p.Proposal is { } some)
                        progress.Result = JsonSerializer.Serialize(YearProposalResult.Of(some, proposed.Days), JobJson.Options);
                });
                Func<Plan, DisplayChecks> looking = await state.ChecksOf();
                return JsonSerializer.Serialize(
                    YearProposalResult.Of(
                        YearProposing.Propose(now.Plan, proposed, await state.Flowering(wish.Start), wish, looking, sofar: first, cancel: cancel),
                        proposed.Days
                    ),
                    JobJson.Options
                );
            case JobKinds.Ahead:
                AheadAsk far = Read<AheadAsk>(job, now);
                progress.Total = far.Years;
                progress.Said = "computing years";
                SeasonKernel here = await state.Kernel(far.Start);
                SeasonKernel kept = here;
                // One later year at a time: each holds what it followed.
                SeasonKernel Of(LocalDate start) =>
                    start == here.Start ? here
                    : start == kept.Start ? kept
                    : kept = new SeasonKernel(now.Record, start);
                var years = YearsAhead.Of(
                    now.Plan,
                    new AheadQuestion(far.Start, far.Years, far.Tulips),
                    Of,
                    new CalledProgress<int>(d => progress.Done = d),
                    cancel
                );
                return JsonSerializer.Serialize(AheadResult.Of(years, words), JobJson.Options);
            case JobKinds.Basket:
                BasketAsk buying = Read<BasketAsk>(job, now);
                progress.Said = "comparing offers";
                BasketQuestion asked = await BasketAsk.Question(now.Plan, site.GetRequiredService<SupplyStore>(), buying);
                progress.Total = asked.Needs.Count;
                var cheaper = new CalledProgress<Basket>(b =>
                    progress.Result = JsonSerializer.Serialize(BasketResult.Of(new BasketAnswer(b, 0, IsBest: false)), JobJson.Options)
                );
                return JsonSerializer.Serialize(BasketResult.Of(BasketSolving.Choose(asked, found: cheaper, cancel: cancel)), JobJson.Options);
            case JobKinds.Schedule:
                ScheduleAsk placing = Read<ScheduleAsk>(job, now);
                progress.Said = "placing the work";
                CrewStore crew = site.GetRequiredService<CrewStore>();
                (Roster roster, _) = await crew.Roster();
                ScheduleQuestion work = placing.Question(
                    now.Plan,
                    CrewTasks.Between(now.Plan, (await site.GetRequiredService<SupplyStore>().Now()).Accounts, placing.From, placing.Last),
                    [.. (await crew.Between(placing.From, placing.Last)).Select(k => k.Account)],
                    roster
                );
                if (ScheduleAsk.MarkOf(work) != placing.Mark)
                    throw new InvalidInputException(
                        string.Empty,
                        "the plan, the roster or what was given has changed since this was asked: ask again"
                    );
                var better = new CalledProgress<Schedule>(s =>
                    progress.Result = JsonSerializer.Serialize(ScheduleResult.Of(new ScheduleAnswer(s, 0, IsBest: false)), JobJson.Options)
                );
                return JsonSerializer.Serialize(ScheduleResult.Of(CrewScheduling.Place(work, found: better, cancel: cancel)), JobJson.Options);
            case JobKinds.Route:
                RouteAsk way = Read<RouteAsk>(job, now);
                progress.Said = "putting stops into order";
                if (RouteAsk.MarkOf(now.Plan) != way.Paths)
                    throw new InvalidInputException(string.Empty, "the map's paths have changed since this was asked: ask again");
                return JsonSerializer.Serialize(new RouteResult(CrewRouting.Find(way.Question(now.Plan)).Trips), JobJson.Options);
            default:
                throw new InvalidInputException("kind", $"nobody here knows the work \"{job.Kind}\"");
        }
    }

    // The question, once it is sure that it is asked of the plan and weather at hand: an answer for others would be kept as theirs.
    private static T Read<T>(Job job, SiteNow now)
    {
        T question = JsonSerializer.Deserialize<T>(job.Question, JobJson.Options)!;
        return JobDesk.Inputs(job.Kind, question, now, job.Units) == job.Inputs
            ? question
            : throw new InvalidInputException(string.Empty, "the plan or the weather has changed since this was asked: ask again");
    }

    private sealed class CalledProgress<T>(Action<T> call) : IProgress<T>
    {
        public void Report(T value) => call(value);
    }

    // How far the work is; written down now and then, and stops the work when somebody has called it off.
    private sealed class Progress(JobStore jobs, Guid id, CancellationTokenSource off) : IDisposable
    {
        private readonly CancellationTokenSource _over = new();
        private string? _written;

        public int Done { get; set; }

        public int Total { get; set; }

        public string Said { get; set; } = string.Empty;

        public string? Result { get; set; }

        public async Task Tell(TimeSpan between)
        {
            while (!_over.IsCancellationRequested)
            {
                try
                {
                    await Task.Delay(between, _over.Token);
                    string? fresh = Result != _written ? Result : null;
                    if (!await jobs.Progress(id, Done, Total, Said, fresh))
                        await off.CancelAsync();
                    _written = fresh ?? _written;
                }
                catch (OperationCanceledException)
                {
                    return;
                }
                catch (System.Data.Common.DbException)
                {
                    // The database is away; the work goes on, and what it found is stored when it ends.
                }
            }
        }

        public async Task Stop(Task told)
        {
            await _over.CancelAsync();
            await told;
        }

        public void Dispose() => _over.Dispose();
    }
}

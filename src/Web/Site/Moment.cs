using System.Collections.Concurrent;
using UnrulyMeadow.Web.Safekeeping;

namespace UnrulyMeadow.Web.Site;

/// <summary>
/// What a request looks at: of each site one state, from its first question to its last. Where others save all the time, those who only look
/// share a state for a moment, so that what one has had reckoned is there for the next; whoever saved something just now sees what they saved.
/// </summary>
/// <param name="mayShare">True where a state that another request looks at will do.</param>
public sealed class Moment(bool mayShare)
{
    private static readonly AsyncLocal<Moment?> Here = new();

    private readonly ConcurrentDictionary<object, (object State, Action Leave)> _states = new();

    /// <summary>The request's; null beside requests, and where one saves.</summary>
    public static Moment? Now => Here.Value;

    /// <summary>True where a state that another request looks at will do.</summary>
    public bool MayShare => mayShare;

    /// <summary>Gives each request that only looks its moment.</summary>
    /// <param name="app">The app.</param>
    public static void Use(IApplicationBuilder app) =>
        app.Use(
            async (http, next) =>
            {
                if (!HttpMethods.IsGet(http.Request.Method))
                {
                    await next(http);
                    return;
                }
                // The cookie lasts longer than a state is shared.
                var moment = new Moment(mayShare: !http.Request.Cookies.ContainsKey(ReadingOnly.Cookie));
                Here.Value = moment;
                try
                {
                    await next(http);
                }
                finally
                {
                    foreach ((_, Action leave) in moment._states.Values)
                        leave();
                    moment._states.Clear();
                }
            }
        );

    /// <summary>The state of a site that this request looks at; null before it looked.</summary>
    /// <param name="site">The site's keeper.</param>
    public object? Of(object site) => _states.TryGetValue(site, out (object State, Action Leave) known) ? known.State : null;

    /// <summary>Stays with a state to the request's end.</summary>
    /// <param name="site">The site's keeper.</param>
    /// <param name="state">The state.</param>
    /// <param name="leave">Done at the end.</param>
    public void Stay(object site, object state, Action leave)
    {
        if (!_states.TryAdd(site, (state, leave)))
            leave();
    }
}

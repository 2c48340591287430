using Microsoft.AspNetCore.Mvc.ModelBinding;
using NodaTime;
using UnrulyMeadow.Core;

namespace UnrulyMeadow.Web.Site;

/// <summary>What every page asks for: the plan of now, today, the units.</summary>
public sealed class PageFrame(SiteState state, IClock clock)
{
    private SiteNow? _now;

    /// <summary>The state's keeper.</summary>
    public SiteState State => state;

    /// <summary>Today by the server's own zone.</summary>
    public LocalDate Today => clock.GetCurrentInstant().InZone(DateTimeZoneProviders.Tzdb.GetSystemDefault()).Date;

    /// <summary>This instant.</summary>
    public Instant Instant => clock.GetCurrentInstant();

    /// <summary>The plan and weather, read once per request.</summary>
    public async Task<SiteNow> Now() => _now ??= await state.Now();

    /// <summary>Drops what was read, after something was saved.</summary>
    public void Forget() => _now = null;

    /// <summary>Units of a site.</summary>
    public static UnitsText Units(SiteNow now) => new(now.Plan.Site.Units);

    /// <summary>Puts faults beside the fields they speak of; what fits no field heads the form.</summary>
    /// <param name="faults">The faults.</param>
    /// <param name="modelState">The page's.</param>
    /// <param name="field">Names the form's field for a fault's path, or null.</param>
    /// <param name="units">Units of the messages.</param>
    public static void Show(IEnumerable<Fault> faults, ModelStateDictionary modelState, Func<string, string?> field, UnitsText units)
    {
        foreach (Fault fault in faults)
            modelState.AddModelError(field(fault.Field) ?? string.Empty, units.Message(field(fault.Field) is null ? fault.ToString() : fault.Message));
    }
}

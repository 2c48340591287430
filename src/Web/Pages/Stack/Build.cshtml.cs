using System.Globalization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Checks;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Solver;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Stack;

/// <summary>"Build me a stack": three proposals for the months, colours and budget wanted, each laid out and checked.</summary>
public sealed class BuildModel(PageFrame frame, HeavyWork heavy) : PageModel
{
    [FromRoute]
    public string Id { get; set; } = string.Empty;

    [BindProperty(SupportsGet = true)]
    public string? From { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? To { get; set; }

    [BindProperty(SupportsGet = true, Name = "colours[]")]
    public List<string> Colours { get; set; } = [];

    [BindProperty(SupportsGet = true)]
    public string? Budget { get; set; }

    [BindProperty(SupportsGet = true)]
    public string? Kinds { get; set; }

    [BindProperty(SupportsGet = true)]
    public bool OnlyStock { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public Planter Planter { get; private set; } = null!;

    public StackWish? Wish { get; private set; }

    public IReadOnlyList<StackProposal> Proposals { get; private set; } = [];

    public bool Asked { get; private set; }

    public UnitsText Units => PageFrame.Units(Now);

    /// <summary>Colours to choose from, by name and value.</summary>
    public static IReadOnlyList<(string Name, string Value)> Choices { get; } =
        [("white", "#f7f5ef"), ("yellow", "#f2c62e"), ("orange", "#ea8a2a"), ("pink", "#e393ad"), ("red", "#c22c3c"), ("violet", "#7d55b5"), ("blue", "#4a63c0"), ("dark", "#4a1d38")];

    public async Task<IActionResult> OnGetAsync()
    {
        if (!await Find())
            return NotFound();
        return Page();
    }

    /// <summary>Solves three stacks; one question at a time, and only when it is asked by the form.</summary>
    public async Task<IActionResult> OnPostAsync()
    {
        if (!await Find())
            return NotFound();
        Asked = true;
        ModelState.Clear();
        if (Now.Record is null)
        {
            ModelState.AddModelError(string.Empty, "The site has no weather yet, so that nobody knows when a bulb shows: bring in a station's record first.");
            return Page();
        }
        try
        {
            Wish = Read();
            SiteFlowering flowering = await frame.State.Flowering(SiteYear.UsualStart(Wish.First, Now.IsSouthern));
            LocalDate install = StackBloom.BulbYearStart(Wish.First, Now.IsSouthern).PlusMonths(2).PlusDays(14);
            DisplayChecks checks = await frame.State.Checks();
            Proposals = await heavy.Do(() => Task.Run(() => StackProposals.For(Now.Plan, Planter, flowering, checks, Wish, install, Wish.Last.PlusDays(7))));
        }
        catch (InvalidInputException e)
        {
            foreach (Fault fault in e.Faults)
                ModelState.AddModelError(fault.Field switch { "first" => "From", "last" => "To", "budget" => "Budget", "mostKinds" => "Kinds", _ => string.Empty }, fault.Message);
        }
        return Page();
    }

    private async Task<bool> Find()
    {
        Now = await frame.Now();
        if (Now.Plan.FindPlanter(Id) is not { } planter)
            return false;
        Planter = planter;
        LocalDate fall = StackBloom.BulbYearStart(frame.Today, Now.IsSouthern);
        LocalDate spring = fall.PlusMonths(6);
        From ??= Words.Iso(spring.PlusDays(14));
        To ??= Words.Iso(spring.PlusMonths(4).PlusDays(-1));
        Kinds ??= "5";
        return true;
    }

    /// <summary>Where a proposal is opened in the stack's own page, to be looked over and saved.</summary>
    public string Open(StackProposal proposal) =>
        $"/stack/{Id}?display=new&items={string.Join(',', proposal.Kinds.Select(k => $"{k.Plant.Id}:{k.Count}"))}";

    private StackWish Read()
    {
        var faults = new FaultList();
        LocalDate first = Words.ReadDay(From) ?? default;
        LocalDate last = Words.ReadDay(To) ?? default;
        if (Words.ReadDay(From) is null)
            faults.Add("first", "must be a date");
        if (Words.ReadDay(To) is null)
            faults.Add("last", "must be a date");
        decimal? budget = null;
        if (!string.IsNullOrWhiteSpace(Budget))
        {
            if (decimal.TryParse(Budget.Replace(',', '.'), NumberStyles.Number, CultureInfo.InvariantCulture, out decimal sum))
                budget = sum;
            else
                faults.Add("budget", "must be a sum of money, or empty");
        }
        if (!int.TryParse(Kinds, NumberStyles.Integer, CultureInfo.InvariantCulture, out int kinds))
            faults.Add("mostKinds", "must be from 1 to 8");
        faults.ThrowIfAny();
        var wish = new StackWish(first, last, [.. Colours.Where(c => Core.Plants.ColourWindow.IsColour(c))], budget, kinds, OnlyStock);
        if (wish.Faults() is { Count: > 0 } wrong)
            throw new InvalidInputException(wrong);
        return wish;
    }
}

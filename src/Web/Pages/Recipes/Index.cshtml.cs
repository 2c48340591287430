using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Closing;
using UnrulyMeadow.Core.Colour;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Core.Recipes;
using UnrulyMeadow.Core.Season;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Recipes;

/// <summary>Displays kept as patterns: keep one, look at what it becomes in another planter, plant it there.</summary>
[Needs(SiteRole.Guest)]
public sealed class IndexModel(PageFrame frame, RecipeStore recipes, DisplayStore displays, LogStore log) : PageModel
{
    /// <summary>Orders in which recipes are listed.</summary>
    public static readonly IReadOnlyList<(string Value, string Text)> Orders =
    [
        ("name", "by name"),
        ("cost", "cheapest first"),
        ("days", "longest colour first"),
        ("stands", "most planted first"),
    ];

    // Servers and browsers between take no longer one.
    private const int LongestAddress = 2000;

    /// <summary>A display to be kept as a recipe.</summary>
    [BindProperty(SupportsGet = true, Name = "keep")]
    public string? KeepId { get; set; }

    /// <summary>The recipe that is looked at.</summary>
    [BindProperty(SupportsGet = true, Name = "recipe")]
    public string? RecipeId { get; set; }

    /// <summary>The planters into which it would go.</summary>
    [BindProperty(SupportsGet = true, Name = "planter[]")]
    public List<string> PlanterIds { get; set; } = [];

    /// <summary>Those planters parted by blanks, as a browser with scripts sends them.</summary>
    [BindProperty]
    public string? PlanterList { get; set; }

    [BindProperty]
    public string? Name { get; set; }

    [BindProperty]
    public string? Note { get; set; }

    [BindProperty]
    public string? Install { get; set; }

    [BindProperty]
    public string? Lift { get; set; }

    /// <summary>Words that a recipe's name, kinds and note are searched for.</summary>
    [BindProperty(SupportsGet = true, Name = "q")]
    public string? Query { get; set; }

    [BindProperty(SupportsGet = true, Name = "place")]
    public string? Place { get; set; }

    [BindProperty(SupportsGet = true, Name = "light")]
    public string? Light { get; set; }

    [BindProperty(SupportsGet = true, Name = "season")]
    public string? Season { get; set; }

    [BindProperty(SupportsGet = true, Name = "colour")]
    public string? Colour { get; set; }

    [BindProperty(SupportsGet = true, Name = "sort")]
    public string? Sort { get; set; }

    public SiteNow Now { get; private set; } = null!;

    /// <summary>The recipes that are listed.</summary>
    public IReadOnlyList<RecipeCard> Cards { get; private set; } = [];

    /// <summary>What can be asked of a recipe: field, label, what is chosen, the choices.</summary>
    public IEnumerable<(string Name, string Label, string? Value, IReadOnlyList<(string, string)> Choices)> Filters =>
        [
            ("season", "in colour in", Season, FieldView.Choices<SeasonName>()),
            ("light", "for", Light, FieldView.Choices<Exposure>()),
            ("place", "in", Place, FieldView.Choices<RecipePlace>()),
            ("colour", "with", Colour, FieldView.Choices<ColourWord>()),
        ];

    /// <summary>The sentence that heads the list.</summary>
    public string Heading =>
        Cards.Count == Now.Plan.Recipes.Count
            ? Words.Count(Cards.Count, "recipe", "recipes")
            : $"{Cards.Count} of {Words.Count(Now.Plan.Recipes.Count, "recipe", "recipes")}";

    private IReadOnlyDictionary<string, (int Well, int Poorly)> _ratings = new Dictionary<string, (int, int)>();

    /// <summary>Where a recipe stands, the first few by name.</summary>
    public static string Places(RecipeCard card) =>
        string.Join(", ", card.StandsIn.Take(3).Select(p => p.Name))
        + (card.StandsIn.Count > 3 ? $" and {card.StandsIn.Count - 3} more" : string.Empty);

    /// <summary>What the log says of a recipe's kinds; null where it says nothing.</summary>
    public string? Rated(RecipeCard card)
    {
        int well = card.Kinds.Sum(k => _ratings.GetValueOrDefault(k.Id).Well);
        int poorly = card.Kinds.Sum(k => _ratings.GetValueOrDefault(k.Id).Poorly);
        return well + poorly == 0 ? null : $"its kinds did well {well}, poorly {poorly}";
    }

    public Display? Keep { get; private set; }

    public Recipe? Chosen { get; private set; }

    public IReadOnlyList<ScaledRecipe> Scaled { get; private set; } = [];

    public UnitsText Units => frame.Units;

    public async Task<IActionResult> OnGetAsync()
    {
        await Find();
        if (Keep is null && Chosen is null)
            await List();
        if (Keep is { } display)
            Name ??= $"{Now.Plan.FindPlanter(display.PlanterId)!.Name}, {display.Install.ToString("MMM uuuu", null)}";
        if (Chosen is { } recipe)
        {
            LocalDate start = SiteYear.UsualStart(frame.Today, Now.IsSouthern);
            LocalDate there = frame.Today.PlusDays(GapQuestion.UsualLeadDays);
            List<Plant> plants = [.. recipe.Items.Select(i => Now.Plan.FindPlant(i.PlantId)).OfType<Plant>()];
            LocalDate install = Words.ReadDay(Install)
                ?? (
                    recipe.Layer == DisplayLayer.Bulbs
                        ? PlantingTime.BulbsIn(there, there, Now.Plan.Site.Rules, Now.IsSouthern)
                        : new PlantingTime(await frame.State.Kernel(start)).Proposed(Now.Plan, plants, there, await frame.State.Flowering(start))
                );
            Install ??= Words.Iso(install);
            Lift ??= recipe.Layer switch
            {
                DisplayLayer.Standing => string.Empty,
                DisplayLayer.Bulbs => Words.Iso(install.PlusMonths(8)),
                _ => Words.Iso(
                    Now.Plan.Turns.Where(t => t.FirstDay > install.PlusDays(28)).Select(t => t.FirstDay).DefaultIfEmpty(install.PlusMonths(4)).Min()
                ),
            };
        }
        return Page();
    }

    /// <summary>Shows what the recipe becomes in the planters ticked: at an address of its own, unless they are too many for one.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostLookAsync()
    {
        ModelState.Clear();
        string address =
            "/recipes"
            + QueryString.Create(
                Ticked.Of(PlanterIds, PlanterList).Select(p => KeyValuePair.Create("planter[]", (string?)p)).Prepend(new("recipe", RecipeId))
            );
        return address.Length <= LongestAddress ? Redirect(address) : await OnGetAsync();
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostKeepAsync()
    {
        await Find();
        return await frame.Saving(
            this,
            f =>
                f switch
                {
                    "name" => "Name",
                    "note" => "Note",
                    _ => null,
                },
            async () =>
            {
                Display display = Keep ?? throw new InvalidInputException(string.Empty, "That display is there no more.");
                string name = (Name ?? string.Empty).Trim();
                var recipe = new Recipe(
                    Ids.From(name.Length == 0 ? "recipe" : name, x => Now.Plan.Recipes.Any(r => r.Id == x)),
                    name,
                    display.Layer,
                    Now.Plan.FindPlanter(display.PlanterId)!.Form,
                    display.Items,
                    Note?.Trim() ?? string.Empty
                );
                await recipes.Add(recipe);
                TempData["Said"] = $"“{recipe.Name}” is kept.";
                return Redirect($"/recipes?recipe={recipe.Id}");
            }
        );
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostPlantAsync()
    {
        await Find();
        return await frame.Saving(this, DateField, async () =>
        {
            if (Chosen is null || Scaled.Count == 0)
                throw new InvalidInputException(string.Empty, "Choose a recipe and at least one planter.");
            var faults = new FaultList();
            if (Words.ReadDay(Install) is not { } install)
            {
                faults.Add("install", "must be a date");
                install = default;
            }
            if (Words.ReadDay(Lift) is not { } lift)
            {
                bool forGood = Chosen.Layer == DisplayLayer.Standing && string.IsNullOrWhiteSpace(Lift) && faults.IsEmpty;
                if (!forGood)
                    faults.Add("lift", "must be a date");
                lift = forGood ? Display.OpenEnd(install) : default;
            }
            faults.ThrowIfAny();
            List<Display> made = [];
            foreach (ScaledRecipe scaled in Scaled.Where(s => s.Items.Count > 0))
            {
                string id = Ids.From($"{scaled.Planter.Id}-{Chosen.Layer}-{install.ToString("uuuu-MM", null)}", x =>
                    Now.Plan.Displays.Any(d => d.Id == x) || made.Exists(d => d.Id == x)
                );
                made.Add(new Display(id, scaled.Planter.Id, Chosen.Layer, install, lift, scaled.Items));
            }
            if (made.Count == 0)
                throw new InvalidInputException(string.Empty, "Nothing of the recipe fits these planters.");
            await displays.AddAll(made);
            TempData["Said"] = $"Planted in {made.Count} {(made.Count == 1 ? "planter" : "planters")}.";
            return Redirect(made.Count == 1 ? $"/planters/{made[0].PlanterId}?day={Words.Iso(install)}" : "/planters");
        });
    }

    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostRemoveAsync()
    {
        await Find();
        return await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                await recipes.Remove(RecipeId ?? string.Empty, Now.Versions.Recipe(RecipeId ?? string.Empty));
                TempData["Said"] = "The recipe is removed; what was planted from it stays.";
                return Redirect("/recipes");
            }
        );
    }

    private static string? DateField(string fault) =>
        fault switch
        {
            "install" => "Install",
            "lift" => "Lift",
            _ => null,
        };

    private async Task List()
    {
        _ratings = await log.Ratings();
        LocalDate start = SiteYear.UsualStart(frame.Today, Now.IsSouthern);
        SiteFlowering flowering = await frame.State.Flowering(start);
        var all = await frame.Soon(frame.State.Derived(Now, ("recipes", start), n => RecipeCard.Of(n.Plan, flowering)));
        var search = new WordSearch(Query);
        bool Is<T>(string? chosen, Func<T, bool> holds)
            where T : struct, Enum => !Enum.TryParse(chosen, out T value) || !Enum.IsDefined(value) || holds(value);
        IEnumerable<RecipeCard> some = all.Where(c =>
            search.Match(c.Recipe.Name, string.Join(' ', c.Kinds.Select(PlantWords.Of).Append(c.Recipe.Note))) is not null
            && Is<SeasonName>(Season, c.Seasons.Contains)
            && Is<Exposure>(Light, c.Lights.Contains)
            && Is<RecipePlace>(Place, p => c.Place == p)
            && Is<ColourWord>(Colour, c.Colours.Contains)
        );
        Cards =
        [
            .. Sort switch
            {
                "cost" => some.OrderBy(c => c.Cost),
                "days" => some.OrderByDescending(c => c.Strips.Max(s => s.DaysInColour)),
                "stands" => some.OrderByDescending(c => c.StandsIn.Count).ThenBy(c => c.Recipe.Name, StringComparer.Ordinal),
                _ => some.OrderBy(c => c.Recipe.Name, StringComparer.Ordinal),
            },
        ];
    }

    private async Task Find()
    {
        Now = await frame.Now();
        Keep = Now.Plan.Displays.FirstOrDefault(d => d.Id == KeepId);
        Chosen = Now.Plan.Recipes.FirstOrDefault(r => r.Id == RecipeId);
        PlanterIds = [.. Ticked.Of(PlanterIds, PlanterList)];
        if (Chosen is { } recipe)
            Scaled =
            [
                .. PlanterIds
                    .Distinct(StringComparer.Ordinal)
                    .Select(Now.Plan.FindPlanter)
                    .OfType<Planter>()
                    .Select(p => ScaledRecipe.For(recipe, p, Now.Plan.Site, Now.Plan.Plant)),
            ];
    }
}

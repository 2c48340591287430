using System.Globalization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Store;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Supply;

/// <summary>Medium, feed, mulch, pins and pots: what is in the store, what turns want of it, and when to order again.</summary>
[Needs(SiteRole.Guest)]
public sealed class MaterialsModel(PageFrame frame, SupplyDesk desk, Visitor visitor) : PageModel
{
    [BindProperty(SupportsGet = true, Name = "material")]
    public string? MaterialId { get; set; }

    [BindProperty]
    public MaterialInput Input { get; set; } = new();

    public SiteNow Now { get; private set; } = null!;

    public SupplyNow Supply { get; private set; } = null!;

    public IReadOnlyList<MaterialAccount> Accounts { get; private set; } = [];

    public IReadOnlyList<Turn> Turns { get; private set; } = [];

    public bool IsNew => string.IsNullOrEmpty(MaterialId);

    public UnitsText Units => frame.Units;

    /// <summary>An amount in the unit in which the site counts a material.</summary>
    public string Amount(MaterialKind kind, double amount) =>
        Material.UnitOf(kind) switch
        {
            "L" => Units.Volume(amount),
            "g" => Units.Small(amount / 1000),
            _ => amount.ToString("#,0.##", CultureInfo.InvariantCulture),
        };

    public async Task<IActionResult> OnGetAsync()
    {
        await Load();
        if (IsNew)
            return Page();
        if (Supply.Materials.FirstOrDefault(m => m.It.Id == MaterialId) is not { } kept)
            return NotFound();
        Input = MaterialInput.From(kept.It, kept.Version);
        return Page();
    }

    /// <summary>Adds a material, or changes one.</summary>
    [Needs(SiteRole.Planner)]
    public async Task<IActionResult> OnPostAsync() =>
        await frame.Saving(
            this,
            f => f.Length == 0 ? null : $"Input.{char.ToUpperInvariant(f[0])}{f[1..]}",
            async () =>
            {
                await Load();
                Material material = Input.Read(
                    IsNew ? Ids.From(Input.Name ?? "material", x => Supply.Materials.Any(m => m.It.Id == x)) : MaterialId!
                );
                await desk.Store.Save(material, IsNew ? null : Input.Version);
                TempData["Said"] = $"{material.Name}: saved.";
                return Redirect("/supply/materials");
            },
            Load
        );

    /// <summary>Writes a delivery or a count down.</summary>
    [Needs(SiteRole.Crew)]
    public async Task<IActionResult> OnPostMoveAsync(Guid id, string? of, string? amount, string? move) =>
        await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                await Load();
                MaterialAccount account = Accounts.FirstOrDefault(a => a.Material.Id == of)
                    ?? throw new InvalidInputException(string.Empty, "Choose a material");
                double given =
                    TypedNumber.Read(amount) is { } v && v >= 0 && v <= 1_000_000
                        ? v
                        : throw new InvalidInputException(string.Empty, "Say how much: a number from 0 on, in packs where it is delivered");
                MaterialMove kind =
                    Enum.TryParse(move, out MaterialMove chosen) && chosen is MaterialMove.Received or MaterialMove.Counted
                        ? chosen
                        : MaterialMove.Received;
                // A delivery is in packs; a count says what is there.
                double change =
                    kind == MaterialMove.Received ? given * account.Material.PackSize : Counted(account.Material.Kind, given) - account.AtHand;
                if (change != 0)
                    await desk.Store.Record(
                        [new MaterialMovement(id == Guid.Empty ? Guid.CreateVersion7() : id, account.Material.Id, frame.Today, change, kind)],
                        visitor.Person?.Id
                    );
                TempData["Said"] = $"{account.Material.Name}: {Amount(account.Material.Kind, account.AtHand + change)} in the store.";
                return Redirect("/supply/materials");
            },
            Load
        );

    /// <summary>Takes what a turn's sheets use out of the store, once.</summary>
    [Needs(SiteRole.Lead)]
    public async Task<IActionResult> OnPostUseAsync(string? turn) =>
        await frame.Saving(
            this,
            _ => null,
            async () =>
            {
                await Load();
                Turn done = Turns.FirstOrDefault(t => t.Id == turn) ?? throw new InvalidInputException(string.Empty, "Choose a turn");
                List<MaterialMovement> used =
                [
                    .. Accounts
                        .Select(a => (a.Material, Needed: a.Turns.FirstOrDefault(t => t.Turn.Id == done.Id).Needed))
                        .Where(a => a.Needed > 0)
                        .Select(a => new MaterialMovement(Guid.CreateVersion7(), a.Material.Id, frame.Today, -a.Needed, MaterialMove.Used, done.Id)),
                ];
                if (used.Count == 0)
                    throw new InvalidInputException(string.Empty, $"Nothing more of {done.Name} is to be taken out of the store");
                await desk.Store.Record(used, visitor.Person?.Id);
                TempData["Said"] = $"{done.Name}: {Words.Count(used.Count, "material", "materials")} taken out of the store.";
                return Redirect("/supply/materials");
            },
            Load
        );

    private double Counted(MaterialKind kind, double amount) =>
        Material.UnitOf(kind) == "L" ? Units.ReadVolume(amount)
        : Material.UnitOf(kind) == "g" ? Units.ReadWeight(amount) * 1000
        : amount;

    private async Task Load()
    {
        Now = await frame.Now();
        Supply = await desk.Supply();
        Turns = await desk.TurnsToCome();
        Accounts = await desk.Materials();
    }
}

/// <summary>A material as typed.</summary>
public sealed class MaterialInput
{
    public string? Name { get; set; }

    public string? Kind { get; set; } = nameof(MaterialKind.Medium);

    public string? PackSize { get; set; }

    public string? PackPrice { get; set; }

    public string? ReorderAt { get; set; }

    public string? LeadDays { get; set; } = "7";

    public long Version { get; set; }

    /// <summary>A material as a form shows it.</summary>
    public static MaterialInput From(Material m, long version) =>
        new()
        {
            Name = m.Name,
            Kind = m.Kind.ToString(),
            PackSize = m.PackSize.ToString("0.##", CultureInfo.InvariantCulture),
            PackPrice = m.PackPrice.ToString("0.00", CultureInfo.InvariantCulture),
            ReorderAt = (m.ReorderAt / m.PackSize).ToString("0.##", CultureInfo.InvariantCulture),
            LeadDays = $"{m.LeadDays}",
            Version = version,
        };

    /// <summary>The material as typed.</summary>
    /// <exception cref="InvalidInputException">Something cannot be read.</exception>
    public Material Read(string id)
    {
        var faults = new FaultList();
        double Number(string? text, string field, double? otherwise = null)
        {
            if (string.IsNullOrWhiteSpace(text) && otherwise is { } usual)
                return usual;
            if (TypedNumber.Read(text) is { } v)
                return v;
            faults.Add(field, "must be a number");
            return 1;
        }
        double size = Number(PackSize, "packSize");
        var material = new Material(
            id,
            Name?.Trim() ?? string.Empty,
            Enum.TryParse(Kind, out MaterialKind kind) && Enum.IsDefined(kind) ? kind : MaterialKind.Other,
            size,
            Math.Clamp((decimal)Number(PackPrice, "packPrice", 0), -1, 1_000_000),
            Number(ReorderAt, "reorderAt", 0) * size
        )
        {
            LeadDays = (int)Math.Clamp(Number(LeadDays, "leadDays", 7), -1, 10_000),
        };
        faults.AddAll(string.Empty, material.Faults());
        faults.ThrowIfAny();
        return material;
    }
}

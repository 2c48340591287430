using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using QRCoder;
using UnrulyMeadow.Core.Planters;
using UnrulyMeadow.Store.People;
using UnrulyMeadow.Web.People;
using UnrulyMeadow.Web.Site;

namespace UnrulyMeadow.Web.Pages.Planters;

/// <summary>Labels with a square for each planter: a phone's own camera opens the planter by it.</summary>
[Needs(SiteRole.Guest)]
public sealed class LabelsModel(PageFrame frame) : PageModel
{
    private const int OnSheet = 21;
    private const int SheetsAtOnce = 10;
    private const int LongestAddress = 200;

    [BindProperty(SupportsGet = true, Name = "area")]
    public string? AreaId { get; set; }

    [BindProperty(SupportsGet = true, Name = "paper")]
    public string? PaperText { get; set; }

    /// <summary>Where phones find the app; by default where this browser does.</summary>
    [BindProperty(SupportsGet = true, Name = "address")]
    public string? Address { get; set; }

    [BindProperty(SupportsGet = true, Name = "part")]
    public string? PartText { get; set; }

    public SiteNow Now { get; private set; } = null!;

    public ListPage Part { get; private set; } = null!;

    public bool IsLetter => PaperText == "letter" || (PaperText is null && frame.Units.IsUs);

    /// <summary>What is wrong with the address; null where nothing is.</summary>
    public string? Fault { get; private set; }

    /// <summary>True where the address leads to this machine alone.</summary>
    public bool IsOnlyHere { get; private set; }

    /// <summary>Sheets of planters, each with its square.</summary>
    public IReadOnlyList<IReadOnlyList<(Planter Planter, string Square)>> Sheets { get; private set; } = [];

    public async Task OnGetAsync()
    {
        Now = await frame.Now();
        Address = string.IsNullOrWhiteSpace(Address) ? $"{Request.Scheme}://{Request.Host}{Request.PathBase}" : Address.Trim().TrimEnd('/');
        if (
            Address.Length > LongestAddress
            || !Uri.TryCreate(Address, UriKind.Absolute, out Uri? uri)
            || uri.Scheme is not ("http" or "https")
            || uri.Query.Length + uri.Fragment.Length > 0
        )
        {
            Fault = "must be an address that begins with https:// or http://";
            uri = new Uri($"{Request.Scheme}://{Request.Host}{Request.PathBase}");
        }
        IsOnlyHere = uri.IsLoopback;
        List<Planter> planters =
        [
            .. Now.Plan.Areas.SelectMany(a =>
                Now.Plan.Planters.Where(p => p.AreaId == a.Id && !p.IsRetired && (string.IsNullOrEmpty(AreaId) || AreaId == a.Id))
            ),
        ];
        Part = ListPage.Of(planters.Count, PartText, OnSheet * SheetsAtOnce);
        Sheets =
        [
            .. Part.Take(planters)
                .Chunk(OnSheet)
                .Select(s => (IReadOnlyList<(Planter, string)>)[.. s.Select(p => (p, SquareOf($"{uri.AbsoluteUri.TrimEnd('/')}/planters/{p.Id}")))]),
        ];
    }

    // A fourth of a label may be worn away, and it is still read.
    private static string SquareOf(string address)
    {
        using QRCodeData data = QRCodeGenerator.GenerateQrCode(address, QRCodeGenerator.ECCLevel.Q);
        using var drawn = new SvgQRCode(data);
        return drawn.GetGraphic(1, "#000000", "#ffffff", drawQuietZones: true, sizingMode: SvgQRCode.SizingMode.ViewBoxAttribute);
    }
}

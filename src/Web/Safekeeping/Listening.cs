using System.Net;

namespace UnrulyMeadow.Web.Safekeeping;

/// <summary>
/// Where the app may be reached from. By default from its own machine alone; from others only once somebody owns it and nobody can listen in.
/// </summary>
public static class Listening
{
    /// <summary>Why the app may not serve where its settings say; null where it may.</summary>
    /// <param name="settings">The settings.</param>
    /// <param name="hasOwner">True where somebody owns a site.</param>
    public static string? Refusal(IConfiguration settings, bool hasOwner)
    {
        string[] beyond = [.. Addresses(settings).Where(a => !IsLoopback(a))];
        if (beyond.Length == 0)
            return null;
        if (!hasOwner)
            return $"The app would be reached from other machines at {beyond[0]}, and nobody owns it yet: whoever came first would. "
                + "Start it on this machine alone, make its owner, and then serve others.";
        string? open = Array.Find(beyond, a => !a.StartsWith("https:", StringComparison.OrdinalIgnoreCase));
        if (open is not null && string.IsNullOrWhiteSpace(settings["MEADOW_PROXIES"]))
            return $"The app would be reached from other machines at {open} without TLS: passwords could be read on the way. "
                + "Serve https, or let a proxy that ends TLS stand before it and name the proxy's address in MEADOW_PROXIES.";
        return null;
    }

    private static IEnumerable<string> Addresses(IConfiguration settings) =>
        (settings["urls"] ?? string.Empty)
            .Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
            .Concat(Ports(settings["http_ports"], "http"))
            .Concat(Ports(settings["https_ports"], "https"))
            .Concat(settings.GetSection("Kestrel:Endpoints").GetChildren().Select(e => e["Url"]).OfType<string>());

    // Ports without a host are those of every address of the machine.
    private static IEnumerable<string> Ports(string? ports, string scheme) =>
        (ports ?? string.Empty).Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries).Select(p => $"{scheme}://*:{p}");

    private static bool IsLoopback(string address)
    {
        string host = Microsoft.AspNetCore.Http.BindingAddress.Parse(address).Host.Trim('[', ']');
        return string.Equals(host, "localhost", StringComparison.OrdinalIgnoreCase)
            || (IPAddress.TryParse(host, out IPAddress? ip) && IPAddress.IsLoopback(ip));
    }
}

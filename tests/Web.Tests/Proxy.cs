using System.Diagnostics;
using System.Net;
using System.Net.Sockets;

namespace UnrulyMeadow.Web.Tests;

/// <summary>nginx before processes of the app, set as docs/operating.md says.</summary>
internal sealed class Proxy : IAsyncDisposable
{
    private const string Nginx = "/usr/sbin/nginx";

    private readonly DirectoryInfo _folder;
    private readonly Process _process;

    private Proxy(DirectoryInfo folder, Process process, Uri address) => (_folder, _process, Address) = (folder, process, address);

    /// <summary>Where it answers.</summary>
    public Uri Address { get; }

    /// <summary>Starts one that asks processes in turn.</summary>
    /// <param name="apps">Those that take what is sent.</param>
    /// <param name="readers">Those that are asked for what is only looked at, by whoever sent nothing a moment ago; null for none.</param>
    public static async Task<Proxy> Start(IReadOnlyList<AppProcess> apps, IReadOnlyList<AppProcess>? readers = null)
    {
        DirectoryInfo folder = Directory.CreateTempSubdirectory("meadow-proxy-");
        int port = FreePort();
        await File.WriteAllTextAsync(
            Path.Combine(folder.FullName, "nginx.conf"),
            $$"""
            daemon off;
            pid {{folder}}/pid;
            error_log {{folder}}/error.log;
            events {}
            http {
              access_log off;
              client_body_temp_path {{folder}}/body;
              proxy_temp_path {{folder}}/proxy;
              fastcgi_temp_path {{folder}}/fastcgi;
              uwsgi_temp_path {{folder}}/uwsgi;
              scgi_temp_path {{folder}}/scgi;
              upstream meadow { {{Servers(apps)}} }
              upstream meadow_readers { {{Servers(readers ?? apps)}} }
              map "$request_method:$cookie_meadow_wrote" $meadow {
                default        meadow;
                "~^(GET|HEAD):$" meadow_readers;
              }
              server {
                listen 127.0.0.1:{{port}};
                location / {
                  proxy_pass http://$meadow;
                  proxy_set_header Host $host;
                  proxy_set_header X-Forwarded-For $remote_addr;
                  proxy_set_header X-Forwarded-Proto $scheme;
                }
              }
            }
            """
        );
        Process process = Process.Start(
            new ProcessStartInfo(Nginx, ["-p", folder.FullName, "-c", Path.Combine(folder.FullName, "nginx.conf")])
            {
                UseShellExecute = false,
                RedirectStandardError = true,
            }
        )!;
        var at = new Uri($"http://127.0.0.1:{port}");
        using var ask = new HttpClient();
        for (int tries = 0; ; tries++)
        {
            try
            {
                await ask.GetStringAsync(new Uri(at, "/health/live"));
                return new Proxy(folder, process, at);
            }
            catch (HttpRequestException) when (tries < 50)
            {
                await Task.Delay(200);
            }
        }
    }

    public async ValueTask DisposeAsync()
    {
        _process.Kill(entireProcessTree: true);
        await _process.WaitForExitAsync();
        _process.Dispose();
        _folder.Delete(recursive: true);
    }

    private static string Servers(IReadOnlyList<AppProcess> apps) =>
        string.Join(' ', apps.Select(a => $"server 127.0.0.1:{a.Browser.BaseAddress!.Port};"));

    private static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }
}

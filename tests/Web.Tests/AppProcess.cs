using System.Diagnostics;

namespace UnrulyMeadow.Web.Tests;

/// <summary>The app as a process of its own, to be killed.</summary>
public sealed class AppProcess : IDisposable
{
    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(3);

    private readonly Process _process;

    private AppProcess(Process process, HttpClient browser) => (_process, Browser) = (process, browser);

    /// <summary>A browser with cookies that follows redirects.</summary>
    public HttpClient Browser { get; }

    /// <summary>Starts one on a database.</summary>
    /// <param name="database">The database.</param>
    /// <param name="works">Whether it does long work itself.</param>
    /// <param name="settings">More of its settings.</param>
    public static async Task<AppProcess> Start(string database, bool works = true, IReadOnlyDictionary<string, string>? settings = null)
    {
        string root = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(root, "UnrulyMeadow.slnx")))
            root = Path.GetDirectoryName(root) ?? throw new InvalidOperationException("the tests run inside the project");
        var start = new ProcessStartInfo(
            "dotnet",
            [
                Path.Combine(AppContext.BaseDirectory, "UnrulyMeadow.Web.dll"),
                "--urls",
                "http://127.0.0.1:0",
                "--contentRoot",
                Path.Combine(root, "src", "Web"),
            ]
        )
        {
            UseShellExecute = false,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        start.Environment["MEADOW_DB"] = database;
        start.Environment["MEADOW_WRITES_PER_MINUTE"] = "600000";
        start.Environment["MEADOW_JOBS"] = works ? "here" : "elsewhere";
        foreach ((string name, string value) in settings ?? new Dictionary<string, string>())
            start.Environment[name] = value;
        Process process = Process.Start(start)!;
        var listening = new TaskCompletionSource<Uri>();
        process.OutputDataReceived += (_, line) =>
        {
            const string says = "Now listening on: ";
            if (line.Data?.IndexOf(says, StringComparison.Ordinal) is >= 0 and var at)
                listening.TrySetResult(new Uri(line.Data[(at + says.Length)..].Trim()));
        };
        process.BeginOutputReadLine();
        process.BeginErrorReadLine();
        var browser = new HttpClient { BaseAddress = await listening.Task.WaitAsync(Longest), Timeout = Longest };
        if (settings?.ContainsKey(Safekeeping.ReadingOnly.Setting) != true)
            await browser.TapIn();
        return new AppProcess(process, browser);
    }

    /// <summary>Starts an errand of the command line on a database.</summary>
    public static Process Errand(string database, string name)
    {
        var start = new ProcessStartInfo("dotnet", [Path.Combine(AppContext.BaseDirectory, "UnrulyMeadow.Web.dll"), name])
        {
            UseShellExecute = false,
        };
        start.Environment["MEADOW_DB"] = database;
        return Process.Start(start)!;
    }

    /// <summary>Kills it, as a failing machine would.</summary>
    public async Task Kill()
    {
        if (!_process.HasExited)
            _process.Kill();
        await _process.WaitForExitAsync();
    }

    public void Dispose()
    {
        if (!_process.HasExited)
            _process.Kill();
        _process.WaitForExit();
        _process.Dispose();
        Browser.Dispose();
    }
}

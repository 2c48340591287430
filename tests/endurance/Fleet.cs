using System.Diagnostics;
using UnrulyMeadow.Web.Tests;

namespace UnrulyMeadow.Endurance;

/// <summary>Two web processes and a worker on one database, each of which is started again when it was killed.</summary>
internal sealed class Fleet : IDisposable
{
    private const int Webs = 2;

    private readonly string _database;
    private readonly AppProcess?[] _webs = new AppProcess?[Webs];
    private Process? _worker;

    private Fleet(string database) => _database = database;

    /// <summary>Starts them.</summary>
    public static async Task<Fleet> Start(string database)
    {
        var fleet = new Fleet(database);
        for (int i = 0; i < Webs; i++)
            fleet._webs[i] = await AppProcess.Start(database, works: false);
        fleet._worker = AppProcess.Errand(database, "work");
        return fleet;
    }

    /// <summary>Where one of those that are up answers, as a proxy would choose it.</summary>
    public Uri? Address(Random random)
    {
        AppProcess[] up = [.. _webs.OfType<AppProcess>()];
        return up.Length == 0 ? null : up[random.Next(up.Length)].Browser.BaseAddress;
    }

    /// <summary>Kills a web process and starts another in its place.</summary>
    public async Task KillWeb(int which)
    {
        using AppProcess killed = _webs[which % Webs]!;
        _webs[which % Webs] = null;
        await killed.Kill();
        _webs[which % Webs] = await AppProcess.Start(_database, works: false);
    }

    /// <summary>Kills the worker and starts another.</summary>
    public async Task KillWorker()
    {
        _worker!.Kill();
        await _worker.WaitForExitAsync();
        _worker.Dispose();
        _worker = AppProcess.Errand(_database, "work");
    }

    public void Dispose()
    {
        foreach (AppProcess? web in _webs)
            web?.Dispose();
        if (_worker is { } worker)
        {
            worker.Kill();
            worker.WaitForExit();
            worker.Dispose();
        }
    }
}

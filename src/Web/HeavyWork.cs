using UnrulyMeadow.Core;

namespace UnrulyMeadow.Web;

/// <summary>One large file or picture at a time: each may unfold to many times its size.</summary>
public sealed class HeavyWork : IDisposable
{
    // Whoever would wait longer is told so, and may come again.
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(4);

    private readonly SemaphoreSlim _one = new(1, 1);

    /// <summary>Does heavy work when its turn comes.</summary>
    /// <exception cref="InvalidInputException">Others take too long.</exception>
    public async Task<T> Do<T>(Func<Task<T>> work)
    {
        if (!await _one.WaitAsync(Patience))
            throw new InvalidInputException("file", "another file is being read just now; send it again in a minute");
        try
        {
            return await work();
        }
        finally
        {
            _one.Release();
        }
    }

    /// <inheritdoc />
    public void Dispose() => _one.Dispose();
}

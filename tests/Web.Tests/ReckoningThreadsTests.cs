using System.Collections.Concurrent;
using UnrulyMeadow.Web.Jobs;

namespace UnrulyMeadow.Web.Tests;

/// <summary>What pages wait for is reckoned on few threads that give way, and comes to its end however much is asked at once.</summary>
public sealed class ReckoningThreadsTests
{
    [Fact]
    public async Task Reckonings_that_all_read_the_database_come_to_their_end_though_they_are_more_than_the_threads()
    {
        using var threads = new ReckoningThreads();
        Task<int>[] all =
        [
            .. Enumerable
                .Range(0, 20 * threads.MaximumConcurrencyLevel)
                .Select(i =>
                    threads.Run(() =>
                        ReckoningThreads.Read(async () =>
                        {
                            await Task.Delay(2);
                            await Task.Yield();
                            return i;
                        })
                    )
                ),
        ];
        int[] found = await Task.WhenAll(all).WaitAsync(TimeSpan.FromSeconds(60), TestContext.Current.CancellationToken);
        Assert.Equal(Enumerable.Range(0, all.Length), found);
    }

    [Fact]
    public async Task Work_done_side_by_side_stays_on_the_threads_that_it_was_asked_on_and_keeps_its_order()
    {
        using var threads = new ReckoningThreads();
        var ran = new ConcurrentBag<string?>();
        int[] found = await threads.Run(() => Core.SideBySide.Each([.. Enumerable.Range(0, 200)], i =>
            {
                ran.Add(Thread.CurrentThread.Name);
                Thread.SpinWait(1000);
                return i * i;
            }));
        Assert.Equal(Enumerable.Range(0, 200).Select(i => i * i), found);
        Assert.All(ran, name => Assert.StartsWith("reckoning", name, StringComparison.Ordinal));
    }

    [Fact]
    public void No_loop_takes_the_threads_on_which_requests_are_answered()
    {
        string root = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(root, "UnrulyMeadow.slnx")))
            root = Path.GetDirectoryName(root) ?? throw new InvalidOperationException("the tests run inside the project");
        string[] files = [.. Directory.EnumerateFiles(Path.Combine(root, "src"), "*.cs", SearchOption.AllDirectories)];
        Assert.True(files.Length > 200);
        foreach (string file in files)
        {
            string text = File.ReadAllText(file);
            Assert.False(text.Contains(".AsParallel(", StringComparison.Ordinal), $"{file}: SideBySide.Each stays on its threads");
            int loops = text.Split("Parallel.For").Length - 1;
            int stay = text.Split("TaskScheduler = TaskScheduler.Current").Length - 1;
            Assert.True(loops <= stay, $"{file}: a loop names no TaskScheduler");
        }
    }

    [Fact]
    public async Task Loops_that_say_so_and_what_waits_for_anothers_value_stay_on_them_and_no_more_run_at_once_than_there_are()
    {
        using var threads = new ReckoningThreads();
        var cache = new Core.BoundedCache<int, int>(100, _ => 1);
        var ran = new ConcurrentBag<string?>();
        int now = 0;
        int most = 0;
        // Every value needs the one before it, which another reckoning may be about to compute.
        int Value(int key)
        {
            int running = Interlocked.Increment(ref now);
            InterlockedMax(ref most, running);
            Parallel.For(0, 8, new ParallelOptions { TaskScheduler = TaskScheduler.Current }, _ => ran.Add(Thread.CurrentThread.Name));
            Interlocked.Decrement(ref now);
            return key == 0 ? 0 : 1 + cache.GetOrAdd(key - 1, Value);
        }
        Task<int>[] asked = [.. Enumerable.Range(0, 40).Select(i => cache.GetOrAddBeside(i, Value, threads))];
        int[] found = await Task.WhenAll(asked).WaitAsync(TimeSpan.FromSeconds(60), TestContext.Current.CancellationToken);
        Assert.Equal(Enumerable.Range(0, 40), found);
        Assert.All(ran, name => Assert.StartsWith("reckoning", name, StringComparison.Ordinal));
        Assert.InRange(most, 1, threads.MaximumConcurrencyLevel);
    }

    private static void InterlockedMax(ref int most, int seen)
    {
        for (int known = most; seen > known; known = most)
            Interlocked.CompareExchange(ref most, seen, known);
    }
}

namespace UnrulyMeadow.Core.Tests;

/// <summary>What is kept stays within its bytes, is computed once, and forgets failures.</summary>
public sealed class BoundedCacheTests
{
    [Fact]
    public void It_never_holds_more_than_its_bytes_and_keeps_what_was_asked_for_last()
    {
        var random = new Random(7);
        var cache = new BoundedCache<int, int>(100, v => v);
        for (int i = 0; i < 5000; i++)
        {
            int key = random.Next(60);
            Assert.Equal(key + 1, cache.GetOrAdd(key, k => k + 1));
            Assert.True(cache.Contains(key));
            Assert.InRange(cache.Bytes, 1, 100);
        }
    }

    [Fact]
    public void What_is_asked_for_often_outlasts_what_was_asked_for_once()
    {
        var cache = new BoundedCache<int, int>(10, _ => 1);
        int computed = 0;
        for (int i = 1; i < 200; i++)
        {
            cache.GetOrAdd(i, k => k);
            cache.GetOrAdd(0, k => ++computed);
        }
        Assert.Equal(1, computed);
    }

    [Fact]
    public void One_value_too_large_for_all_is_still_given_and_drives_out_the_rest()
    {
        var cache = new BoundedCache<string, int>(10, v => v);
        cache.GetOrAdd("small", _ => 4);
        Assert.Equal(50, cache.GetOrAdd("large", _ => 50));
        Assert.False(cache.Contains("small"));
        cache.GetOrAdd("small", _ => 4);
        Assert.False(cache.Contains("large"));
        Assert.Equal(4, cache.Bytes);
    }

    [Fact]
    public void A_computation_that_fails_is_told_and_tried_anew()
    {
        var cache = new BoundedCache<int, int>(10, _ => 1);
        Assert.Throws<InvalidOperationException>(() => cache.GetOrAdd(1, _ => throw new InvalidOperationException()));
        Assert.False(cache.Contains(1));
        Assert.Equal(2, cache.GetOrAdd(1, _ => 2));
    }

    [Fact]
    public void Many_who_ask_at_once_share_one_computation()
    {
        var cache = new BoundedCache<int, int>(1000, _ => 1);
        int computed = 0;
        Parallel.For(0, 400, new ParallelOptions { MaxDegreeOfParallelism = 8 }, i => Assert.Equal(i % 20, cache.GetOrAdd(i % 20, k =>
                {
                    Interlocked.Increment(ref computed);
                    Thread.Yield();
                    return k;
                })));
        Assert.Equal(20, computed);
        Assert.Equal(20, cache.Bytes);
    }
}

namespace UnrulyMeadow.Core;

/// <summary>
/// Values computed once and kept while they fit into so many bytes; what was asked for least lately goes first. Several who ask for one
/// value at once share its computation, and a computation that fails is not kept. Safe for several threads.
/// </summary>
/// <param name="mostBytes">Bytes that all values together may take; the one asked for last is kept even when it alone takes more.</param>
/// <param name="bytesOf">About how many bytes a value takes; one for each where only their number is bounded.</param>
/// <param name="keys">How keys are compared; null for their own way.</param>
public sealed class BoundedCache<TKey, TValue>(long mostBytes, Func<TValue, long> bytesOf, IEqualityComparer<TKey>? keys = null)
    where TKey : notnull
{
    private readonly Lock _lock = new();
    private readonly Dictionary<TKey, LinkedListNode<Entry>> _known = new(keys);

    private readonly Dictionary<TKey, Task<TValue>> _beside = new(keys);

    // The one asked for last stands first.
    private readonly LinkedList<Entry> _order = new();
    private long _bytes;

    /// <summary>Bytes that the values take together.</summary>
    public long Bytes
    {
        get
        {
            lock (_lock)
                return _bytes;
        }
    }

    /// <summary>The value of a key, computed when it is not known.</summary>
    public TValue GetOrAdd(TKey key, Func<TKey, TValue> compute)
    {
        Entry entry;
        lock (_lock)
        {
            if (_known.TryGetValue(key, out LinkedListNode<Entry>? node))
            {
                if (!ReferenceEquals(_order.First, node))
                {
                    _order.Remove(node);
                    _order.AddFirst(node);
                }
            }
            else
            {
                node = _order.AddFirst(new Entry(key, Later(key, compute)));
                _known[key] = node;
            }
            entry = node.Value;
        }
        try
        {
            TValue value = entry.Value.Value;
            if (entry.Bytes == 0)
                Weigh(entry, value);
            return value;
        }
        catch
        {
            lock (_lock)
                Drop(entry);
            throw;
        }
    }

    /// <summary>
    /// The value of a key, where it is not known computed by another thread. Many who wait for it hold up no other thread.
    /// </summary>
    /// <param name="key">The key.</param>
    /// <param name="compute">Computes its value.</param>
    /// <param name="on">Runs it.</param>
    public Task<TValue> GetOrAddBeside(TKey key, Func<TKey, TValue> compute, TaskScheduler on)
    {
        lock (_lock)
        {
            if (_known.TryGetValue(key, out LinkedListNode<Entry>? node) && node.Value.Bytes > 0)
                return Task.FromResult(GetOrAdd(key, compute));
            if (_beside.TryGetValue(key, out Task<TValue>? running))
                return running;
            Task<TValue> begun = _beside[key] = new Task<TValue>(() =>
            {
                try
                {
                    return GetOrAdd(key, compute);
                }
                finally
                {
                    lock (_lock)
                        _beside.Remove(key);
                }
            });
            begun.Start(on);
            return begun;
        }
    }

    // By itself, so that nothing is set up where the value is known.
    private static Lazy<TValue> Later(TKey key, Func<TKey, TValue> compute) => new(() => compute(key));

    /// <summary>True when a value is known or being computed.</summary>
    public bool Contains(TKey key)
    {
        lock (_lock)
            return _known.ContainsKey(key);
    }

    private void Weigh(Entry entry, TValue value)
    {
        long bytes = Math.Max(1, bytesOf(value));
        lock (_lock)
        {
            if (entry.Bytes > 0 || !_known.TryGetValue(entry.Key, out LinkedListNode<Entry>? node) || !ReferenceEquals(node.Value, entry))
                return;
            entry.Bytes = bytes;
            _bytes += bytes;
            // What is still being computed has no weight yet and is left alone.
            for (LinkedListNode<Entry>? last = _order.Last; _bytes > mostBytes && last is not null; )
            {
                LinkedListNode<Entry>? next = last.Previous;
                if (last.Value.Bytes > 0 && !ReferenceEquals(last.Value, entry))
                    Drop(last.Value);
                last = next;
            }
        }
    }

    private void Drop(Entry entry)
    {
        if (!_known.TryGetValue(entry.Key, out LinkedListNode<Entry>? node) || !ReferenceEquals(node.Value, entry))
            return;
        _known.Remove(entry.Key);
        _order.Remove(node);
        _bytes -= entry.Bytes;
    }

    private sealed class Entry(TKey key, Lazy<TValue> value)
    {
        public TKey Key { get; } = key;

        public Lazy<TValue> Value { get; } = value;

        public long Bytes { get; set; }
    }
}

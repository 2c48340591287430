namespace UnrulyMeadow.Core.Season;

/// <summary>Memory for rows of days, lent for as long as one planter is computed and then used again. One thread uses one of these.</summary>
internal sealed class DayRoom
{
    private const int LeastFloats = 1 << 16;

    private float[] _rows = [];
    private int _used;

    /// <summary>So many floats, all 0.</summary>
    public Memory<float> Take(int length)
    {
        // What was lent from the smaller array goes on living in it.
        if (_rows.Length - _used < length)
        {
            _rows = new float[Math.Max(LeastFloats, Math.Max(2 * _rows.Length, length))];
            _used = 0;
        }
        Memory<float> lent = _rows.AsMemory(_used, length);
        lent.Span.Clear();
        _used += length;
        return lent;
    }

    /// <summary>Takes back all that was lent.</summary>
    public void Reset() => _used = 0;
}

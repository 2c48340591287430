using System.Runtime.CompilerServices;
using System.Runtime.InteropServices;
using System.Runtime.Intrinsics;
using Lanes = System.Runtime.Intrinsics.Vector512<double>;

namespace UnrulyMeadow.Core.Ground;

/// <summary>The state of all cells, eight stretches of years side by side.</summary>
internal sealed class GroundState
{
    private readonly Lanes _freezingHeat;
    private readonly Lanes _thawedSlope;
    private readonly Lanes _freezingSlope;
    private readonly Lanes _frozenSlope;
    private readonly Lanes _thawedCapacity;
    private readonly Lanes _freezingCapacity;
    private readonly Lanes _frozenCapacity;
    private readonly Lanes _thawedResistivity;
    private readonly Lanes _resistivitySlope;

    public GroundState(Medium medium, int cells, double startC)
    {
        Medium = medium;
        _freezingHeat = Vector512.Create(medium.FreezingHeatMJ);
        _thawedSlope = Vector512.Create(1 / medium.ThawedHeatMJ);
        _freezingSlope = Vector512.Create(medium.FreezingRangeK / medium.FreezingHeatMJ);
        _frozenSlope = Vector512.Create(1 / medium.FrozenHeatMJ);
        _thawedCapacity = Vector512.Create(medium.ThawedHeatMJ);
        _freezingCapacity = Vector512.Create(medium.FreezingHeatMJ / medium.FreezingRangeK);
        _frozenCapacity = Vector512.Create(medium.FrozenHeatMJ);
        _thawedResistivity = Vector512.Create(1 / medium.ThawedConductivity);
        _resistivitySlope = Vector512.Create(((1 / medium.FrozenConductivity) - (1 / medium.ThawedConductivity)) / medium.FreezingHeatMJ);
        Enthalpy = new Lanes[cells];
        Temperature = new Lanes[cells];
        Capacity = new Lanes[cells];
        Array.Fill(Enthalpy, Vector512.Create(medium.EnthalpyMJ(startC)));
        for (int i = 0; i < cells; i++)
            ReadBack(i);
    }

    public Medium Medium { get; }

    /// <summary>MJ/m³, 0 at 0 °C with no ice.</summary>
    public Lanes[] Enthalpy { get; }

    /// <summary>°C.</summary>
    public Lanes[] Temperature { get; }

    /// <summary>MJ/m³K.</summary>
    public Lanes[] Capacity { get; }

    /// <summary>Temperature and heat capacity of a cell from its enthalpy.</summary>
    [MethodImpl(MethodImplOptions.AggressiveInlining)]
    public void ReadBack(int i)
    {
        Lanes h = Unsafe.Add(ref MemoryMarshal.GetArrayDataReference(Enthalpy), i);
        Lanes freezing = Vector512.Max(Vector512.Min(h, Lanes.Zero), -_freezingHeat);
        Lanes frozen = Vector512.Min(h + _freezingHeat, Lanes.Zero);
        Unsafe.Add(ref MemoryMarshal.GetArrayDataReference(Temperature), i) =
            (Vector512.Max(h, Lanes.Zero) * _thawedSlope) + (freezing * _freezingSlope) + (frozen * _frozenSlope);
        Unsafe.Add(ref MemoryMarshal.GetArrayDataReference(Capacity), i) = Vector512.ConditionalSelect(
            Vector512.GreaterThanOrEqual(h, Lanes.Zero),
            _thawedCapacity,
            Vector512.ConditionalSelect(Vector512.GreaterThan(h, -_freezingHeat), _freezingCapacity, _frozenCapacity)
        );
    }

    /// <summary>Resistivity of a cell by its share of ice, m·K/W.</summary>
    [MethodImpl(MethodImplOptions.AggressiveInlining)]
    public Lanes Resistivity(int i) =>
        _thawedResistivity - (Vector512.Max(Vector512.Min(Enthalpy[i], Lanes.Zero), -_freezingHeat) * _resistivitySlope);
}

/// <summary>
/// One direction of the split step: lines of cells of like measures, each solved for itself. All lines of a direction
/// share one matrix per unit of their breadth while nothing is frozen, so its factors are made once a day.
/// </summary>
internal sealed class GroundSweep
{
    private const double Implicit = GroundModel.Implicit;
    private const int MostRounds = 6;
    private const double Mega = 1e6;

    private readonly GroundState _state;
    private readonly int _stride;
    private readonly int _n;
    private readonly double[] _half; // half a cell's length along the line, m
    private readonly double[] _rate; // cell's volume per unit of breadth over the step, times 10⁶ for MJ
    private readonly double[] _face; // face before each cell per unit of breadth; the last entry behind the line
    private readonly Lanes[] _warm; // conductances while nothing is frozen: before each cell, and behind the line
    private readonly Lanes[] _warmPivot;
    private readonly Lanes[] _warmLower;
    private readonly Lanes[] _conductance;
    private readonly Lanes[] _lower;
    private readonly Lanes[] _right;
    private readonly Lanes[] _oldEnthalpy;
    private readonly Lanes[] _oldTemperature;
    private Lanes _before;
    private Lanes _behind;
    private bool _open;

    public GroundSweep(GroundState state, int stride, double[] lengths, double[] volumes, double[] faces)
    {
        _state = state;
        _stride = stride;
        _n = lengths.Length;
        _half = [.. lengths.Select(l => l / 2)];
        _rate = [.. volumes.Select(v => v * Mega / GroundModel.StepSeconds)];
        _face = faces;
        _warm = new Lanes[_n + 1];
        _warmPivot = new Lanes[_n];
        _warmLower = new Lanes[_n];
        _conductance = new Lanes[_n + 1];
        _lower = new Lanes[_n];
        _right = new Lanes[_n];
        _oldEnthalpy = new Lanes[_n];
        _oldTemperature = new Lanes[_n];
    }

    /// <summary>Sets the resistances before and behind the lines for a day, m²K/W; no heat passes behind when it is null.</summary>
    public void Prepare(Lanes before, Lanes? behind)
    {
        _before = before;
        _behind = behind ?? Lanes.Zero;
        _open = behind is not null;
        double thawed = 1 / _state.Medium.ThawedConductivity;
        _warm[0] = Vector512.Create(_face[0]) / (before + Vector512.Create(thawed * _half[0]));
        for (int k = 1; k < _n; k++)
            _warm[k] = Vector512.Create(_face[k] / (thawed * (_half[k - 1] + _half[k])));
        _warm[_n] = _open ? Vector512.Create(_face[_n]) / (_behind + Vector512.Create(thawed * _half[_n - 1])) : Lanes.Zero;
        Lanes lower = Lanes.Zero;
        for (int k = 0; k < _n; k++)
        {
            Lanes a = k == 0 ? Lanes.Zero : _warm[k] * Implicit;
            Lanes diagonal = Vector512.Create(_state.Medium.ThawedHeatMJ * _rate[k]) + ((_warm[k] + _warm[k + 1]) * Implicit);
            _warmPivot[k] = Vector512.Create(1.0) / (diagonal - (a * lower));
            _warmLower[k] = lower = _warm[k + 1] * Implicit * _warmPivot[k];
        }
    }

    /// <summary>Steps one line; returns the watts that came in before and behind it, per unit of breadth.</summary>
    /// <param name="first">Its first cell.</param>
    /// <param name="beforeC">Temperature before it, °C.</param>
    /// <param name="behindC">Temperature behind it, °C.</param>
    public (Lanes Before, Lanes Behind) Step(int first, Lanes beforeC, Lanes behindC) =>
        Warm(first, beforeC, behindC, out Lanes before, out Lanes behind) ? (before, behind) : Freezing(first, beforeC, behindC);

    // While no cell holds ice before or after the step; otherwise false, and nothing is changed.
    private bool Warm(int first, Lanes beforeC, Lanes behindC, out Lanes before, out Lanes behind)
    {
        ref Lanes t = ref MemoryMarshal.GetArrayDataReference(_state.Temperature);
        ref Lanes g = ref MemoryMarshal.GetArrayDataReference(_warm);
        ref Lanes pivot = ref MemoryMarshal.GetArrayDataReference(_warmPivot);
        ref Lanes lower = ref MemoryMarshal.GetArrayDataReference(_warmLower);
        ref Lanes right = ref MemoryMarshal.GetArrayDataReference(_right);
        before = behind = Lanes.Zero;
        Lanes here = Unsafe.Add(ref t, first);
        if (!Vector512.GreaterThanAll(here, Lanes.Zero))
            return false;
        Lanes left = g * (beforeC - here);
        Lanes carried = Lanes.Zero;
        Lanes coldest = here;
        int i = first;
        for (int k = 0; k < _n; k++)
        {
            Lanes next = k == _n - 1 ? behindC : Unsafe.Add(ref t, i + _stride);
            Lanes onward = Unsafe.Add(ref g, k + 1) * (here - next);
            Lanes flux = left - onward;
            carried = (flux + (Unsafe.Add(ref g, k) * Implicit * carried)) * Unsafe.Add(ref pivot, k);
            Unsafe.Add(ref right, k) = carried;
            coldest = Vector512.Min(coldest, here);
            left = onward;
            here = next;
            i += _stride;
        }
        if (!Vector512.GreaterThanAll(coldest, Lanes.Zero))
            return false;
        Lanes change = Lanes.Zero;
        i = first + ((_n - 1) * _stride);
        for (int k = _n - 1; k >= 0; k--)
        {
            change = Unsafe.Add(ref right, k) + (Unsafe.Add(ref lower, k) * change);
            Unsafe.Add(ref right, k) = change;
            coldest = Vector512.Min(coldest, Unsafe.Add(ref t, i) + change);
            i -= _stride;
        }
        if (!Vector512.GreaterThanAll(coldest, Lanes.Zero))
            return false;
        ref Lanes h = ref MemoryMarshal.GetArrayDataReference(_state.Enthalpy);
        double heat = _state.Medium.ThawedHeatMJ;
        i = first;
        before = _warm[0] * (beforeC - Unsafe.Add(ref t, first) - (Implicit * _right[0]));
        int end = first + ((_n - 1) * _stride);
        behind = _warm[_n] * (behindC - Unsafe.Add(ref t, end) - (Implicit * _right[_n - 1]));
        for (int k = 0; k < _n; k++)
        {
            Lanes now = Unsafe.Add(ref t, i) + Unsafe.Add(ref right, k);
            Unsafe.Add(ref t, i) = now;
            Unsafe.Add(ref h, i) = now * heat;
            i += _stride;
        }
        return true;
    }

    // With ice somewhere in the line: Newton's rounds, until no cell begins or ends freezing.
    private (Lanes Before, Lanes Behind) Freezing(int first, Lanes beforeC, Lanes behindC)
    {
        ref Lanes t = ref MemoryMarshal.GetArrayDataReference(_state.Temperature);
        ref Lanes h = ref MemoryMarshal.GetArrayDataReference(_state.Enthalpy);
        ref Lanes capacity = ref MemoryMarshal.GetArrayDataReference(_state.Capacity);
        ref Lanes oldT = ref MemoryMarshal.GetArrayDataReference(_oldTemperature);
        ref Lanes oldH = ref MemoryMarshal.GetArrayDataReference(_oldEnthalpy);
        ref Lanes conductance = ref MemoryMarshal.GetArrayDataReference(_conductance);
        ref Lanes lowers = ref MemoryMarshal.GetArrayDataReference(_lower);
        ref Lanes rights = ref MemoryMarshal.GetArrayDataReference(_right);
        ref double rate = ref MemoryMarshal.GetArrayDataReference(_rate);
        ref double half = ref MemoryMarshal.GetArrayDataReference(_half);
        ref double face = ref MemoryMarshal.GetArrayDataReference(_face);
        int n = _n;
        int stride = _stride;
        Lanes outward = _before;
        for (int k = 0, i = first; k < n; k++, i += stride)
        {
            _state.ReadBack(i);
            Unsafe.Add(ref oldH, k) = Unsafe.Add(ref h, i);
            Unsafe.Add(ref oldT, k) = Unsafe.Add(ref t, i);
            Lanes here = _state.Resistivity(i) * Unsafe.Add(ref half, k);
            Unsafe.Add(ref conductance, k) = Vector512.Create(Unsafe.Add(ref face, k)) / (outward + here);
            outward = here;
        }
        Unsafe.Add(ref conductance, n) = _open ? Vector512.Create(_face[n]) / (_behind + outward) : Lanes.Zero;
        for (int round = 1; ; round++)
        {
            Lanes carried = Lanes.Zero;
            Lanes lower = Lanes.Zero;
            Lanes left = beforeC;
            Lanes leftOld = beforeC;
            for (int k = 0, i = first; k < n; k++, i += stride)
            {
                Lanes before = Unsafe.Add(ref conductance, k);
                Lanes behind = Unsafe.Add(ref conductance, k + 1);
                Lanes hereOld = Unsafe.Add(ref oldT, k);
                Lanes rightOld = k == n - 1 ? behindC : Unsafe.Add(ref oldT, k + 1);
                Lanes flux = (before * (leftOld - hereOld)) + (behind * (rightOld - hereOld));
                Lanes volume = Vector512.Create(Unsafe.Add(ref rate, k));
                if (round > 1)
                {
                    Lanes here = Unsafe.Add(ref t, i);
                    Lanes right = k == n - 1 ? behindC : Unsafe.Add(ref t, i + stride);
                    flux =
                        (flux * (1 - Implicit))
                        + (((before * (left - here)) + (behind * (right - here))) * Implicit)
                        - ((Unsafe.Add(ref h, i) - Unsafe.Add(ref oldH, k)) * volume);
                    left = here;
                }
                leftOld = hereOld;
                // Unknowns are the changes of temperature; Thomas' elimination as the line is walked.
                Lanes a = k == 0 ? Lanes.Zero : before * Implicit;
                Lanes pivot = Vector512.Create(1.0) / ((Unsafe.Add(ref capacity, i) * volume) + ((before + behind) * Implicit) - (a * lower));
                Unsafe.Add(ref lowers, k) = lower = behind * Implicit * pivot;
                Unsafe.Add(ref rights, k) = carried = (flux + (a * carried)) * pivot;
            }
            Lanes change = Lanes.Zero;
            Lanes turned = Lanes.Zero;
            Lanes firstNew = Lanes.Zero;
            Lanes lastNew = Lanes.Zero;
            for (int k = n - 1, i = first + ((n - 1) * stride); k >= 0; k--, i -= stride)
            {
                change = Unsafe.Add(ref rights, k) + (Unsafe.Add(ref lowers, k) * change);
                firstNew = Unsafe.Add(ref t, i) + change;
                if (k == n - 1)
                    lastNew = firstNew;
                Lanes was = Unsafe.Add(ref capacity, i);
                Unsafe.Add(ref h, i) += was * change;
                _state.ReadBack(i);
                turned |= was - Unsafe.Add(ref capacity, i);
            }
            if (round == MostRounds || Vector512.EqualsAll(turned, Lanes.Zero))
            {
                return (
                    conductance * (beforeC - (oldT * (1 - Implicit)) - (firstNew * Implicit)),
                    Unsafe.Add(ref conductance, n) * (behindC - (Unsafe.Add(ref oldT, n - 1) * (1 - Implicit)) - (lastNew * Implicit))
                );
            }
        }
    }
}

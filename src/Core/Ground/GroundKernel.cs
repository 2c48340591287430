using System.Runtime.Intrinsics;
using UnrulyMeadow.Core.Climate;
using Lanes = System.Runtime.Intrinsics.Vector512<double>;

namespace UnrulyMeadow.Core.Ground;

/// <summary>One run of the ground model: walks the days and their steps, and notes what roots and bulbs felt.</summary>
internal sealed class GroundKernel
{
    private const int LaneCount = 8;
    private const int BedSpinUpDays = 365;
    private const int ContainerSpinUpDays = 90;
    private const double PavingResistance = 0.15;

    private readonly ThermalClass _what;
    private readonly GroundForcing _forcing;
    private readonly GroundTemperatures _result;
    private readonly GroundGrid _grid;
    private readonly GroundState _state;
    private readonly GroundSweep _down;
    private readonly GroundSweep _across;
    private readonly int _rows;
    private readonly int _columns;
    private readonly Lanes[] _rowSum;
    private readonly int _rootUpper;
    private readonly int _rootLower;
    private readonly double _rootShare;
    private readonly double _sunShare;
    private Lanes _rootMin;
    private Lanes _rootMax;
    private Lanes _heatIn;
    private Lanes _heatMoved;
    private Lanes _paving;

    public GroundKernel(ThermalClass what, GroundGrid grid, GroundForcing forcing, GroundTemperatures result)
    {
        _what = what;
        _grid = grid;
        _forcing = forcing;
        _result = result;
        _rows = grid.RowsM.Length;
        _columns = grid.ColumnsM.Length;
        _rowSum = new Lanes[_rows];
        double start = forcing.FirstYearMeanC();
        _state = new GroundState(what.Medium, _rows * _columns, start);
        _paving = Vector512.Create(start);
        // Down: per m² of a column. Across: per metre of a row's height.
        _down = new GroundSweep(_state, _columns, grid.RowsM, grid.RowsM, [.. Enumerable.Repeat(1.0, _rows + 1)]);
        double[] faces = [.. grid.ColumnFacesM, 0];
        faces[0] *= what.FreeWall;
        _across = new GroundSweep(_state, 1, grid.ColumnsM, grid.ColumnAreasM2, faces);
        (_rootUpper, _rootLower, _rootShare) = RootPlace(what, grid);
        _sunShare = what.Sun switch
        {
            Exposure.FullSun => 1,
            Exposure.PartSun => 0.5,
            _ => 0.15,
        };
    }

    public void Run()
    {
        int years = Math.Max(1, (int)Math.Ceiling(_forcing.Days / 365.25));
        int stretch = Math.Min(_forcing.Days, (int)Math.Ceiling((years + LaneCount - 1) / LaneCount * 365.25));
        if (_what.IsBed)
            StartBed(stretch);
        Lanes heatAtStart = Heat();
        Span<int> day = stackalloc int[LaneCount];
        for (int i = _what.IsBed ? -BedSpinUpDays : -ContainerSpinUpDays; i < stretch; i++)
        {
            for (int lane = 0; lane < LaneCount; lane++)
                day[lane] = (lane * stretch) + i;
            _rootMin = Vector512.Create(double.PositiveInfinity);
            _rootMax = Vector512.Create(double.NegativeInfinity);
            Array.Clear(_rowSum);
            Day(day);
            if (i >= 0)
                Note(day);
        }
        Lanes difference = Vector512.Abs(Heat() - heatAtStart - _heatIn);
        for (int lane = 0; lane < LaneCount; lane++)
            _result.EnergyError = Math.Max(_result.EnergyError, difference.GetElement(lane) / Math.Max(1e-9, _heatMoved.GetElement(lane)));
    }

    // Where roots are looked for: two cells and the share of the second.
    private static (int Upper, int Lower, double Share) RootPlace(ThermalClass what, GroundGrid grid)
    {
        double[] centres = what.IsBed ? grid.RowCentresM : grid.ColumnCentresM;
        double at = what.IsBed ? ThermalClass.BedRootDepthM : Math.Min(ThermalClass.RootsInsideWallM, what.HalfWidthM / 2);
        int lower = Math.Max(1, Array.FindIndex(centres, c => c >= at));
        double share = Math.Clamp((at - centres[lower - 1]) / (centres[lower] - centres[lower - 1]), 0, 1);
        if (what.IsBed)
            return (lower - 1, lower, share);
        int row = Array.FindIndex(grid.RowCentresM, r => r >= what.DepthM / 2) * grid.ColumnsM.Length;
        return (row + lower - 1, row + lower, share);
    }

    // Deep ground remembers for years: each stretch begins with the yearly wave of the air carried down to every row.
    private void StartBed(int stretch)
    {
        const double year = 365;
        int days = Math.Min(365, _forcing.Days);
        double mean = _forcing.FirstYearMeanC();
        double cosine = 0;
        double sine = 0;
        for (int i = 0; i < days && _forcing.Days >= 365; i++)
        {
            double air = (_forcing.MinC[i] + _forcing.MaxC[i]) / 2;
            cosine += air * Math.Cos(2 * Math.PI * i / year) * 2 / year;
            sine += air * Math.Sin(2 * Math.PI * i / year) * 2 / year;
        }
        double damping = Math.Sqrt(2 * _what.Medium.ThawedDiffusivity * year * 86400 / (2 * Math.PI));
        for (int r = 0; r < _rows; r++)
        {
            double depth = _grid.RowCentresM[r] / damping;
            for (int lane = 0; lane < LaneCount; lane++)
            {
                double phase = (2 * Math.PI * ((lane * stretch) - BedSpinUpDays) / year) - depth;
                double t = mean + (Math.Exp(-depth) * ((cosine * Math.Cos(phase)) + (sine * Math.Sin(phase))));
                _state.Enthalpy[r] = _state.Enthalpy[r].WithElement(lane, _what.Medium.EnthalpyMJ(t));
            }
            _state.ReadBack(r);
        }
    }

    private void Day(ReadOnlySpan<int> day)
    {
        Lanes maxBefore = Take(_forcing.MaxC, day, -1);
        Lanes min = Take(_forcing.MinC, day, 0);
        Lanes max = Take(_forcing.MaxC, day, 0);
        Lanes minAfter = Take(_forcing.MinC, day, 1);
        Lanes sun = Take(_forcing.SunMJ, day, 0) * _sunShare;
        // What hides the sun hides the sky as much, and less heat is lost to it.
        Lanes skyLoss = Take(_forcing.SkyLossMJ, day, 0) * (_sunShare * 1e6 / 86400);
        Lanes film = Take(_forcing.FilmResistance, day, 0);
        Lanes wall = Vector512.Create(_what.WholeWallResistance);
        int month = _forcing.Month[Wrap(day[0])] * GroundModel.StepsPerDay;
        // Paving under a container follows the air slowly: ten days behind.
        _paving += (((min + max) * 0.5) - _paving) * 0.1;
        _down.Prepare(
            film + Vector512.Create(_what.CoverResistance) + Take(_forcing.SnowResistance, day, 0),
            _what.IsBed ? null : wall + Vector512.Create(_what.OnFeet ? 1 / GroundForcing.FilmBelow : PavingResistance)
        );
        if (!_what.IsBed)
            _across.Prepare(film + wall, null);
        for (int step = 0; step < GroundModel.StepsPerDay; step++)
        {
            ReadOnlySpan<double> s = GroundModel.StepShares.AsSpan(step * 4, 4);
            Lanes air = (maxBefore * s[0]) + (min * s[1]) + (max * s[2]) + (minAfter * s[3]);
            Lanes overTop =
                air
                + (((sun * (_forcing.TopSun[month + step] * ReferenceEvapotranspiration.TakenUp)) - skyLoss) * film * GroundModel.TopRadiationShare);
            Lanes atWall = air + (sun * film * (_forcing.WallSun[month + step] * _what.WallAbsorptance * GroundModel.WallSunShare));
            Lanes under = _what.OnFeet ? air : _paving;
            bool downFirst = (step & 1) == 0;
            if (downFirst)
                Down(overTop, under);
            if (!_what.IsBed)
                Across(atWall);
            if (!downFirst)
                Down(overTop, under);
            Watch();
        }
    }

    private void Down(Lanes overTop, Lanes under)
    {
        for (int c = 0; c < _columns; c++)
        {
            (Lanes above, Lanes below) = _down.Step(c, overTop, under);
            Book(above, _grid.ColumnAreasM2[c]);
            Book(below, _grid.ColumnAreasM2[c]);
        }
    }

    private void Across(Lanes atWall)
    {
        for (int r = 0; r < _rows; r++)
            Book(_across.Step(r * _columns, atWall, atWall).Before, _grid.RowsM[r]);
    }

    private void Book(Lanes watts, double breadth)
    {
        Lanes heat = watts * (breadth * GroundModel.StepSeconds * 1e-6);
        _heatIn += heat;
        _heatMoved += Vector512.Abs(heat);
    }

    private void Watch()
    {
        Lanes[] t = _state.Temperature;
        Lanes upper = t[_rootUpper];
        Lanes root = upper + ((t[_rootLower] - upper) * _rootShare);
        _rootMin = Vector512.Min(_rootMin, root);
        _rootMax = Vector512.Max(_rootMax, root);
        double[] areas = _grid.ColumnAreasM2;
        for (int r = 0, i = 0; r < _rowSum.Length; r++)
        {
            Lanes sum = _rowSum[r];
            for (int c = 0; c < areas.Length; c++, i++)
                sum += t[i] * areas[c];
            _rowSum[r] = sum;
        }
    }

    private void Note(ReadOnlySpan<int> day)
    {
        double whole = _what.AreaM2;
        for (int lane = 0; lane < LaneCount; lane++)
        {
            int d = day[lane];
            if (d >= _forcing.Days)
                continue;
            double mean = 0;
            double ice = 0;
            for (int r = 0; r < _rows; r++)
            {
                double row = _rowSum[r].GetElement(lane) / (GroundModel.StepsPerDay * whole);
                _result.Rows[r][d] = (float)row;
                mean += row * _grid.RowsM[r];
                double frozen = 0;
                for (int c = 0; c < _columns; c++)
                    frozen +=
                        Math.Clamp(-_state.Enthalpy[(r * _columns) + c].GetElement(lane) / _what.Medium.FreezingHeatMJ, 0, 1)
                        * _grid.ColumnAreasM2[c];
                ice += frozen / whole * _grid.RowsM[r];
            }
            _result.FrozenDepthM[d] = (float)ice;
            _result.RootMin[d] = (float)_rootMin.GetElement(lane);
            _result.RootMax[d] = (float)_rootMax.GetElement(lane);
            _result.RootMean[d] = _what.IsBed
                ? (float)(_result.Rows[_rootUpper][d] + ((_result.Rows[_rootLower][d] - _result.Rows[_rootUpper][d]) * _rootShare))
                : (float)(mean / _what.DepthM);
        }
    }

    private Lanes Heat()
    {
        Lanes sum = Lanes.Zero;
        for (int i = 0; i < _state.Enthalpy.Length; i++)
            sum += _state.Enthalpy[i] * (_grid.RowsM[i / _columns] * _grid.ColumnAreasM2[i % _columns]);
        return sum;
    }

    // Before the record its first year stands in for what it lacks; behind it, the last one.
    private int Wrap(int day)
    {
        int days = _forcing.Days;
        int year = Math.Min(365, days);
        while (day < 0)
            day += year;
        while (day >= days)
            day -= year;
        return day;
    }

    private Lanes Take(double[] values, ReadOnlySpan<int> day, int offset)
    {
        Lanes lanes = default;
        for (int lane = 0; lane < LaneCount; lane++)
            lanes = lanes.WithElement(lane, values[Wrap(day[lane] + offset)]);
        return lanes;
    }
}

using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Palette;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Planters;

namespace UnrulyMeadow.Core.Crew;

/// <summary>What is carried.</summary>
/// <param name="Trays">Trays, parts of one among them.</param>
/// <param name="Bags">Bags of medium, parts of one among them.</param>
/// <param name="WaterLitres">Litres of water.</param>
/// <param name="Kg">Weight of all of it, water among it, kg.</param>
public sealed record Load(double Trays, double Bags, double WaterLitres, double Kg)
{
    /// <summary>Nothing.</summary>
    public static Load None { get; } = new(0, 0, 0, 0);

    // Figures of common practice: a tray is 60 by 30 cm, moist medium weighs half a kilogram a litre in bags and eight tenths around roots, a
    // root ball is six tenths as deep as wide, a hundred bulbs fill a tray and weigh four kilograms, a stem three tenths of a kilogram.
    private const double TrayCm2 = 1800;
    private const double MediumKgALitre = 0.5;
    private const double BallKgALitre = 0.8;
    private const double BallDepth = 0.6;
    private const double BulbsATray = 100;
    private const double BulbKg = 0.04;
    private const double StemKg = 0.3;

    /// <summary>Two loads together.</summary>
    public static Load operator +(Load a, Load b) => new(a.Trays + b.Trays, a.Bags + b.Bags, a.WaterLitres + b.WaterLitres, a.Kg + b.Kg);

    /// <summary>A share of it.</summary>
    public static Load operator *(Load a, double share) => new(a.Trays * share, a.Bags * share, a.WaterLitres * share, a.Kg * share);

    /// <summary>True where a vehicle holds it.</summary>
    public bool FitsIn(Vehicle vehicle) =>
        Trays <= vehicle.Trays + 1e-9 && Bags <= vehicle.Bags + 1e-9 && WaterLitres <= vehicle.WaterLitres + 1e-9 && Kg <= vehicle.MostKg + 1e-9;

    /// <summary>Plants in a form.</summary>
    public static Load OfPlants(Plant plant, GoodsForm form, int count) =>
        form.Sort switch
        {
            GoodsSort.Bulbs => new Load(count / BulbsATray, 0, 0, count * BulbKg),
            GoodsSort.Stems => new Load(count / BulbsATray, 0, 0, count * StemKg),
            _ => new Load(
                count * form.SpreadCm * form.SpreadCm / TrayCm2,
                0,
                0,
                count * Math.PI / 4 * Math.Pow(Math.Min(form.SpreadCm, plant.MatureSpreadCm), 3) * BallDepth / 1000 * BallKgALitre
            ),
        };

    /// <summary>The arithmetic behind what some work takes along.</summary>
    /// <param name="loads">What each piece of it is called, and what it takes.</param>
    public static Working Explain(IReadOnlyList<(string What, Load Load)> loads) =>
        new(
            WorkingKind.VehicleLoad,
            Quantity.Kilograms(loads.Sum(l => l.Load.Kg)),
            [],
            [
                .. loads.Select(l => new Fact(
                    WorkingPhrase.LoadStep,
                    ("what", l.What),
                    ("trays", Quantity.Number(l.Load.Trays, 1)),
                    ("bags", Quantity.Number(l.Load.Bags, 1)),
                    ("water", Quantity.Litres(l.Load.WaterLitres)),
                    ("weight", Quantity.Kilograms(l.Load.Kg))
                )),
            ]
        );

    /// <summary>What a task takes along: plants, medium, and water to water in with.</summary>
    public static Load Of(CrewTask task, Plan plan)
    {
        Load all = None;
        foreach (TaskLine line in task.Lines)
        {
            if (line.Kind == LineKind.In && plan.FindPlant(line.PlantId) is { } plant)
                all += OfPlants(plant, GoodsForm.Chosen(plant, line.Form), line.Count);
            else if (line is { Kind: LineKind.Medium, Litres: { } medium })
                all += new Load(0, medium / plan.Site.MediumBagLitres, 0, medium * MediumKgALitre);
            else if (line is { Kind: LineKind.WaterIn, Litres: { } water })
                all += new Load(0, 0, water, water);
        }
        return all;
    }
}

/// <summary>A place that a vehicle goes to with what is unloaded there.</summary>
/// <param name="TaskId">The task that is done there.</param>
/// <param name="Place">Where; the yard where nobody has put it on the map.</param>
/// <param name="Unloads">What is unloaded.</param>
public sealed record RouteStop(string TaskId, MapPlace Place, Load Unloads);

/// <summary>Where tasks are, and where vehicles are loaded.</summary>
public static class RoutePlaces
{
    /// <summary>The yard: where the roster says, or the middle of all planters on the map where it does not; null without a map.</summary>
    public static MapPlace? Yard(Plan plan, Roster roster) => roster.Yard ?? MapPlace.MiddleOf(plan.Planters);

    /// <summary>Where a task is: its planter's place, or the middle of its area's planters; null where nobody can tell.</summary>
    public static MapPlace? Of(Plan plan, CrewTask task) =>
        plan.FindPlanter(task.PlanterId)?.Place ?? (task.AreaId is { } area ? MapPlace.MiddleOf(plan.Planters.Where(p => p.AreaId == area)) : null);
}

/// <summary>A way from the yard and back.</summary>
/// <param name="Stops">Stops in their order.</param>
/// <param name="Metres">How long it is.</param>
public sealed record Trip(IReadOnlyList<RouteStop> Stops, double Metres)
{
    /// <summary>The arithmetic behind the length of some trips.</summary>
    public static Working Explain(IReadOnlyList<Trip> trips) =>
        new(
            WorkingKind.CrewRoute,
            Quantity.Metres(trips.Sum(t => t.Metres)),
            [],
            [
                .. trips.Select(
                    (t, i) =>
                        new Fact(
                            WorkingPhrase.RouteStep,
                            ("number", i + 1),
                            ("stops", t.Stops.Count),
                            ("metres", Quantity.Metres(t.Metres)),
                            ("weight", Quantity.Kilograms(t.Load.Kg))
                        )
                ),
            ]
        );

    /// <summary>Minutes on the way, the tank filled before.</summary>
    public double MinutesWith(Vehicle vehicle) => vehicle.Minutes(Metres, Load.WaterLitres);

    /// <summary>What is loaded for it.</summary>
    public Load Load => Stops.Aggregate(Load.None, (sum, s) => sum + s.Unloads);
}

/// <summary>What is to be taken where, and with what.</summary>
/// <param name="Yard">Where the vehicle is loaded and its tank filled.</param>
/// <param name="Stops">Stops.</param>
/// <param name="Vehicle">The vehicle.</param>
/// <param name="Metres">Metres between places: the yard first, then the stops.</param>
public sealed record RouteQuestion(MapPlace Yard, IReadOnlyList<RouteStop> Stops, Vehicle Vehicle, double[][] Metres)
{
    /// <summary>
    /// The question for some stops. What the vehicle cannot take at once is brought in parts: plants and medium first,
    /// with as much water as it can take beside them.
    /// </summary>
    /// <exception cref="InvalidInputException">Something is too large or too heavy for the vehicle even alone.</exception>
    public static RouteQuestion Of(MapPlace yard, IReadOnlyList<RouteStop> stops, Vehicle vehicle, Func<IReadOnlyList<MapPlace>, double[][]> metres)
    {
        var faults = new FaultList();
        var parts = new List<RouteStop>();
        foreach (RouteStop stop in stops)
        {
            IReadOnlyList<Load> pieces = Parts(stop.Unloads, vehicle);
            if (pieces.Count == 0)
                faults.Add(
                    stop.TaskId,
                    $"{vehicle.Name} cannot take it, even in parts: give it a tank, or a vehicle that carries more (it has {vehicle.Trays} trays, {vehicle.Bags} bags, {vehicle.WaterLitres:0} litres)"
                );
            parts.AddRange(pieces.Select(p => stop with { Unloads = p }));
        }
        faults.ThrowIfAny();
        return new RouteQuestion(yard, parts, vehicle, metres([yard, .. parts.Select(p => p.Place)]));
    }

    // What is brought at once: plants and bags with as much water as the vehicle can take beside them, then the rest of the water. Empty where it
    // holds none of something.
    private static List<Load> Parts(Load load, Vehicle vehicle)
    {
        if (Pieces(load, vehicle) == 0)
            return [];
        // A litre weighs a kilogram.
        Load dry = load with { WaterLitres = 0, Kg = Math.Max(0, load.Kg - load.WaterLitres) };
        int times = Math.Max(1, Pieces(dry, vehicle));
        var parts = new List<Load>();
        double water = load.WaterLitres;
        for (int i = 0; i < times || water > 1e-9; i++)
        {
            Load part = i < times ? dry * (1.0 / times) : Load.None;
            double beside = Math.Min(water, Math.Min(vehicle.WaterLitres, Math.Max(0, vehicle.MostKg - part.Kg)));
            water -= beside;
            parts.Add(part + new Load(0, 0, beside, beside));
        }
        return parts;
    }

    // Nobody goes to one place more often than this.
    private const int MostPieces = 100;

    /// <summary>
    /// Into how many equal parts a load is cut at least so that a vehicle takes each; 0 where it holds none, or far too little, of something.
    /// </summary>
    public static int Pieces(Load load, Vehicle vehicle)
    {
        double[] shares =
        [
            Share(load.Trays, vehicle.Trays),
            Share(load.Bags, vehicle.Bags),
            Share(load.WaterLitres, vehicle.WaterLitres),
            Share(load.Kg, vehicle.MostKg),
        ];
        double most = shares.Max();
        return most <= MostPieces ? Math.Max(1, (int)Math.Ceiling(most - 1e-9)) : 0;

        static double Share(double wanted, double has) =>
            wanted <= 0 ? 0
            : has <= 0 ? double.PositiveInfinity
            : wanted / has;
    }
}

/// <summary>Trips that bring all of it.</summary>
/// <param name="Question">What was asked.</param>
/// <param name="Trips">Trips in their order.</param>
public sealed record Route(RouteQuestion Question, IReadOnlyList<Trip> Trips)
{
    /// <summary>How long all trips are, metres.</summary>
    public double Metres => Trips.Sum(t => t.Metres);

    /// <summary>Every fault of it: what is not brought, or brought twice, and trips that the vehicle cannot carry.</summary>
    public IReadOnlyList<Fault> Faults()
    {
        var faults = new FaultList();
        if (Trips.Sum(t => t.Stops.Count) != Question.Stops.Count || Question.Stops.Any(s => !Trips.Any(t => t.Stops.Contains(s))))
            faults.Add("stops", "are not each visited once");
        foreach (Trip trip in Trips.Where(t => !t.Load.FitsIn(Question.Vehicle)))
            faults.Add("trips", $"{trip.Load} is more than {Question.Vehicle.Name} holds");
        return faults.Faults;
    }
}

// The map of Kittiwake Quay, metres east and north of the ferry steps. All of it is invented.
const at = (eastM, northM, turnDeg = 0) => ({ eastM, northM, turnDeg });
const points = (...p) => p.map(([eastM, northM]) => ({ eastM, northM }));
const ring = (x, y, w, h) => points([x, y], [x + w, y], [x + w, y + h], [x, y + h]);
const tree = (id, name, east, north, heightM, widthM, growthM, more = {}) => ({ id, kind: 'tree', name, points: points([east, north]), heightM, widthM, rootM: widthM * 1.2, growthM, surveyedIn: 2026, ...more });

export const map = [
  { id: 'harbour', kind: 'water', name: 'Harbour', points: points([-40, -34], [124, -34], [124, -17], [62, -15], [30, -13.5], [6, -13], [-40, -13]) },
  { id: 'bandstand-lawn', kind: 'lawn', name: 'Bandstand Green', points: points([48, 14], [86, 14], [88, 26], [86, 44], [50, 44], [46, 30]) },
  { id: 'garden-lawn', kind: 'lawn', name: 'Harbour Garden', points: ring(-34, 12, 30, 26) },
  { id: 'ticket-hall', kind: 'building', name: 'Ticket hall', points: ring(-14, -1.2, 9, 6), heightM: 5.5 },
  { id: 'tea-room', kind: 'building', name: 'Tea room', points: ring(90, 24, 12, 9), heightM: 5 },
  { id: 'harbour-office', kind: 'building', name: 'Harbour office', points: ring(-36, 40, 20, 8), heightM: 7 },
  { id: 'kiosk', kind: 'building', name: 'Kiosk', points: ring(13, 3.5, 3, 3), heightM: 2.8 },
  { id: 'bandstand', kind: 'building', name: 'Bandstand', points: Array.from({ length: 8 }, (_, i) => ({ eastM: +(67 + 3.6 * Math.cos((i * Math.PI) / 4 + 0.39)).toFixed(2), northM: +(32 + 3.6 * Math.sin((i * Math.PI) / 4 + 0.39)).toFixed(2) })), heightM: 4.5 },
  { id: 'garden-wall', kind: 'wall', name: 'Garden wall', points: points([-34, 38.4], [-4, 38.4], [-4, 29]), heightM: 2.6, widthM: 0.4 },
  { id: 'quay-walk', kind: 'path', name: 'Quay walk', points: points([-30, -7], [4, -7], [44, -6], [88, -8]), widthM: 5 },
  { id: 'north-promenade', kind: 'path', name: 'Promenade', points: points([20, -6.6], [20, 10], [22, 22], [46, 30]), widthM: 3 },
  { id: 'garden-path', kind: 'path', name: 'Garden path', points: points([-19, -7], [-19, 36]), widthM: 2.2 },
  { id: 'band-path', kind: 'path', name: 'Band path', points: points([44, 29.4], [61.5, 31], [63.6, 28], [70.4, 28], [72.4, 31], [90, 29]), widthM: 2.4 },
  tree('lime-west', 'Lime, west', -30, 23.4, 9, 7, 0.35),
  tree('lime-middle', 'Lime, middle', -30, 28.2, 9.5, 7.5, 0.35),
  tree('lime-east', 'Lime, east', -12, 20, 5.2, 4.6, 0.5),
  tree('maple-young', 'Young maple', 67, 21.4, 3.2, 2.6, 0.7),
  tree('maple-green', 'Maple on the green', 53, 20, 7, 6, 0.45),
  tree('maple-tea', 'Maple by the tea room', 84, 36, 8, 6.5, 0.4),
];

export const places = {
  'bollard-pot-north': at(3, -3.2), 'bollard-pot-south': at(3, -10.6),
  'ticket-trough-east': at(-7, -1.9), 'ticket-trough-west': at(-11.5, -1.9),
  'great-pot': at(-1, 2.5), 'kiosk-basket': at(12.4, 5),
  'north-bed': at(28, -2.2, 1.4), 'south-bed': at(28, -10.4, 1.4),
  'shelter-pot-1': at(18, 2), 'shelter-pot-2': at(22, 2), 'shelter-pot-3': at(18, 8), 'shelter-pot-4': at(22.2, 8),
  'seat-trough-left': at(36, -2, 1.4), 'seat-trough-right': at(36, -9.8, 1.4),
  'bandstand-ring': at(67, 25.4), 'band-pot-left': at(61.6, 33), 'band-pot-right': at(61.8, 28.6),
  'tea-trough': at(89.2, 27, 90), 'flag-pot': at(76, 18),
  'wall-pot-west': at(-24, 37.4), 'wall-pot-east': at(-14, 37.4), 'shade-trough': at(-28.4, 25.6, 90),
  'gate-pot-left': at(-21, 12.6), 'gate-pot-right': at(-17, 12.6),
};

// The bandstand's ring is a kidney round the steps, in centimetres about its middle.
export const outlines = { 'bandstand-ring': [[-230, 5], [-150, -85], [0, -105], [150, -85], [230, 5], [170, 105], [60, 65], [-60, 65], [-170, 105]] };

export const surveys = {
  'bollard-pot-north': { wind: 'exposed', seaSpray: true, dogs: true, public: 'touching', lookGroup: 'Bollards' },
  'bollard-pot-south': { wind: 'exposed', seaSpray: true, dogs: true, public: 'touching', lookGroup: 'Bollards' },
  'ticket-trough-east': { masonry: 'one-wall', sightlineCm: 140 },
  'ticket-trough-west': { masonry: 'one-wall', sightlineCm: 140 },
  'great-pot': { tree: { name: 'Hawthorn', crownCm: 120, heightCm: 260, rootCm: 70, growthCm: 6, surveyedIn: 2026 }, stoodHere: 'The hawthorn since 2021; it flowers well and drops little.', stoodSince: '2021-04-12' },
  'kiosk-basket': { wind: 'exposed', drainHoles: 6 },
  'shade-trough': { onFeet: false, stoodHere: 'Ferns, which dried out twice.', stoodSince: '2023-05-02' },
  'flag-pot': { wind: 'exposed', deicingSalt: true },
};

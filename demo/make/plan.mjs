// Makes the demo plan: node demo/make/plan.mjs > demo/kittiwake-quay.plan.json
// Kittiwake Quay is invented. It is bare in five planters (South bed and Shade trough in winter, Kiosk basket after the
// new year, Wall pot west between bulbs, Flag pot while its pansies rest in January's cold) and holds three
// mistakes (lantana out too early, stonecrop beside winterberry, tulips planted in February) for the checks to find.
import { readFileSync } from 'node:fs';
import { palette } from './palette.mjs';

const byId = new Map(palette.map((p) => [p.id, p]));
const areas = [
  { id: 'ferry-steps', name: 'Ferry Steps', frostPocketC: 0.5 },
  { id: 'promenade', name: 'Promenade', frostPocketC: 1 },
  { id: 'bandstand-green', name: 'Bandstand Green', frostPocketC: 1 },
  { id: 'harbour-garden', name: 'Harbour Garden', frostPocketC: 1.5 },
];
const form = (shape, l, w, bl, bw, d, rim) => ({ shape, topLengthCm: l, topWidthCm: w, bottomLengthCm: bl, bottomWidthCm: bw, depthCm: d, rimGapCm: rim });
const round = (top, bottom, depth) => form('round', top, top, bottom, bottom, depth, 2.5);
const trough = (l, w, d) => form('trough', l, w, l - 6, w - 6, d, 2.5);
const planters = [];
const displays = [];
// What stands around a planter: angles of 16 sectors, clockwise from north, given by sector names.
const SECTORS = ['N', 'NNE', 'NE', 'ENE', 'E', 'ESE', 'SE', 'SSE', 'S', 'SSW', 'SW', 'WSW', 'W', 'WNW', 'NW', 'NNW'];
const angles = (by) => SECTORS.map((s) => by[s] ?? 0);
const skylines = {
  'ticket-trough-east': { wallDeg: angles({ NNW: 35, N: 52, NNE: 60, NE: 66, ENE: 70, E: 72, ESE: 74, SE: 75, SSE: 75, S: 74, SSW: 66, SW: 50, WSW: 30 }), treeDeg: angles({}), surveyedIn: 2026, treeGrowthDeg: 0, leafOnShare: 0.15, leafOffShare: 0.6 },
  'great-pot': { wallDeg: angles({ NW: 22, NNW: 26, N: 24, NNE: 12 }), treeDeg: angles({ W: 34, WSW: 44, SW: 40, SSW: 22 }), surveyedIn: 2026, treeGrowthDeg: 1.2, leafOnShare: 0.15, leafOffShare: 0.6 },
};
const add = (areaId, id, name, f, exposure, watering, viewedFrom, wall, wallColour, note = '') =>
  planters.push({ id, areaId, name, form: f, exposure, watering, viewedFrom, wall, wallColour, ...(skylines[id] && { skyline: skylines[id] }), note });

const clay = '#c98a67', slate = '#5b646b', oak = '#8a6a48', glaze = '#34566b', lead = '#7d8285';
add('ferry-steps', 'bollard-pot-north', 'Bollard pot, north', round(60, 44, 50), 'full-sun', 'drip', 'all-round', 'terracotta', clay, 'Identical pair with the south pot; ferry queue passes on both sides.');
add('ferry-steps', 'bollard-pot-south', 'Bollard pot, south', round(60, 44, 50), 'full-sun', 'drip', 'all-round', 'terracotta', clay);
add('ferry-steps', 'ticket-trough-east', 'Ticket trough, east', trough(180, 45, 45), 'part-sun', 'drip', 'one-side', 'metal', slate);
add('ferry-steps', 'ticket-trough-west', 'Ticket trough, west', trough(180, 45, 45), 'part-sun', 'drip', 'one-side', 'metal', slate);
add('ferry-steps', 'great-pot', 'Great pot, hawthorn', round(120, 90, 95), 'full-sun', 'hand', 'all-round', 'concrete', lead, 'Small hawthorn planted 2021.');
add('ferry-steps', 'kiosk-basket', 'Kiosk basket', form('basket', 50, 50, 0, 0, 26, 2), 'full-sun', 'hand', 'all-round', 'fibre', '#6b5a3c');
add('promenade', 'north-bed', 'North bed', form('rectangular-bed', 900, 200, 900, 200, 40, 0), 'full-sun', 'rain', 'all-round', 'none', '#8a7a63');
add('promenade', 'south-bed', 'South bed', form('rectangular-bed', 1100, 200, 1100, 200, 40, 0), 'full-sun', 'rain', 'all-round', 'none', '#8a7a63');
for (let i = 1; i <= 4; i++) add('promenade', `shelter-pot-${i}`, `Shelter pot ${i}`, round(50, 38, 45), 'full-sun', 'hand', 'all-round', 'glazed', glaze);
add('promenade', 'seat-trough-left', 'Seat trough, left', trough(120, 40, 40), 'full-sun', 'hand', 'one-side', 'timber', oak);
add('promenade', 'seat-trough-right', 'Seat trough, right', trough(120, 40, 40), 'full-sun', 'hand', 'one-side', 'timber', oak);
add('bandstand-green', 'bandstand-ring', 'Bandstand ring', form('oval-bed', 420, 300, 420, 300, 40, 0), 'full-sun', 'drip', 'all-round', 'none', '#8a7a63');
add('bandstand-green', 'band-pot-left', 'Band pot, left', round(60, 44, 50), 'full-sun', 'hand', 'all-round', 'terracotta', clay);
add('bandstand-green', 'band-pot-right', 'Band pot, right', round(60, 44, 50), 'full-sun', 'hand', 'all-round', 'terracotta', clay);
add('bandstand-green', 'tea-trough', 'Tea-room trough', trough(150, 45, 45), 'full-sun', 'hand', 'one-side', 'timber', oak);
add('bandstand-green', 'flag-pot', 'Flag pot', round(90, 68, 75), 'full-sun', 'hand', 'all-round', 'concrete', lead);
add('harbour-garden', 'wall-pot-west', 'Wall pot, west', round(40, 30, 38), 'part-sun', 'hand', 'one-side', 'terracotta', clay);
add('harbour-garden', 'wall-pot-east', 'Wall pot, east', round(40, 30, 38), 'part-sun', 'hand', 'one-side', 'terracotta', clay);
add('harbour-garden', 'shade-trough', 'Shade trough', trough(160, 50, 45), 'shade', 'hand', 'one-side', 'metal', slate, 'Under the lime walk: dry in leaf.');
add('harbour-garden', 'gate-pot-left', 'Gate pot, left', round(50, 38, 45), 'part-sun', 'hand', 'all-round', 'glazed', glaze);
add('harbour-garden', 'gate-pot-right', 'Gate pot, right', round(50, 38, 45), 'part-sun', 'hand', 'all-round', 'glazed', glaze);

const surface = (p) => {
  const { shape, topLengthCm: l, topWidthCm: w } = p.form;
  return l * w * (['trough', 'rectangular-bed'].includes(shape) ? 1 : Math.PI / 4) * 0.95;
};
// So many of a plant that it would cover a share of the surface when grown.
const cover = (planterId, plantId, share) => {
  const plant = byId.get(plantId), p = planters.find((x) => x.id === planterId);
  const each = (Math.PI / 4) * plant.matureSpreadCm ** 2;
  return { plantId, count: Math.max(1, Math.round((share * surface(p)) / each)) };
};
const put = (planterId, layer, name, install, lift, items) => {
  if (!planters.some((p) => p.id === planterId)) throw new Error(planterId);
  // Summer bedding is set closer than it would stand when grown, so that it shows within days.
  const closer = name.startsWith('summer') ? 2.3 : name === 'winter' ? 1.8 : 1.25;
  const seen = items.map((i) => (Array.isArray(i) ? cover(planterId, i[0], i[1] * closer) : i));
  for (const i of seen) if (!byId.has(i.plantId)) throw new Error(i.plantId);
  displays.push({ id: `${planterId}-${name}`, planterId, layer, install, lift, items: seen });
};
const b = (plantId, count, depthCm) => ({ plantId, count, ...(depthCm && { depthCm }) });
const SUMMER26 = '2026-05-18', FALL = '2026-09-28', BULBS = '2026-10-19', WINTER = '2026-11-16', SPRING = '2027-03-22', SUMMER = '2027-05-17', NEXTFALL = '2027-09-27';
const seasonal = (id, name, install, lift, ...items) => put(id, 'seasonal', name, install, lift, items);
const stack = (id, install, lift, ...items) => put(id, 'bulbs', 'bulbs', install, lift, items);
const standing = (id, install, ...items) => put(id, 'standing', 'standing', install, '2035-11-01', items);
const day = (iso, n) => new Date(Date.parse(iso) + n * 864e5).toISOString().slice(0, 10);

for (const id of ['bollard-pot-north', 'bollard-pot-south']) {
  const f = FALL, s = SUMMER;
  seasonal(id, 'summer-2026', SUMMER26, f, ['petunia-magenta', 0.7], ['sweet-potato-lime', 0.3]);
  seasonal(id, 'fall', f, s, ['pansy-violet', 0.75], ['bronze-sedge', 0.25]);
  stack(id, BULBS, s, b('crocus-early-violet', 30), b('daffodil-early-yellow', 14), b('hyacinth-blue', 9), b('tulip-mid-red', 11), b('tulip-late-dark', 8));
  seasonal(id, 'summer-2027', s, NEXTFALL, ['petunia-magenta', 0.7], ['sweet-potato-lime', 0.3]);
}
for (const id of ['ticket-trough-east', 'ticket-trough-west']) {
  const f = FALL, s = day(SUMMER, 1);
  seasonal(id, 'summer-2026', SUMMER26, f, ['lobelia-blue', 0.4], ['wax-begonia-white', 0.6]);
  seasonal(id, 'fall', f, s, ['viola-white', 0.9], ['ivy-variegated', 0.4]);
  stack(id, BULBS, s, b('crocus-large-white', 70), b('muscari-blue', 60, 15.5), b('daffodil-trumpet-yellow', 30, 22), b('tulip-mid-rose', 40, 28.5));
  seasonal(id, 'summer-2027', s, NEXTFALL, ['lobelia-blue', 0.4], ['wax-begonia-white', 0.6]);
}
standing('great-pot', '2021-04-12', b('hawthorn', 1), b('ivy-variegated', 3), b('winter-heath-pink', 4));
seasonal('great-pot', 'summer-2026', SUMMER26, FALL, ['zonal-geranium-red', 0.55]);
seasonal('great-pot', 'fall', FALL, SUMMER, ['pansy-yellow', 0.45]);
stack('great-pot', BULBS, '2028-06-15', b('snowdrop', 60), b('scilla-blue', 70, 14), b('daffodil-early-yellow', 35, 21));
seasonal('great-pot', 'summer-2027', SUMMER, NEXTFALL, ['zonal-geranium-red', 0.55]);

seasonal('kiosk-basket', 'summer-2026', SUMMER26, FALL, ['calibrachoa-violet', 1.3]);
seasonal('kiosk-basket', 'fall', FALL, '2027-01-11', ['viola-white', 0.6], ['ivy-variegated', 0.3]);
seasonal('kiosk-basket', 'spring', SPRING, SUMMER, ['pansy-yellow', 0.8], ['alyssum-white', 0.3]);
seasonal('kiosk-basket', 'summer-2027', SUMMER, NEXTFALL, ['calibrachoa-violet', 1.3]);

standing('north-bed', '2026-04-20', b('fountain-grass', 8), b('dogwood-red', 6), b('coneflower-purple', 18), b('winter-heath-pink', 40));
seasonal('north-bed', 'fall', day(FALL, 2), day(SUMMER, 2), ['pansy-yellow', 0.2]);
stack('north-bed', day(BULBS, 1), '2029-06-15', b('crocus-early-violet', 600), b('daffodil-trumpet-yellow', 240), b('tulip-mid-red', 180), b('allium-tall-purple', 110));
seasonal('north-bed', 'summer-2026', SUMMER26, day(FALL, 2), ['marigold-orange', 0.45]);
seasonal('north-bed', 'summer-2027', day(SUMMER, 2), NEXTFALL, ['marigold-orange', 0.45]);

seasonal('south-bed', 'summer-2026', SUMMER26, day(FALL, 3), ['marigold-orange', 0.6]);
stack('south-bed', day(BULBS, 2), '2027-05-31', b('tulip-mid-red', 520), b('tulip-late-dark', 480));
seasonal('south-bed', 'summer-2027', '2027-05-31', NEXTFALL, ['marigold-orange', 0.6], ['dusty-miller', 0.15]);

for (let i = 1; i <= 4; i++) {
  const id = `shelter-pot-${i}`;
  seasonal(id, 'summer-2026', SUMMER26, day(FALL, 3), ['coleus-lime', 0.01], ['scaevola-violet', 0.7], ['dusty-miller', 0.25]);
  seasonal(id, 'fall', day(FALL, 3), WINTER, ['chrysanthemum-bronze', 0.9]);
  seasonal(id, 'winter', WINTER, day(SUMMER, 3), b('dogwood-red', 1), ['pansy-violet', 0.35], ['ivy-variegated', 0.3]);
  stack(id, day(BULBS, 2), day(SUMMER, 3), b('crocus-early-violet', 18), b('daffodil-early-yellow', 8), b('tulip-mid-rose', 5), b('tulip-late-dark', 3));
  seasonal(id, 'summer-2027', day(SUMMER, 3), NEXTFALL, ['scaevola-violet', 0.7], ['dusty-miller', 0.25]);
}
displays.filter((d) => d.id.startsWith('shelter-pot') && d.id.endsWith('summer-2026')).forEach((d) => d.items.shift());

for (const side of ['left', 'right']) {
  const id = `seat-trough-${side}`;
  seasonal(id, 'summer-2026', SUMMER26, day(FALL, 4), ['angelonia-blue', 0.5], ['petunia-magenta', 0.4]);
  seasonal(id, 'fall', day(FALL, 4), day(SUMMER, 4), ['cabbage-rose', 0.4], ['viola-white', 0.35]);
  if (side === 'left') seasonal(id, 'summer-2027', day(SUMMER, 4), NEXTFALL, ['angelonia-blue', 0.5], ['petunia-magenta', 0.4]);
  else seasonal(id, 'summer-2027', day(SUMMER, 4), NEXTFALL, ['petunia-magenta', 0.6]);
}
stack('seat-trough-left', day(BULBS, 2), day(SUMMER, 4), b('iris-reticulata-blue', 40), b('hyacinth-pink', 20), b('tulip-mid-rose', 22, 22.5));
stack('seat-trough-right', '2027-02-08', day(SUMMER, 4), b('tulip-mid-rose', 22), b('tulip-late-dark', 18, 21.5));

standing('bandstand-ring', '2022-10-10', b('blue-fescue', 40), b('lavender-violet', 12), b('stonecrop-pink', 10));
seasonal('bandstand-ring', 'fall', day(FALL, 4), day(SUMMER, 7), ['wallflower-amber', 0.35], ['viola-white', 0.15]);
stack('bandstand-ring', day(BULBS, 3), '2029-06-15', b('crocus-large-white', 300), b('daffodil-white', 120), b('tulip-mid-red', 100));
seasonal('bandstand-ring', 'summer-2026', SUMMER26, day(FALL, 4), ['salvia-blue', 0.4]);
seasonal('bandstand-ring', 'summer-2027', day(SUMMER, 7), NEXTFALL, ['salvia-blue', 0.4]);

for (const id of ['band-pot-left', 'band-pot-right']) {
  seasonal(id, 'summer-2026', SUMMER26, day(FALL, 4), ['zonal-geranium-red', 0.6], ['alyssum-white', 0.3]);
  seasonal(id, 'fall', day(FALL, 4), WINTER, ['aster-violet', 0.9]);
  seasonal(id, 'winter', WINTER, day(SUMMER, 7), b('dogwood-yellow', 1), ['winter-heath-pink', 0.4], ['viola-white', 0.25]);
  stack(id, day(BULBS, 3), day(SUMMER, 7), b('iris-reticulata-blue', 24), b('daffodil-early-yellow', 13), b('tulip-early-orange', 11), b('tulip-late-dark', 9));
  seasonal(id, 'summer-2027', day(SUMMER, 7), NEXTFALL, ['zonal-geranium-red', 0.6], ['alyssum-white', 0.3]);
}
standing('tea-trough', '2025-04-14', b('winterberry-red', 1), b('stonecrop-pink', 3), b('bronze-sedge', 4));
seasonal('tea-trough', 'spring', SPRING, day(SUMMER, 8), ['snapdragon-yellow', 0.45]);
seasonal('tea-trough', 'winter', WINTER, SPRING, ['winter-heath-pink', 0.35]);
stack('tea-trough', day(BULBS, 3), day(SUMMER, 8), b('snowdrop', 60), b('muscari-blue', 50, 13), b('hyacinth-blue', 20, 20));
seasonal('tea-trough', 'summer-2026', SUMMER26, WINTER, ['calibrachoa-violet', 0.4]);
seasonal('tea-trough', 'summer-2027', day(SUMMER, 8), NEXTFALL, ['calibrachoa-violet', 0.4]);

seasonal('flag-pot', 'summer-2026', SUMMER26, FALL, ['lantana-gold', 0.8]);
seasonal('flag-pot', 'fall', FALL, '2027-04-19', b('fountain-grass', 1), ['pansy-yellow', 0.6]);
stack('flag-pot', day(BULBS, 3), '2027-06-07', b('crocus-large-white', 55), b('daffodil-trumpet-yellow', 22), b('tulip-mid-red', 26), b('allium-tall-purple', 7));
seasonal('flag-pot', 'summer-2027', '2027-04-19', NEXTFALL, ['lantana-gold', 0.8]);

for (const id of ['wall-pot-west', 'wall-pot-east']) {
  seasonal(id, 'summer-2026', SUMMER26, day(FALL, 7), ['coleus-lime', 0.6], ['lobelia-blue', 0.3]);
  if (id.endsWith('west')) seasonal(id, 'fall', day(FALL, 7), '2027-02-15', b('wintergreen-red', 2), ['viola-white', 0.5]);
  else seasonal(id, 'fall', day(FALL, 7), day(SUMMER, 8), b('wintergreen-red', 2), ['viola-white', 0.5]);
  stack(id, day(BULBS, 4), day(SUMMER, 8), b('crocus-early-violet', 16), b('daffodil-early-yellow', 8), b('tulip-mid-rose', 6));
  seasonal(id, 'summer-2027', day(SUMMER, 8), NEXTFALL, ['coleus-lime', 0.6], ['lobelia-blue', 0.3]);
}
standing('shade-trough', '2024-04-15', b('hellebore-white', 3));
seasonal('shade-trough', 'summer-2026', SUMMER26, day(FALL, 7), ['impatiens-coral', 0.4]);
seasonal('shade-trough', 'summer-2027', day(SUMMER, 8), NEXTFALL, ['impatiens-coral', 0.4]);
stack('shade-trough', day(BULBS, 4), '2029-06-15', b('winter-aconite', 60), b('snowdrop', 70, 10), b('scilla-blue', 60, 15));
for (const side of ['left', 'right']) {
  const id = `gate-pot-${side}`;
  standing(id, '2024-10-14', b('box-green', 1));
  seasonal(id, 'summer-2026', SUMMER26, day(FALL, 7), ['wax-begonia-white', 0.4], ['coleus-lime', 0.25]);
  seasonal(id, 'fall', day(FALL, 7), day(SUMMER, 9), b('wintergreen-red', 2), ['pansy-violet', 0.4]);
  stack(id, day(BULBS, 4), day(SUMMER, 9), b('crocus-large-white', 18), b('daffodil-white', 8), b('tulip-early-orange', 7));
  seasonal(id, 'summer-2027', day(SUMMER, 9), NEXTFALL, ['wax-begonia-white', 0.4], ['coleus-lime', 0.25]);
}
// Petunias are cut back after their first show, and flower again; what is worth keeping is said.
for (const d of displays) {
  if (d.id.endsWith('summer-2027') && !d.id.startsWith('seat-trough-right')) {
    const cuts = d.items.filter((i) => i.plantId.startsWith('petunia')).map((i) => ({ plantId: i.plantId, day: '2027-07-19' }));
    if (cuts.length) d.cuts = cuts;
  }
  for (const i of d.items) {
    if (i.plantId.startsWith('zonal-geranium')) i.fate = 'keep';
    else if (i.plantId === 'dusty-miller') i.fate = 'keep';
    else if (i.plantId.startsWith('wallflower')) i.fate = 'seed-saved';
    else if (i.plantId.startsWith('daffodil') && d.lift < '2028') i.fate = 'to-bed';
    else if (i.plantId === 'dogwood-red' || i.plantId === 'dogwood-yellow') i.fate = d.layer === 'seasonal' ? 'keep' : undefined;
    else if (d.layer === 'seasonal' && d.install < '2026-11') i.fate = 'compost';
  }
}
const events = [
  { id: 'lantern-walk', name: 'Lantern walk', firstDay: '2026-12-12', lastDay: '2026-12-13' },
  { id: 'first-ferry', name: 'First ferry', firstDay: '2027-04-03', lastDay: '2027-04-03' },
  { id: 'regatta', name: 'Regatta', firstDay: '2027-07-24', lastDay: '2027-07-25' },
];
const turns = [
  { id: 'fall-2026', name: 'Fall turn', firstDay: FALL, lastDay: '2026-10-09' },
  { id: 'bulbs-2026', name: 'Bulb planting', firstDay: BULBS, lastDay: '2026-10-30' },
  { id: 'winter-2026', name: 'Winter turn', firstDay: WINTER, lastDay: '2026-11-20' },
  { id: 'late-bulbs-2027', name: 'Late bulbs', firstDay: '2027-02-08', lastDay: '2027-02-12' },
  { id: 'spring-2027', name: 'Spring turn', firstDay: SPRING, lastDay: '2027-04-21' },
  { id: 'summer-2027', name: 'Summer turn', firstDay: SUMMER, lastDay: '2027-06-11', fullBy: '2027-07-10', delivery: '2027-05-10', people: 4 },
];
import { map, places, outlines, surveys } from './grounds.mjs';
for (const p of planters) {
  if (places[p.id]) p.place = places[p.id];
  if (surveys[p.id]) p.survey = surveys[p.id];
  // The quay was planted long before anybody wrote it down: its containers are full of medium.
  if (!p.survey?.stoodHere) p.survey = { ...p.survey, stoodHere: 'Bedding, changed with the seasons.', stoodSince: '2018-05-14' };
  if (outlines[p.id]) {
    const ring = outlines[p.id].map(([x, y]) => ({ xCm: x, yCm: y }));
    const xs = ring.map((c) => c.xCm), ys = ring.map((c) => c.yCm);
    const l = Math.max(...xs) - Math.min(...xs), w = Math.max(...ys) - Math.min(...ys);
    p.form = { ...form('outlined-bed', l, w, l, w, p.form.depthCm, 0), outline: { ring, holes: [], setbackCm: 10 } };
  }
}
// Tulips in the long beds stay for some years; everywhere else they are annual.
for (const p of planters) if (['north-bed', 'south-bed'].includes(p.id)) p.rules = { tulips: 'perennial' };
const stackOf = (id) => displays.find((d) => d.id === id);
stackOf('bollard-pot-north-bulbs').pairs = [
  { firstPlantId: 'hyacinth-blue', secondPlantId: 'daffodil-early-yellow', wish: 'together' },
  { firstPlantId: 'hyacinth-blue', secondPlantId: 'tulip-mid-red', wish: 'follow' },
];
stackOf('bollard-pot-south-bulbs').pairs = stackOf('bollard-pot-north-bulbs').pairs;
const recipeOf = (displayId, id, name, note) => {
  const display = displays.find((d) => d.id === displayId);
  return { id, name, layer: display.layer, form: planters.find((p) => p.id === display.planterId).form, items: display.items, note };
};
const recipes = [
  recipeOf('bollard-pot-north-bulbs', 'five-layers', 'Five layers, violet to dark', 'Did well in 2025; the hand-over from crocus to daffodil is the weak one.'),
  recipeOf('shelter-pot-1-summer-2027', 'silver-and-violet', 'Silver and violet', 'For hot places; hardly any trimming.'),
];
// What a new site begins with stands beside them.
const cells = (line) => [...line.matchAll(/(?:^|,)(?:"([^"]*)"|([^,]*))/g)].map((m) => m[1] ?? m[2]);
const shapeOf = { round: 'round', trough: 'trough', basket: 'basket', bowl: 'bowl', 'half barrel': 'half-barrel', 'rectangular bed': 'rectangular-bed' };
for (const line of readFileSync(new URL('../recipes.csv', import.meta.url), 'utf8').trim().split('\n').slice(1)) {
  const [name, layer, shape, l, w, bl, bw, d, plants, note] = cells(line);
  const items = plants.split('; ').map((p) => ({ plantId: p.split(' ')[1], count: Number(p.split(' ')[0]) }));
  const id = name.toLowerCase().replace(/[^a-z0-9]+/g, '-');
  recipes.push({ id, name, layer, form: form(shapeOf[shape], +l, +w, +bl, +bw, +d, shape.endsWith('bed') ? 0 : 2.5), items, note });
}
const lots = [
  { id: 'forced-daffodils', plantId: 'daffodil-early-yellow', count: 60, state: 'forced', place: 'Cold frame 2, nursery pots', since: '2026-10-12', condition: 'good', note: 'Six to a 14 cm pot, for gaps from March on.' },
  { id: 'kept-silver-leaf', plantId: 'dusty-miller', count: 18, state: 'kept', place: 'Yard bench', since: '2026-10-01', condition: 'fair', fromPlanterId: 'shelter-pot-1', note: '' },
  { id: 'geraniums-over-winter', plantId: 'zonal-geranium-red', count: 24, state: 'overwintering', place: 'Glasshouse, east bay', since: '2026-09-30', condition: 'good', fromPlanterId: 'band-pot-left', note: 'Cut back by half.' },
];
const site = { name: 'Kittiwake Quay', units: 'metric', money: '$', coverThreshold: 0.15, spareShare: 0.05, freshMediumCm: 20, mediumBagLitres: 60, mediumBagPrice: 18, wallGapCm: 2.5, bulbGapCm: 2, place: { latitudeDeg: 43.1, longitudeDeg: -66.9, elevationM: 6, atElevation: false } };
process.stdout.write(JSON.stringify({ format: 'unruly-meadow-plan', version: 1, site, areas, planters, palette, displays, turns, map, lots, recipes, events }, null, 2) + '\n');

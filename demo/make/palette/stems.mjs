import { plant, installed, shown, pot, IRRITANT, toxic } from './terms.mjs';

// Cut stems, boughs and seed heads: stood in the medium of a pot, without roots, for as many weeks as they keep their colour.
const cut = (id, name, common, habit, [height, wide], part, colours, share, days, price, m = {}) =>
  plant(id, name, common, 'cut-stems', habit, [height, wide, wide, 0], ['shade', 'full-sun', 'low', -40, 'in-season'], [shown(part, colours, share, installed(0, null, days))], pot('bundle of stems', price), { ph: [4, 9], texture: 'fine', cut: 'Cut the foot slantwise, stand 15 cm deep in moist medium; out when they fade.', resistance: { deer: 'at-times' }, ...m });

export const stems = [
  cut('stems-dogwood-red', 'Cornus alba', 'Cut dogwood, red stems', 'upright', [90, 25], 'stem', ['#b3262e'], 0.5, 150, 9),
  cut('stems-dogwood-yellow', 'Cornus sericea, yellow-stemmed form', 'Cut dogwood, yellow stems', 'upright', [90, 25], 'stem', ['#d3b63a'], 0.5, 150, 9),
  cut('stems-willow-scarlet', 'Salix alba', 'Cut willow, scarlet stems', 'upright', [130, 25], 'stem', ['#c9542e'], 0.45, 140, 8),
  cut('stems-willow-twisted', 'Salix babylonica, twisted form', 'Cut willow, twisted stems', 'upright', [130, 35], 'stem', ['#a58a4a'], 0.35, 140, 9),
  cut('stems-birch-white', 'Betula utilis', 'Cut birch, white poles', 'upright', [140, 26], 'stem', ['#efe9de'], 0.45, 240, 14),
  cut('stems-winterberry-red', 'Ilex verticillata', 'Cut winterberry, red berries', 'upright', [80, 30], 'berry', ['#cc2a2a'], 0.55, 55, 16, { harm: IRRITANT }),
  cut('boughs-pine', 'Pinus strobus', 'Cut pine, blue-green boughs', 'mounding', [45, 45], 'leaf', ['#6f8f7c'], 0.75, 100, 8),
  cut('boughs-fir', 'Abies concolor', 'Cut fir, silver boughs', 'mounding', [40, 45], 'leaf', ['#93a9a0'], 0.8, 110, 9),
  cut('boughs-cedar', 'Thuja plicata', 'Cut arborvitae, trailing boughs', 'trailing', [30, 50], 'leaf', ['#7f9a4e'], 0.75, 95, 8, { harm: IRRITANT }),
  cut('boughs-magnolia', 'Magnolia grandiflora', 'Cut magnolia, green and bronze leaf', 'upright', [60, 40], 'leaf', ['#4f6a3c', '#a0683c'], 0.75, 75, 13, { texture: 'bold' }),
  cut('boughs-eucalyptus', 'Eucalyptus cinerea', 'Cut gum, silver leaf', 'upright', [60, 35], 'leaf', ['#a3b5ac'], 0.7, 60, 12, { harm: { people: 'poisonous', animals: 'poisonous' }, cautions: toxic('Gum leaf') }),
  cut('seed-heads-teasel', 'Dipsacus sativus', 'Seed heads, brown teasel', 'upright', [110, 25], 'stem', ['#8f6f48'], 0.3, 170, 7),
  cut('seed-heads-plume', 'Miscanthus sinensis', 'Seed heads, silver plumes', 'upright', [130, 40], 'flower', ['#dccdbb'], 0.4, 110, 8),
  cut('seed-heads-hydrangea', 'Hydrangea paniculata', 'Seed heads, parchment hydrangea', 'mounding', [55, 40], 'flower', ['#cbb08a'], 0.6, 110, 10, { texture: 'bold', harm: IRRITANT }),
];

// The demo's palette: species, groups and divisions in plain colours. Values from memory of general handbooks.
const SOURCE = 'from memory of general horticultural handbooks';
const SKIN = 'Hyacinth, daffodil and tulip bulbs irritate skin and eyes: gloves, wash hands, no eye contact.';
const POISON = 'Bulbs are poisonous if eaten: keep from dogs and children.';
const bulbPacks = (price) => [
  { form: 'bag of 10', size: 10, price: +(price * 11).toFixed(2) },
  { form: 'bag of 50', size: 50, price: +(price * 48).toFixed(2) },
  { form: 'crate of 250', size: 250, price: +(price * 210).toFixed(2) },
];
const bedding = (price) => [
  { form: '6-pack', size: 6, price },
  { form: 'flat of 18', size: 18, price: +(price * 2.7).toFixed(2) },
];
const pot = (form, price) => [{ form, size: 1, price }];

const bulb = (id, botanicalName, commonName, colours, [baseC, coldStartWeeks, coldSpanWeeks, thresholdCd, showDays], [heightCm, diameterCm, spacingCm, coldWeeksLow, coldWeeksHigh], more) => ({
  id, botanicalName, commonName, lifeForm: 'bulb', habit: 'upright', heightCm: more.height, spreadAtPurchaseCm: more.spread, matureSpreadCm: more.spread,
  lightLow: more.lightLow ?? 'part-sun', lightHigh: 'full-sun', water: 'medium', topDamageC: -25, green: 'around-flower',
  windows: [{ part: 'flower', colours, share: more.share ?? 0.65, rule: { rule: 'bulb-forcing', baseC, coldStartWeeks, coldSpanWeeks, thresholdCd, showDays } }],
  bulb: { heightCm, diameterCm, spacingCm, coldWeeksLow, coldWeeksHigh },
  packs: bulbPacks(more.price), cautions: more.skin ? [SKIN, POISON] : more.poison ? [POISON] : [], source: SOURCE,
});
const plant = (id, botanicalName, commonName, lifeForm, habit, [heightCm, spreadAtPurchaseCm, matureSpreadCm, growthPerDegreeDay], [lightLow, lightHigh, water, topDamageC, green], windows, packs, more = {}) => ({
  id, botanicalName, commonName, lifeForm, habit, heightCm, spreadAtPurchaseCm, matureSpreadCm, growthPerDegreeDay, growthBaseC: more.base ?? 10,
  lightLow, lightHigh, water, topDamageC, green, windows, packs, cautions: more.cautions ?? [], source: SOURCE,
});
const shown = (part, colours, share, rule) => ({ part, colours, share, rule });
const installed = (budDays, heatCeilingC, showDays) => ({ rule: 'from-install', budDays, ...(showDays && { showDays }), ...(heatCeilingC && { heatCeilingC }) });
const heat = (baseC, firstCd, showDays) => ({ rule: 'air-heat', baseC, firstCd, showDays });
const always = { rule: 'all-year' };
const leaf = (baseC, leafOutCd, dropNights, lastDays) => ({ rule: 'in-leaf', baseC, leafOutCd, dropNights, ...(lastDays && { lastDays }) });
const stem = (baseC, leafOutCd, dropNights) => ({ rule: 'bare-stem', baseC, leafOutCd, dropNights });
const FULL = 'full-sun', PART = 'part-sun', SHADE = 'shade';

export const palette = [
  bulb('snowdrop', 'Galanthus nivalis', 'Snowdrop, white', ['#f4f6ee'], [1, 10, 10, 13.3, 24], [2.2, 1.6, 6, 10, 15], { height: 14, spread: 7, share: 0.7, price: 0.34, lightLow: SHADE, poison: true }),
  bulb('winter-aconite', 'Eranthis hyemalis', 'Winter aconite, yellow', ['#f2c81e'], [1, 10, 10, 16.0, 20], [1.6, 2, 6, 10, 15], { height: 9, spread: 8, share: 0.7, price: 0.3, lightLow: SHADE, poison: true }),
  bulb('crocus-early-violet', 'Crocus, early species group', 'Crocus, violet', ['#7a5bb5', '#e8a22c'], [1, 10, 10, 37.6, 18], [2.4, 2, 6, 8, 15], { height: 11, spread: 8, share: 0.75, price: 0.2 }),
  bulb('crocus-large-white', 'Crocus, large-flowered group', 'Crocus, white', ['#f1eff6', '#e8a22c'], [1, 10, 10, 56.9, 18], [2.6, 2.4, 7, 8, 15], { height: 13, spread: 8, share: 0.75, price: 0.24 }),
  bulb('iris-reticulata-blue', 'Iris reticulata', 'Netted iris, blue', ['#3f4fb0', '#f0b93a'], [1, 10, 10, 47.2, 14], [3, 2, 7, 10, 14], { height: 14, spread: 8, share: 0.6, price: 0.3, poison: true }),
  bulb('scilla-blue', 'Scilla siberica', 'Squill, blue', ['#3c63c4'], [1, 10, 10, 91.5, 18], [2.2, 1.8, 7, 10, 14], { height: 14, spread: 8, share: 0.55, price: 0.24, lightLow: SHADE, poison: true }),
  bulb('daffodil-early-yellow', 'Narcissus, Division 6 (cyclamineus)', 'Daffodil, early yellow', ['#f3c62b'], [1, 10, 10, 117.6, 22], [4, 3, 10, 12, 16], { height: 22, spread: 13, share: 0.5, price: 0.55, skin: true }),
  bulb('daffodil-trumpet-yellow', 'Narcissus, Division 1 (trumpet)', 'Daffodil, main yellow', ['#f0bd20'], [1, 10, 10, 187.1, 20], [5, 4.2, 14, 12, 16], { height: 40, spread: 16, share: 0.5, price: 0.7, skin: true }),
  bulb('daffodil-white', 'Narcissus, Division 9 (poeticus)', 'Daffodil, late white', ['#f7f4e6', '#e8862e'], [1, 10, 10, 344, 18], [4.6, 3.8, 13, 12, 16], { height: 40, spread: 15, share: 0.45, price: 0.66, skin: true }),
  bulb('hyacinth-blue', 'Hyacinthus orientalis', 'Hyacinth, blue', ['#4a58b8'], [1, 10, 10, 202.3, 16], [5.5, 5, 15, 10, 14], { height: 25, spread: 14, share: 0.7, price: 0.95, skin: true }),
  bulb('hyacinth-pink', 'Hyacinthus orientalis', 'Hyacinth, pink', ['#d9749f'], [1, 10, 10, 202.3, 16], [5.5, 5, 15, 10, 14], { height: 25, spread: 14, share: 0.7, price: 0.95, skin: true }),
  bulb('muscari-blue', 'Muscari armeniacum', 'Grape hyacinth, blue', ['#4253c2'], [1, 10, 10, 166.9, 24], [2.6, 2.2, 7, 8, 15], { height: 16, spread: 9, share: 0.55, price: 0.18 }),
  bulb('tulip-early-orange', 'Tulipa, Single Early group', 'Tulip, early orange', ['#e9812f'], [2, 10, 10, 191.5, 15], [4.8, 3.8, 13, 12, 18], { height: 32, spread: 14, share: 0.6, price: 0.52, skin: true }),
  bulb('tulip-mid-red', 'Tulipa, Triumph group', 'Tulip, mid red', ['#c5283d'], [7, 10, 10, 85.4, 15], [5, 4, 13, 12, 18], { height: 42, spread: 14, share: 0.6, price: 0.5, skin: true }),
  bulb('tulip-mid-rose', 'Tulipa, Triumph group', 'Tulip, mid rose', ['#dd6f8f'], [7, 10, 10, 85.4, 15], [5, 4, 13, 12, 18], { height: 42, spread: 14, share: 0.6, price: 0.5, skin: true }),
  bulb('tulip-late-dark', 'Tulipa, Single Late group', 'Tulip, late dark', ['#5b1f3c'], [7, 10, 10, 158.2, 16], [5.2, 4.2, 13, 12, 18], { height: 56, spread: 14, share: 0.6, price: 0.58, skin: true }),
  bulb('allium-tall-purple', 'Allium aflatunense', 'Allium, tall purple', ['#9a63b8'], [7, 10, 10, 283.8, 20], [5, 5, 20, 12, 18], { height: 85, spread: 18, share: 0.55, price: 0.85 }),

  plant('pansy-violet', 'Viola × wittrockiana', 'Pansy, violet', 'cool-season-annual', 'mounding', [18, 12, 22, 0.008], [PART, FULL, 'medium', -13, 'in-season'], [shown('flower', ['#7e57c2', '#f0bf3f'], 0.5, installed(0, 23))], bedding(4.5), { base: 4 }),
  plant('pansy-yellow', 'Viola × wittrockiana', 'Pansy, yellow', 'cool-season-annual', 'mounding', [18, 12, 22, 0.008], [PART, FULL, 'medium', -13, 'in-season'], [shown('flower', ['#f2c12e', '#5b3424'], 0.5, installed(0, 23))], bedding(4.5), { base: 4 }),
  plant('viola-white', 'Viola cornuta', 'Viola, white', 'cool-season-annual', 'mounding', [15, 10, 20, 0.008], [PART, FULL, 'medium', -15, 'in-season'], [shown('flower', ['#f3f1fa', '#7a6bc0'], 0.5, installed(0, 24))], bedding(4.2), { base: 4 }),
  plant('cabbage-rose', 'Brassica oleracea, ornamental group', 'Ornamental cabbage, rose', 'cool-season-annual', 'mounding', [28, 24, 30, 0.004], [FULL, FULL, 'medium', -11, 'in-season'], [shown('leaf', ['#a84e86', '#d9a3c4'], 0.7, { rule: 'cool-nights', belowC: 10, fullNights: 14 })], pot('15 cm pot', 5.5), { base: 4 }),
  plant('alyssum-white', 'Lobularia maritima', 'Sweet alyssum, white', 'cool-season-annual', 'trailing', [10, 10, 25, 0.008], [PART, FULL, 'medium', -4, 'in-season'], [shown('flower', ['#f5f3f0'], 0.6, installed(0, 27))], bedding(3.9), { base: 5 }),
  plant('nemesia-rose', 'Nemesia, hybrid group', 'Nemesia, rose', 'cool-season-annual', 'mounding', [30, 14, 25, 0.008], [PART, FULL, 'medium', -2, 'in-season'], [shown('flower', ['#d9618f', '#f4d9a0'], 0.5, installed(5, 24))], bedding(6.5), { base: 5 }),
  plant('marguerite-white', 'Argyranthemum frutescens', 'Marguerite, white', 'cool-season-annual', 'mounding', [40, 18, 30, 0.007], [FULL, FULL, 'medium', -2, 'in-season'], [shown('flower', ['#f6f5ef', '#eebc3a'], 0.45, installed(5, 24))], pot('12 cm pot', 4.9), { base: 5 }),
  plant('wallflower-amber', 'Erysimum cheiri', 'Wallflower, amber', 'biennial', 'upright', [35, 15, 28, 0.006], [FULL, FULL, 'low', -15, 'evergreen'], [shown('flower', ['#d98324', '#a8402a'], 0.5, heat(4, 190, 40))], bedding(5.2), { base: 5 }),

  plant('petunia-magenta', 'Petunia × atkinsiana', 'Petunia, magenta', 'tender-annual', 'mounding', [30, 14, 28, 0.008], [FULL, FULL, 'medium', -0.5, 'in-season'], [shown('flower', ['#c8418f'], 0.55, installed(4, 32))], bedding(5)),
  plant('calibrachoa-violet', 'Calibrachoa, hybrid group', 'Calibrachoa, violet', 'tender-annual', 'trailing', [20, 12, 30, 0.008], [FULL, FULL, 'medium', -0.9, 'in-season'], [shown('flower', ['#6d4fc0'], 0.6, installed(4, 32))], pot('10 cm pot', 3.4)),
  plant('zonal-geranium-red', 'Pelargonium × hortorum', 'Zonal geranium, red', 'tender-annual', 'upright', [40, 18, 30, 0.007], [FULL, FULL, 'medium', 0, 'in-season'], [shown('flower', ['#cf3b2b'], 0.4, installed(3, 32))], pot('12 cm pot', 4.6)),
  plant('lobelia-blue', 'Lobelia erinus', 'Lobelia, blue', 'tender-annual', 'trailing', [15, 10, 25, 0.008], [PART, FULL, 'medium', -0.5, 'in-season'], [shown('flower', ['#3f55c6'], 0.55, installed(3, 25))], bedding(4.2)),
  plant('impatiens-coral', 'Impatiens walleriana', 'Impatiens, coral', 'tender-annual', 'mounding', [30, 12, 27, 0.008], [SHADE, PART, 'high', 0.5, 'in-season'], [shown('flower', ['#ea6a5a'], 0.5, installed(4, 30))], bedding(4.6)),
  plant('wax-begonia-white', 'Begonia × semperflorens', 'Wax begonia, white', 'tender-annual', 'mounding', [25, 12, 24, 0.007], [SHADE, FULL, 'medium', 0, 'in-season'], [shown('flower', ['#f3ece9', '#e9a9b4'], 0.5, installed(3, 33))], bedding(4.4)),
  plant('coleus-lime', 'Coleus scutellarioides', 'Coleus, lime', 'tender-annual', 'upright', [50, 14, 30, 0.008], [SHADE, PART, 'medium', 1, 'in-season'], [shown('leaf', ['#b7cf3b', '#6d2238'], 0.85, always)], pot('10 cm pot', 3.6)),
  plant('lantana-gold', 'Lantana camara', 'Lantana, gold', 'tender-annual', 'mounding', [45, 16, 36, 0.008], [FULL, FULL, 'low', 0, 'in-season'], [shown('flower', ['#eda52b', '#e2603a'], 0.45, installed(5))], pot('12 cm pot', 4.8)),
  plant('angelonia-blue', 'Angelonia angustifolia', 'Angelonia, blue', 'tender-annual', 'upright', [50, 14, 30, 0.008], [FULL, FULL, 'medium', 4, 'in-season'], [shown('flower', ['#5d5bc4'], 0.4, installed(6))], pot('10 cm pot', 3.9)),
  plant('scaevola-violet', 'Scaevola aemula', 'Fan flower, violet', 'tender-annual', 'trailing', [20, 14, 32, 0.008], [FULL, FULL, 'medium', 0, 'in-season'], [shown('flower', ['#8a6fd0'], 0.5, installed(4))], pot('10 cm pot', 3.9)),
  plant('sweet-potato-lime', 'Ipomoea batatas, ornamental group', 'Sweet potato vine, lime', 'tender-annual', 'trailing', [25, 14, 42, 0.009], [PART, FULL, 'medium', 2, 'in-season'], [shown('leaf', ['#b4cc3e'], 0.9, always)], pot('10 cm pot', 3.5)),
  plant('marigold-orange', 'Tagetes patula', 'Marigold, orange', 'tender-annual', 'mounding', [25, 12, 25, 0.008], [FULL, FULL, 'medium', -0.5, 'in-season'], [shown('flower', ['#ec8a1c'], 0.5, installed(2, 31))], bedding(3.8)),
  plant('salvia-blue', 'Salvia farinacea', 'Mealy sage, blue', 'tender-annual', 'upright', [55, 14, 32, 0.008], [FULL, FULL, 'medium', -0.9, 'in-season'], [shown('flower', ['#4a52b5'], 0.45, installed(8))], bedding(5.4)),

  plant('chrysanthemum-bronze', 'Chrysanthemum × morifolium', 'Fall chrysanthemum, bronze', 'cool-season-annual', 'mounding', [40, 38, 38, 0], [FULL, FULL, 'high', -5, 'in-season'], [shown('flower', ['#c8742b', '#8c3b22'], 0.8, installed(6, null, 40))], pot('20 cm pot', 7.5)),
  plant('aster-violet', 'Symphyotrichum novi-belgii', 'Fall aster, violet', 'cool-season-annual', 'mounding', [38, 34, 34, 0], [FULL, FULL, 'medium', -6, 'in-season'], [shown('flower', ['#7d6cc6'], 0.75, installed(5, null, 38))], pot('18 cm pot', 6.8)),
  plant('coral-bells-burgundy', 'Heuchera, hybrid group', 'Coral-bells, burgundy', 'perennial', 'mounding', [30, 20, 38, 0.002], [SHADE, PART, 'medium', -30, 'evergreen'], [shown('leaf', ['#6f2f44'], 0.9, always), shown('flower', ['#e3b9b4'], 0.15, heat(5, 420, 35))], pot('1-quart pot', 8.5), { base: 5 }),
  plant('dusty-miller', 'Jacobaea maritima', 'Silver-leaf groundsel', 'biennial', 'mounding', [28, 12, 28, 0.005], [FULL, FULL, 'low', -12, 'in-season'], [shown('leaf', ['#c4ccc6'], 0.95, always)], bedding(4.4), { base: 5 }),
  plant('hosta-blue-green', 'Hosta sieboldiana', 'Hosta, blue-green', 'perennial', 'mounding', [55, 25, 70, 0.002], [SHADE, PART, 'high', -2, 'in-season'], [shown('leaf', ['#6f927f'], 0.5, leaf(6, 190, 10))], pot('1-gallon pot', 12), { base: 5 }),
  plant('hellebore-white', 'Helleborus niger', 'Christmas rose, white', 'perennial', 'mounding', [28, 25, 40, 0.002], [SHADE, PART, 'medium', -25, 'evergreen'], [shown('flower', ['#f2f0e4'], 0.45, heat(0, 18, 62))], pot('1-gallon pot', 14), { base: 5, cautions: ['Christmas rose is poisonous in all parts: gloves, and keep from dogs and children.'] }),
  plant('stonecrop-pink', 'Hylotelephium spectabile', 'Stonecrop, pink', 'perennial', 'upright', [45, 25, 45, 0.002], [FULL, FULL, 'low', -3, 'in-season'], [shown('flower', ['#cc6d8f', '#8a4a3a'], 0.7, heat(7, 1150, 75))], pot('1-gallon pot', 10), { base: 5 }),
  plant('lavender-violet', 'Lavandula angustifolia', 'Lavender, violet', 'shrub', 'mounding', [50, 25, 55, 0.002], [FULL, FULL, 'low', -20, 'evergreen'], [shown('flower', ['#7a68b8'], 0.6, heat(7, 620, 38)), shown('leaf', ['#9eab9c'], 0.35, always)], pot('1-gallon pot', 11), { base: 5 }),
  plant('coneflower-purple', 'Echinacea purpurea', 'Coneflower, purple', 'perennial', 'upright', [80, 25, 45, 0.002], [FULL, FULL, 'medium', -3, 'in-season'], [shown('flower', ['#c2629a', '#8a4a28'], 0.5, heat(7, 780, 60))], pot('1-gallon pot', 11), { base: 5 }),

  plant('fountain-grass', 'Cenchrus alopecuroides', 'Fountain grass', 'grass', 'mounding', [80, 30, 70, 0.002], [FULL, FULL, 'medium', -5, 'in-season'], [shown('flower', ['#b98d63', '#d8bd95'], 0.7, heat(7, 900, 190))], pot('1-gallon pot', 12), { base: 7 }),
  plant('blue-fescue', 'Festuca glauca', 'Blue fescue', 'grass', 'mounding', [25, 16, 28, 0.002], [FULL, FULL, 'low', -30, 'evergreen'], [shown('leaf', ['#8fa9ae'], 0.9, always)], pot('1-quart pot', 6), { base: 5 }),
  plant('bronze-sedge', 'Carex comans, bronze form', 'Sedge, bronze', 'grass', 'trailing', [30, 18, 38, 0.002], [PART, FULL, 'medium', -16, 'evergreen'], [shown('leaf', ['#a0673d'], 0.9, always)], pot('1-quart pot', 6.5), { base: 5 }),

  plant('dogwood-red', 'Cornus alba', 'Dogwood, red stems', 'shrub', 'upright', [130, 45, 90, 0.001], [PART, FULL, 'medium', -35, 'in-season'], [shown('stem', ['#b3262e'], 0.55, stem(5, 170, 12)), shown('leaf', ['#a8324a'], 0.7, leaf(5, 170, 12, 18))], pot('3-gallon pot', 28), { base: 5 }),
  plant('dogwood-yellow', 'Cornus sericea, yellow-stemmed form', 'Dogwood, yellow stems', 'shrub', 'upright', [120, 45, 90, 0.001], [PART, FULL, 'medium', -35, 'in-season'], [shown('stem', ['#d3b63a'], 0.55, stem(5, 170, 12))], pot('3-gallon pot', 28), { base: 5 }),
  plant('winterberry-red', 'Ilex verticillata', 'Winterberry, red', 'shrub', 'upright', [120, 45, 80, 0.001], [PART, FULL, 'high', -30, 'in-season'], [shown('berry', ['#cc2a2a'], 0.45, heat(7, 1500, 110))], pot('3-gallon pot', 34), { base: 5, cautions: ['One male winterberry for several females, or there are no berries.'] }),
  plant('winter-heath-pink', 'Erica carnea', 'Winter heath, pink', 'shrub', 'mounding', [20, 18, 35, 0.002], [PART, FULL, 'medium', -25, 'evergreen'], [shown('flower', ['#cf6a9a'], 0.6, heat(0, 8, 85))], pot('1-quart pot', 6.8), { base: 5 }),
  plant('wintergreen-red', 'Gaultheria procumbens', 'Wintergreen, red berries', 'shrub', 'mounding', [15, 18, 30, 0.001], [SHADE, PART, 'medium', -25, 'evergreen'], [shown('berry', ['#b92f35'], 0.4, heat(7, 1350, 160)), shown('leaf', ['#7a3d3b'], 0.35, stem(5, 250, 8))], pot('1-quart pot', 7.5), { base: 5 }),
  plant('box-green', 'Buxus sempervirens', 'Box, green', 'shrub', 'mounding', [45, 35, 50, 0.001], [SHADE, FULL, 'medium', -20, 'evergreen'], [], pot('2-gallon pot', 24), { base: 5 }),
  plant('ivy-variegated', 'Hedera helix, variegated form', 'Ivy, cream-edged', 'shrub', 'trailing', [15, 18, 45, 0.003], [SHADE, FULL, 'medium', -20, 'evergreen'], [shown('leaf', ['#ccd0a4', '#5d7a52'], 0.75, always)], pot('10 cm pot', 3.2), { base: 5, cautions: ['Ivy sap irritates skin: gloves.'] }),
  plant('panicle-hydrangea', 'Hydrangea paniculata', 'Panicle hydrangea, cream', 'shrub', 'upright', [120, 50, 100, 0.001], [PART, FULL, 'high', -30, 'in-season'], [shown('flower', ['#efe9d2', '#d7a3a5'], 0.6, heat(7, 880, 75))], pot('3-gallon pot', 32), { base: 5 }),
  plant('hawthorn', 'Crataegus laevigata', 'Hawthorn, small tree', 'tree', 'upright', [260, 90, 120, 0.0005], [FULL, FULL, 'medium', -30, 'in-season'], [shown('flower', ['#f4f1e6'], 0.5, heat(5, 330, 16)), shown('berry', ['#a6242c'], 0.3, heat(7, 1450, 95))], pot('10-gallon tree', 140), { base: 5 }),
];

import { bulb, inColours, lateWinterBulb, firstSpringBulb, springBulb, inSummer, shortDays, heatFrom, installed, flower, shown, SHADE, PART, FULL } from './terms.mjs';

const LAST = [1, 1, 1.1, 1.1], SPREADS = [1.1, 1.3, 1.5, 1.6], FADES = [0.6, 0.35, 0.2];
const small = { bees: 'high', returns: SPREADS, dry: true };

const early = [
  bulb('snowdrop', 'Galanthus nivalis', 'Snowdrop, white', ['#f4f6ee'], lateWinterBulb(302, 24), [2.2, 1.6, 6, 10, 15], { ...small, dry: false, height: 14, spread: 7, share: 0.7, price: 0.34, lightLow: SHADE, status: 'Wild plants are protected in places: buy nursery-raised stock only.' }),
  bulb('snowdrop-giant', 'Galanthus elwesii', 'Giant snowdrop, white', ['#f5f6f0'], lateWinterBulb(271, 24), [2.6, 2, 7, 10, 15], { ...small, height: 18, spread: 9, share: 0.65, price: 0.5, lightLow: SHADE, status: 'Wild plants are protected: buy nursery-raised stock only.' }),
  bulb('spring-snowflake', 'Leucojum vernum', 'Spring snowflake, white', ['#f5f6ec', '#b9cf6a'], lateWinterBulb(368, 20), [2.6, 2.2, 8, 10, 15], { returns: LAST, height: 20, spread: 10, share: 0.55, price: 0.75, lightLow: SHADE, water: 'high' }),
  bulb('summer-snowflake', 'Leucojum aestivum', 'Summer snowflake, white', ['#f6f6ee'], springBulb(105, 18), [4.2, 3.4, 12, 12, 16], { returns: LAST, height: 40, spread: 14, share: 0.4, price: 0.62, lightLow: SHADE, water: 'high' }),
  bulb('winter-aconite', 'Eranthis hyemalis', 'Winter aconite, yellow', ['#f2c81e'], lateWinterBulb(324, 20), [1.6, 2, 6, 10, 15], { ...small, dry: false, height: 9, spread: 8, share: 0.7, price: 0.3, lightLow: SHADE, harm: { people: 'poisonous', animals: 'poisonous' }, resistance: { deer: 'seldom', rabbits: 'seldom' } }),
  ...inColours((e, w, c) => bulb(`crocus-early-${e}`, 'Crocus, early species group', `Crocus, ${w}`, c, firstSpringBulb(298, 18), [2.4, 2, 6, 8, 15], { ...small, height: 11, spread: 8, share: 0.75, price: 0.2, harm: {}, cautions: [] }), [
    ['violet', 'violet', ['#7a5bb5', '#e8a22c']], ['yellow', 'early yellow', ['#f2b824']], ['cream', 'early cream', ['#f1e6b8', '#e8a22c']]]),
  bulb('crocus-tommasini-lilac', 'Crocus tommasinianus', 'Crocus, woodland lilac', ['#a58fd0', '#e8a22c'], firstSpringBulb(269, 16), [1.8, 1.5, 5, 8, 15], { ...small, height: 9, spread: 7, share: 0.75, price: 0.16, lightLow: SHADE, vigour: 'vigorous', harm: {}, resistance: { rabbits: 'seldom' } }),
  ...inColours((e, w, c) => bulb(`crocus-large-${e}`, 'Crocus, large-flowered group', `Crocus, ${w}`, c, firstSpringBulb(355, 18), [2.6, 2.4, 7, 8, 15], { ...small, height: 13, spread: 8, share: 0.75, price: 0.24, harm: {}, grades: [{ name: '7/8', heightCm: 2.2, diameterCm: 2.1 }, { name: '9/+', heightCm: 2.8, diameterCm: 2.8 }] }), [
    ['white', 'white', ['#f1eff6', '#e8a22c']], ['purple', 'large purple', ['#5b3f96', '#e8a22c']], ['striped', 'large striped', ['#c9bfe4', '#6d4fa8']], ['yellow', 'large yellow', ['#f3a71c']]]),
  bulb('iris-reticulata-blue', 'Iris reticulata', 'Netted iris, blue', ['#3f4fb0', '#f0b93a'], firstSpringBulb(334, 14), [3, 2, 7, 10, 14], { height: 14, spread: 8, share: 0.6, price: 0.3, dry: true, returns: [0.7, 0.4], medium: 'gritty' }),
  bulb('iris-reticulata-violet', 'Iris reticulata', 'Netted iris, violet', ['#5a3585', '#f0b93a'], firstSpringBulb(334, 14), [3, 2, 7, 10, 14], { height: 14, spread: 8, share: 0.6, price: 0.3, dry: true, returns: [0.7, 0.4], medium: 'gritty' }),
  bulb('iris-danford-yellow', 'Iris danfordiae', 'Danford iris, yellow', ['#f0c22a'], firstSpringBulb(312, 13), [2.4, 1.8, 7, 10, 14], { height: 11, spread: 7, share: 0.6, price: 0.3, dry: true, returns: [0.4, 0.2], medium: 'gritty' }),
  bulb('scilla-blue', 'Scilla siberica', 'Squill, blue', ['#3c63c4'], springBulb(28, 18), [2.2, 1.8, 7, 10, 14], { ...small, height: 14, spread: 8, share: 0.55, price: 0.24, lightLow: SHADE, harm: { people: 'poisonous', animals: 'poisonous' }, vigour: 'vigorous', status: 'Seeds about; listed as invasive in places: ask the local list.' }),
  bulb('glory-of-the-snow-blue', 'Scilla luciliae', 'Glory of the snow, blue', ['#6d86d6', '#f4f4ee'], springBulb(19, 18), [2, 1.8, 7, 10, 14], { ...small, height: 14, spread: 8, share: 0.6, price: 0.22, lightLow: SHADE }),
  bulb('glory-of-the-snow-pink', 'Scilla luciliae', 'Glory of the snow, pink', ['#e0a3c4', '#f4f0ee'], springBulb(19, 18), [2, 1.8, 7, 10, 14], { ...small, height: 14, spread: 8, share: 0.6, price: 0.26, lightLow: SHADE }),
  bulb('striped-squill', 'Puschkinia scilloides', 'Striped squill, pale blue', ['#cfdcec', '#7f9fce'], springBulb(26, 18), [2, 1.8, 7, 10, 14], { ...small, height: 14, spread: 8, share: 0.55, price: 0.24 }),
  ...inColours((e, w, c) => bulb(`windflower-${e}`, 'Anemonoides blanda', `Windflower, ${w}`, c, springBulb(52, 24), [1.6, 2, 8, 8, 14], { ...small, height: 13, spread: 12, share: 0.6, price: 0.22, lightLow: SHADE, harm: { people: 'irritant', animals: 'irritant', skin: 'irritant' } }), [
    ['blue', 'blue', ['#6472c8', '#f2d65c']], ['white', 'white', ['#f4f3ec', '#f2d65c']]]),
  ...inColours((e, w, c) => bulb(`muscari-${e}`, 'Muscari armeniacum', `Grape hyacinth, ${w}`, c, springBulb(115, 24), [2.6, 2.2, 7, 8, 15], { ...small, height: 16, spread: 9, share: 0.55, price: 0.18, vigour: 'vigorous', harm: {} }), [
    ['blue', 'blue', ['#4253c2']], ['white', 'white', ['#eef0ea']], ['pale', 'pale blue', ['#a9c3e6']]]),
  bulb('muscari-two-tone', 'Muscari latifolium', 'Grape hyacinth, two-toned', ['#2c2f6b', '#8fa0dc'], springBulb(128, 20), [2.6, 2.2, 7, 8, 15], { ...small, height: 18, spread: 9, share: 0.5, price: 0.26, harm: {} }),
  bulb('starflower-blue', 'Ipheion uniflorum', 'Spring starflower, blue', ['#a9b6e4'], springBulb(42, 30), [2, 1.6, 7, 6, 12], { height: 15, spread: 9, share: 0.55, price: 0.2, tops: -14, roots: -6, returns: SPREADS, harm: {} }),
  bulb('dogtooth-violet-yellow', 'Erythronium tuolumnense', 'Dog-tooth violet, yellow', ['#f0d24a'], springBulb(56, 14), [5.5, 2.6, 10, 10, 15], { height: 28, spread: 13, share: 0.4, price: 0.95, lightLow: SHADE, lightHigh: PART, harm: {}, returns: LAST, water: 'high', status: 'Wild plants are protected in places: buy nursery-raised stock only.' }),
];

const daffodil = (id, division, name, colours, rule, [h, d], height, share, price) =>
  bulb(id, `Narcissus, Division ${division}`, `Daffodil, ${name}`, colours, rule, [h, d, Math.round(d * 3.3), 12, 16], { height, spread: Math.round(height * 0.4), share, price, skin: true, returns: LAST, bees: 'medium', grades: [{ name: 'double nose I', heightCm: +(h * 1.1).toFixed(1), diameterCm: +(d * 1.25).toFixed(1) }, { name: 'round', heightCm: +(h * 0.9).toFixed(1), diameterCm: +(d * 0.8).toFixed(1) }] });
const daffodils = [
  bulb('daffodil-early-yellow', 'Narcissus, Division 6 (cyclamineus)', 'Daffodil, early yellow', ['#f3c62b'], springBulb(26, 22), [4, 3, 10, 12, 16], { height: 22, spread: 13, share: 0.5, price: 0.55, skin: true, returns: LAST }),
  bulb('daffodil-trumpet-yellow', 'Narcissus, Division 1 (trumpet)', 'Daffodil, main yellow', ['#f0bd20'], springBulb(61, 20), [5, 4.2, 14, 12, 16], { height: 40, spread: 16, share: 0.5, price: 0.7, skin: true, returns: LAST }),
  daffodil('daffodil-trumpet-white', '1 (trumpet)', 'main white', ['#f5f2e4'], springBulb(61, 20), [5, 4.2], 38, 0.5, 0.78),
  daffodil('daffodil-trumpet-two-tone', '1 (trumpet)', 'main white and yellow', ['#f6f1dc', '#f0c02c'], springBulb(61, 20), [5, 4.2], 40, 0.5, 0.74),
  daffodil('daffodil-large-cup-orange', '2 (large-cupped)', 'main yellow and orange', ['#f3cf3a', '#e5762a'], springBulb(87, 19), [5, 4.2], 42, 0.5, 0.68),
  daffodil('daffodil-large-cup-pink', '2 (large-cupped)', 'main white and pink', ['#f6f2e8', '#eaa58c'], springBulb(92, 18), [5, 4.1], 40, 0.5, 0.78),
  daffodil('daffodil-small-cup', '3 (small-cupped)', 'late white and orange', ['#f5f1e2', '#ef9a2e'], springBulb(105, 18), [4.6, 3.8], 40, 0.45, 0.66),
  daffodil('daffodil-double-cream', '4 (double)', 'late double cream', ['#f3e9bd', '#f0c65a'], springBulb(115, 18), [4.8, 4], 40, 0.5, 0.75),
  daffodil('daffodil-triandrus-white', '5 (triandrus)', 'late nodding white', ['#f5f3e6'], springBulb(115, 18), [3.8, 3], 30, 0.45, 0.6),
  daffodil('daffodil-early-two-tone', '6 (cyclamineus)', 'early white and yellow', ['#f5f0da', '#f2cb3a'], springBulb(27, 22), [4, 3], 24, 0.5, 0.58),
  daffodil('daffodil-jonquil-yellow', '7 (jonquilla)', 'late scented yellow', ['#f2c41f'], springBulb(128, 18), [3.6, 3], 30, 0.45, 0.5),
  daffodil('daffodil-tazetta-cream', '8 (tazetta)', 'late clustered cream', ['#f5eecd', '#f0b93a'], springBulb(128, 18), [5, 4.2], 40, 0.45, 0.68),
  bulb('daffodil-white', 'Narcissus, Division 9 (poeticus)', 'Daffodil, late white', ['#f7f4e6', '#e8862e'], springBulb(170, 18), [4.6, 3.8, 13, 12, 16], { height: 40, spread: 15, share: 0.45, price: 0.66, skin: true, returns: LAST }),
  daffodil('daffodil-dwarf-yellow', '12 (other)', 'early dwarf yellow', ['#f1c225'], springBulb(27, 24), [3, 2.6], 17, 0.55, 0.42),
  daffodil('daffodil-hoop-yellow', '10 (bulbocodium)', 'early hoop-petticoat yellow', ['#f2c62a'], springBulb(41, 20), [2.2, 2], 15, 0.5, 0.5),
  daffodil('daffodil-split-cream', '11 (split-corona)', 'late split-cup cream and apricot', ['#f5efd8', '#efb37a'], springBulb(95, 18), [5, 4.2], 40, 0.55, 0.76),
  daffodil('daffodil-split-yellow', '11 (split-corona)', 'main split-cup yellow', ['#f1c632'], springBulb(87, 18), [5, 4.2], 40, 0.55, 0.74),
  bulb('daffodil-wild-yellow', 'Narcissus pseudonarcissus', 'Daffodil, wild yellow', ['#f4dc6a', '#efbf2a'], springBulb(38, 20), [3, 2.4, 9, 12, 16], { height: 24, spread: 11, share: 0.45, price: 0.52, skin: true, returns: SPREADS, bees: 'medium', status: 'Division 13; wild plants are protected in places: buy nursery-raised stock only.' }),
  bulb('daffodil-wild-jonquil', 'Narcissus jonquilla', 'Daffodil, wild jonquil yellow', ['#f2c41f'], springBulb(132, 18), [2.6, 2.2, 8, 12, 16], { height: 26, spread: 10, share: 0.4, price: 0.4, skin: true, returns: LAST, bees: 'medium', status: 'Division 13.' }),
];

const hyacinth = (ending, words, colours) => bulb(`hyacinth-${ending}`, 'Hyacinthus orientalis', `Hyacinth, ${words}`, colours, springBulb(87, 16), [5.5, 5, 15, 10, 14], { height: 25, spread: 14, share: 0.7, price: 0.95, skin: true, bees: 'medium', dry: true, returns: [0.7, 0.5, 0.4], harm: { people: 'irritant', animals: 'poisonous', skin: 'irritant' }, grades: [{ name: '14/15', heightCm: 4.8, diameterCm: 4.4 }, { name: '18/19', heightCm: 6.2, diameterCm: 5.9 }] });
const hyacinths = [
  ...inColours(hyacinth, [['blue', 'blue', ['#4a58b8']], ['pink', 'pink', ['#d9749f']], ['white', 'white', ['#f2f1ea']], ['violet', 'violet', ['#6b4596']], ['yellow', 'primrose', ['#f0e19a']]]),
  bulb('bluebell-blue', 'Hyacinthoides non-scripta', 'Bluebell, blue', ['#5261b8'], springBulb(222, 20), [3, 2.4, 10, 10, 15], { height: 30, spread: 12, share: 0.4, price: 0.3, lightLow: SHADE, returns: SPREADS, vigour: 'vigorous', harm: { people: 'poisonous', animals: 'poisonous' }, status: 'Protected in the wild in places, invasive in others: ask the local list, buy nursery-raised stock only.' }),
];

const tulip = (id, group, name, colours, rule, height, price, more = {}) =>
  bulb(id, `Tulipa, ${group} group`, `Tulip, ${name}`, colours, rule, [more.h ?? 5, more.d ?? 4, 13, 12, 18], { height, spread: more.spread ?? 14, share: more.share ?? 0.6, price, skin: true, dry: true, returns: more.returns ?? FADES, medium: 'gritty', harm: { people: 'irritant', animals: 'poisonous', skin: 'irritant' }, resistance: { deer: 'often', rabbits: 'often', pests: 'tulip fire, squirrels' }, grades: [{ name: '11/12', heightCm: 4.5, diameterCm: 3.6 }, { name: '12/+', heightCm: 5.2, diameterCm: 4.2 }] });
const tulips = [
  tulip('tulip-kaufmann-cream', 'Kaufmanniana', 'early waterlily cream', ['#f2e2b4', '#d2543c'], springBulb(49, 16), 18, 0.52, { returns: LAST, h: 4, d: 3.2, spread: 13 }),
  tulip('tulip-foster-white', 'Fosteriana', 'early white', ['#f4f1e2'], springBulb(87, 15), 38, 0.52),
  tulip('tulip-foster-red', 'Fosteriana', 'early red', ['#d42e25'], springBulb(87, 15), 38, 0.5),
  bulb('tulip-early-orange', 'Tulipa, Single Early group', 'Tulip, early orange', ['#e9812f'], springBulb(105, 15), [4.8, 3.8, 13, 12, 18], { height: 32, spread: 14, share: 0.6, price: 0.52, skin: true, dry: true, returns: FADES, medium: 'gritty' }),
  tulip('tulip-early-purple', 'Single Early', 'early purple', ['#70407f'], springBulb(105, 15), 34, 0.52, { h: 4.8, d: 3.8 }),
  tulip('tulip-double-early-yellow', 'Double Early', 'early double yellow', ['#f3cc3c'], springBulb(105, 16), 28, 0.56, { share: 0.7 }),
  tulip('tulip-double-early-pink', 'Double Early', 'early double pink', ['#e79ab0', '#f3dcd8'], springBulb(105, 16), 28, 0.56, { share: 0.7 }),
  tulip('tulip-greig-red', 'Greigii', 'early mottled-leaf red', ['#d9462f', '#f0c44a'], springBulb(105, 16), 25, 0.52, { returns: [0.9, 0.8, 0.6], h: 4.4, d: 3.6 }),
  bulb('tulip-mid-red', 'Tulipa, Triumph group', 'Tulip, mid red', ['#c5283d'], springBulb(178, 15), [5, 4, 13, 12, 18], { height: 42, spread: 14, share: 0.6, price: 0.5, skin: true, dry: true, returns: FADES, medium: 'gritty' }),
  bulb('tulip-mid-rose', 'Tulipa, Triumph group', 'Tulip, mid rose', ['#dd6f8f'], springBulb(178, 15), [5, 4, 13, 12, 18], { height: 42, spread: 14, share: 0.6, price: 0.5, skin: true, dry: true, returns: FADES, medium: 'gritty' }),
  tulip('tulip-mid-white', 'Triumph', 'mid white', ['#f3f2ea'], springBulb(178, 15), 42, 0.5),
  tulip('tulip-mid-purple', 'Triumph', 'mid purple', ['#6a3f7c'], springBulb(178, 15), 44, 0.5),
  tulip('tulip-mid-yellow', 'Triumph', 'mid yellow', ['#f2c72f'], springBulb(178, 15), 42, 0.5),
  tulip('tulip-mid-flame', 'Triumph', 'mid red and white', ['#b8323f', '#f4ece4'], springBulb(178, 15), 44, 0.54),
  tulip('tulip-darwin-orange', 'Darwin Hybrid', 'mid tall orange', ['#ea6a2c', '#f2b23e'], springBulb(163, 15), 55, 0.58, { returns: [0.9, 0.8, 0.6] }),
  tulip('tulip-darwin-pink', 'Darwin Hybrid', 'mid tall pink', ['#e58a8e'], springBulb(163, 15), 55, 0.58, { returns: [0.9, 0.8, 0.6] }),
  tulip('tulip-lily-white', 'Lily-flowered', 'late pointed white', ['#f4f3e9'], springBulb(239, 15), 50, 0.56),
  tulip('tulip-lily-pink', 'Lily-flowered', 'late pointed pink', ['#d55b8e', '#f3dfe0'], springBulb(239, 15), 52, 0.56),
  tulip('tulip-fringed-violet', 'Fringed', 'late fringed violet', ['#8a5ba8'], springBulb(257, 16), 48, 0.6),
  tulip('tulip-double-late-apricot', 'Double Late', 'late double apricot', ['#f0b07c', '#f5d9b0'], springBulb(269, 16), 45, 0.64, { share: 0.72 }),
  tulip('tulip-double-late-white', 'Double Late', 'late double white', ['#f5f2ea'], springBulb(269, 16), 45, 0.64, { share: 0.72 }),
  tulip('tulip-parrot-red', 'Parrot', 'late parrot red', ['#c7342f', '#2f5c36'], springBulb(281, 15), 50, 0.66, { share: 0.68 }),
  tulip('tulip-viridiflora-green', 'Viridiflora', 'late green and white', ['#eef0de', '#7da35c'], springBulb(269, 18), 48, 0.62),
  bulb('tulip-late-dark', 'Tulipa, Single Late group', 'Tulip, late dark', ['#5b1f3c'], springBulb(269, 16), [5.2, 4.2, 13, 12, 18], { height: 56, spread: 14, share: 0.6, price: 0.58, skin: true, dry: true, returns: FADES, medium: 'gritty' }),
  tulip('tulip-late-pink', 'Single Late', 'late pink', ['#e9a3b5'], springBulb(269, 16), 58, 0.58, { h: 5.2, d: 4.2 }),
  bulb('tulip-species-yellow', 'Tulipa tarda', 'Tulip, small starry yellow', ['#f1cf3c', '#f6f1dc'], springBulb(115, 14), [3, 2.2, 8, 12, 18], { height: 14, spread: 10, share: 0.65, price: 0.24, dry: true, returns: SPREADS, medium: 'gritty', harm: { people: 'irritant', animals: 'poisonous', skin: 'irritant' } }),
  ...inColours((e, [name, words, height, rule, cold = [12, 18]], c) => bulb(`tulip-species-${e}`, name, `Tulip, ${words}`, c, rule, [2.8, 2.1, 8, ...cold], { height, spread: 10, share: 0.55, price: 0.3, dry: true, skin: true, returns: SPREADS, medium: 'gritty', harm: { people: 'irritant', animals: 'poisonous', skin: 'irritant' } }), [
    ['scarlet', ['Tulipa linifolia', 'small scarlet', 15, springBulb(139, 14)], ['#d6322a']],
    ['candy', ['Tulipa clusiana', 'small red and white', 25, springBulb(122, 15), [6, 12]], ['#cf4a4a', '#f4efe2']],
    ['violet', ['Tulipa humilis', 'small violet', 12, springBulb(49, 14)], ['#a85ba0', '#f0c83a']],
    ['white', ['Tulipa turkestanica', 'small cream star', 22, springBulb(42, 16)], ['#f4eedc', '#e9b13a']],
    ['lilac', ['Tulipa saxatilis', 'small lilac', 20, springBulb(122, 16), [6, 12]], ['#c99ac8', '#f0d04a']]]),
];

const allium = (id, name, common, colours, rule, [h, d], height, share, price, more = {}) =>
  bulb(id, name, `Allium, ${common}`, colours, rule, [h, d, Math.round(d * 4), 12, 18], { height, spread: more.spread ?? 18, share, price, bees: 'high', dry: true, returns: LAST, harm: { animals: 'poisonous' }, cautions: ['Ornamental onions harm dogs and cats that eat them.'], hiddenBy: 'hosta, geranium or grasses: its leaves die before it flowers', cut: 'Leave the seed heads standing; pull yellow leaves.' });
const late = [
  bulb('allium-tall-purple', 'Allium aflatunense', 'Allium, tall purple', ['#9a63b8'], springBulb(450, 20), [5, 5, 20, 12, 18], { height: 85, spread: 18, share: 0.55, price: 0.85, bees: 'high', dry: true, returns: LAST, harm: { animals: 'poisonous' }, cautions: ['Ornamental onions harm dogs and cats that eat them.'] }),
  allium('allium-star-lilac', 'Allium cristophii', 'star-headed lilac', ['#a98fc4'], springBulb(528, 24), [3.8, 4], 45, 0.6, 0.8, { spread: 22 }),
  allium('allium-giant-purple', 'Allium giganteum', 'giant purple', ['#8a5fb0'], springBulb(603, 22), [6.5, 7], 120, 0.5, 3.4, { spread: 26 }),
  allium('allium-drumstick', 'Allium sphaerocephalon', 'drumstick wine-red', ['#8c2f5c'], springBulb(860, 24), [2.4, 2.2], 65, 0.4, 0.14, { spread: 12 }),
  allium('allium-azure', 'Allium caeruleum', 'azure', ['#5f86cf'], springBulb(603, 20), [2.2, 2], 50, 0.4, 0.2, { spread: 10 }),
  allium('allium-golden', 'Allium moly', 'golden', ['#eec52e'], springBulb(540, 20), [2.2, 2], 22, 0.55, 0.16, { spread: 12 }),
  allium('allium-broad-leaf', 'Allium karataviense', 'broad-leaved blush', ['#d9c3c6', '#b79ab0'], springBulb(350, 20), [4.2, 4.6], 20, 0.5, 0.7, { spread: 20 }),
  bulb('camassia-blue', 'Camassia leichtlinii', 'Camassia, blue', ['#5a6cc0'], springBulb(350, 18), [5, 4.2, 16, 12, 16], { height: 85, spread: 20, share: 0.4, price: 0.75, water: 'high', returns: LAST, bees: 'high', harm: {} }),
  bulb('camassia-white', 'Camassia leichtlinii', 'Camassia, cream', ['#f1eeda'], springBulb(350, 18), [5, 4.2, 16, 12, 16], { height: 85, spread: 20, share: 0.4, price: 0.85, water: 'high', returns: LAST, bees: 'high', harm: {} }),
  bulb('snakes-head', 'Fritillaria meleagris', 'Snake’s-head fritillary, chequered', ['#7b3f5f', '#d9b8c6'], springBulb(105, 16), [1.8, 1.8, 8, 12, 16], { height: 28, spread: 9, share: 0.35, price: 0.26, water: 'high', returns: LAST, bees: 'medium' }),
  bulb('crown-imperial-orange', 'Fritillaria imperialis', 'Crown imperial, orange', ['#e27a29'], springBulb(92, 16), [7, 8.5, 30, 12, 16], { height: 85, spread: 30, share: 0.4, price: 5.6, few: true, texture: 'bold', dry: true, returns: [0.8, 0.7], harm: { people: 'poisonous', animals: 'poisonous' }, resistance: { deer: 'seldom', rabbits: 'seldom' } }),
  bulb('dutch-iris-blue', 'Iris, Dutch group', 'Dutch iris, blue', ['#3f56b8', '#f0c23a'], springBulb(490, 14), [3.4, 2.6, 9, 8, 12], { height: 55, spread: 11, share: 0.45, price: 0.22, tops: -18, roots: -6, returns: [0.6, 0.3] }),
  bulb('star-of-bethlehem', 'Ornithogalum umbellatum', 'Star of Bethlehem, white', ['#f2f3ec'], springBulb(408, 16), [2.4, 2.2, 8, 10, 14], { height: 18, spread: 12, share: 0.55, price: 0.18, returns: SPREADS, vigour: 'vigorous', harm: { people: 'poisonous', animals: 'poisonous' }, status: 'Spreads; listed as invasive in places: ask the local list.' }),
  ...inColours((e, w, c) => bulb(`lily-asiatic-${e}`, 'Lilium, Asiatic group', `Lily, ${w}`, c, inSummer(951, 22), [5, 5.5, 22, 8, 12], { height: 85, spread: 24, share: 0.5, price: 1.15, few: true, roots: -14, returns: LAST, harm: { animals: 'poisonous' }, cautions: ['All parts of a lily, and its pollen, are deadly to cats.'], resistance: { deer: 'often', rabbits: 'often', slugs: 'often', pests: 'lily beetle' }, green: 'around-flower' }), [
    ['orange', 'Asiatic orange', ['#ea8433']], ['pink', 'Asiatic pink', ['#e2859b']]]),
  bulb('lily-oriental-white', 'Lilium, Oriental group', 'Lily, Oriental white', ['#f5efe9', '#e6c14d'], inSummer(1557, 22), [5.5, 6, 25, 8, 12], { height: 100, spread: 26, share: 0.5, price: 1.6, few: true, medium: 'acid', ph: [5, 6.5], roots: -12, returns: LAST, harm: { animals: 'poisonous' }, cautions: ['All parts of a lily, and its pollen, are deadly to cats.'], resistance: { deer: 'often', slugs: 'often', pests: 'lily beetle' } }),
  ...inColours((e, w, c) => bulb(`colchicum-${e}`, 'Colchicum autumnale', `Meadow saffron, ${w}`, c, shortDays(13.6, 5, 14, 26, 22), [4.5, 4, 15, 0, 6], { height: 16, spread: 18, share: 0.55, price: 1.6, few: true, returns: SPREADS, harm: { people: 'poisonous', animals: 'poisonous', skin: 'irritant' }, cautions: ['Meadow saffron is deadly if eaten: keep from dogs and children; gloves.'], resistance: { deer: 'seldom', rabbits: 'seldom', slugs: 'often' } }), [
    ['lilac', 'lilac', ['#bfa0d4']], ['white', 'white', ['#f3f0ee']]]),
  bulb('fall-crocus-blue', 'Crocus speciosus', 'Fall crocus, blue', ['#7f7fcb', '#e8862e'], shortDays(12.6, 9, 14, 24, 20), [2.2, 2, 7, 0, 8], { ...small, height: 13, spread: 8, share: 0.65, price: 0.24, harm: {} }),
  bulb('saffron-crocus', 'Crocus sativus', 'Saffron crocus, violet', ['#8a6bbd', '#d9482c'], shortDays(11.8, 16, 14, 24, 16), [2.4, 2.4, 8, 0, 8], { ...small, height: 13, spread: 8, share: 0.65, price: 0.4, harm: {}, tops: -18, roots: -6 }),
  bulb('hardy-cyclamen-fall', 'Cyclamen hederifolium', 'Hardy cyclamen, fall pink', ['#d58db4', '#9fb39a'], shortDays(13.6, 5, 14, 26, 36), [2.5, 4.5, 15, 0, 6], { height: 11, spread: 18, share: 0.5, price: 3.2, few: true, lightLow: SHADE, lightHigh: PART, medium: 'gritty', returns: LAST, harm: { people: 'irritant', animals: 'irritant' }, status: 'Wild tubers are protected: buy nursery-raised stock only.' }),
  bulb('lily-longiflorum-white', 'Lilium longiflorum', 'Lily, Easter white', ['#f6f5f0'], inSummer(1060, 20), [5, 5.5, 22, 6, 10], { height: 80, spread: 24, share: 0.45, price: 1.5, few: true, tops: -8, roots: -10, returns: LAST, harm: { animals: 'poisonous' }, cautions: ['All parts of a lily, and its pollen, are deadly to cats.'], resistance: { deer: 'often', rabbits: 'often', pests: 'lily beetle' }, green: 'in-season' }),
  ...inColours((e, w, c) => bulb(`lily-trumpet-${e}`, 'Lilium, Trumpet group', `Lily, trumpet ${w}`, c, inSummer(1230, 22), [6, 6.5, 25, 8, 12], { height: 120, spread: 28, share: 0.45, price: 1.9, few: true, roots: -13, returns: LAST, harm: { animals: 'poisonous' }, cautions: ['All parts of a lily, and its pollen, are deadly to cats.'], resistance: { deer: 'often', rabbits: 'often', pests: 'lily beetle' }, green: 'in-season' }), [['white', 'white', ['#f5f2ec', '#e8c85a']], ['gold', 'gold', ['#edbd3c']]]),
  ...inColours((e, w, c) => bulb(`lily-orienpet-${e}`, 'Lilium, Oriental × Trumpet group', `Lily, Oriental-trumpet ${w}`, c, inSummer(1350, 24), [6, 6.5, 28, 8, 12], { height: 125, spread: 30, share: 0.5, price: 2.1, few: true, roots: -13, returns: LAST, harm: { animals: 'poisonous' }, cautions: ['All parts of a lily, and its pollen, are deadly to cats.'], resistance: { deer: 'often', rabbits: 'often', pests: 'lily beetle' }, green: 'in-season' }), [['yellow', 'yellow', ['#f0d67a']], ['rose', 'rose', ['#cf5f86', '#f3e4da']]]),
  ...inColours((e, w, c) => bulb(`poppy-anemone-${e}`, 'Anemone coronaria', `Poppy anemone, ${w}`, c, springBulb(173, 28), [1.6, 2.2, 9, 4, 10], { height: 28, spread: 13, share: 0.4, price: 0.2, tops: -8, roots: -5, returns: FADES, bees: 'high', harm: { people: 'irritant', animals: 'irritant', skin: 'irritant' }, cut: 'Take off spent flowers.' }), [['red', 'red', ['#c92a30', '#2a1f28']], ['blue', 'blue', ['#4a55b0', '#2a1f28']]]),
  ...inColours((e, w, c) => bulb(`ranunculus-${e}`, 'Ranunculus asiaticus', `Ranunculus, ${w}`, c, springBulb(267, 30), [1.8, 2.5, 11, 2, 8], { height: 30, spread: 15, share: 0.5, price: 0.28, tops: -5, roots: -4, returns: FADES, harm: { people: 'irritant', animals: 'irritant', skin: 'irritant' }, cut: 'Take off spent flowers.' }), [['orange', 'orange', ['#ec8a34']], ['rose', 'rose', ['#dd6a8f', '#f4e3e4']]]),
  bulb('nerine-pink', 'Nerine bowdenii', 'Nerine, pink', ['#e07fb2'], shortDays(12.7, 10, 17, 26, 36), [5, 4, 10, 0, 6], { height: 45, spread: 14, share: 0.4, price: 1.5, few: true, tops: -8, roots: -6, dry: true, returns: LAST, medium: 'gritty', hiddenBy: '' }),
  ...inColours((e, w, c) => bulb(`crocosmia-${e}`, 'Crocosmia × crocosmiiflora', `Crocosmia, ${w}`, c, inSummer(1200, 40), [2.6, 2.8, 10, 0, 8], { height: 70, spread: 18, share: 0.35, price: 0.4, roots: -8, tops: -6, returns: SPREADS, bees: 'high', vigour: 'vigorous', green: 'in-season', hiddenBy: '', status: 'Listed as invasive in mild wet places: ask the local list.', harm: {} }), [['orange', 'orange', ['#e8772a']], ['red', 'red', ['#c5352a']]]),
  ...inColours((e, w, c) => bulb(`eastern-cyclamen-${e}`, 'Cyclamen coum', `Eastern cyclamen, ${w}`, c, lateWinterBulb(289, 40), [2.2, 3.5, 12, 6, 14], { height: 9, spread: 14, share: 0.5, price: 2.9, few: true, lightLow: SHADE, lightHigh: PART, medium: 'gritty', returns: LAST, harm: { people: 'irritant', animals: 'irritant' }, status: 'Wild tubers are protected: buy nursery-raised stock only.' }), [['pink', 'pink', ['#cf5f96']], ['white', 'white', ['#f3eef0']]]),
];

const LEAF_TUBER = 'Take out flowers as they come, they cost it leaf; lift after the first frost and store dry, frost-free.';
const tender = (id, name, common, colours, rule, size, m) => bulb(id, name, common, colours, rule, size, { tops: 0, roots: 1, lightLow: FULL, green: 'in-season', growth: 0.005, young: Math.max(6, Math.round(m.spread * 0.35)), few: true, bees: 'medium', cut: 'Take off spent flowers all summer; lift after the first frost and store dry, frost-free.', hiddenBy: '', ...m });
const summer = [
  ...inColours((e, w, c) => tender(`canna-${e}`, 'Canna × generalis', `Canna, ${w}`, c, heatFrom(10, 500), [4, 4, 40, 0, 2], { height: 110, spread: 55, share: 0.35, price: 2.6, texture: 'bold', vigour: 'vigorous', water: 'high', harm: {}, tops: -0.5 }), [
    ['red', 'red', ['#cf3328']], ['yellow', 'yellow', ['#f0c32e']]]),
  tender('canna-bronze', 'Canna × generalis', 'Canna, bronze leaf', ['#5f3a34'], heatFrom(10, 500), [4, 4, 40, 0, 2], { height: 120, spread: 55, price: 2.9, texture: 'bold', vigour: 'vigorous', water: 'high', harm: {}, tops: -0.5, windows: [shown('leaf', ['#5f3a34', '#7f5a4a'], 0.8, heatFrom(10, 150)), flower(['#e2702f'], 0.25, heatFrom(10, 500))] }),
  ...inColours((e, w, c) => tender(`dahlia-${e}`, 'Dahlia × hortensis', `Dahlia, ${w}`, c, heatFrom(10, 560), [4, 3.4, 40, 0, 2], { height: 70, spread: 45, share: 0.5, price: 3.2, vigour: 'moderate', water: 'high', bees: 'high', harm: { animals: 'irritant', skin: 'irritant' }, tops: -0.5, resistance: { slugs: 'often', pests: 'earwigs, aphids' } }), [
    ['crimson', 'crimson', ['#a51d34']], ['apricot', 'apricot', ['#f0a765']], ['white', 'white', ['#f4f2ea']]]),
  ...inColours((e, w, c) => tender(`caladium-${e}`, 'Caladium × hortulanum', `Caladium, ${w}`, c, heatFrom(12, 280), [2.5, 4.5, 25, 0, 1], { cut: LEAF_TUBER, height: 45, spread: 40, price: 1.5, texture: 'bold', water: 'high', lightLow: SHADE, lightHigh: PART, tops: 0.5, roots: 4, windows: [shown('leaf', c, 0.85, heatFrom(12, 280))], harm: { people: 'poisonous', animals: 'poisonous', skin: 'irritant' }, cautions: ['Caladium irritates mouth and skin: keep from dogs and children; gloves.'] }), [
    ['white', 'white and green', ['#eef0e2', '#5c8a54']], ['red', 'red and green', ['#b2374a', '#4f7a48']]]),
  tender('elephant-ear-dark', 'Colocasia esculenta', 'Elephant ear, dark', ['#3d2f3f'], heatFrom(12, 260), [6, 6, 60, 0, 1], { cut: LEAF_TUBER, height: 100, spread: 85, price: 5.5, texture: 'bold', vigour: 'vigorous', water: 'high', lightLow: PART, tops: 2, roots: 2, windows: [shown('leaf', ['#3d2f3f', '#56724f'], 0.85, heatFrom(12, 260))], harm: { people: 'poisonous', animals: 'poisonous', skin: 'irritant' }, cautions: ['Elephant ear irritates mouth and skin: keep from dogs and children; gloves.'], status: 'Escapes in mild, wet places: ask the local list.' }),
  ...inColours((e, w, c) => tender(`tuberous-begonia-${e}`, 'Begonia × tuberhybrida', `Tuberous begonia, ${w}`, c, heatFrom(10, 420), [2, 4.5, 25, 0, 2], { height: 30, spread: 32, share: 0.55, price: 1.3, lightLow: SHADE, lightHigh: PART, tops: 0, heatCeiling: 26, harm: { animals: 'irritant' } }), [
    ['orange', 'orange', ['#ee7a34']], ['rose', 'rose', ['#df5f80']]]),
  tender('calla-yellow', 'Zantedeschia, hybrid group', 'Calla, yellow', ['#f0cb3a'], installed(60, null, 45), [3, 4.5, 25, 0, 2], { height: 45, spread: 32, share: 0.4, price: 2.4, texture: 'bold', water: 'high', lightLow: PART, tops: 0, harm: { people: 'poisonous', animals: 'poisonous', skin: 'irritant' }, cautions: ['Calla irritates mouth and skin: keep from dogs and children; gloves.'] }),
  tender('gladiolus-white', 'Gladiolus × hortulanus', 'Gladiolus, white', ['#f4f3ec'], installed(75, null, 16), [3, 4, 14, 0, 4], { height: 100, spread: 18, share: 0.35, price: 0.3, tops: -1 + 0.2, young: 8, resistance: { pests: 'thrips' } }),
  tender('pineapple-lily-wine', 'Eucomis comosa', 'Pineapple lily, wine', ['#c7a3b0', '#6f3a4c'], installed(70, null, 45), [5, 6, 25, 0, 4], { height: 55, spread: 40, share: 0.35, price: 3.4, texture: 'bold', tops: -0.9, roots: -3, harm: { people: 'irritant', animals: 'irritant' } }),
];

export const bulbs = [...early, ...daffodils, ...hyacinths, ...tulips, ...late, ...summer];

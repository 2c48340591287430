// Terms in which the palette is written down. Values are from memory of general handbooks.
const SOURCE = 'from memory of general horticultural handbooks';
export const FULL = 'full-sun', PART = 'part-sun', SHADE = 'shade';
const SKIN = 'Hyacinth, daffodil and tulip bulbs irritate skin and eyes: gloves, wash hands, no eye contact.';
const POISON = 'Bulbs are poisonous if eaten: keep from dogs and children.';

export const installed = (budDays, heatCeilingC, showDays) => ({ rule: 'from-install', budDays, ...(showDays && { showDays }), ...(heatCeilingC && { heatCeilingC }) });
// What opens on chilling, then heat (docs/accuracy.md): spring's shrubs and perennials, summer's, those of late winter, and those of any mild spell.
const chilling = (baseC, chillDays, lightFromH, shareUnchilled) => (sumCd, showDays, brownsAboveC) => ({ rule: 'chilling-forcing', baseC, chillDays, sumCd, showDays, ...(shareUnchilled && { shareUnchilled }), ...(lightFromH !== undefined && { lightFromH }), ...(brownsAboveC && { brownsAboveC }) });
export const inSpring = chilling(2, 60, 7, 0.5), inSummer = chilling(4, 60, 7, 0.6), inWinter = chilling(0, 40, 0), inMildSpells = chilling(3, 8);
// Spring bulbs by heat, cold and day length, fitted together over six climates.
const forcing = (baseC, coldStartWeeks, coldSpanWeeks, lightFromH) => (thresholdCd, showDays) => ({ rule: 'bulb-forcing', baseC, coldStartWeeks, coldSpanWeeks, thresholdCd, showDays, lightFromH });
export const lateWinterBulb = forcing(-4, -8, 24, 0), firstSpringBulb = forcing(-3, -8, 24, 4), springBulb = forcing(4.8, -7.6, 23.6, 10.3);
export const shortDays = (belowH, days, coolC, hotC, showDays, endsAtC) => ({ rule: 'short-days', belowH, days, coolC, hotC, showDays, ...(endsAtC && { endsAtC }) });
export const fruit = (sumCd, belowH, showDays, endsAtC) => ({ rule: 'fruit', baseC: 5, sumCd, belowH, showDays, ...(endsAtC && { endsAtC }) });
export const heatFrom = (baseC, sumCd) => ({ rule: 'heat-from-install', baseC, sumCd });
export const warmth = (fromC, fullC, heatCeilingC) => ({ rule: 'warmth', fromC, fullC, heatCeilingC });
export const always = { rule: 'all-year' };
export const leaf = (baseC, leafOutCd, dropNights, lastDays) => ({ rule: 'in-leaf', baseC, leafOutCd, dropNights, ...(lastDays && { lastDays }) });
export const stem = (baseC, leafOutCd, dropNights) => ({ rule: 'bare-stem', baseC, leafOutCd, dropNights });
export const cool = (belowC, fullNights) => ({ rule: 'cool-nights', belowC, fullNights });
export const shown = (part, colours, share, rule, spreadDays) => ({ part, colours, share, rule, ...(spreadDays && { spreadDays }) });
export const flower = (colours, share, rule, spreadDays) => shown('flower', colours, share, rule, spreadDays);

const round2 = (x) => +x.toFixed(2);
export const bulbPacks = (price) => [
  { form: 'bag of 10', size: 10, price: round2(price * 11) },
  { form: 'bag of 50', size: 50, price: round2(price * 48) },
  { form: 'crate of 250', size: 250, price: round2(price * 210) },
];
export const fewBulbs = (price) => [
  { form: 'single', size: 1, price: round2(price * 1.1) },
  { form: 'bag of 10', size: 10, price: round2(price * 10) },
];
// Bedding by the cell pack; plugs are small and cheap, a 10 cm pot shows at once.
export const bedding = (price) => [
  { form: '4-pack', size: 4, price: round2(price * 0.74) },
  { form: '6-pack', size: 6, price },
  { form: 'flat of 18', size: 18, price: round2(price * 2.7) },
];
export const plugs = (price) => [...bedding(price), { form: 'tray of 84 plugs', size: 84, price: round2(price * 6.3), spreadCm: 4 }, { form: '10 cm pot', size: 1, price: round2(price * 0.42), spreadCm: 15 }];
export const pot = (form, price) => [{ form, size: 1, price }];
export const pots = (quart, gallon) => [{ form: '1-quart pot', size: 1, price: quart, spreadCm: 16 }, { form: '1-gallon pot', size: 1, price: gallon }];

// What is said of a whole family, so that its members need not repeat it.
const FAMILIES = {
  Amaryllidaceae: { harm: { people: 'poisonous', animals: 'poisonous', skin: 'irritant' }, resistance: { deer: 'seldom', rabbits: 'seldom' } },
  Liliaceae: { harm: { people: 'irritant', animals: 'poisonous', skin: 'irritant' }, resistance: { deer: 'often', rabbits: 'often' } },
  Asparagaceae: { harm: { people: 'irritant', animals: 'irritant', skin: 'irritant' }, resistance: { deer: 'seldom' } },
  Iridaceae: { harm: { people: 'irritant', animals: 'irritant' }, resistance: { rabbits: 'often' } },
};
const GENUS_FAMILY = {
  Galanthus: 'Amaryllidaceae', Leucojum: 'Amaryllidaceae', Narcissus: 'Amaryllidaceae', Allium: 'Amaryllidaceae', Nerine: 'Amaryllidaceae', Ranunculus: 'Ranunculaceae', Ipheion: 'Amaryllidaceae',
  Eranthis: 'Ranunculaceae', Anemone: 'Ranunculaceae', Anemonoides: 'Ranunculaceae', Crocus: 'Iridaceae', Iris: 'Iridaceae', Gladiolus: 'Iridaceae', Crocosmia: 'Iridaceae',
  Scilla: 'Asparagaceae', Muscari: 'Asparagaceae', Hyacinthus: 'Asparagaceae', Puschkinia: 'Asparagaceae', Hyacinthoides: 'Asparagaceae', Camassia: 'Asparagaceae', Ornithogalum: 'Asparagaceae',
  Tulipa: 'Liliaceae', Fritillaria: 'Liliaceae', Lilium: 'Liliaceae', Erythronium: 'Liliaceae', Colchicum: 'Colchicaceae', Canna: 'Cannaceae', Dahlia: 'Asteraceae',
  Caladium: 'Araceae', Colocasia: 'Araceae', Begonia: 'Begoniaceae', Zantedeschia: 'Araceae', Cyclamen: 'Primulaceae', Eucomis: 'Asparagaceae',
};

// Whatever irritates skin says so where it is handled.
const withGloves = (commonName, harm, cautions) =>
  harm.skin === 'irritant' && !cautions.some((c) => /glove/i.test(c)) ? [...cautions, `${commonName.split(',')[0]} irritates skin: gloves.`] : cautions;

/** A bulb. size: [height, diameter, spacing, cold low, cold high]; rule: [base, Θ, days] or a rule of its own. */
export const bulb = (id, botanicalName, commonName, colours, rule, [heightCm, diameterCm, spacingCm, coldWeeksLow, coldWeeksHigh], m) => {
  const family = GENUS_FAMILY[botanicalName.split(/[ ,]/)[0]];
  const known = FAMILIES[family] ?? {};
  const harm = m.harm ?? (m.edible ? {} : known.harm ?? { people: 'irritant', animals: 'irritant' });
  const cautions = m.cautions ?? (m.skin ? [SKIN, POISON] : harm.people === 'poisonous' || harm.animals === 'poisonous' ? [POISON] : []);
  return {
    id, botanicalName, commonName, lifeForm: 'bulb', habit: 'upright', heightCm: m.height, spreadAtPurchaseCm: m.young ?? m.spread, matureSpreadCm: m.spread,
    growthPerDegreeDay: m.growth ?? 0, growthBaseC: m.base ?? 10,
    lightLow: m.lightLow ?? PART, lightHigh: m.lightHigh ?? FULL, water: m.water ?? 'medium', topDamageC: m.tops ?? -25, rootKillingC: m.roots ?? -9, green: m.green ?? 'around-flower',
    windows: m.windows ?? [{ part: 'flower', colours, share: m.share ?? 0.65, rule, spreadDays: 5 }],
    bulb: { heightCm, diameterCm, spacingCm, coldWeeksLow, coldWeeksHigh, grades: m.grades ?? [] },
    packs: (m.few ? fewBulbs : bulbPacks)(m.price), cautions: withGloves(commonName, harm, cautions), source: SOURCE,
    family, texture: m.texture ?? 'medium', vigour: m.vigour ?? 'moderate',
    roots: { medium: m.medium ?? 'any', phLow: m.ph?.[0] ?? 6, phHigh: m.ph?.[1] ?? 7.5, ...(m.heatCeiling && { heatCeilingC: m.heatCeiling }), drySummerRest: m.dry ?? false },
    resistance: { ...known.resistance, ...m.resistance }, harm, pollinators: m.bees ?? 'low', returnByYear: m.returns ?? [], localStatus: m.status ?? '',
    tending: { cutting: m.cut ?? 'Take off spent flowers; leave the leaves until brown.', hiddenBy: m.hiddenBy ?? 'bedding or leafy perennials in front', ...m.tending },
  };
};

/** Any other plant. size: [height, spread bought, spread grown, growth]; site: [light low, light high, water, tops °C, green]. */
export const plant = (id, botanicalName, commonName, lifeForm, habit, [heightCm, spreadAtPurchaseCm, matureSpreadCm, growthPerDegreeDay], [lightLow, lightHigh, water, topDamageC, green], windows, packs, m = {}) => ({
  id, botanicalName, commonName, lifeForm, habit, heightCm, spreadAtPurchaseCm, matureSpreadCm, growthPerDegreeDay, growthBaseC: m.base ?? 10,
  lightLow, lightHigh, water, topDamageC, ...(m.roots !== undefined && { rootKillingC: m.roots }), green, windows, packs, cautions: withGloves(commonName, m.harm ?? {}, m.cautions ?? []), source: SOURCE,
  family: m.family ?? '', texture: m.texture ?? 'medium', vigour: m.vigour ?? 'moderate',
  roots: { medium: m.medium ?? 'any', phLow: m.ph?.[0] ?? 5.5, phHigh: m.ph?.[1] ?? 7.5, ...(m.heatCeiling && { heatCeilingC: m.heatCeiling }), drySummerRest: false },
  resistance: m.resistance ?? {}, harm: m.harm ?? {}, pollinators: m.bees ?? 'low', returnByYear: m.returns ?? [], localStatus: m.status ?? '',
  tending: { cutting: m.cut ?? '', ...(m.flush && { flushAfterDays: m.flush[0], flushDays: m.flush[1] }), hiddenBy: m.hiddenBy ?? '', partner: m.partner ?? '' },
});

/** Several colours of one kind: each [id ending, colour in words, colours]. */
export const inColours = (make, rows) => rows.map(([ending, words, colours]) => make(ending, words, colours));
export const POISONOUS = { people: 'poisonous', animals: 'poisonous' };
export const IRRITANT = { people: 'irritant', animals: 'irritant' };
export const toxic = (name) => [`${name} is poisonous if eaten: keep from dogs and children.`];
export const sap = (name) => [`${name} sap irritates skin: gloves.`];

// The palette that ships with the app: species, groups and divisions in plain colours, from memory of general handbooks.
import { bulbs } from './palette/bulbs.mjs';
import { annuals } from './palette/annuals.mjs';
import { herbs } from './palette/perennials.mjs';
import { woody } from './palette/woody.mjs';
import { stems } from './palette/stems.mjs';

// Months in which growers sell a plant fit to set out, as in the north (common practice); all year where nothing is said.
const FALL = [8, 9, 10, 11], WINTER = [9, 10, 11, 12, 1, 2], TWICE = [2, 3, 4, 5, 8, 9, 10, 11], SUMMER = [4, 5, 6, 7, 8];
const sold = (p) => {
  if (p.lifeForm === 'bulb') return p.topDamageC > -1 ? [2, 3, 4, 5] : [8, 9, 10, 11, 12];
  if (p.lifeForm === 'cut-stems') return WINTER;
  if (/^florist-cyclamen/.test(p.id)) return [...FALL, 12];
  if (/^(ornamental-pepper|millet|foxtail|amaranth|celosia)/.test(p.id)) return [...SUMMER, 8, 9, 10].filter((m, i, all) => all.indexOf(m) === i);
  if (p.lifeForm === 'tender-annual') return SUMMER;
  if (/^(chrysanthemum|aster|cabbage|kale)/.test(p.id)) return FALL;
  return ['cool-season-annual', 'biennial'].includes(p.lifeForm) ? TWICE : undefined;
};
export const palette = [...bulbs, ...annuals, ...herbs, ...woody, ...stems].map((p) => (sold(p) ? { ...p, soldMonths: sold(p) } : p));

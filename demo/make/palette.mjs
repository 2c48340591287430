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
// What the words on cutting come to: whether spent flowers are taken off, when it is cut, and what share of it is left.
const cuts = (p) => {
  const said = p.tending?.cutting ?? '';
  const deadhead = /spent (flowers|heads|spikes)|Twist off|Break off|Snap off|Pinch out flower|Take out flowers/.test(said) && !/^Shear/.test(said);
  const [cutWhen, left] =
    p.lifeForm === 'cut-stems' || p.lifeForm === 'bulb' || /Leave the seed heads/.test(said) ? ['none']
    : p.lifeForm === 'grass' ? ['early-spring', 10 / p.heightCm]
    : /mid-summer/.test(said) ? ['mid-summer', /hard/.test(said) ? 0.33 : /half/.test(said) ? 0.5 : 0.7]
    : /stalls|in heat|leggy|browns|thins|flops|sprawls|each flush|runners|Shear the edges|low carpet|never let it dry|spent spikes\.$|first flowers/.test(said) && p.lifeForm !== 'shrub'
      ? ['when-tired', /third/.test(said) ? 0.67 : 0.5]
    : /uncurl|early spring|in spring|late winter|buds rise|flowers rise|until spring/.test(said)
      ? ['early-spring', /to 15 cm|stub|Cut old|old fronds|hard/.test(said) ? 0.15 : /third/.test(said) ? 0.67 : 0.5]
    : /Pinch (for|tips|by)/.test(said) ? ['when-young', 0.67]
    : /after flowering|Shear the spent|to a strong bud|red fades|After flowering/.test(said) ? ['after-flowering', /ground|to the leaves/.test(said) ? 0.2 : 0.67]
    : ['none'];
  return { ...(deadhead && { deadhead }), ...(cutWhen !== 'none' && { cutWhen, cutLeaves: Math.max(0.05, Math.round(left * 100) / 100) }) };
};
const tended = (p) => (Object.keys(cuts(p)).length ? { ...p, tending: { ...p.tending, ...cuts(p) } } : p);
export const palette = [...bulbs, ...annuals, ...herbs, ...woody, ...stems].map((p) => tended(sold(p) ? { ...p, soldMonths: sold(p) } : p));

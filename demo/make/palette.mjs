// The palette that ships with the app: species, groups and divisions in plain colours, from memory of general handbooks.
import { bulbs } from './palette/bulbs.mjs';
import { annuals } from './palette/annuals.mjs';
import { herbs } from './palette/perennials.mjs';
import { woody } from './palette/woody.mjs';

export const palette = [...bulbs, ...annuals, ...herbs, ...woody];

// Colours converted and compared here against an independent library, on ten thousand random colours.
import { execFileSync } from 'node:child_process';
import { resolve } from 'node:path';
import { converter, differenceCiede2000 } from 'culori';
import { expect, test } from '@playwright/test';

const PAIRS = 5000;
const reckon = resolve('../../artifacts/bin/Reckon/release_linux-x64/UnrulyMeadow.Reckon.dll');

// A small generator with a seed, so that every run asks the same.
const random = (seed) => () => {
  seed = (Math.imul(seed ^ (seed >>> 15), 0x2c1b3c6d) + 0x9e3779b9) | 0;
  return ((seed ^ (seed >>> 13)) >>> 0) / 2 ** 32;
};

test('ten thousand colours have the L*a*b* and the differences that another library gives', () => {
  const next = random(20261125);
  const hex = () => `#${Math.floor(next() * 0x1000000).toString(16).padStart(6, '0')}`;
  const pairs = Array.from({ length: PAIRS }, () => [hex(), hex()]);
  const answer = JSON.parse(execFileSync('dotnet', [reckon, 'colour-difference', '-'], { input: JSON.stringify({ pairs }), maxBuffer: 64 * 1024 * 1024 }).toString());
  // Their L*a*b* stands under D65 as ours does.
  const lab = converter('lab65');
  const difference = differenceCiede2000();
  let furthest = 0;
  let worst = 0;
  answer.pairs.forEach((found, i) => {
    pairs[i].forEach((colour, k) => {
      const { l, a, b } = lab(colour);
      const [fl, fa, fb] = k === 0 ? found.labOne : found.labOther;
      furthest = Math.max(furthest, Math.abs(l - fl), Math.abs(a - fa), Math.abs(b - fb));
    });
    const [one, other] = [found.labOne, found.labOther].map(([l, a, b]) => ({ mode: 'lab65', l, a, b }));
    worst = Math.max(worst, Math.abs(difference(one, other) - found.difference));
  });
  expect(answer.pairs).toHaveLength(PAIRS);
  expect(furthest).toBeLessThan(1e-6);
  expect(worst).toBeLessThan(1e-6);
});

// A plan of a thousand planters, or of as many as are asked for, from the demo's: node bench/thousand.mjs [5000] > thousand.plan.json
import { readFileSync } from 'node:fs';

const plan = JSON.parse(readFileSync(new URL('../demo/kittiwake-quay.plan.json', import.meta.url)));
const pots = plan.planters.filter((p) => !p.form.shape.endsWith('bed'));
const planters = [];
const displays = [];
for (let i = 0; i < Number(process.argv[2] ?? 1000); i++) {
  const from = pots[i % pots.length];
  const id = `p${i}`;
  planters.push({ ...from, id, name: `Planter ${i}`, place: { eastM: -30 + (i % 40) * 3, northM: -5 + Math.floor(i / 40) * 2.5, turnDeg: 0 } });
  for (const d of plan.displays.filter((x) => x.planterId === from.id)) displays.push({ ...d, id: `${d.id}-${i}`, planterId: id });
}
process.stdout.write(JSON.stringify({ ...plan, planters, displays, lots: [] }));

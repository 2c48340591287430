// Suppliers, offers, the holding area, materials and budgets of the demo, all invented. Writes ../kittiwake-quay.supply.json.
import { readFileSync, writeFileSync } from 'node:fs';

const plan = JSON.parse(readFileSync(new URL('../kittiwake-quay.plan.json', import.meta.url), 'utf8'));

const suppliers = [
  {
    id: 'quillon-bulbs',
    name: 'Quillon Bulbs',
    leastGoods: 75,
    deliveryCharge: 25,
    freeDeliveryFrom: 400,
    discounts: [{ kind: 'offForEvery', every: 100, each: 6, most: 60 }],
    paymentDays: 30,
    note: 'Delivers in September and October.',
  },
  {
    id: 'windlebrook-growers',
    name: 'Windlebrook Growers',
    leastGoods: 100,
    deliveryCharge: 40,
    freeDeliveryFrom: 600,
    discounts: [
      { kind: 'shareFrom', from: 400, share: 0.05 },
      { kind: 'shareFrom', from: 900, share: 0.08 },
    ],
    paymentDays: 30,
    note: 'Grows plugs to order: say so sixteen weeks ahead.',
  },
  { id: 'saltmarsh-plants', name: 'Saltmarsh Plants', leastGoods: 0, deliveryCharge: 18, discounts: [], paymentDays: 14, note: 'Small lots at short notice.' },
];

const wanted = new Set([
  ...plan.displays.flatMap((d) => d.items.map((i) => i.plantId)),
  ...plan.recipes.flatMap((r) => r.lines ?? r.items ?? []).map((l) => l.plantId),
]);
const kinds = plan.palette.filter((p) => wanted.has(p.id)).sort((a, b) => (a.id < b.id ? -1 : 1));

// The same kind costs a little more here and a little less there; always the same.
const varied = (text) => {
  let h = 7;
  for (const c of text) h = (h * 31 + c.codePointAt(0)) % 1009;
  return h / 1009;
};
const cents = (price) => Math.round(price * 100) / 100;

const offers = [];
for (const plant of kinds) {
  for (const pack of plant.packs) {
    const isBulb = Boolean(plant.bulb);
    const isPlugs = pack.form.includes('plug');
    for (const s of suppliers) {
      const share = varied(`${s.id} ${plant.id}`);
      const sells = {
        'quillon-bulbs': isBulb,
        'windlebrook-growers': !isBulb && (share < 0.8 || isPlugs),
        'saltmarsh-plants': !isPlugs && pack.size < 100 && share < 0.85,
      }[s.id];
      if (!sells) continue;
      const dear = { 'quillon-bulbs': 0.88, 'windlebrook-growers': 0.9, 'saltmarsh-plants': 1.08 }[s.id];
      const price = cents(pack.price * (dear + 0.14 * share));
      const steps = [{ fromPacks: 1, price }];
      if (s.id === 'windlebrook-growers' && pack.size > 1 && !isPlugs) steps.push({ fromPacks: 10, price: cents(price * 0.94) });
      offers.push({
        supplierId: s.id,
        plantId: plant.id,
        form: pack.form,
        packSize: pack.size,
        steps,
        leadDays: { 'quillon-bulbs': 21, 'windlebrook-growers': isPlugs ? 112 : 21, 'saltmarsh-plants': 5 }[s.id],
        ...(s.id === 'quillon-bulbs' ? { months: [9, 10, 11] } : {}),
        isContract: isPlugs,
      });
    }
  }
}
offers.sort((a, b) => (a.supplierId < b.supplierId ? -1 : a.supplierId > b.supplierId ? 1 : 0));

const places = [
  { id: 'bulb-store', name: 'Bulb store', kind: 'store', roomM2: 10 },
  { id: 'cold-frame-2', name: 'Cold frame 2', kind: 'cold-frame', roomM2: 8 },
  { id: 'glasshouse', name: 'Glasshouse', kind: 'frost-free', roomM2: 14 },
  { id: 'quarantine-bay', name: 'Quarantine bay', kind: 'quarantine', roomM2: 3 },
  { id: 'yard-bench', name: 'Yard bench', kind: 'bench', roomM2: 22 },
];

const stock = [
  [{ id: 'medium', name: 'Planting medium', kind: 'medium', packSize: 60, packPrice: 18, reorderAt: 300, leadDays: 10 }, 420],
  [{ id: 'acid-medium', name: 'Acid medium', kind: 'acid-medium', packSize: 50, packPrice: 21, reorderAt: 50, leadDays: 10 }, 100],
  [{ id: 'feed', name: 'Slow feed and bulb food', kind: 'feed', packSize: 10000, packPrice: 46, reorderAt: 2000, leadDays: 7 }, 6000],
  [{ id: 'mulch', name: 'Bark mulch', kind: 'mulch', packSize: 70, packPrice: 9, reorderAt: 140, leadDays: 7 }, 350],
  [{ id: 'pins', name: 'Fabric pins', kind: 'pins', packSize: 100, packPrice: 12, reorderAt: 100, leadDays: 7 }, 260],
  [{ id: 'labels', name: 'Labels', kind: 'labels', packSize: 50, packPrice: 6, reorderAt: 50, leadDays: 7 }, 40],
];

// Last autumn's bulbs: ordered in June, one box refused, credited, done with. And what is on its way for February.
const turn = (id) => plan.turns.find((t) => t.id === id);
const bulbsOf = (t) => {
  const counts = new Map();
  for (const d of plan.displays.filter((x) => x.install >= t.firstDay && x.install <= t.lastDay)) {
    for (const i of d.items.filter((x) => plan.palette.find((p) => p.id === x.plantId).bulb)) counts.set(i.plantId, (counts.get(i.plantId) ?? 0) + i.count);
  }
  return [...counts].sort(([a], [b]) => (a < b ? -1 : 1));
};
const order = (number, id, supplierId, t, stage, sentOn, note, most = Infinity) => ({
  id,
  supplier: suppliers.find((s) => s.id === supplierId),
  lines: bulbsOf(t)
    .slice(0, most)
    .map(([plantId, count], i) => {
      const [offer] = offers.filter((o) => o.supplierId === supplierId && o.plantId === plantId && o.packSize <= Math.max(10, count)).sort((a, b) => b.packSize - a.packSize);
      const packs = Math.ceil((count * 1.05) / offer.packSize);
      return {
        number: i + 1,
        plantId,
        name: plan.palette.find((p) => p.id === plantId).commonName,
        form: offer.form,
        packSize: offer.packSize,
        packs,
        packPrice: offer.steps[0].price,
        by: t.delivery ?? t.firstDay,
        turnId: t.id,
        wanted: Math.ceil(count * 1.05),
      };
    }),
  number,
  stage,
  sentOn,
  note,
});
const autumn = { ...order(1, '019a0000-0000-7000-8000-0000000000a1', 'quillon-bulbs', turn('bulbs-2026'), 'closed', '2026-06-22', 'Deliver to the yard gate before ten.'), paidOn: '2026-11-06' };
const goods = autumn.lines.reduce((sum, l) => sum + l.packs * l.packPrice, 0);
autumn.paid = cents(goods - Math.min(60, 6 * Math.floor(goods / 100)) + (goods >= 400 ? 0 : 25));
const soft = autumn.lines.at(-1);
const share = (goods - Math.min(60, 6 * Math.floor(goods / 100))) / goods;
const credit = cents((soft.packPrice / soft.packSize) * share * soft.packSize);

const document = {
  suppliers,
  offers,
  orders: [
    autumn,
    order(2, '019a0000-0000-7000-8000-0000000000a2', 'saltmarsh-plants', turn('late-bulbs-2027'), 'sent', '2026-11-20', 'From the cold store.', 1),
  ],
  receipts: [
    {
      it: {
        id: '019a0000-0000-7000-8000-0000000000b1',
        orderId: autumn.id,
        day: '2026-10-12',
        place: 'Bulb store',
        lines: autumn.lines.map((l) => {
          const arrived = l.packs * l.packSize;
          return l === soft
            ? { line: l.number, arrived, accepted: arrived - l.packSize, reason: 'soft-bulbs', note: 'One bag mouldy at the neck.' }
            : { line: l.number, arrived, accepted: arrived };
        }),
      },
      by: 'Oona Brack',
      recordedAt: '2026-10-12T13:40:00Z',
    },
  ],
  claims: [
    {
      id: '019a0000-0000-7000-8000-0000000000c1',
      orderId: autumn.id,
      line: soft.number,
      plants: soft.packSize,
      reason: 'soft-bulbs',
      day: '2026-10-12',
      amount: credit,
      settledOn: '2026-10-30',
      settled: credit,
    },
  ],
  places,
  materials: stock.map(([m]) => m),
  materialMovements: stock.map(([m, amount], i) => ({
    id: `019a0000-0000-7000-8000-00000000000${i + 1}`,
    materialId: m.id,
    day: '2026-09-01',
    change: amount,
    kind: 'counted',
  })),
  budgets: [
    { id: '019a0000-0000-7000-8000-000000000101', year: 2026, amount: 6500 },
    { id: '019a0000-0000-7000-8000-000000000102', year: 2026, turnId: 'summer-2027', amount: 2400 },
  ],
};
writeFileSync(new URL('../kittiwake-quay.supply.json', import.meta.url), `${JSON.stringify(document, null, 1)}\n`);

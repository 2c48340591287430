// Looks for dense packings of n unit discs in a circle and writes the best found to src/Core/Packing/packings.txt, one line for
// each n: "n x y x y …", millionths of a disc's radius. What stands there is replaced only by what is tighter.
// node bench/packings.mjs FROM TO SECONDS [FILE]: search each n from FROM to TO for so long (a random search: run it again for more).
import { existsSync, readFileSync, writeFileSync } from 'node:fs';

const [from, to, seconds, file = 'src/Core/Packing/packings.txt'] = process.argv.slice(2).map((a, i) => (i < 3 ? Number(a) : a));
const known = new Map();
if (existsSync(file)) {
  for (const line of readFileSync(file, 'utf8').split('\n').filter(Boolean)) {
    const [n, ...xy] = line.split(' ').map(Number);
    known.set(n, xy.map(v => v / 1e6));
  }
}

let seed = Date.now() % 2147483647;
const random = () => (seed = (seed * 48271) % 2147483647) / 2147483647;

// Radius of the circle that holds the places' discs once the nearest two just touch.
function radius(p) {
  let nearest = Infinity, reach = 0;
  for (let i = 0; i < p.length; i += 2) {
    reach = Math.max(reach, Math.hypot(p[i], p[i + 1]));
    for (let k = i + 2; k < p.length; k += 2) nearest = Math.min(nearest, Math.hypot(p[i] - p[k], p[i + 1] - p[k + 1]));
  }
  return p.length === 2 ? 1 : 1 + (2 * reach) / nearest;
}

// Energy of overlaps and of the circle's own size, with its gradient; the last variable is the reach.
function energy(v, g, weight) {
  const m = v.length - 1, r = v[m];
  let e = weight * r;
  g.fill(0);
  g[m] = weight;
  for (let i = 0; i < m; i += 2) {
    const xi = v[i], yi = v[i + 1], d = Math.sqrt(xi * xi + yi * yi), out = d - r;
    if (out > 0) {
      e += out * out;
      const c = (2 * out) / d;
      g[i] += c * xi; g[i + 1] += c * yi; g[m] -= 2 * out;
    }
    for (let k = i + 2; k < m; k += 2) {
      const dx = xi - v[k];
      if (dx > 2 || dx < -2) continue;
      const dy = yi - v[k + 1], s = dx * dx + dy * dy;
      if (s >= 4) continue;
      const q = Math.sqrt(s) + 1e-12, over = 2 - q, c = (-2 * over) / q;
      e += over * over;
      g[i] += c * dx; g[i + 1] += c * dy; g[k] -= c * dx; g[k + 1] -= c * dy;
    }
  }
  return e;
}

// Limited-memory BFGS with a halving line search.
function minimise(v, weight, steps, still) {
  const n = v.length, M = 8, S = [], Y = [], rho = [];
  let g = new Float64Array(n), ng = new Float64Array(n), e = energy(v, g, weight), nv = new Float64Array(n);
  const d = new Float64Array(n), a = new Float64Array(M);
  for (let it = 0; it < steps; it++) {
    for (let i = 0; i < n; i++) d[i] = -g[i];
    for (let j = S.length - 1; j >= 0; j--) { let t = 0; for (let i = 0; i < n; i++) t += S[j][i] * d[i]; a[j] = rho[j] * t; for (let i = 0; i < n; i++) d[i] -= a[j] * Y[j][i]; }
    if (S.length) { const j = S.length - 1; let y2 = 0; for (let i = 0; i < n; i++) y2 += Y[j][i] * Y[j][i]; const h = 1 / (rho[j] * y2); for (let i = 0; i < n; i++) d[i] *= h; } else for (let i = 0; i < n; i++) d[i] *= 0.3;
    for (let j = 0; j < S.length; j++) { let t = 0; for (let i = 0; i < n; i++) t += Y[j][i] * d[i]; const b = rho[j] * t; for (let i = 0; i < n; i++) d[i] += (a[j] - b) * S[j][i]; }
    let slope = 0, longest = 0;
    for (let i = 0; i < n; i++) { slope += d[i] * g[i]; longest = Math.max(longest, Math.abs(d[i])); }
    if (slope >= 0) { if (!S.length) break; S.length = Y.length = rho.length = 0; continue; }
    let t = longest > 0.5 ? 0.5 / longest : 1, ne = Infinity;
    for (let h = 0; h < 25; h++, t /= 2) {
      for (let i = 0; i < n; i++) nv[i] = v[i] + t * d[i];
      ne = energy(nv, ng, weight);
      if (ne <= e + 1e-4 * t * slope) break;
    }
    if (!(ne < e)) { if (!S.length) break; S.length = Y.length = rho.length = 0; continue; }
    const s = new Float64Array(n), y = new Float64Array(n);
    let sy = 0;
    for (let i = 0; i < n; i++) { s[i] = nv[i] - v[i]; y[i] = ng[i] - g[i]; sy += s[i] * y[i]; }
    if (sy > 1e-20) { S.push(s); Y.push(y); rho.push(1 / sy); if (S.length > M) { S.shift(); Y.shift(); rho.shift(); } }
    const gain = e - ne;
    [v, nv] = [nv, v]; [g, ng] = [ng, g]; e = ne;
    if (gain < still * Math.abs(e)) break;
  }
  return v;
}

function settle(p, fine) {
  let v = Float64Array.from([...p, Math.max(...Array.from({ length: p.length / 2 }, (_, i) => Math.hypot(p[2 * i], p[2 * i + 1])))]);
  for (const weight of fine ? [1e-4, 1e-5, 1e-6, 1e-7, 1e-8, 1e-9, 1e-10] : [0.1, 0.01, 1e-3, 1e-4]) v = minimise(v, weight, fine ? 3000 : 400, fine ? 1e-13 : 1e-7);
  return Array.from(v.subarray(0, v.length - 1));
}

// Beginnings: at random, a piece of a triangular lattice, rings, the neighbour with a disc more or less.
function beginning(n, guess) {
  const kind = random(), reach = guess - 1, p = [];
  if (kind < 0.3) for (let i = 0; i < n; i++) { const r = reach * Math.sqrt(random()), t = 2 * Math.PI * random(); p.push(r * Math.cos(t), r * Math.sin(t)); }
  else if (kind < 0.6) {
    const all = [], ox = 2 * random(), oy = 2 * random(), pitch = 2 * (0.97 + 0.06 * random());
    for (let a = -20; a <= 20; a++) for (let b = -20; b <= 20; b++) all.push([ox + pitch * (a + b / 2), oy + pitch * b * Math.sqrt(3) / 2]);
    all.sort((u, w) => Math.hypot(...u) - Math.hypot(...w));
    for (const q of all.slice(0, n)) p.push(q[0] + 0.02 * random(), q[1] + 0.02 * random());
  } else if (kind < 0.8) {
    let left = n;
    for (let r = reach; left > 0; r -= 2 * (0.9 + 0.15 * random())) {
      const here = r < 1 ? left : Math.min(left, Math.floor(Math.PI / Math.asin(Math.min(1, 1 / r))) - (random() < 0.4 ? 1 : 0)), turn = 7 * random();
      for (let i = 0; i < here; i++) p.push(Math.max(r, 0.3) * Math.cos(turn + (2 * Math.PI * i) / here), Math.max(r, 0.3) * Math.sin(turn + (2 * Math.PI * i) / here));
      left -= here;
    }
  } else {
    const more = known.get(n + 1), less = known.get(n - 1);
    if (more && random() < 0.5) { p.push(...more); p.splice(2 * Math.floor(random() * (n + 1)), 2); }
    else if (less) { const r = reach * Math.sqrt(random()), t = 2 * Math.PI * random(); p.push(...less, r * Math.cos(t), r * Math.sin(t)); }
    else return beginning(n, guess);
  }
  return p;
}

function shaken(p, guess) {
  const q = p.slice(), n = p.length / 2, kind = random();
  if (kind < 0.6) {
    const moved = 1 + Math.floor(random() * 3);
    for (let m = 0; m < moved; m++) { const i = 2 * Math.floor(random() * n), r = (guess - 1) * Math.sqrt(random()), t = 2 * Math.PI * random(); q[i] = r * Math.cos(t); q[i + 1] = r * Math.sin(t); }
  } else { const w = 0.2 + random(); for (let i = 0; i < q.length; i++) q[i] += w * (random() - 0.5); }
  return q;
}

// A packing of one disc more with one taken out is never looser than it.
function tighten() {
  for (let n = Math.max(...known.keys()) - 1; n > 1; n--) {
    const more = known.get(n + 1);
    if (!more || (known.has(n) && radius(known.get(n)) <= radius(more))) continue;
    const outermost = Array.from({ length: n + 1 }, (_, i) => i).reduce((a, b) => (Math.hypot(more[2 * b], more[2 * b + 1]) > Math.hypot(more[2 * a], more[2 * a + 1]) ? b : a));
    known.set(n, more.filter((_, i) => i >> 1 !== outermost));
  }
}

function save() {
  tighten();
  writeFileSync(file, [...known].sort((a, b) => a[0] - b[0]).map(([n, p]) => `${n} ${p.map(v => Math.round(v * 1e6)).join(' ')}`).join('\n') + '\n');
}

for (let n = from; n <= to; n++) {
  const until = Date.now() + 1000 * seconds, before = known.has(n) ? radius(known.get(n)) : Infinity;
  let best = known.get(n), least = before, now = best, at = least, stuck = 0;
  const guess = 1 + Math.sqrt(n / 0.8);
  if (best && n > 1) {
    const fine = settle(best, true), f = radius(fine);
    if (f < least) [best, least, now, at] = [fine, f, fine, f];
  }
  while (Date.now() < until) {
    const begin = now && stuck < 25 ? shaken(now, guess) : beginning(n, guess);
    if (stuck >= 25) { stuck = 0; now = undefined; at = Infinity; }
    const p = settle(begin, false), r = radius(p);
    if (r < at * (1 + 2e-4) || !now) { if (r < at - 1e-5) stuck = 0; else stuck++; now = p; at = Math.min(r, at); } else stuck++;
    if (r < least * 1.003) {
      const fine = settle(p, true), f = radius(fine);
      if (f < least - 1e-7) { [best, least] = [fine, f]; now = fine; at = f; stuck = 0; }
    }
  }
  // As rounded for the file, scaled so that its nearest two touch.
  const scale = best.length === 2 ? 1 : (least - 1) / Math.max(...Array.from({ length: n }, (_, i) => Math.hypot(best[2 * i], best[2 * i + 1])));
  if (least < before - 1e-7) { known.set(n, best.map(v => v * scale)); save(); }
  console.log(n, least.toFixed(4), before === Infinity ? 'new' : (before - least).toExponential(1));
}

// Makes the demo's invented weather record: node demo/make/weather.mjs > demo/kittiwake-quay.dly
// A seeded first-order autoregressive walk about harmonic means, with two-state rain. It imitates no real place.
let state = 20260901;
const uniform = () => {
  state = (state + 0x6d2b79f5) | 0;
  let t = Math.imul(state ^ (state >>> 15), 1 | state);
  t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
  return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
};
const normal = () => Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform());

const station = 'KTQ00000001';
const wave = (mean, amplitude, day) => mean - amplitude * Math.cos((2 * Math.PI * (day - 26)) / 365.25);
const lines = [];
let warm = 0, spread = 0, wet = false;
for (let year = 1995; year <= 2025; year++) {
  const shift = 0.6 * normal();
  for (let month = 1; month <= 12; month++) {
    const days = new Date(Date.UTC(year, month, 0)).getUTCDate();
    const values = { TMAX: [], TMIN: [], PRCP: [] };
    for (let day = 1; day <= 31; day++) {
      if (day > days) {
        for (const v of Object.values(values)) v.push('-9999   ');
        continue;
      }
      const n = (Date.UTC(year, month - 1, day) - Date.UTC(year, 0, 1)) / 864e5 + 1;
      const winter = (1 + Math.cos((2 * Math.PI * (n - 26)) / 365.25)) / 2;
      wet = uniform() < (wet ? 0.55 : 0.22 + 0.08 * winter);
      warm = 0.68 * warm + Math.sqrt(1 - 0.68 ** 2) * normal();
      spread = 0.35 * spread + Math.sqrt(1 - 0.35 ** 2) * normal();
      const sd = 2.4 + 1.5 * winter;
      const mean = (wave(14.4, 8.4, n) + wave(6.9, 7.4, n)) / 2 + shift + sd * warm;
      const half = Math.max(0.8, (wave(14.4, 8.4, n) - wave(6.9, 7.4, n)) / 2 + (wet ? -0.9 : 0.4) + 0.9 * spread);
      const rain = wet ? -7 * Math.log(1 - uniform()) : 0;
      const gone = (year === 2003 && month === 6 && day <= 18) || uniform() < 0.0004;
      const flag = uniform() < 0.0002 ? 'I' : ' ';
      const cell = (v, q = ' ') => `${String(Math.round(v * 10)).padStart(5)} ${q} `;
      values.TMAX.push(gone ? '-9999   ' : cell(mean + half, flag));
      values.TMIN.push(gone ? '-9999   ' : cell(mean - half));
      values.PRCP.push(gone ? '-9999   ' : cell(rain));
    }
    for (const [element, v] of Object.entries(values)) {
      lines.push(`${station}${year}${String(month).padStart(2, '0')}${element}${v.join('')}`);
    }
  }
}
process.stdout.write(lines.join('\n') + '\n');

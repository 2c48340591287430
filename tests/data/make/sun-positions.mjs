// Makes sun-positions.csv: 500 random places and times with the sun's place by two libraries, astronomy-engine (MIT) and
// suncalc (BSD-2-Clause): npm install astronomy-engine@2.1.19 suncalc@1.9.0, then node sun-positions.mjs > sun-positions.csv
// Degrees; azimuth clockwise from north; no refraction.
import * as Astronomy from 'astronomy-engine';
import SunCalc from 'suncalc';

let state = 56;
const uniform = () => {
  state = (state + 0x6d2b79f5) | 0;
  let t = Math.imul(state ^ (state >>> 15), 1 | state);
  t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
  return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
};
console.log('time,latitude,longitude,altitude,azimuth,suncalcAltitude,suncalcAzimuth');
for (let i = 0; i < 500; i++) {
  const time = new Date(Date.UTC(2000, 0, 1) + Math.floor(uniform() * 50 * 365.25 * 1440) * 60000);
  const latitude = Math.round((uniform() * 170 - 85) * 100) / 100;
  const longitude = Math.round((uniform() * 360 - 180) * 100) / 100;
  const observer = new Astronomy.Observer(latitude, longitude, 0);
  const equator = Astronomy.Equator(Astronomy.Body.Sun, time, observer, true, true);
  const horizon = Astronomy.Horizon(time, observer, equator.ra, equator.dec);
  const other = SunCalc.getPosition(time, latitude, longitude);
  console.log([time.toISOString().slice(0, 16) + 'Z', latitude, longitude, horizon.altitude.toFixed(3), horizon.azimuth.toFixed(3),
    (other.altitude * 180 / Math.PI).toFixed(3), ((other.azimuth * 180 / Math.PI + 180) % 360).toFixed(3)].join(','));
}

// The map of the grounds: moved and zoomed by mouse, touch and keys, painted anew for every day of the red thread, and
// drawn upon. Planters keep a smallest size on the screen so that they can be seen and hit. While it moves, the picture
// already drawn is shifted and stretched as a whole, which costs the same at ten planters and at a thousand; it is drawn
// sharp again once it rests.
import { siteAddress } from './site-address.js';
const LEAST_PX = 9;
const REST_MS = 140;
const FURTHEST = 2;
const DAY_MS = 864e5;
const SHOWING = ['is-colour', 'is-green', 'is-bare'];
const WORDS = ['in colour', 'green only', 'bare'];

class GroundsMap {
  constructor(root) {
    this.root = root;
    this.svg = root.querySelector('[data-grounds-map]');
    this.frame = this.svg.parentElement;
    const box = this.svg.viewBox.baseVal;
    this.all = { x: box.x, y: box.y, w: box.width, h: box.height };
    this.view = { ...this.all };
    this.planters = [...this.svg.querySelectorAll('[data-planter]')].map((link) => ({
      link,
      id: link.dataset.planter,
      name: link.dataset.name,
      size: Number(link.dataset.size),
      body: link.querySelector('.body'),
      outline: link.querySelector('.soil').getAttribute('d'),
      tints: [...link.querySelectorAll('.tint')],
      title: link.querySelector('title'),
      at: link.transform.baseVal[0].matrix,
      look: -1,
    }));
    this.said = root.querySelector('[data-map-said]');
    this.listen();
    this.show();
    this.load();
  }

  metresPerPixel(view = this.view) {
    return Math.max(view.w / this.frame.clientWidth, view.h / this.frame.clientHeight);
  }

  /** Shows the view by moving the picture that is there; a picture that would be stretched too far is drawn anew. */
  glide() {
    const was = this.metresPerPixel(this.drawn);
    const now = this.metresPerPixel();
    const k = was / now;
    const dx = (this.drawn.x + this.drawn.w / 2 - this.view.x - this.view.w / 2) / now;
    const dy = (this.drawn.y + this.drawn.h / 2 - this.view.y - this.view.h / 2) / now;
    clearTimeout(this.resting);
    if (k > FURTHEST || k < 1 / FURTHEST || Math.abs(dx) > this.frame.clientWidth / 2 || Math.abs(dy) > this.frame.clientHeight / 2) {
      this.show();
      return;
    }
    this.svg.style.transform = `translate(${dx.toFixed(1)}px, ${dy.toFixed(1)}px) scale(${k.toFixed(4)})`;
    this.scaleBar(now);
    this.resting = setTimeout(() => this.show(), REST_MS);
  }

  show() {
    clearTimeout(this.resting);
    const { x, y, w, h } = this.view;
    this.drawn = { ...this.view };
    this.svg.style.transform = '';
    this.svg.setAttribute('viewBox', `${x} ${y} ${w} ${h}`);
    const scale = this.metresPerPixel();
    for (const p of this.planters) {
      const grow = Math.max(1, (LEAST_PX * scale) / p.size);
      if (grow !== p.grow) p.body.setAttribute('transform', `scale(${grow.toFixed(3)})`);
      p.grow = grow;
    }
    for (const text of this.svg.querySelectorAll('[data-map-text]')) text.setAttribute('font-size', (12 * scale).toFixed(3));
    this.scaleBar(scale);
    this.paperBar();
  }

  scaleBar(scale) {
    const unit = Number(this.root.dataset.metresPerUnit);
    const round = this.round((120 * scale) / unit);
    this.root.querySelector('[data-scale-line]').style.width = `${((round * unit) / scale).toFixed(1)}px`;
    this.root.querySelector('[data-scale-text]').textContent = `${round} ${this.root.dataset.unit}`;
  }

  round(most) {
    const power = 10 ** Math.floor(Math.log10(most));
    return [5, 2, 1].map((k) => k * power).find((k) => k <= most) ?? power;
  }

  /** Paper has a bar within the map itself, as its scale is known only to the printer. */
  paperBar() {
    const bar = this.svg.querySelector('[data-map-scale]');
    const unit = Number(this.root.dataset.metresPerUnit);
    const { x, y, w, h } = this.view;
    const round = this.round(w / 8 / unit);
    const tick = w / 200;
    bar.setAttribute('transform', `translate(${x + 2 * tick} ${y + h - 2 * tick})`);
    bar.querySelector('path').setAttribute('d', `M0 ${-tick}V0H${round * unit}V${-tick}`);
    const text = bar.querySelector('text');
    text.setAttribute('y', -tick);
    text.setAttribute('font-size', w / 90);
    text.textContent = `${round} ${this.root.dataset.unit}`;
  }

  zoom(factor, centre) {
    const w = Math.min(this.all.w * 1.5, Math.max(2, this.view.w * factor));
    const k = w / this.view.w;
    const c = centre ?? { x: this.view.x + this.view.w / 2, y: this.view.y + this.view.h / 2 };
    this.view = { x: c.x - (c.x - this.view.x) * k, y: c.y - (c.y - this.view.y) * k, w, h: this.view.h * k };
    this.glide();
  }

  pan(dx, dy) {
    this.view.x += dx;
    this.view.y += dy;
    this.glide();
  }

  /** A place on the map, metres, from a pointer. */
  at(event) {
    const box = this.frame.getBoundingClientRect();
    const scale = this.metresPerPixel();
    return {
      x: this.view.x + this.view.w / 2 + (event.clientX - box.left - box.width / 2) * scale,
      y: this.view.y + this.view.h / 2 + (event.clientY - box.top - box.height / 2) * scale,
    };
  }

  listen() {
    this.svg.addEventListener('wheel', (event) => {
      event.preventDefault();
      this.zoom(event.deltaY > 0 ? 1.18 : 1 / 1.18, this.at(event));
    }, { passive: false });
    let from = null;
    let moved = false;
    this.svg.addEventListener('pointerdown', (event) => {
      if (event.button !== 0) return;
      from = { x: event.clientX, y: event.clientY };
      moved = false;
    });
    this.svg.addEventListener('pointermove', (event) => {
      if (!from) return;
      const dx = event.clientX - from.x;
      const dy = event.clientY - from.y;
      if (!moved && Math.hypot(dx, dy) < 4) return;
      if (!moved) this.svg.setPointerCapture(event.pointerId);
      moved = true;
      const scale = this.metresPerPixel();
      this.pan(-dx * scale, -dy * scale);
      from = { x: event.clientX, y: event.clientY };
    });
    const end = () => {
      from = null;
    };
    this.svg.addEventListener('pointerup', end);
    this.svg.addEventListener('pointercancel', end);
    this.svg.addEventListener('click', (event) => {
      // A drag that ends over a planter is no click on it.
      if (moved || this.drawing?.take(this.at(event))) {
        event.preventDefault();
        return;
      }
      const link = event.target.closest('[data-planter]');
      const day = new URLSearchParams(location.search).get('day');
      if (link && day) link.setAttribute('href', siteAddress(`/planters/${link.dataset.planter}?day=${day}`));
    }, true);
    this.svg.addEventListener('keydown', (event) => {
      const step = this.view.w / 10;
      const keys = {
        ArrowLeft: () => this.pan(-step, 0),
        ArrowRight: () => this.pan(step, 0),
        ArrowUp: () => this.pan(0, -step),
        ArrowDown: () => this.pan(0, step),
        '+': () => this.zoom(1 / 1.3),
        '=': () => this.zoom(1 / 1.3),
        '-': () => this.zoom(1.3),
        0: () => this.fit(),
        Enter: () => this.middle()?.link.dispatchEvent(new MouseEvent('click', { bubbles: true, cancelable: true })),
        Backspace: () => this.drawing?.back(),
      };
      if (!keys[event.key] || event.ctrlKey || event.metaKey || event.altKey) return;
      keys[event.key]();
      event.preventDefault();
      const middle = this.middle();
      if (event.key.startsWith('Arrow') && middle) this.said.textContent = middle.title.textContent;
    });
    for (const button of this.root.querySelectorAll('[data-map-zoom]')) {
      button.addEventListener('click', () => ({ in: () => this.zoom(1 / 1.5), out: () => this.zoom(1.5), all: () => this.fit() })[button.dataset.mapZoom]());
    }
    addEventListener('resize', () => this.show());
    document.addEventListener('meadow:moving', (event) => this.paint(event.detail.index));
  }

  fit() {
    this.view = { ...this.all };
    this.show();
  }

  middle() {
    const c = { x: this.view.x + this.view.w / 2, y: this.view.y + this.view.h / 2 };
    let best = null;
    for (const p of this.planters) {
      const d = Math.hypot(p.at.e - c.x, p.at.f - c.y);
      if (d < this.view.w / 4 && (!best || d < best.d)) best = { d, p };
    }
    return best?.p;
  }

  async load() {
    try {
      const answer = await fetch(this.root.dataset.looks);
      if (!answer.ok) return;
      const { colours, looks } = await answer.json();
      this.colours = colours;
      for (const p of this.planters) p.looks = looks[p.id] ?? [];
      this.root.dataset.ready = 'yes';
      if (this.day !== undefined) this.paint(this.day);
    } catch {
      // Away for a moment: the map of the day that the page was asked for stands.
    }
  }

  paint(index) {
    this.day = index;
    if (!this.colours) return;
    let shown = 0;
    const not = [];
    for (const p of this.planters) {
      let k = p.looks.length - 1;
      while (k > 0 && p.looks[k][0] > index) k -= 1;
      if (k < 0) continue;
      const look = p.looks[k];
      if (look[1] === 0) shown += 1;
      else if (not.length < 4) not.push(p.name);
      if (p.look === k) continue;
      p.look = k;
      p.link.classList.remove(...SHOWING);
      p.link.classList.add(SHOWING[look[1]]);
      p.title.textContent = `${p.name}: ${WORDS[look[1]]}`;
      let left = 1;
      p.tints.forEach((tint, i) => {
        const share = look[3 + 2 * i] ?? 0;
        if (share > 0) {
          if (!tint.hasAttribute('d')) tint.setAttribute('d', p.outline);
          tint.setAttribute('fill', this.colours[look[2 + 2 * i]]);
          tint.setAttribute('transform', `scale(${Math.sqrt(Math.max(0, left)).toFixed(3)})`);
          tint.removeAttribute('display');
          left -= share / 100;
        } else tint.setAttribute('display', 'none');
      });
    }
    const total = this.planters.length;
    const missing = total - shown;
    const sentence = document.querySelector('[data-grounds-sentence]');
    if (sentence && total > 0) {
      const names = not.slice(0, missing === 1 ? 1 : 3).join(', ');
      sentence.textContent = missing === 0
        ? `All ${total} planters on the map show colour`
        : `${shown} of ${total} planters show colour; not the ${names}${missing > 3 ? ` and ${missing - 3} more` : ''}`;
    }
  }
}

// Corners clicked on the map, for a bed or a feature.
class Drawing {
  constructor(map, tools) {
    this.map = map;
    this.tools = tools;
    this.form = tools.querySelector('[data-draw-form]');
    this.points = [];
    this.line = document.createElementNS('http://www.w3.org/2000/svg', 'path');
    this.line.setAttribute('class', 'drawn');
    map.svg.append(this.line);
    tools.querySelector('[data-draw-clear]').addEventListener('click', () => this.set([]));
    this.form.addEventListener('submit', (event) => {
      this.form.elements.points.value = this.points.map((p) => `${p.x.toFixed(2)} ${(-p.y).toFixed(2)}`).join(';');
      if (this.form.elements.kind.value !== 'Bed') return;
      // A bed goes on to its survey page with the corners as drawn.
      event.preventDefault();
      delete this.form.dataset.sent;
      if (this.points.length < 3) {
        this.say('A bed needs at least three corners.');
        return;
      }
      const unit = Number(map.root.dataset.metresPerUnit);
      const xs = this.points.map((p) => p.x);
      const ys = this.points.map((p) => -p.y);
      const query = new URLSearchParams({
        corners: this.points.map((p) => `${(p.x / unit).toFixed(2)} ${(-p.y / unit).toFixed(2)}`).join(';'),
        east: ((Math.min(...xs) + Math.max(...xs)) / 2 / unit).toFixed(2),
        north: ((Math.min(...ys) + Math.max(...ys)) / 2 / unit).toFixed(2),
      });
      location.assign(siteAddress(`/planters/new?${query}`));
    });
  }

  take(point) {
    if (!this.tools.open) return false;
    this.set([...this.points, point]);
    return true;
  }

  back() {
    this.set(this.points.slice(0, -1));
  }

  set(points) {
    this.points = points;
    this.line.setAttribute('d', points.length ? `M${points.map((p) => `${p.x} ${p.y}`).join('L')}${points.length > 2 ? 'Z' : ''}` : '');
    this.say(points.length === 0 ? 'No corner yet.' : `${points.length} ${points.length === 1 ? 'corner' : 'corners'}${this.area()}.`);
  }

  area() {
    if (this.points.length < 3) return '';
    let twice = 0;
    this.points.forEach((p, i) => {
      const q = this.points[(i + 1) % this.points.length];
      twice += p.x * q.y - q.x * p.y;
    });
    const unit = Number(this.map.root.dataset.metresPerUnit);
    return `, ${(Math.abs(twice) / 2 / unit ** 2).toFixed(1)} ${this.map.root.dataset.unit}²`;
  }

  say(text) {
    this.tools.querySelector('[data-draw-said]').textContent = text;
  }
}

export const attach = (root) => {
  for (const place of root.querySelectorAll('[data-grounds]')) {
    const map = new GroundsMap(place);
    const tools = root.querySelector('[data-draw-tools]');
    if (tools) map.drawing = new Drawing(map, tools);
    const marker = root.querySelector('[data-day-marker]');
    if (marker) map.day = Math.round((new Date(marker.dataset.day) - new Date(marker.dataset.start)) / DAY_MS);
  }
};

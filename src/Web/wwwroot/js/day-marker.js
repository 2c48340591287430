// The red thread: one day through every drawing on the page, kept in the address.
const DAY_MS = 864e5;
const WEEK = 7;

const toDate = (iso) => new Date(`${iso}T00:00:00Z`);
const toIso = (date) => date.toISOString().slice(0, 10);
const spoken = new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' });

/** "Tue 14 Apr" */
export const say = (date) => spoken.format(date).replace(',', '');

/** The same day of another month, held to its last day. */
export const addMonths = (date, months) => {
  const first = new Date(Date.UTC(date.getUTCFullYear(), date.getUTCMonth() + months, 1));
  const last = new Date(Date.UTC(first.getUTCFullYear(), first.getUTCMonth() + 1, 0)).getUTCDate();
  return new Date(Date.UTC(first.getUTCFullYear(), first.getUTCMonth(), Math.min(date.getUTCDate(), last)));
};

const odds = (digit) => (digit === 'x' ? 10 : Number(digit));

class DayMarker {
  constructor(root) {
    this.root = root;
    this.start = toDate(root.dataset.start);
    this.days = Number(root.dataset.days);
    this.today = toDate(root.dataset.today);
    this.grab = root.querySelector('[data-thread-grab]');
    this.threads = root.querySelectorAll('[data-thread]');
    this.flag = root.querySelector('[data-thread-flag]');
    this.width = this.flag?.ownerSVGElement.viewBox.baseVal.width ?? 960;
    this.listen();
    document.addEventListener('meadow:rows', () => this.count(this.day, Math.round((this.day - this.start) / DAY_MS)));
    this.show(toDate(root.dataset.day), false);
  }

  listen() {
    const at = (event) => {
      const box = this.grab.getBoundingClientRect();
      const share = Math.min(0.9999, Math.max(0, (event.clientX - box.left) / box.width));
      return new Date(this.start.getTime() + Math.floor(share * this.days) * DAY_MS);
    };
    let dragging = false;
    this.grab.addEventListener('pointerdown', (event) => {
      if (event.button !== 0) return;
      dragging = true;
      this.grab.setPointerCapture(event.pointerId);
      this.show(at(event), true);
    });
    this.grab.addEventListener('pointermove', (event) => dragging && this.show(at(event), false));
    this.grab.addEventListener('pointerup', (event) => {
      if (!dragging) return;
      dragging = false;
      this.show(at(event), true);
    });
    this.grab.addEventListener('keydown', (event) => {
      const step = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1, PageUp: WEEK, PageDown: -WEEK }[event.key];
      if (step) this.move(step);
      else if (event.key === 'Home') this.show(this.start, true);
      else if (event.key === 'End') this.show(new Date(this.start.getTime() + (this.days - 1) * DAY_MS), true);
      else return;
      event.preventDefault();
    });
    document.addEventListener('keydown', (event) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.target.closest('input, select, textarea, dialog[open]')) return;
      if (event.key === '[') this.move(-WEEK);
      else if (event.key === ']') this.move(WEEK);
      else if (event.key === '{') this.show(addMonths(this.day, -1), true);
      else if (event.key === '}') this.show(addMonths(this.day, 1), true);
      else if (event.key === '.') this.show(this.today, true);
    });
  }

  move(days) {
    this.show(new Date(this.day.getTime() + days * DAY_MS), true);
  }

  show(day, settle) {
    const index = Math.round((day - this.start) / DAY_MS);
    if (index < 0 || index >= this.days) {
      // Another plan year: only the server has it.
      if (settle) location.assign(this.address(day));
      return;
    }
    this.day = day;
    const x = ((index + 0.5) / this.days) * this.width;
    for (const thread of this.threads) {
      thread.setAttribute('x1', x);
      thread.setAttribute('x2', x);
    }
    if (this.flag) {
      this.flag.setAttribute('transform', `translate(${Math.min(x, this.width - 92)} 0)`);
      this.flag.querySelector('[data-thread-text]').textContent = say(day);
    }
    this.grab.setAttribute('aria-valuenow', index);
    this.count(day, index);
    for (const field of document.querySelectorAll('[data-day-field]')) field.value = toIso(day);
    for (const link of document.querySelectorAll('a[data-keep-day]')) {
      const url = new URL(link.href);
      url.searchParams.set('day', toIso(day));
      link.href = url.pathname + url.search;
    }
    document.dispatchEvent(new CustomEvent('meadow:moving', { detail: { index } }));
    if (settle) {
      history.replaceState(null, '', this.address(day));
      document.dispatchEvent(new CustomEvent('meadow:day', { detail: { day: toIso(day) } }));
    }
  }

  address(day) {
    const url = new URL(location.href);
    url.searchParams.set('day', toIso(day));
    return url.pathname + url.search;
  }

  count(day, index) {
    const rows = [...this.root.querySelectorAll('[data-odds]')];
    const whole = this.root.dataset.inColour?.split(' ');
    const of = whole ? Number(this.root.dataset.planters) : rows.length;
    let shown = 0;
    for (const row of rows) {
      const inTen = odds(row.dataset.odds[index]);
      const bare = inTen < 5;
      row.classList.toggle('is-bare', bare);
      if (!bare) shown += 1;
    }
    // Planters that are folded away count too.
    if (whole) shown = Number(whole[index]);
    const text = of > 1 ? `${say(day)}: ${shown} of ${of} in colour` : say(day);
    const place = this.root.querySelector('[data-on-day]');
    if (place) place.textContent = of > 1 ? `${shown} of ${of} in colour` : '';
    this.grab.setAttribute('aria-valuetext', text);
  }
}

export const attach = (root) => {
  for (const place of root.querySelectorAll('[data-day-marker]')) new DayMarker(place);
};

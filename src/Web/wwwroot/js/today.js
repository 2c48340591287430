// The day's work on a phone: ticks, counts and reasons, kept at once and sent when there is signal.
import { drop, identity, keep, send, waiting } from './outbox.js';
import { shrink } from './shrink.js';

const AGAIN_MS = 15_000;

class Line {
  constructor(row) {
    this.row = row;
    this.number = Number(row.dataset.line);
    this.count = Number(row.dataset.count);
    this.tick = row.querySelector('.tick');
    this.output = row.querySelector('output');
    this.shortField = row.querySelector('[data-short-field]');
    this.short = row.querySelector('[data-short-choice]');
    this.came = row.querySelector('[data-came-choice]');
    this.set({ done: Number(row.dataset.done), short: row.dataset.short || null, cameAs: row.dataset.cameAs || null });
  }

  set({ done, short, cameAs }) {
    [this.done, this.why, this.cameAs] = [done, short ?? null, cameAs ?? null];
    const isDone = done >= this.count;
    this.tick.setAttribute('aria-pressed', String(isDone));
    this.row.classList.toggle('is-settled', isDone || this.why !== null);
    this.row.classList.toggle('is-part', !isDone && done + (this.why ? 1 : 0) > 0);
    if (this.output) this.output.textContent = done;
    if (this.short) {
      this.shortField.hidden = isDone || (done === 0 && !this.why);
      this.short.value = isDone ? '' : (this.why ?? '');
    }
    if (this.came && cameAs) this.came.value = cameAs;
  }

  get entry() {
    return { line: this.number, done: this.done, short: this.done >= this.count ? null : this.why, cameAs: this.cameAs };
  }

  get isSettled() {
    return this.done >= this.count || this.why !== null;
  }
}

class Stop {
  constructor(row, tell) {
    this.row = row;
    this.lines = [...row.querySelectorAll('[data-line]')].map((l) => new Line(l));
    this.notDone = row.querySelector('[data-not-done-choice]');
    for (const line of this.lines) {
      const say = (state) => {
        line.set({ done: line.done, short: line.why, cameAs: line.cameAs, ...state });
        tell(this, { lines: [line.entry] });
      };
      line.tick.addEventListener('click', () => say(line.done >= line.count ? { done: 0, short: null } : { done: line.count, short: null }));
      line.row.querySelector('.stepper')?.addEventListener('click', (event) => {
        const step = event.target.closest('[data-step]');
        if (step) say({ done: Math.max(0, line.done + Number(step.dataset.step)) });
      });
      line.short?.addEventListener('change', () => say({ short: line.short.value || null }));
      line.came?.addEventListener('change', () => say({ cameAs: line.came.value || null }));
    }
    this.notDone?.addEventListener('change', () => tell(this, { notDone: this.notDone.value || null }));
    const minutes = row.querySelector('[data-minutes]');
    minutes?.addEventListener('change', () => minutes.checkValidity() && tell(this, { minutes: minutes.value ? Number(minutes.value) : null }));
    const note = row.querySelector('[data-note]');
    note?.addEventListener('change', () => tell(this, { note: note.value }));
    this.show();
  }

  // What waits on this phone holds over what the page was sent with.
  apply(entry) {
    for (const said of entry.lines ?? []) this.lines.find((l) => l.number === said.line)?.set(said);
    if (this.notDone) this.notDone.value = entry.notDone ?? '';
    const minutes = this.row.querySelector('[data-minutes]');
    if (minutes && entry.minutes) minutes.value = entry.minutes;
    const note = this.row.querySelector('[data-note]');
    if (note && entry.note) note.value = entry.note;
    this.show();
  }

  show() {
    this.row.classList.toggle('is-done', this.lines.length > 0 && this.lines.every((l) => l.isSettled));
    this.row.classList.toggle('is-left', Boolean(this.notDone?.value));
  }
}

export const attach = (root) => {
  const place = root.querySelector('[data-crew-day]');
  if (!place) return;
  const { day, person, tell, photo } = place.dataset;
  const token = place.querySelector('[name=__RequestVerificationToken]').value;
  const bar = place.querySelector('[data-queue]');
  const refusals = place.querySelector('[data-refusals]');
  let told = 0;

  // What is still on the vehicle: what is to be taken, less what went in.
  const showTaken = () => {
    for (const taken of place.querySelectorAll('[data-take-litres]')) {
      const left = stops
        .filter((s) => !s.row.classList.contains('is-left'))
        .flatMap((s) => s.lines)
        .filter((l) => !l.isSettled)
        .map((l) => (l.row.dataset.litres ?? '').split(' '))
        .filter(([kind]) => kind === taken.dataset.takeLitres)
        .reduce((sum, [, litres]) => sum + Number(litres), 0);
      taken.querySelector('[data-take-count]').textContent = `${Math.round(left * Number(taken.dataset.perLitre))} ${taken.dataset.unit}`;
      taken.classList.toggle('is-done', left === 0);
    }
    for (const taken of place.querySelectorAll('[data-take]')) {
      const left = stops
        .filter((s) => !s.row.classList.contains('is-left'))
        .flatMap((s) => s.lines)
        .filter((l) => l.row.dataset.plant === taken.dataset.take && !l.isSettled)
        .reduce((sum, l) => sum + l.count - l.done, 0);
      taken.querySelector('[data-take-count]').textContent = left;
      taken.classList.toggle('is-done', left === 0);
    }
  };

  const showQueue = async (how) => {
    const items = await waiting(person, tell);
    const open = items.filter((i) => !i.why).length;
    bar.hidden = open === 0 && told === 0;
    bar.classList.toggle('is-waiting', open > 0);
    bar.textContent = open > 0 ? `${bar.dataset.waiting.replace('§', open)}${how === 'signin' ? ` ${bar.dataset.signin}` : ''}` : bar.dataset.sent;
    refusals.replaceChildren(
      ...items
        .filter((i) => i.why)
        .map((item) => {
          const row = document.createElement('li');
          row.className = 'faults';
          const where = stops.find((s) => s.row.dataset.given === item.given)?.row.querySelector('h2')?.textContent ?? '';
          const button = (words, act) => {
            const it = document.createElement('button');
            it.type = 'button';
            it.className = 'act';
            it.textContent = words;
            it.addEventListener('click', act);
            return it;
          };
          row.append(
            `${refusals.previousElementSibling.dataset.refused} ${where}: ${item.why} `,
            button(refusals.dataset.again, async () => {
              await keep({ ...item, why: undefined });
              await deliver();
            }),
            ' ',
            button(refusals.dataset.drop, async () => {
              await drop(item);
              await showQueue();
            }),
          );
          return row;
        }),
    );
  };

  let sending = Promise.resolve();
  const deliver = () => {
    sending = sending.then(async () => {
      try {
        told += await send(person, tell, photo, token);
        await showQueue();
      } catch (e) {
        await showQueue(e.message);
      }
    });
    return sending;
  };

  const say = async (stop, what) => {
    stop.show();
    showTaken();
    // How the rest stands is said with it: an entry is whole by itself.
    const entry = { given: stop.row.dataset.given, mark: stop.row.dataset.mark, day, lines: [], notDone: stop.notDone?.value || null, ...what };
    await keep({ id: identity(), person, tell, given: entry.given, entry });
    await showQueue();
    await deliver();
  };

  const stops = [...place.querySelectorAll('[data-given]')].map((row) => new Stop(row, say));
  for (const stop of stops) {
    const picture = stop.row.querySelector('[data-photograph]');
    picture?.addEventListener('change', async () => {
      if (!picture.files[0]) return;
      const shown = stop.row.querySelector('[data-photos]');
      try {
        const blob = await shrink(picture.files[0]);
        await keep({ id: identity(), person, tell, given: stop.row.dataset.given, blob });
        const seen = document.createElement('img');
        seen.className = 'thumb';
        seen.alt = '';
        seen.src = URL.createObjectURL(blob);
        shown.append(seen);
        picture.value = '';
        await deliver();
      } catch {
        shown.textContent = picture.files[0].name;
        shown.className = 'fault';
      }
    });
  }

  const begin = async () => {
    for (const item of await waiting(person, tell)) {
      if (item.blob) continue;
      const stop = stops.find((s) => s.row.dataset.given === item.given && s.row.dataset.mark === item.entry.mark);
      stop?.apply(item.entry);
    }
    showTaken();
    await showQueue();
    if ((await waiting(person, tell)).some((i) => !i.why)) await deliver();
  };
  begin();
  addEventListener('online', deliver);
  setInterval(async () => {
    if ((await waiting(person, tell)).some((i) => !i.why)) await deliver();
  }, AGAIN_MS);
};

// The sheet, and what belongs to it, is held for the time without signal.
export const attachOffline = (root) => {
  if (!('serviceWorker' in navigator) || !root.querySelector('[data-crew-day]')) return;
  navigator.serviceWorker
    .register('/sheet-worker.js')
    .then(() => navigator.serviceWorker.ready)
    .then((ready) => {
      const base = document.documentElement.dataset.base ?? '';
      const linked = [...root.querySelectorAll('.stop a[href], .stop img.thumb')].map((a) => a.href ?? a.src);
      const days = [...root.querySelectorAll('nav.controls a')].map((a) => a.href);
      const parts = [...root.querySelectorAll('link[rel=stylesheet], script[src], link[rel=icon]')].map((p) => p.href ?? p.src);
      const above = [...root.querySelectorAll('[data-above]')].map((a) => new URL(a.dataset.above, location.href).href);
      // What the sheet needs comes before it: a sheet that is held can be used.
      const loaded = performance.getEntriesByType('resource').map((r) => r.name).filter((n) => /\/(js|lib|css|img)\//.test(n));
      const forms = ['log', 'review'].map((page) => new URL(`${base}/${page}`, location.href).href);
      ready.active.postMessage({ hold: [...new Set([...parts, ...loaded, location.href, ...days, ...above, ...linked, ...forms])] });
    })
    .catch(() => {});
};

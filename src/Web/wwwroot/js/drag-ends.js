// The days on which displays go in and come out are moved along the rule: by dragging, or by arrow keys. What it would do is
// asked for while it moves and drawn in the rule's place; nothing is done until it is agreed to.
import { siteAddress } from './site-address.js';
const DAY_MS = 864e5;
const ASK_MS = 90;
const SNAP_DAYS = 4;

const toIso = (day) => new Date(day).toISOString().slice(0, 10);

export const attach = (root) => {
  for (const meadow of root.querySelectorAll('[data-day-marker]')) {
    const start = Date.parse(`${meadow.dataset.start}T00:00:00Z`);
    const days = Number(meadow.dataset.days);
    const earliest = Date.parse(`${meadow.dataset.today}T00:00:00Z`);
    const turns = (meadow.dataset.turns ?? '').split(' ').filter(Boolean).map((day) => Math.round((Date.parse(`${day}T00:00:00Z`) - start) / DAY_MS));
    let moving = null;

    const held = (day) => Math.max(Math.ceil((earliest - start) / DAY_MS), Math.min(days - 1, Math.max(0, day)));
    const snapped = (day) => turns.find((turn) => Math.abs(turn - day) <= SNAP_DAYS) ?? day;

    const leave = () => {
      if (!moving) return;
      clearTimeout(moving.timer);
      moving.panel?.remove();
      moving.ribbon.removeAttribute('hidden');
      // Handles go back to where they were.
      for (const [handle, { transform, day }] of moving.were) {
        handle.setAttribute('transform', transform);
        handle.setAttribute('aria-valuenow', day);
      }
      moving.row.classList.remove('is-moving');
      moving = null;
    };

    const show = (html, mine) => {
      if (!moving || mine !== moving.asked) return;
      const fresh = new DOMParser().parseFromString(html, 'text/html').querySelector('[data-end-move]');
      if (!fresh) return;
      const panel = document.adoptNode(fresh);
      const focused = moving.panel?.contains(document.activeElement);
      moving.panel?.remove();
      moving.panel = panel;
      moving.row.append(panel);
      moving.ribbon.setAttribute('hidden', '');
      if (focused || moving.byKeys) panel.querySelector(`[data-display="${moving.display}"][data-end="${moving.end}"]`)?.focus({ preventScroll: true });
    };

    const ask = () => {
      const mine = ++moving.asked;
      clearTimeout(moving.timer);
      moving.timer = setTimeout(async () => {
        if (!moving) return;
        const to = toIso(start + moving.day * DAY_MS);
        try {
          const asked = new URLSearchParams({ handler: 'end', display: moving.display, end: moving.end, to, day: toIso(start) });
          const answer = await fetch(siteAddress(`/year?${asked}`));
          if (answer.ok) show(await answer.text(), mine);
        } catch {
          // Away for a moment: the next step asks again.
        }
      }, ASK_MS);
    };

    const begin = (handle) => {
      const row = handle.closest('.row-rule');
      if (moving?.row === row && moving.display === handle.dataset.display && moving.end === handle.dataset.end) return;
      if (moving && !(moving.row === row && moving.panel?.contains(handle))) leave();
      if (moving) Object.assign(moving, { display: handle.dataset.display, end: handle.dataset.end, day: Number(handle.getAttribute('aria-valuenow')) });
      else {
        const ribbon = row.querySelector(':scope > .ribbon');
        moving = {
          row,
          ribbon,
          were: [...ribbon.querySelectorAll('.display-end')].map((g) => [g, { transform: g.getAttribute('transform'), day: g.getAttribute('aria-valuenow') }]),
          display: handle.dataset.display,
          end: handle.dataset.end,
          day: Number(handle.getAttribute('aria-valuenow')),
          asked: 0,
          panel: null,
        };
      }
      row.classList.add('is-moving');
    };

    meadow.addEventListener('pointerdown', (event) => {
      const handle = event.target.closest('.display-end');
      if (!handle || event.button !== 0) return;
      event.preventDefault();
      event.stopPropagation();
      begin(handle);
      const box = handle.ownerSVGElement.getBoundingClientRect();
      const move = (e) => {
        if (!moving) return;
        const day = Math.round(((e.clientX - box.left) / box.width) * days);
        const to = held(e.altKey ? day : snapped(day));
        if (to === moving.day) return;
        moving.day = to;
        // The handle follows at once; what it does to colour follows as soon as it is reckoned.
        for (const g of moving.row.querySelectorAll(`[data-display="${moving.display}"][data-end="${moving.end}"]`)) {
          const width = g.ownerSVGElement.viewBox.baseVal.width;
          g.setAttribute('transform', g.getAttribute('transform').replace(/\([-\d.]+/, `(${(to / days) * width}`));
        }
        ask();
      };
      const up = () => {
        document.removeEventListener('pointermove', move);
        document.removeEventListener('pointerup', up);
        if (moving && !moving.panel) ask();
      };
      document.addEventListener('pointermove', move);
      document.addEventListener('pointerup', up);
    });

    meadow.addEventListener('keydown', (event) => {
      const handle = event.target.closest('.display-end');
      if (!handle) return;
      const handles = [...handle.ownerSVGElement.querySelectorAll('.display-end')];
      const next = { ArrowDown: 1, ArrowUp: -1 }[event.key];
      const step = { ArrowLeft: -1, ArrowRight: 1, PageUp: 7, PageDown: -7 }[event.key];
      if (next) handles[(handles.indexOf(handle) + next + handles.length) % handles.length].focus();
      else if (step) {
        begin(handle);
        moving.byKeys = true;
        // With Shift to the next turn that way.
        const ahead = turns.filter((t) => Math.sign(t - moving.day) === Math.sign(step));
        const turn = event.shiftKey ? ahead.sort((a, b) => Math.abs(a - moving.day) - Math.abs(b - moving.day))[0] : undefined;
        moving.day = held(turn ?? moving.day + step);
        handle.setAttribute('aria-valuenow', moving.day);
        ask();
      } else if (event.key === 'Enter' && moving?.panel) moving.panel.querySelector('.btn-ink')?.click();
      else if (event.key === 'Escape' && moving) {
        const { ribbon, display, end } = moving;
        leave();
        ribbon.querySelector(`[data-display="${display}"][data-end="${end}"]`)?.focus();
      } else return;
      event.preventDefault();
      event.stopPropagation();
    });
    meadow.addEventListener('click', (event) => event.target.closest('[data-end-leave]') && leave());
  }
};

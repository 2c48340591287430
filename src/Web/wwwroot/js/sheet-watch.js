import { readAnew } from './read-anew.js';

// A day sheet that stays open on a phone is compared with the plan every so often, and whenever it is looked at again:
// planters whose work has changed are named and marked, and nothing moves under the reader's finger.
const BETWEEN_MS = 60_000;

export const attach = (root) => {
  for (const sheet of root.querySelectorAll('[data-sheet-marks]')) {
    const notice = sheet.querySelector('[data-sheet-changed]');
    const jobs = [...sheet.querySelectorAll('[data-planter]')];
    const look = async () => {
      try {
        const answer = await fetch(sheet.dataset.sheetMarks);
        if (!answer.ok) return;
        const now = await answer.json();
        const changed = [];
        for (const job of jobs) {
          const differs = now[job.dataset.planter]?.mark !== job.dataset.mark;
          job.classList.toggle('is-changed', differs);
          if (differs) changed.push(job.querySelector('h3').textContent);
        }
        const known = new Set(jobs.map((job) => job.dataset.planter));
        for (const [planter, { name }] of Object.entries(now)) if (!known.has(planter)) changed.push(name);
        notice.querySelector('[data-sheet-where]').textContent = changed.join(', ');
        notice.hidden = changed.length === 0;
      } catch {
        // Away for a moment: asked again at the next look.
      }
    };
    setInterval(look, BETWEEN_MS);
    document.addEventListener('visibilitychange', () => document.visibilityState === 'visible' && look());
    notice.querySelector('[data-sheet-anew]').addEventListener('click', readAnew);
  }
};

import { siteAddress } from './site-address.js';
import { readAnew } from './read-anew.js';

// How far long work is: asked again and again until it is over, then the page is read anew.
const BETWEEN_MS = 500;

export const attach = (root) => {
  for (const place of root.querySelectorAll('[data-job]')) {
    const bar = place.querySelector('progress');
    const said = place.querySelector('[data-job-said]');
    let hadResult = place.dataset.jobResult === 'true';
    const look = async () => {
      try {
        const answer = await fetch(siteAddress(`/jobs/${place.dataset.job}`));
        // A job that is no longer kept: the page says what can be asked.
        if (answer.status === 404) {
          readAnew();
          return;
        }
        if (!answer.ok) throw new Error(`${answer.status}`);
        const job = await answer.json();
        if (job.over || (job.hasResult && !hadResult)) {
          hadResult = true;
          readAnew();
          return;
        }
        if (job.total > 0) {
          bar.max = job.total;
          bar.value = job.done;
        }
        said.textContent = job.total > 0 ? `${job.said}: ${job.done} of ${job.total}` : job.said || 'waiting for its turn';
      } catch {
        said.textContent = 'The app does not answer just now; asking again.';
      }
      setTimeout(look, BETWEEN_MS);
    };
    setTimeout(look, BETWEEN_MS);
  }
};

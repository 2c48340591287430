// Parts of a page that were still being reckoned when it was sent are filled in once they are there.
// Soon at first, then ever more seldom: what takes long takes a large page to ask for.
const BETWEEN_MS = 1000;
const LONGEST_MS = 10_000;
const MOST_TRIES = 60;

export const attach = (root) => {
  const fillIn = async (tries) => {
    const waiting = [...root.querySelectorAll('[data-fill][data-later]')];
    if (waiting.length === 0 || tries > MOST_TRIES) return;
    try {
      const answer = await fetch(location.href);
      const page = new DOMParser().parseFromString(await answer.text(), 'text/html');
      for (const part of waiting) {
        const there = page.querySelector(`[data-fill="${part.dataset.fill}"]`);
        if (there && !there.hasAttribute('data-later')) part.replaceWith(document.adoptNode(there));
        // Nothing came of it.
        if (!there && answer.ok && !page.querySelector('[data-reckoning]')) part.remove();
      }
    } catch {
      // The app does not answer just now: asked again.
    }
    setTimeout(fillIn, Math.min(LONGEST_MS, BETWEEN_MS * tries), tries + 1);
  };
  if (root.querySelector('[data-fill][data-later]')) setTimeout(fillIn, BETWEEN_MS, 1);
};

// Parts of a page that were still being reckoned when it was sent are filled in once they are there.
const BETWEEN_MS = 1000;
const MOST_TRIES = 300;

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
    setTimeout(fillIn, BETWEEN_MS, tries + 1);
  };
  if (root.querySelector('[data-fill][data-later]')) setTimeout(fillIn, BETWEEN_MS, 1);
};

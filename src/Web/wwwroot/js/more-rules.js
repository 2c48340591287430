// Unfolds an area's planters: a hundred rules at a time, the next as the end comes into view.
const unfold = async (link, list) => {
  const from = Number(link.dataset.moreFrom);
  const answer = await fetch(`${link.dataset.more}&skip=${from}`);
  if (!answer.ok) throw new Error(`${answer.status}`);
  // What stood open stood for many; now each has its own rule.
  if (from === 0) list.replaceChildren();
  const added = new DOMParser().parseFromString(await answer.text(), 'text/html').querySelectorAll('li');
  // Rules keep their width only inside the list; they are moved as they are.
  for (const row of added) list.append(document.adoptNode(row));
  link.dataset.moreFrom = from + added.length;
  document.dispatchEvent(new CustomEvent('meadow:rows'));
  return added.length;
};

export const attach = (root) => {
  for (const link of root.querySelectorAll('[data-more]')) {
    const list = link.closest('section').querySelector('[data-more-list]');
    let busy = false;
    const more = async () => {
      if (busy) return;
      busy = true;
      link.textContent = 'unfolding…';
      try {
        await unfold(link, list);
        const left = Number(link.dataset.moreOf) - Number(link.dataset.moreFrom);
        if (left <= 0) link.closest('p').remove();
        else link.textContent = `${left} more`;
      } catch {
        link.textContent = 'That did not work: try again';
      }
      busy = false;
    };
    link.addEventListener('click', (event) => {
      event.preventDefault();
      new IntersectionObserver((seen) => seen.some((s) => s.isIntersecting) && more(), { rootMargin: '600px' }).observe(link);
      more();
    });
  }
};

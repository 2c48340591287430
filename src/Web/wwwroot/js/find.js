// A list that answers while its form is filled in: parts marked data-results are fetched anew and the address follows.
const PAUSE_MS = 180;

export const attach = (root) => {
  for (const form of root.querySelectorAll('form[data-find]')) {
    let timer = 0;
    let asked = 0;
    const ask = async () => {
      const mine = ++asked;
      const query = new URLSearchParams();
      for (const [name, value] of new FormData(form)) if (value) query.append(name, value);
      const address = `${form.getAttribute('action')}?${query}`;
      try {
        const answer = await fetch(address, { headers: { 'X-Requested-With': 'fetch' } });
        const next = new DOMParser().parseFromString(await answer.text(), 'text/html');
        if (mine !== asked || !answer.ok) return;
        for (const part of root.querySelectorAll('[data-results]')) {
          const fresh = next.querySelector(`[data-results="${part.dataset.results}"]`);
          if (!fresh) continue;
          part.replaceChildren(...fresh.childNodes);
          part.dataset.of = query.get('q') ?? '';
        }
        // A list that lies over a page leaves that page its address.
        if (!('findHere' in form.dataset)) history.replaceState(null, '', address);
      } catch {
        // Away for a moment: the list stays, and the next change asks again.
      }
    };
    form.addEventListener('meadow:find', ask);
    form.addEventListener('input', () => {
      clearTimeout(timer);
      timer = setTimeout(ask, PAUSE_MS);
    });
  }
};

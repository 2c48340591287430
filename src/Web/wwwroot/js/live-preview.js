// A form whose result is drawn while it is filled in: after a pause the form is sent to its preview and the parts marked
// data-preview are replaced. A day moved by the red thread asks again likewise.
const PAUSE_MS = 350;

const replaceParts = (html) => {
  const next = new DOMParser().parseFromString(html, 'text/html');
  for (const part of document.querySelectorAll('[data-preview]')) {
    const fresh = next.querySelector(`[data-preview="${part.dataset.preview}"]`);
    if (fresh) part.replaceChildren(...fresh.childNodes);
  }
  document.dispatchEvent(new Event('meadow:drawn'));
};

export const attach = (root) => {
  for (const form of root.querySelectorAll('form[data-live-preview]')) {
    let timer = 0;
    let asked = 0;
    const ask = async () => {
      const mine = ++asked;
      document.body.classList.add('is-asking');
      try {
        const answer = await fetch(form.dataset.livePreview, { method: 'POST', body: new FormData(form), headers: { 'X-Requested-With': 'fetch' } });
        const html = await answer.text();
        if (mine === asked && answer.ok) replaceParts(html);
      } catch {
        // Away for a moment: what was typed stays, and the next change asks again.
      } finally {
        if (mine === asked) document.body.classList.remove('is-asking');
      }
    };
    const later = () => {
      // An answer still on its way tells of what was there before this change, and would draw it back.
      asked++;
      clearTimeout(timer);
      timer = setTimeout(ask, PAUSE_MS);
    };
    // Fields may stand outside the form and name it.
    document.addEventListener('input', (event) => event.target.form === form && later());
    form.addEventListener('rowschange', later);
    // What is being saved needs no drawing any more.
    form.addEventListener('submit', () => {
      asked++;
      clearTimeout(timer);
    });
    document.addEventListener('meadow:day', later);
    // What was typed while the page was still loading counts too.
    if ([...form.elements].some((field) => field.defaultValue !== undefined && field.type !== 'hidden' && field.value !== field.defaultValue)) later();
  }
};

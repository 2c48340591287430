// Long work that a page needs is asked for once as it opens, as if its button had been pressed; then the page shows how far it is.
import { goTo } from './read-anew.js';

export const attach = (root) => {
  const form = root.querySelector('form[data-ask-at-once]');
  if (!form?.dataset.askAtOnce) return;
  // Of one state of the plan it is asked once: what cannot be answered is not asked again and again. The button is still there.
  const key = `asked ${form.action}`;
  if (sessionStorage.getItem(key) === form.dataset.askAtOnce) return;
  fetch(form.action, { method: 'POST', body: new FormData(form) })
    .then((answer) => {
      // Whoever left before there was an answer asks again when they come back.
      sessionStorage.setItem(key, form.dataset.askAtOnce);
      goTo(answer.redirected ? answer.url : location.href);
    })
    .catch(() => {});
};

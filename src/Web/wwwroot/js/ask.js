// Long work that a page needs is asked for once as it opens, as if its button had been pressed; then the page is read anew.
export const attach = (root) => {
  const form = root.querySelector('form[data-ask-at-once]');
  if (!form) return;
  const key = `asked ${location.pathname}${location.search}`;
  const last = Number(sessionStorage.getItem(key) ?? 0);
  // An answer that does not come is not asked for again and again; the button is still there.
  if (Date.now() - last < 5000) return;
  sessionStorage.setItem(key, String(Date.now()));
  fetch(form.action, { method: 'POST', body: new FormData(form), redirect: 'manual' })
    .then(() => location.reload())
    .catch(() => {});
};

// The list of keys, opened by "?" or its button.
export const attach = (root) => {
  const dialog = root.querySelector('[data-keys]');
  if (!dialog) return;
  for (const list of dialog.querySelectorAll('[data-keys-of]')) list.hidden = !root.querySelector(list.dataset.keysOf);
  for (const button of root.querySelectorAll('[data-keys-open]')) button.addEventListener('click', () => dialog.showModal());
  root.addEventListener('keydown', (event) => {
    if (event.key === '?' && !event.target.closest('input, select, textarea') && !dialog.open) dialog.showModal();
  });
};

// "/" or its link opens a list that finds anything from anywhere; arrows choose among what is found, Enter opens it.
export const attach = (root) => {
  const dialog = root.querySelector('[data-finder]');
  if (!dialog) return;
  const form = dialog.querySelector('form');
  const field = form.querySelector('input');
  const links = () => [...dialog.querySelectorAll('[data-results] a')];

  const open = () => {
    if (dialog.open) return;
    dialog.showModal();
    field.select();
    form.dispatchEvent(new Event('meadow:find'));
  };

  for (const door of root.querySelectorAll('[data-find-open]')) {
    door.addEventListener('click', (event) => {
      if (event.ctrlKey || event.metaKey || event.shiftKey) return;
      event.preventDefault();
      open();
    });
  }
  root.addEventListener('keydown', (event) => {
    if (event.key !== '/' || event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.target.closest('input, select, textarea, [contenteditable]')) return;
    event.preventDefault();
    open();
  });
  dialog.addEventListener('keydown', (event) => {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (!step) return;
    event.preventDefault();
    const all = [field, ...links()];
    const next = all.indexOf(document.activeElement) + step;
    all[Math.max(0, Math.min(all.length - 1, next))].focus();
  });
  // Enter in the field opens the best of what it found; while that is still on its way, the page of all that is found.
  form.addEventListener('submit', (event) => {
    const [best] = links();
    if (!best || !field.value.trim() || dialog.querySelector('[data-results]').dataset.of !== field.value) return;
    event.preventDefault();
    best.click();
  });
  // A click beside the list closes it.
  dialog.addEventListener('click', (event) => event.target === dialog && dialog.close());
};

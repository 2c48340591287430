// A long list of ticks is narrowed by words; what is ticked stays ticked, and whole groups are ticked at once.
export const attach = (root) => {
  for (const list of root.querySelectorAll('[data-filter-list]')) {
    const field = list.querySelector('[data-filter]');
    const count = list.querySelector('[data-filter-count]');
    const rows = [...list.querySelectorAll('label[data-words]')];
    const show = () => {
      const words = field.value.toLowerCase().split(/\s+/).filter(Boolean);
      for (const row of rows) row.hidden = !words.every((word) => row.dataset.words.toLowerCase().includes(word));
      for (const group of list.querySelectorAll('[data-group]')) group.hidden = !group.querySelector('label[data-words]:not([hidden])');
    };
    const tell = () => {
      count.textContent = `${rows.filter((row) => row.querySelector('input').checked).length} chosen`;
    };
    field.addEventListener('input', show);
    list.addEventListener('change', tell);
    list.addEventListener('click', (event) => {
      const all = event.target.closest('[data-tick-all]');
      if (!all) return;
      const shown = [...all.closest('[data-group], [data-filter-list]').querySelectorAll('label[data-words]:not([hidden]) input')];
      const to = shown.some((box) => !box.checked);
      for (const box of shown) box.checked = to;
      tell();
    });
    tell();
  }
};

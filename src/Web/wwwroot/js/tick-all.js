// One tick for all rows of a table.
export const attach = (root) => {
  for (const all of root.querySelectorAll('table [data-tick-rows]'))
    all.addEventListener('change', () => {
      for (const box of all.closest('table').querySelectorAll('tbody input[type=checkbox]')) box.checked = all.checked;
    });
};

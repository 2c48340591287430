// Rows of a form that can be added and taken away; their fields are numbered anew so that none is lost.
const renumber = (list) => {
  [...list.querySelectorAll('[data-row]')].forEach((row, i) => {
    for (const field of row.querySelectorAll('[name]')) field.name = field.name.replace(/\[\d+\]/, `[${i}]`);
    for (const field of row.querySelectorAll('[id]')) field.id = field.id.replace(/_\d+__/, `_${i}__`);
    for (const label of row.querySelectorAll('label[for]')) label.htmlFor = label.htmlFor.replace(/_\d+__/, `_${i}__`);
  });
};

export const attach = (root) => {
  for (const list of root.querySelectorAll('[data-rows]')) {
    const form = list.closest('form');
    const changed = () => form.dispatchEvent(new Event('rowschange'));
    // A row as the page was sent, before other scripts made more of its fields.
    const blank = list.querySelector('[data-row]')?.cloneNode(true);
    form.querySelector('[data-row-add]')?.addEventListener('click', () => {
      if (!blank) return;
      const row = blank.cloneNode(true);
      for (const fault of row.querySelectorAll('.fault')) fault.remove();
      for (const field of row.querySelectorAll('input')) field.value = '';
      for (const field of row.querySelectorAll('select')) field.selectedIndex = 0;
      list.append(row);
      renumber(list);
      row.dispatchEvent(new CustomEvent('meadow:row', { bubbles: true }));
      (row.querySelector('.ts-wrapper input') ?? row.querySelector('select, input')).focus();
    });
    // The forms in which the chosen plant is sold.
    list.addEventListener('change', (event) => {
      const forms = event.target.selectedOptions?.[0]?.dataset.forms;
      const choice = event.target.closest('[data-row]')?.querySelector('[data-form-choice]');
      if (!choice || event.target === choice || forms === undefined) return;
      choice.replaceChildren(choice.options[0], ...forms.split('|').map((form) => new window.Option(form, form)));
      choice.value = '';
    });
    list.addEventListener('click', (event) => {
      const button = event.target.closest('[data-row-remove]');
      if (!button) return;
      const row = button.closest('[data-row]');
      if (list.querySelectorAll('[data-row]').length > 1) row.remove();
      else {
        for (const field of row.querySelectorAll('input, select')) field.value = '';
        row.dispatchEvent(new CustomEvent('meadow:row', { bubbles: true }));
      }
      renumber(list);
      changed();
    });
  }
};

// Of the figures of all rules only those of the chosen one are shown.
export const attach = (root) => {
  for (const form of root.querySelectorAll('form[data-rule-choice]')) {
    form.addEventListener('change', (event) => {
      if (!event.target.name?.endsWith('.Rule')) return;
      for (const figures of event.target.closest('.window').querySelectorAll('[data-rule]')) figures.hidden = figures.dataset.rule !== event.target.value;
    });
    // A colour that is picked is meant.
    form.addEventListener('input', (event) => {
      const box = event.target.type === 'color' ? event.target.parentElement.querySelector('[type="checkbox"]') : null;
      if (box) box.checked = true;
    });
  }
};

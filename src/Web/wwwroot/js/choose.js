// Planters are chosen on their rules: a click, a click with Shift for all between, a whole area; what can be done with them stands below.
export const attach = (root) => {
  const form = root.querySelector('[data-choice]');
  if (!form) return;
  const boxes = () => [...root.querySelectorAll('input[name="planters[]"][form="act-form"]')];
  const said = form.querySelector('[data-chosen]');
  let last = null;

  const chosen = () => {
    const ids = new Set();
    for (const box of boxes().filter((b) => b.checked)) [box.value, ...box.dataset.also.split(' ').filter(Boolean)].forEach((id) => ids.add(id));
    return ids;
  };
  const show = () => {
    const count = chosen().size;
    const areas = root.querySelectorAll('input[name="areas[]"]:checked').length;
    form.hidden = count + areas === 0;
    said.textContent = areas > 0
      ? `${areas === 1 ? 'an area' : `${areas} areas`}${count > 0 ? ` and ${count} planters` : ''}`
      : `${count} ${count === 1 ? 'planter' : 'planters'}`;
  };

  root.addEventListener('click', (event) => {
    const box = event.target;
    if (!box.matches?.('input[name="planters[]"][form="act-form"]')) return;
    const all = boxes();
    if (event.shiftKey && last && all.includes(last)) {
      const [from, to] = [all.indexOf(last), all.indexOf(box)].sort((a, b) => a - b);
      for (const between of all.slice(from, to + 1)) between.checked = box.checked;
    }
    last = box;
    // An area of which one is left out is no longer chosen whole.
    const area = box.closest('section').querySelector('[data-choose-area]');
    if (area && !box.checked) area.checked = false;
    show();
  });
  root.addEventListener('change', (event) => {
    if (event.target.matches?.('[data-choose-area]')) {
      for (const box of event.target.closest('section').querySelectorAll('input[name="planters[]"]')) box.checked = event.target.checked;
      show();
    }
  });
  form.querySelector('[data-choose-none]').addEventListener('click', () => {
    for (const box of root.querySelectorAll('.choose-rule input')) box.checked = false;
    show();
  });
  // Rows that stand for others like them choose those too.
  form.addEventListener('formdata', (event) => {
    event.formData.delete('planters[]');
    event.formData.set('planterList', [...chosen()].join(' '));
  });
  // A page that comes back shows what was chosen.
  window.addEventListener('pageshow', show);
  show();
};

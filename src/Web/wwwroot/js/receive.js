// A delivery that is whole and good is written down at one touch: every line gets what was still to come.
export function attach(root) {
  const all = root.querySelector('[data-all-came]');
  if (!all) return;
  all.addEventListener('click', () => {
    for (const counted of root.querySelectorAll('[data-ordered]')) counted.querySelector('input').value = counted.dataset.ordered;
  });
}

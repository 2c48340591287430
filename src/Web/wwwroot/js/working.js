// One working open at a time; Escape closes it and gives the focus back.
export const attach = (root) => {
  root.addEventListener('toggle', (event) => {
    const opened = event.target;
    if (!opened.matches?.('details.working') || !opened.open) return;
    for (const other of root.querySelectorAll('details.working[open]')) if (other !== opened) other.open = false;
    const sheet = opened.querySelector('.sheet');
    opened.classList.toggle('leftward', sheet.getBoundingClientRect().right > document.documentElement.clientWidth - 8);
  }, true);
  root.addEventListener('keydown', (event) => {
    if (event.key !== 'Escape') return;
    const open = root.querySelector('details.working[open]');
    if (!open) return;
    open.open = false;
    open.querySelector('summary').focus();
  });
  root.addEventListener('click', (event) => {
    for (const open of root.querySelectorAll('details.working[open]')) if (!open.contains(event.target)) open.open = false;
  });
};

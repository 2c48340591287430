// Ticks among thousands travel as one field: the browser sends names parted by blanks instead of a field for each.
export const attach = (root) => {
  for (const form of root.querySelectorAll('form:has([data-compact])')) {
    form.addEventListener('submit', () => {
      for (const group of form.querySelectorAll('[data-compact]')) {
        const boxes = [...group.querySelectorAll('input[type=checkbox]')];
        if (boxes.some((box) => box.disabled)) continue;
        const list = document.createElement('input');
        list.type = 'hidden';
        list.name = group.dataset.compact;
        list.value = boxes.filter((box) => box.checked).map((box) => box.value).join(' ');
        group.append(list);
        for (const box of boxes) box.disabled = true;
        // A page that comes back from the browser's memory can be sent again.
        window.addEventListener('pageshow', () => {
          list.remove();
          for (const box of boxes) box.disabled = false;
        }, { once: true });
      }
    });
  }
};

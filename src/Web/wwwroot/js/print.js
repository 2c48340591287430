// A button that prints the page.
export const attach = (root) => {
  for (const button of root.querySelectorAll('[data-print]')) button.addEventListener('click', () => window.print());
};

// A button that prints the page.
const PAGE_MM = 186;
const HEAD_MM = 44;
const TALLEST_MM = 11;

// A year of any number of rules fits one landscape page: each rule gets its share of the height.
const fitRules = () => {
  const rules = document.querySelectorAll('.meadow .row-rule').length;
  if (rules) document.documentElement.style.setProperty('--rule-mm', `${Math.min(TALLEST_MM, (PAGE_MM - HEAD_MM) / rules)}mm`);
};

export const attach = (root) => {
  if (root.querySelector('.meadow')) window.addEventListener('beforeprint', fitRules);
  for (const button of root.querySelectorAll('[data-print]')) button.addEventListener('click', () => window.print());
};

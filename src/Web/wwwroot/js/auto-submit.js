// A form of choices that answers as soon as one is made.
export const attach = (root) => {
  for (const form of root.querySelectorAll('form[data-auto-submit]')) form.addEventListener('change', () => form.requestSubmit());
};

// A file that is too large is named before it is sent in vain.
const MOST_BYTES = 20 * 1024 * 1024;

export const attach = (root) => {
  for (const field of root.querySelectorAll('input[type="file"]')) {
    field.addEventListener('change', () => {
      const file = field.files[0];
      const over = file && file.size > MOST_BYTES;
      field.setCustomValidity(over ? `${file.name} is larger than 20 MB; leave out what is not needed.` : '');
      if (over) field.reportValidity();
    });
  }
};

const SAID = 'meadow:said';

// Long enough for the page that somebody has gone to; after a download the page is still there.
const LEAVING_MS = 10_000;

let leftAt = -Infinity;
addEventListener('beforeunload', () => (leftAt = performance.now()));

const isTyped = (field) => {
  if (field.type === 'checkbox' || field.type === 'radio') return field.checked !== field.defaultChecked;
  if (!(field instanceof HTMLSelectElement)) return field.value !== field.defaultValue;
  if (field.multiple) return [...field.options].some((option) => option.selected !== option.defaultSelected);
  const drawn = [...field.options].findIndex((option) => option.defaultSelected);
  return field.selectedIndex !== Math.max(0, drawn);
};

// What is typed and not sent yet would be lost if the page were read anew.
const isAnythingTyped = () =>
  [...document.querySelectorAll('form[method="post"] :is(input:not([type="hidden"]), select, textarea)')].some(isTyped);

// Opens an address once nothing is lost by it: whoever is on the way to another page gets there, and what is typed stays until it is sent.
export const goTo = (address) => {
  const leaving = leftAt + LEAVING_MS - performance.now();
  if (leaving > 0) {
    setTimeout(goTo, leaving, address);
    return;
  }
  if (isAnythingTyped()) {
    if (document.querySelector('[data-there]')) return;
    const there = document.createElement('p');
    there.className = 'said';
    there.setAttribute('role', 'status');
    there.dataset.there = '';
    const link = document.createElement('a');
    link.href = address;
    link.textContent = 'Show it';
    there.append('The result is there. What you typed is not saved yet. ', link);
    document.querySelector('main')?.prepend(there);
    return;
  }
  // What the page said stays over its being read anew: a message is shown once, and work can be over before it was read.
  const said = document.querySelector('.said');
  if (said) sessionStorage.setItem(SAID, said.textContent);
  if (address.split('#')[0] === location.href.split('#')[0]) location.reload();
  else location.replace(address);
};

export const readAnew = () => goTo(location.href);

export const attach = () => {
  const words = sessionStorage.getItem(SAID);
  if (words === null) return;
  sessionStorage.removeItem(SAID);
  if (document.querySelector('.said')) return;
  const said = document.createElement('p');
  said.className = 'said';
  said.setAttribute('role', 'status');
  said.textContent = words;
  document.querySelector('main')?.prepend(said);
};

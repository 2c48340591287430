const SAID = 'meadow:said';

// What the page said stays over its being read anew: a message is shown once, and work can be over before it was read.
export const readAnew = () => {
  const said = document.querySelector('.said');
  if (said) sessionStorage.setItem(SAID, said.textContent);
  location.reload();
};

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

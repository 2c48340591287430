// A list's search and order are remembered in this browser: opened without any, it is shown as it was left.
import { siteAddress } from './site-address.js';
const key = (name) => `list:${siteAddress('')}${name}`;

export const attach = (root) => {
  root.addEventListener('click', (event) => {
    const link = event.target.closest?.('[data-forget]');
    if (link) localStorage.removeItem(key(link.dataset.forget));
  });
  for (const form of root.querySelectorAll('form[data-remember]')) {
    const name = key(form.dataset.remember);
    const keep = () => localStorage.setItem(name, new URLSearchParams([...new FormData(form)].filter(([, value]) => value !== '')).toString());
    // Where the list follows while one types, so does what is remembered.
    if ('find' in form.dataset) form.addEventListener('input', keep);
    if (location.search) {
      if (location.search.includes('all=yes')) localStorage.removeItem(name);
      else keep();
    } else if (localStorage.getItem(name)) {
      location.replace(`${location.pathname}?${localStorage.getItem(name)}`);
    }
  }
};

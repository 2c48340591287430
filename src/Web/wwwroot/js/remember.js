// A list's search and order are remembered in this browser: opened without any, it is shown as it was left.
import { siteAddress } from './site-address.js';
const key = (name) => `list:${siteAddress('')}${name}`;

export const attach = (root) => {
  for (const link of root.querySelectorAll('[data-forget]')) link.addEventListener('click', () => localStorage.removeItem(key(link.dataset.forget)));
  for (const form of root.querySelectorAll('form[data-remember]')) {
    const name = key(form.dataset.remember);
    if (location.search) {
      const asked = new URLSearchParams([...new FormData(form)].filter(([, value]) => value !== '')).toString();
      if (location.search.includes('all=yes')) localStorage.removeItem(name);
      else localStorage.setItem(name, asked);
    } else if (localStorage.getItem(name)) {
      location.replace(`${location.pathname}?${localStorage.getItem(name)}`);
    }
  }
};

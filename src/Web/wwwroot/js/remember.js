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
    // What the form only carries on (a year, a day) is not the list's.
    const carried = new Set([...form.querySelectorAll('input[type=hidden]')].map((input) => input.name));
    const keep = () => {
      const said = [...new FormData(form)].filter(([field, value]) => value !== '' && !carried.has(field));
      localStorage.setItem(name, new URLSearchParams(said).toString());
    };
    // Where the list follows while one types, so does what is remembered.
    if ('find' in form.dataset) form.addEventListener('input', keep);
    const asked = new URLSearchParams(location.search);
    if (asked.has('all')) localStorage.removeItem(name);
    else if ([...asked.keys()].some((field) => !carried.has(field))) keep();
    else if (localStorage.getItem(name)) {
      for (const [field, value] of new URLSearchParams(localStorage.getItem(name))) asked.append(field, value);
      location.replace(`${location.pathname}?${asked}`);
    }
  }
};

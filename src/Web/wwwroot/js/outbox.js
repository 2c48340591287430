// What was told of the work and is not sent yet: kept on the phone until the app has answered, however long that takes.
import { openDB } from '../lib/idb/idb.js';

const DATABASE = 'meadow-outbox';
const ENTRIES = 'entries';
const PHOTOS = 'photos';
const FORMS = 'forms';
const AT_ONCE = 200;
const LAST_TIME = 'meadow:last-time';

const open = () =>
  openDB(DATABASE, 2, {
    upgrade: (database) => {
      for (const store of [ENTRIES, PHOTOS, FORMS]) if (!database.objectStoreNames.contains(store)) database.createObjectStore(store, { keyPath: 'id' });
    },
    // Another window has a newer page: this one lets it go on, and opens anew with its next entry.
    blocking: (was, is, event) => event.target.close(),
  });

// One connection for all that follows; it is opened anew where the browser has closed it. What is to be kept is asked of it at once: nothing
// stands between a tick and its being kept.
let database;
const within = async (act) => {
  database ??= open();
  try {
    return await act(await database);
  } catch {
    database = open();
    return act(await database);
  }
};

// An identity that begins with the time, and never with one before the last: a clock that is put back changes no order.
export const identity = () => {
  const time = Math.max(Date.now(), Number(localStorage.getItem(LAST_TIME) ?? 0) + 1);
  localStorage.setItem(LAST_TIME, String(time));
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  for (let i = 0; i < 6; i++) bytes[i] = Math.floor(time / 2 ** (8 * (5 - i))) % 256;
  bytes[6] = 0x70 | (bytes[6] & 0x0f);
  bytes[8] = 0x80 | (bytes[8] & 0x3f);
  const hex = [...bytes].map((b) => b.toString(16).padStart(2, '0')).join('');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`;
};

// Entries and photographs of one person at one site, in the order in which they were made.
export const waiting = async (person, tell) => {
  const all = await within(async (store) => [...(await store.getAll(ENTRIES)), ...(await store.getAll(PHOTOS))]);
  return all.filter((e) => e.person === person && e.tell === tell).sort((a, b) => (a.id < b.id ? -1 : 1));
};

const storeOf = (item) => (item.fields ? FORMS : item.blob ? PHOTOS : ENTRIES);

export const keep = (item) => within((store) => store.put(storeOf(item), item));

export const drop = (item) => within((store) => store.delete(storeOf(item), item.id));

// Forms of one person that wait for one address.
export const waitingForms = async (person, to) => (await within((store) => store.getAll(FORMS))).filter((f) => f.person === person && f.to === to);

const post = async (url, token, body, type) => {
  const answer = await fetch(url, {
    method: 'POST',
    headers: { RequestVerificationToken: token, ...(type ? { 'Content-Type': type } : {}) },
    body,
  });
  // Whoever is signed out is led to the sign-in.
  if (answer.redirected || answer.status === 401 || answer.status === 403) throw new Error('signin');
  if (!answer.ok) throw new Error(`${answer.status}`);
  return answer.json();
};

const answered = async (items, answers) => {
  for (const { id, why } of answers) {
    const item = items.find((i) => i.id === id);
    if (!item) continue;
    if (why) await keep({ ...item, why });
    else await drop(item);
  }
};

// Sends all that waits; what is refused stays, with the reason. One window sends at a time; what is sent twice is taken once.
export const send = (person, tell, photo, token) =>
  navigator.locks.request('meadow-outbox', async () => {
    const items = (await waiting(person, tell)).filter((i) => !i.why);
    const entries = items.filter((i) => !i.blob);
    for (let from = 0; from < entries.length; from += AT_ONCE) {
      const part = entries.slice(from, from + AT_ONCE);
      const { answers } = await post(tell, token, JSON.stringify({ entries: part.map((i) => ({ ...i.entry, id: i.id })) }), 'application/json');
      await answered(part, answers);
    }
    for (const item of items.filter((i) => i.blob)) {
      const form = new FormData();
      form.append('id', item.id);
      form.append('given', item.given);
      form.append('photograph', item.blob, 'photograph.jpg');
      await answered([item], [await post(photo, token, form)]);
    }
    return items.length;
  });

// Sends forms that wait, one after the other; each carries its identity, so that one that did arrive is taken once. One that is refused stays,
// with the reason.
export const sendForms = (person, to, token) =>
  navigator.locks.request('meadow-outbox', async () => {
    for (const form of (await waitingForms(person, to)).filter((f) => !f.why)) {
      const body = new FormData();
      for (const [name, value] of [...form.fields, ['__RequestVerificationToken', token]]) body.append(name, value);
      const answer = await fetch(to, { method: 'POST', body });
      if (/\/signin$/.test(new URL(answer.url).pathname)) throw new Error('signin');
      if (answer.status >= 400) throw new Error(`${answer.status}`);
      if (answer.redirected) {
        await drop(form);
        continue;
      }
      const page = new DOMParser().parseFromString(await answer.text(), 'text/html');
      const faults = [...page.querySelectorAll('main .faults li, main .fault')].map((f) => f.textContent.trim()).filter(Boolean);
      await keep({ ...form, why: faults.join(' ') || `${answer.status}` });
    }
  });

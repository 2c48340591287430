// Tables that stand whole on a page: their headings put them in another order, words narrow long ones, and both are remembered in this browser.
import { siteAddress } from './site-address.js';

const WORTH_FINDING = 15;
const key = (table) => `list:${siteAddress('')}rows:${table.dataset.order}`;
const collator = new Intl.Collator(document.documentElement.lang, { numeric: true, sensitivity: 'base' });

const textOf = (row, column) => row.cells[column]?.dataset.value ?? row.cells[column]?.textContent.trim() ?? '';
const numberOf = (text) => parseFloat((/-?\d[\d,]*\.?\d*/.exec(text.replace('−', '-')) ?? [''])[0].replaceAll(',', ''));
// What is empty comes last, whichever way.
const compare = (a, b, isNumber, isDown) => {
  const [x, y] = isNumber ? [numberOf(a), numberOf(b)] : [a, b];
  const [noX, noY] = isNumber ? [Number.isNaN(x), Number.isNaN(y)] : [x === '', y === ''];
  if (noX || noY) return noX - noY;
  return (isNumber ? x - y : collator.compare(x, y)) * (isDown ? -1 : 1);
};

const remembered = (table) => {
  try {
    return JSON.parse(localStorage.getItem(key(table))) ?? {};
  } catch {
    return {};
  }
};

const begin = (table) => {
  const heads = [...table.tHead.rows[0].cells];
  const body = table.tBodies[0];
  const rows = [...body.rows];
  if (rows.length < 2 || heads.some((h) => h.colSpan > 1)) return;
  const state = { by: null, isDown: false, words: '', ...remembered(table) };
  const show = () => {
    const head = heads[state.by];
    const isNumber = head?.classList.contains('num');
    const order = head ? [...rows].sort((a, b) => compare(textOf(a, state.by), textOf(b, state.by), isNumber, state.isDown)) : rows;
    body.append(...order);
    for (const h of heads) {
      if (h === head) h.setAttribute('aria-sort', state.isDown ? 'descending' : 'ascending');
      else h.removeAttribute('aria-sort');
    }
    const words = state.words.toLowerCase().split(/\s+/).filter(Boolean);
    for (const row of rows) row.hidden = !words.every((word) => row.textContent.toLowerCase().includes(word));
  };
  const keep = () => {
    localStorage.setItem(key(table), JSON.stringify(state));
    show();
  };
  heads.forEach((head, column) => {
    if (head.textContent.trim() === '' || head.querySelector('.visually-hidden, svg')) return;
    const button = document.createElement('button');
    button.type = 'button';
    button.className = 'by-this';
    button.append(...head.childNodes);
    head.append(button);
    // Up, down, and as it was.
    button.addEventListener('click', () => {
      if (state.by !== column) [state.by, state.isDown] = [column, head.classList.contains('num')];
      else if (state.isDown !== head.classList.contains('num')) [state.by, state.isDown] = [null, false];
      else state.isDown = !state.isDown;
      keep();
    });
  });
  if (rows.length >= WORTH_FINDING && table.dataset.find) {
    const field = document.createElement('input');
    field.type = 'search';
    field.value = state.words;
    field.autocomplete = 'off';
    field.setAttribute('aria-label', table.dataset.find);
    field.placeholder = table.dataset.find;
    field.className = 'find-rows no-print';
    field.addEventListener('input', () => {
      state.words = field.value;
      keep();
    });
    (table.closest('.scroll-x') ?? table).before(field);
  } else {
    state.words = '';
  }
  show();
};

export const attach = (root) => {
  // Where the list comes in parts, the server orders it.
  for (const table of root.querySelectorAll('table[data-order]')) if (table.dataset.order) begin(table);
};

// A list of plants becomes a field that finds them by words, and says of each what it looks like, when it shows here, and whether it
// fits the planter on the days in the form. Without scripts it stays a list.
import { siteAddress } from './site-address.js';
import '../lib/tom-select/tom-select.base.min.js';

const AGAIN_MS = 700;
const MOST_TRIES = 40;

const element = (name, words, className) => {
  const made = document.createElement(name);
  if (words) made.textContent = words;
  if (className) made.className = className;
  return made;
};

const chip = ({ fill, line }) => {
  const svg = document.createElementNS('http://www.w3.org/2000/svg', 'svg');
  svg.setAttribute('class', 'chip');
  svg.setAttribute('viewBox', '0 0 10 10');
  svg.setAttribute('aria-hidden', 'true');
  const circle = document.createElementNS('http://www.w3.org/2000/svg', 'circle');
  for (const [name, value] of Object.entries({ cx: 5, cy: 5, r: 4.6, fill, stroke: line })) circle.setAttribute(name, value);
  svg.append(circle);
  return svg;
};

const row = (plant) => {
  const made = element('div', '', `plant-option${plant.verdict ? ` is-${plant.verdict}` : ''}`);
  const who = element('div', '', 'plant-name');
  who.append(...(plant.colours ?? []).map(chip), element('b', plant.name), ' ', element('i', plant.botanical));
  const strip = element('div', '', 'plant-strip');
  const drawn = plant.strip && new DOMParser().parseFromString(plant.strip, 'text/html').querySelector('svg');
  if (drawn) strip.append(document.adoptNode(drawn));
  const first = plant.first === 'shortlist' ? 'shortlist' : plant.first && 'planned lately';
  const facts = [plant.height && `${plant.height} high`, plant.atHand, plant.rated, first];
  made.append(who, strip, element('div', plant.why ?? '', 'why'), element('div', facts.filter(Boolean).join(' · '), 'quiet'));
  return made;
};

const days = (select) => {
  const field = (name) => select.form?.querySelector(`[name="${name}"]`)?.value ?? '';
  return { from: field('Input.Install'), to: field('Input.Lift') };
};

const begin = (select) => {
  if (select.tomselect) return;
  const known = new Map([...select.options].map((option) => [option.value, { id: option.value, name: option.textContent, forms: option.dataset.forms }]));
  let asked = 0;
  const choice = new window.TomSelect(select, {
    valueField: 'id',
    labelField: 'name',
    searchField: [],
    // In the order in which they came.
    sortField: [{ field: '$order' }, { field: '$score' }],
    maxOptions: null,
    highlight: false,
    allowEmptyOption: false,
    placeholder: 'type a name, colour or kind',
    dropdownParent: 'body',
    dropdownClass: 'ts-dropdown plant-choices',
    loadThrottle: 160,
    score: () => () => 1,
    shouldLoad: () => true,
    preload: 'focus',
    load(words, done) {
      const mine = ++asked;
      const query = new URLSearchParams({ q: words, planter: select.dataset.planter ?? '', sort: select.dataset.plantChoice, ...days(select) });
      const ask = async (tries) => {
        const answer = await fetch(siteAddress(`/palette/choices?${query}`));
        if (!answer.ok) throw new Error(`${answer.status}`);
        const { plants, reckoning } = await answer.json();
        if (mine !== asked) {
          done();
          return;
        }
        // One, or several where several may be named.
        const chosen = [choice.getValue()].flat().filter(Boolean);
        for (const id of Object.keys(choice.options)) if (!chosen.includes(id)) choice.removeOption(id, true);
        for (const id of chosen) if (!plants.some((p) => p.id === id)) plants.push({ ...known.get(id) });
        for (const plant of plants) {
          known.set(plant.id, plant);
          choice.updateOption(plant.id, plant);
        }
        done(plants);
        if (reckoning && tries < MOST_TRIES && choice.isOpen) setTimeout(() => mine === asked && ask(tries + 1).catch(() => {}), AGAIN_MS);
      };
      ask(1).catch(() => done());
    },
    render: {
      option: row,
      item: (plant) => element('div', plant.name),
      no_results: () => element('div', 'Nothing answers that. Names are found by how their words begin.', 'no-results'),
    },
    onFocus() {
      // What fits may be otherwise since the days were typed.
      choice.load(choice.lastValue ?? '');
    },
    onChange(value) {
      // The forms in which it is sold go with its option.
      for (const id of [value].flat()) {
        const option = select.querySelector(`option[value="${window.CSS.escape(id)}"]`);
        if (option && known.get(id)?.forms !== undefined) option.dataset.forms = known.get(id).forms;
      }
    },
  });
  // Its field stands for it, with its label.
  select.setAttribute('aria-hidden', 'true');
  select.addEventListener('change', () => {
    if (!select.multiple && select.value !== choice.getValue()) choice.sync();
  });
};

export const attach = (root) => {
  const all = (within) => within.querySelectorAll('select[data-plant-choice]').forEach(begin);
  all(root);
  root.addEventListener('meadow:row', (event) => {
    all(event.target);
    for (const select of event.target.querySelectorAll('select[data-plant-choice]')) if (select.value !== select.tomselect.getValue()) select.tomselect.sync();
  });
};

// What is logged without signal waits on the phone and is sent once there is one; it is kept before it is sent, so that no fault on the way loses it.
import { drop, identity, keep, sendForms, waitingForms } from './outbox.js';
import { shrink } from './shrink.js';

const AGAIN_MS = 15_000;
const ON_THE_WAY = 'meadow:log-on-the-way';

const localDay = (time) => new Date(time - time.getTimezoneOffset() * 60_000).toISOString().slice(0, 10);

export const attach = (root) => {
  // Forms of one page go to one address.
  const forms = [...root.querySelectorAll('form[data-send-later]')];
  if (forms.length === 0) return;
  const [first] = forms;
  const { person } = first.dataset;
  const bar = root.querySelector('[data-log-queue]');
  const to = first.getAttribute('action');
  const token = first.querySelector('[name=__RequestVerificationToken]').value;

  const refusals = root.querySelector('[data-log-refusals]');

  const show = async () => {
    const all = await waitingForms(person, to);
    const open = all.filter((f) => !f.why).length;
    bar.hidden = open === 0 && !bar.textContent;
    bar.textContent = open > 0 ? bar.dataset.waiting.replace('§', open) : bar.textContent && bar.dataset.sent;
    bar.classList.toggle('is-waiting', open > 0);
    refusals.replaceChildren(
      ...all
        .filter((f) => f.why)
        .map((refused) => {
          const row = document.createElement('li');
          row.className = 'faults';
          const away = document.createElement('button');
          away.type = 'button';
          away.className = 'act';
          away.textContent = refusals.dataset.drop;
          away.addEventListener('click', async () => {
            await drop(refused);
            await show();
          });
          const said = refused.fields.filter(([name, value]) => name !== 'EntryId' && typeof value === 'string' && value).map(([, value]) => value);
          row.append(`${refusals.dataset.refused} ${said.join(', ')}: ${refused.why} `, away);
          return row;
        }),
    );
  };
  const deliver = async () => {
    try {
      await sendForms(person, to, token);
    } catch {
      // No signal yet, or nobody is signed in: it waits on.
    }
    await show();
  };
  const begin = async () => {
    // What went the usual way is on its way no more once the page says that it was taken, or what is wrong with it.
    const sent = sessionStorage.getItem(ON_THE_WAY);
    sessionStorage.removeItem(ON_THE_WAY);
    const isAnswered = root.querySelector('.said, main .faults, main .fault');
    if (sent && isAnswered) await drop({ id: sent, fields: [] });
    // A page that was held would give every entry the same identity.
    if (!root.querySelector('main .faults, main .fault')) for (const form of forms) form.elements.EntryId.value = identity();
    if ((await waitingForms(person, to)).length > 0) await deliver();
  };
  // What stood there on the day that is told of is offered, not what stands today.
  const offerStanding = async () => {
    const { planter, Day, PlantId } = first.elements;
    if (!planter.value || !Day.value) return;
    try {
      const answer = await fetch(`${to}?handler=standing&planter=${encodeURIComponent(planter.value)}&Day=${Day.value}`);
      if (!answer.ok) return;
      const chosen = PlantId.value;
      const plants = await answer.json();
      const option = (p) => Object.assign(document.createElement('option'), { textContent: p.name, value: p.id, selected: p.id === chosen });
      PlantId.replaceChildren(PlantId.options[0], ...plants.map(option));
    } catch {
      // No signal: what was offered before is offered still.
    }
  };
  if (first.elements.PlantId) for (const name of ['planter', 'Day']) first.elements[name].addEventListener('change', offerStanding);
  // What is no picture goes as it is: the app says what is wrong with it.
  const makeSmall = async (input) => {
    if (!input?.files[0]) return;
    try {
      const small = new DataTransfer();
      small.items.add(new File([await shrink(input.files[0])], 'photograph.jpg', { type: 'image/jpeg' }));
      input.files = small.files;
    } catch {
      input.classList.add('is-invalid');
    }
  };
  const submit = async (event) => {
    event.preventDefault();
    const form = event.currentTarget;
    const id = form.elements.EntryId;
    // What is told of the day on which it is told, however long the page was held.
    const seenToday = form.querySelector('[data-seen-today]');
    if (seenToday) seenToday.value = localDay(new Date());
    await makeSmall(form.querySelector('[data-picture]'));
    const fields = [...new FormData(form)].filter(([name, value]) => name !== '__RequestVerificationToken' && value.size !== 0);
    await keep({ id: id.value, person, to, fields });
    if (navigator.onLine) {
      sessionStorage.setItem(ON_THE_WAY, id.value);
      form.submit();
      return;
    }
    form.reset();
    id.value = identity();
    await show();
    if (first === form && forms.length === 1) bar.scrollIntoView({ block: 'nearest' });
    else form.closest('li')?.classList.add('is-seen');
  };
  for (const form of forms) form.addEventListener('submit', submit);
  begin();
  addEventListener('online', deliver);
  setInterval(async () => {
    if (navigator.onLine && !sessionStorage.getItem(ON_THE_WAY) && (await waitingForms(person, to)).length > 0) await deliver();
  }, AGAIN_MS);
};

// Plants of an arrangement moved by hand: dragged, or chosen with Tab and moved by the arrow keys. One unit of the
// drawing is a centimetre. What was moved goes into the form's places, which the live preview and the save send.
const STEP_CM = 1;
const FAR_STEPS = 5;
const MOST_STEPS_BACK = 100;
const MOVES = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

const at = (plant) => {
  const { e, f } = plant.transform.baseVal.consolidate().matrix;
  return { x: e, y: f };
};

const put = (plant, x, y) => plant.setAttribute('transform', `translate(${x.toFixed(1)} ${y.toFixed(1)})`);

class Arrange {
  constructor(root) {
    this.root = root;
    this.form = document.getElementById(root.dataset.arrange);
    this.places = this.form.querySelector('[data-places]');
    this.back = root.querySelector('[data-step-back]');
    this.past = [];
    root.addEventListener('pointerdown', (event) => this.hold(event));
    root.addEventListener('pointermove', (event) => this.drag(event));
    for (const over of ['pointerup', 'pointercancel']) root.addEventListener(over, () => this.drop());
    root.addEventListener('keydown', (event) => this.key(event));
    this.back.addEventListener('click', () => this.stepBack());
    document.addEventListener('keydown', (event) => {
      if ((event.ctrlKey || event.metaKey) && event.key === 'z' && !event.target.closest('input, textarea') && this.past.length) {
        event.preventDefault();
        this.stepBack();
      }
    });
    addEventListener('beforeunload', (event) => this.past.length && !this.form.dataset.sent && event.preventDefault());
  }

  hold(event) {
    const plant = event.target.closest('.is-movable');
    if (!plant || event.button !== 0) return;
    event.preventDefault();
    const svg = plant.ownerSVGElement;
    const inverse = svg.getScreenCTM().inverse();
    const grip = new DOMPoint(event.clientX, event.clientY).matrixTransform(inverse);
    const from = at(plant);
    this.held = { plant, inverse, from, offX: from.x - grip.x, offY: from.y - grip.y };
    plant.classList.add('is-held');
    plant.focus({ preventScroll: true });
    this.root.setPointerCapture(event.pointerId);
  }

  drag(event) {
    if (!this.held) return;
    const { inverse, offX, offY } = this.held;
    const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(inverse);
    this.held.to = { x: p.x + offX, y: p.y + offY };
    // One move a frame, however often the pointer reports.
    this.held.frame ??= requestAnimationFrame(() => {
      if (!this.held) return;
      this.held.frame = undefined;
      put(this.held.plant, this.held.to.x, this.held.to.y);
    });
  }

  drop() {
    if (!this.held) return;
    const { plant, from, to, frame } = this.held;
    cancelAnimationFrame(frame);
    plant.classList.remove('is-held');
    this.held = undefined;
    if (!to) return;
    put(plant, to.x, to.y);
    this.moved(plant, from);
  }

  key(event) {
    const plant = event.target.closest('.is-movable');
    const move = MOVES[event.key];
    if (!plant || !move || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    const by = STEP_CM * (event.shiftKey ? FAR_STEPS : 1);
    const from = at(plant);
    put(plant, from.x + move[0] * by, from.y + move[1] * by);
    this.moved(plant, from);
  }

  moved(plant, from) {
    this.past.push({ item: plant.dataset.item, index: plant.dataset.index, from });
    if (this.past.length > MOST_STEPS_BACK) this.past.shift();
    this.write();
  }

  stepBack() {
    const last = this.past.pop();
    if (!last) return;
    const plant = this.root.querySelector(`.is-movable[data-item="${last.item}"][data-index="${last.index}"]`);
    if (plant) put(plant, last.from.x, last.from.y);
    this.write();
  }

  write() {
    const kinds = [];
    for (const plant of this.root.querySelectorAll('.is-movable')) {
      const { x, y } = at(plant);
      (kinds[plant.dataset.item] ??= [])[plant.dataset.index] = [Number(x.toFixed(1)), Number((-y).toFixed(1))];
    }
    this.places.value = JSON.stringify(kinds);
    this.back.disabled = this.past.length === 0;
    const focused = document.activeElement?.closest?.('.is-movable');
    this.focus = focused ? `.is-movable[data-item="${focused.dataset.item}"][data-index="${focused.dataset.index}"]` : undefined;
    this.form.dispatchEvent(new Event('rowschange'));
  }
}

export const attach = (root) => {
  for (const place of root.querySelectorAll('[data-arrange]')) {
    const arrange = new Arrange(place);
    // The preview draws the plants anew; the one that was chosen stays chosen.
    document.addEventListener('meadow:drawn', () => arrange.focus && document.querySelector(arrange.focus)?.focus({ preventScroll: true }));
  }
};

// The sky over a planter: dragging over a sector sets how high its wall or its trees reach. The numbers beside it are
// the same angles, and serve the keyboard.
const CENTRE = 290;
const RADIUS = 250;
const SECTORS = 16;

const point = (r, a) => `${(CENTRE + r * Math.sin(a)).toFixed(2)} ${(CENTRE - r * Math.cos(a)).toFixed(2)}`;
const radius = (altitude) => (RADIUS * (90 - altitude)) / 90;

const wedge = (sector, low, high) => {
  if (high <= low) return '';
  const from = ((sector - 0.5) * Math.PI) / 8;
  const to = ((sector + 0.5) * Math.PI) / 8;
  const outer = radius(low);
  const inner = radius(high);
  return `M${point(outer, from)}A${outer} ${outer} 0 0 1 ${point(outer, to)}L${point(inner, to)}A${inner} ${inner} 0 0 0 ${point(inner, from)}Z`;
};

const angle = (input) => Math.min(90, Math.max(0, Number.parseFloat(input.value) || 0));

export const attach = (root) => {
  const svg = root.querySelector('[data-sky]');
  if (!svg) return;
  const form = root.querySelector('form[data-skyline]');
  const walls = [...form.querySelectorAll('[data-wall]')];
  const trees = [...form.querySelectorAll('[data-tree]')];

  const draw = (k) => {
    const wall = angle(walls[k]);
    svg.querySelector(`[data-sky-wall="${k}"]`).setAttribute('d', wedge(k, 0, wall));
    svg.querySelector(`[data-sky-tree="${k}"]`).setAttribute('d', wedge(k, wall, Math.max(wall, angle(trees[k]))));
  };

  const set = (event) => {
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM().inverse());
    const x = at.x - CENTRE;
    const y = CENTRE - at.y;
    const r = Math.hypot(x, y);
    if (r < 12) return;
    const sector = Math.round((Math.atan2(x, y) * 8) / Math.PI + SECTORS) % SECTORS;
    const altitude = Math.round(Math.min(90, Math.max(0, 90 - (r * 90) / RADIUS)));
    const inputs = form.querySelector('[name="Drag"]:checked')?.value === 'tree' ? trees : walls;
    inputs[sector].value = altitude;
    draw(sector);
    inputs[sector].dispatchEvent(new Event('input', { bubbles: true }));
  };

  svg.addEventListener('pointerdown', (event) => {
    svg.setPointerCapture(event.pointerId);
    set(event);
  });
  svg.addEventListener('pointermove', (event) => {
    if (svg.hasPointerCapture(event.pointerId)) set(event);
  });
  form.addEventListener('input', (event) => {
    const k = Math.max(walls.indexOf(event.target), trees.indexOf(event.target));
    if (k >= 0) draw(k);
  });
};

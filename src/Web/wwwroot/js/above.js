// Drawings of a planter from above, asked for when their place is seen: what stays folded costs nothing.
const fill = (place) =>
  fetch(place.dataset.above)
    .then((a) => (a.ok ? a.text() : ''))
    .then((svg) => {
      const drawing = new DOMParser().parseFromString(svg, 'text/html').querySelector('svg');
      if (drawing) place.replaceChildren(document.adoptNode(drawing));
    })
    .catch(() => {});

export const attach = (root) => {
  const seen = new IntersectionObserver((places) => {
    for (const { isIntersecting, target } of places) {
      if (!isIntersecting) continue;
      seen.unobserve(target);
      fill(target);
    }
  });
  for (const place of root.querySelectorAll('[data-above]')) seen.observe(place);
};

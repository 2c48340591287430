// A form that saves is sent once, however often its button is pressed.
export const attach = (root) => {
  root.addEventListener('submit', (event) => {
    const form = event.target;
    if (event.defaultPrevented || form.method !== 'post') return;
    if (form.dataset.sent) {
      event.preventDefault();
      return;
    }
    form.dataset.sent = 'yes';
    setTimeout(() => delete form.dataset.sent, 4000);
  });
  // A page that comes back from the history can be sent again.
  addEventListener('pageshow', () => {
    for (const form of root.querySelectorAll('form[data-sent]')) delete form.dataset.sent;
  });
};

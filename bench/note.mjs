// Changes a planter's note through its own form, as a person does; answers how long the saving took and where it led.
const unescape = (text) =>
  text.replaceAll('&quot;', '"').replaceAll('&#x2B;', '+').replaceAll('&lt;', '<').replaceAll('&gt;', '>').replaceAll('&#x27;', "'").replaceAll('&amp;', '&')
    .replace(/&#x([0-9A-F]+);/g, (_, hex) => String.fromCodePoint(parseInt(hex, 16)));

export const writeNote = async (site, planter, note) => {
  const path = `${site}/planters/${planter}/edit`;
  const page = await fetch(path);
  const html = await page.text();
  const cookie = page.headers.getSetCookie().map((c) => c.split(';')[0]).join('; ');
  const form = html.slice(html.lastIndexOf('<form', html.indexOf('name="Input.Name"')), html.indexOf('</form>', html.indexOf('name="Input.Name"')));
  const fields = new URLSearchParams();
  for (const input of form.matchAll(/<input[^>]*>/g)) {
    const name = /name="([^"]*)"/.exec(input[0])?.[1];
    const isOff = /type="checkbox"/.test(input[0]) && !/ checked/.test(input[0]);
    if (name && !isOff) fields.append(name, unescape(/value="([^"]*)"/.exec(input[0])?.[1] ?? ''));
  }
  for (const select of form.matchAll(/<select[^>]*name="([^"]*)"[\s\S]*?<\/select>/g))
    fields.append(select[1], /<option value="([^"]*)" selected/.exec(select[0])?.[1] ?? '');
  for (const area of form.matchAll(/<textarea[^>]*name="([^"]*)"[^>]*>([\s\S]*?)<\/textarea>/g))
    fields.append(area[1], unescape(area[2].replace(/^\n/, '')));
  fields.set('Input.Note', note);
  const from = performance.now();
  const answer = await fetch(path, { method: 'POST', body: fields, headers: { cookie }, redirect: 'manual' });
  return { ms: performance.now() - from, ok: answer.status === 302 };
};

// What every address of the site begins with: nothing where there is one site alone.
export const siteAddress = (path) => (document.documentElement.dataset.base ?? '') + path;

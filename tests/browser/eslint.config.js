import js from '@eslint/js';

const browser = Object.fromEntries(
  ['document', 'window', 'location', 'history', 'fetch', 'FormData', 'DOMParser', 'DOMPoint', 'CustomEvent', 'Event', 'URL', 'URLSearchParams', 'MouseEvent', 'setTimeout', 'setInterval', 'clearTimeout', 'addEventListener', 'IntersectionObserver', 'requestAnimationFrame', 'cancelAnimationFrame', 'sessionStorage', 'localStorage', 'performance', 'HTMLSelectElement', 'HTMLElement', 'navigator', 'PublicKeyCredential'].map((n) => [n, 'readonly']),
);
const node = Object.fromEntries(['process', 'console', 'URL', 'URLSearchParams', 'Buffer', 'fetch', 'performance', 'document', 'window', 'setTimeout', 'URL', 'Event', 'KeyboardEvent', 'CustomEvent', 'requestAnimationFrame', 'createImageBitmap', 'Blob', 'OffscreenCanvas'].map((n) => [n, 'readonly']));
const rules = { eqeqeq: 'error', 'prefer-const': 'error', 'no-var': 'error', 'object-shorthand': 'error' };

export default [
  { ignores: ['**/node_modules/**', '**/wwwroot/lib/**'] },
  js.configs.recommended,
  { files: ['**/wwwroot/js/**/*.js'], languageOptions: { globals: browser }, rules },
  { files: ['**/*.mjs', '**/*.spec.js', '**/*.config.js', '**/site.js'], languageOptions: { globals: node }, rules },
];

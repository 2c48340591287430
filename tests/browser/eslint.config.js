import js from '@eslint/js';

const browser = Object.fromEntries(
  ['document', 'window', 'File', 'DataTransfer', 'location', 'history', 'fetch', 'FormData', 'DOMParser', 'DOMPoint', 'CustomEvent', 'Event', 'URL', 'URLSearchParams', 'MouseEvent', 'setTimeout', 'setInterval', 'clearTimeout', 'addEventListener', 'IntersectionObserver', 'requestAnimationFrame', 'cancelAnimationFrame', 'sessionStorage', 'localStorage', 'performance', 'HTMLSelectElement', 'HTMLElement', 'navigator', 'PublicKeyCredential', 'crypto', 'createImageBitmap'].map((n) => [n, 'readonly']),
);
const node = Object.fromEntries(['process', 'console', 'URL', 'URLSearchParams', 'Buffer', 'fetch', 'performance', 'document', 'window', 'setTimeout', 'URL', 'Event', 'KeyboardEvent', 'CustomEvent', 'requestAnimationFrame', 'createImageBitmap', 'Blob', 'OffscreenCanvas', 'caches', 'location', 'navigator'].map((n) => [n, 'readonly']));
const rules = { eqeqeq: 'error', 'prefer-const': 'error', 'no-var': 'error', 'object-shorthand': 'error' };

const page = { ...rules, 'max-len': ['error', { code: 160 }] };

const worker = Object.fromEntries(['addEventListener', 'caches', 'clients', 'fetch', 'location', 'Request', 'setTimeout', 'skipWaiting', 'URL'].map((n) => [n, 'readonly']));

export default [
  { ignores: ['**/node_modules/**', '**/wwwroot/lib/**'] },
  js.configs.recommended,
  { files: ['**/wwwroot/js/**/*.js'], languageOptions: { globals: browser }, rules: page },
  { files: ['**/wwwroot/sheet-worker.js'], languageOptions: { globals: worker }, rules: page },
  { files: ['**/*.mjs', '**/*.spec.js', '**/*.config.js', '**/site.js'], languageOptions: { globals: node }, rules },
];

// Before each test file: what every browser has, and the page of a test lacks.
const { TextDecoder, TextEncoder } = require('node:util');

globalThis.TextDecoder ??= TextDecoder;
globalThis.TextEncoder ??= TextEncoder;
// a page that is not laid out has no size, and none that changes
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
};

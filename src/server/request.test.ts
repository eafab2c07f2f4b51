import fc from 'fast-check';
import { depthOf, fromThisSite } from './request';

describe('a request that changes something', () => {
  const from = (origin: string | null, site: string | null = null, method = 'POST') =>
    fromThisSite(method, { origin, site }, 'stone.example:3000');
  test('from a page of this site, or from no browser', () => {
    expect(from('https://stone.example:3000')).toBe(true);
    expect(from(null)).toBe(true);
    expect([from(null, 'same-origin'), from(null, 'none')]).toEqual([true, true]);
  });
  test.each([
    ['null', null],
    ['rubbish', null],
    ['', null],
    ['https://', null],
    ['https://stone.example', null], // another port
    ['https://stone.example:3000.evil.example', null],
    ['https://evil.example', 'same-origin'], // the address counts where there is one
    ['data:text/html,x', null],
    [null, 'cross-site'],
    [null, 'same-site'],
  ])('not from %p, %p', (origin, site) => {
    expect(from(origin, site)).toBe(false);
    expect(from(origin, site, 'DELETE')).toBe(false);
    expect(from(origin, site, 'GET')).toBe(true);
  });
  test('whatever stands there, it is answered and never thrown', () => {
    fc.assert(fc.property(fc.string(), (origin) => typeof from(origin) === 'boolean'));
  });
});
test('depth is counted outside of texts', () => {
  expect(depthOf('1')).toBe(0);
  expect(depthOf('{"a":[{"b":"[[[[{"},"\\"[["]}')).toBe(3);
  expect(depthOf('['.repeat(5000))).toBe(5000);
  fc.assert(
    fc.property(fc.jsonValue({ maxDepth: 6 }), (value) => {
      const depth = (v: unknown): number =>
        typeof v === 'object' && v !== null ? 1 + Math.max(0, ...Object.values(v).map(depth)) : 0;
      expect(depthOf(JSON.stringify(value))).toBe(depth(value));
    }),
  );
});

import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import canonicalize from 'canonicalize';
import fc from 'fast-check';
import { PackError } from './error';
import { expandPack } from './expand';
import { loadPack } from './load';
import hashes from './shipped.json';

const shipped = readdirSync('packs').map((f) => JSON.parse(readFileSync(`packs/${f}`, 'utf8')) as unknown);

test('a version of a shipped pack is what it always was: its hash stands in plans and records', () => {
  const now = shipped.map((value) => {
    const pack = loadPack(value);
    return [
      `${pack.id} ${pack.version}`,
      createHash('sha256').update(canonicalize(pack)!).digest('hex'),
    ] as const;
  });
  // raise the version of a pack whose meaning changes, and add its line to shipped.json
  expect(Object.fromEntries(now)).toEqual(
    Object.fromEntries(now.map(([name]) => [name, (hashes as Record<string, string>)[name]])),
  );
});
test.each(shipped.map((s) => [(s as { id: string }).id, s]))(
  '%s, written out whole, is itself',
  (_, value) => {
    const whole = expandPack(value);
    expect(expandPack(whole)).toEqual(whole);
    // also with what an owner may type into it
    const typed = { ...(whole as object), notice: 'by {whom} it concerns, like "this"' };
    expect(expandPack(typed)).toEqual(typed);
  },
);

const made = (value: object): Record<string, never> => expandPack(value) as Record<string, never>;
test('a template is put in, laid under what stands beside it, and null takes away', () => {
  const templates = {
    base: { a: 1, b: { c: 2, d: 3 }, list: [1, 2] },
    more: { like: 'base', b: { c: 9 } },
    tail: [{ x: 1 }, { x: 2 }],
    word: 'said once',
  };
  expect(made({ templates, of: { like: 'base', b: { d: null }, list: [7] } }).of).toEqual({
    a: 1,
    b: { c: 2 },
    list: [7],
  });
  expect(made({ templates, of: { like: ['base', 'more'], e: 4 } }).of).toEqual({
    a: 1,
    b: { c: 9, d: 3 },
    list: [1, 2],
    e: 4,
  });
  expect(made({ templates, of: [{ x: 0 }, { like: 'tail' }] }).of).toEqual([{ x: 0 }, { x: 1 }, { x: 2 }]);
  expect(made({ templates, why: { like: 'word' } }).why).toBe('said once');
});
test('what is given fills a template, alone of any kind, within a text as text', () => {
  const templates = { limit: { value: '{value}', minutes: '{n}', source: 'House figure: {value}' } };
  expect(made({ templates, of: { like: 'limit', with: { value: '1 bar', n: 5 } } }).of).toEqual({
    value: '1 bar',
    minutes: 5,
    source: 'House figure: 1 bar',
  });
  expect(() => made({ templates, of: { like: 'limit', with: { value: '1 bar' } } })).toThrow(/\{n\}.*"with"/);
});
test('defaults lie under procedures and stages, the role over the kind, in lists and in maps', () => {
  const defaults = {
    procedure: { trade: 'water' },
    stages: { hold: { title: 'Hold', why: 'w' }, 'hold settle': { title: 'Settle' } },
  };
  const stages = { a: { kind: 'hold', role: 'settle' }, b: { kind: 'hold', role: 'floor', title: 'Own' } };
  const whole = {
    id: 'p',
    trade: 'water',
    stages: {
      a: { kind: 'hold', role: 'settle', title: 'Settle', why: 'w' },
      b: { kind: 'hold', role: 'floor', title: 'Own', why: 'w' },
    },
  };
  expect(made({ defaults, procedures: [{ id: 'p', stages }] }).procedures).toEqual([whole]);
  expect(made({ defaults, procedures: { p: { stages } } }).procedures).toEqual([whole]);
});
test('a list may be a map, an edge a name, a debt its text', () => {
  expect(
    made({
      items: { a: 'one', b: { text: 'two', ask: true } },
      on: { done: 'zero', other: ['zero', { close: true }] },
      debts: { plug: 'Plug out' },
    }),
  ).toEqual({
    items: [
      { key: 'a', text: 'one' },
      { key: 'b', text: 'two', ask: true },
    ],
    on: { done: { to: 'zero' }, other: [{ to: 'zero' }, { close: true }] },
    debts: { plug: { text: 'Plug out' } },
  });
  // such keys would be read out of the order they are written in
  expect(() => made({ options: { b: 'x', 1: 'y' } })).toThrow(/Write a list/);
});
test.each(['items', 'on', 'results', 'options', 'debts', 'stages', 'with', 'constructor'])(
  'a stage, a debt or an outcome may be called "%s"',
  (name) => {
    const whole = {
      procedures: [
        {
          id: 'p',
          stages: {
            [name]: { kind: 'checks', items: [{ key: 'a', text: 'b' }], on: { [name]: { to: name } } },
          },
          debts: { [name]: { text: 'owed' } },
          cautions: { [name]: 'Stand clear.' },
        },
      ],
    };
    expect(made(whole)).toEqual(whole);
  },
);
describe('a file that means harm is refused with its place', () => {
  const laughs = Object.fromEntries(
    Array.from({ length: 30 }, (_, i) => [
      `t${i}`,
      Array.from({ length: 10 }, () => ({ like: `t${i + 1}` })),
    ]),
  );
  test.each([
    ['no such template', { of: { like: 'mars' } }, /of\.like.*"mars"/],
    ['a template by a name of the language', { of: { like: 'constructor' } }, /"constructor"/],
    ['a template that is no name', { of: { like: 5 } }, /"5"/],
    ['a circle', { templates: { a: { like: 'b' }, b: { like: 'a' } }, of: { like: 'a' } }, /contains itself/],
    ['ten times ten times ten', { templates: { ...laughs, t30: 1 }, of: { like: 't0' } }, /too much/],
    ['a prototype', JSON.parse('{"of":{"__proto__":{"format":2}}}') as object, /"__proto__"/],
    ['depth', { of: Array.from({ length: 500 }).reduce((a) => [a], 1) }, /too much/],
  ])('%s', (_, value, message) => {
    expect(() => expandPack(value)).toThrow(PackError);
    expect(() => expandPack(value)).toThrow(message);
  });
  test('anything at all is loaded or refused, never worse', () => {
    fc.assert(
      fc.property(
        fc.jsonValue(),
        fc.constantFrom('procedures', 'templates', 'defaults', 'sources'),
        (v, at) => {
          const value = { ...(shipped[0] as object), [at]: v };
          try {
            loadPack(value);
          } catch (error) {
            expect(error).toBeInstanceOf(PackError);
          }
        },
      ),
      { numRuns: 200 },
    );
  });
});

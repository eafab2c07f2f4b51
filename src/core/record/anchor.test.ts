import fc from 'fast-check';
import { againstAnchor, anchorLine, readAnchor } from './anchor';
import { CHAIN_START, publicKeyOf, seal } from './seal';

const secret = '33'.repeat(32);
/** Records of a series, each linked to the one before. */
const series = (bodies: readonly string[], by = secret) => {
  let previous = CHAIN_START;
  return bodies.map((b, i) => {
    const made = seal(JSON.stringify({ b }), `VS-${String(i + 1).padStart(5, '0')}`, previous, by);
    previous = made.hash;
    return made;
  });
};
const kept = series(['a', 'b', 'c', 'd']);
const line = anchorLine({ day: '2026-11-27', number: kept[2]!.number, hash: kept[2]!.hash }, secret);
const anchor = readAnchor(line)!;

test('a line reads back, also broken over lines by a printer; any changed character makes it nothing', () => {
  expect(anchor).toEqual({
    day: '2026-11-27',
    number: 'VS-00003',
    hash: kept[2]!.hash,
    key: publicKeyOf(secret),
  });
  expect(readAnchor(`\n ${line.replaceAll(' ', ' \n ')}\n`)).toEqual(anchor);
  fc.assert(
    fc.property(fc.nat(line.length - 1), fc.constantFrom('0', '7', 'f', 'A', '-', ' '), (at, c) => {
      const spoilt = line.slice(0, at) + c + line.slice(at + 1);
      expect(spoilt.trim() === line || readAnchor(spoilt) === null).toBe(true);
    }),
  );
  for (const odd of ['', 'vast-stone-anchor-1', `${line} x`]) expect(readAnchor(odd)).toBeNull();
});
test('the anchored record agrees by itself; an older one with the records between; without them it stays open', () => {
  expect(againstAnchor(anchor, kept[2]!).word).toBe('agrees');
  expect(againstAnchor(anchor, kept[0]!, kept).word).toBe('agrees');
  expect(againstAnchor(anchor, kept[0]!)).toMatchObject({
    word: 'open',
    text: expect.stringContaining('VS-00003'),
  });
  expect(againstAnchor(anchor, kept[0]!, [kept[2]!])).toMatchObject({
    word: 'open',
    text: expect.stringContaining('VS-00002'),
  });
  expect(againstAnchor(anchor, kept[3]!).word).toBe('open');
  expect(againstAnchor(anchor, { ...kept[2]!, number: 'PRACTICE-00003' }).word).toBe('open');
});
test('a series written anew with the same key shows against the line, wherever it was changed', () => {
  for (const changed of [0, 1, 2]) {
    const anew = series(['a', 'b', 'c', 'd'].map((b, i) => (i === changed ? `${b}!` : b)));
    expect([changed, againstAnchor(anchor, anew[0]!, anew).word]).toEqual([changed, 'differs']);
  }
  // one record put in the place of another, the rest as it was
  const other = series(['a', 'x'])[1]!;
  expect(againstAnchor(anchor, other, [kept[2]!])).toMatchObject({
    word: 'differs',
    text: expect.stringContaining('VS-00002 is not the record that stood there on 2026-11-27'),
  });
});

import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import { unpackedFont } from './unpacked-font';

interface Font {
  glyphForCodePoint(code: number): { advanceWidth: number; path: { toSVG(): string } };
  characterSet: number[];
  postscriptName: string;
}
const require = createRequire(path.resolve('package.json'));
const fontkit = require('fontkit') as { create(bytes: Buffer): Font };
const FACES = ['atkinson-hyperlegible-next', 'martian-mono'].flatMap((name) =>
  [400, 700].map((weight) => `@fontsource/${name}/files/${name}-latin-${weight}-normal.woff`),
);

test.each(FACES)('%s: every sign has the outline and the width it had', (name) => {
  const woff = readFileSync(require.resolve(name));
  const plain = unpackedFont(woff);
  expect(plain.length).toBeGreaterThan(woff.length);
  const [was, is] = [fontkit.create(woff), fontkit.create(plain)];
  expect([is.postscriptName, is.characterSet]).toEqual([was.postscriptName, was.characterSet]);
  for (const code of was.characterSet.filter((c) => c < 0x180)) {
    const [a, b] = [was.glyphForCodePoint(code), is.glyphForCodePoint(code)];
    expect([code, b.advanceWidth, b.path.toSVG()]).toEqual([code, a.advanceWidth, a.path.toSVG()]);
  }
});
test('what is no such font, or is cut, is refused', () => {
  expect(() => unpackedFont(Buffer.from('wOF2, and so on'))).toThrow(/Not a font/);
  const whole = readFileSync(require.resolve(FACES[0]!));
  expect(() => unpackedFont(whole.subarray(0, whole.length - 20_000))).toThrow();
});

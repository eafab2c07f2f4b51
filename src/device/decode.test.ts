import sharp, { type Sharp } from 'sharp';
import { qrPath } from '@/chart/qr';
import { decode } from './decode';

const seen = async (svg: string, work: (s: Sharp) => Sharp = (s) => s) => {
  const { data, info } = await work(sharp(Buffer.from(svg), { density: 96 }))
    .flatten({ background: '#fff' })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return decode(new Uint8ClampedArray(data), info.width, info.height);
};
const svgOf = (size: number, path: string, on = '#000', ground = '#fff', scale = 6) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${(size + 8) * scale}" height="${(size + 8) * scale}" viewBox="-4 -4 ${size + 8} ${size + 8}"><rect x="-4" y="-4" width="100%" height="100%" fill="${ground}"/><path d="${path}" fill="${on}"/></svg>`;
const TEXT = 'https://office.example/l/g/01a225c1-ef22-70b8-81ce-3e9d8f41ccd0';

/** The bars of an EAN-13, by the standard: left halves by the parity that the first figure says. */
function ean13(figures: string): string {
  const L = [
    '0001101',
    '0011001',
    '0010011',
    '0111101',
    '0100011',
    '0110001',
    '0101111',
    '0111011',
    '0110111',
    '0001011',
  ];
  const flip = (b: string) => b.replace(/./g, (c) => (c === '0' ? '1' : '0'));
  const G = L.map((b) => [...flip(b)].reverse().join(''));
  const parity = [
    'LLLLLL',
    'LLGLGG',
    'LLGGLG',
    'LLGGGL',
    'LGLLGG',
    'LGGLLG',
    'LGGGLL',
    'LGLGLG',
    'LGLGGL',
    'LGGLGL',
  ];
  const d = [...figures].map(Number);
  const left = [...parity[d[0]!]!].map((p, i) => (p === 'L' ? L : G)[d[i + 1]!]).join('');
  const right = d
    .slice(7)
    .map((n) => flip(L[n]!))
    .join('');
  const bars = `101${left}01010${right}101`;
  return [...bars].map((b, x) => (b === '1' ? `M${x} 0h1v40h-1z` : '')).join('');
}

test('a label as it is printed, turned, light on dark, and in poor light', async () => {
  const { size, path } = qrPath(TEXT);
  expect(await seen(svgOf(size, path))).toBe(TEXT);
  expect(await seen(svgOf(size, path), (s) => s.rotate(17, { background: '#fff' }))).toBe(TEXT);
  expect(await seen(svgOf(size, path, '#fff', '#000'))).toBe(TEXT);
  expect(await seen(svgOf(size, path, '#4a4a4a', '#8a8a8a'), (s) => s.blur(1))).toBe(TEXT);
});
test('a code is read wherever it lies on the grid of the picture', async () => {
  const missed: string[] = [];
  for (let n = 0; n < 20; n++) {
    const text = TEXT.replace('ef22', (0xe000 + n * 61).toString(16)).replace(
      '41ccd0',
      (0x41ccd0 + n * 977).toString(16),
    );
    const { size, path } = qrPath(text);
    const wide = 240 + n;
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="700" height="420"><rect width="100%" height="100%" fill="#fff"/><path transform="translate(${40 + n / 7} ${30 + n / 5}) scale(${wide / size})" d="${path}"/></svg>`;
    if ((await seen(svg)) !== text) missed.push(`${n}: ${text}`);
  }
  expect(missed).toEqual([]);
});
test('the bars on a plate', async () => {
  expect(await seen(svgOf(95, ean13('4006381333931')))).toBe('4006381333931');
});
test('a picture without a code says so', async () => {
  expect(await seen(svgOf(40, 'M0 0h20v20h-20z'))).toBeNull();
  expect(decode(new Uint8ClampedArray(4), 1, 1)).toBeNull();
});

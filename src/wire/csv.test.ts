import { readCsv, writeCsv } from './csv';

const cell = (text: string) => readCsv(writeCsv([[text, 'x']]), ',')[0]![0]!;
test.each([
  '=1+1',
  '+a',
  '-a',
  '@SUM(A1)',
  '\t=1',
  '\n=1',
  ' =1',
  '\u00a0=1',
  '＝1',
  '＋1',
  '－1',
  '＠a',
  '\u200b=1',
  '\r=1',
])('a spreadsheet would run %j: an apostrophe stands before it', (text) => {
  expect(cell(text)).toBe(`'${text}`);
});
test.each(['-3', '+3.5', '-3,5', 'a=b', ' a', 'a-b', '', 'elbow – behind the oven', '20.35 mbar'])(
  '%j stays as it is',
  (text) => {
    expect(cell(text)).toBe(text);
  },
);

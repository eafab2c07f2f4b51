import * as fc from 'fast-check';
import { type LabelKind, labelPath, LABELS, meaningOf, pageOfLabel } from './codes';

const ORIGIN = 'https://office.example';
const ID = '01a225c1-ef22-70b8-81ce-3e9d8f41ccd0';
test.each(Object.keys(LABELS) as LabelKind[])(
  'a label %s is known, whatever address it was printed under',
  (kind) => {
    for (const base of [ORIGIN, 'http://192.168.1.9:3000'])
      expect(meaningOf(base + labelPath(kind, ID), ORIGIN)).toEqual({
        kind: 'label',
        of: LABELS[kind],
        id: ID,
      });
    expect(pageOfLabel(kind, ID)).toContain(ID);
  },
);
test.each([
  [`${ORIGIN}/check?number=VS-1#x`, { kind: 'page', path: '/check?number=VS-1#x' }],
  ['https://elsewhere.example/l/g/not-an-id', { kind: 'elsewhere', host: 'elsewhere.example' }],
  ['HTTPS://elsewhere.example/x', { kind: 'elsewhere', host: 'elsewhere.example' }],
  ['javascript:alert(1)', { kind: 'text', text: 'javascript:alert(1)' }],
  ['https://', { kind: 'text', text: 'https://' }],
  ['SN 40071\u001d\n', { kind: 'text', text: 'SN 40071' }],
])('%s', (text, means) => expect(meaningOf(text, ORIGIN)).toEqual(means));
test('whatever a code says, no other installation is opened by it', () =>
  fc.assert(
    fc.property(
      fc.oneof(
        fc.string(),
        fc.webUrl(),
        fc.webUrl().map((u) => `  ${u}`),
      ),
      (text) => {
        const code = meaningOf(text, ORIGIN);
        if (code.kind === 'page') expect(new URL(code.path, ORIGIN).origin).toBe(ORIGIN);
        if (code.kind === 'text') expect(code.text.length).toBeLessThanOrEqual(120);
      },
    ),
  ));

/** @jest-environment jsdom */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { renderToStaticMarkup } from 'react-dom/server.edge';
import { faceOf } from '@/core/record/face';
import { mustBeSeen } from '@/core/record/face-words';
import { readRecordFile } from '@/wire/record-file';
import { CertificateView } from './certificate';

const folder = path.join(process.cwd(), 'src/cli/golden');
const records = readdirSync(folder).map(
  (file) => [file, readRecordFile(readFileSync(path.join(folder, file), 'utf8'))] as const,
);
const GOOD: { good: boolean; faults: readonly string[] } = { good: true, faults: [] };
const bare = (text: string | null) => (text ?? '').replace(/\s+/g, ' ').trim();
/** What stands on the page with everything folded, and with everything open. */
function shown(node: HTMLElement) {
  const all = bare(node.textContent);
  const first = node.cloneNode(true) as HTMLElement;
  first.querySelectorAll('details').forEach((d) => d.remove());
  return { all, first: bare(first.textContent) };
}
/** As the server sends it: nothing of it waits for a script. */
const open = (body: string, seal: (typeof records)[number][1]['seal'], log: boolean, check = GOOD) => {
  document.body.innerHTML = renderToStaticMarkup(
    <CertificateView body={body} seal={seal} log={log} check={check} marks={['Void: wrong gauge']} />,
  );
  return shown(document.body);
};

test.each(records)(
  '%s: result, who, when, gauge and what must be seen are not folded; whatever its face says stands on the page',
  (_, r) => {
    const face = faceOf(r.body);
    const { verdict } = face.body;
    const { first, all } = open(r.body, r.seal, true);
    for (const words of [
      verdict.label,
      verdict.plain,
      r.seal.number,
      face.plan.site.name,
      face.plan.system.name,
      'Void: wrong gauge',
      'Checked now',
      ...face.sections.filter(mustBeSeen).flatMap((s) => [s.title, ...s.lines]),
      ...face.plan.gauges.filter((g) => g.id === face.state.gauge).map((g) => g.name),
    ])
      expect(first).toContain(bare(words));
    for (const words of [
      ...face.sections.flatMap((s) => [s.title, ...s.lines]),
      ...face.limits.flatMap((l) => [l.name, l.value]),
      ...face.cautions,
      ...face.putBack,
      face.plan.pack.notice,
      r.seal.hash,
    ])
      expect(all).toContain(bare(words));
  },
);
test('whoever may not see the log sees the same but what happened, step by step', () => {
  const [, r] = records.at(-1)!;
  const { all } = open(r.body, r.seal, false);
  for (const { title, lines } of faceOf(r.body).sections)
    for (const words of [title, ...lines]) expect(all).toContain(bare(words));
  expect(all).not.toContain('Everything that happened');
});
test('a record that does not stand says so before anything else, and never that it was checked', () => {
  const [, r] = records[0]!;
  const { first } = open(r.body, r.seal, true, { good: false, faults: ['Entry 12 was changed.'] });
  expect(document.querySelector('[role=alert]')!.textContent).toBe(
    'Do not rely on this record. Entry 12 was changed.',
  );
  expect(first).not.toContain('Checked now');
});

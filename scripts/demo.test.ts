/** The demo through the core alone: every run plays under the packs as shipped, and its verdicts are the ones its story tells. */
import { withListsOf, withNetwork } from '@/core/network/enter';
import { tradeOf } from '@/core/trades';
import { formOfNetwork, networkFromForm } from '@/wire/network';
import { networkSchema } from '@/wire/network-schema';
import { faceOf } from '@/core/record/face';
import { paperOf, papersOf } from '@/core/record/papers';
import { makeBody } from '@/core/record/record';
import { storyOf } from '@/core/record/story';
import { parseEvent } from '@/core/run/events';
import { reduce } from '@/core/run/reduce';
import { verdictOf } from '@/core/verdict/verdict';
import { systemSchema } from '@/wire/places';
import { formOfSystem, systemFromForm } from '@/wire/system-form';
import { copiedSystem } from '@/core/network/copied';
import { demoSystem, readDemo } from './demo-data';
import { playDemo } from './demo-play';

test('every entry of the demo is one that a device could have sent', () => {
  const wrong = playDemo().flatMap(({ plan, events }) =>
    events.flatMap(({ position: _p, received: _r, ...entry }) => {
      try {
        parseEvent(entry);
        return [];
      } catch (error) {
        return [`${plan.procedure.id}, ${entry.kind}: ${(error as Error).message}`];
      }
    }),
  );
  expect(wrong).toEqual([]);
});
test('every run of the demo plays, every sealed one has a verdict, and each kind is among them', () => {
  const runs = playDemo();
  const words = runs.map(
    (r) => [r.run.seal === true, verdictOf(r.plan, reduce(r.plan, r.events))?.label] as const,
  );
  expect(words.filter(([sealed, label]) => sealed && !label)).toEqual([]);
  expect(new Set(words.flatMap(([, label]) => label ?? []))).toEqual(
    new Set([
      'Tight',
      'Tight within allowance',
      'Not tight: limited use until repaired',
      'Not tight',
      'Void',
      'Did not withstand',
      'Withstood',
      'Vacuum held',
      'Own kit fit for use',
      'Inconclusive',
      'Refer',
    ]),
  );
});

const TYPED = [
  'text',
  'reason',
  'short',
  'caption',
  'note',
  'where',
  'mark',
  'told',
  'refused',
  'as',
  'place',
  'serial',
  'means',
  'sealedBy',
  'why',
  'fee',
];
/** Everything in an entry that a person typed, not what was chosen from a list. */
const typedIn = (value: unknown, key = ''): string[] =>
  typeof value === 'string'
    ? TYPED.includes(key) && value.trim()
      ? [value.trim().replace(/\.$/, '')]
      : []
    : value && typeof value === 'object'
      ? Object.entries(value).flatMap(([k, v]) => (k === 'points' ? [] : typedIn(v, k)))
      : [];

test('every text a person typed stands on the record page and is printed', () => {
  let texts = 0;
  const missing: string[] = [];
  for (const { run, index, plan, events } of playDemo()) {
    if (!run.seal) continue;
    const sealer = { id: events[0]!.by, name: run.by, role: 'owner', licence: null } as const;
    const face = faceOf(
      makeBody(
        plan,
        events,
        { sealer, signer: sealer },
        new Date(Date.parse(plan.made.at) + 864e5).toISOString(),
      ).body,
    );
    const plain = (x: unknown) => JSON.stringify(x).toLowerCase();
    const page = plain(
      [face, storyOf(face, events).map((e) => e.what)].map((x) => ({ ...x, body: 0, plan: 0, state: 0 })),
    );
    const printed = plain([
      face.sections,
      face.putBack,
      face.skipped,
      face.body.verdict,
      face.state.signatures.map((s) => [s.name, s.refused, s.as]),
      ...papersOf(face)
        .filter((p) => !['certificate', 'ticket'].includes(p.kind))
        .map((p) => paperOf(face, p.kind)),
    ]);
    for (const e of events) {
      if (e.kind === 'check' || e.kind === 'stop') continue;
      for (const text of typedIn(e)) {
        if ((e.kind === 'stop-reason' || e.kind === 'skip') && text === e.reason) continue; // chosen from a list
        texts += 1;
        const words = JSON.stringify(text).slice(1, -1).toLowerCase();
        if (!page.includes(words)) missing.push(`run ${index}: "${text}" (${e.kind}) not on the page`);
        if (!printed.includes(words)) missing.push(`run ${index}: "${text}" (${e.kind}) not printed`);
      }
    }
  }
  expect(missing).toEqual([]);
  expect(texts).toBeGreaterThan(100);
});

/** Figures by their amount: how many zeros stood behind them is no difference. */
const amounts = (value: unknown): unknown =>
  JSON.parse(
    JSON.stringify(value, (_key, v: unknown) => {
      const e = v as { digits?: number; scale?: number; unit?: string } | null;
      return e && typeof e === 'object' && e.digits !== undefined
        ? `${e.digits / 10 ** e.scale!} ${e.unit}`
        : v;
    }),
  );
test('a copied installation is drawn and counted like the first, and says nothing that was seen or printed there alone', () => {
  for (const site of readDemo().sites)
    for (const [i, entered] of site.systems.entries()) {
      const from = withListsOf(demoSystem(entered, `00000000-0000-4000-8000-00000000000${i}`));
      const copy = copiedSystem(from, 'copy', 'Another');
      const known = JSON.stringify(copy);
      expect([copy.id, copy.name]).toEqual(['copy', 'Another']);
      expect(copy.pipes).toEqual(from.pipes);
      expect(copy.appliances.map((a) => [a.name, a.volume])).toEqual(
        from.appliances.map((a) => [a.name, a.volume]),
      );
      expect(copy.network!.parts.map((p) => p.id)).toEqual(from.network!.parts.map((p) => p.id));
      expect(known).not.toMatch(/"(serial|certificate|measured|seen|looks|foundEnds|noValves|heights)":/);
      // a second copy says the same
      expect(copiedSystem(copy, 'copy', 'Another')).toEqual(copy);
    }
});
test('what the demo has a user can enter: a system made through the form alone is its demo twin', () => {
  for (const site of readDemo().sites)
    for (const [i, entered] of site.systems.entries()) {
      const twin = withListsOf(demoSystem(entered, `00000000-0000-4000-8000-00000000000${i}`));
      const form = formOfSystem(twin);
      expect(() => systemSchema.validateSync(form, { strict: true })).not.toThrow();
      // where the ends of a pool are, which pipe runs between which, how ducts branch: it is said on the drawing
      const { parted, unpiped } = tradeOf(twin);
      const drawn =
        parted || unpiped
          ? networkFromForm(networkSchema.validateSync(formOfNetwork(twin.network!), { strict: true }))
          : null;
      if (drawn) expect(amounts(drawn)).toEqual(amounts(twin.network));
      const before = drawn ? withNetwork(twin, drawn) : null;
      expect(amounts(systemFromForm(form, before, twin.id))).toEqual(amounts(twin));
    }
});

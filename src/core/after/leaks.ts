/**
 * The leak book of an installation: what was found and where, what was done about it, and the test that proves it. A list of
 * entries that only grows; how a leak stands follows from it and from the sealed records of the installation.
 */
import * as yup from 'yup';
import { oneOf } from '@/core/grammar/one-of';
import type { Of } from '@/core/grammar/schema';
import { BUBBLE_SIZES, type BubbleSize } from '@/core/kinds/joints/entries';
import { hash, id, integer, maybeOne, one, text, word } from '@/core/run/field';
import type { RunState } from '@/core/run/state';
import { isGood, type VerdictWord } from '@/core/verdict/words';

/** How a leak shows itself. */
export const FOUND_BY = {
  fluid: 'leak fluid',
  detector: 'detector',
  parts: 'parts held by themselves',
  ear: 'listening',
  dye: 'dye',
  seen: 'seen or felt',
  smell: 'smell',
} as const;
export type FoundBy = keyof typeof FOUND_BY;

const part01 = () => yup.number().strict(true).required().min(0).max(1);
const minutes = () => yup.number().strict(true).integer().min(0).max(100_000).optional();
/** Typed, no payment: counted in hundredths. */
const cost = () =>
  yup
    .object({ amount: integer().min(0).max(100_000_000), currency: word(8) })
    .noUnknown()
    .strict(true)
    .optional()
    .default(undefined);
const BODIES = {
  found: yup.object({
    joint: word(120),
    how: one(Object.keys(FOUND_BY) as FoundBy[]),
    size: maybeOne(BUBBLE_SIZES),
    /** The part of the drawing it is at. */
    part: text(80),
    /** A photo that hangs on that part, and the spot on it, from the left and from above. */
    photo: hash().optional(),
    spot: yup.object({ x: part01(), y: part01() }).noUnknown().strict(true).optional().default(undefined),
    /** The test in which it was found. */
    run: id().optional(),
    text: text(500),
  }),
  /** Vented and made safe. */
  safe: yup.object({ how: word(300) }),
  repaired: yup.object({
    what: word(300),
    by: word(120),
    parts: text(300),
    /** Not pressed before then: cement, sealant; ms UTC. */
    cured: integer().min(0).optional(),
    minutes: minutes(),
    cost: cost(),
  }),
  note: yup.object({ text: word(500) }),
  /** It was no leak, or is gone with the pipe: nothing is tested for it. */
  closed: yup.object({ why: word(300) }),
};
type Bodies = typeof BODIES;
export type LeakBody = { [K in keyof Bodies]: Of<Bodies[K]> & { readonly kind: K } }[keyof Bodies];
export const leakBodySchema = oneOf('kind', BODIES);

export interface LeakEntry {
  readonly id: string;
  /** The leak it belongs to: the id of the entry that found it. */
  readonly leak: string;
  readonly at: number;
  readonly byName: string;
  readonly body: LeakBody;
}
/** A sealed record of the same installation. */
export interface LeakTest {
  readonly run: string;
  readonly number: string;
  readonly at: number;
  readonly word: VerdictWord;
  readonly label: string;
  readonly procedure: string;
  /** Of the whole test, from its plan to its end. */
  readonly minutes: number;
  /** Somebody else stood there and signed for it: a demonstration. */
  readonly shown: boolean;
  readonly retestOf: string | null;
}
type Found = Extract<LeakBody, { kind: 'found' }>;
export interface Leak {
  readonly id: string;
  /** From 1, in the order they were found. */
  readonly n: number;
  readonly at: number;
  readonly byName: string;
  readonly found: Found;
  /** What followed, the oldest first. */
  readonly entries: readonly LeakEntry[];
  /** Tests after the newest repair, or of the test in which it was found. */
  readonly retests: readonly LeakTest[];
  readonly state: 'open' | 'safe' | 'curing' | 'repaired' | 'holds' | 'closed';
  /** Not pressed before; ms UTC, null where nothing cures. */
  readonly cured: number | null;
}

/** How each leak stands. Entries in any order and any number of times give the same. @param now ms UTC */
export function leaksOf(entries: readonly LeakEntry[], tests: readonly LeakTest[], now: number): Leak[] {
  const log = [...new Map(entries.map((e) => [e.id, e])).values()].sort(
    (a, b) => a.at - b.at || (a.id < b.id ? -1 : 1),
  );
  const first = log.filter((e) => e.id === e.leak && e.body.kind === 'found');
  return first.map((e, i) => {
    const found = e.body as Found;
    const own = log.filter((x) => x.leak === e.id && x.id !== e.id);
    const repaired = own.filter((x) => x.body.kind === 'repaired');
    const mended = repaired[repaired.length - 1];
    const since = mended?.at ?? Infinity;
    const retests = tests
      .filter(
        (t) => t.run !== found.run && (t.at > since || (found.run !== undefined && t.retestOf === found.run)),
      )
      .sort((a, b) => a.at - b.at);
    const cured = mended?.body.kind === 'repaired' ? (mended.body.cured ?? null) : null;
    const last = retests[retests.length - 1];
    return {
      id: e.id,
      n: i + 1,
      at: e.at,
      byName: e.byName,
      found,
      entries: own,
      retests,
      cured,
      state: own.some((x) => x.body.kind === 'closed')
        ? 'closed'
        : last && isGood(last.word)
          ? 'holds'
          : mended && !last
            ? cured !== null && cured > now
              ? 'curing'
              : 'repaired'
            : own.some((x) => x.body.kind === 'safe')
              ? 'safe'
              : 'open',
    };
  });
}
/** How a leak stands, in words. */
export const LEAK_STATES: Readonly<Record<Leak['state'], string>> = {
  open: 'not mended',
  safe: 'made safe, not mended',
  curing: 'mended, curing',
  repaired: 'mended, waits for its test',
  holds: 'mended and shown by a test',
  closed: 'closed',
};
/** Whether a place still has something to do for it. */
export const stillOpen = (l: Leak): boolean => l.state !== 'holds' && l.state !== 'closed';

export interface LeakCount {
  readonly found: number;
  readonly open: number;
  readonly repairs: number;
  /** Tests after repairs: of the tester alone, and those that somebody else was shown. */
  readonly retests: { readonly own: number; readonly shown: number };
  readonly minutes: { readonly repairs: number; readonly retests: number };
  /** Hundredths, by what they were typed in. */
  readonly cost: Readonly<Record<string, number>>;
}
export function countLeaks(leaks: readonly Leak[]): LeakCount {
  const repairs = leaks.flatMap((l) =>
    l.entries.flatMap((e) => (e.body.kind === 'repaired' ? [e.body] : [])),
  );
  const retests = [...new Map(leaks.flatMap((l) => l.retests.map((t) => [t.run, t] as const))).values()];
  const cost: Record<string, number> = {};
  for (const { cost: c } of repairs) if (c) cost[c.currency] = (cost[c.currency] ?? 0) + c.amount;
  return {
    found: leaks.length,
    open: leaks.filter(stillOpen).length,
    repairs: repairs.length,
    retests: { own: retests.filter((t) => !t.shown).length, shown: retests.filter((t) => t.shown).length },
    minutes: {
      repairs: repairs.reduce((sum, r) => sum + (r.minutes ?? 0), 0),
      retests: retests.reduce((sum, t) => sum + t.minutes, 0),
    },
    cost,
  };
}
const many = (n: number, one: string, more = `${one}s`): string => `${n} ${n === 1 ? one : more}`;
/** Hundredths as an amount. */
export const amountWords = (amount: number, currency: string): string =>
  `${(amount / 100).toFixed(2)} ${currency}`;
/** The book in a line. */
export function countWords(c: LeakCount): string {
  const time = c.minutes.repairs + c.minutes.retests;
  const spent = Object.entries(c.cost).map(([currency, amount]) => amountWords(amount, currency));
  return [
    `${many(c.found, 'leak')} found, ${c.open} still open`,
    many(c.repairs, 'repair'),
    `${many(c.retests.own + c.retests.shown, 'test')} after them${c.retests.shown ? `, ${c.retests.shown} of them shown to somebody` : ''}`,
    ...(time ? [`${Math.round(time)} min in all`] : []),
    ...spent,
  ].join('; ');
}
const BUBBLES: Readonly<Record<BubbleSize, string>> = {
  pinhead: 'bubbles like a pinhead',
  pea: 'bubbles like a pea',
  larger: 'large bubbles',
};
/** One entry in words. */
export function leakEntryWords(body: LeakBody): string {
  switch (body.kind) {
    case 'found':
      return `found by ${FOUND_BY[body.how]}${body.size ? `, ${BUBBLES[body.size]}` : ''}${body.text ? `: ${body.text}` : ''}`;
    case 'safe':
      return `made safe: ${body.how}`;
    case 'repaired':
      return `mended by ${body.by}: ${body.what}${body.parts ? `; parts: ${body.parts}` : ''}${body.minutes ? `; ${body.minutes} min` : ''}${body.cost ? `; ${amountWords(body.cost.amount, body.cost.currency)}` : ''}`;
    case 'note':
      return body.text;
    case 'closed':
      return `closed: ${body.why}`;
  }
}
/**
 * Leaks that a run found by itself: joints of the installation at which leak fluid showed growing bubbles.
 * @returns what stands in the book of it, by the id of the joint
 */
export const leaksInRun = (run: string, state: Pick<RunState, 'joints'>): { joint: string; body: Found }[] =>
  state.joints.flatMap((j) => {
    const look = [...j.looks].reverse().find((l) => l.found === 'growing');
    return look && !j.whose
      ? [
          {
            joint: j.id,
            body: {
              kind: 'found' as const,
              joint: j.name,
              how: 'fluid' as const,
              ...(look.size ? { size: look.size } : {}),
              part: '',
              run,
              text: j.place,
            },
          },
        ]
      : [];
  });

/** A leak with all that was done about it, in one line. */
export const leakWords = (l: Leak): string =>
  [
    `${l.found.joint} (${LEAK_STATES[l.state]})`,
    leakEntryWords(l.found),
    ...l.entries.map((e) => leakEntryWords(e.body)),
  ].join('; ');

/** A scenario as a form has it: words and choices in fields, what is a programme of its own as JSON beneath them. */
import type { Conduct, Happening, Scenario } from '@/core/yard/scenario';

export interface ScenarioForm {
  id: string;
  title: string;
  level: string;
  minutes: string;
  briefing: string;
  traps: string[];
  /** Hidden by name; '': by what stands in `hidden` alone. */ as: string;
  hidden: string;
  result: string[];
  cause: string[];
  place: string[];
  tells: string;
  happenings: {
    id: string;
    stage: string;
    holding: boolean;
    after: string;
    over: string;
    who: string;
    says: string;
    answers: { key: string; text: string; good: boolean; danger: string; then: string }[];
    more: string;
  }[];
  common: string[];
  own: string;
  proof: string[];
  conducts: {
    name: string;
    good: boolean;
    cause: string;
    place: string;
    caught: string[];
    more: string;
  }[];
}
const written = (value: object): string => (Object.keys(value).length ? JSON.stringify(value, null, 2) : '');
/** JSON that somebody wrote; empty stands for nothing. @throws Error naming what it belongs to */
function read(text: string, of: string, empty: unknown): unknown {
  if (!text.trim()) return empty;
  try {
    return JSON.parse(text) as unknown;
  } catch (error) {
    throw new Error(`${of}: this is not JSON (${(error as Error).message}).`);
  }
}
const given = (o: Record<string, unknown>) =>
  Object.fromEntries(
    Object.entries(o).filter(([, v]) => v !== '' && v !== false && !(Array.isArray(v) && v.length === 0)),
  );

export function formOf(s: Scenario): ScenarioForm {
  const { as = '', ...hidden } = s.hidden as Record<string, unknown> & { as?: string };
  return {
    id: s.id,
    title: s.title,
    level: String(s.level),
    minutes: String(s.minutes),
    briefing: s.briefing,
    traps: [...s.traps],
    as,
    hidden: written(hidden),
    result: [...s.truth.result],
    cause: [...s.truth.cause],
    place: [...(s.truth.place ?? [])],
    tells: s.truth.tells,
    happenings: (s.happenings ?? []).map(({ id, when, who, says, answers, ...more }) => ({
      id,
      stage: when.stage ?? '',
      holding: when.holding ?? false,
      after: when.after ?? '',
      over: when.over ?? '',
      who: who ?? '',
      says,
      answers: (answers ?? []).map((a) => ({
        key: a.key,
        text: a.text,
        good: a.good ?? false,
        danger: a.danger ?? '',
        then: a.then ?? '',
      })),
      more: written({ ...(when.answered ? { answered: when.answered } : {}), ...given({ ...more }) }),
    })),
    common: s.criteria.filter((c) => typeof c === 'string'),
    own: written(s.criteria.filter((c) => typeof c !== 'string')),
    proof: [...s.proof],
    conducts: s.conducts.map(({ name, good, caught, concludes, ...more }) => ({
      name,
      good: good ?? false,
      cause: concludes?.cause ?? '',
      place: concludes?.place ?? '',
      caught: [...(caught ?? [])],
      more: written(given({ ...more })),
    })),
  };
}
/** @param from what no field stands for is as it was there @throws Error in words for whoever writes it */
export function scenarioOf(f: ScenarioForm, from: Scenario): unknown {
  return {
    ...from,
    id: f.id.trim(),
    title: f.title.trim(),
    level: Number(f.level),
    minutes: Number(f.minutes),
    briefing: f.briefing.trim(),
    traps: f.traps,
    hidden: { ...(f.as ? { as: f.as } : {}), ...(read(f.hidden, 'What is hidden', {}) as object) },
    truth: {
      result: f.result,
      cause: f.cause,
      ...(f.place.length ? { place: f.place } : {}),
      tells: f.tells.trim(),
    },
    happenings: f.happenings.map((h, i) => happeningOf(h, i)),
    criteria: [...f.common, ...(read(f.own, 'Criteria of its own', []) as unknown[])],
    proof: f.proof,
    conducts: f.conducts.map((c) => conductOf(c)),
  };
}
function happeningOf(h: ScenarioForm['happenings'][number], i: number): Partial<Happening> {
  const { answered, ...more } = read(h.more, `What comes in between, ${i + 1}`, {}) as Record<
    string,
    unknown
  >;
  return {
    id: h.id.trim(),
    when: given({
      stage: h.stage,
      holding: h.holding,
      after: h.after.trim(),
      over: h.over.trim(),
      answered: answered ?? '',
    }),
    says: h.says.trim(),
    ...given({ who: h.who.trim() }),
    ...(h.answers.length
      ? {
          answers: h.answers.map((a) => ({
            key: a.key.trim(),
            text: a.text.trim(),
            ...given({ good: a.good, danger: a.danger.trim(), then: a.then.trim() }),
          })),
        }
      : {}),
    ...more,
  } as Partial<Happening>;
}
const conductOf = (c: ScenarioForm['conducts'][number]): Partial<Conduct> =>
  ({
    name: c.name.trim(),
    ...given({ good: c.good, caught: c.caught }),
    ...(c.cause ? { concludes: { cause: c.cause, ...given({ place: c.place }) } } : {}),
    ...(read(c.more, `Conduct “${c.name}”`, {}) as object),
  }) as Partial<Conduct>;
/** Ids of the criteria that a form asks for, its own among them; those that every scenario has stand at the end. */
export function criteriaIn(f: Pick<ScenarioForm, 'common' | 'own'>): string[] {
  let own: unknown = [];
  try {
    own = read(f.own, '', []);
  } catch {
    /* said where it is written */
  }
  const ids = Array.isArray(own)
    ? own.flatMap((c: { id?: unknown }) => (typeof c?.id === 'string' ? [c.id] : []))
    : [];
  return [...f.common, ...ids];
}
export const ALWAYS = ['result', 'cause', 'place'];

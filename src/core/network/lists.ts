/**
 * The lists that rules read of a section, each the parts of one kind: what the catalogue knows of the kind stands in a row
 * under its own key, or under the one that rules have always called it by. Form, drawing and rules bring rows and parts
 * together by this table; a kind that is to be listed gets a line here.
 */
import { OPTIONAL_VALVES, type System } from '@/core/installation/section';
import { type Fact, type FactRule, type PartKind, ruleOfPart } from './catalogue';

export interface PartList {
  readonly kind: PartKind;
  /** Facts that a row calls otherwise than the catalogue. */
  readonly as?: Readonly<Record<string, string>>;
  /** Only these facts stand in a row; absent: all there are. */
  readonly facts?: readonly string[];
  /** Answers that may be given in a row; the others belong to parts that stand elsewhere. */
  readonly answers?: Readonly<Record<string, readonly string[]>>;
  /** Facts that rules read without asking whether they are there: empty where nobody said them. */
  readonly always?: readonly string[];
  /** A row says no place. */
  readonly placeless?: true;
  /** A row names the valve on the same branch. */
  readonly valve?: true;
}
export const PART_LISTS = {
  appliances: { kind: 'appliance', as: { type: 'kind' }, always: ['type'], valve: true },
  valves: { kind: 'valve', as: { use: 'kind' }, facts: ['use'], answers: { use: OPTIONAL_VALVES } },
  regulators: { kind: 'regulator' },
  joints: { kind: 'joint' },
  elements: { kind: 'fitting' },
  factoryTested: { kind: 'tested', placeless: true },
  surfaces: { kind: 'opening', placeless: true },
  connections: { kind: 'connection' },
  outlets: { kind: 'outlet' },
  condensing: { kind: 'condensing' },
  evaporators: { kind: 'evaporator' },
  receivers: { kind: 'receiver' },
  expansions: { kind: 'expansion' },
  handlers: { kind: 'handler' },
  registers: { kind: 'register' },
  intakes: { kind: 'intake' },
  loops: { kind: 'loop', always: ['flowMeter'], placeless: true },
} as const satisfies { readonly [K in keyof System]?: PartList };
export type PartListKey = keyof typeof PART_LISTS;
export const PART_LIST_KEYS = Object.keys(PART_LISTS) as PartListKey[];
export const listRule = (list: PartListKey): PartList => PART_LISTS[list];

/** A row of a list: the part's id and name, perhaps its place, and what is known of it. */
export interface ListRow {
  readonly id: string;
  readonly name: string;
  readonly place?: string;
  readonly [fact: string]: Fact | undefined;
}
export const rowsOf = (section: System, list: PartListKey): readonly ListRow[] =>
  (section[list] ?? []) as unknown as readonly ListRow[];

/** What is asked in a row: the key it has there, the catalogue's own, and the catalogue's rule. */
export function columnsOf(
  list: PartListKey,
): { readonly field: string; readonly key: string; readonly rule: FactRule }[] {
  const { kind, as, facts, answers } = listRule(list);
  return Object.entries(ruleOfPart(kind).facts)
    .filter(([key]) => !facts || facts.includes(key))
    .map(([key, rule]) => ({
      field: as?.[key] ?? key,
      key,
      rule:
        rule.kind === 'one-of' && answers?.[key]
          ? {
              ...rule,
              options: Object.fromEntries(answers[key].map((a) => [a, rule.options[a]!])),
            }
          : rule,
    }));
}
/** Everything that is entered in a row: its name, where it is, its valve, and what the catalogue asks. */
export function cellsOf(
  list: PartListKey,
): { readonly field: string; readonly rule: FactRule; readonly always?: boolean }[] {
  const { placeless, valve, always } = listRule(list);
  const own = (field: string, rule: FactRule) => ({ field, rule, always: true });
  return [
    own('name', { label: ruleOfPart(listRule(list).kind).word, kind: 'words', most: 80, needed: true }),
    ...(placeless ? [] : [own('place', { label: 'Where', hint: 'room or wall', kind: 'words', most: 80 })]),
    ...(valve ? [own('valve', { label: 'Its valve', kind: 'words', most: 80, needed: true })] : []),
    ...columnsOf(list).map(({ field, key, rule }) => ({
      field,
      rule,
      always: always?.includes(key) === true,
    })),
  ];
}
/** What a row says, under the catalogue's keys. */
export const factsOfRow = (list: PartListKey, row: ListRow): Readonly<Record<string, Fact | undefined>> =>
  Object.fromEntries(columnsOf(list).map(({ field, key }) => [key, row[field]]));

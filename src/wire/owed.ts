import { FOLLOW_UPS, type FollowUpKind } from '@/core/after/follow-ups';
import * as yup from 'yup';
import { isDay } from '@/core/quantity/local-date';
import { list, NO_DAY, shape, text, uuid } from './figure';

export const OWED_GROUPS = { week: 'week', place: 'place', person: 'person', kind: 'kind' } as const;
export type OwedGroup = keyof typeof OWED_GROUPS;
export const OWED_WHEN = { late: 'was due', week: 'within a week', month: 'within a month' } as const;
/** Whose it is: a person's id, one's own, or nobody's. */
export const MINE = 'mine';
export const NOBODYS = 'nobody';
/** What narrows the list of what is owed, as it stands in the address. */
export const owedQuerySchema = yup
  .object({
    find: yup.string().strict(true).max(100).optional(),
    kind: yup
      .string<FollowUpKind>()
      .strict(true)
      .oneOf(Object.keys(FOLLOW_UPS) as FollowUpKind[])
      .optional(),
    owner: yup
      .string()
      .strict(true)
      .matches(/^([0-9a-f-]{36}|mine|nobody)$/)
      .optional(),
    when: yup
      .string<keyof typeof OWED_WHEN>()
      .strict(true)
      .oneOf(Object.keys(OWED_WHEN) as (keyof typeof OWED_WHEN)[])
      .optional(),
    group: yup
      .string<OwedGroup>()
      .strict(true)
      .oneOf(Object.keys(OWED_GROUPS) as OwedGroup[])
      .required(),
  })
  .required();
export type OwedQuery = yup.InferType<typeof owedQuerySchema>;
/** The part of an address that is understood; what is not narrows nothing. */
export function owedQueryFrom(params: Readonly<Record<string, string | string[] | undefined>>): OwedQuery {
  const said: Record<string, string> = {};
  for (const key of Object.keys(owedQuerySchema.fields)) {
    const value = params[key];
    if (typeof value !== 'string' || !value) continue;
    if (owedQuerySchema.isValidSync({ group: 'week', [key]: value })) said[key] = value;
  }
  return owedQuerySchema.validateSync({ group: 'week', ...said });
}
/** So many are shown, and seen to at once. */
export const MOST_OWED = 200;
/** What is done with several at once: handed on, put to another day, closed with a reason. */
export const seeToSchema = shape({
  ids: list(uuid(), MOST_OWED).min(1, 'choose at least one'),
  owner: text(36)
    .matches(/^([0-9a-f-]{36}|nobody)$/, 'is not an id')
    .optional(),
  due: yup
    .string()
    .strict(true)
    .optional()
    .test('day', NO_DAY, (v) => v === undefined || isDay(v)),
  close: text(500).optional(),
}).test('something', 'Say what is to be done with them.', (v) =>
  Boolean(v && (v.owner !== undefined || v.due !== undefined || v.close !== undefined)),
);
export type SeeTo = yup.InferType<typeof seeToSchema>;
export interface SeenTo {
  readonly done: number;
  /** What was refused, and why. */
  readonly refused: readonly { readonly id: string; readonly text: string }[];
}

import { MOST_SEQUENCE, zone } from '@/core/run/field';
import * as yup from 'yup';
import { eventSchema } from '@/core/run/events';
import type { RunEvent } from '@/core/run/events';
import { UNITS } from '@/core/quantity/unit';
import { free, list, shape, text, uuid } from './figure';
import { carriedClaimSchema } from './carried';
import { attendanceFields, choicesField, sectionField } from '@/wire/attendance';

/** Sign-in form and route. */
export const signInSchema = shape({
  email: text(200).matches(/^[^\s@]+@[^\s@]+$/, 'Type your e-mail address, like imre@hollin.example.'),
  password: text(200),
});
/** Starting a run on a system. */
export const startRunSchema = shape({
  id: uuid(),
  system: uuid(),
  pack: text(60),
  procedure: text(60),
  case: text(40),
  choices: choicesField(),
  practice: yup.boolean().strict(true).required(),
  ...attendanceFields(),
  /** Of several sections of the place the one that is meant. */
  section: sectionField(),
  /** The failed record this run repeats. */
  retestOf: yup
    .string()
    .strict(true)
    .matches(/^[0-9a-f-]{36}$/, 'is not an id')
    .optional(),
  /** The gauge that is to stand ready. */
  gauge: yup
    .string()
    .strict(true)
    .matches(/^[0-9a-f-]{36}$/, 'is not an id')
    .optional(),
  fault: yup.string().strict(true).max(40).optional(),
  /** Runs side by side: the pack's name for it, and both runs by their procedure. */
  beside: yup
    .object({
      id: text(60),
      runs: yup
        .array()
        .of(shape({ run: uuid(), procedure: text(60) }))
        .strict(true)
        .length(2)
        .required(),
    })
    .noUnknown()
    .strict(true)
    .optional()
    .default(undefined),
  /** The planned visit and the test of it that begins with this run. */
  visit: yup
    .object({ id: uuid(), test: text(60) })
    .noUnknown()
    .strict(true)
    .optional()
    .default(undefined),
  zone: zone(),
  /** It was begun without a signal: the plan is made again here. */
  carried: carriedClaimSchema.optional().default(undefined),
});
export type StartRun = yup.InferType<typeof startRunSchema>;

/** Rules: copying a pack, editing a house pack, importing a file. */
export const copyPackSchema = shape({
  pack: text(60),
  version: text(20),
  id: text(60).matches(/^[a-z0-9-]{3,60}$/, 'must be lower-case letters, digits and dashes, like house-gas'),
});
export const editPackSchema = shape({
  version: text(20),
  edits: yup
    .array()
    .of(
      shape({
        procedure: text(60),
        at: yup.array().of(yup.mixed<string | number>().required()).strict(true).min(1).max(12).required(),
        value: yup.string().strict(true).max(60).nullable().defined(),
        reason: yup.string().strict(true).max(500).defined(),
      }),
    )
    .strict(true)
    .min(1)
    .max(200)
    .required(),
});
/** Whether the house works to the school of a pack. */
export const packAsideSchema = shape({ aside: yup.boolean().strict(true).required() });
/** Which edition, clause and jurisdiction the organisation works to, by source; an empty line takes it back. */
export const editionsSchema = shape({
  editions: list(
    shape({ source: free(1000), edition: free(80), clause: free(80), jurisdiction: free(80) }),
    400,
  ),
});
export const importPackSchema = shape({ text: text(2_000_000) });

/** A batch of events from a device. */
export const batchSchema = shape({
  events: yup.array().of(eventSchema).strict(true).required().min(1).max(500),
});
export interface Batch {
  readonly events: readonly RunEvent[];
}
/** The place of an entry in its run; `event`: as the office keeps it, where that is not as it was sent. */
export interface EventPlace {
  readonly id: string;
  readonly position: number;
  readonly received: number;
  readonly event?: RunEvent;
}
/** Where each event of a batch came to stand; `now` is the server's clock for the device's offset. */
export interface BatchAnswer {
  readonly placed: readonly EventPlace[];
  readonly now: number;
}

/** Pairing of a gauge by the code shown on the bench, and its batches: the public ingest protocol (docs/gauge-protocol.md). */
/** `device`: what it says of itself, to be told from others. */
export const pairSchema = shape({
  code: text(40),
  device: yup.string().strict(true).trim().max(60).optional(),
});
const points = () =>
  yup
    .array()
    .of(yup.array().of(yup.number().strict(true).integer().required()).length(2).required())
    .strict(true);
/** Digits of a second display, a flow, one for each point; null where it shows dashes: below its range. */
const flows = () =>
  yup
    .array()
    .of(yup.number().strict(true).integer().min(0).max(1_000_000_000).nullable().defined())
    .strict(true)
    .max(600);
export const gaugeBatchSchema = shape({
  live: points().min(1).max(60).required(),
  scale: yup.number().strict(true).integer().min(0).max(6).required(),
  unit: text(10).oneOf(Object.keys(UNITS)),
  /** A gauge with two displays: the unit and the steps of the flow, and its digits beside the live points. */
  flow: yup
    .object({
      unit: text(10).oneOf(Object.keys(UNITS).filter((u) => UNITS[u as 'CFM'].dimension === 'flow')),
      scale: yup.number().strict(true).integer().min(0).max(6).required(),
      live: flows().min(1).required(),
    })
    .noUnknown()
    .strict(true)
    .optional()
    .default(undefined),
  /** A probe on the pipe: what it shows now. */
  temperature: yup
    .object({
      unit: text(1).oneOf(['C', 'F']),
      scale: yup.number().strict(true).integer().min(0).max(2).required(),
      digits: yup.number().strict(true).integer().min(-100_000).max(100_000).required(),
    })
    .noUnknown()
    .strict(true)
    .optional()
    .default(undefined),
  batch: yup
    .object({
      id: uuid(),
      sequence: yup.number().strict(true).integer().min(1).max(MOST_SEQUENCE).required(),
      points: points().min(1).max(600).required(),
      flows: flows().optional(),
    })
    .noUnknown()
    .strict(true)
    .optional()
    .default(undefined),
}).test('pairs', (v, context) => {
  const short = (path: string) =>
    context.createError({ path, message: 'has as many flows as there are points, read at the same moments' });
  if (v.flow && v.flow.live.length !== v.live.length) return short('flow.live');
  const { batch } = v;
  if (batch?.flows && !v.flow)
    return context.createError({ path: 'flow', message: 'says the unit and the steps of the flows' });
  return batch?.flows && batch.flows.length !== batch.points.length ? short('batch.flows') : true;
});
export type GaugeBatch = yup.InferType<typeof gaugeBatchSchema>;

/** Handwork on the simulated installation. */
export const simulatedActionSchema = shape({
  /** What there is to do is said by the installation (core/simulation/hands). */
  act: text(20),
  value: yup.string().strict(true).max(60).optional(),
  id: yup.string().strict(true).max(60).optional(),
});
export type SimulatedRequest = yup.InferType<typeof simulatedActionSchema>;

/** What an answer says when something was wrong: a code, and a text that says what to do. */
export interface Trouble {
  readonly error: { readonly code: string; readonly text: string; readonly path?: string };
}

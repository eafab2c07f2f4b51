/** Every kind of stage there is. A new one is its folder, its panel on the bench and two lines here. */
import { oneOf } from '@/core/grammar/one-of';
import type * as yup from 'yup';
import { bucket } from './bucket/rule';
import { cure } from './cure/rule';
import { cylinder } from './cylinder/rule';
import { fan } from './fan/rule';
import { checks } from './checks/rule';
import { dial } from './dial/rule';
import { drawDown } from './draw-down/rule';
import { fill } from './fill/rule';
import { hold } from './hold/rule';
import { inventory } from './inventory/rule';
import { isolate } from './isolate-and-repeat/rule';
import { joints } from './joints/rule';
import { listen } from './listen/rule';
import { map } from './map/rule';
import { observe } from './observe/rule';
import { plugs } from './plugs/rule';
import { smoke } from './smoke/rule';
import { pump } from './pump/rule';
import { volume } from './volume/rule';
import { zero } from './zero/rule';
import type { KindRule, StageOf } from './kind';

const KINDS = [
  checks,
  zero,
  fill,
  pump,
  drawDown,
  hold,
  observe,
  isolate,
  dial,
  joints,
  inventory,
  volume,
  map,
  plugs,
  bucket,
  cure,
  listen,
  cylinder,
  fan,
  smoke,
] as const;

type Known = (typeof KINDS)[number];
/** A stage of any kind. */
export type Stage = { [K in Known as K['name']]: StageOf<K['name'], K['schema']> }[Known['name']];
export type StageKind = Stage['kind'];
export const KIND_NAMES: readonly StageKind[] = KINDS.map((k) => k.name);
type Named<N extends StageKind> = Extract<Stage, { readonly kind: N }>;
export type ChecksStage = Named<'checks'>;
export type ZeroStage = Named<'zero'>;
export type FillStage = Named<'fill'>;
export type PumpStage = Named<'pump'>;
export type DrawDownStage = Named<'draw-down'>;
export type HoldStage = Named<'hold'>;
export type ObserveStage = Named<'observe'>;
export type IsolateStage = Named<'isolate-and-repeat'>;
export type DialStage = Named<'dial'>;
export type JointsStage = Named<'joints'>;
export type VolumeStage = Named<'volume'>;
export type PlugsStage = Named<'plugs'>;
export type CureStage = Named<'cure'>;
export type CylinderStage = Named<'cylinder'>;
export type BucketStage = Named<'bucket'>;
export type SmokeStage = Named<'smoke'>;

const rules = new Map<string, KindRule<never>>(KINDS.map((k) => [k.name, k as KindRule<never>]));
export const ruleOfKind = (kind: StageKind): KindRule<Stage> => rules.get(kind) as unknown as KindRule<Stage>;
/** What the kind of this stage says of it. */
export const kindOf = (stage: Stage): KindRule<Stage> => ruleOfKind(stage.kind);

export const stageSchema = oneOf(
  'kind',
  Object.fromEntries(KINDS.map((k) => [k.name, k.schema])),
) as unknown as yup.MixedSchema<Stage>;

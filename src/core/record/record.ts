import { showFigure, type Figure } from '@/core/quantity/figure';
import type { Plan } from '@/core/plan/plan';
import { canonical } from './canonical';
import { impossibleTimes } from './office-clock';
import { daySigned, recordStatus, type RecordStatus, type Sealer, testerSigned } from './status';
import { papersMissing, withPapers } from '@/core/run/papers';
import { inOrder, reduce } from '@/core/run/reduce';
import type { RunState } from '@/core/run/state';
import type { PlacedEvent } from '@/core/run/events';
import {
  verdictOf,
  type PartResult,
  type Reason,
  type Verdict,
  type VerdictWord,
} from '@/core/verdict/verdict';
import type { Use } from '@/core/grammar/rule';
import { type StageLine } from '@/core/verdict/stage-lines';

/** A calculated figure in the record: printed digits as a string, so that no float is ever sealed. */
export interface SealedFigure {
  readonly name: string;
  readonly value: string;
  readonly formula: string;
  readonly inputs: readonly { readonly name: string; readonly value: string }[];
  readonly source: string;
  readonly note?: string;
}
export interface SealedVerdict {
  readonly word: VerdictWord;
  readonly label: string;
  readonly sentence: string;
  readonly plain: string;
  readonly reasons: readonly Reason[];
  readonly stages: readonly StageLine[];
  readonly leakRate: SealedFigure | null;
  readonly adequacy: { readonly figure: SealedFigure; readonly text: string } | null;
  /** Results of the parts, where the procedure has parts. */
  readonly parts?: readonly PartResult[];
  /** How the system may be left, where it is not simply in use or shut off by the verdict. */
  readonly use?: Use;
}
/** What is sealed: the plan with its pack, every event, and the verdict. The seal itself stands beside it. */
export interface RecordBody {
  readonly format: 1;
  readonly status: RecordStatus;
  readonly statusReason: string;
  readonly plan: unknown;
  readonly events: readonly unknown[];
  readonly verdict: SealedVerdict;
  /** Who signed as tester, as the office knew them at the seal; records sealed before 0.3 have only the sealer. */
  readonly signer?: Sealer;
  readonly sealer: Sealer;
  readonly sealedAt: string;
  /** Sealed on a server whose clock tests may shift. */
  readonly clock?: 'test';
}
const sealedFigure = (f: Figure): SealedFigure => ({
  name: f.name,
  value: showFigure(f),
  formula: f.formula,
  inputs: f.inputs,
  source: f.source,
  ...(f.note ? { note: f.note } : {}),
});
/** The verdict as it is sealed: floats turned into printed figures. */
export function sealedVerdict(v: Verdict): SealedVerdict {
  const { word, label, sentence, plain, reasons, stages } = v;
  return {
    word,
    label,
    sentence,
    plain,
    reasons,
    stages,
    leakRate: v.leakRate && sealedFigure(v.leakRate),
    adequacy: v.adequacy && { figure: sealedFigure(v.adequacy.figure), text: v.adequacy.text },
    ...(v.parts ? { parts: v.parts } : {}),
    ...(v.use === 'limited' ? { use: v.use } : {}),
  };
}

/** Why a run cannot be sealed. */
export class SealError extends Error {
  constructor(
    readonly code: 'phase' | 'role' | 'unplaced' | 'signer',
    text: string,
  ) {
    super(text);
    this.name = 'SealError';
  }
}

/**
 * Builds the canonical body of a record from plan and log; the verdict is computed here, never taken from outside.
 * @param who who seals, and who signed as tester, as the office knows them
 * @throws SealError when the run is not signed, its list not cleared, or events are still unplaced
 */
export function makeBody(
  plan: Plan,
  events: readonly PlacedEvent[],
  who: { readonly sealer: Sealer; readonly signer: Sealer; readonly clock?: 'test' },
  sealedAt: string,
): { body: string; verdict: Verdict; status: RecordStatus; state: RunState } {
  const { sealer, signer } = who;
  const state = reduce(plan, events);
  if (sealer.role === 'apprentice')
    throw new SealError(
      'role',
      'An apprentice can run a test but not seal it. Ask a tester or the owner to sign and seal.',
    );
  if (sealer.role === 'office')
    throw new SealError('role', 'The office reads and exports; a tester or the owner seals.');
  if (state.phase === 'running') throw new SealError('phase', 'The test has not ended.');
  if (state.phase === 'put-back') throw new SealError('phase', 'The put-back list is not cleared.');
  if (state.phase !== 'signed') throw new SealError('phase', 'The signatures are missing.');
  const log = inOrder(events);
  if (log.some((e) => e.position === undefined))
    throw new SealError('unplaced', 'Some entries are not with the office yet.');
  const signed = testerSigned(state, log);
  if (signed?.by !== signer.id)
    throw new SealError('signer', 'Who signed as tester is not known here. Ask them to sign again.');
  const verdict = verdictOf(plan, state)!;
  const whole = withPapers(plan, state);
  const { status, reason } = recordStatus(plan, {
    signer,
    sealer,
    day: daySigned(plan, signed),
    impossible: [...impossibleTimes(plan, state, log, Date.parse(sealedAt)), ...papersMissing(plan, state)],
  });
  const body: RecordBody = {
    format: 1,
    status,
    statusReason: reason,
    plan: whole,
    events: log,
    verdict: sealedVerdict(verdict),
    signer,
    sealer,
    sealedAt,
    ...(who.clock ? { clock: who.clock } : {}),
  };
  return { body: canonical(body), verdict, status, state };
}

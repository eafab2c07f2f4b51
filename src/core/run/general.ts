/** Entries that belong to no kind of stage: gauge, own kit, notes, photos, confirming a list, leaving out, STOP. */
import { gaugeFit } from '@/core/instrument/gauge';
import { fitTarget } from '@/core/plan/limits';
import { dayOf } from '@/core/plan/plan';
import { showExact } from '@/core/quantity/exact';
import { CONFIRM } from './courses';
import { type EventOf, momentOf } from './events';
import type { Fold, On, OnStage } from './fold';
import { onGauge } from './gate';
import { breakHold, enter, follow, no, overtaken, type Refusal, stopNow } from './transition';
import { unheld } from './unheld';

const UNHELD_WORDS = {
  falls: 'said to keep falling',
  rises: 'said to keep rising',
  low: 'said to stay low with the source open',
} as const;

export const generalFold: Fold<
  | 'proceed'
  | 'gauge'
  | 'kit'
  | 'unheld'
  | 'skip'
  | 'note'
  | 'photo'
  | 'observation'
  | 'undo'
  | 'papers'
  | 'stop'
  | 'stop-reason'
> = {
  proceed: {
    transition: true,
    apply: (_, on) => {
      const confirm = CONFIRM[on.stage.kind];
      return confirm ? confirm(on) : no('wrong-step', 'There is nothing to confirm here.');
    },
    words: () => 'list complete',
  },
  gauge: {
    apply: (event, on) => chooseGauge(on, event.gauge),
    words: (event, { plan }) =>
      `gauge chosen: ${plan.gauges.find((g) => g.id === event.gauge)?.name ?? event.gauge}`,
  },
  kit: {
    apply: (event, { plan, state, at }) => {
      if (event.kit.some((id) => !plan.ownKit?.some((k) => k.id === id)))
        return no('unknown-kit', 'This hose or rig is not in the plan. Choose from those listed.');
      state.ownKit = { kit: [...new Set(event.kit)], at, byName: event.byName };
      return null;
    },
    words: (event, { plan }) =>
      event.kit.length
        ? `own kit on the section: ${event.kit.map((id) => plan.ownKit?.find((k) => k.id === id)?.name ?? id).join(', ')}`
        : 'no hose or rig of the cabinet on the section',
  },
  unheld: {
    transition: true,
    entered: 'will not stand',
    misfit: (event, on) => onGauge(on, event.figure),
    sign: () => true,
    apply: (event, { plan, state, visit, stage, at }) => unheld(plan, state, visit, stage, event, at),
    words: (event) => `${UNHELD_WORDS[event.way]}: ${showExact(event.figure)}`,
  },
  skip: {
    transition: true,
    apply: (event, on) => skip(on, event),
    words: (event) => `left out: ${event.text}`,
  },
  note: {
    anytime: (event, { state, at }) => {
      state.notes.push({ at, byName: event.byName, text: event.text, kind: 'note' });
      return null;
    },
    words: (event) => `note: ${event.text}`,
    said: () => true,
  },
  photo: {
    anytime: (event, { state, at }) => {
      const { hash, caption, shows, beside, byName } = event;
      if (!state.photos.some((p) => p.hash === hash && p.caption === caption))
        state.photos.push({
          hash,
          caption,
          ...(shows ? { shows } : {}),
          ...(beside ? { beside } : {}),
          visit: state.visits.length,
          at,
          byName,
        });
      return null;
    },
    words: (event) => `photo: ${event.caption}`,
  },
  observation: {
    apply: (event, { state, at }) => {
      state.observations.push({ what: event.what, text: event.text, at, byName: event.byName });
      return null;
    },
    words: (event) => `${event.what} observed${event.text ? `: ${event.text}` : ''}`,
  },
  // what it does stands in reduce: it puts the whole run back
  undo: {
    anytime: () => no('undo', 'Nothing is taken back here.'),
    words: (event, { state }) => {
      const what = state.undone.filter((u) => u.at === momentOf(event)).map((u) => u.words);
      return `taken back${what.length ? ` (${what.join('; ')})` : ''}${event.reason ? `: ${event.reason}` : ''}`;
    },
    said: (event) => !!event.reason,
  },
  papers: {
    anytime: (event, { plan, state }) => {
      if (state.signatures.length)
        return no('signed', 'It is signed: nothing is entered any more. A new record can supersede it.');
      const { site, calibration } = event;
      if (calibration && !plan.gauges.some((g) => g.id === calibration.gauge))
        return no('unknown-gauge', 'This gauge is not in the plan.');
      const { gauge, ...days } = calibration ?? {};
      state.papers = {
        site: site ?? state.papers.site,
        calibrations: gauge
          ? { ...state.papers.calibrations, [gauge]: days as { on: string; due: string } }
          : state.papers.calibrations,
      };
      return null;
    },
    words: (event, { plan }) =>
      [
        event.site && `place: ${event.site.name}, ${event.site.address}; customer: ${event.site.customer}`,
        event.calibration &&
          `${plan.gauges.find((g) => g.id === event.calibration!.gauge)?.name ?? event.calibration.gauge}: calibrated ${event.calibration.on}, valid to ${event.calibration.due}`,
      ]
        .filter(Boolean)
        .join('; ') || 'nothing for the paper',
  },
  stop: { anytime: (_, on) => stop(on), undo: true, sign: () => true, words: () => 'STOP' },
  'stop-reason': {
    anytime: (event, { state }) => {
      if (state.ending?.by !== 'stop') return no('not-stopped', 'The run was not stopped.');
      if (state.ending.reason) return no('overtaken', 'The reason for stopping was already given.');
      state.ending.reason = event.reason;
      state.ending.text = event.text;
      return null;
    },
    words: (event) => `stopped for: ${event.reason}${event.text ? `, ${event.text}` : ''}`,
    said: (event) => !!event.text,
  },
};

function stop({ plan, state, at }: On): Refusal | null {
  if (state.phase !== 'running') return overtaken();
  stopNow(plan, state, 'stopped', at);
  return null;
}

function chooseGauge({ plan, state, visit, at }: OnStage, id: string): Refusal | null {
  const gauge = plan.gauges.find((g) => g.id === id);
  if (!gauge) return no('unknown-gauge', 'This gauge is not in the plan. Choose one of those listed.');
  const part = plan.procedure.stages[visit.stage]?.part;
  const misfit = gaugeFit(gauge, fitTarget(plan, part), dayOf(plan)).find((m) => m.blocks);
  if (misfit) return no('gauge-' + misfit.code, misfit.text);
  if (state.gauge === id) return null;
  const begun = state.visits.some((v) => v.zeros.some((z) => z.good));
  state.gauge = id;
  if (begun && visit.kind !== 'zero') {
    // another gauge is another test: prove it and begin again from its zero
    breakHold(state, 'the gauge was changed', at);
    visit.left = at;
    visit.split = 'gauge changed';
    state.repeats = state.fails = state.passes = state.rises = state.smallFalls = 0;
    state.tapped = null;
    delete state.claims[part ?? ''];
    const zeroes = Object.entries(plan.procedure.stages).filter(
      ([, s]) => s.kind === 'zero' && s.when === 'before',
    );
    const zeroStage = zeroes.find(([, s]) => s.part === part) ?? zeroes[0]!;
    enter(plan, state, zeroStage[0], at);
  }
  return null;
}

function skip({ plan, state, visit, stage, at }: OnStage, event: EventOf<'skip'>): Refusal | null {
  if (stage.kind === 'hold' && stage.skip) {
    const reason = stage.skip.reasons.find((r) => r.key === event.reason);
    if (!reason) return no('reason', 'Choose why this stage is skipped.');
    if (!event.text.trim()) return no('reason', 'Describe it in a few words; it is printed.');
    breakHold(state, 'skipped', at);
    visit.skipped = { key: reason.key, reason: reason.text, text: event.text, sound: reason.sound };
    follow(plan, state, 'skipped', at);
    return null;
  }
  if (stage.optional) {
    if (stage.kind !== 'isolate-and-repeat' && !event.text.trim())
      return no('reason', 'Say in a few words why it is left out; it is printed.');
    breakHold(state, 'skipped', at);
    visit.skipped = { reason: 'Not done', text: event.text, sound: true };
    follow(plan, state, 'skipped', at);
    return null;
  }
  return no('no-skip', 'This stage cannot be skipped.');
}

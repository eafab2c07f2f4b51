/** How a tester holds: starts in the band, reads in its rhythm, puts back what may be put back, ends it. */
import type { Stage } from '@/core/kinds';
import { exact } from '@/core/quantity/exact';
import { roleOf } from '@/core/roles';
import { barometerNeeded } from '@/core/run/barometer';
import { type HoldSpec, holdSpec } from '@/core/run/hold-spec';
import { runningHold, temperatureNeeded } from '@/core/run/read';
import type { Hold } from '@/core/run/state';
import type { Refusal } from '@/core/run/transition';
import { explainedFor } from '@/core/run/unheld';
import { type Hand, middle, native } from './hand';

type Held = Extract<Stage, { kind: 'hold' | 'isolate-and-repeat' }>;
type When = 'start' | 'end';

/** @param tried which turn at this stage it is */
export function hold(hand: Hand, stage: Held, tried: number): Refusal | null {
  const spec = holdSpec(hand.plan, hand.state)!;
  const running = runningHold(hand.state);
  if (!running) return start(hand, stage, spec, tried);
  const barometer = stage.kind === 'hold' && running.role !== 'settle';
  if (barometer && barometerNeeded(hand.plan, hand.state, stage, running)) readBarometer(hand, 'start');
  if (temperatureNeeded(hand.plan, hand.state, running)) readTemperature(hand, 'start');
  witness(hand, stage, 'start');
  if (watch(hand, stage, spec, running)) return null;
  hand.pass(1);
  if (running.barometer.start && barometer) readBarometer(hand, 'end');
  if (running.temperature.start) readTemperature(hand, 'end');
  witness(hand, stage, 'end');
  if (roleOf(running.role).measures === 'added')
    hand.topUp(hand.read(), native(running.start.figure), 0.5, true);
  return end(hand, stage, spec, running);
}
const readBarometer = (hand: Hand, when: When) =>
  hand.say({
    kind: 'barometer',
    when,
    figure: exact(Math.round(hand.section.hectopascals() * 100), 2, 'hPa'),
  });
const readTemperature = (hand: Hand, when: When) =>
  hand.say({ kind: 'temperature', when, figure: exact(Math.round(hand.section.celsius() * 10), 1, 'C') });
const witness = (hand: Hand, stage: Held, when: When) =>
  stage.kind === 'hold' && stage.witness ? hand.say({ kind: 'witness', when, seen: 'same', text: '' }) : null;
const below = (figure: Hold['start']['figure'], of: Hold, part: number) =>
  native(figure) < part * native(of.start.figure);

function start(hand: Hand, stage: Held, { band }: HoldSpec, tried: number): Refusal | null {
  hand.pass(2);
  const shown = hand.figure();
  const refused = hand.say({ kind: 'hold-start', ...shown });
  if (refused?.code !== 'out-of-band' || !band) return refused;
  const readjusted = hand.state.visits.filter((v) => v.split === 're-adjusted before the start').length;
  const low = native(shown.figure) < native(band.low);
  if (low && (tried > 2 || readjusted >= 3) && !hand.unheld('falls', shown)) return null;
  const part = stage.kind === 'hold' && roleOf(stage.role).measures === 'added' ? 0.2 : 0.5;
  return hand.topUp(shown.figure, middle(band.low, band.high, part), 1, false);
}
/** Reads in rhythm until the time is up. @returns whether the hold is over */
function watch(hand: Hand, stage: Held, { band }: HoldSpec, running: Hold): boolean {
  const { state } = hand;
  const left = () => running.startedAt + running.minutes * 60_000 - hand.at;
  const rhythm = Math.max(
    20,
    Math.min(
      (stage.kind === 'hold' && stage.rhythm ? stage.rhythm : Infinity) * 60,
      (running.minutes * 60) / (roleOf(running.role).measures === 'added' ? 12 : 3),
    ),
  );
  while (runningHold(state) === running && left() > 0) {
    hand.pass(Math.min(rhythm, left() / 1000));
    if (left() <= 0) break;
    const shown = hand.figure();
    hand.say({ kind: 'reading', ...shown });
    if (roleOf(running.role).measures === 'added') {
      hand.topUp(shown.figure, native(running.start.figure), 0.5, true);
      if (!hand.say({ kind: 'hold-end', ...hand.figure() })) return true;
    }
    if (running.role === 'settle' && band && native(shown.figure) < native(band.low)) {
      if (hand.at - running.startedAt < explainedFor(hand.plan, stage).minutes * 60_000)
        hand.topUp(shown.figure, middle(band.low, band.high), 1, false);
      else if (!hand.unheld('falls')) return true;
    }
    // a fall far beyond the limit need not be watched to the end
    if (running.role === 'tightness' && below(shown.figure, running, 0.5) && !hand.unheld('falls'))
      return true;
    if (
      running.role === 'decay' &&
      below(shown.figure, running, 0.7) &&
      !hand.say({ kind: 'hold-end', ...hand.figure() })
    )
      return true;
  }
  return runningHold(state) !== running;
}
/** Ends it: waits for taps and settling, restores what must be restored, and says so where it will not stand. */
function end(hand: Hand, stage: Held, { band }: HoldSpec, running: Hold): Refusal | null {
  // a fixed period is re-adjusted and goes on, unless it cannot be kept there
  const fixed = stage.kind === 'hold' && !stage.until;
  for (let again = 0; again < 200 && runningHold(hand.state) === running; again += 1) {
    const shown = hand.figure();
    const refused = hand.say({ kind: 'hold-end', ...shown });
    if (!refused) return null;
    if (refused.code === 'tap') {
      hand.pass(6);
      continue;
    }
    if (running.role !== 'settle') {
      if (refused.code !== 'not-restored') return refused;
      hand.topUp(shown.figure, native(running.start.figure), 0.2, true);
      continue;
    }
    // it does not settle: put back while that may help, wait as long as warmth could explain it, then say so
    const waited = hand.at - running.startedAt >= explainedFor(hand.plan, stage).minutes * 60_000;
    const change =
      native(shown.figure) - native(running.topUps[running.topUps.length - 1]?.after ?? running.start.figure);
    if ((fixed ? running.topUps.length >= 5 : waited) && !hand.unheld(change < 0 ? 'falls' : 'rises'))
      return null;
    const out = band && (native(shown.figure) < native(band.low) || native(shown.figure) > native(band.high));
    if (out) hand.topUp(shown.figure, middle(band.low, band.high), 1, false);
    // a fixed period is read as soon as it stands in its band again; a steady one after its window
    hand.pass(refused.code === 'too-early' ? 30 : out && fixed ? 1 : 61);
  }
  return runningHold(hand.state) === running ? { code: 'never', text: 'The hold never ended.' } : null;
}

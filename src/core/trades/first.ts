/** A first installation from the few facts that a tester has at hand; everything else is asked later, never guessed. */
import { capital } from '@/core/quantity/words';
import type { Pipe } from '@/core/installation/pipe';
import type { WholeFact } from '@/core/installation/whole';
import type { Meter, System } from '@/core/installation/section';
import { withListsOf, withNetwork } from '@/core/network/enter';
import type { Exact } from '@/core/quantity/exact';
import { tradeOf } from '.';

export interface FirstFacts extends Pick<System, 'id' | 'name' | 'medium' | 'duty' | 'workingPressure'> {
  readonly meter: Meter;
  /** The largest pipe, with the length of all of it. */
  readonly pipe: Pipe;
  /** What was counted, in the trade's words. */
  readonly counted: readonly { readonly word: string; readonly count: number; readonly volume: Exact }[];
  /** Facts of the whole that were asked. */
  readonly asked?: Partial<Pick<System, WholeFact>>;
}

/** The branches of a first network, one entry for each thing that was counted. */
function branches(f: FirstFacts): Pick<System, 'appliances' | 'loops' | 'surfaces'> {
  const list = tradeOf(f).first.things?.list;
  const each = f.counted.flatMap(({ word, count, volume }) =>
    Array.from({ length: count }, (_, i) => ({
      id: `${word.replaceAll(' ', '-')}-${i + 1}`,
      name: `${capital(word)}${count > 1 ? ` ${i + 1}` : ''}`,
      kind: word,
      volume,
    })),
  );
  const appliances =
    list === 'appliances'
      ? each.map((x) => ({ ...x, place: '', valve: 'isolating valve', hasPilot: true, hasLid: true }))
      : [];
  if (list === 'loops' && each.length)
    return {
      appliances,
      loops: each.map(({ id, name }) => ({ id, name, valve: `${name}, valve`, flowMeter: '' })),
    };
  if (list === 'surfaces' && each.length)
    return { appliances, surfaces: each.map(({ id, name }) => ({ id, name, bore: f.pipe.bore, count: 1 })) };
  return { appliances };
}

/**
 * The first installation: source, supply valve, meter where there is one, the pipe, a branch to each thing that was counted.
 * Where a length or a volume was not measured, whoever entered it finds it on the drawing and mends it.
 */
export function firstSection(f: FirstFacts): System {
  const { first } = tradeOf(f);
  const { counted: _c, pipe, asked, ...facts } = f;
  const base = {
    ...facts,
    ...asked,
    supplyPressure: f.workingPressure,
    supplyValve: first.supplyValve,
    supplyValveOwner: first.owner,
    testPoint: first.testPoint,
    emergencyContact: '',
    pipes: [pipe],
    ...branches(f),
    inScope: first.inScope,
    notCovered: first.notCovered,
  };
  return first.drawn ? withNetwork({ ...base, pipes: [] }, first.drawn(f.counted, pipe)) : withListsOf(base);
}

/** The demo's runs played through the core alone: no server, no database. For tests, and to see at once what a pack's change asks. */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { remembered } from '@/core/kinds/map/fold';
import { withinSection } from '@/core/trades/sections';
import { notCoveredOf } from '@/core/network/installation';
import { asShipped } from '@/core/testing/as-shipped';
import type { Pack } from '@/core/pack/schema';

import { makePlan, type Plan } from '@/core/plan/plan';
import { place, playScript } from '@/core/run/script';
import type { PlacedEvent } from '@/core/run/events';
import { ownKitOf, type KitFacts, type LogEntry } from '@/core/instrument/kit';
import { demoGauge, demoSystem, kitFigures, readDemo, type Demo } from './demo-data';
import { figures } from '@/core/installation/written';

const id = (group: number, n: number) =>
  `00000000-0000-4000-8000-${String(group).padStart(4, '0')}${n.toString(16).padStart(8, '0')}`;
export interface PlayedRun {
  readonly run: Demo['runs'][number];
  readonly index: number;
  readonly plan: Plan;
  readonly events: PlacedEvent[];
}
let loaded: Pack[] | undefined;
export const shippedPacks = (): Pack[] =>
  (loaded ??= readdirSync('packs').map((f) =>
    asShipped(JSON.parse(readFileSync(path.join('packs', f), 'utf8'))),
  ));

/** @param only indices of runs; absent: all  @throws Error naming the run and the line that had no effect */
export function playDemo(only?: readonly number[]): PlayedRun[] {
  const demo = readDemo();
  const packs = shippedPacks();
  const gauges = demo.gauges.map((g, i) => demoGauge(g, id(9, i + 1)));
  const systems = new Map(
    demo.sites.flatMap((site, i) =>
      site.systems.map((s, j) => [s.key, { site, system: demoSystem(s, id(5, i * 50 + j)) }] as const),
    ),
  );
  const seen = new Map<string, PlacedEvent[]>();
  return demo.runs.flatMap((run, index) => {
    // what was seen of unseen joins is known to the runs after it: those are played whichever are asked for
    const looks = run.procedure === 'pool-map';
    if (only && !only.includes(index) && !looks) return [];
    const { site, system: kept } = systems.get(run.system)!;
    const whole = {
      ...kept,
      notCovered: notCoveredOf(kept),
      ...remembered(kept, seen.get(run.system) ?? []),
    };
    const system = run.section ? withinSection(whole, run.section)! : whole;
    const pack = packs.find((p) =>
      [...p.procedures, ...(p.sequences ?? [])].some((x) => x.id === run.procedure),
    )!;
    const began = run.at.startsWith('now') ? Date.UTC(2026, 10, 20, 9) : Date.parse(run.at);
    const day = new Date(began).toISOString().slice(0, 10);
    try {
      const plan = makePlan({
        run: id(3, index + 1),
        practice: false,
        organisation: { id: id(1, 1), name: demo.organisation.name },
        site: { id: id(4, 1), name: site.name, address: site.address, customer: site.customer },
        system,
        pack,
        packHash: 'demo',
        procedureId: run.procedure,
        case: run.case,
        choices: run.choices ?? {},
        ownKit: ownKitOf(
          demo.kit.map((k, i) => {
            const log = demo.log
              .filter((l) => l.of === k.name && Date.parse(l.at) < began)
              .map((l, n) => ({ id: id(10, n), at: l.at, by: l.by, entry: figures(l.entry) as LogEntry }));
            return { item: kitFigures({ ...k, id: id(11, i + 1) }) as KitFacts, log };
          }),
          began,
          'Europe/London',
        ),
        gauges: gauges.filter((g) => g.calibrationDue >= day || g.calibrated <= day),
        after: { run: id(3, 999), number: 'VS-0', word: 'tight', procedure: 'x', sealedAt: day },
        made: { at: new Date(began).toISOString(), zone: 'Europe/London', by: run.by },
      });
      const events = playScript(plan, run.lines, {
        device: id(6, 1),
        pageLoad: id(7, 1),
        zone: 'Europe/London',
        by: id(2, 1),
        byName: demo.people.find((p) => p.key === run.by)!.name,
        began,
        id: (n) => id(8, n),
      });
      seen.set(run.system, [...(seen.get(run.system) ?? []), ...place(events)]);
      return only && !only.includes(index) ? [] : [{ run, index, plan, events: place(events) }];
    } catch (error) {
      throw new Error(`Demo run ${index} (${run.system}, ${run.procedure}): ${(error as Error).message}`, {
        cause: error,
      });
    }
  });
}

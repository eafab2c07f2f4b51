/** What to load: tools the stages name, gauges with a spare, protection, consumables; matched with the cabinet. */
import type { Gauge } from '@/core/instrument/gauge';
import type { KitFacts } from '@/core/instrument/kit';
import { sparesOf } from '@/core/instrument/spare';
import { protectionOf } from './cautions';
import { goodPath } from './good-path';
import type { Plan } from './plan';
import type { PartProspect } from './prospect';
import { toolNamed } from './tools';

export interface KitLine {
  readonly group: 'gauges' | 'tools' | 'protection' | 'consumables';
  readonly name: string;
  readonly why: string;
  /** Things of the cabinet that serve, in date; empty where it is not looked for there. */
  readonly from: readonly string[];
  /** It is looked for in the cabinet and nothing there serves. */
  readonly lacking: boolean;
}
/** @param day ISO date of the test; what has run out by then does not serve */
export function kitList(
  plan: Plan,
  parts: readonly PartProspect[],
  chosen: readonly Gauge[],
  cabinet: readonly KitFacts[],
  day: string,
): KitLine[] {
  const path = goodPath(plan, chosen[0]?.id ?? null);
  const named = new Map<string, string[]>();
  for (const step of path)
    for (const tool of plan.procedure.stages[step.stage]?.kit ?? [])
      named.set(tool, [...(named.get(tool) ?? []), step.title]);
  const serving = (name: string): { from: string[]; looked: boolean } => {
    const { kind, words } = toolNamed(name);
    if (!kind) return { from: [], looked: false };
    const from = cabinet
      .filter((k) => k.kind === kind && !k.withdrawn && (!k.due || k.due >= day))
      .filter((k) => !words || words.some((w) => k.name.toLowerCase().includes(w)))
      .map((k) => (k.batch ? `${k.name}, batch ${k.batch}` : k.name));
    return { from, looked: true };
  };
  const line = (group: KitLine['group'], name: string, why: string): KitLine => {
    const { from, looked } = serving(name);
    return { group, name, why, from, lacking: looked && from.length === 0 };
  };
  const spares = chosen.flatMap((g) => sparesOf(g, plan.gauges, day).slice(0, 1));
  const longest = Math.max(0, ...parts.flatMap((p) => p.holds.map((h) => h.times.planned)));
  const extra: KitLine[] = [
    ...(longest > 10 && !named.has('thermometer')
      ? [
          line(
            'tools',
            'thermometer',
            'a logged temperature tells cooling from a leak and shortens the hold that is needed',
          ),
        ]
      : []),
    ...(longest > 30 && !named.has('barometer')
      ? [
          line(
            'tools',
            'barometer',
            `holds over 30 min: the air pressure moves the reading, about 1 mbar an hour`,
          ),
        ]
      : []),
    ...(named.has('leak-detection fluid')
      ? []
      : [line('consumables', 'leak-detection fluid', 'own kit first, and every joint that is touched')]),
    ...(plan.system.appliances.length
      ? [
          line(
            'consumables',
            `sealing washers, ${plan.system.appliances.length} at least`,
            'a parted joint gets a new one',
          ),
        ]
      : []),
    line('consumables', 'labels “do not use”', 'a system that is not shown tight stays shut and is labelled'),
  ];
  return [
    ...chosen.map((g): KitLine => ({
      group: 'gauges',
      name: `${g.name}, ${g.serial}`,
      why: 'judges from start to end',
      from: [],
      lacking: false,
    })),
    ...spares.map((g): KitLine => ({
      group: 'gauges',
      name: `${g.name}, ${g.serial}`,
      why: 'spare of the same size, swapped in before anything is opened up',
      from: [],
      lacking: false,
    })),
    ...(spares.length || !chosen.length
      ? []
      : [
          {
            group: 'gauges' as const,
            name: 'a second gauge of the same size',
            why: 'none in the cabinet: borrow one, or an apparent drop cannot be told from a bad gauge',
            from: [],
            lacking: true,
          },
        ]),
    ...[...named]
      .filter(([tool]) => toolNamed(tool).group !== 'gauges')
      .map(([tool, titles]) => line(toolNamed(tool).group, tool, titles.join(', '))),
    ...extra,
    ...[...new Set(protectionOf(plan).flatMap((p) => p.items))].map((name): KitLine => ({
      group: 'protection',
      name,
      why: protectionOf(plan)
        .filter((p) => p.items.includes(name))
        .map((p) => p.task.toLowerCase())
        .join(', '),
      from: [],
      lacking: false,
    })),
  ];
}
export const KIT_GROUPS: Record<KitLine['group'], string> = {
  gauges: 'Gauges',
  tools: 'Tools',
  consumables: 'Consumables',
  protection: 'Protection',
};

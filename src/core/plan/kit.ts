/** What to load: tools the stages name, gauges with a spare, protection, consumables; matched with the cabinet. */
import type { KitFacts, KitKind } from '@/core/instrument/kit';
import type { Gauge } from '@/core/instrument/gauge';
import { protectionOf } from './cautions';
import type { PartProspect } from './prospect';
import { sparesOf } from '@/core/instrument/spare';
import type { Plan } from './plan';
import { goodPath } from './good-path';

export interface KitLine {
  readonly group: 'gauges' | 'tools' | 'protection' | 'consumables';
  readonly name: string;
  readonly why: string;
  /** Things of the cabinet that serve, in date; empty where it is not looked for there. */
  readonly from: readonly string[];
  /** It is looked for in the cabinet and nothing there serves. */
  readonly lacking: boolean;
}
const CONSUMABLE = /fluid|spray|tape|washer|label|sealant|nitrogen|dye|primer|cement/i;
/** Which kind of the cabinet a named tool is looked for under. */
const KIND_OF: readonly [RegExp, KitKind][] = [
  [/thermometer/i, 'thermometer'],
  [/barometer/i, 'barometer'],
  [/pump/i, 'pump'],
  [/vessel|pail|measur/i, 'vessel'],
  [/hose|rig|adaptor/i, 'hose'],
  [/plug|cap\b|ball/i, 'plug'],
  [/detector/i, 'detector'],
  [/fluid|spray|nitrogen|sealant|tape/i, 'consumable'],
];

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
  const serving = (tool: string): { from: string[]; looked: boolean } => {
    const kind = KIND_OF.find(([words]) => words.test(tool))?.[1];
    if (!kind) return { from: [], looked: false };
    const own = cabinet.filter((k) => k.kind === kind && !k.withdrawn && (!k.due || k.due >= day));
    const words = tool
      .toLowerCase()
      .split(/\W+/)
      .filter((w) => w.length > 3);
    const close =
      kind === 'consumable' ? own.filter((k) => words.some((w) => k.name.toLowerCase().includes(w))) : own;
    return { from: close.map((k) => (k.batch ? `${k.name}, batch ${k.batch}` : k.name)), looked: true };
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
      .filter(([tool]) => !/^gauge/i.test(tool))
      .map(([tool, titles]) =>
        line(CONSUMABLE.test(tool) ? 'consumables' : 'tools', tool, titles.join(', ')),
      ),
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

import { parseWithUnit } from '@/core/quantity/exact';
import type { Verbs } from '@/core/run/verbs';
import type { Label } from './entries';

export const cylinderVerbs: Verbs = {
  /** cylinder LABEL REGULATOR HOSE: each the name of a thing of the cabinet, or what is stamped on it */
  cylinder: ({ plan, args: [label = '', regulator = '', hose = ''] }) => {
    const kit = (name: string) => plan.ownKit?.find((k) => k.name === name);
    const most = (name: string) => kit(name)?.rating ?? parseWithUnit(name);
    const own = (key: 'regulator' | 'hose', name: string) => (kit(name) ? { [key]: kit(name)!.id } : {});
    return {
      kind: 'cylinder',
      label: label as Label,
      ...own('regulator', regulator),
      regulatorMost: most(regulator),
      ...own('hose', hose),
      hoseMost: most(hose),
      woundOut: true,
      tied: true,
    } as never;
  },
  nocylinder: () => ({ kind: 'no-cylinder' }),
};

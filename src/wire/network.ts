/** A network as it is entered and sent: figures are text with their unit. The same on both sides. */
import { type Fact, type FactRule, ruleOfPart } from '@/core/network/catalogue';
import type { Network, Outline, Part } from '@/core/network/network';
import { parseWithUnit, showUnit } from '@/core/quantity/exact';
import { figureTrouble } from './figure-trouble';
import type { SentNetwork } from './network-schema';
import { formOfPipe, pipeFromForm } from './pipe';

/** What is wrong with a fact as it was entered; '' when it is right or not known. */
export function factTrouble(rule: FactRule, value: unknown): string {
  if (value === '' || value === undefined) return '';
  switch (rule.kind) {
    case 'words':
      if (typeof value !== 'string') return 'must be words';
      return value.length > rule.most ? `must not be longer than ${rule.most} letters` : '';
    case 'yes-no':
      return typeof value === 'boolean' ? '' : 'must be yes or no';
    case 'count':
      return typeof value === 'string' && /^[1-9]\d?$/.test(value)
        ? ''
        : 'is how many there are, from 1 to 99';
    case 'one-of':
      return typeof value === 'string' && Object.hasOwn(rule.options, value) ? '' : 'is none of the answers';
    case 'figure':
      return typeof value === 'string'
        ? figureTrouble(value, rule.dimension, rule.least)
        : 'must be a figure';
  }
}
export type PartForm = Omit<Part, 'facts'> & { readonly facts: Readonly<Record<string, string | boolean>> };
export interface NetworkForm {
  readonly outline?: Outline;
  readonly parts: readonly PartForm[];
  readonly links: readonly (Omit<Network['links'][number], 'pipe'> & {
    readonly pipe?: ReturnType<typeof formOfPipe>;
  })[];
}

function factFrom(rule: FactRule, value: string | boolean): Fact | null {
  if (value === '') return null;
  if (rule.kind === 'figure') return parseWithUnit(value as string);
  return rule.kind === 'count' ? Number(value) : value;
}
/** The network that was sent. What was left empty is not known and absent. */
export function networkFromForm(form: SentNetwork | NetworkForm): Network {
  const { outline } = form;
  return {
    ...(outline ? { outline: outline as Outline } : {}),
    parts: form.parts.map((p) => {
      const rule = ruleOfPart(p.kind);
      const facts = Object.entries(p.facts as Record<string, string | boolean>).flatMap(([key, value]) => {
        const found = factFrom(rule.facts[key]!, value);
        return found === null ? [] : [[key, found] as const];
      });
      const { position, ...rest } = p;
      return {
        ...rest,
        kind: p.kind,
        facts: Object.fromEntries(facts),
        ...(position ? { position } : {}),
      };
    }),
    links: form.links.map(({ pipe, ...l }) => ({ ...l, ...(pipe ? { pipe: pipeFromForm(pipe) } : {}) })),
  };
}
/** A network as a drawing shows and changes it. */
export const formOfNetwork = (network: Network): NetworkForm => ({
  ...(network.outline ? { outline: network.outline } : {}),
  parts: network.parts.map((p) => ({
    ...p,
    facts: Object.fromEntries(
      Object.entries(p.facts).map(([key, value]) => [
        key,
        typeof value === 'object' ? showUnit(value) : typeof value === 'number' ? String(value) : value,
      ]),
    ),
  })),
  links: network.links.map(({ pipe, ...l }) => ({ ...l, ...(pipe ? { pipe: formOfPipe(pipe) } : {}) })),
});

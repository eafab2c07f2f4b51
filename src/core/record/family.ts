/** What kind of work a record is about, and the facts that stand on its face for that work. */
import { carriesGas, sectionVolume } from '@/core/installation/section';
import type { Plan } from '@/core/plan/plan';
import { showExact } from '@/core/quantity/exact';
import type { Face } from './face';

export type Family = 'gas' | 'propane' | 'water' | 'drain' | 'main';
export const familyOf = (plan: Pick<Plan, 'system'>): Family =>
  plan.system.medium === 'drain'
    ? 'drain'
    : plan.system.medium === 'propane'
      ? 'propane'
      : carriesGas(plan.system)
        ? 'gas'
        : plan.system.duty === 'main'
          ? 'main'
          : 'water';

export interface FamilyFact {
  readonly name: string;
  readonly value: string;
}
/** Facts of the installation that matter for this kind of work; what is not known is left out. */
export function familyFacts(face: Pick<Face, 'plan' | 'state' | 'sections'>): FamilyFact[] {
  const { plan, state } = face;
  const { system } = plan;
  const fact = (name: string, value: string | undefined | null): FamilyFact[] =>
    value ? [{ name, value }] : [];
  const section = (title: string, most = 2) =>
    face.sections
      .find((s) => s.title === title)
      ?.lines.slice(0, most)
      .join('; ');
  const volume = () =>
    fact(
      'Volume',
      state.volume
        ? `${(state.volume.figure.value * 1000).toFixed(1)} l, measured`
        : `${(sectionVolume(system).value * 1000).toFixed(1)} l`,
    );
  const pipes = () =>
    fact(
      'Pipes',
      [...new Set(system.pipes.map((p) => `${p.material} ${showExact(p.size)}`))].slice(0, 4).join(', '),
    );
  const lockUp = state.visits
    .flatMap((v) => v.holds)
    .filter((h) => h.role === 'lock-up' && h.end)
    .pop()?.end;
  const meter = () =>
    fact(
      'Meter',
      system.meter.kind === 'none'
        ? null
        : `${system.meter.name}${system.meter.serial ? `, serial ${system.meter.serial}` : ''}`,
    );
  const regulators = () =>
    fact(
      'Regulator',
      [
        ...(system.regulators ?? []).map((r) => `${r.name}, ${r.place}`),
        ...(lockUp ? [`lock-up ${showExact(lockUp.figure)}`] : []),
      ].join('; '),
    );
  const working = () => fact('Working pressure', showExact(system.workingPressure));
  switch (familyOf(plan)) {
    case 'gas':
      return [
        ...fact('Gas', system.medium),
        ...working(),
        ...meter(),
        ...regulators(),
        ...volume(),
        ...pipes(),
      ];
    case 'propane':
      return [
        ...working(),
        ...fact('Tank', system.tank && `${system.tank.size}, ${system.tank.place}`),
        ...regulators(),
        ...volume(),
        ...pipes(),
      ];
    case 'drain':
      return [...fact('Level', section('Level', 3)), ...pipes()];
    case 'main':
      return [
        ...working(),
        ...pipes(),
        ...fact('Loss', section('Two loss figures, kept apart')),
        ...fact('Level', section('Level', 1)),
      ];
    case 'water':
      return [
        ...fact('Applied', section('What was applied', 1)),
        ...working(),
        ...pipes(),
        ...fact('Loops', section('Loops of the manifold', 3)),
        ...fact('Left under watch', section('Left under watch', 1)),
      ];
  }
}

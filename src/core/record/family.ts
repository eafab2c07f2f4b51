/** What kind of work a record is about, and the facts that stand on its face for that work. */
import { sectionVolume } from '@/core/installation/section';
import { showExact } from '@/core/quantity/exact';
import { tradeOf } from '@/core/trades';
import type { FaceFact, SectionKey } from '@/core/trades/trade';
import type { Face } from './face';

/** Facts of the installation that matter for this kind of work; what is not known is left out. */
export function familyFacts(face: Pick<Face, 'plan' | 'state' | 'sections'>): readonly FaceFact[] {
  const { plan, state } = face;
  const { system } = plan;
  const fact = (name: string, value: string | undefined | null): FaceFact[] =>
    value ? [{ name, value }] : [];
  const section = (key: SectionKey, most: number) =>
    face.sections
      .find((s) => s.key === key)
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
  return tradeOf(system).face({
    fact,
    section: (name, key, most) => fact(name, section(key, most)),
    medium: () => fact('Gas', system.medium),
    working: () => fact('Working pressure', showExact(system.workingPressure)),
    meter,
    tank: () => fact('Tank', system.tank && `${system.tank.size}, ${system.tank.place}`),
    regulators,
    volume,
    pipes,
  });
}

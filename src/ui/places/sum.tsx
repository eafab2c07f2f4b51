'use client';
import { sectionVolume, systemStiffness, volumeUncertainty } from '@/core/installation/section';
import { parseWithUnit, toNumber } from '@/core/quantity/exact';
import { showFigure } from '@/core/quantity/figure';
import { convert } from '@/core/quantity/unit';
import { tradeOf } from '@/core/trades';
import type { SystemForm } from '@/wire/places';
import { systemFromForm } from '@/wire/system-form';
import { useWatch } from 'react-hook-form';

/** What the entries give so far: volume with its uncertainty, stiffness when full of water. */
export function Sum({ id }: { id: string }) {
  const form = useWatch<SystemForm>() as SystemForm;
  let words: { volume: string; stiff: string } | null = null;
  try {
    const system = systemFromForm(form, null, id);
    const volume = sectionVolume(system);
    const pressure = convert(
      toNumber(parseWithUnit(form.workingPressure)),
      system.workingPressure.unit,
      'Pa',
    );
    const stiff = tradeOf(system).stiff ? systemStiffness(system, pressure) : null;
    words = {
      volume: `${(volume.value * 1000).toFixed(1)} l ± ${(volumeUncertainty(system) * 100).toFixed(0)} %`,
      stiff: stiff
        ? `Full of water: ${showFigure(stiff.figure)}. 1 ml of loss would show as ${(1e-11 / stiff.c).toPrecision(2)} bar, 1 K as ${convert(stiff.perKelvin, 'Pa', 'bar').toPrecision(2)} bar.`
        : '',
    };
  } catch {
    words = null; // something is still missing: the fields say what
  }
  return (
    <p className="border-l-4 border-lake pl-3" aria-live="polite">
      {words ? (
        <>
          Volume of the section <span className="figure">{words.volume}</span>. {words.stiff}
        </>
      ) : (
        'The volume stands here once pipes and meter are entered.'
      )}
    </p>
  );
}

'use client';
import { sectionVolume, volumeUncertainty } from '@/core/installation/section';
import { enterSystem } from '@/device/enter';
import type { OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { goOn } from '@/ui/kit/go-on';
import { SectionFigure } from '@/ui/network/section-figure';
import { sectionOfFacts } from '@/wire/first-facts';
import type { FirstFactsForm } from '@/wire/first-facts-schema';
import type { SystemForm } from '@/wire/places';
import { emptySystem, formOfSystem } from '@/wire/system-form';
import { useRouter } from 'next/navigation';
import { type ComponentProps, useState } from 'react';
import { SystemFormView } from './system-form';

interface Place {
  readonly id: string;
  readonly site: string;
  readonly meters: ComponentProps<typeof SystemFormView>['meters'];
}
/** All that can be entered of a system of which nothing but its name was said yet. */
export function ByHand({ id, site, name, meters }: Place & { name: string }) {
  const [form] = useState(() => ({ ...emptySystem(), name }));
  return <SystemFormView id={id} site={site} form={form} meters={meters} />;
}

/** What the few facts draw: saved so, or said more of first. */
export function DrawnSystem({
  id,
  site,
  facts,
  meters,
  onSaved,
  onBack,
}: Place & {
  facts: FirstFactsForm;
  onSaved: () => void;
  onBack: () => void;
}) {
  const router = useRouter();
  // the meter as the rule packs call its class
  const [drawn] = useState(() =>
    sectionOfFacts(facts, id, meters.find((m) => m.kind === facts.meterKind)?.label ?? ''),
  );
  const [more, setMore] = useState<SystemForm | null>(null);
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const save = async () => {
    setTrouble('');
    setBusy(true);
    try {
      const how = await enterSystem(id, site, formOfSystem(drawn));
      onSaved();
      goOn(router, how, `/places/${id}`);
    } catch (error) {
      setTrouble((error as OfficeError).message);
      setBusy(false);
    }
  };
  if (more) return <SystemFormView id={id} site={site} form={more} meters={meters} />;
  return (
    <section className="mt-4 grid max-w-4xl gap-4">
      <h2 className="text-lg font-semibold">{drawn.name}, as far as it is known</h2>
      <SectionFigure section={drawn} />
      <p className="border-l-4 border-lake pl-3">
        Volume of the section{' '}
        <span className="figure">
          {(sectionVolume(drawn).value * 1000).toFixed(1)} l ± {(volumeUncertainty(drawn) * 100).toFixed(0)} %
        </span>
        . What a test still needs to know is asked when it comes to it.
      </p>
      <p role="alert" className="text-rust">
        {trouble}
      </p>
      <div className="flex flex-wrap gap-3">
        <Button tone="act" className="min-h-14 text-lg sm:px-10" disabled={busy} onClick={() => void save()}>
          Save it so
        </Button>
        <Button onClick={() => setMore(formOfSystem(drawn))}>Say more first</Button>
        <Button onClick={onBack}>Back to the facts</Button>
      </div>
    </section>
  );
}

'use client';
import { meterVolume } from '@/core/installation/meters';
import {
  MEDIA,
  sectionVolume,
  systemStiffness,
  volumeUncertainty,
  WATER_DUTIES,
} from '@/core/installation/section';
import { parseWithUnit, toNumber } from '@/core/quantity/exact';
import { showFigure } from '@/core/quantity/figure';
import { convert } from '@/core/quantity/unit';
import { tradeOf } from '@/core/trades';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { Field, FIELD, Options, TRADE_UNITS } from '@/ui/kit/field';
import { FigureField } from '@/ui/kit/figure-field';
import { useFormDraft } from '@/ui/kit/use-draft';
import { type SystemForm, systemFromForm, systemSchema } from '@/wire/places';
import { yupResolver } from '@hookform/resolvers/yup';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { FormProvider, useForm, useFormContext, useWatch } from 'react-hook-form';
import {
  AccessPart,
  AppliancesPart,
  ElementsPart,
  type ErrorOf,
  FactoryPart,
  JointsPart,
  LinesPart,
  LoopsPart,
  PipesPart,
  RegulatorsPart,
  SurfacesPart,
  ValvesPart,
} from './system-parts';

type FigureName =
  | 'workingPressure'
  | 'supplyPressure'
  | 'setPressure'
  | 'ventSetting'
  | 'designPressure'
  | 'heatingValue'
  | 'fixture'
  | 'meterVolume'
  | 'testDial'
  | 'gasInside'
  | 'measuredVolume'
  | 'slab'
  | 'rim'
  | 'testHeight'
  | 'highest'
  | 'lowest';

function Figure({
  name,
  label,
  hint,
  of,
}: {
  name: FigureName;
  label: string;
  hint?: string;
  of: keyof typeof TRADE_UNITS;
}) {
  const { control } = useFormContext<SystemForm>();
  return (
    <FigureField
      control={control}
      name={name}
      label={label}
      {...(hint ? { hint } : {})}
      units={TRADE_UNITS[of]}
    />
  );
}
function Words({ name, label, hint }: { name: keyof SystemForm; label: string; hint?: string }) {
  const { register, formState } = useFormContext<SystemForm>();
  return (
    <Field label={label} {...(hint ? { hint } : {})} wrong={(formState.errors[name] as ErrorOf)?.message}>
      {(ids) => <input {...ids} className={FIELD} {...register(name as 'name')} />}
    </Field>
  );
}

/** What the entries give so far: volume with its uncertainty, stiffness when full of water. */
function Sum({ id }: { id: string }) {
  const form = useWatch<SystemForm>() as SystemForm;
  let words: { volume: string; stiff: string } | null = null;
  try {
    systemSchema.validateSync(form, { strict: true });
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

/** A system entered or changed: facts, pipes by table, meter, appliances, the weakest elements, what is in and out. */
export function SystemFormView({
  id,
  site,
  form,
  meters,
}: {
  id: string;
  site: string | null;
  form: SystemForm;
  meters: readonly { kind: string; label: string }[];
}) {
  const router = useRouter();
  const [trouble, setTrouble] = useState('');
  const methods = useForm<SystemForm>({ resolver: yupResolver(systemSchema), defaultValues: form });
  const { register, handleSubmit, formState, watch, setValue } = methods;
  const { offer, sent } = useFormDraft(methods, `system/${id}`);
  const { errors, isSubmitting } = formState;
  const medium = watch('medium');
  const measuredBy = watch('measuredBy');
  const drain = medium === 'drain';
  const gas = medium !== 'water' && !drain;
  const duty = watch('duty');
  const heights = drain || duty === 'main';
  const save = async (value: SystemForm) => {
    setTrouble('');
    try {
      await office(`/api/systems/${id}${site ? `?site=${site}` : ''}`, { method: 'PUT', body: value });
      sent();
      router.push(`/places/${id}`);
      router.refresh();
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
  };
  const section = 'grid gap-3 border-t border-ink pt-3';
  return (
    <FormProvider {...methods}>
      <form
        className="mt-4 grid max-w-4xl gap-8"
        noValidate
        onSubmit={(e) =>
          void handleSubmit(save, () =>
            setTrouble('Something is missing or wrong: the fields marked below say what.'),
          )(e)
        }
      >
        {offer}
        <section className={section}>
          <h2 className="text-lg font-semibold">System</h2>
          <div className="grid gap-3 sm:grid-cols-2">
            <Words name="name" label="Name of the system" />
            <Field label="Medium" wrong={errors.medium?.message}>
              {(ids) => (
                <select
                  {...ids}
                  className={FIELD}
                  {...register('medium', {
                    // a drain stands under no pressure of its own
                    onChange: (e: { target: { value: string } }) => {
                      if (e.target.value !== 'drain') return;
                      setValue('workingPressure', '0 mbar');
                      setValue('supplyPressure', '0 mbar');
                      setValue('meterKind', 'none');
                      setValue('meterName', 'none');
                    },
                  })}
                >
                  {MEDIA.map((m) => (
                    <option key={m}>{m}</option>
                  ))}
                </select>
              )}
            </Field>
            {medium === 'water' && (
              <Field label="What it is" hint="decides which tests are offered">
                {(ids) => (
                  <select {...ids} className={FIELD} {...register('duty')}>
                    <option value="">not said: offer all</option>
                    <Options of={Object.entries(WATER_DUTIES)} />
                  </select>
                )}
              </Field>
            )}
            {!drain && (
              <>
                <Figure
                  name="workingPressure"
                  label="Working pressure"
                  hint="the highest it works at"
                  of="pressure"
                />
                <Figure name="supplyPressure" label="Supply pressure" of="pressure" />
              </>
            )}
            <Words name="supplyValve" label="Valve that bounds it" hint="a suspect until proved" />
            <Words name="supplyValveOwner" label="Owner of that valve" />
            <Words name="testPoint" label="Where the gauge connects" />
            <Words name="emergencyContact" label="Emergency line found on the meter" />
            <Words
              name="everyMonths"
              label="Tested again every"
              hint="months; a good record then brings the next one to mind"
            />
            {(gas || duty === 'vehicle') && (
              <Figure
                name="setPressure"
                label="Regulator set"
                hint="empty: the working pressure"
                of="pressure"
              />
            )}
            {gas && (
              <>
                <Figure name="ventSetting" label="Regulator vents at" hint="empty: not read" of="pressure" />
                <Figure
                  name="heatingValue"
                  label="Heating value of the gas"
                  hint="from the supplier; for the dial and input"
                  of="heat"
                />
              </>
            )}
            {!drain && (
              <Figure
                name="designPressure"
                label="Design pressure"
                hint="from the drawings; empty: not known"
                of="pressure"
              />
            )}
            {medium === 'water' && (
              <Figure
                name="gasInside"
                label="Gas inside"
                hint="vessel and arrestors, at test pressure"
                of="volume"
              />
            )}
          </div>
        </section>
        <section className={section}>
          <h2 className="text-lg font-semibold">Meter</h2>
          <div className="grid gap-3 sm:grid-cols-2">
            <Field
              label="Class"
              hint="an unknown meter is asked for, never guessed"
              wrong={errors.meterKind?.message}
            >
              {(ids) => (
                <select
                  {...ids}
                  className={FIELD}
                  {...register('meterKind', {
                    onChange: (e: { target: { value: string } }) => {
                      const kind = e.target.value;
                      setValue('meterName', meters.find((m) => m.kind === kind)?.label ?? '');
                      setValue('meterVolume', meterVolume(kind));
                    },
                  })}
                >
                  <Options of={meters.map((m) => [m.kind, m.label] as const)} />
                </select>
              )}
            </Field>
            <Words name="meterName" label="As its badge says" />
            <Figure
              name="meterVolume"
              label="Volume inside"
              hint="of its class, with its pipework; check the badge"
              of="volume"
            />
            <Words name="meterSerial" label="Serial" />
            <Words name="meterValve" label="Valve before the meter" hint="empty: none of its own" />
            <Words name="meterValveOwner" label="Owner of that meter valve" hint="empty: not said" />
            {gas && (
              <Figure
                name="testDial"
                label="Smallest test dial, one turn"
                hint="empty: none used"
                of="volume"
              />
            )}
          </div>
        </section>
        <section className={section}>
          <h2 className="text-lg font-semibold">Pipes</h2>
          <PipesPart />
          <Sum id={id} />
          <details className="text-sm" open={Boolean(measuredBy)}>
            <summary className="min-h-8 cursor-pointer text-lake">The volume was measured instead</summary>
            <div className="mt-2 grid gap-3 sm:grid-cols-2">
              <Field label="How">
                {(ids) => (
                  <select {...ids} className={FIELD} {...register('measuredBy')}>
                    <option value="">by the pipe list</option>
                    <option value="draw">by a metered draw</option>
                    <option value="strokes">by pump strokes</option>
                  </select>
                )}
              </Field>
              <Figure name="measuredVolume" label="Volume measured" of="volume" />
              <Words name="measuredUncertainty" label="Uncertainty in percent" hint="empty: 5" />
              <Words name="measuredSaid" label="From what" hint="like 32 strokes of 45 ml" />
            </div>
          </details>
        </section>
        {drain && (
          <section className={section}>
            <h2 className="text-lg font-semibold">Free surfaces at the level</h2>
            <p className="text-sm text-quiet">
              A millimetre of fall is the water of all of them, not of the opening alone.
            </p>
            <SurfacesPart />
          </section>
        )}
        {duty === 'loops' && medium === 'water' && (
          <section className={section}>
            <h2 className="text-lg font-semibold">Loops of the manifold</h2>
            <LoopsPart />
          </section>
        )}
        {heights && (
          <section className={section}>
            <h2 className="text-lg font-semibold">Heights</h2>
            <div className="grid gap-3 sm:grid-cols-2">
              <Words name="datum" label="Counted over" hint="a mark that stays, like the gate sill" />
              {drain ? (
                <>
                  <Figure name="slab" label="Slab level" hint="below the mark: minus" of="length" />
                  <Figure name="rim" label="Rim of the opening" of="length" />
                  <Figure
                    name="fixture"
                    label="Lowest fixture inside"
                    hint="floor drain, shower tray: water over it comes up"
                    of="length"
                  />
                </>
              ) : (
                <>
                  <Figure name="testHeight" label="Test point" of="length" />
                  <Figure name="highest" label="Highest point" of="length" />
                </>
              )}
              <Figure name="lowest" label="Lowest point" of="length" />
            </div>
          </section>
        )}
        <section className={section}>
          <h2 className="text-lg font-semibold">Appliances</h2>
          <AppliancesPart gas={gas} />
        </section>
        {!drain && (
          <section className={section}>
            <h2 className="text-lg font-semibold">Valves between</h2>
            <p className="text-sm text-quiet">
              Closing parts besides the appliances’ own. What nobody has looked for is asked at the bench.
            </p>
            <ValvesPart gas={gas} />
            {gas && <AccessPart />}
          </section>
        )}
        {(gas || duty === 'vehicle') && (
          <section className={section}>
            <h2 className="text-lg font-semibold">Regulators{medium === 'propane' && ' and tank'}</h2>
            <RegulatorsPart />
            {medium === 'propane' && (
              <div className="grid gap-3 sm:grid-cols-2">
                <Words name="tankSize" label="Tank" hint="size, like 120 gal; empty: none" />
                <Words name="tankPlace" label="Where the tank stands" />
                <Words name="tankMake" label="Make of the tank" />
                <Words name="tankSerial" label="Serial of the tank" />
              </div>
            )}
          </section>
        )}
        {!drain && (
          <section className={section}>
            <h2 className="text-lg font-semibold">Joints undone for a test</h2>
            <JointsPart />
          </section>
        )}
        <section className={section}>
          <h2 className="text-lg font-semibold">Weakest elements</h2>
          <p className="text-sm text-quiet">
            Parts that permit less than the pipe. While they are in scope the lowest of them caps every test
            pressure.
          </p>
          <ElementsPart />
        </section>
        <section className={section}>
          <h2 className="text-lg font-semibold">Scope</h2>
          <div className="grid gap-3 sm:grid-cols-2">
            <LinesPart name="inScope" label="Inside the test, one line each" />
            <LinesPart name="notCovered" label="Not covered, one line each" />
          </div>
          <FactoryPart />
        </section>
        <div>
          <p role="alert" className="mb-2 min-h-6 text-rust">
            {trouble}
          </p>
          <Button
            type="submit"
            tone="act"
            className="min-h-14 w-full text-lg sm:w-auto sm:px-10"
            disabled={isSubmitting}
          >
            Save the system
          </Button>
        </div>
      </form>
    </FormProvider>
  );
}

'use client';
import { inHtml } from '@/ui/kit/in-html';
import { meterVolume } from '@/core/installation/meters';
import { HEIGHT_FACTS, WHOLE_FACTS, type WholeFact, type WholeRule } from '@/core/installation/whole';
import { type Unit } from '@/core/quantity/unit';
import { dutyFrom, MEDIA, servedBy, type Trade, tradeFor, tradeOf } from '@/core/trades';
import { enterSystem } from '@/device/enter';
import type { OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { goOn } from '@/ui/kit/go-on';
import { ConnectionFigure } from '@/ui/kit/look-figure';
import { byNeed } from '@/ui/kit/by-need';
import { Field, FIELD, Options, TRADE_UNITS, unitsOf } from '@/ui/kit/field';
import { FigureField } from '@/ui/kit/figure-field';
import { lateResolver } from '@/ui/kit/late-resolver';
import { useFormDraft } from '@/ui/kit/use-draft';
import { type FormHeight, formHeight } from '@/wire/form-words';
import type { SystemForm } from '@/wire/places';
import { useRouter } from 'next/navigation';
import { Suspense, useState } from 'react';
import { FormProvider, useForm, useFormContext, useWatch } from 'react-hook-form';
import type { ErrorOf } from './rows';
import { LinesPart } from './ticks';

const PipesPart = byNeed(() => import('./pipes-part').then((m) => m.PipesPart));
const PartLists = byNeed(() => import('./system-parts').then((m) => m.PartLists));
const Sum = byNeed(() => import('./sum').then((m) => m.Sum));

type FigureName =
  | WholeFact
  | FormHeight
  | 'workingPressure'
  | 'supplyPressure'
  | 'meterVolume'
  | 'testDial'
  | 'measuredVolume';

function Figure({
  name,
  label,
  hint,
  units,
}: {
  name: FigureName;
  label: string;
  hint?: string;
  units: readonly Unit[];
}) {
  const { control } = useFormContext<SystemForm>();
  return (
    <FigureField control={control} name={name} label={label} {...(hint ? { hint } : {})} units={units} />
  );
}
function Words({ name, label, hint }: { name: keyof SystemForm; label: string; hint?: string }) {
  const form = useFormContext<SystemForm>();
  const { formState } = form;
  const register = inHtml(form);
  return (
    <Field label={label} {...(hint ? { hint } : {})} wrong={(formState.errors[name] as ErrorOf)?.message}>
      {(ids) => <input {...ids} className={FIELD} {...register(name as 'name')} />}
    </Field>
  );
}
const SECTION = 'grid gap-3 border-t border-ink pt-3';
const PAIRS = 'grid gap-3 sm:grid-cols-2';

/** What the whole is: name, medium, pressures, what bounds it, and the facts its trade asks for. */
function WholePart({ trade }: { trade: Trade }) {
  const form = useFormContext<SystemForm>();
  const { formState, setValue, control } = form;
  const register = inHtml(form);
  const medium = useWatch({ control, name: 'medium' });
  const uses = Object.entries(servedBy(medium));
  return (
    <section className={SECTION}>
      <h2 className="text-lg font-semibold">System</h2>
      <div className={PAIRS}>
        <Words name="name" label="Name of the system" />
        <Field label="Medium" wrong={formState.errors.medium?.message}>
          {(ids) => (
            <select
              {...ids}
              className={FIELD}
              {...register('medium', {
                // a drain stands under no pressure of its own
                onChange: (e: { target: { value: string } }) => {
                  if (tradeFor(e.target.value)?.pressed !== false) return;
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
        {uses.length > 0 && (
          <Field label="What it is" hint="decides which tests are offered">
            {(ids) => (
              <select {...ids} className={FIELD} {...register('duty')}>
                <option value="">not said: offer all</option>
                <Options of={uses} />
              </select>
            )}
          </Field>
        )}
        {trade.pressed && (
          <>
            <Figure
              name="workingPressure"
              label={trade.pressureOf ?? 'Working pressure'}
              hint={trade.pressureOf ? 'from its plate; 0: not known' : 'the highest it works at'}
              units={TRADE_UNITS.pressure}
            />
            {!trade.parted && (
              <Figure name="supplyPressure" label="Supply pressure" units={TRADE_UNITS.pressure} />
            )}
          </>
        )}
        {!trade.parted && (
          <>
            {!trade.unpiped && (
              <>
                <Words name="supplyValve" label="Valve that bounds it" hint="a suspect until proved" />
                <Words name="supplyValveOwner" label="Owner of that valve" />
              </>
            )}
            <div className="flex items-end gap-3">
              <ConnectionFigure at={trade.first.things?.list} />
              <div className="min-w-0 flex-1">
                <Words name="testPoint" label="Where the gauge connects" />
              </div>
            </div>
          </>
        )}
        <Words
          name="emergencyContact"
          label={trade.unpiped ? 'Whom to call' : 'Emergency line found on the meter'}
        />
        <Words
          name="everyMonths"
          label="Tested again every"
          hint="months; a good record then brings the next one to mind"
        />
        {trade.whole.map((key) => {
          const { label, hint, dimension } = WHOLE_FACTS[key];
          return <Figure key={key} name={key} label={label} hint={hint} units={unitsOf(dimension)} />;
        })}
      </div>
    </section>
  );
}

function MeterPart({ trade, meters }: { trade: Trade; meters: readonly { kind: string; label: string }[] }) {
  const form = useFormContext<SystemForm>();
  const { formState, setValue } = form;
  const register = inHtml(form);
  return (
    <section className={SECTION}>
      <h2 className="text-lg font-semibold">Meter</h2>
      <div className={PAIRS}>
        <Field
          label="Class"
          hint="an unknown meter is asked for, never guessed"
          wrong={formState.errors.meterKind?.message}
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
          units={TRADE_UNITS.volume}
        />
        <Words name="meterSerial" label="Serial" />
        <Words name="meterValve" label="Valve before the meter" hint="empty: none of its own" />
        <Words name="meterValveOwner" label="Owner of that meter valve" hint="empty: not said" />
        {trade.fuel && (
          <Figure
            name="testDial"
            label="Smallest test dial, one turn"
            hint="empty: none used"
            units={TRADE_UNITS.volume}
          />
        )}
      </div>
    </section>
  );
}

function PipeSection({ id }: { id: string }) {
  const form = useFormContext<SystemForm>();
  const { control } = form;
  const register = inHtml(form);
  const measuredBy = useWatch({ control, name: 'measuredBy' });
  return (
    <section className={SECTION}>
      <h2 className="text-lg font-semibold">Pipes</h2>
      <Suspense fallback={<p>Opening …</p>}>
        <PipesPart />
      </Suspense>
      <Suspense fallback={<p>The volume stands here once pipes and meter are entered.</p>}>
        <Sum id={id} />
      </Suspense>
      <details className="text-sm" open={Boolean(measuredBy)}>
        <summary className="min-h-8 cursor-pointer text-lake">The volume was measured instead</summary>
        <div className={`mt-2 ${PAIRS}`}>
          <Field label="How">
            {(ids) => (
              <select {...ids} className={FIELD} {...register('measuredBy')}>
                <option value="">by the pipe list</option>
                <option value="draw">by a metered draw</option>
                <option value="strokes">by pump strokes</option>
              </select>
            )}
          </Field>
          <Figure name="measuredVolume" label="Volume measured" units={TRADE_UNITS.volume} />
          <Words name="measuredUncertainty" label="Uncertainty in percent" hint="empty: 5" />
          <Words name="measuredSaid" label="From what" hint="like 32 strokes of 45 ml" />
        </div>
      </details>
    </section>
  );
}

const HeightsPart = ({ trade }: { trade: Trade }) =>
  trade.heights.length > 0 && (
    <section className={SECTION}>
      <h2 className="text-lg font-semibold">Heights</h2>
      <div className={PAIRS}>
        <Words name="datum" label="Counted over" hint="a mark that stays, like the gate sill" />
        {trade.heights.map((key) => {
          const { label, hint }: WholeRule = HEIGHT_FACTS[key];
          return (
            <Figure
              key={key}
              name={formHeight(key)}
              label={label}
              {...(hint ? { hint } : {})}
              units={TRADE_UNITS.length}
            />
          );
        })}
      </div>
    </section>
  );
const TankPart = ({ trade }: { trade: Trade }) =>
  trade.palette.includes('tank') && (
    <section className={SECTION}>
      <h2 className="text-lg font-semibold">Tank</h2>
      <div className={PAIRS}>
        <Words name="tankSize" label="Tank" hint="size, like 120 gal; empty: none" />
        <Words name="tankPlace" label="Where the tank stands" />
        <Words name="tankMake" label="Make of the tank" />
        <Words name="tankSerial" label="Serial of the tank" />
      </div>
    </section>
  );

/** A system entered or changed: facts of the whole, meter, pipes by table, every list of its parts, what is in and out. */
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
  const methods = useForm<SystemForm>({
    resolver: lateResolver(() => import('@/wire/places').then((m) => m.systemSchema)),
    defaultValues: form,
  });
  const { handleSubmit, formState, watch } = methods;
  const { offer, sent } = useFormDraft(methods, `system/${id}`);
  const [medium, duty] = watch(['medium', 'duty']);
  const trade = tradeOf({ medium, ...dutyFrom(medium, duty) });
  const save = async (value: SystemForm) => {
    setTrouble('');
    try {
      const how = await enterSystem(id, site, value);
      sent();
      goOn(router, how, `/places/${id}`);
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
  };
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
        <WholePart trade={trade} />
        {!trade.unpiped && (
          <>
            <MeterPart trade={trade} meters={meters} />
            <PipeSection id={id} />
          </>
        )}
        <HeightsPart trade={trade} />
        <TankPart trade={trade} />
        <Suspense fallback={<p>Opening …</p>}>
          <PartLists trade={trade} />
        </Suspense>
        <section className={SECTION}>
          <h2 className="text-lg font-semibold">Scope</h2>
          <div className={PAIRS}>
            <LinesPart name="inScope" label="Inside the test, one line each" />
            <LinesPart name="notCovered" label="Not covered, one line each" />
          </div>
        </section>
        <div>
          <p role="alert" className="mb-2 min-h-6 text-rust">
            {trouble}
          </p>
          <Button
            type="submit"
            tone="act"
            className="min-h-14 w-full text-lg sm:w-auto sm:px-10"
            disabled={formState.isSubmitting}
          >
            Save the system
          </Button>
        </div>
      </form>
    </FormProvider>
  );
}

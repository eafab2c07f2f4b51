'use client';
import { inHtml } from '@/ui/kit/in-html';
import { dueWords, KIT_KINDS, type KitFacts, type KitKind } from '@/core/instrument/kit';
import { showUnit } from '@/core/quantity/exact';
import type { Unit } from '@/core/quantity/unit';
import { now } from '@/device/clock';
import { office } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { Field, FIELD, TRADE_UNITS } from '@/ui/kit/field';
import { FigureField, WordsField } from '@/ui/kit/figure-field';
import { useFormDraft } from '@/ui/kit/use-draft';
import { useOfficeForm } from '@/ui/kit/use-office-form';
import type { KitForm } from '@/wire/cabinet';
import { uuid7 } from '@/wire/uuid7';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useFieldArray, type UseFormReturn } from 'react-hook-form';

const STEPS: Partial<Record<KitKind, readonly Unit[]>> = {
  thermometer: ['K', 'C', 'F'],
  barometer: ['mbar', 'hPa', 'kPa'],
  vessel: ['ml', 'l', 'gal'],
};

/** A thing of the cabinet as its form shows it. */
const formOfKit = (item: KitFacts | null, id: string): KitForm => ({
  id,
  kind: item?.kind ?? 'hose',
  name: item?.name ?? '',
  serial: item?.serial ?? '',
  due: item?.due ?? '',
  interval: item?.interval ?? null,
  note: item?.note ?? '',
  resolution: item?.resolution ? showUnit(item.resolution) : '',
  stroke: item?.stroke ? showUnit(item.stroke) : '',
  rating: item?.rating ? showUnit(item.rating) : '',
  volume: item?.volume ? showUnit(item.volume) : '',
  accuracy: item?.accuracy ? showUnit(item.accuracy) : '',
  size: item?.size ?? '',
  batch: item?.batch ?? '',
  ranges: (item?.ranges ?? []).map((r) => ({
    name: r.name,
    least: showUnit(r.least),
    greatest: showUnit(r.greatest),
    k: r.k ?? '',
    m: r.m ?? '',
  })),
});

/** Anything else of the cabinet, entered or changed. What is asked follows its kind. */
export function KitFormView({ item, onDone }: { item: KitFacts | null; onDone: () => void }) {
  const router = useRouter();
  const [id] = useState(() => item?.id ?? uuid7(now()));
  const form = useOfficeForm<KitForm>({
    schema: () => import('@/wire/cabinet').then((m) => m.kitFormSchema),
    values: formOfKit(item, id),
    send: async (value) => {
      await office('/api/kit', { body: value });
      draft.sent();
      router.refresh();
      onDone();
    },
  });
  const { control, watch, submit, trouble, busy } = form;
  const register = inHtml(form);
  const { errors } = form.formState;
  const draft = useFormDraft(form, `kit/${item?.id ?? 'new'}`);
  const kind = watch('kind') as KitKind;
  const words = (name: 'name' | 'serial' | 'note' | 'size' | 'batch', label: string) => (
    <WordsField control={control} name={name} label={label} />
  );
  const figure = (
    name: 'resolution' | 'stroke' | 'rating' | 'volume' | 'accuracy',
    label: string,
    units: readonly Unit[],
  ) => <FigureField control={control} name={name} label={label} units={units} />;
  const step = STEPS[kind];
  return (
    <form
      className="mt-3 grid gap-3 border border-seam bg-panel p-4 sm:grid-cols-3"
      noValidate
      onSubmit={submit}
    >
      {draft.offer && <div className="sm:col-span-3">{draft.offer}</div>}
      <Field label="Kind">
        {(ids) => (
          <select {...ids} className={FIELD} {...register('kind')}>
            {Object.entries(KIT_KINDS).map(([k, w]) => (
              <option key={k} value={k}>
                {w}
              </option>
            ))}
          </select>
        )}
      </Field>
      {words('name', 'Name')}
      {words('serial', 'Serial number')}
      {kind === 'pump' && figure('stroke', 'One stroke delivers', TRADE_UNITS.volume)}
      {['pump', 'hose', 'plug'].includes(kind) && figure('rating', 'Rated for', TRADE_UNITS.pressure)}
      {kind === 'regulator' && figure('rating', 'Gives at most', TRADE_UNITS.pressure)}
      {kind === 'hose' && figure('volume', 'Holds inside, of gas', ['ml', 'l', 'ft3'])}
      {kind === 'fan' && figure('accuracy', 'Flows known to, of the flow', ['%'])}
      {step && figure('resolution', 'Step', step)}
      {['vessel', 'plug', 'hose'].includes(kind) &&
        words(
          'size',
          kind === 'plug'
            ? 'Bores it fits, and its kind'
            : kind === 'hose'
              ? 'Length and couplings'
              : 'Holds',
        )}
      {kind === 'consumable' && words('batch', 'Batch printed on it')}
      <WordsField
        control={control}
        name="due"
        type="date"
        label={`${dueWords(kind)} by`}
        hint="empty: never"
      />
      <Field label="Days between checks" hint="empty: none" wrong={errors.interval?.message}>
        {(ids) => (
          <input
            {...ids}
            type="number"
            min={1}
            className={FIELD}
            {...register('interval', { setValueAs: (v) => (v === '' || v === null ? null : Number(v)) })}
          />
        )}
      </Field>
      {words('note', 'Note')}
      {kind === 'fan' && <Ranges form={form} />}
      <div className="sm:col-span-3">
        <p role="alert" className="text-rust">
          {trouble}
        </p>
        <div className="flex gap-3">
          <Button type="submit" tone="act" disabled={busy}>
            Save it
          </Button>
          <Button onClick={onDone}>Back</Button>
        </div>
      </div>
    </form>
  );
}

/** The ranges of a fan, each with its rings or plates. */
function Ranges({ form: { control } }: { form: UseFormReturn<KitForm> }) {
  const ranges = useFieldArray({ control, name: 'ranges', keyName: 'key' });
  return (
    <div className="grid gap-3 sm:col-span-3">
      <p className="text-sm text-quiet">
        From the fan’s own sheet, one line for each ring: flow = k × (pressure at the fan in Pa)^m. k and m
        may stay empty where the gauge shows the flow itself.
      </p>
      {ranges.fields.map((r, i) => (
        <div key={r.key} className="grid gap-3 sm:grid-cols-[1fr_2fr_2fr_5rem_5rem_auto]">
          <WordsField control={control} name={`ranges.${i}.name`} label="Range" />
          {(['least', 'greatest'] as const).map((end) => (
            <FigureField
              control={control}
              name={`ranges.${i}.${end}`}
              key={end}
              label={end === 'least' ? 'Least flow' : 'Greatest flow'}
              spoken={end}
              units={TRADE_UNITS.flow}
            />
          ))}
          <WordsField control={control} name={`ranges.${i}.k`} label="k" />
          <WordsField control={control} name={`ranges.${i}.m`} label="m" />
          <Button className="self-end" onClick={() => ranges.remove(i)}>
            Remove
          </Button>
        </div>
      ))}
      <Button
        className="justify-self-start"
        onClick={() => ranges.append({ name: '', least: '', greatest: '', k: '', m: '' })}
      >
        Add a range
      </Button>
    </div>
  );
}

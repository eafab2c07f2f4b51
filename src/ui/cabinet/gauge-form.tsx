'use client';
import { inHtml } from '@/ui/kit/in-html';
import type { Gauge } from '@/core/instrument/gauge';
import { showUnit } from '@/core/quantity/exact';
import { now } from '@/device/clock';
import { enterGauge } from '@/device/enter';
import { Button } from '@/ui/kit/button';
import { Field, FIELD, TRADE_UNITS } from '@/ui/kit/field';
import { FigureField, WordsField } from '@/ui/kit/figure-field';
import { useFormDraft } from '@/ui/kit/use-draft';
import { useOfficeForm } from '@/ui/kit/use-office-form';
import type { GaugeForm } from '@/wire/cabinet';
import { uuid7 } from '@/wire/uuid7';
import { useRouter } from 'next/navigation';
import { useState } from 'react';

/** A gauge entered or changed. */
export function GaugeFormView({ gauge, onDone }: { gauge: Gauge | null; onDone: () => void }) {
  const router = useRouter();
  const [id] = useState(() => gauge?.id ?? uuid7(now()));
  const form = useOfficeForm<GaugeForm>({
    schema: () => import('@/wire/cabinet').then((m) => m.gaugeFormSchema),
    values: gauge
      ? {
          id,
          name: gauge.name,
          serial: gauge.serial,
          kind: gauge.kind,
          least: showUnit(gauge.least),
          greatest: showUnit(gauge.greatest),
          resolution: showUnit(gauge.resolution),
          accuracy: gauge.accuracy ?? '',
          calibrated: gauge.calibrated,
          calibrationDue: gauge.calibrationDue,
        }
      : {
          id,
          name: '',
          serial: '',
          kind: 'digital',
          least: '0 mbar',
          greatest: '',
          resolution: '',
          accuracy: '',
          calibrated: '',
          calibrationDue: '',
        },
    send: async (value) => {
      const how = await enterGauge(value);
      draft.sent();
      if (how === 'sent') router.refresh();
      onDone();
    },
  });
  const { control, submit, trouble, busy } = form;
  const register = inHtml(form);
  const { errors } = form.formState;
  const draft = useFormDraft(form, `gauge/${gauge?.id ?? 'new'}`);
  const words = (name: 'name' | 'serial' | 'accuracy', label: string) => (
    <WordsField control={control} name={name} label={label} />
  );
  const figure = (name: 'least' | 'greatest' | 'resolution', label: string) => (
    <FigureField control={control} name={name} label={label} units={TRADE_UNITS.gauge} />
  );
  const date = (name: 'calibrated' | 'calibrationDue', label: string) => (
    <WordsField control={control} name={name} label={label} type="date" />
  );
  return (
    <form
      className="mt-3 grid gap-3 border border-seam bg-panel p-4 sm:grid-cols-3"
      noValidate
      onSubmit={submit}
    >
      {draft.offer && <div className="sm:col-span-3">{draft.offer}</div>}
      {words('name', 'Name')}
      {words('serial', 'Serial number')}
      <Field label="Kind" wrong={errors.kind?.message}>
        {(ids) => (
          <select {...ids} className={FIELD} {...register('kind')}>
            <option value="digital">digital</option>
            <option value="dial">dial</option>
            <option value="liquid">water gauge</option>
            <option value="chart">chart recorder</option>
          </select>
        )}
      </Field>
      {figure('least', 'Range from')}
      {figure('greatest', 'Range to')}
      {figure('resolution', 'Display step or smallest division')}
      {words('accuracy', 'Accuracy, as its sheet says')}
      {date('calibrated', 'Calibrated on')}
      {date('calibrationDue', 'Next calibration')}
      <div className="sm:col-span-3">
        <p role="alert" className="text-rust">
          {trouble}
        </p>
        <div className="flex gap-3">
          <Button type="submit" tone="act" disabled={busy}>
            Save the gauge
          </Button>
          <Button onClick={onDone}>Back</Button>
        </div>
      </div>
    </form>
  );
}

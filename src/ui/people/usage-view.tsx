'use client';
import {
  CLOCK_WAYS,
  DAY_WAYS,
  type Measured,
  MEASURED,
  METRIC,
  told,
  UNIT_CHOICES,
  US_CUSTOMARY,
  type Habits,
  type Usage,
  usageOf,
  type Wishes,
} from '@/core/quantity/usage';
import { unitLabel } from '@/core/quantity/unit';
import { office } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { SelectField } from '@/ui/kit/field';
import { useOfficeForm } from '@/ui/kit/use-office-form';
import { formOfWishes, USAGE_KEYS, type UsageForm, wishesOf } from '@/wire/usage';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useController, type Control, useWatch } from 'react-hook-form';

const isMeasured = (key: keyof Habits): key is Measured => (MEASURED as readonly string[]).includes(key);
const TITLES = { days: 'Days', clock: 'Clock' } as const;
const titleOf = (key: keyof Habits): string => (isMeasured(key) ? UNIT_CHOICES[key].title : TITLES[key]);
const optionsOf = (key: keyof Habits): { id: string; title: string }[] =>
  isMeasured(key)
    ? UNIT_CHOICES[key].units.map((id) => ({ id, title: unitLabel(id) }))
    : Object.entries(key === 'days' ? DAY_WAYS : CLOCK_WAYS).map(([id, title]) => ({ id, title }));
const wordOf = (key: keyof Habits, value: string): string =>
  optionsOf(key).find((o) => o.id === value)?.title ?? value;

function Choice({ control, name, base }: { control: Control<UsageForm>; name: keyof Habits; base: Usage }) {
  const { field } = useController({ control, name });
  const of = isMeasured(name) ? UNIT_CHOICES[name].of : '';
  return (
    <div>
      <SelectField
        label={titleOf(name)}
        value={field.value}
        options={optionsOf(name)}
        none={`as usual: ${wordOf(name, base[name])}`}
        onChange={field.onChange}
      />
      {of && <p className="text-sm text-quiet">{of}</p>}
    </div>
  );
}
/** What a sentence of the product becomes by what is chosen, before it is kept. */
function Example({ control, base }: { control: Control<UsageForm>; base: Usage }) {
  const usage = usageOf(base, wishesOf(useWatch({ control }) as UsageForm));
  const made =
    'Read on 24 Mar 2026, 16:05 at 18 °C: 20.35 mbar in 12.0 l of pipe, 22 mm, 14 m; a leak up to 1.2 l/h; the house at 4.0 bar.';
  return (
    <p className="border-l-4 border-lake pl-3" data-example translate="no">
      {told(made, { usage })}
    </p>
  );
}
interface FormProps {
  readonly title: string;
  readonly about: string;
  readonly path: string;
  readonly wishes: Wishes;
  readonly base: Usage;
}
function UsageFields({ title, about, path, wishes, base }: FormProps) {
  const router = useRouter();
  const [kept, setKept] = useState('');
  const { control, submit, trouble, reset } = useOfficeForm<UsageForm>({
    schema: () => import('@/wire/usage').then((m) => m.usageSchema),
    values: formOfWishes(wishes),
    send: async (form) => {
      await office(path, { method: 'PUT', body: form });
      setKept('Kept. Pages tell figures, days and times so from now on.');
      router.refresh();
    },
  });
  const all = (usage: Usage | null) => {
    setKept('');
    reset(formOfWishes(usage ?? {}));
  };
  return (
    <section className="mt-6">
      <h2 className="text-lg font-semibold">{title}</h2>
      <p className="text-quiet">{about}</p>
      <form noValidate onSubmit={submit} className="mt-3 grid gap-4">
        <div className="flex flex-wrap gap-2">
          <Button onClick={() => all(METRIC)}>All metric</Button>
          <Button onClick={() => all(US_CUSTOMARY)}>All US customary</Button>
          <Button onClick={() => all(null)}>All as usual</Button>
        </div>
        <div className="grid grid-cols-2 gap-x-4 gap-y-3 md:grid-cols-3 lg:grid-cols-4">
          {USAGE_KEYS.map((key) => (
            <Choice key={key} control={control} name={key} base={base} />
          ))}
        </div>
        <Example control={control} base={base} />
        <p className="flex flex-wrap items-center gap-4">
          <Button type="submit" tone="act">
            Keep
          </Button>
          <span role="status">{kept}</span>
          <span role="alert" className="text-rust">
            {trouble}
          </span>
        </p>
      </form>
    </section>
  );
}
/** Units, days and times as a person, and an organisation, is used to them. */
export function UsageView({
  organisation,
  own,
  name,
  owner,
}: {
  organisation: Wishes;
  own: Wishes;
  name: string;
  owner: boolean;
}) {
  return (
    <div className="max-w-4xl">
      <h1 className="text-2xl font-bold">Units, days and times</h1>
      <p className="mt-2">
        Figures are kept, judged and sealed as the gauge showed them. Here is chosen how they are told: what a
        gauge of a test judged stays in its unit, with yours beside it by “Both units”; everything that is
        worked out is told in yours.
      </p>
      <UsageFields
        title="As you are used to them"
        about="On every page that you open, on any device."
        path="/api/usage"
        wishes={own}
        base={usageOf(organisation, {})}
      />
      {owner && (
        <UsageFields
          title={`In all of ${name}`}
          about="For everybody who chose nothing else, and on certificates and the pages that customers open."
          path="/api/organisation/usage"
          wishes={organisation}
          base={METRIC}
        />
      )}
    </div>
  );
}

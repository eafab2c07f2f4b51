'use client';
import type { Scenario } from '@/core/yard/scenario';
import { CAUSES, ENDS, TRAPS } from '@/core/yard/words';
import { WORDS } from '@/core/verdict/words';
import { useAttempt } from '@/ui/kit/use-attempt';
import { office } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { asOptions, FIELD, Field } from '@/ui/kit/field';
import { useFormDraft } from '@/ui/kit/use-draft';
import type { TriedConduct } from '@/wire/yard';
import { useState } from 'react';
import { useFieldArray, useForm, useWatch } from 'react-hook-form';
import { Happenings } from './happenings';
import { AREA, Block, CODE, type Known, type Parts, Several } from './parts';
import { ALWAYS, criteriaIn, formOf, scenarioOf, type ScenarioForm } from './scenario-form';

/** A scenario in fields: what is told, what is hidden, what is true, what comes in between, what is asked, and how it is tried. */
export function ScenarioEditor({
  from,
  shipped,
  knows,
}: {
  from: Scenario;
  /** It ships with the product: one's own needs another name. */ shipped: boolean;
  knows: Known;
}) {
  const start = formOf(from);
  const form = useForm<ScenarioForm>({
    defaultValues: shipped ? { ...start, id: `own-${start.id}`, title: `${start.title}, ours` } : start,
  });
  const { control, register, getValues } = form;
  const draft = useFormDraft(form, `scenario ${from.id}`);
  const [tried, setTried] = useState<readonly TriedConduct[] | null>(null);
  const [said, setSaid] = useState('');
  const { busy, trouble, attempt } = useAttempt();
  const doing = (work: (text: string) => Promise<void>) =>
    attempt(async () => {
      setSaid('');
      await work(JSON.stringify(scenarioOf(getValues(), from)));
    });
  const tryIt = () =>
    doing(async (text) => {
      setTried(null);
      const answer = await office<{ tried: TriedConduct[] }>('/api/yard/scenarios/try', { body: { text } });
      setTried(answer.tried);
    });
  const bring = () =>
    doing(async (text) => {
      const { title } = await office<{ title: string }>('/api/yard/scenarios', { body: { text } });
      draft.sent();
      setSaid(`${title} is in: it stands in the Yard of everybody.`);
    });
  const parts: Parts = { control, register, knows };
  return (
    <form
      className="mt-3 grid max-w-4xl gap-5"
      aria-label="Scenario"
      onSubmit={(e) => {
        e.preventDefault();
        void tryIt();
      }}
    >
      {draft.offer}
      <Told {...parts} />
      <Hides {...parts} />
      <Happenings {...parts} />
      <Asks {...parts} />
      <Conducts {...parts} />
      <section aria-label="Try it" className="grid gap-3 border-2 border-dashed border-heather p-3">
        <p className="text-quiet">
          Trying conducts each of them through the bench and the simulated installation: nothing is kept.
        </p>
        <div className="flex flex-wrap gap-3">
          <Button type="submit" tone="act" disabled={busy}>
            {busy ? 'Conducting …' : 'Try it'}
          </Button>
          <Button disabled={busy} onClick={() => void bring()}>
            Bring it in
          </Button>
        </div>
        <p role="alert" className="text-rust empty:hidden">
          {trouble}
        </p>
        <p aria-live="polite" className="empty:hidden">
          {said}
        </p>
        {tried && <Tried tried={tried} />}
      </section>
    </form>
  );
}
function Tried({ tried }: { tried: readonly TriedConduct[] }) {
  return (
    <ul aria-label="What came of it" className="grid gap-2">
      {tried.map((t) => (
        <li
          key={t.name}
          className={`border-l-4 pl-3 ${t.trouble ? 'border-rust' : 'border-moss'}`}
          data-tried={t.trouble === null}
        >
          <strong>{t.name}</strong>: {ENDS[t.end].toLowerCase()}
          {t.result && `, ${WORDS[t.result as keyof typeof WORDS]}`}
          {t.missed.length > 0 && `; missed ${t.missed.join(', ')}`}
          {t.trouble && <p className="text-rust">{t.trouble}</p>}
        </li>
      ))}
    </ul>
  );
}

function Told({ register }: Parts) {
  return (
    <Block title="What is told">
      <div className="grid gap-3 sm:grid-cols-2">
        <Field label="Title">
          {(ids) => <input {...ids} className={FIELD} maxLength={80} {...register('title')} />}
        </Field>
        <Field label="Name of its file" hint="small letters, figures, hyphens">
          {(ids) => <input {...ids} className={FIELD} maxLength={60} {...register('id')} />}
        </Field>
        <Field label="For">
          {(ids) => (
            <select {...ids} className={FIELD} {...register('level')}>
              <option value="1">whoever begins</option>
              <option value="2">some practice</option>
              <option value="3">an old hand</option>
            </select>
          )}
        </Field>
        <Field label="Takes about, min">
          {(ids) => <input {...ids} className={FIELD} inputMode="numeric" {...register('minutes')} />}
        </Field>
      </div>
      <Field label="Briefing" hint="what stands there, and what nobody would tell is left out">
        {(ids) => <textarea {...ids} className={AREA} maxLength={2000} {...register('briefing')} />}
      </Field>
      <div role="group" aria-label="Trains">
        <Several name="traps" of={asOptions(TRAPS)} register={register} />
      </div>
    </Block>
  );
}
function Hides({ register, knows }: Parts) {
  return (
    <Block title="What is hidden, and what is true">
      <Field label="Hidden" hint="with its usual sizes">
        {(ids) => (
          <select {...ids} className={FIELD} {...register('as')}>
            <option value="">what stands below</option>
            {Object.entries(knows.faults).map(([key, words]) => (
              <option key={key} value={key}>
                {words}
              </option>
            ))}
          </select>
        )}
      </Field>
      <Field label="Sizes of your own" hint="JSON, figures with their unit, as in docs/scenarios.md">
        {(ids) => <textarea {...ids} className={CODE} spellCheck={false} {...register('hidden')} />}
      </Field>
      <div role="group" aria-label="Right results">
        <p className="text-sm">Right results</p>
        <Several name="result" of={asOptions(WORDS)} register={register} />
      </div>
      <div role="group" aria-label="Right causes">
        <p className="text-sm">Right causes</p>
        <Several name="cause" of={asOptions(CAUSES)} register={register} />
      </div>
      <details>
        <summary className="flex min-h-11 cursor-pointer items-center">
          Places that are right (none: no place is asked)
        </summary>
        <Several name="place" of={knows.places} register={register} />
      </details>
      <Field label="What is told when it is over" hint="with the numbers">
        {(ids) => <textarea {...ids} className={AREA} maxLength={1500} {...register('tells')} />}
      </Field>
    </Block>
  );
}
function Asks({ control, register, knows }: Parts) {
  const [common, own] = useWatch({ control, name: ['common', 'own'] });
  const ids = criteriaIn({ common, own });
  const title = (id: string) => knows.rubric.find((r) => r.id === id)?.title ?? id;
  return (
    <Block title="What is asked of a conduct">
      <Several name="common" of={knows.rubric} register={register} />
      <Field label="Criteria of its own" hint="JSON">
        {(f) => <textarea {...f} className={CODE} spellCheck={false} {...register('own')} />}
      </Field>
      <div role="group" aria-label="Without these a right result was luck">
        <p className="text-sm">Without these a right result was luck</p>
        <Several name="proof" of={ids.map((id) => ({ id, title: title(id) }))} register={register} />
      </div>
    </Block>
  );
}
function Conducts({ control, register, knows }: Parts) {
  const { fields, append, remove } = useFieldArray({ control, name: 'conducts' });
  const [common, own] = useWatch({ control, name: ['common', 'own'] });
  const ids = [...criteriaIn({ common, own }), ...ALWAYS];
  return (
    <Block
      title="How it is conducted"
      hint="At least one that is good and one typical mistake. Whoever conducts follows the bench, but for what is written beneath."
    >
      {fields.map((f, i) => (
        <div key={f.id} className="grid gap-3 border-l-4 border-seam pl-3" data-conduct={i}>
          <div className="grid gap-3 sm:grid-cols-2">
            <Field label="Conduct">
              {(x) => <input {...x} className={FIELD} maxLength={120} {...register(`conducts.${i}.name`)} />}
            </Field>
            <label className="flex min-h-12 items-center gap-2 self-end">
              <input
                type="checkbox"
                className="size-5 accent-(--heather)"
                {...register(`conducts.${i}.good`)}
              />
              is good
            </label>
            <Field label="Says it was">
              {(x) => (
                <select {...x} className={FIELD} {...register(`conducts.${i}.cause`)}>
                  <option value="">nothing</option>
                  {Object.entries(CAUSES).map(([key, words]) => (
                    <option key={key} value={key}>
                      {words}
                    </option>
                  ))}
                </select>
              )}
            </Field>
            <Field label="at">
              {(x) => (
                <select {...x} className={FIELD} {...register(`conducts.${i}.place`)}>
                  <option value="">no place</option>
                  {knows.places.map((p) => (
                    <option key={p.id} value={p.id}>
                      {p.title}
                    </option>
                  ))}
                </select>
              )}
            </Field>
          </div>
          <details>
            <summary className="flex min-h-11 cursor-pointer items-center">Caught by (a mistake)</summary>
            <Several
              name={`conducts.${i}.caught`}
              of={ids.map((id) => ({ id, title: knows.rubric.find((r) => r.id === id)?.title ?? id }))}
              register={register}
            />
          </details>
          <Field label="Done otherwise" hint="JSON: answers, says, raises, skips, steps, tells">
            {(x) => (
              <textarea {...x} className={CODE} spellCheck={false} {...register(`conducts.${i}.more`)} />
            )}
          </Field>
          <Button className="justify-self-start" onClick={() => remove(i)}>
            Take this conduct away
          </Button>
        </div>
      ))}
      <Button
        className="justify-self-start"
        onClick={() => append({ name: 'Another', good: false, cause: '', place: '', caught: [], more: '' })}
      >
        Another conduct
      </Button>
    </Block>
  );
}

'use client';
import { Button } from '@/ui/kit/button';
import { FIELD, Field } from '@/ui/kit/field';
import { useFieldArray } from 'react-hook-form';
import { Block, CODE, type Parts } from './parts';

/** What comes in between: when, who says what, and what may be answered. */
export function Happenings(parts: Parts) {
  const { control, register, knows } = parts;
  const { fields, append, remove } = useFieldArray({ control, name: 'happenings' });
  return (
    <Block title="What comes in between">
      {fields.map((f, i) => (
        <div key={f.id} className="grid gap-3 border-l-4 border-seam pl-3" data-happening={i}>
          <div className="grid gap-3 sm:grid-cols-2">
            <Field label="Comes about" hint={knows.procedure}>
              {(x) => (
                <select {...x} className={FIELD} {...register(`happenings.${i}.stage`)}>
                  <option value="">at the beginning</option>
                  {knows.stages.map((s) => (
                    <option key={s.id} value={s.id}>
                      at: {s.title}
                    </option>
                  ))}
                </select>
              )}
            </Field>
            <label className="flex min-h-12 items-center gap-2 self-end">
              <input
                type="checkbox"
                className="size-5 accent-(--heather)"
                {...register(`happenings.${i}.holding`)}
              />
              once its hold was begun
            </label>
            <Field label="So long after" hint="like 30 s; empty: at once">
              {(x) => <input {...x} className={FIELD} {...register(`happenings.${i}.after`)} />}
            </Field>
            <Field label="Once the gauge shows" hint="like 50 psi; empty: whatever it shows">
              {(x) => <input {...x} className={FIELD} {...register(`happenings.${i}.over`)} />}
            </Field>
            <Field label="Who">
              {(x) => <input {...x} className={FIELD} {...register(`happenings.${i}.who`)} />}
            </Field>
            <Field label="Its name" hint="for conducts and criteria">
              {(x) => <input {...x} className={FIELD} {...register(`happenings.${i}.id`)} />}
            </Field>
          </div>
          <Field label="Says, or what is seen">
            {(x) => (
              <textarea
                {...x}
                className={`${FIELD} min-h-20 py-2`}
                maxLength={600}
                {...register(`happenings.${i}.says`)}
              />
            )}
          </Field>
          <Answers {...parts} at={i} />
          <Field label="What it changes of what is hidden" hint='JSON, as { "changes": … }'>
            {(x) => (
              <textarea {...x} className={CODE} spellCheck={false} {...register(`happenings.${i}.more`)} />
            )}
          </Field>
          <Button className="justify-self-start" onClick={() => remove(i)}>
            Take this away
          </Button>
        </div>
      ))}
      <Button
        className="justify-self-start"
        onClick={() =>
          append({
            id: `comes-${fields.length + 1}`,
            stage: '',
            holding: false,
            after: '',
            over: '',
            who: '',
            says: '',
            answers: [],
            more: '',
          })
        }
      >
        Something comes in between
      </Button>
    </Block>
  );
}
function Answers({ control, register, at }: Parts & { at: number }) {
  const { fields, append, remove } = useFieldArray({ control, name: `happenings.${at}.answers` });
  return (
    <div className="grid gap-3">
      {fields.map((f, k) => (
        <div key={f.id} className="grid gap-2 border-l-4 border-heather pl-3">
          <Field label={`Answer ${k + 1}`}>
            {(x) => <input {...x} className={FIELD} {...register(`happenings.${at}.answers.${k}.text`)} />}
          </Field>
          <div className="grid gap-2 sm:grid-cols-2">
            <Field label="Its name">
              {(x) => <input {...x} className={FIELD} {...register(`happenings.${at}.answers.${k}.key`)} />}
            </Field>
            <label className="flex min-h-12 items-center gap-2 self-end">
              <input
                type="checkbox"
                className="size-5 accent-(--heather)"
                {...register(`happenings.${at}.answers.${k}.good`)}
              />
              is the good one
            </label>
            <Field label="What follows">
              {(x) => <input {...x} className={FIELD} {...register(`happenings.${at}.answers.${k}.then`)} />}
            </Field>
            <Field label="Dangerous: what would have happened" hint="ends the practice">
              {(x) => (
                <input {...x} className={FIELD} {...register(`happenings.${at}.answers.${k}.danger`)} />
              )}
            </Field>
          </div>
          <Button className="justify-self-start" onClick={() => remove(k)}>
            Take this answer away
          </Button>
        </div>
      ))}
      <Button
        className="justify-self-start"
        onClick={() =>
          append({ key: `answer-${fields.length + 1}`, text: '', good: false, danger: '', then: '' })
        }
      >
        An answer to it
      </Button>
    </div>
  );
}

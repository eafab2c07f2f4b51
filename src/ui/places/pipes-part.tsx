'use client';
import { inHtml } from '@/ui/kit/in-html';
import { pipeTable } from '@/core/installation/pipes';
import { now } from '@/device/clock';
import { Field, FIELD, Options, TRADE_UNITS } from '@/ui/kit/field';
import { FigureField } from '@/ui/kit/figure-field';
import { nextPipe, PIPE_CHOICES, pipeOfTable, usualSize } from '@/wire/pipe';
import type { SystemForm } from '@/wire/places';
import { uuid7 } from '@/wire/uuid7';
import { useFieldArray, useFormContext } from 'react-hook-form';
import { Add, type ErrorOf, Remove, ROW } from './rows';

/** Pipes by standard and nominal size; a pipe in no table is entered by its own diameters. */
export function PipesPart() {
  const form = useFormContext<SystemForm>();
  const { control, formState, watch, setValue } = form;
  const register = inHtml(form);
  const { fields, append, remove } = useFieldArray({ control, name: 'pipes', keyName: 'key' });
  const errors = formState.errors.pipes;
  const choose = (i: number, table: string, nominal: string) =>
    setValue(`pipes.${i}`, pipeOfTable({ ...watch(`pipes.${i}`), table, nominal }));
  const add = () => {
    const last = watch('pipes')[fields.length - 1];
    append(nextPipe(uuid7(now()).slice(-12), last, fields.length ? '' : 'Main run'));
  };
  return (
    <>
      {fields.map((f, i) => {
        const table = watch(`pipes.${i}.table`);
        const wrong = errors?.[i];
        return (
          <div
            key={f.key}
            className={`${ROW} sm:grid-cols-[1.2fr_1.4fr_1fr_1.3fr_auto]`}
            role="group"
            aria-label={`Pipe ${i + 1}`}
          >
            <Field label="Run" wrong={wrong?.name?.message}>
              {(ids) => <input {...ids} className={FIELD} {...register(`pipes.${i}.name`)} />}
            </Field>
            <Field label="Pipe and standard">
              {(ids) => (
                <select
                  {...ids}
                  className={FIELD}
                  value={table}
                  onChange={(e) => choose(i, e.target.value, usualSize(e.target.value))}
                >
                  <Options of={PIPE_CHOICES} />
                  <option value="">in no table: own diameters</option>
                </select>
              )}
            </Field>
            {table ? (
              <Field label="Size">
                {(ids) => (
                  <select
                    {...ids}
                    className={FIELD}
                    value={watch(`pipes.${i}.nominal`)}
                    onChange={(e) => choose(i, table, e.target.value)}
                  >
                    {pipeTable(table)!.sizes.map((s) => (
                      <option key={s.key}>{s.key}</option>
                    ))}
                  </select>
                )}
              </Field>
            ) : (
              <FigureField control={control} name={`pipes.${i}.bore`} label="Bore" units={TRADE_UNITS.bore} />
            )}
            <FigureField
              control={control}
              name={`pipes.${i}.length`}
              label="Length"
              units={TRADE_UNITS.length}
            />
            <Remove what={`pipe ${i + 1}`} onClick={() => remove(i)} />
            {!table && (
              <FigureField
                control={control}
                name={`pipes.${i}.size`}
                label="Outside diameter"
                className="sm:col-span-2"
                units={TRADE_UNITS.bore}
              />
            )}
            <FigureField
              control={control}
              name={`pipes.${i}.rating`}
              label="Rated for"
              hint="empty: not known"
              spoken="Rating"
              units={TRADE_UNITS.pressure}
            />
            <p className="text-sm text-quiet sm:col-span-5">
              {table ? (
                <>
                  Bore <span className="figure-narrow">{watch(`pipes.${i}.bore`)}</span>,{' '}
                  {pipeTable(table)!.standard}; the maker’s print on the pipe wins.
                </>
              ) : (
                'Material and wall are not known: no stiffness when full of water.'
              )}
            </p>
          </div>
        );
      })}
      {(errors as ErrorOf)?.message && <p className="text-sm text-rust">{(errors as ErrorOf)!.message}</p>}
      <Add onClick={add}>Add a pipe</Add>
    </>
  );
}

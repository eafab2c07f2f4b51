'use client';
import { Plus, Trash2 } from 'lucide-react';
import { Controller, useFieldArray, useFormContext, type Control } from 'react-hook-form';
import { pipeTable } from '@/core/installation/pipes';
import { OPTIONAL_VALVES } from '@/core/installation/section';
import { VALVE_WORDS } from '@/core/installation/parts';
import { now } from '@/device/clock';
import { Button } from '@/ui/kit/button';
import { Field, FIELD, Options, TRADE_UNITS } from '@/ui/kit/field';
import { FigureField } from '@/ui/kit/figure-field';
import { PIPE_CHOICES, usualSize, nextPipe, pipeOfTable } from '@/wire/pipe';
import { ACCESS, type SystemForm } from '@/wire/places';
import { uuid7 } from '@/wire/uuid7';

export type ErrorOf = { message?: string } | undefined;
const row = 'grid gap-3 border border-seam bg-panel p-3';

function Remove({ what, onClick }: { what: string; onClick: () => void }) {
  return (
    <Button className="min-h-12 self-end" aria-label={`Remove ${what}`} onClick={onClick}>
      <Trash2 size={18} aria-hidden /> Remove
    </Button>
  );
}
function Add({ children, onClick }: { children: string; onClick: () => void }) {
  return (
    <Button className="justify-self-start" onClick={onClick}>
      <Plus size={18} aria-hidden /> {children}
    </Button>
  );
}

/** Pipes by standard and nominal size; a pipe in no table is entered by its own diameters. */
export function PipesPart() {
  const { control, register, formState, watch, setValue } = useFormContext<SystemForm>();
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
            className={`${row} sm:grid-cols-[1.2fr_1.4fr_1fr_1.3fr_auto]`}
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

const PLATE_WORDS = { make: 'Make', model: 'Model', serial: 'Serial' } as const;

/** Appliances with their valve, inside volume and the maximum inlet pressure on the plate. */
export function AppliancesPart({ gas }: { gas: boolean }) {
  const { control, register, formState } = useFormContext<SystemForm>();
  const { fields, append, remove } = useFieldArray({ control, name: 'appliances', keyName: 'key' });
  return (
    <>
      {fields.map((f, i) => {
        const wrong = formState.errors.appliances?.[i];
        return (
          <div key={f.key} className={`${row} sm:grid-cols-3`} role="group" aria-label={`Appliance ${i + 1}`}>
            <Field label="Appliance" wrong={wrong?.name?.message}>
              {(ids) => <input {...ids} className={FIELD} {...register(`appliances.${i}.name`)} />}
            </Field>
            <Field label="Where it stands" wrong={wrong?.place?.message}>
              {(ids) => <input {...ids} className={FIELD} {...register(`appliances.${i}.place`)} />}
            </Field>
            <Field label="Its valve" wrong={wrong?.valve?.message}>
              {(ids) => <input {...ids} className={FIELD} {...register(`appliances.${i}.valve`)} />}
            </Field>
            <FigureField
              control={control}
              name={`appliances.${i}.volume`}
              label="Volume inside"
              units={TRADE_UNITS.volume}
            />
            {gas && (
              <FigureField
                control={control}
                name={`appliances.${i}.maxInlet`}
                label="Maximum inlet on its plate"
                hint="empty: not read"
                spoken="Maximum inlet"
                units={TRADE_UNITS.pressure}
              />
            )}
            {gas && (
              <FigureField
                control={control}
                name={`appliances.${i}.input`}
                label="Heat input on its plate"
                hint="empty: not read"
                spoken="Heat input"
                units={TRADE_UNITS.power}
              />
            )}
            {(['make', 'model', 'serial'] as const).map((key) => (
              <Field
                key={key}
                label={PLATE_WORDS[key]}
                hint="from its plate; empty: not read"
                wrong={wrong?.[key]?.message}
              >
                {(ids) => <input {...ids} className={FIELD} {...register(`appliances.${i}.${key}`)} />}
              </Field>
            ))}
            <div className="flex flex-wrap items-end justify-between gap-3">
              {gas &&
                (['hasPilot', 'hasLid'] as const).map((key) => (
                  <label key={key} className="flex min-h-12 items-center gap-2">
                    <input
                      type="checkbox"
                      className="size-5 accent-lake"
                      {...register(`appliances.${i}.${key}`)}
                    />
                    {key === 'hasPilot' ? 'pilot' : 'fold-down lid'}
                  </label>
                ))}
              <Remove what={`appliance ${i + 1}`} onClick={() => remove(i)} />
            </div>
          </div>
        );
      })}
      <Add
        onClick={() =>
          append({
            id: uuid7(now()).slice(-12),
            name: '',
            place: '',
            kind: '',
            valve: 'isolating valve',
            hasPilot: false,
            hasLid: false,
            volume: gas ? '0.3 l' : '0 l',
            maxInlet: '',
            input: '',
            make: '',
            model: '',
            serial: '',
          })
        }
      >
        Add an appliance
      </Add>
    </>
  );
}

interface Column {
  readonly key: string;
  readonly label: string;
  readonly hint?: string;
  /** A figure in one of these units; absent: words. */
  readonly units?: (typeof TRADE_UNITS)['pressure' | 'bore'];
  /** One of these, by key, in words. */
  readonly options?: Readonly<Record<string, string>>;
}
type Listed = 'elements' | 'factoryTested' | 'surfaces' | 'loops' | 'valves' | 'regulators' | 'joints';

/** A list of the form whose lines are alike: columns of words and figures, a line added or taken away. */
function RowsPart({
  name,
  what,
  columns,
  grid,
  add,
  blank,
}: {
  name: Listed;
  what: string;
  columns: readonly Column[];
  grid: string;
  add: string;
  blank: (count: number) => object;
}) {
  const { control, register, formState } = useFormContext<SystemForm>();
  const { fields, append, remove } = useFieldArray({ control, name, keyName: 'key' });
  const errors = formState.errors[name] as Record<string, ErrorOf>[] | undefined;
  return (
    <>
      {fields.map((f, i) => (
        <div key={f.key} className={`${row} ${grid}`} role="group" aria-label={`${what} ${i + 1}`}>
          {columns.map((c) => {
            const at = `${name}.${i}.${c.key}` as 'elements.0.name';
            return c.units ? (
              <FigureField
                key={c.key}
                control={control}
                name={at}
                label={c.label}
                {...(c.hint ? { hint: c.hint } : {})}
                units={c.units}
              />
            ) : (
              <Field
                key={c.key}
                label={c.label}
                {...(c.hint ? { hint: c.hint } : {})}
                wrong={errors?.[i]?.[c.key]?.message}
              >
                {(ids) =>
                  c.options ? (
                    <select {...ids} className={FIELD} {...register(at)}>
                      {Object.entries(c.options).map(([key, words]) => (
                        <option key={key} value={key}>
                          {words}
                        </option>
                      ))}
                    </select>
                  ) : (
                    <input {...ids} className={FIELD} {...register(at)} />
                  )
                }
              </Field>
            );
          })}
          <Remove what={`${what.toLowerCase()} ${i + 1}`} onClick={() => remove(i)} />
        </div>
      ))}
      <Add onClick={() => append({ id: uuid7(now()).slice(-12), ...blank(fields.length) } as never)}>
        {add}
      </Add>
    </>
  );
}

/** The parts that cap a test pressure. */
export const ElementsPart = () => (
  <RowsPart
    name="elements"
    what="Element"
    grid="sm:grid-cols-[1fr_1fr_1fr_auto]"
    columns={[
      { key: 'name', label: 'Part' },
      { key: 'place', label: 'Where' },
      { key: 'most', label: 'Permits at most', units: TRADE_UNITS.pressure },
    ]}
    add="Add a part"
    blank={() => ({ name: '', place: '', most: '' })}
  />
);
/** Closing parts besides the appliances' own; a kind nobody looked for is asked at the bench. */
export function ValvesPart({ gas }: { gas: boolean }) {
  const { control } = useFormContext<SystemForm>();
  return (
    <>
      <RowsPart
        name="valves"
        what="Valve"
        grid="sm:grid-cols-[1fr_1fr_1fr_auto]"
        columns={[
          { key: 'name', label: 'Valve' },
          { key: 'place', label: 'Where' },
          {
            key: 'kind',
            label: 'What it is',
            options: Object.fromEntries(OPTIONAL_VALVES.map((k) => [k, VALVE_WORDS[k]])),
          },
        ]}
        add="Add a valve"
        blank={() => ({ name: '', place: '', kind: gas ? 'drop' : 'hidden' })}
      />
      <Ticks
        name="noValves"
        legend="Looked for, and there is none here"
        options={Object.fromEntries(OPTIONAL_VALVES.map((k) => [k, VALVE_WORDS[k]]))}
        control={control}
      />
    </>
  );
}
/** Several of a few known things, each with a tick. */
function Ticks({
  name,
  legend,
  options,
  control,
}: {
  name: 'noValves' | 'access';
  legend: string;
  options: Readonly<Record<string, string>>;
  control: Control<SystemForm>;
}) {
  return (
    <Controller
      control={control}
      name={name}
      render={({ field }) => (
        <fieldset className="flex flex-wrap gap-x-6">
          <legend className="text-sm text-quiet">{legend}</legend>
          {Object.entries(options).map(([key, words]) => (
            <label key={key} className="flex min-h-12 items-center gap-2">
              <input
                type="checkbox"
                className="size-5 accent-lake"
                checked={(field.value as string[]).includes(key)}
                onChange={(e) =>
                  field.onChange(
                    e.target.checked
                      ? [...field.value, key]
                      : (field.value as string[]).filter((k) => k !== key),
                  )
                }
              />
              {words}
            </label>
          ))}
        </fieldset>
      )}
    />
  );
}
/** The ways in for a gauge. */
export function AccessPart() {
  const { control } = useFormContext<SystemForm>();
  return <Ticks name="access" legend="Ways in for a gauge" options={ACCESS} control={control} />;
}
export const RegulatorsPart = () => (
  <RowsPart
    name="regulators"
    what="Regulator"
    grid="sm:grid-cols-4"
    columns={[
      { key: 'name', label: 'Regulator' },
      { key: 'place', label: 'Where' },
      { key: 'stage', label: 'Stage', hint: 'first, second, line' },
      { key: 'maxInlet', label: 'Inlet at most', hint: 'empty: not read', units: TRADE_UNITS.pressure },
      { key: 'make', label: 'Make' },
      { key: 'model', label: 'Model' },
      { key: 'serial', label: 'Serial' },
    ]}
    add="Add a regulator"
    blank={(count) => ({
      name: count ? 'Second-stage regulator' : 'Regulator',
      place: '',
      stage: '',
      maxInlet: '',
      make: '',
      model: '',
      serial: '',
    })}
  />
);
/** Joints that are known to be undone for a test: offered by name at the bench. */
export const JointsPart = () => (
  <RowsPart
    name="joints"
    what="Joint"
    grid="sm:grid-cols-[1fr_1fr_auto]"
    columns={[
      { key: 'name', label: 'Joint' },
      { key: 'place', label: 'Where' },
    ]}
    add="Add a joint"
    blank={() => ({ name: '', place: '' })}
  />
);
/** All free water surfaces at the level of a drain: the opening is one of them. */
export const SurfacesPart = () => (
  <RowsPart
    name="surfaces"
    what="Surface"
    grid="sm:grid-cols-[2fr_1fr_1fr_auto]"
    columns={[
      { key: 'name', label: 'What', hint: 'opening, closet riser, stack' },
      { key: 'bore', label: 'Bore', units: TRADE_UNITS.bore },
      { key: 'count', label: 'How many' },
    ]}
    add="Add a free surface"
    blank={(count) => ({ name: count ? '' : 'Cleanout opening', bore: '', count: '1' })}
  />
);
/** The loops of one manifold, each a section with its valve and flow meter. */
export const LoopsPart = () => (
  <RowsPart
    name="loops"
    what="Loop"
    grid="sm:grid-cols-[1fr_1fr_1fr_auto]"
    columns={[
      { key: 'name', label: 'Loop' },
      { key: 'valve', label: 'Valve or actuator' },
      { key: 'flowMeter', label: 'Flow meter' },
    ]}
    add="Add a loop"
    blank={(count) => ({
      name: `Loop ${count + 1}`,
      valve: `actuator ${count + 1}`,
      flowMeter: `glass ${count + 1}`,
    })}
  />
);
/** Parts that rely on their maker's test: isolated, and quoted by certificate. */
export const FactoryPart = () => (
  <RowsPart
    name="factoryTested"
    what="Maker-tested part"
    grid="sm:grid-cols-[1fr_1fr_auto]"
    columns={[
      { key: 'name', label: 'Part, isolated from the test' },
      { key: 'certificate', label: 'Its certificate' },
    ]}
    add="Add a part tested by its maker"
    blank={() => ({ name: '', certificate: '' })}
  />
);

/** Several lines of words, one entry each. */
export function LinesPart({ name, label }: { name: 'inScope' | 'notCovered'; label: string }) {
  const { control } = useFormContext<SystemForm>();
  return (
    <Controller
      control={control}
      name={name}
      render={({ field }) => (
        <Field label={label}>
          {(ids) => (
            <textarea
              {...ids}
              className={`${FIELD} min-h-28 py-2`}
              value={field.value.join('\n')}
              onChange={(e) => field.onChange(e.target.value.split('\n'))}
              onBlur={() => field.onChange(field.value.map((l) => l.trim()).filter(Boolean))}
            />
          )}
        </Field>
      )}
    />
  );
}

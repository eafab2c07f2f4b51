'use client';
import { inHtml } from '@/ui/kit/in-html';
import { OPTIONAL_VALVES } from '@/core/installation/section';
import { VALVE_WORDS } from '@/core/installation/parts';
import { type FactRule } from '@/core/network/catalogue';
import { cellsOf, listRule, PART_LIST_KEYS, type PartListKey } from '@/core/network/lists';
import type { Trade } from '@/core/trades';
import { now } from '@/device/clock';
import { Field, FIELD, Options, unitsOf } from '@/ui/kit/field';
import { FigureField } from '@/ui/kit/figure-field';
import type { SystemForm } from '@/wire/places';
import { blankRow } from '@/wire/rows';
import { ACCESS } from '@/wire/form-words';
import { uuid7 } from '@/wire/uuid7';
import { useFieldArray, useFormContext, useWatch } from 'react-hook-form';
import { Add, type ErrorOf, Remove, ROW } from './rows';
import { Ticks } from './ticks';

/** What people call a list, what it is for, and what is usual in a new row. */
interface ListWords {
  readonly title: string;
  readonly what: string;
  readonly add: string;
  readonly intro?: string;
  readonly usual?: (count: number, trade: Trade) => Readonly<Record<string, string>>;
}
const LISTS: Readonly<Record<PartListKey, ListWords>> = {
  appliances: {
    title: 'Appliances',
    what: 'Appliance',
    add: 'Add an appliance',
    usual: (_, trade) => ({ valve: 'isolating valve', volume: trade.fuel ? '0.3 l' : '0 l' }),
  },
  valves: {
    title: 'Valves between',
    what: 'Valve',
    add: 'Add a valve',
    intro: 'Closing parts besides the appliances’ own. What nobody has looked for is asked at the bench.',
    usual: (_, trade) => ({ kind: trade.fuel ? 'drop' : 'hidden' }),
  },
  regulators: {
    title: 'Regulators',
    what: 'Regulator',
    add: 'Add a regulator',
    usual: (count) => ({ name: count ? 'Second-stage regulator' : 'Regulator' }),
  },
  joints: {
    title: 'Joints undone for a test',
    what: 'Joint',
    add: 'Add a joint',
    intro: 'Offered by name at the bench, to be soaped.',
  },
  elements: {
    title: 'Weakest elements',
    what: 'Element',
    add: 'Add a part',
    intro:
      'Parts that permit less than the pipe. While they are in scope the lowest of them caps every test pressure.',
  },
  factoryTested: {
    title: 'Tested by their maker',
    what: 'Maker-tested part',
    add: 'Add a part tested by its maker',
    intro: 'Isolated from the test, and quoted by certificate.',
  },
  surfaces: {
    title: 'Free surfaces at the level',
    what: 'Surface',
    add: 'Add a free surface',
    intro: 'A millimetre of fall is the water of all of them, not of the opening alone.',
    usual: (count) => ({ name: count ? '' : 'Cleanout opening', count: '1' }),
  },
  connections: {
    title: 'Connections at the equipment',
    what: 'Connection',
    add: 'Add a connection',
    intro:
      'Where lines begin in the dry: pump inlet, after the heater, blower. Filter, pump and heater are never pressed.',
    usual: (count) => ({ name: count ? '' : 'Pump inlet', type: count ? 'heater' : 'pump' }),
  },
  outlets: {
    title: 'Outlets in the pool',
    what: 'Outlet',
    add: 'Add an outlet',
    intro: 'All of them, the covered ones too. Which belong together is found out by the map.',
    usual: () => ({ type: 'return' }),
  },
  condensing: {
    title: 'Condensing unit',
    what: 'Condensing unit',
    add: 'Add a condensing unit',
    intro:
      'Its plate says PS of both sides. Without it PS is estimated from the refrigerant and the warmest day.',
    usual: () => ({ name: 'Condensing unit', cooled: 'air', ambient: '32' }),
  },
  evaporators: {
    title: 'Evaporators',
    what: 'Evaporator',
    add: 'Add an evaporator',
    usual: (count) => ({ name: `Evaporator ${count + 1}` }),
  },
  receivers: {
    title: 'Receivers',
    what: 'Receiver',
    add: 'Add a receiver',
    usual: () => ({ name: 'Receiver' }),
  },
  expansions: {
    title: 'Expansion valves',
    what: 'Expansion valve',
    add: 'Add an expansion valve',
    intro: 'Where the high side ends. They are joined to pipes on the drawing.',
    usual: (count) => ({ name: `expansion valve ${count + 1}` }),
  },
  handlers: {
    title: 'Air handler',
    what: 'Air handler',
    add: 'Add an air handler',
    usual: () => ({ name: 'Air handler' }),
  },
  registers: {
    title: 'Registers and grilles',
    what: 'Register',
    add: 'Add a register',
    intro: 'All of them, the one behind the cupboard too: each is masked by name, and counted back out.',
    usual: (count) => ({ name: `Register ${count + 1}`, type: 'supply' }),
  },
  intakes: {
    title: 'Outdoor air intakes',
    what: 'Intake',
    add: 'Add an intake',
    intro: 'Sealed for the test: what comes in from outside is no leak.',
    usual: () => ({ name: 'Outdoor air intake' }),
  },
  loops: {
    title: 'Loops of the manifold',
    what: 'Loop',
    add: 'Add a loop',
    usual: (count) => ({
      name: `Loop ${count + 1}`,
      valve: `actuator ${count + 1}`,
      flowMeter: `glass ${count + 1}`,
    }),
  },
};

function Fact({ at, rule, wrong }: { at: 'elements.0.name'; rule: FactRule; wrong: ErrorOf }) {
  const form = useFormContext<SystemForm>();
  const { control } = form;
  const register = inHtml(form);
  const hint = rule.hint ?? (rule.needed ? undefined : 'empty: not known');
  const said = { label: rule.label, ...(hint ? { hint } : {}) };
  if (rule.kind === 'figure')
    return <FigureField control={control} name={at} units={unitsOf(rule.dimension)} {...said} />;
  if (rule.kind === 'yes-no')
    return (
      <label className="flex min-h-12 items-center gap-2 self-end">
        <input type="checkbox" className="size-5 accent-lake" {...register(at)} />
        {rule.label}
      </label>
    );
  return (
    <Field {...said} wrong={wrong?.message}>
      {(ids) =>
        rule.kind === 'one-of' ? (
          <select {...ids} className={FIELD} {...register(at)}>
            {!rule.needed && <option value="">not known</option>}
            <Options of={Object.entries(rule.options)} />
          </select>
        ) : (
          <input {...ids} className={FIELD} {...register(at)} />
        )
      }
    </Field>
  );
}

/** The parts of one kind, each with what the catalogue knows of it. */
function Rows({ list, trade }: { list: PartListKey; trade: Trade }) {
  const { control, formState } = useFormContext<SystemForm>();
  const { fields, append, remove } = useFieldArray({ control, name: list, keyName: 'key' });
  const errors = formState.errors[list] as Record<string, ErrorOf>[] | undefined;
  const { what, add, usual } = LISTS[list];
  const cells = cellsOf(list)
    .filter(({ rule }) => trade.fuel || !rule.fuel)
    .map((cell) => (cell.field === 'name' ? { ...cell, rule: { ...cell.rule, label: what } } : cell));
  return (
    <>
      {fields.map((f, i) => (
        <div
          key={f.key}
          className={`${ROW} ${cells.length > 3 ? 'sm:grid-cols-3' : 'sm:grid-cols-[1fr_1fr_1fr_auto]'}`}
          role="group"
          aria-label={`${what} ${i + 1}`}
        >
          {cells.map(({ field, rule }) => (
            <Fact
              key={field}
              at={`${list}.${i}.${field}` as 'elements.0.name'}
              rule={rule}
              wrong={errors?.[i]?.[field]}
            />
          ))}
          <Remove what={`${what.toLowerCase()} ${i + 1}`} onClick={() => remove(i)} />
        </div>
      ))}
      <Add
        onClick={() =>
          append(blankRow(list, uuid7(now()).slice(-12), usual?.(fields.length, trade) ?? {}) as never)
        }
      >
        {add}
      </Add>
    </>
  );
}

/** A list with its heading, and what goes with it: kinds of valve that are not here, ways in for a gauge. */
function ListPart({ list, trade }: { list: PartListKey; trade: Trade }) {
  const { title, intro } = LISTS[list];
  return (
    <section className="grid gap-3 border-t border-ink pt-3">
      <h2 className="text-lg font-semibold">{title}</h2>
      {intro && <p className="text-sm text-quiet">{intro}</p>}
      <Rows list={list} trade={trade} />
      {list === 'valves' && (
        <Ticks
          name="noValves"
          legend="Looked for, and there is none here"
          options={Object.fromEntries(OPTIONAL_VALVES.map((k) => [k, VALVE_WORDS[k]]))}
        />
      )}
      {list === 'valves' && trade.fuel && (
        <Ticks name="access" legend="Ways in for a gauge" options={ACCESS} />
      )}
    </section>
  );
}

/** Every list there is: those of the trade's own parts stand open, what is rare there lies folded behind them. */
export function PartLists({ trade }: { trade: Trade }) {
  const form = useWatch<SystemForm>();
  const usual = (list: PartListKey) =>
    trade.palette.includes(listRule(list).kind) || (form[list] as readonly unknown[] | undefined)?.length;
  const rare = PART_LIST_KEYS.filter((list) => !usual(list));
  return (
    <>
      {PART_LIST_KEYS.filter(usual).map((list) => (
        <ListPart key={list} list={list} trade={trade} />
      ))}
      {rare.length > 0 && (
        <details>
          <summary className="min-h-12 cursor-pointer content-center text-lake">
            Other parts: {rare.map((list) => LISTS[list].title.toLowerCase()).join(', ')}
          </summary>
          <div className="mt-3 grid gap-8">
            {rare.map((list) => (
              <ListPart key={list} list={list} trade={trade} />
            ))}
          </div>
        </details>
      )}
    </>
  );
}

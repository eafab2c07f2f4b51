'use client';
import { pipeTable } from '@/core/installation/pipes';
import { type FactRule, partWord, ruleOfPart } from '@/core/network/catalogue';
import type { Unit } from '@/core/quantity/unit';
import { Button } from '@/ui/kit/button';
import { Field, FIELD, FigureInput, Options, TextField, TRADE_UNITS, unitsOf } from '@/ui/kit/field';
import { figureTrouble } from '@/wire/figure-trouble';
import { factTrouble, type PartForm } from '@/wire/network';
import { PIPE_CHOICES, type PipeForm, pipeOfTable, usualSize } from '@/wire/pipe';

/** One fact of a part, asked as its catalogue says. What is left empty is not known. */
function FactField({
  rule,
  value,
  onChange,
}: {
  rule: FactRule;
  value: string | boolean | undefined;
  onChange: (value: string | boolean) => void;
}) {
  const wrong = factTrouble(rule, value);
  const text = typeof value === 'string' ? value : '';
  if (rule.kind === 'yes-no')
    return (
      <label className="flex min-h-12 items-center gap-3">
        <input type="checkbox" checked={value === true} onChange={(e) => onChange(e.target.checked)} />
        {rule.label}
      </label>
    );
  return (
    <Field
      label={rule.label}
      {...(rule.kind === 'one-of' ? {} : { hint: 'empty: not known' })}
      {...(wrong ? { wrong } : {})}
    >
      {(ids) =>
        rule.kind === 'figure' ? (
          <FigureInput
            {...ids}
            label={rule.label}
            units={unitsOf(rule.dimension)}
            value={text}
            onChange={onChange}
          />
        ) : rule.kind === 'one-of' ? (
          <select {...ids} className={FIELD} value={text} onChange={(e) => onChange(e.target.value)}>
            <option value="">not said yet</option>
            <Options of={Object.entries(rule.options)} />
          </select>
        ) : (
          <input
            {...ids}
            className={FIELD}
            maxLength={rule.kind === 'words' ? rule.most : 2}
            inputMode={rule.kind === 'count' ? 'numeric' : 'text'}
            value={text}
            onChange={(e) => onChange(e.target.value)}
          />
        )
      }
    </Field>
  );
}

/** What is known of the part that is chosen. */
export function PartPanel({
  part,
  onChange,
}: {
  part: PartForm;
  onChange: (change: Partial<PartForm>) => void;
}) {
  const rule = ruleOfPart(part.kind);
  return (
    <div className="grid gap-3">
      {rule.closes && (
        <Button
          aria-pressed={part.position === 'closed'}
          onClick={() => onChange({ position: part.position === 'closed' ? 'open' : 'closed' })}
        >
          {part.position === 'closed'
            ? 'It is closed in the test: open it'
            : 'It is open in the test: close it'}
        </Button>
      )}
      {!rule.nameless && (
        <>
          <TextField
            label={`Name of the ${partWord(part.kind)}`}
            value={part.name}
            maxLength={120}
            {...(part.name ? {} : { wrong: 'is needed' })}
            onChange={(name) => onChange({ name })}
          />
          <TextField
            label="Where it is"
            value={part.place}
            maxLength={80}
            onChange={(place) => onChange({ place })}
          />
        </>
      )}
      {Object.entries(rule.facts).map(([key, fact]) => (
        <FactField
          key={key}
          rule={fact}
          value={part.facts[key]}
          onChange={(value) => onChange({ facts: { ...part.facts, [key]: value } })}
        />
      ))}
    </div>
  );
}

const wrongLength = (value: string, needed: boolean): string => {
  if (!value) return needed ? 'is needed' : '';
  return figureTrouble(value, 'length', 'above zero');
};
/** The run of pipe on the join that is chosen. */
export function PipePanel({ pipe, onChange }: { pipe: PipeForm; onChange: (pipe: PipeForm) => void }) {
  const set = (change: Partial<PipeForm>) => onChange(pipeOfTable({ ...pipe, ...change }));
  const figure = (key: 'bore' | 'size' | 'length', label: string, units: readonly Unit[]) => {
    const wrong = wrongLength(pipe[key], true);
    return (
      <Field label={label} {...(wrong ? { wrong } : {})}>
        {(ids) => (
          <FigureInput
            {...ids}
            label={label}
            units={units}
            value={pipe[key]}
            onChange={(v) => set({ [key]: v })}
          />
        )}
      </Field>
    );
  };
  return (
    <div className="grid gap-3">
      <TextField
        label="Run"
        value={pipe.name}
        maxLength={80}
        {...(pipe.name ? {} : { wrong: 'is needed' })}
        onChange={(name) => set({ name })}
      />
      <Field label="Pipe and standard">
        {(ids) => (
          <select
            {...ids}
            className={FIELD}
            value={pipe.table}
            onChange={(e) => set({ table: e.target.value, nominal: usualSize(e.target.value) })}
          >
            <Options of={PIPE_CHOICES} />
            <option value="">in no table: own diameters</option>
          </select>
        )}
      </Field>
      {pipe.table ? (
        <Field label="Size">
          {(ids) => (
            <select
              {...ids}
              className={FIELD}
              value={pipe.nominal}
              onChange={(e) => set({ nominal: e.target.value })}
            >
              {pipeTable(pipe.table)!.sizes.map((s) => (
                <option key={s.key}>{s.key}</option>
              ))}
            </select>
          )}
        </Field>
      ) : (
        <>
          {figure('bore', 'Bore', TRADE_UNITS.bore)}
          {figure('size', 'Outside diameter', TRADE_UNITS.bore)}
          <TextField label="Material" value={pipe.material} onChange={(material) => set({ material })} />
        </>
      )}
      {figure('length', 'Length', TRADE_UNITS.length)}
      <Field label="Rated for" hint="empty: not known">
        {(ids) => (
          <FigureInput
            {...ids}
            label="Rating"
            units={TRADE_UNITS.pressure}
            value={pipe.rating}
            onChange={(rating) => set({ rating })}
          />
        )}
      </Field>
    </div>
  );
}

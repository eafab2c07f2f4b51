'use client';
import { type VerdictWord, WORDS } from '@/core/verdict/words';
import { Button } from '@/ui/kit/button';
import { SelectField, TextField } from '@/ui/kit/field';
import { STATUS_WORDS } from '@/ui/kit/words';
import type { LedgerQuery } from '@/wire/ledger-schema';
import type { Choice, LedgerChoices } from './ledger-view';

/** A search made narrower: by result, system, procedure, tester, gauge, standing and days. */
export function Narrow({
  query,
  choices,
  set,
  onClear,
}: {
  query: LedgerQuery;
  choices: LedgerChoices;
  set: (name: keyof LedgerQuery) => (value: string) => void;
  onClear: () => void;
}) {
  const narrowed = Object.keys(query).filter((k) => k !== 'find').length;
  const select = (label: string, name: keyof LedgerQuery, options: readonly Choice[]) => (
    <SelectField label={label} none="any" value={query[name] ?? ''} options={options} onChange={set(name)} />
  );
  return (
    <details className="mt-2 max-w-5xl" open={narrowed > 0}>
      <summary className="min-h-11 cursor-pointer py-2 text-lake">
        Narrow down{narrowed ? ` (${narrowed} set)` : ''}
      </summary>
      <div className="grid grid-cols-2 gap-3 pb-3 md:grid-cols-4">
        {select(
          'Result',
          'word',
          (Object.keys(WORDS) as VerdictWord[]).map((id) => ({ id, title: WORDS[id] })),
        )}
        {choices.systems.length > 0 ? (
          select('System', 'system', choices.systems)
        ) : (
          <p className="self-end text-sm text-quiet">
            One system: find it by its words above, or open its records from its own page.
          </p>
        )}
        {select('Procedure', 'procedure', choices.procedures)}
        {select(
          'Tester',
          'tester',
          choices.testers.map((t) => ({ id: t, title: t })),
        )}
        {select('Gauge', 'gauge', choices.gauges)}
        {select('Status', 'status', [
          ...(Object.keys(STATUS_WORDS) as (keyof typeof STATUS_WORDS)[]).map((id) => ({
            id,
            title: STATUS_WORDS[id],
          })),
        ])}
        {select('Standing', 'standing', [
          { id: 'stands', title: 'stands' },
          { id: 'superseded', title: 'superseded' },
          { id: 'void', title: 'void' },
        ])}
        <TextField label="Sealed from" type="date" value={query.from ?? ''} onChange={set('from')} />
        <TextField
          label="to"
          hint="that day included"
          type="date"
          value={query.to ?? ''}
          onChange={set('to')}
        />
        {narrowed > 0 && (
          <Button className="self-end" onClick={onClear}>
            Clear all of these
          </Button>
        )}
      </div>
    </details>
  );
}

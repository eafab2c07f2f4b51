import type { FileColumn } from '@/wire/ledger';
import { FILE_COLUMNS } from '@/wire/ledger';

/** Which columns a table or a file has, in their order; one at least. */
export function ColumnChoice<C extends FileColumn>({
  legend,
  all,
  chosen,
  onChange,
  className,
}: {
  legend: string;
  all: readonly C[];
  chosen: readonly C[];
  onChange: (columns: C[]) => void;
  className: string;
}) {
  return (
    <fieldset className={className}>
      <legend className="sr-only">{legend}</legend>
      {all.map((c) => (
        <label key={c} className="flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            className="size-5"
            checked={chosen.includes(c)}
            disabled={chosen.length === 1 && chosen.includes(c)}
            onChange={(e) => onChange(all.filter((x) => (x === c ? e.target.checked : chosen.includes(x))))}
          />
          {FILE_COLUMNS[c]}
        </label>
      ))}
    </fieldset>
  );
}

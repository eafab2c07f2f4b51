import { FIELD } from '@/ui/kit/field';
import type { ReactNode } from 'react';
import type { Control, UseFormRegister } from 'react-hook-form';
import type { ScenarioForm } from './scenario-form';

export interface Named {
  readonly id: string;
  readonly title: string;
}
export interface Known {
  readonly procedure: string;
  readonly stages: readonly Named[];
  readonly faults: Readonly<Record<string, string>>;
  readonly rubric: readonly Named[];
  readonly places: readonly Named[];
}
export interface Parts {
  readonly control: Control<ScenarioForm>;
  readonly register: UseFormRegister<ScenarioForm>;
  readonly knows: Known;
}
export const AREA = `${FIELD} min-h-28 py-2`;
/** A field for JSON. */
export const CODE = `${FIELD} min-h-52 py-2 figure-narrow`;

export function Block({ title, hint, children }: { title: string; hint?: string; children: ReactNode }) {
  return (
    <fieldset className="grid min-w-0 gap-3 border-t border-seam pt-3">
      <legend className="text-lg font-semibold">{title}</legend>
      {hint && <p className="max-w-prose text-sm text-quiet">{hint}</p>}
      {children}
    </fieldset>
  );
}
/** Several of a list, each a box to tick. */
export function Several({
  name,
  of,
  register,
}: {
  name: 'traps' | 'result' | 'cause' | 'place' | 'common' | 'proof' | `conducts.${number}.caught`;
  of: readonly Named[];
  register: UseFormRegister<ScenarioForm>;
}) {
  return (
    <div className="grid gap-x-4 sm:grid-cols-2 lg:grid-cols-3">
      {of.map((o) => (
        <label key={o.id} className="flex min-h-11 items-center gap-2">
          <input type="checkbox" className="size-5 accent-(--heather)" value={o.id} {...register(name)} />
          <span>{o.title}</span>
        </label>
      ))}
    </div>
  );
}

import type { Pipe } from '@/core/installation/pipe';
import { PIPE_TABLES, pipeFigures, pipeTable } from '@/core/installation/pipes';
import { parseWithUnit, showUnit } from '@/core/quantity/exact';
import type { PipeForm } from './pipe-schema';

export type { PipeForm } from './pipe-schema';

export function pipeFromForm(p: PipeForm): Pipe {
  const listed = p.table && p.nominal ? pipeFigures(p.table, p.nominal) : null;
  return {
    id: p.id,
    name: p.name,
    material: p.material,
    size: listed?.nominal ?? parseWithUnit(p.size),
    bore: listed?.bore ?? parseWithUnit(p.bore),
    length: parseWithUnit(p.length),
    ...(listed ? { table: p.table, nominal: p.nominal } : {}),
    ...(p.rating ? { rating: parseWithUnit(p.rating) } : {}),
  };
}
export const formOfPipe = (p: Pipe): PipeForm => ({
  id: p.id,
  name: p.name,
  table: p.table ?? '',
  nominal: p.nominal ?? '',
  material: p.material,
  size: showUnit(p.size),
  bore: showUnit(p.bore),
  length: showUnit(p.length),
  rating: p.rating ? showUnit(p.rating) : '',
});
/** The material a pipe of a table is of, in words. */
export const materialOf = (table: string): string => pipeTable(table)?.material ?? PIPE_TABLES[0]!.material;
/** The size of a table that is met most: its second; '' where the table is none. */
export const usualSize = (table: string): string => pipeTable(table)?.sizes[1]?.key ?? '';
/** Every table there is, for choosing. */
export const PIPE_CHOICES = PIPE_TABLES.map((t) => [t.key, t.title] as const);
/** A new run after another of the same pipe, or of the thin copper most houses have. */
export function nextPipe(id: string, last: PipeForm | undefined, name: string): PipeForm {
  const table = last?.table || 'copper-thin';
  const nominal = last?.nominal || usualSize(table);
  return pipeOfTable({ id, name, table, nominal, material: '', size: '', bore: '', length: '', rating: '' });
}
/** A run with the figures of its table's size. */
export function pipeOfTable(p: PipeForm): PipeForm {
  if (!p.table || !p.nominal) return p;
  const { nominal: size, bore } = pipeFigures(p.table, p.nominal);
  return { ...p, size: showUnit(size), bore: showUnit(bore), material: materialOf(p.table) };
}

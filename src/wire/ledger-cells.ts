import { TREND_WORDS, type TrendFigure } from '@/core/record/trend';
import { unitLabel } from '@/core/quantity/unit';
import type { LedgerFacts } from '@/core/record/ledger-facts';
import type { FileColumn, LedgerSummary } from './ledger';

/** What a line of the ledger holds, as far as its columns go. */
export interface LedgerCells {
  readonly number: string;
  readonly sealedAt: string;
  readonly status: string;
  readonly source: string;
  readonly superseded: string | null;
  readonly voided: string | null;
  readonly summary: LedgerSummary;
  readonly gauges: readonly string[];
  readonly figures: readonly TrendFigure[];
  /** Where they were asked for. */
  readonly facts?: Partial<LedgerFacts>;
}
/** A moment as a table has it: "2026-03-24 07:40". */
const minute = (ms: number | undefined): string =>
  ms ? new Date(ms).toISOString().slice(0, 16).replace('T', ' ') : '';
/** One cell in words. @param gauges names of gauges by id */
export function cellOf(line: LedgerCells, column: FileColumn, gauges: ReadonlyMap<string, string>): string {
  switch (column) {
    case 'number':
      return line.number;
    case 'sealed':
      return line.sealedAt.slice(0, 16).replace('T', ' ');
    case 'result':
      return line.summary.label;
    case 'site':
      return line.summary.site;
    case 'system':
      return line.summary.system;
    case 'procedure':
      return line.summary.procedure;
    case 'tester':
      return line.summary.by;
    case 'status':
      return `${line.status.replace(/-/g, ' ')}${line.source === 'outside' ? ', from outside' : ''}`;
    case 'gauges':
      return line.gauges.map((g) => gauges.get(g) ?? 'another gauge').join('; ');
    case 'figures':
      return line.figures.map((f) => `${TREND_WORDS[f.key]} ${f.value} ${unitLabel(f.unit)}`).join('; ');
    case 'mark':
      return line.voided !== null
        ? `void: ${line.voided}`
        : line.superseded !== null
          ? `superseded by ${line.superseded}`
          : '';
    case 'begun':
    case 'ended':
      return minute(line.facts?.[column]);
    case 'limits':
    case 'gaugeSerials':
    case 'serials':
      return line.facts?.[column]?.join('; ') ?? '';
    default:
      return line.facts?.[column] ?? '';
  }
}

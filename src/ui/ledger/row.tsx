import Link from 'next/link';
import type { GlyphCourse } from '@/chart/courses';
import type { RecordStatus } from '@/core/record/status';
import type { VerdictWord } from '@/core/verdict/verdict';
import { WallGlyph } from '@/ui/charts/wall';
import { Moment } from '@/ui/frame/zone';
import { STATUS_WORDS, VERDICT_COLOUR } from '@/ui/kit/words';
import type { LedgerSource } from '@/wire/ledger';
import type { LedgerCells } from '@/wire/ledger-cells';

export interface RecordLine extends LedgerCells {
  readonly run: string;
  readonly source: LedgerSource;
  readonly word: VerdictWord;
  readonly status: RecordStatus;
  readonly glyph: readonly GlyphCourse[];
}
export const recordHref = (line: Pick<RecordLine, 'run' | 'source'>): string =>
  line.source === 'own' ? `/ledger/${line.run}` : `/ledger/outside/${line.run}`;
/** What was said of a record afterwards; '' where nothing was. */
export const markOf = (line: Pick<RecordLine, 'superseded' | 'voided'>): string =>
  line.voided !== null ? 'void' : line.superseded !== null ? `superseded by ${line.superseded}` : '';

/** One record in a list: glyph, verdict, place, date, number. What stands no more is struck through and says so. */
export function RecordRow({ line }: { line: RecordLine }) {
  const mark = markOf(line);
  return (
    <li>
      <Link
        prefetch={false}
        href={recordHref(line)}
        className="grid min-h-16 grid-cols-[auto_1fr] items-center gap-x-4 gap-y-1 border-b border-seam px-1 py-2 hover:bg-panel sm:grid-cols-[auto_11.5rem_1fr_auto]"
      >
        <WallGlyph courses={line.glyph} label={`Wall of the run: ${line.summary.label}`} />
        <span className={`font-semibold ${mark ? 'line-through' : VERDICT_COLOUR[line.word]}`}>
          {line.summary.label}
        </span>
        <span className="col-start-2 sm:col-start-auto">
          {line.summary.site}: {line.summary.system}
          <span className="block text-sm text-quiet">
            by {line.summary.by}
            {line.status === 'certificate' ? '' : ` · ${STATUS_WORDS[line.status]}`}
            {line.source === 'outside' ? ' · from outside' : ''}
            {line.summary.broughtIn ? ` · brought in ${line.summary.broughtIn}` : ''}
            {mark && <span className="font-semibold text-ink"> · {mark}</span>}
          </span>
        </span>
        <span className="col-start-2 text-sm sm:col-start-auto sm:text-right">
          <span className="figure-narrow">{line.number}</span>
          <span className="block text-quiet max-sm:inline max-sm:pl-3">
            <Moment at={line.sealedAt} />
          </span>
        </span>
      </Link>
    </li>
  );
}

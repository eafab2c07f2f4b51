import Link from 'next/link';
import type { GlyphCourse } from '@/chart/wall';
import type { RecordStatus } from '@/core/record/status';
import type { VerdictWord } from '@/core/verdict/verdict';
import { WallGlyph } from '@/ui/charts/wall';
import { moment, STATUS_WORDS, VERDICT_COLOUR } from '@/ui/kit/words';

export interface RecordLine {
  readonly run: string;
  readonly number: string;
  readonly word: VerdictWord;
  readonly status: RecordStatus;
  readonly sealedAt: string;
  readonly glyph: readonly GlyphCourse[];
  readonly summary: {
    readonly site: string;
    readonly system: string;
    readonly procedure: string;
    readonly by: string;
    readonly label: string;
  };
}
/** One record in a list: glyph, verdict, place, date, number. */
export function RecordRow({ line }: { line: RecordLine }) {
  return (
    <li>
      <Link
        prefetch={false}
        href={`/ledger/${line.run}`}
        className="grid min-h-16 grid-cols-[auto_1fr] items-center gap-x-4 gap-y-1 border-b border-seam px-1 py-2 hover:bg-panel sm:grid-cols-[auto_11.5rem_1fr_auto]"
      >
        <WallGlyph courses={line.glyph} label={`Wall of the run: ${line.summary.label}`} />
        <span className={`font-semibold ${VERDICT_COLOUR[line.word]}`}>{line.summary.label}</span>
        <span className="col-start-2 sm:col-start-auto">
          {line.summary.site}: {line.summary.system}
          <span className="block text-sm text-quiet">
            by {line.summary.by}
            {line.status === 'certificate' ? '' : ` · ${STATUS_WORDS[line.status]}`}
          </span>
        </span>
        <span className="col-start-2 text-sm sm:col-start-auto sm:text-right">
          <span className="figure-narrow">{line.number}</span>
          <span className="block text-quiet max-sm:inline max-sm:pl-3">{moment(line.sealedAt)}</span>
        </span>
      </Link>
    </li>
  );
}

import * as yup from 'yup';
import { free, shape, text } from './figure';

/** What takes longer than one waits for: a whole organisation out or in, the ledger made anew, papers of many records. */
export const JOB_KINDS = ['export', 'import', 'ledger', 'papers'] as const;
export type JobKind = (typeof JOB_KINDS)[number];
/** What others than the owner may ask for: each sees their own. */
export const OPEN_KINDS: readonly JobKind[] = ['papers'];
export type JobState = 'uploading' | 'waiting' | 'running' | 'done' | 'failed' | 'stopped';
export const UNDER_WAY: readonly JobState[] = ['uploading', 'waiting', 'running'];
/** Pieces of a file that is sent are so large, but for the last. */
export const PIECE_BYTES = 1_000_000;
/** A file that is brought in may be so large. House figure. */
export const MOST_IMPORT_BYTES = 20_000_000_000;

export const jobAskedSchema = shape({
  kind: text(20).oneOf(JOB_KINDS),
  /** Export: with the links that are open. */
  links: yup.boolean().strict(true).default(false),
  /** Import: the file's name and size. */
  file: text(200).optional(),
  /** Papers: which records, as the address of the ledger says it. */
  query: free(2000).optional(),
  bytes: yup.number().strict(true).integer().min(1).max(MOST_IMPORT_BYTES).optional(),
});
export type JobForm = yup.InferType<typeof jobAskedSchema>;
export const jobActSchema = shape({ act: text(20).oneOf(['begin', 'stop'] as const) });
/** What was asked for. */
export interface JobAsked {
  readonly links?: boolean;
  readonly file?: string;
  readonly query?: string;
  /** Under which the public pages are found. */
  readonly origin?: string;
}
export interface JobResult {
  /** Name of the file that was made. */
  readonly file?: string;
  /** Rows of each table. */
  readonly counts?: Readonly<Record<string, number>>;
  readonly records?: number;
  /** Records that matched and were sealed by others. */
  readonly elsewhere?: number;
  /** Who came without a password and must be offered one. */
  readonly again?: readonly string[];
}
/** A job as whoever asked for it sees it. */
export interface JobSeen {
  readonly id: string;
  readonly kind: JobKind;
  readonly state: JobState;
  readonly asked: JobAsked;
  readonly by: string;
  readonly made: string;
  readonly step: string;
  readonly done: number;
  readonly of: number;
  readonly bytes: number;
  readonly result: JobResult | null;
  readonly trouble: string | null;
  /** Until when its file can be fetched. */
  readonly until: string | null;
}

import * as yup from 'yup';
import type { SignedMark } from '@/core/record/marks';
import type { SealedRecord } from '@/core/record/seal';

const hex = (length: number) =>
  yup
    .string()
    .strict(true)
    .required()
    .matches(new RegExp(`^[0-9a-f]{${length}}$`));

/** The exported record: the sealed body as text, and its seal beside it. Format documented in docs/record-format.md. */
export const recordFileSchema = yup
  .object({
    format: yup.string().strict(true).oneOf(['vast-stone-record-1']).required(),
    body: yup.string().strict(true).required().min(2).max(50_000_000),
    seal: yup
      .object({
        number: yup.string().strict(true).required().max(40),
        previous: hex(64),
        hash: hex(64),
        signature: hex(128),
        key: hex(64),
        parts: yup.string().strict(true).max(20_000_000).optional(),
        partsSignature: yup
          .string()
          .strict(true)
          .matches(/^[0-9a-f]{128}$/)
          .optional(),
      })
      .noUnknown()
      .strict(true)
      .required(),
    /** Notices about the record: superseded, void. */
    marks: yup
      .array()
      .of(
        yup
          .object({
            body: yup.string().strict(true).required().max(10_000),
            signature: hex(128),
            key: hex(64),
          })
          .noUnknown()
          .strict(true)
          .required(),
      )
      .strict(true)
      .max(20)
      .optional(),
  })
  .noUnknown()
  .strict(true)
  .required();

/** A record as it travels: the sealed text, its seal, and what was said of it afterwards. */
export interface RecordFile extends SealedRecord {
  readonly marks: readonly SignedMark[];
}
export const writeRecordFile = (record: SealedRecord & { readonly marks?: readonly SignedMark[] }): string =>
  JSON.stringify(
    {
      format: 'vast-stone-record-1',
      body: record.body,
      seal: record.seal,
      ...(record.marks?.length ? { marks: record.marks } : {}),
    },
    null,
    2,
  ) + '\n';

/** Why a file could not be read as a record, with the place. */
export class RecordFileError extends Error {
  constructor(
    readonly path: string,
    text: string,
  ) {
    super(text);
    this.name = 'RecordFileError';
  }
}
/** @throws RecordFileError naming the path */
export function readRecordFile(text: string): RecordFile {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new RecordFileError('', 'The file is not JSON.');
  }
  try {
    const file = recordFileSchema.validateSync(value, { strict: true });
    const { parts, partsSignature, ...seal } = file.seal;
    return {
      body: file.body,
      seal: { ...seal, ...(parts && partsSignature ? { parts, partsSignature } : {}) },
      marks: file.marks ?? [],
    };
  } catch (error) {
    const e = error as yup.ValidationError;
    throw new RecordFileError(e.path ?? '', e.message);
  }
}

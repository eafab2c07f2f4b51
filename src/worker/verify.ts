/** Checks a file off the main thread: a bundle with photos may be large. */
import { type Expected, verifyFile, verifyWords } from '@/wire/verify-file';
import { serve } from './serve';

export interface VerifyAnswer {
  readonly words: string;
  readonly untouched: boolean;
  readonly faults: readonly string[];
  readonly notes: readonly string[];
  readonly marks: readonly string[];
  readonly facts: ReturnType<typeof verifyFile>['facts'];
}
export interface VerifyRequest {
  readonly bytes: ArrayBuffer;
  readonly expected: Expected;
}
export function answerFile({ bytes, expected }: VerifyRequest): VerifyAnswer {
  const check = verifyFile(new Uint8Array(bytes), undefined, expected);
  const { untouched, faults, notes, marks, facts } = check;
  return { words: verifyWords(check), untouched, faults, notes, marks, facts };
}
serve(answerFile);

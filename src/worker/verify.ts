/** Checks a file off the main thread: a bundle with photos may be large. */
import { verifyFile, verifyWords } from '@/wire/verify-file';

export interface VerifyAnswer {
  readonly words: string;
  readonly untouched: boolean;
  readonly faults: readonly string[];
  readonly notes: readonly string[];
  readonly marks: readonly string[];
  readonly facts: ReturnType<typeof verifyFile>['facts'];
}
onmessage = (message: MessageEvent<ArrayBuffer>) => {
  const check = verifyFile(new Uint8Array(message.data));
  const { untouched, faults, notes, marks, facts } = check;
  postMessage({ words: verifyWords(check), untouched, faults, notes, marks, facts } satisfies VerifyAnswer);
};
// what was sent before this stood may be lost: the page sends it when it hears this
postMessage('ready');

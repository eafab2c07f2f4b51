import { READY, type Answered, type Asked } from './ask-worker';

/** Answers every question put to this worker; on a page, which imports the same file, it does nothing. */
export function serve<Q, A>(answer: (question: Q) => A): void {
  if (typeof document !== 'undefined' || typeof self === 'undefined') return;
  self.addEventListener('message', ({ data }: MessageEvent<Asked<Q>>) =>
    self.postMessage({ id: data.id, answer: answer(data.question) } satisfies Answered<A>),
  );
  self.postMessage(READY);
}

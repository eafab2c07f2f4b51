import 'server-only';
import { EventEmitter } from 'node:events';

const emitter = ((globalThis as { vastBus?: EventEmitter }).vastBus ??= new EventEmitter().setMaxListeners(
  0,
));
/** What is told to the open benches of a run: the gauge's newest display, or that the log grew. */
export type RunNews =
  | {
      readonly kind: 'gauge';
      readonly gauge: string;
      readonly simulated: boolean;
      readonly at: number;
      readonly digits: number;
      readonly scale: number;
      readonly unit: string;
      readonly flow?: { readonly digits: number | null; readonly scale: number; readonly unit: string };
      /** What a probe on the pipe shows. */
      readonly temperature?: { readonly digits: number; readonly scale: number; readonly unit: string };
    }
  | { readonly kind: 'log' };
const key = (org: string, run: string) => `${org}/${run}`;
export const tell = (org: string, run: string, news: RunNews): boolean => emitter.emit(key(org, run), news);
/** Listens; the returned function stops. */
export function listen(org: string, run: string, hear: (news: RunNews) => void): () => void {
  emitter.on(key(org, run), hear);
  return () => emitter.off(key(org, run), hear);
}

import { AsyncLocalStorage } from 'node:async_hooks';
import { type Telling, told } from '@/core/quantity/usage';

const now = new AsyncLocalStorage<Telling>();
/** Makes a paper whose words are told so: what its gauges judged stays in their unit. */
export const toldSo = <T>(telling: Telling | null, make: () => Promise<T>): Promise<T> =>
  telling ? now.run(telling, make) : make();
/** Words as the paper that is being made tells them. */
export function asTold(text: string): string {
  const telling = now.getStore();
  return telling ? told(text, telling) : text;
}

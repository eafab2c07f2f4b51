import { AsyncLocalStorage } from 'node:async_hooks';
import { METRIC, type Telling, told } from '@/core/quantity/usage';

const now = new AsyncLocalStorage<Telling>();
const AS_MADE: Telling = { usage: METRIC };
/** Makes a paper whose words are told so: what its gauges judged stays in their unit. */
export const toldSo = <T>(telling: Telling, make: () => Promise<T>): Promise<T> => now.run(telling, make);
/** Words as the paper that is being made tells them. */
export const asTold = (text: string): string => told(text, now.getStore() ?? AS_MADE);

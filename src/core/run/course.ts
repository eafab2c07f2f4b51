/** A stage that was passed, on the record: what it came to in a word, and with what figures. */
import type { Plan } from '@/core/plan/plan';
import type { Visit } from './state';

export type Course = (visit: Visit, plan: Plan) => { readonly word: string; readonly text: string };

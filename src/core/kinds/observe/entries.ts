import { entry, reason, word } from '@/core/run/field';

/** `text`: why a result stands before the repeats that the rule asks for. */
export const observeEntries = { observe: entry({ result: word(), text: reason() }) };

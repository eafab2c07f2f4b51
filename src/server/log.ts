import 'server-only';
import pino from 'pino';

/** What the server tells whoever keeps it: a line of JSON each, without what people entered. */
export const log = pino({ level: process.env.VAST_LOG ?? 'warn' });

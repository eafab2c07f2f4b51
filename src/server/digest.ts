import 'server-only';
import { createHash } from 'node:crypto';

/** SHA-256 as hex: what is kept of a token or a code, and what a photo is named by. */
export const digest = (content: string | Buffer): string =>
  createHash('sha256').update(content).digest('hex');

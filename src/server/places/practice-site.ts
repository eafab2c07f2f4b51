import { createHash } from 'node:crypto';

/** An id that an organisation always has the same: nothing need be kept to find it again. */
export const ownId = (org: string, what: string): string => {
  const h = createHash('sha256').update(`${org}/${what}`).digest('hex');
  return `${h.slice(0, 8)}-${h.slice(8, 12)}-8${h.slice(13, 16)}-8${h.slice(17, 20)}-${h.slice(20, 32)}`;
};
/** The place that stands ready for practice: no test for real is begun there. */
export const practiceSite = (org: string): string => ownId(org, 'practice site');

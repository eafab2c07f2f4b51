import { parseFigure } from '@/core/quantity/exact';
import type { EventOf } from '@/core/run/events';
import type { Verbs } from '@/core/run/verbs';
import { ASKED } from './fold';

export const listenVerbs: Verbs = {
  /** run NAME LENGTH COMPRESSOR, m */
  run: ({ first, second, third }) => ({
    kind: 'listen-run',
    name: first,
    length: parseFigure(second, 'm'),
    compressor: third,
  }),
  /** heard ALONG LOUD [clear|fair|murmur] [NEAR] */
  heard: ({ args: [along = '', loud = '', clear = 'clear', near = ''] }) => ({
    kind: 'listen',
    along: parseFigure(along, 'm'),
    loud: Number(loud),
    clear: clear as EventOf<'listen'>['clear'],
    near,
  }),
  /** onphoto HASH X1 Y1 X2 Y2, thousandths of the photo */
  onphoto: ({ args: [photo = '', ...ends] }) => {
    const [x1 = 0, y1 = 0, x2 = 0, y2 = 0] = ends.map(Number);
    return { kind: 'listen-picture', photo, from: [x1, y1], to: [x2, y2] };
  },
  /** evidence WHAT agrees|against|unknown [TEXT]; evidence all SAYS answers what must be asked */
  evidence: ({ first, second, third }) =>
    (first === 'all' ? ASKED : [first as EventOf<'listen-evidence'>['what']]).map((what) => ({
      kind: 'listen-evidence' as const,
      what,
      says: second as EventOf<'listen-evidence'>['says'],
      text: third,
    })),
};

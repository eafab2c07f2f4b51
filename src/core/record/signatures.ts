import type { Face } from './face';
import { inZone } from '@/core/quantity/in-zone';

export interface SignatureLine {
  readonly role: string;
  /** The path as it was drawn; '' where none was. */
  readonly strokes: string;
  /** What stands in its place. */
  readonly instead: string;
  readonly text: string;
}
/** What a witness saw, in words. */
export const SAW_WORDS = { whole: 'saw the whole test', end: 'saw the end reading' } as const;

/**
 * Who signed, with the two kinds of test apart: the tester's own, and one that somebody from outside saw. A witness
 * stands for what he saw and for nothing else.
 */
export function signatureLines(face: Pick<Face, 'state' | 'plan'>): SignatureLine[] {
  const { signatures } = face.state;
  const when = (at: number) => inZone(at, face.plan.made.zone);
  const tester = signatures.find((s) => s.role === 'tester');
  const customer = signatures.find((s) => s.role === 'customer');
  const witnesses = signatures.filter((s) => s.role === 'witness');
  const by = (via: 'link' | undefined) => (via ? ', signed on an own device' : '');
  return [
    {
      role: witnesses.length ? 'Tester (witnessed test)' : 'Tester (own test, no witness)',
      strokes: tester?.strokes ?? '',
      instead: 'not signed',
      text: tester ? `${tester.name}, ${when(tester.at)}` : '',
    },
    ...(face.plan.procedure.ofKit
      ? []
      : [
          {
            role: 'Customer',
            strokes: customer?.strokes ?? '',
            instead: customer?.refused ? `not signed: ${customer.refused}` : 'not signed',
            text: customer ? `${customer.name}, ${when(customer.at)}${by(customer.via)}` : '',
          },
        ]),
    ...witnesses.map((w) => ({
      role: `Witness${w.as ? `: ${w.as}` : ''}`,
      strokes: w.strokes ?? '',
      instead: w.refused ? `not signed: ${w.refused}` : 'not signed',
      text: `${w.name}, ${w.saw ? `${SAW_WORDS[w.saw]}, ` : ''}${when(w.at)}${by(w.via)}`,
    })),
  ];
}

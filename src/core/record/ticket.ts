import { notCoveredIn } from '@/core/plan/not-covered';
import { inZone } from '@/core/quantity/in-zone';
import { isGood } from '@/core/verdict/words';
import type { Face } from './face';

/** Characters on a line of an 80 mm strip. */
export const TICKET_COLUMNS = 42;

/** Breaks a text into lines of the strip; a word longer than a line is cut. */
export function wrap(text: string, columns = TICKET_COLUMNS): string[] {
  const lines: string[] = [];
  for (const word of text.split(/\s+/).filter(Boolean)) {
    const last = lines[lines.length - 1];
    if (last !== undefined && last.length + 1 + word.length <= columns)
      lines[lines.length - 1] = `${last} ${word}`;
    else for (let i = 0; i < word.length; i += columns) lines.push(word.slice(i, i + columns));
  }
  return lines;
}
const rule = '-'.repeat(TICKET_COLUMNS);

/**
 * The narrow ticket of a record, line by line, none longer than the strip is wide. What is no certificate says so in its
 * first line. @param link address of the public page, or null
 */
export function ticketLines(
  face: Face,
  seal: { number: string; hash: string },
  link: string | null,
): string[] {
  const { plan, body, state } = face;
  const hold = face.deciding?.hold;
  const decided = face.holds.find((h) => hold && h.startedAt === hold.startedAt);
  const tester = state.signatures.find((s) => s.role === 'tester');
  const customer = state.signatures.find((s) => s.role === 'customer');
  const row = (name: string, text: string): string[] => wrap(`${name}: ${text}`);
  return [
    ...(body.status === 'certificate'
      ? []
      : [
          ...wrap(
            body.status === 'practice' ? 'PRACTICE, SIMULATED: NOT A CERTIFICATE' : 'NOT A CERTIFICATE',
          ),
          rule,
        ]),
    ...wrap(plan.organisation.name),
    ...wrap(face.title),
    ...row('No.', seal.number),
    rule,
    ...wrap(`${plan.site.name}, ${plan.site.address}`),
    ...wrap(`${plan.system.name}: ${face.tested}`),
    rule,
    ...wrap(body.verdict.label.toUpperCase()),
    ...wrap(body.verdict.sentence),
    ...(decided
      ? [
          ...row('Start', `${decided.start}, ${decided.clock}`),
          ...row('End', decided.end),
          ...row('Change', decided.change),
          ...row('Time', decided.elapsed),
        ]
      : []),
    ...row('Gauge', face.gauge.split(';')[0]!),
    ...row('Rule', `${plan.pack.title} ${plan.pack.edition}. Check the edition in force.`),
    ...row('NOT covered', notCoveredIn(plan).join('; ')),
    ...(isGood(body.verdict.word) || body.verdict.use !== 'shut-off'
      ? []
      : [rule, ...wrap('DO NOT USE until repaired and tested again.')]),
    rule,
    ...row('Tester', tester?.name ?? 'not signed'),
    ...row(
      'Customer',
      customer ? (customer.refused ? `not signed: ${customer.refused}` : customer.name) : 'not signed',
    ),
    ...row('Sealed', inZone(Date.parse(body.sealedAt), plan.made.zone)),
    ...wrap(`Fingerprint ${seal.hash.match(/.{8}/g)!.slice(0, 4).join(' ')}`),
    ...(link ? wrap(`Check: ${link}`) : []),
  ];
}

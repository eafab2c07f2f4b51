/** Gauges that send by themselves: paired once by a code that is shown, then known by a token of which the hash alone is kept. */
import 'server-only';
import { randomBytes, randomInt } from 'node:crypto';
import { and, desc, eq, isNull } from 'drizzle-orm';
import { inOrganisation, lookUp } from '@/database/client';
import { ofProcess } from '@/database/process';
import { gaugeLinks, gauges, pairedGauges } from '@/database/schema';
import { audit } from '@/server/audit';
import { digest } from '@/server/digest';
import { rateLimit } from '@/server/limits';
import { now } from '@/server/now';
import { isId, notHere, TroubleError } from '@/server/trouble';
import type { Session } from '@/server/session/session';
import type { PairedGauge, PairingCode } from '@/wire/pairing';
import { uuid7 } from '@/wire/uuid7';

/** A code is shown, typed in and used up within this, ms; house figure. */
const CODE_LIVES_MS = 10 * 60_000;
/** Letters and digits that nobody takes for another when they are read out. */
const CLEAR = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789';
const newCode = (): string =>
  Array.from({ length: 8 }, (_, n) => (n === 4 ? '-' : '') + CLEAR[randomInt(CLEAR.length)]).join('');
/** As it was shown, however it was typed. */
const asShown = (typed: string): string => {
  const letters = typed.toUpperCase().replace(/[^A-Z0-9]/g, '');
  return letters.length === 8 ? `${letters.slice(0, 4)}-${letters.slice(4)}` : typed;
};

/** What a token opens: one run of a stand-in, or whatever this gauge judges. */
export interface Link {
  readonly org: string;
  readonly gauge: string;
  /** null: wherever the gauge judges. */ readonly run: string | null;
  readonly simulated: boolean;
}
/** Whose token it was is taken to be so for this long where only what is shown now is passed on, ms. House figure. */
const TRUSTED_MS = 2_000;
const MOST_TRUSTED = 5_000;
const trusted = ofProcess('gauge tokens', () => new Map<string, { link: Link; until: number }>());
/**
 * Whose token it is; undefined: nobody's any more.
 * @param kept something is kept by it: it is asked for anew
 */
export async function linkOf(token: string, kept = true): Promise<Link | undefined> {
  if (!token) return undefined;
  const hash = digest(token);
  const before = trusted.get(hash);
  if (!kept && before && before.until > Date.now()) return before.link;
  const [link] = await lookUp<Link>('find_gauge($1)', [hash]);
  if (trusted.size >= MOST_TRUSTED) trusted.clear();
  if (link) trusted.set(hash, { link, until: Date.now() + TRUSTED_MS });
  else trusted.delete(hash);
  return link;
}

/** Makes a code by which one device is paired with a gauge of the cabinet. @throws TroubleError 404, 409 for one that is out of use */
export async function makeCode(session: Session, gauge: string): Promise<PairingCode> {
  if (!isId(gauge)) throw notHere('gauge');
  const code = newCode();
  const moment = now();
  const expires = new Date(moment + CODE_LIVES_MS);
  await inOrganisation(session, async (tx) => {
    const [known] = await tx.select({ id: gauges.id }).from(gauges).where(eq(gauges.id, gauge));
    if (!known) throw notHere('gauge');
    await tx.insert(pairedGauges).values({
      org: session.org,
      id: uuid7(moment),
      gauge,
      codeHash: digest(code),
      codeExpires: expires,
      made: new Date(moment),
      madeBy: session.person,
      device: '',
    });
    await audit(tx, session, 'made a code to pair a gauge', gauge);
  });
  return { code, expires: expires.toISOString() };
}
/** Devices that are paired with the gauges of the cabinet, the newest first. */
export async function pairedOf(scope: { readonly org: string }): Promise<PairedGauge[]> {
  const rows = await inOrganisation(scope, (tx) =>
    tx.select().from(pairedGauges).where(isNull(pairedGauges.ended)).orderBy(desc(pairedGauges.made)),
  );
  return rows.flatMap(({ id, gauge, device, paired }) =>
    paired ? [{ id, gauge, device, paired: paired.toISOString() }] : [],
  );
}
/** Ends a pairing: its token opens nothing from then on. @throws TroubleError 404 */
export async function endPairing(session: Session, id: string): Promise<void> {
  if (!isId(id)) throw notHere('paired gauge');
  await inOrganisation(session, async (tx) => {
    const ended = await tx
      .update(pairedGauges)
      .set({ ended: new Date(now()) })
      .where(and(eq(pairedGauges.id, id), isNull(pairedGauges.ended)))
      .returning({ gauge: pairedGauges.gauge });
    if (!ended.length) throw notHere('paired gauge');
    await audit(tx, session, 'ended the pairing of a gauge', ended[0]!.gauge);
  });
  trusted.clear();
}

const UNKNOWN = () =>
  new TroubleError(
    401,
    'pairing',
    'This pairing code is not known, or its ten minutes are over. Make a new one in the Cabinet or on the bench.',
  );
/**
 * Pairs a gauge by the code that is shown. The answer's token opens that and nothing else.
 * @param client address it came from, where it is known: guessing is slowed down for each
 */
export async function pairGauge(
  code: string,
  device: string,
  client: string,
): Promise<{ token: string; run: string | null; gauge: string; now: number }> {
  const token = randomBytes(24).toString('base64url');
  const tokenHash = digest(token);
  const [stand] = await lookUp<Link & { run: string }>('find_gauge_code($1)', [digest(code)]);
  if (stand) {
    await inOrganisation(stand, (tx) =>
      tx
        .update(gaugeLinks)
        .set({ tokenHash })
        .where(and(eq(gaugeLinks.run, stand.run), eq(gaugeLinks.gauge, stand.gauge))),
    );
    return { token, run: stand.run, gauge: stand.gauge, now: now() };
  }
  await rateLimit(`pairing ${client}`, 20, 10 * 60_000);
  const codeHash = digest(asShown(code));
  const [made] = await lookUp<{ org: string; id: string; gauge: string }>('find_paired_code($1, $2)', [
    codeHash,
    new Date(now()),
  ]);
  if (!made) throw UNKNOWN();
  const won = await inOrganisation(made, (tx) =>
    tx
      .update(pairedGauges)
      // a code serves once: whoever comes second finds it used up
      .set({ tokenHash, codeHash: null, paired: new Date(now()), device })
      .where(and(eq(pairedGauges.id, made.id), eq(pairedGauges.codeHash, codeHash)))
      .returning({ id: pairedGauges.id }),
  );
  if (!won.length) throw UNKNOWN();
  return { token, run: null, gauge: made.gauge, now: now() };
}

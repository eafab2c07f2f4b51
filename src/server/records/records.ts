import { boundedWords, mustBeSeen } from '@/core/record/face-words';
import { notCoveredIn } from '@/core/plan/not-covered';
import { leaksOf, leakWords } from '@/core/after/leaks';
import { leakBook } from '@/server/leaks/leaks';
import 'server-only';
import { and, desc, eq, inArray, isNull, ne } from 'drizzle-orm';
import { faceOf, inZone } from '@/core/record/face';
import { earlierWords } from '@/core/record/line-papers';
import type { SealedRecord } from '@/core/record/seal';
import { inOrganisation, lookUp } from '@/database/client';
import { marksOf, sealOf } from '@/server/sealing/seal';
import { localDate } from '@/core/quantity/local-date';
import { usageOf } from '@/core/quantity/usage';
import { markWords, type SignedMark } from '@/core/record/marks';
import { ledger, openRuns as open, organisations, photos, publicLinks, seals } from '@/database/schema';
import { recordsBySection } from '@/server/places/looks';
import { historyOf } from './ledger';
import { type Stands, standingsOf } from '@/server/runs/standing';
import { isId, notHere } from '@/server/trouble';
import type { PublicFace } from '@/wire/records';
import { signatureLines } from '@/core/record/signatures';
import { restoreBody } from '@/core/record/restore';
import { unitsJudgedIn } from '@/core/run/read';
import { reduce } from '@/core/run/reduce';
import { medianTimes, stepTimes } from '@/core/run/step-times';

export interface StoredRecord extends SealedRecord {
  readonly run: string;
  readonly link: string | null;
  readonly sealedAt: string;
  /** What was said of it afterwards, as signed, and in words; first that it came with a whole organisation, where it did. */
  readonly marks: readonly SignedMark[];
  readonly markWords: readonly string[];
}

/** What stands over a record that was sealed elsewhere: the file it came in vouches for its key, and nobody else. */
const broughtInWords = (at: Date, key: string): string =>
  `Brought in on ${localDate(at.getTime(), 'UTC')} with a whole organisation, not sealed here. Its key was first seen then; ask whether it begins with ${key.slice(0, 16)}.`;

/** A sealed record of the organisation. @throws TroubleError 404 */
export async function recordOf(scope: { org: string }, run: string): Promise<StoredRecord> {
  if (!isId(run)) throw notHere('record');
  return inOrganisation(scope, async (tx) => {
    const [row] = await tx.select().from(seals).where(eq(seals.run, run));
    if (!row) throw notHere('record');
    const [link] = await tx
      .select({ token: publicLinks.token })
      .from(publicLinks)
      .where(and(eq(publicLinks.run, run), isNull(publicLinks.revoked)));
    const marks = await marksOf(tx, run);
    // most records bear no mark: only then is the body read for the zone of its place
    const zone = marks.length ? restoreBody(row.body).plan.made.zone : undefined;
    return {
      run,
      body: row.body,
      seal: sealOf(row),
      marks: marks.map((m) => m.signed),
      markWords: [
        ...(row.broughtIn ? [broughtInWords(row.broughtIn, row.key)] : []),
        ...marks.map((m) => markWords(m.mark, zone)),
      ],
      link: link?.token ?? null,
      sealedAt: row.sealedAt.toISOString(),
    };
  });
}

/** The run behind a public link. @throws TroubleError 404 for unknown and revoked links alike */
export async function publicRecord(token: string): Promise<{ org: string; run: string }> {
  const [found] = /^[A-Za-z0-9_-]{20,40}$/.test(token)
    ? await lookUp<{ org: string; run: string }>('find_public_link($1)', [token])
    : [];
  if (!found) throw notHere('certificate');
  return found;
}

/** A run without a seal, as it stands. */
export interface OpenRun extends Stands {
  readonly made: string;
}
/** Runs without a seal, the newest first. @param most so many of them; all of them are counted */
export async function openRuns(
  scope: { readonly org: string },
  most = Infinity,
): Promise<{ readonly runs: OpenRun[]; readonly all: number }> {
  return inOrganisation(scope, async (tx) => {
    const rows = await tx
      .select({ run: open.run, made: open.made })
      .from(open)
      .orderBy(desc(open.made), desc(open.run));
    const shown = rows.slice(0, most);
    const stand = await standingsOf(
      tx,
      scope,
      shown.map((r) => r.run),
    );
    return { runs: stand.map((s, n) => ({ ...s, made: shown[n]!.made.toISOString() })), all: rows.length };
  });
}

export function publicFace(record: StoredRecord): PublicFace {
  const face = faceOf(record.body);
  const { plan, body } = face;
  const v = body.verdict;
  return {
    number: record.seal.number,
    title: face.title,
    statusLine: face.statusLine,
    organisation: plan.organisation.name,
    sealed: inZone(Date.parse(body.sealedAt), plan.made.zone),
    word: v.word,
    label: v.label,
    sentence: v.sentence,
    plain: v.plain,
    first: [
      ['Where', `${plan.site.name}, ${plan.site.address}`],
      ['What was tested', `${plan.system.name}: ${plan.system.inScope.join('; ')}`],
      ['What was not', notCoveredIn(plan).join('; ')],
      ['When', `${face.started} to ${face.ended}`],
      ...signatureLines(face).map((s): [string, string] => [s.role, s.strokes ? s.text : s.instead]),
    ],
    seen: face.sections.filter(mustBeSeen),
    rows: [
      ['Section', boundedWords(plan)],
      ['Gauge', `${face.gauge}. Zero open to air: ${face.zeros}`],
      ...face.limits.map((l): [string, string] => [
        l.name,
        `${l.value}. Source: ${l.source}. Check the edition in force.`,
      ]),
      ...(v.adequacy ? [['Could have seen', v.adequacy.text] as [string, string]] : []),
    ],
    stages: v.stages.map(({ title, word, text }) => ({ title, word, text })),
    hash: record.seal.hash,
    judgedIn: unitsJudgedIn(plan, face.state),
    marks: record.markWords,
  };
}

/** The middle minutes of each step over the newest records of a procedure: what the steps really took. */
export async function lastTimes(
  scope: { org: string },
  procedure: string,
): Promise<{ runs: number; minutes: Record<string, number> }> {
  const bodies = await inOrganisation(scope, (tx) =>
    tx
      .select({ body: seals.body })
      .from(seals)
      .where(
        inArray(
          seals.run,
          tx
            .select({ run: ledger.id })
            .from(ledger)
            .where(
              and(eq(ledger.procedure, procedure), eq(ledger.source, 'own'), ne(ledger.status, 'practice')),
            )
            .orderBy(desc(ledger.at))
            .limit(8),
        ),
      )
      .orderBy(desc(seals.sealedAt)),
  );
  const times = bodies.map(({ body }) => {
    const { plan, events } = restoreBody(body);
    return stepTimes(reduce(plan, events));
  });
  return { runs: times.length, minutes: medianTimes(times) };
}

/** A record with all that its papers print: photos, how the firm is reached, earlier records of the system. */
export async function printedRecord(scope: { org: string }, run: string) {
  const record = await recordOf(scope, run);
  const { plan } = restoreBody(record.body);
  const { pictures, house } = await inOrganisation(scope, async (tx) => ({
    pictures: await tx
      .select({ hash: photos.hash, bytes: photos.bytes })
      .from(photos)
      .where(eq(photos.run, run)),
    house: (
      await tx.select({ contact: organisations.contact, usage: organisations.usage }).from(organisations)
    )[0],
  }));
  const earlier = (await historyOf(scope, plan.system.id)).filter(
    (l) => l.sealedAt < record.sealedAt && l.status !== 'practice' && !l.voided && !l.superseded,
  );
  const book = await leakBook(scope, plan.system.id).catch(() => null); // a place that came from elsewhere has none
  const leaks = book ? leaksOf(book.entries, book.tests, book.now).map(leakWords) : [];
  const { section } = plan.system;
  const own = section
    ? new Set(
        (await recordsBySection(scope, plan.system.id))
          .filter((r) => r.section === section.key)
          .map((r) => r.run),
      )
    : null;
  const said = (l: (typeof earlier)[number]) => earlierWords({ ...l, ...l.summary, zone: plan.made.zone });
  return {
    ...record,
    usage: usageOf(house?.usage ?? {}, {}),
    photos: new Map(pictures.map((p) => [p.hash, p.bytes])),
    extra: {
      contact: house?.contact ?? '',
      history: earlier.map(said),
      leaks,
      ...(own ? { sectionHistory: earlier.filter((l) => own.has(l.run)).map(said) } : {}),
    },
  };
}

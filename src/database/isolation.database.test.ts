import { createHash } from 'node:crypto';
import { sql } from 'drizzle-orm';
import pg from 'pg';
import sharp from 'sharp';
import { migrateDatabase } from '../../scripts/migrate';
import { makeOrganisation, standingDemo } from '../../scripts/demo';
import { closePool, inOrganisation, pool } from './client';
import { followUps, people, sites, systems } from './schema';
import { checkSeal, sealRun } from '@/server/sealing/seal';
import { openRuns, publicRecord, recordOf } from '@/server/records/records';
import { appendEvents, readRun } from '@/server/runs/log';
import { planFor, startRun } from '@/server/runs/start';
import { keepPhotoPart, photoProgress, readPhoto, smallPhoto } from '@/server/places/photos';
import { readInventory, recall } from '@/server/places/inventory';
import { closeFollowUp, openFollowUps } from '@/server/records/follow-ups';
import { loadPack } from '@/core/pack/load';
import { verdictOf } from '@/core/verdict/verdict';
import { playScript } from '@/core/run/script';
import { canonical } from '@/core/record/canonical';
import { sealedVerdict } from '@/core/record/record';
import { verifySeal } from '@/core/record/seal';
import { faceOf } from '@/core/record/face';
import { storyOf } from '@/core/record/story';
import { familyFacts } from '@/core/record/family';
import { paperOf, papersOf, PAPERS } from '@/core/record/papers';
import { provenanceLines } from '@/core/record/provenance';
import { restoreBody } from '@/core/record/restore';
import { TICKET_COLUMNS, ticketLines } from '@/core/record/ticket';
import { reduce } from '@/core/run/reduce';
import { uuid7 } from '@/wire/uuid7';
import { may } from '@/wire/role';

/** Demo history in one organisation, a second one that tries to get at it. Runs on a database of its own. */
const superuser = new pg.Pool({ connectionString: process.env.VAST_SUPERUSER_URL, max: 2 });
let mill: { org: string; systems: Record<string, string> };
let other: { org: string };
let sealed: { run: string; number: string; word: string; token: string }[];

beforeAll(async () => {
  await migrateDatabase(process.env.VAST_OWNER_URL!);
  mill = await standingDemo();
  other = await makeOrganisation(
    'Quarry Lane Fitters',
    '',
    [{ key: 'vesna', name: 'Vesna Adeyemi-Lund', role: 'owner', licence: ['QL-1', '2030-01-01'] }],
    'quarry.example',
  );
  sealed = (
    await superuser.query(
      'select s.run, s.number, g.word, l.token from seals s join ledger g on g.id = s.run join public_links l on l.run = s.run where s.org = $1 order by s.number',
      [mill.org],
    )
  ).rows;
}, 400_000);
afterAll(async () => {
  await closePool();
  await superuser.end();
});

/** Every table that carries an organisation. */
const tables = async (): Promise<string[]> =>
  (
    await superuser.query<{ name: string }>(
      "select table_name as name from information_schema.columns where table_schema = 'public' and column_name = 'org' order by 1",
    )
  ).rows.map((r) => r.name);

describe('one organisation cannot reach another', () => {
  test('every table has row-level security enabled and forced, and a policy', async () => {
    const { rows } = await superuser.query<{ name: string; on: boolean; forced: boolean; policies: number }>(
      `select c.relname as name, c.relrowsecurity as on, c.relforcerowsecurity as forced, (select count(*)::int from pg_policy p where p.polrelid = c.oid) as policies
       from pg_class c join pg_namespace n on n.oid = c.relnamespace where n.nspname = 'public' and c.relkind in ('r','p')`,
    );
    expect(rows.length).toBeGreaterThanOrEqual(14);
    expect(rows.filter((r) => !r.on || !r.forced || r.policies === 0)).toEqual([]);
    const roles = await superuser.query(
      "select rolname, rolsuper, rolbypassrls from pg_roles where rolname like 'vast_%'",
    );
    expect(roles.rows.every((r) => !r.rolsuper && !r.rolbypassrls)).toBe(true);
  });
  test('without an organisation set nothing is seen, also after another transaction used the connection', async () => {
    await inOrganisation(mill, (tx) => tx.select().from(people));
    const all = await tables();
    expect(all.length).toBeGreaterThanOrEqual(34);
    for (const table of all)
      expect([table, (await pool().query(`select * from ${table}`)).rowCount]).toEqual([table, 0]);
    await expect(pool().query('select * from sign_in_attempts')).rejects.toThrow(/permission denied/);
  });
  test('another organisation sees none of the rows, and cannot write into them or point at them', async () => {
    for (const table of await tables()) {
      const { rows } = await inOrganisation(other, (tx) =>
        tx.execute<{ org: string }>(sql.raw(`select org from ${table}`)),
      );
      expect([table, rows.filter((r) => r.org !== other.org)]).toEqual([table, []]);
      // an own row for another organisation is refused by the table, whatever else is wrong with it
      await expect(
        inOrganisation(other, (tx) =>
          tx.execute(
            sql.raw(
              `insert into ${table} select (jsonb_populate_record(null::${table}, jsonb_build_object('org', '${mill.org}'))).*`,
            ),
          ),
        ),
      ).rejects.toThrow();
    }
    await expect(
      inOrganisation(other, (tx) =>
        tx.insert(sites).values({ org: mill.org, id: uuid7(1), name: 'x', address: '', customer: '' }),
      ),
    ).rejects.toThrow();
    const site = (await inOrganisation(mill, (tx) => tx.select().from(sites)))[0]!;
    await expect(
      inOrganisation(other, (tx) =>
        tx
          .insert(systems)
          .values({ org: other.org, id: uuid7(2), site: site.id, name: 'x', facts: {} as never }),
      ),
    ).rejects.toThrow();
    await expect(readRun(other, sealed[0]!.run)).rejects.toThrow(/no such run here/);
    await expect(recordOf(other, sealed[0]!.run)).rejects.toThrow(/no such record here/);
    expect(await openRuns(other)).toEqual({ runs: [], all: 0 });
  });
  test('the role of the application can neither change nor remove events and seals, nor turn the guards off', async () => {
    for (const statement of [
      'update events set position = 99',
      'delete from events',
      "update seals set number = 'x'",
      'delete from seals',
      'truncate events',
      'alter table events disable trigger all',
      'set row_security = off; select * from events',
      'drop policy own_organisation on events',
      'update sightings set item = item',
      'delete from sightings',
      'delete from photos',
      "update packs set body = '{}'",
      "update follow_ups set kind = 'watch'",
      'delete from follow_ups',
      "update kit_log set entry = '{}'",
      'delete from kit_log',
      'delete from outbox',
      "update outbox set body = ''",
      'delete from visits',
      'delete from record_marks',
      "update record_marks set body = ''",
      'delete from prints',
      'delete from outside_records',
      "update outside_records set faults = '[]'",
      'update signing_keys set sealed_secret = null',
      'delete from audit_log',
      'update invitations set token_hash = name',
    ])
      await expect(inOrganisation(mill, (tx) => tx.execute(statement))).rejects.toThrow();
    const owner = new pg.Client({ connectionString: process.env.VAST_OWNER_URL });
    await owner.connect();
    await expect(owner.query('delete from events')).rejects.toThrow(/append-only/);
    await owner.end();
  });
});

describe('what records leave behind', () => {
  test('each record of the demo loads, judges and seals the same again from its own embedded rules', async () => {
    const procedures = new Set<string>();
    for (const s of sealed) {
      const record = await recordOf(mill, s.run);
      const body = restoreBody(record.body);
      const { hash: _hash, ...pack } = body.plan.pack;
      loadPack({ format: 1, ...pack, procedures: [body.plan.procedure] });
      const verdict = verdictOf(body.plan, reduce(body.plan, body.events))!;
      expect([s.number, canonical(sealedVerdict(verdict))]).toEqual([s.number, canonical(body.verdict)]);
      procedures.add(body.plan.procedure.id);
    }
    expect(procedures.size).toBeGreaterThanOrEqual(7);
  });
  test('on every face and paper of every record no word is missing, each limit has its source, and what is no certificate says so', async () => {
    const kinds = new Set<string>();
    const faulty: string[] = [];
    // what a missing figure, name or list leaves in a sentence
    const hole = /undefined|null|NaN|Infinity|\[object|\(\)|: ?\.|, ?[,.]|^\s*[.,;:]/;
    for (const s of sealed) {
      const face = faceOf((await recordOf(mill, s.run)).body);
      const { body, plan } = face;
      const certificate = body.status === 'certificate';
      expect([s.number, /not a certificate/.test(face.title)]).toEqual([s.number, !certificate]);
      expect(face.limits.filter((l) => !l.source.trim() || !l.value.trim())).toEqual([]);
      expect(plan.pack.notice).toMatch(/edition in force|Check the edition/);
      const said = [
        face.title,
        face.statusLine,
        face.gauge,
        face.zeros,
        face.tested,
        face.clock,
        ...face.limits.flatMap((l) => [l.name, l.value]),
        ...face.sections.flatMap((x) => [x.title, ...x.lines]),
        ...familyFacts(face).flatMap((f) => [f.name, f.value]),
        ...provenanceLines(plan, face.state),
        ...storyOf(face, body.events).flatMap((e) => [e.what, e.who]),
      ];
      for (const { kind, title } of papersOf(face)) {
        kinds.add(kind);
        if (kind === 'ticket') continue;
        const paper = paperOf(face, kind, { contact: '555-0140', history: [] });
        const lines = paper.blocks.flatMap((b) => [b.heading ?? 'x', ...b.lines]);
        said.push(title, paper.to, paper.where, ...lines);
        // whoever relies on the result must know what the test says nothing about
        if (['note', 'inspector', 'buyer'].includes(kind))
          expect([s.number, kind, lines.join(' ')]).toEqual([
            s.number,
            kind,
            expect.stringMatching(/not covered/i),
          ]);
      }
      const ticket = ticketLines(face, { number: s.number, hash: 'a'.repeat(64) }, null);
      expect(ticket.filter((l) => l.length > TICKET_COLUMNS)).toEqual([]);
      expect(/NOT A CERTIFICATE/.test(ticket[0]!)).toBe(!certificate);
      said.push(ticket.join(' '));
      faulty.push(...said.filter((t) => !t.trim() || hole.test(t)).map((t) => `${s.number}: ${t}`));
    }
    expect(faulty).toEqual([]);
    expect([...kinds].sort()).toEqual(
      Object.keys(PAPERS)
        .filter((k) => k !== 'certificate')
        .sort(),
    );
  });
  test('a failing record opens what must be done; the next good record of the system closes its repairs', async () => {
    const rows = await inOrganisation(mill, (tx) => tx.select().from(followUps));
    const repair = rows.filter((r) => r.kind === 'repair');
    expect(repair.map((r) => [r.due, r.closed !== null])).toEqual(
      expect.arrayContaining([
        ['2025-07-08', true], // 28 days after 10 June, closed by the good record of 30 June
        ['2026-12-15', false],
      ]),
    );
    const open = await openFollowUps(mill);
    expect(open.every((f) => !rows.find((r) => r.id === f.id)?.closed)).toBe(true);
    expect((await openFollowUps(other)).filter((f) => f.run)).toEqual([]);
    await expect(closeFollowUp({ org: other.org, person: uuid7(1), name: 'x' }, open[0]!.id)).rejects.toThrow(
      /no such follow-up here/,
    );
  });
  test('recall finds every sighting of a serial; another serial than last time is told; nobody else sees them', async () => {
    const [found] = await recall(mill, 'serial sh-1207');
    expect([found!.item.model, found!.site]).toEqual(['B12', 'Boat shed']);
    expect(await recall(other, 'sh-1207')).toEqual([]);
    expect(await recall(mill, '%')).toEqual([]);
    // a plate on the page of a system is found before anybody wrote it down on a visit
    const dryer = await recall(mill, 'cd-4410');
    expect(dryer.map((x) => [x.item.name, x.site, x.seen])).toEqual([
      ['Cloth dryer', expect.any(String), null],
    ]);
    expect((await recall(mill, 'MQ-4471')).map((x) => x.systemName)).toEqual(['Bakery gas']);
    expect(await recall(other, 'cd-4410')).toEqual([]);
    const shed = await readInventory(mill, mill.systems.boats!);
    expect(shed.flatMap((x) => x.changes)).toEqual([
      expect.stringMatching(/model was B11, is B12/),
      expect.stringMatching(/serial was SH-880, is SH-1207/),
    ]);
  });
  test('a test that must come after another finds the record it follows, and is refused without', async () => {
    const owner = { org: mill.org, organisation: 'x', name: 'x' };
    const request = {
      pack: 'gas-imperial',
      procedure: 'gas-air-appliances',
      case: 'all',
      practice: false,
      zone: 'UTC',
    };
    const plan = await planFor(owner, { ...request, id: uuid7(3), system: mill.systems.kiln! });
    expect(plan.after!.word).toBe('tight');
    await expect(planFor(owner, { ...request, id: uuid7(4), system: mill.systems.weaving! })).rejects.toThrow(
      /comes last/,
    );
    await expect(
      planFor(owner, { ...request, id: uuid7(5), system: mill.systems.kiln!, retestOf: sealed[0]!.run }),
    ).rejects.toThrow(/no such record here/); // a record of another system is not what this one repeats
  });
});

describe('photos', () => {
  const sha = (b: Buffer) => createHash('sha256').update(b).digest('hex');
  const noise = (width: number, height: number) =>
    sharp({
      create: {
        width,
        height,
        channels: 3,
        background: '#808080',
        noise: { type: 'gaussian', mean: 120, sigma: 60 },
      },
    }).jpeg({ quality: 90 });
  test('come in pieces and go on where the signal was lost; named by their bytes, kept once', async () => {
    const person = { org: mill.org, name: 'Imre' };
    const run = (await openRuns(mill)).runs[0]!.plan.run;
    const bytes = await noise(1600, 1067).toBuffer();
    const hash = sha(bytes);
    const send = (at: number, to: number, who = person) =>
      keepPhotoPart(who, run, hash, { at, of: bytes.length, bytes: bytes.subarray(at, to) });
    expect(await send(0, 1000)).toEqual({ have: 1000, whole: false });
    expect(await photoProgress(mill, run, hash)).toEqual({ have: 1000, whole: false });
    expect(await send(0, 1000)).toEqual({ have: 1000, whole: false }); // the answer was lost: sent again
    expect(await send(5000, 9000)).toEqual({ have: 1000, whole: false }); // too early
    await expect(readPhoto(mill, run, hash)).rejects.toThrow(/no such photo here/);
    await expect(send(1000, 2000, { org: other.org, name: 'x' })).rejects.toThrow(/no such run here/);
    expect((await send(1000, bytes.length)).whole).toBe(true);
    expect((await send(0, 1000)).whole).toBe(true);
    expect(sha(await readPhoto(mill, run, hash))).toBe(hash);
    expect((await smallPhoto(bytes)).length).toBeLessThan(bytes.length / 4);
    await expect(readPhoto(other, run, hash)).rejects.toThrow(/no such run here/);
    await expect(readPhoto(mill, run, '../etc')).rejects.toThrow(/no such photo here/);
    const { rows } = await superuser.query('select count(*)::int as n from photo_parts where org = $1', [
      mill.org,
    ]);
    expect(rows[0].n).toBe(0);
  });
  test('what is broken, too large, of another kind, or says where it was taken is refused; so is one that comes too late', async () => {
    const person = { org: mill.org, name: 'Imre' };
    const run = (await openRuns(mill)).runs[0]!.plan.run;
    const whole = (bytes: Buffer, to = run, hash = sha(bytes)) =>
      keepPhotoPart(person, to, hash, { at: 0, of: bytes.length, bytes });
    const good = await noise(640, 480).toBuffer();
    const tagged = await noise(640, 480)
      .withExif({ IFD3: { GPSLatitude: '51/1 30/1 0/1', GPSLatitudeRef: 'N' } })
      .toBuffer();
    await expect(whole(tagged)).rejects.toThrow(/where it was/);
    await expect(whole(Buffer.from('not a photo'))).rejects.toThrow(/not a photo/);
    await expect(whole(good.subarray(0, good.length - 900))).rejects.toThrow(/not a photo/);
    await expect(whole(await noise(1601, 20).toBuffer())).rejects.toThrow(/larger than the bench/);
    await expect(whole(await sharp(good).png().toBuffer())).rejects.toThrow(/not a photo/);
    await expect(whole(good, run, 'f'.repeat(64))).rejects.toThrow(/damaged on its way/);
    await expect(whole(Buffer.alloc(4_000_001))).rejects.toThrow(/larger than the bench/);
    await expect(whole(good, sealed[0]!.run)).rejects.toThrow(/is sealed/);
  });
});

describe('seals', () => {
  test('the demo brings all six verdicts through the real path, numbered without gaps', () => {
    expect(sealed.map((s) => s.number)).toEqual(sealed.map((_, i) => `VS-${String(i + 1).padStart(5, '0')}`));
    expect(new Set(sealed.map((s) => s.word))).toEqual(
      new Set(['tight', 'within-allowance', 'not-tight', 'void', 'inconclusive', 'refer']),
    );
  });
  test('every sealed record checks good; a public link opens its record and only that', async () => {
    for (const s of sealed) expect(await checkSeal(mill, s.run)).toEqual({ good: true, faults: [] });
    expect(await publicRecord(sealed[0]!.token)).toMatchObject({ run: sealed[0]!.run });
    const { token } = sealed[0]!;
    const forged = token.slice(0, -1) + (token.endsWith('_') ? '-' : '_');
    await expect(publicRecord(forged)).rejects.toThrow(/no such certificate/);
  });
  test('tampering in the database is shown: body, word, log, number, neighbour', async () => {
    const spoil = async (statement: string, values: unknown[], which = 1) => {
      const c = await superuser.connect();
      try {
        await c.query('begin');
        await c.query("set local session_replication_role = 'replica'");
        await c.query(statement, values);
        await c.query('commit');
        return (await checkSeal(mill, sealed[which]!.run)).faults.join(' ');
      } finally {
        c.release();
      }
    };
    const run = sealed[1]!.run;
    const original = (await superuser.query('select body, number, hash from seals where run = $1', [run]))
      .rows[0];
    expect(
      await spoil('update seals set body = replace(body, $2, $3) where run = $1', [
        run,
        '"practice":false',
        '"practice":true',
      ]),
    ).toMatch(/changed after sealing/);
    await spoil('update seals set body = $2 where run = $1', [run, original.body]);
    expect(
      await spoil("update ledger set word = 'tight' where id = $1 and word <> 'tight'", [sealed[3]!.run], 3),
    ).toMatch(/ledger entry no longer matches/);
    expect(await spoil('update seals set number = $2 where run = $1', [run, 'VS-00099'])).toMatch(
      /but its number, .* is not/,
    );
    await spoil('update seals set number = $2 where run = $1', [run, original.number]);
    expect(await spoil('update seals set hash = $2 where run = $1', [run, 'f'.repeat(64)], 2)).toMatch(
      /record before this one/,
    );
    await spoil('update seals set hash = $2 where run = $1', [run, original.hash]);
    expect(await spoil('delete from events where run = $1 and position = 3', [run])).toMatch(
      /Taken out after sealing: the entry of the log .* once number 3/,
    );
  });
});

describe('the log', () => {
  const imre = async () => {
    const [row] = (
      await superuser.query("select id, org from people where email = 'imre@hollin-tarrow.example'")
    ).rows;
    return {
      org: row.org as string,
      person: row.id as string,
      name: 'Imre Castellane',
      role: 'tester' as const,
      organisation: '',
      session: '',
      licence: { number: 'GT-0417', until: '2028-03-31' },
    };
  };
  test('two devices at once, with repeats: positions without gaps, each id once; sealing twice gives one number', async () => {
    const who = await imre();
    const id = uuid7(Date.now());
    await startRun(who, {
      id,
      system: mill.systems.bakery!,
      pack: 'gas-metric',
      procedure: (await openRuns(mill)).runs[0]!.plan.procedure.id,
      case: 'pipework',
      practice: false,
      zone: 'UTC',
    });
    const { plan } = await readRun(mill, id);
    const began = Date.parse(plan.made.at);
    const base = { zone: 'UTC', by: who.person, byName: who.name, began };
    const main = playScript(
      plan,
      [
        [10, 'checks'],
        [20, 'gauge', 'G-02'],
        [30, 'zero', '0'],
        [60, 'stop'],
        [65, 'reason', 'abandoned', ''],
        [70, 'putback'],
        [80, 'sign', who.name],
        [90, 'refuse', 'x', 'nobody there'],
      ],
      { ...base, device: uuid7(1), pageLoad: uuid7(1), id: () => uuid7(began) },
    );
    const notes = Array.from({ length: 20 }, (_, i) => ({
      ...main[0]!,
      kind: 'note' as const,
      text: `n${i}`,
      id: uuid7(began + i),
      device: uuid7(3),
      deviceSeq: i + 1,
    }));
    await Promise.all([
      ...notes.map((n) => appendEvents(who, id, [n, n])),
      ...notes.map((n) => appendEvents(who, id, [n])),
    ]);
    await appendEvents(who, id, main);
    await appendEvents(who, id, main);
    const { events: log } = await readRun(mill, id);
    expect(log.map((e) => e.position)).toEqual(log.map((_, i) => i + 1));
    expect(new Set(log.map((e) => e.id)).size).toBe(log.length);
    expect(reduce(plan, log).phase).toBe('signed');
    const numbers = await Promise.all([sealRun(who, id), sealRun(who, id), sealRun(who, id)]);
    expect(new Set(numbers.map((n) => n.number)).size).toBe(1);
    const record = await recordOf(mill, id);
    expect(verifySeal(record)).toEqual([]);
    expect(restoreBody(record.body).events).toEqual(log);
    await expect(appendEvents(who, id, [{ ...notes[0]!, id: uuid7(9) }])).rejects.toThrow(/is sealed as/);
    await expect(appendEvents({ ...who, person: uuid7(4) }, id, notes)).rejects.toThrow(/somebody else/);
    expect(may('apprentice', 'seal')).toBe(false);
  });
});

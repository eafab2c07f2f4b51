import { request as httpRequest } from 'node:http';
import { expect, request, test, type APIRequestContext } from '@playwright/test';
import { BASE } from './support';

/** Requests as somebody sends them who does not use our pages. */
const as = async (who: string | null): Promise<APIRequestContext> => {
  const api = await request.newContext({ baseURL: BASE });
  if (who) {
    const data = { email: `${who}@hollin-tarrow.example`, password: `millrace-${who}` };
    expect((await api.post('/api/session', { data })).status()).toBe(200);
  }
  return api;
};
const NUL = '\u0000';
const uuid = (n: number) => `01980000-0000-7000-8000-${String(n).padStart(12, '0')}`;

test.describe('attacks', () => {
  test('another site, or something that is no site, cannot make a browser change anything', async () => {
    const api = await as('imre');
    const site = { id: uuid(1), name: 'x', address: 'y', customer: 'z' };
    const strange: Record<string, string>[] = [
      { origin: 'null' },
      { origin: 'rubbish' },
      { origin: 'https://elsewhere.example' },
      { 'sec-fetch-site': 'cross-site' },
      { 'sec-fetch-site': 'same-site' },
    ];
    for (const headers of strange) {
      const answer = await api.post('/api/sites', { data: site, headers });
      expect([JSON.stringify(headers), answer.status()]).toEqual([JSON.stringify(headers), 403]);
      expect((await answer.json()).error.code).toBe('other-site');
    }
    const { origin } = new URL(BASE);
    expect((await api.post('/api/sites', { data: site, headers: { origin } })).status()).toBe(201);
  });

  test('odd input is answered with a sentence, never with a fault of the server', async () => {
    const api = await as('imre');
    const odd = [
      '---',
      '%00',
      '9999-99-99',
      `${'9'.repeat(400)}`,
      '%F0%9F%92%A3',
      '../../etc',
      '1e309',
      '[]',
    ];
    const paths = odd.flatMap((o) => [
      ...['system', 'from', 'to', 'word', 'site', 'procedure', 'find', 'at', 'id', 'tester'].map(
        (key) => `/api/ledger?${key}=${o}`,
      ),
      `/api/ledger/csv?from=${o}`,
      `/api/recall/csv?serial=${o}&from=${o}&to=${o}`,
      `/api/log-mappings?shape=${o}`,
      `/api/systems/${o}/photos`,
      `/api/systems/${o}/photos/${o}?small=1`,
      `/api/runs/${o}/events?from=${o}`,
      `/api/runs/${o}/pdf?form=${o}`,
      `/api/runs/${o}/photos/${o}`,
      `/api/packs/${o}`,
      `/ledger?system=${o}&from=${o}`,
      `/ledger/recall?serial=${o}&from=${o}`,
      `/places?q=${o}`,
      `/places/${o}`,
      `/organisation/audit?from=${o}&before=${o}`,
      `/verify/${o}`,
    ]);
    const faults: string[] = [];
    for (const path of paths) {
      const answer = await api.get(path);
      if (answer.status() >= 500) faults.push(`${answer.status()} ${path.slice(0, 90)}`);
    }
    expect(faults).toEqual([]);
  });

  test('what cannot be kept, is nested without end or names no zone is refused with a sentence', async () => {
    const api = await as('imre');
    const visit = { id: uuid(2), title: 'x', day: '2026-12-01', start: '08:30' };
    const sent: [string, unknown][] = [
      ['/api/sites', { id: uuid(3), name: `a${NUL}b`, address: 'y', customer: 'z' }],
      ['/api/sites', { id: '---', name: 'a', address: 'y', customer: 'z' }],
      ['/api/visits', { ...visit, zone: 'Nowhere/Bad' }],
      ['/api/visits', { ...visit, day: '9999-99-99', zone: 'UTC' }],
      ['/api/visits', { ...visit, id: uuid(4), title: NUL, zone: 'UTC' }],
      ['/api/outbox', { id: uuid(5), to: `a@b${NUL}`, subject: 's', body: 'b' }],
      ['/api/session', { email: `${NUL}@b`, password: 'x'.repeat(10) }],
    ];
    for (const [path, data] of sent) {
      const answer = await api.post(path, { data });
      const said = (await answer.json()) as { error?: { text: string } };
      expect([path, JSON.stringify(data), answer.status() >= 400 && answer.status() < 500]).toEqual([
        path,
        JSON.stringify(data),
        true,
      ]);
      expect(said.error!.text).toMatch(/[.:] ?|[a-z]/);
    }
    for (const body of [
      `${'['.repeat(200_000)}`,
      `{"a":${'{"a":'.repeat(3000)}1${'}'.repeat(3001)}`,
      '{',
      '"',
      '\u0000',
    ]) {
      const answer = await api.post('/api/sites', {
        data: Buffer.from(body), // as it is: a text would be made JSON
        headers: { 'content-type': 'application/json' },
      });
      expect([body.slice(0, 10), answer.status()]).toEqual([body.slice(0, 10), 400]);
    }
  });

  test('guessing from one place is slowed down over all addresses, whatever the client says of where it is', async () => {
    // a place of its own on this machine, so that nobody else is slowed down with it
    const guess = (n: number) =>
      new Promise<number>((resolve, reject) => {
        const { hostname, port } = new URL(BASE);
        const body = JSON.stringify({ email: `guess-${n}@hollin-tarrow.example`, password: 'wrong' });
        const ask = httpRequest(
          {
            host: hostname,
            port,
            localAddress: '127.0.0.77',
            method: 'POST',
            path: '/api/session',
            headers: {
              'content-type': 'application/json',
              'content-length': Buffer.byteLength(body),
              'x-forwarded-for': `10.1.${n}.1`,
              'x-vast-client': `10.2.${n}.1`,
              'x-real-ip': `10.3.${n}.1`,
            },
          },
          (answer) => {
            answer.resume();
            resolve(answer.statusCode ?? 0);
          },
        );
        ask.on('error', reject);
        ask.end(body);
      });
    const said: number[] = [];
    for (let n = 0; n < 52; n++) said.push(await guess(n));
    expect(said.filter((s) => s === 401)).toHaveLength(50);
    expect(said.slice(-2)).toEqual([429, 429]);
    await as('imre'); // from here it goes on as before
  });

  test('the clock of a test server is not everybody’s: signed out 401, a tester 403', async () => {
    for (const [who, status] of [
      [null, 401],
      ['imre', 403],
    ] as const)
      expect((await (await as(who)).post('/api/test/clock', { data: { shift: 0 } })).status()).toBe(status);
  });

  test('a body that is too large is refused before it is read: by what it says, and where it says nothing, on the way', async () => {
    const api = await as('tamsin');
    const { cookies } = await api.storageState();
    const cookie = cookies.map((c) => `${c.name}=${c.value}`).join('; ');
    const { hostname, port } = new URL(BASE);
    /** Sends pieces until it is answered. @returns the status, and how many bytes went out before */
    const flood = (path: string, method: string, most: number, says?: number) =>
      new Promise<{ status: number; sent: number }>((resolve) => {
        let sent = 0;
        let over = false;
        const ask = httpRequest(
          {
            host: hostname,
            port,
            method,
            path,
            headers: {
              cookie,
              'content-type': 'application/json',
              ...(says === undefined ? {} : { 'content-length': says }),
            },
          },
          (answer) => {
            over = true;
            resolve({ status: answer.statusCode ?? 0, sent });
            answer.resume();
            ask.destroy();
          },
        );
        ask.on('error', () => {
          if (!over) resolve({ status: 0, sent });
        });
        const piece = Buffer.alloc(256_000, 97);
        const go = () => {
          if (over || sent >= most) return;
          sent += piece.length;
          ask.write(piece, () => setImmediate(go));
        };
        if (says === undefined) go();
        else ask.flushHeaders();
      });
    for (const [path, method, limit] of [
      ['/api/sites', 'POST', 1],
      ['/api/runs/01980000-0000-7000-8000-00000000abcd/events', 'POST', 6],
      [`/api/systems/01980000-0000-7000-8000-00000000abcd/photos/${'a'.repeat(64)}?part=x`, 'PUT', 4],
      ['/api/outside', 'POST', 100],
    ] as const) {
      expect([path, await flood(path, method, 0, 4_000_000_000)]).toEqual([path, { status: 413, sent: 0 }]);
      if (limit > 10) continue;
      const { status, sent } = await flood(path, method, 64_000_000);
      expect([path, status, sent < limit * 1_000_000 + 24_000_000]).toEqual([path, 413, true]);
    }
  });

  test('a file that is no archive, or one that unpacks without end, is told so, and the server goes on', async () => {
    const api = await as('tamsin');
    for (const data of [
      Buffer.alloc(50_000, 0x50),
      Buffer.from('PK\u0003\u0004 and nothing more'),
      Buffer.from('{"format":1}'),
    ]) {
      const answer = await api.post('/api/outside', {
        data,
        headers: { 'content-type': 'application/octet-stream' },
      });
      expect([answer.status(), (await answer.json()).error.code]).toEqual([422, 'unreadable']);
    }
    expect((await api.get('/api/time')).status()).toBe(200);
  });

  test('the paper behind a public link is made once, and not without end for one who asks without end', async () => {
    const api = await as('imre');
    const [line] = await (await api.get('/api/ledger?source=own')).json().then((a) => a.lines);
    const { token } = await (await api.post(`/api/runs/${line.run}/link`, { data: { act: 'make' } })).json();
    const anyone = await as(null);
    const said: number[] = [];
    const since = Date.now();
    for (let i = 0; i < 33; i++) said.push((await anyone.get(`/verify/${token}/pdf`)).status());
    expect(said.filter((s) => s === 200)).toHaveLength(30);
    expect(said.slice(-3)).toEqual([429, 429, 429]);
    // made thirty times it would take half a minute
    expect(Date.now() - since).toBeLessThan(15_000);
  });
});

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
});

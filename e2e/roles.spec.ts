import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { expect, request, test, type APIRequestContext } from '@playwright/test';
import { BASE } from './support';

const ROLES = ['owner', 'tester', 'apprentice', 'office'] as const;
/** Who may do what, written down here once more by hand: a change of the table must be meant. */
const MAY = {
  all: ['owner', 'tester', 'apprentice', 'office'],
  run: ['owner', 'tester', 'apprentice'],
  seal: ['owner', 'tester'],
  plan: ['owner', 'tester', 'office'],
  calibrate: ['owner', 'tester'],
  share: ['owner', 'tester', 'office'],
  govern: ['owner'],
  /** Needs no sign-in: a token, or nothing at all, opens it. */
  open: [],
} as const;
type Who = keyof typeof MAY;
/** Every route and method there is, and who may use it. */
const ROUTES: Readonly<Record<string, Who>> = {
  'GET bring-in': 'plan',
  'POST bring-in': 'plan',
  'POST cabinet/[item]/log': 'all',
  'POST carried': 'all',
  'GET find': 'all',
  'POST follow-ups': 'share',
  'POST follow-ups/[id]': 'share',
  'POST follow-ups/[id]/visit': 'plan',
  'PUT follow-ups/[id]': 'share',
  'GET follow-ups/ics': 'all',
  'POST gauge/pair': 'open',
  'POST gauge/readings': 'open',
  'POST gauges': 'calibrate',
  'DELETE invitations/[invitation]': 'govern',
  'GET jobs': 'share',
  'POST jobs': 'share',
  'POST jobs/[job]': 'share',
  'PUT jobs/[job]/pieces/[n]': 'govern',
  'GET jobs/[job]/file': 'share',
  'POST join/[token]': 'open',
  'POST kit': 'plan',
  'GET ledger/csv': 'share',
  'GET ledger': 'all',
  'DELETE ledger/views/[view]': 'all',
  'POST ledger/views': 'all',
  'GET log-mappings': 'all',
  'POST log-mappings': 'run',
  'PUT organisation/anchors': 'govern',
  'POST organisation/key': 'govern',
  'PUT organisation/usage': 'govern',
  'PUT usage': 'all',
  'POST organisation': 'open',
  'PUT organisation': 'govern',
  'POST outbox': 'share',
  'POST outside-tests': 'run',
  'PUT outside-tests': 'run',
  'POST outside': 'plan',
  'GET packs/[pack]': 'all',
  'POST packs/[pack]': 'govern',
  'PUT packs/[pack]': 'govern',
  'POST packs': 'govern',
  'POST passkeys/options': 'all',
  'DELETE passkeys/[passkey]': 'all',
  'POST passkeys': 'all',
  'PUT people/[person]': 'govern',
  'GET push': 'all',
  'POST push': 'all',
  'PUT push': 'all',
  'DELETE push': 'all',
  'POST people': 'govern',
  'GET recall/csv': 'share',
  'GET runs/[run]/bundle': 'share',
  'GET runs/[run]/events': 'all',
  'POST runs/[run]/events': 'run',
  'GET runs/[run]/file': 'share',
  'POST runs/[run]/link': 'share',
  'GET runs/[run]/pdf': 'all',
  'GET runs/[run]/photos/[hash]/parts': 'run',
  'PUT runs/[run]/photos/[hash]/parts': 'run',
  'GET runs/[run]/photos/[hash]': 'all',
  'POST runs/[run]/print': 'share',
  'GET runs/[run]/readings': 'share',
  'GET runs/[run]': 'all',
  'POST runs/[run]/seal': 'seal',
  'POST runs/[run]/send': 'share',
  'POST runs/[run]/signature-links': 'run',
  'GET runs/[run]/simulated': 'all',
  'POST runs/[run]/simulated': 'run',
  'GET runs/[run]/stream': 'all',
  'POST runs/[run]/supersede': 'seal',
  'POST runs/[run]/void': 'seal',
  'POST runs': 'run',
  'POST session': 'open',
  'POST session/passkey': 'open',
  'POST session/passkey/options': 'open',
  'DELETE sessions/[session]': 'all',
  'DELETE session': 'all',
  'POST sign/[token]': 'open',
  'POST practice': 'run',
  'POST quick-tests': 'plan',
  'POST sites': 'plan',
  'POST systems/[system]/copy': 'plan',
  'GET systems/[system]/leaks': 'all',
  'POST systems/[system]/leaks': 'all',
  'PUT systems/[system]/drawing': 'plan',
  'GET systems/[system]/outside': 'run',
  'GET systems/[system]/photos/[hash]': 'all',
  'PUT systems/[system]/photos/[hash]': 'all',
  'DELETE systems/[system]/photos/[hash]': 'all',
  'GET systems/[system]/photos': 'all',
  'PUT systems/[system]': 'plan',
  'POST test/clock': 'govern',
  'GET test/clock': 'govern',
  'POST gauges/[gauge]/code': 'run',
  'GET gauges/paired': 'all',
  'DELETE gauges/paired/[pairing]': 'run',
  'GET health': 'open',
  'GET time': 'open',
  'GET visits/[visit]/ics': 'all',
  'PUT visits/[visit]': 'plan',
  'POST visits/[visit]/tests': 'plan',
  'POST visits': 'plan',
  'POST watch/[token]': 'open',
  'POST watches/[watch]/entries': 'all',
  'POST watches/[watch]/link': 'share',
  'GET yard/csv': 'seal',
  'GET yard/scenarios/[scenario]': 'seal',
  'POST yard/scenarios': 'seal',
  'POST yard/scenarios/try': 'seal',
  'GET yard/runs/[run]/training': 'seal',
  'POST yard/runs/[run]/training': 'seal',
  'POST yard/tasks': 'seal',
  'POST yard/groups': 'seal',
  'POST yard/statements': 'run',
  'GET yard/statements/[statement]/pdf': 'run',
  'POST yard/questions': 'run',
  'POST yard/questions/answer': 'run',
  'GET yard/runs/[run]': 'all',
  'POST yard/runs/[run]/acts': 'run',
  'POST yard/runs/[run]/again': 'run',
  'POST yard/runs': 'run',
};
/** Allowed, it would do something to the demo that nobody asked for: who may is not tried. */
const DOES = ['POST organisation/key', 'DELETE session'];

const API = path.join(import.meta.dirname, '..', 'src', 'app', 'api');
/** The routes as they lie in the file tree, and the methods each answers. */
function routesThere(folder = API): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const here = path.join(folder, entry.name);
    if (entry.isDirectory()) return routesThere(here);
    if (entry.name !== 'route.ts') return [];
    const text = readFileSync(here, 'utf8');
    const route = path.relative(API, folder);
    return [
      ...text.matchAll(/^export (?:const|async function|function) (GET|POST|PUT|PATCH|DELETE|HEAD)\b/gm),
    ].map((m) => `${m[1]} ${route}`);
  });
}
/** Somebody signed in, or nobody. */
async function as(email: string | null): Promise<APIRequestContext> {
  const api = await request.newContext({ baseURL: BASE });
  if (!email) return api;
  const data = { email, password: `millrace-${email.split('@')[0]}` };
  expect((await api.post('/api/session', { data })).status()).toBe(200);
  return api;
}
const NOWHERE = '01980000-0000-7000-8000-00000000abcd';
const address = (route: string, params: Record<string, string> = {}): string =>
  `/api/${route.replace(/\[(\w+)\]/g, (_, key: string) => params[key] ?? (key === 'hash' ? 'a'.repeat(64) : NOWHERE))}`;
const ask = (api: APIRequestContext, key: string, params?: Record<string, string>) => {
  const [method, route] = key.split(' ') as [string, string];
  return api.fetch(address(route, params), { method, ...(method === 'GET' ? {} : { data: {} }) });
};

test('every route has a row, and no row is without its route', () => {
  expect(routesThere().sort()).toEqual(Object.keys(ROUTES).sort());
});

test('each route by each role: who may not is told so, who may is let in, nobody is sent to sign in', async () => {
  const people = { owner: 'tamsin', tester: 'imre', apprentice: 'piet', office: 'yun' };
  const nobody = await as(null);
  const wrong: string[] = [];
  for (const [key, who] of Object.entries(ROUTES)) {
    if (who === 'open' || key.endsWith('/stream')) continue;
    const status = (await ask(nobody, key)).status();
    if (status !== 401) wrong.push(`${key} by nobody: ${status}`);
  }
  for (const role of ROLES) {
    const api = await as(`${people[role]}@hollin-tarrow.example`);
    for (const [key, who] of Object.entries(ROUTES)) {
      if (who === 'open' || key.endsWith('/stream')) continue;
      const allowed = (MAY[who] as readonly string[]).includes(role);
      if (allowed && DOES.includes(key)) continue;
      const answer = await ask(api, key);
      const code = answer.status() === 403 ? (await answer.json()).error.code : '';
      if (allowed ? [401, 403].includes(answer.status()) || answer.status() >= 500 : code !== 'role')
        wrong.push(`${key} by ${role}: ${answer.status()} ${code}`);
    }
    await api.dispose();
  }
  expect(wrong).toEqual([]);
});

/** The service worker and the list it keeps by, run in a browser of straw: caches, pages and builds are ours. */
import { mkdirSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import vm from 'node:vm';

const ORIGIN = 'https://millrace.example';
/** @param office what the server answers by path; undefined: no signal */
function worker(office: () => Record<string, string> | undefined) {
  const kept = new Map<string, Response>();
  const address = (of: string | { url: string }) =>
    new URL(typeof of === 'string' ? of : of.url, ORIGIN).href;
  const cache = {
    match: (of: string | { url: string }) => Promise.resolve(kept.get(address(of))?.clone()),
    put: (of: string, response: Response) => Promise.resolve(void kept.set(address(of), response)),
    delete: (of: { url: string }) => Promise.resolve(kept.delete(address(of))),
    keys: () => Promise.resolve([...kept.keys()].map((url) => ({ url }))),
  };
  const hears: Record<string, (event: unknown) => void> = {};
  const context = {
    self: {
      addEventListener: (kind: string, hear: (event: unknown) => void) => (hears[kind] = hear),
      location: { origin: ORIGIN },
      skipWaiting: () => undefined,
      clients: { claim: () => undefined },
    },
    caches: {
      open: () => Promise.resolve(cache),
      match: cache.match,
      keys: () => Promise.resolve([]),
      delete: () => Promise.resolve(true),
    },
    fetch: (of: string | { url: string }) => {
      const pages = office();
      if (!pages) return Promise.reject(new Error('no signal'));
      const body = pages[new URL(address(of)).pathname];
      return Promise.resolve(new Response(body ?? 'none', { status: body === undefined ? 404 : 200 }));
    },
    URL,
    Response,
    Set,
    Promise,
    setTimeout,
    clearTimeout,
  };
  vm.runInNewContext(readFileSync('public/sw.js', 'utf8'), context);
  return {
    kept: () => [...kept.keys()].map((url) => new URL(url).pathname).sort(),
    text: async (of: string) => (await cache.match(of))?.text(),
    keep: async (keep: string[]) => {
      let done: Promise<unknown> = Promise.resolve();
      hears.message!({ data: { keep }, waitUntil: (p: Promise<unknown>) => (done = p) });
      await done;
    },
    navigate: async (to: string) => {
      let answer: Promise<Response> | undefined;
      hears.fetch!({
        request: { url: `${ORIGIN}${to}`, method: 'GET', mode: 'navigate', destination: 'document' },
        respondWith: (p: Promise<Response>) => (answer = p),
        waitUntil: () => undefined,
      });
      return (await answer!).text();
    },
  };
}
const BENCH = '/bench/00000000-0000-4000-8000-000000000001';
const build = (n: number) => {
  const [a, b] = [`/_next/static/chunks/a${n}.js`, `/_next/static/chunks/lazy${n}.js`];
  return {
    '/_next/static/shell.json': JSON.stringify({ build: `b${n}`, shell: [a, b], all: [a, b] }),
    [a]: 'a',
    [b]: 'b',
    '/offline': `offline ${n} "${a}"`,
    '/desk': `desk ${n}`,
    [BENCH]: `bench ${n}`,
  };
};

test('what the shell loads by need is kept before anybody asked for it, and every kept page opens without a signal', async () => {
  let office: Record<string, string> | undefined = build(1);
  const sw = worker(() => office);
  await sw.keep([BENCH, '/offline', '/desk']);
  expect(sw.kept()).toContain('/_next/static/chunks/lazy1.js');
  office = undefined;
  expect(await sw.navigate(BENCH)).toBe('bench 1');
  expect(await sw.navigate('/ledger')).toContain('offline 1');
});
test('a new build: kept pages are fetched anew, one build back stays, what is older goes', async () => {
  let office: Record<string, string> | undefined = build(1);
  const sw = worker(() => office);
  await sw.keep([BENCH, '/offline']);
  office = build(2);
  await sw.keep(['/offline']);
  expect(await sw.text(BENCH)).toBe('bench 2');
  expect(sw.kept().filter((k) => k.includes('lazy'))).toEqual([
    '/_next/static/chunks/lazy1.js',
    '/_next/static/chunks/lazy2.js',
  ]);
  office = build(3);
  await sw.keep(['/offline']);
  expect(sw.kept().filter((k) => k.includes('lazy'))).toEqual([
    '/_next/static/chunks/lazy2.js',
    '/_next/static/chunks/lazy3.js',
  ]);
});
test('a new build of which a part could not be fetched drops nothing', async () => {
  let office: Record<string, string> | undefined = build(1);
  const sw = worker(() => office);
  await sw.keep([BENCH]);
  const { '/_next/static/chunks/lazy2.js': _lost, ...torn } = build(2);
  office = torn;
  await sw.keep([]);
  office = build(3);
  office['/_next/static/chunks/a3.js'] = undefined as never;
  await sw.keep([]);
  office = undefined;
  await sw.keep([]);
  expect(sw.kept()).toEqual(
    expect.arrayContaining(['/_next/static/chunks/a1.js', '/_next/static/chunks/lazy1.js']),
  );
  expect(await sw.navigate(BENCH)).toBe('bench 1');
});
test('the list of a build names what pages load by need, and faces by their styles; a page that is missing is told', async () => {
  const { shellManifest } = await import('./shell-manifest.mjs');
  const dist = mkdtempSync(path.join(tmpdir(), 'vast-'));
  const file = (name: string, text: string) => {
    mkdirSync(path.dirname(path.join(dist, name)), { recursive: true });
    writeFileSync(path.join(dist, name), text);
  };
  file('BUILD_ID', 'b1\n');
  for (const page of ['bench/[run]/page', '(house)/desk/page', 'guide/page', 'offline/page'])
    file(`server/app/${page}/build-manifest.json`, '{"files":["static/chunks/root.js"]}');
  file('static/chunks/root.js', 'load("static/chunks/lazy.js")');
  file('static/chunks/lazy.js', 'load("static/chunks/deep.css")');
  file('static/chunks/deep.css', 'src:url(../media/face.woff2)');
  file('static/media/face.woff2', '');
  file('static/chunks/office.js', '');
  const found = shellManifest(dist);
  expect(found.build).toBe('b1');
  expect(found.shell.map((x) => path.basename(x))).toEqual(['deep.css', 'lazy.js', 'root.js', 'face.woff2']);
  expect(found.all).toContain('/_next/static/chunks/office.js');
  expect(() => shellManifest(path.join(dist, 'server'))).toThrow();
});

/** Sends what a person enters or begins, or keeps it with what stands in its place until there is a signal (device/errands.ts). */
import type { GaugeForm } from '@/wire/cabinet';
import type { SiteForm, SystemForm } from '@/wire/places';
import type { LeakRequest } from '@/wire/leaks';
import type { QuickTest } from '@/wire/quick-test';
import type { StartRun } from '@/wire/requests';
import type { Identity } from '@/wire/role';
import type { NewVisit } from '@/wire/visits';
import { keepEntered, mustCarry } from './carried';
import { serverNow } from './clock';
import { sendOrKeep } from './errands';
import { readIdentity } from './identity';
import { OfficeError } from './office';
import type { Store } from './store';

/** Made here only for somebody who is signed in: their store keeps it. */
function me(): Identity {
  const who = readIdentity();
  if (!who)
    throw new OfficeError(401, 'signed-out', 'You are signed out. Sign in again where there is a signal.');
  return who;
}
export const enterSite = (value: SiteForm) =>
  sendOrKeep(
    { path: '/api/sites', method: 'POST', body: value, title: `Place: ${value.name}`, makes: [value.id] },
    async (store) => {
      await keepEntered(store, 'site', value);
      return value;
    },
  );
export const enterSystem = (id: string, site: string | null, value: SystemForm) =>
  sendOrKeep(
    {
      path: `/api/systems/${id}${site ? `?site=${site}` : ''}`,
      method: 'PUT',
      body: value,
      title: `Installation: ${value.name}`,
      makes: [id],
    },
    async (store) => {
      await keepSystem(store, id, site, value);
      return value;
    },
  );
async function keepSystem(store: Store, id: string, site: string | null, form: SystemForm): Promise<void> {
  const [{ systemFromForm }, { wholeOf }, here] = await Promise.all([
    import('@/wire/system-form'),
    import('@/wire/asked-plan'),
    mustCarry(me()),
  ]);
  const before = here.systems.find((s) => s.id === id);
  const home = before?.site ?? here.sites.find((s) => s.id === site);
  if (!home)
    throw new OfficeError(
      0,
      'not-carried',
      'There is no signal, and the place of this installation is not on this device. What you typed stays here: save it where there is a signal.',
    );
  const system = wholeOf(systemFromForm(form, before?.system ?? null, id));
  await keepEntered(store, 'system', { id, site: home, system });
}
export const enterGauge = (value: GaugeForm) =>
  sendOrKeep(
    { path: '/api/gauges', method: 'POST', body: value, title: `Gauge: ${value.name}`, makes: [value.id] },
    async (store) => {
      await keepGauge(store, value);
      return value;
    },
  );
async function keepGauge(store: Store, value: GaugeForm): Promise<void> {
  const [{ gaugeFromForm }, here] = await Promise.all([import('@/wire/cabinet'), mustCarry(me())]);
  await keepEntered(store, 'gauge', gaugeFromForm(value, here.gauges.find((g) => g.id === value.id) ?? null));
}
export const enterVisit = (value: NewVisit) =>
  sendOrKeep(
    { path: '/api/visits', method: 'POST', body: value, title: `Visit: ${value.title}`, makes: [value.id] },
    async (store) => {
      await keepEntered(store, 'visit', value);
      return value;
    },
  );

/** An entry of a leak book: it says nothing that else hangs on. */
export const enterLeak = (system: string, value: LeakRequest, title: string) =>
  sendOrKeep(
    {
      path: `/api/systems/${system}/leaks`,
      method: 'POST',
      body: value,
      title: `Leak book: ${title}`,
      makes: [value.id],
    },
    async () => value,
  );
/** Begins a run; without a signal its plan is made here, and the office makes it again when it hears of it. */
export const beginRun = (request: StartRun, title: string) =>
  sendOrKeep(
    {
      path: '/api/runs',
      method: 'POST',
      body: request,
      title: `Test: ${title}`,
      makes: [request.id],
      run: request.id,
    },
    async (store) => (await import('./begin')).beginHere(store, me(), request),
  );
/** Begins a test on what stands before a person. */
export const beginQuick = (asked: QuickTest, title: string) =>
  sendOrKeep(
    {
      path: '/api/quick-tests',
      method: 'POST',
      body: asked,
      title: `Test on a new place: ${title}`,
      makes: [asked.run, asked.system, asked.site, ...(asked.newGauge ? [asked.newGauge.id] : [])],
      run: asked.run,
    },
    async (store) => {
      const [quick, { sectionOfFacts }, { formOfSystem }, { beginHere }, here] = await Promise.all([
        import('@/wire/quick-begin'),
        import('@/wire/first-facts'),
        import('@/wire/system-form'),
        import('./begin'),
        mustCarry(me()),
      ]);
      const meter = here.house.meters.find((m) => m.kind === asked.facts.meterKind)?.label ?? '';
      await keepEntered(store, 'site', quick.siteOfQuick(asked, serverNow()));
      await keepSystem(
        store,
        asked.system,
        asked.site,
        formOfSystem(sectionOfFacts(asked.facts, asked.system, meter)),
      );
      if (asked.newGauge) await keepGauge(store, quick.gaugeOfQuick(asked.newGauge));
      const { carried } = await beginHere(store, me(), quick.runOfQuick(asked));
      return { ...asked, carried };
    },
  );

/**
 * What a person enters or begins: sent at once, or kept on this device until there is a signal. What keeps and sends is fetched when
 * something is entered: no page waits for it.
 */
import type { GaugeForm } from '@/wire/cabinet';
import type { SiteForm, SystemForm } from '@/wire/places';
import type { LeakRequest } from '@/wire/leaks';
import type { QuickTest } from '@/wire/quick-test';
import type { StartRun } from '@/wire/requests';
import type { NewVisit } from '@/wire/visits';

type How = Promise<'sent' | 'kept'>;
const entering = () => import('./entering');
export const enterSite = async (value: SiteForm): How => (await entering()).enterSite(value);
export const enterSystem = async (id: string, site: string | null, value: SystemForm): How =>
  (await entering()).enterSystem(id, site, value);
export const enterGauge = async (value: GaugeForm): How => (await entering()).enterGauge(value);
export const enterVisit = async (value: NewVisit): How => (await entering()).enterVisit(value);
export const enterLeak = async (system: string, value: LeakRequest, title: string): How =>
  (await entering()).enterLeak(system, value, title);
/** Begins a run. @param title what it is, for the list of what waits */
export const beginRun = async (request: StartRun, title: string): How =>
  (await entering()).beginRun(request, title);
/** Begins a test on what stands before a person. */
export const beginQuick = async (asked: QuickTest, title: string): How =>
  (await entering()).beginQuick(asked, title);

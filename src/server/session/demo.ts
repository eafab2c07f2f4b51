import 'server-only';
import { readFile } from 'node:fs/promises';

export interface DemoPerson {
  readonly name: string;
  readonly role: string;
  readonly email: string;
  readonly password: string;
}
/** The demo's sign-ins, shown on the sign-in page only where ./start loaded the demo; otherwise none. */
export async function demoPeople(): Promise<readonly DemoPerson[]> {
  const file = process.env.VAST_DEMO_PEOPLE;
  if (!file) return [];
  try {
    return JSON.parse(await readFile(file, 'utf8')) as DemoPerson[];
  } catch {
    return [];
  }
}

/** Brings the database up: migrations always, the demo when it is wanted and nothing is there yet. */
import { writeFileSync } from 'node:fs';
import { migrateDatabase } from './migrate';

const owner = process.env.VAST_OWNER_URL;
if (!owner) throw new Error('VAST_OWNER_URL is not set.');
await migrateDatabase(owner);
if (process.argv.includes('--demo')) {
  process.env.VAST_TEST_CLOCK = 'demo';
  const { loadDemo, makeOrganisation } = await import('./demo');
  const { closePool } = await import('@/database/client');
  const { people, systems, org } = await loadDemo();
  if (process.env.VAST_DEMO_PEOPLE)
    writeFileSync(process.env.VAST_DEMO_PEOPLE, JSON.stringify(people, null, 2));
  if (process.env.VAST_DEMO_IDS)
    writeFileSync(process.env.VAST_DEMO_IDS, JSON.stringify({ systems, org }, null, 2));
  // organisations with nothing in them, for the browser tests to restore an export into, and to bring a table in
  if (process.argv.includes('--second')) {
    const owners = [
      ['Emptied House', { key: 'odile', name: 'Odile Strand', role: 'owner' }, 'emptied.example'],
      ['Carding House', { key: 'maren', name: 'Maren Carder', role: 'owner' }, 'carding.example'],
    ] as const;
    for (const [name, owner, domain] of owners) await makeOrganisation(name, '', [owner], domain);
  }
  await closePool();
}

import { wordsOf } from '@/core/guide/typed';
import type { Found } from '@/wire/find';
import { type Action, may, type Role } from '@/wire/role';

/** Every page that stands by itself, under the words by which somebody looks for it. */
const PAGES: readonly (readonly [title: string, href: string, words: string, action?: Action])[] = [
  ['Today', '/today', 'owed due open runs home'],
  ['Owed', '/owed', 'due tests calibrations follow ups hand on'],
  ['Places', '/places', 'sites installations systems customers'],
  ['A new place', '/places/new', 'enter site customer address', 'plan'],
  ['A test on what stands before you', '/test', 'quick start begin now', 'run'],
  ['Plan', '/plan', 'visits days calendar'],
  ['Ledger', '/ledger', 'records certificates search'],
  ['Recall', '/ledger/recall', 'make model serials range insurer'],
  ['Bring in a record', '/ledger/import', 'check file log other', 'plan'],
  ['Cabinet', '/cabinet', 'gauges hoses plugs calibration kit'],
  ['Labels to print', '/cabinet/labels', 'codes qr gauges'],
  ['Scan a label', '/scan', 'camera code qr'],
  ['Rules', '/rules', 'packs procedures editions schools'],
  ['Yard', '/yard', 'practice training scenarios'],
  ['Questions', '/yard/questions', 'practice learn verdict trace figures', 'run'],
  ['Why it is so', '/yard/shown', 'practice let-by halving sensitivity'],
  ['Training', '/yard/board', 'apprentices tasks board', 'seal'],
  ['Desk', '/desk', 'formulas convert units calculator'],
  ['A trace explained', '/desk/trace', 'paste table analysis'],
  ['Guide', '/guide', 'help words procedures'],
  ['Outbox', '/outbox', 'mail messages sent', 'share'],
  ['Organisation', '/organisation', 'people keys invite export'],
  ['Who did what', '/organisation/audit', 'audit log', 'govern'],
  ['Bring in what you have', '/bring-in', 'table import spreadsheet', 'plan'],
  ['Trends', '/ledger/trends', 'statistics shares results by month repeats minutes leak rates drift zero'],
  [
    'Units, days and times',
    '/usage',
    'mbar inches of water psi feet gallons fahrenheit date format clock locale',
  ],
  ['This device', '/devices', 'alarms sessions passkeys signed in'],
  ['Check a file', '/check', 'verify record bundle fingerprint'],
];
export function findPages(typed: string, role: Role): readonly Found[] {
  const words = wordsOf(typed);
  return PAGES.filter(
    ([title, , more, action]) =>
      (!action || may(role, action)) && words.every((w) => `${title} ${more}`.toLowerCase().includes(w)),
  ).map(([title, href]) => ({ kind: 'page', title, about: '', href }));
}

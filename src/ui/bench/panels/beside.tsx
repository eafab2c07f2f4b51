/** What stands beside a stage, loaded after it: facts, entries, and what comes on the side. */
export { Entries, Facts } from '../facts';
export { SideEntry } from '../side-entry';

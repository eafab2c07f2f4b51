import { bool, entry, id, maybeExact, one, text, word, yes } from '@/core/run/field';

/** Kinds of plug by where they sit. */
export const PLUG_KINDS = {
  short: 'short plug',
  hooked: 'plug hooked past the thread',
  'long-stem': 'plug with a long stem',
  inflatable: 'inflatable plug',
  cap: 'cap or blind fitting',
  valve: 'valve, proved holding',
} as const;
export type PlugKind = keyof typeof PLUG_KINDS;
const kinds = Object.keys(PLUG_KINDS) as PlugKind[];
const fails = ['slipped', 'burst', 'leaks'] as const;
export type PlugFailure = (typeof fails)[number];
export const plugsEntries = {
  'plug-in': entry({
    end: word(),
    plug: one(kinds),
    /** An open plug lets gauge and pressure in; a closed one seals. */
    open: bool(),
    /** Of the cabinet, where it is one of its plugs. */
    item: id().optional(),
    size: text(40),
    rating: maybeExact(),
    inflation: maybeExact(),
    /** A light from the other side showed that it seals all round. */
    light: yes(),
    /** How a valve that serves as an end was proved to hold. */
    proved: text(300),
  }),
  'plug-out': entry({ end: word() }),
  'plug-failed': entry({ end: word(), how: one(fails) }),
  /** An end cannot be closed, or a plug does not come out: with why. */
  'plug-cannot': entry({ end: word(), why: word(300) }),
};

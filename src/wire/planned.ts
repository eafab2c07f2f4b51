/** What is settled about a test before it begins: schools' choices, permit, who must be there. Kept from plan to bench. */

export interface Planned {
  readonly choices: Readonly<Record<string, string>>;
  readonly permit?: string;
  readonly doneBy?: 'licensed' | 'owner';
  readonly present?: string;
  /** Of several sections of the place the one that is meant. */
  readonly section?: string;
}
const CHOICE = 'choice.';

/** As parts of a link. Empty answers are left out. */
export function plannedQuery(planned: Planned): URLSearchParams {
  const query = new URLSearchParams();
  for (const [key, option] of Object.entries(planned.choices)) query.set(CHOICE + key, option);
  for (const key of ['permit', 'doneBy', 'present', 'section'] as const) {
    const said = planned[key]?.trim();
    if (said) query.set(key, said);
  }
  return query;
}
/** Back from a link, which anybody may have written: what does not fit is left out; a choice is checked when the plan is made. */
export function readPlanned(query: Readonly<Record<string, string | string[] | undefined>>): Planned {
  const word = (key: string, most: number) => {
    const value = query[key];
    return typeof value === 'string' ? value.trim().slice(0, most) : '';
  };
  const permit = word('permit', 60);
  const present = word('present', 200);
  const section = word('section', 2000);
  const doneBy = word('doneBy', 20);
  return {
    choices: Object.fromEntries(
      Object.keys(query)
        .filter((key) => key.startsWith(CHOICE) && word(key, 60))
        .slice(0, 40)
        .map((key) => [key.slice(CHOICE.length), word(key, 60)]),
    ),
    ...(permit ? { permit } : {}),
    ...(doneBy === 'licensed' || doneBy === 'owner' ? { doneBy } : {}),
    ...(present ? { present } : {}),
    ...(section ? { section } : {}),
  };
}

/**
 * Something of which a process has one, however many bundles the framework makes of a module. It is kept in a function: whoever walks
 * over what is global does not walk through it.
 */
export function ofProcess<T>(name: string, make: () => T): T {
  const all = globalThis as unknown as Record<string, (() => T) | undefined>;
  const key = `vast:${name}`;
  const held = all[key];
  if (held) return held();
  const value = make();
  all[key] = () => value;
  return value;
}

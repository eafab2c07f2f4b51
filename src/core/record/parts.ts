import { canonical, sha256Hex } from './canonical';

/** One part of a record with its own fingerprint: path in the body, a name for people, SHA-256 of its canonical form. */
export interface Part {
  readonly path: string;
  readonly name: string;
  readonly hash: string;
}
export type Tree = Record<string, unknown>;
export const isTree = (v: unknown): v is Tree => typeof v === 'object' && v !== null && !Array.isArray(v);

/** Branches that are told apart one level further down: a changed figure is named by its own heading. */
const DEEPER = new Set([
  'plan',
  'plan.system',
  'plan.site',
  'plan.procedure',
  'plan.procedure.stages',
  'verdict',
]);

/** What an entry of the log is called, from what it holds alone. */
function eventName(event: unknown, index: number): string {
  if (!isTree(event)) return `entry ${index + 1} of the log`;
  const { kind, at, byName, figure } = event;
  const read = isTree(figure)
    ? ` of ${(Number(figure.digits) / 10 ** Number(figure.scale)).toFixed(Number(figure.scale) || 0)} ${String(figure.unit)}`
    : '';
  const when =
    typeof at === 'number' ? `, ${new Date(at).toISOString().slice(0, 19).replace('T', ' ')} UTC` : '';
  return `entry ${index + 1} of the log (${String(kind)}${read}${when}${typeof byName === 'string' ? `, ${byName}` : ''})`;
}
const keyOfEvent = (event: unknown, index: number): string =>
  isTree(event) && typeof event.id === 'string' ? event.id : `#${index}`;

/** The body told apart as finely as it is fingerprinted: branches on the list below, then each entry of the log. */
function* leaves(value: unknown, path: string): Generator<{ path: string; name: string; value: unknown }> {
  if (path === 'events' && Array.isArray(value))
    for (const [i, event] of value.entries())
      yield { path: `events.${keyOfEvent(event, i)}`, name: eventName(event, i), value: event };
  else if ((path === '' || DEEPER.has(path)) && isTree(value))
    for (const [key, child] of Object.entries(value)) yield* leaves(child, path ? `${path}.${key}` : key);
  else yield { path, name: path, value };
}
/**
 * The parts of a sealed body with their fingerprints: each entry of the log, each heading of plan and verdict.
 * @param body canonical text  @throws SyntaxError when it is not JSON
 */
export const partsOf = (body: string): Part[] =>
  [...leaves(JSON.parse(body) as unknown, '')].map(({ path, name, value }) => ({
    path,
    name,
    hash: sha256Hex(canonical(value)),
  }));

/** The parts as canonical text, as they are signed: `[[path, hash], …]` in the order of the body. */
export const partsText = (body: string): string => canonical(partsOf(body).map((p) => [p.path, p.hash]));
export const readParts = (text: string): (readonly [path: string, hash: string])[] =>
  JSON.parse(text) as [string, string][];

/**
 * Which parts differ from their fingerprints, in words. The order of the log counts too.
 * @param body the text as it is now
 */
export function changedParts(
  body: string,
  sealed: readonly (readonly [path: string, hash: string])[],
): { path: string; text: string }[] {
  let now: Part[];
  try {
    now = partsOf(body);
  } catch (error) {
    const at = /position (\d+)/.exec((error as Error).message)?.[1];
    return [
      {
        path: '',
        text: `The text cannot be read${at ? ` from character ${at} on: “${body.slice(Math.max(0, Number(at) - 20), Number(at) + 20)}”` : ''}.`,
      },
    ];
  }
  const before = new Map(sealed);
  const here = new Map(now.map((p) => [p.path, p]));
  const changed = now.flatMap((p) => {
    const hash = before.get(p.path);
    if (hash === p.hash) return [];
    return [
      {
        path: p.path,
        text: hash === undefined ? `Added after sealing: ${p.name}.` : `Changed after sealing: ${p.name}.`,
      },
    ];
  });
  const gone = sealed
    .filter(([path]) => !here.has(path))
    .map(([path]) => ({
      path,
      text: path.startsWith('events.')
        ? `Taken out after sealing: the entry of the log with the id ${path.slice(7)}, once number ${sealed.filter(([p]) => p.startsWith('events.')).findIndex(([p]) => p === path) + 1}.`
        : `Taken out after sealing: ${path}.`,
    }));
  const order = (paths: string[]) =>
    paths.filter((p) => p.startsWith('events.') && before.has(p) && here.has(p));
  const shuffled =
    order(sealed.map(([p]) => p)).join() !== order(now.map((p) => p.path)).join()
      ? [{ path: 'events', text: 'The order of the log was changed after sealing.' }]
      : [];
  return [...changed, ...gone, ...shuffled];
}

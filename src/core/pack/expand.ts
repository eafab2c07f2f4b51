/**
 * A pack as it is written, made into the pack that judges. What repeats is written once: templates (`like`), defaults of
 * procedures and stages, lists as maps from their keys, an edge as the name of its stage. What is checked, hashed, kept
 * and embedded in plans is the expanded form; a pack that is written out whole expands to itself.
 */
import common from './common.json';
import { PackError } from './error';

type Tree = string | number | boolean | null | readonly Tree[] | { readonly [key: string]: Tree };
type Node = { readonly [key: string]: Tree };
const isNode = (v: Tree | undefined): v is Node => typeof v === 'object' && v !== null && !Array.isArray(v);

/** A hostile file can say "ten times ten times ten": no pack of ours has a tenth of this. */
const MOST_NODES = 400_000;
const MOST_DEPTH = 60;

/** Lists that may be written as a map from key (or id) to entry, and what a bare text in it means. */
const LISTS: Readonly<Record<string, string>> = {
  procedures: 'title',
  sequences: 'title',
  sources: 'title',
  cases: 'title',
  choices: 'question',
  options: 'label',
  items: 'text',
  results: 'text',
  answers: 'text',
  points: 'text',
  classes: 'title',
};

const BY_ID = new Set(['procedures', 'sequences']);

/** Entries of `over` take the place of those beneath; objects are laid into each other, `null` takes an entry away. */
function lay(under: Tree | undefined, over: Tree): Tree {
  if (!isNode(over) || !isNode(under)) return over;
  const laid: Record<string, Tree> = { ...under };
  for (const [key, value] of Object.entries(over))
    if (value === null) delete laid[key];
    else laid[key] = lay(laid[key], value);
  return laid;
}

class Expansion {
  private nodes = 0;
  constructor(private readonly templates: Node) {}

  /** The tree with its templates put in. @param given what `{name}` stands for, within a template @param open templates being put in */
  fill(value: Tree, path: string, given: Node | undefined, open: readonly string[], depth = 0): Tree {
    if (++this.nodes > MOST_NODES || depth > MOST_DEPTH)
      throw new PackError(path, `${path}: its templates make too much of it.`);
    if (typeof value === 'string') return given ? filled(value, given, path) : value;
    if (Array.isArray(value))
      return (value as readonly Tree[]).flatMap((entry, i) => {
        const made = this.fill(entry, `${path}[${i}]`, given, open, depth + 1);
        // a template that is a list stands in a list as its entries
        return isNode(entry) && 'like' in entry && Array.isArray(made) ? (made as Tree[]) : [made];
      });
    if (!isNode(value)) return value;
    const own: Record<string, Tree> = {};
    for (const [key, entry] of Object.entries(value)) {
      if (key === '__proto__') throw new PackError(path, `${path}: "${key}" is no name.`);
      if (key !== 'like' && key !== 'with')
        own[key] = this.fill(entry, path ? `${path}.${key}` : key, given, open, depth + 1);
    }
    if (value.like === undefined)
      return value.with === undefined
        ? own
        : { ...own, with: this.fill(value.with, `${path}.with`, given, open, depth + 1) };
    const names = Array.isArray(value.like) ? (value.like as readonly Tree[]) : [value.like];
    const parameters = this.fill(value.with ?? {}, `${path}.with`, given, open, depth + 1);
    const base = names
      .map((name) => this.template(name, `${path}.like`, isNode(parameters) ? parameters : {}, open, depth))
      .reduce((under, over) => lay(under, over));
    return Object.keys(own).length ? lay(base, own) : base;
  }

  private template(name: Tree, path: string, given: Node, open: readonly string[], depth: number): Tree {
    if (typeof name !== 'string' || !Object.hasOwn(this.templates, name))
      throw new PackError(path, `${path}: there is no template "${words(name)}".`);
    if (open.includes(name)) throw new PackError(path, `${path}: the template "${name}" contains itself.`);
    return this.fill(this.templates[name]!, `${path}(${name})`, given, [...open, name], depth + 1);
  }
}

const words = (value: Tree): string => (typeof value === 'string' ? value : JSON.stringify(value));

/** A text with `{name}` filled in; a text that is nothing but `{name}` becomes what is given, of any kind. */
function filled(text: string, given: Node, path: string): Tree {
  const value = (name: string): Tree => {
    if (!Object.hasOwn(given, name))
      throw new PackError(path, `${path}: nothing is given for {${name}}. Say it under "with".`);
    return given[name]!;
  };
  const whole = /^\{([a-z]+)\}$/.exec(text);
  return whole ? value(whole[1]!) : text.replace(/\{([a-z]+)\}/g, (_, name: string) => words(value(name)));
}

/** Short forms written out: a list from a map, an edge from the name of a stage. */
function spellOut(value: Tree): Tree {
  if (Array.isArray(value)) return (value as readonly Tree[]).map(spellOut);
  if (!isNode(value)) return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, entry]): [string, Tree] => {
      if (!isNode(entry)) return [key, spellOut(entry)];
      if (Object.hasOwn(LISTS, key))
        return [
          key,
          Object.entries(entry).map(([k, e]) => {
            // JavaScript reads such keys out of their order, and order is the order of work
            if (/^\d+$/.test(k))
              throw new PackError(key, `${key}: a key like "${k}" loses its place in a map. Write a list.`);
            return {
              [BY_ID.has(key) ? 'id' : 'key']: k,
              ...(isNode(e) ? (spellOut(e) as Node) : { [LISTS[key]!]: e }),
            };
          }),
        ];
      // what stands under these are names, whatever they are: a stage may be called "items"
      if (key === 'stages') return [key, mapped(entry, spellOut)];
      if (key === 'debts')
        return [key, mapped(entry, (debt) => (typeof debt === 'string' ? { text: debt } : spellOut(debt)))];
      if (key === 'on') return [key, mapped(entry, edgesFrom)];
      return [key, spellOut(entry)];
    }),
  );
}
const mapped = (node: Node, of: (value: Tree) => Tree): Node =>
  Object.fromEntries(Object.entries(node).map(([key, value]) => [key, of(value)]));
const edgesFrom = (edges: Tree): Tree =>
  typeof edges === 'string'
    ? { to: edges }
    : Array.isArray(edges)
      ? (edges as readonly Tree[]).map(edgesFrom)
      : spellOut(edges);

/** Defaults of a stage stand under its kind, and under kind and role, the nearer over the farther. */
function withDefaults(procedure: Tree, defaults: Node): Tree {
  const laid = lay(isNode(defaults.procedure) ? defaults.procedure : undefined, procedure);
  const ofStages = isNode(defaults.stages) ? defaults.stages : {};
  if (!isNode(laid) || !isNode(laid.stages)) return laid;
  const stages = Object.fromEntries(
    Object.entries(laid.stages).map(([key, stage]) => {
      if (!isNode(stage)) return [key, stage];
      const { kind, role } = stage;
      const names =
        typeof kind !== 'string' ? [] : typeof role === 'string' ? [kind, `${kind} ${role}`] : [kind];
      const under = names
        .map((name): Tree => (Object.hasOwn(ofStages, name) ? ofStages[name]! : {}))
        .reduce((a, b) => lay(a, b), {} as Tree);
      return [key, lay(under, stage)];
    }),
  );
  return { ...laid, stages };
}

/**
 * The pack that a file means: templates of the file, and of the house (`common.json`), put in, defaults laid under,
 * short forms written out. What is no pack at all comes back as it is, for the check of its shape to refuse.
 * @throws PackError naming the path: a template that is missing, holds itself or wants a value; a file that swells
 */
export function expandPack(value: unknown): unknown {
  if (!isNode(value as Tree)) return value;
  const { templates, defaults, ...written } = value as Node;
  const expansion = new Expansion({
    ...(common as unknown as Node),
    ...(isNode(templates) ? templates : {}),
  });
  const whole = expansion.fill(written, '', undefined, []) as Node;
  const laid = isNode(defaults) ? (expansion.fill(defaults, 'defaults', undefined, []) as Node) : {};
  const { procedures } = whole;
  const under = (p: Tree): Tree => withDefaults(p, laid);
  const full = Array.isArray(procedures)
    ? (procedures as readonly Tree[]).map(under)
    : isNode(procedures)
      ? mapped(procedures, under)
      : procedures;
  return spellOut(full === undefined ? whole : { ...whole, procedures: full });
}

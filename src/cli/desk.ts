/**
 * The Desk from the command line. `--list` prints every formula; `ID name=VALUEunit ...` works one out. Prints JSON; bad
 * input prints a JSON error that names the field and exits with 2.
 */
import { DESK_LINES, deskLine } from '@/core/desk';
import { DeskError } from '@/core/desk/types';
import { deskResult, parseEntry, type Entry } from '@/core/desk/work';
import { UNITS } from '@/core/quantity/unit';

/** What the command prints and how it exits. */
export function desk(args: readonly string[]): { text: string; code: 0 | 2 } {
  const print = (value: unknown, code: 0 | 2 = 0) => ({ text: JSON.stringify(value, null, 2), code });
  try {
    if (args[0] === '--list')
      return print(
        DESK_LINES.map((f) => ({
          id: f.id,
          title: f.title,
          inputs: [
            ...f.inputs.map((i) => ({
              name: i.key,
              says: i.name,
              dimension: UNITS[i.unit].dimension,
              unit: i.unit,
              default: i.value === '' ? null : i.value,
              optional: i.value === '',
            })),
            ...(f.choices ?? []).map((c) => ({
              name: c.key,
              says: c.name,
              oneOf: c.options.map((o) => o.key),
              default: c.value,
            })),
          ],
          outputs: f.outputs.map((o) => ({
            name: o.key,
            says: o.name,
            dimension: o.unit ? UNITS[o.unit].dimension : 'words',
            unit: o.unit ?? null,
          })),
          source: f.source,
        })),
      );
    const [id = '', ...rest] = args;
    const formula = deskLine(id);
    if (!formula)
      throw new DeskError(
        'id',
        id ? `There is no formula "${id}". --list shows them.` : 'Say which formula, or --list.',
      );
    const entries: Record<string, Entry> = {};
    const choices: Record<string, string> = {};
    for (const part of rest) {
      const at = part.indexOf('=');
      if (at < 1) throw new DeskError(part, `"${part}" is not name=VALUEunit, like V=20l.`);
      const [key, text] = [part.slice(0, at), part.slice(at + 1)];
      // an output may share its name with a choice; inputs come first
      if (formula.choices?.some((c) => c.key === key)) choices[key] = text;
      else {
        if (!text.trim()) throw new DeskError(key, `${key}: type a figure, or leave ${key} out.`);
        entries[key] = parseEntry(formula, key, text);
      }
    }
    const result = deskResult(formula, entries, choices);
    return print({
      id: formula.id,
      outputs: Object.fromEntries(
        result.outputs.map((o) => [
          o.key,
          o.value === null
            ? { text: o.text }
            : { value: o.value, unit: o.unit, text: o.text, ...(o.twin ? { twin: o.twin } : {}) },
        ]),
      ),
      working: {
        formula: formula.formula,
        inputs: result.working,
        ...(formula.note ? { note: formula.note } : {}),
      },
      sensitivity: result.sensitivity,
      source: formula.source,
    });
  } catch (error) {
    if (error instanceof DeskError) return print({ error: { field: error.field, text: error.message } }, 2);
    throw error;
  }
}

if (/desk\.(ts|mjs)$/.test(process.argv[1] ?? '')) {
  const { text, code } = desk(process.argv.slice(2));
  console.log(text);
  process.exitCode = code;
}

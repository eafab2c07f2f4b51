import type { Edge } from '@/core/grammar/rule';
import type { Stage } from '@/core/kinds';
import type { Pack, Part, Procedure, Sequence } from '@/core/pack/schema';
import { edgesOf } from '@/core/grammar/edges';

/**
 * Lays the procedures of a sequence end to end as the parts of one run: each keeps its own rules, its own gauge and
 * its own result, and begins only when the one before ended well.
 * @param caseKey which of the sequence's cases is tested
 */
export function composeSequence(pack: Pack, sequence: Sequence, caseKey: string): Procedure {
  const chosen = sequence.cases.find((c) => c.key === caseKey) ?? sequence.cases[0]!;
  const procedures = sequence.parts.map((part) => pack.procedures.find((p) => p.id === part.procedure)!);
  const stages: Record<string, Stage> = {};
  const parts = procedures.map((p, i): Part => {
    const key = `${i + 1}`;
    const name = (stage: string) => `${key}-${stage}`;
    const edge = (e: Edge): Edge => (e.to === undefined ? e : { ...e, to: name(e.to) });
    for (const [stageKey, stage] of Object.entries(p.stages)) {
      const on = Object.fromEntries(Object.entries(stage.on).map(([o, e]) => [o, edgesOf(e).map(edge)]));
      // every stage that is named is renamed: where a skip leads, and where a broken hold goes back to
      const named =
        stage.kind === 'hold'
          ? {
              ...(stage.skip ? { skip: { ...stage.skip, to: name(stage.skip.to) } } : {}),
              ...(stage.restart ? { restart: name(stage.restart) } : {}),
            }
          : {};
      stages[name(stageKey)] = { ...stage, part: key, on, ...named };
    }
    const { stages: _stages, first, cautions: _cautions, debts: _debts, parts: _parts, ...rule } = p;
    const own = sequence.parts[i]!;
    return {
      key,
      title: own.title,
      first: name(first),
      rule,
      case: own.case[chosen.key] ?? p.cases[0]!.key,
      ...(own.noWorseThan ? { noWorseThan: `${own.noWorseThan}` } : {}),
    };
  });
  const first = procedures[0]!;
  const choices = new Map(procedures.flatMap((p) => p.choices).map((c) => [c.key, c]));
  const { partOnly: _partOnly, after: _after, ...base } = first;
  return {
    ...base,
    id: sequence.id,
    title: sequence.title,
    summary: sequence.summary,
    proves: [...new Set(procedures.flatMap((p) => p.proves))],
    cannotProve: procedures[procedures.length - 1]!.cannotProve,
    certificate: {
      title: procedures[procedures.length - 1]!.certificate.title,
      licence: procedures.some((p) => p.certificate.licence),
    },
    choices: [...choices.values()],
    cases: sequence.cases.map(({ key, title, hint }) => ({
      key,
      title,
      hint,
      allowance: false,
      appliances: true,
    })),
    parts,
    first: parts[0]!.first,
    stages,
    cautions: Object.assign({}, ...procedures.map((p) => p.cautions)) as Procedure['cautions'],
    debts: Object.assign({}, ...procedures.map((p) => p.debts)) as Procedure['debts'],
    ...(procedures.some((p) => p.unsafe) ? { unsafe: true } : {}),
    ...(procedures.some((p) => p.inventory)
      ? {
          inventory: procedures
            .flatMap((p) => p.inventory ?? [])
            .filter((k, i, all) => all.findIndex((x) => x.kind === k.kind) === i),
        }
      : {}),
  };
}

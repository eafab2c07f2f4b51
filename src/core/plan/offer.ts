import { fillingNamed } from '@/core/fillings';
import { sectionVolume, type System } from '@/core/installation/section';
import type { Choice, Pack, Procedure } from '@/core/pack/schema';
import { suits } from '@/core/pack/suits';
import { tradeOf } from '@/core/trades';
import type { Simulates } from '@/core/trades/trade';
import { domainReasons } from './plan';

/** A procedure or sequence that can be started on a system, with what a person must know to choose it. */
export interface Offer {
  readonly pack: string;
  /** Title of the pack where it is a house pack: the firm's own figures stand in it. */
  readonly house: string | null;
  readonly school: string;
  /** The house does not work to this school: folded away, never gone. */
  readonly aside: boolean;
  readonly edition: string;
  readonly notice: string;
  readonly id: string;
  readonly title: string;
  readonly summary: string;
  readonly proves: readonly string[];
  readonly cannotProve: readonly string[];
  /** Titles of the parts, in their order, where there are several. */
  readonly parts: readonly string[];
  readonly cases: readonly {
    readonly key: string;
    readonly title: string;
    readonly hint: string;
    /** A drop is permitted in it that is not in another. */
    readonly permits: boolean;
  }[];
  readonly choices: readonly Choice[];
  readonly practice: boolean;
  /** What a first practice opens. */
  readonly begins: boolean;
  /** It is for one section of the place: which one is asked. */
  readonly oneSection: boolean;
  /** What a practice run simulates: each has hidden faults of its own. */
  readonly simulates: Simulates;
  /** Why its rules would not decide here: a good reading could only be referred. */
  readonly outside: readonly string[];
  /** Procedures of which one must have ended well before, and what to say otherwise. */
  readonly after: { readonly procedures: readonly string[]; readonly text: string } | null;
}

/** What a practice run of a procedure simulates at a system. */
export function simulatesOf(p: Pick<Procedure, 'fills' | 'oneSection'>, system: System): Simulates {
  const { kind } = fillingNamed(p.fills).simulated;
  const { practice, parted } = tradeOf(system);
  const own = kind === 'liquid' || parted === 'sides' ? practice : undefined;
  return own ? (p.oneSection ? own.section : own.whole) : kind;
}

const NONE: ReadonlySet<string> = new Set();
/** What a pack offers for a system: everything for its medium; answers a choice cannot have here are left out. @param aside ids of packs that the house set aside */
export function offersFor(pack: Pack, system: System, aside: ReadonlySet<string> = NONE): Offer[] {
  const from = {
    pack: pack.id,
    house: pack.basedOn ? pack.title : null,
    school: pack.school,
    aside: aside.has(pack.id),
    edition: pack.edition,
    notice: pack.notice,
  };
  const open = (choices: readonly Choice[]): Choice[] =>
    choices.map((c) => {
      const options = c.options.filter(
        (o) => !(o.unlessAccess && system.access?.includes(o.unlessAccess.access)),
      );
      return {
        ...c,
        options,
        default: options.some((o) => o.key === c.default) ? c.default : options[0]!.key,
      };
    });
  const single = pack.procedures
    .filter((p) => !p.partOnly && suits(p, system))
    .map((p): Offer => ({
      ...from,
      id: p.id,
      title: p.title,
      summary: p.summary,
      proves: p.proves,
      cannotProve: p.cannotProve,
      parts: (p.parts ?? []).map((x) => x.title),
      cases: p.cases.map(({ key, title, hint, allowance }) => ({
        key,
        title,
        hint,
        permits: allowance === true,
      })),
      choices: open(p.choices),
      // whatever has a world of its own can be practised; where looks alone are simulated a pack says so
      practice: p.practice === true || simulatesOf(p, system) !== 'pool-joins',
      begins: p.begins === true,
      oneSection: p.oneSection === true,
      simulates: simulatesOf(p, system),
      outside: domainReasons(p, system, sectionVolume(system)),
      after: p.after ?? null,
    }));
  const sequences = (pack.sequences ?? []).flatMap((s): Offer[] => {
    const procedures = s.parts.map((x) => pack.procedures.find((p) => p.id === x.procedure)!);
    if (!procedures.every((p) => suits({ media: p.media }, system))) return [];
    const choices = new Map(procedures.flatMap((p) => p.choices).map((c) => [c.key, c]));
    return [
      {
        ...from,
        id: s.id,
        title: s.title,
        summary: s.summary,
        proves: [...new Set(procedures.flatMap((p) => p.proves))],
        cannotProve: procedures[procedures.length - 1]!.cannotProve,
        parts: s.parts.map((x) => x.title),
        cases: s.cases.map((c) => ({ ...c, permits: false })),
        choices: open([...choices.values()]),
        practice: false,
        begins: false,
        oneSection: false,
        simulates: fillingNamed(null).simulated.kind,
        outside: [...new Set(procedures.flatMap((p) => domainReasons(p, system, sectionVolume(system))))],
        after: null,
      },
    ];
  });
  return [...single, ...sequences];
}

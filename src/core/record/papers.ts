/** The papers a record calls for besides its certificate: what stands on each, in words. Screen, print and mail share it. */
import { boundedWords } from './face-words';
import { kindOf } from '@/core/kinds';
import { notCoveredIn } from '@/core/plan/not-covered';
import type { Plan } from '@/core/plan/plan';
import { showExact } from '@/core/quantity/exact';
import { inZone } from '@/core/quantity/in-zone';
import { DANGER_WORDS } from '@/core/run/closing';
import { pointsOf } from '@/core/run/inventory';
import { tradeOf } from '@/core/trades';
import type { SectionKey } from '@/core/trades/trade';
import { isGood, type VerdictWord } from '@/core/verdict/words';
import { ductBlocks, inspectorIntro } from './duct-paper';
import type { Face } from './face';
import { linePapers, losses, repairBlocks, specialistBlocks } from './line-papers';
import { leavesASearch, searchBlocks } from './search-paper';
import { capital, full } from '@/core/quantity/words';

export const PAPERS = {
  certificate: 'Certificate',
  note: 'Plain note for the customer',
  fail: 'Notice to the user',
  label: 'Do-not-use label',
  report: 'Report of an upstream fault',
  loss: 'Loss report to the engineer',
  repair: 'Repair list',
  specialist: 'Pack for who locates',
  inspector: 'Pack for the inspector',
  utility: 'Pack for the utility',
  buyer: 'Pack for a buyer or agent',
  ticket: 'Narrow ticket',
} as const;
export type PaperKind = keyof typeof PAPERS;
export const isPaperKind = (text: string): text is PaperKind => Object.hasOwn(PAPERS, text);
/** A paper of a record, as a message names it. */
export interface PaperRef {
  readonly run: string;
  readonly number: string;
  readonly form: PaperKind;
}
export interface PaperOffer {
  readonly kind: PaperKind;
  readonly title: string;
  /** Whom it is addressed to, by role or as the place names them. */
  readonly to: string;
}

const measuredLoss = (face: Pick<Face, 'state'>): boolean =>
  face.state.visits.some((v) => v.drawn || v.holds.some((h) => h.judgement?.makeUp));
const metered = (plan: Pick<Plan, 'system'>): boolean =>
  plan.system.meter.kind !== 'none' || plan.system.supplyValveOwner !== '';

/**
 * Which papers a record calls for, the most needed first. A practice record calls for none; a notice is due where the
 * system was not shown fit for use, a label where it must not be used, a report to whoever owns an upstream fault.
 */
export function papersOf(face: Pick<Face, 'body' | 'state' | 'plan'>): PaperOffer[] {
  const { state, body, plan } = face;
  if (body.status === 'practice' || plan.procedure.ofKit) return [];
  const good = isGood(body.verdict.word);
  const { use } = body.verdict;
  const shut = !good && use === 'shut-off';
  const offer = (kind: PaperKind, to: string): PaperOffer => ({ kind, title: PAPERS[kind], to });
  return [
    ...((!good && use !== 'in-use') || state.unsafe ? [offer('fail', plan.site.customer)] : []),
    ...((shut && body.verdict.word === 'not-tight') || state.unsafe
      ? [offer('label', plan.system.name)]
      : []),
    ...(state.reports.length
      ? [offer('report', [...new Set(state.reports.map((r) => r.to))].join(', '))]
      : []),
    ...(measuredLoss(face) ? [offer('loss', 'engineer of the main')] : []),
    ...linePapers(face).map((kind) => offer(kind, kind === 'repair' ? 'who mends it' : 'who locates it')),
    ...(leavesASearch(face) ? [offer('specialist', 'who looks for the leak')] : []),
    offer('note', plan.site.customer),
    offer('inspector', 'inspector'),
    ...(tradeOf(plan.system).fuel || metered(plan)
      ? [offer('utility', plan.system.supplyValveOwner || 'utility')]
      : []),
    offer('buyer', 'buyer or agent'),
    offer('ticket', plan.site.customer),
  ];
}

/** A paragraph of a paper. */
export interface Block {
  readonly heading?: string;
  readonly lines: readonly string[];
  readonly strong?: boolean;
  /** Lines to be filled in by hand. */
  readonly blank?: readonly string[];
}
export interface Paper {
  readonly kind: PaperKind;
  readonly title: string;
  readonly to: string;
  readonly where: string;
  readonly blocks: readonly Block[];
}

const DONE = {
  disconnected: 'It was disconnected and capped.',
  labelled: 'It was shut off and labelled.',
  refused: 'The user refused to have it shut off and was told in writing.',
} as const;
/** What a buyer may be told, by verdict: what was shown and what we would do. No word on price or purchase. */
const ADVICE: Record<VerdictWord, string> = {
  tight:
    'The section described below was shown tight by the rule named, on that day. We recommend that it is tested again after any work on it, and at the interval the rule or the owner asks for.',
  'within-allowance':
    'The section described below lost an amount that the rule permits for an existing installation. It was not shown free of any loss. We recommend that it is tested again before work is done on it, and that the loss is looked for when an appliance is changed.',
  'not-tight':
    'The section described below was not shown tight. We recommend that it is repaired by a competent person and tested again, and that it is not used before.',
  void: 'The test gave no result. Nothing can be said about the section; we recommend that it is tested.',
  inconclusive:
    'The test could not decide. It neither shows the section tight nor untight; we recommend that it is tested again as described below.',
  refer:
    'The result was handed on to whoever decides about it. Until the answer is here nothing should be concluded; we recommend to ask for it.',
};

/**
 * What stands on a paper. @param contact how the firm is reached  @param history earlier records of the system in words
 * @throws RangeError when the record does not call for that paper
 */
export function paperOf(face: Face, kind: PaperKind, extra: Extra = {}): Paper {
  const offer = papersOf(face).find((p) => p.kind === kind);
  if (!offer) throw new RangeError('This record does not call for that paper.');
  const { plan, body } = face;
  const v = body.verdict;
  const limited = v.use === 'limited';
  const title =
    kind === 'fail'
      ? limited
        ? 'Notice: limited use until repaired'
        : 'Notice: not shown fit for use'
      : kind === 'label'
        ? 'Do not use'
        : kind === 'report'
          ? 'Report of a fault that is not the customer’s'
          : kind === 'note'
            ? 'What was tested, and what came of it'
            : offer.title;
  return {
    kind,
    title,
    to: offer.to,
    where: `${plan.site.name}, ${plan.site.address}: ${plan.system.name}`,
    blocks: BLOCKS[kind](face, extra).filter((b) => b.lines.length > 0 || b.blank?.length),
  };
}
export interface Extra {
  readonly contact?: string;
  readonly history?: readonly string[];
  /** What stands in the leak book of the system, in words. */
  readonly leaks?: readonly string[];
  /** Of them those of the same section. */
  readonly sectionHistory?: readonly string[];
}
/** A section of the face; empty where the record has none, and then left out. */
function section(face: Face, key: SectionKey): Block {
  const found = face.sections.find((s) => s.key === key);
  return { heading: found?.title ?? '', lines: found?.lines.map(full) ?? [] };
}
const result = (face: Face): Block => ({
  heading: 'Result',
  lines: [`${face.body.verdict.label}. ${face.body.verdict.sentence}`],
  strong: true,
});
const scope = (face: Face): Block[] => [
  {
    heading: 'Section',
    lines: [
      `${face.plan.system.name}: ${face.tested}. ${boundedWords(face.plan)}`,
      `Inside: ${face.plan.system.inScope.join('; ')}.`,
    ],
  },
  { heading: 'NOT covered', lines: notCoveredIn(face.plan).map(full) },
];
const gauge = (face: Face): Block => ({
  heading: 'Gauge',
  lines: [`${face.gauge}. Zero open to air: ${face.zeros}.`],
});
const stages = (face: Face, reader?: 'inspector' | 'utility'): Block => ({
  heading: 'What was read, stage by stage',
  lines: face.body.verdict.stages
    .filter((_, i) => {
      if (!reader) return true;
      const stage = face.plan.procedure.stages[face.state.visits[i]?.stage ?? ''];
      return stage !== undefined && kindOf(stage).paper?.(stage) === reader;
    })
    .filter((x) => x.text)
    .map((x) => `${x.title}: ${x.word} (${x.text}).`),
});
const rule = (face: Face): Block => ({
  heading: 'By which rule',
  lines: [
    `${face.plan.procedure.title}. ${face.plan.pack.title}, ${face.plan.pack.school}, ${face.plan.pack.edition}. Check the edition in force.`,
    ...face.limits.map((l) => `${capital(l.name)}: ${l.value} (${l.source}).`),
  ],
});
const permit = (face: Face): Block => {
  const { attendance } = face.plan;
  return {
    heading: 'Permit and tags',
    lines: [
      attendance?.permit ? `Permit ${attendance.permit}.` : 'No permit number was given.',
      attendance?.doneBy === 'owner'
        ? 'Work by the owner under the permit.'
        : attendance?.doneBy === 'licensed'
          ? 'Work by a licensed person.'
          : 'By whom the work was done was not said.',
      tagWords(face),
    ],
  };
};
/** Whether a label hangs there, in one sentence. */
const tagWords = (face: Face): string => {
  const { unsafe } = face.state;
  if (unsafe) return `Tag: ${DANGER_WORDS[unsafe.danger]}. ${DONE[unsafe.action]} Told: ${unsafe.told}.`;
  const shut = papersOf(face).some((p) => p.kind === 'label');
  return shut ? 'Tag: a do-not-use label belongs on it.' : 'Tag: none.';
};
const form = (face: Face): Block => ({
  heading: 'Looked at, part by part',
  lines: face.state.inventory.map((i) => {
    const plate = [i.make, i.model, i.serial && `serial ${i.serial}`].filter(Boolean).join(', ');
    const said = Object.entries(i.points).map(
      ([key, word]) =>
        `${pointsOf(face.plan, i.kind).find((p) => p.key === key)?.text ?? key}: ${word === 'not-seen' ? 'not seen' : word}`,
    );
    return full(
      `${i.name}${i.place ? `, ${i.place}` : ''}${plate ? ` (${plate})` : ''}${said.length ? `: ${said.join('; ')}` : ''}${i.note ? `; ${i.note}` : ''}`,
    );
  }),
});
const due = (face: Face): Block => section(face, 'due');
/** Of one section among several: what it was found to lose before, and now. */
const before = (face: Face, extra: Extra): Block[] =>
  extra.sectionHistory?.length ? [losses(face, extra)] : [];
const appliances = (face: Face): Block => ({
  heading: 'Appliances that day',
  lines: face.plan.system.appliances.map((a) =>
    full(
      [
        [a.name, a.place].filter(Boolean).join(', '),
        [a.make, a.model, a.serial && `serial ${a.serial}`].filter(Boolean).join(', '),
      ]
        .filter(Boolean)
        .join(': '),
    ),
  ),
});

const BLOCKS: Record<PaperKind, (face: Face, extra: Extra) => Block[]> = {
  certificate: () => [],
  ticket: () => [],
  fail: (face) => {
    const { plan, state, body } = face;
    const limited = body.verdict.use === 'limited';
    const unsafe = state.unsafe;
    return [
      { lines: [`To the user: ${plan.site.customer}`] },
      { lines: [body.verdict.plain] },
      result(face),
      {
        strong: true,
        lines: unsafe
          ? [
              `This was classed as ${DANGER_WORDS[unsafe.danger]}: ${full(unsafe.text)} ${DONE[unsafe.action]} Told: ${unsafe.told}.`,
            ]
          : [],
      },
      {
        lines: [
          limited
            ? 'It may be used only until the date below and must be repaired and tested again before it.'
            : 'Do not use it, and let nobody open, light or connect it, until a competent person has repaired it and it was tested again.',
        ],
      },
      {
        lines: tradeOf(plan.system).fuel
          ? [
              `If you smell gas: touch no switch, leave, and call ${plan.system.emergencyContact} from outside.`,
            ]
          : plan.system.emergencyContact
            ? [`If water runs out: shut ${plan.system.supplyValve} and call ${plan.system.emergencyContact}.`]
            : [],
      },
      due(face),
      section(face, 'reports'),
      section(face, 'present'),
      section(face, 'joints'),
    ];
  },
  label: (face) => {
    const { unsafe } = face.state;
    return [
      {
        strong: true,
        lines: [
          unsafe
            ? `${capital(DANGER_WORDS[unsafe.danger])}: ${unsafe.text}`
            : 'Not shown tight. It stays shut off until it is repaired and tested again.',
        ],
      },
      {
        lines: [
          `${unsafe ? `${DONE[unsafe.action]} ` : ''}Do not open, light or connect it. This label is taken off only by whoever tests it tight.`,
        ],
      },
    ];
  },
  report: (face) => [
    { lines: [`To the ${[...new Set(face.state.reports.map((r) => r.to))].join(' and the ')}`] },
    { strong: true, lines: face.state.reports.map((r) => full(r.text)) },
    stages(face),
    gauge(face),
    {
      lines: [`${boundedWords(face.plan)} The tester did not repair it.`],
    },
    due(face),
    section(face, 'present'),
  ],
  loss: (face) => [
    { lines: ['To the engineer of the main.'] },
    {
      lines: [
        'The figures below were measured; what they mean for the main is for the engineer to say. Make-up and decay are two different measurements and are not exchanged.',
      ],
    },
    section(face, 'losses'),
    {
      heading: 'Against what',
      lines: face.limits
        .filter((l) => l.name === 'make-up permitted')
        .map((l) => `${capital(l.name)}: ${l.value} (${l.source}). Check the edition in force.`),
    },
    result(face),
    {
      heading: 'Main',
      lines: face.plan.system.pipes.map(
        (p) =>
          `${p.name}: ${p.material}, ${showExact(p.size)}, bore ${showExact(p.bore)}, ${showExact(p.length)}.`,
      ),
    },
    section(face, 'level'),
    section(face, 'raised'),
    section(face, 'added'),
    stages(face),
    gauge(face),
    ...scope(face),
  ],
  repair: repairBlocks,
  specialist: (face, extra) => (leavesASearch(face) ? searchBlocks : specialistBlocks)(face, extra),
  note: (face, extra) => {
    const { contact } = extra;
    const { plan, body } = face;
    return [
      { lines: [`To ${plan.site.customer}`] },
      {
        heading: 'What was tested',
        lines: [
          `${plan.system.name}: ${face.tested}. ${plan.procedure.applied ? full(plan.procedure.applied) : full(plan.procedure.title)} Begun ${face.started}, ended ${face.ended}.`,
        ],
      },
      { heading: 'Result', strong: true, lines: [body.verdict.label] },
      { lines: [body.verdict.plain] },
      ...before(face, extra),
      { heading: 'What it says nothing about', lines: notCoveredIn(plan).map(full) },
      due(face),
      {
        heading: 'What to watch',
        lines: [
          ...tradeOf(plan.system).watch,
          ...(plan.system.emergencyContact ? [`Emergency line: ${plan.system.emergencyContact}.`] : []),
          `Questions: ${plan.organisation.name}${contact ? `, ${contact}` : ''}.`,
        ],
      },
      {
        lines: ['Later changes to the installation are outside this record.'],
      },
    ];
  },
  inspector: (face) => [
    { lines: [inspectorIntro(face)] },
    permit(face),
    result(face),
    ...scope(face),
    stages(face, 'inspector'),
    rule(face),
    gauge(face),
    ...ductBlocks(face),
    section(face, 'joints'),
    form(face),
    { heading: 'Photos', lines: face.state.photos.map((p) => full(p.caption)) },
    {
      heading: 'Inspector',
      lines: [],
      blank: ['Name and office', 'Date', 'Accepted, or what is wanted', 'Signature'],
    },
  ],
  utility: (face) => {
    const { plan } = face;
    return [
      {
        lines: [
          'For the utility or supplier: their valve, the meter, and what was put back. The pressure test of the pipework is in the pack for the inspector.',
        ],
      },
      permit(face),
      {
        heading: 'Meter and boundary',
        lines: [
          `Meter: ${plan.system.meter.kind === 'none' ? 'none in the section' : plan.system.meter.name}${plan.system.meter.serial ? `, serial ${plan.system.meter.serial}` : ''}.`,
          `Valve: ${plan.system.supplyValve} (owner: ${plan.system.supplyValveOwner}).`,
          ...(plan.system.regulators ?? []).map((r) => full(`Regulator: ${r.name}, ${r.place}`)),
          ...(plan.system.tank ? [`Tank: ${plan.system.tank.size}, ${plan.system.tank.place}.`] : []),
        ],
      },
      stages(face, 'utility'),
      section(face, 'reports'),
      { heading: 'Put back', lines: face.putBack.length ? face.putBack.map(full) : ['Nothing was owed.'] },
      appliances(face),
      result(face),
      {
        heading: 'Utility',
        lines: [],
        blank: ['Received by', 'Date', 'Meter set or turned on', 'Signature'],
      },
    ];
  },
  buyer: (face, extra) => [
    {
      lines: [
        'For a buyer or their agent. It is about one section on one day; it is no survey of the property.',
      ],
    },
    { heading: 'What we recommend', strong: true, lines: [ADVICE[face.body.verdict.word]] },
    result(face),
    ...scope(face),
    {
      heading: 'What such a test can hide',
      lines: [face.body.verdict.adequacy?.text ?? 'It was not worked out for this test.'],
    },
    due(face),
    section(face, 'unsafe'),
    appliances(face),
    ...before(face, extra),
    { heading: 'Earlier records of this system', lines: extra.history?.map(full) ?? [] },
    rule(face),
  ],
};

/** The line under every paper: number, day and who. */
export const paperFoot = (face: Face, number: string): string[] => [
  `Record ${number}, ${inZone(Date.parse(face.body.sealedAt), face.plan.made.zone)}`,
  `${face.plan.organisation.name}, ${face.state.signatures.find((x) => x.role === 'tester')?.name ?? face.body.sealer.name}`,
];

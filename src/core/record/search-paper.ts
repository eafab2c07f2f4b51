/** What is known of a section that leaks and what was tried, for whoever comes to find it: nothing has to be found out twice. */
import { questioned } from '@/core/analysis/in-question';
import { meaningOfHold } from '@/core/analysis/of-hold';
import { notCoveredIn } from '@/core/plan/not-covered';
import { planVolume } from '@/core/plan/plan';
import { showExact } from '@/core/quantity/exact';
import { convert } from '@/core/quantity/unit';
import { searchLines } from '@/core/run/isolations';
import { searchOf } from '@/core/splitting/search';
import { tradeOf } from '@/core/trades';
import type { Face } from './face';
import { said } from './line-papers';
import type { Block, Extra } from './papers';

/** A record of a whole section that was found to leak; lines of a pool have a pack of their own. */
export const leavesASearch = ({ plan, body }: Pick<Face, 'plan' | 'body'>): boolean =>
  body.verdict.word === 'not-tight' && !(tradeOf(plan.system).parted === 'lines' && plan.system.section);

function trace({ plan, state }: Face): Block {
  const found = questioned(plan, state);
  const meaning = found?.hold ? meaningOfHold(plan, state, found.visit, found.hold) : null;
  return {
    heading: 'What the trace means',
    lines: meaning?.enough
      ? [
          meaning.headline,
          ...meaning.fors.map((l) => `For it: ${l}`),
          ...meaning.against.map((l) => `Against it: ${l}`),
          'Advice from the readings and the facts of the section.',
        ]
      : [],
  };
}
function parts({ plan, state }: Face): Block {
  const search = state.search.results.length ? searchOf(plan, state) : null;
  const found = search?.found;
  return {
    heading: 'Parts held by themselves',
    lines: state.search.results.length
      ? [
          ...searchLines(plan, state).map(said),
          ...(search && found
            ? [
                `By these: ${search.splitting.sections[found.part]!.name}, ${Math.round(100 * found.confidence)} %.`,
                ...found.doubts,
              ]
            : []),
        ]
      : ['No part was held by itself in this test.'],
  };
}
export function searchBlocks(face: Face, extra: Extra): Block[] {
  const { plan, body } = face;
  const { system } = plan;
  return [
    { lines: ['Facts as they were found. What they mean is for who looks for the leak.'] },
    { heading: 'Result', strong: true, lines: [`${body.verdict.label}. ${body.verdict.sentence}`] },
    {
      heading: 'The section',
      lines: [
        said(
          `${system.medium}, working at ${showExact(system.workingPressure)}; tested with ${plan.procedure.testMedium}.`,
        ),
        `Volume: ${convert(planVolume(plan).value, 'm3', 'l').toFixed(1)} l, by pipes and plates.`,
        `Inside: ${system.inScope.join('; ')}.`,
        ...system.pipes.map(
          (p) =>
            `${p.name}: ${p.material}, ${showExact(p.size)}, bore ${showExact(p.bore)}, ${showExact(p.length)}.`,
        ),
      ],
    },
    trace(face),
    parts(face),
    { heading: 'Leaks in the book of this place', lines: (extra.leaks ?? []).map(said) },
    {
      heading: 'Joints that were looked at',
      lines: face.sections.find((s) => s.key === 'joints')?.lines.map(said) ?? [],
    },
    {
      heading: 'What was read, stage by stage',
      lines: body.verdict.stages.filter((x) => x.text).map((x) => `${x.title}: ${x.word} (${x.text}).`),
    },
    { heading: 'Earlier records', lines: (extra.history ?? []).map(said) },
    { heading: 'Not known', lines: notCoveredIn(plan).map(said) },
  ];
}

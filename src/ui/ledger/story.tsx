import { storyOf } from '@/core/record/story';
import type { RunState } from '@/core/run/state';
import { stepTimes } from '@/core/run/step-times';
import type { Face } from './certificate-parts';

/** Everything that happened, in order, and where the time went. */
export function Story({ face }: { face: Face }) {
  return (
    <div className="overflow-x-auto" role="region" aria-label="Everything that happened" tabIndex={0}>
      <StepTimes state={face.state} />
      <h3 className="font-semibold">Everything that happened, in order</h3>
      <table className="mt-2 w-full min-w-[700px] text-sm">
        <thead>
          <tr className="text-left text-quiet [&>th]:pr-3 [&>th]:font-normal">
            <th>Device’s clock</th>
            <th>Server’s clock</th>
            <th>Who</th>
            <th>What</th>
          </tr>
        </thead>
        <tbody>
          {storyOf(face, face.body.events).map((e, i) => (
            <tr key={i} className="border-t border-seam align-top [&>td]:py-1 [&>td]:pr-3">
              <td className="whitespace-nowrap">{e.at}</td>
              <td className="whitespace-nowrap text-quiet">{e.server}</td>
              <td>{e.who}</td>
              <td>
                {e.what}
                {e.note && <span className="block text-quiet">{e.note}</span>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Where the time went, step by step: beside the estimates of the plan it shows where a job loses time. */
function StepTimes({ state }: { state: RunState }) {
  const steps = stepTimes(state);
  if (!steps.length) return null;
  return (
    <details>
      <summary className="min-h-10 cursor-pointer text-lg font-semibold">
        Time per step, {Math.round(steps.reduce((s, x) => s + x.minutes, 0))} min
      </summary>
      <table className="mt-2 w-full max-w-2xl">
        <thead>
          <tr className="text-left text-sm text-quiet [&>th]:py-1 [&>th]:pr-3 [&>th]:font-normal">
            <th>Step</th>
            <th className="text-right">Minutes</th>
            <th className="text-right">of it held</th>
            <th className="text-right">Times</th>
          </tr>
        </thead>
        <tbody>
          {steps.map((s) => (
            <tr key={s.stage} className="border-t border-seam [&>td]:pr-3 [&>td]:text-right">
              <th scope="row" className="py-1 text-left font-normal">
                {s.title}
              </th>
              <td className="figure-narrow">{s.minutes.toFixed(1)}</td>
              <td className="figure-narrow">{s.held ? s.held.toFixed(1) : ''}</td>
              <td className="figure-narrow">{s.times}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}

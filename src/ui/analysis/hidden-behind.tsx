import { significantText } from '@/core/quantity/figure';
import { convert } from '@/core/quantity/unit';
import { hiddenIn } from '@/core/run/hold-spec';
import { hiddenWords } from '@/core/verdict/masked';
import type { BenchView } from '@/device/bench';

/** Why two holds more are proposed: what could hide, at which pressures it would show, and the minutes that takes. */
export function HiddenBehind({ view: { plan, state } }: { view: BenchView }) {
  const hidden = hiddenIn(plan, state, null);
  if (!hidden?.holds) return null;
  const { pressures, minutes } = hidden.holds;
  const [first, second] = pressures.map((p) => significantText(convert(p, 'Pa', 'mbar'), 2));
  return (
    <div className="grid gap-1 border-l-4 border-ochre pl-3">
      <p className="text-lg">{hiddenWords(hidden)}</p>
      <p>
        Two holds tell them apart: <span className="figure">{first}</span> and{' '}
        <span className="figure">{second} mbar</span>, <span className="figure">{minutes} min</span> each;
        about <span className="figure">{2 * minutes + 2} min</span> in all.
      </p>
    </div>
  );
}

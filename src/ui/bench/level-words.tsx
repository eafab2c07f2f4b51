import { headPressure } from '@/core/medium/water';
import { freeSurface, metres } from '@/core/installation/section';
import type { Plan } from '@/core/plan/plan';
import { showExact } from '@/core/quantity/exact';
import { Why } from '@/ui/kit/why';

/** How a level is read as a height over the slab, what one millimetre means, and the head at the lowest point. */
export function LevelWords({ plan, head: withHead = false }: { plan: Plan; head?: boolean }) {
  const { heights, surfaces } = plan.system;
  const surface = freeSurface(plan.system);
  const rim = heights?.rim && heights.slab ? (metres(heights.rim) - metres(heights.slab)) * 1000 : null;
  const head = heights?.slab && heights.lowest ? metres(heights.slab) - metres(heights.lowest) : null;
  return (
    <p className="mb-2">
      {rim !== null && (
        <>
          The rim lies <span className="figure">{rim.toFixed(0)} mm</span> over the slab: height ={' '}
          {rim.toFixed(0)} − what you measure down from the rim.{' '}
        </>
      )}
      {surface > 0 ? (
        <>
          One millimetre is{' '}
          <Why
            guide="level"
            facts={{
              title: 'Litres per millimetre',
              formula: 'Σ of all free surfaces at this level',
              inputs: (surfaces ?? []).map((s) => ({
                name: `${s.count} × ${s.name}`,
                value: `${showExact(s.bore)} bore`,
              })),
              source: 'Level hold: the sum of all free surfaces, not the opening alone',
              text: 'Closet risers and stacks fall with the opening: their water counts too.',
            }}
          >
            <span className="figure">{surface.toFixed(3)} l</span>
          </Why>
          .{' '}
        </>
      ) : (
        <>The free surfaces are not entered on the system page: what a millimetre means is not known. </>
      )}
      {withHead && head !== null && (
        <>
          With the level at the slab the lowest point stands under{' '}
          <span className="figure">{(headPressure(head) / 100).toFixed(0)} mbar</span> ({head.toFixed(2)} m).
        </>
      )}
    </p>
  );
}

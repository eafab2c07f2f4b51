'use client';
import { useRouter } from 'next/navigation';

/** A gauge chosen for a part: the plan is made anew with it, and the address carries it. */
export function GaugeChoice({ part, id, chosen }: { part: string; id: string; chosen: boolean }) {
  const router = useRouter();
  return (
    <input
      type="radio"
      name={`gauge-${part || 'whole'}`}
      className="mt-1 size-5 shrink-0 accent-lake"
      defaultChecked={chosen}
      onChange={() => {
        const query = new URLSearchParams(location.search);
        query.set(`gauge.${part}`, id);
        router.replace(`${location.pathname}?${query}`, { scroll: false });
      }}
    />
  );
}

'use client';
import { createContext, type ReactNode, useContext, useSyncExternalStore, useState, useEffect } from 'react';
import { METRIC, ownUnit, type Usage } from '@/core/quantity/usage';
import type { Unit } from '@/core/quantity/unit';
import { onIdentityChange, readIdentity } from '@/device/identity';

const Given = createContext<Usage | null>(null);
/** Tells everything below what the person is used to; where no server page does, the device knows it of who signed in. */
export const UsageProvider = ({ usage, children }: { usage: Usage; children: ReactNode }) => (
  <Given value={usage}>{children}</Given>
);
let kept: { text: string; usage: Usage } = { text: '', usage: METRIC };
function keptUsage(): Usage {
  const usage = readIdentity()?.usage ?? METRIC;
  const text = JSON.stringify(usage);
  if (text !== kept.text) kept = { text, usage: { ...METRIC, ...usage } };
  return kept.usage;
}
/** Units, days and times as the person here is used to them. */
export function useUsage(): Usage {
  const given = useContext(Given);
  // where a page was told, the device is not asked
  return useSyncExternalStore(
    onIdentityChange,
    () => given ?? keptUsage(),
    () => given ?? METRIC,
  );
}
/** Units that may be chosen, the one a person is used to first. */
export function useUsualFirst<U extends Unit>(units: readonly U[]): readonly U[] {
  const usage = useUsage();
  const own = ownUnit(units[0]!, usage) as U;
  return units.includes(own) && own !== units[0] ? [own, ...units.filter((u) => u !== own)] : units;
}
/** The unit that something was last read in on this device; until somebody said otherwise, the one they are used to. */
export function useLastUnit<U extends Unit>(
  key: string,
  units: readonly U[],
): readonly [U, (unit: U) => void] {
  const usual = useUsualFirst(units)[0]!;
  const [said, setSaid] = useState<U | null>(null);
  useEffect(() => {
    const last = localStorage.getItem(key);
    if (units.some((u) => u === last)) setSaid(last as U);
  }, [key, units]);
  return [
    said ?? usual,
    (next) => {
      localStorage.setItem(key, next);
      setSaid(next);
    },
  ];
}

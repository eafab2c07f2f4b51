'use client';
import { byNeed } from '@/ui/kit/by-need';
import type { Identity } from '@/wire/role';
import { useRouter } from 'next/navigation';
import { Suspense, useCallback, useEffect, useState } from 'react';

const Waiting = byNeed(() => import('./waiting').then((m) => m.Waiting));

/** What waits for the office, looked at when the page stands: no page waits for it, and what was sent is shown on it. */
export function WaitingLater({ who }: { who: Identity }) {
  const [stands, setStands] = useState(false);
  const router = useRouter();
  const again = useCallback(() => router.refresh(), [router]);
  useEffect(() => {
    const later = setTimeout(() => setStands(true), 300);
    return () => clearTimeout(later);
  }, []);
  if (!stands) return null;
  return (
    <Suspense fallback={null}>
      <Waiting who={who} onSent={again} />
    </Suspense>
  );
}

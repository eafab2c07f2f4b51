'use client';
import { office, type OfficeError } from '@/device/office';
import { useRouter } from 'next/navigation';
import { useState } from 'react';

/** Whether the house works to the school of a pack: said once, and the others are folded away where a test is chosen. */
export function SchoolToggle({ pack, title, aside }: { pack: string; title: string; aside: boolean }) {
  const router = useRouter();
  const [works, setWorks] = useState(!aside);
  const [trouble, setTrouble] = useState('');
  const say = async (next: boolean) => {
    setWorks(next);
    setTrouble('');
    try {
      await office(`/api/packs/${pack}`, { method: 'PUT', body: { aside: !next } });
      router.refresh();
    } catch (error) {
      setWorks(!next);
      setTrouble((error as OfficeError).message);
    }
  };
  return (
    <>
      <label className="mt-2 flex min-h-11 cursor-pointer items-center gap-3">
        <input
          type="checkbox"
          className="size-5 shrink-0 accent-lake"
          checked={works}
          onChange={(e) => void say(e.target.checked)}
          aria-label={`We work to this: ${title}`}
        />
        We work to this
      </label>
      <p role="alert" className="text-sm text-rust">
        {trouble}
      </p>
    </>
  );
}

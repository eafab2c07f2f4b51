'use client';
import Link from 'next/link';
import { useEffect, useState, type ReactNode } from 'react';
import { readIdentity } from '@/device/identity';
import { startWorker } from '@/device/worker';
import { ReadersLens } from '@/ui/frame/lens';
import { Rail } from '@/ui/frame/rail';
import type { Identity } from '@/wire/role';

/** The frame of a page that needs no sign-in: with the rail for who is signed in on this device, with a way in otherwise. */
export function DeskFrame({ children }: { children: ReactNode }) {
  const [who, setWho] = useState<Identity | null | undefined>(undefined);
  useEffect(() => {
    setWho(readIdentity());
    void startWorker(['/desk', '/desk/trace', '/guide']);
  }, []);
  return (
    <>
      {who && <Rail who={who} />}
      {/* who it is, only this device knows: nothing may move when it does */}
      <main
        id="main"
        className="relative mx-auto max-w-[1200px] px-4 pt-4 pb-28 lg:pr-8 lg:pb-8 lg:pl-[104px]"
      >
        {who === null && (
          <Link
            prefetch={false}
            className="no-print absolute top-2 right-4 min-h-11 py-2 text-lake underline-offset-4 hover:underline lg:right-8"
            href="/sign-in"
          >
            Sign in
          </Link>
        )}
        {children}
      </main>
      <ReadersLens />
    </>
  );
}

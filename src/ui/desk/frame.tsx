'use client';
import Link from 'next/link';
import { useEffect, useState, type ReactNode } from 'react';
import { readIdentity } from '@/device/identity';
import { startWorker } from '@/device/worker';
import { Rail } from '@/ui/frame/rail';
import type { Identity } from '@/wire/role';

/** The frame of a page that needs no sign-in: with the rail for who is signed in on this device, with a way in otherwise. */
export function DeskFrame({ children }: { children: ReactNode }) {
  const [who, setWho] = useState<Identity | null>(null);
  useEffect(() => {
    setWho(readIdentity());
    void startWorker(['/desk']);
  }, []);
  return (
    <>
      {who ? (
        <Rail who={who} />
      ) : (
        <p className="no-print mx-auto flex max-w-[1200px] items-center justify-between gap-4 px-4 pt-3 lg:px-8">
          <span className="font-semibold">Vast Stone</span>
          <Link
            prefetch={false}
            className="min-h-11 py-2 text-lake underline-offset-4 hover:underline"
            href="/sign-in"
          >
            Sign in
          </Link>
        </p>
      )}
      <main
        id="main"
        className={`mx-auto max-w-[1200px] px-4 pt-4 pb-28 lg:pr-8 lg:pb-8 ${who ? 'lg:pl-[104px]' : 'lg:pl-8'}`}
      >
        {children}
      </main>
    </>
  );
}

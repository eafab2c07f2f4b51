import { METRIC } from '@/core/quantity/usage';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { requireSession } from '@/server/session/session';
import { viewerZone } from '@/server/session/zone';
import { RoleProvider } from '@/ui/frame/may';
import { WaitingLater } from '@/ui/carried/waiting-later';
import { ReadersLens } from '@/ui/frame/lens';
import { Rail } from '@/ui/frame/rail';
import { Remember } from '@/ui/frame/remember';
import { UsageProvider } from '@/ui/frame/usage';
import { ZoneProvider } from '@/ui/frame/zone';

export default async function House({ children }: { children: ReactNode }) {
  await headers();
  const session = await requireSession();
  const { org, person, name, role, organisation, usage = METRIC } = session;
  const zone = await viewerZone();
  const who = { org, person, name, role, organisation, usage };
  return (
    <RoleProvider role={role}>
      <UsageProvider usage={usage}>
        <ZoneProvider zone={zone}>
          <a
            href="#main"
            className="sr-only focus:not-sr-only focus:fixed focus:z-50 focus:bg-panel focus:p-3"
          >
            Skip to the content
          </a>
          <Rail who={who} />
          <main id="main" className="mx-auto max-w-[1200px] px-4 pt-4 pb-28 lg:pb-8 lg:pl-[104px] lg:pr-8">
            <WaitingLater who={who} />
            {children}
          </main>
          <Remember who={who} />
          <ReadersLens />
        </ZoneProvider>
      </UsageProvider>
    </RoleProvider>
  );
}

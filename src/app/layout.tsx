import type { Metadata, Viewport } from 'next';
import { cookies, headers } from 'next/headers';
import type { ReactNode } from 'react';
import { clockIsAdjustable } from '@/server/now';
import { keepUntilScriptsRun } from '@/ui/frame/before-scripts';
import { FullLines } from '@/ui/kit/full-lines';
import { mono, more, sans } from './faces';
import './globals.css';

export const metadata: Metadata = {
  title: { default: 'Vast Stone', template: '%s · Vast Stone' },
  description: 'A test bench for tightness work.',
};
export const viewport: Viewport = { width: 'device-width', initialScale: 1, viewportFit: 'cover' };

export default async function Root({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  const theme = (await cookies()).get('vast_theme')?.value;
  return (
    <html
      lang="en"
      className={`${sans.variable} ${more.variable} ${mono.variable}`}
      {...(theme === 'chalk' || theme === 'basalt' ? { 'data-theme': theme } : {})}
    >
      <body>
        <script
          nonce={nonce}
          suppressHydrationWarning
          dangerouslySetInnerHTML={{ __html: `(${keepUntilScriptsRun.toString()})()` }}
        />
        {clockIsAdjustable() && (
          <aside aria-label="Test server" className="bg-ochre px-4 py-1 text-sm text-on-accent lg:pl-22">
            Test server: its clock can be shifted. Nothing sealed here counts.
          </aside>
        )}
        {children}
        <FullLines />
      </body>
    </html>
  );
}
